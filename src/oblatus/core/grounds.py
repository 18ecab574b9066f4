"""Grounds: turf, sand, lips and greens, with the classes used when there are no readings."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from oblatus.core.bounds import Bound, check_all
from oblatus.errors import fault

TurfClass = Literal["soft", "medium", "firm", "baked"]
SandClass = Literal["loose", "medium", "firm", "packed"]
GreenClass = Literal["soft", "medium", "firm"]
Lie = Literal["bare", "tight", "fairway", "lush", "sitting_up"]

BOUNDS = {
    "firmness_g": Bound(20, 250, "g"),
    "turf_moisture": Bound(0, 1, ""),
    "root_density": Bound(0.3, 2, ""),
    "ball_height_mm": Bound(0, 30, "mm"),
    "penetrometer_kg_cm2": Bound(0.8, 4, "kg/cm2"),
    "loose_depth_mm": Bound(0, 300, "mm"),
    "sand_moisture": Bound(0, 1, ""),
    "plug_depth_mm": Bound(0, 25, "mm"),
    "lip_height_m": Bound(0, 6, "m"),
    "lip_distance_m": Bound(0.5, 40, "m"),
}

TURF_CLASS_G: dict[TurfClass, float] = {"soft": 55.0, "medium": 85.0, "firm": 125.0, "baked": 160.0}
"""Firmness assumed for a class without a reading [g]; class limits are 65, 105 and 145 g."""

SAND_CLASS_KG_CM2: dict[SandClass, float] = {"loose": 1.6, "medium": 2.0, "firm": 2.3, "packed": 2.6}
"""Penetrometer reading assumed for a class; class limits are 1.8, 2.2 and 2.4 kg/cm2."""

BALL_HEIGHT: dict[Lie, float] = {
    "bare": 0.0005,
    "tight": 0.001,
    "fairway": 0.0035,
    "lush": 0.008,
    "sitting_up": 0.016,
}
"""Ball bottom above the soil by lie [m]."""

THIN_SAND_DEPTH = 0.040


def turf_class(firmness_g: float) -> TurfClass:
    """Class of a drop-hammer reading [g]: soft under 65, medium to 105, firm to 145, baked above."""
    if firmness_g < 65.0:
        return "soft"
    if firmness_g <= 105.0:
        return "medium"
    return "firm" if firmness_g <= 145.0 else "baked"


def sand_class(penetrometer_kg_cm2: float) -> SandClass:
    """Class of a penetrometer reading [kg/cm2]: loose under 1.8, medium to 2.2, firm to 2.4, packed above."""
    if penetrometer_kg_cm2 < 1.8:
        return "loose"
    if penetrometer_kg_cm2 <= 2.2:
        return "medium"
    return "firm" if penetrometer_kg_cm2 <= 2.4 else "packed"


@dataclass(frozen=True, slots=True)
class Readings:
    """Several readings of one place: mean, spread (standard deviation, 0 of one reading) and count."""

    mean: float
    spread: float
    count: int


def summarise_readings(values: Sequence[float]) -> Readings:
    """Mean and spread of drops or pushes. All of them count: the ground is as uneven as they say.

    Raises
    ------
    InputError
        If there is none.
    """
    if not values:
        raise fault("readings", "at least one reading is needed")
    mean = math.fsum(values) / len(values)
    spread = math.sqrt(math.fsum((v - mean) ** 2 for v in values) / (len(values) - 1)) if len(values) > 1 else 0.0
    return Readings(mean, spread, len(values))


@dataclass(frozen=True, slots=True)
class Turf:
    """Turf: drop-hammer firmness [g], ball bottom above the soil [m], moisture 0..1, root density 0.5..1.5."""

    firmness_g: float = 85.0
    ball_height: float = 0.0035
    moisture: float = 0.5
    root_density: float = 1.0

    def __post_init__(self) -> None:
        check_all(
            {
                "firmness_g": self.firmness_g,
                "ball_height_mm": self.ball_height * 1000.0,
                "turf_moisture": self.moisture,
                "root_density": self.root_density,
            },
            BOUNDS,
        )


@dataclass(frozen=True, slots=True)
class Sand:
    """Sand: penetrometer [kg/cm2], loose depth over the base [m], moisture 0..1, ball's plug depth [m]."""

    penetrometer_kg_cm2: float = 2.0
    loose_depth: float = 0.080
    moisture: float = 0.3
    plug_depth: float = 0.003

    def __post_init__(self) -> None:
        check_all(
            {
                "penetrometer_kg_cm2": self.penetrometer_kg_cm2,
                "loose_depth_mm": self.loose_depth * 1000.0,
                "sand_moisture": self.moisture,
                "plug_depth_mm": self.plug_depth * 1000.0,
            },
            BOUNDS,
        )

    @property
    def thin_or_wet(self) -> bool:
        """Whether a sole meets a firm base early: little loose sand, packed, or wet."""
        return self.loose_depth < THIN_SAND_DEPTH or self.penetrometer_kg_cm2 > 2.4 or self.moisture > 0.7


@dataclass(frozen=True, slots=True)
class Ground:
    """One ground of the player's mix with its share of their golf (0..1)."""

    name: str
    share: float
    turf: Turf
    sand: Sand
    green: GreenClass = "medium"
    lip_height: float = 1.0
    lip_distance: float = 3.0
