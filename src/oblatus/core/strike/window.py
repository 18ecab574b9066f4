"""The strike window: the entries that still give an acceptable shot."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.flight.tables import carry_table
from oblatus.core.grounds import Sand, Turf
from oblatus.core.strike import _kernels, _lanes, _quality
from oblatus.core.strike.ground_rows import ground_row
from oblatus.core.strike.single import LEAST_CARRY, OUTCOMES, Outcome, Swing, build_solid, clean_carry

Floats = NDArray[np.float64]

ENTRY_LOW, ENTRY_HIGH, ENTRY_STEP = -0.160, 0.070, 0.002


@dataclass(frozen=True, slots=True)
class Window:
    """Strike window of one head, swing and ground.

    `low` and `high` are entries [m] from the ball's centre, None if no entry plays; `open_ahead` says that the window
    reaches the end of the scan. `level` is the carry it is measured by: the clean one on turf, the best level in sand.
    `entries` (n,), `carries` (n,) [m], `outcomes` (n,) are the whole scan.
    """

    low: float | None
    high: float | None
    open_ahead: bool
    level: float
    entries: Floats
    carries: Floats
    outcomes: tuple[Outcome, ...]

    @property
    def width(self) -> float:
        """Width of the window [m]; 0 if no entry plays."""
        return 0.0 if self.low is None or self.high is None else self.high - self.low


def strike_window(head: Head, swing: Swing, ground: Turf | Sand) -> Window:
    """Scan the entries from 160 mm behind the ball's centre to 70 ahead; the swing's own entry does not matter.

    Turf: longest run with contact, impact higher than -1 mm and carry within 0.85 to 1.12 of the clean one.
    Sand: longest run of entries whose carries fit in one level +-25 %, no stop, no low edge strike.
    """
    solid = build_solid(head, swing.opening_deg)
    kind, row = ground_row(ground)
    entries = np.arange(ENTRY_LOW, ENTRY_HIGH + 1e-9, ENTRY_STEP)
    rows = np.empty((_lanes.ROWS, _lanes.LANES, _lanes.COLUMNS), dtype=np.float32)
    sole, face, edge = (np.ascontiguousarray(part, dtype=np.float32) for part in (solid.sole, solid.face, solid.edge))
    _lanes.family(
        kind, sole, face, edge, solid.heights, solid.loft_in_plane, solid.mass, row, swing.speed, swing.release, rows
    )
    strikes = np.empty((len(entries), 7))
    lean, attack = math.radians(swing.lean_deg), math.radians(swing.attack_deg)
    _quality.scan(
        kind, rows, solid.heights, solid.leads, solid.loft_in_plane, solid.in_plane, solid.mass, row,
        _kernels.CONTACTS[kind], lean, attack, swing.speed, swing.release, carry_table(), entries, strikes,
    )  # fmt: skip
    if kind == _kernels.TURF:
        level = max(clean_carry(solid, swing, row), LEAST_CARRY)
        first, last = _quality.turf_window(entries, strikes, level)
        classes = [_quality.turf_class(int(s[0]), s[1], s[3], s[5], s[2] / level) for s in strikes]
    else:
        first, last, level = _quality.sand_window(entries, strikes)
        classes = [_quality.sand_class(int(s[0]), s[3], s[4], s[2] / max(level, LEAST_CARRY)) for s in strikes]
    found = first >= 0
    return Window(
        low=float(entries[first]) if found else None,
        high=float(entries[last]) if found else None,
        open_ahead=found and last == len(entries) - 1,
        level=float(level),
        entries=entries,
        carries=strikes[:, 2],
        outcomes=tuple(OUTCOMES[c] for c in classes),
    )
