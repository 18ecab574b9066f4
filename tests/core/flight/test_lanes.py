"""Flights in lanes: those of the one flight, whatever stands beside them."""

from __future__ import annotations

import math

import numpy as np
import pytest

from oblatus.core.flight import _kernels as kernels
from oblatus.core.flight import _lanes as lanes

AIR = (1.17691, 1.83723e-5)
HEAD = (0.3, 0.027)
STEP = 0.25


def one_by_one(speeds, lofts, attacks, friction, restitution) -> np.ndarray:
    nothing, out = np.empty((0, 3)), np.empty((len(speeds), 6))
    for i, shot in enumerate(zip(speeds, lofts, attacks, friction, restitution, strict=True)):
        speed, loft, attack, grip, e = shot
        v = kernels.impact(speed, loft, attack, 0.0, 0.0, grip, HEAD[0], 0.0, HEAD[1], e)
        x, _, apex, _, lx, ly, _, _, status, _ = kernels.fly(*v, 0.0, 0.0, *AIR, STEP, 0.0, nothing)
        assert status == kernels.LANDED
        out[i] = x, apex, math.atan2(-ly, lx), np.linalg.norm(v[3:]), np.linalg.norm(v[:3]), math.atan2(v[1], v[0])
    return out


def shots(count: int, seed: int):
    rng = np.random.default_rng(seed)
    return (
        rng.uniform(3.0, 46.0, count), np.radians(rng.uniform(4.0, 70.0, count)),
        np.radians(rng.uniform(-12.0, 3.0, count)),
        rng.uniform(0.05, 0.45, count), rng.uniform(0.6, 0.9, count),
    )  # fmt: skip


def in_lanes(asked) -> np.ndarray:
    speeds, lofts, attacks, friction, restitution = asked
    out = np.full((len(speeds), 6), np.nan)
    assert lanes.carries(speeds, lofts, attacks, friction, HEAD[0], restitution, *AIR, STEP, out) == kernels.LANDED
    return out


@pytest.mark.parametrize("count", [0, 1, lanes.LANES - 1, lanes.LANES, lanes.LANES + 1, 400])
def test_as_many_as_there_are_come_out_as_one_by_one(count):
    asked = shots(count, 3)
    assert in_lanes(asked) == pytest.approx(one_by_one(*asked), rel=1e-9, abs=1e-9)


def test_a_shot_is_the_same_whatever_flies_beside_it():
    """Short flights free their lanes for others; none takes anything of its neighbour."""
    asked = shots(200, 5)
    together, turned = in_lanes(asked), in_lanes(tuple(part[::-1].copy() for part in asked))
    assert (together == turned[::-1]).all()


def test_one_that_never_moves_spoils_no_other():
    """Its slopes are no numbers: the ball that takes its lane next begins without them."""
    asked = shots(300, 9)
    still = np.arange(0, 300, 7)
    asked[0][still] = 0.0
    moving = np.setdiff1d(np.arange(300), still)
    alone = in_lanes(tuple(part[moving].copy() for part in asked))
    assert (in_lanes(asked)[moving] == alone).all()


def test_topspin_dives_in_lanes_as_alone():
    """Hit down on more than the loft: the spin turns over, and pulls down."""
    attack = np.radians([8.0, -8.0])
    speeds, lofts = np.full(2, 30.0), np.radians([6.0, 6.0])
    found = in_lanes((speeds, lofts, attack, np.full(2, 0.3), np.full(2, 0.8)))
    assert found == pytest.approx(one_by_one(speeds, lofts, attack, np.full(2, 0.3), np.full(2, 0.8)), rel=1e-9, abs=1e-9)


def test_one_that_does_not_come_down_is_said():
    """Without weight enough to fall within the steps: a step so short that the flight outlasts them."""
    out = np.empty((3, 6))
    asked = shots(3, 7)
    speeds, lofts, attacks, friction, restitution = asked
    assert (
        lanes.carries(speeds + 20.0, lofts, attacks, friction, HEAD[0], restitution, *AIR, 1e-5, out)
        == kernels.DID_NOT_LAND
    )
