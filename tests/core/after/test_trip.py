"""Other ground: setup before club, two thirds, and what cannot cost strokes."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from oblatus.core.after.claims import CLAIMS_SD, Claim, came_true, claims_between, doubt_of_claims
from oblatus.core.after.drift import as_built, drifts_of
from oblatus.core.after.trip import SETUP_SHARE, advised, trip_answer
from oblatus.core.card.setup import Tool
from oblatus.errors import InputError
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.usecases.engine import engine


@pytest.fixture(scope="module")
def player():
    fitting = fitting_from(demo_fittings()[2], demo_rack())
    return fitting, [Tool(item.code, item.name, item.head) for item in fitting.stock if item.owned]


@pytest.fixture(scope="module")
def links(player):
    """Firm turf and soft sand."""
    home = player[0].grounds[0]
    return replace(
        home, name="links", share=1.0, turf=replace(home.turf, firmness_g=150.0),
        sand=replace(home.sand, penetrometer_kg_cm2=1.5), green="firm",
    )  # fmt: skip


@pytest.fixture(scope="module")
def answer(player, links):
    return trip_answer(*player, [links], engine().judge, doubt=True)


def test_what_changes_win_is_never_less_than_nothing(answer):
    assert answer.setup_gain >= 0.0
    assert answer.both_gain >= answer.setup_gain - 1e-9
    assert answer.setup_gain == pytest.approx(sum(change.gain for change in answer.changes))
    assert all(change.gain > 0.0 for change in answer.changes)
    assert all(change.spreads >= 0.0 for change in answer.changes)


def test_the_doubt_holds_the_gain_and_follows_from_the_draws(answer, player, links):
    assert answer.setup_doubt.low < answer.setup_gain < answer.setup_doubt.high
    surer = replace(player[0], economy=replace(player[0].economy, claims_sd=0.1))
    sure = trip_answer(surer, player[1], [links], engine().judge, doubt=True).setup_doubt
    assert sure.high - sure.low < answer.setup_doubt.high - answer.setup_doubt.low


def test_at_home_a_trip_home_is_as_at_home(player):
    fitting, tools = player
    found = trip_answer(fitting, tools, fitting.grounds, engine().judge)
    # a shot is played everywhere as on the ground where it is met most: more than one ground may cost a little
    assert found.as_is == pytest.approx(found.at_home, abs=1e-9)
    assert found.setup_gain == pytest.approx(found.setup_gain_home, abs=1e-9)


def test_firmer_ground_asks_for_another_answer(player, links):
    fitting, tools = player
    soft = replace(links, name="clay", turf=replace(links.turf, firmness_g=55.0))
    one, other = (trip_answer(fitting, tools, [ground], engine().judge) for ground in (links, soft))
    assert one.as_is != pytest.approx(other.as_is, abs=0.02)
    assert [c.setup for c in one.changes] != [c.setup for c in other.changes]


def test_a_favourite_club_is_taken_along_and_stays_the_only_one_for_short_shots(player, links):
    fitting, tools = player
    schools = replace(fitting.player.schools, clubs="favourite")
    one = replace(fitting, player=replace(fitting.player, schools=schools))
    other = replace(one, player=replace(one.player, schools=replace(schools, clubs="club_per_shot")))
    alone, each = (trip_answer(who, tools, [links], engine().judge, doubt=True) for who in (one, other))
    assert {change.tool.code for change in alone.changes} == {change.before.code for change in alone.changes}
    assert len({change.tool.code for change in alone.changes}) == 1
    assert len({change.tool.code for change in each.changes}) > 1
    assert alone.as_is > each.as_is
    assert alone.both_gain >= alone.setup_gain - 1e-9
    # the head that wins most: with a club for each shot it helps beside the others, alone it must do better than they all
    favourites = [trip_answer(one, [tool], [links], engine().judge).as_is for tool in tools]
    assert alone.club_gain == 0.0 or alone.bought is not None
    assert min(favourites) >= alone.as_is - 1e-9, "approaches still go with every club in the bag"


def test_a_right_head_on_the_rack_is_borrowed_only_where_it_wins(player, links):
    fitting, tools = player
    nothing = replace(fitting, stock=tuple(item for item in fitting.stock if item.owned))
    found = trip_answer(nothing, tools, [links], engine().judge)
    assert found.bought is None
    assert found.club_gain == 0.0
    assert found.both_gain == pytest.approx(found.setup_gain)


@pytest.mark.parametrize(
    ("setup", "club", "both", "advice"),
    [
        (0.05, 0.09, 0.09, "none"), (0.30, 0.40, 0.38, "setup"), (0.20, 0.40, 0.45, "club"), (0.20, 0.40, 0.55, "both"),
        (0.40, 0.0, 0.40, "setup"), (0.30, 0.45, 0.60, "both"), (0.0, 0.3, 0.3, "club"),
    ],
)  # fmt: skip
def test_setup_is_advised_where_it_brings_two_thirds_of_a_club(setup, club, both, advice):
    assert advised(setup, club, both, 0.10) == advice
    assert pytest.approx(2.0 / 3.0) == SETUP_SHARE


def test_nobody_travels_without_a_wedge_or_to_no_ground(player, links):
    with pytest.raises(InputError):
        trip_answer(player[0], [], [links], engine().judge)
    with pytest.raises(InputError):
        trip_answer(*player, [replace(links, share=0.0)], engine().judge)


def test_drift_is_told_by_the_same_sum_as_a_proposal(player):
    fitting, tools = player
    same, whole = drifts_of(fitting, tools, {tools[0].code: tools[0].head.loft_deg}, engine().judge)
    assert whole == pytest.approx(0.0, abs=1e-12)
    assert [(one.advice, one.strokes_round) for one in same] == [("leave", pytest.approx(0.0, abs=1e-12))]
    far, _ = drifts_of(fitting, tools, {tools[0].code: tools[0].head.loft_deg - 1.5}, engine().judge)
    assert far[0].advice == "bend back"
    assert far[0].carry_now > far[0].carry_built
    assert drifts_of(fitting, tools, {}, engine().judge) == ((), 0.0)
    back = as_built(tools, {tools[0].code: tools[0].head.loft_deg + 1.0})
    assert back[0].head.bounce_deg == pytest.approx(tools[0].head.bounce_deg + 1.0)


def claim(claimed: float, seen: float, sd: float = 0.2, kind: str = "one head") -> Claim:
    return Claim("somebody", kind, claimed, seen, sd, 60)


def test_claims_that_came_true_make_new_ones_surer_and_others_less():
    assert came_true([]) is None
    assert doubt_of_claims(came_true([claim(1.0, 1.0)])) == CLAIMS_SD, "one claim says nothing"
    true = came_true([claim(0.8, 0.8), claim(1.2, 1.25), claim(1.0, 0.95), claim(0.6, 0.6)])
    half = came_true([claim(0.8, 0.4), claim(1.2, 0.55), claim(1.0, 0.5), claim(0.6, 0.3)])
    assert true.share == pytest.approx(1.0, abs=0.1)
    assert half.share == pytest.approx(0.5, abs=0.12)
    assert doubt_of_claims(true) < 0.25 < doubt_of_claims(half)
    assert true.low < true.share < true.high
    vague = came_true([claim(1.0, 3.0, sd=5.0)])
    assert vague.share == pytest.approx(1.0, abs=0.15), "drawn to one as long as nothing is known"


def test_eight_of_ten_claims_come_between_shares_that_the_doubt_gives():
    draws = np.exp(np.random.default_rng(8).normal(0.0, 0.4, 200_000))
    assert claims_between(0.4) == pytest.approx(np.quantile(draws, (0.1, 0.9)), rel=0.01)
    low, high = claims_between(0.0)
    assert low == high == 1.0
