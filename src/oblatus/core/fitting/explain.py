"""Why: the sentences that go with a proposal, made from its own numbers."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import BEND_LIMIT_DEG
from oblatus.core.fitting.bench_rules import SAND_FLOOR_DEG, BenchRules, wanted_bounce
from oblatus.core.fitting.candidates import Candidate
from oblatus.core.fitting.evidence import Doubt
from oblatus.core.fitting.proved import proof_words, same_sole
from oblatus.core.fitting.recommendation import Recommendation, by_shot, served_strokes
from oblatus.core.fitting.steps import Step, asked_of, wins
from oblatus.core.gapping import Ladder
from oblatus.core.gapping.carries import ASSUMED_PITCHING_WEDGE_CARRY
from oblatus.core.gapping.ladder import STEP_RULE_DEG, Change
from oblatus.core.geometry import bounces_of
from oblatus.core.strokes import PINS
from oblatus.core.words import decimals, metres, trimmed

Floats = NDArray[np.float64]

NUMBERS = ("no", "one", "two", "three", "four")
SHOWN = 0.005


def degrees(value: float) -> str:
    """Degrees for a sentence: tenths where there are any, as every table shows them; a true minus."""
    return trimmed(value) + "°"


def strokes(value: float) -> str:
    """Strokes a round for a sentence: hundredths, a true minus."""
    return decimals(value, 2)


def club_words(candidate: Candidate) -> str:
    """A club as it is built: name, and how an owned or bought head is bent."""
    if abs(candidate.bend_deg) < 0.05:
        return candidate.stock.name
    way = "weak" if candidate.bend_deg > 0 else "strong"
    return f"{candidate.stock.name}, bent {degrees(abs(candidate.bend_deg))} {way}"


def step_words(recommendation: Recommendation, step: Step) -> str:
    """What a step is, in a line: which heads come for which clubs, which bends."""
    chosen = [recommendation.candidates[i] for i in step.picks]
    if step.kind == "bag":
        owned = [item for item in recommendation.fitting.stock if item.owned]
        return " · ".join(trimmed(item.head.loft_deg) for item in owned) or "no wedge of one's own"
    bent = [candidate for candidate in chosen if not candidate.bought and abs(candidate.bend_deg) >= 0.05]
    bought = [f"{c.stock.name} at {degrees(c.head.loft_deg)}" for c in chosen if c.bought]
    parts = [*bought, *(club_words(candidate) for candidate in bent)]
    left = _left_out(recommendation, chosen)
    if left and len(step.picks) < len([s for s in recommendation.fitting.stock if s.owned]):
        parts.append(f"without {', '.join(left)}")
    return "; ".join(parts)


def _left_out(recommendation: Recommendation, chosen: Sequence[Candidate]) -> list[str]:
    kept = {candidate.stock.code for candidate in chosen}
    return [item.name for item in recommendation.fitting.stock if item.owned and item.code not in kept]


def verdict(recommendation: Recommendation) -> str:
    """What a fitter would say, in two or three sentences."""
    step = recommendation.steps[recommendation.taken]
    further = [other for other in recommendation.steps if other.heads > step.heads]
    worth = recommendation.fitting.economy.worth_changing
    if step.kind == "bag":
        if not further and len(recommendation.steps) == 1:
            return "Keep what you have: no set that can be built from this rack saves strokes."
        if not recommendation.as_proposed:
            better = recommendation.steps[recommendation.recommended]
            return f"Today's bag, taken by hand: {_heads(better)} would win {strokes(better.gain)} strokes a round."
        best = recommendation.steps[-1]
        most = f"The most that a change could win is {strokes(best.gain)} strokes a round with {_heads(best)}"
        if _matters(recommendation, step, best):
            bends = next((other for other in recommendation.steps if other.kind == "bends"), None)
            if bends is not None and not _matters(recommendation, bends, best):
                return (
                    f"Keep what you have. {most}, {strokes(wins(bends, best))} more than bends alone: not worth a head."
                )
            return f"Keep what you have. {most}, but not in 8 of 10 trials."
        return f"Keep what you have. {most}: less than the {worth:.2f} a head that makes changing worth it."
    lead = "Bend, buy nothing." if step.kind == "bends" else f"Buy {_heads(step)}."
    if not recommendation.as_proposed:
        lead = _by_hand(step, recommendation.steps[recommendation.recommended])
    clubs = [_club_sentence(recommendation, slot) for slot in range(len(step.picks))]
    text = " ".join([lead, *[words for words in clubs if words]])
    if further and recommendation.as_proposed:
        more = further[0]
        place = more.place - step.place
        text += f" {_heads(more).capitalize()} would win {strokes(max(more.gain - step.gain, 0.0))} more"
        text += f", and a place in the bag is worth {place:.2f}" if place else ""
        text += f": {_why_not(recommendation, step, more)}."
    return text


def _by_hand(step: Step, proposed: Step) -> str:
    """What a step wins that is not the proposed one."""
    saves = "saves" if step.heads == 1 else "save"
    won, lead = step.gain - proposed.gain, f"{_heads(step).capitalize()}, taken by hand, {saves} "
    if proposed.kind == "bag":
        return lead + f"{strokes(won)} strokes a round; the proposal is to keep what they have."
    more = "more" if won > 0.0 else "less"
    return lead + f"{strokes(abs(won))} strokes a round {more} than the proposal of {_heads(proposed)}."


def turned_down(recommendation: Recommendation, n: int) -> str | None:
    """Why a step that changes more than the proposed one is not proposed; None for the others."""
    if n <= recommendation.recommended:
        return None
    return _why_not(recommendation, recommendation.steps[recommendation.recommended], recommendation.steps[n])


def _why_not(recommendation: Recommendation, step: Step, further: Step) -> str:
    if _matters(recommendation, step, further):
        return "not in 8 of 10 trials"
    return "not worth a head" if further.heads else "not worth it"


def _matters(recommendation: Recommendation, step: Step, further: Step) -> bool:
    """Whether a further step wins what its heads are worth, by the model and before its doubt."""
    return wins(step, further) >= asked_of(step, further, recommendation.fitting.economy)


def _heads(step: Step) -> str:
    return "bends alone" if step.heads == 0 else f"{NUMBERS[step.heads]} {'head' if step.heads == 1 else 'heads'}"


def _club_sentence(recommendation: Recommendation, slot: int) -> str:
    club, candidate = recommendation.clubs[slot], recommendation.candidates[recommendation.clubs[slot].pick]
    if not candidate.bought:
        if abs(candidate.bend_deg) < 0.05:
            return f"Your {candidate.stock.name} stays."
        return f"Your {club_words(candidate)}, stays."
    gains = recommendation.clubs[slot].gains
    where = _listed([name for name, value in gains[:2] if value >= SHOWN])
    head = f"The {candidate.stock.name} at {degrees(candidate.head.loft_deg)} with {degrees(candidate.head.bounce_deg)}"
    return f"{head} brings {strokes(club.brings)}" + (f", most in {where}." if where else ".")


def _listed(names: Sequence[str]) -> str:
    return " and ".join(names)


def practice_words(recommendation: Recommendation) -> str:
    """Where practice turned the choice, or what it holds against it: in strokes, apart from the model's figure."""
    step = recommendation.steps[recommendation.taken]
    if step.kind == "bag":
        return ""
    held = step.score - step.place - step.strokes
    others = [p for p in recommendation.contenders if _bought(recommendation, p) <= step.heads]
    best = min(others, key=lambda picks: _model_strokes(recommendation, picks), default=step.picks)
    ahead = step.strokes - _model_strokes(recommendation, best)
    if ahead >= SHOWN and recommendation.problem.score(best) > step.score:
        names = " and ".join(
            f"{recommendation.candidates[i].stock.name} at {degrees(recommendation.candidates[i].head.loft_deg)}"
            for i in best if i not in step.picks
        )  # fmt: skip
        return f"By the model alone {names} would be {strokes(ahead)} better; practice is against it."
    if held < SHOWN:
        return f"By the model {strokes(step.gain)}; practice has nothing against it."
    return f"By the model {strokes(step.gain)}; practice holds {strokes(held)} a round against its bounce."


