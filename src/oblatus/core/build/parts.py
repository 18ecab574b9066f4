"""Shafts and grips that the studio builds with: invented parts. docs/models/build.md, 3."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Flex = Literal["soft", "regular", "firm"]


@dataclass(frozen=True, slots=True)
class Shaft:
    """A shaft as it comes: mass [g] and length [in] uncut, balance point as a share of the length from the tip, price,
    how many the workshop usually keeps, and weeks until one is here that it has not."""

    code: str
    name: str
    flex: Flex
    mass_g: float
    length_in: float
    balance: float
    price: float
    usual_stock: int
    weeks: int


@dataclass(frozen=True, slots=True)
class Grip:
    """A grip: mass [g], length [in], balance point from its butt end [in], price, usual stock, weeks as for a shaft."""

    code: str
    name: str
    mass_g: float
    length_in: float
    balance_in: float
    price: float
    usual_stock: int
    weeks: int


SHAFTS = (
    Shaft("FS105", "Flint 105", "soft", 105.0, 37.0, 0.515, 24.0, 6, 1),
    Shaft("FR115", "Flint 115", "regular", 115.0, 37.0, 0.512, 26.0, 8, 1),
    Shaft("FF127", "Flint 127", "firm", 127.0, 37.0, 0.510, 28.0, 8, 1),
    Shaft("HZ85", "Hazel 85", "regular", 85.0, 37.0, 0.520, 46.0, 0, 3),
    Shaft("HZ95", "Hazel 95", "firm", 95.0, 37.0, 0.518, 48.0, 0, 3),
)
GRIPS = (
    Grip("CB50", "Cord 50", 50.0, 10.5, 4.1, 9.0, 12, 1),
    Grip("SB46", "Smooth 46", 46.0, 10.5, 4.1, 7.0, 12, 1),
    Grip("LG62", "Long 62", 62.0, 11.5, 4.6, 11.0, 6, 1),
    Grip("LT36", "Light 36", 36.0, 10.5, 4.1, 12.0, 0, 1),
)
SHAFT_OF = {shaft.code: shaft for shaft in SHAFTS}
GRIP_OF = {grip.code: grip for grip in GRIPS}
USUAL_SHELF = {part.code: part.usual_stock for part in (*SHAFTS, *GRIPS)}
"""How many of each part the workshop keeps until somebody counted."""
