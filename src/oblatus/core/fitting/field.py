"""The sets of a proposal that are compared in every draw, and how their costs move along each axis."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import partial

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.fitting import _draws
from oblatus.core.fitting.asked import Costs, Wanted
from oblatus.core.fitting.axes import Axis
from oblatus.core.fitting.costs import NEVER, Sheet
from oblatus.core.fitting.fitting import Fitting, carry_model_of
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.recommend import sheet_for
from oblatus.core.fitting.recommendation import Recommendation
from oblatus.core.fitting.scenarios import build_scenarios
from oblatus.core.threads import share_out, side_by_side
from oblatus.core.words import trimmed

Floats = NDArray[np.float64]

SHORTLIST = 6
ROUGH_ENTRIES = 7

OWN_MARGIN, BEST_MARGIN = 0.1, 0.3
"""How far [strokes] a setup may lie behind the head's best, and behind the best of the heads, to be followed at all."""

TABLE_DOUBT = 0.25


def bag_heads(fitting: Fitting) -> list[Head]:
    """The heads of today's bag."""
    return [item.head for item in fitting.stock if item.owned]


@dataclass(frozen=True, slots=True, eq=False)
class Surface:
    """Costs and strokes of the shortlist, weights included: as they are (2, heads, columns), and slope and bend along
    each axis (2, axes, heads, columns).
    """

    base: Floats
    slopes: Floats
    bends: Floats

    def only(self, axis: int) -> Surface:
        """The same along one axis alone."""
        return Surface(self.base, *(np.ascontiguousarray(part[:, [axis]]) for part in (self.slopes, self.bends)))


