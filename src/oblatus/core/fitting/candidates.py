"""Candidates: every head on the rack or owned, bent to every half degree within its limits."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from oblatus.core.clubs import Head, StockHead
from oblatus.core.gapping.ladder import MOST_LOFT_DEG
from oblatus.errors import InputError

GRID_DEG = 0.5
BEND_TOLERANCE_DEG = 0.01


@dataclass(frozen=True, slots=True)
class Candidate:
    """A head as it would be built: where it comes from, the bend [degrees], and the head after it."""

    stock: StockHead
    bend_deg: float
    head: Head

    @property
    def bought(self) -> bool:
        """Whether it has to be bought."""
        return not self.stock.owned


def candidates_of(
    stock: Sequence[StockHead], lowest_deg: float, lofts_deg: Sequence[float] | None = None
) -> list[Candidate]:
    """Every head at every half degree within its bend limit and as it stands, by loft; or at the given lofts only.

    Heads that are neither owned nor in stock, lofts under `lowest_deg` and over 64, and bends that would leave no bounce
    are left out.
    """
    return list(_candidates(tuple(stock), lowest_deg, None if lofts_deg is None else tuple(lofts_deg)))


@lru_cache(maxsize=32)
def _candidates(
    stock: tuple[StockHead, ...], lowest_deg: float, lofts_deg: tuple[float, ...] | None
) -> tuple[Candidate, ...]:
    found: list[Candidate] = []
    for item in stock:
        if not (item.owned or item.stock > 0):
            continue
        for loft in _lofts(item, lofts_deg):
            bend = loft - item.head.loft_deg
            as_it_is = abs(bend) <= BEND_TOLERANCE_DEG
            if loft < lowest_deg - 1e-9 or (loft > MOST_LOFT_DEG + 1e-9 and not (item.owned and as_it_is)):
                continue
            try:
                head = item.head if as_it_is else item.head.bent(bend)
            except InputError:
                continue  # the bend would leave no bounce: not a club that anyone would build
            found.append(Candidate(item, 0.0 if as_it_is else bend, head))
    return tuple(sorted(found, key=lambda candidate: (candidate.head.loft_deg, candidate.bought)))


def _lofts(item: StockHead, wanted: Sequence[float] | None) -> list[float]:
    """Lofts at which a head can stand."""
    loft, limit = item.head.loft_deg, item.bend_limit_deg + BEND_TOLERANCE_DEG
    if wanted is not None:
        return [float(x) for x in wanted if abs(x - loft) <= limit]
    low, high = np.ceil((loft - limit) / GRID_DEG), np.floor((loft + limit) / GRID_DEG)
    grid = [float(step) * GRID_DEG for step in np.arange(low, high + 1)]
    return grid if any(abs(x - loft) <= BEND_TOLERANCE_DEG for x in grid) else [*grid, loft]


def reachable_lofts(stock: Sequence[StockHead]) -> tuple[float, ...]:
    """Lofts on the half-degree grid that some head reaches within its bend limit."""
    return _reachable(tuple(stock))


@lru_cache(maxsize=32)
def _reachable(stock: tuple[StockHead, ...]) -> tuple[float, ...]:
    found = {
        loft
        for item in stock
        if item.owned or item.stock > 0
        for loft in _lofts(item, None)
        if abs(loft / GRID_DEG - round(loft / GRID_DEG)) < 1e-9
    }
    return tuple(sorted(found))
