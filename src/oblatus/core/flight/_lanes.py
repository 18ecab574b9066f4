"""Compiled flights of many square shots at once, in lanes: the law, the step and the landing of `_kernels`, side by side.

A square shot in still air stays in one plane, its spin axis across it: five numbers a ball. A lane whose ball has landed
takes the next shot, so that none waits for the longest flight.
"""

import math

import numba
import numpy as np

from oblatus.core.flight import _kernels as k

LANES = 16
X, Y, VX, VY, W, X1, Y1, VX1, VY1, W1, AX, AY, APEX = range(13)
ROWS = 13
IDLE = -1

_lanes = numba.njit(cache=True, nogil=True, error_model="numpy", fastmath={"contract"})


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
def _step(s, rho, viscosity, h):
    """One Runge-Kutta step of order four in every lane."""
    g, sixth = 0.5 * h, h / 6.0
    for j in range(LANES):
        vx, vy, w = s[VX * LANES + j], s[VY * LANES + j], s[W * LANES + j]
        a1, b1, d1 = _acceleration(vx, vy, w, rho, viscosity)
        a2, b2, d2 = _acceleration(vx + g * a1, vy + g * b1, w + g * d1, rho, viscosity)
        a3, b3, d3 = _acceleration(vx + g * a2, vy + g * b2, w + g * d2, rho, viscosity)
        a4, b4, d4 = _acceleration(vx + h * a3, vy + h * b3, w + h * d3, rho, viscosity)
        s[X1 * LANES + j] = s[X * LANES + j] + h * vx + h * sixth * (a1 + a2 + a3)
        s[Y1 * LANES + j] = s[Y * LANES + j] + h * vy + h * sixth * (b1 + b2 + b3)
        s[VX1 * LANES + j] = vx + sixth * (a1 + 2.0 * a2 + 2.0 * a3 + a4)
        s[VY1 * LANES + j] = vy + sixth * (b1 + 2.0 * b2 + 2.0 * b3 + b4)
        s[W1 * LANES + j] = w + sixth * (d1 + 2.0 * d2 + 2.0 * d3 + d4)
        s[AX * LANES + j], s[AY * LANES + j] = a1, b1


@_lanes
def _go_on(s):
    """The end of a step is the start of the next."""
    for j in range(5 * LANES):
        s[j] = s[X1 * LANES + j]


@_lanes
def _begin(s, j, vx, vy, w):
    """A ball at the origin."""
    s[X * LANES + j] = s[Y * LANES + j] = s[APEX * LANES + j] = 0.0
    s[VX * LANES + j], s[VY * LANES + j], s[W * LANES + j] = vx, vy, w


@_lanes
def carries(speeds, lofts, attacks, friction, head_mass, restitution, rho, viscosity, h, out):
    """Square shots in still air, one a row, with its own friction and restitution: out (n, 6) = carry, apex, landing
    angle [rad], spin [rad/s], v, launch. Returns the worst status."""
    total = speeds.shape[0]
    s = np.ones(ROWS * LANES)
    shot, steps = np.full(LANES, IDLE), np.zeros(LANES, dtype=np.int64)
    begun, flying, status = 0, 0, k.LANDED
    while True:
        for j in range(LANES):
            if shot[j] == IDLE and begun < total:
                i = begun
                vx, vy, w = _square_impact(speeds[i], lofts[i], attacks[i], friction[i], head_mass, restitution[i])
                _begin(s, j, vx, vy, w)
                out[i, 3], out[i, 4], out[i, 5] = abs(w), math.sqrt(vx * vx + vy * vy), math.atan2(vy, vx)
                shot[j], steps[j] = i, 0
                begun += 1
                flying += 1
        if flying == 0:
            return status
        free = False
        while not free:
            _step(s, rho, viscosity, h)
            for j in range(LANES):
                i = shot[j]
                y1, vy1 = s[Y1 * LANES + j], s[VY1 * LANES + j]
                if i == IDLE:
                    continue
                steps[j] += 1
                if vy1 >= 0.0 and steps[j] < k.MAX_STEPS:
                    continue
                y, vy = s[Y * LANES + j], s[VY * LANES + j]
                if vy >= 0.0 and vy1 < 0.0:
                    s[APEX * LANES + j] = max(s[APEX * LANES + j], k.hermite(vy / (vy - vy1), h, y, vy, y1, vy1))
                if y1 > 0.0 and steps[j] < k.MAX_STEPS:
                    continue
                x, x1, vx, vx1 = s[X * LANES + j], s[X1 * LANES + j], s[VX * LANES + j], s[VX1 * LANES + j]
                if y1 > 0.0 or vy1 >= 0.0:
                    status, out[i, 0], vxl, vyl = k.DID_NOT_LAND, x1, vx1, vy1
                else:
                    u = k.comes_down(h, 0.0, y, vy, y1, vy1)
                    out[i, 0] = k.hermite(u, h, x, vx, x1, vx1)
                    vxl = k.speed_within(u, h, vx, vx1, s[AX * LANES + j])
                    vyl = k.speed_within(u, h, vy, vy1, s[AY * LANES + j])
                out[i, 1], out[i, 2] = s[APEX * LANES + j], math.atan2(-vyl, vxl)
                shot[j] = IDLE
                flying -= 1
                free = True
            _go_on(s)
