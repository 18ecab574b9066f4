"""What the bench does to a head: bends that add up over its life, lie and what it does to the start, and grinds.

docs/models/build.md, 1 and 2.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, fields, replace

import numpy as np

from oblatus.core.bounds import Bound, check_all
from oblatus.core.clubs import Head
from oblatus.core.geometry.delivered import bounces_of, deliver, sole_surface
from oblatus.core.words import quantity
from oblatus.errors import Fault, InputError

STEEL_DENSITY = 7800.0
"""Carbon and stainless steel of heads [kg/m3]."""
MOST_DEPTH = 0.003
"""Metal that may come off a sole at its deepest place: a usual sole is 4 to 5 mm thick (judgement) [m]."""
LIE_BOUND = Bound(-4, 4, "degrees")
SEEN_AT = 80.0
"""Distance at which a start to the left or right is shown [m]."""


def bend_left(limit_deg: float, bent_deg: tuple[float, ...]) -> float:
    """How far a head may still be bent [degrees]: every bend tires the neck, also one back, so that they add up."""
    return max(limit_deg - sum(abs(bend) for bend in bent_deg), 0.0)


def bent(head: Head, change_deg: float, limit_deg: float, bent_before_deg: tuple[float, ...] = ()) -> Head:
    """The head bent weaker (positive) or stronger, within what is left of its limit.

    Raises
    ------
    InputError
        If the bend is past what is left, with what is possible; or would leave loft or bounce outside their range.
    """
    left = bend_left(limit_deg, bent_before_deg)
    if abs(change_deg) > left + 1e-9:
        before = f", {limit_deg - left:g}° were bent before" if bent_before_deg else ""
        words = f"past the limit of {limit_deg:g}°{before}: at most {left:g}° either way"
        raise InputError([Fault("bend_deg", words, str(change_deg))])
    return head.bent(change_deg)


@dataclass(frozen=True, slots=True)
class LieChange:
    """What a lie that does not fit, or is bent, does: start [degrees, right positive for a right-hander], the same in
    metres at `SEEN_AT`, and the loft that is left in the plane of motion [degrees]."""

    start_deg: float
    start_m: float
    loft_deg: float


def lie_change(loft_deg: float, upright_deg: float) -> LieChange:
    """A head of this loft turned about the target line, upright positive.

    The face normal (cos L, 0, sin L) turned by a about x is (cos L, -sin L sin a, sin L cos a): the ball starts
    atan(tan L sin a) to the left, tan L degrees for a small degree, and the loft in the plane of motion is
    asin(sin L cos a). Exact.

    Raises
    ------
    InputError
        If the change is more than four degrees.
    """
    check_all({"lie_deg": upright_deg}, {"lie_deg": LIE_BOUND})
    loft, angle = math.radians(loft_deg), math.radians(upright_deg)
    start = -math.atan(math.tan(loft) * math.sin(angle))
    return LieChange(
        math.degrees(start), SEEN_AT * math.tan(start), math.degrees(math.asin(math.sin(loft) * math.cos(angle)))
    )  # fmt: skip


def lie_from_mark(mark_mm: float) -> float:
    """Degrees that the head should be more upright, from a mark on the sole board so far towards the toe [mm].

    The sole's rocker has a radius of 350 mm from heel to toe: an upright head touches nearer its heel, so that a mark
    towards the toe asks for a more upright one.
    """
    return math.degrees(mark_mm / 350.0)


@dataclass(frozen=True, slots=True)
class Grind:
    """Metal to be taken off, beside what the sole has: heel and toe corner [m], back relief as share of the width and
    its angle [degrees], front bevel [m] and its angle [degrees]. What is zero stays as it is."""

    heel: float = 0.0
    toe: float = 0.0
    back_fraction: float = 0.0
    back_deg: float = 0.0
    bevel: float = 0.0
    bevel_deg: float = 0.0

    def __bool__(self) -> bool:
        """Whether anything comes off."""
        return any(getattr(self, field.name) > 0.0 for field in fields(self))


@dataclass(frozen=True, slots=True)
class Ground:
    """A ground head: itself, grams removed and greatest depth [m]."""

    head: Head
    removed_g: float
    depth: float


def ground(head: Head, grind: Grind) -> Ground:
    """The head after a grind; nothing is ever added.

    The sole before and after is laid so that they touch where least comes off; the volume between them over the sole's
    footprint times 7,800 kg/m3 is what the head loses.

    Raises
    ------
    InputError
        If a part is outside its range, less than it is already, or cuts deeper than `MOST_DEPTH`; or if the sole would
        be ground below its edge (no bounce is left with the shaft vertical).
    """
    cut = head.cut(
        (grind.heel, grind.toe), (grind.back_fraction, grind.back_deg), (grind.bevel, grind.bevel_deg)
    )  # fmt: skip
    before, after = sole_surface(head), sole_surface(cut)
    lifted = after[..., 2] - before[..., 2]
    removed = lifted - lifted.min()
    depth = float(removed.max())
    if depth > MOST_DEPTH:
        taken, most = quantity(f"{1000 * depth:.1f}", "mm"), quantity(f"{1000 * MOST_DEPTH:g}", "mm")
        words = f"takes {taken} off the sole: at most {most}"
        raise InputError([Fault("grind", words)])
    if grind and float(bounces_of([cut], np.zeros(1), np.zeros(1))[0, 0]) <= 0.0:
        raise InputError([Fault("grind", "grinds the sole below its edge: no bounce is left")])
    grams = 1000.0 * STEEL_DENSITY * _volume(before, removed)
    return Ground(replace(cut, mass=head.mass - grams / 1000.0), grams, depth)


def _volume(surface: np.ndarray, depth: np.ndarray) -> float:
    """Volume [m3] of a depth over the footprint of a surface of points (along, across, 3), by its cells."""
    x, y = surface[..., 0], surface[..., 1]
    across_x, across_y = np.diff(x, axis=1)[:-1], np.diff(y, axis=1)[:-1]
    along_x, along_y = np.diff(x, axis=0)[:, :-1], np.diff(y, axis=0)[:, :-1]
    area = np.abs(along_x * across_y - along_y * across_x)
    cell = 0.25 * (depth[:-1, :-1] + depth[1:, :-1] + depth[:-1, 1:] + depth[1:, 1:])
    return float((area * cell).sum())


def edge_height(head: Head) -> float:
    """Height of the leading edge of the resting head, shaft vertical [m]."""
    return deliver(head, 0.0, 0.0).leading_edge_height
