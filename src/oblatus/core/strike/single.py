"""One strike, by direct integration: what happens when this sole meets this ground here."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal, get_args

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.delivery import Swing
from oblatus.core.flight._tables import SPIN_RADIUS, carry_of
from oblatus.core.flight.tables import carry_table
from oblatus.core.geometry import HANDS_DROP, deliver, head_row
from oblatus.core.geometry import _kernels as geometry
from oblatus.core.grounds import Sand, Turf
from oblatus.core.strike import _kernels, _quality
from oblatus.core.strike.ground_rows import ground_row

Floats = NDArray[np.float64]
Contact = Literal["face", "edge", "none"]
Outcome = Literal["clean", "heavy", "thin", "bladed", "dug", "slid-under", "out", "short", "left-in", "long"]

OUTCOMES: tuple[Outcome, ...] = get_args(Outcome)
CONTACTS: tuple[Contact, ...] = ("none", "face", "edge")
CALIBRATED_SPEED = (12.0, 38.0)
CALIBRATED_LOFT_DEG = (46.0, 64.0)
CALIBRATED_OPENING_DEG = 50.0
LEAST_CARRY = 0.1


@dataclass(frozen=True, slots=True)
class Mesh:
    """How finely the sole is cut: strips across, cells along, nose and face rows, step [m] of the pass."""

    strips: int
    cells: int
    nose: int
    face_rows: int
    step: float


PRODUCTION = Mesh(3, 6, 2, 5, 0.005)
REFERENCE = Mesh(9, 30, 4, 10, 0.0005)


@dataclass(frozen=True, slots=True)
class Solid:
    """A head, opened, as plates of the plane of motion, with its rest tables."""

    sole: Floats
    face: Floats
    edge: Floats
    heights: Floats
    leads: Floats
    loft_in_plane: float
    in_plane: float
    mass: float


@dataclass(frozen=True, slots=True)
class StrikeResult:
    """What one strike did. Lengths [m], speeds [m/s], mass [kg], angles in degrees.

    `material` lies between face and ball; `intended` is the carry that the outcome is measured by; `extrapolated` names
    what lies outside the range in which the model was calibrated. `path` (n, 7) is the edge's way through the ground.
    """

    contact: Contact
    impact_height: float
    leading_edge: float
    speed_ratio: float
    material: float
    ball_speed: float
    launch_deg: float
    spin_rpm: float
    outcome: Outcome
    carry: float
    intended: float
    delivered_loft_deg: float
    delivered_bounce_deg: float
    contact_x: float
    stopped: bool
    extrapolated: tuple[str, ...]
    path: Floats


@lru_cache(maxsize=512)
def build_solid(head: Head, opening_deg: float, mesh: Mesh = PRODUCTION) -> Solid:
    """The plates of an opened head."""
    row, opening = head_row(head), math.radians(opening_deg)
    sole = np.empty((5, mesh.strips * (mesh.cells + mesh.nose)))
    face = np.empty((5, mesh.strips * mesh.face_rows))
    edge = np.empty((3, mesh.strips))
    heights, leads = np.empty(geometry.PITCHES), np.empty(geometry.PITCHES)
    geometry.plates(row, opening, HANDS_DROP, mesh.strips, mesh.cells, mesh.nose, mesh.face_rows, sole, face, edge)
    geometry.rest_tables(row, opening, HANDS_DROP, heights, leads)
    n = geometry.normals(row, opening, HANDS_DROP)
    return Solid(sole, face, edge, heights, leads, math.atan2(n[2], n[0]), math.hypot(n[0], n[2]), head.mass)


def strike(
    head: Head, swing: Swing, ground: Turf | Sand, *, mesh: Mesh = PRODUCTION, intended: float | None = None
) -> StrikeResult:
    """One pass of a sole through turf or sand and what the ball does.

    Parameters
    ----------
    intended : carry [m] by which a sand shot is judged; by default what this swing carries at its best level

    References
    ----------
    docs/models/strike.md: plates, turf and sand laws, contact, ball.
    """
    solid = build_solid(head, swing.opening_deg, mesh)
    kind, row = ground_row(ground)
    rows = np.empty((int(0.40 / mesh.step), 7))
    lean, attack = math.radians(swing.lean_deg), math.radians(swing.attack_deg)
    (contact, t, z, ratio, material, bx, bz, sine, loft, stopped, x, vt), used = _kernels.strike(
        kind, solid.sole, solid.face, solid.edge, solid.heights, solid.leads, solid.loft_in_plane, solid.in_plane,
        solid.mass, row, _kernels.CONTACTS[kind], swing.entry, lean, attack, swing.speed, swing.release, mesh.step, rows,
    )  # fmt: skip
    carry, elevation = float(carry_of(carry_table(), bx, bz, vt)), math.asin(sine)
    if kind == _kernels.TURF:
        reference = max(clean_carry(solid, swing, row), LEAST_CARRY)
        outcome = OUTCOMES[_quality.turf_class(contact, t, elevation, loft, carry / reference)]
    else:
        reference = intended if intended is not None else best_level(head, swing, ground)
        outcome = OUTCOMES[_quality.sand_class(contact, elevation, material, carry / max(reference, LEAST_CARRY))]
    delivered = deliver(head, swing.lean_deg, swing.opening_deg)
    return StrikeResult(
        contact=CONTACTS[contact],
        impact_height=t,
        leading_edge=z,
        speed_ratio=ratio,
        material=material,
        ball_speed=math.hypot(bx, bz),
        launch_deg=math.degrees(math.atan2(bz, bx)) if contact != _kernels.NONE else 0.0,
        spin_rpm=vt / SPIN_RADIUS * 30.0 / math.pi,
        outcome=outcome,
        carry=carry,
        intended=reference,
        delivered_loft_deg=delivered.loft_deg,
        delivered_bounce_deg=delivered.bounce_deg,
        contact_x=x,
        stopped=bool(stopped),
        extrapolated=extrapolated(head, swing),
        path=rows[:used].copy(),
    )


def approach(solid: Solid, swing: Swing, back: float = 0.08, step: float = 0.005) -> Floats:
    """The edge's way through the air before the sole touches: (n, 3) = x, z [m], pitch [rad], nearest last."""
    lean, attack = math.radians(swing.lean_deg), math.radians(swing.attack_deg)
    x0, p0, down, x_low = _kernels.touch(solid.heights, solid.leads, swing.entry, lean, attack, swing.release)
    kappa = (0.75 + 0.25 * swing.release) / _kernels.ARC_RADIUS
    x = x0 - np.arange(back, 0.0, -step)
    pitch = p0 - swing.release / _kernels.ARC_RADIUS * (x - x0)
    theta = np.arcsin(np.clip((x_low - x) * kappa, -1.0, 1.0))
    z = _kernels.at_pitch(solid.heights, p0) + (math.sqrt(1.0 - down * down) - np.cos(theta)) / kappa
    return np.column_stack([x, z, pitch])


