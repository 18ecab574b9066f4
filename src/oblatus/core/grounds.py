"""Grounds: turf, sand, lips and greens, with the classes used when there are no readings."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from oblatus.core.bounds import Bound
from oblatus.core.figures import check_figures, figure, figures
from oblatus.errors import fault

Season = Literal["spring", "summer", "autumn", "winter"]
SEASON_OF_MONTH: tuple[Season, ...] = (
    "winter", "winter", "spring", "spring", "spring", "summer",
    "summer", "summer", "autumn", "autumn", "autumn", "winter",
)  # fmt: skip
"""In the north, January first."""
GreenClass = Literal["soft", "medium", "firm"]
Lie = Literal["bare", "tight", "fairway", "lush", "sitting_up"]

BALL_HEIGHT: Mapping[str, float] = {
    "bare": 0.0005,
    "tight": 0.001,
    "fairway": 0.0035,
    "lush": 0.008,
    "sitting_up": 0.016,
}
"""Ball bottom above the soil by lie [m]."""

THIN_SAND_DEPTH, WET_SAND = 0.040, 0.7
"""Less loose sand [m] or more moisture lets a sole meet the base early (judgement)."""


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

    firmness_g: float = figure("firmness_g", "Firmness", Bound(20, 250, "g"), 85.0, places=0)
    ball_height: float = figure("ball_height_mm", "Ball height", Bound(0, 30, "mm"), 3.5, per=1000.0)
    moisture: float = figure("moisture", "Moisture", Bound(0, 1, ""), 0.5, percent=True, places=0)
    root_density: float = figure("root_density", "Root density", Bound(0.3, 2, ""), 1.0)

    def __post_init__(self) -> None:
        check_figures(self)


@dataclass(frozen=True, slots=True)
class Sand:
    """Sand: penetrometer [kg/cm²], loose depth over the base [m], moisture 0..1, ball's plug depth [m]."""

    penetrometer_kg_cm2: float = figure("penetrometer_kg_cm2", "Penetrometer", Bound(0.8, 4, "kg/cm²"), 2.0, places=2)
    loose_depth: float = figure("loose_depth_mm", "Loose depth", Bound(0, 300, "mm"), 80.0, per=1000.0, places=0)
    moisture: float = figure("moisture", "Moisture", Bound(0, 1, ""), 0.3, percent=True, places=0)
    plug_depth: float = figure("plug_depth_mm", "Plugged by", Bound(0, 25, "mm"), 3.0, per=1000.0, where="none")

    def __post_init__(self) -> None:
        check_figures(self)

    @property
    def thin_or_wet(self) -> bool:
        """Whether a sole meets a firm base early: little loose sand, packed, or wet."""
        packed = SAND.class_of(self.penetrometer_kg_cm2).key == "packed"
        return packed or self.loose_depth < THIN_SAND_DEPTH or self.moisture > WET_SAND


@dataclass(frozen=True, slots=True)
class Ground:
    """One ground of the player's mix with its share of their golf (0..1)."""

    name: str
    share: float
    turf: Turf
    sand: Sand
    green: GreenClass = "medium"
    lip_height: float = figure("lip_height_m", "Bunker lip", Bound(0, 6, "m"), 1.0)
    lip_distance: float = figure("lip_distance_m", "Lip distance", Bound(0.5, 40, "m"), 3.0)

    def __post_init__(self) -> None:
        check_figures(self)

    def turf_at_lie(self, lie: Lie) -> Turf:
        """The turf with the ball as this lie has it."""
        return replace(self.turf, ball_height=BALL_HEIGHT[lie])


@dataclass(frozen=True, slots=True)
class GroundClass:
    """A class of readings: its key, how a fitter says it, where it ends, and the reading assumed when it was picked.

    A reading equal to `upto` belongs to the class where `with_end`, else to the next one.
    """

    key: str
    words: str
    upto: float
    usual: float
    with_end: bool = True


@dataclass(frozen=True, slots=True)
class Picked:
    """A figure picked by a word: its key, the document's field and its name, the words with the engine's values."""

    figure: str
    field: str
    words: str
    values: Mapping[str, float]
    usual: str


@dataclass(frozen=True, slots=True)
class SurfaceKind:
    """A kind of ground: what it is made of, the reading that tells its class, and the instrument that reads it.

    Parameters
    ----------
    key, words : name in documents and on screens
    made_of : the engine's dataclass, its figures in order
    reading : key of the figure that the instrument reads
    readings, source : fields of the document that hold single readings and where the figure comes from
    readings_words : name of the single readings on a screen
    instrument, instrument_figure : kind of instrument, None where nothing reads it yet, and what it calls the figure
    classes : in order, the last one open
    picked : figure that is picked by a word instead of typed
    """

    key: str
    words: str
    made_of: type
    reading: str
    readings: str
    source: str
    readings_words: str
    instrument: str | None
    instrument_figure: str
    classes: tuple[GroundClass, ...]
    picked: Picked | None = None

    def class_of(self, reading: float) -> GroundClass:
        """The class of a reading."""
        for one in self.classes:
            if reading < one.upto or (one.with_end and reading == one.upto):
                return one
        return self.classes[-1]


TURF = SurfaceKind(
    key="turf", words="Turf", made_of=Turf, reading="firmness_g", readings="readings_g", source="firmness_source",
    readings_words="Drops, g", instrument="hammer", instrument_figure="peak_g",
    classes=(
        GroundClass("soft", "soft", 65.0, 55.0, with_end=False), GroundClass("medium", "medium", 105.0, 85.0),
        GroundClass("firm", "firm", 145.0, 125.0), GroundClass("baked", "baked", math.inf, 160.0),
    ),
    picked=Picked("ball_height_mm", "lie", "Lie", BALL_HEIGHT, "fairway"),
)  # fmt: skip
SAND = SurfaceKind(
    key="sand", words="Sand", made_of=Sand, reading="penetrometer_kg_cm2", readings="readings_kg_cm2",
    source="penetrometer_source", readings_words="Pushes, kg/cm²", instrument="penetrometer",
    instrument_figure="pressure_kg_cm2",
    classes=(
        GroundClass("loose", "plugs easily", 1.8, 1.6, with_end=False),
        GroundClass("medium", "plugs moderately", 2.2, 2.0), GroundClass("firm", "plugs little", 2.4, 2.3),
        GroundClass("packed", "hardly ever plugs", math.inf, 2.6),
    ),
)  # fmt: skip
SURFACES: dict[str, SurfaceKind] = {kind.key: kind for kind in (TURF, SAND)}
"""Every kind of ground that a ball lies on, by its key; docs/models/strike.md has the laws and sources."""


def kind_of(surface: Turf | Sand) -> SurfaceKind:
    """The kind of a ground."""
    return next(kind for kind in SURFACES.values() if isinstance(surface, kind.made_of))


def reading_of(surface: Turf | Sand) -> float:
    """What the instrument of its kind reads of a ground, in the instrument's unit."""
    kind = kind_of(surface)
    record = figures(kind.made_of)[kind.reading]
    return float(getattr(surface, record.attribute) * record.per)


def assumed(kind: SurfaceKind, class_key: str) -> float:
    """The reading assumed for a class."""
    return next(one.usual for one in kind.classes if one.key == class_key)


def upper_end(kind: SurfaceKind, class_key: str) -> float:
    """The reading at which a class ends."""
    return next(one.upto for one in kind.classes if one.key == class_key)
