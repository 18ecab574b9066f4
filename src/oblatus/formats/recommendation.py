"""The proposal as JSON: keys carry units, indices are spelled out, sentences included."""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from functools import lru_cache
from itertools import pairwise
from typing import Literal

import numpy as np

from oblatus.core import ENGINE_VERSION
from oblatus.core.clubs import Head
from oblatus.core.fitting import Recommendation, Scenario, SoleJudge, explain
from oblatus.core.fitting.recommend import wanted_top_loft
from oblatus.core.gapping import Ladder, MeasuredStrike, Rung
from oblatus.core.gapping.ladder import overlap_limit
from oblatus.core.geometry import deliver, head_outline
from oblatus.formats.convert import fitting_from
from oblatus.formats.fields import Strict
from oblatus.formats.fitting import FittingDocument, HeadDocument, RackHeadDocument
from oblatus.formats.strike import GroundIn, SandIn, TurfIn

HOLE_FACTOR = 1.5


class RungOut(Strict):
    """One club with one swing."""

    club: str
    loft_deg: float
    swing: str
    club_speed_mps: float
    dynamic_loft_deg: float
    ball_speed_mps: float
    launch_deg: float
    spin_rpm: float
    carry_m: float
    apex_m: float
    landing_deg: float
    run_m: float
    source: Literal["modelled", "assumed"]


class GapOut(Strict):
    """Full-swing gap between neighbours [m] and what it is."""

    from_club: str
    to_club: str
    gap_m: float
    kind: Literal["even", "hole", "overlap"]


class LadderOut(Strict):
    """A ladder with its penalty, the weighted parts of it, what is to be done for it and what it gives up.

    `uncovered_share` is the share of faced distances that no swing reaches, `alone_share` that with one shot at most.
    """

    lofts_deg: list[float]
    penalty: float
    parts: dict[str, float]
    gaps_m: list[float]
    uncovered_m: float
    uncovered_share: float
    alone_share: float
    cost: float
    changes: list[str]
    left_out: list[str]
    gives_up: str
    chosen: bool


class LoftsOut(Strict):
    """The ladder, what other counts would do, and every rung."""

    chosen: LadderOut
    typed: bool
    options: list[LadderOut]
    wanted_gap_m: float
    wanted_top_deg: float
    rungs: list[RungOut]
    gaps: list[GapOut]


class DeliveredOut(Strict):
    """A head in one scenario; `value` is the product of `parts`."""

    scenario: str
    loft_deg: float
    bounce_deg: float
    face_direction_deg: float
    leading_edge_height_mm: float
    speed_mps: float | None
    value: float
    parts: dict[str, float]


class ScenarioOut(Strict):
    """One shot on one ground, its setup and who serves it (slot, -1 for the pitching wedge)."""

    key: str
    shot: str
    shot_name: str
    kind: Literal["full", "turf", "sand"]
    ground: str
    share: float
    opening_deg: float
    lean_deg: float
    attack_deg: float
    entry_mm: float
    release: float
    ground_here: GroundIn
    target_carry_m: float
    wanted_bounce_low_deg: float
    wanted_bounce_high_deg: float
    served_by: int
    value: float


class CandidateOut(Strict):
    """A ranked head for a slot: `set_score` is the best set that has it, `behind` what it gives up to the first."""

    code: str
    name: str
    owned: bool
    bend_deg: float
    shape: str
    head: HeadDocument
    outline_mm: list[list[float]]
    edge_height_mm: float
    set_score: float
    behind: float
    reason: str


class ClubOut(Strict):
    """One club of the set with its duties, its reason and the ranking for its slot."""

    slot: int
    loft_deg: float
    bounce_deg: float
    duty: str
    duties: list[str]
    reason: str
    pinned: bool
    candidates: list[CandidateOut]
    delivered: list[DeliveredOut]


class SetOut(Strict):
    """A whole set, its score, and what it gains and gives up against the first, by shot in hundredths of value."""

    score: float
    clubs: list[str]
    gains: str
    gives_up: str


class NoteOut(Strict):
    """A caution or an open end."""

    kind: Literal["caution", "assumed", "gap", "rule"]
    text: str


