"""What the session's strikes say of the player, and the strikes themselves as a file."""

from __future__ import annotations

from uuid import UUID

from oblatus.core.fitting.carries_of import bag_rows
from oblatus.formats.session import SessionSummaryOut, session_out
from oblatus.formats.strikes_csv import strikes_csv
from oblatus.store.database import Database
from oblatus.usecases.actor import Actor
from oblatus.usecases.show_carries import inputs_of


def export_strikes(database: Database, actor: Actor, fitting_id: UUID) -> str:
    """Every strike of a fitting as CSV; raises as `show_session`."""
    inputs = inputs_of(database, actor, fitting_id)
    fitting = inputs.fitting()
    clubs = {row.code: row.name for row in bag_rows(fitting)}
    return strikes_csv(inputs.strikes, clubs, {swing.key: swing.name for swing in fitting.swings})


def show_session(database: Database, actor: Actor, fitting_id: UUID) -> SessionSummaryOut:
    """Summary, drift and faults of a fitting's strikes.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    inputs = inputs_of(database, actor, fitting_id)
    return session_out(inputs.fitting(), inputs.strikes)
