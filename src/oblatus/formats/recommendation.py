"""The proposal as JSON: keys carry units, indices are spelled out, sentences included. Strokes are a round unless
said.
"""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from functools import lru_cache
from itertools import pairwise
from typing import Literal

import numpy as np

from oblatus.core import ENGINE_VERSION
from oblatus.core.clubs import Head, StockHead
from oblatus.core.figures import in_document
from oblatus.core.fitting import ClubSet, Recommendation, Step, explain
from oblatus.core.fitting.bench_rules import wanted_bounce
from oblatus.core.fitting.candidates import Candidate
from oblatus.core.fitting.carries_of import GapKind, gap_kind
from oblatus.core.fitting.evidence import Doubt
from oblatus.core.fitting.fitting import wanted_top_loft
from oblatus.core.fitting.leaks import Leak
from oblatus.core.fitting.proposal import Proposal
from oblatus.core.fitting.proved import proof_words, same_sole
from oblatus.core.fitting.steps import StepKind
from oblatus.core.gapping import Ladder, MeasuredStrike, Rung
from oblatus.core.geometry import deliver, deliver_many, head_outline
from oblatus.core.shots import Kind
from oblatus.core.strokes import PINS
from oblatus.formats.fields import Strict
from oblatus.formats.rounded import rounded
from oblatus.formats.sections.bag import HeadDocument
from oblatus.formats.sections.measuring import ProofStanding
from oblatus.formats.strike import GroundIn, surface_out


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
    kind: GapKind


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


class BuiltClubOut(Strict):
    """A club as it would be built, small: for a step of change or a set."""

    code: str
    name: str
    owned: bool
    loft_deg: float
    bounce_deg: float
    sole_width_mm: float
    bend_deg: float
    outline_mm: list[list[float]]


class StepOut(Strict):
    """A step of change: today's bag, bends only, or heads bought.

    `gain_strokes_round` is the model's gain over today's bag; `low`, `high` hold it in 8 of 10 draws, `better_share` is
    the share of draws in which it beats the bag (null until they are drawn). `price` is the rack's, null where it states
    none. `more_strokes_round` is what it wins over the proposed step, `turned_down` why a further one is not proposed.
    """

    kind: StepKind
    heads_bought: int
    words: str
    clubs: list[BuiltClubOut]
    strokes_round: float
    gain_strokes_round: float
    more_strokes_round: float
    turned_down: str | None
    low: float | None
    high: float | None
    better_share: float | None
    price: float | None


class DoubtOut(Strict):
    """How the intervals were made: draws, how many draws of the laws are among them, doubt between level sets, and
    whether the number of strikes behind a spread is assumed.
    """

    draws: int
    law_draws: int
    paired: float
    assumed_count: bool


class LeakOut(Strict):
    """What a situation costs over a scratch player with the best tool, and whose it is.

    `won` is what the shown set wins there over today's bag; halving the spread of entry, lean or speed would win so much.
    """

    situation: str
    name: str
    grounds: list[str]
    share: float
    strokes_round: float
    won: float
    club_part: float
    player_part: float
    halving: dict[str, float]
    drill: str | None
    served_by: dict[str, str]


class SituationOut(Strict):
    """A short scenario for one club: strokes a shot over its pins with the chosen head, the owned one, the best on
    the rack.
    """

    scenario: str
    strokes: float
    opening_deg: float
    loft_deg: float
    bounce_deg: float
    face_direction_deg: float
    leading_edge_height_mm: float
    speed_mps: float
    owned_strokes: float | None
    best_strokes: float
    best_name: str
    serves: list[str]


class ScenarioOut(Strict):
    """One shot on one ground: its setup, where the hole is, strokes a shot with the set, who serves it at each pin.

    `served_by` are slots of the set, -1 the pitching wedge, -2 the nine-iron; full swings have none.
    """

    key: str
    shot: str
    shot_name: str
    kind: Kind
    ground: str
    share: float
    opening_deg: float
    lean_deg: float
    attack_deg: float
    entry_mm: float
    release: float
    ground_here: GroundIn
    target_carry_m: float
    hole_m: float
    room_m: float
    behind_m: float
    short: str
    lip_m: float
    wanted_bounce_low_deg: float
    wanted_bounce_high_deg: float
    served_by: dict[str, int]
    strokes: float | None


