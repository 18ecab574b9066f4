"""Whether carries look as if they were in the other unit: said and asked, never guessed."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from oblatus.core.gapping.estimates import PlayerModel, cell_of
from oblatus.core.gapping.strikes import MeasuredStrike
from oblatus.units import METRES_PER_YARD

ODDS = 4.0
ONE_BALL = 0.08


def other_unit_odds(model: PlayerModel, strikes: Sequence[MeasuredStrike], stated: str) -> float:
    """Odds that the carries of `strikes` (converted by the stated unit, "m" or "yd") were in the other unit.

    The model must have their cells and know nothing of them. With a wide model the odds stay near 1.
    """
    place = {estimate.cell: i for i, estimate in enumerate(model.cells)}
    where = [place[cell_of(strike)] for strike in strikes]
    told = np.log([model.cells[i].carry for i in where])
    off = np.array([math.log(strike.carry) for strike in strikes if strike.carry is not None]) - told
    share = np.bincount(where, minlength=len(model.cells)) / len(strikes)
    doubt = float(share @ model.covariance @ share) + ONE_BALL**2 / len(strikes)
    step = math.log(1.0 / METRES_PER_YARD) * (1.0 if stated == "m" else -1.0)
    middle = float(np.median(off))
    exponent = (middle**2 - (middle - step) ** 2) / (2.0 * doubt)
    return math.exp(min(max(exponent, -50.0), 50.0))
