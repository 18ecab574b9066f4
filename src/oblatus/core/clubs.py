"""The club head: its static geometry, its stock, and how far it may be bent."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from oblatus.core.bounds import Bound
from oblatus.core.figures import check_figures, figure
from oblatus.errors import Fault, InputError

Make = Literal["forged", "cast"]

BEND_LIMIT_DEG: dict[Make, float] = {"forged": 3.0, "cast": 1.0}
"""Usual safe bend either way; the maker's limit and a trained bench hand decide."""

DRIFT_MATTERS_DEG = 0.5
"""A loft off its stamp by less is called as stamped (judgement: gauges read to about a quarter of a degree)."""

SLIM_BELOW = 0.017
BROAD_ABOVE = 0.022


LEAST_SOLE = 0.2
"""Share of the sole that bevel and relief leave at least."""


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

    loft_deg: float = figure("loft_deg", "Loft", Bound(40, 68, "degrees"), where="none", short="Loft", flag="loft")
    bounce_deg: float = figure("bounce_deg", "Bounce", Bound(0, 20, "degrees"), short="Bounce", flag="bounce")
    sole_width: float = figure(
        "sole_width_mm", "Sole width", Bound(10, 32, "mm"), 20.0, per=1000.0, short="Width", flag="width"
    )
    camber_radius: float = figure(
        "camber_radius_mm", "Camber radius", Bound(20, 400, "mm"), 50.0, per=1000.0, short="Camber", flag="camber"
    )
    leading_edge_radius: float = figure(
        "leading_edge_radius_mm", "Nose radius", Bound(0.5, 6, "mm"), 2.5, per=1000.0, where="more",
        flag="leading-edge-radius",
    )  # fmt: skip
    front_bevel: float = figure(
        "front_bevel_mm", "Front bevel, length", Bound(0, 8, "mm"), 0.0, per=1000.0, where="more", flag="front-bevel"
    )
    front_bevel_deg: float = figure(
        "front_bevel_deg", "Front bevel, angle", Bound(0, 20, "degrees"), 0.0, where="more", flag="front-bevel-angle"
    )
    trailing_relief_fraction: float = figure(
        "trailing_relief_fraction",
        "Back relief, share",
        Bound(0, 0.6, ""),
        0.0,
        percent=True,
        places=0,
        short="Back",
        flag="trailing-relief",
    )
    trailing_relief_deg: float = figure(
        "trailing_relief_deg", "Back relief, angle", Bound(0, 25, "degrees"), 0.0, flag="trailing-relief-angle"
    )
    heel_relief: float = figure(
        "heel_relief_mm", "Heel relief", Bound(0, 4, "mm"), 0.0, per=1000.0, short="Heel", flag="heel-relief"
    )
    toe_relief: float = figure(
        "toe_relief_mm", "Toe relief", Bound(0, 4, "mm"), 0.0, per=1000.0, short="Toe", flag="toe-relief"
    )
    lie_deg: float = figure("lie_deg", "Lie", Bound(56, 70, "degrees"), 64.0, flag="lie")
    mass: float = figure("head_mass_kg", "Head mass", Bound(0.25, 0.36, "kg"), 0.30, places=3, where="more", flag="mass")

    def __post_init__(self) -> None:
        check_figures(self)
        if self.front_bevel + self.trailing_relief_fraction * self.sole_width > (1.0 - LEAST_SOLE) * self.sole_width:
            words = "front bevel and back relief leave less than a fifth of the sole"
            raise InputError([Fault("front_bevel_mm", words)])

    def bent(self, change_deg: float) -> Head:
        """The head bent weaker (positive) or stronger: bounce follows loft degree for degree.

        Raises
        ------
        InputError
            If the bend would leave bounce or loft outside their range.
        """
        return replace(self, loft_deg=self.loft_deg + change_deg, bounce_deg=self.bounce_deg + change_deg)

    def cut(self, corners: tuple[float, float], back: tuple[float, float], bevel: tuple[float, float]) -> Head:
        """The head with more taken off heel and toe [m], back relief (share, degrees) and front bevel (m, degrees) at
        least so large.

        Raises
        ------
        InputError
            If the parts cannot exist together.
        """
        return replace(
            self,
            heel_relief=self.heel_relief + corners[0],
            toe_relief=self.toe_relief + corners[1],
            trailing_relief_fraction=max(self.trailing_relief_fraction, back[0]),
            trailing_relief_deg=max(self.trailing_relief_deg, back[1]),
            front_bevel=max(self.front_bevel, bevel[0]),
            front_bevel_deg=max(self.front_bevel_deg, bevel[1]),
        )

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
