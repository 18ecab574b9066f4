"""From a fitting to a proposal: the sheet of strokes, the steps of change, the set that is taken, and what it is for."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from oblatus.core.fitting.bench_rules import BenchRules, Judgement
from oblatus.core.fitting.candidates import Candidate, candidates_of
from oblatus.core.fitting.costs import ENTRY_NODES, Asked, Costs, Sheet
from oblatus.core.fitting.fitting import (
    Fitting,
    LadderChoice,
    carry_model_of,
    check_fitting,
    count_strikes,
    faced_of,
    ladder_choice,
    scatter_of,
)
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.laws import Law, as_taken
from oblatus.core.fitting.scenarios import Scenario, build_scenarios
from oblatus.core.fitting.sets import ClubSet, Rules, SetProblem, held_of
from oblatus.core.fitting.steps import Step, rank_level, recommended_step
from oblatus.core.flight import GREEN_FIRMNESS, REFERENCE_AIR, Green
from oblatus.core.gapping import CarryModel, Ladder, Rung
from oblatus.core.gapping.ladder import LEAST_STEP_DEG
from oblatus.core.strokes import PINS, pins_of
from oblatus.core.threads import meanwhile
from oblatus.errors import fault

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

LEVEL_STROKES = 0.05
EXACT_ROUNDS = 2
RANKED = 8
BEST_SETS = 10
KEEP_BAG = -1
CONTENDERS = 32
SWAPS = 2
LEVEL_NEAR = 2
NEAR, NEAR_STROKES = 4, 1e-6
WORSE = 1e-9
FEW = 40
ABOVE = ("pitching wedge", "nine-iron")
PITCHING_WEDGE = -1
"""Its place among the candidates' bench values."""


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


def sheet_for(
    fitting: Fitting,
    judge: StrokesJudge,
    scenarios: Sequence[Scenario],
    model: CarryModel,
    law: Law | None = None,
    entries: int = ENTRY_NODES,
) -> Sheet:
    """The sheet of a fitting, by the laws as taken or another draw of them; equal questions share one."""
    approaches: dict[int, float] = {}
    for scenario in scenarios:
        if scenario.shot.kind == "full":
            place = fitting.grounds.index(scenario.ground)
            approaches[place] = approaches.get(place, 0.0) + scenario.share
    return judge.sheet(
        Asked(
            fitting.player, fitting.grounds, model, tuple(s for s in scenarios if s.shot.kind != "full"),
            tuple((fitting.grounds[place], share) for place, share in approaches.items()), faced_of(fitting, model),
            scatter_of(fitting), fitting.economy,
            law=as_taken() if law is None else law, entries=entries, proved=fitting.proved,
        )
    )  # fmt: skip


def recommend(
    fitting: Fitting, judge: StrokesJudge, among: frozenset[Built] | None = None, tolerance: float = LEVEL_STROKES
) -> Recommendation:
    """The proposal for a fitting.

    Parameters
    ----------
    among : clubs to choose from, by code and loft; None for every head at every bend
    tolerance : strokes a round within which sets are level

    Raises
    ------
    InputError
        If the fitting has no room for a wedge, no ground with a share, a carry that no head speed gives, or no head that
        reaches a loft below the pitching wedge.
    """
    check_fitting(fitting)
    model = carry_model_of(fitting)
    scenarios = build_scenarios(fitting.player, fitting.grounds, fitting.layouts)
    sheet = sheet_for(fitting, judge, scenarios, model)
    lowest = fitting.bag.pitching_wedge.loft_deg + LEAST_STEP_DEG
    candidates = candidates_of(fitting.stock, lowest, fitting.ladder_deg)
    if not candidates:
        raise fault("bag", "no head on the rack or in the bag reaches a loft below the pitching wedge")
    mine = candidates if among is None else _of_these(candidates, fitting, among) or candidates
    with meanwhile(lambda: ladder_choice(fitting)) as ladders:
        book = _Book(fitting, sheet, mine, lowest, tolerance)
        book.settle()
        return _explained(fitting, book, scenarios, model, ladders(), whole_rack=among is None)


def _of_these(candidates: list[Candidate], fitting: Fitting, among: frozenset[Built]) -> list[Candidate]:
    """Those near, the owned ones as they stand, and those chosen by hand; at the lofts of a typed ladder all."""
    if fitting.ladder_deg is not None:
        return candidates
    held = {i for some in held_of(candidates, fitting.pinned) for i in some}
    return [
        c for i, c in enumerate(candidates) if i in held or built(c) in among or (c.stock.owned and c.bend_deg == 0.0)
    ]


