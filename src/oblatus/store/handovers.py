"""What was handed to players of one studio, and the scores of their drills."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import defer
from sqlmodel import Session, col, select

from oblatus.store.repositories import Json, OfStudio, found
from oblatus.store.tables import DrillScoreRow, HandoverRow


class StudioHandovers(OfStudio):
    """Pages of players and their scores."""

    def handovers(self, fitting_id: UUID) -> Sequence[HandoverRow]:
        """Every hand-over of a fitting, newest first."""
        query = (
            select(HandoverRow)
            .where(HandoverRow.studio_id == self.studio_id, HandoverRow.fitting_id == fitting_id)
            .order_by(col(HandoverRow.created_at).desc())
        )
        return self.session.exec(query).all()

    def every(self) -> dict[UUID, list[HandoverRow]]:
        """When every fitting was handed over, newest first, without what was."""
        query = (
            select(HandoverRow)
            .where(HandoverRow.studio_id == self.studio_id)
            .order_by(col(HandoverRow.created_at).desc())
            .options(defer(HandoverRow.content))  # type: ignore[arg-type]
        )
        found: dict[UUID, list[HandoverRow]] = {}
        for row in self.session.exec(query).all():
            found.setdefault(row.fitting_id, []).append(row)
        return found

    def grounds_shown(self, fitting_id: UUID) -> set[str]:
        """Names of grounds on the pages that the player of a fitting holds."""
        query = select(HandoverRow.content).where(
            HandoverRow.studio_id == self.studio_id,
            HandoverRow.fitting_id == fitting_id,
            col(HandoverRow.closed_at).is_(None),
        )
        return {lie["ground"] for page in self.session.exec(query) for lie in page["card"]["lies"]}

    def handover(self, fitting_id: UUID, handover_id: UUID, *, lock: bool = False) -> HandoverRow:
        """One hand-over."""
        query = select(HandoverRow).where(
            HandoverRow.studio_id == self.studio_id,
            HandoverRow.fitting_id == fitting_id,
            HandoverRow.id == handover_id,
        )
        return found(self.session.exec(query.with_for_update() if lock else query).first(), "hand-over")

    def scores(self, handover_id: UUID) -> Sequence[DrillScoreRow]:
        """Scores of one hand-over in the order in which they came."""
        query = (
            select(DrillScoreRow)
            .where(DrillScoreRow.studio_id == self.studio_id, DrillScoreRow.handover_id == handover_id)
            .order_by(col(DrillScoreRow.place))
        )
        return self.session.exec(query).all()

    def scores_of_fitting(self, fitting_id: UUID) -> Sequence[DrillScoreRow]:
        """Scores of every hand-over of a fitting in the order in which they came."""
        query = (
            select(DrillScoreRow)
            .join(HandoverRow, col(HandoverRow.id) == col(DrillScoreRow.handover_id))
            .where(HandoverRow.studio_id == self.studio_id, HandoverRow.fitting_id == fitting_id)
            .order_by(col(DrillScoreRow.place))
        )
        return self.session.exec(query).all()

    def add_scores(self, handover_id: UUID, scores: Sequence[Json]) -> int:
        """Add scores; those whose id stands there already are left as they are. Returns how many were new."""
        table = DrillScoreRow.__table__  # type: ignore[attr-defined]
        rows = [{**one, "studio_id": self.studio_id, "handover_id": handover_id} for one in scores]
        new = insert(table).values(rows).on_conflict_do_nothing(index_elements=["handover_id", "id"])
        return len(self.session.execute(new.returning(table.c.id)).all())


def handover_of(session: Session, digest: str) -> HandoverRow | None:
    """The hand-over that a token opens, in whichever studio: the token is all that its holder knows."""
    return session.exec(select(HandoverRow).where(HandoverRow.digest == digest)).first()
