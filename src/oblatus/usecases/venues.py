"""The venue library: grounds as they were read, shared by the whole studio."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID, uuid4

from oblatus.errors import fault
from oblatus.formats.sections.grounds import VenueDocument
from oblatus.store.database import Database
from oblatus.store.grounds_and_bags import StudioReadings
from oblatus.store.tables import VenueRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.days import latest_day


def list_venues(database: Database, actor: Actor) -> Sequence[VenueRow]:
    """Every record, by venue, newest reading first."""
    with database.transaction() as session:
        return StudioReadings(session, actor.studio_id).venues()


def keep_venue(database: Database, actor: Actor, record: VenueDocument, record_id: UUID | None = None) -> VenueRow:
    """Keep a ground as it was read at a venue on a day; sent again under its id it is kept once.

    Raises
    ------
    InputError
        If the day is still to come.
    NotFoundError
        If the id stands for something else.
    """
    if record.read_on > latest_day():
        raise fault("read_on", "is still to come", record.read_on.isoformat())
    with database.transaction() as session:
        before = StudioReadings(session, actor.studio_id).venue_before(record_id) if record_id else None
        if before is not None:
            return before
        row = venue_row(actor.studio_id, actor.name, record, record_id)
        session.add(row)
    return row


def venue_row(studio_id: UUID, kept_by: str, record: VenueDocument, record_id: UUID | None = None) -> VenueRow:
    """A record as a row; its ground says itself where and when it was read."""
    about = {"share": 1.0, "venue": record.venue, "season": record.season, "read_on": record.read_on}
    ground = record.ground.model_copy(update=about).model_dump(mode="json")
    return VenueRow(
        id=record_id or uuid4(), studio_id=studio_id, venue=record.venue, season=record.season, read_on=record.read_on,
        ground=ground, kept_by=kept_by,
    )  # fmt: skip


def forget_venue(database: Database, actor: Actor, record_id: UUID) -> None:
    """Take a record out of the library; raises `NotFoundError` if there is none."""
    with database.transaction() as session:
        session.delete(StudioReadings(session, actor.studio_id).venue(record_id))