class _Book:
    """The matrix of a fitting and the steps of change found in it, exact for every club that is shown."""

    def __init__(
        self, fitting: Fitting, sheet: Sheet, candidates: list[Candidate], lowest: float, tolerance: float
    ) -> None:
        self.fitting, self.sheet, self.candidates, self.lowest = fitting, sheet, candidates, lowest
        above = [fitting.bag.pitching_wedge, fitting.bag.nine_iron]
        self.owned = [item for item in fitting.stock if item.owned]
        # all that is reckoned from the start at once: it goes quicker
        sheet.raw([*above, *(item.head for item in self.owned), *(candidates[i].head for i in exact_of(candidates))])
        self.above = sheet.costs(above)
        self.bag_costs = sheet.costs([item.head for item in self.owned])
        raw, self.exact = _between_bends(sheet, candidates)
        self.costs = sheet.costs([candidate.head for candidate in candidates], raw)
        self.rules = self._rules()
        self.bag_score = self._bag(self.bag_costs.cost)
        self.bag_strokes = self._bag_strokes()
        reached = {round(candidate.head.loft_deg, 2) for candidate in candidates}
        self.missing = tuple(x for x in fitting.ladder_deg or () if round(x, 2) not in reached)
        self.steps: list[Step] = []
        self.recommended = self.taken = self.level_count = 0
        self.tolerance = tolerance
        self.sets: tuple[ClubSet, ...] = ()
        self._known: list[tuple[int, ...]] = []
        self._near: set[tuple[int, ...]] = set()
        self._benched: dict[int, Floats] = {}

    def _rules(self) -> Rules:
        fitting = self.fitting
        lofts = tuple(
            x for x in fitting.ladder_deg or () if any(abs(c.head.loft_deg - x) < 0.01 for c in self.candidates)
        )
        held = held_of(self.candidates, fitting.pinned)
        favourite = fitting.player.schools.clubs == "favourite"
        if lofts:
            return Rules((len(lofts),), 0.0, lofts, held, favourite)
        wanted = fitting.player.wedge_count
        most = fitting.bag.wedge_room if wanted is None else wanted
        slot = fitting.economy.slot if wanted is None else 0.0
        return Rules(tuple(range(max(len(held), 1), most + 1)), slot, None, held, favourite, len(self.owned))

    def _bag(self, rows: Floats) -> float:
        """Strokes of today's bag by a sheet's rows (cost or strokes), its clubs chosen by cost."""
        weights, fixed = self.sheet.weights, self.above.cost.min(axis=0)
        if not self.owned:
            return float(fixed @ weights)
        best = np.minimum(rows.min(axis=0), fixed)
        if self.rules.favourite:
            short = self.sheet.is_short
            alone = int((self.bag_costs.cost[:, short] @ weights[short]).argmin())
            best = np.where(short, rows[alone], best)
        return float(best @ weights)

    def _bag_strokes(self) -> float:
        return strokes_of(self.sheet, self.bag_costs, self.above, self.rules.favourite)

    def settle(self) -> None:
        """Find the steps, reckon every club near them exactly, look again, and state the steps by what is exact."""
        self._problem()
        for _ in range(EXACT_ROUNDS):
            self.steps = self._find_steps()
            self._known = [step.picks for step in self.steps if step.kind != "bag"]
            if not self._reckon([*self._known, *self._near]):
                break
        self.steps = [self.steps[0], *self._again(self.steps[1:])]
        self._show_least_change()
        self.recommended = recommended_step(self.steps, self.fitting.economy, self.rules)
        self.taken = self._taken()
        self._count_level()

    def _reckon(self, sets: Iterable[Sequence[int]]) -> bool:
        """Make the costs of every club of these sets exact; returns whether any was not."""
        new = sorted({i for picks in sets for i in picks if not self.exact[i]})
        if not new:
            return False
        exact = self.sheet.costs([self.candidates[i].head for i in new])
        self.costs.cost[new], self.costs.strokes[new], self.costs.pick[new] = exact.cost, exact.strokes, exact.pick
        self.exact[new] = True
        self._problem()
        return True

    def _again(self, steps: Sequence[Step]) -> list[Step]:
        """The steps by exact costs: the best of the sets near, for every number of heads that still does better."""
        found: list[Step] = []
        for step in steps:
            sets = [p for p in {step.picks, *self._near} if self._bought(p) <= step.heads]
            best = min((ClubSet(p, self.problem.score(p)) for p in sets), key=lambda one: one.score)
            if not self._no_worse(best):
                best = ClubSet(step.picks, self.problem.score(step.picks))
            if not found or best.score < found[-1].score - WORSE:
                found.append(self._step(best))
        return found

    def _taken(self) -> int:
        """The step whose set is shown: the fitter's, if there is such a step, else the proposed one."""
        wanted = self.fitting.heads_bought
        if wanted is None:
            return self.recommended
        if wanted == KEEP_BAG:
            return 0 if self.steps[0].picks else self.recommended
        mine = [n for n, step in enumerate(self.steps) if step.kind != "bag" and step.heads == wanted]
        return mine[0] if mine else self.recommended

    def _problem(self) -> None:
        weights = self.sheet.weights
        self.problem = SetProblem(
            self.candidates, self.costs.cost * weights, (self.above.cost * weights).min(axis=0), self.sheet.is_short,
            self.rules, self.lowest,
        )  # fmt: skip

    def strokes(self, picks: Sequence[int]) -> float:
        """The model's strokes a round of a set."""
        return strokes_of(self.sheet, self.costs.of(picks), self.above, self.rules.favourite)

    def served_strokes(self, picks: Sequence[int]) -> Floats:
        """The model's strokes a round of a set in every column."""
        return served_strokes(self.problem, self.costs, self.above, self.sheet.weights, picks)

    def _bag_picks(self) -> tuple[int, ...] | None:
        """Today's bag as candidates, if the rules allow it as it stands."""
        found = [
            next((i for i, c in enumerate(self.candidates) if c.stock.code == item.code and c.bend_deg == 0.0), None)
            for item in self.owned
        ]
        if not found or None in found or self.rules.held or self.rules.lofts_deg is not None:
            return None
        if len(found) > max(self.rules.counts):
            return None
        return tuple(sorted(i for i in found if i is not None))

    def _find_steps(self) -> list[Step]:
        """Today's bag, then the best set for every number of heads bought that does better than with fewer."""
        steps = [Step("bag", 0, self._bag_picks() or (), self.bag_score, self.bag_strokes, 0.0)]
        before = np.inf
        for heads in range(max(self.rules.counts) + 1):
            # the sets of the round before are a limit from which the search starts
            known = [self.problem.score(p) for p in self._known if self._bought(p) <= heads]
            best = self.problem.best(heads, NEAR, min([before, *known]) + NEAR_STROKES)
            if not best or best[0].score > before - WORSE:
                continue
            before = best[0].score
            self._near |= {one.picks for one in best}
            found = best[0] if self._no_worse(best[0]) else self._next_best(heads, best[0].score)
            if found is not None:
                steps.append(self._step(found))
        if len(steps) == 1 and not self.owned:
            raise fault("bag", "no set can be built: the rack has no heads that go together within these lofts")
        return steps

    def _next_best(self, heads: int, score: float) -> ClubSet | None:
        """The best set that is not worse than today's bag by the model alone, if one is level with the best."""
        _, listed = self.problem.within(heads, score + self.tolerance)
        found = sorted(listed, key=lambda one: one.score)
        return next((one for one in found if self._no_worse(one)), None)

    def _bought(self, picks: Sequence[int]) -> int:
        return sum(self.candidates[i].bought for i in picks)

    def _step(self, one: ClubSet) -> Step:
        bought, strokes = self._bought(one.picks), self.strokes(one.picks)
        kind: Literal["bends", "heads"] = "heads" if bought else "bends"
        return Step(
            kind, bought, one.picks, one.score, strokes, self.bag_strokes - strokes, self.rules.place(len(one.picks))
        )

    def _show_least_change(self) -> None:
        """Have every step show the level set that changes least, if it still does better than the step before.

        Every step, not the taken one alone: what a step wins is one figure, whichever is taken, and it is what decides.
        """
        for n, step in enumerate(self.steps):
            if step.kind == "bag":
                continue
            _, listed = self.problem.within(step.heads, step.score + self.tolerance)
            before = self.steps[n - 1].score if n > 1 else np.inf
            exactly = [one for one in listed if self._bought(one.picks) == step.heads and one.score < before - WORSE]
            order = rank_level(
                exactly, self.candidates, self.fitting.bag.pitching_wedge.loft_deg, self._bench_values(exactly),
                0 if self.rules.slot > 0.0 else max(self.rules.counts),
            )  # fmt: skip
            found = next((exactly[i] for i in order if self._no_worse(exactly[i])), None)
            if found is None:
                continue
            self._reckon([found.picks])
            shown = self._step(ClubSet(found.picks, self.problem.score(found.picks)))
            if shown.score < before - WORSE:
                self.steps[n] = shown

    def _count_level(self) -> None:
        """Count the sets that are level with the best of the step that is shown."""
        step = self.steps[self.taken]
        best = self.problem.best(step.heads, 1, step.score + NEAR_STROKES)
        least = best[0].score if best else step.score
        self.level_count, listed = self.problem.within(step.heads, least + self.tolerance)
        self.sets = tuple(sorted(listed, key=lambda one: one.score)[:BEST_SETS])

    def _no_worse(self, one: ClubSet) -> bool:
        """Not worse than today's bag by the model; a set that the fitter has asked for may be."""
        asked = self.rules.held or self.rules.lofts_deg is not None or len(self.owned) > max(self.rules.counts)
        return bool(asked) or self.strokes(one.picks) <= self.bag_strokes + WORSE

    def contenders(self, clubs: Sequence[ClubChoice]) -> tuple[tuple[int, ...], ...]:
        """The shown set with one club another, the nearest two for every slot; then sets near the best of the steps."""
        shown = self.steps[self.taken].picks
        swaps = [
            tuple(sorted((*shown[:slot], other, *shown[slot + 1 :])))
            for slot, club in enumerate(clubs)
            for other, _ in [row for row in club.ranked if row[0] != club.pick][:SWAPS]
        ]
        near = sorted(self._near, key=self.problem.score)
        return tuple(dict.fromkeys([*swaps, *(one.picks for one in self.sets), *near]))[:CONTENDERS]

    def _bench_values(self, level: Sequence[ClubSet]) -> Floats:
        """What the bench rules say of every set: the shares' sum of its best club's value."""
        short = self.sheet.short
        used = {PITCHING_WEDGE, *(i for one in level for i in one.picks)} - set(self._benched)
        if used and len(self.candidates) <= FEW:
            used = {PITCHING_WEDGE, *range(len(self.candidates))}  # all at once: it goes quicker
        if level and used:
            heads = [self.fitting.bag.pitching_wedge if i == PITCHING_WEDGE else self.candidates[i].head for i in used]
            values = BenchRules().judge(heads, short, self.fitting.player).values
            self._benched.update(zip(used, values, strict=True))
        shares = np.array([scenario.share for scenario in short])
        return np.array(
            [float(np.max([self._benched[i] for i in (*one.picks, PITCHING_WEDGE)], axis=0) @ shares) for one in level]
        )


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


