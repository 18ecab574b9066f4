"""The tables of carry, run and height against the flight that they stand for."""

from __future__ import annotations

import math

import numpy as np
import pytest

from oblatus.core.flight import Green, Launch, _lanes, _tables, fly_ball
from oblatus.core.flight.tables import carry, height_table, run_table


def random_balls(count, low=4.0, high=45.0):
    rng = np.random.default_rng(5)
    for _ in range(count):
        speed, launch, share = rng.uniform(low, high), rng.uniform(15, 65), rng.uniform(0, 0.6)
        rpm = share * speed / _tables.SPIN_RADIUS * 30 / math.pi
        if rpm < 15000:
            yield speed, launch, rpm, share


def test_carries_are_those_of_the_flight():
    misses = [
        abs(carry(speed, launch, rpm) / fly_ball(Launch(speed, launch, 0, rpm, 0), step=0.02).carry - 1)
        for speed, launch, rpm, _ in random_balls(400)
    ]
    assert np.quantile(misses, 0.95) < 0.004
    assert max(misses) < 0.02


@pytest.mark.parametrize(("green", "firmness"), [("soft", 0.2), ("firm", 0.8)])
def test_runs_of_short_shots_are_those_of_the_flight(green, firmness):
    misses = []
    for speed, launch, rpm, share in random_balls(300, 6.0, 22.0):
        a = math.radians(launch)
        at = _tables.place(speed * math.cos(a), speed * math.sin(a), share * speed)[:6]
        run = fly_ball(Launch(speed, launch, 0, rpm, 0), green=Green(firmness)).run
        misses.append(abs(_tables.look(run_table(green), *at) - run))
    assert np.median(misses) < 0.1
    assert np.quantile(misses, 0.95) < 0.5


def test_height_over_a_lip_without_air_or_spin_is_the_parabola():
    """And a ball that falls before it, or goes straight up, is told as far below, without harm to those beside it."""
    speed, launch = np.array([10.0, 4.0, 12.0, 9.0, 25.0]), np.radians([40.0, 30.0, 55.0, 90.0, 30.0])
    vx, vy, found = speed * np.cos(launch), speed * np.sin(launch), np.empty(5)
    _lanes.heights(vx, vy, np.zeros(5), 3.0, 1e-9, 1e-5, 0.01, found)
    there = [0, 2, 4]
    parabola = 3.0 * np.tan(launch) - 9.80665 * 9.0 / (2.0 * vx * vx)
    assert found[there] == pytest.approx(parabola[there], abs=1e-4)
    assert (found[[1, 3]] < 0.0).all()


def test_a_ball_that_lands_before_the_lip_is_below_the_ground_there():
    a = math.radians(30.0)
    at = _tables.place(4.0 * math.cos(a), 4.0 * math.sin(a), 0.0)[:6]
    assert _tables.look(height_table(3.0), *at) < 0.0


def test_a_flight_shorter_than_a_step_lands_where_it_should():
    flight = fly_ball(Launch(4.0, 9.0, 0.0, 2000.0, 0.0))
    assert flight.carry == pytest.approx(fly_ball(Launch(4.0, 9.0, 0.0, 2000.0, 0.0), step=0.005).carry, abs=0.002)
    assert flight.carry > 0.4