class CandidateOut(Strict):
    """A ranked head for a slot, at its best bend: `behind` is what the set with it costs more, strokes a round."""

    code: str
    name: str
    owned: bool
    bend_deg: float
    shape: str
    head: HeadDocument
    outline_mm: list[list[float]]
    edge_height_mm: float
    price: float | None
    behind: float
    reason: str


class OpeningOut(Strict):
    """How far the face is opened where the club serves."""

    situation: str
    ground: str
    pin: str
    opening_deg: float


class ClubOut(Strict):
    """One club of the set: what it is, what it brings and replaces, its reason and the ranking for its slot."""

    slot: int
    code: str
    name: str
    owned: bool
    loft_deg: float
    bounce_deg: float
    sole_width_mm: float
    bend_deg: float
    openings: list[OpeningOut]
    brings_strokes_round: float
    brings: list[BringsOut]
    replaces: str | None
    duty: str
    duties: list[str]
    reason: str
    pinned: bool
    survives: float | None
    proofs: list[ProvedOut]
    candidates: list[CandidateOut]
    situations: list[SituationOut]


class ProvedOut(Strict):
    """How a proof of the club's head stood to what the model expected, in a line."""

    standing: ProofStanding
    words: str


class BringsOut(Strict):
    """What a club brings in a shot, strokes a round."""

    name: str
    strokes_round: float


class BagVerdictOut(Strict):
    """What is to be done with an owned wedge, and why."""

    code: str
    verdict: str
    why: str


class SetOut(Strict):
    """A whole set: strokes a round behind the best, and what it gains and gives up against the shown one, by shot."""

    behind: float
    clubs: list[str]
    gains: str
    gives_up: str
    shown: bool


class NoteOut(Strict):
    """A caution or an open end."""

    kind: Literal["caution", "assumed", "gap", "proof", "rule"]
    text: str


class EconomyOut(Strict):
    """The figures by which the decision was made, typed or usual."""

    shots_a_round: float
    worth_changing: float
    slot: float
    practice: float
    typed: list[str]
    table_scale: float = 1.0
    claims_sd: float = 0.5


class RecommendationOut(Strict):
    """The whole proposal. `strikes_key` tells the strikes that it stands on from any others.

    `taken_step` is the step whose set is shown, `recommended_step` the one proposed: places in `steps`. `whole_rack` says
    whether every head of the rack was looked at, or only those near the last choice.
    """

    engine_version: str
    club_speed_mps: float
    full_lean_deg: float
    carry_assumed: bool
    strikes: int
    strikes_key: str = ""
    whole_rack: bool
    strokes_round_bag: float
    strokes_round: float
    gain_strokes_round: float
    practice_strokes_round: float
    steps: list[StepOut]
    recommended_step: int
    taken_step: int
    doubt: DoubtOut | None
    verdict: str
    practice: str
    economy: EconomyOut
    lofts: LoftsOut
    scenarios: list[ScenarioOut]
    clubs: list[ClubOut]
    bag: list[BagVerdictOut]
    sets: list[SetOut]
    level_sets: int
    level_within: float
    first_because: str
    leaks: list[LeakOut]
    notes: list[NoteOut]
    next_measurement: str | None


def strikes_key(strikes: Sequence[MeasuredStrike]) -> str:
    """Twelve hexadecimal digits that change with whatever the strikes tell of carries; empty without strikes."""
    if not strikes:
        return ""
    told = "|".join(f"{s.id} {s.club} {s.loft_deg} {s.swing} {s.carry} {s.set_aside}" for s in strikes)
    return hashlib.blake2b(told.encode(), digest_size=6).hexdigest()