def _between_bends(sheet: Sheet, candidates: Sequence[Candidate]) -> tuple[Floats, NDArray[np.bool_]]:
    """Raw strokes of every candidate: exact for a head's strongest, weakest and least bend, between them a parabola.

    Of few candidates all are exact.
    """
    if len(candidates) <= FEW:
        return sheet.raw([candidate.head for candidate in candidates]), np.ones(len(candidates), dtype=bool)
    by_code = _by_code(candidates)
    nodes = {code: _nodes([candidates[i].bend_deg for i in some], some) for code, some in by_code.items()}
    wanted = [i for some in nodes.values() for i in some]
    exact = np.zeros(len(candidates), dtype=bool)
    exact[wanted] = True
    raw = np.empty((len(candidates), sheet.size))
    raw[wanted] = sheet.raw([candidates[i].head for i in wanted])
    for code, some in by_code.items():
        at = np.array([candidates[i].bend_deg for i in nodes[code]])
        for i in some:
            if not exact[i]:
                raw[i] = _lagrange(at, candidates[i].bend_deg) @ raw[nodes[code]]
    return raw, exact


def _by_code(candidates: Sequence[Candidate]) -> dict[str, list[int]]:
    found: dict[str, list[int]] = {}
    for i, candidate in enumerate(candidates):
        found.setdefault(candidate.stock.code, []).append(i)
    return found


