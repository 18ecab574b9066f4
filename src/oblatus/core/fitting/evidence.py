"""How sure a choice is: resampled habits through the cached families, the nearest flip, what to measure next."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from oblatus.core.delivery import Estimate, Habit, Player
from oblatus.core.fitting.judge import SoleJudge
from oblatus.core.fitting.recommend import Fitting, Recommendation, recommend
from oblatus.core.fitting.scenarios import build_scenarios
from oblatus.core.grounds import Ground

Floats = NDArray[np.float64]

RESAMPLES = 500
ASSUMED_COUNT = 10
SHORTLIST = 12
SETS = 48
STEPS = 4


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
class ClubShare:
    """How often a head was the choice for its slot."""

    slot: int
    code: str
    share: float


@dataclass(frozen=True, slots=True)
class Flip:
    """The nearest change along an axis that changes the choice: at which value, and what would stand instead."""

    axis: str
    unit: str
    value: float
    at: float
    slot: int
    code: str


@dataclass(frozen=True, slots=True)
class Evidence:
    """Survival of every club of the set, and the axis whose measurement would settle most.

    `next_share` is the share of the resamples that this axis alone turns; `assumed_count`: a spread is not measured.
    """

    count: int
    assumed_count: bool
    shares: tuple[ClubShare, ...]
    next_axis: str | None
    next_share: float


def resample(fitting: Fitting, recommendation: Recommendation, judge: SoleJudge, seed: int = 7) -> Evidence:
    """Resample attack, lean and entry 500 times within their standard errors, through the cached families.

    The value of a shortlist of heads is computed at the habit and at two points along each axis; between them it is a
    parabola an axis. The decision is the recommendation's own: best set by the judge, ties by the bench rules.
    """
    decision = _Decision(fitting, recommendation, judge)
    habit = [axis for axis in axes(fitting) if axis.key in ("attack", "lean", "entry")]
    base, slopes, bends = decision.surface(habit)
    rng = np.random.default_rng(seed)
    draws = np.column_stack([_draw(rng, axis) for axis in habit])
    chosen = decision.choose_many(base, slopes, bends, draws)
    present = decision.choose_many(base, slopes, bends, np.zeros((1, len(habit))))[0]
    only = [np.where(np.arange(len(habit)) == a, draws, 0.0) for a in range(len(habit))]
    alone = [float(np.mean(decision.choose_many(base, slopes, bends, some) != present)) for some in only]
    most = int(np.argmax(alone))
    return Evidence(
        count=RESAMPLES,
        assumed_count=any(not axis.known for axis in habit),
        shares=decision.shares(chosen),
        next_axis=habit[most].key if alone[most] > 0.0 else None,
        next_share=alone[most],
    )


def find_flips(fitting: Fitting, recommendation: Recommendation, judge: SoleJudge) -> tuple[Flip, ...]:
    """The nearest change along each axis that changes the choice, by asking the judge again at each step."""
    decision = _Decision(fitting, recommendation, judge)
    return tuple(flip for flip in (decision.flip(axis) for axis in axes(fitting)) if flip is not None)


def axes(fitting: Fitting) -> list[Axis]:
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
            lambda h, by: replace(h, attack_deg=_moved(h.attack_deg, by, -14.0, -0.5)))),
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


def _draw(rng: np.random.Generator, axis: Axis) -> Floats:
    """Means that the strikes allow: a t distribution with a usual small count's tails."""
    return np.asarray(axis.error * rng.standard_t(ASSUMED_COUNT - 1, RESAMPLES))


