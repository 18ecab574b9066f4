"""Carry, run and height of a ball in still reference air, from tables of the one flight model."""

from __future__ import annotations

import math
from functools import lru_cache
from threading import Lock
from typing import get_args

import numpy as np
from numpy.typing import NDArray

from oblatus.core.flight import _tables
from oblatus.core.flight.air import REFERENCE_AIR
from oblatus.core.flight.trajectory import GREEN_FIRMNESS, MU_BOUNCE, MU_SLIDE, STEP
from oblatus.core.grounds import GreenClass
from oblatus.core.threads import in_threads
from oblatus.units import METRES_PER_FOOT

Floats = NDArray[np.float64]

GREENS: tuple[GreenClass, ...] = get_args(GreenClass)
SHAPE = (_tables.LAUNCHES, _tables.RATIOS, _tables.SPEEDS)
USUAL_STIMP = 10.0 * METRES_PER_FOOT
HEIGHT_STEP = 0.02

_running = Lock()
"""Two halves of a process's first question ask for the runs at once."""


@lru_cache(maxsize=1)
def _flights() -> tuple[Floats, Floats]:
    # in one thread: whoever asks first may be one of the helpers already
    carries, landings = np.empty(SHAPE), np.empty((*SHAPE, 3))
    _tables.fill_carries(REFERENCE_AIR.density, REFERENCE_AIR.viscosity, STEP, carries, landings)
    return carries, landings


def carry_table() -> Floats:
    """Carry over ball speed squared [s^2/m] by launch (2 degrees), spin (share of the ball's speed) and speed (1 m/s).

    Trilinear values are within 0.3 % of the flight (tests/core/flight/test_tables.py).
    """
    return _flights()[0]


@lru_cache(maxsize=8)
def run_table(green: GreenClass) -> Floats:
    """Run [m] after landing on a green of this class, by the same nodes."""
    out = np.empty(SHAPE)
    _tables.fill_runs(_flights()[1], GREEN_FIRMNESS[green], USUAL_STIMP, MU_BOUNCE, MU_SLIDE, out)
    return out


def run_tables() -> Floats:
    """The runs of every class of green (greens, ...), in the order of `GREENS`."""
    with _running:
        return _run_tables()


@lru_cache(maxsize=1)
def _run_tables() -> Floats:
    _flights()
    return np.stack(list(in_threads(run_table, GREENS)))


@lru_cache(maxsize=64)
def height_table(distance: float) -> Floats:
    """Height [m] of the ball above where it lay when it has gone `distance` [m], by the same nodes."""
    out = np.empty(SHAPE)
    _tables.fill_heights(distance, REFERENCE_AIR.density, REFERENCE_AIR.viscosity, HEIGHT_STEP, out)
    return out


def carry(speed: float, launch_deg: float, spin_rpm: float) -> float:
    """Carry [m] of a ball: speed [m/s], launch [degrees], backspin [rpm]."""
    a = math.radians(launch_deg)
    vt = spin_rpm * math.pi / 30.0 * _tables.SPIN_RADIUS
    return float(_tables.carry_of(carry_table(), speed * math.cos(a), speed * math.sin(a), vt))
