"""The grounds of a fitting's document: turf and sand with their readings, shares, names that they had."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from datetime import date
from typing import TYPE_CHECKING, Annotated, Any, ClassVar, Literal, Self

from pydantic import Field, create_model, model_validator

from oblatus.core.figures import figures
from oblatus.core.grounds import SURFACES, GreenClass, Ground, Season, SurfaceKind, summarise_readings
from oblatus.formats.fields import Strict, Within, at_field, document_fields
from oblatus.formats.limits import MOST_GROUNDS, MOST_READINGS
from oblatus.formats.sections.parts import GroundSource, Name, Share, check_whole


class SurfaceDocument(Strict):
    """One kind of ground. With single readings of its instrument, its figure is their mean: measured, or copied."""

    kind_of: ClassVar[SurfaceKind]

    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...

    @property
    def reading(self) -> float:
        """The figure that the instrument reads."""
        return float(getattr(self, self.kind_of.reading))

    @property
    def readings(self) -> tuple[float, ...]:
        """Single readings, if there are any."""
        return tuple(getattr(self, self.kind_of.readings))

    @property
    def source(self) -> str:
        """Where the figure comes from."""
        return str(getattr(self, self.kind_of.source))

    @model_validator(mode="after")
    def _readings_say_the_figure(self) -> Self:
        kind = self.kind_of
        if not self.readings:
            return self
        mean = round(summarise_readings(self.readings).mean, figures(kind.made_of)[kind.reading].places + 2)
        source = "copied" if self.source == "copied" else "measured"
        return self.model_copy(update={kind.reading: mean, kind.source: source})


def _surface_document(kind: SurfaceKind) -> type[SurfaceDocument]:
    """The document of a kind of ground: single readings first, then the figures, one of them picked by a word."""
    known = figures(kind.made_of)
    one = Annotated[float, Within(known[kind.reading].bound)]
    rest = document_fields(kind.made_of, without=[key for key, f in known.items() if f.where == "none"])
    fields: dict[str, Any] = {kind.readings: (Annotated[tuple[one, ...], Field(max_length=MOST_READINGS)], ())}
    for key, field in rest.items():
        picked = kind.picked if kind.picked is not None and kind.picked.figure == key else None
        if picked is None:
            fields[key] = field
        else:
            fields[picked.field] = (Literal[tuple(picked.values)], picked.usual)
        if key == kind.reading:
            fields[kind.source] = (GroundSource, "assumed")
    name = f"{kind.key.capitalize()}Document"
    words = f"{kind.words} of one ground. With single readings, the figure is their mean: measured, or copied."
    made = create_model(name, __base__=SurfaceDocument, __doc__=words, **fields)
    made.kind_of = kind
    return made


SURFACE_DOCUMENTS: dict[str, type[SurfaceDocument]] = {key: _surface_document(kind) for key, kind in SURFACES.items()}
MOST_FORMER_NAMES = 8


class _GroundDocument(Strict):
    """One ground of the mix with its share of the player's golf; where, in which season and on which day it was read.

    `formerly` are names that it has on pages that players hold: shots noted there by such a name are of this ground.
    """

    name: Name
    share: Share
    venue: Name | None = None
    season: Season | None = None
    read_on: date | None = None
    formerly: Annotated[tuple[Name, ...], Field(max_length=MOST_FORMER_NAMES)] = ()

    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...

    def surface(self, key: str) -> SurfaceDocument:
        """One kind of its ground."""
        found: SurfaceDocument = getattr(self, key)
        return found


if TYPE_CHECKING:
    GroundDocument = _GroundDocument
else:
    GroundDocument = create_model(
        "GroundDocument", __base__=_GroundDocument, __doc__=_GroundDocument.__doc__,
        **{key: (document, document()) for key, document in SURFACE_DOCUMENTS.items()},
        green=(GreenClass, "medium"), **document_fields(Ground),
    )  # fmt: skip


class VenueDocument(Strict):
    """A ground as it was read at a venue, in a season, on a day."""

    venue: Name
    season: Season
    read_on: date
    ground: GroundDocument


Grounds = Annotated[tuple[GroundDocument, ...], Field(min_length=1, max_length=MOST_GROUNDS)]


def check_grounds(grounds: tuple[GroundDocument, ...]) -> None:
    """Shares sum to 1 and names differ.

    Raises
    ------
    PydanticCustomError
        Where they do not.
    """
    check_whole((ground.share for ground in grounds), "grounds")
    names = [ground.name.casefold() for ground in grounds]
    twice = next((name for name in names if names.count(name) > 1), None)
    if twice is not None:
        raise at_field("grounds", f"two grounds are called {twice}")


def renamed(before: Sequence[GroundDocument], after: Sequence[GroundDocument]) -> dict[str, str]:
    """Old name to new of every ground that stands in its place and is as it was, but for its name and its share."""
    if len(before) != len(after):
        return {}
    was, now = {ground.name for ground in before}, {ground.name for ground in after}
    return {
        old.name: new.name
        for old, new in zip(before, after, strict=True)
        if old.name not in now
        and new.name not in was
        and old.model_copy(update={"name": new.name, "share": new.share}) == new
    }


def called_before(
    grounds: Sequence[GroundDocument], names: Mapping[str, str], shown: Collection[str]
) -> tuple[GroundDocument, ...]:
    """The grounds after `names` were changed, old to new, with the old ones that stand on pages (`shown`)."""
    was = {new: old for old, new in names.items()}

    def one(ground: GroundDocument) -> GroundDocument:
        before = [was[ground.name]] if was.get(ground.name) in shown else []
        formerly = [name for name in dict.fromkeys([*before, *ground.formerly]) if name != ground.name]
        return ground.model_copy(update={"formerly": tuple(formerly[:MOST_FORMER_NAMES])})

    return tuple(one(ground) if ground.name in was else ground for ground in grounds)


def ground_called(grounds: Sequence[GroundDocument], name: str) -> str:
    """The name today of a ground that a page calls `name`; that name itself where no ground has or had it."""
    if any(ground.name == name for ground in grounds):
        return name
    return next((ground.name for ground in grounds if name in ground.formerly), name)
