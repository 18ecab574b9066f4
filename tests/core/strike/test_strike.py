"""One strike: the printed vectors on both meshes, convergence, invariants, compiled code against Python."""

from __future__ import annotations

import math
from itertools import product

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from oblatus.core.clubs import Head
from oblatus.core.grounds import Sand, Turf
from oblatus.core.strike import PRODUCTION, REFERENCE, Swing, build_solid, ground_row, strike
from oblatus.core.strike import _kernels as kernels
from oblatus.core.strike.single import Mesh
from oblatus.errors import InputError

from .vectors import FIRM, LEANED, MEDIUM, SAND, USUAL, VECTORS, constant_drag_carry


def hit(case, mesh=PRODUCTION):
    head, opening, ground, speed, attack, lean, entry, *_ = case
    return strike(head, Swing(opening, lean, attack, speed, 1.0, entry / 1000), ground, mesh=mesh, intended=12.0)


@pytest.mark.parametrize("name", VECTORS)
def test_the_printed_strikes_on_the_reference_mesh(name):
    case = VECTORS[name]
    found = hit(case, REFERENCE)
    contact, t, edge, ratio, material, ball, launch, spin, carry = case[7:]
    assert found.contact == contact
    assert 1000 * found.impact_height == pytest.approx(t, abs=0.06)
    assert 1000 * found.leading_edge == pytest.approx(edge, abs=0.02)
    assert found.speed_ratio == pytest.approx(ratio, abs=0.001)
    assert 1000 * found.material == pytest.approx(material, abs=0.06)
    assert found.ball_speed == pytest.approx(ball, abs=0.06)
    assert found.launch_deg == pytest.approx(launch, abs=0.06)
    assert found.spin_rpm == pytest.approx(spin, rel=0.002)
    assert constant_drag_carry(found.ball_speed, found.launch_deg) == pytest.approx(carry, rel=0.012)


@pytest.mark.parametrize("name", VECTORS)
def test_the_production_mesh_stays_within_its_stated_error(name):
    fine, coarse = hit(VECTORS[name], REFERENCE), hit(VECTORS[name])
    assert coarse.contact == fine.contact
    assert coarse.carry == pytest.approx(fine.carry, rel=0.02)
    assert 1000 * coarse.leading_edge == pytest.approx(1000 * fine.leading_edge, abs=0.1)


@pytest.mark.parametrize(("loft", "attack", "speed"), [(57, -5, 34), (56, -5, 20), (50, -3, 12), (46, -7, 38)])
def test_a_clean_strike_is_the_impact_of_the_flight(loft, attack, speed):
    """One law of clean contact: strike engine, carries and flight give one ball for one delivery."""
    from oblatus.core.flight import Delivery, strike_ball
    from oblatus.core.strike import _quality

    bx, bz, vt = _quality.clean_strike(math.radians(loft), math.radians(attack), 1.0, 0.30, 0.285, float(speed))
    launch = strike_ball(Delivery(float(speed), float(loft), float(attack)))
    assert math.hypot(bx, bz) == pytest.approx(launch.ball_speed, rel=1e-6)
    assert math.degrees(math.atan2(bz, bx)) == pytest.approx(launch.launch_deg, rel=1e-6)
    assert vt / (0.4 * 0.021335) * 30 / math.pi == pytest.approx(launch.spin_rpm, rel=1e-6)


@pytest.mark.parametrize(("loft", "speed", "launch", "spin"), [(57, 34, 41.2, 8035), (56, 20, 40.2, 4918)])
def test_the_printed_clean_strikes(loft, speed, launch, spin):
    from oblatus.core.strike import _quality

    bx, bz, vt = _quality.clean_strike(math.radians(loft), math.radians(-5.0), 1.0, 0.30, 0.285, float(speed))
    assert math.degrees(math.atan2(bz, bx)) == pytest.approx(launch, abs=0.06)
    assert vt / (0.4 * 0.021335) * 30 / math.pi == pytest.approx(spin, rel=0.001)


