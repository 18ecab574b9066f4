"""Draws of the laws' constants: what the ground and the contact could be besides what they are taken for."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core.strike import _kernels as k

Floats = NDArray[np.float64]

DRAWS = 8
GROUND_DOUBT = 0.25
CONTACT_DOUBT = 0.12
SEED = 11


@dataclass(frozen=True, slots=True, eq=False)
class Law:
    """Factors on a ground row (kinds, columns) and on the contact's constants (kinds, constants)."""

    ground: Floats
    contact: Floats

    def row(self, kind: int, row: tuple[float, ...]) -> tuple[float, ...]:
        """A ground row under this law."""
        return tuple(value * factor for value, factor in zip(row, self.ground[kind].tolist(), strict=True))


def as_taken() -> Law:
    """The laws as they are taken: all factors one."""
    return Law(np.ones((2, k.GROUND_COLUMNS)), np.ones_like(k.CONTACTS))


def draw_laws() -> tuple[Law, ...]:
    """Eight fixed draws, log-normal: bearing, depth, friction, cohesion and sand stiffness 25 %, contact 12 %."""
    rng = np.random.default_rng(SEED)
    found = []
    for _ in range(DRAWS):
        law = as_taken()
        for kind, columns in (
            (k.TURF, (k.P_U, k.D_0, k.MU, k.COHESION)),
            (k.SAND, (k.STIFFNESS, k.SAND_COHESION, k.TAN_DELTA)),
        ):
            law.ground[kind, list(columns)] = np.exp(GROUND_DOUBT * rng.standard_normal(len(columns)))
        doubted = [k.PILE_SHARE, k.CUSHION, k.STRIPE_R, k.COUPLING, k.SHEAR_DEPTH]
        law.contact[:, doubted] = np.exp(CONTACT_DOUBT * rng.standard_normal(len(doubted)))
        found.append(law)
    return tuple(found)
