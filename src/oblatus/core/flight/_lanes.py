"""Compiled flights of many square shots at once, in lanes: the law, the step and the landing of `_kernels`, side by side.

A square shot in still air stays in one plane, its spin axis across it: five numbers a ball. A lane whose ball has landed
takes the next shot, so that none waits for the longest flight.
"""

import math

import numpy as np

from oblatus.core._compiled import kernel
from oblatus.core.flight import _kernels as k

LANES = 64
# rows of a state, one number a lane: at a step's start and end
X, Y, VX, VY, W, X1, Y1, VX1, VY1, W1, APEX = range(11)
ROWS = 11
# rows of the slopes: change of v_x, v_y and spin a second at each of the four points of a step
A1, B1, D1, A2, B2, D2, A3, B3, D3, A4, B4, D4 = range(12)
SLOPES = 12
IDLE = -1
# columns of a landing
CARRY, HIGHEST, LAND_VX, LAND_VY, LAND_W = range(5)
LANDINGS = 5
BELOW = -20.0  # m, height of a ball that falls before it has gone so far
SLOWEST = 0.01  # m/s, forward: a slower one goes no farther

_lanes = kernel(error_model="numpy", fastmath={"contract"})


@k.inline_flight
def _acceleration(vx, vy, w, rho, viscosity):
    """Acceleration (2) and spin decay rate; the axis lies across the plane, so that all of the speed is across it.

    Spin w is backspin, or topspin below zero.
    """
    v2 = vx * vx + vy * vy
    v = math.sqrt(v2)
    lift, drag, decay = k.pulls(v2, v, k.BALL_RADIUS * abs(w) * v, w, rho, viscosity)
    return -lift * vy - drag * vx, lift * vx - drag * vy - k.G, -decay


@_lanes
def _square_impact(speed, loft, attack, friction, head_mass, restitution):
    """`impact` of a square face on a straight path: ball velocity forward and up, and spin."""
    nx, ny = math.cos(loft), math.sin(loft)
    ux, uy = speed * math.cos(attack), speed * math.sin(attack)
    un, along = ux * nx + uy * ny, uy * nx - ux * ny  # into the face, and up it
    vn, vt = k.clean_contact(un, abs(along), head_mass, friction, restitution - k.RESTITUTION_SLOPE * un)
    vt = math.copysign(vt, along)
    return vn * nx - vt * ny, vn * ny + vt * nx, -vt / (k.INERTIA_FACTOR * k.BALL_RADIUS)


@_lanes
def _slopes(s, d, before, into, h, rho, viscosity):
    """Slopes at a point of the step in every lane, from the start along earlier slopes.

    Point by point, not lane by lane: each root and division waits for the one before it, and those of other lanes fill
    the time.
    """
    for j in range(LANES):
        vx = s[VX * LANES + j] + h * d[(A1 + before) * LANES + j]
        vy = s[VY * LANES + j] + h * d[(B1 + before) * LANES + j]
        w = s[W * LANES + j] + h * d[(D1 + before) * LANES + j]
        a, b, c = _acceleration(vx, vy, w, rho, viscosity)
        d[(A1 + into) * LANES + j], d[(B1 + into) * LANES + j], d[(D1 + into) * LANES + j] = a, b, c


@_lanes
def _step(s, d, rho, viscosity, h):
    """One Runge-Kutta step of order four in every lane."""
    sixth = h / 6.0
    _slopes(s, d, A1, A1, 0.0, rho, viscosity)
    _slopes(s, d, A1, A2, 0.5 * h, rho, viscosity)
    _slopes(s, d, A2, A3, 0.5 * h, rho, viscosity)
    _slopes(s, d, A3, A4, h, rho, viscosity)
    for j in range(LANES):
        vx, vy, w = s[VX * LANES + j], s[VY * LANES + j], s[W * LANES + j]
        a = d[A1 * LANES + j] + d[A2 * LANES + j] + d[A3 * LANES + j]
        b = d[B1 * LANES + j] + d[B2 * LANES + j] + d[B3 * LANES + j]
        s[X1 * LANES + j] = s[X * LANES + j] + h * vx + h * sixth * a
        s[Y1 * LANES + j] = s[Y * LANES + j] + h * vy + h * sixth * b
        s[VX1 * LANES + j] = vx + sixth * (a + d[A2 * LANES + j] + d[A3 * LANES + j] + d[A4 * LANES + j])
        s[VY1 * LANES + j] = vy + sixth * (b + d[B2 * LANES + j] + d[B3 * LANES + j] + d[B4 * LANES + j])
        c = d[D1 * LANES + j] + 2.0 * d[D2 * LANES + j] + 2.0 * d[D3 * LANES + j] + d[D4 * LANES + j]
        s[W1 * LANES + j] = w + sixth * c


@_lanes
def _go_on(s):
    """The end of a step is the start of the next."""
    for j in range(5 * LANES):
        s[j] = s[X1 * LANES + j]


@_lanes
def _take_off(s, d, shot, steps, begun, vx, vy, w):
    """Give every idle lane the next ball, from the ground; returns how many have begun by now."""
    for j in range(LANES):
        if shot[j] == IDLE and begun < vx.shape[0]:
            s[X * LANES + j] = s[Y * LANES + j] = s[APEX * LANES + j] = 0.0
            s[VX * LANES + j], s[VY * LANES + j], s[W * LANES + j] = vx[begun], vy[begun], w[begun]
            # whatever a ball that never moved left there: the first point of a step adds nothing of it
            d[A1 * LANES + j] = d[B1 * LANES + j] = d[D1 * LANES + j] = 0.0
            shot[j], steps[j] = begun, 0
            begun += 1
    return begun


