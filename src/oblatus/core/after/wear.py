"""How grooves wear, and what that costs in spin and strokes. Judgement throughout: docs/models/log.md, 4."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from oblatus.core.flight import Delivery, fly_ball, strike_ball
from oblatus.core.flight.impact import LIE_FRICTION, LieClass
from oblatus.core.gapping import CarryModel
from oblatus.core.strokes.table import TOUR_TABLE

WEAR_STRIKES = 4000.0
"""Strikes after which 63 % of what can be worn off a face is gone (judgement)."""
LOST_FRICTION: dict[LieClass, float] = {"dry": 0.06, "wet": 0.35}
"""Share of the friction that a face without grooves lacks, on a dry and on a wet ball (judgement)."""
GROOVES_WORN_SHARE = 0.30
"""Grooves are looked at when so much is worn (judgement)."""
WEDGE_BALLS, WEDGES = 0.35, 3.0
"""Share of range balls that is hit with wedges, and by how many wedges they are shared (judgement)."""
WET_SHARE = 0.3
"""Share of wedge shots with water or grass between face and ball (judgement)."""
USUAL_LEFT = 7.0
"""Left after a wedge shot to a green [m] (judgement)."""
UNFORESEEN = 0.5
"""Share of the longer run that the player does not foresee (judgement)."""
WEAR_LOFT_DEG, WEAR_LEAN_DEG, WEAR_ATTACK_DEG = 56.0, 5.0, -5.0
USUAL_ROUNDS, WEDGE_SHOTS = 30.0, 15.0


@dataclass(frozen=True, slots=True)
class Use:
    """How much a set is used: rounds a year, range balls a week, wedge shots a round; None where nobody said."""

    rounds_year: float | None = None
    range_balls_week: float | None = None
    shots_round: float = WEDGE_SHOTS

    @property
    def known(self) -> bool:
        """Whether anybody said anything."""
        return self.rounds_year is not None or self.range_balls_week is not None

    @property
    def strikes_year(self) -> float:
        """Strikes a year with each wedge."""
        rounds = USUAL_ROUNDS if self.rounds_year is None else self.rounds_year
        return (rounds * self.shots_round + 52.0 * WEDGE_BALLS * (self.range_balls_week or 0.0)) / WEDGES


@dataclass(frozen=True, slots=True)
class Wear:
    """Grooves after some strikes: share worn, spin of a 10:30 swing with a 56 degrees wedge new and now [rpm] and the
    longer run [m], dry and wet, and strokes a round."""

    strikes: float
    worn: float
    spin_new: dict[LieClass, float]
    spin_now: dict[LieClass, float]
    run_more: dict[LieClass, float]
    strokes_round: float


def worn_share(strikes: float) -> float:
    """Share of what can be worn off that is gone after so many strikes."""
    return 1.0 - math.exp(-max(strikes, 0.0) / WEAR_STRIKES)


def strikes_until(share: float) -> float:
    """Strikes until a share is worn; `worn_share` turned round."""
    return -WEAR_STRIKES * math.log(1.0 - share)


def wear_of(strikes: float, model: CarryModel, handicap: float, shots_round: float) -> Wear:
    """What worn grooves change for a player.

    The strike is the model's own clean contact with less friction; the ball flies and runs as everywhere. Of the longer
    run half comes unforeseen: a ball that is left r from the hole is left hypot(r, that) instead.

    Parameters
    ----------
    strikes : with each wedge since the grooves were new
    model : the player's carry model
    handicap, shots_round : for the strokes table, and wedge shots a round
    """
    worn = worn_share(strikes)
    share = next((swing.speed_share for swing in model.swings if swing.key == "1030"), 1.0)
    speed = float(model.full_speeds([WEAR_LOFT_DEG])[0]) * share
    new: dict[LieClass, float] = {}
    now: dict[LieClass, float] = {}
    more: dict[LieClass, float] = {}
    for lie, lost in LOST_FRICTION.items():
        flown = []
        for friction in (LIE_FRICTION[lie], LIE_FRICTION[lie] * (1.0 - lost * worn)):
            launch = strike_ball(Delivery(speed, WEAR_LOFT_DEG - WEAR_LEAN_DEG, WEAR_ATTACK_DEG, friction=friction))
            flown.append((launch.spin_rpm, fly_ball(launch).run))
        (new[lie], before), (now[lie], after) = flown
        more[lie] = after - before
    dry, wet = _strokes(more["dry"], handicap), _strokes(more["wet"], handicap)
    return Wear(strikes, worn, new, now, more, shots_round * ((1.0 - WET_SHARE) * dry + WET_SHARE * wet))


def _strokes(run_more: float, handicap: float) -> float:
    left = np.array([math.hypot(USUAL_LEFT, UNFORESEEN * max(run_more, 0.0)), USUAL_LEFT])
    longer, usual = TOUR_TABLE.strokes("green", left, handicap)
    return float(longer - usual)
