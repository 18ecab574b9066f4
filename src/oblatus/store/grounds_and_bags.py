"""Readings of instruments, the venue library and photos of one studio."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime
from uuid import UUID

from sqlalchemy import String, cast, update
from sqlalchemy.dialects.postgresql import insert
from sqlmodel import col, delete, func, select

from oblatus.store.choices import rename_choices
from oblatus.store.repositories import Json, OfStudio, found
from oblatus.store.tables import LinkRow, LogShotRow, PhotoRow, ReadingRow, VenueRow, now


class StudioReadings(OfStudio):
    """What was read on grounds and clubs, and what the studio knows of venues."""

    def add_reading(self, fitting_id: UUID, reading: Json) -> int:
        """Add a validated reading unless it is there. Returns how many were new."""
        table = ReadingRow.__table__  # type: ignore[attr-defined]
        taken_at = reading.get("taken_at") or now()
        row = {**reading, "studio_id": self.studio_id, "fitting_id": fitting_id, "taken_at": taken_at}
        new = insert(table).values([row]).on_conflict_do_nothing(index_elements=["fitting_id", "id"])
        return len(self.session.execute(new.returning(table.c.id)).all())

    def rename_grounds(self, fitting_id: UUID, names: Mapping[str, str]) -> None:
        """Readings of grounds, the instruments at them and shots of the course go with their ground to its new name."""
        of_ground = ("hammer", "penetrometer")
        for old, new in names.items():
            for table in (ReadingRow, LinkRow):
                self.session.execute(
                    update(table)
                    .where(
                        col(table.studio_id) == self.studio_id,
                        col(table.fitting_id) == fitting_id,
                        col(table.kind).in_(of_ground),
                        col(table.target) == old,
                    )
                    .values(target=new)
                )
            shot = col(LogShotRow.shot)
            self.session.execute(
                update(LogShotRow)
                .where(
                    col(LogShotRow.studio_id) == self.studio_id,
                    col(LogShotRow.fitting_id) == fitting_id,
                    func.jsonb_extract_path_text(shot, "ground") == old,
                )
                .values(shot=func.jsonb_set(shot, ["ground"], func.to_jsonb(cast(new, String))))
            )
        links = select(LinkRow).where(
            LinkRow.studio_id == self.studio_id, LinkRow.fitting_id == fitting_id, col(LinkRow.kind).in_(of_ground)
        )
        for link in self.session.exec(links.execution_options(populate_existing=True)).all():
            rename_choices(link, names)
            self.session.add(link)

    def readings(self, fitting_id: UUID, most: int) -> Sequence[ReadingRow]:
        """The newest readings of a fitting, in the order in which they came."""
        query = (
            select(ReadingRow)
            .where(ReadingRow.studio_id == self.studio_id, ReadingRow.fitting_id == fitting_id)
            .order_by(col(ReadingRow.place).desc())
            .limit(most)
        )
        return list(reversed(self.session.exec(query).all()))

    def last_gauged(self) -> dict[UUID, datetime]:
        """When a club of every fitting was in the gauge last."""
        query = (
            select(ReadingRow.fitting_id, func.max(ReadingRow.taken_at))
            .where(
                ReadingRow.studio_id == self.studio_id,
                ReadingRow.kind == "gauge",
                col(ReadingRow.set_aside).is_(None),
                col(ReadingRow.target).startswith("own:"),
            )
            .group_by(col(ReadingRow.fitting_id))
        )
        return dict(self.session.exec(query).all())

    def reading(self, fitting_id: UUID, reading_id: UUID) -> ReadingRow:
        """One reading."""
        query = select(ReadingRow).where(
            ReadingRow.studio_id == self.studio_id, ReadingRow.fitting_id == fitting_id, ReadingRow.id == reading_id
        )
        return found(self.session.exec(query).first(), "reading")

    def venues(self) -> Sequence[VenueRow]:
        """Every record of the venue library, by venue, newest reading first."""
        query = (
            select(VenueRow)
            .where(VenueRow.studio_id == self.studio_id)
            .order_by(func.lower(VenueRow.venue), col(VenueRow.read_on).desc(), col(VenueRow.created_at).desc())
        )
        return self.session.exec(query).all()

    def venue_before(self, record_id: UUID) -> VenueRow | None:
        """What was kept under this id by a request that got no answer, one that is being made is waited for; None if
        nothing was.

        Raises NotFoundError if the id stands for something else.
        """
        self.session.execute(select(func.pg_advisory_xact_lock(func.hashtext(str(record_id)))))
        return self.venue(record_id) if self.session.get(VenueRow, record_id) else None

    def venue(self, record_id: UUID) -> VenueRow:
        """One record of the venue library."""
        query = select(VenueRow).where(VenueRow.studio_id == self.studio_id, VenueRow.id == record_id)
        return found(self.session.exec(query).first(), "venue record")

    def photo_count(self, fitting_id: UUID) -> int:
        """How many photos a fitting has."""
        query = select(func.count()).where(PhotoRow.studio_id == self.studio_id, PhotoRow.fitting_id == fitting_id)
        return self.session.exec(query).one()

    def photo(self, fitting_id: UUID, photo_id: UUID) -> PhotoRow:
        """One photo."""
        return found(self.photo_before(fitting_id, photo_id), "photo")

    def photo_before(self, fitting_id: UUID, photo_id: UUID) -> PhotoRow | None:
        """One photo, if it is there."""
        query = select(PhotoRow).where(
            PhotoRow.studio_id == self.studio_id, PhotoRow.fitting_id == fitting_id, PhotoRow.id == photo_id
        )
        return self.session.exec(query).first()

    def photos(self, fitting_id: UUID) -> Sequence[PhotoRow]:
        """Every photo of a fitting, oldest first."""
        query = (
            select(PhotoRow)
            .where(PhotoRow.studio_id == self.studio_id, PhotoRow.fitting_id == fitting_id)
            .order_by(col(PhotoRow.created_at), col(PhotoRow.id))
        )
        return self.session.exec(query).all()

    def remove_oldest_photo_but(self, fitting_id: UUID, shown: set[UUID]) -> None:
        """Remove the oldest photo that is not among those shown."""
        spare = [photo.id for photo in self.photos(fitting_id) if photo.id not in shown]
        if spare:
            self.session.exec(
                delete(PhotoRow).where(col(PhotoRow.studio_id) == self.studio_id, col(PhotoRow.id) == spare[0])
            )
