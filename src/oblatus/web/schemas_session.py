"""What a session sends and is answered."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated
from uuid import UUID

from pydantic import StringConstraints

from oblatus.formats.fields import Strict
from oblatus.units import DistanceUnit, SpeedUnit


class UnitsIO(Strict):
    """Units for distances and head speed."""

    distance: DistanceUnit
    speed: SpeedUnit


class SignInIn(Strict):
    """Address and password."""

    email: Annotated[str, StringConstraints(min_length=1, max_length=254)]
    password: Annotated[str, StringConstraints(min_length=1, max_length=200)]


class SessionOut(Strict):
    """Who is signed in (null when nobody is) and the token that every change must carry."""

    csrf_token: str
    fitter: str | None = None
    fitter_id: UUID | None = None
    email: str | None = None
    demo: bool = False
    studio: str | None = None
    units: UnitsIO | None = None


class PasswordIn(Strict):
    """The present password and the one to come."""

    old: Annotated[str, StringConstraints(min_length=1, max_length=200)]
    new: Annotated[str, StringConstraints(min_length=1, max_length=200)]


class SessionPath(Strict):
    """A session's id."""

    session_id: UUID


class SessionLine(Strict):
    """Where a fitter is signed in."""

    id: UUID
    browser: str
    address: str
    created_at: datetime
    seen_at: datetime
    this: bool


class SessionList(Strict):
    """A fitter's open sessions, last seen first."""

    sessions: list[SessionLine]


class EndedOut(Strict):
    """How many sessions ended."""

    ended: int
