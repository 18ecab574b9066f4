"""The bench rules: a fitter's own sums. They settle level sets and lend their bands to practice.

Bands, tolerances and sources: docs/models/fitting.md.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.delivery import Player
from oblatus.core.fitting.scenarios import Scenario, Setup
from oblatus.core.geometry import deliver_many
from oblatus.core.grounds import SAND, TURF, assumed, reading_of

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class BenchGround:
    """What the bench says of a kind of ground.

    `bands` are reading, least and most delivered bounce [degrees]: a band stands at the reading assumed for its class and
    slides between classes. `attack_deg` is the attack that it holds for, `hard` the readings that count as softest and
    hardest.
    """

    bands: tuple[tuple[float, float, float], ...]
    attack_deg: float
    hard: tuple[float, float]


BENCH: dict[str, BenchGround] = {
    TURF.key: BenchGround(
        (
            (assumed(TURF, "soft"), 8.0, 14.0), (assumed(TURF, "medium"), 5.0, 10.0),
            (assumed(TURF, "firm"), 2.0, 6.0), (assumed(TURF, "baked"), 0.5, 4.0),
        ), -5.0, (55.0, 150.0),
    ),
    SAND.key: BenchGround(
        ((assumed(SAND, "loose"), 12.0, 18.0), (assumed(SAND, "medium"), 8.0, 14.0), (assumed(SAND, "firm"), 3.0, 8.0)),
        -8.0, (1.6, 2.4),
    ),
}  # fmt: skip
"""Usual delivered bounce by kind of ground and reading; sources in docs/models/fitting.md."""

PLUGGED_BAND = (-4.0, 5.0)
"""A buried ball wants an edge that digs under it."""

BOUNCE_PER_STEEPNESS = 0.5
SAND_FLOOR_DEG = 10.0
SAND_FLOOR_FACTOR = 0.85
STRICT_FLOOR_FACTOR = 0.5
OPENED_BOUNCE_ALLOWANCE = 0.5
_NODES = np.array([-np.sqrt(3.0), 0.0, np.sqrt(3.0)])
_WEIGHTS = np.array([1.0, 4.0, 1.0]) / 6.0


@dataclass(frozen=True, slots=True, eq=False)
class Judgement:
    """Values of n heads in k scenarios by the bench rules.

    `values` (n, k) in 0..1 are the product of `parts`; `delivered` (n, k, 4) is loft, bounce, face direction
    [degrees] and edge height [m] at the usual setup; `wanted` (k, 2) is the delivered bounce asked for, from and to.
    """

    values: Floats
    parts: dict[str, Floats]
    delivered: Floats
    wanted: Floats


@dataclass(frozen=True, slots=True)
class BenchRules:
    """Judge by bands of delivered bounce, loft for the shot, edge height, sole width and the sand floor."""

    name: str = "bench rules"

    def judge(
        self,
        heads: Sequence[Head],
        scenarios: Sequence[Scenario],
        player: Player,
    ) -> Judgement:
        """Values (heads, scenarios); the lean spread is averaged by three-point Gauss-Hermite quadrature."""
        delivered = deliver_all(heads, scenarios)
        wanted = np.array([wanted_bounce(scenario) for scenario in scenarios]).reshape(len(scenarios), 2)
        firm = np.array([_hardness(scenario) for scenario in scenarios])
        parts = {
            "bounce": _bounce_fit(delivered[:, :, 1], wanted, firm, player),
            "loft": _loft_fit(delivered[:, :, 0], scenarios, player),
            "edge": _edge_fit(delivered[:, :, 3], scenarios, firm),
            "width": _width_fit(heads, firm),
            "sand_floor": _sand_floor(heads, scenarios, player),
        }
        values = np.ones_like(delivered[:, :, 0])
        for part in parts.values():
            values = values * part
        return Judgement(values, parts, delivered, wanted)


def wanted_bounce(scenario: Scenario, setup: Setup | None = None) -> tuple[float, float]:
    """Delivered bounce asked for, from and to [degrees]: the ground's band, moved up for a steep attack.

    Opening adds bounce that the face's own turn asks for; half of it is allowed for. By the usual setup if none is given.
    """
    setup = setup or scenario.setup
    if scenario.shot.buried:
        return PLUGGED_BAND
    low, high = _band(BENCH[scenario.shot.surface].bands, _reading(scenario))
    steeper = BENCH[scenario.shot.surface].attack_deg - setup.attack_deg
    shift = BOUNCE_PER_STEEPNESS * steeper + OPENED_BOUNCE_ALLOWANCE * 0.4 * max(setup.opening_deg, 0.0)
    return low + shift, high + shift


@lru_cache(maxsize=1024)
def _band(bands: tuple[tuple[float, float, float], ...], reading: float) -> tuple[float, float]:
    table = np.array(bands)
    return float(np.interp(reading, table[:, 0], table[:, 1])), float(np.interp(reading, table[:, 0], table[:, 2]))


def _hardness(scenario: Scenario) -> float:
    """0 for the softest ground of its kind, 1 for the hardest."""
    if scenario.shot.kind == "sand" and scenario.sand.thin_or_wet:
        return 1.0
    return _hard(BENCH[scenario.shot.surface].hard, reading_of(scenario.surface))


@lru_cache(maxsize=1024)
def _hard(between: tuple[float, float], reading: float) -> float:
    return float(np.interp(reading, between, [0.0, 1.0]))


def _reading(scenario: Scenario) -> float:
    """The reading by which the band is found: thin or wet sand counts as firm at least."""
    reading = reading_of(scenario.surface)
    if scenario.shot.kind == "sand" and scenario.sand.thin_or_wet:
        return max(reading, assumed(SAND, "firm"))
    return reading


def deliver_all(heads: Sequence[Head], scenarios: Sequence[Scenario]) -> Floats:
    """Delivered geometry (n, k, 4), with setups of equal opening put side by side for the kernel."""
    opening = np.array([scenario.setup.opening_deg for scenario in scenarios])
    lean = np.array([scenario.setup.lean_deg for scenario in scenarios])
    setups, where = np.unique(np.column_stack([opening, lean]), axis=0, return_inverse=True)
    return deliver_many(heads, setups[:, 0], setups[:, 1])[:, where.ravel(), :]


def _bounce_fit(bounce: Floats, wanted: Floats, firm: Floats, player: Player) -> Floats:
    """1 inside the band, falling as a Gaussian outside; firm ground forgives less above, soft ground less below."""
    spread = player.habit.lean_deg.spread
    below_scale = 3.0 + 1.5 * firm
    above_scale = 5.0 - 2.2 * firm
    fit = np.zeros_like(bounce)
    for node, weight in zip(_NODES, _WEIGHTS, strict=True):
        moved = bounce - node * spread
        below = np.maximum(wanted[:, 0] - moved, 0.0) / below_scale
        above = np.maximum(moved - wanted[:, 1], 0.0) / above_scale
        fit += weight * np.exp(-0.5 * (below**2 + above**2))
    return fit


def _loft_fit(loft: Floats, scenarios: Sequence[Scenario], player: Player) -> Floats:
    """1 inside the shot's loft range, 0.25 at worst; full swings take whatever the ladder gives."""
    low = np.array([scenario.shot.loft_deg[0] for scenario in scenarios])
    high = np.array([scenario.shot.loft_deg[1] for scenario in scenarios])
    if player.schools.sand_club == "most_loft":
        blast = np.array([scenario.shot.blast for scenario in scenarios])
        low, high = low + 6.0 * blast, high + 6.0 * blast
    miss = np.maximum(np.maximum(low - loft, loft - high), 0.0)
    return np.asarray(0.25 + 0.75 * np.exp(-0.5 * (miss / 6.0) ** 2))


