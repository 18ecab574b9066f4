"""Expected strokes: the one currency of a set. The table from a lie, situations and pins, and what one strike is worth."""

from oblatus.core.strokes.situations import PINS, Layout, Pin, pins_of
from oblatus.core.strokes.table import LIES, TOUR_TABLE, Lie, StrokesTable
from oblatus.core.strokes.worth import Balls, Scatter, expected_strokes

__all__ = [
    "LIES",
    "PINS",
    "TOUR_TABLE",
    "Balls",
    "Layout",
    "Lie",
    "Pin",
    "Scatter",
    "StrokesTable",
    "expected_strokes",
    "pins_of",
]
