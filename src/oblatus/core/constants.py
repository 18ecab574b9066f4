"""Constants with their source, the physical ones as records; nothing is typed twice."""

from __future__ import annotations

import math
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Constant:
    """A value [unit] and where it comes from."""

    value: float
    unit: str
    source: str


GRAVITY = Constant(9.80665, "m/s^2", "standard gravity, CGPM 1901")
BALL_MASS = Constant(0.04593, "kg", "rules of golf, greatest mass")
BALL_RADIUS = Constant(0.021335, "m", "rules of golf, least diameter 42.67 mm")
BALL_INERTIA_FACTOR = Constant(0.40, "-", "uniform sphere")
BALL_AREA = Constant(math.pi * BALL_RADIUS.value**2, "m^2", "pi r^2")
STIMP_RELEASE_SPEED = Constant(1.83, "m/s", "Holmes, Am. J. Phys. 59 (1991) 129")
FLATTEST_ATTACK = Constant(-0.5, "deg", "judgement: the flattest path that still comes down to the ground")
MOST_WEDGES = 4
"""Wedges that a set may have (judgement)."""