def next_measurement(doubt: Doubt) -> str | None:
    """What to measure next, in a sentence."""
    if doubt.assumed_count:
        return "Measure next: ten strikes. The spreads are assumed until then."
    if doubt.next_axis is None:
        return None
    axis, share = doubt.next_axis, round(100.0 * doubt.next_share)
    if share == 0:
        return "Nothing to measure next: no habit by itself changes the choice in 1 of 100 trials."
    return f"Measure next: more strikes with {axis}. It alone changes the choice in {share} % of the trials."


def _bought(recommendation: Recommendation, picks: Sequence[int]) -> int:
    return sum(recommendation.candidates[i].bought for i in picks)


def _served_strokes(recommendation: Recommendation, picks: Sequence[int]) -> Floats:
    """As `served_strokes`, of a proposal's candidates."""
    return served_strokes(
        recommendation.problem, recommendation.costs, recommendation.above, recommendation.sheet.weights, picks
    )


def _model_strokes(recommendation: Recommendation, picks: Sequence[int]) -> float:
    return float(_served_strokes(recommendation, picks).sum())


def duty_words(recommendation: Recommendation, slot: int) -> str:
    """What the club is mostly for, in two or three shots."""
    names = [name for name, value in recommendation.clubs[slot].gains[:3] if value >= SHOWN]
    return ", ".join(names) if names else "little that the others do not do"


