"""What is sent and answered about strikes."""

from __future__ import annotations

from typing import Annotated, Any
from uuid import UUID

from pydantic import Field, StringConstraints

from oblatus.core.gapping.strikes import STRIKE_FIGURES
from oblatus.formats.carries import CellKey
from oblatus.formats.fields import Strict, Within
from oblatus.formats.limits import MOST_WEDGES_OWNED
from oblatus.formats.recommendation import LadderOut
from oblatus.formats.strikes import Divot, Note, Reason, StrikeDocument
from oblatus.units import DistanceUnit
from oblatus.web.schemas import FittingPath


class StrikePath(FittingPath):
    """A strike's id."""

    strike_id: UUID


class StrikesIn(Strict):
    """Strikes to take; those that are there already are left as they are. `wedges`: those of the bag on the screen that
    took them, by which own:N is understood; without them it is by the bag as it is now."""

    strikes: Annotated[tuple[StrikeDocument, ...], Field(min_length=1, max_length=500)]
    wedges: Annotated[tuple[dict[str, Any], ...], Field(max_length=MOST_WEDGES_OWNED)] | None = None


class TakenOutOut(Strict):
    """Strikes that were taken out and can be put back, the last one first."""

    strikes: list[StrikeDocument]


class StrikesOut(Strict):
    """How many of the strikes were new."""

    taken: int


class AsideIn(Strict):
    """Why a strike does not count; null when it counts after all."""

    set_aside: Reason | None


class TellIn(Strict):
    """More of a strike; what is not sent stays as it is. `set_aside` null: it counts after all. `note_was`: the note in
    whose place `note` was written."""

    set_aside: Reason | None = None
    note: Note | None = None
    note_was: Note | None = None
    divot: Divot | None = None
    exit_mm: Annotated[float, Within(STRIKE_FIGURES["exit_mm"].bound)] | None = None
    mark_back_mm: Annotated[float, Within(STRIKE_FIGURES["mark_back_mm"].bound)] | None = None
    mark_toe_mm: Annotated[float, Within(STRIKE_FIGURES["mark_toe_mm"].bound)] | None = None


class PasteIn(Strict):
    """Pasted text; looked at only unless `take`, and taken despite a question of unit when `sure_of_unit`."""

    text: Annotated[str, StringConstraints(max_length=200_000)]
    unit: DistanceUnit
    paste_id: UUID
    cell: CellKey | None = None
    take: bool = False
    sure_of_unit: bool = False


class PasteOut(Strict):
    """What was read, a question about the unit if there is one, and how many strikes were taken."""

    strikes: list[StrikeDocument]
    unit: str
    question: str | None
    taken: int


class LaddersOut(Strict):
    """Cover against cost: ladders that none beats in both, cheapest first."""

    front: list[LadderOut]
