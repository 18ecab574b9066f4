"""Days that are ahead of a player, and as iCalendar (RFC 5545)."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, date, datetime, time, timedelta
from uuid import UUID

from icalendar import Calendar, Event

from oblatus.core.after.due import Due, due_from
from oblatus.core.after.wear import Use
from oblatus.formats.page import DateOut


def dates_ahead(today: date, make: str, use: Use) -> list[DateOut]:
    """What is ahead from a day on, soonest first."""
    return dates_of(due_from(today, make, use))


def dates_of(due: Sequence[Due]) -> list[DateOut]:
    """What is due, as days of a page."""
    return [DateOut(kind=one.key, on=one.on, words=one.words) for one in due]


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
