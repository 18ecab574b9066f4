"""What coaches claim, at the strength the model gives it; what it does not reproduce is in docs/models/strike.md."""

from __future__ import annotations

import numpy as np
import pytest

from oblatus.core.clubs import Head
from oblatus.core.geometry import deliver
from oblatus.core.grounds import Sand, Turf
from oblatus.core.strike import REFERENCE, Swing, build_solid, strike, strike_window
from oblatus.core.strike import _kernels as kernels

from .vectors import FIRM, MEDIUM, SAND, USUAL

SOFT = Turf(50, 0.008, 0.8, 1.0)


def carry(head, ground, entry, *, opening=0, lean=0, attack=-9, speed=22):
    return strike(
        head, Swing(opening, lean, attack, speed, 1.0, entry / 1000), ground, mesh=REFERENCE, intended=12.0
    ).carry


def width(head, ground, *, opening=0, lean=0, attack=-9, speed=22):
    return 1000 * strike_window(head, Swing(opening, lean, attack, speed), ground).width


def grown(bounce, wide):
    return Head(56, bounce, sole_width=wide / 1000)


def test_1_over_leaning_digs_in_soft_turf():
    found = [strike(USUAL, Swing(0, lean, -5, 20, 1.0, -0.061), SOFT) for lean in (0, 8, 14)]
    depths = [-1000 * f.leading_edge for f in found]
    assert depths == sorted(depths)
    share = [f.carry / f.intended for f in found]
    assert share == sorted(share, reverse=True)
    assert share == pytest.approx([0.50, 0.44, 0.39], abs=0.04)


def test_2_opening_lifts_the_edge_and_heel_relief_lowers_it():
    assert 1000 * deliver(USUAL, 0, 45).leading_edge_height == pytest.approx(12.2, abs=0.1)


def test_3_bounce_and_width_move_the_fat_limit_back_in_soft_turf():
    low = [strike_window(grown(b, w), Swing(0, 8, -5, 20), SOFT).low for b, w in ((4, 17), (14, 24))]
    assert low[1] < low[0] - 0.012


def test_4_high_bounce_blades_from_firm_ground_and_lean_or_low_bounce_mends_it():
    high, low = grown(12, 22), grown(4, 17)

    def window(head, lean=0, opening=0):
        return width(head, FIRM, lean=lean, opening=opening, attack=-4, speed=20)

    assert window(high) == pytest.approx(78, abs=10)
    assert window(high, lean=-3) < window(high) - 20
    assert window(low) > 120
    assert window(high, lean=6) > 120
    assert window(grown(8, 20), opening=20) < 12
    # what high bounce loses on firm ground is the strikes near the ball: the window of a low one is open ahead
    front = [strike_window(head, Swing(0, 0, -4, 20), FIRM) for head in (high, low)]
    assert 1000 * front[0].high < 0
    assert front[1].open_ahead


def test_7_closed_and_leaned_trenches_where_open_and_level_glides():
    """Mostly through lean: at equal lean the face alone does little to depth."""

    def depth(opening, lean):
        """Depth of the trench: of the sole's lowest point, not of the edge."""
        path = strike(USUAL, Swing(opening, lean, -9, 22, 1.0, -0.071), SAND, mesh=REFERENCE).path
        rest = build_solid(USUAL, opening, REFERENCE).heights
        return 1000 * max(kernels.at_pitch(rest, pitch) - z for z, pitch in zip(path[:, 1], path[:, 6], strict=True))

    assert depth(-10, 7) == pytest.approx(17.7, abs=1.0)
    assert depth(20, 0) == pytest.approx(12.6, abs=1.0)
    assert depth(-10, 0) - depth(20, 0) < 0.5 * (depth(-10, 7) - depth(20, 0))


def test_10_beyond_45_degrees_of_opening_falls_short_from_behind():
    carries = [carry(USUAL, SAND, -95, opening=o) for o in (0, 20, 30, 40, 45, 50)]
    assert carries == pytest.approx([11.7, 11.3, 7.7, 3.4, 1.6, 0.8], abs=0.4)


def test_11_bounce_first_windows_in_sand_are_wider_than_leaned_ones():
    level = [width(Head(56, b), SAND) for b in (10, 14)]
    leaned = width(Head(56, 5), SAND, lean=8)
    assert level == pytest.approx([72, 82], abs=6)
    assert leaned == pytest.approx(46, abs=5)


def test_12_a_plugged_ball_wants_a_closed_face():
    plugged = Sand(1.9, 0.08, 0.2, 0.016)
    carries = [carry(USUAL, plugged, -75, opening=o, lean=4, attack=-11, speed=26) for o in (-20, -10, 0, 10, 25)]
    assert carries[:2] == pytest.approx([6.7, 9.3], abs=0.6)
    assert carries[1] > carries[2] > carries[3] > carries[4]


def test_14_a_shallow_swing_widens_the_window():
    turf = [width(grown(12, 22), MEDIUM, attack=a, speed=20) for a in (-3, -6, -9)]
    sand = [width(USUAL, SAND, attack=a) for a in (-6, -9, -12)]
    assert turf == sorted(turf, reverse=True)
    assert sand == sorted(sand, reverse=True)


def test_15_width_hurts_on_hardpan():
    baked = Turf(160, 0.0005, 0.2, 1.0)
    assert width(grown(10, 26), baked, attack=-4, speed=20) < width(grown(10, 16), baked, attack=-4, speed=20) - 20


def test_fat_shots_cost_what_they_usually_cost():
    """Medium turf, level shaft: 25 mm behind the ball costs 8 to 15 %, 50 mm 30 to 45 %."""
    found = {e: strike(USUAL, Swing(0, 0, -5, 20, 1.0, e / 1000), MEDIUM) for e in (-46, -71)}
    assert 1 - found[-46].carry / found[-46].intended == pytest.approx(0.134, abs=0.02)
    assert 1 - found[-71].carry / found[-71].intended == pytest.approx(0.392, abs=0.03)


def test_lofts_in_sand_keep_their_order():
    carries = [carry(Head(loft, 10), SAND, -66) for loft in (51, 56, 60)]
    assert carries == sorted(carries, reverse=True)
    assert np.ptp(carries) > 2
