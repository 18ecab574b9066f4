"""What each school would change: the proposal under every other choice beside the present one."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from oblatus.core.fitting.fitting import Fitting
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.recommend import recommend
from oblatus.core.fitting.recommendation import Recommendation, near_every_slot
from oblatus.core.strike.families import Progress

ASKS: dict[tuple[str, str], str] = {
    ("tight_firm", "use_sole"): "from tight firm lies: 4° less lean, 2° shallower, ball forward",
    ("tight_firm", "use_edge"): "from tight firm lies: 4° more lean, 2° steeper, ball back",
    ("tight_soft", "brush"): "from tight soft lies: 3° less lean and 2° shallower",
    ("tight_soft", "same_swing"): "from tight soft lies: nothing, the same swing",
    ("sand_opening", "always_open"): "in sand: open the face 35° every time, vary only the speed",
    ("sand_opening", "square"): "in sand: leave the face square",
    ("sand_club", "most_loft"): "in sand: take the most loft",
    ("sand_club", "most_bounce"): "in sand: take the club with most bounce",
    ("long_sand", "blast"): "from long sand: 2° less lean, 2° shallower",
    ("long_sand", "clip"): "from long sand: ball first, 3° more lean",
    ("hands", "quiet"): "short shots: quiet wrists, the handle level at the finish",
    ("hands", "free"): "short shots: let the head pass the hands, 2° less lean",
    ("arc", "wide"): "short shots: a wide arc, 1° shallower",
    ("arc", "early_set"): "short shots: set the wrists early, 1° steeper",
    ("clubs", "favourite"): "one club for every short shot",
    ("clubs", "club_per_shot"): "a club for each shot",
    ("gaps", "equal_carry"): "nothing: gaps of equal carry",
    ("gaps", "equal_loft"): "nothing: gaps of equal loft",
    ("gaps", "clock_cover"): "fill the distances with clock swings",
}
"""What the player would have to do, by school and choice."""


NEAR = 8
"""Heads looked at for every slot."""


@dataclass(frozen=True, slots=True)
class SchoolOutcome:
    """A school's proposal: the choice, what it asks of the player, and the proposal it leads to."""

    question: str
    choice: str
    asks: str
    recommendation: Recommendation
    changed: bool


def under_each_school(
    fitting: Fitting,
    present: Recommendation,
    judge: StrokesJudge,
    progress: Progress | None = None,
) -> list[SchoolOutcome]:
    """The proposal under every choice that is not the present one, among the clubs near the present choice.

    `progress` hears of (done, choices).
    """
    clubs = near_every_slot(present, NEAR)
    chosen = fitting.player.schools
    others = [(q, c) for (q, c) in ASKS if getattr(chosen, q) != c]
    found: list[SchoolOutcome] = []
    for done, (question, choice) in enumerate(others):
        if progress is not None:
            progress(done, len(others))
        changes: dict[str, Any] = {question: choice}
        schools = replace(chosen, **changes)
        other = recommend(replace(fitting, player=replace(fitting.player, schools=schools)), judge, clubs)
        found.append(SchoolOutcome(question, choice, ASKS[question, choice], other, _heads(other) != _heads(present)))
    if progress is not None:
        progress(len(others), len(others))
    return found


def _heads(recommendation: Recommendation) -> list[tuple[str, float]]:
    clubs = [recommendation.candidates[pick] for pick in recommendation.picks]
    return [(candidate.stock.code, candidate.head.loft_deg) for candidate in clubs]
