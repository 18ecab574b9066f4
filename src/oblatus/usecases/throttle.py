"""Failed sign-ins are counted in the database, for all workers alike, by account and by address.

A browser that signed in to an account before is known to it and counts for itself: whoever tries passwords elsewhere,
even from the same address, does not lock it out.
"""

from __future__ import annotations

import hashlib
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import text
from sqlmodel import Session, col, delete

from oblatus.errors import TooManyError
from oblatus.settings import Settings
from oblatus.store.accounts import tries
from oblatus.store.database import Database
from oblatus.store.tables import SignInTry, now

WINDOW = timedelta(minutes=10)
ACCOUNT_WINDOW = timedelta(hours=1)
MORE_AT_AN_ADDRESS = 8
MORE_FOR_AN_ACCOUNT = 12


@dataclass(frozen=True, slots=True)
class Caller:
    """Who tries: the address, the browser in its own words, its key if it is known to the account, and whether it is this
    machine."""

    address: str
    browser: str = ""
    known_as: str | None = None
    local: bool = False


def account_digest(email: str) -> str:
    """An account as it stands in the list of tries: the address itself is not written down for strangers."""
    return hashlib.sha256(email.strip().lower().encode("utf-8", "surrogatepass")).hexdigest()


@contextmanager
def one_try(database: Database, settings: Settings, email: str, caller: Caller) -> Iterator[None]:
    """Count one try; it is forgotten again when the block ends without an error.

    The try is written down before the password is looked at, so that many at once are counted too.

    Raises
    ------
    TooManyError
        With the seconds after which another is allowed.
    """
    account = account_digest(email)
    with database.transaction() as session:
        session.execute(text("select pg_advisory_xact_lock(hashtext(:key))"), {"key": account})
        wait = _wait(session, settings, account, caller)
        if wait is not None:
            words = "Too many tries for this account from here" if caller.known_as else "Too many tries"
            raise TooManyError(f"{words}. Wait {_minutes(wait)}, then try again.", wait)
        row = SignInTry(account=account, address=caller.address[:64], browser=caller.known_as)
        session.add(row)
        session.flush()
        mine = row.id
    yield
    with database.transaction() as session:
        session.exec(delete(SignInTry).where(col(SignInTry.id) == mine))


def _wait(session: Session, settings: Settings, account: str, caller: Caller) -> int | None:
    """Seconds until the caller may try again; None for at once."""
    moment, most = now(), settings.sign_in_tries
    since, long_since = moment - WINDOW, moment - ACCOUNT_WINDOW
    if caller.known_as is not None:
        counted = [(tries(session, since, account=account, browser=caller.known_as), most, WINDOW)]
    else:
        counted = [
            (tries(session, since, account=account, address=caller.address), most, WINDOW),
            (tries(session, since, address=caller.address), most * MORE_AT_AN_ADDRESS, WINDOW),
            (tries(session, long_since, account=account), most * MORE_FOR_AN_ACCOUNT, ACCOUNT_WINDOW),
        ]
    waits = [_seconds(oldest, window, moment) for (count, oldest), limit, window in counted if count >= limit]
    return max(waits, default=None)


def _seconds(oldest: datetime | None, window: timedelta, moment: datetime) -> int:
    return max(1, round(((oldest or moment) + window - moment).total_seconds()))


def _minutes(seconds: int) -> str:
    return f"{seconds} seconds" if seconds < 90 else f"{round(seconds / 60)} minutes"