def recommendation_out(proposal: Proposal) -> RecommendationOut:
    """The engine's proposal as JSON models."""
    recommendation, doubt = proposal.recommendation, proposal.doubt
    fitting = recommendation.fitting
    step = recommendation.steps[recommendation.taken]
    costs = recommendation.costs
    pinned = _over_pins(recommendation, costs.cost), _over_pins(recommendation, costs.strokes)
    return RecommendationOut(
        engine_version=ENGINE_VERSION,
        club_speed_mps=rounded(recommendation.carry_model.speed),
        full_lean_deg=rounded(fitting.player.habit.full_lean_deg),
        carry_assumed=recommendation.carry_model.assumed and not recommendation.strikes,
        strikes=recommendation.strikes,
        strikes_key=strikes_key(fitting.strikes),
        whole_rack=recommendation.whole_rack,
        strokes_round_bag=rounded(recommendation.strokes_bag),
        strokes_round=rounded(step.strokes),
        gain_strokes_round=rounded(step.gain),
        practice_strokes_round=rounded(step.score - step.place - step.strokes),
        steps=[_step(recommendation, n, doubt) for n in range(len(recommendation.steps))],
        recommended_step=recommendation.recommended,
        taken_step=recommendation.taken,
        doubt=None if doubt is None else DoubtOut(
            draws=doubt.count, law_draws=doubt.law_draws, paired=rounded(doubt.paired),
            assumed_count=doubt.assumed_count,
        ),
        verdict=explain.verdict(recommendation),
        practice=explain.practice_words(recommendation),
        economy=_economy(recommendation),
        lofts=_lofts(recommendation, wanted_top_loft(fitting.player)),
        scenarios=_scenarios(recommendation),
        clubs=[_club(recommendation, slot, doubt, pinned) for slot in range(len(recommendation.clubs))],
        bag=[
            BagVerdictOut(code=code, verdict=verdict, why=why) for code, verdict, why in
            explain.bag_verdicts(recommendation)
        ],
        sets=[
            _set(recommendation, one, *words) for one, words in
            zip(recommendation.sets, explain.set_tradeoffs(recommendation), strict=True)
        ],
        level_sets=recommendation.level,
        level_within=recommendation.tolerance,
        first_because=explain.why_first(recommendation),
        leaks=[_leak(leak) for leak in proposal.leaks],
        notes=[NoteOut(kind=kind, text=text) for kind, text in explain.notes(recommendation)],  # type: ignore[arg-type]
        next_measurement=None if doubt is None else explain.next_measurement(doubt),
    )  # fmt: skip


@lru_cache(maxsize=4096)
def head_out(head: Head) -> HeadDocument:
    """Static geometry in the document's units; remembered, because every edit shows the same heads again."""
    return HeadDocument(**{key: rounded(value) for key, value in in_document(head).items()})


@lru_cache(maxsize=4096)
def outline_mm(head: Head) -> list[list[float]]:
    """The head's section for drawing [mm]."""
    return [[x, z] for x, z in np.round(1000 * head_outline(head), 2).tolist()]


@lru_cache(maxsize=4096)
def edge_height_mm(head: Head) -> float:
    """Height of the leading edge with the shaft upright and the sole on the floor [mm], as a gauge reads it."""
    return rounded(1000 * deliver(head, 0.0, 0.0).leading_edge_height)


def _label(candidate: Candidate) -> str:
    head = candidate.head
    return f"{candidate.stock.name}: {explain.degrees(head.loft_deg)}, {explain.degrees(head.bounce_deg)} bounce"


def _built(stock: StockHead, head: Head, bend_deg: float) -> BuiltClubOut:
    return BuiltClubOut(
        code=stock.code,
        name=stock.name,
        owned=stock.owned,
        loft_deg=rounded(head.loft_deg),
        bounce_deg=rounded(head.bounce_deg),
        sole_width_mm=rounded(1000 * head.sole_width),
        bend_deg=rounded(bend_deg),
        outline_mm=outline_mm(head),
    )


def _clubs_of(recommendation: Recommendation, step: Step) -> list[BuiltClubOut]:
    if step.kind == "bag":
        owned = sorted((s for s in recommendation.fitting.stock if s.owned), key=lambda item: item.head.loft_deg)
        return [_built(item, item.head, 0.0) for item in owned]
    chosen = [recommendation.candidates[i] for i in step.picks]
    return [_built(candidate.stock, candidate.head, candidate.bend_deg) for candidate in chosen]


