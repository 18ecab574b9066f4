"""Sign-ins: the server's own sessions, and tries that failed. Asked before a studio is known."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from uuid import UUID

from sqlalchemy import bindparam, func, update
from sqlmodel import Session, col, delete, select

from oblatus.store.tables import Fitter, SessionRow, SignInTry, Studio, now


def session_of(session: Session, digest: str, idle_since: datetime) -> tuple[SessionRow, Fitter, Studio] | None:
    """The open session with this digest that was seen after `idle_since`, its fitter and studio."""
    found = session.execute(_OPEN_SESSION, {"digest": digest, "since": idle_since}).first()
    return None if found is None else (found[0], found[1], found[2])


# asked at every request: made once
_OPEN_SESSION = (
    select(SessionRow, Fitter, Studio)
    .join(Fitter, col(Fitter.id) == col(SessionRow.fitter_id))
    .join(Studio, col(Studio.id) == col(SessionRow.studio_id))
    .where(
        col(SessionRow.digest) == bindparam("digest"),
        col(SessionRow.ended_at).is_(None),
        col(SessionRow.seen_at) >= bindparam("since"),
    )
)


def sessions_of(session: Session, fitter_id: UUID, idle_since: datetime) -> Sequence[SessionRow]:
    """A fitter's open sessions, last seen first."""
    query = (
        select(SessionRow)
        .where(
            SessionRow.fitter_id == fitter_id,
            col(SessionRow.ended_at).is_(None),
            col(SessionRow.seen_at) >= idle_since,
        )
        .order_by(col(SessionRow.seen_at).desc())
    )
    return session.exec(query).all()


def end_sessions(session: Session, fitter_id: UUID, *, only: UUID | None = None, but: UUID | None = None) -> int:
    """End a fitter's open sessions: one, all but one, or all. Returns how many were open."""
    query = (
        update(SessionRow)
        .where(col(SessionRow.fitter_id) == fitter_id, col(SessionRow.ended_at).is_(None))
        .values(ended_at=now())
    )
    if only is not None:
        query = query.where(col(SessionRow.id) == only)
    if but is not None:
        query = query.where(col(SessionRow.id) != but)
    return int(session.exec(query).rowcount)


def forget_sessions(session: Session, before: datetime) -> None:
    """Remove sessions not seen since a moment, and tries older than it."""
    session.exec(delete(SessionRow).where(col(SessionRow.seen_at) < before))
    session.exec(delete(SignInTry).where(col(SignInTry.at) < before))


def tries(
    session: Session,
    since: datetime,
    *,
    account: str | None = None,
    address: str | None = None,
    browser: str | None = None,
) -> tuple[int, datetime | None]:
    """Failed sign-ins since a moment for an account, an address or a known browser: how many, and the oldest.

    Those of known browsers are counted only where the browser is asked for.
    """
    query = select(func.count(), func.min(SignInTry.at)).where(col(SignInTry.at) >= since)
    query = query.where(col(SignInTry.browser).is_(None) if browser is None else col(SignInTry.browser) == browser)
    if account is not None:
        query = query.where(SignInTry.account == account)
    if address is not None:
        query = query.where(SignInTry.address == address)
    count, oldest = session.exec(query).one()
    return int(count), oldest


def every_fitter(session: Session) -> Sequence[tuple[Fitter, Studio]]:
    """Every fitter of every studio, for the shell."""
    query = select(Fitter, Studio).join(Studio, col(Studio.id) == col(Fitter.studio_id)).order_by(Fitter.email)
    return session.exec(query).all()
