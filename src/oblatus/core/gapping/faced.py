"""How often a player faces each distance: from the shot mix, or as the fitter says it in bands."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core.delivery import Player
from oblatus.core.shots import BY_KEY, default_shot_mix

Floats = NDArray[np.float64]

BINS = 64
LEAST_DISTANCE = 30.0
SCALED = {"full": (0.62, 1.0), "swing_1030": (0.48, 0.88), "swing_900": (0.34, 0.70)}
"""Clock swings are faced over these shares of the pitching wedge's full carry, whichever club is swung."""
EDGE = 4.0


@dataclass(frozen=True, slots=True)
class Band:
    """A stretch of distances [m] with its weight."""

    low: float
    high: float
    weight: float


@dataclass(frozen=True, slots=True)
class Faced:
    """Distances from 30 m to the pitching wedge's full carry in 64 bins: centres [m], weights (sum 1), bin width [m]."""

    centres: Floats
    weights: Floats
    width: float

    def at(self, distance: float) -> float:
        """How often a distance is faced, 1 being the average."""
        place = int(np.clip(np.searchsorted(self.centres, distance), 0, BINS - 1))
        return float(self.weights[place]) * BINS


def faced_distances(player: Player, longest: float, bands: Sequence[Band] = ()) -> Faced:
    """How often each distance up to `longest` [m] is faced; bands, if any, stand in for the shot mix."""
    edges = np.linspace(min(LEAST_DISTANCE, 0.5 * longest), longest, BINS + 1)
    centres = 0.5 * (edges[1:] + edges[:-1])
    total = sum((_over(band, centres) for band in bands or shot_bands(player, longest)), np.zeros(BINS))
    if total.sum() <= 0.0:
        total = np.ones(BINS)
    return Faced(centres, total / total.sum(), float(edges[1] - edges[0]))


def shot_bands(player: Player, longest: float) -> list[Band]:
    """The carries of the shot mix as bands: shots as the catalogue has them, clock swings scaled to the player."""
    mix = player.shot_mix or default_shot_mix(player.handicap)
    found = []
    for key, share in mix.items():
        low, high = BY_KEY[key].carry
        if key in SCALED:
            low, high = (factor * longest for factor in SCALED[key])
        found.append(Band(low, high, share))
    return found


def _over(band: Band, centres: Floats) -> Floats:
    """The band's weight spread evenly over its length, with edges that fall off over a few metres."""
    rise = np.clip((centres - band.low) / EDGE + 0.5, 0.0, 1.0)
    fall = np.clip((band.high - centres) / EDGE + 0.5, 0.0, 1.0)
    return np.asarray(band.weight / max(band.high - band.low, 1.0) * rise * fall)
