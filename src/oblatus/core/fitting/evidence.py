"""How sure a choice is: paired draws of habit, laws and table, what would flip it, what to measure next."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import partial

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.constants import FLATTEST_ATTACK
from oblatus.core.delivery import Estimate, Habit, Player
from oblatus.core.fitting import _draws
from oblatus.core.fitting.asked import Costs, Wanted
from oblatus.core.fitting.costs import NEVER, Sheet
from oblatus.core.fitting.fitting import Fitting, carry_model_of
from oblatus.core.fitting.judge import StrokesJudge, judge_of_laws
from oblatus.core.fitting.laws import draw_laws
from oblatus.core.fitting.recommend import sheet_for
from oblatus.core.fitting.recommendation import Recommendation, strokes_of
from oblatus.core.fitting.scenarios import build_scenarios
from oblatus.core.fitting.steps import recommended_step
from oblatus.core.grounds import Ground
from oblatus.core.strike.families import Progress
from oblatus.core.threads import share_out, side_by_side
from oblatus.core.words import trimmed

Floats = NDArray[np.float64]

DRAWS = 500
ASSUMED_COUNT = 10
SHORTLIST = 6
ROUGH_ENTRIES = 7
OWN_MARGIN, BEST_MARGIN = 0.1, 0.3
"""How far [strokes] a setup may lie behind the head's best, and behind the best of the heads, to be followed at all."""
STEPS = 4
TABLE_DOUBT = 0.25
INTERVAL = (10.0, 90.0)
SEED = 7


@dataclass(frozen=True, slots=True)
class Axis:
    """Something that could be otherwise: how far it may stray, and how a fitting looks when it does.

    `error` is the standard error of what is known, `reach` the farthest change looked at, both in the axis' own unit.
    """

    key: str
    unit: str
    value: float
    error: float
    reach: float
    known: bool
    moved: Callable[[float], tuple[Player, tuple[Ground, ...]]]


@dataclass(frozen=True, slots=True)
class StepDoubt:
    """What a step gains in 8 of 10 draws, from and to, and in how many it beats today's bag (strokes a round, share)."""

    low: float
    high: float
    better_share: float


@dataclass(frozen=True, slots=True)
class ClubShare:
    """Share of the draws in which some set with this head is level with the best."""

    slot: int
    code: str
    share: float


@dataclass(frozen=True, slots=True)
class Doubt:
    """Doubt of a proposal. `law_draws` of the draws of the laws are in it (0 until they are made).

    `proposed` is the step that the draws leave as the proposed one; `paired` the standard deviation of the difference
    between the shown set and others near it, in the same draws; `assumed_count`: a spread is not measured; `next_share`
    the share of draws that the next axis alone turns.
    """

    count: int
    law_draws: int
    assumed_count: bool
    steps: tuple[StepDoubt, ...]
    proposed: int
    paired: float
    shares: tuple[ClubShare, ...]
    next_axis: str | None
    next_share: float


@dataclass(frozen=True, slots=True)
class Flip:
    """The nearest change along an axis at which another set wins more than level sets differ by."""

    axis: str
    unit: str
    value: float
    at: float
    old: str
    new: str


@dataclass(frozen=True, slots=True, eq=False)
class LawGains:
    """How the strokes of sets differ under each draw of the laws (draws, sets), today's bag first."""

    strokes: Floats


