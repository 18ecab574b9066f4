"""What stands beside each club of a set: its duties, what it brings, the heads that come next, whose place it takes."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from oblatus.core.fitting.book import Book
from oblatus.core.fitting.recommendation import ClubChoice, by_shot
from oblatus.core.fitting.scenarios import Scenario
from oblatus.core.gapping.ladder import LEAST_STEP_DEG
from oblatus.core.strokes import PINS

RANKED = 8


def club_at(
    book: Book, scenarios: Sequence[Scenario], shots: Sequence[str], picks: tuple[int, ...], slot: int
) -> ClubChoice:
    """The club in a slot of the set that is picked; `shots` names the shot of every column."""
    rest = tuple(p for n, p in enumerate(picks) if n != slot)
    served = book.problem.served(picks, book.above.cost * book.sheet.weights)
    weights = book.sheet.weights
    short = [i for i, s in enumerate(scenarios) if s.shot.kind != "full"]
    duties = []
    for n, index in enumerate(short):
        mine = slice(n * len(PINS), (n + 1) * len(PINS))
        if (weights[mine] * (served[mine] == slot)).sum() > 0.5 * weights[mine].sum():
            duties.append(index)
    gain = book.served_strokes(rest) - book.served_strokes(picks)
    return ClubChoice(
        picks[slot], tuple(duties), _ranked(book, picks, slot), book.strokes(rest) - book.strokes(picks), gain,
        by_shot(shots, gain), _replaced(book, picks, slot),
    )  # fmt: skip


def _ranked(book: Book, picks: tuple[int, ...], slot: int) -> tuple[tuple[int, float], ...]:
    """Every head in this slot at its best bend, the rest of the set as it is: strokes a round behind the set."""
    rest = [p for n, p in enumerate(picks) if n != slot]
    lofts = [book.candidates[p].head.loft_deg for p in rest]
    low = max([x for n, x in enumerate(lofts) if n < slot], default=book.lowest - LEAST_STEP_DEG) + LEAST_STEP_DEG - 1e-6
    high = min([x for n, x in enumerate(lofts) if n >= slot], default=np.inf) - LEAST_STEP_DEG + 1e-6
    now = book.problem.score(picks)
    best: dict[str, tuple[float, int]] = {}
    used = {book.candidates[p].stock.code for p in rest}
    typed = book.rules.lofts_deg
    columns = book.problem.columns(rest)
    favourite = book.rules.favourite
    for i, candidate in enumerate(book.candidates):
        if not low <= candidate.head.loft_deg <= high or candidate.stock.code in used:
            continue
        if typed is not None and abs(candidate.head.loft_deg - typed[slot]) > 0.01:
            continue
        if favourite or not rest:
            score = book.problem.score([*rest, i])
        else:
            score = float(np.minimum(columns, book.problem.cost[i]).sum()) + book.rules.place(len(picks))
        behind = -np.inf if i == picks[slot] else score - now  # the one in the set stands for its head at every bend
        if behind < best.get(candidate.stock.code, (np.inf, -1))[0]:
            best[candidate.stock.code] = (behind, i)
    ranked = sorted(
        ((i, max(behind, 0.0) if i == picks[slot] else behind) for behind, i in best.values()),
        key=lambda row: (row[0] != picks[slot], row[1]),
    )
    return tuple(ranked[:RANKED])


def _replaced(book: Book, picks: tuple[int, ...], slot: int) -> str | None:
    """The owned wedge whose place a club takes: itself if it is owned, else the nearest in loft of those that leave."""
    chosen = [book.candidates[p] for p in picks]
    if not chosen[slot].bought:
        return chosen[slot].stock.code
    kept = {candidate.stock.code for candidate in chosen if not candidate.bought}
    free = [item for item in book.owned if item.code not in kept]
    pairs = sorted(
        (abs(chosen[n].head.loft_deg - item.head.loft_deg), n, item.code)
        for n in range(len(chosen)) if chosen[n].bought for item in free
    )  # fmt: skip
    taken_slots: dict[int, str] = {}
    for _, n, code in pairs:
        if n not in taken_slots and code not in taken_slots.values():
            taken_slots[n] = code
    return taken_slots.get(slot)
