"""Measured strikes: how the club came and what the ball did, with which club and swing."""

from __future__ import annotations

from dataclasses import dataclass

from oblatus.core.bounds import Bound
from oblatus.core.figures import check_figures, figure, figures
from oblatus.core.shots import BY_KEY

WANTED_STRIKES = 5
"""Strikes that a session plans for a swing or station where it says nothing else."""


@dataclass(frozen=True, slots=True)
class Station:
    """A place beside the clock swings: its strikes tell the habit and not the carries.

    `shot` is the one of the catalogue that is hit there, `speed` a usual head speed [m/s], `wanted` how many strikes are
    planned, `habit` whether they belong to the partial swings whose habit is taken over, `spellings` what files call it.
    """

    key: str
    name: str
    shot: str
    speed: float
    wanted: int = WANTED_STRIKES
    habit: bool = True
    spellings: tuple[str, ...] = ()


STATIONS = (
    Station("pitch", "pitch", "pitch", 20.0, spellings=("pitch", "pitching")),
    Station("chip", "chip", "chip", 13.0, spellings=("chip", "chipping")),
    Station("sand", "sand", "sand_greenside", 22.0, habit=False, spellings=("sand", "bunker")),
    Station("practice", "practice swing", "pitch", 20.0, wanted=10, spellings=("practice", "practice swing", "no ball")),
)
SHORT_STATIONS = tuple(station.key for station in STATIONS)
SAND_STATIONS = tuple(station.key for station in STATIONS if BY_KEY[station.shot].kind == "sand")


@dataclass(frozen=True, slots=True)
class MeasuredStrike:
    """One strike: club and its loft [degrees] when it was hit, swing or station, and whatever was measured.

    Carry and apex [m], speeds [m/s], angles [degrees], spin [rpm], entry [m] from the ball's centre (behind negative),
    impact height above the leading edge [m], exit from the sand as the entry [m], mark on the sole behind the leading
    edge and from its middle towards the toe [m]. `set_aside` is the reason why it does not count, if any: such a strike
    is kept and shown, never used.

    Raises
    ------
    InputError
        If a value is outside its range.
    """

    id: str
    club: str
    loft_deg: float = figure("loft_deg", "Loft", Bound(34, 68, "degrees"))
    swing: str = "full"
    carry: float | None = figure("carry_m", "Carry", Bound(1, 200, "m"), optional=True)
    club_speed: float | None = figure("club_speed_mps", "Head speed", Bound(3, 55, "m/s"), optional=True)
    ball_speed: float | None = figure("ball_speed_mps", "Ball speed", Bound(3, 75, "m/s"), optional=True)
    launch_deg: float | None = figure("launch_deg", "Launch", Bound(-5, 75, "degrees"), optional=True)
    spin_rpm: float | None = figure("spin_rpm", "Spin", Bound(200, 16000, "rpm"), places=0, optional=True)
    apex: float | None = figure("apex_m", "Apex", Bound(0, 60, "m"), optional=True)
    landing_deg: float | None = figure("landing_deg", "Landing", Bound(0, 89, "degrees"), optional=True)
    set_aside: str | None = None
    attack_deg: float | None = figure("attack_deg", "Attack", Bound(-25, 15, "degrees"), optional=True)
    lean_deg: float | None = figure("lean_deg", "Shaft lean", Bound(-25, 35, "degrees"), optional=True)
    entry: float | None = figure("entry_mm", "Entry", Bound(-250, 120, "mm"), per=1000.0, places=0, optional=True)
    dynamic_loft_deg: float | None = figure("dynamic_loft_deg", "Dynamic loft", Bound(10, 85, "degrees"), optional=True)
    impact_height: float | None = figure(
        "impact_height_mm", "Contact height", Bound(-10, 70, "mm"), per=1000.0, places=0, optional=True
    )
    exit: float | None = figure("exit_mm", "Exit from sand", Bound(-200, 500, "mm"), per=1000.0, places=0, optional=True)
    mark_back: float | None = figure(
        "mark_back_mm", "Mark behind the edge", Bound(0, 35, "mm"), per=1000.0, places=0, optional=True
    )
    mark_toe: float | None = figure(
        "mark_toe_mm", "Mark towards the toe", Bound(-50, 50, "mm"), per=1000.0, places=0, optional=True
    )

    def __post_init__(self) -> None:
        # a fitting can hold 100,000 strikes, made anew for every question: each is looked through once, quickly
        for field, per, low, high in _LIMITS:
            value = getattr(self, field)
            if value is not None and (type(value) is not float or not low <= per * value <= high):
                check_figures(self)
                return

    @property
    def counts(self) -> bool:
        """Whether it is used."""
        return self.set_aside is None


STRIKE_FIGURES = figures(MeasuredStrike)
"""What can be measured of a strike, and the club's loft, by their keys."""
_LIMITS = tuple((f.attribute, f.per, f.bound.low, f.bound.high) for f in STRIKE_FIGURES.values())
