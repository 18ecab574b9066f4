"""The ladder of lofts below the pitching wedge: every ladder on the half-degree grid scored, the best for each count."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from oblatus.core.delivery import Schools
from oblatus.core.gapping import _kernels
from oblatus.core.gapping.carries import SWINGS, CarryModel
from oblatus.units import METRES_PER_YARD

Floats = NDArray[np.float64]

MOST_LOFT_DEG = 64.0
LEAST_STEP_DEG = 2.0
MOST_WEDGES = 4
BINS = 64
LEAST_DISTANCE = 30.0
RUNG_TOLERANCE = 0.04
LEAST_RUNG_TOLERANCE = 2.5
WEDGE_COST = 0.30
CHANGE_COST = 0.02
STEP_RULE_DEG = (4.0, 6.0)


@dataclass(frozen=True, slots=True)
class LadderWeights:
    """How much each part of the penalty counts."""

    uncovered: float = 3.0
    gaps: float = 1.0
    steps: float = 0.6
    overlaps: float = 0.5
    top_loft: float = 0.8
    cost: float = 1.0

    def array(self) -> Floats:
        """The weights in the order of the kernel's parts."""
        return np.array([self.uncovered, self.gaps, self.steps, self.overlaps, self.top_loft, self.cost])


SCHOOL_WEIGHTS = {
    "equal_carry": LadderWeights(),
    "equal_loft": LadderWeights(gaps=1.2, steps=0.9),
    "clock_cover": LadderWeights(uncovered=6.0, gaps=0.35, steps=0.3),
}


@dataclass(frozen=True, slots=True)
class LadderWish:
    """What the ladder should do for this player.

    `lofts_deg` are the lofts that can be built; `owned_deg` those that an owned wedge reaches;
    `wanted_top_deg` follows from the high shots of the shot mix.
    """

    lofts_deg: tuple[float, ...]
    owned_deg: frozenset[float]
    wanted_top_deg: float
    school: Schools


@dataclass(frozen=True, slots=True)
class Ladder:
    """A ladder with its penalty, the weighted parts of it, its full-swing gaps [m] and what it leaves uncovered [m]."""

    lofts_deg: tuple[float, ...]
    penalty: float
    parts: dict[str, float]
    gaps: tuple[float, ...]
    wanted_gap: float
    uncovered: float


PART_NAMES = ("uncovered", "gaps", "steps", "overlaps", "top_loft", "cost")


def wanted_gap(pitching_wedge_carry: float) -> float:
    """Full-swing gap to aim for [m]: about 10.5 % of the pitching wedge's carry, 8 to 15 m.

    The usual 10 to 15 yards for most players, wider for fast ones.
    """
    return min(max(0.105 * pitching_wedge_carry, 8.0), 15.0)


def overlap_limit(gap: float) -> float:
    """Full carries closer than this [m] overlap uselessly: half the wanted gap, at least 5 yards."""
    return max(0.5 * gap, 5.0 * METRES_PER_YARD)


def search_ladders(model: CarryModel, wish: LadderWish, count: int, best: int = 3) -> list[Ladder]:
    """The best ladders of `count` wedges, by enumeration of every ladder of buildable lofts.

    Returns fewer than `best`, or none, if the buildable lofts do not allow it.
    """
    lofts = np.array(sorted(loft for loft in wish.lofts_deg if _below(loft, model)))
    if len(lofts) < count:
        return []
    ladders = _combinations(len(lofts), count)
    penalty, parts, axis = _score(model, wish, lofts, ladders)
    few = np.argpartition(penalty, min(best, len(penalty) - 1))[:best] if best < len(penalty) else np.arange(len(penalty))
    order = few[np.argsort(penalty[few], kind="stable")]
    return [_ladder(model, wish, lofts[ladders[i]], float(penalty[i]), parts[i], axis) for i in order]


