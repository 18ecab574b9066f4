"""A fitting's strikes, from the store to the engine."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from oblatus.core.gapping import MeasuredStrike
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.sections.bag import RackHeadDocument
from oblatus.formats.strikes import StrikeDocument, strike_from
from oblatus.store.repositories import StudioRows


def strikes_of(rows: StudioRows, fitting_id: UUID) -> tuple[StrikeDocument, ...]:
    """Every strike of a fitting in its order; rows were checked when they were taken."""
    return tuple(StrikeDocument.of_row(row) for row in rows.strikes(fitting_id))


def whole_document(
    document: FittingDocument, rack: Sequence[RackHeadDocument], strikes: tuple[StrikeDocument, ...]
) -> FittingDocument:
    """The document with its strikes, and with the studio's rack unless it brings its own."""
    return document.model_copy(
        update={"strikes": strikes, "rack": document.rack if document.rack is not None else tuple(rack)}
    )


def measured(strikes: tuple[StrikeDocument, ...]) -> tuple[MeasuredStrike, ...]:
    """The engine's strikes."""
    return tuple(strike_from(strike) for strike in strikes)