class Field:
    """The sets of a proposal that are compared: its steps, then the contenders that a shortlist of heads makes up."""

    def __init__(self, recommendation: Recommendation, judge: StrokesJudge) -> None:
        self.recommendation, self.judge = recommendation, judge
        fitting, steps = recommendation.fitting, recommendation.steps
        bag = bag_heads(fitting)
        picks = list(dict.fromkeys(i for step in steps for i in step.picks))
        room = len(picks) + SHORTLIST
        picks = list(dict.fromkeys([*picks, *(i for some in recommendation.contenders for i in some)]))[:room]
        self.heads = [*(recommendation.candidates[i].head for i in picks), *bag]
        self.heads += [fitting.bag.pitching_wedge, fitting.bag.nine_iron]
        where = {pick: n for n, pick in enumerate(picks)}
        first_bag = len(picks)
        self.sets: list[tuple[int, ...]] = [
            tuple(range(first_bag, first_bag + len(bag))) if step.kind == "bag" else tuple(where[i] for i in step.picks)
            for step in steps
        ]
        self.picks = [step.picks for step in steps]
        heads = steps[recommendation.taken].heads
        self.eligible = [n for n, step in enumerate(steps) if step.heads <= heads]
        known = {frozenset(some) for some in self.sets}
        for some in recommendation.contenders:
            bought = sum(recommendation.candidates[i].bought for i in some)
            if bought > heads or any(i not in where for i in some):
                continue
            mine = tuple(where[i] for i in some)
            if frozenset(mine) not in known:
                self.eligible.append(len(self.sets))
                self.sets.append(mine)
                self.picks.append(some)
        self.shown = recommendation.taken
        self.places = [recommendation.problem.rules.place(len(some)) for some in self.sets]
        self.favourite = recommendation.problem.rules.favourite
        self.members = _members(self.sets)
        self.exact = self._weighted(recommendation.sheet)
        self.now: list[float] = self.score(self.exact, recommendation.sheet.is_short).tolist()

    def names(self, n: int) -> tuple[str, ...]:
        """The clubs of a set, with the loft to which each is built."""
        if self.recommendation.steps[0].kind == "bag" and n == 0:
            return tuple(item.name for item in self.recommendation.fitting.stock if item.owned)
        chosen = [self.recommendation.candidates[i] for i in self.picks[n]]
        return tuple(f"{c.stock.name} at {trimmed(c.head.loft_deg)}°" if c.bend_deg else c.stock.name for c in chosen)

    @property
    def slack(self) -> float:
        """How far the shown set may lie behind: what level sets differ by, beside what it is behind already."""
        least = min(self.now[n] for n in self.eligible)
        return self.recommendation.tolerance + max(self.now[self.shown] - least, 0.0)

    def better(self, axis: Axis, by: float) -> int | None:
        """The set that wins more than the slack over the shown one when an axis is moved, None if none does."""
        sheet = self._moved(axis, by)
        score = self.score(self._weighted(sheet), sheet.is_short)
        best = min(self.eligible, key=lambda n: score[n])
        return best if score[self.shown] - score[best] > self.slack else None

    def surface(self, axes: Sequence[Axis]) -> Surface:
        """Costs at the habit and along each axis, the handicap of the strokes table last."""
        wanted = self.recommendation.sheet.close(self.heads, OWN_MARGIN, BEST_MARGIN)
        steps = [*(2.0 * axis.error for axis in axes), TABLE_DOUBT]
        moves = [partial(self._moved, axis, sign * 2.0 * axis.error) for axis in axes for sign in (1.0, -1.0)]
        asked: list[tuple[Callable[[], Sheet], tuple[float, ...]]] = [(move, (1.0,)) for move in moves]
        # as it is, and with the table's handicap otherwise: the strikes are the same
        asked.insert(0, (self._sheet, (1.0, 1.0 + TABLE_DOUBT, 1.0 - TABLE_DOUBT)))
        # whole sheets in two threads: one's preparation goes on beside the other's strikes
        (rough, *table), *moved = side_by_side(lambda one: self._followed(one[0](), wanted, one[1]), asked)
        found = [*(costs for [costs] in moved), *table]
        slopes, bends = [], []
        for step, up, down in zip(steps, found[::2], found[1::2], strict=True):
            slopes.append((up - down) / (2.0 * step))
            bends.append((up + down - 2.0 * rough) / (2.0 * step * step))
        return Surface(self.exact, np.stack(slopes, axis=1), np.stack(bends, axis=1))

    def _followed(self, sheet: Sheet, wanted: Wanted, scales: Sequence[float]) -> list[Floats]:
        """Costs and strokes by another sheet at every scale of the handicap; a head nowhere near stays as it is."""
        return [
            np.where(costs.cost < NEVER, np.stack([costs.cost, costs.strokes]) * sheet.weights, self.exact)
            for costs in sheet.partly(self.heads, wanted, scales)
        ]

    def _weighted(self, sheet: Sheet) -> Floats:
        costs: Costs = sheet.costs(self.heads)
        return np.stack([costs.cost, costs.strokes]) * sheet.weights

    def _sheet(self) -> Sheet:
        r = self.recommendation
        return sheet_for(r.fitting, self.judge, list(r.scenarios), r.carry_model, None, ROUGH_ENTRIES)

    def _moved(self, axis: Axis, by: float) -> Sheet:
        player, grounds = axis.moved(by)
        fitting = replace(self.recommendation.fitting, player=player, grounds=grounds)
        scenarios = build_scenarios(player, grounds, fitting.layouts)
        return sheet_for(fitting, self.judge, scenarios, carry_model_of(fitting), None, ROUGH_ENTRIES)

    def drawn(self, surface: Surface, draws: Floats) -> tuple[Floats, Floats]:
        """What the search minimises and the model's strokes of every set in every draw (draws, sets)."""
        score, model = np.empty((len(draws), len(self.sets))), np.empty((len(draws), len(self.sets)))
        short = self.recommendation.sheet.is_short

        def work(part: slice) -> None:
            _draws.score_drawn(
                draws[part], surface.base, surface.slopes, surface.bends, *self.members, short, self.favourite,
                score[part], model[part],
            )  # fmt: skip

        share_out(work, len(draws))
        return score + np.array(self.places), model

    def score(self, weighted: Floats, short: NDArray[np.bool_]) -> Floats:
        """What the search minimises of every set (sets,), from costs and strokes (2, heads, columns)."""
        score, model = np.empty((1, len(self.sets))), np.empty((1, len(self.sets)))
        _draws.score_sets(weighted[:1], weighted[1:], *self.members, short, self.favourite, score, model)
        return np.asarray(score[0] + np.array(self.places))

    def turned(self, surface: Surface, draws: Floats, axis: int, shown: int) -> float:
        """Share of the draws in which this axis alone takes the shown set out of those that are level."""
        score, _ = self.drawn(surface.only(axis), draws[:, [axis]])
        best = score[:, self.eligible].min(axis=1)
        return float(np.mean(score[:, shown] > best + self.slack))


def _members(sets: Sequence[Sequence[int]]) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """The sets as rows (n, most), and how many of each row count."""
    members = np.zeros((len(sets), max(len(some) for some in sets)), dtype=np.int64)
    for n, some in enumerate(sets):
        members[n, : len(some)] = some
    return members, np.array([len(some) for some in sets])
