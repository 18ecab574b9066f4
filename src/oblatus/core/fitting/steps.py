"""The decision: the fewest changes that matter, and which of several level sets to show. docs/models/strokes.md, 5."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from itertools import groupby, pairwise
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from oblatus.core.fitting.candidates import Candidate
from oblatus.core.fitting.economy import Economy
from oblatus.core.fitting.sets import ClubSet, Rules

Floats = NDArray[np.float64]
THERE = 0.8
BENCH_APART = 0.005

StepKind = Literal["bag", "bends", "heads"]


@dataclass(frozen=True, slots=True)
class Step:
    """A step of change: today's bag, bends only, or a number of heads bought.

    `score` is what the search minimises (practice and places included), `strokes` the model's, `place` what the places of
    its wedges cost, all a round; `gain` is the model's gain over today's bag.
    """

    kind: StepKind
    heads: int
    picks: tuple[int, ...]
    score: float
    strokes: float
    gain: float
    place: float = 0.0


def wins(step: Step, further: Step) -> float:
    """Strokes a round that a further step wins by the model, places in the bag counted."""
    return step.strokes + step.place - further.strokes - further.place


def asked_of(step: Step, further: Step, economy: Economy) -> float:
    """Strokes a round that a further step has to win: what a head is worth for each that it buys, one at least."""
    return economy.worth_changing * max(further.heads - step.heads, 1)


def recommended_step(
    steps: Sequence[Step], economy: Economy, rules: Rules, there: Callable[[int, int], float] | None = None
) -> int:
    """The smallest number of heads from which no further step wins what a head is worth, a head, by the model.

    A further step that is not there in 8 of 10 draws does not count; `there(a, b)` is the share of draws in which step b
    beats step a. Bends have no price, and still want to win as much as one head over the bag as it stands: a bend is
    work, and another club in hand. Where the fitter asks for what today's bag is not, the bag is no answer.
    """
    no_bag = bool(rules.held) or rules.lofts_deg is not None or not steps[0].picks

    def matters(a: int, b: int) -> bool:
        enough = wins(steps[a], steps[b]) >= asked_of(steps[a], steps[b], economy)
        return enough and (there is None or there(a, b) >= THERE)

    bends = next((n for n, step in enumerate(steps) if step.kind == "bends"), None)
    start = 0 if bends is None else bends
    if start == 0 and no_bag and len(steps) > 1:
        start = 1
    for a in range(start, len(steps)):
        if not any(matters(a, b) for b in range(a + 1, len(steps))):
            return 0 if steps[a].kind == "bends" and not no_bag and not matters(0, a) else a
    return len(steps) - 1


def rank_level(
    level: Sequence[ClubSet],
    candidates: Sequence[Candidate],
    pitching_wedge_deg: float,
    bench: Callable[[Sequence[ClubSet]], Floats],
    wanted: int,
) -> Iterator[int]:
    """Sets that are level (places in `level`), one after the other, the one to show first.

    Nearer to the number of wedges that is wanted (if one is), fewer heads bought, fewer degrees bent, the bench rules,
    evener steps of loft. `bench` values sets by the bench rules: it is asked of those alone that the others leave equal.
    """
    change = [(candidate.bought, abs(candidate.bend_deg)) for candidate in candidates]

    def changes(n: int) -> tuple[float, ...]:
        clubs = [change[i] for i in level[n].picks]
        return (
            max(wanted - len(clubs), 0), sum(bought for bought, _ in clubs), round(sum(bend for _, bend in clubs), 2),
        )  # fmt: skip

    def rest(n: int, value: float) -> tuple[float, ...]:
        lofts = [pitching_wedge_deg, *(candidates[i].head.loft_deg for i in level[n].picks)]
        return (-round(value / BENCH_APART), round(_unevenness(lofts), 3), level[n].score)

    for _, group in groupby(sorted(range(len(level)), key=changes), changes):
        equal = list(group)
        ranks = map(rest, equal, bench([level[n] for n in equal]).tolist())
        yield from (n for _, n in sorted(zip(ranks, equal, strict=True)))


def _unevenness(lofts: Sequence[float]) -> float:
    """Standard deviation of the steps between lofts [degrees]: of so few numbers quicker than with arrays."""
    steps = [above - below for below, above in pairwise(lofts)]
    middle = sum(steps) / len(steps)
    return math.sqrt(sum((step - middle) ** 2 for step in steps) / len(steps))