class RecommendationOut(Strict):
    """The whole proposal. `strikes_key` tells the strikes that it stands on from any others."""

    engine_version: str
    judge: str
    club_speed_mps: float
    full_lean_deg: float
    carry_assumed: bool
    strikes: int
    strikes_key: str = ""
    lofts: LoftsOut
    scenarios: list[ScenarioOut]
    clubs: list[ClubOut]
    sets: list[SetOut]
    level_sets: int
    first_because: str = ""
    bench_clubs: list[str]
    unserved: list[str]
    notes: list[NoteOut]


def strikes_key(strikes: Sequence[MeasuredStrike]) -> str:
    """Twelve hexadecimal digits that change with whatever the strikes tell of carries; empty without strikes."""
    if not strikes:
        return ""
    told = "|".join(f"{s.id} {s.club} {s.loft_deg} {s.swing} {s.carry} {s.set_aside}" for s in strikes)
    return hashlib.blake2b(told.encode(), digest_size=6).hexdigest()


def recommendation_out(
    recommendation: Recommendation, document: FittingDocument, strikes: Sequence[MeasuredStrike] = ()
) -> RecommendationOut:
    """The engine's proposal, made with these strikes, as JSON models."""
    player = fitting_from(document, ()).player
    return RecommendationOut(
        engine_version=ENGINE_VERSION,
        judge=recommendation.judgement.judge,
        club_speed_mps=_round(recommendation.carry_model.speed),
        full_lean_deg=_round(player.habit.full_lean_deg),
        carry_assumed=recommendation.carry_model.assumed and not recommendation.strikes,
        strikes=recommendation.strikes,
        strikes_key=strikes_key(strikes),
        lofts=_lofts(recommendation, wanted_top_loft(player)),
        scenarios=_scenarios(recommendation),
        clubs=[_club(recommendation, slot) for slot in range(len(recommendation.clubs))],
        sets=[_set(recommendation, index) for index in range(len(recommendation.sets))],
        level_sets=recommendation.tied,
        first_because=explain.why_first(recommendation) if recommendation.sets else "",
        bench_clubs=[_label(recommendation, p) for s in recommendation.bench_sets for p in s.picks],
        unserved=[recommendation.scenarios[i].key for i in explain.unserved(recommendation)],
        notes=[NoteOut(kind=kind, text=text) for kind, text in explain.notes(recommendation)],  # type: ignore[arg-type]
    )


def head_out(head: Head) -> HeadDocument:
    """Static geometry in the document's units."""
    return HeadDocument(
        loft_deg=_round(head.loft_deg),
        bounce_deg=_round(head.bounce_deg),
        sole_width_mm=_round(head.sole_width * 1000),
        camber_radius_mm=_round(head.camber_radius * 1000),
        leading_edge_radius_mm=_round(head.leading_edge_radius * 1000),
        front_bevel_mm=_round(head.front_bevel * 1000),
        front_bevel_deg=_round(head.front_bevel_deg),
        trailing_relief_fraction=_round(head.trailing_relief_fraction),
        trailing_relief_deg=_round(head.trailing_relief_deg),
        heel_relief_mm=_round(head.heel_relief * 1000),
        toe_relief_mm=_round(head.toe_relief * 1000),
        lie_deg=_round(head.lie_deg),
        head_mass_kg=_round(head.mass, 4),
    )


@lru_cache(maxsize=4096)
def outline_mm(head: Head) -> list[list[float]]:
    """The head's section for drawing [mm]."""
    return [[x, z] for x, z in np.round(1000 * head_outline(head), 2).tolist()]


@lru_cache(maxsize=4096)
def edge_height_mm(head: Head) -> float:
    """Height of the leading edge with the shaft upright and the sole on the floor [mm], as a gauge reads it."""
    return _round(1000 * deliver(head, 0.0, 0.0).leading_edge_height)


def _round(value: float, places: int = 3) -> float:
    return round(float(value), places) + 0.0


def _label(recommendation: Recommendation, pick: int) -> str:
    candidate = recommendation.candidates[pick]
    head = candidate.head
    return f"{candidate.stock.name}: {explain.degrees(head.loft_deg)}, {explain.degrees(head.bounce_deg)} bounce"


