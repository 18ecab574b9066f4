"""A proposal with all that explains it, and what is read off it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from oblatus.core.fitting.asked import Costs
from oblatus.core.fitting.bench_rules import Judgement
from oblatus.core.fitting.candidates import Candidate
from oblatus.core.fitting.costs import Sheet
from oblatus.core.fitting.fitting import Fitting
from oblatus.core.fitting.scenarios import Scenario
from oblatus.core.fitting.sets import ClubSet, SetProblem
from oblatus.core.fitting.steps import Step
from oblatus.core.gapping import CarryModel, Ladder, Rung

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

LEVEL_NEAR = 2

Built = tuple[str, float]
"""A club by the code of its head and the loft to which it is built."""


def built(candidate: Candidate) -> Built:
    """The club that a candidate is."""
    return candidate.stock.code, round(candidate.head.loft_deg, 2)


@dataclass(frozen=True, slots=True)
class Column:
    """A column of the sheet: a short scenario at a pin, or an approach from a ground at a distance [m]."""

    scenario: Scenario | None
    pin: str
    ground: str
    distance: float

    @property
    def shot(self) -> str:
        """The name of its shot; all approaches are one."""
        return "approaches" if self.scenario is None else self.scenario.shot.name


def shots_of(columns: Sequence[Column]) -> tuple[str, ...]:
    """The name of every column's shot."""
    return tuple(column.shot for column in columns)


def by_shot(shots: Sequence[str], strokes: Floats) -> tuple[tuple[str, float], ...]:
    """Strokes a round in every column, whose shots these are, summed shot by shot (name, strokes), most first."""
    found: dict[str, float] = {}
    for shot, value in zip(shots, strokes.tolist(), strict=True):
        found[shot] = found.get(shot, 0.0) + value
    return tuple(sorted(found.items(), key=lambda row: -row[1]))


@dataclass(frozen=True, slots=True, eq=False)
class ClubChoice:
    """One club of the set: its candidate, the short scenarios it serves, the ranked alternatives and what it brings.

    `ranked` holds (candidate, strokes a round behind), best first; `brings` strokes a round that the set costs more
    without it, `gain` the same column by column, `gains` shot by shot, most first; `replaces` the owned wedge whose place
    it takes, or itself, None if it is one more.
    """

    pick: int
    duties: tuple[int, ...]
    ranked: tuple[tuple[int, float], ...]
    brings: float
    gain: Floats
    gains: tuple[tuple[str, float], ...]
    replaces: str | None


@dataclass(frozen=True, slots=True, eq=False)
class Recommendation:
    """A proposal with all that explains it. Indices point into `candidates`, `scenarios` and `columns`.

    Every figure is in strokes a round. `steps` are today's bag, bends only, one head, two, ...; `taken` the one whose set
    is shown, `recommended` the one proposed. `level` counts the sets that are level with the best of the step, `sets` are
    the best of them. `costs` are those of the candidates, exact where `exact` says so and between bends a parabola.
    """

    fitting: Fitting = field(repr=False)
    carry_model: CarryModel
    strikes: int
    rungs: tuple[Rung, ...]
    options: tuple[Ladder, ...]
    ladder: Ladder
    typed: bool
    scenarios: tuple[Scenario, ...]
    columns: tuple[Column, ...]
    sheet: Sheet = field(repr=False)
    candidates: tuple[Candidate, ...] = field(repr=False)
    costs: Costs = field(repr=False)
    exact: NDArray[np.bool_] = field(repr=False)
    above: Costs = field(repr=False)
    problem: SetProblem = field(repr=False)
    bag: tuple[int, ...]
    bag_costs: Costs = field(repr=False)
    strokes_bag: float
    steps: tuple[Step, ...]
    recommended: int
    taken: int
    level: int
    tolerance: float
    sets: tuple[ClubSet, ...]
    contenders: tuple[tuple[int, ...], ...]
    clubs: tuple[ClubChoice, ...]
    served: Ints = field(repr=False)
    bench: Judgement = field(repr=False)
    missing_lofts_deg: tuple[float, ...]
    pinned: tuple[bool, ...]
    lost_pins: tuple[tuple[float, str], ...]
    whole_rack: bool = True

    @property
    def as_proposed(self) -> bool:
        """Whether the set that is shown is the proposed one, not another step taken by hand."""
        return self.taken == self.recommended

    @property
    def picks(self) -> tuple[int, ...]:
        """Candidates of the set that is shown."""
        return self.steps[self.taken].picks

    @property
    def bag_strokes_columns(self) -> Floats:
        """Strokes a round of today's bag in every column, by the clubs that it would take."""
        cost = np.concatenate([self.bag_costs.cost, self.above.cost])
        strokes = np.concatenate([self.bag_costs.strokes, self.above.strokes])
        return np.asarray(strokes[cost.argmin(axis=0), np.arange(cost.shape[1])] * self.sheet.weights)

    @property
    def shots(self) -> tuple[str, ...]:
        """The name of every column's shot."""
        return shots_of(self.columns)

    @property
    def short(self) -> tuple[int, ...]:
        """Scenarios that are short shots, in the order of the sheet."""
        return tuple(i for i, s in enumerate(self.scenarios) if s.shot.kind != "full")


def strokes_of(sheet: Sheet, mine: Costs, above: Costs, favourite: bool = False) -> float:
    """The model's strokes a round of clubs with those above them: what each costs where it is the one to take."""
    cost = np.concatenate([mine.cost, above.cost])
    strokes = np.concatenate([mine.strokes, above.strokes])
    who = cost.argmin(axis=0)
    if favourite and len(mine.cost):
        short = sheet.is_short
        who = np.where(short, int((mine.cost[:, short] @ sheet.weights[short]).argmin()), who)
    return float(strokes[who, np.arange(len(who))] @ sheet.weights)


def served_strokes(problem: SetProblem, costs: Costs, above: Costs, weights: Floats, picks: Sequence[int]) -> Floats:
    """The model's strokes a round of a set in every column, where each is served by the club that costs least."""
    strokes = np.concatenate([costs.strokes[list(picks)], above.strokes]) * weights
    who = problem.served(picks, above.cost * weights)
    rows = np.where(who >= 0, who, len(picks) - 1 - who)
    return np.asarray(strokes[rows, np.arange(len(rows))])


def near(recommendation: Recommendation) -> frozenset[Built]:
    """The clubs of the steps and of the two best sets that are level: among them an edit is answered at once.

    With the nearest head in the place of a bought club for which they have no other: it may be sold out, or proved worse.
    After an edit they hold the whole rack's set as often as a fifth more clubs do: docs/models/strokes.md.
    """
    candidates = recommendation.candidates
    sets = [*(step.picks for step in recommendation.steps), *(one.picks for one in recommendation.sets[:LEVEL_NEAR])]
    found = {built(candidates[i]) for picks in sets for i in picks}
    heads = {code for code, _ in found}
    for club in recommendation.clubs:
        others = [i for i, _ in club.ranked if i != club.pick]
        if candidates[club.pick].bought and heads.isdisjoint(candidates[i].stock.code for i in others):
            found |= {built(candidates[i]) for i in others[:1]}
    return frozenset(found)


def near_every_slot(recommendation: Recommendation, ranked: int) -> frozenset[Built]:
    """The clubs of the steps, and for every slot of the shown set the nearest others."""
    clubs = [recommendation.candidates[i] for step in recommendation.steps for i in step.picks]
    clubs += [recommendation.candidates[i] for club in recommendation.clubs for i, _ in club.ranked[:ranked]]
    return frozenset(built(candidate) for candidate in clubs)