@_lanes
def flights(vx, vy, w, rho, viscosity, h, out):
    """Balls from the ground in still air, velocity forward and up (n,) and spin (n,) [rad/s]: out (n, LANDINGS).

    Returns the worst status.
    """
    s, d = np.ones(ROWS * LANES), np.zeros(SLOPES * LANES)
    shot, steps = np.full(LANES, IDLE), np.zeros(LANES, dtype=np.int64)
    begun, landed, status = 0, 0, k.LANDED
    while True:
        begun = _take_off(s, d, shot, steps, begun, vx, vy, w)
        if landed == begun:
            return status
        free = False
        while not free:
            _step(s, d, rho, viscosity, h)
            for j in range(LANES):
                i = shot[j]
                y1, vy1 = s[Y1 * LANES + j], s[VY1 * LANES + j]
                if i == IDLE:
                    continue
                steps[j] += 1
                if vy1 >= 0.0 and steps[j] < k.MAX_STEPS:
                    continue
                y, vy0 = s[Y * LANES + j], s[VY * LANES + j]
                if vy0 >= 0.0 and vy1 < 0.0:
                    s[APEX * LANES + j] = max(s[APEX * LANES + j], k.hermite(vy0 / (vy0 - vy1), h, y, vy0, y1, vy1))
                if y1 > 0.0 and steps[j] < k.MAX_STEPS:
                    continue
                x1, vx0, vx1 = s[X1 * LANES + j], s[VX * LANES + j], s[VX1 * LANES + j]
                w0, w1, u = s[W * LANES + j], s[W1 * LANES + j], 1.0
                if y1 > 0.0 or vy1 >= 0.0:
                    status, out[i, CARRY], out[i, LAND_VX], out[i, LAND_VY] = k.DID_NOT_LAND, x1, vx1, vy1
                else:
                    u = k.comes_down(h, 0.0, y, vy0, y1, vy1)
                    out[i, CARRY] = k.hermite(u, h, s[X * LANES + j], vx0, x1, vx1)
                    out[i, LAND_VX] = k.speed_within(u, h, vx0, vx1, d[A1 * LANES + j])
                    out[i, LAND_VY] = k.speed_within(u, h, vy0, vy1, d[B1 * LANES + j])
                out[i, HIGHEST], out[i, LAND_W] = s[APEX * LANES + j], w0 + (w1 - w0) * u
                shot[j] = IDLE
                landed += 1
                free = True
            _go_on(s)


@_lanes
def heights(vx, vy, w, distance, rho, viscosity, h, out):
    """Height [m] of balls from the ground when they have gone `distance` [m], out (n,); `BELOW` of those that never do."""
    s, d = np.ones(ROWS * LANES), np.zeros(SLOPES * LANES)
    shot, steps = np.full(LANES, IDLE), np.zeros(LANES, dtype=np.int64)
    begun, done = 0, 0
    while True:
        begun = _take_off(s, d, shot, steps, begun, vx, vy, w)
        if done == begun:
            return
        free = False
        while not free:
            _step(s, d, rho, viscosity, h)
            for j in range(LANES):
                i, x1 = shot[j], s[X1 * LANES + j]
                if i == IDLE:
                    continue
                steps[j] += 1
                if x1 >= distance:
                    x, vx0, vx1 = s[X * LANES + j], s[VX * LANES + j], s[VX1 * LANES + j]
                    u = (distance - x) / (x1 - x)
                    for _ in range(k.ROOT_STEPS):
                        u -= (k.hermite(u, h, x, vx0, x1, vx1) - distance) / k.hermite_slope(u, h, x, vx0, x1, vx1)
                    y, vy0, y1, vy1 = s[Y * LANES + j], s[VY * LANES + j], s[Y1 * LANES + j], s[VY1 * LANES + j]
                    out[i] = k.hermite(u, h, y, vy0, y1, vy1)
                elif s[Y1 * LANES + j] < BELOW or s[VX1 * LANES + j] <= SLOWEST or steps[j] == k.MAX_STEPS:
                    out[i] = BELOW
                else:
                    continue
                shot[j] = IDLE
                done += 1
                free = True
            _go_on(s)


@_lanes
def carries(speeds, lofts, attacks, friction, head_mass, restitution, rho, viscosity, h, out):
    """Square shots in still air, one a row, with its own friction and restitution: out (n, 6) = carry, apex, landing
    angle [rad], spin [rad/s], v, launch. Returns the worst status."""
    n = speeds.shape[0]
    vx, vy, w, landed = np.empty(n), np.empty(n), np.empty(n), np.empty((n, LANDINGS))
    for i in range(n):
        vx[i], vy[i], w[i] = _square_impact(speeds[i], lofts[i], attacks[i], friction[i], head_mass, restitution[i])
    status = flights(vx, vy, w, rho, viscosity, h, landed)
    for i in range(n):
        out[i, 0], out[i, 1] = landed[i, CARRY], landed[i, HIGHEST]
        out[i, 2] = math.atan2(-landed[i, LAND_VY], landed[i, LAND_VX])
        out[i, 3], out[i, 4], out[i, 5] = abs(w[i]), math.sqrt(vx[i] * vx[i] + vy[i] * vy[i]), math.atan2(vy[i], vx[i])
    return status
