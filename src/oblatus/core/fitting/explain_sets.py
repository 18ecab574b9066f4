"""What becomes of the bag, and what other sets and ladders gain and give up."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

from oblatus.core.fitting.explain import SHOWN, degrees, listed, strokes, strokes_served
from oblatus.core.fitting.recommendation import Recommendation, by_shot
from oblatus.core.gapping import Ladder
from oblatus.core.gapping.ladder import STEP_RULE_DEG, Change
from oblatus.core.words import metres


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
            why = f"It brings {strokes(club.brings)} strokes a round" + (f", most in {listed(gains)}." if gains else ".")
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
    shown, shots = strokes_served(recommendation, recommendation.picks), recommendation.shots

    def words(rows: Sequence[tuple[str, float]]) -> str:
        return ", ".join(f"{name} {value:.2f}" for name, value in rows if value >= SHOWN)

    found = []
    for one in recommendation.sets:
        rows = by_shot(shots, shown - strokes_served(recommendation, one.picks))
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
