"""Sets of wedges: the exact search over lofts, number, heads and bends, and the count of sets that are level."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core.constants import MOST_WEDGES
from oblatus.core.fitting import _search
from oblatus.core.fitting.candidates import Candidate
from oblatus.core.gapping.ladder import LEAST_STEP_DEG

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
ROOM = 20_000
SAME_LOFT = 1e-6
"""Degrees by which lofts of one kind may differ."""


@dataclass(frozen=True, slots=True)
class ClubSet:
    """A set: its candidates by rising loft, and its strokes a round (practice and slots included)."""

    picks: tuple[int, ...]
    score: float


def in_order(sets: Iterable[ClubSet]) -> list[ClubSet]:
    """The sets by rising strokes; of those alike to the ninth decimal the one with fewer clubs, then lower ones, first.

    A wedge that serves nothing may make no difference, and the last digits of a sum are another processor's.
    """
    return sorted(sets, key=lambda one: (round(one.score, 9), len(one.picks), one.picks))


@dataclass(frozen=True, slots=True)
class Rules:
    """What a set must be.

    `counts` are the numbers of wedges allowed, `slot` what the place of a wedge beyond the `free` ones costs,
    `lofts_deg` a typed ladder that is filled loft for loft, `held` candidates by the loft for which the fitter chose
    them by hand: one of each is in the set.
    """

    counts: tuple[int, ...]
    slot: float = 0.0
    lofts_deg: tuple[float, ...] | None = None
    held: tuple[tuple[int, ...], ...] = ()
    favourite: bool = False
    free: int = 0

    def place(self, count: int) -> float:
        """What the places of so many wedges cost."""
        return self.slot * max(count - self.free, 0)


@dataclass(frozen=True, slots=True, eq=False)
class _Clubs:
    """Some of the candidates `of` a problem, by rising loft, as the search takes them.

    `low` (n + 1, columns) is the least of each and all after it; `before` how many come before, spaced from it, `after`
    the first one after.
    """

    of: Ints
    cost: Floats
    low: Floats
    before: Ints
    after: Ints
    codes: Ints
    stock: Ints
    bought: NDArray[np.bool_]
    group: Ints
    must: Ints


class SetProblem:
    """The search over every set: exact, prepared once and asked many times.

    Parameters
    ----------
    candidates : by rising loft
    cost : (candidates, columns) strokes a round of each candidate in each column, weights included
    fixed : (columns,) the same of the clubs above the wedges
    short : (columns,) those that a favourite club would serve alone
    lowest_deg : least loft of the first wedge
    """

    def __init__(
        self,
        candidates: Sequence[Candidate],
        cost: Floats,
        fixed: Floats,
        short: NDArray[np.bool_],
        rules: Rules,
        lowest_deg: float,
    ) -> None:
        self.candidates, self.rules = candidates, rules
        self.cost, self.fixed, self.short = cost, fixed, short
        self._cost, self._fixed = np.ascontiguousarray(cost), np.ascontiguousarray(fixed)
        if rules.favourite:  # all short shots together are a column, and no club above plays them
            alone = cost[:, short].sum(axis=1)
            self._cost = np.column_stack([cost[:, ~short], alone])
            self._fixed = np.append(fixed[~short], alone.max())
        self._prices: dict[int, Floats] = {}
        self._known: dict[bool, _Clubs] = {}
        self.lofts = np.array([candidate.head.loft_deg for candidate in candidates])
        names = {candidate.stock.code: n for n, candidate in enumerate(candidates)}
        self._codes = np.array([names[c.stock.code] for c in candidates], dtype=np.int64)
        self._stock = np.array([1 if c.stock.owned else c.stock.stock for c in candidates], dtype=np.int64)
        self.bought = np.array([candidate.bought for candidate in candidates], dtype=bool)
        lofts = rules.lofts_deg or ()
        self._group = np.array([_nearest(lofts, loft) for loft in self.lofts.tolist()], dtype=np.int64)
        self._must = np.full(len(candidates), -1, dtype=np.int64)
        for n, some in enumerate(rules.held):
            self._must[list(some)] = n
        self._usable = (self.lofts >= lowest_deg - SAME_LOFT) & ((self._group >= 0) | (not lofts))

    def best(self, heads: int, most: int = 1, limit: float = np.inf) -> list[ClubSet]:
        """The best sets with at most `heads` bought, least strokes first, none above `limit`."""
        found: list[ClubSet] = []
        for count in self.rules.counts:
            place = self.rules.place(count)
            scores, picks = np.full(most, np.inf), np.zeros((most, MOST_WEDGES), dtype=np.int64)
            bound, counts = np.array([limit - place]), np.zeros(1, dtype=np.int64)
            self._run(count, heads, bound, _search.BEST, scores, picks, counts)
            found += [
                ClubSet(tuple(int(p) for p in picks[i, :count]), float(scores[i]) + place) for i in range(int(counts[0]))
            ]
            found = in_order(found)[:most]
            if len(found) == most:
                limit = min(limit, found[-1].score)
        return found

    def within(self, heads: int, limit: float, room: int = ROOM) -> tuple[int, list[ClubSet]]:
        """Sets with at most `heads` bought and no more than `limit` strokes: how many, every one counted, and those
        that there is room to list."""
        total, listed = 0, []
        for count in self.rules.counts:
            place = self.rules.place(count)
            scores, picks = np.empty(room), np.empty((room, MOST_WEDGES), dtype=np.int64)
            bound, counts = np.array([limit - place + _search.SLACK]), np.zeros(1, dtype=np.int64)
            self._run(count, heads, bound, _search.ALL, scores, picks, counts)
            total += int(counts[0])
            kept = min(int(counts[0]), room)
            listed += [
                ClubSet(tuple(row[:count]), score + place)
                for row, score in zip(picks[:kept].tolist(), scores[:kept].tolist(), strict=True)
            ]
        return total, listed

    def score(self, picks: Sequence[int]) -> float:
        """Strokes a round of one set, as the search reckons them."""
        return float(self.columns(picks).sum()) + self.rules.place(len(picks))

    def columns(self, picks: Sequence[int]) -> Floats:
        """Strokes a round in every column: by the best club, or all short shots by the one favourite."""
        mine = self.cost[list(picks)]
        best = np.minimum(mine.min(axis=0), self.fixed) if len(mine) else self.fixed
        if self.rules.favourite and len(mine):
            alone = mine[int(mine[:, self.short].sum(axis=1).argmin())]
            best = np.where(self.short, alone, best)
        return np.asarray(best)

    def served(self, picks: Sequence[int], above: Floats) -> Ints:
        """Who serves each column: a slot of the set, -1 and below for the rows of `above` (the first is -1)."""
        mine = np.concatenate([self.cost[list(picks)], above])
        who = mine.argmin(axis=0)
        who = np.where(who < len(picks), who, len(picks) - 1 - who)
        if self.rules.favourite and picks:
            who = np.where(self.short, int(self.cost[list(picks)][:, self.short].sum(axis=1).argmin()), who)
        return np.asarray(who)

    def _run(self, count: int, heads: int, limit: Floats, keep: int, scores: Floats, picks: Ints, counts: Ints) -> None:
        """Search the sets of so many clubs: see `_search.search`."""
        if count == 0:
            self._without_wedges(limit, scores, counts)
            return
        heads = min(heads, count)
        clubs, prices = self._clubs(buying=heads > 0), self._fixed
        under = np.zeros(len(clubs.of))
        if count == 1 or len(under) < _search.FEW:
            _search.stays_under(clubs.cost, prices, 0, under)
        else:
            prices = self._prices.get(count, prices).copy()
            most = limit[0] + _search.SLACK
            bound = _search.find_prices(
                clubs.cost, self._fixed, under, _search.room_for(len(under)), clubs.before, clubs.after, clubs.bought,
                count, heads, most, prices,
            )  # fmt: skip
            self._prices[count] = prices
            if bound > most:
                return
            left = np.flatnonzero(under != _search.OUT)
            clubs, under = self._of(clubs.of[left]), under[left]
        _search.search(
            clubs.cost, self._fixed, clubs.low, prices, under, clubs.after, clubs.codes, clubs.stock, clubs.bought,
            clubs.group, clubs.must, len(self.rules.held), count, heads, limit, keep, scores, picks, counts,
        )  # fmt: skip
        found = picks[: int(counts[0]), :count]
        found[:] = clubs.of[found]

    def _clubs(self, *, buying: bool) -> _Clubs:
        """The candidates of which a set may be made, when heads are bought or none is."""
        if buying not in self._known:
            usable = self._usable if buying else self._usable & ~self.bought
            self._known[buying] = self._of(np.flatnonzero(usable))
        return self._known[buying]

    def _of(self, of: Ints) -> _Clubs:
        cost, lofts, apart = self._cost[of], self.lofts[of], LEAST_STEP_DEG - SAME_LOFT
        return _Clubs(
            of, cost, np.concatenate([np.minimum.accumulate(cost[::-1])[::-1], np.full((1, cost.shape[1]), np.inf)]),
            np.searchsorted(lofts, lofts - apart, side="right"), np.searchsorted(lofts, lofts + apart),
            self._codes[of], self._stock[of], self.bought[of], self._group[of], self._must[of],
        )  # fmt: skip

    def _without_wedges(self, limit: Floats, scores: Floats, counts: Ints) -> None:
        """The set of no wedge, where one may be: the clubs above serve everything."""
        strokes = float(self._fixed.sum())
        if strokes <= limit[0] and not self.rules.held and not self.rules.favourite:
            scores[:1] = strokes
            counts[0] += 1


def _nearest(lofts: Sequence[float], loft: float) -> int:
    """Which loft of a typed ladder a candidate stands at, -1 for none."""
    return next((n for n, wanted in enumerate(lofts) if abs(wanted - loft) < 0.01), -1)


def held_of(candidates: Sequence[Candidate], pinned: Mapping[float, str]) -> tuple[tuple[int, ...], ...]:
    """For every head chosen by hand the candidates that are it, at its loft; those that cannot be built are left out."""
    found = [
        tuple(i for i, c in enumerate(candidates) if c.stock.code == code and abs(c.head.loft_deg - loft) < 0.01)
        for loft, code in pinned.items()
    ]
    return tuple(some for some in found if some)
