"""The bag card: rows in their order, the choice of the finder at every line, and rules that follow from the player."""

from __future__ import annotations

import pytest

from oblatus.core.card.bag import bag_card, card_rows
from oblatus.core.fitting.carries_of import ClubRow, view_carries
from oblatus.core.gapping.conditions import Conditions
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_fittings, demo_rack


@pytest.fixture(scope="module")
def card():
    fitting = fitting_from(demo_fittings()[0], demo_rack())
    rows = card_rows(fitting, [ClubRow("a", "gap", 50.0), ClubRow("b", "sand", 55.0), ClubRow("c", "lob", 60.0)])
    return fitting, rows, bag_card(fitting, rows, 5.0)


def test_rows_fall_and_hold_eight_of_ten(card):
    _, rows, found = card
    carries = [row.carry for row in found.rows]
    assert carries == sorted(carries, reverse=True)
    assert len(found.rows) == len(rows) * 3
    assert all(row.low < row.carry < row.high for row in found.rows)
    assert 0 <= found.measured <= len(found.rows)


def test_every_line_is_what_the_finder_finds(card):
    fitting, rows, found = card
    for line in found.distances:
        first = view_carries(fitting, rows, Conditions(air=fitting.air), line.distance).found[0].shot.estimate.cell
        row = found.rows[line.still]
        assert (row.club.code, row.swing) == (first.club, first.swing)
    assert all(
        b.distance - a.distance == pytest.approx(5.0) for a, b in zip(found.distances, found.distances[1:], strict=False)
    )


def test_wind_takes_more_club_and_the_rule_says_how_much(card):
    *_, found = card
    assert sum(line.into <= line.still for line in found.distances) > 0.7 * len(found.distances)
    assert len(found.rules) == 2
    assert "into the wind" in found.rules[0]
