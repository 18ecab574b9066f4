"""What the session's strikes say of the player."""

from __future__ import annotations

from uuid import UUID

from oblatus.formats.session import SessionSummaryOut, session_out
from oblatus.store.database import Database
from oblatus.usecases.actor import Actor
from oblatus.usecases.show_carries import inputs_of


def show_session(database: Database, actor: Actor, fitting_id: UUID) -> SessionSummaryOut:
    """Summary, drift and faults of a fitting's strikes.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    inputs = inputs_of(database, actor, fitting_id)
    return session_out(inputs.fitting(), inputs.strikes)
