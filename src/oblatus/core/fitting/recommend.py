"""From a fitting to a proposal: the sheet of strokes, the steps of change, the set that is taken, and what it is for."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

import numpy as np
from numpy.typing import NDArray

from oblatus.core.fitting.asked import Asked
from oblatus.core.fitting.bench_rules import BenchRules
from oblatus.core.fitting.book import Book
from oblatus.core.fitting.candidates import Candidate, candidates_of
from oblatus.core.fitting.club_choice import club_at
from oblatus.core.fitting.costs import Sheet
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
from oblatus.core.fitting.nodes import ENTRY_NODES
from oblatus.core.fitting.recommendation import Built, Column, Recommendation, built, shots_of
from oblatus.core.fitting.scenarios import Scenario, build_scenarios
from oblatus.core.fitting.sets import held_of
from oblatus.core.flight import GREEN_FIRMNESS, REFERENCE_AIR, Green
from oblatus.core.gapping import CarryModel, Ladder, Rung
from oblatus.core.gapping.ladder import LEAST_STEP_DEG
from oblatus.core.strokes import PINS, pins_of
from oblatus.core.threads import meanwhile
from oblatus.errors import fault

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

LEVEL_STROKES = 0.05
ABOVE = ("pitching wedge", "nine-iron")


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
        book = Book(fitting, sheet, mine, lowest, tolerance)
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


def _explained(
    fitting: Fitting,
    book: Book,
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
    clubs = tuple(club_at(book, scenarios, shots, picks, slot) for slot in range(len(picks)))
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
        bag=book.bag_picks() or (),
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


def _ladder(fitting: Fitting, ladders: LadderChoice, lofts: Sequence[float]) -> Ladder:
    """The ladder of the set."""
    return ladders.search.score(lofts or [fitting.bag.pitching_wedge.loft_deg + LEAST_STEP_DEG])


def _rungs(model: CarryModel, fitting: Fitting, ladder: Ladder) -> tuple[Rung, ...]:
    main = max(fitting.grounds, key=lambda ground: ground.share).green
    green = Green(GREEN_FIRMNESS[main])
    lofts = (fitting.bag.nine_iron_loft_deg, fitting.bag.pitching_wedge.loft_deg, *ladder.lofts_deg)
    return tuple(model.rung(loft, swing, REFERENCE_AIR, green) for loft in lofts for swing in model.swings)
