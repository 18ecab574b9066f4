"""The shot desk: heads, one setup, one ground: pass, window, expected shares, flight, risk, and twins by setup."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.delivery import Swing
from oblatus.core.fitting.nodes import quadrature
from oblatus.core.flight import Launch, flight_path
from oblatus.core.grounds import Sand, Turf
from oblatus.core.intervals import NORMAL
from oblatus.core.strike import _kernels, _quality
from oblatus.core.strike.families import FamilyPool
from oblatus.core.strike.family_jobs import FamilyJob
from oblatus.core.strike.ground_rows import ground_row, thatch_of
from oblatus.core.strike.risk import Risk, risk_of
from oblatus.core.strike.single import OUTCOMES, StrikeResult, approach, build_solid, strike
from oblatus.core.strike.twin import Twin, find_twins
from oblatus.core.strike.window import Window, strike_window

Floats = NDArray[np.float64]

DESK_ENTRIES = 16
PATH_ROWS = 60
LEAST_BALL_SPEED, LEAST_LAUNCH_DEG, MOST_LAUNCH_DEG, MOST_SPIN = 1.5, 1.0, 85.0, 16000.0
"""Outside these nothing flies that could be drawn."""
BALL_FIRST_AHEAD = 0.012
"""A ball-first strike has the setup's lean when its edge stands so far behind the ball's centre [m]."""


@dataclass(frozen=True, slots=True)
class Spreads:
    """Standard deviations of attack and lean [degrees] and entry [m]."""

    attack_deg: float
    lean_deg: float
    entry: float


@dataclass(frozen=True, slots=True)
class DeskHead:
    """One head at the desk.

    `shares` are those of the outcomes over the player's spread, `quality` their mean worth, `inside` the share of entries
    inside the window; `path` (n, 3) the edge's x, z [m] and pitch [rad]; `flight` (m, 2) distance and height [m], empty
    where nothing flies.
    """

    head: Head
    result: StrikeResult
    window: Window
    shares: dict[str, float]
    quality: float
    inside: float
    risk: Risk
    path: Floats
    flight: Floats
    apex: float
    landing_deg: float
    twin: Twin | None


@dataclass(frozen=True, slots=True)
class Desk:
    """Every head, first the one in hand; `thatch` is how deep turf gives before the soil [m], 0 in sand."""

    heads: tuple[DeskHead, ...]
    thatch: float


def at_desk(
    heads: Sequence[Head], swing: Swing, ground: Turf | Sand, spreads: Spreads, pool: FamilyPool, *, twins: bool = False
) -> Desk:
    """The engine's answer for every head; with `twins`, the setup that makes each behave like the first."""
    expected = _expect(heads, [swing] * len(heads), ground, spreads, pool)
    alike = find_twins(heads, swing, ground) if twins else [None] * len(heads)
    found = [_head(head, swing, ground, spreads, expected[i], alike[i]) for i, head in enumerate(heads)]
    return Desk(tuple(found), thatch_of(ground) if isinstance(ground, Turf) else 0.0)


def shares_at_desk(
    heads: Sequence[Head], swings: Sequence[Swing], ground: Turf | Sand, spreads: Spreads, pool: FamilyPool
) -> list[dict[str, float]]:
    """Shares of the outcomes over the player's spread, each head with a swing of its own, as `at_desk` has them."""
    return [_shares(row) for row in _expect(heads, swings, ground, spreads, pool)]


def _shares(expected: Floats) -> dict[str, float]:
    return {str(o): float(share) for o, share in zip(OUTCOMES, expected[_quality.FIRST_SHARE :], strict=True)}


def _expect(
    heads: Sequence[Head], swings: Sequence[Swing], ground: Turf | Sand, spreads: Spreads, pool: FamilyPool
) -> Floats:
    kind, row = ground_row(ground)
    here = tuple(row.tolist())
    jobs = [
        FamilyJob(head, swing.opening_deg, kind, here, swing.speed, swing.release)
        for head, swing in zip(heads, swings, strict=True)
    ]
    means = np.array([(math.radians(swing.attack_deg), math.radians(swing.lean_deg), swing.entry) for swing in swings])
    spread = [math.radians(spreads.attack_deg), math.radians(spreads.lean_deg), spreads.entry]
    root = np.diag(np.maximum(spread, 1e-6))
    nodes, entries = quadrature(DESK_ENTRIES)
    return pool.expect(jobs, means, np.tile(root, (len(jobs), 1, 1)), nodes, entries)


def _head(
    head: Head, swing: Swing, ground: Turf | Sand, spreads: Spreads, expected: Floats, twin: Twin | None
) -> DeskHead:
    window = strike_window(head, swing, ground)
    result = strike(head, swing, ground, intended=window.level if window.level > 0 else None)
    shares = _shares(expected)
    risk = risk_of(shares, head.loft_deg, result.carry if result.carry > 1 else window.level)
    flight, apex, landing = _flight(result)
    return DeskHead(
        head, result, window, shares, float(expected[_quality.QUALITY]), _inside(window, swing, spreads), risk,
        _path(head, swing, result), flight, apex, landing, twin,
    )  # fmt: skip


def _inside(window: Window, swing: Swing, spreads: Spreads) -> float:
    """Share of the player's entries that fall inside the window."""
    if window.low is None or window.high is None:
        return 0.0
    spread = max(spreads.entry, 1e-6)

    def below(x: float) -> float:
        return NORMAL.cdf((x - swing.entry) / spread)

    return (1.0 if window.open_ahead else below(window.high)) - below(window.low)


def _path(head: Head, swing: Swing, result: StrikeResult) -> Floats:
    """Edge and pitch along the pass; for a ball-first strike the way through the air and the contact alone."""
    lead = approach(build_solid(head, swing.opening_deg), swing)
    if len(result.path) > 0:
        return np.vstack([lead, result.path[:PATH_ROWS][:, [0, 1, 6]]])
    turn = swing.release / _kernels.ARC_RADIUS
    pitch = math.radians(swing.lean_deg) - turn * (result.contact_x + BALL_FIRST_AHEAD)
    return np.vstack([lead, [result.contact_x, result.leading_edge, pitch]])


def _flight(result: StrikeResult) -> tuple[Floats, float, float]:
    if result.ball_speed < LEAST_BALL_SPEED or result.launch_deg < LEAST_LAUNCH_DEG:
        return np.empty((0, 2)), 0.0, 0.0
    up, spin = min(result.launch_deg, MOST_LAUNCH_DEG), min(result.spin_rpm, MOST_SPIN)
    flight, path = flight_path(Launch(result.ball_speed, up, 0.0, spin, 0.0))
    return np.vstack([path[:-1:3], path[-1:]])[:, :2], flight.apex, flight.landing_deg
