"""The ladder of lofts below the pitching wedge: of all on the half-degree grid the best for each count."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, fields
from functools import lru_cache
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from oblatus.core.delivery import Schools
from oblatus.core.gapping import _kernels
from oblatus.core.gapping.carries import CarryModel
from oblatus.core.gapping.faced import Faced
from oblatus.core.threads import share_out
from oblatus.units import METRES_PER_YARD

Floats = NDArray[np.float64]
Ladders = NDArray[np.int64]

MOST_LOFT_DEG = 64.0
LEAST_STEP_DEG = 2.0
RUNG_TOLERANCE = 0.04
LEAST_RUNG_TOLERANCE = 2.5
STEP_RULE_DEG = (4.0, 6.0)
ALTERNATIVE_DEG = 3.0
"""Two shots of like carry are an alternative in wind or to a firm green when they land this far apart [degrees]."""
WEDGE_COST = 0.30
"""A wedge by itself: a place among 14, and the practice that it wants."""
BUY_COST, BEND_COST, BEND_COST_PER_DEG = 0.03, 0.004, 0.002
COSTS_APART = 0.02
WORTH_A_THREAD = 1000


@dataclass(frozen=True, slots=True)
class LadderWeights:
    """How much each part of the penalty counts."""

    uncovered: float = 3.0
    gaps: float = 1.0
    steps: float = 0.6
    overlaps: float = 0.5
    top_loft: float = 0.8
    alternatives: float = 0.15
    cost: float = 1.0

    def array(self) -> Floats:
        """The weights in the order of the kernel's parts."""
        return np.array([getattr(self, part.name) for part in fields(self)])

    def times(self, factors: dict[str, float]) -> LadderWeights:
        """The weights with the fitter's own factors (1 where none is given)."""
        return LadderWeights(
            *(value * factors.get(name, 1.0) for name, value in zip(PART_NAMES, self.array(), strict=True))
        )


PART_NAMES = tuple(part.name for part in fields(LadderWeights))
PART_WORDS = {
    "uncovered": "uncovered distance",
    "gaps": "uneven gaps",
    "steps": f"steps outside {STEP_RULE_DEG[0]:g} to {STEP_RULE_DEG[1]:g}°",
    "overlaps": "overlaps",
    "top_loft": "top loft for the shot mix",
    "alternatives": "no other flight in wind",
    "cost": "clubs, bends, practice",
}

SCHOOL_WEIGHTS = {
    "equal_carry": LadderWeights(),
    "equal_loft": LadderWeights(gaps=1.2, steps=0.9),
    "clock_cover": LadderWeights(uncovered=6.0, gaps=0.35, steps=0.3),
}


@dataclass(frozen=True, slots=True)
class OwnedLoft:
    """A wedge the player owns: loft and how far it may be bent either way [degrees]."""

    code: str
    name: str
    loft_deg: float
    limit_deg: float


@dataclass(frozen=True, slots=True)
class LadderWish:
    """What the ladder should do for this player.

    `lofts_deg` are the lofts that can be built; `wanted_top_deg` follows from the high shots of the shot mix; `faced` is
    how often each distance is asked for; `factors` are the fitter's own weights on the parts.
    """

    lofts_deg: tuple[float, ...]
    owned: tuple[OwnedLoft, ...]
    wanted_top_deg: float
    school: Schools
    faced: Faced
    factors: dict[str, float] = field(default_factory=dict)

    @property
    def weights(self) -> LadderWeights:
        """The school's weights times the fitter's."""
        return SCHOOL_WEIGHTS[self.school.gaps].times(self.factors)


@dataclass(frozen=True, slots=True)
class Change:
    """How a loft of the ladder is come by: the owned wedge kept or bent [degrees], or None when a head is bought."""

    owned: OwnedLoft | None
    bend_deg: float = 0.0


@dataclass(frozen=True, slots=True)
class Ladder:
    """A ladder: penalty with its weighted parts, full-swing gaps [m], uncovered distance [m], and what is to be done.

    `cost` is the part before its weight, `uncovered_share` the share of faced distances that no swing reaches,
    `alone_share` that with one shot at most. `left_out` are the owned wedges that it has no place for.
    """

    lofts_deg: tuple[float, ...]
    penalty: float
    parts: dict[str, float]
    gaps: tuple[float, ...]
    wanted_gap: float
    uncovered: float
    uncovered_share: float
    alone_share: float
    cost: float
    changes: tuple[Change, ...]
    left_out: tuple[OwnedLoft, ...]


