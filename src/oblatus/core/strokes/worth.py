"""What a strike is worth: expected strokes of a distribution of balls at a hole. docs/models/strokes.md, section 3."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from oblatus.core.flight.tables import carry_table, height_table, run_table
from oblatus.core.grounds import GreenClass
from oblatus.core.shots import handicap_or_usual
from oblatus.core.strokes import _kernels, _rows
from oblatus.core.strokes.situations import LIP_CLEARANCE, Layout
from oblatus.core.strokes.table import LIES, TOUR_TABLE, StrokesTable, arrays_of

Floats = NDArray[np.float64]

FARTHEST = 160.0  # m
CELLS = int(FARTHEST / _kernels.CELL) + 1
NOISE = (0.030, 0.0013)
STOCK_NOISE = (0.020, 0.0008)
LATERAL = (0.035, 0.0012)
LATERAL_OPENING = 0.0006
LEAST_SCATTER = 0.015
SHORT_CODES = {"fringe": _kernels.SHORT_FRINGE, "rough": _kernels.SHORT_ROUGH, "sand": _kernels.SHORT_SAND}


@dataclass(frozen=True, slots=True)
class Scatter:
    """What a player's shots scatter besides the strike: speed of short shots and of stock swings, and direction.

    All are standard deviations as shares: of the speed, and of the distance.
    """

    speed: float
    stock_speed: float
    lateral: float

    @classmethod
    def usual(cls, handicap: float | None) -> Scatter:
        """The usual scatter of a handicap (12 when unknown), judgement."""
        h = handicap_or_usual(handicap)
        return cls(*(max(base + slope * h, LEAST_SCATTER) for base, slope in (NOISE, STOCK_NOISE, LATERAL)))

    @classmethod
    def measured(cls, usual: Scatter, speed: float | None, stock_speed: float | None) -> Scatter:
        """The usual scatter with the speeds' measured ones in its place, where there are any."""
        return cls(
            usual.speed if speed is None else max(speed, LEAST_SCATTER),
            usual.stock_speed if stock_speed is None else max(stock_speed, LEAST_SCATTER),
            usual.lateral,
        )

    def sideways(self, opening_deg: float) -> float:
        """Sideways scatter as a share of the distance with the face opened [degrees]."""
        return self.lateral + LATERAL_OPENING * abs(opening_deg)


@dataclass(frozen=True, slots=True)
class Balls:
    """Balls that strikes give: weights (n,), speeds [m/s], launch [degrees], backspin [rpm]; on_face, moved (n,) bool."""

    weights: Floats
    speeds: Floats
    launch_deg: Floats
    spin_rpm: Floats
    on_face: NDArray[np.bool_]
    moved: NDArray[np.bool_]

    @classmethod
    def of(cls, rows: Sequence[tuple[float, float, float, float] | tuple[float, None]]) -> Balls:
        """From (weight, speed, launch, spin), or (weight, None) for a ball that does not move; all on the face."""
        full = [(row[0], *(row[1:] if row[1] is not None else (0.0, 0.0, 0.0))) for row in rows]
        table = np.array(full, dtype=float)
        moved = np.array([row[1] is not None for row in rows])
        return cls(table[:, 0], table[:, 1], table[:, 2], table[:, 3], np.ones(len(rows), dtype=bool), moved)

    def rows(self) -> Floats:
        """The rows of the kernels."""
        from oblatus.core.flight._tables import SPIN_RADIUS

        out = np.empty((len(self.weights), _kernels.BALL_COLUMNS))
        for i in range(len(out)):
            a = math.radians(self.launch_deg[i])
            _kernels.put_ball(
                out[i], self.weights[i], self.speeds[i] * math.cos(a), self.speeds[i] * math.sin(a),
                self.spin_rpm[i] * math.pi / 30.0 * SPIN_RADIUS, bool(self.on_face[i]), bool(self.moved[i]),
            )  # fmt: skip
        return out


def in_fours(layouts: tuple[Layout, ...]) -> tuple[Layout, ...]:
    """The layouts, the last one again until the kernels' fours are full."""
    return (*layouts, *(-len(layouts) % _kernels.FOUR * layouts[-1:]))


@lru_cache(maxsize=32)
def rows_of(
    layouts: tuple[Layout, ...], sideways: float, handicap: float | None, table: StrokesTable = TOUR_TABLE
) -> tuple[Floats, Floats, Floats, Floats, Floats]:
    """Of p layouts the distance of hole and edge [m] (p,), strokes with this one counted every 0.125 m of total distance,
    short of the green and from its edge on (cells, p), and strokes of a miss (p,).

    `sideways` is the standard deviation of direction as a share of the distance: three-point Gauss-Hermite.
    """
    some = list(dict.fromkeys(layouts))  # what fills a four stands there again
    hole, edge, behind = (np.array([getattr(one, name) for one in some]) for name in ("hole", "edge", "behind"))
    short = np.array([SHORT_CODES[one.short] for one in some])
    own = np.array([LIES.index(one.own) for one in some])
    before, beyond, fail = np.empty((CELLS, len(some))), np.empty((CELLS, len(some))), np.empty(len(some))
    _rows.fill_rows(
        hole, edge, behind, math.sqrt(3.0) * sideways * hole, short, own, handicap_or_usual(handicap), *arrays_of(table),
        before, beyond, fail,
    )  # fmt: skip
    at = [some.index(one) for one in layouts]
    return hole[at], edge[at], np.take(before, at, axis=1), np.take(beyond, at, axis=1), fail[at]


def expected_strokes(
    balls: Balls,
    layout: Layout,
    handicap: float | None,
    green: GreenClass = "medium",
    *,
    noise: float = 0.0,
    sideways: float = 0.0,
    lip: tuple[float, float] | None = None,
    factor: float = 1.0,
    table: StrokesTable = TOUR_TABLE,
) -> float:
    """Expected strokes to hole out of one layout when the ball is struck like this, at a given aim.

    Parameters
    ----------
    noise, sideways : standard deviations of speed and of direction, as shares; 0 for none
    lip : height and distance [m] of a lip to clear
    factor : speed of all strikes as a share of what `balls` has
    """
    rows = balls.rows()
    _, edge, short, far, fail = rows_of(in_fours((layout,)), sideways, handicap, table)
    heights = np.empty((1, 1, 1)) if lip is None else height_table(lip[1])
    clear = 0.0 if lip is None else lip[0] + LIP_CLEARANCE
    total = 0.0
    nodes = ((0.0, 1.0),) if noise == 0.0 else ((0.0, 4 / 6), (-math.sqrt(3.0), 1 / 6), (math.sqrt(3.0), 1 / 6))
    room = np.empty((_kernels.ROOMS, _kernels.MOST_AIMS))
    face, every = np.empty((1, _kernels.SHORT_COLUMNS)), np.empty((1, _kernels.SHORT_COLUMNS))
    for z, weight in nodes:
        room[_kernels.FACTORS, 0] = factor * (1.0 + noise * z)
        _kernels.short_costs(
            rows, 1, edge, SHORT_CODES[layout.short], clear, heights, carry_table(), run_table(green), short, far, fail,
            room, face, every,
        )  # fmt: skip
        total += weight * float(every[0, 0])
    return total
