"""What a fitter is to know beside the set: cautions, proofs, where the bench rules disagree."""

from __future__ import annotations

import numpy as np

from oblatus.core.clubs import BEND_LIMIT_DEG
from oblatus.core.fitting.bench_rules import SAND_FLOOR_DEG, BenchRules
from oblatus.core.fitting.candidates import Candidate
from oblatus.core.fitting.explain import chosen_of, degrees, model_strokes, strokes
from oblatus.core.fitting.proved import proof_words, same_sole
from oblatus.core.fitting.recommendation import Recommendation
from oblatus.core.gapping.carries import ASSUMED_PITCHING_WEDGE_CARRY
from oblatus.core.strokes import PINS
from oblatus.core.words import metres


def notes(recommendation: Recommendation) -> list[tuple[str, str]]:
    """Cautions and open ends, each (kind, sentence): kind is "caution", "assumed", "gap", "proof" or "rule"."""
    found: list[tuple[str, str]] = []
    if recommendation.carry_model.assumed and not recommendation.strikes:
        usual = metres(ASSUMED_PITCHING_WEDGE_CARRY)
        found.append(("assumed", f"Carries assume a usual pitching-wedge carry of {usual}: measure one to replace it."))
    for loft in recommendation.missing_lofts_deg:
        found.append(("gap", f"No head on the rack or in the bag reaches {degrees(loft)} within its bend limit."))
    for loft, code in recommendation.lost_pins:
        head = recommendation.fitting.club_name(code)
        found.append(("gap", f"{head}, set by hand at {degrees(loft)}, cannot be built there: the best one stands."))
    found.extend(("caution", words) for words in (_bend_words(c) for c in chosen_of(recommendation)) if words)
    found.extend(("proof", words) for words in _proofs_of_others(recommendation))
    found.extend(("rule", words) for words in _cross_check(recommendation))
    found.extend(("rule", words) for words in _sand_floor_words(recommendation))
    return found


def _proofs_of_others(recommendation: Recommendation) -> list[str]:
    """What proofs showed of heads that are not in the set."""
    heads = [candidate.head for candidate in chosen_of(recommendation)]
    proved = recommendation.fitting.proved
    return [
        f"{shift.name}, not in this set, {proof_words(shift)}."
        for shift in proved
        if not any(same_sole(shift.head, head) for head in heads)
    ]


def _cross_check(recommendation: Recommendation) -> list[str]:
    """Where the bench rules alone would take another head at the same loft, and what that costs by the model."""
    found: list[str] = []
    short = recommendation.sheet.short
    shares = np.array([scenario.share for scenario in short])
    player = recommendation.fitting.player
    for slot, club in enumerate(recommendation.clubs):
        mine, duties = recommendation.candidates[club.pick], {recommendation.scenarios[d].key for d in club.duties}
        others = [
            i for i, c in enumerate(recommendation.candidates)
            if abs(c.head.loft_deg - mine.head.loft_deg) < 0.01 and (c.stock.code == mine.stock.code or c.bought)
        ]  # fmt: skip
        duty = np.array([s.key in duties for s in short])
        if not duty.any() or len(others) < 2:
            continue
        values = BenchRules().judge([recommendation.candidates[i].head for i in others], short, player).values
        best = others[int((values[:, duty] @ shares[duty]).argmax())]
        if same_sole(recommendation.candidates[best].head, mine.head):
            continue  # itself, or its like on the rack
        swapped = [*recommendation.picks[:slot], best, *recommendation.picks[slot + 1 :]]
        behind = model_strokes(recommendation, swapped) - model_strokes(recommendation, recommendation.picks)
        other = recommendation.candidates[best]
        how = f"{strokes(behind)} behind" if behind >= 0.0 else f"{strokes(-behind)} better"
        found.append(
            f"At {degrees(mine.head.loft_deg)} the bench rules alone would take {other.stock.name} with "
            f"{degrees(other.head.bounce_deg)}: by the model that set is {how} a round."
        )
    return found


def _bend_words(candidate: Candidate) -> str:
    if abs(candidate.bend_deg) < 0.5:
        return ""
    way = "weaker" if candidate.bend_deg > 0 else "stronger"
    limit = min(candidate.stock.bend_limit_deg, BEND_LIMIT_DEG[candidate.stock.make])
    near = ", near its limit" if abs(candidate.bend_deg) > 0.75 * limit else ""
    return (
        f"{candidate.stock.name} is bent {degrees(abs(candidate.bend_deg))} {way}{near} ({candidate.stock.make}): "
        "the maker's limit and a trained bench hand decide."
    )


def _sand_floor_words(recommendation: Recommendation) -> list[str]:
    """Who is used most in sand, and whether its bounce is under the usual floor."""
    by_slot: dict[int, float] = {}
    weights = recommendation.sheet.weights
    for n, scenario in enumerate(recommendation.sheet.short):
        if scenario.shot.kind == "sand" and not scenario.shot.buried and not scenario.sand.thin_or_wet:
            for c in range(n * len(PINS), (n + 1) * len(PINS)):
                slot = int(recommendation.served[c])
                by_slot[slot] = by_slot.get(slot, 0.0) + float(weights[c])
    if not by_slot or not recommendation.clubs:
        return []
    slot = max(by_slot, key=lambda s: by_slot[s])
    if slot < 0:
        return ["A club above the wedges is the best of the set in sand: no wedge suits this sand."]
    head = chosen_of(recommendation)[slot].head
    if head.bounce_deg >= SAND_FLOOR_DEG:
        return []
    return [
        f"The club most used in sand has {degrees(head.bounce_deg)} of bounce; ten is the usual floor unless the sand "
        "is thin or packed."
    ]