def wanted_gap(pitching_wedge_carry: float) -> float:
    """Full-swing gap to aim for [m]: about 10.5 % of the pitching wedge's carry, 8 to 15 m.

    The usual 10 to 15 yards for most players, wider for fast ones.
    """
    return min(max(0.105 * pitching_wedge_carry, 8.0), 15.0)


def overlap_limit(gap: float) -> float:
    """Full carries closer than this [m] overlap uselessly: half the wanted gap, at least 5 yards."""
    return max(0.5 * gap, 5.0 * METRES_PER_YARD)


def reach_of(carry: Floats | float) -> Floats:
    """How far from its carry a rung still serves [m]: 4 %, at least 2.5 m. Farther from every rung is a hole."""
    return np.maximum(RUNG_TOLERANCE * np.asarray(carry), LEAST_RUNG_TOLERANCE)


@lru_cache(maxsize=16)
def _combinations(n: int, count: int) -> Ladders:
    return np.array(list(combinations(range(n), count)), dtype=np.int64).reshape(-1, count)


class LadderSearch:
    """Every ladder of the buildable lofts: what each covers, and which of all of them is the best."""

    def __init__(self, model: CarryModel, wish: LadderWish) -> None:
        least = model.pitching_wedge_loft_deg + LEAST_STEP_DEG
        self.model, self.wish = model, wish
        self.table = _Table(model, wish, np.array(sorted(x for x in wish.lofts_deg if least <= x <= MOST_LOFT_DEG)))
        self._parts: dict[int, Floats] = {}

    def best(self, count: int) -> list[Ladder]:
        """The best ladder of `count` wedges; none if the buildable lofts do not allow it."""
        ladders = _combinations(len(self.table.lofts), count)
        if not len(ladders):
            return []
        ladder = ladders[self.table.best_of(ladders)]
        return [self.table.ladder(ladder, self.table.score(ladder.reshape(1, -1))[0])]

    def score(self, lofts_deg: Sequence[float]) -> Ladder:
        """One ladder, typed by the fitter, scored like the others."""
        table = _Table(self.model, self.wish, np.array(sorted(lofts_deg)))
        ladder = np.arange(len(table.lofts), dtype=np.int64)
        return table.ladder(ladder, table.score(ladder.reshape(1, -1))[0])

    def front(self, most: int, rounding: float = 0.03) -> list[Ladder]:
        """Cover against cost: of all ladders of up to `most` wedges those that none beats in both, cheapest first.

        Uncovered shares are told apart from three per cent on, costs from 0.02; of ladders level in both, the one of
        least penalty.
        """
        found: list[tuple[float, float, float, Ladders, Floats]] = []
        for count in range(1, most + 1):
            ladders, parts = self._every(count)
            penalty = parts @ self.wish.weights.array()
            open_share = np.round(parts[:, _kernels.UNCOVERED] / rounding) * rounding
            price = np.round(parts[:, _kernels.COST] / COSTS_APART) * COSTS_APART
            order = np.lexsort((penalty, price, open_share))
            _, first = np.unique(open_share[order], return_index=True)
            found.extend(
                (float(price[i]), float(open_share[i]), float(penalty[i]), ladders[i], parts[i]) for i in order[first]
            )
        found.sort(key=lambda row: row[:3])
        front: list[Ladder] = []
        least_open = np.inf
        for _, open_here, _, ladder, row in found:
            if open_here < least_open - 0.5 * rounding:
                least_open = open_here
                front.append(self.table.ladder(ladder, row))
        return front

    def _every(self, count: int) -> tuple[Ladders, Floats]:
        """Every ladder of a count with its parts, scored once."""
        ladders = _combinations(len(self.table.lofts), count)
        if count not in self._parts:
            self._parts[count] = self.table.score(ladders)
        return ladders, self._parts[count]


