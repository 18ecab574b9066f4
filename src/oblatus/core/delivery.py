"""How this player delivers the club: estimates with their spread, count and source, and the schools they follow."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from oblatus.core.bounds import Bound
from oblatus.core.figures import check_figures, figure

Source = Literal["measured", "typed", "assumed"]
Release = Literal["dragged", "level", "early"]
OpeningHabit = Literal["square", "when_needed", "always"]

RELEASE_RATE: dict[Release, float] = {"dragged": 0.3, "level": 1.0, "early": 1.7}
"""How fast lean unwinds through the ball, per effective arc radius."""

FULL_SWING_EXTRA_LEAN_DEG = 4.0
"""A full swing leans the shaft about this much more than a partial one (judgement; published lean 9 to 12 degrees)."""


@dataclass(frozen=True, slots=True)
class Estimate:
    """A habit: mean and standard deviation, from how many strikes (None when typed or assumed), and its source."""

    mean: float
    spread: float
    count: int | None = None
    source: Source = "assumed"


@dataclass(frozen=True, slots=True)
class Swing:
    """One swing of a strike: angles in degrees, speed [m/s], release rate, entry from the ball's centre [m].

    Raises
    ------
    InputError
        If a value is outside its range.
    """

    opening_deg: float = figure("opening_deg", "Opening", Bound(-20, 60, "degrees"), 0.0)
    lean_deg: float = figure("lean_deg", "Lean", Bound(-10, 20, "degrees"), 0.0)
    attack_deg: float = figure("attack_deg", "Attack", Bound(-15, 2, "degrees"), -5.0)
    speed: float = figure("speed_mps", "Head speed", Bound(4, 50, "m/s"), 20.0)
    release: float = figure("release", "Release", Bound(0, 3, ""), 1.0, where="more")
    entry: float = figure("entry_mm", "Entry", Bound(-200, 80, "mm"), -34.0, per=1000.0, places=0)

    def __post_init__(self) -> None:
        check_figures(self)


@dataclass(frozen=True, slots=True)
class Habit:
    """Delivery of partial swings. Angles in degrees, entry in m from the ball's centre (behind is negative).

    `correlations` are those of attack with lean, attack with entry and lean with entry, 0 until they are measured.
    """

    attack_deg: Estimate = Estimate(-5.0, 1.5)
    lean_deg: Estimate = Estimate(5.0, 2.0)
    entry: Estimate = Estimate(-0.034, 0.015)
    release: Release = "level"
    opening: OpeningHabit = "when_needed"
    correlations: tuple[float, float, float] = (0.0, 0.0, 0.0)

    @property
    def full_lean_deg(self) -> float:
        """Lean of a full swing [degrees]."""
        return self.lean_deg.mean + FULL_SWING_EXTRA_LEAN_DEG


@dataclass(frozen=True, slots=True)
class Schools:
    """The fitter's choice where good practitioners differ; "measured" fits the habit as it is."""

    tight_firm: Literal["measured", "use_sole", "use_edge"] = "measured"
    tight_soft: Literal["measured", "brush", "same_swing"] = "measured"
    sand_opening: Literal["measured", "always_open", "square"] = "measured"
    sand_club: Literal["measured", "most_loft", "most_bounce"] = "measured"
    long_sand: Literal["measured", "blast", "clip"] = "measured"
    hands: Literal["measured", "quiet", "free"] = "measured"
    arc: Literal["measured", "wide", "early_set"] = "measured"
    clubs: Literal["club_per_shot", "favourite"] = "club_per_shot"
    gaps: Literal["equal_carry", "equal_loft", "clock_cover"] = "equal_carry"


@dataclass(frozen=True, slots=True)
class Player:
    """The player as the engine sees them. One of pitching-wedge carry [m] and speed [m/s] is given."""

    habit: Habit = field(default_factory=Habit)
    handicap: float | None = None
    pitching_wedge_carry: float | None = None
    pitching_wedge_speed: float | None = None
    wedge_count: int | None = None
    schools: Schools = field(default_factory=Schools)
    shot_mix: dict[str, float] | None = None
