"""The carry ladder in wind, air, green and lie: where it leaves holes, and which rungs do the same job."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import combinations, pairwise

import numpy as np
from numpy.typing import NDArray

from oblatus.core.flight import REFERENCE_AIR, Air, Green, Launch, fly_ball, strike_ball
from oblatus.core.flight.impact import LieClass
from oblatus.core.flight.trajectory import flight_path
from oblatus.core.gapping.estimates import CellEstimate, PlayerModel
from oblatus.core.gapping.faced import LEAST_DISTANCE
from oblatus.core.gapping.ladder import reach_of

Floats = NDArray[np.float64]

SAME_CARRY = 0.02
LEAST_SAME_CARRY = 1.5
SAME_LANDING_DEG = 2.5
SAME_RUN = 1.0
RUN_DOUBT = 1.0
"""Metres to which a release near zero is good; a longer one to half of itself (judgement: no bounce was measured)."""
GUST = 2.0
LEAST_HOLE = 1.0


@dataclass(frozen=True, slots=True)
class Conditions:
    """Air and wind, the green, and the lie."""

    air: Air = REFERENCE_AIR
    green: Green = field(default_factory=Green)
    lie: LieClass = "dry"


@dataclass(frozen=True, slots=True)
class LadderShot:
    """A rung of the ladder in its conditions.

    `carry` [m] with the 80 % interval of its mean and the spread of one ball; `still` is the same in still reference air;
    `run` [m] after landing, `lateral` [m] where the wind takes it; `gust` [m] what 2 m/s more head wind takes off.
    """

    estimate: CellEstimate
    launch: Launch
    club_speed: float
    dynamic_loft_deg: float
    carry: float
    low: float
    high: float
    spread: float
    still: float
    apex: float
    landing_deg: float
    run: float
    lateral: float
    gust: float

    @property
    def total(self) -> float:
        """Where the ball stops [m]."""
        return self.carry + self.run


@dataclass(frozen=True, slots=True)
class Hole:
    """Distances [m] that no rung serves."""

    low: float
    high: float


def shots_in(model: PlayerModel, conditions: Conditions) -> tuple[LadderShot, ...]:
    """Every cell of the player's model in the given conditions, in the order of the model."""
    found = []
    for estimate, still in zip(model.cells, _still(model), strict=True):
        cell = estimate.cell
        swing = model.carries.swing(cell.swing)
        delivery = model.carries.delivery(cell.loft_deg, swing, conditions.lie)
        launch = strike_ball(delivery)
        flight = fly_ball(launch, conditions.air, conditions.green)
        air = conditions.air
        windier = fly_ball(launch, _with_wind(air, air.wind_head + GUST), conditions.green)
        # the cell's own factor and interval were found in the air of the session and hold in any other
        carry = flight.carry * estimate.own_share
        factor = carry / estimate.carry
        found.append(
            LadderShot(
                estimate, launch, delivery.speed, delivery.dynamic_loft_deg, carry, estimate.low * factor,
                estimate.high * factor, estimate.spread * factor, still * estimate.own_share,
                flight.apex * estimate.own_share, flight.landing_deg, flight.run, flight.lateral * estimate.own_share,
                (windier.carry - flight.carry) * estimate.own_share,
            )
        )  # fmt: skip
    return tuple(found)


def _with_wind(air: Air, head: float) -> Air:
    return Air(air.temperature_c, air.altitude, air.humidity, min(head, 25.0), air.wind_cross)


def _still(model: PlayerModel) -> list[float]:
    """Carry of every cell in still reference air [m], its own factor left out."""
    lofts = sorted({estimate.cell.loft_deg for estimate in model.cells})
    keys = [swing.key for swing in model.carries.swings]
    table = model.carries.carries(lofts)
    return [float(table[lofts.index(e.cell.loft_deg), keys.index(e.cell.swing)]) for e in model.cells]


def shot_path(shot: LadderShot, conditions: Conditions, every: int = 4) -> Floats:
    """Points (n, 2) of the flight for drawing: distance and height [m]."""
    _, path = flight_path(shot.launch, conditions.air, conditions.green)
    points = np.vstack([path[:-1:every], path[-1:]])
    return np.asarray(points[:, :2] * shot.estimate.own_share)


def holes_of(shots: Sequence[LadderShot], longest: float) -> tuple[Hole, ...]:
    """Stretches from 30 m (or half the longest carry) to the longest that lie beyond the reach of every rung.

    A rung reaches 4 % of its carry either way, at least 2.5 m (`ladder.reach_of`).
    """
    start = min(LEAST_DISTANCE, 0.5 * longest)
    spans = sorted((s.carry - float(reach_of(s.carry)), s.carry + float(reach_of(s.carry))) for s in shots)
    found, at = [], start
    for low, high in spans:
        if low > at and at < longest:
            found.append(Hole(at, min(low, longest)))
        at = max(at, high)
    if at < longest:
        found.append(Hole(at, longest))
    return tuple(hole for hole in found if hole.high - hole.low >= LEAST_HOLE)


def overlaps_of(shots: Sequence[LadderShot]) -> tuple[tuple[LadderShot, LadderShot], ...]:
    """Pairs of rungs of different clubs that do the same job: like carry, landing and run."""
    return tuple(
        (a, b)
        for a, b in combinations(shots, 2)
        if a.estimate.cell.club != b.estimate.cell.club
        and abs(a.carry - b.carry) <= max(SAME_CARRY * a.carry, LEAST_SAME_CARRY)
        and abs(a.landing_deg - b.landing_deg) <= SAME_LANDING_DEG
        and abs(a.run - b.run) <= SAME_RUN
    )


def full_gaps(shots: Sequence[LadderShot], full: str = "full") -> list[tuple[LadderShot, LadderShot, float]]:
    """Neighbouring full swings by loft, with the carry between them [m]."""
    ladder = sorted((s for s in shots if s.estimate.cell.swing == full), key=lambda s: s.estimate.cell.loft_deg)
    return [(a, b, a.carry - b.carry) for a, b in pairwise(ladder)]


def miss_of(shot: LadderShot, distance: float) -> float:
    """Mean distance from the flag [m] of balls that scatter about the shot: the folded normal."""
    off, spread = shot.total - distance, max(shot.spread, 0.3)
    z = off / spread
    return spread * math.sqrt(2.0 / math.pi) * math.exp(-0.5 * z * z) + off * math.erf(z / math.sqrt(2.0))
