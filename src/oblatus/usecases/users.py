"""Fitters, as the person at the machine sees them: add, list, another password, remove."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from email_validator import EmailNotValidError, validate_email

from oblatus.errors import Fault, InputError, NotFoundError, fault
from oblatus.settings import Settings
from oblatus.store.accounts import end_sessions, every_fitter
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows, fitter_by_email, studios
from oblatus.store.tables import Fitter, Studio
from oblatus.usecases.passwords import check_new_password, hash_password


@dataclass(frozen=True, slots=True)
class NewFitter:
    """Name, address and password of a fitter to come."""

    name: str
    email: str
    password: str

    def checked(self) -> NewFitter:
        """The same, once it will do.

        Raises
        ------
        InputError
            If name, address or password will not do.
        """
        name = self.name.strip()
        if not 1 <= len(name) <= 120 or "\0" in name:
            raise fault("name", "must have 1 to 120 characters", name)
        try:
            found = validate_email(self.email.strip(), check_deliverability=False, test_environment=True)
        except EmailNotValidError as error:
            raise InputError([Fault("address", "is no e-mail address", self.email.strip())]) from error
        check_new_password(self.password)
        return NewFitter(name, found.normalized.lower(), self.password)


def no_fitter_yet(database: Database, *, demo: bool = False) -> bool:
    """Whether there is no fitter at all, or with `demo` none with the published password."""
    with database.transaction() as session:
        return not any(fitter.demo or not demo for fitter, _ in every_fitter(session))


def list_users(database: Database) -> Sequence[tuple[Fitter, Studio]]:
    """Every fitter with their studio."""
    with database.transaction() as session:
        return every_fitter(session)


def add_user(database: Database, settings: Settings, new: NewFitter, studio: str | None) -> Fitter:
    """Add a fitter to a studio; without a name to the only one there is.

    Raises
    ------
    InputError
        If the address is taken, or it is not clear which studio is meant.
    """
    new = new.checked()
    with database.transaction() as session:
        if fitter_by_email(session, new.email) is not None:
            raise fault("address", "is taken by another fitter", new.email)
        places = [place for place in studios(session) if studio is None or place.name == studio]
        if studio is not None and not places:
            places = [Studio(name=studio[:120])]
            session.add(places[0])
            session.flush()
        if len(places) != 1:
            raise fault("studio", "must be named: there is none, or more than one", studio or "")
        fitter = Fitter(
            studio_id=places[0].id, email=new.email, name=new.name, password_hash=hash_password(new.password, settings)
        )
        session.add(fitter)
    return fitter


def set_password(database: Database, settings: Settings, email: str, password: str) -> None:
    """Give a fitter another password; every session of theirs ends.

    Raises
    ------
    NotFoundError
        If there is no such fitter.
    InputError
        If the password will not do.
    """
    check_new_password(password)
    with database.transaction() as session:
        fitter = _known(fitter_by_email(session, email), email)
        fitter.password_hash, fitter.demo = hash_password(password, settings), False
        session.add(fitter)
        end_sessions(session, fitter.id)


def remove_user(database: Database, email: str) -> None:
    """Remove a fitter; what they did in the studio stays.

    Raises
    ------
    NotFoundError
        If there is no such fitter.
    InputError
        If it is the studio's only one.
    """
    with database.transaction() as session:
        fitter = _known(fitter_by_email(session, email), email)
        if len(StudioRows(session, fitter.studio_id).fitters()) < 2:
            raise fault("address", "is the studio's only fitter: add another first", email)
        session.delete(fitter)


def _known(fitter: Fitter | None, email: str) -> Fitter:
    if fitter is None:
        raise NotFoundError(f"There is no fitter with the address {email}.")
    return fitter
