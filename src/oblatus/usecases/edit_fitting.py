"""Edit parts of a fitting, or remove it."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from pydantic import ValidationError

from oblatus.formats.fields import faults_of
from oblatus.formats.fitting import FittingDocument
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.usecases.actor import Actor
from oblatus.usecases.rack_of import rack_of
from oblatus.usecases.strikes_of import strikes_of
from oblatus.usecases.view import FittingView, view_of


def edit_fitting(
    database: Database, actor: Actor, fitting_id: UUID, revision: int, changes: dict[str, Any]
) -> FittingView:
    """Put new sections (player, grounds, bag, choices, measuring, rack) in place of the old ones, all or none.

    Raises
    ------
    InputError
        If the document with the changes is not valid; nothing is saved.
    ConflictError
        If the fitting has moved on from `revision`.
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        row = rows.fitting(fitting_id, lock=True)
        try:
            document = FittingDocument.model_validate({**row.document, **changes})
        except ValidationError as error:
            raise faults_of(error) from error
        rows.change_fitting(row, document.player.name, document.model_dump(mode="json"), revision)
        rack, kept, strikes = rack_of(rows), rows.kept(fitting_id, 1), strikes_of(rows, fitting_id)
    return view_of(row, rack, kept, strikes)


def remove_fitting(database: Database, actor: Actor, fitting_id: UUID) -> None:
    """Remove a fitting with everything kept of it.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).remove_fitting(fitting_id)
