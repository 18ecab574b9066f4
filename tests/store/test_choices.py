"""What was chosen at a device, and when."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest

from oblatus.store import choices
from oblatus.store.choices import Choice, chosen_at, note_choice, note_loft, rename_choices
from oblatus.store.tables import LinkRow

START = datetime(2026, 11, 28, 9, 0, tzinfo=UTC)


@pytest.fixture
def clock(monkeypatch):
    """The seconds after the start that it is."""
    seconds = [0.0]
    monkeypatch.setattr(choices, "now", lambda: START + timedelta(seconds=seconds[0]))
    return seconds


def choose(row: LinkRow, clock: list[float], second: float, club: str, swing: str = "pitch") -> None:
    clock[0], row.club, row.swing = second, club, swing
    note_choice(row)


def at(row: LinkRow, second: float) -> str:
    return chosen_at(row, START.timestamp() + second).club


def test_a_moment_belongs_to_the_last_choice_before_it(clock):
    row = LinkRow(fitting_id=uuid4(), studio_id=uuid4())
    assert chosen_at(row, START.timestamp()) == Choice("pw", "pitch", "")
    choose(row, clock, 10, "own:0")
    choose(row, clock, 20, "own:0")  # chosen again: nothing new
    choose(row, clock, 30, "own:1", "sand")
    assert len(row.choices) == 2
    assert [at(row, second) for second in (5, 10, 29.9, 30, 500)] == ["own:0", "own:0", "own:0", "own:1", "own:1"]
    assert chosen_at(row, None) == Choice("own:1", "sand", "")


def test_choices_go_with_their_clubs_to_other_codes(clock):
    """Built: the first wedge is no longer in the bag, the second is now the first."""
    row = LinkRow(fitting_id=uuid4(), studio_id=uuid4())
    choose(row, clock, 0, "own:0")
    choose(row, clock, 10, "own:1")
    clock[0], row.club = 20, "own:0"
    rename_choices(row, {"own:0": "was:1", "own:1": "own:0"})
    assert [at(row, second) for second in (1, 11, 21)] == ["was:1", "own:0", "own:0"]


def test_a_choice_keeps_the_loft_that_the_device_was_told(clock):
    row = LinkRow(fitting_id=uuid4(), studio_id=uuid4())
    choose(row, clock, 0, "own:0")
    note_loft(row, 50.8)
    choose(row, clock, 5, "own:0")  # armed anew: nothing new
    choose(row, clock, 10, "own:1")
    lofts = [chosen_at(row, START.timestamp() + second).loft_deg for second in (1, 11)]
    assert (lofts, len(row.choices)) == ([50.8, None], 2)
    clock[0] = 20
    note_loft(row, 54.6)
    clock[0] = 30
    note_loft(row, 56.0)  # bent, and the device told anew
    assert [chosen_at(row, START.timestamp() + second).loft_deg for second in (1, 11, 31)] == [50.8, 54.6, 56.0]


def test_only_so_many_are_kept(clock):
    row = LinkRow(fitting_id=uuid4(), studio_id=uuid4())
    for second in range(choices.KEPT + 5):
        choose(row, clock, second, f"own:{second % 3}")
    assert len(row.choices) == choices.KEPT
    assert at(row, 0) == f"own:{5 % 3}"
