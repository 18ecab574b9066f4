"""What a sheet of costs is asked, what of it is wanted, and what it answers."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from oblatus.core.delivery import Player
from oblatus.core.fitting.economy import Economy
from oblatus.core.fitting.laws import Law, as_taken
from oblatus.core.fitting.nodes import ENTRY_NODES
from oblatus.core.fitting.proved import HeadShift
from oblatus.core.fitting.scenarios import Scenario
from oblatus.core.gapping import CarryModel, Faced
from oblatus.core.grounds import Ground
from oblatus.core.shots import handicap_or_usual
from oblatus.core.strokes import _kernels as strokes_kernels
from oblatus.core.strokes.table import TOUR_TABLE, StrokesTable
from oblatus.core.strokes.worth import Scatter

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

BINS = strokes_kernels.DISTANCES


@dataclass(frozen=True, slots=True, eq=False)
class Asked:
    """What a sheet of costs depends on besides the heads.

    `short` are the scenarios of short shots, `approaches` the share of golf that is approaches on each ground of the mix.
    `law` are the laws of ground and contact; fewer `entries` make a sheet quicker and rougher, for doubt, which looks at
    differences. `proved` is what balls have shown.
    """

    player: Player
    grounds: tuple[Ground, ...]
    model: CarryModel
    short: tuple[Scenario, ...]
    approaches: tuple[tuple[Ground, float], ...]
    faced: Faced
    scatter: Scatter
    economy: Economy
    table: StrokesTable = TOUR_TABLE
    law: Law = field(default_factory=as_taken)
    entries: int = ENTRY_NODES
    proved: tuple[HeadShift, ...] = ()

    @property
    def handicap(self) -> float:
        """The handicap by which the strokes table is read."""
        return self.economy.table_scale * handicap_or_usual(self.player.handicap)

    @property
    def distances(self) -> tuple[Floats, Floats]:
        """Middles [m] and weights (sum 1) of the approaches' bins."""
        weights = self.faced.weights.reshape(BINS, -1)
        middles = (weights * self.faced.centres.reshape(BINS, -1)).sum(axis=1) / np.maximum(weights.sum(axis=1), 1e-12)
        empty = weights.sum(axis=1) <= 1e-12
        return np.where(empty, self.faced.centres.reshape(BINS, -1).mean(axis=1), middles), weights.sum(axis=1)


@dataclass(frozen=True, slots=True, eq=False)
class Costs:
    """Strokes of n heads in every column (n, columns).

    `cost` is what the search minimises, `strokes` the model's figure of the setup taken, `practice` the difference;
    `pick` the setup of a short shot, or swing and feel (2 * swing + feel) of an approach.
    """

    cost: Floats
    strokes: Floats
    pick: Ints

    def of(self, rows: Sequence[int]) -> Costs:
        """Some of the heads."""
        some = list(rows)
        return Costs(self.cost[some], self.strokes[some], self.pick[some])


@dataclass(frozen=True, slots=True, eq=False)
class Wanted:
    """What is to be reckoned: of heads the setups of every short scenario, and the swings from every ground."""

    short: NDArray[np.bool_]
    swings: NDArray[np.bool_]