def doubt_of(recommendation: Recommendation, judge: StrokesJudge, laws: LawGains | None = None) -> Doubt:
    """Draw attack, lean and entry within their standard errors and the strokes table's handicap within a quarter.

    Every set is reckoned in the same 500 draws. Costs of a shortlist of heads are computed as they are and at two points
    along each axis; between them they are a parabola an axis. A common factor on all gains (log-normal, of the economy's
    `claims_sd`) widens what is stated and changes no ranking.
    """
    if laws is not None and laws.strokes.shape[1] != len(recommendation.steps):
        laws = None  # they were drawn for other steps
    field = _Field(recommendation, judge)
    axes = [axis for axis in axes_of(recommendation.fitting) if axis.key in ("attack", "lean", "entry")]
    surface = field.surface(axes)
    rng = np.random.default_rng(SEED)
    draws = np.column_stack([axis.error * rng.standard_t(ASSUMED_COUNT - 1, DRAWS) for axis in axes])
    table = np.exp(TABLE_DOUBT * rng.standard_normal(DRAWS)) - 1.0
    common = np.exp(recommendation.fitting.economy.claims_sd * rng.standard_normal(DRAWS))
    draws = np.column_stack([draws, table])
    score, strokes = field.drawn(surface, draws)
    if laws is not None:
        strokes[:, : laws.strokes.shape[1]] += laws.strokes[np.arange(DRAWS) % len(laws.strokes)]
    gains = (strokes[:, :1] - strokes) * common[:, None]
    steps = tuple(_step_doubt(gains[:, n]) for n in range(len(recommendation.steps)))
    total = strokes[:, : len(steps)] + np.array([step.place for step in recommendation.steps])

    def there(a: int, b: int) -> float:
        return float(np.mean(total[:, b] < total[:, a]))

    tolerance = recommendation.tolerance
    level = score <= score[:, field.eligible].min(axis=1, keepdims=True) + tolerance
    shown = recommendation.taken
    near = [n for n in field.eligible if abs(field.now[n] - field.now[shown]) <= tolerance and n != shown]
    differences = score[:, near] - score[:, [shown]] if near else np.zeros((DRAWS, 1))
    alone = [field.turned(surface, draws, a, shown) for a in range(len(axes))]
    most = int(np.argmax(alone))
    return Doubt(
        count=DRAWS,
        law_draws=0 if laws is None else len(laws.strokes),
        assumed_count=any(not axis.known for axis in axes),
        steps=steps,
        proposed=recommended_step(
            recommendation.steps, recommendation.fitting.economy, recommendation.problem.rules, there
        ),
        paired=float(np.median(differences.std(axis=0))),
        shares=_shares(recommendation, field, level),
        next_axis=axes[most].key if alone[most] > 0.0 else None,
        next_share=alone[most],
    )


def draw_law_gains(
    recommendation: Recommendation,
    progress: Progress | None = None,
    go_on: Callable[[], bool] | None = None,
) -> LawGains | None:
    """Today's bag and every step under eight draws of the laws, as differences from the laws as taken.

    `progress` hears of (done, draws); None if `go_on` said stop.
    """
    fitting, found = recommendation.fitting, []
    scenarios = list(recommendation.scenarios)
    laws, apart = draw_laws(), judge_of_laws()
    for done, law in enumerate(laws):
        if go_on is not None and not go_on():
            return None
        found.append(_steps_under(recommendation, sheet_for(fitting, apart, scenarios, recommendation.carry_model, law)))
        if progress is not None:
            progress(done + 1, len(laws))
    return LawGains(np.array(found) - _steps_under(recommendation, recommendation.sheet))


def _steps_under(recommendation: Recommendation, sheet: Sheet) -> Floats:
    """Strokes a round of the bag and of every step on a sheet; the bag's place is that of its step."""
    fitting = recommendation.fitting
    above = sheet.costs([fitting.bag.pitching_wedge, fitting.bag.nine_iron])
    favourite = recommendation.problem.rules.favourite
    found = []
    for step in recommendation.steps:
        heads = _bag_heads(fitting) if step.kind == "bag" else [recommendation.candidates[i].head for i in step.picks]
        found.append(strokes_of(sheet, sheet.costs(heads), above, favourite))
    return np.array(found)


def _bag_heads(fitting: Fitting) -> list[Head]:
    return [item.head for item in fitting.stock if item.owned]


def _step_doubt(gains: Floats) -> StepDoubt:
    low, high = np.percentile(gains, INTERVAL)
    return StepDoubt(float(low), float(high), float(np.mean(gains > 0.0)))


def find_flips(recommendation: Recommendation, judge: StrokesJudge) -> tuple[Flip, ...]:
    """The nearest change along each axis at which another set near the shown one wins more than level sets differ by.

    Sets that buy no more heads than the shown one are compared, each reckoned anew at every value.
    """
    field = _Field(recommendation, judge)
    found = (_flip(field, axis) for axis in axes_of(recommendation.fitting))
    return tuple(flip for flip in found if flip is not None)


def _flip(field: _Field, axis: Axis) -> Flip | None:
    changes = []
    for sign in (1.0, -1.0):
        before = 0.0
        for step in range(1, STEPS + 1):
            by = sign * axis.reach * (step / STEPS) ** 1.5
            if field.better(axis, by) is not None:
                changes.append(_nearest(field, axis, before, by))
                break
            before = by
    if not changes:
        return None
    by = min(changes, key=abs)
    other = field.better(axis, by)
    if other is None:
        return None
    now, then = field.names(field.shown), field.names(other)
    gone = [name for name in now if name not in then]
    come = [name for name in then if name not in now]
    return Flip(axis.key, axis.unit, axis.value, axis.value + by, ", ".join(gone), ", ".join(come))


