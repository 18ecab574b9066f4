"""What a column can hold, in which units, and by which names files call it."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass

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


FIELDS: dict[str, Field] = {
    "club": Field("club", ("club", "club name", "club type", "clubs", "schläger", "club used", "klubba", "palo")),
    "swing": Field("swing", ("swing", "clock", "clock swing", "shot type", "shot", "station")),
    "carry_m": Field(
        "carry", ("carry", "carry distance", "carry dist", "carry length", "flugweite", "vuelo"), RANGE
    ),
    "club_speed_mps": Field(
        "head speed",
        ("club speed", "head speed", "club head speed", "clubhead speed", "schlägerkopfgeschwindigkeit"),
        SPEED,
    ),
    "ball_speed_mps": Field("ball speed", ("ball speed", "ball velocity", "ballgeschwindigkeit"), SPEED),
    "launch_deg": Field(
        "launch", ("launch", "launch angle", "launch ang", "vertical launch angle", "abflugwinkel"), ANGLE
    ),
    "spin_rpm": Field("spin", ("spin", "spin rate", "backspin", "back spin", "total spin", "spinrate"), SPIN),
    "apex_m": Field("apex", ("apex", "height", "peak height", "max height", "maximum height"), RANGE),
    "landing_deg": Field(
        "landing", ("landing", "landing angle", "land angle", "descent", "descent angle", "angle of descent"), ANGLE
    ),
    "attack_deg": Field(
        "attack", ("attack", "attack angle", "angle of attack", "aoa", "attack ang", "eintreffwinkel"),
        _both_ways(ANGLE, "down positive"),
    ),
    "lean_deg": Field(
        "shaft lean", ("lean", "shaft lean", "handle lean", "shaft lean at impact"), _both_ways(ANGLE, "back positive")
    ),
    "entry_mm": Field(
        "entry", ("entry", "entry point", "turf entry", "sand entry", "low point", "strike point"),
        _both_ways(SHORT, "behind positive"),
    ),
    "dynamic_loft_deg": Field("dynamic loft", ("dynamic loft", "dyn loft", "delivered loft", "loft at impact"), ANGLE),
    "impact_height_mm": Field(
        "contact height", ("contact height", "impact height", "vertical impact", "face height", "vertical face impact"),
        SHORT,
    ),
    "exit_mm": Field("exit from sand", ("exit", "exit point", "sand exit"), SHORT),
    "mark_back_mm": Field("mark behind the edge", ("mark back",), SHORT),
    "mark_toe_mm": Field("mark towards the toe", ("mark toe",), SHORT),
    "loft_deg": Field("loft", ("loft", "club loft", "static loft"), ANGLE),
    "divot": Field("divot", ("divot", "divot depth")),
    "set_aside": Field("set aside", ("set aside", "excluded", "reason")),
    "note": Field("note", ("note", "notes", "comment", "comments", "remark", "remarks")),
    "simulated": Field("simulated", ("simulated",)),
    "id": Field("id", ("id", "uuid", "strike id")),
}  # fmt: skip
USUAL_UNITS = {
    "launch_deg": "deg", "spin_rpm": "rpm", "landing_deg": "deg", "attack_deg": "deg", "lean_deg": "deg",
    "dynamic_loft_deg": "deg", "loft_deg": "deg", "entry_mm": "mm", "impact_height_mm": "mm", "exit_mm": "mm",
    "mark_back_mm": "mm", "mark_toe_mm": "mm",
}  # fmt: skip
"""The unit of a column that states none, where everybody uses one; the others have to be said."""
FIGURES = tuple(name for name, field in FIELDS.items() if field.units is not None and name != "loft_deg")

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