def _step(recommendation: Recommendation, n: int, doubt: Doubt | None) -> StepOut:
    step, proposed = recommendation.steps[n], recommendation.steps[recommendation.recommended]
    prices = [recommendation.candidates[i].stock.price for i in step.picks if recommendation.candidates[i].bought]
    drawn = None if doubt is None else doubt.steps[n]
    return StepOut(
        kind=step.kind,
        heads_bought=step.heads,
        words=explain.step_words(recommendation, step),
        clubs=_clubs_of(recommendation, step),
        strokes_round=rounded(step.strokes),
        gain_strokes_round=rounded(step.gain),
        more_strokes_round=rounded(step.gain - proposed.gain),
        turned_down=explain.turned_down(recommendation, n),
        low=None if drawn is None else rounded(drawn.low),
        high=None if drawn is None else rounded(drawn.high),
        better_share=None if drawn is None else rounded(drawn.better_share),
        price=None if any(price is None for price in prices) else rounded(sum(p for p in prices if p is not None), 2),
    )


def _economy(recommendation: Recommendation) -> EconomyOut:
    economy, handicap = recommendation.fitting.economy, recommendation.fitting.player.handicap
    usual = type(economy)()
    names = ("shots", "worth_changing", "slot", "practice", "table_scale", "claims_sd")
    return EconomyOut(
        shots_a_round=rounded(economy.shots_for(handicap)),
        worth_changing=economy.worth_changing,
        slot=economy.slot,
        practice=economy.practice,
        table_scale=economy.table_scale,
        claims_sd=economy.claims_sd,
        typed=[name for name in names if getattr(economy, name) != getattr(usual, name)],
    )


def _set(recommendation: Recommendation, club_set: ClubSet, gains: str, gives_up: str) -> SetOut:
    return SetOut(
        behind=rounded(club_set.score - recommendation.sets[0].score),
        clubs=[_label(recommendation.candidates[pick]) for pick in club_set.picks],
        gains=gains,
        gives_up=gives_up,
        shown=club_set.picks == recommendation.picks,
    )


def _leak(leak: Leak) -> LeakOut:
    return LeakOut(
        situation=leak.key,
        name=leak.name,
        grounds=list(leak.grounds),
        share=rounded(leak.share),
        strokes_round=rounded(leak.strokes),
        won=rounded(leak.won),
        club_part=rounded(leak.club_part),
        player_part=rounded(leak.player_part),
        halving={name: rounded(value) for name, value in leak.halving.items()},
        drill=leak.drill,
        served_by=leak.served_by,
    )


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
        gaps.append(GapOut(from_club=a.club, to_club=b.club, gap_m=rounded(gap), kind=gap_kind(gap, wanted)))
    return LoftsOut(
        chosen=ladder_out(recommendation.ladder, options, True),
        typed=recommendation.typed,
        options=[ladder_out(o, options, o.lofts_deg == recommendation.ladder.lofts_deg) for o in options],
        wanted_gap_m=rounded(wanted),
        wanted_top_deg=rounded(wanted_top),
        rungs=rungs,
        gaps=gaps,
    )


def ladder_out(ladder: Ladder, options: Sequence[Ladder], chosen: bool) -> LadderOut:
    """A ladder beside the best of each number."""
    return LadderOut(
        lofts_deg=list(ladder.lofts_deg),
        penalty=rounded(ladder.penalty),
        parts={name: rounded(part) for name, part in ladder.parts.items()},
        gaps_m=[rounded(gap) for gap in ladder.gaps],
        uncovered_m=rounded(ladder.uncovered),
        uncovered_share=rounded(ladder.uncovered_share),
        alone_share=rounded(ladder.alone_share),
        cost=rounded(ladder.cost),
        changes=[explain.change_words(change) for change in ladder.changes],
        left_out=[wedge.name for wedge in ladder.left_out],
        gives_up=explain.ladder_gives_up(ladder, options),
        chosen=chosen,
    )


def _rung(rung: Rung, club: str, recommendation: Recommendation) -> RungOut:
    return RungOut(
        club=club,
        loft_deg=rounded(rung.loft_deg),
        swing=rung.swing,
        club_speed_mps=rounded(rung.delivery.speed),
        dynamic_loft_deg=rounded(rung.delivery.dynamic_loft_deg),
        ball_speed_mps=rounded(rung.launch.ball_speed),
        launch_deg=rounded(rung.launch.launch_deg),
        spin_rpm=rounded(rung.launch.spin_rpm, 0),
        carry_m=rounded(rung.flight.carry),
        apex_m=rounded(rung.flight.apex),
        landing_deg=rounded(rung.flight.landing_deg),
        run_m=rounded(rung.flight.run),
        source="assumed" if recommendation.carry_model.assumed and not recommendation.strikes else "modelled",
    )


