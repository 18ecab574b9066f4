"""The risk light of a shot: the chance of a bad miss, weighed by what it costs."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from oblatus.core.words import metres, percent

Light = Literal["clear", "careful", "leave it"]

CAREFUL_ABOVE = 0.10
LEAVE_ABOVE = 0.25
BOUNDS = f"clear up to {percent(CAREFUL_ABOVE)}, careful up to {percent(LEAVE_ABOVE)}"
COSTS = {"bladed": 2.0, "dug": 1.0, "slid-under": 1.0, "left-in": 1.0, "long": 1.0, "thin": 0.25}
LOFTED_DEG = 58.0
LOFTED_FACTOR = 1.5
BLADED_FARTHER = 2.5
"""A bladed lofted club goes two to three times the intended distance."""


@dataclass(frozen=True, slots=True)
class Risk:
    """The light, the weighed chance behind it, and the rule in words."""

    light: Light
    weight: float
    rule: str


def weight_of(shares: Mapping[str, float], loft_deg: float) -> float:
    """The chance of each bad miss, weighed by its cost.

    Bladed 2 (3 from 58 degrees of loft); dug, slid under, left in and long 1; thin a quarter.
    """
    blade = COSTS["bladed"] * (LOFTED_FACTOR if loft_deg >= LOFTED_DEG else 1.0)
    return sum(shares.get(name, 0.0) * (blade if name == "bladed" else cost) for name, cost in COSTS.items())


def risk_of(shares: Mapping[str, float], loft_deg: float, carry: float) -> Risk:
    """The light by `weight_of`: clear up to 10 %, careful up to 25 %, else leave it."""
    weight = weight_of(shares, loft_deg)
    light: Light = "clear" if weight <= CAREFUL_ABOVE else "careful" if weight <= LEAVE_ABOVE else "leave it"
    worst = max(COSTS, key=lambda name: shares.get(name, 0.0) * COSTS[name])
    chance = shares.get(worst, 0.0)
    rule = f"chance of a bad miss {percent(weight)}, weighed by what it costs ({BOUNDS})"
    if chance >= 0.005:
        rule += f"; most of it {worst}, {percent(chance)} of strikes"
        if worst == "bladed":
            rule += f", about {metres(BLADED_FARTHER * carry)} instead of {metres(carry)}"
    return Risk(light, weight, rule)
