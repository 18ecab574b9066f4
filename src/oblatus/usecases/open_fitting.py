"""Open a fitting, or list those of the studio."""

from __future__ import annotations

import base64
from collections.abc import Sequence
from datetime import date, datetime
from typing import NamedTuple
from uuid import UUID

from oblatus.formats.fitting import FittingDocument
from oblatus.formats.readings import ReadingDocument
from oblatus.formats.sections.beside import AttachedDocument, KeptDocument, PhotoDocument
from oblatus.store.builds import StudioBuilds
from oblatus.store.database import Database
from oblatus.store.grounds_and_bags import StudioReadings
from oblatus.store.handovers import StudioHandovers
from oblatus.store.proofs import StudioProofs
from oblatus.store.repositories import StudioRows
from oblatus.store.rounds import StudioRounds
from oblatus.store.tables import FittingRow, HandoverRow, ReadingRow, SnapshotRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.days import day_of
from oblatus.usecases.hand_over import handover_documents
from oblatus.usecases.logged import shot_of_row
from oblatus.usecases.newest import of_the_newest
from oblatus.usecases.orders_told import signed_document
from oblatus.usecases.proofs import proof_documents
from oblatus.usecases.rack_of import rack_for
from oblatus.usecases.rechecks import next_due
from oblatus.usecases.strikes_of import strikes_of, whole_document
from oblatus.usecases.view import Asked, FittingView, view_of

MOST_IN_A_FILE = 5000


class Listed(NamedTuple):
    """A fitting in the list; when a proposal was kept last, and its clubs; what is due first, and
    whether another follows it."""

    fitting: FittingRow
    kept_at: datetime | None
    kept_clubs: list[str]
    due: tuple[date, str, bool] | None
    followed: bool


def list_fittings(database: Database, actor: Actor) -> Sequence[Listed]:
    """Every fitting of the studio, last changed first."""
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        kept, handed = rows.last_kept(), StudioHandovers(session, actor.studio_id).every()
        fittings = rows.fittings()
        followed = {row.follows for row in fittings}
        gauged = StudioReadings(session, actor.studio_id).last_gauged()
        out = []
        for row in fittings:
            kept_at, clubs = kept.get(row.id, (None, []))
            due = _due(row, handed.get(row.id, []), gauged.get(row.id), row.id in followed)
            out.append(Listed(row, kept_at, clubs, due, row.id in followed))
        return out


def _due(
    row: FittingRow, handovers: Sequence[HandoverRow], gauged: datetime | None, followed: bool
) -> tuple[date, str, bool] | None:
    """What is due first; nothing for a fitting that another followed."""
    if followed:
        return None
    read_on = None if gauged is None else day_of(gauged)
    return next_due(FittingDocument.model_validate(row.document), row, handovers, read_on)


def open_fitting(database: Database, actor: Actor, fitting_id: UUID) -> FittingView:
    """One fitting with its whole proposal.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    return of_the_newest(fitting_id, lambda: _opened(database, actor, fitting_id, Asked.WHOLE))


def open_at_once(database: Database, actor: Actor, fitting_id: UUID) -> FittingView:
    """One fitting with what of its proposal needs no long wait; raises as `open_fitting`."""
    return _opened(database, actor, fitting_id, Asked.AT_ONCE)


def _opened(database: Database, actor: Actor, fitting_id: UUID, asked: Asked) -> FittingView:
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        row, rack, kept = rows.fitting(fitting_id), rack_for(rows, fitting_id), rows.kept(fitting_id, 1)
        strikes, stands = strikes_of(rows, fitting_id), rows.stands(fitting_id)
    return view_of(row, rack, kept, strikes, stands, asked=asked)


def export_fitting(database: Database, actor: Actor, fitting_id: UUID) -> FittingDocument:
    """Everything of a fitting: document, strikes, the rack it was judged on, kept proposals, readings, photos, proofs,
    builds, hand-overs and the log.

    Another studio that reads it gets the same proposal, and nothing is missing when it was removed here.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows, readings = StudioRows(session, actor.studio_id), StudioReadings(session, actor.studio_id)
        row = rows.fitting(fitting_id)
        document = FittingDocument.model_validate(row.document)
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
            log=tuple(shot_of_row(row) for row in StudioRounds(session, actor.studio_id).shots(fitting_id)),
            begun_at=row.created_at,
            handovers=tuple(handover_documents(StudioHandovers(session, actor.studio_id), fitting_id)),
        )
    return whole_document(document, rack, strikes).model_copy(update={"attached": attached})


def _kept(row: SnapshotRow) -> KeptDocument:
    values = {name: getattr(row, name) for name in KeptDocument.model_fields}
    return KeptDocument.model_validate({**values, "created_at": row.created_at.isoformat()})


def _reading(row: ReadingRow) -> ReadingDocument:
    values = {name: getattr(row, name) for name in ReadingDocument.model_fields}
    return ReadingDocument.model_validate({**values, "taken_at": row.taken_at.isoformat()})
