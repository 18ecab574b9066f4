"""The player's page as JSON: what was handed over on a day, made once and never rewritten."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field, StringConstraints, model_validator

from oblatus.core.after.due import DueKey
from oblatus.core.card.drills import BY_NAME, DrillAdvice, standing_of
from oblatus.core.card.far import FarTable
from oblatus.formats.card import CardOut
from oblatus.formats.fields import Strict, at_field
from oblatus.formats.limits import NAME_LETTERS
from oblatus.formats.rounded import rounded
from oblatus.units import DistanceUnit, SpeedUnit

ScoredBy = Literal["player", "fitter"]
DrillKey = Annotated[str, StringConstraints(pattern=r"^[a-z]{2,24}$")]


class FarShotOut(Strict):
    """A club with a swing."""

    loft_deg: float
    club: str
    swing: str


class FarOut(Strict):
    """Answers to "how far?": see `core.card.far`. Distances and figures in metres; `pins` are those of the answers."""

    distances_m: list[float]
    shots: list[FarShotOut]
    conditions: list[list[str]]
    pins: list[str]
    figures_m: list[list[list[float]]]
    answers: list[list[list[list[int]]]]


class DateOut(Strict):
    """A day that is ahead, and what it is for."""

    kind: DueKey
    on: date
    words: str


class PageDocument(Strict):
    """What was handed over: card, distances, dates, and what changed and why in plain words.

    `distance`, `speed` are the units in which it was handed over.
    """

    format: Literal["oblatus.page"] = "oblatus.page"
    version: Literal[1] = 1
    studio: str
    made_on: date
    distance: DistanceUnit
    speed: SpeedUnit
    card: CardOut
    far: FarOut
    dates: list[DateOut]
    summary: list[str]


class ScoreDocument(Strict):
    """One go at a drill: how many came off, of how many, on which day."""

    id: UUID
    drill: DrillKey
    score: Annotated[int, Field(ge=0, le=200)]
    count: Annotated[int, Field(ge=1, le=200)]
    on: date

    @model_validator(mode="after")
    def _can_be(self) -> ScoreDocument:
        if self.drill not in BY_NAME:
            raise at_field("drill", "is no drill of ours")
        if self.score > self.count:
            raise at_field("score", "is more than was tried")
        return self


class ScoreOut(ScoreDocument):
    """A score and who counted it."""

    by: ScoredBy


class HandoverDocument(Strict):
    """A hand-over in a file: what the player got, and the scores since."""

    content: PageDocument
    made_by: Annotated[str, StringConstraints(min_length=1, max_length=NAME_LETTERS)]
    created_at: datetime
    expires_at: datetime
    closed_at: datetime | None = None
    scores: Annotated[tuple[ScoreOut, ...], Field(max_length=3000)] = ()


class StandingOut(Strict):
    """How a drill goes by its scores: level from 0, the mark to pass, what is next."""

    drill: DrillKey
    level: int
    levels: int
    mark: int
    advice: DrillAdvice


class ResultOut(Strict):
    """What a player can say of a shot."""

    key: str
    name: str


class PageClubOut(Strict):
    """A club that a shot can be noted with: those of the card, and the irons above them."""

    code: str
    name: str
    loft_deg: float


class PageOut(Strict):
    """The page as it is opened: what was handed over, the scores since and how the drills go by them, until when it
    holds, whether a newer one is there; the days ahead as they stand; which of its clubs are
    in the bag no longer; what a shot can be noted with, and how many were."""

    page: PageDocument
    scores: list[ScoreOut]
    standings: list[StandingOut]
    expires_at: datetime
    newer: bool
    dates: list[DateOut]
    gone: list[str]
    clubs: list[PageClubOut]
    results: list[ResultOut]
    noted_shots: int
    noted_rounds: int


class HandoverOut(Strict):
    """A hand-over as the fitter sees it: `path` opens the player's page; `qr` is a picture of the whole address, empty
    where the page is closed or expired."""

    id: UUID
    made_by: str
    created_at: datetime
    expires_at: datetime
    closed_at: datetime | None
    path: str
    qr: str
    page: PageDocument
    scores: list[ScoreOut]
    standings: list[StandingOut]


def standings_of(page: PageDocument, scores: Sequence[ScoreOut]) -> list[StandingOut]:
    """How every drill of a page goes by the scores since."""
    found = []
    for drill in page.card.drills:
        standing = standing_of(BY_NAME[drill.key], [one.score for one in scores if one.drill == drill.key])
        found.append(
            StandingOut(
                drill=drill.key, level=standing.level, levels=drill.levels, mark=standing.mark, advice=standing.advice
            )
        )
    return found


def far_out(table: FarTable, pins: list[str]) -> FarOut:
    """The table as JSON."""
    return FarOut(
        distances_m=[rounded(one) for one in table.distances],
        shots=[
            FarShotOut(loft_deg=rounded(row.loft_deg), club=row.name, swing=swing) for row, swing in table.shots
        ],
        conditions=[list(one) for one in table.conditions],
        pins=pins,
        # shown in whole metres, and a phone fetches it on the course
        figures_m=[[[rounded(carry, 3), rounded(run, 2)] for carry, run in some] for some in table.figures],
        answers=[[[list(best) for best in pin] for pin in some] for some in table.answers],
    )  # fmt: skip