def _scenarios(recommendation: Recommendation) -> list[ScenarioOut]:
    # by key: a sheet that was known already has scenarios of its own, equal to these
    places = {s.key: n for n, s in enumerate(recommendation.sheet.short)}
    pins = len(PINS)
    columns = recommendation.problem.columns(recommendation.picks) if recommendation.picks else None
    total = recommendation.bag_strokes_columns if columns is None else columns
    short = slice(0, len(recommendation.sheet.short) * pins)
    shots = recommendation.sheet.weights[short].reshape(-1, pins).sum(axis=1)
    costs = (total[short].reshape(-1, pins).sum(axis=1) / shots).tolist()
    who = recommendation.served.tolist()
    found = []
    for s in recommendation.scenarios:
        n = places.get(s.key)
        strokes: float | None = None
        served: dict[str, int] = {}
        if n is not None:
            served = {pin.name: slot for pin, slot in zip(PINS, who[n * pins : (n + 1) * pins], strict=True)}
            strokes = rounded(costs[n])
        low, high = wanted_bounce(s)
        found.append(
            ScenarioOut(
                key=s.key,
                shot=s.shot.key,
                shot_name=s.shot.name,
                kind=s.shot.kind,
                ground=s.ground.name,
                share=rounded(s.share),
                opening_deg=rounded(s.setup.opening_deg),
                lean_deg=rounded(s.setup.lean_deg),
                attack_deg=rounded(s.setup.attack_deg),
                entry_mm=rounded(1000 * s.setup.entry),
                release=rounded(s.setup.release),
                ground_here=surface_out(s.surface),
                target_carry_m=rounded(s.shot.target),
                hole_m=rounded(s.layout.hole),
                room_m=rounded(s.layout.room),
                behind_m=rounded(s.layout.behind),
                short=s.layout.short,
                lip_m=rounded(s.lip),
                wanted_bounce_low_deg=rounded(low),
                wanted_bounce_high_deg=rounded(high),
                served_by=served,
                strokes=strokes,
            )
        )
    return found


def _club(recommendation: Recommendation, slot: int, doubt: Doubt | None, pinned: tuple[Rows, Rows]) -> ClubOut:
    choice = recommendation.clubs[slot]
    candidate = recommendation.candidates[choice.pick]
    head = candidate.head
    names = {item.code: item.name for item in recommendation.fitting.stock}
    return ClubOut(
        slot=slot,
        code=candidate.stock.code,
        name=candidate.stock.name,
        owned=candidate.stock.owned,
        loft_deg=rounded(head.loft_deg),
        bounce_deg=rounded(head.bounce_deg),
        sole_width_mm=rounded(1000 * head.sole_width),
        bend_deg=rounded(candidate.bend_deg),
        openings=_openings(recommendation, slot),
        brings_strokes_round=rounded(choice.brings),
        brings=[
            BringsOut(name=name, strokes_round=rounded(value))
            for name, value in choice.gains
            if abs(value) >= explain.SHOWN
        ],
        replaces=None if choice.replaces is None else names[choice.replaces],
        duty=explain.duty_words(recommendation, slot),
        duties=[recommendation.scenarios[i].key for i in choice.duties],
        reason=explain.club_reason(recommendation, slot),
        pinned=recommendation.pinned[slot],
        survives=None if doubt is None else next((rounded(s.share) for s in doubt.shares if s.slot == slot), None),
        proofs=[
            ProvedOut(standing=shift.standing, words=proof_words(shift))  # type: ignore[arg-type]
            for shift in recommendation.fitting.proved
            if same_sole(shift.head, head)
        ],
        candidates=[_candidate(recommendation, slot, i, behind) for i, behind in choice.ranked],
        situations=_situations(recommendation, slot, pinned),
    )


