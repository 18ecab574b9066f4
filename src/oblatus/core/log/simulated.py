"""Rounds of a player who is as the model has them: for trying out what a log would show, and for demo data."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date

import numpy as np

from oblatus.core.log.expected import Expectations
from oblatus.core.log.says import BAD_COSTS
from oblatus.core.log.shots import APPROACH, LoggedShot, strokes_of_shot
from oblatus.core.strokes import Layout
from oblatus.core.strokes.table import TOUR_TABLE, Lie

LEFTS = np.linspace(0.2, 60.0, 600)
CLEAN_SD = 0.35
"""Spread of clean shots about their mean [strokes]."""
LEAST_CLEAN = 2.02


@dataclass(frozen=True, slots=True)
class TruePlayer:
    """How a simulated player differs from the model.

    `mix` shares of situations (sum 1); `shift` strokes a shot by code of the club; `other` share of shots for which
    another club is taken than the model's, at random; `distances` mean and sd of approaches [m].
    """

    mix: Mapping[str, float]
    shift: Mapping[str, float]
    other: float = 0.1
    distances: tuple[float, float] = (75.0, 20.0)


def simulate_rounds(
    expectations: Expectations, days: Sequence[date], shots: int, player: TruePlayer, rng: np.random.Generator
) -> list[LoggedShot]:
    """Rounds on some days of so many shots each.

    A shot is heavy or not by its expected chance. The distance left is drawn so that the mean of its strokes is what is
    expected, and the shift of its club: a right model shows no difference.
    """
    keys = list(player.mix)
    shares = np.array([player.mix[key] for key in keys])
    wedges = expectations.codes[:-2]
    asked = []
    for n, on in enumerate(days):
        for key in rng.choice(keys, shots, p=shares / shares.sum()):
            far = round(float(np.clip(rng.normal(*player.distances), 30.0, 120.0))) if key == APPROACH else None
            asked.append(LoggedShot(f"round {n}", on, str(key), "", far, expectations.codes[0], None, "green"))
    best = [None if one is None else one.best_club for one in expectations.of(asked)]
    taken = [
        replace(shot, club=str(rng.choice(wedges)) if wedges and rng.random() < player.other else club, advised=club)
        for shot, club in zip(asked, best, strict=True)
        if club is not None
    ]
    found = []
    for shot, expected in zip(taken, expectations.of(taken), strict=True):
        if expected is None:
            continue
        mean = expected.strokes + player.shift.get(shot.club, 0.0)
        chance = 0.9 if expected.clean is None else expected.clean
        found.append(_played(shot, expected.layout, mean, chance, expectations.handicap, rng))
    return found


def _played(
    shot: LoggedShot, layout: Layout, mean: float, chance: float, handicap: float, rng: np.random.Generator
) -> LoggedShot:
    """A shot with a result and a distance left, of the right mean."""
    usual = max(mean + chance * BAD_COSTS, LEAST_CLEAN)
    bad = replace(shot, result="heavy", left=_left_heavy(layout, usual, handicap))
    clean = _rest(mean, chance, bad, layout, handicap)
    if clean < LEAST_CLEAN:
        # clean ones cannot make good for so dear a heavy one: it reaches the green
        bad = replace(bad, left=round(min(_left("green", usual, handicap), layout.room), 1))
        clean = max(_rest(mean, chance, bad, layout, handicap), LEAST_CLEAN)
    if rng.random() >= chance:
        return bad
    sd = min(CLEAN_SD, max(clean - LEAST_CLEAN, 0.0))
    left = _left("green", clean + sd * (1.0 if rng.random() < 0.5 else -1.0), handicap)
    return replace(shot, result="close" if left < 2.0 else "green", left=round(left, 1))


def _rest(mean: float, chance: float, bad: LoggedShot, layout: Layout, handicap: float) -> float:
    """Strokes of a clean one with which so many bad ones come to the mean."""
    return (mean - (1.0 - chance) * strokes_of_shot(bad, layout, handicap)) / chance


def _left_heavy(layout: Layout, strokes: float, handicap: float) -> float:
    """Distance left [m] of a heavy one that is worth about so many strokes: on the green, or short of it."""
    left = _left("green", strokes, handicap)
    return round(left if left <= layout.room else max(_left(layout.short, strokes, handicap), layout.room + 0.2), 1)


def _left(lie: Lie, strokes: float, handicap: float) -> float:
    """Distance left [m] from a lie that makes a shot worth so many strokes."""
    return float(np.interp(strokes - 1.0, TOUR_TABLE.strokes(lie, LEFTS, handicap), LEFTS))
