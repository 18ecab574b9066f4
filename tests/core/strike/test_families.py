"""Families against direct integration, the pool under pressure, and expected quality as it must behave."""

from __future__ import annotations

import math
import threading
import time

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oblatus.core.clubs import Head
from oblatus.core.fitting.nodes import quadrature
from oblatus.core.flight._tables import carry_of
from oblatus.core.flight.tables import carry_table
from oblatus.core.grounds import Sand, Turf
from oblatus.core.strike import FamilyJob, FamilyPool, build_solid, ground_row
from oblatus.core.strike import _kernels as kernels
from oblatus.core.strike import _lanes as lanes
from oblatus.core.strike import _quality as quality
from oblatus.core.strike.families import Turns
from oblatus.core.strike.family_jobs import SHAPE

HEADS = [Head(52, 9), Head(56, 12, sole_width=0.022), Head(60, 6, sole_width=0.017, heel_relief=0.0015)]
GROUNDS = [(Turf(60, 0.004, 0.7), 20.0, -5.0), (Turf(130, 0.001, 0.2), 20.0, -4.0), (Sand(2.1, 0.08, 0.3), 22.0, -9.0)]
POOL = FamilyPool()


def job(head: Head, ground, opening=0.0, speed=20.0) -> FamilyJob:
    kind, row = ground_row(ground)
    return FamilyJob(head, opening, kind, tuple(row.tolist()), speed, 1.0)


def root(attack=1.5, lean=2.0, entry=15.0) -> np.ndarray:
    return np.diag([math.radians(attack), math.radians(lean), entry / 1000])


def expect(pool, jobs, attack, lean=4.0, entry=-0.034, chol=None, nodes=None):
    n = len(jobs)
    means = np.tile([math.radians(attack), math.radians(lean), entry], (n, 1))
    chols = np.tile(root() if chol is None else chol, (n, 1, 1))
    return pool.expect(jobs, means, chols, *(nodes or quadrature()))


def direct_quality(head, ground, speed, attack, lean, entry, chol, nodes, entries):
    """Turf quality by integrating every strike of the quadrature on its own, in double precision."""
    solid, (kind, row) = build_solid(head, 0.0), ground_row(ground)
    table, rows = carry_table(), np.empty((90, 7))
    bx, bz, vt = quality.clean_strike(
        solid.loft_in_plane - math.radians(lean),
        math.radians(attack),
        solid.in_plane,
        solid.mass,
        row[kernels.GRIP],
        speed,
    )
    clean, total = carry_of(table, bx, bz, vt), 0.0
    for z1, z2, weight in nodes:
        a = min(math.radians(attack) + chol[0, 0] * z1, math.radians(-0.5))
        for z3, w in entries:
            hit, _ = kernels.strike(
                kind, solid.sole, solid.face, solid.edge, solid.heights, solid.leads, solid.loft_in_plane, solid.in_plane,
                solid.mass, row, kernels.CONTACTS[kind], entry + chol[2, 2] * z3, math.radians(lean) + chol[1, 1] * z2,
                a, speed, 1.0, 0.005,
                rows,
            )  # fmt: skip
            if hit[0] != kernels.NONE:
                miss = (carry_of(table, hit[5], hit[6], hit[11]) / clean - 1.0) / 0.12
                total += weight * w * math.exp(-0.5 * miss * miss) * min(max((1000 * hit[1] + 6) / 8, 0), 1)
    return total


@pytest.mark.parametrize("head", HEADS)
@pytest.mark.parametrize(("ground", "speed", "attack"), GROUNDS[:2])
def test_a_family_gives_the_quality_of_direct_integration(head, ground, speed, attack):
    nodes, entries = quadrature(33)
    direct = direct_quality(head, ground, speed, attack, 4.0, -0.034, root(), nodes, entries)
    family = expect(POOL, [job(head, ground, speed=speed)], attack, nodes=(nodes, entries))[0, quality.QUALITY]
    assert family == pytest.approx(direct, abs=0.012)


def test_the_short_quadrature_stays_near_the_long_one():
    jobs = [job(h, g, o, v) for h in HEADS for g, v, _ in GROUNDS for o in (0.0, 15.0)]
    short = expect(POOL, jobs, -6.0)[:, quality.QUALITY]
    line, weights = np.polynomial.hermite_e.hermegauss(5)
    product = np.array([
        (a, b, wa * wb) for a, wa in zip(line, weights, strict=True) for b, wb in zip(line, weights, strict=True)
    ])  # fmt: skip
    product[:, 2] /= product[:, 2].sum()
    same_nodes, entries = quadrature(64)
    for nodes, most in ((same_nodes, 0.008), (product, 0.015)):
        long = expect(POOL, jobs, -6.0, nodes=(nodes, entries))[:, quality.QUALITY]
        assert np.sqrt(np.mean((short - long) ** 2)) < most
    assert np.abs(short - long).max() < 0.04


def test_single_strikes_from_a_family_match_direct_ones():
    rng = np.random.default_rng(3)
    for head in HEADS:
        for ground, speed, attack in GROUNDS:
            solid, (kind, row) = build_solid(head, 0.0), ground_row(ground)
            rows32 = np.empty(SHAPE, dtype=np.float32)
            parts = [np.ascontiguousarray(p, dtype=np.float32) for p in (solid.sole, solid.face, solid.edge)]
            lanes.family(kind, *parts, solid.heights, solid.loft_in_plane, solid.mass, row, speed, 1.0, rows32)
            shape = (
                solid.heights,
                solid.leads,
                solid.loft_in_plane,
                solid.in_plane,
                solid.mass,
                row,
                kernels.CONTACTS[kind],
            )
            misses = []
            for _ in range(60):
                swing = (rng.normal(-0.045, 0.02), math.radians(rng.normal(4, 3)),
                         math.radians(min(rng.normal(attack, 1.5), -0.5)), speed, 1.0)  # fmt: skip
                one = lanes.strike(kind, rows32, *shape, *swing)
                other, _ = kernels.strike(
                    kind, solid.sole, solid.face, solid.edge, *shape, *swing, 0.005, np.empty((90, 7))
                )
                misses.append(abs(math.hypot(one[5], one[6]) - math.hypot(other[5], other[6])) / speed)
            assert np.quantile(misses, 0.95) < 0.02


