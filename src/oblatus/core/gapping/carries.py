"""Carry of a club with a swing, for a player of whom one carry or speed is known."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core import words
from oblatus.core.delivery import FULL_SWING_EXTRA_LEAN_DEG, Player
from oblatus.core.flight import REFERENCE_AIR, Air, Delivery, Flight, Green, Launch, fly_ball, strike_ball
from oblatus.core.flight import _lanes as flight_lanes
from oblatus.core.flight.impact import HEAD_MASS, LIE_FRICTION, LIE_SPEED_FACTOR, RESTITUTION, LieClass
from oblatus.core.flight.trajectory import STEP
from oblatus.errors import fault

Floats = NDArray[np.float64]

SPEED_PER_DEGREE = 0.003
"""Share of head speed lost per degree of loft below the pitching wedge (judgement, from usual wedge speeds)."""

SPEED_PER_DEGREE_ABOVE = 0.006
"""Share gained per degree stronger than the pitching wedge (published tour rows: 85 against 83 mph over 4 degrees)."""

ASSUMED_PITCHING_WEDGE_CARRY = 105.0
LEAST_SPEED, MOST_SPEED = 8.0, 48.0
SPEED_ROUNDS = 3


@dataclass(frozen=True, slots=True)
class Swing:
    """A clock swing: head speed as a share of full, lean beyond the habit [degrees].

    `shot` is the one of the catalogue that it plays, `spellings` what files call it.
    """

    key: str
    name: str
    speed_share: float
    extra_lean_deg: float
    shot: str = "full"
    spellings: tuple[str, ...] = ()


SWINGS: tuple[Swing, ...] = (
    Swing("full", "full", 1.0, FULL_SWING_EXTRA_LEAN_DEG, "full", ("full", "full swing", "1/1", "100", "100%")),
    Swing("1030", "10:30", 0.88, 1.0, "swing_1030", ("10:30", "1030", "10.30", "3/4", "three quarter", "75%")),
    Swing("900", "9:00", 0.72, 0.0, "swing_900", ("9:00", "900", "9.00", "9", "1/2", "half", "50%")),
)
"""Speed shares are judgement until this player's own swings are measured."""


@dataclass(frozen=True, slots=True)
class Rung:
    """One club with one swing: the delivery behind it, its launch and its flight."""

    loft_deg: float
    swing: str
    delivery: Delivery
    launch: Launch
    flight: Flight


@dataclass(frozen=True, slots=True)
class CarryModel:
    """How far this player's clubs carry: head speed of the full pitching wedge [m/s], loft, lean and attack [degrees].

    `swings` are the clock swings with this player's shares, the full swing first; `friction` of ball on a dry face,
    `restitution` and `speed_per_degree` (share of head speed lost per degree weaker) stand at the usual values
    until strikes say otherwise.
    """

    speed: float
    pitching_wedge_loft_deg: float
    lean_deg: float
    attack_deg: float
    assumed: bool
    swings: tuple[Swing, ...] = SWINGS
    friction: float = LIE_FRICTION["dry"]
    restitution: float = RESTITUTION
    speed_per_degree: float = SPEED_PER_DEGREE

    def swing(self, key: str) -> Swing:
        """The swing with this key.

        Raises
        ------
        InputError
            If there is none.
        """
        found = next((swing for swing in self.swings if swing.key == key), None)
        if found is None:
            raise fault("swing", f"must be one of {', '.join(swing.key for swing in self.swings)}", key)
        return found

    def full_speeds(self, lofts_deg: Sequence[float] | Floats) -> Floats:
        """Full head speed [m/s] of every loft (n,)."""
        degrees = np.asarray(lofts_deg, dtype=float) - self.pitching_wedge_loft_deg
        return self.speed * (1.0 - np.where(degrees > 0.0, self.speed_per_degree, SPEED_PER_DEGREE_ABOVE) * degrees)

    def delivery(self, loft_deg: float, swing: Swing, lie: LieClass = "dry") -> Delivery:
        """The club at impact for a static loft and a swing, from a lie: dry, damp, wet, light_rough, heavy_rough."""
        slide = LIE_FRICTION[lie] / LIE_FRICTION["dry"]
        return Delivery(
            speed=float(self.full_speeds([loft_deg])[0]) * swing.speed_share * LIE_SPEED_FACTOR[lie],
            dynamic_loft_deg=loft_deg - self.lean_deg - swing.extra_lean_deg,
            attack_deg=self.attack_deg,
            friction=self.friction * slide,
            restitution=self.restitution,
        )

    def rung(
        self,
        loft_deg: float,
        swing: Swing | None = None,
        air: Air = REFERENCE_AIR,
        green: Green | None = None,
        lie: LieClass = "dry",
    ) -> Rung:
        """Launch and flight of one club with one swing, the full one if none is named."""
        swing = swing or self.swings[0]
        delivery = self.delivery(loft_deg, swing, lie)
        launch = strike_ball(delivery)
        return Rung(loft_deg, swing.key, delivery, launch, fly_ball(launch, air, green))

    def carries(self, lofts_deg: Sequence[float] | Floats, swings: Sequence[Swing] | None = None) -> Floats:
        """Carry [m] of every loft with every swing in still air: (lofts, swings)."""
        return self.flights(lofts_deg, swings)[:, :, 0]

    def flights(self, lofts_deg: Sequence[float] | Floats, swings: Sequence[Swing] | None = None) -> Floats:
        """Of every loft with every swing in still air (lofts, swings, 6): see `flight._lanes.carries`."""
        swings = self.swings if swings is None else swings
        lofts = np.asarray(lofts_deg, dtype=float)
        shares = np.array([swing.speed_share for swing in swings])
        extra = np.array([swing.extra_lean_deg for swing in swings])
        dynamic = np.radians(lofts[:, None] - self.lean_deg - extra[None, :])
        speeds = (self.full_speeds(lofts)[:, None] * shares).ravel()
        out = square_flights(speeds, dynamic.ravel(), self.attack_deg, self.friction, self.restitution)
        return out.reshape(*dynamic.shape, -1)


