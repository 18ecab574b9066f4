"""The same equations in scipy's general solver: the yardstick of the bench, and an independent check in the tests."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.integrate import solve_ivp

from oblatus.core import constants
from oblatus.core.strike import Solid, Swing
from oblatus.core.strike import _kernels as strike_kernels

Floats = NDArray[np.float64]
Six = tuple[float, float, float, float, float, float]

R, M, A = constants.BALL_RADIUS.value, constants.BALL_MASS.value, constants.BALL_AREA.value
G, K = constants.GRAVITY.value, constants.BALL_INERTIA_FACTOR.value


def fly_with_solve_ivp(vectors: Six, wind: tuple[float, float], air: tuple[float, float], rtol: float = 1e-5) -> float:
    """Carry [m] of a ball with `solve_ivp` (RK45) and an event for the landing; wind (downrange, right) [m/s] at 10 m."""
    rho, viscosity = air
    spin = math.sqrt(sum(w * w for w in vectors[3:]))
    axis = np.array(vectors[3:]) / spin

    def rates(_: float, s: np.ndarray[tuple[int], np.dtype[np.float64]]) -> list[float]:
        y, v, w = s[1], s[3:6], s[6]
        profile = 1.338 * (max(y, 0.0) + 2.80) / (max(y, 0.0) + 7.126)
        relative = v - np.array([wind[0] * profile, 0.0, wind[1] * profile])
        speed = float(np.linalg.norm(relative))
        across = np.cross(axis, relative)
        c = float(np.linalg.norm(across))
        ratio = R * w * c / speed**2
        q = min(max((2 * R * rho * speed / viscosity - 3e4) / 5e4, 0.0), 1.0)
        blend = q * q * (3 - 2 * q)
        drag = 0.50 + (0.240 + 0.209 * ratio - 0.50) * blend
        lift = 0.435 * ratio / (ratio + 0.15) * (1 - 0.30 * (1 - blend))
        force = 0.5 * rho * A / M * (speed**2 * lift * across / c - speed * drag * relative)
        spin_rate = -rho * A * 2 * R * 0.012 * R / (2 * K * M * R * R) * speed * w
        return [*v, force[0], force[1] - G, force[2], spin_rate]

    def landing(_: float, s: np.ndarray[tuple[int], np.dtype[np.float64]]) -> float:
        return float(s[1])

    landing.terminal = True  # type: ignore[attr-defined]
    landing.direction = -1  # type: ignore[attr-defined]
    start = [0.0, 1e-9, 0.0, *vectors[:3], spin]
    found = solve_ivp(rates, (0.0, 30.0), start, events=landing, rtol=rtol, atol=1e-7)
    return float(found.y[0, -1])


def fly_with_numpy(starts: Floats, air: tuple[float, float], step: float = 0.25) -> tuple[Floats, Floats]:
    """Carry [m] and steps of many balls in still air, in lock-step: the same Runge-Kutta steps over whole columns.

    starts (n, 6): velocity and spin after impact. The landing is found on the cubic of the last step by Newton.
    """
    rho, viscosity = air
    spin = np.linalg.norm(starts[:, 3:], axis=1)
    axis = starts[:, 3:] / spin[:, None]
    state = np.column_stack([np.zeros((len(starts), 3)), starts[:, :3], spin])
    carry, steps, up = np.zeros(len(starts)), np.zeros(len(starts)), np.arange(len(starts))

    def rates(s: Floats) -> Floats:
        v, w = s[:, 3:6], s[:, 6]
        speed = np.linalg.norm(v, axis=1)
        across = np.cross(axis[up], v)
        rwc = R * w * np.linalg.norm(across, axis=1)
        q = np.clip((2 * R * rho * speed / viscosity - 3e4) / 5e4, 0.0, 1.0)
        blend = q * q * (3 - 2 * q)
        drag = 0.50 + (0.240 + 0.209 * rwc / speed**2 - 0.50) * blend
        lift = 0.435 * (1 - 0.30 * (1 - blend)) * speed**2 * R * w / (rwc + 0.15 * speed**2)
        force = 0.5 * rho * A / M * (lift[:, None] * across - (speed * drag)[:, None] * v)
        force[:, 1] -= G
        fall = -rho * A * 2 * R * 0.012 * R / (2 * K * M * R * R) * speed * w
        return np.column_stack([v, force, fall])

    while len(up):
        a = rates(state)
        b = rates(state + 0.5 * step * a)
        c = rates(state + 0.5 * step * b)
        after = state + step / 6 * (a + 2 * b + 2 * c + rates(state + step * c))
        steps[up] += 1
        down = (after[:, 4] < 0.0) & (after[:, 1] <= 0.0)
        if down.any():
            p, q = state[down], after[down]
            u = p[:, 1] / (p[:, 1] - q[:, 1])
            for _ in range(4):
                y = _cubic(u, step, p[:, 1], p[:, 4], q[:, 1], q[:, 4])
                u -= y / ((_cubic(u + 1e-6, step, p[:, 1], p[:, 4], q[:, 1], q[:, 4]) - y) / 1e-6)
            carry[up[down]] = _cubic(u, step, p[:, 0], p[:, 3], q[:, 0], q[:, 3])
        state, up = after[~down], up[~down]
    return carry, steps


def _cubic(u: Floats, step: float, p0: Floats, d0: Floats, p1: Floats, d1: Floats) -> Floats:
    """Hermite's cubic through two positions and slopes."""
    return (
        p0 * (2 * u**3 - 3 * u**2 + 1) + step * d0 * (u**3 - 2 * u**2 + u) + p1 * (3 * u**2 - 2 * u**3)
        + step * d1 * (u**3 - u**2)
    )  # fmt: skip