def club_reason(recommendation: Recommendation, slot: int) -> str:
    """One sentence on a club of the set from the model's own numbers, and its sum where it matters most."""
    gains = [row for row in recommendation.clubs[slot].gains[:2] if row[1] >= SHOWN]
    words = _listed([f"{strokes(value)} in {name}" for name, value in gains])
    lead = f"Wins {words}: " if words else "Wins next to nothing that the others do not: "
    index = _leading(recommendation, slot)
    return lead + _sum_words(recommendation, recommendation.clubs[slot].pick, index) + "."


def candidate_reason(recommendation: Recommendation, slot: int, pick: int) -> str:
    """One sentence on any candidate of a slot, at the same shot as the chosen club."""
    return _sum_words(recommendation, pick, _leading(recommendation, slot))


def _leading(recommendation: Recommendation, slot: int) -> int:
    """The short scenario (as the sheet counts them) in which the club wins most, at its middle pin."""
    short = len(recommendation.sheet.short)
    by_scenario = recommendation.clubs[slot].gain[: short * len(PINS)].reshape(short, len(PINS)).sum(axis=1)
    return int(by_scenario.argmax()) if short else 0


def _sum_words(recommendation: Recommendation, pick: int, index: int) -> str:
    """The sum of bounce, opening and lean in a scenario at the setup taken, against the ground's band."""
    scenario = recommendation.sheet.short[index]
    head = recommendation.candidates[pick].head
    setup = scenario.setups[int(recommendation.costs.pick[pick, index * len(PINS) + 1])]
    delivered = float(bounces_of([head], np.array([setup.opening_deg]), np.array([setup.lean_deg]))[0, 0])
    words = f"{degrees(head.bounce_deg)} of bounce"
    if setup.opening_deg > 0.0:
        words += f", opened {degrees(setup.opening_deg)}"
    if abs(setup.lean_deg) >= 0.5:
        words += f", {'less' if setup.lean_deg > 0 else 'plus'} {degrees(abs(setup.lean_deg))} of lean"
    low, high = wanted_bounce(scenario, setup)
    return f"{words}, leaves {degrees(delivered)}, {_against(delivered, low, high)} on {scenario.ground.name}"


def _against(delivered: float, low: float, high: float) -> str:
    band = f"the usual {degrees(low).removesuffix('°')} to {degrees(high)}"
    if delivered < low - 0.25:
        return f"{degrees(low - delivered)} under {band}" + (": a negative sole, it digs" if delivered < 0 <= low else "")
    if delivered > high + 0.25:
        return f"{degrees(delivered - high)} over {band}"
    return f"inside {band}"


def bag_verdicts(recommendation: Recommendation) -> list[tuple[str, str, str]]:
    """Of every owned wedge its code, keep, bend or replace, and why."""
    step = recommendation.steps[recommendation.taken]
    chosen = [recommendation.candidates[i] for i in step.picks]
    found = []
    for item in recommendation.fitting.stock:
        if not item.owned:
            continue
        mine = next((n for n, candidate in enumerate(chosen) if candidate.stock.code == item.code), None)
        if step.kind == "bag":
            why = "No change to the bag wins enough to matter." if recommendation.as_proposed else "Kept by hand."
            found.append((item.code, "keep", why))
        elif mine is not None:
            club = recommendation.clubs[mine]
            bend = chosen[mine].bend_deg
            what = "keep" if abs(bend) < 0.05 else f"bend to {degrees(chosen[mine].head.loft_deg)}"
            gains = [name for name, value in recommendation.clubs[mine].gains[:2] if value >= SHOWN]
            why = f"It brings {strokes(club.brings)} strokes a round" + (f", most in {_listed(gains)}." if gains else ".")
            found.append((item.code, what, why))
        else:
            new = next((n for n, club in enumerate(recommendation.clubs) if club.replaces == item.code), None)
            found.append((item.code, *_replace_words(recommendation, new)))
    return found


def _replace_words(recommendation: Recommendation, new: int | None) -> tuple[str, str]:
    if new is None:
        return "leave out", "The rest of the set does what it does."
    candidate = recommendation.candidates[recommendation.clubs[new].pick]
    gains = recommendation.clubs[new].gains
    where = f", most in {gains[0][0]}" if gains and gains[0][1] >= SHOWN else ""
    brings = strokes(recommendation.clubs[new].brings)
    return f"replace by {candidate.stock.name}", f"That brings {brings} strokes a round{where}."


