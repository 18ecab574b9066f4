"""Days where people are: a moment is in another day in the evening of one place than in the morning of another."""

from __future__ import annotations

from contextvars import ContextVar
from datetime import date, datetime, timedelta, tzinfo
from functools import lru_cache
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from oblatus.store.tables import now

HERE: ContextVar[tzinfo | None] = ContextVar("HERE", default=None)
"""The time zone of whoever asks; None: of this machine, which stands in the studio."""
LONGEST_NAME = 64


@lru_cache(maxsize=64)
def zone_named(name: str) -> tzinfo | None:
    """The time zone with a name such as Europe/London; None if there is none."""
    if len(name) > LONGEST_NAME:
        return None
    try:
        return ZoneInfo(name)
    except (ZoneInfoNotFoundError, ValueError, OSError):  # no such file, a folder of them, a path out of them
        return None


def day_of(moment: datetime) -> date:
    """The day in which a moment is for whoever asks."""
    return moment.astimezone(HERE.get()).date()


def today() -> date:
    """The day that it is for whoever asks."""
    return day_of(now())


def latest_day() -> date:
    """The last day that it may be anywhere by now: what was noted far in the east may be of the day after Greenwich's."""
    return now().date() + timedelta(days=1)
