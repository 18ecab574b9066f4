"""Bends, lies and grinds: limits that add up, exact starts, metal that only goes."""

from __future__ import annotations

import math

import pytest

from oblatus.core.build.bench import STEEL_DENSITY, Grind, bend_left, bent, ground, lie_change, lie_from_mark
from oblatus.core.clubs import Head
from oblatus.core.geometry import _kernels
from oblatus.core.words import quantity
from oblatus.errors import InputError

HEAD = Head(56.0, 10.0)


def test_bends_add_up_over_a_heads_life_and_back_counts_too():
    assert bend_left(3.0, (1.0, -1.0)) == pytest.approx(1.0)
    assert bent(HEAD, 1.0, 3.0, (1.0, -1.0)).bounce_deg == 11.0
    with pytest.raises(InputError, match=r"2° were bent before: at most 1° either way"):
        bent(HEAD, 1.5, 3.0, (1.0, -1.0))


@pytest.mark.parametrize("loft", [46.0, 56.0, 60.0])
def test_a_degree_upright_starts_the_ball_tan_loft_left(loft):
    change = lie_change(loft, 1.0)
    assert change.start_deg == pytest.approx(-math.tan(math.radians(loft)), abs=0.002)
    assert change.start_m == pytest.approx(80.0 * math.tan(math.radians(change.start_deg)))
    assert lie_change(loft, -1.0).start_deg == pytest.approx(-change.start_deg)
    assert lie_change(loft, 2.0).loft_deg < loft
    assert (lie_change(loft, 0.0).start_m, lie_change(loft, 0.0).loft_deg) == (0.0, pytest.approx(loft))


def test_a_mark_towards_the_toe_asks_for_more_upright():
    assert lie_from_mark(6.1) == pytest.approx(1.0, abs=0.01)


def test_a_heel_grind_weighs_what_its_volume_does():
    found = ground(HEAD, Grind(heel=0.002))
    # smoothstep over the heel half (0.95 of it) and over 10 to 80 % of the width, each half on average
    along, across = 0.5 * 0.7 + 0.2, 0.95 * 0.5
    usual = 1000 * STEEL_DENSITY * 0.002 * along * HEAD.sole_width * across * _kernels.HALF_BLADE
    assert found.removed_g == pytest.approx(usual, rel=0.05)
    assert found.head.mass == pytest.approx(HEAD.mass - found.removed_g / 1000.0)
    assert found.depth == pytest.approx(0.002)


@pytest.mark.parametrize(
    "grind",
    [Grind(heel=0.001), Grind(toe=0.001), Grind(back_fraction=0.3, back_deg=8.0), Grind(bevel=0.004, bevel_deg=8.0)],
)
def test_more_of_any_cut_takes_more_metal_and_none_takes_none(grind):
    more = Grind(
        2 * grind.heel, 2 * grind.toe, 1.3 * grind.back_fraction, 1.3 * grind.back_deg, 1.3 * grind.bevel,
        1.3 * grind.bevel_deg,
    )  # fmt: skip
    assert 0.0 < ground(HEAD, grind).removed_g < ground(HEAD, more).removed_g
    assert not Grind()
    assert ground(HEAD, Grind()).removed_g == pytest.approx(0.0, abs=1e-9)


def test_a_grind_too_deep_is_refused():
    with pytest.raises(InputError, match=quantity("at most 3", "mm")):
        ground(HEAD, Grind(heel=0.0035))
    with pytest.raises(InputError, match="below its edge"):
        ground(Head(56.0, 0.0), Grind(heel=0.001))
