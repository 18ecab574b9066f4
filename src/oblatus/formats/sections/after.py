"""What comes after the set in a fitting's document: card, decisions on the log, rechecks, trips."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from typing import TYPE_CHECKING, Annotated, Literal, Self, TypeAlias

from pydantic import Field, StringConstraints, model_validator

from oblatus.core.after.due import DUE_KEYS
from oblatus.core.bounds import Bound
from oblatus.formats.fields import Strict, Within, at_field
from oblatus.formats.limits import BALL_LETTERS, MOST_BANDS, WHY_LETTERS
from oblatus.formats.sections.choices import BandDocument
from oblatus.formats.sections.grounds import Grounds, check_grounds
from oblatus.formats.sections.parts import Name, Share
from oblatus.formats.sections.player import check_shot_mix

CARD_PARTS = {
    "lofts": "lofts and bounces", "full": "full swings", "distances": "the table of distances",
    "rows": "every club and swing", "rules": "wind and green rules",
}  # fmt: skip
CARD_PAPERS = {"pocket": "pocket", "a6": "A6", "a4": "A4", "letter": "letter"}
if TYPE_CHECKING:
    CardPart: TypeAlias = str
    CardPaper: TypeAlias = str
else:
    CardPart = Literal[tuple(CARD_PARTS)]
    CardPaper = Literal[tuple(CARD_PAPERS)]


class CardDocument(Strict):
    """What is on the player's card: the ball that the carries hold for, paper, colour, parts."""

    ball: Annotated[str, StringConstraints(max_length=BALL_LETTERS)] = ""
    size: CardPaper = "a6"
    grey: bool = False
    parts: Annotated[tuple[CardPart, ...], Field(min_length=1, max_length=len(CARD_PARTS))] = tuple(CARD_PARTS)

    @model_validator(mode="after")
    def _once(self) -> Self:
        if len(set(self.parts)) < len(self.parts):
            raise at_field("parts", "name a part twice")
        return self


class HeldDocument(Strict):
    """What a fitting holds of the things that a log counts; null where it is assumed."""

    shot_mix: dict[str, Share] | None = None
    distances: Annotated[tuple[BandDocument, ...], Field(min_length=1, max_length=MOST_BANDS)] | None = None
    table_scale: Annotated[float, Within(Bound(0.3, 2.5, ""))] | None = None

    @model_validator(mode="after")
    def _shot_mix_is_whole(self) -> Self:
        check_shot_mix(self.shot_mix)
        return self


class DecisionDocument(Strict):
    """What the fitter said to something that the log offers: taken or not, on which day, by how many shots it stood;
    what was put in place, and what stood there before."""

    key: Annotated[str, StringConstraints(min_length=1, max_length=80)]
    accepted: bool
    on: date
    shots: Annotated[int, Within(Bound(0, 100_000, "shots"))]
    put: HeldDocument | None = None
    before: HeldDocument | None = None


OFFERS = {"mix": "Shots they face", "distances": "Distances faced", "table": "Strokes table"}
"""What a log offers to a fitting beside what it says of heads, by key."""
HEAD = "head"


def head_key(club: str, surface: str) -> str:
    """The key of what a log says of a head on a kind of ground."""
    return f"{HEAD}:{club}:{surface}"


def head_of(key: str) -> tuple[str, str]:
    """The club and the kind of ground that a key is about; no club if it is about something else."""
    kind, _, of = key.partition(":")
    club, _, surface = of.rpartition(":")
    return (club, surface) if kind == HEAD else ("", "")


def decision_with(decision: DecisionDocument, codes: Mapping[str, str]) -> DecisionDocument:
    """A decision by the code that its club goes by now."""
    club, surface = head_of(decision.key)
    return decision.model_copy(update={"key": head_key(codes[club], surface)}) if club in codes else decision


class SnoozeDocument(Strict):
    """Something due that is put off, and why."""

    key: Literal[DUE_KEYS]  # type: ignore[valid-type]
    until: date
    reason: Annotated[str, StringConstraints(min_length=1, max_length=WHY_LETTERS, strip_whitespace=True)]


class LookedAtDocument(Strict):
    """Something due that was looked at on a day: it is due again from then."""

    key: Literal[DUE_KEYS]  # type: ignore[valid-type]
    on: date


class UseDocument(Strict):
    """How much the clubs are used; null where nobody said."""

    rounds_year: Annotated[float, Within(Bound(0, 400, "rounds a year"))] | None = None
    range_balls_week: Annotated[float, Within(Bound(0, 3000, "balls a week"))] | None = None


class TripDocument(Strict):
    """Other ground for some days, or for a season of every year; `from_on`, `to_on` null where no day is set."""

    name: Name
    season: bool = False
    from_on: date | None = None
    to_on: date | None = None
    grounds: Grounds

    @model_validator(mode="after")
    def _can_be(self) -> Self:
        check_grounds(self.grounds)
        if self.from_on is not None and self.to_on is not None and self.to_on < self.from_on:
            raise at_field("to_on", "is before the first day")
        return self


class AfterDocument(Strict):
    """What comes after the fitting: what was said to the log's offers, what is put off and was looked at, use,
    seasons and trips."""

    decisions: Annotated[tuple[DecisionDocument, ...], Field(max_length=200)] = ()
    snoozes: Annotated[tuple[SnoozeDocument, ...], Field(max_length=20)] = ()
    looked_at: Annotated[tuple[LookedAtDocument, ...], Field(max_length=20)] = ()
    use: UseDocument = UseDocument()
    trips: Annotated[tuple[TripDocument, ...], Field(max_length=20)] = ()

    @model_validator(mode="after")
    def _told_apart(self) -> Self:
        for where, names in (
            ("decisions", [one.key for one in self.decisions]),
            ("snoozes", [one.key for one in self.snoozes]),
            ("looked_at", [one.key for one in self.looked_at]),
        ):
            twice = next((name for name in names if names.count(name) > 1), None)
            if twice is not None:
                raise at_field(where, f"two are called {twice}")
        names = [one.name.casefold() for one in self.trips]
        for n, name in enumerate(names):
            if name in names[:n]:
                raise at_field(f"trips.{n}.name", "is the name of another trip, too")
        return self