def clean_carry(solid: Solid, swing: Swing, row: Floats) -> float:
    """Carry [m] of a centre-face strike on turf with nothing between face and ball."""
    lean, attack = math.radians(swing.lean_deg), math.radians(swing.attack_deg)
    bx, bz, vt = _quality.clean_strike(
        solid.loft_in_plane - lean, attack, solid.in_plane, solid.mass, row[_kernels.GRIP], swing.speed
    )
    return float(carry_of(carry_table(), bx, bz, vt))


def best_level(head: Head, swing: Swing, ground: Turf | Sand) -> float:
    """The carry [m] in whose reach the longest run of entries lies: what a calibrated sand swing carries."""
    from oblatus.core.strike.window import strike_window

    return strike_window(head, swing, ground).level


def extrapolated(head: Head, swing: Swing) -> tuple[str, ...]:
    """What lies outside the range in which the model was calibrated."""
    found = []
    if not CALIBRATED_SPEED[0] <= swing.speed <= CALIBRATED_SPEED[1]:
        found.append("speed")
    if not CALIBRATED_LOFT_DEG[0] <= head.loft_deg <= CALIBRATED_LOFT_DEG[1]:
        found.append("loft")
    if swing.opening_deg > CALIBRATED_OPENING_DEG:
        found.append("opening")
    return tuple(found)
