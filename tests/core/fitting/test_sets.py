"""The set search against brute force."""

from __future__ import annotations

from itertools import product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from oblatus.core.clubs import Head, StockHead
from oblatus.core.fitting.sets import Candidate, SetProblem, candidates_for, reachable_lofts


def candidate(slot: int, code: str, *, owned: bool = False, stock: int = 1) -> Candidate:
    return Candidate(StockHead(code, code, Head(56, 10), owned=owned, stock=stock), slot, 0.0, Head(56, 10))


def brute_force(candidates, values, shares, fixed, short, favourite, own):
    """Every combination by itertools: the score of the best."""
    slots = max(c.slot for c in candidates) + 1
    groups = [[i for i, c in enumerate(candidates) if c.slot == s] for s in range(slots)]
    best = -np.inf
    for picks in product(*groups):
        once = [candidates[i].stock for i in picks if candidates[i].stock.owned or candidates[i].stock.stock < 2]
        codes = [item.code for item in once]
        if len(set(codes)) < len(codes):
            continue
        mine = values[list(picks)]
        top = np.maximum(mine.max(axis=0), fixed)
        favourites = [(shares * np.where(short, row, top)).sum() for row in mine]
        score = max(favourites) if favourite else (shares * top).sum()
        best = max(best, score - sum(candidates[i].cost - own[i] for i in picks))
    return best


@given(st.integers(0, 10_000), st.booleans(), st.integers(1, 3))
def test_the_search_is_exact(seed, favourite, slots):
    rng = np.random.default_rng(seed)
    # a head is the same thing in every slot: whether it is owned and how many there are goes with its code
    numbers = [(s, int(rng.integers(0, 9))) for s in range(slots) for _ in range(rng.integers(2, 6))]
    candidates = [candidate(s, f"c{n}", owned=n % 3 == 0, stock=1 + n % 2) for s, n in numbers]
    k = 7
    values, own = rng.random((len(candidates), k)), rng.random(len(candidates)) / 10
    shares = rng.dirichlet(np.ones(k))
    fixed, short = rng.random(k) * 0.5, rng.random(k) < 0.6
    problem = SetProblem(candidates, values, shares, fixed, short, favourite=favourite, own=own)
    found = problem.search(5)
    expected = brute_force(candidates, values, shares, fixed, short, favourite, own)
    if not np.isfinite(expected):
        assert found == []
        return
    assert found[0].score == pytest.approx(expected)
    assert [s.score for s in found] == sorted((s.score for s in found), reverse=True)
    assert [problem.score(s.picks) for s in found] == pytest.approx([s.score for s in found])
    held = problem.search(1, {0: found[-1].picks[0]})
    assert held[0].picks[0] == found[-1].picks[0]
    assert held[0].score >= found[-1].score - 1e-12


def test_one_head_is_not_built_twice():
    candidates = [candidate(0, "only"), candidate(1, "only"), candidate(1, "other")]
    values = np.array([[1.0], [1.0], [0.1]])
    problem = SetProblem(candidates, values, np.ones(1), np.zeros(1), np.ones(1, dtype=bool))
    assert problem.search(1)[0].picks == (0, 2)


def test_bends_stay_within_the_limit_and_bounce_follows():
    stock = [
        StockHead("F", "forged", Head(54, 10), bend_limit_deg=2.0),
        StockHead("C", "cast", Head(56, 12), make="cast", bend_limit_deg=1.0),
        StockHead("gone", "sold out", Head(55, 10), stock=0),
    ]
    found = candidates_for([55.0, 56.5], stock)
    assert [(c.stock.code, c.slot, c.bend_deg, c.head.bounce_deg) for c in found] == [
        ("F", 0, 1.0, 11.0),
        ("C", 0, -1.0, 11.0),
        ("C", 1, 0.5, 12.5),
    ]
    assert reachable_lofts(stock) == tuple(x / 2 for x in range(104, 115))


def test_a_bend_that_would_leave_no_bounce_is_no_candidate():
    assert candidates_for([50.0], [StockHead("L", "low", Head(53, 2), bend_limit_deg=3.0)]) == []
