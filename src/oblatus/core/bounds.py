"""The range in which each input means something. Outside it the input is refused, never clamped."""

from __future__ import annotations

import math
from dataclasses import dataclass

from oblatus.core.words import limits, quantity, trimmed
from oblatus.errors import Fault, InputError


@dataclass(frozen=True, slots=True)
class Bound:
    """Closed range [low, high] of an input and the unit in which it is typed; a share may be typed in per cent."""

    low: float
    high: float
    unit: str
    percent: bool = False

    def words(self) -> str:
        """The range in words, for an error message; whoever reads it reads their own units."""
        if self.unit in ("m", "m/s"):
            return f"must be between {limits(self.low, self.high, self.unit)}"
        times, unit = (100.0, "%") if self.percent else (1.0, self.unit)
        low, high = trimmed(times * self.low, 6), trimmed(times * self.high, 6)
        return f"must be between {low} and {f'{high}°' if unit == 'degrees' else quantity(high, unit) if unit else high}"


IMPACT = {
    "club_speed_mps": Bound(2, 50, "m/s"),
    "dynamic_loft_deg": Bound(10, 75, "degrees"),
    "attack_deg": Bound(-20, 10, "degrees"),
    "face_deg": Bound(-45, 45, "degrees"),
    "path_deg": Bound(-30, 30, "degrees"),
    "friction": Bound(0.02, 0.6, ""),
    "head_mass_kg": Bound(0.15, 0.5, "kg"),
    "strike_offset_mm": Bound(-40, 40, "mm"),
}

FLIGHT = {
    "ball_speed_mps": Bound(1, 90, "m/s"),
    "launch_deg": Bound(-10, 85, "degrees"),
    "direction_deg": Bound(-90, 90, "degrees"),
    "spin_rpm": Bound(0, 16000, "rpm"),
    "axis_deg": Bound(-60, 60, "degrees"),
    "wind_head_mps": Bound(-25, 25, "m/s"),
    "wind_cross_mps": Bound(-25, 25, "m/s"),
    "temperature_c": Bound(-20, 50, "°C"),
    "altitude_m": Bound(-430, 4000, "m"),
    "humidity": Bound(0, 1, ""),
    "firmness": Bound(0, 1, ""),
    "stimp_ft": Bound(4, 16, "ft"),
}


def check(field: str, value: float, bound: Bound) -> float:
    """Return `value` as a float if it lies in `bound`.

    Raises
    ------
    InputError
        If it is not a finite number or lies outside; the fault names the field, the value and the range.
    """
    number = _as_number(value)
    if number is None or not bound.low <= number <= bound.high:
        raise InputError([Fault(field, bound.words(), str(value).removesuffix(".0"))])
    return number


def check_all(values: dict[str, float], bounds: dict[str, Bound]) -> None:
    """Check every value that has a bound; all faults are raised together.

    Raises
    ------
    InputError
        With one fault for each value outside its range.
    """
    faults: list[Fault] = []
    for field, value in values.items():
        try:
            check(field, value, bounds[field])
        except InputError as error:
            faults.extend(error.faults)
    if faults:
        raise InputError(faults)


def _as_number(value: object) -> float | None:
    if isinstance(value, bool) or not isinstance(value, (int, float)) or not math.isfinite(value):
        return None
    return float(value)
