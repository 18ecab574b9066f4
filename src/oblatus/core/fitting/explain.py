"""Why: the sentences that go with a proposal, made from its numbers."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import BEND_LIMIT_DEG
from oblatus.core.fitting.bench_rules import SAND_FLOOR_DEG
from oblatus.core.fitting.recommend import Recommendation
from oblatus.core.fitting.sets import Candidate
from oblatus.core.gapping import Ladder
from oblatus.core.gapping.ladder import STEP_RULE_DEG, Change

Floats = NDArray[np.float64]

PART_WORDS = {
    "bounce": "bounce",
    "loft": "loft for the shot",
    "edge": "edge height",
    "width": "sole width",
    "sand_floor": "ten-degree floor in sand",
    "strike": "strikes that come off",
    "stop": "stopping",
    "lip": "clearing the lip",
    "reach": "reach",
}


def degrees(value: float) -> str:
    """Degrees for a sentence: tenths where there are any, as every table shows them; a true minus."""
    shown = f"{round(value, 1):g}"
    return ("−" + shown[1:] if shown.startswith("-") and shown != "-0" else shown.removeprefix("-")) + "°"


def duty_words(recommendation: Recommendation, slot: int) -> str:
    """What the club is mostly for, in two or three shots."""
    shares: dict[str, float] = {}
    for index in recommendation.clubs[slot].duties:
        scenario = recommendation.scenarios[index]
        shares[scenario.shot.name] = shares.get(scenario.shot.name, 0.0) + scenario.share
    names = sorted(shares, key=lambda name: -shares[name])[:3]
    return ", ".join(names) if names else "its own full swings"


def club_reason(recommendation: Recommendation, slot: int) -> str:
    """One sentence on the chosen club: its sum on the ground where it matters most, and what the next head would do."""
    choice = recommendation.clubs[slot]
    index = _leading_duty(recommendation, slot)
    scenario = recommendation.scenarios[index]
    candidate = recommendation.candidates[choice.pick]
    text = (
        f"{_sum_words(recommendation, choice.pick, index)}, {_against_band(recommendation, choice.pick, index)} "
        f"on {scenario.ground.name} ({scenario.shot.name})."
    )
    other = _runner_up(recommendation, slot)
    if other is None:
        return text
    return f"{text} {_compare(recommendation, candidate, choice.pick, other)}"


def candidate_reason(recommendation: Recommendation, slot: int, pick: int) -> str:
    """One sentence on any candidate of a slot, at the same scenario as the chosen club."""
    index = _leading_duty(recommendation, slot)
    return f"{_sum_words(recommendation, pick, index)}, {_against_band(recommendation, pick, index)}"


def _leading_duty(recommendation: Recommendation, slot: int) -> int:
    """The scenario that says most about a club: its largest duty, or else the largest short shot."""
    duties = recommendation.clubs[slot].duties
    pool = duties or tuple(i for i, s in enumerate(recommendation.scenarios) if s.shot.kind != "full") or (0,)
    return max(pool, key=lambda i: recommendation.scenarios[i].share)


def _sum_words(recommendation: Recommendation, pick: int, index: int) -> str:
    setup = recommendation.scenarios[index].setup
    bounce = recommendation.candidates[pick].head.bounce_deg
    delivered = float(recommendation.judgement.delivered[pick, index, 1])
    words = f"{degrees(bounce)} of bounce"
    if setup.opening_deg > 0.0:
        words += f", opened {degrees(setup.opening_deg)}"
    if abs(setup.lean_deg) >= 0.5:
        words += f", {'less' if setup.lean_deg > 0 else 'plus'} {degrees(abs(setup.lean_deg))} of lean"
    return f"{words}, leaves {degrees(delivered)}"


def _against_band(recommendation: Recommendation, pick: int, index: int) -> str:
    delivered = float(recommendation.judgement.delivered[pick, index, 1])
    low, high = (float(x) for x in recommendation.judgement.wanted[index])
    band = f"the {degrees(low).removesuffix('°')} to {degrees(high)} asked"
    if delivered < low - 0.25:
        return f"{degrees(low - delivered)} under {band}" + (": a negative sole, it digs" if delivered < 0 else "")
    if delivered > high + 0.25:
        return f"{degrees(delivered - high)} over {band}"
    return f"inside {band}"


def _runner_up(recommendation: Recommendation, slot: int) -> tuple[int, float] | None:
    choice = recommendation.clubs[slot]
    others = [row for row in choice.ranked if row[0] != choice.pick]
    return others[0] if others else None


def _compare(recommendation: Recommendation, candidate: Candidate, pick: int, other: tuple[int, float]) -> str:
    """What decides between the chosen head and the next one: the part that differs most over the shares."""
    rival = recommendation.candidates[other[0]]
    margin = recommendation.sets[0].score - other[1]
    shares = np.array([scenario.share for scenario in recommendation.scenarios])
    gains = {name: float((part[pick] - part[other[0]]) @ shares) for name, part in recommendation.judgement.parts.items()}
    part = max(gains, key=lambda name: gains[name])
    name = rival.stock.name
    if margin < recommendation.judgement.tie:
        return f"{name} is as good as level with it."
    if gains[part] <= 0.0 or (candidate.stock.owned and not rival.stock.owned):
        return f"{name} comes next: it would cover less of what the others leave."
    return f"{name} comes next: it loses on {PART_WORDS[part]}."


def set_tradeoff(recommendation: Recommendation, index: int) -> tuple[str, str]:
    """What a set gains and gives up against the first: the two largest shots of each, in hundredths of value."""
    shares = np.array([scenario.share for scenario in recommendation.scenarios])
    full = np.array([scenario.shot.kind == "full" for scenario in recommendation.scenarios])
    values = recommendation.judgement.values

    def worth(picks: tuple[int, ...]) -> Floats:
        mine = values[list(picks)]
        return np.asarray(np.where(full, mine.mean(axis=0), np.maximum(mine.max(axis=0), values[-1])) * shares)

    difference = worth(recommendation.sets[index].picks) - worth(recommendation.sets[0].picks)
    by_shot: dict[str, float] = {}
    for scenario, change in zip(recommendation.scenarios, difference, strict=True):
        by_shot[scenario.shot.name] = by_shot.get(scenario.shot.name, 0.0) + float(change)

    def words(sign: float) -> str:
        rows = sorted(((sign * v, k) for k, v in by_shot.items()), reverse=True)[:2]
        return ", ".join(f"{name} {100 * value:.1f}" for value, name in rows if value >= 0.0005)

    return words(1.0), words(-1.0)


def why_first(recommendation: Recommendation) -> str:
    """Why the proposed set stands first among those near it: it has the highest value, or the bench rules chose."""
    own, best = recommendation.sets[0].score, max(found.score for found in recommendation.sets)
    if own >= best:
        return "The proposed set has the highest value."
    return (
        f"The proposed set lies {100 * (best - own):.1f} below the highest value, nearer than the "
        f"{100 * recommendation.judgement.tie:.0f} at which this model tells sets apart. Of the {recommendation.tied} "
        "sets that are level, of the 60 best looked at, the bench rules like it best."
    )


def change_words(change: Change) -> str:
    """What is to be done for a loft."""
    if change.owned is None:
        return "buy a head"
    if abs(change.bend_deg) < 0.05:
        return f"keep {change.owned.name}"
    return f"bend {change.owned.name} {abs(change.bend_deg):g}° {'weaker' if change.bend_deg > 0 else 'stronger'}"


def ladder_gives_up(ladder: Ladder, options: Sequence[Ladder]) -> str:
    """What this number of wedges costs, in a sentence."""
    steps = [b - a for a, b in pairwise(ladder.lofts_deg)]
    widest = max(ladder.gaps)
    parts: list[str] = []
    if ladder.uncovered >= 1.0:
        parts.append(f"leaves {ladder.uncovered:.0f} m that no clock swing reaches")
    if widest > 1.35 * ladder.wanted_gap:
        parts.append(f"its widest full gap is {widest:.0f} m, {ladder.wanted_gap:.0f} m is usual")
    if any(step < STEP_RULE_DEG[0] for step in steps):
        parts.append("two clubs stand closer than 4°")
    if any(step > STEP_RULE_DEG[1] for step in steps):
        parts.append("a step is wider than 6°")
    more = [o for o in options if len(o.lofts_deg) == len(ladder.lofts_deg) + 1]
    if more and ladder.uncovered - more[0].uncovered >= 1.0:
        parts.append(f"one more would close {ladder.uncovered - more[0].uncovered:.0f} m of it")
    if not parts:
        return "Gives up nothing but the slot."
    text = "; ".join(parts)
    return text[0].upper() + text[1:] + "."


def notes(recommendation: Recommendation) -> list[tuple[str, str]]:
    """Cautions and open ends, each (kind, sentence): kind is "caution", "assumed", "gap" or "rule"."""
    found: list[tuple[str, str]] = []
    if recommendation.carry_model.assumed and not recommendation.strikes:
        found.append(("assumed", "Carries assume a usual pitching-wedge carry of 105 m: measure one to replace it."))
    for loft in recommendation.missing_lofts_deg:
        found.append(("gap", f"No head on the rack or in the bag reaches {degrees(loft)} within its bend limit."))
    for loft, code in recommendation.lost_pins:
        found.append(
            ("gap", f"The head chosen by hand for {degrees(loft)} ({code}) cannot be built there: the best one stands.")
        )
    found.extend(("caution", words) for words in (_bend_words(c) for c in _chosen(recommendation)) if words)
    found.extend(("rule", words) for words in _cross_check(recommendation))
    found.extend(("rule", words) for words in _sand_floor_words(recommendation))
    return found


def _cross_check(recommendation: Recommendation) -> list[str]:
    """Where the judge cannot tell, and where it and the bench rules part company."""
    found: list[str] = []
    if recommendation.tied:
        found.append(
            f"The model cannot tell at least {recommendation.tied} sets apart (within {recommendation.judgement.tie:g}): "
            "the bench rules chose among them."
        )
    if recommendation.sets and recommendation.bench_sets and recommendation.judgement is not recommendation.bench:
        mine, theirs = recommendation.sets[0].picks, recommendation.bench_sets[0].picks
        for slot, (a, b) in enumerate(zip(mine, theirs, strict=True)):
            if a != b:
                other = recommendation.candidates[b]
                loft = degrees(recommendation.candidates[a].head.loft_deg)
                gain = _model_gain(recommendation, slot, b)
                found.append(
                    f"At {loft} the bench rules alone would take {other.stock.name} with "
                    f"{degrees(other.head.bounce_deg)}: by the model that set is {gain:.3f} behind."
                )
    return found


def _model_gain(recommendation: Recommendation, slot: int, pick: int) -> float:
    ranked = dict(recommendation.clubs[slot].ranked)
    behind = recommendation.sets[0].score - ranked.get(pick, min(ranked.values(), default=0.0))
    return max(behind, 0.0)


def _chosen(recommendation: Recommendation) -> list[Candidate]:
    return [recommendation.candidates[club.pick] for club in recommendation.clubs]


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
    sand = [
        i
        for i, s in enumerate(recommendation.scenarios)
        if s.shot.kind == "sand" and s.shot.key != "plugged" and not s.sand.thin_or_wet
    ]
    if not sand or not recommendation.clubs:
        return []
    by_slot: dict[int, float] = {}
    for i in sand:
        slot = recommendation.served_by[i]
        by_slot[slot] = by_slot.get(slot, 0.0) + recommendation.scenarios[i].share
    slot = max(by_slot, key=lambda s: by_slot[s])
    if slot < 0:
        return ["The pitching wedge is the best of the set in sand: no wedge suits this sand."]
    head = _chosen(recommendation)[slot].head
    if head.bounce_deg >= SAND_FLOOR_DEG:
        return []
    return [
        f"The club most used in sand has {degrees(head.bounce_deg)} of bounce; ten is the usual floor unless the sand "
        "is thin or packed."
    ]


def unserved(recommendation: Recommendation) -> list[int]:
    """Scenarios that nobody in the set serves well, worst first."""
    low = [i for i, value in enumerate(recommendation.scenario_values) if value < recommendation.judgement.served_well]
    return sorted(low, key=lambda i: float(recommendation.scenario_values[i]))