def score_ladder(model: CarryModel, wish: LadderWish, lofts_deg: Sequence[float]) -> Ladder:
    """One ladder, typed by the fitter, scored like the others."""
    lofts = np.array(sorted(lofts_deg))
    ladders = np.arange(len(lofts), dtype=np.int64).reshape(1, -1)
    penalty, parts, axis = _score(model, wish, lofts, ladders)
    return _ladder(model, wish, lofts, float(penalty[0]), parts[0], axis)


def _below(loft_deg: float, model: CarryModel) -> bool:
    return model.pitching_wedge_loft_deg + LEAST_STEP_DEG <= loft_deg <= MOST_LOFT_DEG


@lru_cache(maxsize=16)
def _combinations(n: int, count: int) -> NDArray[np.int64]:
    return np.array(list(combinations(range(n), count)), dtype=np.int64)


@dataclass(frozen=True, slots=True)
class _Axis:
    """The distances a player faces: bin centres [m], weights (sum 1) and bin width [m]."""

    centres: Floats
    weights: Floats
    width: float


def _axis(longest: float) -> _Axis:
    """Distances from 30 m to the pitching wedge's full carry, each faced equally often."""
    edges = np.linspace(min(LEAST_DISTANCE, 0.5 * longest), longest, BINS + 1)
    return _Axis(0.5 * (edges[1:] + edges[:-1]), np.full(BINS, 1.0 / BINS), float(edges[1] - edges[0]))


def _score(
    model: CarryModel, wish: LadderWish, lofts: Floats, ladders: NDArray[np.int64]
) -> tuple[Floats, Floats, _Axis]:
    carries = model.carries(np.append(model.pitching_wedge_loft_deg, lofts), SWINGS)
    axis = _axis(float(carries[0, 0]))
    masks = _masks(carries, axis)
    gap = wanted_gap(float(carries[0, 0]))
    school = {"equal_carry": 0.0, "equal_loft": 1.0, "clock_cover": 2.0}[wish.school.gaps]
    wishes = np.array([gap, *STEP_RULE_DEG, wish.wanted_top_deg, overlap_limit(gap), school])
    costs = np.array([WEDGE_COST + (0.0 if loft in wish.owned_deg else CHANGE_COST) for loft in lofts])
    parts = np.empty((len(ladders), _kernels.PARTS))
    _kernels.score(
        ladders, lofts, carries[1:, 0].copy(), masks[1:], axis.weights, masks[0],
        model.pitching_wedge_loft_deg, carries[0, 0], wishes, costs, parts,
    )  # fmt: skip
    parts *= SCHOOL_WEIGHTS[wish.school.gaps].array()
    return parts.sum(axis=1), parts, axis


def _masks(carries: Floats, axis: _Axis) -> NDArray[np.uint64]:
    """Bits of the bins within the tolerance of any swing's carry, one number a loft."""
    tolerance = np.maximum(RUNG_TOLERANCE * carries, LEAST_RUNG_TOLERANCE)
    near = np.abs(axis.centres[None, None, :] - carries[:, :, None]) <= tolerance[:, :, None]
    bits = np.uint64(1) << np.arange(BINS, dtype=np.uint64)
    return np.asarray(np.bitwise_or.reduce(np.where(near.any(axis=1), bits, np.uint64(0)), axis=1), dtype=np.uint64)


def _ladder(model: CarryModel, wish: LadderWish, lofts: Floats, penalty: float, parts: Floats, axis: _Axis) -> Ladder:
    carries = model.carries(np.append(model.pitching_wedge_loft_deg, lofts), SWINGS[:1])[:, 0]
    share = parts[_kernels.UNCOVERED] / SCHOOL_WEIGHTS[wish.school.gaps].uncovered
    return Ladder(
        lofts_deg=tuple(float(loft) for loft in lofts),
        penalty=penalty,
        parts=dict(zip(PART_NAMES, (float(p) for p in parts), strict=True)),
        gaps=tuple(float(g) for g in carries[:-1] - carries[1:]),
        wanted_gap=wanted_gap(float(carries[0])),
        uncovered=float(share) * axis.width * BINS,
    )
