"""The bag of a fitting's document: heads of the rack, wedges that are owned and those that were."""

from __future__ import annotations

from datetime import date
from typing import TYPE_CHECKING, Annotated, Any, Literal, Self
from uuid import UUID

from pydantic import Field, StringConstraints, create_model, model_validator

from oblatus.core.bounds import Bound
from oblatus.core.build.assembly import LENGTH
from oblatus.core.build.parts import GRIP_OF, SHAFT_OF
from oblatus.core.clubs import Head, Make
from oblatus.core.figures import in_engine
from oblatus.errors import InputError
from oblatus.formats.fields import Strict, Within, at_field, document_fields
from oblatus.formats.limits import MOST_HEADS, MOST_PHOTOS, MOST_WEDGES_OWNED
from oblatus.formats.sections.parts import LOFT, Name, Note


class _HeadDocument(Strict):
    """Static geometry of a head."""

    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...

    @model_validator(mode="after")
    def _can_exist(self) -> Self:
        try:
            Head(**in_engine(Head, self))
        except InputError as error:
            raise at_field(error.faults[0].field, error.faults[0].message) from error
        return self


if TYPE_CHECKING:
    HeadDocument = _HeadDocument
else:
    HeadDocument = create_model(
        "HeadDocument", __base__=_HeadDocument, __doc__=_HeadDocument.__doc__, **document_fields(Head)
    )


class RackHeadDocument(HeadDocument):
    """A demo head of the rack."""

    code: Annotated[str, StringConstraints(min_length=1, max_length=40, strip_whitespace=True)]
    name: Name
    make: Make = "forged"
    bend_limit_deg: Annotated[float, Within(Bound(0, 4, "degrees"))] = 3.0
    stock: Annotated[int, Within(Bound(0, 999, "heads"))] = 1
    price: Annotated[float, Within(Bound(0, 100_000, ""))] | None = None


SwingWeight = Annotated[str, StringConstraints(pattern=r"^[A-G]\d(\.\d)?$")]


class BuiltDocument(Strict):
    """What a wedge was when the studio built it; None where it was left as it was, or the loft not read."""

    order_id: UUID
    on: date
    by: Name
    length_in: Annotated[float, Within(LENGTH)] | None = None
    shaft: Literal[tuple(SHAFT_OF)] | None = None  # type: ignore[valid-type]
    grip: Literal[tuple(GRIP_OF)] | None = None  # type: ignore[valid-type]
    swing_weight: SwingWeight | None = None
    loft_deg: Annotated[float, Within(LOFT)] | None = None


class OwnedWedgeDocument(HeadDocument):
    """A wedge the player owns; `loft_deg` is the measured one, or the stamped one until it is measured.

    `loft_typed`: the measured loft was typed, not taken over from the gauge. `bends_deg`: every bend of its life, for
    loft or lie, since the studio knows it; they use up what it may be bent by. `photos` are kept by the studio beside
    the document.
    """

    name: Name
    stamped_loft_deg: Annotated[float, Within(LOFT)] | None = None
    measured: bool = False
    loft_typed: bool = False
    make: Make = "forged"
    bend_limit_deg: Annotated[float, Within(Bound(0, 4, "degrees"))] = 2.0
    wear_class: Literal["unknown", "fresh", "used", "worn"] = "unknown"
    wear: Note = ""
    photos: Annotated[tuple[UUID, ...], Field(max_length=MOST_PHOTOS)] = ()
    bends_deg: Annotated[tuple[Annotated[float, Within(Bound(-4, 4, "degrees"))], ...], Field(max_length=40)] = ()
    built: BuiltDocument | None = None


Became = Literal["bent", "ground", "out of the bag"]


class FormerWedgeDocument(Strict):
    """A wedge as it was until a day: bent, ground or out of the bag since; `code` by which its strikes go then."""

    code: Annotated[str, StringConstraints(max_length=40)]
    wedge: OwnedWedgeDocument
    until: date
    became: Became
    order_id: UUID | None = None
    """Of the build that changed it; None where it was taken out by hand."""


MOST_FORMER = 60


class BagDocument(Strict):
    """What is in the bag above the wedges, the wedges owned, and those that were, newest first."""

    nine_iron_loft_deg: Annotated[float, Within(Bound(34, 48, "degrees"))] = 41.0
    pitching_wedge_loft_deg: Annotated[float, Within(Bound(40, 52, "degrees"))] = 46.0
    pitching_wedge_bounce_deg: Annotated[float, Within(Bound(0, 12, "degrees"))] = 5.0
    other_clubs: Annotated[int, Within(Bound(5, 14, "clubs"))] = 10
    wedges: Annotated[tuple[OwnedWedgeDocument, ...], Field(max_length=MOST_WEDGES_OWNED)] = ()
    former: Annotated[tuple[FormerWedgeDocument, ...], Field(max_length=MOST_FORMER)] = ()

    @model_validator(mode="after")
    def _nine_iron_is_stronger(self) -> Self:
        if self.nine_iron_loft_deg >= self.pitching_wedge_loft_deg:
            raise at_field("nine_iron_loft_deg", "must be less than the pitching wedge's loft")
        return self


Rack = Annotated[tuple[RackHeadDocument, ...], Field(max_length=MOST_HEADS)]
