"""The search over sets against trying every one, for every school, count, number of heads bought, ladder and pin."""

from __future__ import annotations

from itertools import combinations, pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oblatus.core.clubs import Head, StockHead
from oblatus.core.fitting import _search
from oblatus.core.fitting.candidates import candidates_of
from oblatus.core.fitting.sets import ClubSet, Rules, SetProblem, held_of, in_order

LOWEST = 48.0


def a_problem(seed, rules, heads=7, owned=2, columns=9, lofts=None):
    rng = np.random.default_rng(seed)
    stock = [
        StockHead(
            f"h{n}", f"head {n}", Head(float(rng.choice([50.0, 52.5, 54.0, 56.2, 58.0, 60.0])), 10.0),
            owned=n < owned, stock=int(rng.integers(1, 3)), bend_limit_deg=float(rng.choice([0.0, 0.5, 1.0])),
        )
        for n in range(heads)
    ]  # fmt: skip
    candidates = candidates_of(stock, LOWEST, lofts)
    cost = rng.uniform(1.0, 3.0, (len(candidates), columns)) * rng.uniform(0.1, 2.0, columns)
    fixed = rng.uniform(1.5, 3.5, columns) * rng.uniform(0.1, 2.0, columns)
    short = np.arange(columns) < columns - 3
    return SetProblem(candidates, cost, fixed, short, rules, LOWEST)


def every_set(problem, heads):
    """All sets that the rules allow, tried one by one."""
    candidates, rules = problem.candidates, problem.rules
    for count in rules.counts:
        for picks in combinations(range(len(candidates)), count):
            clubs = [candidates[i] for i in picks]
            lofts = [club.head.loft_deg for club in clubs]
            if any(b - a < 2.0 - 1e-6 for a, b in pairwise(lofts)):
                continue
            codes = [club.stock.code for club in clubs]
            if any(codes.count(c.stock.code) > (1 if c.stock.owned else c.stock.stock) for c in clubs):
                continue
            if sum(club.bought for club in clubs) > heads:
                continue
            if rules.lofts_deg is not None and [round(x, 2) for x in lofts] != [round(x, 2) for x in rules.lofts_deg]:
                continue
            if not all(sum(i in some for i in picks) == 1 for some in rules.held):
                continue
            yield picks, problem.score(picks)


@settings(max_examples=60, deadline=None)
@given(st.integers(0, 10_000), st.sampled_from([(1,), (2,), (3,), (1, 2, 3), (4,), (0, 1, 2)]), st.integers(0, 4),
       st.booleans(), st.sampled_from([0.0, 0.3]))  # fmt: skip
def test_the_best_sets_are_those_of_trying_every_one(seed, counts, heads, favourite, slot):
    if favourite:
        counts = tuple(c for c in counts if c)
    problem = a_problem(seed, Rules(counts, slot, favourite=favourite))
    wanted = sorted(score for _, score in every_set(problem, heads))
    found = problem.best(heads, 5)
    assert [one.score for one in found] == pytest.approx(wanted[:5])
    for one in found:
        assert one.score == pytest.approx(problem.score(one.picks))


@settings(max_examples=40, deadline=None)
@given(st.integers(0, 10_000), st.integers(0, 3), st.booleans(), st.floats(0.0, 0.8))
def test_the_count_of_level_sets_is_exact(seed, heads, favourite, within):
    problem = a_problem(seed, Rules((1, 2, 3), 0.1, favourite=favourite))
    best = problem.best(heads)
    if best:
        limit = best[0].score + within
        wanted = sum(score <= limit + 1e-9 for _, score in every_set(problem, heads))
        count, listed = problem.within(heads, limit)
        assert count == wanted == len(listed)
        assert all(one.score == pytest.approx(problem.score(one.picks)) for one in listed)


@pytest.mark.parametrize("favourite", [False, True])
@pytest.mark.parametrize(("counts", "heads"), [((2, 3), 1), ((2, 3), 3), ((4,), 2), ((4,), 4)])
def test_a_large_rack_is_searched_as_by_trying_every_set(counts, heads, favourite):
    """So many clubs that prices are sought for the columns; costs that rise away from a loft, as those of shots do."""
    plain = a_problem(3, Rules(counts, 0.1, favourite=favourite), heads=15 if 4 in counts else 32, owned=4, columns=40)
    rng = np.random.default_rng(heads)
    away = (plain.lofts[:, None] - rng.uniform(46.0, 62.0, 40)) / 4.0
    cost = (2.5 + 0.2 * away**2 + rng.normal(0.0, 0.03, away.shape)) * rng.uniform(0.1, 1.0, 40)
    problem = SetProblem(plain.candidates, cost, 1.1 * cost.mean(axis=0), plain.short, plain.rules, LOWEST)
    wanted = sorted(score for _, score in every_set(problem, heads))
    assert len(plain.candidates) > _search.FEW
    assert len(wanted) > 500
    assert [one.score for one in problem.best(heads, 5)] == pytest.approx(wanted[:5])
    for within in (0.0, 0.05, 0.4):
        level = sum(score <= wanted[0] + within + 1e-9 for score in wanted)
        count, listed = problem.within(heads, wanted[0] + within)
        assert count == len(listed) == level
        assert sorted(one.score for one in listed) == pytest.approx(wanted[:level])


@pytest.mark.parametrize("seed", range(12))
def test_a_typed_ladder_is_filled_loft_for_loft(seed):
    lofts = (52.5, 56.0, 60.0)
    problem = a_problem(seed, Rules((3,), lofts_deg=lofts), heads=9, lofts=lofts)
    wanted = sorted((score for _, score in every_set(problem, 3)))
    found = problem.best(3, 3)
    assert [one.score for one in found] == pytest.approx(wanted[:3])


@pytest.mark.parametrize("seed", range(12))
def test_a_head_chosen_by_hand_is_in_the_set(seed):
    plain = a_problem(seed, Rules((2, 3)))
    chosen = plain.candidates[len(plain.candidates) // 2]
    held = held_of(plain.candidates, {chosen.head.loft_deg: chosen.stock.code})
    problem = a_problem(seed, Rules((2, 3), held=held))
    wanted = sorted((score for _, score in every_set(problem, 3)))
    found = problem.best(3, 2)
    assert [one.score for one in found] == pytest.approx(wanted[:2])
    assert all(any(i in held[0] for i in one.picks) for one in found)


@given(st.integers(0, 10_000))
@settings(max_examples=30, deadline=None)
def test_another_club_never_costs_strokes(seed):
    problem = a_problem(seed, Rules((1, 2, 3, 4)))
    for heads in range(4):
        few, more = problem.best(heads), problem.best(heads + 1)
        if few:
            assert more[0].score <= few[0].score + 1e-9
    some = [one.picks for one in problem.best(4, 20) if len(one.picks) > 1]
    for picks in some:
        assert problem.score(picks) <= min(problem.score(picks[:-1]), problem.score(picks[1:])) + 1e-9


def test_sets_that_are_alike_stand_in_one_order_whatever_the_last_digits_are():
    fewer, more, other = (2,), (0, 2), (1,)
    for more_score, other_score in ((1.0 - 2e-16, 1.0 + 2e-16), (1.0 + 2e-16, 1.0 - 1e-16)):
        sets = [ClubSet(more, more_score), ClubSet(fewer, 1.0), ClubSet(other, other_score), ClubSet((3,), 0.999)]
        assert [one.picks for one in in_order(sets)] == [(3,), other, fewer, more]
