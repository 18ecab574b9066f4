"""Days where people are: nobody tells the server in which time zone that is."""

from __future__ import annotations

from datetime import date, timedelta

from oblatus.store.tables import now


def latest_day() -> date:
    """The last day that it may be anywhere by now: who lives east of Greenwich may be in the day after the server's."""
    return now().date() + timedelta(days=1)
