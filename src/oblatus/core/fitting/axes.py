"""What is not known for sure of a fitting, and how it is moved: delivery, firmness, sand."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace

from oblatus.core.constants import FLATTEST_ATTACK
from oblatus.core.delivery import Estimate, Habit, Player
from oblatus.core.fitting.fitting import Fitting
from oblatus.core.grounds import Ground

ASSUMED_COUNT = 10


@dataclass(frozen=True, slots=True)
class Axis:
    """Something that could be otherwise: how far it may stray, and how a fitting looks when it does.

    `error` is the standard error of what is known, `reach` the farthest change looked at, both in the axis' own unit.
    """

    key: str
    unit: str
    value: float
    error: float
    reach: float
    known: bool
    moved: Callable[[float], tuple[Player, tuple[Ground, ...]]]


def axes_of(fitting: Fitting) -> list[Axis]:
    """Attack, lean and entry of the habit, firmness of the turf and reading of the sand over the whole mix."""
    player, grounds = fitting.player, fitting.grounds
    habit = player.habit

    def with_habit(change: Callable[[Habit, float], Habit]) -> Callable[[float], tuple[Player, tuple[Ground, ...]]]:
        return lambda by: (replace(player, habit=change(habit, by)), grounds)

    def with_ground(change: Callable[[Ground, float], Ground]) -> Callable[[float], tuple[Player, tuple[Ground, ...]]]:
        return lambda by: (player, tuple(change(ground, by) for ground in grounds))

    firmness = sum(g.share * g.turf.firmness_g for g in grounds)
    sand = sum(g.share * g.sand.penetrometer_kg_cm2 for g in grounds)
    return [
        _habit_axis("attack", "deg", habit.attack_deg, 4.0, with_habit(
            lambda h, by: replace(h, attack_deg=_moved(h.attack_deg, by, -14.0, FLATTEST_ATTACK.value)))),
        _habit_axis("lean", "deg", habit.lean_deg, 6.0, with_habit(
            lambda h, by: replace(h, lean_deg=_moved(h.lean_deg, by, -7.0, 15.0)))),
        _habit_axis("entry", "m", habit.entry, 0.030, with_habit(
            lambda h, by: replace(h, entry=_moved(h.entry, by, -0.11, 0.03)))),
        Axis("firmness", "g", firmness, 15.0, 45.0, True, with_ground(
            lambda g, by: replace(g, turf=replace(g.turf, firmness_g=min(max(g.turf.firmness_g + by, 30.0), 200.0))))),
        Axis("sand", "kg/cm²", sand, 0.15, 0.6, True, with_ground(
            lambda g, by: replace(g, sand=replace(
                g.sand, penetrometer_kg_cm2=min(max(g.sand.penetrometer_kg_cm2 + by, 1.2), 3.2))))),
    ]  # fmt: skip


def _habit_axis(
    key: str, unit: str, estimate: Estimate, reach: float, moved: Callable[[float], tuple[Player, tuple[Ground, ...]]]
) -> Axis:
    known = estimate.source == "measured" and estimate.count is not None
    count = estimate.count if known and estimate.count else ASSUMED_COUNT
    return Axis(key, unit, estimate.mean, max(estimate.spread, 1e-4) / math.sqrt(count), reach, known, moved)


def _moved(estimate: Estimate, by: float, low: float, high: float) -> Estimate:
    return replace(estimate, mean=min(max(estimate.mean + by, low), high))
