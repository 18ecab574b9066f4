"""The decision between the steps of change, and which of several level sets is shown."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from oblatus.core.clubs import Head, StockHead
from oblatus.core.fitting.candidates import Candidate
from oblatus.core.fitting.economy import Economy
from oblatus.core.fitting.sets import ClubSet, Rules
from oblatus.core.fitting.steps import Step, asked_of, rank_level, recommended_step, wins

ECONOMY = Economy(worth_changing=0.10)
RULES = Rules((2, 3))


def bag(strokes: float = 50.0, picks: tuple[int, ...] = (0, 1)) -> Step:
    return Step("bag", 0, picks, strokes, strokes, 0.0)


def step(heads: int, gain: float, place: float = 0.0) -> Step:
    return Step("heads" if heads else "bends", heads, (heads, heads + 1), 50.0 - gain, 50.0 - gain, gain, place)


def test_a_head_has_to_win_what_a_head_is_worth():
    assert recommended_step([bag(), step(1, 0.09)], ECONOMY, RULES) == 0
    assert recommended_step([bag(), step(1, 0.11)], ECONOMY, RULES) == 1
    dearer = replace(ECONOMY, worth_changing=0.2)
    assert recommended_step([bag(), step(1, 0.11)], dearer, RULES) == 0


def test_two_heads_have_to_win_twice_as_much():
    assert asked_of(bag(), step(2, 0.0), ECONOMY) == pytest.approx(0.2)
    assert asked_of(bag(), step(0, 0.0), ECONOMY) == pytest.approx(0.1), "a bend is work: as much as one head"
    assert recommended_step([bag(), step(1, 0.15), step(2, 0.24)], ECONOMY, RULES) == 1
    assert recommended_step([bag(), step(1, 0.15), step(2, 0.26)], ECONOMY, RULES) == 2


def test_a_far_step_that_wins_enough_leads_past_the_near_one():
    """One head wins too little by itself, three win enough over the bag: the fewest from which nothing more is won."""
    steps = [bag(), step(1, 0.05), step(3, 0.36)]
    assert recommended_step(steps, ECONOMY, RULES) == 2


def test_bends_have_no_price_and_still_want_to_win_something():
    assert recommended_step([bag(), step(0, 0.04)], ECONOMY, RULES) == 0
    assert recommended_step([bag(), step(0, 0.14)], ECONOMY, RULES) == 1
    assert recommended_step([bag(), step(0, 0.14), step(1, 0.20)], ECONOMY, RULES) == 1
    assert recommended_step([bag(), step(0, 0.14), step(1, 0.25)], ECONOMY, RULES) == 2


def test_what_is_not_there_in_eight_of_ten_draws_does_not_count():
    steps = [bag(), step(1, 0.3)]
    assert recommended_step(steps, ECONOMY, RULES, lambda a, b: 0.79) == 0
    assert recommended_step(steps, ECONOMY, RULES, lambda a, b: 0.81) == 1


def test_places_in_the_bag_count_against_a_step():
    assert wins(bag(), step(1, 0.15, place=0.10)) == pytest.approx(0.05)
    assert recommended_step([bag(), step(1, 0.15, place=0.10)], ECONOMY, RULES) == 0


@pytest.mark.parametrize("rules", [Rules((2,), held=((3,),)), Rules((2,), lofts_deg=(50.0, 56.0))])
def test_where_the_fitter_asks_for_another_set_the_bag_is_no_answer(rules):
    assert recommended_step([bag(), step(1, 0.01)], ECONOMY, rules) == 1
    assert recommended_step([bag(picks=()), step(1, 0.01)], ECONOMY, RULES) == 1, "nor where it cannot stand as it is"


gains = st.lists(st.floats(0.0, 1.5), min_size=1, max_size=4).map(sorted)


@given(gains, st.floats(0.0, 0.4))
def test_no_further_step_wins_enough_over_the_proposed_one(won, worth):
    economy = replace(ECONOMY, worth_changing=worth)
    steps = [bag(), *(step(n, gain) for n, gain in enumerate(won))]
    here = recommended_step(steps, economy, RULES)
    after = steps[here + 1 :] if here else steps[2:]  # bends that win too little go back to the bag
    assert all(wins(steps[here], one) < asked_of(steps[here], one, economy) or here == 0 for one in after)
    if here > 0:
        assert steps[here].gain >= worth - 1e-9 or steps[here].gain == max(won)


def candidate(loft: float, bend: float = 0.0, *, owned: bool = False) -> Candidate:
    item = StockHead(f"C{loft:g}", f"Club {loft:g}", Head(loft - bend, 10), owned=owned)
    return Candidate(item, bend, Head(loft, 10))


CLUBS = [candidate(50, owned=True), candidate(51), candidate(54), candidate(56, 1.0, owned=True), candidate(58)]


def order(sets: list[tuple[int, ...]], bench: list[float] | None = None, wanted: int = 0) -> list[tuple[int, ...]]:
    level = [ClubSet(picks, 40.0) for picks in sets]
    values = dict(zip(sets, bench or [0.5] * len(sets), strict=True))
    ranks = rank_level(level, CLUBS, 46.0, lambda some: np.array([values[one.picks] for one in some]), wanted)
    return [level[n].picks for n in ranks]


def test_of_level_sets_the_one_that_changes_least_is_shown():
    assert order([(1, 2), (0, 2)]) == [(0, 2), (1, 2)], "fewer heads bought"
    assert order([(0, 3), (0, 2)]) == [(0, 3), (0, 2)], "a bend is less than a head"
    assert order([(0, 2), (0, 4)], bench=[0.4, 0.6]) == [(0, 4), (0, 2)], "then the bench rules"
    assert order([(0, 2), (0, 4)], bench=[0.500, 0.502])[0] == (0, 2), "a hair of the bench decides nothing"
    assert order([(0,), (0, 2)], wanted=2) == [(0, 2), (0,)], "the wanted number goes before all"


def test_among_sets_equal_in_all_else_the_evener_steps_win():
    assert order([(2, 4), (1, 4)]) == [(1, 4), (2, 4)], "46, 51, 58 is evener than 46, 54, 58"