def exact_of(candidates: Sequence[Candidate]) -> list[int]:
    """The candidates whose strokes a search reckons from the start: few are all, else of every head the bends that carry
    the others.
    """
    if len(candidates) <= FEW:
        return list(range(len(candidates)))
    return [i for some in _by_code(candidates).values() for i in _nodes([candidates[n].bend_deg for n in some], some)]


def _nodes(bends: Sequence[float], indices: Sequence[int]) -> list[int]:
    places = {int(np.argmin(bends)), int(np.argmax(bends)), int(np.argmin(np.abs(bends)))}
    return [indices[place] for place in sorted(places)]


def _lagrange(at: Floats, x: float) -> Floats:
    """Weights of the polynomial through the nodes."""
    return np.array([np.prod([(x - b) / (a - b) for b in at if b != a]) for a in at])


def _explained(
    fitting: Fitting,
    book: _Book,
    scenarios: list[Scenario],
    model: CarryModel,
    ladders: LadderChoice,
    *,
    whole_rack: bool,
) -> Recommendation:
    candidates, steps = book.candidates, book.steps
    step = steps[book.taken]
    above_weighted = book.above.cost * book.sheet.weights
    picks = step.picks
    columns = _columns(book.sheet)
    shots = shots_of(columns)
    clubs = tuple(_club(book, scenarios, shots, picks, slot) for slot in range(len(picks)))
    ladder = _ladder(fitting, ladders, [candidates[i].head.loft_deg for i in picks])
    bench = BenchRules().judge([candidates[i].head for i in picks], scenarios, fitting.player)
    return Recommendation(
        fitting=fitting,
        carry_model=model,
        strikes=count_strikes(fitting),
        rungs=_rungs(model, fitting, ladder),
        options=ladders.options,
        ladder=ladder,
        typed=fitting.ladder_deg is not None,
        scenarios=tuple(scenarios),
        columns=columns,
        sheet=book.sheet,
        candidates=tuple(candidates),
        costs=book.costs,
        exact=book.exact,
        above=book.above,
        problem=book.problem,
        bag=book._bag_picks() or (),
        bag_costs=book.bag_costs,
        strokes_bag=book.bag_strokes,
        steps=tuple(steps),
        recommended=book.recommended,
        taken=book.taken,
        level=book.level_count,
        tolerance=book.tolerance,
        sets=book.sets,
        contenders=book.contenders(clubs),
        clubs=clubs,
        served=book.problem.served(picks, above_weighted),
        bench=bench,
        missing_lofts_deg=book.missing,
        pinned=tuple(fitting.pinned.get(candidates[i].head.loft_deg) == candidates[i].stock.code for i in picks),
        lost_pins=_lost_pins(fitting, [candidates[i] for i in picks]),
        whole_rack=whole_rack,
    )


