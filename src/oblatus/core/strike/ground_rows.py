"""Turf and sand as the numbers that the compiled laws take."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from oblatus.core.grounds import Sand, Turf
from oblatus.core.strike import _kernels

Floats = NDArray[np.float64]

HAMMER_MASS, HAMMER_AREA, HAMMER_ENERGY = 2.25, 19.63e-4, 9.93
HAMMER_GRAVITY = 9.81
TIP_RADIUS = 0.02135
PASCAL_PER_KG_CM2 = 98066.0


def ground_row(ground: Turf | Sand) -> tuple[int, Floats]:
    """Kind (0 turf, 1 sand) and the row of the kernels.

    Turf: a hyperbolic stress-penetration law with the hammer's own peak stress and work, thatch, friction, density,
    root-reinforced cohesion. Sand: resistive-force stiffness from the penetrometer, loose depth, damp cohesion, density.
    """
    row = np.zeros(_kernels.GROUND_COLUMNS)
    if isinstance(ground, Turf):
        force = HAMMER_MASS * HAMMER_GRAVITY * ground.firmness_g
        depth = HAMMER_ENERGY / force / (1.4 * (1.0 - 0.4 * math.log(3.5)))
        sit_mm = 1000.0 * ground.ball_height
        row[:7] = (
            1.4 * force / HAMMER_AREA,
            0.4 * depth,
            min(max(0.5 + 0.9 * sit_mm * (1.4 - ground.firmness_g / 220.0), 1.0), 9.0) / 1000.0,
            0.40 - 0.20 * ground.moisture,
            1500.0 * (0.93 + 0.14 * ground.moisture),
            190e3
            * math.sqrt(ground.firmness_g / 90.0)
            * (0.45 + 0.55 * ground.root_density)
            * (1.1 - 0.2 * ground.moisture),
            ground.ball_height,
        )
        return _kernels.TURF, row
    p, moist = ground.penetrometer_kg_cm2, ground.moisture
    t = min(max(p - 1.6, 0.0), 1.0)
    stiffening = 1.0 + 3.0 * t * t * (3.0 - 2.0 * t)
    row[:8] = (
        p * PASCAL_PER_KG_CM2 / (0.564 * TIP_RADIUS) * stiffening * (1.0 + 0.5 * moist),
        ground.loose_depth,
        20e3 * moist,
        0.0,
        1500.0 + 120.0 * (p - 2.0) + 300.0 * moist,
        moist,
        -ground.plug_depth,
        ground.plug_depth,
    )
    return _kernels.SAND, row
