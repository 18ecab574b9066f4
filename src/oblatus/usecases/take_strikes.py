"""Take strikes, set them aside with a reason, take that back, and undo."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from uuid import UUID

from pydantic import ValidationError

from oblatus.core.gapping.strikes import SHORT_STATIONS
from oblatus.errors import fault
from oblatus.formats.bag_codes import as_told, codes_today
from oblatus.formats.convert import swings_from
from oblatus.formats.fields import faults_of
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.limits import NOTE_LETTERS
from oblatus.formats.strikes import StrikeDocument
from oblatus.store.database import Database
from oblatus.store.repositories import STRIKE_COLUMNS, Json, StudioRows
from oblatus.store.tables import now
from oblatus.usecases.actor import Actor
from oblatus.usecases.days import today

MOST_STRIKES = 120_000
MOST_LISTED = 200


def take_strikes(
    database: Database,
    actor: Actor,
    fitting_id: UUID,
    strikes: Sequence[StrikeDocument],
    told: Sequence[Json] | None = None,
) -> int:
    """Add strikes, all or none; those that stand there already are left as they are. Returns how many were new.

    `told` are the wedges of the bag on the screen that took them: a strike goes to its wedge, also where that stands in
    another place by now or is in the bag no longer. None: the clubs are told as the bag is.

    Raises
    ------
    InputError
        If a strike names a swing that the fitting does not have, or there would be too many.
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        row = rows.fitting(fitting_id, lock=True)
        document = FittingDocument.model_validate(row.document)
        known = {swing.key for swing in swings_from(document)} | {*SHORT_STATIONS}
        for i, strike in enumerate(strikes):
            if strike.swing not in known:
                raise fault(f"strikes.{i}.swing", f"must be one of {', '.join(sorted(known))}", strike.swing)
        if rows.strike_count(fitting_id) + len(strikes) > MOST_STRIKES:
            raise fault("strikes", f"a fitting holds at most {MOST_STRIKES} strikes")
        codes: Mapping[str, str] = {}
        if told is not None:
            used = {strike.club for strike in strikes}
            bag, codes = codes_today(as_told(told, document.bag), document.bag, used, today())
            if bag is not document.bag:
                changed = document.model_copy(update={"bag": bag}).model_dump(mode="json")
                rows.change_fitting(row, row.player_name, changed, row.revision)
        taken = [strike.model_dump() for strike in strikes]
        return rows.add_strikes(fitting_id, [{**one, "club": codes.get(one["club"], one["club"])} for one in taken])


def tell_of_strike(
    database: Database,
    actor: Actor,
    fitting_id: UUID,
    strike_id: UUID,
    changes: Mapping[str, object],
    note_was: str | None = None,
) -> None:
    """Say more of a strike: why it does not count (None when it does), note, divot, mark on the sole, exit from sand.

    `note_was` is the note in whose place another was written: what somebody else has noted since stays, before it.

    Raises
    ------
    InputError
        If what it comes to is no strike, or two notes have no room together.
    NotFoundError
        If the studio has no such strike.
    """
    with database.transaction() as session:
        row = StudioRows(session, actor.studio_id).strike(fitting_id, strike_id, lock=True)
        told = dict(changes)
        if note_was is not None and "note" in told:
            told["note"] = _both_notes(row.note, note_was, str(told["note"]))
        try:
            StrikeDocument.model_validate({name: getattr(row, name) for name in STRIKE_COLUMNS} | told)
        except ValidationError as error:
            raise faults_of(error) from error
        for name, value in told.items():
            setattr(row, name, value)
        session.add(row)


def _both_notes(here: str, was: str, written: str) -> str:
    """The note that was written in the place of `was`, after what has come there since; it may have come already."""
    if here in ("", was):
        return written
    if written in here:
        return here
    both = f"{here}; {written}"
    if len(both) > NOTE_LETTERS:
        raise fault("note", f"is, with “{here}” that somebody noted meanwhile, longer than {NOTE_LETTERS} characters")
    return both


def take_strike_out(database: Database, actor: Actor, fitting_id: UUID, strike_id: UUID, *, out: bool) -> None:
    """Take out a strike that was taken by mistake, or put it back in its old place until the bin is emptied.

    Raises
    ------
    NotFoundError
        If the studio has no such strike.
    """
    with database.transaction() as session:
        row = StudioRows(session, actor.studio_id).strike(fitting_id, strike_id)
        row.removed_at = (row.removed_at or now()) if out else None
        session.add(row)


def taken_out(database: Database, actor: Actor, fitting_id: UUID) -> Sequence[StrikeDocument]:
    """The strikes that were taken out last, the last one first; raises `NotFoundError` if there is no such fitting."""
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        rows.fitting(fitting_id)
        return [StrikeDocument.of_row(row) for row in rows.strikes_taken_out(fitting_id, MOST_LISTED)]