def fit_carry_model(player: Player, pitching_wedge_loft_deg: float) -> CarryModel:
    """The player's carry model from one known carry or head speed of the pitching wedge.

    With a carry, the head speed is the root of the flight model; with neither, a usual carry is assumed and marked.

    Raises
    ------
    InputError
        If no head speed between 8 and 48 m/s gives the carry.
    """
    habit = player.habit
    lean, attack = habit.lean_deg.mean, habit.attack_deg.mean
    if player.pitching_wedge_carry is None and player.pitching_wedge_speed is not None:
        return CarryModel(player.pitching_wedge_speed, pitching_wedge_loft_deg, lean, attack, assumed=False)
    carry = player.pitching_wedge_carry or ASSUMED_PITCHING_WEDGE_CARRY
    dynamic = math.radians(pitching_wedge_loft_deg - habit.full_lean_deg)

    def carried(speeds: Floats) -> Floats:
        return square_flights(speeds, np.full(len(speeds), dynamic), attack)[:, 0]

    least, most = carried(np.array([LEAST_SPEED, MOST_SPEED]))
    if least > carry or most < carry:
        raise fault(
            "player.pitching_wedge_carry_m",
            f"no head speed between {words.speed(LEAST_SPEED, 0)} and {words.speed(MOST_SPEED, 0)} carries a "
            f"{pitching_wedge_loft_deg:g} degree club that far at this lean; is the unit right, and the swing a full "
            "one?",
            f"{carry:g}",
        )
    low, high, speed = LEAST_SPEED, MOST_SPEED, 0.0
    # as many speeds as fly side by side at once: each round narrows the range to one step of the last
    for _ in range(SPEED_ROUNDS):
        speeds = np.linspace(low, high, flight_lanes.LANES)
        found = carried(speeds)
        speed = float(np.interp(carry, found, speeds))
        at = min(max(int(np.searchsorted(found, carry)), 1), len(speeds) - 1)
        low, high = float(speeds[at - 1]), float(speeds[at])
    return CarryModel(speed, pitching_wedge_loft_deg, lean, attack, assumed=player.pitching_wedge_carry is None)


def square_flights(
    speeds: Floats,
    dynamic_lofts: Floats,
    attack_deg: float,
    friction: float | Floats = LIE_FRICTION["dry"],
    restitution: float | Floats = RESTITUTION,
    air: Air = REFERENCE_AIR,
) -> Floats:
    """Square strikes (n,), speed [m/s] and dynamic loft [rad], in still air: (n, 6), see `flight._lanes.carries`.

    `friction` and `restitution` are the same for all, or one each (n,).
    """
    n = len(speeds)
    out = np.empty((n, 6))
    flight_lanes.carries(
        speeds, dynamic_lofts, np.full(n, math.radians(attack_deg)), np.full(n, friction), HEAD_MASS,
        np.full(n, restitution), air.density, air.viscosity, STEP, out,
    )  # fmt: skip
    return out
