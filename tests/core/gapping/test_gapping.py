"""Carries fitted to one known number, and the ladder search against brute force."""

from __future__ import annotations

import math
from itertools import combinations, pairwise, product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oblatus.core.delivery import Estimate, Habit, Player, Schools
from oblatus.core.gapping import LadderSearch, LadderWish, OwnedLoft, faced_distances, fit_carry_model
from oblatus.core.gapping.carries import SWINGS, CarryModel
from oblatus.core.gapping.faced import Band
from oblatus.core.gapping.ladder import (
    BEND_COST,
    BEND_COST_PER_DEG,
    BUY_COST,
    PART_NAMES,
    SCHOOL_WEIGHTS,
    WEDGE_COST,
    overlap_limit,
    wanted_gap,
)
from oblatus.errors import InputError

OWNED = (
    OwnedLoft("own:0", "gap", 51.0, 2.0),
    OwnedLoft("own:1", "sand", 56.0, 2.0),
    OwnedLoft("own:2", "spare", 55.0, 1.0),
)


def wish(model, lofts, *, school="equal_carry", owned=(), bands=(), factors=None) -> LadderWish:
    longest = float(model.carries([model.pitching_wedge_loft_deg])[0, 0])
    faced = faced_distances(Player(handicap=8.0), longest, bands)
    return LadderWish(tuple(lofts), owned, 58.0, Schools(gaps=school), faced, factors or {})


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


def penalty_by_hand(model, asked, ladder) -> float:
    """The penalty written out again, one part after another, without the kernel."""
    flights = model.flights([46.0, *ladder])
    full, weights = flights[:, 0, 0], SCHOOL_WEIGHTS[asked.school.gaps]
    wanted, lofts = wanted_gap(full[0]), [46.0, *ladder]
    gaps, steps = full[:-1] - full[1:], np.diff(lofts)
    uneven = (steps - steps.mean()) / 5 if asked.school.gaps == "equal_loft" else (gaps - gaps.mean()) / wanted
    open_share = alone = 0.0
    for centre, weight in zip(asked.faced.centres, asked.faced.weights, strict=True):
        lands = [
            math.degrees(flights[i, j, 2])
            for i in range(len(lofts))
            for j in range(3)
            if abs(flights[i, j, 0] - centre) <= max(0.04 * flights[i, j, 0], 2.5)
        ]
        open_share += weight * (not lands)
        alone += weight * (not lands or max(lands) - min(lands) < 3.0)
    cheapest = min(
        sum(_price(loft, owned) for loft, owned in zip(ladder, chosen, strict=True))
        for chosen in product([*asked.owned, None], repeat=len(ladder))
        if len([o for o in chosen if o]) == len({o.code for o in chosen if o})
        and all(o is None or abs(o.loft_deg - loft) <= o.limit_deg for o, loft in zip(chosen, ladder, strict=True))
    )
    over, beyond = lofts[-1] - 60.0, np.maximum(np.maximum(4 - steps, steps - 6), 0)
    return (
        weights.uncovered * open_share
        + weights.gaps * np.minimum(0.5 * ((gaps - wanted) / wanted) ** 2 + uneven**2, 2).mean()
        + weights.steps * np.minimum(beyond * (1 + beyond / 2), 2).mean()
        + weights.overlaps * (gaps < overlap_limit(wanted)).mean()
        + weights.top_loft * (((lofts[-1] - asked.wanted_top_deg) / 5) ** 2 + max(over, 0) / 4)
        + weights.alternatives * alone
        + weights.cost * (WEDGE_COST * len(ladder) + cheapest)
    )


def _price(loft, owned) -> float:
    if owned is None:
        return BUY_COST
    bend = abs(owned.loft_deg - loft)
    return BEND_COST + BEND_COST_PER_DEG * bend if bend > 0.01 else 0.0


@pytest.mark.parametrize("school", ["equal_carry", "equal_loft", "clock_cover"])
@pytest.mark.parametrize("count", [1, 2, 3])
def test_the_search_finds_what_brute_force_finds(school, count):
    model = fit_carry_model(Player(pitching_wedge_carry=108), 46)
    lofts = [48.0, 49.5, 51.0, 52.5, 54.0, 56.0, 57.5, 59.0, 61.0]
    asked = wish(model, lofts, school=school, owned=OWNED)
    scored = sorted((penalty_by_hand(model, asked, ladder), ladder) for ladder in combinations(lofts, count))
    search = LadderSearch(model, asked)
    assert [search.score(ladder).penalty for _, ladder in scored[:3]] == pytest.approx([row[0] for row in scored[:3]])
    [found] = search.best(count)
    assert found.penalty == pytest.approx(scored[0][0])
    assert found.lofts_deg == scored[0][1]