@pytest.mark.parametrize("name", ["B", "G"])
def test_finer_steps_and_cells_converge(name):
    def carry(step, cells):
        return hit(VECTORS[name], Mesh(9, cells, 4, 10, step)).carry

    best = carry(0.00025, 60)
    by_step = [abs(carry(step, 60) - best) for step in (0.004, 0.002, 0.001)]
    by_cells = [abs(carry(0.00025, cells) - best) for cells in (4, 8, 16)]
    assert max(by_step) < 0.03 * best
    assert by_step[2] < 0.002 * best
    assert by_cells[2] <= by_cells[1] <= by_cells[0] < 0.03 * best


def test_compiled_equals_python():
    head, opening, ground, speed, attack, lean, entry, *_ = VECTORS["H"]
    solid, (kind, row) = build_solid(head, opening), ground_row(ground)
    results = []
    for function in (kernels.strike, kernels.strike.py_func):
        rows = np.empty((80, 7))
        results.append(function(
            kind, solid.sole, solid.face, solid.edge, solid.heights, solid.leads, solid.loft_in_plane, solid.in_plane,
            solid.mass, row, kernels.CONTACTS[kind], entry / 1000, math.radians(lean), math.radians(attack),
            float(speed), 1.0, 0.005, rows,
        ))  # fmt: skip
    (compiled, used), (plain, rows_of_plain) = results
    assert compiled == pytest.approx(plain, rel=1e-9)
    assert used == rows_of_plain


grounds = st.one_of(
    st.builds(Turf, st.floats(40, 160), st.floats(0.0, 0.016), st.floats(0, 1), st.floats(0.5, 1.5)),
    st.builds(Sand, st.floats(1.4, 2.8), st.floats(0.0, 0.15), st.floats(0, 0.9), st.floats(0.002, 0.02)),
)
swings = st.builds(
    Swing, st.floats(-20, 50), st.floats(-8, 16), st.floats(-14, 1), st.floats(12, 38), st.floats(0.3, 1.7),
    st.floats(-0.16, 0.07),
)  # fmt: skip
heads = st.builds(
    lambda loft, bounce, width, heel: Head(loft, bounce, sole_width=width, heel_relief=heel),
    st.floats(46, 64), st.floats(0, 16), st.floats(0.014, 0.028), st.floats(0, 0.003),
)  # fmt: skip


@settings(max_examples=150)
@given(heads, swings, grounds)
def test_every_strike_is_a_class_and_finite(head, swing, ground):
    found = strike(head, swing, ground, intended=12.0)
    numbers = (found.impact_height, found.leading_edge, found.material, found.ball_speed, found.launch_deg, found.carry)
    assert all(math.isfinite(value) for value in numbers)
    assert 0.0 <= found.speed_ratio <= 1.0 + 1e-9
    assert found.material >= 0.0
    assert found.ball_speed < 1.6 * swing.speed
    if found.contact == "none":
        assert found.outcome in {"dug", "slid-under"}
        assert found.carry == 0.0


def free_contact_of(head, swing, ground):
    """The contact on the free arc: (x, z, gap, height of the ball's foot), None where the ground is touched first."""
    solid, (_, row) = build_solid(head, swing.opening_deg), ground_row(ground)
    lean, attack = math.radians(swing.lean_deg), math.radians(swing.attack_deg)
    x0, p0, down, x_low = kernels.touch(solid.heights, solid.leads, swing.entry, lean, attack, swing.release)
    loft, z_ball = solid.loft_in_plane - p0, row[kernels.BALL_Z]
    s, c = math.sin(loft), math.cos(loft)
    if not kernels.meets_free(solid.heights, s, c, x0, p0, down, z_ball):
        return None
    x, z, pitch, _, s, c = kernels.free_contact(solid.heights, s, c, p0, x0, down, x_low, swing.release, z_ball)
    loft = solid.loft_in_plane - pitch
    assert (s, c) == pytest.approx((math.sin(loft), math.cos(loft)), abs=1e-13)
    return x, z, kernels.gap_to_ball(x, z, s, c, z_ball), z_ball


