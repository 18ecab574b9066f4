"""The club head: its static geometry, its stock, and how far it may be bent."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from oblatus.core.bounds import HEAD, check_all
from oblatus.errors import Fault, InputError

Make = Literal["forged", "cast"]

BEND_LIMIT_DEG: dict[Make, float] = {"forged": 3.0, "cast": 1.0}
"""Usual safe bend either way; the maker's limit and a trained bench hand decide."""

SLIM_BELOW = 0.017
BROAD_ABOVE = 0.022


@dataclass(frozen=True, slots=True)
class Head:
    """A wedge head at rest, shaft vertical. Lengths in m, angles in degrees.

    Parameters
    ----------
    loft_deg : face from vertical
    bounce_deg : fall of the sole from leading to trailing edge, tangent at mid sole
    sole_width : leading to trailing edge along the sole [m]
    camber_radius : radius of the sole, front to back [m]
    leading_edge_radius : nose radius [m]
    front_bevel, front_bevel_deg : length [m] and extra fall of a front bevel
    trailing_relief_fraction, trailing_relief_deg : share of the width ground off at the back, and by how much it turns up
    heel_relief, toe_relief : metal removed at the corner [m]
    lie_deg : shaft to ground, seen from down the line
    mass : head mass [kg]

    Raises
    ------
    InputError
        If a value is outside its range, or the parts cannot exist together.
    """

    loft_deg: float
    bounce_deg: float
    sole_width: float = 0.020
    camber_radius: float = 0.050
    leading_edge_radius: float = 0.0025
    front_bevel: float = 0.0
    front_bevel_deg: float = 0.0
    trailing_relief_fraction: float = 0.0
    trailing_relief_deg: float = 0.0
    heel_relief: float = 0.0
    toe_relief: float = 0.0
    lie_deg: float = 64.0
    mass: float = 0.30

    def __post_init__(self) -> None:
        check_all(
            {
                "loft_deg": self.loft_deg,
                "bounce_deg": self.bounce_deg,
                "sole_width_mm": self.sole_width * 1000.0,
                "camber_radius_mm": self.camber_radius * 1000.0,
                "leading_edge_radius_mm": self.leading_edge_radius * 1000.0,
                "front_bevel_mm": self.front_bevel * 1000.0,
                "front_bevel_deg": self.front_bevel_deg,
                "trailing_relief_fraction": self.trailing_relief_fraction,
                "trailing_relief_deg": self.trailing_relief_deg,
                "heel_relief_mm": self.heel_relief * 1000.0,
                "toe_relief_mm": self.toe_relief * 1000.0,
                "lie_deg": self.lie_deg,
                "head_mass_kg": self.mass,
            },
            HEAD,
        )
        ground_off = self.front_bevel + self.trailing_relief_fraction * self.sole_width
        if ground_off > 0.8 * self.sole_width:
            raise InputError([Fault("front_bevel_mm", "front bevel and back relief leave less than a fifth of the sole")])

    def bent(self, change_deg: float) -> Head:
        """The head bent weaker (positive) or stronger: bounce follows loft degree for degree.

        Raises
        ------
        InputError
            If the bend would leave bounce or loft outside their range.
        """
        return replace(self, loft_deg=self.loft_deg + change_deg, bounce_deg=self.bounce_deg + change_deg)

    def shape_words(self) -> str:
        """The sole in plain geometry: what was removed, and slim, regular or broad."""
        cut = self._cut_words()
        if self.sole_width < SLIM_BELOW:
            return f"{cut}, slim"
        return f"{cut}, broad" if self.sole_width > BROAD_ABOVE else f"{cut}, regular"

    def _cut_words(self) -> str:
        if self.front_bevel_deg >= 5.0 and self.trailing_relief_fraction > 0.0:
            return "two-plane"
        if self.heel_relief > 0.0 and self.toe_relief > 0.0:
            return "heel-and-toe-relieved"
        if self.heel_relief > 0.0:
            return "heel-relieved"
        if self.trailing_relief_fraction > 0.0:
            return "back-relieved"
        return "front-bevelled" if self.front_bevel > 0.0 else "full sole"


@dataclass(frozen=True, slots=True)
class StockHead:
    """A head that can be built: from the rack, or already in the player's bag.

    `bend_limit_deg` is how far it may be bent either way [degrees]; `stock` counts what is on the shelf; `price` is the
    studio's own, None if it states none.
    """

    code: str
    name: str
    head: Head
    make: Make = "forged"
    owned: bool = False
    stock: int = 1
    bend_limit_deg: float = 3.0
    price: float | None = None