def _nearest(field: _Field, axis: Axis, same: float, other: float) -> float:
    """Halve the stretch between a change that keeps the choice and one that flips it."""
    for _ in range(3):
        middle = 0.5 * (same + other)
        if field.better(axis, middle) is None:
            same = middle
        else:
            other = middle
    return other


def axes_of(fitting: Fitting) -> list[Axis]:
    """Attack, lean and entry of the habit, firmness of the turf and reading of the sand over the whole mix."""
    player, grounds = fitting.player, fitting.grounds
    habit = player.habit

    def with_habit(change: Callable[[Habit, float], Habit]) -> Callable[[float], tuple[Player, tuple[Ground, ...]]]:
        return lambda by: (replace(player, habit=change(habit, by)), grounds)

    def with_ground(change: Callable[[Ground, float], Ground]) -> Callable[[float], tuple[Player, tuple[Ground, ...]]]:
        return lambda by: (player, tuple(change(ground, by) for ground in grounds))

    firmness = sum(g.share * g.turf.firmness_g for g in grounds)
    sand = sum(g.share * g.sand.penetrometer_kg_cm2 for g in grounds)
    return [
        _habit_axis("attack", "deg", habit.attack_deg, 4.0, with_habit(
            lambda h, by: replace(h, attack_deg=_moved(h.attack_deg, by, -14.0, FLATTEST_ATTACK.value)))),
        _habit_axis("lean", "deg", habit.lean_deg, 6.0, with_habit(
            lambda h, by: replace(h, lean_deg=_moved(h.lean_deg, by, -7.0, 15.0)))),
        _habit_axis("entry", "m", habit.entry, 0.030, with_habit(
            lambda h, by: replace(h, entry=_moved(h.entry, by, -0.11, 0.03)))),
        Axis("firmness", "g", firmness, 15.0, 45.0, True, with_ground(
            lambda g, by: replace(g, turf=replace(g.turf, firmness_g=min(max(g.turf.firmness_g + by, 30.0), 200.0))))),
        Axis("sand", "kg/cm2", sand, 0.15, 0.6, True, with_ground(
            lambda g, by: replace(g, sand=replace(
                g.sand, penetrometer_kg_cm2=min(max(g.sand.penetrometer_kg_cm2 + by, 1.2), 3.2))))),
    ]  # fmt: skip


def _habit_axis(
    key: str, unit: str, estimate: Estimate, reach: float, moved: Callable[[float], tuple[Player, tuple[Ground, ...]]]
) -> Axis:
    known = estimate.source == "measured" and estimate.count is not None
    count = estimate.count if known and estimate.count else ASSUMED_COUNT
    return Axis(key, unit, estimate.mean, max(estimate.spread, 1e-4) / math.sqrt(count), reach, known, moved)


def _moved(estimate: Estimate, by: float, low: float, high: float) -> Estimate:
    return replace(estimate, mean=min(max(estimate.mean + by, low), high))


@dataclass(frozen=True, slots=True, eq=False)
class _Surface:
    """Costs and strokes of the shortlist, weights included: as they are (2, heads, columns), and slope and bend along
    each axis (2, axes, heads, columns).
    """

    base: Floats
    slopes: Floats
    bends: Floats

    def only(self, axis: int) -> _Surface:
        """The same along one axis alone."""
        return _Surface(self.base, *(np.ascontiguousarray(part[:, [axis]]) for part in (self.slopes, self.bends)))


class _Field:
    """The sets of a proposal that are compared: its steps, then the contenders that a shortlist of heads makes up."""

    def __init__(self, recommendation: Recommendation, judge: StrokesJudge) -> None:
        self.recommendation, self.judge = recommendation, judge
        fitting, steps = recommendation.fitting, recommendation.steps
        bag = _bag_heads(fitting)
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

    def surface(self, axes: Sequence[Axis]) -> _Surface:
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
        return _Surface(self.exact, np.stack(slopes, axis=1), np.stack(bends, axis=1))

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

    def drawn(self, surface: _Surface, draws: Floats) -> tuple[Floats, Floats]:
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

    def turned(self, surface: _Surface, draws: Floats, axis: int, shown: int) -> float:
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


def _shares(recommendation: Recommendation, field: _Field, level: NDArray[np.bool_]) -> tuple[ClubShare, ...]:
    """Survival of every club of the shown set: its head in some set that is level with the best."""
    found = []
    for slot, pick in enumerate(recommendation.picks):
        code = recommendation.candidates[pick].stock.code
        mine = [n for n in field.eligible if any(recommendation.candidates[i].stock.code == code for i in field.picks[n])]
        found.append(ClubShare(slot, code, float(level[:, mine].any(axis=1).mean()) if mine else 0.0))
    return tuple(found)
