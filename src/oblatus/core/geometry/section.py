"""The head's section at mid blade, closed, for drawing at true scale and true angles."""

from __future__ import annotations

import math
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.geometry.delivered import sole_section

Floats = NDArray[np.float64]

FACE_HEIGHT = 0.037
BLADE_THICKNESS = 0.0048
TOP_THICKNESS = 0.0036
FLANGE_AT = 0.015
TRAILING_RADIUS = 0.0022


@lru_cache(maxsize=4096)
def head_outline(head: Head) -> Floats:
    """Closed outline (n, 2) = x, z [m] from the leading edge, shaft vertical, sole first.

    Sole, face angle, nose radius and width are the head's own; blade thickness and flange are those of a usual blade.
    """
    loft = math.radians(head.loft_deg)
    up = np.array([-math.sin(loft), math.cos(loft)])
    back = np.array([-math.cos(loft), -math.sin(loft)])
    sole = sole_section(head, 33)
    tail = sole[-1]
    fall = tail - sole[-2]
    fall = fall / np.linalg.norm(fall)
    trail = _bend(tail, tail + fall * TRAILING_RADIUS, tail + fall * TRAILING_RADIUS + up * 0.004, 5)
    shoulder = up * FLANGE_AT + back * BLADE_THICKNESS
    flange = _bend(trail[-1], 0.5 * (trail[-1] + shoulder) - back * 0.003 - up * 0.002, shoulder, 9)
    top_back = up * (FACE_HEIGHT - 0.002) + back * TOP_THICKNESS
    crown = _bend(top_back, up * (FACE_HEIGHT + 0.001) + back * 0.5 * TOP_THICKNESS, up * (FACE_HEIGHT - 0.001), 5)
    start = min(0.8 * head.leading_edge_radius, 0.25 * head.sole_width)
    kept = sole[np.hypot(sole[:, 0], sole[:, 1]) > start]
    nose = _bend(up * start, np.zeros(2), kept[0], 7)
    return np.vstack([kept, trail, flange, crown, nose])


def _bend(a: Floats, control: Floats, b: Floats, points: int) -> Floats:
    """A quadratic curve from a to b pulled towards the control point (points, 2)."""
    t = np.linspace(0.0, 1.0, points)[:, None]
    return np.asarray((1 - t) ** 2 * a + 2 * t * (1 - t) * control + t**2 * b)