@pytest.mark.parametrize("count", [1, 2, 3, 4])
@pytest.mark.parametrize("school", ["equal_carry", "equal_loft", "clock_cover"])
def test_what_the_search_leaves_out_is_no_better(school, count):
    lofts = [x / 2 for x in range(96, 126)]
    for n, name in enumerate((*PART_NAMES, "")):
        model = fit_carry_model(Player(pitching_wedge_carry=80.0 + 6.0 * n), 44.0 + 0.5 * n)
        factors = {name: 0.0 if n % 2 else 4.0} if name else dict.fromkeys(PART_NAMES, 0.0)
        asked = wish(model, lofts, school=school, owned=OWNED, factors=factors)
        search = LadderSearch(model, asked)
        [found] = search.best(count)
        every = search.table.score(np.array(list(combinations(range(len(search.table.lofts)), count))))
        assert found.penalty == pytest.approx((every @ asked.weights.array()).min())


def test_the_front_is_what_no_ladder_beats_in_cover_and_cost():
    model = fit_carry_model(Player(pitching_wedge_carry=108), 46)
    asked = wish(model, [x / 2 for x in range(96, 126, 3)], owned=OWNED)
    search = LadderSearch(model, asked)
    front = search.front(3)
    every = [search.score(c) for n in (1, 2, 3) for c in combinations(asked.lofts_deg, n)]
    assert len(front) >= 3
    for a, b in pairwise(front):
        assert a.cost < b.cost
        assert a.uncovered_share > b.uncovered_share + 0.01
    for ladder in front:
        assert not any(o.uncovered_share < ladder.uncovered_share - 0.03 and o.cost < ladder.cost - 0.02 for o in every)


def test_owned_wedges_are_kept_bent_or_left_out_and_used_once():
    model = fit_carry_model(Player(pitching_wedge_carry=108), 46)
    ladder = LadderSearch(model, wish(model, [51.0, 55.5, 60.0], owned=OWNED)).score([51.0, 55.5, 60.0])
    words = [(c.owned.code if c.owned else None, c.bend_deg) for c in ladder.changes]
    assert words in ([("own:0", 0.0), ("own:1", -0.5), (None, 0.0)], [("own:0", 0.0), ("own:2", 0.5), (None, 0.0)])
    assert len(ladder.left_out) == 1
    both = LadderSearch(model, wish(model, [55.0, 56.0], owned=OWNED[1:])).score([55.0, 56.0])
    assert [c.owned.code for c in both.changes] == ["own:2", "own:1"]
    assert both.cost == pytest.approx(2 * WEDGE_COST)


@settings(max_examples=30)
@given(st.floats(80, 130), st.sets(st.sampled_from([x / 2 for x in range(96, 128)]), min_size=2, max_size=4))
def test_adding_a_club_never_raises_the_uncovered_distance(carry, lofts):
    model = fit_carry_model(Player(pitching_wedge_carry=carry), 46)
    search = LadderSearch(model, wish(model, sorted(lofts)))
    whole = search.score(sorted(lofts)).uncovered_share
    for left_out in lofts:
        fewer = [loft for loft in sorted(lofts) if loft != left_out]
        assert search.score(fewer).uncovered_share >= whole - 1e-9


def test_gaps_are_those_of_the_carries_and_parts_add_up():
    model = fit_carry_model(Player(pitching_wedge_carry=108), 46)
    search = LadderSearch(model, wish(model, [50.0, 55.0]))
    ladder = search.score([50.0, 55.0])
    carries = model.carries([46, 50, 55], SWINGS[:1])[:, 0]
    assert ladder.gaps == pytest.approx(carries[:-1] - carries[1:])
    assert sum(ladder.parts.values()) == pytest.approx(ladder.penalty)
    assert search.best(3) == []
    assert LadderSearch(model, wish(model, [])).front(4) == []


def test_what_is_faced_and_what_weighs_moves_the_ladder():
    model = fit_carry_model(Player(pitching_wedge_carry=108), 46)
    lofts = [x / 2 for x in range(96, 128)]
    short = LadderSearch(model, wish(model, lofts, bands=(Band(30, 45, 1.0),), factors={"top_loft": 0})).best(2)[0]
    long = LadderSearch(model, wish(model, lofts, bands=(Band(80, 105, 1.0),), factors={"top_loft": 0})).best(2)[0]
    assert short.lofts_deg[-1] > long.lofts_deg[-1]
    thrifty = LadderSearch(model, wish(model, lofts, owned=OWNED, factors={"cost": 5.0})).best(2)[0]
    usual = LadderSearch(model, wish(model, lofts, owned=OWNED, factors={"cost": 0.0})).best(2)[0]
    assert thrifty.cost < usual.cost
    assert all(change.owned is not None for change in thrifty.changes)


def test_faced_distances_sum_to_one_and_bands_stand_in_for_the_mix():
    mix = faced_distances(Player(handicap=5.0), 110.0)
    assert mix.weights.sum() == pytest.approx(1.0)
    assert mix.at(50.0) > mix.at(31.0) * 0.5
    band = faced_distances(Player(), 110.0, (Band(60, 70, 1.0),))
    assert band.at(65.0) > 5.0
    assert band.at(100.0) == 0.0
    assert faced_distances(Player(), 110.0, (Band(5, 9, 1.0),)).weights.sum() == pytest.approx(1.0)
