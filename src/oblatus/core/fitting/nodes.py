"""The strikes by which a habit is reckoned: nodes of attack, lean and entry. docs/models/strokes.md, 3."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from oblatus.core.delivery import Habit

Floats = NDArray[np.float64]

ENTRY_NODES = 12
ENTRY_SPAN = 2.4


def quadrature(entries: int = ENTRY_NODES) -> tuple[Floats, Floats]:
    """Nodes of attack and lean (7, 3) and of entry (m, 2): standard normal, weights sum to 1.

    Attack and lean take the hexagon rule, exact for polynomials to the fifth degree as the 3 x 3 Gauss-Hermite product is
    (Stroud, Approximate Calculation of Multiple Integrals, 1971, E2r2 5-1). Every second entry serves a corner of the
    hexagon, odd and even ones in turn, so that both triangles of corners have all entries between them. Twelve entries
    keep the quality within 0.008 rms of sixty-four; what that does to strokes stands in docs/models/strokes.md.
    """
    corners = [(2.0 * math.cos(turn), 2.0 * math.sin(turn), 1 / 12) for turn in np.arange(6) * math.pi / 3.0]
    z = np.linspace(-ENTRY_SPAN, ENTRY_SPAN, entries)
    w = np.exp(-0.5 * z * z)
    return np.array([(0.0, 0.0, 0.5), *corners]), np.column_stack([z, w / w.sum()])


def covariance_root(habit: Habit) -> Floats:
    """Lower Cholesky factor of the covariance of attack, lean [rad] and entry [m]."""
    spreads = [math.radians(habit.attack_deg.spread), math.radians(habit.lean_deg.spread), habit.entry.spread]
    covariance = np.diag(np.square(np.maximum(spreads, 1e-6)))
    for (a, b), r in zip(((0, 1), (0, 2), (1, 2)), habit.correlations, strict=True):
        covariance[a, b] = covariance[b, a] = r * math.sqrt(covariance[a, a] * covariance[b, b])
    return np.linalg.cholesky(covariance)
