"""Flight against printed vectors, analytic limits, invariants and a general solver."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from oblatus.cli.bench_reference import fly_with_solve_ivp
from oblatus.core import constants
from oblatus.core.flight import LIE_FRICTION, Air, Delivery, Green, Launch, flight_path, fly_ball, strike_ball
from oblatus.core.flight import _kernels as kernels
from oblatus.errors import InputError

FINE = 0.005

# speed, loft, attack, face, path, friction | ball, launch, direction, rpm, axis | carry, lateral, apex, landing, time,
# landing speed, landing rpm | run x, z | carry and lateral in a wind of 3 m/s head and 2 m/s to the right
VECTORS = [
    ((37.1, 34.7, -5, 0, 0, 0.285), (45.176, 23.833, 0.000, 9530, 0.00),
     (120.85, 0.00, 27.05, 50.10, 5.535, 23.06, 8212), (0.06, 0.0), (112.78, 5.35)),
    ((28, 42, -5, 2, -1, 0.285), (30.931, 28.639, 0.924, 8015, 3.46),
     (70.11, 2.11, 13.77, 43.36, 3.753, 19.89, 7367), (1.69, 0.39), (68.39, 4.64)),
    ((35.5, 49, -5.5, -1, 3, 0.17), (32.830, 39.388, 0.058, 6152, -4.15),
     (75.58, -1.41, 23.64, 55.02, 4.745, 21.67, 5561), (1.58, -0.41), (70.43, 1.54)),
    ((11, 46, -4, 0, 0, 0.285), (11.728, 31.838, 0.000, 3211, 0.00),
     (12.06, 0.00, 1.96, 33.91, 1.293, 10.67, 3166), (4.96, 0.0), (11.91, 0.12)),
]  # fmt: skip

# speed, launch, rpm at landing are those of published wedge shots; run at firmness 0, 0.25, 0.5, 0.75, 1
RUNS = [
    ((51, 23.3, 7990), (-0.9, -0.4, 0.2, 1.4, 3.4)),
    ((51, 21.6, 9560), (-3.2, -2.3, -1.3, -0.3, 0.7)),
    ((45, 19.3, 7780), (-0.3, 0.2, 0.8, 2.0, 3.9)),
    ((36, 14.4, 5440), (1.5, 2.4, 3.7, 5.3, 7.6)),
    ((33, 10.5, 3450), (2.8, 3.6, 4.5, 5.8, 7.6)),
    ((52, 24.9, 3790), (2.7, 4.6, 7.2, 10.7, 15.4)),
]


def delivery(speed, loft, attack=-5.0, face=0.0, path=0.0, friction=0.285) -> Delivery:
    return Delivery(speed, loft, attack, face, path, friction)


@pytest.mark.parametrize(("club", "launch", "flight", "run", "wind"), VECTORS)
def test_the_printed_vectors(club, launch, flight, run, wind):
    found = strike_ball(delivery(*club))
    for value, printed, places in zip(
        (found.ball_speed, found.launch_deg, found.direction_deg, found.spin_rpm, found.axis_deg),
        launch, (3, 3, 3, 0, 2), strict=True,
    ):  # fmt: skip
        assert value == pytest.approx(printed, abs=0.51 * 10**-places)
    shot = fly_ball(found, step=FINE)
    for value, printed, places in zip(
        (shot.carry, shot.lateral, shot.apex, shot.landing_deg, shot.time, shot.landing_speed, shot.landing_spin_rpm),
        flight, (2, 2, 2, 2, 3, 2, 0), strict=True,
    ):  # fmt: skip
        assert value == pytest.approx(printed, abs=0.51 * 10**-places)
    assert (shot.run, shot.run_lateral) == pytest.approx(run, abs=0.0051)
    windy = fly_ball(found, Air(wind_head=3, wind_cross=2), step=FINE)
    assert (windy.carry, windy.lateral) == pytest.approx(wind, abs=0.0051)


@pytest.mark.parametrize(("landing", "runs"), RUNS)
def test_the_printed_runs(landing, runs):
    angle, speed, rpm = landing
    spin = rpm * 2 * math.pi / 60
    vx, vy = speed * math.cos(math.radians(angle)), -speed * math.sin(math.radians(angle))
    for firmness, printed in zip((0, 0.25, 0.5, 0.75, 1), runs, strict=True):
        dx, dz = kernels.run_out(vx, vy, 0.0, 0.0, 0.0, spin, firmness, 10 * 0.3048, 0.33, 0.35)
        assert dx == pytest.approx(printed, abs=0.2)  # half a degree of rounding in the landing angle is worth 0.15 m
        assert dz == 0.0


@pytest.mark.parametrize(
    ("speed", "launch", "spin", "yards"), [(102, 24.2, 9300, 136), (109, 20.4, 8650, 148), (86, 25.85, 8400, 107)]
)
def test_published_tour_carries_within_three_percent(speed, launch, spin, yards):
    shot = fly_ball(Launch(speed * 0.44704, launch, 0.0, spin, 0.0))
    assert shot.carry / 0.9144 == pytest.approx(yards, rel=0.03)


def test_reference_air():
    assert Air().density == pytest.approx(1.17691, abs=6e-6)
    assert Air().viscosity == pytest.approx(1.83723e-5, abs=6e-11)


def test_the_default_step_is_within_its_stated_error():
    for club, *_ in VECTORS:
        launch = strike_ball(delivery(*club))
        assert fly_ball(launch).carry == pytest.approx(fly_ball(launch, step=0.0025).carry, abs=0.0036)


def test_halving_the_step_cuts_the_error_six_fold():
    launch = strike_ball(delivery(28, 42))
    true = fly_ball(launch, step=0.0025).carry
    errors = [abs(fly_ball(launch, step=step).carry - true) for step in (0.5, 0.25)]
    assert errors[0] / errors[1] > 6


def test_no_air_and_no_spin_is_the_vacuum_parabola():
    vx, vy = 20.0, 15.0
    x, _, apex, time, *_ = kernels.fly(vx, vy, 0, 0, 0, 0, 0, 0, 1e-12, 1.8e-5, 0.25, 0.0, np.empty((0, 3)))
    g = constants.GRAVITY.value
    assert time == pytest.approx(2 * vy / g, rel=1e-9)
    assert x == pytest.approx(2 * vx * vy / g, rel=1e-9)
    assert apex == pytest.approx(vy * vy / (2 * g), rel=1e-9)


def test_a_general_solver_agrees():
    launch = strike_ball(delivery(28, 42, face=2, path=-1))
    air = Air(wind_head=3, wind_cross=2)
    carry = fly_with_solve_ivp(launch.vectors(), (-3.0, 2.0), (air.density, air.viscosity), rtol=1e-8)
    assert fly_ball(launch, air, step=FINE).carry == pytest.approx(carry, abs=1e-3)


def test_compiled_equals_python():
    vectors = strike_ball(delivery(28, 42)).vectors()
    arguments = (*vectors, -3.0, 2.0, 1.17691, 1.83723e-5, 0.5, 0.0, np.empty((0, 3)))
    assert kernels.fly(*arguments) == pytest.approx(kernels.fly.py_func(*arguments), rel=1e-12)


speeds = st.floats(8, 40)
lofts = st.floats(25, 60)
attacks = st.floats(-9, 0)


@given(speeds, lofts, attacks, st.floats(0.05, 0.4))
def test_impact_keeps_its_identity_and_loses_energy(speed, loft, attack, friction):
    found = strike_ball(delivery(speed, loft, attack, friction=friction))
    k, r = constants.BALL_INERTIA_FACTOR.value, constants.BALL_RADIUS.value
    spin = found.spin_rpm * 2 * math.pi / 60
    # launch, spin and speed determine the dynamic loft of a centred hit
    gap = math.radians(loft - found.launch_deg)
    assert math.tan(gap) == pytest.approx(k * r * spin / (found.ball_speed * math.cos(gap)), abs=1e-9)
    m = constants.BALL_MASS.value
    assert 0.5 * m * found.ball_speed**2 + 0.5 * k * m * (r * spin) ** 2 < 0.5 * 0.30 * speed**2


@given(speeds, lofts, st.floats(-5, 5), st.floats(-5, 5), st.floats(-5, 5))
def test_mirrored_delivery_mirrors_the_flight(speed, loft, face, path, cross):
    right = fly_ball(strike_ball(delivery(speed, loft, face=face, path=path)), Air(wind_cross=cross))
    left = fly_ball(strike_ball(delivery(speed, loft, face=-face, path=-path)), Air(wind_cross=-cross))
    assert left.lateral == pytest.approx(-right.lateral, abs=1e-9)
    assert left.carry == pytest.approx(right.carry, abs=1e-9)


@given(speeds, lofts, st.sampled_from(["damp", "wet", "light_rough", "heavy_rough"]))
def test_a_slippery_lie_launches_higher_and_spins_less(speed, loft, lie):
    dry = strike_ball(delivery(speed, loft))
    slippery = strike_ball(delivery(speed, loft, friction=LIE_FRICTION[lie]))
    assert slippery.spin_rpm < dry.spin_rpm
    assert slippery.launch_deg > dry.launch_deg


def test_a_firmer_green_releases_more_and_a_path_ends_where_the_ball_lands():
    launch = strike_ball(delivery(28, 42))
    runs = [fly_ball(launch, green=Green(f)).run for f in (0.2, 0.5, 0.8)]
    assert runs == sorted(runs)
    flight, path = flight_path(launch)
    assert path[-1, 0] == pytest.approx(flight.carry)
    assert path[:, 1].max() == pytest.approx(flight.apex, abs=0.02)


@pytest.mark.parametrize("bad", [{"speed": math.nan}, {"speed": 60}, {"dynamic_loft_deg": 5}, {"friction": 0.0}])
def test_impossible_deliveries_are_refused_by_name(bad):
    with pytest.raises(InputError) as error:
        Delivery(**{"speed": 30.0, "dynamic_loft_deg": 45.0, **bad})
    assert "must be between" in error.value.faults[0].message