def _plain(kernel: Any) -> Callable[..., Any]:
    """The Python function behind a compiled one."""
    function: Callable[..., Any] = kernel.py_func
    return function


_touch, _at_pitch = _plain(strike_kernels.touch), _plain(strike_kernels.at_pitch)
_turf, _sand = _plain(strike_kernels._turf_force), _plain(strike_kernels._sand_plates)


def strike_with_solve_ivp(
    solid: Solid, kind: int, row: np.ndarray[tuple[int], np.dtype[np.float64]], swing: Swing, rtol: float = 1e-5
) -> float:
    """Edge height [m] at first contact, the pass integrated by `solve_ivp` (RK45) with an event for the contact.

    The right-hand side is the same laws, plate by plate, in Python.
    """
    lean, attack = math.radians(swing.lean_deg), math.radians(swing.attack_deg)
    x0, p0, down, _ = _touch(solid.heights, solid.leads, swing.entry, lean, attack, swing.release)
    kappa, turn = (0.75 + 0.25 * swing.release) / strike_kernels.ARC_RADIUS, swing.release / strike_kernels.ARC_RADIUS
    m_x = solid.mass + strike_kernels.SHAFT_MASS_X
    m_z = solid.mass + strike_kernels.SHAFT_MASS_Z[kind]
    rake = 90.0 - math.degrees(solid.loft_in_plane - p0)
    tables = (strike_kernels.N_CH, strike_kernels.N_CV, strike_kernels.N_AH, strike_kernels.N_AV)
    cut = tuple(float(np.interp(rake, strike_kernels.RAKES, table)) for table in tables)

    def rates(s: float, state: np.ndarray[tuple[int], np.dtype[np.float64]]) -> list[float]:
        z, vx, vz, _, _ = state
        pitch = p0 - turn * s
        v = math.hypot(vx, vz)
        c, sn = math.cos(pitch), math.sin(pitch)
        if kind == strike_kernels.TURF:
            fx, fz = _turf(solid.sole, solid.edge, row, cut, c, sn, z, vx / v, vz / v, v)
        else:
            one = _sand(solid.sole, 1.0, row, c, sn, z, vx / v, vz / v, v * v)
            two = _sand(solid.face, -1.0, row, c, sn, z, vx / v, vz / v, v * v)
            fx, fz = one[0] + two[0], one[1] + two[1]
        deep = max(-z, 0.0)
        below = max(_at_pitch(solid.heights, pitch) - z - deep, 0.0)
        density = row[strike_kernels.DENSITY]
        return [
            vz / vx,
            (fx / m_x - kappa * v * vz) / vx,
            (fz / m_z + kappa * v * vx) / vx,
            density * deep,
            density * below,
        ]

    def contact(s: float, state: np.ndarray[tuple[int], np.dtype[np.float64]]) -> float:
        loft = solid.loft_in_plane - p0 + turn * s
        at = x0 + s, state[0], math.sin(loft), math.cos(loft)
        return float(strike_kernels.gap_to_ball(*at, row[strike_kernels.BALL_Z]))

    contact.terminal = True  # type: ignore[attr-defined]
    contact.direction = -1  # type: ignore[attr-defined]
    height = strike_kernels.at_pitch(solid.heights, p0)
    start = [height, swing.speed * math.sqrt(1.0 - down * down), -swing.speed * down, 0.0, 0.0]
    found = solve_ivp(rates, (0.0, 0.06 - x0), start, events=contact, rtol=rtol, atol=1e-8)
    return float(found.y[0, -1])
