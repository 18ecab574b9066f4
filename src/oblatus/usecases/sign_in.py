"""Sign a fitter in."""

from __future__ import annotations

from uuid import UUID

from oblatus.errors import NotFoundError, SignInError
from oblatus.settings import Settings
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows, fitter_by_email
from oblatus.store.tables import Fitter, Studio
from oblatus.usecases.passwords import password_fits


def sign_in(database: Database, settings: Settings, email: str, password: str) -> Fitter:
    """The fitter with this address and password.

    Raises
    ------
    SignInError
        If either is wrong; which one is not said.
    """
    with database.transaction() as session:
        fitter = fitter_by_email(session, email)
    if not password_fits(password, fitter.password_hash if fitter else None, settings) or fitter is None:
        raise SignInError("The address or the password is wrong.")
    return fitter


def who_is(database: Database, studio_id: UUID, fitter_id: UUID) -> tuple[Fitter, Studio] | None:
    """The fitter of a session and their studio, or None if they are gone."""
    with database.transaction() as session:
        rows = StudioRows(session, studio_id)
        try:
            return rows.fitter(fitter_id), rows.studio()
        except NotFoundError:
            return None