def _set(recommendation: Recommendation, index: int) -> SetOut:
    club_set = recommendation.sets[index]
    gains, gives_up = explain.set_tradeoff(recommendation, index)
    clubs = [_label(recommendation, pick) for pick in club_set.picks]
    return SetOut(score=_round(club_set.score, 5), clubs=clubs, gains=gains, gives_up=gives_up)


def _lofts(recommendation: Recommendation, wanted_top: float) -> LoftsOut:
    options = recommendation.options
    names = ["nine-iron", "pitching wedge"] + [explain.degrees(loft) for loft in recommendation.ladder.lofts_deg]
    swings = len(recommendation.rungs) // len(names)
    rungs = [_rung(rung, names[i // swings], recommendation) for i, rung in enumerate(recommendation.rungs)]
    full = [rung for rung in rungs if rung.swing == "full"]
    wanted = recommendation.ladder.wanted_gap
    gaps = []
    for a, b in pairwise(full[1:]):
        gap = a.carry_m - b.carry_m
        kind: Literal["even", "hole", "overlap"] = "even"
        if gap > HOLE_FACTOR * wanted:
            kind = "hole"
        elif gap < overlap_limit(wanted):
            kind = "overlap"
        gaps.append(GapOut(from_club=a.club, to_club=b.club, gap_m=_round(gap), kind=kind))
    return LoftsOut(
        chosen=ladder_out(recommendation.ladder, options, True),
        typed=recommendation.typed,
        options=[ladder_out(o, options, o.lofts_deg == recommendation.ladder.lofts_deg) for o in options],
        wanted_gap_m=_round(wanted),
        wanted_top_deg=_round(wanted_top),
        rungs=rungs,
        gaps=gaps,
    )


def ladder_out(ladder: Ladder, options: Sequence[Ladder], chosen: bool) -> LadderOut:
    """A ladder beside the best of each number."""
    return LadderOut(
        lofts_deg=list(ladder.lofts_deg),
        penalty=_round(ladder.penalty, 4),
        parts={name: _round(part, 4) for name, part in ladder.parts.items()},
        gaps_m=[_round(gap) for gap in ladder.gaps],
        uncovered_m=_round(ladder.uncovered),
        uncovered_share=_round(ladder.uncovered_share, 4),
        alone_share=_round(ladder.alone_share, 4),
        cost=_round(ladder.cost, 4),
        changes=[explain.change_words(change) for change in ladder.changes],
        left_out=[wedge.name for wedge in ladder.left_out],
        gives_up=explain.ladder_gives_up(ladder, options),
        chosen=chosen,
    )


def _rung(rung: Rung, club: str, recommendation: Recommendation) -> RungOut:
    return RungOut(
        club=club,
        loft_deg=_round(rung.loft_deg),
        swing=rung.swing,
        club_speed_mps=_round(rung.delivery.speed),
        dynamic_loft_deg=_round(rung.delivery.dynamic_loft_deg),
        ball_speed_mps=_round(rung.launch.ball_speed),
        launch_deg=_round(rung.launch.launch_deg),
        spin_rpm=_round(rung.launch.spin_rpm, 0),
        carry_m=_round(rung.flight.carry),
        apex_m=_round(rung.flight.apex),
        landing_deg=_round(rung.flight.landing_deg),
        run_m=_round(rung.flight.run),
        source="assumed" if recommendation.carry_model.assumed and not recommendation.strikes else "modelled",
    )


def _scenarios(recommendation: Recommendation) -> list[ScenarioOut]:
    wanted = recommendation.judgement.wanted
    return [
        ScenarioOut(
            key=s.key,
            shot=s.shot.key,
            shot_name=s.shot.name,
            kind=s.shot.kind,
            ground=s.ground.name,
            share=_round(s.share, 5),
            opening_deg=_round(s.setup.opening_deg),
            lean_deg=_round(s.setup.lean_deg),
            attack_deg=_round(s.setup.attack_deg),
            entry_mm=_round(1000 * s.setup.entry),
            release=_round(s.setup.release),
            ground_here=_ground_here(s),
            target_carry_m=_round(s.shot.target),
            wanted_bounce_low_deg=_round(wanted[i, 0]),
            wanted_bounce_high_deg=_round(wanted[i, 1]),
            served_by=recommendation.served_by[i],
            value=_round(recommendation.scenario_values[i]),
        )
        for i, s in enumerate(recommendation.scenarios)
    ]


def _ground_here(scenario: Scenario) -> TurfIn | SandIn:
    """The lie of a scenario as the shot desk takes it."""
    if scenario.shot.kind == "sand":
        sand = scenario.sand
        return SandIn(
            kind="sand",
            penetrometer_kg_cm2=sand.penetrometer_kg_cm2,
            loose_depth_mm=_round(1000 * sand.loose_depth),
            moisture=sand.moisture,
            plug_depth_mm=_round(1000 * sand.plug_depth),
        )
    turf = scenario.turf
    return TurfIn(
        kind="turf",
        firmness_g=turf.firmness_g,
        moisture=turf.moisture,
        root_density=turf.root_density,
        ball_height_mm=_round(1000 * turf.ball_height),
    )


def _club(recommendation: Recommendation, slot: int) -> ClubOut:
    choice = recommendation.clubs[slot]
    head = recommendation.candidates[choice.pick].head
    rows: Sequence[tuple[int, float]] = choice.ranked
    if all(i != choice.pick for i, _ in rows):
        rows = [(choice.pick, recommendation.sets[0].score), *rows]
    rows = sorted(rows, key=lambda row: (row[0] != choice.pick, -row[1]))
    return ClubOut(
        slot=slot,
        loft_deg=_round(head.loft_deg),
        bounce_deg=_round(head.bounce_deg),
        duty=explain.duty_words(recommendation, slot),
        duties=[recommendation.scenarios[i].key for i in choice.duties],
        reason=explain.club_reason(recommendation, slot),
        pinned=recommendation.pinned[slot],
        candidates=[_candidate(recommendation, slot, i, score) for i, score in rows],
        delivered=_delivered(recommendation, choice.pick),
    )


def _delivered(recommendation: Recommendation, pick: int) -> list[DeliveredOut]:
    judgement = recommendation.judgement
    delivered = np.round(judgement.delivered[pick] * (1.0, 1.0, 1.0, 1000.0), 2) + 0.0
    values = np.round(judgement.values[pick], 3).tolist()
    names = list(judgement.parts)
    parts = np.round(np.column_stack([part[pick] for part in judgement.parts.values()]), 3).tolist()
    return [
        DeliveredOut(
            scenario=scenario.key,
            loft_deg=loft,
            bounce_deg=bounce,
            face_direction_deg=face,
            leading_edge_height_mm=edge,
            speed_mps=None if judgement.speeds is None else _round(judgement.speeds[pick, i]),
            value=values[i],
            parts=dict(zip(names, parts[i], strict=True)),
        )
        for i, (scenario, (loft, bounce, face, edge)) in enumerate(
            zip(recommendation.scenarios, delivered.tolist(), strict=True)
        )
    ]


def _candidate(recommendation: Recommendation, slot: int, pick: int, score: float) -> CandidateOut:
    candidate = recommendation.candidates[pick]
    return CandidateOut(
        code=candidate.stock.code,
        name=candidate.stock.name,
        owned=candidate.stock.owned,
        bend_deg=_round(candidate.bend_deg),
        shape=candidate.head.shape_words(),
        head=head_out(candidate.head),
        outline_mm=outline_mm(candidate.head),
        edge_height_mm=edge_height_mm(candidate.head),
        set_score=_round(score, 5),
        behind=_round(recommendation.sets[0].score - score, 5),
        reason=explain.candidate_reason(recommendation, slot, pick),
    )


def recommend_document(
    document: FittingDocument,
    rack: Sequence[RackHeadDocument],
    judge: SoleJudge | None = None,
    strikes: Sequence[MeasuredStrike] | None = None,
) -> RecommendationOut:
    """Document in, proposal out; judged by the bench rules unless another judge is given.

    `strikes`, if given, stand in for those of the document.

    Raises
    ------
    InputError
        As `oblatus.core.fitting.recommend`.
    """
    from oblatus.core.fitting import recommend

    fitting = fitting_from(document, rack, strikes)
    return recommendation_out(recommend(fitting, judge), document, fitting.strikes)
