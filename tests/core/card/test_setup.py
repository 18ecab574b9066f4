"""How to play each lie: the search's own choice, the rules of ball and weight, risk and the safer shot."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from oblatus.core.card.setup import (
    Tool,
    ball_place,
    ball_words,
    clock_words,
    hours_of,
    lean_words,
    lie_cards,
    stance_of,
    weight_on,
)
from oblatus.core.delivery import Estimate, Habit
from oblatus.core.fitting.fitting import carry_model_of
from oblatus.core.fitting.recommend import recommend
from oblatus.core.fitting.scenarios import Setup
from oblatus.core.strokes import PINS
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.usecases.engine import engine

MIDDLE = [pin.name for pin in PINS].index("middle")


@pytest.fixture(scope="module", params=range(len(demo_fittings())))
def shown(request):
    """A demo player's proposal and the cards of its set."""
    fitting = fitting_from(demo_fittings()[request.param], demo_rack())
    found = recommend(fitting, engine().judge)
    tools = [Tool(c.stock.code, c.stock.name, c.head) for c in (found.candidates[p] for p in found.picks)]
    tools = tools or [Tool(item.code, item.name, item.head) for item in fitting.stock if item.owned]
    return fitting, found, tools, lie_cards(fitting, tools, engine().judge)


def test_club_and_opening_are_those_that_the_search_chose(shown):
    _, found, _, cards = shown
    if not found.picks:
        pytest.skip("today's bag is kept: no candidate stands for it")
    served = {s.key: int(found.served[n * len(PINS) + MIDDLE]) for n, s in enumerate(found.sheet.short)}
    picks = {s.key: n * len(PINS) + MIDDLE for n, s in enumerate(found.sheet.short)}
    assert {card.scenario.key for card in cards} == set(served)
    for card in cards:
        slot = served[card.scenario.key]
        if slot < 0:
            assert card.tool.code in {"pw", "9i"}
            continue
        pick = found.picks[slot]
        assert card.tool.head == found.candidates[pick].head
        chosen = card.scenario.setups[int(found.costs.pick[pick, picks[card.scenario.key]])]
        assert card.setup == chosen
        assert card.strokes == pytest.approx(float(found.costs.strokes[pick, picks[card.scenario.key]]))


def test_shots_that_are_not_clear_have_a_safer_one_or_none_that_is_safer(shown):
    *_, cards = shown
    for card in cards:
        if card.risk.light == "clear":
            assert card.safer is None
        elif card.safer is not None:
            assert card.safer.risk.weight < card.risk.weight


def test_a_clean_ball_comes_to_the_hole(shown):
    *_, cards = shown
    off = np.array([card.carry + card.run - card.scenario.layout.hole for card in cards])
    # the speed is chosen for what this player's strikes do on average: a clean one goes by a little
    assert np.abs(np.median(off)) < 4.0


HABIT = Habit(Estimate(-5.0, 1.5), Estimate(5.0, 2.0), Estimate(-0.034, 0.015))
USUAL = Setup(0.0, 5.0, -5.0, -0.034)


def test_the_ball_goes_back_with_lean_and_ahead_with_an_entry_farther_behind():
    # 35 in of shaft at 5 degrees: 78 mm behind hands that hang 50 mm ahead of the middle
    assert ball_place(USUAL, HABIT) == pytest.approx(0.05 - 0.0776, abs=1e-4)
    assert ball_place(replace(USUAL, lean_deg=8.0), HABIT) < ball_place(USUAL, HABIT)
    assert ball_place(replace(USUAL, entry=-0.074), HABIT) == pytest.approx(ball_place(USUAL, HABIT) + 0.04)
    assert ball_place(replace(USUAL, lean_deg=18.0), HABIT) == -0.16


def test_weight_goes_forward_with_steepness_and_lean_and_stays_in_reason():
    assert weight_on(Setup(0.0, 4.0, -4.0)) == pytest.approx(0.55)
    assert weight_on(replace(USUAL, attack_deg=-9.0)) > weight_on(USUAL)
    assert weight_on(replace(USUAL, lean_deg=9.0)) > weight_on(USUAL)
    assert weight_on(Setup(0.0, 18.0, -14.0)) == 0.80
    assert weight_on(Setup(0.0, -8.0, 0.0)) == 0.50


def test_the_clock_runs_through_the_players_own_swings():
    model = carry_model_of(fitting_from(demo_fittings()[0], demo_rack()))
    full = float(model.full_speeds([56.0])[0])
    hours = {"full": 12.0, "1030": 10.5, "900": 9.0}
    for swing in model.swings:
        assert hours_of(model, 56.0, full * swing.speed_share) == pytest.approx(hours[swing.key])
    assert 6.0 < hours_of(model, 56.0, 6.0) < 9.0
    assert stance_of(6.5) < stance_of(8.0) < stance_of(12.0)


def test_words_are_those_of_a_stance():
    assert ball_words(0.0) == "middle of the stance"
    assert ball_words(0.044) == "a ball ahead of the middle"
    assert ball_words(-0.065) == "1.5 balls back of the middle"
    assert clock_words(8.45) == "8:30 to 3:30"
    assert clock_words(7.0) == "7:00 to 5:00"
    assert clock_words(11.9) == "full"
    assert lean_words(-2.2) == "2° less lean than you do"
    assert lean_words(0.4) == "your own lean"