@given(heads, swings, grounds)
def test_on_the_free_arc_the_head_touches_the_ball_where_it_is_said_to(head, swing, ground):
    found = free_contact_of(head, swing, ground)
    assume(found is not None and 0.0 < found[1] - found[3] < 1.9 * kernels.BALL_RADIUS)  # neither over the ball nor under
    assert found[2] == pytest.approx(0.0, abs=2e-8)


def test_a_face_that_lies_nearly_flat_meets_the_ball_from_behind_or_below():
    """Opened far with the handle back, where no place up the face may be found: the edge meets the ball then."""
    head, met = Head(64, 10), 0
    for opening, lean, attack in product((30.0, 50.0), (-8.0, 0.0, 8.0), (-12.0, -6.0, 0.0)):
        for entry in np.linspace(-0.16, 0.07, 47):
            found = free_contact_of(head, Swing(opening, lean, attack, 20.0, 1.0, float(entry)), Sand(2.1))
            if found is not None and found[1] - found[3] < 2.0 * kernels.BALL_RADIUS:
                met += 1
                assert found[0] <= 0.0 or found[1] <= found[3], (opening, lean, attack, entry, found)  # or from below
                assert found[2] == pytest.approx(0.0, abs=2e-8)
    assert met > 100


@given(st.floats(48, 60), st.floats(6, 12), st.floats(0, 4), st.floats(-70, -20))
def test_lean_and_bounce_trade_one_for_one(loft, bounce, lean, entry):
    """Leaning the shaft is the same as less loft and bounce, up to where the pitch of the swing is reckoned from."""
    swing = Swing(0.0, lean, -5.0, 20.0, 1.0, entry / 1000)
    leaned = strike(Head(loft, bounce), swing, MEDIUM)
    turned = strike(Head(loft - lean, bounce - lean), Swing(0.0, 0.0, -5.0, 20.0, 1.0, entry / 1000), MEDIUM)
    assert leaned.delivered_loft_deg == pytest.approx(turned.delivered_loft_deg)
    assert leaned.delivered_bounce_deg == pytest.approx(turned.delivered_bounce_deg)
    assert 1000 * leaned.leading_edge == pytest.approx(1000 * turned.leading_edge, abs=0.35)


def test_what_is_outside_the_calibrated_range_is_named():
    found = strike(Head(66, 10), Swing(52, 0, -9, 40, 1.0, -0.07), SAND)
    assert found.extrapolated == ("speed", "loft", "opening")
    assert strike(USUAL, Swing(0, 0, -5, 20), MEDIUM).extrapolated == ()


@pytest.mark.parametrize("bad", [{"speed": math.nan}, {"attack_deg": -40}, {"entry": 1.0}, {"lean_deg": 90}])
def test_swings_outside_the_model_are_refused(bad):
    with pytest.raises(InputError):
        Swing(**{"opening_deg": 0.0, "lean_deg": 0.0, "attack_deg": -5.0, "speed": 20.0, **bad})


def test_outcomes_on_firm_ground():
    assert strike(LEANED, Swing(0, 0, -4, 20, 1.0, -0.005), FIRM).outcome == "thin"
    assert strike(LEANED, Swing(0, 7, -4, 20, 1.0, -0.005), FIRM).outcome == "clean"


@pytest.mark.parametrize("name", ["B", "D", "G", "I"])
def test_a_general_solver_meets_the_ball_at_the_same_height(name):
    from oblatus.cli.bench_reference import strike_with_solve_ivp

    head, opening, ground, speed, attack, lean, entry, *_ = VECTORS[name]
    solid, (kind, row) = build_solid(head, opening), ground_row(ground)
    swing = Swing(opening, lean, attack, speed, 1.0, entry / 1000)
    edge = strike_with_solve_ivp(solid, kind, row, swing)
    fine = Mesh(PRODUCTION.strips, PRODUCTION.cells, PRODUCTION.nose, PRODUCTION.face_rows, 0.0005)
    assert 1000 * edge == pytest.approx(
        1000 * strike(head, swing, ground, mesh=fine, intended=12.0).leading_edge, abs=0.06
    )