def _openings(recommendation: Recommendation, slot: int) -> list[OpeningOut]:
    pick = recommendation.picks[slot]
    found = []
    for n, scenario in enumerate(recommendation.sheet.short):
        for p, pin in enumerate(PINS):
            column = n * len(PINS) + p
            if recommendation.served[column] == slot:
                opening = scenario.setups[int(recommendation.costs.pick[pick, column])].opening_deg
                found.append(
                    OpeningOut(
                        situation=scenario.shot.key,
                        ground=scenario.ground.name,
                        pin=pin.name,
                        opening_deg=rounded(opening),
                    )
                )
    return found


Rows = np.ndarray[tuple[int, int], np.dtype[np.float64]]


def _over_pins(recommendation: Recommendation, rows: Rows) -> Rows:
    """Figures of every column averaged over the pins of each short scenario (rows, scenarios)."""
    count, pins = len(recommendation.sheet.short), len(PINS)
    weights = np.array([pin.weight for pin in PINS])
    return np.asarray(rows[:, : count * pins].reshape(len(rows), count, pins) @ weights)


def _situations(recommendation: Recommendation, slot: int, pinned: tuple[Rows, Rows]) -> list[SituationOut]:
    """Every short scenario for a club; `pinned` are costs and strokes of the candidates, averaged over the pins."""
    sheet, pick = recommendation.sheet, recommendation.picks[slot]
    short = sheet.short
    if not short:
        return []
    count, pins = len(short), len(PINS)
    head, (every, strokes) = recommendation.candidates[pick].head, pinned
    row = _owned_row(recommendation, slot)
    owned = [None] * count if row is None else [rounded(value) for value in _over_pins(recommendation, row[None])[0]]
    best = every.argmin(axis=0)
    names = [recommendation.candidates[i].stock.name for i in best.tolist()]
    # as lists: one by one, figures of an array take ten times as long
    mine, least = strokes[pick].tolist(), strokes[best, np.arange(count)].tolist()
    chosen = recommendation.costs.pick[pick, 1 : count * pins : pins].tolist()
    setups = [s.setups[c] for s, c in zip(short, chosen, strict=True)]
    delivered = deliver_many([head], np.array([s.opening_deg for s in setups]), np.array([s.lean_deg for s in setups]))
    speeds, served = sheet.speeds(head), recommendation.served.tolist()
    found = []
    for n, (loft, bounce, direction, edge) in enumerate(delivered[0].tolist()):
        found.append(
            SituationOut(
                scenario=short[n].key,
                strokes=rounded(mine[n]),
                opening_deg=rounded(setups[n].opening_deg),
                loft_deg=rounded(loft),
                bounce_deg=rounded(bounce),
                face_direction_deg=rounded(direction),
                leading_edge_height_mm=rounded(1000 * edge),
                speed_mps=rounded(speeds[n][chosen[n]]),
                owned_strokes=owned[n],
                best_strokes=rounded(least[n]),
                best_name=names[n],
                serves=[pin.name for p, pin in enumerate(PINS) if served[n * pins + p] == slot],
            )
        )
    return found


def _owned_row(recommendation: Recommendation, slot: int) -> np.ndarray[tuple[int], np.dtype[np.float64]] | None:
    """Strokes of the owned wedge that a club replaces, as it stands."""
    code = recommendation.clubs[slot].replaces
    owned = [item.code for item in recommendation.fitting.stock if item.owned]
    return None if code is None else recommendation.bag_costs.strokes[owned.index(code)]


def _candidate(recommendation: Recommendation, slot: int, pick: int, behind: float) -> CandidateOut:
    candidate = recommendation.candidates[pick]
    return CandidateOut(
        code=candidate.stock.code,
        name=candidate.stock.name,
        owned=candidate.stock.owned,
        bend_deg=rounded(candidate.bend_deg),
        shape=candidate.head.shape_words(),
        head=head_out(candidate.head),
        outline_mm=outline_mm(candidate.head),
        edge_height_mm=edge_height_mm(candidate.head),
        price=candidate.stock.price,
        behind=rounded(behind),
        reason=explain.candidate_reason(recommendation, slot, pick),
    )


def club_labels(result: RecommendationOut) -> list[str]:
    """The clubs of the shown set in a line each."""
    clubs = result.steps[result.taken_step].clubs
    return [f"{c.name}: {explain.degrees(c.loft_deg)}, {explain.degrees(c.bounce_deg)} bounce" for c in clubs]
