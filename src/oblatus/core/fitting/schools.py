"""What each school would change: the proposal under every other choice beside the present one."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from oblatus.core.fitting.fitting import Fitting
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.recommend import recommend
from oblatus.core.fitting.recommendation import Recommendation, near_every_slot
from oblatus.core.schools import SCHOOLS
from oblatus.core.strike.families import Progress

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
    others = [
        (question, key, choice.asks)
        for question, asked in SCHOOLS.items()
        for key, choice in asked.choices.items()
        if choice.asks and getattr(chosen, question) != key
    ]
    found: list[SchoolOutcome] = []
    for done, (question, choice, asks) in enumerate(others):
        if progress is not None:
            progress(done, len(others))
        changes: dict[str, Any] = {question: choice}
        schools = replace(chosen, **changes)
        other = recommend(replace(fitting, player=replace(fitting.player, schools=schools)), judge, clubs)
        found.append(SchoolOutcome(question, choice, asks, other, _heads(other) != _heads(present)))
    if progress is not None:
        progress(len(others), len(others))
    return found


def _heads(recommendation: Recommendation) -> list[tuple[str, float]]:
    clubs = [recommendation.candidates[pick] for pick in recommendation.picks]
    return [(candidate.stock.code, candidate.head.loft_deg) for candidate in clubs]
