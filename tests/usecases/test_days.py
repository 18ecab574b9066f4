"""The day of whoever asks: not the server's, nor Greenwich's."""

from __future__ import annotations

from datetime import UTC, date, datetime

import pytest

from oblatus.usecases import days
from oblatus.usecases.days import HERE, day_of, latest_day, today, zone_named

EVENING = datetime(2026, 12, 1, 20, 30, tzinfo=UTC)
"""In the evening of Greenwich it is the next morning in Auckland, and noon in Los Angeles."""


@pytest.fixture(autouse=True)
def nowhere():
    """What a test says of where it is ends with it."""
    token = HERE.set(None)
    yield
    HERE.reset(token)


@pytest.mark.parametrize(
    ("name", "day"),
    [("Pacific/Auckland", date(2026, 12, 2)), ("Europe/London", date(2026, 12, 1)), ("Etc/GMT+12", date(2026, 12, 1))],
)
def test_a_moment_is_in_the_day_of_whoever_asks(monkeypatch, name, day):
    monkeypatch.setattr(days, "now", lambda: EVENING)
    HERE.set(zone_named(name))
    assert day_of(EVENING) == today() == day
    assert latest_day() == date(2026, 12, 2), "a shot of the far east is taken wherever its phone was read"


@pytest.mark.parametrize(
    "name", ["", "Europe", "../../etc/passwd", "/etc/localtime", "Nowhere/Land", "a\x00b", "x" * 5000]
)
def test_what_is_no_time_zone_is_none(name):
    assert zone_named(name) is None
