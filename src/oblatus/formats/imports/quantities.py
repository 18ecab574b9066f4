"""What a column can hold, in which units, and by which names files call it."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass

from oblatus.core.gapping.strikes import STRIKE_FIGURES
from oblatus.formats.strikes import MEASURED
from oblatus.units import METRES_PER_FOOT, METRES_PER_SECOND_PER_MPH, METRES_PER_YARD

NO_RESULT = "\x00formula"
"""Stands in a cell whose formula has no result saved with it."""

RANGE = {"m": 1.0, "yd": METRES_PER_YARD, "ft": METRES_PER_FOOT}
SPEED = {"m/s": 1.0, "mph": METRES_PER_SECOND_PER_MPH, "km/h": 1.0 / 3.6, "ft/s": METRES_PER_FOOT}
ANGLE = {"deg": 1.0, "rad": 180.0 / math.pi}
SPIN = {"rpm": 1.0, "rad/s": 30.0 / math.pi, "rev/s": 60.0}
SHORT = {"mm": 1.0, "cm": 10.0, "in": 25.4}


def _both_ways(units: dict[str, float], other: str) -> dict[str, float]:
    """Units as they are, and with the sign counted the other way."""
    return units | {f"{name}, {other}": -factor for name, factor in units.items()}


@dataclass(frozen=True, slots=True)
class Field:
    """A field of a strike: what it is called here, names in files, units with factors to the field's own unit."""

    label: str
    names: tuple[str, ...]
    units: dict[str, float] | None = None


UNITS: dict[str, dict[str, float]] = {
    "carry_m": RANGE, "club_speed_mps": SPEED, "ball_speed_mps": SPEED, "launch_deg": ANGLE, "spin_rpm": SPIN,
    "apex_m": RANGE, "landing_deg": ANGLE, "attack_deg": _both_ways(ANGLE, "down positive"),
    "lean_deg": _both_ways(ANGLE, "back positive"), "entry_mm": _both_ways(SHORT, "behind positive"),
    "dynamic_loft_deg": ANGLE, "impact_height_mm": SHORT, "exit_mm": SHORT, "mark_back_mm": SHORT, "mark_toe_mm": SHORT,
    "loft_deg": ANGLE,
}  # fmt: skip
"""Units that files have figures in."""

ALSO_CALLED: dict[str, tuple[str, ...]] = {
    "carry_m": ("carry distance", "carry dist", "carry length", "flugweite", "vuelo"),
    "club_speed_mps": (
        "club speed", "club head speed", "clubhead speed", "schlägerkopfgeschwindigkeit",
    ),
    "ball_speed_mps": ("ball velocity", "ballgeschwindigkeit"),
    "launch_deg": ("launch angle", "launch ang", "vertical launch angle", "abflugwinkel"),
    "spin_rpm": ("spin rate", "backspin", "back spin", "total spin", "spinrate"),
    "apex_m": ("height", "peak height", "max height", "maximum height"),
    "landing_deg": ("landing angle", "land angle", "descent", "descent angle", "angle of descent"),
    "attack_deg": ("attack angle", "angle of attack", "aoa", "attack ang", "eintreffwinkel"),
    "lean_deg": ("lean", "handle lean", "shaft lean at impact"),
    "entry_mm": ("entry point", "turf entry", "sand entry", "low point", "strike point"),
    "dynamic_loft_deg": ("dyn loft", "delivered loft", "loft at impact"),
    "impact_height_mm": ("impact height", "vertical impact", "face height", "vertical face impact"),
    "exit_mm": ("exit", "exit point", "sand exit"),
    "mark_back_mm": ("mark back",),
    "mark_toe_mm": ("mark toe",),
    "loft_deg": ("club loft", "static loft"),
}  # fmt: skip
"""Names in files beside the one that a figure has here."""


def _figure(key: str) -> Field:
    label = STRIKE_FIGURES[key].words.lower()
    return Field(label, (label, *ALSO_CALLED.get(key, ())), UNITS[key])


FIELDS: dict[str, Field] = {
    "club": Field("club", ("club", "club name", "club type", "clubs", "schläger", "club used", "klubba", "palo")),
    "swing": Field("swing", ("swing", "clock", "clock swing", "shot type", "shot", "station")),
    **{key: _figure(key) for key in (*MEASURED, "loft_deg")},
    "divot": Field("divot", ("divot", "divot depth")),
    "set_aside": Field("set aside", ("set aside", "excluded", "reason")),
    "note": Field("note", ("note", "notes", "comment", "comments", "remark", "remarks")),
    "simulated": Field("simulated", ("simulated",)),
    "id": Field("id", ("id", "uuid", "strike id")),
}
USUAL_UNITS = {
    key: next(iter(units)) for key, units in UNITS.items() if key not in ("carry_m", "apex_m") and units is not SPEED
}
"""The unit of a column that states none, where everybody uses one; the others have to be said."""

SPELLINGS = {
    "m": ("m", "meter", "meters", "metre", "metres"),
    "yd": ("yd", "yds", "yard", "yards", "y"),
    "ft": ("ft", "foot", "feet", "'"),
    "m/s": ("m/s", "mps", "ms", "m s", "metres per second"),
    "mph": ("mph", "mi/h", "miles per hour"),
    "km/h": ("km/h", "kmh", "kph", "kmph"),
    "ft/s": ("ft/s", "fps"),
    "deg": ("deg", "°", "degree", "degrees", "º", "grad"),
    "rad": ("rad", "radians"),
    "rpm": ("rpm", "r/min", "u/min", "1/min", "rev/min"),
    "rad/s": ("rad/s",),
    "rev/s": ("rev/s", "rps", "hz"),
    "mm": ("mm", "millimetres", "millimeters"),
    "cm": ("cm", "centimetres"),
    "in": ("in", "inch", "inches", '"', "″"),
}
UNIT_OF = {word: unit for unit, words in SPELLINGS.items() for word in words}


def plain_name(text: str) -> tuple[str, str | None]:
    """A header's name without marks and case, and the unit it states after a bracket, comma or slash, if it does."""
    words = text.replace("_", " ").strip()
    unit = None
    bracket = re.search(r"[\[({]\s*([^\])}]*?)\s*[\])}]", words)
    if bracket is not None:
        unit = unit_named(bracket.group(1))
        words = words[: bracket.start()] + words[bracket.end() :]
    else:
        tail = re.match(r"(.*?)(?:,\s*|\s+in\s+|\s*/\s+|\s+-\s+|\s+)([^\s,]+)$", words)
        if tail is not None and unit_named(tail.group(2)) is not None and tail.group(1).strip():
            words, unit = tail.group(1), unit_named(tail.group(2))
    return re.sub(r"[\W]+", " ", words.casefold()).strip(), unit


def unit_named(text: str) -> str | None:
    """The unit that a word stands for."""
    return UNIT_OF.get(text.strip().casefold().rstrip("."))
