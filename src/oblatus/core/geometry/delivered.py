"""What the ball and the ground meet: loft, bounce, face direction and edge height after opening and lean."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from oblatus.core.bounds import check_all
from oblatus.core.clubs import Head
from oblatus.core.delivery import Swing
from oblatus.core.figures import figures
from oblatus.core.geometry import _kernels

HANDS_DROP = 0.20
"""Degrees by which the hands are lowered for each degree of opening (judgement; 0 is a strict turn about the shaft)."""

SETUP = {key: record.bound for key, record in figures(Swing).items()}
Hand = Literal["right", "left"]
Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class DeliveredHead:
    """Delivered loft, bounce, face direction (right of the target is positive) [degrees], edge height [m]."""

    loft_deg: float
    bounce_deg: float
    face_direction_deg: float
    leading_edge_height: float


def head_row(head: Head) -> Floats:
    """The head as a row of the compiled kernels (its figures in their order; m, kg and radians)."""
    return np.array(_values(head))


@lru_cache(maxsize=4096)
def _values(head: Head) -> tuple[float, ...]:
    values = ((getattr(head, f.attribute), f.bound.unit) for f in figures(Head).values())
    return tuple(math.radians(value) if unit == "degrees" else value for value, unit in values)


def _rows(heads: Sequence[Head]) -> Floats:
    return np.array([_values(head) for head in heads]).reshape(len(heads), _kernels.COLUMNS)


def deliver(
    head: Head, lean_deg: float, opening_deg: float, hand: Hand = "right", hands_drop: float = HANDS_DROP
) -> DeliveredHead:
    """Exact delivered geometry of one head: opened about its shaft, hands lowered, then leaned.

    The face normal (cos L, 0, sin L) and the sole normal (sin B, 0, -cos B) are turned by
    R_y(lean) R_x(-k opening) R_s(-opening); unopened, this is exactly loft - lean and bounce - lean.
    The edge height is that of the whole three-dimensional sole resting on level ground.

    Parameters
    ----------
    lean_deg : shaft lean, handle towards the target is positive [degrees]
    opening_deg : face opening about the shaft, open is positive [degrees]
    hands_drop : degrees of lowered hands for each degree of opening

    Raises
    ------
    InputError
        If lean or opening is outside its range.
    """
    check_all({"lean_deg": lean_deg, "opening_deg": opening_deg}, SETUP)
    out = deliver_many([head], np.array([opening_deg]), np.array([lean_deg]), hands_drop)[0, 0]
    side = 1.0 if hand == "right" else -1.0
    return DeliveredHead(float(out[0]), float(out[1]), side * float(out[2]), float(out[3]))


def deliver_many(heads: Sequence[Head], opening_deg: Floats, lean_deg: Floats, hands_drop: float = HANDS_DROP) -> Floats:
    """Delivered geometry of n heads at k setups: (n, k, 4) = loft, bounce, face [degrees], edge height [m].

    Put setups of equal opening side by side: they share the rotated surface.
    """
    out = np.empty((len(heads), len(opening_deg), 4))
    _kernels.deliver(_rows(heads), np.radians(opening_deg), np.radians(lean_deg), hands_drop, out)
    out[:, :, :3] = np.degrees(out[:, :, :3])
    return out


def bounces_of(heads: Sequence[Head], opening_deg: Floats, lean_deg: Floats) -> Floats:
    """Delivered bounce [degrees] of n heads at k setups (n, k): that of `deliver_many`, without the rest of it."""
    out = np.empty((len(heads), len(opening_deg)))
    _kernels.bounces(_rows(heads), np.radians(opening_deg), np.radians(lean_deg), HANDS_DROP, out)
    return np.degrees(out)


def lofts_in_plane(head: Head, opening_deg: Floats) -> Floats:
    """Loft in the plane of motion [degrees] at zero lean of a head opened by each angle (k,)."""
    out = np.empty(len(opening_deg))
    _kernels.lofts(head_row(head), np.radians(opening_deg), HANDS_DROP, out)
    return np.degrees(out)


def sole_surface(head: Head) -> Floats:
    """The sole at rest (front to back, toe to heel, 3) = x, y, z [m] from the leading edge, shaft vertical."""
    out = np.empty((_kernels.ALONG * _kernels.ACROSS, 3))
    _kernels.vertices(head_row(head), out)
    return out.reshape(_kernels.ALONG, _kernels.ACROSS, 3)


def sole_section(head: Head, points: int = 41) -> Floats:
    """The mid-blade section of the sole (points, 2) = x, z [m] from the leading edge, shaft vertical."""
    out = np.empty((points, 2))
    _kernels.profile(head_row(head), out)
    return out
