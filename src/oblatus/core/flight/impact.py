"""Impact: from club delivery to ball launch."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal, get_args

from oblatus.core.bounds import FLIGHT, IMPACT, check_all
from oblatus.core.flight import _kernels

LieClass = Literal["dry", "damp", "wet", "light_rough", "heavy_rough"]
"""What lies between face and ball."""
LIE_CLASSES: tuple[LieClass, ...] = get_args(LieClass)

LIE_FRICTION: dict[LieClass, float] = {"dry": 0.285, "damp": 0.22, "wet": 0.17, "light_rough": 0.14, "heavy_rough": 0.09}
"""Ball on face friction by lie: dry is fitted to partial wedges, the others are judgement (docs/models/flight.md)."""

LIE_SPEED_FACTOR: dict[LieClass, float] = {"dry": 1.0, "damp": 1.0, "wet": 1.0, "light_rough": 1.0, "heavy_rough": 0.95}
"""What grass drag leaves of the head speed."""

HEAD_MASS = 0.30
GYRATION_RADIUS = 0.027
RESTITUTION = 0.875


@dataclass(frozen=True, slots=True)
class Delivery:
    """The club at impact.

    Parameters
    ----------
    speed : head speed [m/s]
    dynamic_loft_deg : loft that the face presents [degrees]
    attack_deg : vertical direction of the head, down is negative [degrees]
    face_deg, path_deg : directions right of the target [degrees]
    friction : ball on face friction coefficient
    head_mass : head with a little of the shaft tip [kg]
    strike_offset : strike towards toe or heel of the centre [m]
    restitution : normal restitution at vanishing speed
    """

    speed: float
    dynamic_loft_deg: float
    attack_deg: float = -5.0
    face_deg: float = 0.0
    path_deg: float = 0.0
    friction: float = LIE_FRICTION["dry"]
    head_mass: float = HEAD_MASS
    strike_offset: float = 0.0
    restitution: float = RESTITUTION

    def __post_init__(self) -> None:
        check_all(
            {
                "club_speed_mps": self.speed,
                "dynamic_loft_deg": self.dynamic_loft_deg,
                "attack_deg": self.attack_deg,
                "face_deg": self.face_deg,
                "path_deg": self.path_deg,
                "friction": self.friction,
                "head_mass_kg": self.head_mass,
                "strike_offset_mm": self.strike_offset * 1000.0,
            },
            IMPACT,
        )


@dataclass(frozen=True, slots=True)
class Launch:
    """The ball just after impact: speed [m/s], launch and direction [degrees], spin [rpm].

    `axis_deg` is the tilt of the spin axis [degrees]; positive curves the ball right.
    """

    ball_speed: float
    launch_deg: float
    direction_deg: float
    spin_rpm: float
    axis_deg: float

    def __post_init__(self) -> None:
        check_all(
            {
                "ball_speed_mps": self.ball_speed,
                "launch_deg": self.launch_deg,
                "direction_deg": self.direction_deg,
                "spin_rpm": self.spin_rpm,
                "axis_deg": self.axis_deg,
            },
            FLIGHT,
        )

    def vectors(self) -> tuple[float, float, float, float, float, float]:
        """Velocity (3) [m/s] and spin (3) [rad/s] in the frame x downrange, y up, z right."""
        up, right, tilt = (math.radians(a) for a in (self.launch_deg, self.direction_deg, self.axis_deg))
        spin = self.spin_rpm * 2.0 * math.pi / 60.0
        vh = self.ball_speed * math.cos(up)
        # right' is horizontal and square to the start; up' completes the frame of the flight
        rx, rz = -math.sin(right), math.cos(right)
        ux, uy, uz = -math.sin(up) * math.cos(right), math.cos(up), -math.sin(up) * math.sin(right)
        c, s = math.cos(tilt), math.sin(tilt)
        return (
            vh * math.cos(right),
            self.ball_speed * math.sin(up),
            vh * math.sin(right),
            spin * (c * rx - s * ux),
            -spin * s * uy,
            spin * (c * rz - s * uz),
        )


def strike_ball(delivery: Delivery) -> Launch:
    """Launch of a centred or off-centre strike.

    Normal impulse with restitution falling with speed, tangential impulse between gripping and Coulomb sliding.
    Valid for dynamic loft 15 to 70 degrees and head speed 8 to 40 m/s.

    References
    ----------
    Penner, Am. J. Phys. 69 (2001) 563; Maw, Barber & Fawcett, Wear 38 (1976) 101; docs/models/flight.md section 1.
    """
    vx, vy, vz, wx, wy, wz = _kernels.impact(
        delivery.speed,
        math.radians(delivery.dynamic_loft_deg),
        math.radians(delivery.attack_deg),
        math.radians(delivery.face_deg),
        math.radians(delivery.path_deg),
        delivery.friction,
        delivery.head_mass,
        delivery.strike_offset,
        GYRATION_RADIUS,
        delivery.restitution,
    )
    vh = math.hypot(vx, vz)
    speed = math.hypot(vh, vy)
    right = (-vz / vh, 0.0, vx / vh)
    up = (-right[2] * vy / speed, (right[2] * vx - right[0] * vz) / speed, right[0] * vy / speed)
    tilt = math.atan2(-(wx * up[0] + wy * up[1] + wz * up[2]), wx * right[0] + wz * right[2])
    spin = math.sqrt(wx * wx + wy * wy + wz * wz) * 60.0 / (2.0 * math.pi)
    return Launch(speed, math.degrees(math.atan2(vy, vh)), math.degrees(math.atan2(vz, vx)), spin, math.degrees(tilt))
