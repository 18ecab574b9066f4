"""What the session's strikes say of the player, and the strikes themselves as a file."""

from __future__ import annotations

from uuid import UUID

from oblatus.core.fitting.carries_of import bag_rows
from oblatus.core.fitting.session_of import session_of
from oblatus.devices.recording import Recorded, dump_recording
from oblatus.formats.convert import fitting_from
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.session import SessionSummaryOut, session_out
from oblatus.formats.strike_table import strike_table
from oblatus.formats.strikes import MEASURED, MOST_SHOWN, StrikeDocument
from oblatus.formats.strikes_csv import strikes_csv
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.usecases.actor import Actor
from oblatus.usecases.rack_of import rack_for
from oblatus.usecases.show_carries import inputs_of

LONGEST_PLAYED = 60.0


def export_strikes(database: Database, actor: Actor, fitting_id: UUID) -> tuple[str, str]:
    """The player's name, and every strike of a fitting as CSV; raises as `show_session`."""
    inputs = inputs_of(database, actor, fitting_id)
    fitting = inputs.fitting()
    clubs = {row.code: row.name for row in bag_rows(fitting)}
    clubs |= fitting.former
    return inputs.document.player.name, strikes_csv(
        inputs.strikes, clubs, {swing.key: swing.name for swing in fitting.swings}
    )


def record_session(database: Database, actor: Actor, fitting_id: UUID) -> tuple[str, str]:
    """The player's name, and the strikes that a device sent with the pauses between them, for the stand-in to play.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        player = rows.fitting(fitting_id).player_name
        strikes = rows.device_strikes(fitting_id)
    recorded = []
    for before, strike in zip([None, *strikes], strikes, strict=False):
        pause = 0.0 if before is None else (strike["taken_at"] - before["taken_at"]).total_seconds()
        figures = {name: strike[name] for name in MEASURED if strike[name] is not None}
        # a clock that was set back in between, or a break for lunch, is no pause to be played
        recorded.append(Recorded(min(max(pause, 0.0), LONGEST_PLAYED), figures))
    return player, dump_recording(recorded)


def show_session(database: Database, actor: Actor, fitting_id: UUID) -> SessionSummaryOut:
    """Summary, drift and faults of a fitting's strikes.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        document = FittingDocument.model_validate(rows.fitting(fitting_id).document)
        rack = rack_for(rows, fitting_id)
        newest = [StrikeDocument.of_row(row) for row in rows.newest_strikes(fitting_id, MOST_SHOWN)]
        # after the list: a strike that comes between counts, and is listed at the next question
        columns = rows.strike_columns(fitting_id)
    fitting = fitting_from(document, rack, ())
    found = session_of(
        fitting, strike_table(columns.ids, columns.swings, columns.aside, columns.clubs, columns.figures, document.bag)
    )
    return session_out(*found, fitting.swings, newest, columns.total, columns.simulated)