def _lost_pins(fitting: Fitting, chosen: Iterable[Candidate]) -> tuple[tuple[float, str], ...]:
    here = {(round(candidate.head.loft_deg, 2), candidate.stock.code) for candidate in chosen}
    return tuple((loft, code) for loft, code in fitting.pinned.items() if (round(loft, 2), code) not in here)


def _columns(sheet: Sheet) -> tuple[Column, ...]:
    short = [
        Column(s, pin.name, s.ground.name, layout.hole)
        for s in sheet.short
        for pin, layout in zip(PINS, pins_of(s.layout), strict=True)
    ]
    distances = sheet.asked.distances[0]
    far = [Column(None, "middle", ground.name, float(d)) for ground, _ in sheet.asked.approaches for d in distances]
    return (*short, *far)


def _club(
    book: _Book, scenarios: Sequence[Scenario], shots: Sequence[str], picks: tuple[int, ...], slot: int
) -> ClubChoice:
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


def _ranked(book: _Book, picks: tuple[int, ...], slot: int) -> tuple[tuple[int, float], ...]:
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


def _replaced(book: _Book, picks: tuple[int, ...], slot: int) -> str | None:
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


def _ladder(fitting: Fitting, ladders: LadderChoice, lofts: Sequence[float]) -> Ladder:
    """The ladder of the set."""
    return ladders.search.score(lofts or [fitting.bag.pitching_wedge.loft_deg + LEAST_STEP_DEG])


def _rungs(model: CarryModel, fitting: Fitting, ladder: Ladder) -> tuple[Rung, ...]:
    main = max(fitting.grounds, key=lambda ground: ground.share).green
    green = Green(GREEN_FIRMNESS[main])
    lofts = (fitting.bag.nine_iron_loft_deg, fitting.bag.pitching_wedge.loft_deg, *ladder.lofts_deg)
    return tuple(model.rung(loft, swing, REFERENCE_AIR, green) for loft in lofts for swing in model.swings)


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
