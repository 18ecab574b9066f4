"""Faults named by rule, each with how many strikes show it and which picture does."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from oblatus.core.gapping.strikes import SAND_STATIONS, MeasuredStrike
from oblatus.core.session.summary import inferred_lean
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
    strikes: Sequence[MeasuredStrike], bounce_deg: Mapping[str, float], opening_deg: Mapping[str, float]
) -> tuple[Fault, ...]:
    """Faults of the strikes that count. `bounce_deg` by club code; `opening_deg` the usual opening by station.

    A fault needs five strikes that could show it, and 40 % that do (the scatter of entries: its spread).
    """
    counting = [strike for strike in strikes if strike.counts]
    turf = [strike for strike in counting if strike.swing not in SAND_STATIONS]
    sand = [strike for strike in counting if strike.swing in SAND_STATIONS]
    partial = [strike for strike in turf if strike.swing != "full"]  # a full swing leans the shaft and is meant to

    def opened(strike: MeasuredStrike) -> float:
        return BOUNCE_PER_OPENING * opening_deg.get(strike.swing, 0.0)

    found = [
        _share(
            "ground_first", "ground before ball", "the sole lands more than 55 mm behind the ball's centre, off turf",
            "entries", [s for s in turf if s.entry is not None], lambda s: s.entry is not None and s.entry < GROUND_FIRST,
        ),
        _share(
            "handle_ahead", "handle ahead beyond the bounce", "shaft lean takes more than the bounce: the edge digs",
            "sole_pass", [s for s in partial if _lean(s) is not None and s.club in bounce_deg],
            lambda s: (_lean(s) or 0.0) > bounce_deg[s.club],
        ),
        _share(
            "early_release", "hands passed early", "the shaft leans back by more than a degree at the ball, face square",
            "set_plane", [s for s in partial if _lean(s) is not None],
            lambda s: (_lean(s) or 0.0) < EARLY_LEAN_DEG,
        ),
        _share(
            "edge_in_sand", "edge first in sand", "less than 4 degrees of bounce reach the sand after lean and opening",
            "set_plane", [s for s in sand if _lean(s) is not None and s.club in bounce_deg],
            lambda s: bounce_deg[s.club] + opened(s) - (_lean(s) or 0.0) < SAND_BOUNCE_DEG,
        ),
        _scatter("entry_scattered", "the sole lands anywhere", turf, SCATTERED_TURF),
        _scatter("sand_scattered", "the sole enters the sand anywhere", sand, SCATTERED_SAND),
    ]  # fmt: skip
    return tuple(fault for fault in found if fault is not None)


def _lean(strike: MeasuredStrike) -> float | None:
    return strike.lean_deg if strike.lean_deg is not None else inferred_lean(strike)


def _share(
    key: str, words: str, rule: str, picture: Picture, able: Sequence[MeasuredStrike],
    shows: Callable[[MeasuredStrike], bool],
) -> Fault | None:  # fmt: skip
    bad = [strike.id for strike in able if shows(strike)]
    if len(able) < LEAST or len(bad) < SHARE * len(able):
        return None
    return Fault(key, words, rule, len(bad), len(able), picture, tuple(bad))


def _scatter(key: str, words: str, strikes: Sequence[MeasuredStrike], limit: float) -> Fault | None:
    """Entries whose spread is beyond a limit; those farther than the limit from their middle show it."""
    entries = [(strike.id, strike.entry) for strike in strikes if strike.entry is not None]
    if len(entries) < LEAST:
        return None
    values = np.array([entry for _, entry in entries])
    if values.std(ddof=1) <= limit:
        return None
    middle = float(np.median(values))
    far = tuple(name for name, entry in entries if abs(entry - middle) > limit)
    rule = f"entries spread by more than {quantity(f'{1000 * limit:.0f}', 'mm')}"
    return Fault(key, words, rule, len(far), len(entries), "entries", far)
