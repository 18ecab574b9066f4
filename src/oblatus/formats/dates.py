"""Days that are ahead of a player, and as iCalendar (RFC 5545)."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, date, datetime, time, timedelta
from uuid import UUID

from dateutil.relativedelta import relativedelta
from icalendar import Calendar, Event

from oblatus.formats.page import DateOut

LOFTS_MONTHS = {"forged": 6, "cast": 12}
"""Lofts are read again after so many months: soft heads drift (domain practice: 6 to 12)."""
GROOVES_MONTHS, VISIT_MONTHS = 12, 12
WINTER, SUMMER = (11, 1), (4, 1)
"""First days of the winter and the summer set-up (judgement)."""


def dates_ahead(today: date, make: str) -> list[DateOut]:
    """What is ahead from a day on, soonest first."""
    lofts = today + relativedelta(months=LOFTS_MONTHS[make])
    found = [
        DateOut(kind="lofts", on=lofts, words="Have the lofts read: heads drift"),
        DateOut(kind="grooves", on=today + relativedelta(months=GROOVES_MONTHS), words="Have the grooves looked at"),
        DateOut(kind="winter", on=_next(today, WINTER), words="Winter set-up: ask before the ground gets soft"),
        DateOut(kind="summer", on=_next(today, SUMMER), words="Summer set-up: ask before the ground gets firm"),
        DateOut(kind="visit", on=today + relativedelta(months=VISIT_MONTHS), words="The next visit to the studio"),
    ]
    return sorted(found, key=lambda one: one.on)


def _next(today: date, day: tuple[int, int]) -> date:
    this = date(today.year, *day)
    return this if this > today else date(today.year + 1, *day)


def as_ics(dates: Sequence[DateOut], studio: str, page_id: UUID, made: datetime) -> bytes:
    """The days as a calendar: all of a day wherever the player is, each under the same id whenever it is asked for."""
    calendar = Calendar()
    calendar.add("prodid", "-//Oblatus//dates//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", f"Wedges, {studio}")
    for one in dates:
        event = Event()
        event.add("uid", f"{page_id}-{one.kind}@oblatus")
        event.add("dtstamp", datetime.combine(made.date(), time(), UTC))
        event.add("dtstart", one.on)
        event.add("dtend", one.on + timedelta(days=1))
        event.add("summary", one.words)
        event.add("description", f"From {studio}.")
        event.add("transp", "TRANSPARENT")
        calendar.add_component(event)
    text: bytes = calendar.to_ical()
    return text
