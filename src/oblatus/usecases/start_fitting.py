"""Start a fitting: for a new player, or from a document."""

from __future__ import annotations

from oblatus.formats.fitting import FittingDocument, GroundDocument, PlayerDocument
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import FittingRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.rack_of import rack_of
from oblatus.usecases.view import FittingView, view_of


def start_fitting(database: Database, actor: Actor, player: PlayerDocument) -> FittingView:
    """A new fitting with usual values, all marked as assumed."""
    home = GroundDocument(name="home", share=1.0)
    return import_fitting(database, actor, FittingDocument(player=player, grounds=(home,)))


def import_fitting(database: Database, actor: Actor, document: FittingDocument) -> FittingView:
    """A new fitting from a document; a rack that it brings stays with it, photos stay where they are."""
    wedges = tuple(wedge.model_copy(update={"photos": ()}) for wedge in document.bag.wedges)
    document = document.model_copy(update={"bag": document.bag.model_copy(update={"wedges": wedges})})
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        row = add_document(rows, document)
        rack = rack_of(rows)
    return view_of(row, rack, [], document.strikes)


def add_document(rows: StudioRows, document: FittingDocument) -> FittingRow:
    """A new row for a document, and its strikes as rows of their own."""
    kept = document.model_copy(update={"strikes": ()}).model_dump(mode="json")
    row = rows.add_fitting(document.player.name, kept)
    rows.add_strikes(row.id, [strike.model_dump() for strike in document.strikes])
    return row
