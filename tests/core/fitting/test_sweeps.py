"""The choice follows from what was measured: every input swept, and the bounce that serves moves the right way."""

from __future__ import annotations

import itertools
from dataclasses import replace

import numpy as np
import pytest

from oblatus.core.clubs import Head, StockHead
from oblatus.core.delivery import Estimate, Habit, Player
from oblatus.core.fitting import Bag, Fitting, recommend
from oblatus.core.grounds import Ground, Sand, Turf

BOUNCES = np.arange(1.5, 19.6, 2.0)
LADDER = (50.5, 55.5, 59.5)
NOISE = 2.0  # a step of the rack: what rounding and the quadrature may turn


def rack():
    """Three lofts with every bounce, otherwise alike: nothing but bounce can be chosen."""
    return tuple(
        StockHead(f"{loft}/{bounce}", f"{loft:g} with {bounce:g}", Head(loft, float(bounce)), bend_limit_deg=0.0)
        for loft in LADDER
        for bounce in BOUNCES
    )


def a_fitting(lean=4.0, attack=-5.0, firmness=90.0, sand=2.0, depth=0.08, moisture=0.3, spread=15.0):
    habit = Habit(Estimate(attack, 1.5), Estimate(lean, 2.0), Estimate(-0.034, spread / 1000))
    ground = Ground("home", 1.0, Turf(firmness), Sand(sand, depth, moisture))
    return Fitting(
        Player(habit, 12.0, 105.0, wedge_count=3), (ground,), Bag(Head(46, 6, 0.018)), rack(), ladder_deg=LADDER
    )


def bounces(found):
    return np.array([found.candidates[i].head.bounce_deg for i in found.picks])


def serving(found, kind):
    """Mean bounce of the clubs that serve shots of a kind, by their weight; the clubs above do not count."""
    weight, total = 0.0, 0.0
    for column, slot, w in zip(found.columns, found.served.tolist(), found.sheet.weights.tolist(), strict=True):
        if column.scenario is not None and column.scenario.shot.kind == kind and slot >= 0:
            weight += w
            total += w * found.candidates[found.picks[slot]].head.bounce_deg
    return total / weight


def sweep(judge, kind, **values):
    ((name, some),) = values.items()
    return [serving(recommend(a_fitting(**{name: value}), judge), kind) for value in some]


def never_falls(found, by=NOISE):
    assert all(b >= a - by for a, b in itertools.pairwise(found)), found
    assert found[-1] > found[0] + 1.0, found


def test_more_lean_never_wants_less_bounce(judge):
    never_falls(sweep(judge, "turf", lean=(-2.0, 2.0, 6.0, 10.0)))


def test_a_steeper_swing_never_wants_less_bounce(judge):
    never_falls(sweep(judge, "turf", attack=(-2.0, -5.0, -8.0)))


def test_softer_turf_never_wants_less_bounce(judge):
    never_falls(sweep(judge, "turf", firmness=(165.0, 130.0, 90.0, 50.0)))


def test_softer_sand_never_wants_less_bounce(judge):
    never_falls(sweep(judge, "sand", sand=(2.8, 2.3, 1.9, 1.4)))


@pytest.mark.parametrize(
    ("name", "low", "high"),
    [("lean", -2.0, 10.0), ("attack", -2.0, -9.0), ("firmness", 50.0, 165.0), ("sand", 1.4, 2.8),
     ("depth", 0.01, 0.12), ("spread", 8.0, 30.0)],
)  # fmt: skip
def test_every_input_moves_the_set(judge, name, low, high):
    a, b = (recommend(a_fitting(**{name: value}), judge) for value in (low, high))
    assert not np.array_equal(bounces(a), bounces(b))
    assert a.steps[-1].strokes != pytest.approx(b.steps[-1].strokes, abs=0.01)


def test_moisture_moves_the_strokes_and_hardly_the_choice(judge):
    """At one firmness moisture moves no optimum on turf: what cannot be chosen by it is said in docs/models/strike.md."""
    dry, wet = (recommend(a_fitting(moisture=value), judge) for value in (0.0, 0.8))
    assert dry.steps[-1].strokes != pytest.approx(wet.steps[-1].strokes, abs=0.005)


def test_two_hundred_random_players(judge, fittings):
    """No crash, no set worse than the bag, and no pitching wedge in greenside sand while ten degrees are at hand.

    Thin or packed sand is the exception that the usual floor makes too; in damp, firm sand a few may keep the pitching
    wedge for the middle pin, which the bound below lets stand: none of these, two to eleven of 200 with a thinner rack.
    """
    rng = np.random.default_rng(200)
    stock = [item for item in fittings[0].stock if not item.owned][::3]
    wrong, kept = [], 0
    for n in range(200):
        habit = Habit(
            Estimate(float(rng.uniform(-9, -2)), float(rng.uniform(0.8, 2.5))),
            Estimate(float(rng.uniform(-2, 10)), float(rng.uniform(1, 3))),
            Estimate(float(rng.uniform(-0.045, -0.02)), float(rng.uniform(0.008, 0.025))),
            opening=str(rng.choice(["square", "when_needed", "always"])),
        )
        ground = Ground(
            "home", 1.0,
            Turf(float(rng.uniform(45, 165)), float(rng.choice([0.001, 0.0035, 0.008])), float(rng.uniform(0, 1))),
            Sand(float(rng.uniform(1.3, 2.7)), float(rng.uniform(0.02, 0.12)), float(rng.uniform(0, 0.7))),
            str(rng.choice(["soft", "medium", "firm"])), float(rng.uniform(0.3, 2.2)),
        )  # fmt: skip
        owned = [
            StockHead(f"own:{i}", f"wedge {i}", Head(loft, float(rng.uniform(4, 13))), owned=True, bend_limit_deg=0.0)
            for i, loft in enumerate(
                sorted(rng.choice([50.0, 52.0, 54.0, 56.0, 58.0, 60.0], int(rng.integers(0, 4)), replace=False))
            )
        ]
        some = [replace(item, bend_limit_deg=0.0) for item in stock]
        fitting = Fitting(
            Player(habit, float(rng.uniform(0, 32)), float(rng.uniform(75, 105))), (ground,), Bag(Head(46, 6, 0.018)),
            (*owned, *some),
        )  # fmt: skip
        found = recommend(fitting, judge)
        step = found.steps[found.recommended]
        kept += step.kind == "bag"
        assert step.strokes <= found.strokes_bag + 1e-9
        if step.kind != "bag" and not ground.sand.thin_or_wet and _pitching_wedge_in_sand(found):
            wrong.append(n)
    assert 0 < kept < 160
    assert len(wrong) <= 4, wrong


def _pitching_wedge_in_sand(found):
    """Whether a club above the wedges serves greenside sand short-sided or in the middle beside ten degrees of bounce."""
    ten = any(found.candidates[i].head.bounce_deg >= 10.0 for i in found.picks)
    sand = [
        slot
        for column, slot in zip(found.columns, found.served.tolist(), strict=True)
        if column.scenario is not None
        and column.scenario.shot.key == "sand_greenside"
        and column.pin in ("short", "middle")
    ]
    return ten and any(slot < 0 for slot in sand)
