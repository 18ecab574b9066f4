"""Open a fitting, or list those of the studio."""

from __future__ import annotations

import base64
from collections.abc import Sequence
from datetime import datetime
from typing import NamedTuple
from uuid import UUID

from oblatus.formats.fitting import AttachedDocument, FittingDocument, KeptDocument, PhotoDocument
from oblatus.formats.readings import ReadingDocument
from oblatus.store.builds import StudioBuilds
from oblatus.store.database import Database
from oblatus.store.grounds_and_bags import StudioReadings
from oblatus.store.handovers import StudioHandovers
from oblatus.store.proofs import StudioProofs
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import FittingRow, ReadingRow, SnapshotRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.build_orders import signed_document
from oblatus.usecases.proofs import proof_documents
from oblatus.usecases.rack_of import rack_for
from oblatus.usecases.strikes_of import strikes_of, whole_document
from oblatus.usecases.view import FittingView, view_of

MOST_IN_A_FILE = 5000


class Listed(NamedTuple):
    """A fitting in the list; when a proposal was kept last, and its clubs."""

    fitting: FittingRow
    kept_at: datetime | None
    kept_clubs: list[str]


def list_fittings(database: Database, actor: Actor) -> Sequence[Listed]:
    """Every fitting of the studio, last changed first."""
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        kept = rows.last_kept()
        return [Listed(row, *kept.get(row.id, (None, []))) for row in rows.fittings()]


def open_fitting(database: Database, actor: Actor, fitting_id: UUID) -> FittingView:
    """One fitting with its proposal.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        row, rack, kept = rows.fitting(fitting_id), rack_for(rows, fitting_id), rows.kept(fitting_id, 1)
        strikes = strikes_of(rows, fitting_id)
        balls = StudioProofs(session, actor.studio_id).count_balls(fitting_id)
        handed = StudioHandovers(session, actor.studio_id).any_open(fitting_id)
    return view_of(row, rack, kept, strikes, proof_balls=balls, handed_over=handed)


def export_fitting(database: Database, actor: Actor, fitting_id: UUID) -> FittingDocument:
    """Everything of a fitting: document, strikes, the rack it was judged on, kept proposals, readings and photos.

    Another studio that reads it gets the same proposal, and nothing is missing when it was removed here.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows, readings = StudioRows(session, actor.studio_id), StudioReadings(session, actor.studio_id)
        document = FittingDocument.model_validate(rows.fitting(fitting_id).document)
        rack, strikes = rack_for(rows, fitting_id), strikes_of(rows, fitting_id)
        attached = AttachedDocument(
            kept=tuple(_kept(row) for row in rows.kept_whole(fitting_id)),
            readings=tuple(_reading(row) for row in readings.readings(fitting_id, MOST_IN_A_FILE)),
            photos=tuple(
                PhotoDocument(id=row.id, jpeg=base64.b64encode(row.content).decode())
                for row in readings.photos(fitting_id)
            ),
            proofs=tuple(
                proof.model_dump(mode="json")
                for proof in proof_documents(StudioProofs(session, actor.studio_id), fitting_id)
            ),
            builds=tuple(
                signed_document(order).model_dump(mode="json")
                for order in StudioBuilds(session, actor.studio_id).orders(fitting_id)
                if order.state == "built"
            ),
        )
    return whole_document(document, rack, strikes).model_copy(update={"attached": attached})


def _kept(row: SnapshotRow) -> KeptDocument:
    values = {name: getattr(row, name) for name in KeptDocument.model_fields}
    return KeptDocument.model_validate({**values, "created_at": row.created_at.isoformat()})


def _reading(row: ReadingRow) -> ReadingDocument:
    return ReadingDocument.model_validate({name: getattr(row, name) for name in ReadingDocument.model_fields})
