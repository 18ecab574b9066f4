"""Strokes to hole out from a lie at a distance: published tour averages, moved by handicap. docs/models/strokes.md."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal, get_args

import numpy as np
from numpy.typing import NDArray

from oblatus.core.bounds import Bound, check_all
from oblatus.core.shots import handicap_or_usual
from oblatus.core.strokes import _rows
from oblatus.errors import fault
from oblatus.units import METRES_PER_FOOT, METRES_PER_YARD

Floats = NDArray[np.float64]
Lie = Literal["green", "fringe", "fairway", "rough", "sand"]

LIES: tuple[Lie, ...] = get_args(Lie)
BOUNDS = {"handicap": Bound(-6, 54, ""), "distance_m": Bound(0, 200, "m")}


@dataclass(frozen=True, slots=True)
class StrokesTable:
    """Averages of a scratch tour player, and how a handicap moves them; a studio's own figures may stand in.

    `green` (feet, strokes), `yards` with `fairway`, `rough` and `sand` strokes; the `*_slope` are per stroke of handicap:
    the green's lengthens the putt, the others add strokes.
    """

    green_feet: tuple[float, ...]
    green: tuple[float, ...]
    yards: tuple[float, ...]
    fairway: tuple[float, ...]
    rough: tuple[float, ...]
    sand: tuple[float, ...]
    green_slope: float = 0.022
    green_per_metre: float = 0.0005
    fairway_slope: float = 0.018
    rough_slope: float = 0.023
    sand_slope: float = 0.034
    fringe_extra: float = 0.10
    fringe_slope: float = 0.004

    def strokes(self, lie: Lie, distance: Floats | float, handicap: float | None = None) -> Floats:
        """Expected strokes to hole out.

        Parameters
        ----------
        lie : green, fringe, fairway, rough or sand
        distance : to the hole [m], any shape
        handicap : 12 when unknown

        Raises
        ------
        InputError
            If there is no such lie.

        Notes
        -----
        Linear between the nodes and, with the slope of the last two, beyond them. Fringe is the green with a tenth and
        0.004 strokes a stroke of handicap more, never worse than fairway.
        """
        if lie not in LIES:
            raise fault("lie", f"must be one of {', '.join(LIES)}", lie)
        d = np.asarray(distance, dtype=float)
        out = np.empty(d.size)
        _rows.strokes_from(LIES.index(lie), d.ravel(), handicap_or_usual(handicap), *arrays_of(self), out)
        return out.reshape(d.shape)

    def checked(self, lie: str, distance: float, handicap: float | None) -> float:
        """`strokes` of one typed question; raises InputError at the field for what no course has."""
        values = {"distance_m": distance} | ({} if handicap is None else {"handicap": handicap})
        check_all(values, BOUNDS)
        return float(self.strokes(lie, distance, handicap))  # type: ignore[arg-type]


@lru_cache(maxsize=16)
def arrays_of(table: StrokesTable) -> tuple[Floats, Floats, Floats, Floats, Floats]:
    """A table as the kernels have it: nodes [m] and strokes of putts, nodes [m] and strokes from the other lies (3, n),
    numbers.
    """
    numbers = (
        table.green_slope, table.green_per_metre, table.fairway_slope, table.rough_slope, table.sand_slope,
        table.fringe_extra, table.fringe_slope,
    )  # fmt: skip
    parts = table.green_feet, table.green, table.yards, (table.fairway, table.rough, table.sand), numbers
    feet, green, yards, lies, told = (np.array(part, dtype=float) for part in parts)
    return feet * METRES_PER_FOOT, green, yards * METRES_PER_YARD, lies, told


TOUR_TABLE = StrokesTable(
    green_feet=(0, 2, 3, 4, 5, 6, 7, 8, 9, 10, 15, 20, 30, 40, 50, 60, 90, 130),
    green=(1.0, 1.009, 1.04, 1.13, 1.23, 1.34, 1.42, 1.50, 1.56, 1.61, 1.78, 1.87, 1.98, 2.06, 2.14, 2.21, 2.40, 2.64),
    yards=(0, 3, 10, 20, 30, 40, 60, 80, 100, 140),
    fairway=(2.02, 2.06, 2.18, 2.40, 2.52, 2.60, 2.70, 2.75, 2.80, 2.91),
    rough=(2.10, 2.17, 2.34, 2.59, 2.70, 2.78, 2.91, 2.96, 3.02, 3.15),
    sand=(2.30, 2.36, 2.43, 2.53, 2.66, 2.82, 3.15, 3.23, 3.25, 3.30),
)
"""Tour averages, from memory of the published ones (sand beyond 60 yards smoothed so that it rises)."""
