"""What the routes of the build sheet, its orders and the price list take and answer."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import Field, StringConstraints

from oblatus.formats.fields import Strict
from oblatus.formats.limits import WHY_LETTERS
from oblatus.formats.sections.build import PricesDocument


class OrderPath(Strict):
    """An order of a fitting."""

    fitting_id: UUID
    order_id: UUID


class OrderIn(Strict):
    """A sheet for the bench, as it was at a revision and, if it is told, with the rack of `rack_key`; the id is the
    screen's, so that one sent twice is one."""

    id: UUID
    revision: Annotated[int, Field(ge=1)]
    rack_key: Annotated[str, StringConstraints(max_length=12)] | None = None


class OrderAnewIn(Strict):
    """The sheet as it is at a revision, for an order that is at the bench."""

    revision: Annotated[int, Field(ge=1)]


class TickIn(Strict):
    """A piece of work by its club's and its own place on the sheet, and whether it is done."""

    club: Annotated[int, Field(ge=0, le=7)]
    operation: Annotated[int, Field(ge=0, le=60)]
    done: bool


class SignIn(Strict):
    """The set as built, as it was at a revision; `reason` why readings outside their tolerance stay."""

    revision: Annotated[int, Field(ge=1)]
    reason: Annotated[str, StringConstraints(max_length=WHY_LETTERS)] = ""


Count = Annotated[int, Field(ge=0, le=999)]


class PriceListIn(Strict):
    """A price list and a count of parts in place of those at a revision; parts that are not named stay as they are."""

    prices: PricesDocument
    parts: dict[str, Count] = {}  # noqa: RUF012 (pydantic copies it)
    revision: Annotated[int, Field(ge=1)]


class PriceListOut(Strict):
    """The studio's price list, how many of every part are on the shelf, and the revision of both."""

    prices: PricesDocument
    parts: dict[str, int]
    revision: int
