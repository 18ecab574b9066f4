"""The head's section at mid blade, closed, for drawing at true scale and true angles."""

from __future__ import annotations

import math
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.geometry._kernels import FACE_HEIGHT
from oblatus.core.geometry.delivered import sole_section

Floats = NDArray[np.float64]

BLADE_THICKNESS = 0.0046
TOP_THICKNESS = 0.0034
MUSCLE_ABOVE_TAIL = 0.012
TAIL_ROUNDING = 0.0026


@lru_cache(maxsize=4096)
def head_outline(head: Head) -> Floats:
    """Closed outline (n, 2) = x, z [m] from the leading edge, shaft vertical, sole first.

    Sole, face angle, nose radius and width are the head's own; blade thickness and flange are those of a usual blade.
    """
    loft = math.radians(head.loft_deg)
    up = np.array([-math.sin(loft), math.cos(loft)])
    back = np.array([-math.cos(loft), -math.sin(loft)])
    sole = sole_section(head, 33)
    height, depth = float(sole[-1] @ up), float(sole[-1] @ back)  # the trailing edge in face coordinates

    def at(along: float, behind: float) -> Floats:
        """A point `along` the face from the leading edge and `behind` it."""
        return np.asarray(along * up + behind * back)

    tail = at(height + TAIL_ROUNDING, depth - 0.2 * TAIL_ROUNDING)
    rounding = _bend(sole[-1], at(height + 0.5 * TAIL_ROUNDING, depth + 0.35 * TAIL_ROUNDING), tail, 6)
    neck = at(min(height + MUSCLE_ABOVE_TAIL, 0.8 * FACE_HEIGHT), BLADE_THICKNESS)
    muscle = _bend(tail, at(height + 0.45 * MUSCLE_ABOVE_TAIL, BLADE_THICKNESS + 0.001), neck, 12)
    top = at(FACE_HEIGHT, TOP_THICKNESS)
    crown = _bend(top, at(FACE_HEIGHT + 0.0025, 0.5 * TOP_THICKNESS), at(FACE_HEIGHT, 0.0), 6)
    start = min(0.8 * head.leading_edge_radius, 0.25 * head.sole_width)
    kept = sole[np.hypot(sole[:, 0], sole[:, 1]) > start]
    nose = _bend(at(start, 0.0), np.zeros(2), kept[0], 7)
    return np.vstack([kept, rounding, muscle, crown, nose])


def _bend(a: Floats, control: Floats, b: Floats, points: int) -> Floats:
    """A quadratic curve from a to b pulled towards the control point (points, 2)."""
    t = np.linspace(0.0, 1.0, points)[:, None]
    return np.asarray((1 - t) ** 2 * a + 2 * t * (1 - t) * control + t**2 * b)
