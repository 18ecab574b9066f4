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
    "exit_mm": Bound(-200, 500, "mm"),
    "mark_back_mm": Bound(0, 35, "mm"),
    "mark_toe_mm": Bound(-50, 50, "mm"),
}

FIELDS = (
    ("loft_deg", "loft_deg", 1.0), ("carry_m", "carry", 1.0), ("club_speed_mps", "club_speed", 1.0),
    ("ball_speed_mps", "ball_speed", 1.0), ("launch_deg", "launch_deg", 1.0), ("spin_rpm", "spin_rpm", 1.0),
    ("apex_m", "apex", 1.0), ("landing_deg", "landing_deg", 1.0), ("attack_deg", "attack_deg", 1.0),
    ("lean_deg", "lean_deg", 1.0), ("entry_mm", "entry", 1000.0), ("dynamic_loft_deg", "dynamic_loft_deg", 1.0),
    ("impact_height_mm", "impact_height", 1000.0), ("exit_mm", "exit", 1000.0),
    ("mark_back_mm", "mark_back", 1000.0), ("mark_toe_mm", "mark_toe", 1000.0),
)  # fmt: skip
"""Names of the bounds, fields of a strike, and the scale from the field's unit to the bound's."""

SHORT_STATIONS = ("pitch", "chip", "sand", "practice")
"""Stations beside the clock swings: their strikes tell the habit and not the carries."""


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
    exit: float | None = None
    mark_back: float | None = None
    mark_toe: float | None = None

    def __post_init__(self) -> None:
        # a fitting can hold 100,000 strikes, made anew for every question: each is looked through once, quickly
        for name, field, scale in FIELDS:
            value = getattr(self, field)
            if value is None:
                continue
            bound = BOUNDS[name]
            if type(value) is not float or not bound.low <= scale * value <= bound.high:
                self._check()
                return

    def _check(self) -> None:
        values = {name: getattr(self, field) for name, field, _ in FIELDS}
        scales = {name: scale for name, _, scale in FIELDS}
        check_all({name: scales[name] * value for name, value in values.items() if value is not None}, BOUNDS)

    @property
    def counts(self) -> bool:
        """Whether it is used."""
        return self.set_aside is None
