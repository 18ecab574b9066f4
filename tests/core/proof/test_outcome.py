"""What one ball is worth: from paces, from its carry, or from the outcome alone."""

from __future__ import annotations

import pytest

from oblatus.core.proof.outcome import OUTCOMES, Seen, ball_strokes
from oblatus.core.strokes import Layout
from oblatus.core.strokes.table import TOUR_TABLE

CHIP = Layout(20.0, 6.0, 8.0, "rough", "rough")
BUNKER = Layout(15.0, 5.0, 7.0, "sand", "sand")


def strokes(seen: Seen, layout: Layout = CHIP, run: float = 4.0) -> float:
    return ball_strokes(seen, layout, run, 11.0).strokes


def test_paces_on_the_green_are_the_table():
    assert strokes(Seen("good", to_hole=3.0)) == pytest.approx(1.0 + float(TOUR_TABLE.strokes("green", 3.0, 11.0)))


def test_farther_from_the_hole_is_never_better():
    found = [strokes(Seen("good", to_hole=metres)) for metres in (0.3, 1, 2, 4, 6, 9, 14)]
    assert found == sorted(found)


@pytest.mark.parametrize("layout", [CHIP, BUNKER])
def test_every_outcome_alone_is_a_number_and_good_is_the_best(layout):
    usual = {o: strokes(Seen(o), layout) for o in OUTCOMES if o != "left_in" or layout is BUNKER}
    assert min(usual, key=usual.__getitem__) == "good"
    assert all(2.0 < value < 5.5 for value in usual.values())


def test_left_in_the_sand_costs_a_stroke_and_the_shot_again():
    again = ball_strokes(Seen("left_in"), BUNKER, 0.0, 11.0)
    assert (again.lie, again.distance, again.source) == ("sand", 15.0, "assumed")
    assert again.strokes > strokes(Seen("thin"), BUNKER)


def test_carry_counts_with_this_club_s_run():
    near = ball_strokes(Seen(None, carry=17.0), CHIP, 3.0, 11.0)
    assert (near.lie, near.distance, near.source) == ("green", 0.0, "carry")
    assert ball_strokes(Seen(None, carry=9.0), CHIP, 3.0, 11.0).lie == "rough"


def test_nothing_seen_is_no_ball():
    with pytest.raises(ValueError, match="nothing was seen"):
        strokes(Seen(None))
