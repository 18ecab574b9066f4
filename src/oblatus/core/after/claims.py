"""What was claimed of changes against what logs show of them, over all players of a studio. docs/models/log.md, 6."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core.log.says import EIGHT_OF_TEN

Floats = NDArray[np.float64]

CLAIMS_SD = 0.5
"""How far claims come true before anything was logged, in log (strokes.md, 6)."""
SHARES = np.linspace(0.02, 4.0, 400)
"""Shares of a claim that may come true."""
FEWEST_CLAIMS = 3


@dataclass(frozen=True, slots=True)
class Claim:
    """A change at one player: its kind, gain claimed and seen [strokes a round], and the doubt of what was seen (sd)."""

    player: str
    kind: str
    claimed: float
    seen: float
    sd: float
    shots: int


@dataclass(frozen=True, slots=True)
class CameTrue:
    """The share of claims that came true, in 8 of 10 between, its sd in log, and from how many claims and shots."""

    kind: str
    claims: int
    shots: int
    claimed: float
    seen: float
    share: float
    low: float
    high: float
    log_sd: float


def came_true(claims: Sequence[Claim], kind: str = "every change") -> CameTrue | None:
    """How much of what was claimed came true; None without a claim.

    seen = share x claimed + error, one share for all, log-normal prior of sd 0.5 about 1, on a grid.
    """
    used = [claim for claim in claims if claim.claimed > 0.0]
    if not used:
        return None
    loss = (np.log(SHARES) / CLAIMS_SD) ** 2
    for claim in used:
        loss = loss + ((claim.seen - SHARES * claim.claimed) / claim.sd) ** 2
    weight = np.exp(-0.5 * (loss - loss.min())) / SHARES  # a density in log, on a grid even in the share
    weight /= weight.sum()
    in_log = np.log(SHARES)
    mean = float(weight @ in_log)
    sd = float(np.sqrt(weight @ (in_log - mean) ** 2))
    spans = np.exp([mean, mean - EIGHT_OF_TEN * sd, mean + EIGHT_OF_TEN * sd])
    return CameTrue(
        kind, len(used), sum(claim.shots for claim in used), float(np.mean([claim.claimed for claim in used])),
        float(np.mean([claim.seen for claim in used])), float(spans[0]), float(spans[1]), float(spans[2]), sd,
    )  # fmt: skip


def claims_between(sd: float) -> tuple[float, float]:
    """Shares of what is claimed between which 8 of 10 claims come true, by the doubt of all of them (sd, in log)."""
    return math.exp(-EIGHT_OF_TEN * sd), math.exp(EIGHT_OF_TEN * sd)


def doubt_of_claims(found: CameTrue | None) -> float:
    """The sd, in log, of the common factor on new claims: how far the share is from one and how unsure it is.

    Before three claims nothing is known but the usual.
    """
    if found is None or found.claims < FEWEST_CLAIMS:
        return CLAIMS_SD
    return float(min(max(np.hypot(found.log_sd, np.log(found.share)), 0.05), 1.0))
