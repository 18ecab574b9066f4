"""What a log puts in the place of what was assumed: shots and distances faced, and how the strokes table fits a player.
docs/models/log.md, 3.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from oblatus.core.gapping import Faced
from oblatus.core.log.says import EIGHT_OF_TEN
from oblatus.core.log.shots import APPROACH, After, LoggedShot
from oblatus.core.shots import CATALOGUE, SHORT_SHOTS
from oblatus.core.strokes.table import TOUR_TABLE, StrokesTable

Floats = NDArray[np.float64]

ASSUMED_SHOTS = 30.0
"""By how many shots the assumed mix counts beside those that were logged (judgement)."""
BAND_EDGES = (30.0, 45.0, 60.0, 75.0, 90.0, 105.0, 125.0)
"""Stretches in which the distances of approaches are counted [m]; the last is open."""
SCALE_SD = 0.25
"""How far the handicap's weight in the strokes table is off from player to player, in log (strokes.md, 6)."""
HOLED_SD = 0.55
"""Spread of the strokes that one ball takes to hole out about the table's (judgement)."""
SCALES = np.linspace(0.3, 2.5, 221)
"""Weights of the handicap that are looked at."""


def mix_of(shots: Sequence[LoggedShot], assumed: Mapping[str, float]) -> dict[str, float]:
    """Shares (sum 1) of the catalogue: counted, with the assumed mix as so many shots (Dirichlet).

    Full and part swings to a green are logged as approaches: they keep their shares among themselves.
    """
    counts = Counter(shot.situation for shot in shots)
    full = [shot.key for shot in CATALOGUE if shot.key not in SHORT_SHOTS]
    of_full = sum(assumed.get(key, 0.0) for key in full)
    total = ASSUMED_SHOTS + len(shots)

    def share(key: str) -> float:
        if key not in full:
            return (ASSUMED_SHOTS * assumed.get(key, 0.0) + counts[key]) / total
        part = assumed.get(key, 0.0) / of_full if of_full > 0.0 else 1.0 / len(full)
        return part * (ASSUMED_SHOTS * of_full + counts[APPROACH]) / total

    return {shot.key: share(shot.key) for shot in CATALOGUE}


@dataclass(frozen=True, slots=True)
class FacedBand:
    """A stretch of distances [m]: approaches counted there, its share (sum 1), and the share that was assumed."""

    low: float
    high: float
    count: int
    share: float
    assumed: float


def bands_of(shots: Sequence[LoggedShot], faced: Faced) -> list[FacedBand]:
    """How often distances are faced: counted, with what was assumed as so many shots; nothing from no distance."""
    longest = float(faced.centres[-1] + 0.5 * faced.width)
    edges = [edge for edge in BAND_EDGES if edge < longest - 5.0]
    edges.append(max(longest, edges[-1] + 5.0))
    told = [shot.distance for shot in shots if shot.situation == APPROACH and shot.distance is not None]
    if not told:
        return []
    counts, _ = np.histogram(np.clip(told, edges[0], edges[-1]), edges)
    assumed, _ = np.histogram(faced.centres, edges, weights=faced.weights)
    assumed = assumed / assumed.sum()
    shares = (ASSUMED_SHOTS * assumed + counts) / (ASSUMED_SHOTS + len(told))
    return [
        FacedBand(low, high, int(n), float(share), float(before))
        for (low, high), n, share, before in zip(pairwise(edges), counts, shares, assumed, strict=True)
    ]


@dataclass(frozen=True, slots=True)
class TableScale:
    """How much of the handicap the strokes table wants for this player: most likely, in 8 of 10 between, from so many
    balls that were counted until they were holed."""

    scale: float
    low: float
    high: float
    balls: int


def scale_of(
    counted: Sequence[tuple[After, int]], handicap: float, table: StrokesTable = TOUR_TABLE
) -> TableScale | None:
    """The handicap's weight by which the table says what was needed; None without a counted ball.

    Parameters
    ----------
    counted : where a ball lay, and in how many strokes it was holed from there
    handicap : the player's own

    Notes
    -----
    Normal counts with sd 0.55 about the table, log-normal prior of sd 0.25 about 1, on a grid.
    """
    balls = [(after, strokes) for after, strokes in counted if after.lie is not None]
    if not balls:
        return None
    loss = (np.log(SCALES) / SCALE_SD) ** 2
    needed = np.array([strokes for _, strokes in balls], dtype=float)
    for n, scale in enumerate(SCALES):
        says = [float(table.strokes(after.lie, after.left, handicap * scale)) for after, _ in balls if after.lie]
        loss[n] += float((((needed - np.array(says)) / HOLED_SD) ** 2).sum())
    weight = np.exp(-0.5 * (loss - loss.min()))
    weight /= weight.sum()
    mean = float(weight @ SCALES)
    sd = float(np.sqrt(weight @ (SCALES - mean) ** 2))
    return TableScale(mean, mean - EIGHT_OF_TEN * sd, mean + EIGHT_OF_TEN * sd, len(balls))
