"""Proofs of one studio and their balls."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from sqlalchemy.dialects.postgresql import insert
from sqlmodel import col, select

from oblatus.store.repositories import Json, OfStudio, found
from oblatus.store.tables import ProofBallRow, ProofRow, now


class StudioProofs(OfStudio):
    """Proofs of the fittings of one studio."""

    def proofs(self, fitting_id: UUID, *, out: bool = False) -> Sequence[ProofRow]:
        """Every proof of a fitting, newest first, those taken out not; with `out` only those, the last one first."""
        removed = col(ProofRow.removed_at)
        query = (
            select(ProofRow)
            .where(
                ProofRow.studio_id == self.studio_id,
                ProofRow.fitting_id == fitting_id,
                removed.is_not(None) if out else removed.is_(None),
            )
            .order_by((removed if out else col(ProofRow.created_at)).desc())
        )
        return self.session.exec(query).all()

    def proof(self, fitting_id: UUID, proof_id: UUID, *, lock: bool = False) -> ProofRow:
        """One proof, also one that was taken out."""
        query = select(ProofRow).where(
            ProofRow.studio_id == self.studio_id, ProofRow.fitting_id == fitting_id, ProofRow.id == proof_id
        )
        return found(self.session.exec(query.with_for_update() if lock else query).first(), "proof")

    def add_proof(self, row: ProofRow) -> bool:
        """Add a proof unless it is there; whether it was new."""
        table = ProofRow.__table__  # type: ignore[attr-defined]
        values = {name: getattr(row, name) for name in ("id", "fitting_id", "document", "feel", "made_by", "created_at")}
        new = (
            insert(table).values([{**values, "studio_id": self.studio_id}]).on_conflict_do_nothing(index_elements=["id"])
        )
        return bool(self.session.execute(new.returning(table.c.id)).all())

    def balls(self, proof_id: UUID, *, out: bool = False) -> Sequence[ProofBallRow]:
        """The balls of a proof in the order in which they were hit, those taken out not; with `out` only those."""
        removed = col(ProofBallRow.removed_at)
        query = (
            select(ProofBallRow)
            .where(
                ProofBallRow.studio_id == self.studio_id,
                ProofBallRow.proof_id == proof_id,
                removed.is_not(None) if out else removed.is_(None),
            )
            .order_by(removed if out else col(ProofBallRow.place))
        )
        return self.session.exec(query).all()

    def ball(self, proof_id: UUID, ball_id: UUID) -> ProofBallRow:
        """One ball, also one that was taken out."""
        query = select(ProofBallRow).where(
            ProofBallRow.studio_id == self.studio_id, ProofBallRow.proof_id == proof_id, ProofBallRow.id == ball_id
        )
        return found(self.session.exec(query).first(), "ball")

    def add_balls(self, proof_id: UUID, balls: Sequence[tuple[UUID, str | None, Json]]) -> int:
        """Add validated balls; those whose id stands there already are left as they are. Returns how many were new."""
        table = ProofBallRow.__table__  # type: ignore[attr-defined]
        rows = [
            {"proof_id": proof_id, "id": one, "studio_id": self.studio_id, "ball": ball, "set_aside": aside,
             "taken_at": now()}
            for one, aside, ball in balls
        ]  # fmt: skip
        if not rows:
            return 0
        new = insert(table).values(rows).on_conflict_do_nothing(index_elements=["proof_id", "id"])
        return len(self.session.execute(new.returning(table.c.id)).all())
