"""Carries fitted to one known number, and the ladder search against brute force."""

from __future__ import annotations

from itertools import combinations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oblatus.core.delivery import Estimate, Habit, Player, Schools
from oblatus.core.gapping import LadderWish, fit_carry_model, score_ladder, search_ladders
from oblatus.core.gapping.carries import SWINGS, CarryModel
from oblatus.errors import InputError


def wish(lofts, *, school="equal_carry", owned=frozenset()) -> LadderWish:
    return LadderWish(tuple(lofts), owned, 58.0, Schools(gaps=school))


@given(st.floats(60, 115), st.floats(44, 48), st.floats(-2, 10))
def test_the_fitted_speed_gives_the_carry_back(carry, loft, lean):
    player = Player(Habit(lean_deg=Estimate(lean, 2)), pitching_wedge_carry=carry)
    model = fit_carry_model(player, loft)
    assert model.rung(loft).flight.carry == pytest.approx(carry, abs=0.01)
    assert model.carries([loft])[0, 0] == pytest.approx(carry, abs=0.01)


@given(st.floats(20, 40), st.floats(-2, 8))
def test_more_loft_never_carries_further(speed, lean):
    carries = CarryModel(speed, 46.0, lean, -5.0, assumed=False).carries(np.arange(46, 64.5, 0.5))
    assert (np.diff(carries, axis=0) < 0).all()
    assert (np.diff(carries, axis=1) < 0).all()


def test_a_known_speed_is_taken_and_nothing_known_is_marked():
    assert fit_carry_model(Player(pitching_wedge_speed=33.0), 46).speed == 33.0
    assert fit_carry_model(Player(), 46).assumed
    assert not fit_carry_model(Player(pitching_wedge_carry=100), 46).assumed


def test_a_carry_that_no_speed_gives_is_refused_at_the_field():
    with pytest.raises(InputError) as error:
        fit_carry_model(Player(pitching_wedge_carry=400), 46)
    assert error.value.faults[0].field == "player.pitching_wedge_carry_m"


@pytest.mark.parametrize("school", ["equal_carry", "equal_loft", "clock_cover"])
@pytest.mark.parametrize("count", [1, 2, 3])
def test_the_search_finds_what_brute_force_finds(school, count):
    model = fit_carry_model(Player(pitching_wedge_carry=108), 46)
    lofts = [48.0, 49.5, 51.0, 52.5, 54.0, 56.0, 57.5, 59.0, 61.0]
    asked = wish(lofts, school=school, owned=frozenset({54.0}))
    scored = sorted((score_ladder(model, asked, ladder).penalty, ladder) for ladder in combinations(lofts, count))
    found = search_ladders(model, asked, count, best=3)
    assert [ladder.lofts_deg for ladder in found] == [ladder for _, ladder in scored[:3]]


@settings(max_examples=30)
@given(st.floats(80, 130), st.sets(st.sampled_from([x / 2 for x in range(96, 128)]), min_size=2, max_size=4))
def test_adding_a_club_never_raises_the_uncovered_distance(carry, lofts):
    model = fit_carry_model(Player(pitching_wedge_carry=carry), 46)
    ladder = sorted(lofts)
    whole = score_ladder(model, wish(ladder), ladder).uncovered
    for left_out in ladder:
        fewer = [loft for loft in ladder if loft != left_out]
        assert score_ladder(model, wish(fewer), fewer).uncovered >= whole - 1e-9


def test_gaps_are_those_of_the_carries_and_parts_add_up():
    model = fit_carry_model(Player(pitching_wedge_carry=108), 46)
    ladder = score_ladder(model, wish([50, 55]), [50.0, 55.0])
    carries = model.carries([46, 50, 55], SWINGS[:1])[:, 0]
    assert ladder.gaps == pytest.approx(carries[:-1] - carries[1:])
    assert sum(ladder.parts.values()) == pytest.approx(ladder.penalty)
    assert search_ladders(model, wish([50.0]), 2) == []
