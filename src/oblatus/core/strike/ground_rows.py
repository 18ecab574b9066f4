"""Turf and sand as the numbers that the compiled laws take."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from oblatus.core.constants import GRAVITY
from oblatus.core.grounds import SAND, TURF, Sand, Turf, kind_of
from oblatus.core.strike import _kernels
from oblatus.core.strike import parameters as p

Floats = NDArray[np.float64]

GRIP = {TURF.key: p.GRIP_TURF.value, SAND.key: p.GRIP_SAND.value}


def hammer_restitution(turf: Turf) -> float:
    """What speed the drop hammer keeps when it rebounds: 0.10 at 40 g, 0.22 at 90, 0.51 at 165 (judgement)."""
    t = min(max((turf.firmness_g - 40.0) / 140.0, 0.0), 1.0)
    return 0.10 + 0.42 * t * t * (3.0 - 2.0 * t) * (1.25 - 0.5 * turf.moisture)


def wall_friction_deg(moisture: float) -> float:
    """Friction angle of sand on the metal of the face [degrees]: 16 dry, 22 wet (metal on sand 15 to 22, literature)."""
    return 16.0 + 6.0 * moisture


def thatch_of(turf: Turf) -> float:
    """Depth over which turf gives before the soil does [m]: 0.63 of how high the ball sits, less on firm ground."""
    deep = p.THATCH_OF_SIT.value * turf.ball_height * (1.4 - turf.firmness_g / 150.0)
    return min(max(deep, 0.0), p.MOST_THATCH.value)


def ground_row(ground: Turf | Sand) -> tuple[int, Floats]:
    """Kind (0 turf, 1 sand) and the row of the kernels.

    Turf: a hyperbolic stress-penetration law with the hammer's own peak stress and work, for a narrow sole that slides
    in at a slant; thatch, friction, density, root-reinforced cohesion, rebound. Sand: resistive-force stiffness from the
    penetrometer, loose depth, damp cohesion, wall friction, density. Last the grip of ball on a clean face.
    """
    row = np.zeros(_kernels.GROUND_COLUMNS)
    row[_kernels.GRIP] = GRIP[kind_of(ground).key]
    if isinstance(ground, Turf):
        force = p.HAMMER_MASS.value * GRAVITY.value * ground.firmness_g
        depth = p.HAMMER_ENERGY.value / force / (1.4 * (1.0 - 0.4 * math.log(3.5)))
        row[: _kernels.GRIP] = (
            p.SLANTED_LOAD.value * 1.4 * force / p.HAMMER_AREA.value,
            p.NARROW_CONTACT.value * 0.4 * depth,
            thatch_of(ground),
            0.40 - 0.20 * ground.moisture,
            1500.0 * (0.93 + 0.14 * ground.moisture),
            p.TURF_COHESION.value
            * math.sqrt(ground.firmness_g / 90.0)
            * (0.45 + 0.55 * ground.root_density)
            * (1.1 - 0.2 * ground.moisture),
            ground.ball_height,
            1.0 / (p.REBOUND_SLOPE.value * hammer_restitution(ground)) ** 2,
        )
        return _kernels.TURF, row
    push, moist = ground.penetrometer_kg_cm2, ground.moisture
    stiffening = 2.5 * (push / 2.1) ** 3
    row[: _kernels.GRIP] = (
        push * p.PASCAL_PER_KG_CM2.value / (0.564 * p.TIP_RADIUS.value) * stiffening * (1.0 + 0.5 * moist),
        ground.loose_depth,
        20e3 * moist,
        math.tan(math.radians(wall_friction_deg(moist))),
        1500.0 + 120.0 * (push - 2.0) + 300.0 * moist,
        moist,
        -ground.plug_depth,
        ground.plug_depth,
    )
    return _kernels.SAND, row
