"""The normal distribution, and how wide an estimate from few values is."""

from __future__ import annotations

from functools import lru_cache
from statistics import NormalDist

PROBABILITY = 0.80
NORMAL = NormalDist()
"""The standard normal distribution."""


@lru_cache(maxsize=256)
def interval_width(df: float, probability: float = PROBABILITY) -> float:
    """Half width of a two-sided Student interval in standard errors, by degrees of freedom."""
    from scipy.special import stdtrit  # a tenth of a second and more of a fresh process: for who asks how wide

    return float(stdtrit(df, 0.5 + 0.5 * probability))
