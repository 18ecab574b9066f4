"""Open a fitting, or list those of the studio."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from oblatus.formats.fitting import FittingDocument
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import FittingRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.rack_of import rack_of
from oblatus.usecases.strikes_of import strikes_of, whole_document
from oblatus.usecases.view import FittingView, view_of


def list_fittings(database: Database, actor: Actor) -> Sequence[FittingRow]:
    """Every fitting of the studio, last changed first."""
    with database.transaction() as session:
        return StudioRows(session, actor.studio_id).fittings()


def open_fitting(database: Database, actor: Actor, fitting_id: UUID) -> FittingView:
    """One fitting with its proposal.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        row, rack, kept = rows.fitting(fitting_id), rack_of(rows), rows.kept(fitting_id, 1)
        strikes = strikes_of(rows, fitting_id)
    return view_of(row, rack, kept, strikes)


def export_fitting(database: Database, actor: Actor, fitting_id: UUID) -> FittingDocument:
    """The document with its strikes and the rack it was judged on, so that another studio gets the same proposal."""
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        document = FittingDocument.model_validate(rows.fitting(fitting_id).document)
        rack, strikes = rack_of(rows), strikes_of(rows, fitting_id)
    return whole_document(document, rack, strikes)
