"""Photos of a player's clubs."""

from __future__ import annotations

from uuid import UUID, uuid4

from oblatus.errors import fault
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.photos import reencode_photo
from oblatus.store.database import Database
from oblatus.store.grounds_and_bags import StudioReadings
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import PhotoRow
from oblatus.usecases.actor import Actor

MOST_PHOTOS = 40
MOST_HELD = 60
"""Those shown, and those taken off lately: an undo shows them again."""


def add_photo(
    database: Database, actor: Actor, fitting_id: UUID, content: bytes, photo_id: UUID | None = None
) -> PhotoRow:
    """Keep a photo, re-encoded. The oldest that no club of the fitting shows any more makes room when there are too many.
    Sent again under its id it is the same.

    Raises
    ------
    InputError
        As `reencode_photo`, or if the fitting shows too many already.
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).fitting(fitting_id)
    jpeg, width, height = reencode_photo(content)
    with database.transaction() as session:
        found = StudioRows(session, actor.studio_id).fitting(fitting_id, lock=True)
        photos = StudioReadings(session, actor.studio_id)
        before = photos.photo_before(fitting_id, photo_id) if photo_id else None
        if before is not None:
            return before
        document = FittingDocument.model_validate(found.document)
        shown = {photo for wedge in document.bag.wedges for photo in wedge.photos}
        if len(shown) >= MOST_PHOTOS:
            raise fault("photo", f"a fitting keeps at most {MOST_PHOTOS}")
        if photos.photo_count(fitting_id) >= MOST_HELD:
            photos.remove_oldest_photo_but(fitting_id, shown)
        row = PhotoRow(
            id=photo_id or uuid4(), studio_id=actor.studio_id, fitting_id=fitting_id, content=jpeg, width=width,
            height=height,
        )  # fmt: skip
        session.add(row)
    return row


def show_photo(database: Database, actor: Actor, fitting_id: UUID, photo_id: UUID) -> bytes:
    """A photo as JPEG; raises `NotFoundError` if the studio has no such photo."""
    with database.transaction() as session:
        return StudioReadings(session, actor.studio_id).photo(fitting_id, photo_id).content
