"""Compiled tables of the flight: carry, run and height over a lip, by launch, spin and ball speed. docs/models/flight.md.

Spin stands as tangential speed over ball speed, its nodes closer where there is little, because there lift grows fastest;
carry stands over speed squared, which hardly bends along the axes. Speed lies innermost: an aim asks for many of them.
Nothing is checked here; the wrappers in the package check first.
"""

import math

import numpy as np

from oblatus.core._compiled import kernel, leaf
from oblatus.core.flight import _lanes as lanes
from oblatus.core.flight._kernels import BALL_RADIUS, INERTIA_FACTOR, run_out

SPEED_STEP, SPEEDS = 1.0, 65
LAUNCH_STEP, LAUNCHES = math.radians(2.0), 44
RATIO_MOST, RATIOS = 0.96, 14
LEAST_SPEED, LEAST_LAUNCH = 0.5, math.radians(0.5)
SPIN_RADIUS = INERTIA_FACTOR * BALL_RADIUS

_jit = kernel(error_model="numpy")


@_jit
def _ball(i, j, m):
    """Speed, velocity forward and up, and spin [rad/s] of a node."""
    speed, launch = max(i * SPEED_STEP, LEAST_SPEED), max(j * LAUNCH_STEP, LEAST_LAUNCH)
    share = m / (RATIOS - 1)
    return speed, speed * math.cos(launch), speed * math.sin(launch), RATIO_MOST * share * share * speed / SPIN_RADIUS


@_jit
def _balls(count):
    """Velocity forward and up, and spin of every node (3, n), in the order of the tables."""
    balls = np.empty((3, count))
    n = 0
    for j in range(LAUNCHES):
        for m in range(RATIOS):
            for i in range(SPEEDS):
                _, balls[0, n], balls[1, n], balls[2, n] = _ball(i, j, m)
                n += 1
    return balls


@_jit
def fill_carries(rho, viscosity, h, out, landings):
    """Carry over speed squared into out (launches, ratios, speeds); landings (..., 3) = v_x, v_y, w."""
    balls, landed = _balls(out.size), np.empty((out.size, lanes.LANDINGS))
    lanes.flights(balls[0], balls[1], balls[2], rho, viscosity, h, landed)
    n = 0
    for j in range(LAUNCHES):
        for m in range(RATIOS):
            for i in range(SPEEDS):
                speed = _ball(i, j, m)[0]
                out[j, m, i] = landed[n, lanes.CARRY] / (speed * speed)
                landings[j, m, i, 0], landings[j, m, i, 1] = landed[n, lanes.LAND_VX], landed[n, lanes.LAND_VY]
                landings[j, m, i, 2] = landed[n, lanes.LAND_W]
                n += 1


@_jit
def fill_runs(landings, firmness, stimp, mu_bounce, mu_slide, out):
    """Run [m] on a flat green after those landings."""
    for j in range(LAUNCHES):
        for m in range(RATIOS):
            for i in range(SPEEDS):
                lx, ly, w = landings[j, m, i]
                out[j, m, i] = run_out(lx, ly, 0.0, 0.0, 0.0, w, firmness, stimp, mu_bounce, mu_slide)[0]


@_jit
def fill_heights(distance, rho, viscosity, h, out):
    """Height [m] at a distance, into out (launches, ratios, speeds)."""
    balls = _balls(out.size)
    lanes.heights(balls[0], balls[1], balls[2], distance, rho, viscosity, h, out.reshape(out.size))


@leaf
def place(bx, bz, vt):
    """Cells and fractions of a ball in the tables, and its speed: (i, j, m, u, v, w, speed)."""
    speed = math.sqrt(bx * bx + bz * bz)
    a = min(max(speed / SPEED_STEP, 0.0), SPEEDS - 1.000001)
    b = min(max(math.atan2(bz, bx), LEAST_LAUNCH) / LAUNCH_STEP, LAUNCHES - 1.000001)
    share = math.sqrt(max(vt / max(speed, 1e-9), 0.0) / RATIO_MOST)
    c = min(share * (RATIOS - 1), RATIOS - 1.000001)
    i, j, m = int(a), int(b), int(c)
    return i, j, m, a - i, b - j, c - m, speed


@leaf
def look(table, i, j, m, u, v, w):
    """Trilinear value of a table."""
    low = table[j, m, i] + w * (table[j, m + 1, i] - table[j, m, i])
    next_ = table[j + 1, m, i] + w * (table[j + 1, m + 1, i] - table[j + 1, m, i])
    a = low + v * (next_ - low)
    i += 1
    low = table[j, m, i] + w * (table[j, m + 1, i] - table[j, m, i])
    next_ = table[j + 1, m, i] + w * (table[j + 1, m + 1, i] - table[j + 1, m, i])
    b = low + v * (next_ - low)
    return a + u * (b - a)


@leaf
def carry_of(table, bx, bz, vt):
    """Carry [m] of a ball; one that is driven down carries nothing."""
    if bz <= 0.0 or bx <= 0.0:
        return 0.0
    i, j, m, u, v, w, speed = place(bx, bz, vt)
    return look(table, i, j, m, u, v, w) * speed * speed
