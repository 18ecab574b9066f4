"""A shot as a player notes it on the course, and what it was worth in strokes. docs/models/log.md, 1."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Literal

from oblatus.core.shots import BY_KEY, SHORT_SHOTS
from oblatus.core.strokes import Layout
from oblatus.core.strokes.situations import APPROACH_BEHIND, APPROACH_ROOM
from oblatus.core.strokes.table import TOUR_TABLE, Lie, StrokesTable

APPROACH = "approach"
"""A full or part swing to a green, from turf, by its distance."""
SITUATIONS = (APPROACH, *SHORT_SHOTS)
Struck = Literal["clean", "heavy", "thin"]


@dataclass(frozen=True, slots=True)
class Result:
    """What a player taps after a shot: in words, how it was struck, and where it lies as long as nobody paced it.

    `left` is the usual distance left [m] with `left_share` of the shot's distance added (judgement).
    """

    key: str
    name: str
    struck: Struck
    lie: Literal["holed", "green", "short", "rough", "own"]
    left: float
    left_share: float


RESULTS = (
    Result("holed", "in the hole", "clean", "holed", 0.0, 0.0),
    Result("close", "close", "clean", "green", 0.8, 0.01),
    Result("green", "on the green", "clean", "green", 3.5, 0.05),
    Result("short", "short of it", "clean", "short", 2.0, 0.2),
    Result("over", "over it", "clean", "rough", 5.0, 0.2),
    Result("heavy", "heavy", "heavy", "short", 0.0, 0.45),
    Result("thin", "thin", "thin", "rough", 6.0, 0.45),
    Result("stayed", "stayed there", "heavy", "own", 0.0, 1.0),
)
BY_RESULT = {result.key: result for result in RESULTS}


@dataclass(frozen=True, slots=True)
class LoggedShot:
    """One shot of a round.

    Parameters
    ----------
    round : which round, any name of its own
    on : the day there
    situation : a short shot of the catalogue, or an approach
    ground : name of a ground of the mix; empty where the player did not say
    distance : to the hole [m]; None: the situation's usual one
    club, advised : codes of the club taken and of the one that the page named first; None where it named none
    result : what happened
    left : distance left [m] as paced; None: the result's usual one
    holed_in : strokes to hole out, this one counted; None where nobody counted
    """

    round: str
    on: date
    situation: str
    ground: str
    distance: float | None
    club: str
    advised: str | None
    result: str
    left: float | None = None
    holed_in: int | None = None

    @property
    def clean(self) -> bool:
        """Whether it was struck neither heavy nor thin."""
        return BY_RESULT[self.result].struck == "clean"


@dataclass(frozen=True, slots=True)
class After:
    """Where a ball lies after a shot: lie, distance to the hole [m], None and 0 in the hole."""

    lie: Lie | None
    left: float


def lie_before(situation: str) -> Lie:
    """The lie of the table that a situation is played from."""
    if situation == APPROACH:
        return "fairway"
    shot = BY_KEY[situation]
    return (
        "sand" if shot.kind == "sand" else "rough" if shot.ball_height == BY_KEY["lush_rough"].ball_height else "fairway"
    )


def after_shot(shot: LoggedShot, layout: Layout) -> After:
    """Where the ball lies: as paced, else as the result usually leaves it."""
    result = BY_RESULT[shot.result]
    if result.lie == "holed":
        return After(None, 0.0)
    distance = layout.hole if shot.distance is None else shot.distance
    left = result.left + result.left_share * distance if shot.left is None else shot.left
    if result.lie == "short":
        # a heavy one that is paced close to the hole reached the green
        on_green = result.struck != "clean" and left <= layout.room
        return After("green" if on_green else layout.short, left)
    lies: dict[str, Lie] = {"green": "green", "rough": "rough", "own": lie_before(shot.situation)}
    if result.key == "thin" and shot.left is not None and left <= layout.behind:
        return After("green", left)
    return After(lies[result.lie], left)


def strokes_of_shot(shot: LoggedShot, layout: Layout, handicap: float | None, table: StrokesTable = TOUR_TABLE) -> float:
    """Strokes of a shot by the table: one, and what is usually needed from where it lies."""
    there = after_shot(shot, layout)
    return 1.0 if there.lie is None else 1.0 + float(table.strokes(there.lie, there.left, handicap))


def approach_layout(distance: float) -> Layout:
    """Where the hole is for an approach of a distance [m]."""
    return Layout(distance, APPROACH_ROOM, APPROACH_BEHIND, "rough", "rough")
