"""Read the studio's rack, or put another in its place."""

from __future__ import annotations

from collections.abc import Sequence

from oblatus.formats.fitting import FittingDocument, RackHeadDocument
from oblatus.formats.rack import read_rack
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.usecases.actor import Actor
from oblatus.usecases.propose import make_ahead
from oblatus.usecases.rack_of import rack_of
from oblatus.usecases.strikes_of import measured, strikes_of


def studio_rack(database: Database, actor: Actor) -> Sequence[RackHeadDocument]:
    """The rack in its order."""
    with database.transaction() as session:
        return rack_of(StudioRows(session, actor.studio_id))


def replace_rack(database: Database, actor: Actor, csv_text: str) -> Sequence[RackHeadDocument]:
    """Put the rack of a CSV file in place of the studio's, whole or not at all.

    Raises
    ------
    InputError
        With the line and column of every wrong cell.
    """
    heads = read_rack(csv_text)
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        rows.replace_rack([head.model_dump() for head in heads])
        latest = next(iter(rows.fittings()), None)
        strikes = measured(strikes_of(rows, latest.id)) if latest is not None else ()
    if latest is not None:  # the fitter comes back to what was worked on last
        make_ahead(FittingDocument.model_validate(latest.document), heads, strikes)
    return heads
