"""The engine's proposal as JSON: see `oblatus.formats.recommendation` for its parts."""

from __future__ import annotations

import hashlib
from collections.abc import Sequence

from oblatus.core import ENGINE_VERSION
from oblatus.core.after.claims import claims_between
from oblatus.core.clubs import StockHead
from oblatus.core.fitting import ClubSet, Recommendation, Step, explain, explain_notes, explain_sets
from oblatus.core.fitting.bench_rules import wanted_bounce
from oblatus.core.fitting.evidence import Doubt
from oblatus.core.fitting.fitting import wanted_top_loft
from oblatus.core.fitting.leaks import Leak
from oblatus.core.fitting.proposal import Proposal
from oblatus.core.gapping import MeasuredStrike
from oblatus.core.strokes import PINS
from oblatus.formats.proposal_clubs import built_out, club_out, label_of, over_pins
from oblatus.formats.proposal_lofts import lofts_out
from oblatus.formats.recommendation import (
    BagVerdictOut,
    BuiltClubOut,
    DoubtOut,
    EconomyOut,
    LeakOut,
    NoteOut,
    RecommendationOut,
    ScenarioOut,
    SetOut,
    StepOut,
)
from oblatus.formats.rounded import rounded
from oblatus.formats.strike import surface_out


def strikes_key(strikes: Sequence[MeasuredStrike]) -> str:
    """Twelve hexadecimal digits that change with whatever the strikes tell of carries; empty without strikes."""
    if not strikes:
        return ""
    return _key("|".join(f"{s.id} {s.club} {s.loft_deg} {s.swing} {s.carry} {s.set_aside}" for s in strikes))


def rack_key(stock: Sequence[StockHead]) -> str:
    """Twelve hexadecimal digits that change with whatever stands on the rack; empty for an empty one."""
    rack = [item for item in stock if not item.owned]
    return _key(repr(rack)) if rack else ""


def _key(told: str) -> str:
    return hashlib.blake2b(told.encode(), digest_size=6).hexdigest()


def recommendation_out(proposal: Proposal) -> RecommendationOut:
    """The engine's proposal as JSON models."""
    recommendation, doubt = proposal.recommendation, proposal.doubt
    fitting = recommendation.fitting
    step = recommendation.steps[recommendation.taken]
    costs = recommendation.costs
    pinned = over_pins(recommendation, costs.cost), over_pins(recommendation, costs.strokes)
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
        lofts=lofts_out(recommendation, wanted_top_loft(fitting.player)),
        scenarios=_scenarios(recommendation),
        clubs=[club_out(recommendation, slot, doubt, pinned) for slot in range(len(recommendation.clubs))],
        bag=[
            BagVerdictOut(code=code, verdict=verdict, why=why) for code, verdict, why in
            explain_sets.bag_verdicts(recommendation)
        ],
        sets=[
            _set(recommendation, one, *words) for one, words in
            zip(recommendation.sets, explain_sets.set_tradeoffs(recommendation), strict=True)
        ],
        level_sets=recommendation.level,
        level_within=recommendation.tolerance,
        first_because=explain_sets.why_first(recommendation),
        leaks=[_leak(leak) for leak in proposal.leaks],
        notes=[NoteOut(kind=kind, text=text) for kind, text in explain_notes.notes(recommendation)],  # type: ignore[arg-type]
        next_measurement=None if doubt is None else explain.next_measurement(doubt),
    )  # fmt: skip


def _clubs_of(recommendation: Recommendation, step: Step) -> list[BuiltClubOut]:
    if step.kind == "bag":
        owned = sorted((s for s in recommendation.fitting.stock if s.owned), key=lambda item: item.head.loft_deg)
        return [built_out(item, item.head, 0.0) for item in owned]
    chosen = [recommendation.candidates[i] for i in step.picks]
    return [built_out(candidate.stock, candidate.head, candidate.bend_deg) for candidate in chosen]


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
    low, high = claims_between(economy.claims_sd)
    return EconomyOut(
        shots_a_round=rounded(economy.shots_for(handicap)),
        worth_changing=economy.worth_changing,
        slot=economy.slot,
        practice=economy.practice,
        table_scale=economy.table_scale,
        claims_sd=economy.claims_sd,
        claims_low=rounded(low),
        claims_high=rounded(high),
        typed=[name for name in names if getattr(economy, name) != getattr(usual, name)],
    )


def _set(recommendation: Recommendation, club_set: ClubSet, gains: str, gives_up: str) -> SetOut:
    return SetOut(
        behind=rounded(club_set.score - recommendation.sets[0].score),
        clubs=[label_of(recommendation.candidates[pick]) for pick in club_set.picks],
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
