"""Summaries against known players, lean from launch and spin, drift, and faults by their rules."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from oblatus.core.flight import Delivery, strike_ball
from oblatus.core.gapping import MeasuredStrike
from oblatus.core.session import find_faults, summarise, table_of

PARTIAL = ("900", "pitch", "chip")


def strike(i, swing="pitch", club="own:0", loft=56.0, carry=None, **figures) -> MeasuredStrike:
    return MeasuredStrike(str(i), club, loft, swing, carry, **figures)


def inferred_lean(one: MeasuredStrike) -> float | None:
    lean, inferred = table_of([one]).leans()
    return float(lean[0]) if inferred[0] else None


def figure(summary, key):
    return next(f for f in summary.figures if f.key == key)


@given(st.floats(-4, 14), st.floats(14, 34), st.floats(-9, -1), st.floats(48, 62))
def test_lean_follows_exactly_from_launch_spin_and_ball_speed(lean, speed, attack, loft):
    launch = strike_ball(Delivery(speed, loft - lean, attack))
    one = strike(1, loft=loft, ball_speed=launch.ball_speed, launch_deg=launch.launch_deg, spin_rpm=launch.spin_rpm)
    assert inferred_lean(one) == pytest.approx(lean, abs=1e-6)


def test_a_measured_loft_goes_before_launch_and_nothing_gives_nothing():
    assert inferred_lean(strike(1, dynamic_loft_deg=50.0, launch_deg=30.0, spin_rpm=8000, ball_speed=20.0)) == 6.0
    assert inferred_lean(strike(1, launch_deg=30.0)) is None
    assert inferred_lean(strike(1, launch_deg=30.0, spin_rpm=16000, ball_speed=3.0)) is None


def test_the_mean_is_covered_four_times_in_five_and_outliers_are_named():
    rng = np.random.default_rng(3)
    inside = 0
    for _ in range(400):
        n = int(rng.integers(4, 16))
        strikes = [strike(i, attack_deg=float(rng.normal(-6, 1.5))) for i in range(n)]
        found = figure(summarise(strikes, PARTIAL).overall, "attack_deg")
        inside += found.low <= -6.0 <= found.high
    assert 0.72 <= inside / 400 <= 0.88
    odd = [strike(i, attack_deg=-6.0 + 0.3 * (i % 3)) for i in range(10)] + [strike("odd", attack_deg=8.0)]
    found = figure(summarise(odd, PARTIAL).overall, "attack_deg")
    assert found.outliers == ("odd",)
    assert (found.count, found.mean < -5.0) == (10, True)


def test_few_strikes_are_wide_and_one_says_so():
    one = figure(summarise([strike(1, entry=-0.03)], PARTIAL).overall, "entry")
    many = figure(summarise([strike(i, entry=-0.03 + 0.004 * (i % 2)) for i in range(30)], PARTIAL).overall, "entry")
    assert one.count == 1
    assert one.high - one.low > 5 * (many.high - many.low)


def test_stations_are_apart_and_full_swings_are_no_part_of_the_habit():
    strikes = [strike(i, "full", lean_deg=9.0) for i in range(6)] + [
        strike(9 + i, "chip", lean_deg=4.0) for i in range(6)
    ]
    strikes.append(MeasuredStrike("aside", "pw", 46.0, "chip", None, lean_deg=30.0, set_aside="misread"))
    found = summarise(strikes, PARTIAL)
    assert [(s.station, s.count, s.aside) for s in found.stations] == [("full", 6, 0), ("chip", 6, 1)]
    assert figure(found.overall, "lean_deg").mean == pytest.approx(4.0)
    assert summarise([], PARTIAL).overall.figures == ()


def test_inferred_lean_is_counted_as_such():
    launch = strike_ball(Delivery(20.0, 51.0, -5.0))
    told = {"ball_speed": launch.ball_speed, "launch_deg": launch.launch_deg, "spin_rpm": launch.spin_rpm}
    strikes = [strike(i, **told) for i in range(5)] + [strike(5 + i, lean_deg=5.0) for i in range(3)]
    found = figure(summarise(strikes, PARTIAL).overall, "lean_deg")
    assert (found.count, found.inferred) == (8, 5)
    assert found.mean == pytest.approx(5.0, abs=1e-6)


def test_a_drift_is_found_and_a_steady_player_has_none():
    rng = np.random.default_rng(1)
    tiring = [strike(i, attack_deg=-5.0 - 0.12 * i + float(rng.normal(0, 0.6))) for i in range(30)]
    trend = summarise(tiring, PARTIAL).trends[0]
    assert trend.key == "attack_deg"
    assert trend.change == pytest.approx(-0.12 * 29, abs=1.0)
    mixed = [strike(i, "chip", club_speed=12.0 + 0.2 * (i % 3)) for i in range(12)]
    mixed += [strike(12 + i, "pitch", club_speed=20.0 + 0.2 * (i % 3)) for i in range(12)]
    assert summarise(mixed, PARTIAL).trends == ()
    alarms = sum(
        bool(summarise([strike(i, attack_deg=float(rng.normal(-5, 1))) for i in range(30)], PARTIAL).trends)
        for _ in range(200)
    )
    assert alarms <= 6


def test_faults_need_their_rule_their_share_and_five_strikes():
    bounce = {"own:0": 8.0}
    keys = lambda strikes, opening=None: [f.key for f in find_faults(strikes, bounce, opening or {})]  # noqa: E731
    assert keys([strike(i, entry=-0.08) for i in range(5)]) == ["ground_first"]
    assert keys([strike(i, entry=-0.08) for i in range(4)]) == []
    assert keys([strike(i, lean_deg=10.0) for i in range(6)]) == ["handle_ahead"]
    assert keys([strike(i, "full", lean_deg=10.0) for i in range(6)]) == []
    assert keys([strike(i, lean_deg=-4.0) for i in range(6)]) == ["early_release"]
    assert keys([strike(i, lean_deg=3.0) for i in range(6)]) == []
    assert keys([strike(i, "sand", lean_deg=6.0) for i in range(6)]) == ["edge_in_sand"]
    assert keys([strike(i, "sand", lean_deg=6.0) for i in range(6)], {"sand": 25.0}) == []
    wild = [strike(i, entry=-0.05 + 0.02 * (i % 5)) for i in range(10)]
    assert keys(wild) == ["entry_scattered"]
    mixed = [strike(i, lean_deg=10.0 if i < 3 else 4.0) for i in range(8)]
    assert keys(mixed) == []
    fault = find_faults([strike(i, lean_deg=10.0 if i < 4 else 4.0) for i in range(8)], bounce, {})[0]
    assert (fault.shown, fault.of, fault.strikes) == (4, 8, ("0", "1", "2", "3"))


def test_a_strike_set_aside_shows_no_fault():
    aside = [MeasuredStrike(str(i), "own:0", 56.0, "pitch", None, entry=-0.09, set_aside="heavy") for i in range(9)]
    assert find_faults(aside, {}, {}) == ()
    assert math.isfinite(figure(summarise([strike(1, entry=-0.03)], PARTIAL).overall, "entry").mean)
