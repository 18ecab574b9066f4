"""Why: the sentences that go with a proposal, made from its own numbers."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from oblatus.core.fitting.candidates import Candidate
from oblatus.core.fitting.evidence import Doubt
from oblatus.core.fitting.recommendation import Recommendation, served_strokes
from oblatus.core.fitting.steps import Step, asked_of, wins
from oblatus.core.words import decimals, percent, trimmed

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
    where = listed([name for name, value in gains[:2] if value >= SHOWN])
    head = f"The {candidate.stock.name} at {degrees(candidate.head.loft_deg)} with {degrees(candidate.head.bounce_deg)}"
    return f"{head} brings {strokes(club.brings)}" + (f", most in {where}." if where else ".")


def listed(names: Sequence[str]) -> str:
    """Names with "and" between them."""
    return " and ".join(names)


def practice_words(recommendation: Recommendation) -> str:
    """Where practice turned the choice, or what it holds against it: in strokes, apart from the model's figure."""
    step = recommendation.steps[recommendation.taken]
    if step.kind == "bag":
        return ""
    held = step.score - step.place - step.strokes
    others = [p for p in recommendation.contenders if bought_in(recommendation, p) <= step.heads]
    best = min(others, key=lambda picks: model_strokes(recommendation, picks), default=step.picks)
    ahead = step.strokes - model_strokes(recommendation, best)
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
    axis, share = doubt.next_axis, round(doubt.next_share, 2)
    if share == 0:
        return "Nothing to measure next: no habit by itself changes the choice in 1 of 100 trials."
    return f"Measure next: more strikes with {axis}. It alone changes the choice in {percent(share)} of the trials."


def bought_in(recommendation: Recommendation, picks: Sequence[int]) -> int:
    """How many heads a set buys."""
    return sum(recommendation.candidates[i].bought for i in picks)


def strokes_served(recommendation: Recommendation, picks: Sequence[int]) -> Floats:
    """As `served_strokes`, of a proposal's candidates."""
    return served_strokes(
        recommendation.problem, recommendation.costs, recommendation.above, recommendation.sheet.weights, picks
    )


def model_strokes(recommendation: Recommendation, picks: Sequence[int]) -> float:
    """The model's strokes a round of a set."""
    return float(strokes_served(recommendation, picks).sum())


def chosen_of(recommendation: Recommendation) -> list[Candidate]:
    """The candidates of the set that is shown."""
    return [recommendation.candidates[club.pick] for club in recommendation.clubs]
