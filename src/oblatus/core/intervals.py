"""How wide an estimate from few values is."""

from __future__ import annotations

from functools import lru_cache

from scipy.special import stdtrit

PROBABILITY = 0.80


@lru_cache(maxsize=256)
def interval_width(df: float, probability: float = PROBABILITY) -> float:
    """Half width of a two-sided Student interval in standard errors, by degrees of freedom."""
    return float(stdtrit(df, 0.5 + 0.5 * probability))