class _Table:
    """What every loft of a list covers, and the scoring of ladders made of them."""

    def __init__(self, model: CarryModel, wish: LadderWish, lofts: Floats) -> None:
        self.wish, self.lofts = wish, lofts
        flights = model.flights(np.append(model.pitching_wedge_loft_deg, lofts))
        carries, lands = flights[:, :, 0], np.degrees(flights[:, :, 2])
        self.full = np.ascontiguousarray(carries[:, 0])
        self.gap = wanted_gap(float(self.full[0]))
        near = np.abs(wish.faced.centres[None, None, :] - carries[:, :, None]) <= reach_of(carries)[:, :, None]
        self.low = np.where(near, lands[:, :, None], np.inf).min(axis=1)
        self.high = np.where(near, lands[:, :, None], 0.0).max(axis=1)
        school = {"equal_carry": _kernels.CARRY, "equal_loft": _kernels.LOFT, "clock_cover": _kernels.CLOCK}
        self.wishes = np.array(
            [
                self.gap,
                *STEP_RULE_DEG,
                wish.wanted_top_deg,
                overlap_limit(self.gap),
                school[wish.school.gaps],
                ALTERNATIVE_DEG,
            ]
        )
        self.pitching = np.array([model.pitching_wedge_loft_deg, self.full[0]])
        self.owned = np.array([wedge.loft_deg for wedge in wish.owned], dtype=float)
        self.limits = np.array([wedge.limit_deg for wedge in wish.owned], dtype=float)
        self.costs = np.array([BUY_COST, BEND_COST, BEND_COST_PER_DEG])

    def score(self, ladders: Ladders) -> Floats:
        """Parts (n, PARTS) before their weights."""
        parts = np.empty((len(ladders), _kernels.PARTS))
        about = self._about()

        def work(some: slice) -> None:
            _kernels.score(*(ladders[some], *about, parts[some]))

        share_out(work, len(ladders), WORTH_A_THREAD)
        parts[:, _kernels.COST] += WEDGE_COST * ladders.shape[1]
        return parts

    def best_of(self, ladders: Ladders) -> int:
        """The place of the one of least penalty among ladders (n, count)."""
        return int(_kernels.best_of(*(ladders, *self._about(), self.wish.weights.array())))

    def _about(self) -> tuple[Floats, ...]:
        """What the kernels are told of the lofts."""
        return (
            self.lofts, self.full[1:].copy(), self.low[1:].copy(), self.high[1:].copy(), self.wish.faced.weights,
            self.low[0], self.high[0], self.pitching, self.wishes, self.owned, self.limits, self.costs,
        )  # fmt: skip

    def ladder(self, ladder: Ladders, parts: Floats) -> Ladder:
        """A ladder with its words."""
        weighted = parts * self.wish.weights.array()
        full = np.append(self.full[0], self.full[1:][ladder])
        plan = np.full(len(ladder), -1)
        scratch, spent = np.full(len(ladder), -1), np.zeros(len(ladder) + 1)
        _kernels.cheapest(self.lofts, ladder, self.owned, self.limits, self.costs, scratch, plan, spent)
        lofts = self.lofts[ladder]
        changes = tuple(
            Change(None) if i < 0 else Change(self.wish.owned[i], round(float(loft - self.owned[i]), 2))
            for i, loft in zip(plan.tolist(), lofts, strict=True)
        )
        span = self.wish.faced.width * len(self.wish.faced.centres)
        covered = np.append(self.high[:1], self.high[1:][ladder], axis=0).max(axis=0) > 0.0
        return Ladder(
            lofts_deg=tuple(float(loft) for loft in lofts),
            penalty=float(weighted.sum()),
            parts=dict(zip(PART_NAMES, (float(part) for part in weighted), strict=True)),
            gaps=tuple(float(gap) for gap in full[:-1] - full[1:]),
            wanted_gap=self.gap,
            uncovered=float(span * (1.0 - covered.mean())),
            uncovered_share=float(parts[_kernels.UNCOVERED]),
            alone_share=float(parts[_kernels.ALTERNATIVES]),
            cost=float(parts[_kernels.COST]),
            changes=changes,
            left_out=tuple(wedge for i, wedge in enumerate(self.wish.owned) if i not in plan.tolist()),
        )