def _edge_fit(height: Floats, scenarios: Sequence[Scenario], firm: Floats) -> Floats:
    """Falls with an edge higher than the lie allows, as far as the shot and the ground care."""
    care = np.array([scenario.shot.edge for scenario in scenarios]) * (0.35 + 0.65 * firm)
    ball = np.array([0.002 if scenario.shot.kind == "sand" else scenario.turf.ball_height for scenario in scenarios])
    beyond = np.maximum(height - (0.0035 + ball), 0.0) / 0.004
    return np.asarray(1.0 - care * (1.0 - np.exp(-0.5 * beyond**2)))


def _width_fit(heads: Sequence[Head], firm: Floats) -> Floats:
    """Soft ground likes 22 to 26 mm of sole, firm ground 15 to 18; a tenth at most."""
    width = np.array([head.sole_width for head in heads])
    ideal = 0.024 - 0.007 * firm
    return np.asarray(1.0 - 0.10 * np.minimum(np.abs(width[:, None] - ideal[None, :]) / 0.008, 1.0))


def _sand_floor(heads: Sequence[Head], scenarios: Sequence[Scenario], player: Player) -> Floats:
    """Ten degrees of bounce is the floor in sand, unless the sand is thin or packed; one school is strict about it."""
    short = np.array([head.bounce_deg < SAND_FLOOR_DEG for head in heads], dtype=bool)
    applies = np.array([s.shot.kind == "sand" and not s.sand.thin_or_wet for s in scenarios], dtype=bool)
    factor = STRICT_FLOOR_FACTOR if player.schools.sand_club == "most_bounce" else SAND_FLOOR_FACTOR
    return np.where(short[:, None] & applies[None, :], factor, 1.0)
