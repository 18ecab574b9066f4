"""The proposal as a fitter would check it: directions, schools, pins, and what is said."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from oblatus.core.clubs import Head, StockHead
from oblatus.core.delivery import Estimate, Habit, Player, Schools
from oblatus.core.fitting import Bag, BenchRules, Fitting, build_scenarios, explain, recommend
from oblatus.core.fitting.bench_rules import wanted_bounce
from oblatus.core.grounds import Ground, Sand, Turf
from oblatus.core.shots import default_shot_mix
from oblatus.errors import InputError
from oblatus.formats.convert import fitting_from
from oblatus.formats.rack import demo_rack
from oblatus.usecases.seed import demo_fittings

SOFT = Ground("soft", 1.0, Turf(55, 0.0035, 0.8), Sand(1.6, 0.1, 0.2), "soft")
FIRM = Ground("firm", 1.0, Turf(135, 0.001, 0.2), Sand(2.5, 0.03, 0.2), "firm")


def player(lean=5.0, attack=-5.0, **more) -> Player:
    habit = Habit(lean_deg=Estimate(lean, 2), attack_deg=Estimate(attack, 1.5))
    return Player(habit, 12, 105, wedge_count=3, **more)


def fitting(who=None, grounds=(SOFT,), **more) -> Fitting:
    base = fitting_from(demo_fittings()[0], demo_rack())
    return Fitting(who or player(), tuple(grounds), Bag(Head(46, 6, 0.018)), base.stock, **more)


def mean_bounce(found) -> float:
    """Bounce of the club that serves, averaged over the turf shots by their share."""
    turf = [i for i, s in enumerate(found.scenarios) if s.shot.kind == "turf" and found.served_by[i] >= 0]
    shares = [found.scenarios[i].share for i in turf]
    bounce = [found.candidates[found.clubs[found.served_by[i]].pick].head.bounce_deg for i in turf]
    return float(np.average(bounce, weights=shares))


def test_lean_and_soft_ground_want_more_bounce():
    medium = replace(SOFT, turf=Turf(85), sand=Sand(2.0))
    ladder = (50.0, 55.0, 60.0)

    def bounce(lean, ground):
        return mean_bounce(recommend(fitting(player(lean=lean), [ground], ladder_deg=ladder)))

    assert bounce(8, medium) > bounce(1, medium) + 2
    assert bounce(4, SOFT) > bounce(4, FIRM) + 2


@pytest.mark.parametrize(("firmness", "low", "high"), [(55, 8, 14), (85, 5, 10), (125, 2, 6)])
def test_the_usual_bands_stand_at_the_middle_of_their_class(firmness, low, high):
    ground = replace(SOFT, turf=Turf(firmness))
    pitch = next(s for s in build_scenarios(player(), [ground]) if s.shot.key == "pitch")
    assert wanted_bounce(pitch) == pytest.approx((low, high))


@pytest.mark.parametrize(("reading", "low", "high"), [(1.6, 12, 18), (2.0, 8, 14), (2.3, 3, 8)])
def test_the_usual_bands_in_sand(reading, low, high):
    ground = replace(SOFT, sand=Sand(reading, 0.1, 0.2))
    who = player(attack=-6.0, schools=Schools(sand_opening="square"))
    long = next(s for s in build_scenarios(who, [ground]) if s.shot.key == "sand_long")
    assert wanted_bounce(long) == pytest.approx((low, high))


def test_scenarios_share_the_golf_and_keep_to_grounds_that_have_the_lie():
    scenarios = build_scenarios(player(), [replace(SOFT, share=0.6), replace(FIRM, share=0.4)])
    assert sum(s.share for s in scenarios) == pytest.approx(1.0)
    assert {s.ground.name for s in scenarios if s.shot.key == "tight_firm"} == {"firm"}
    assert {s.ground.name for s in scenarios if s.shot.key == "plugged"} == {"soft"}
    for handicap in (None, 0, 36):
        assert sum(default_shot_mix(handicap).values()) == pytest.approx(1.0)


def test_a_wider_rack_never_scores_lower():
    whole = fitting()
    rng = np.random.default_rng(4)
    ladder = recommend(whole).ladder.lofts_deg
    best = recommend(replace(whole, ladder_deg=ladder)).sets[0].score
    for _ in range(8):
        some = tuple(item for item in whole.stock if rng.random() < 0.7)
        found = recommend(replace(whole, stock=some, ladder_deg=ladder))
        if not found.missing_lofts_deg:
            assert found.sets[0].score <= best + 1e-12


def test_a_favourite_club_serves_every_short_shot():
    found = recommend(fitting(player(schools=Schools(clubs="favourite"))))
    servers = {slot for slot, s in zip(found.served_by, found.scenarios, strict=True) if s.shot.kind != "full"}
    assert len(servers) == 1


def test_the_school_of_most_bounce_keeps_low_bounce_out_of_sand():
    judge = BenchRules()
    low, high = Head(60, 4), Head(56, 12)
    sand = [s for s in build_scenarios(player(), [SOFT]) if s.shot.kind == "sand" and s.shot.key != "plugged"]
    usual = judge.judge([low, high], sand, player())
    strict = judge.judge([low, high], sand, player(schools=Schools(sand_club="most_bounce")))
    assert (strict.parts["sand_floor"][0] < usual.parts["sand_floor"][0]).all()
    assert (strict.parts["sand_floor"][1] == 1.0).all()


def test_values_are_the_product_of_their_parts_and_lie_in_unit_range():
    found = recommend(fitting(grounds=[replace(SOFT, share=0.5), replace(FIRM, share=0.5)]))
    product = np.prod(list(found.judgement.parts.values()), axis=0)
    assert found.judgement.values == pytest.approx(product)
    assert found.judgement.values.min() >= 0
    assert found.judgement.values.max() <= 1


def test_a_pinned_head_stays_and_a_pin_that_cannot_be_built_is_said():
    free = recommend(fitting())
    loft = free.ladder.lofts_deg[1]
    second = free.candidates[free.clubs[1].ranked[1][0]].stock.code
    held = recommend(fitting(ladder_deg=free.ladder.lofts_deg, pinned={loft: second}))
    assert held.candidates[held.clubs[1].pick].stock.code == second
    assert held.pinned == (False, True, False)
    lost = recommend(fitting(ladder_deg=free.ladder.lofts_deg, pinned={loft: "DN44"}))
    assert any("DN44" in words for kind, words in explain.notes(lost) if kind == "gap")


def test_a_typed_ladder_is_taken_and_a_loft_nobody_reaches_is_said():
    found = recommend(fitting(ladder_deg=(50.0, 56.0)))
    assert found.ladder.lofts_deg == (50.0, 56.0)
    few = fitting(ladder_deg=(50.0, 61.0))
    few = replace(few, stock=tuple(item for item in few.stock if item.head.loft_deg < 55))
    lost = recommend(few)
    assert lost.missing_lofts_deg == (61.0,)
    assert len(lost.clubs) == 1
    assert any("61°" in words for _, words in explain.notes(lost))


def test_every_club_has_a_reason_with_its_own_sum():
    found = recommend(fitting())
    for slot, club in enumerate(found.clubs):
        words = explain.club_reason(found, slot)
        assert explain.degrees(found.candidates[club.pick].head.bounce_deg) in words
        assert "asked" in words
        assert explain.duty_words(found, slot)


def test_over_leaning_is_called_digging():
    flat = (StockHead("A", "flat", Head(54, 4)),)
    found = recommend(replace(fitting(player(lean=14)), stock=flat, ladder_deg=(54.0,)))
    assert "it digs" in explain.club_reason(found, 0)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"bag": Bag(Head(46, 6), other_clubs=14)}, "bag.other_clubs"),
        ({"bag": Bag(Head(46, 6), other_clubs=12)}, "player.wedge_count"),
        ({"grounds": (replace(SOFT, share=0.0),)}, "grounds"),
    ],
)
def test_what_cannot_be_served_names_its_field(change, field):
    with pytest.raises(InputError) as error:
        recommend(replace(fitting(), **change))
    assert error.value.faults[0].field == field
