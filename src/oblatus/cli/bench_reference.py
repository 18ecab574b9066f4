"""The same equations in scipy's general solver: the yardstick of the bench, and an independent check in the tests."""

from __future__ import annotations

import math

import numpy as np
from scipy.integrate import solve_ivp

from oblatus.core import constants

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
