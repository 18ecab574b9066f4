"""Read the studio's rack, or put another in its place."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from oblatus.errors import ConflictError
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.imports import LayoutDocument
from oblatus.formats.imports.layout import TableOut, table_out
from oblatus.formats.imports.rack_file import rack_table, read_rack_file
from oblatus.formats.rack import rack_csv
from oblatus.formats.sections.bag import RackHeadDocument
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.usecases.actor import Actor
from oblatus.usecases.propose import make_ahead
from oblatus.usecases.rack_of import rack_of
from oblatus.usecases.strikes_of import measured, strikes_of


@dataclass(frozen=True, slots=True)
class Rack:
    """The studio's rack and the revision it is at."""

    heads: Sequence[RackHeadDocument]
    revision: int


def studio_rack(database: Database, actor: Actor) -> Rack:
    """The rack in its order."""
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        return Rack(rack_of(rows), rows.studio().rack_revision)


def export_rack(database: Database, actor: Actor) -> str:
    """The studio's rack as CSV, which `replace_rack` reads again."""
    return rack_csv(studio_rack(database, actor).heads)


def look_at_rack(content: bytes, layout: LayoutDocument) -> TableOut:
    """How a CSV or XLSX file is read as a rack; raises InputError if it is no table."""
    return table_out(*rack_table(content, layout))


def replace_rack(database: Database, actor: Actor, content: bytes, layout: LayoutDocument, revision: int) -> Rack:
    """Put the rack of a CSV or XLSX file, read by a layout, in place of the studio's, whole or not at all.

    Raises
    ------
    InputError
        With the line and column of every wrong cell.
    ConflictError
        If somebody else replaced it since `revision`.
    """
    heads = read_rack_file(content, layout)
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        studio = rows.studio(lock=True)
        if studio.rack_revision != revision:
            raise ConflictError("Somebody else put another rack in place since this one was shown.", studio.rack_revision)
        rows.replace_rack([head.model_dump() for head in heads])
        studio.rack_revision += 1
        session.add(studio)
        latest = next(iter(rows.fittings()), None)
        strikes = measured(strikes_of(rows, latest.id)) if latest is not None else ()
    if latest is not None:  # the fitter comes back to what was worked on last
        make_ahead(FittingDocument.model_validate(latest.document), heads, strikes)
    return Rack(heads, studio.rack_revision)
