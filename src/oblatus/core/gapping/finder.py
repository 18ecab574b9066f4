"""The distance finder: which club and swing for this distance, wind, green and pin, and why."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from oblatus.core.gapping.conditions import GUST, LadderShot, miss_of
from oblatus.core.intervals import NORMAL
from oblatus.core.words import metres, quantity, speed

Pin = Literal["front", "middle", "back"]
PINS: tuple[Pin, ...] = get_args(Pin)

DEPTH = {"front": (4.0, 20.0), "middle": (12.0, 12.0), "back": (20.0, 4.0)}
"""Green before and behind the flag [m] (judgement: a green 24 m deep)."""
MISSED_GREEN = 8.0
GUST_SHARE = 0.25
LOFT_BEYOND_DEG = 58.0
FULL_HIGH_LOFT = 0.6
NEAR = 4.0
SPIN_STEP = 100
MOST = 6


@dataclass(frozen=True, slots=True)
class FoundShot:
    """A shot for a distance: mean distance from the flag [m], share on the green and within 4 m, and what it costs.

    `cost` [m] = mean miss + 8 m x share off the green + a quarter of what 2 m/s of wind would move it + 0.6 m for a full
    swing with the most lofted clubs.
    """

    shot: LadderShot
    miss: float
    on_green: float
    near: float
    cost: float


def find_shots(shots: Sequence[LadderShot], distance: float, pin: Pin = "middle", most: int = MOST) -> list[FoundShot]:
    """The shots that leave the ball nearest, best first."""
    return sorted((_rate(shot, distance, pin) for shot in shots), key=lambda found: found.cost)[:most]


def _rate(shot: LadderShot, distance: float, pin: Pin) -> FoundShot:
    before, behind = DEPTH[pin]
    spread = max(shot.spread, 0.3)
    # the ball must land on the green and stop on it
    lands = _below((shot.carry - (distance - before)) / spread)
    stops = _below((distance + behind - shot.total) / spread)
    on_green = max(lands + stops - 1.0, 0.0)
    near = _below((shot.total - distance + NEAR) / spread) - _below((shot.total - distance - NEAR) / spread)
    miss = miss_of(shot, distance)
    cell = shot.estimate.cell
    hard = FULL_HIGH_LOFT if cell.swing == "full" and cell.loft_deg >= LOFT_BEYOND_DEG else 0.0
    cost = miss + MISSED_GREEN * (1.0 - on_green) + GUST_SHARE * abs(shot.gust) + hard
    return FoundShot(shot, miss, on_green, near, cost)


def _below(z: float) -> float:
    return NORMAL.cdf(z)


def reasons_for(found: FoundShot, distance: float) -> str:
    """Why, in a sentence."""
    shot = found.shot
    off = shot.total - distance
    parts = [f"{metres(shot.apex)} high, lands at {shot.landing_deg:.0f}°"]
    parts.append(f"releases {metres(shot.run)}" if shot.run >= 0.5 else "stops dead" if shot.run > -0.5 else "draws back")
    if abs(off) >= 1.0:
        parts.append(f"{metres(abs(off))} {'long' if off > 0 else 'short'} on average")
    parts.append(f"{round(10 * found.near)} of ten within {metres(NEAR)} of the flag")
    if found.on_green < 0.9:
        parts.append(f"{round(10 * (1 - found.on_green))} of ten miss the green")
    if abs(shot.gust) >= 1.0:
        parts.append(f"{speed(GUST, 0)} more into the wind takes {metres(abs(shot.gust))}")
    return "; ".join(parts)


def compared(a: LadderShot, b: LadderShot) -> str:
    """Two shots beside each other, the second as it differs from the first."""
    wind = speed(GUST, 0)
    parts = [
        _differs(b.carry - a.carry, 1.0, "longer", "shorter"),
        _differs(b.apex - a.apex, 0.5, "higher", "lower"),
        _spin_differs(b.launch.spin_rpm - a.launch.spin_rpm),
        _differs(b.run - a.run, 0.5, "more release", "less release"),
        _differs(b.spread - a.spread, 0.3, "more spread", "less spread", places=1),
        _differs(a.gust - b.gust, 0.5, f"more lost to {wind} of wind", f"less lost to {wind} of wind"),
    ]
    said = [part for part in parts if part]
    return ", ".join(said) if said else "nothing to tell them apart"


def _differs(by: float, least: float, more: str, less: str, places: int = 0) -> str:
    return "" if abs(by) < least else f"{metres(abs(by), places)} {more if by > 0 else less}"


def _spin_differs(by: float) -> str:
    if abs(by) < SPIN_STEP:
        return ""
    spin = quantity(f"{SPIN_STEP * round(abs(by) / SPIN_STEP):,.0f}", "rpm")
    return f"{spin} {'more' if by > 0 else 'less'} spin"
