"""The build sheet on paper or as a table: as it stands, or as an order was signed."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from oblatus.core.words import Reader
from oblatus.formats.build import BuildOut
from oblatus.formats.print.build_sheet import build_csv, build_pdf
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.usecases.actor import Actor
from oblatus.usecases.build_orders import sheet_to_print, signed_sheet
from oblatus.usecases.days import today


@dataclass(frozen=True, slots=True)
class Printed:
    """A file, and what it is called."""

    content: bytes | str
    name: str


def print_pdf(database: Database, actor: Actor, fitting_id: UUID, order_id: UUID | None, reader: Reader) -> Printed:
    """The sheet as PDF; raises as `sheet_to_print`."""
    sheet = _sheet(database, actor, fitting_id, order_id)
    player, studio = _whose(database, actor, fitting_id)
    return Printed(build_pdf(sheet, player, studio, today(), reader), f"{player} build sheet")


def print_csv(database: Database, actor: Actor, fitting_id: UUID, order_id: UUID | None) -> Printed:
    """The sheet as CSV; raises as `sheet_to_print`."""
    sheet = _sheet(database, actor, fitting_id, order_id)
    return Printed(build_csv(sheet), f"{_whose(database, actor, fitting_id)[0]} build sheet")


def _sheet(database: Database, actor: Actor, fitting_id: UUID, order_id: UUID | None) -> BuildOut:
    if order_id is None:
        return sheet_to_print(database, actor, fitting_id)
    return signed_sheet(database, actor, fitting_id, order_id)


def _whose(database: Database, actor: Actor, fitting_id: UUID) -> tuple[str, str]:
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        return rows.fitting(fitting_id).player_name, rows.studio().name
