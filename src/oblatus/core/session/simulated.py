"""Strikes of a described player, made by the strike and flight engines with scatter and measuring noise."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from oblatus.core.clubs import Head
from oblatus.core.flight import Launch, fly_ball
from oblatus.core.grounds import Sand, Turf
from oblatus.core.strike import Swing, strike

NOISE = {
    "attack_deg": 0.3,
    "lean_deg": 0.4,
    "entry": 0.002,
    "speed": 0.01,
    "ball_speed": 0.01,
    "launch_deg": 0.3,
    "spin": 0.02,
}
LEAST_BALL_SPEED = 3.5


@dataclass(frozen=True, slots=True)
class Described:
    """A player with a club on a ground: means and spreads in degrees, entry [m], head speed [m/s]."""

    head: Head
    ground: Turf | Sand
    opening_deg: float
    attack: tuple[float, float]
    lean: tuple[float, float]
    entry: tuple[float, float]
    speed: float
    release: float = 1.0
    tiring: float = 0.0


def simulate_strike(player: Described, number: int, rng: np.random.Generator) -> dict[str, float]:
    """The `number`th strike as a monitor would tell it; a ball that hardly moves has no ball figures.

    `tiring` adds degrees of attack a strike, steeper when negative.
    """
    attack = float(np.clip(rng.normal(player.attack[0] + player.tiring * number, player.attack[1]), -15.0, -0.3))
    lean = float(np.clip(rng.normal(*player.lean), -9.0, 19.0))
    entry = float(np.clip(rng.normal(*player.entry), -0.19, 0.03))
    speed = float(np.clip(player.speed * rng.normal(1.0, 0.02), 4.0, 50.0))
    hit = strike(player.head, Swing(player.opening_deg, lean, attack, speed, player.release, entry), player.ground)
    found = {
        "attack_deg": attack + float(rng.normal(0, NOISE["attack_deg"])),
        "lean_deg": lean + float(rng.normal(0, NOISE["lean_deg"])),
        "entry_mm": 1000.0 * (entry + float(rng.normal(0, NOISE["entry"]))),
        "club_speed_mps": speed * float(rng.normal(1.0, NOISE["speed"])),
        "dynamic_loft_deg": hit.delivered_loft_deg + float(rng.normal(0, 0.4)),
    }
    if hit.contact != "none" and hit.ball_speed > LEAST_BALL_SPEED:
        ball = hit.ball_speed * float(rng.normal(1.0, NOISE["ball_speed"]))
        launch = float(np.clip(hit.launch_deg + rng.normal(0, NOISE["launch_deg"]), 0.5, 74.0))
        spin = float(np.clip(hit.spin_rpm * rng.normal(1.0, NOISE["spin"]), 210.0, 15_900.0))
        flight = fly_ball(Launch(ball, launch, 0.0, spin, 0.0))
        found |= {
            "impact_height_mm": float(np.clip(1000.0 * hit.impact_height + rng.normal(0, 1.0), -9.0, 69.0)),
            "ball_speed_mps": ball,
            "launch_deg": launch,
            "spin_rpm": spin,
            "carry_m": max(flight.carry, 1.0),
            "apex_m": flight.apex,
            "landing_deg": max(flight.landing_deg, 0.0),
        }
    return {name: round(value, 2) for name, value in found.items() if math.isfinite(value)}
