"""Shots that players of one studio noted on the course."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, datetime
from uuid import UUID

from sqlalchemy import func
from sqlalchemy.dialects.postgresql import insert
from sqlmodel import col, select

from oblatus.store.repositories import Json, OfStudio
from oblatus.store.tables import LogShotRow

AT_ONCE = 1000


class StudioRounds(OfStudio):
    """Shots by fitting."""

    def shots(self, fitting_id: UUID) -> Sequence[LogShotRow]:
        """Every shot of a fitting that stands, by day, then in the order in which they came."""
        query = (
            select(LogShotRow)
            .where(
                LogShotRow.studio_id == self.studio_id,
                LogShotRow.fitting_id == fitting_id,
                col(LogShotRow.removed_at).is_(None),
            )
            .order_by(col(LogShotRow.on), col(LogShotRow.place))
        )
        return self.session.exec(query).all()

    def of_round(self, fitting_id: UUID, round_id: UUID) -> Sequence[LogShotRow]:
        """Every shot of a round, those taken back too, in the order in which they came."""
        query = (
            select(LogShotRow)
            .where(
                LogShotRow.studio_id == self.studio_id,
                LogShotRow.fitting_id == fitting_id,
                LogShotRow.round == round_id,
            )
            .order_by(col(LogShotRow.place))
        )
        return self.session.exec(query).all()

    def rounds_taken_out(self, fitting_id: UUID, most: int) -> Sequence[tuple[UUID, date, int]]:
        """Rounds of which no shot stands any longer, the last one taken out first: round, day, how many shots come back
        with it."""
        table = LogShotRow.__table__  # type: ignore[attr-defined]
        gone = (
            select(table, func.max(table.c.removed_at).over(partition_by=table.c.round).label("last"))
            .where(table.c.studio_id == self.studio_id, table.c.fitting_id == fitting_id)
            .subquery()
        )
        query = (
            select(gone.c.round, func.min(gone.c.on), func.count().filter(gone.c.removed_at == gone.c.last))
            .group_by(gone.c.round, gone.c.last)
            .having(func.count().filter(gone.c.removed_at.is_(None)) == 0)
            .order_by(gone.c.last.desc())
            .limit(most)
        )
        return [tuple(row) for row in self.session.execute(query).all()]

    def first_days(self) -> dict[UUID, date]:
        """The day of the first shot that stands, by fitting."""
        query = (
            select(LogShotRow.fitting_id, func.min(LogShotRow.on))
            .where(LogShotRow.studio_id == self.studio_id, col(LogShotRow.removed_at).is_(None))
            .group_by(col(LogShotRow.fitting_id))
        )
        return dict(self.session.exec(query).all())

    def add_shots(self, fitting_id: UUID, shots: Sequence[Json]) -> int:
        """Add shots; one that stands there is left as it is, one that is taken back is taken back for good, whichever of
        the two came first. Returns how many were new."""
        table, new = LogShotRow.__table__, 0  # type: ignore[attr-defined]
        for start in range(0, len(shots), AT_ONCE):
            rows = [
                {**one, "studio_id": self.studio_id, "fitting_id": fitting_id} for one in shots[start : start + AT_ONCE]
            ]
            query = insert(table).values(rows)
            gone = query.excluded.removed_at
            merged = query.on_conflict_do_update(
                index_elements=["fitting_id", "id"], set_={"removed_at": func.coalesce(table.c.removed_at, gone)}
            )
            known = set(
                self.session.execute(
                    select(table.c.id).where(table.c.fitting_id == fitting_id, table.c.id.in_([r["id"] for r in rows]))
                ).scalars()
            )
            self.session.execute(merged)
            new += len({row["id"] for row in rows} - known)
        return new

    def count(self, fitting_id: UUID) -> int:
        """How many shots of a fitting there are, those taken back too."""
        query = select(func.count()).where(LogShotRow.studio_id == self.studio_id, LogShotRow.fitting_id == fitting_id)
        return int(self.session.exec(query).one())

    def mark_round(self, fitting_id: UUID, round_id: UUID, removed_at: datetime | None) -> int:
        """Take out every shot of a round, or put back those that were taken out with it. Returns how many."""
        rows = self.of_round(fitting_id, round_id)
        last = max((row.removed_at for row in rows if row.removed_at is not None), default=None)
        wanted = None if removed_at is not None else last
        changed = [row for row in rows if row.removed_at == wanted and (wanted is not None or removed_at is not None)]
        for row in changed:
            row.removed_at = removed_at
            self.session.add(row)
        return len(changed)
