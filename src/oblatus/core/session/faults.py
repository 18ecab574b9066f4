"""Faults named by rule, each with how many strikes show it and which picture does."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from oblatus.core.gapping.strikes import SAND_STATIONS, MeasuredStrike
from oblatus.core.session.table import Flags, StrikeTable, table_of
from oblatus.core.words import quantity

Picture = Literal["entries", "sole_pass", "set_plane"]

LEAST = 5
SHARE = 0.4
GROUND_FIRST = -0.055
SCATTERED_TURF, SCATTERED_SAND = 0.022, 0.035
EARLY_LEAN_DEG = -1.0
SAND_BOUNCE_DEG = 4.0
BOUNCE_PER_OPENING = 0.4
"""30 degrees of opening add about 12 degrees of bounce (bench rule)."""


@dataclass(frozen=True, slots=True)
class Fault:
    """A fault: what it is, the rule, how many of how many strikes show it, and the picture that shows it."""

    key: str
    words: str
    rule: str
    shown: int
    of: int
    picture: Picture
    strikes: tuple[str, ...]


def find_faults(
    strikes: Sequence[MeasuredStrike] | StrikeTable, bounce_deg: Mapping[str, float], opening_deg: Mapping[str, float]
) -> tuple[Fault, ...]:
    """Faults of the strikes that count. `bounce_deg` by club code; `opening_deg` the usual opening by station.

    A fault needs five strikes that could show it, and 40 % that do (the scatter of entries: its spread).
    """
    table = strikes if isinstance(strikes, StrikeTable) else table_of(strikes)
    in_sand = table.swings.among(SAND_STATIONS)
    turf, sand = table.counts & ~in_sand, table.counts & in_sand
    partial = turf & ~table.swings.among(["full"])  # a full swing leans the shaft and is meant to
    lean, entry = table.leans()[0], table.figures["entry"]
    leans = np.isfinite(lean)
    bounce = table.clubs.valued(bounce_deg, np.nan)
    opened = BOUNCE_PER_OPENING * table.swings.valued(opening_deg, 0.0)
    known = leans & np.isfinite(bounce)
    found = [
        _share(
            "ground_first", "ground before ball", "the sole lands more than 55 mm behind the ball's centre, off turf",
            "entries", table, turf & np.isfinite(entry), entry < GROUND_FIRST,
        ),
        _share(
            "handle_ahead", "handle ahead beyond the bounce", "shaft lean takes more than the bounce: the edge digs",
            "sole_pass", table, partial & known, lean > bounce,
        ),
        _share(
            "early_release", "hands passed early", "the shaft leans back by more than a degree at the ball, face square",
            "set_plane", table, partial & leans, lean < EARLY_LEAN_DEG,
        ),
        _share(
            "edge_in_sand", "edge first in sand", "less than 4 degrees of bounce reach the sand after lean and opening",
            "set_plane", table, sand & known, bounce + opened - lean < SAND_BOUNCE_DEG,
        ),
        _scatter("entry_scattered", "the sole lands anywhere", table, turf, SCATTERED_TURF),
        _scatter("sand_scattered", "the sole enters the sand anywhere", table, sand, SCATTERED_SAND),
    ]  # fmt: skip
    return tuple(fault for fault in found if fault is not None)


def _share(
    key: str, words: str, rule: str, picture: Picture, table: StrikeTable, able: Flags, bad: Flags
) -> Fault | None:
    shown, of = int((able & bad).sum()), int(able.sum())
    if of < LEAST or shown < SHARE * of:
        return None
    return Fault(key, words, rule, shown, of, picture, table.ids_where(able & bad))


def _scatter(key: str, words: str, table: StrikeTable, mine: Flags, limit: float) -> Fault | None:
    """Entries whose spread is beyond a limit; those farther than the limit from their middle show it."""
    entry = table.figures["entry"]
    known = mine & np.isfinite(entry)
    values = entry[known]
    if len(values) < LEAST or values.std(ddof=1) <= limit:
        return None
    far = known & (np.abs(entry - float(np.median(values))) > limit)
    rule = f"entries spread by more than {quantity(f'{1000 * limit:.0f}', 'mm')}"
    return Fault(key, words, rule, int(far.sum()), len(values), "entries", table.ids_where(far))
