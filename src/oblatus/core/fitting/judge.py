"""The interface of a judge of soles: whatever says how well each head serves each scenario."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.delivery import Player
from oblatus.core.fitting.scenarios import Scenario
from oblatus.core.gapping import CarryModel

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Judgement:
    """Values of n heads in k scenarios.

    `values` (n, k) in 0..1 are the product of `parts`; `delivered` (n, k, 4) is loft, bounce, face direction
    [degrees] and edge height [m]; `wanted` (k, 2) is the delivered bounce asked for, from and to [degrees].
    Values nearer than `tie` are not told apart; under `served_well` nobody serves a scenario well.
    `speeds` (n, k) are the head speeds [m/s] that were judged, None if the judge knows none.
    """

    judge: str
    values: Floats
    parts: dict[str, Floats]
    delivered: Floats
    wanted: Floats
    tie: float
    served_well: float
    speeds: Floats | None = None


class SoleJudge(Protocol):
    """Says how well each head serves each scenario for this player."""

    def judge(self, heads: Sequence[Head], scenarios: Sequence[Scenario], player: Player, model: CarryModel) -> Judgement:
        """Values and their parts, see `Judgement`; `model` says how fast the player swings."""
        ...
