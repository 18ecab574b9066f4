"""The whole set judged together: candidates for each loft of the ladder, and the exact search over their combinations."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head, StockHead
from oblatus.core.fitting import _kernels
from oblatus.errors import InputError

Floats = NDArray[np.float64]

BEND_TOLERANCE_DEG = 0.01
NEW_HEAD_COST = 0.004
BEND_COST_PER_DEG = 0.001


@dataclass(frozen=True, slots=True)
class Candidate:
    """A head as it would be built for one loft: where it comes from, the bend [degrees], and the head after it."""

    stock: StockHead
    slot: int
    bend_deg: float
    head: Head

    @property
    def cost(self) -> float:
        """What the change costs, in units of set value."""
        return (0.0 if self.stock.owned else NEW_HEAD_COST) + BEND_COST_PER_DEG * abs(self.bend_deg)


@dataclass(frozen=True, slots=True)
class ClubSet:
    """A set: one candidate index a slot, and its score."""

    picks: tuple[int, ...]
    score: float


def reachable_lofts(stock: Sequence[StockHead], grid_deg: float = 0.5) -> tuple[float, ...]:
    """Lofts on the half-degree grid that some head reaches within its bend limit."""
    found: set[float] = set()
    for item in stock:
        if not (item.owned or item.stock > 0):
            continue
        low = np.ceil((item.head.loft_deg - item.bend_limit_deg) / grid_deg - 1e-9)
        high = np.floor((item.head.loft_deg + item.bend_limit_deg) / grid_deg + 1e-9)
        found.update(float(step) * grid_deg for step in np.arange(low, high + 1))
    return tuple(sorted(found))


def candidates_for(lofts_deg: Sequence[float], stock: Sequence[StockHead]) -> list[Candidate]:
    """Every head that reaches each loft within its bend limit, slot by slot."""
    found: list[Candidate] = []
    for slot, loft in enumerate(lofts_deg):
        for item in stock:
            bend = loft - item.head.loft_deg
            if abs(bend) > item.bend_limit_deg + BEND_TOLERANCE_DEG or not (item.owned or item.stock > 0):
                continue
            try:
                head = item.head.bent(bend) if abs(bend) > BEND_TOLERANCE_DEG else item.head
            except InputError:
                continue  # the bend would leave no bounce: not a club that anyone would build
            found.append(Candidate(item, slot, bend if abs(bend) > BEND_TOLERANCE_DEG else 0.0, head))
    return found


class SetProblem:
    """The search over every combination of one candidate a slot: exact, prepared once and asked many times.

    Parameters
    ----------
    values : (candidates, scenarios) value of each candidate
    shares : (scenarios,) weights of the scenarios that go to the best club
    fixed : (scenarios,) value of the clubs above the wedges
    short : (scenarios,) those that a favourite club would serve alone
    favourite : one club for all short shots instead of the best one for each
    own : (candidates,) what each club brings whatever the others do, such as its own full swings
    """

    def __init__(
        self,
        candidates: Sequence[Candidate],
        values: Floats,
        shares: Floats,
        fixed: Floats,
        short: NDArray[np.bool_],
        *,
        favourite: bool = False,
        own: Floats | None = None,
    ) -> None:
        net = np.array([candidate.cost for candidate in candidates]) - (0.0 if own is None else own)
        promise = values @ shares - net
        slot = np.array([candidate.slot for candidate in candidates], dtype=np.int64)
        self.slots = int(slot.max(initial=-1)) + 1
        # within a slot the most promising first: good sets are met early and the bound cuts more
        self.order = np.lexsort((-promise, slot))
        self.place = np.empty_like(self.order)
        self.place[self.order] = np.arange(len(self.order))
        self.counts = np.bincount(slot, minlength=self.slots)
        self.starts = np.concatenate([[0], np.cumsum(self.counts)[:-1]]).astype(np.int64)
        names = {candidate.stock.code: n for n, candidate in enumerate(candidates)}
        codes = np.array([names[candidate.stock.code] for candidate in candidates], dtype=np.int64)
        single = np.array([candidate.stock.owned or candidate.stock.stock < 2 for candidate in candidates], dtype=bool)
        self.codes, self.single, self.net = codes[self.order], single[self.order], net[self.order]
        self.values = np.ascontiguousarray(values[self.order])
        self.shares, self.fixed, self.short, self.favourite = shares, fixed, short, favourite

    def search(self, best: int = 10, held: Mapping[int, int] | None = None) -> list[ClubSet]:
        """The best sets, first the best; `held` maps a slot to the candidate that must fill it."""
        if self.slots == 0 or not self.counts.all():
            return []
        starts, counts = self.starts.copy(), self.counts.copy()
        for slot, candidate in (held or {}).items():
            starts[slot], counts[slot] = self.place[candidate], 1
        scores = np.empty(best)
        picks = np.zeros((best, self.slots), dtype=np.int64)
        found, _ = _kernels.search(
            self.values, self.shares, self.short, starts, counts, self.codes, self.single, self.net, self.fixed,
            self.favourite, scores, picks,
        )  # fmt: skip
        return [ClubSet(tuple(int(self.order[p]) for p in picks[i]), float(scores[i])) for i in range(found)]

    def score(self, picks: Sequence[int]) -> float:
        """The score of one set, as the search reckons it."""
        rows = self.place[list(picks)]
        mine = self.values[rows]
        best = np.maximum(mine.max(axis=0), self.fixed)
        served = (np.where(self.short, mine, best) @ self.shares).max() if self.favourite else best @ self.shares
        return float(served - self.net[rows].sum())