class _Decision:
    """The choice among the best sets of a recommendation, asked again under other values."""

    def __init__(self, fitting: Fitting, recommendation: Recommendation, judge: SoleJudge) -> None:
        self.fitting, self.recommendation, self.judge = fitting, recommendation, judge
        sets = recommendation.contenders[:SETS]
        picks = list(dict.fromkeys(pick for club_set in sets for pick in club_set.picks))[:SHORTLIST]
        where = {pick: i for i, pick in enumerate(picks)}
        self.candidates = [recommendation.candidates[pick] for pick in picks]
        self.sets = [tuple(where[p] for p in s.picks) for s in sets if all(p in where for p in s.picks)]
        self.bench = np.array([s.bench for s in sets if all(p in where for p in s.picks)])
        self.costs = np.array([sum(self.candidates[p].cost for p in picks) for picks in self.sets])
        self.heads = [candidate.head for candidate in self.candidates] + [fitting.bag.pitching_wedge]
        self.shares_of = np.array([scenario.share for scenario in recommendation.scenarios])
        self.full = np.array([scenario.shot.kind == "full" for scenario in recommendation.scenarios])
        self.keys = [scenario.key for scenario in recommendation.scenarios]

    def values(self, player: Player, grounds: Sequence[Ground]) -> Floats:
        """Values (heads, scenarios of the recommendation); a scenario that no longer occurs is worth nothing."""
        scenarios = build_scenarios(player, grounds)
        found = self.judge.judge(self.heads, scenarios, player, self.recommendation.carry_model).values
        column = {scenario.key: i for i, scenario in enumerate(scenarios)}
        out = np.zeros((len(self.heads), len(self.keys)))
        for j, key in enumerate(self.keys):
            if key in column:
                out[:, j] = found[:, column[key]]
        return out

    def surface(self, along: Sequence[Axis]) -> tuple[Floats, Floats, Floats]:
        """Value at the habit, slope and bend along each axis (axes, heads, scenarios), per unit of the axis."""
        base = self.values(self.fitting.player, self.fitting.grounds)
        slopes, bends = [], []
        for axis in along:
            step = 2.0 * axis.error
            up, down = self.values(*axis.moved(step)), self.values(*axis.moved(-step))
            slopes.append((up - down) / (2.0 * step))
            bends.append((up + down - 2.0 * base) / (2.0 * step * step))
        return base, np.array(slopes), np.array(bends)

    def choose_many(self, base: Floats, slopes: Floats, bends: Floats, draws: Floats) -> NDArray[np.int64]:
        """Index of the chosen set for each draw (draws, axes)."""
        values = base[None] + np.tensordot(draws, slopes, 1) + np.tensordot(draws**2, bends, 1)
        return self._choose(np.clip(values, 0.0, 1.0))

    def _choose(self, values: Floats) -> NDArray[np.int64]:
        """values (draws, heads, scenarios): the best set, ties to the one that the bench rules like best."""
        scores = np.empty((len(values), len(self.sets)))
        short = np.where(self.full, 0.0, self.shares_of)
        own = np.where(self.full, self.shares_of, 0.0)
        favourite = self.fitting.player.schools.clubs == "favourite"
        for s, picks in enumerate(self.sets):
            mine = values[:, list(picks)]
            best = np.maximum(mine.max(axis=1), values[:, -1]) @ short
            top = (mine @ short).max(axis=1) if favourite else best
            scores[:, s] = top + (mine @ own).mean(axis=1) - self.costs[s]
        level = scores > scores.max(axis=1, keepdims=True) - self.recommendation.judgement.tie
        return np.asarray(np.where(level, self.bench, -np.inf).argmax(axis=1))

    def shares(self, chosen: NDArray[np.int64]) -> tuple[ClubShare, ...]:
        """How often every head stands in its slot."""
        found: dict[tuple[int, str], float] = {}
        for index in chosen.tolist():
            for slot, pick in enumerate(self.sets[index]):
                key = (slot, self.candidates[pick].stock.code)
                found[key] = found.get(key, 0.0) + 1.0 / len(chosen)
        rows = [ClubShare(slot, code, share) for (slot, code), share in found.items()]
        return tuple(sorted(rows, key=lambda row: (row.slot, -row.share)))

    def flip(self, axis: Axis) -> Flip | None:
        """The change nearest to the present value that makes another set the choice."""
        now = int(self._choose(self.values(self.fitting.player, self.fitting.grounds)[None])[0])
        changes = [by for sign in (1.0, -1.0) if (by := self._first(axis, sign, now)) is not None]
        found = (self._flip(axis, by) for by in sorted(changes, key=abs))
        return next((flip for flip in found if flip is not None), None)

    def _first(self, axis: Axis, sign: float, now: int) -> float | None:
        """The least change in one direction at which the shortlist has another choice."""
        before = 0.0
        for step in range(1, STEPS + 1):
            by = sign * axis.reach * (step / STEPS) ** 1.5
            then = int(self._choose(self.values(*axis.moved(by))[None])[0])
            if then != now and self.sets[then] != self.sets[now]:
                return self._nearest(axis, before, by, now)
            before = by
        return None

    def _nearest(self, axis: Axis, same: float, other: float, now: int) -> float:
        """Halve the stretch between a change that keeps the choice and one that flips it."""
        for _ in range(3):
            middle = 0.5 * (same + other)
            if self._choose(self.values(*axis.moved(middle))[None])[0] == now:
                same = middle
            else:
                other = middle
        return other

    def _flip(self, axis: Axis, by: float) -> Flip | None:
        """What the whole proposal says there, of all heads and not only of the shortlist; None if it stays as it is."""
        player, grounds = axis.moved(by)
        ladder = self.recommendation.ladder.lofts_deg
        then = recommend(replace(self.fitting, player=player, grounds=tuple(grounds), ladder_deg=ladder), self.judge)
        for slot, (old, new) in enumerate(zip(self.recommendation.clubs, then.clubs, strict=False)):
            code = then.candidates[new.pick].stock.code
            if code != self.recommendation.candidates[old.pick].stock.code:
                return Flip(axis.key, axis.unit, axis.value, axis.value + by, slot, code)
        return None
