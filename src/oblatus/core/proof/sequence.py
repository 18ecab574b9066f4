"""An interval that may be looked at after every ball: Robbins' normal mixture. docs/models/proof.md, 3."""

from __future__ import annotations

import math

MIXTURE = 0.5
"""Width of the mixture: narrowest for differences met after a few dozen balls (r of the confidence sequence)."""
ERROR = 0.10


def half_width(sigma: float, n: float, *, r: float = MIXTURE, alpha: float = ERROR) -> float:
    """Half width of the confidence sequence of a mean of n values.

    Parameters
    ----------
    sigma : standard deviation of one value
    n : values so far, more than 0
    r : width of the mixture
    alpha : chance that the mean is ever outside, over all looks together

    References
    ----------
    H. Robbins, Ann. Math. Stat. 41 (1970) 1397: sigma sqrt(2 (n r^2 + 1) / (n^2 r^2) ln(sqrt(n r^2 + 1) / alpha)).
    """
    spread = n * r * r + 1.0
    return sigma * math.sqrt(2.0 * spread / (n * n * r * r) * math.log(math.sqrt(spread) / alpha))