def set_tradeoffs(recommendation: Recommendation) -> list[tuple[str, str]]:
    """What every set near gains and gives up against the shown one: the two largest shots of each, in strokes a round."""
    shown, shots = _served_strokes(recommendation, recommendation.picks), recommendation.shots

    def words(rows: Sequence[tuple[str, float]]) -> str:
        return ", ".join(f"{name} {value:.2f}" for name, value in rows if value >= SHOWN)

    found = []
    for one in recommendation.sets:
        rows = by_shot(shots, shown - _served_strokes(recommendation, one.picks))
        lost = [(name, -value) for name, value in reversed(rows)]
        found.append((words(rows[:2]), words(lost[:2])))
    return found


def why_first(recommendation: Recommendation) -> str:
    """Why the shown set stands first among those near it."""
    step = recommendation.steps[recommendation.taken]
    if not recommendation.sets:
        return ""
    behind = step.score - recommendation.sets[0].score
    if step.kind == "bag":
        if behind < SHOWN:
            return "No set that buys nothing does better."
        best = f"The best that bends alone could do is {strokes(behind)}, practice included"
        small = behind < recommendation.fitting.economy.worth_changing
        return f"{best}: less than a change is worth." if small else f"{best}."
    within = f"within {recommendation.tolerance:g} strokes a round"
    if recommendation.level <= 1:
        return "No other set is level with it."
    if behind < SHOWN:
        return f"It costs least of {recommendation.level} sets that are level, {within}."
    return (
        f"{recommendation.level} sets are level, {within}. Of these, this one "
        f"buys and bends least and suits the bench rules best; it costs {strokes(behind)} more than the cheapest."
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
        parts.append(f"leaves {metres(ladder.uncovered)} that no clock swing reaches")
    if widest > 1.35 * ladder.wanted_gap:
        parts.append(f"its widest full gap is {metres(widest)}, {metres(ladder.wanted_gap)} is usual")
    if any(step < STEP_RULE_DEG[0] for step in steps):
        parts.append("two clubs stand closer than 4°")
    if any(step > STEP_RULE_DEG[1] for step in steps):
        parts.append("a step is wider than 6°")
    more = [o for o in options if len(o.lofts_deg) == len(ladder.lofts_deg) + 1]
    if more and ladder.uncovered - more[0].uncovered >= 1.0:
        parts.append(f"one more would close {metres(ladder.uncovered - more[0].uncovered)} of it")
    if not parts:
        return "Gives up nothing but the slot."
    text = "; ".join(parts)
    return text[0].upper() + text[1:] + "."


def notes(recommendation: Recommendation) -> list[tuple[str, str]]:
    """Cautions and open ends, each (kind, sentence): kind is "caution", "assumed", "gap", "proof" or "rule"."""
    found: list[tuple[str, str]] = []
    if recommendation.carry_model.assumed and not recommendation.strikes:
        usual = metres(ASSUMED_PITCHING_WEDGE_CARRY)
        found.append(("assumed", f"Carries assume a usual pitching-wedge carry of {usual}: measure one to replace it."))
    for loft in recommendation.missing_lofts_deg:
        found.append(("gap", f"No head on the rack or in the bag reaches {degrees(loft)} within its bend limit."))
    for loft, code in recommendation.lost_pins:
        found.append(
            ("gap", f"The head chosen by hand for {degrees(loft)} ({code}) cannot be built there: the best one stands.")
        )
    found.extend(("caution", words) for words in (_bend_words(c) for c in _chosen(recommendation)) if words)
    found.extend(("proof", words) for words in _proofs_of_others(recommendation))
    found.extend(("rule", words) for words in _cross_check(recommendation))
    found.extend(("rule", words) for words in _sand_floor_words(recommendation))
    return found


def _proofs_of_others(recommendation: Recommendation) -> list[str]:
    """What proofs showed of heads that are not in the set."""
    heads = [candidate.head for candidate in _chosen(recommendation)]
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
        behind = _model_strokes(recommendation, swapped) - _model_strokes(recommendation, recommendation.picks)
        other = recommendation.candidates[best]
        how = f"{strokes(behind)} behind" if behind >= 0.0 else f"{strokes(-behind)} better"
        found.append(
            f"At {degrees(mine.head.loft_deg)} the bench rules alone would take {other.stock.name} with "
            f"{degrees(other.head.bounce_deg)}: by the model that set is {how} a round."
        )
    return found


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
    head = _chosen(recommendation)[slot].head
    if head.bounce_deg >= SAND_FLOOR_DEG:
        return []
    return [
        f"The club most used in sand has {degrees(head.bounce_deg)} of bounce; ten is the usual floor unless the sand "
        "is thin or packed."
    ]
