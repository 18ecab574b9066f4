"""Sign a fitter in and out. Sessions live on the server: the browser holds a key that opens one until it is ended."""

from __future__ import annotations

import hashlib
import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta
from uuid import UUID

from oblatus.errors import SignInError, fault
from oblatus.settings import Settings
from oblatus.store.accounts import end_sessions, session_of, sessions_of
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows, fitter_by_email
from oblatus.store.tables import Fitter, SessionRow, Studio, now
from oblatus.usecases.actor import Actor
from oblatus.usecases.passwords import check_new_password, hash_password, password_fits
from oblatus.usecases.throttle import Caller, one_try

IDLE = timedelta(days=14)
SEEN_EVERY = timedelta(minutes=1)


@dataclass(frozen=True, slots=True)
class Entered:
    """An open session with its fitter and studio."""

    session_id: UUID
    fitter: Fitter
    studio: Studio

    @property
    def actor(self) -> Actor:
        """Who acts."""
        return Actor(self.fitter.id, self.fitter.studio_id, self.fitter.name)


def sign_in(database: Database, settings: Settings, email: str, password: str, caller: Caller) -> tuple[str, Entered]:
    """Open a session for the fitter with this address and password. Returns the browser's key with it.

    Raises
    ------
    SignInError
        If either is wrong (which one is not said), or the published demo password comes from another machine.
    TooManyError
        If too many tries failed.
    """
    with one_try(database, settings, email, caller):
        with database.transaction() as session:
            fitter = fitter_by_email(session, email)
        if not password_fits(password, fitter.password_hash if fitter else None, settings) or fitter is None:
            raise SignInError("The address or the password is wrong.")
    if fitter.demo and not caller.local:
        raise SignInError("The demo sign-in works on the machine that serves only. Set a password there first.")
    key = secrets.token_urlsafe(32)
    with database.transaction() as session:
        studio = StudioRows(session, fitter.studio_id).studio()
        row = SessionRow(
            digest=_digest(key), studio_id=fitter.studio_id, fitter_id=fitter.id, browser=caller.browser[:120],
            address=caller.address[:64],
        )  # fmt: skip
        session.add(row)
        session.flush()
        return key, Entered(row.id, fitter, studio)


def who_is(database: Database, key: str) -> Entered | None:
    """The open session of a browser's key, or None."""
    moment = now()
    with database.transaction() as session:
        found = session_of(session, _digest(key), moment - IDLE)
        if found is None:
            return None
        row, fitter, studio = found
        if row.seen_at < moment - SEEN_EVERY:
            row.seen_at = moment
            session.add(row)
        return Entered(row.id, fitter, studio)


def list_sessions(database: Database, actor: Actor) -> Sequence[SessionRow]:
    """The fitter's open sessions, last seen first."""
    with database.transaction() as session:
        return sessions_of(session, actor.fitter_id, now() - IDLE)


def end_session(database: Database, actor: Actor, session_id: UUID) -> int:
    """End one session of the fitter's. Returns whether it was open, as 0 or 1."""
    with database.transaction() as session:
        return end_sessions(session, actor.fitter_id, only=session_id)


def end_others(database: Database, actor: Actor, session_id: UUID) -> int:
    """End the fitter's sessions but this one. Returns how many there were."""
    with database.transaction() as session:
        return end_sessions(session, actor.fitter_id, but=session_id)


def change_password(database: Database, settings: Settings, entered: Entered, old: str, new: str, caller: Caller) -> None:
    """Set another password and end every other session.

    Raises
    ------
    InputError
        If the old one is wrong, or the new one will not do.
    TooManyError
        If too many tries failed.
    """
    check_new_password(new)
    with one_try(database, settings, entered.fitter.email, caller):
        if not password_fits(old, entered.fitter.password_hash, settings):
            raise fault("old", "is not the present password")
    with database.transaction() as session:
        fitter = StudioRows(session, entered.fitter.studio_id).fitter(entered.fitter.id)
        fitter.password_hash, fitter.demo = hash_password(new, settings), False
        session.add(fitter)
        end_sessions(session, fitter.id, but=entered.session_id)


def _digest(key: str) -> str:
    return hashlib.sha256(key.encode("utf-8", "surrogatepass")).hexdigest()
