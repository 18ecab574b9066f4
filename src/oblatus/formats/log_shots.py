"""A shot noted on the course, as it comes from a phone, a form or a file."""

from __future__ import annotations

from datetime import date
from typing import TYPE_CHECKING, Annotated, Literal, TypeAlias
from uuid import UUID

from pydantic import Field, StringConstraints, model_validator

from oblatus.core.bounds import Bound
from oblatus.core.log.shots import BY_RESULT, RESULTS, SITUATIONS
from oblatus.formats.fields import Strict, Within, at_field
from oblatus.formats.limits import NAME_LETTERS

if TYPE_CHECKING:
    SituationKey: TypeAlias = str
    ResultKey: TypeAlias = str
else:
    SituationKey = Literal[SITUATIONS]
    ResultKey = Literal[tuple(one.key for one in RESULTS)]
MOST_LOGGED = 30_000
DISTANCE = Bound(1, 200, "m")
LEFT = Bound(0, 200, "m")
FIRST_DAY = date(1990, 1, 1)


class LogShotDocument(Strict):
    """One shot of a round.

    `distance_m` to the hole, null: the usual one of the situation; `club`, `advised` by code; `left_m` as paced, null:
    as the result usually leaves it; `holed_in` strokes to hole out, this one counted, null: nobody counted. `removed`
    takes a shot back, whether it came before or comes after.
    """

    id: UUID
    round: UUID
    on: date
    situation: SituationKey
    ground: Annotated[str, StringConstraints(max_length=NAME_LETTERS)] = ""
    distance_m: Annotated[float, Within(DISTANCE)] | None = None
    club: Annotated[str, StringConstraints(min_length=1, max_length=40)]
    advised: Annotated[str, StringConstraints(min_length=1, max_length=40)] | None = None
    result: ResultKey
    left_m: Annotated[float, Within(LEFT)] | None = None
    holed_in: Annotated[int, Field(ge=1, le=15)] | None = None
    removed: bool = False

    @model_validator(mode="after")
    def _can_be(self) -> LogShotDocument:
        if self.on < FIRST_DAY:
            raise at_field("on", "is before 1990")
        holed = BY_RESULT[self.result].lie == "holed"
        if holed and self.holed_in not in (None, 1):
            raise at_field("holed_in", "is more than one, but this shot went in")
        if holed and self.left_m:
            raise at_field("left_m", "is left, but this shot went in")
        if not holed and self.holed_in == 1:
            raise at_field("holed_in", "is one, but this shot did not go in")
        return self
