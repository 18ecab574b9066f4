"""The sole through turf and sand: resistance laws, one pass, outcome, strike window, expected quality."""

from oblatus.core.strike.families import FamilyPool
from oblatus.core.strike.family_jobs import Block, FamilyJob
from oblatus.core.strike.ground_rows import ground_row
from oblatus.core.strike.single import OUTCOMES, PRODUCTION, REFERENCE, Solid, StrikeResult, Swing, build_solid, strike
from oblatus.core.strike.window import Window, strike_window

__all__ = [
    "OUTCOMES",
    "PRODUCTION",
    "REFERENCE",
    "Block",
    "FamilyJob",
    "FamilyPool",
    "Solid",
    "StrikeResult",
    "Swing",
    "Window",
    "build_solid",
    "ground_row",
    "strike",
    "strike_window",
]