@settings(max_examples=40)
@given(st.sampled_from(HEADS), st.sampled_from(GROUNDS), st.floats(0, 8), st.floats(4, 20), st.floats(1.2, 2.0))
def test_more_entry_error_never_raises_expected_quality_at_the_best_entry(head, ground, lean, spread, more):
    surface, speed, attack = ground
    one = [job(head, surface, speed=speed)]
    places = np.arange(-0.110, 0.021, 0.010)

    def best(millimetres):
        return max(
            expect(POOL, one, attack, lean, e, root(entry=millimetres), quadrature(24))[0, quality.QUALITY]
            for e in places
        )

    assert best(spread * more) <= best(spread) + 0.02


def test_shares_of_classes_sum_to_one_and_quality_lies_between():
    jobs = [job(h, g, 0.0, v) for h in HEADS for g, v, _ in GROUNDS]
    found = expect(POOL, jobs, -6.0)
    assert found[:, quality.FIRST_SHARE :].sum(axis=1) == pytest.approx(1.0)
    assert ((found[:, quality.QUALITY] >= 0) & (found[:, quality.QUALITY] <= 1)).all()


def test_correlated_strikes_are_not_independent_ones():
    """Far behind the ball, leaning more when landing further back costs more than leaning less."""
    one = [job(HEADS[0], GROUNDS[0][0])]
    spreads = np.array([math.radians(1.5), math.radians(4.0), 0.02])
    found = []
    for r in (-0.9, 0.0, 0.9):
        covariance = np.diag(spreads**2)
        covariance[1, 2] = covariance[2, 1] = r * spreads[1] * spreads[2]
        found.append(expect(POOL, one, -6.0, 6.0, -0.05, np.linalg.cholesky(covariance), quadrature(24))[0, 0])
    assert found[0] < found[2] - 0.02
    assert abs(found[1] - found[0]) > 0.02


def test_families_are_computed_once_and_shared_by_content():
    pool = FamilyPool()
    expect(pool, [job(HEADS[0], GROUNDS[0][0])], -5.0)
    expect(pool, [job(Head(52, 9), Turf(60, 0.004, 0.7))], -7.0, lean=1.0)
    assert pool.computed == 1
    expect(pool, [job(HEADS[0], Turf(61, 0.004, 0.7))], -5.0)
    assert pool.computed == 2


def test_a_small_pool_gives_the_same_answers():
    jobs = [job(h, g, o, v) for h in HEADS for g, v, _ in GROUNDS for o in (0.0, 10.0, 20.0)]
    small = FamilyPool(capacity=5)
    assert expect(small, jobs, -6.0) == pytest.approx(expect(POOL, jobs, -6.0))
    assert expect(small, jobs[::-1], -6.0)[::-1] == pytest.approx(expect(POOL, jobs, -6.0))


def test_a_stop_in_the_middle_leaves_nothing_half_made():
    pool = FamilyPool()
    jobs = [job(Head(46 + i / 10, 8), GROUNDS[0][0]) for i in range(150)]

    def stop(done, total):
        raise KeyboardInterrupt

    with pytest.raises(KeyboardInterrupt):
        pool.prepare(jobs, stop)
    made, told = pool.computed, []
    pool.prepare(jobs, lambda done, total: told.append((done, total)))
    assert 0 < made < 150
    assert told[-1] == (150 - made, 150 - made)
    assert expect(pool, jobs, -6.0) == pytest.approx(expect(FamilyPool(), jobs, -6.0))


def test_making_ahead_stops_when_told_and_goes_on_later():
    pool, allowed = FamilyPool(), iter([True, True, False])
    jobs = [job(Head(46 + i / 10, 8), GROUNDS[0][0]) for i in range(150)]
    assert not pool.prepare(jobs, go_on=lambda: next(allowed))
    assert 0 < pool.computed < 150
    assert pool.prepare(jobs)
    assert pool.computed == 150


def test_a_short_question_does_not_wait_for_a_long_one():
    """The lock goes round in the order of asking: one part of the long question, then the short one."""
    turns, order, inside = Turns(), [], threading.Event()

    def long():
        for part in range(4):
            with turns:
                order.append(f"part {part}")
                if part == 0:
                    inside.set()
                    while not turns._waiting:
                        time.sleep(0.001)

    thread = threading.Thread(target=long)
    thread.start()
    assert inside.wait(5)
    with turns:
        order.append("short")
    thread.join()
    assert order == ["part 0", "short", "part 1", "part 2", "part 3"]


def test_many_threads_get_what_one_gets():
    pool = FamilyPool(capacity=40)
    sets = [[job(Head(48 + i, 8 + j / 10), GROUNDS[i % 3][0]) for j in range(12)] for i in range(4)]
    wanted = [expect(POOL, jobs, -6.0) for jobs in sets]
    found: dict[int, np.ndarray] = {}

    def ask(i):
        for _ in range(3):
            found[i] = expect(pool, sets[i], -6.0)

    threads = [threading.Thread(target=ask, args=(i,)) for i in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    for i, answer in found.items():
        assert answer == pytest.approx(wanted[i])
