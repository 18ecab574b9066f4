"""Quantities inside sentences: kept as numbers until it is known who reads them.

A sentence of `core` holds a mark for each distance and speed, and one between any other figure and its unit; `worded`
puts the reader's figures and gaps in their place. The shell and files read SI, a screen what its fitter reads.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from datetime import date
from decimal import ROUND_HALF_UP, Decimal

from oblatus.units import METRES_PER_SECOND_PER_MPH, METRES_PER_YARD, DistanceUnit, SpeedUnit

OPEN, CLOSE, GAP = "\ue000", "\ue001", "\ue002"
"""Characters for private use, that nobody types."""
MARK = re.compile(f"{OPEN}(m|s|M|S) ([^ {CLOSE}]+) (?:([^ {CLOSE}]+) )?(\\d){CLOSE}")


@dataclass(frozen=True, slots=True)
class Reader:
    """The units of who reads: metres or yards, m/s or mph; and what stands between a figure and its unit."""

    distance: DistanceUnit = "m"
    speed: SpeedUnit = "mps"
    gap: str = " "


SI = Reader()
ONE_LINE = "\u00a0"
"""The gap on screens and paper: a figure and its unit stay on one line. In a shell it would be in the way of a search."""


MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sept", "Oct", "Nov", "Dec")


def day(on: date) -> str:
    """A day as the screens write it: 3 Oct 2026."""
    return f"{on.day} {MONTHS[on.month - 1]} {on.year}"


def metres(value: float, places: int = 0) -> str:
    """A distance [m] for a sentence, with so many decimals."""
    return f"{OPEN}m {value:.6g} {places}{CLOSE}"


def metres_span(low: float, high: float, places: int = 0) -> str:
    """Two distances [m] with one unit: 60–100 m."""
    return f"{OPEN}m {low:.6g} {high:.6g} {places}{CLOSE}"


def limits(low: float, high: float, unit: str, places: int = 1) -> str:
    """What lies between two distances [m] or speeds [m/s], for a sentence: 32.9 and 185.9 yd. Both are rounded to what
    lies between them, so that what is read is taken.
    """
    return f"{OPEN}{_LIMITS[unit]} {low:.6g} {high:.6g} {places}{CLOSE}"


def quantity(figure: str, unit: str) -> str:
    """A figure with a unit that all readers share, for a sentence."""
    return f"{figure}{GAP}{unit}"


def percent(share: float, places: int = 0) -> str:
    """A share of 1 as per cent, for a sentence."""
    return quantity(f"{100 * share:.{places}f}", "%")


def counted(count: int, one: str, several: str = "") -> str:
    """So many of something: 1 strike, 2 strikes; `several` where that is not `one` with an s."""
    return f"{count} {one if count == 1 else several or one + 's'}"


def speed(value: float, places: int = 1) -> str:
    """A speed [m/s] for a sentence."""
    return f"{OPEN}s {value:.6g} {places}{CLOSE}"


def worded(text: str, reader: Reader = SI) -> str:
    """The text with every mark in the reader's units."""
    text = text.replace(GAP, reader.gap)
    if OPEN not in text:
        return text

    def said(mark: re.Match[str]) -> str:
        kind, one, other, places = mark.groups()
        per, unit = _UNITS[kind.lower(), reader.distance if kind in "mM" else reader.speed]
        if kind in "MS":
            low, high = (inward(float(value) / per, int(places)) for value, inward in ((one, _up), (other, _down)))
            return f"{low} and {high}{reader.gap}{unit}"
        figures = "–".join(decimals(float(value) / per, int(places)) for value in (one, other) if value is not None)
        return f"{figures}{reader.gap}{unit}"

    return MARK.sub(said, text)


def shortened(text: str, most: int) -> str:
    """So many characters of a text at most; a mark in it stays whole or goes."""
    if len(text) <= most:
        return text
    cut = text[: most - 1]
    return (cut if cut.count(OPEN) == cut.count(CLOSE) else cut[: cut.rindex(OPEN)]) + "…"


LONGEST = 1e21
"""From here on a browser writes powers of ten (ECMA-262, 21.1.3.3), and so do we; no figure of ours is near."""


def decimals(value: float, places: int = 0) -> str:
    """A figure with so many decimals, a true minus, no negative zero: as a browser writes it, so that a sentence, a print
    and a screen have one figure of one value.

    An exact half goes away from zero, as in ECMAScript's toFixed (ECMA-262, 21.1.3.3); Python's own goes to the even.
    """
    if not abs(value) < LONGEST:
        return repr(float(value)).replace("-", "−")
    shown = f"{Decimal(value).quantize(Decimal(1).scaleb(-places), ROUND_HALF_UP):f}"
    return shown.replace("-", "") if float(shown) == 0.0 else shown.replace("-", "−")


def trimmed(value: float, places: int = 1) -> str:
    """As `decimals`, without decimals that say nothing."""
    shown = decimals(value, places)
    return shown.rstrip("0").rstrip(".") if "." in shown and "e" not in shown else shown


def _up(value: float, places: int) -> str:
    return trimmed(math.ceil(round(value * 10**places, 6)) / 10**places, places)


def _down(value: float, places: int) -> str:
    return trimmed(math.floor(round(value * 10**places, 6)) / 10**places, places)


_LIMITS = {"m": "M", "m/s": "S"}
_UNITS = {
    ("m", "m"): (1.0, "m"),
    ("m", "yd"): (METRES_PER_YARD, "yd"),
    ("s", "mps"): (1.0, "m/s"),
    ("s", "mph"): (METRES_PER_SECOND_PER_MPH, "mph"),
}
