"""Firmness and sand move the bounce that strikes best, the right way and far enough; single strikes feel the ground."""

from __future__ import annotations

import itertools
import math

import numpy as np
import pytest

from oblatus.core.clubs import Head
from oblatus.core.fitting.nodes import quadrature
from oblatus.core.grounds import Sand, Turf
from oblatus.core.strike import REFERENCE, FamilyJob, FamilyPool, Swing, ground_row, strike
from oblatus.core.strike import _quality as quality

POOL = FamilyPool()
BOUNCES = np.arange(0.0, 20.1, 1.0)
FIRMNESS = (50, 90, 130, 165)
SANDS = ((1.4, 120), (1.8, 90), (2.2, 60), (2.6, 30))

# lean, attack, entry mm; best delivered bounce at 50 / 90 / 130 / 165 g from a tight lie and from fairway
PLAYERS = {
    "middle": (3, -5, -34, (7.8, 5.9, 3.8, 0.8), (10.6, 8.4, 5.9, 2.5)),
    "digger": (8, -7, -38, (10.6, 8.5, 6.3, 4.2), (12.0, 12.0, 8.3, 5.8)),
}


def qualities(ground, lean, attack, entry, speed):
    kind, row = ground_row(ground)
    jobs = [FamilyJob(Head(56, b), 0.0, kind, tuple(row.tolist()), speed, 1.0) for b in BOUNCES.tolist()]
    mean = [math.radians(attack), math.radians(lean), entry / 1000]
    root = np.diag([math.radians(1.5), math.radians(2.0), 0.015])
    n = len(jobs)
    return POOL.expect(jobs, np.tile(mean, (n, 1)), np.tile(root, (n, 1, 1)), *quadrature(24))[:, quality.QUALITY]


def best_delivered(found, lean):
    """Delivered bounce of the best head, by a parabola through its neighbours."""
    i = int(found.argmax())
    if 0 < i < len(found) - 1:
        low, top, high = found[i - 1 : i + 2]
        return BOUNCES[i] + 0.5 * (low - high) / (low - 2 * top + high) - lean
    return BOUNCES[i] - lean


@pytest.mark.parametrize("name", PLAYERS)
@pytest.mark.parametrize(("lie", "height"), [("tight", 0.001), ("fairway", 0.0035)])
def test_firmer_turf_wants_less_bounce_as_printed(name, lie, height):
    lean, attack, entry, *printed = PLAYERS[name]
    found = [best_delivered(qualities(Turf(g, height, 0.5), lean, attack, entry, 20.0), lean) for g in FIRMNESS]
    assert all(b <= a for a, b in itertools.pairwise(found))
    assert found[0] - found[-1] > 5
    assert found == pytest.approx(printed[lie == "fairway"], abs=1.0)


def test_fourteen_degrees_on_baked_turf_cost_what_they_should():
    """A level player loses from 0.06 to 0.13 of strike quality; the digger who leans 8 degrees is right with 14."""
    baked = Turf(165, 0.0035, 0.5)
    middle, digger = qualities(baked, 3, -5, -34, 20.0), qualities(baked, 8, -7, -38, 20.0)
    assert 0.05 < middle.max() - middle[14] < 0.13
    assert digger.max() - digger[14] < 0.01


@pytest.mark.parametrize(
    ("lean", "entry", "printed"), [(2, -80, (12.7, 12.7, 9.4, 4.4)), (0, -74, (10.5, 9.5, 7.8, 1.9))]
)
def test_firmer_sand_wants_less_bounce_as_printed(lean, entry, printed):
    found = [best_delivered(qualities(Sand(p, depth / 1000, 0.3), lean, -8, entry, 22.0), lean) for p, depth in SANDS]
    assert all(b <= a + 0.3 for a, b in itertools.pairwise(found))
    assert found == pytest.approx(printed, abs=2.2)


@pytest.mark.parametrize(
    ("entry", "bounce", "soft", "hard"),
    [(-75, 2, -4.8, 2.3), (-75, 14, -1.3, 3.3), (-60, 2, -3.7, 0.7), (-60, 14, -0.1, 1.8), (-45, 2, -2.3, -0.5)],
)
def test_the_edge_at_the_ball_rises_with_firmness(entry, bounce, soft, hard):
    """Never lower on firmer turf, no step larger than 0.8 mm a ten grams, the printed ends at 50 and 180 g."""
    swing = Swing(0, 3, -5, 20, 1.0, entry / 1000)
    edges = [
        1000 * strike(Head(56, bounce), swing, Turf(g, 0.001), mesh=REFERENCE).leading_edge for g in range(50, 190, 10)
    ]
    assert all(b >= a - 0.02 for a, b in itertools.pairwise(edges))
    assert (edges[0], edges[-1]) == (pytest.approx(soft, abs=0.2), pytest.approx(hard, abs=0.2))
    assert max(b - a for a, b in itertools.pairwise(edges)) < 0.8
