"""Measured strikes: how the club came and what the ball did, with which club and swing."""

from __future__ import annotations

from dataclasses import dataclass

from oblatus.core.bounds import Bound, check_all

BOUNDS = {
    "loft_deg": Bound(34, 68, "degrees"),
    "carry_m": Bound(1, 200, "m"),
    "club_speed_mps": Bound(3, 55, "m/s"),
    "ball_speed_mps": Bound(3, 75, "m/s"),
    "launch_deg": Bound(-5, 75, "degrees"),
    "spin_rpm": Bound(200, 16000, "rpm"),
    "apex_m": Bound(0, 60, "m"),
    "landing_deg": Bound(0, 89, "degrees"),
    "attack_deg": Bound(-25, 15, "degrees"),
    "lean_deg": Bound(-25, 35, "degrees"),
    "entry_mm": Bound(-250, 120, "mm"),
    "dynamic_loft_deg": Bound(10, 85, "degrees"),
    "impact_height_mm": Bound(-10, 70, "mm"),
}

SHORT_STATIONS = ("pitch", "chip", "sand", "practice")
"""Stations beside the clock swings: their strikes tell the habit and not the carries."""


@dataclass(frozen=True, slots=True)
class MeasuredStrike:
    """One strike: club and its loft [degrees] when it was hit, swing or station, and whatever was measured.

    Carry and apex [m], speeds [m/s], angles [degrees], spin [rpm], entry [m] from the ball's centre (behind negative),
    impact height above the leading edge [m]. `set_aside` is the reason why it does not count, if any: such a strike is
    kept and shown, never used.

    Raises
    ------
    InputError
        If a value is outside its range.
    """

    id: str
    club: str
    loft_deg: float
    swing: str
    carry: float | None
    club_speed: float | None = None
    ball_speed: float | None = None
    launch_deg: float | None = None
    spin_rpm: float | None = None
    apex: float | None = None
    landing_deg: float | None = None
    set_aside: str | None = None
    attack_deg: float | None = None
    lean_deg: float | None = None
    entry: float | None = None
    dynamic_loft_deg: float | None = None
    impact_height: float | None = None

    def __post_init__(self) -> None:
        values = {
            "loft_deg": self.loft_deg,
            "carry_m": self.carry,
            "club_speed_mps": self.club_speed,
            "ball_speed_mps": self.ball_speed,
            "launch_deg": self.launch_deg,
            "spin_rpm": self.spin_rpm,
            "apex_m": self.apex,
            "landing_deg": self.landing_deg,
            "attack_deg": self.attack_deg,
            "lean_deg": self.lean_deg,
            "entry_mm": None if self.entry is None else 1000.0 * self.entry,
            "dynamic_loft_deg": self.dynamic_loft_deg,
            "impact_height_mm": None if self.impact_height is None else 1000.0 * self.impact_height,
        }
        check_all({name: value for name, value in values.items() if value is not None}, BOUNDS)

    @property
    def counts(self) -> bool:
        """Whether it is used."""
        return self.set_aside is None
