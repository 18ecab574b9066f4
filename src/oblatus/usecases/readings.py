"""Readings of a fitting's instruments: what they say, and setting one aside."""

from __future__ import annotations

from uuid import UUID

from oblatus.formats.readings import ReadingDocument
from oblatus.store.database import Database
from oblatus.store.grounds_and_bags import StudioReadings
from oblatus.store.repositories import StudioRows
from oblatus.usecases.actor import Actor

MOST_READINGS = 600


def show_readings(database: Database, actor: Actor, fitting_id: UUID) -> list[ReadingDocument]:
    """The newest readings in their order; raises `NotFoundError` if the studio has no such fitting."""
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).fitting(fitting_id)
        rows = StudioReadings(session, actor.studio_id).readings(fitting_id, MOST_READINGS)
    names = ("id", "kind", "target", "figures", "simulated", "set_aside")
    return [ReadingDocument.model_validate({name: getattr(row, name) for name in names}) for row in rows]


def set_reading_aside(database: Database, actor: Actor, fitting_id: UUID, reading_id: UUID, reason: str | None) -> None:
    """Say why a reading does not count, or with None that it does; raises `NotFoundError` if there is none."""
    with database.transaction() as session:
        row = StudioReadings(session, actor.studio_id).reading(fitting_id, reading_id)
        row.set_aside = reason
        session.add(row)
