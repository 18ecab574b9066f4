"""Swing weight: the scale, what moves it and by how much, and the weight that a wish asks for."""

from __future__ import annotations

import pytest

from oblatus.core.build.assembly import (
    D0_OZ_IN,
    GRAMS_PER_OUNCE,
    MOST_TIP_G,
    POINT_OZ_IN,
    assemble,
    read_swing_weight,
    solve_weight,
    swing_weight_words,
    unmatched,
)
from oblatus.core.build.parts import GRIPS, SHAFTS
from oblatus.errors import InputError

SHAFT, GRIP = SHAFTS[1], GRIPS[0]


@pytest.mark.parametrize(
    ("words", "points"), [("D0", 0.0), ("D4", 4.0), ("C9", -1.0), ("E0", 10.0), ("D2.5", 2.5), ("A0", -30)]
)
def test_the_scale_goes_out_and_in(words, points):
    assert read_swing_weight(words) == points
    assert swing_weight_words(points) == words


@pytest.mark.parametrize("text", ["", "H2", "D", "D10", "4", "D-1"])
def test_what_is_no_swing_weight_is_refused(text):
    with pytest.raises(InputError, match="A to G"):
        read_swing_weight(text)


def test_d0_is_213_and_a_half_ounce_inches_about_14_inches():
    club = assemble(300.0, 35.25, SHAFT, GRIP)
    assert club.moment_oz_in == pytest.approx(D0_OZ_IN + POINT_OZ_IN * club.points)
    # the moment is that of the whole mass at its balance point
    assert club.mass_g / GRAMS_PER_OUNCE * (club.balance_in - 14.0) == pytest.approx(club.moment_oz_in)


def test_two_grams_on_the_head_are_about_a_point_and_a_grip_takes_some_away():
    base = assemble(300.0, 35.25, SHAFT, GRIP)
    assert assemble(302.0, 35.25, SHAFT, GRIP).points - base.points == pytest.approx(0.85, abs=0.1)
    head_alone = 300.0 / GRAMS_PER_OUNCE * 0.5 / POINT_OZ_IN
    assert head_alone < assemble(300.0, 35.75, SHAFT, GRIP).points - base.points < 1.3 * head_alone
    assert assemble(300.0, 35.25, SHAFT, GRIPS[2]).points < base.points
    assert 0.0 < base.points < 10.0


@pytest.mark.parametrize("wish", ["C5", "D2", "D4"])
def test_a_wish_is_met_exactly_where_the_weight_fits(wish):
    found = solve_weight(298.0, 35.25, SHAFT, GRIP, read_swing_weight(wish))
    assert found.points == pytest.approx(read_swing_weight(wish), abs=1e-9)
    assert found.tip_g == 0.0 or found.butt_g == 0.0


def test_a_wish_beyond_what_fits_says_how_far_off_it_stays():
    found = solve_weight(260.0, 35.0, SHAFT, GRIP, read_swing_weight("E5"))
    assert found.tip_g == MOST_TIP_G
    assert found.off < -1.0


def test_a_shaft_reaches_only_so_far():
    with pytest.raises(InputError, match=r"reaches 37\.5 in at most"):
        assemble(300.0, 37.8, SHAFT, GRIP)


def test_clubs_more_than_a_point_off_the_others_are_named():
    assert unmatched([4.0, 4.5, 5.0]) == []
    assert unmatched([4.0, 4.2, 6.0]) == [2]
    assert unmatched([7.0]) == []
