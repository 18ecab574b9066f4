"""Same bounce by setup: the lean or opening that makes one club behave like another on this ground."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from oblatus.core.clubs import Head
from oblatus.core.grounds import Sand, Turf
from oblatus.core.strike.single import Swing
from oblatus.core.strike.window import Window, strike_window

LEANS = np.arange(-6.0, 14.1, 1.0)
OPENINGS = np.arange(0.0, 40.1, 4.0)
LIKENESS_SCALE = 0.10


@dataclass(frozen=True, slots=True)
class Twin:
    """A setup [degrees] and how alike the shots are over all entries, 0..1."""

    opening_deg: float
    lean_deg: float
    likeness: float


def find_twins(heads: Sequence[Head], swing: Swing, ground: Turf | Sand) -> list[Twin | None]:
    """For every head but the first, the lean (face as it is) or opening (lean as it is) that comes nearest to the first.

    Two setups are alike when their carries, each as a share of its own level, agree entry by entry.
    """
    wanted = strike_window(heads[0], swing, ground)
    return [None, *(_twin(head, swing, ground, wanted) for head in heads[1:])]


def _twin(head: Head, swing: Swing, ground: Turf | Sand, wanted: Window) -> Twin:
    swings = [replace(swing, lean_deg=float(lean)) for lean in LEANS]
    swings += [replace(swing, opening_deg=float(opening)) for opening in OPENINGS]
    likeness = [_likeness(wanted, strike_window(head, other, ground)) for other in swings]
    best = int(np.argmax(likeness))
    return Twin(swings[best].opening_deg, swings[best].lean_deg, likeness[best])


def _likeness(a: Window, b: Window) -> float:
    """Agreement of the carries as shares of their levels, over entries from 100 mm behind to 20 ahead."""
    near = (a.entries >= -0.100) & (a.entries <= 0.020)
    one, other = (w.carries[near] / max(w.level, 0.5) for w in (a, b))
    miss = float(np.sqrt(np.mean(np.clip(one - other, -1.5, 1.5) ** 2)))
    return float(np.exp(-miss / LIKENESS_SCALE))
