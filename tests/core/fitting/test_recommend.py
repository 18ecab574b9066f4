"""The proposal as a fitter would check it: steps, schools, pins, ladders, and what is said."""

from __future__ import annotations

import itertools
from dataclasses import replace

import numpy as np
import pytest

from oblatus.core.clubs import Head, StockHead
from oblatus.core.delivery import Estimate, Habit, Player, Schools
from oblatus.core.fitting import (
    Bag,
    BenchRules,
    Economy,
    Fitting,
    build_scenarios,
    explain,
    explain_clubs,
    explain_notes,
    explain_sets,
    recommend,
)
from oblatus.core.fitting.bench_rules import wanted_bounce
from oblatus.core.fitting.book import KEEP_BAG
from oblatus.core.fitting.recommendation import built, near
from oblatus.core.fitting.schools import under_each_school
from oblatus.core.grounds import Ground, Sand, Turf
from oblatus.core.shots import default_shot_mix
from oblatus.core.strokes import Layout
from oblatus.errors import InputError

SOFT = Ground("soft", 1.0, Turf(55, 0.0035, 0.8), Sand(1.6, 0.1, 0.2), "soft")
FIRM = Ground("firm", 1.0, Turf(135, 0.001, 0.2), Sand(2.5, 0.03, 0.2), "firm")


def player(lean=5.0, attack=-5.0, **more) -> Player:
    habit = Habit(lean_deg=Estimate(lean, 2), attack_deg=Estimate(attack, 1.5))
    return Player(habit, 12, 105, wedge_count=3, **more)


def names(found):
    return [found.candidates[i].stock.name for i in found.picks]


@pytest.fixture(scope="module")
def small(fittings):
    """A player without wedges and a small rack, so that what is asked is quick."""
    stock = tuple(item for item in fittings[0].stock if not item.owned)[::4]
    return Fitting(player(), (SOFT,), Bag(Head(46, 6, 0.018)), stock)


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


def test_the_player_chooses_how_far_to_open_and_the_entry_moves_back_in_sand():
    usual = {s.shot.key: s for s in build_scenarios(player(), [SOFT])}
    sand = usual["sand_greenside"].setups
    assert [s.opening_deg for s in sand] == [0.0, 10.0, 20.0]
    assert [1000 * (s.entry - sand[0].entry) for s in sand] == pytest.approx([0.0, -9.0, -18.0])
    assert len({s.entry for s in usual["high_soft"].setups}) == 1
    never = {s.shot.key: s for s in build_scenarios(replace(player(), habit=Habit(opening="square")), [SOFT])}
    assert [s.opening_deg for s in never["sand_greenside"].setups] == [0.0]
    always = {s.shot.key: s for s in build_scenarios(player(schools=Schools(sand_opening="always_open")), [SOFT])}
    assert [s.opening_deg for s in always["sand_greenside"].setups] == [35.0]


def test_the_verdicts_of_the_demo_players(found):
    """A broad sand wedge and a gap wedge; a broad sand wedge; keep what you have; three heads; and who was fitted last
    year keeps what was built."""
    steps = [(one.steps[one.recommended].kind, one.steps[one.recommended].heads) for one in found]
    assert steps == [("heads", 2), ("heads", 1), ("bag", 0), ("heads", 3), ("bag", 0)]
    assert "Barrow 55" in names(found[0])
    assert "Barrow 55" in names(found[1])
    assert explain.verdict(found[2]).startswith("Keep what you have")


def test_no_step_wins_less_than_a_smaller_one_and_none_is_worse_than_the_bag(found):
    for one in found:
        gains = [step.gain for step in one.steps]
        assert gains[0] == 0.0
        assert min(gains) >= -1e-9
        scores = [step.score for step in one.steps[1:]]
        assert all(b <= a + one.tolerance for a, b in itertools.pairwise(scores))
        assert [step.heads for step in one.steps] == sorted(step.heads for step in one.steps)


def test_every_club_that_is_shown_is_reckoned_exactly(found):
    for one in found:
        for step in one.steps:
            heads = [one.candidates[i].head for i in step.picks]
            if step.kind == "bag":
                continue
            assert all(one.exact[i] for i in step.picks)
            again = one.sheet.costs(heads).cost
            assert one.costs.cost[list(step.picks)] == pytest.approx(again)


def test_the_level_sets_are_counted_one_by_one(found):
    one = found[1]
    heads = one.steps[one.taken].heads
    best = one.problem.best(heads)[0].score
    count, listed = one.problem.within(heads, best + one.tolerance)
    assert one.level == count == len(listed)
    assert min(s.score for s in listed) == pytest.approx(best)


def test_leaving_clubs_out_one_by_one_adds_up(found):
    """What a club brings is the set without it less the set; all of them together, the clubs above alone less the set."""
    one = found[0]
    total = sum(value for club in one.clubs for _, value in club.gains)
    assert total == pytest.approx(sum(club.brings for club in one.clubs))
    alone = one.problem.columns(()).sum()
    assert sum(club.brings for club in one.clubs) <= alone - one.steps[one.taken].strokes + 0.5


def test_bends_between_the_reckoned_ones_are_nearly_right(found):
    one = found[0]
    some = [i for i in range(len(one.candidates)) if not one.exact[i]][::40]
    exact = one.sheet.costs([one.candidates[i].head for i in some]).cost @ one.sheet.weights
    between = one.costs.cost[some] @ one.sheet.weights
    assert np.abs(between - exact).max() < 0.08
    assert np.sqrt(np.mean((between - exact) ** 2)) < 0.04


def test_a_wider_rack_never_costs_strokes(small, judge):
    whole = recommend(small, judge)
    rng = np.random.default_rng(4)
    for _ in range(4):
        some = tuple(item for item in small.stock if rng.random() < 0.7)
        one = recommend(replace(small, stock=some), judge)
        assert min(s.score for s in one.steps[1:]) >= min(s.score for s in whole.steps[1:]) - 1e-9


def test_the_clubs_near_a_choice_give_the_same_choice(fittings, found, judge):
    quick = recommend(fittings[1], judge, near(found[1]))
    assert not quick.whole_rack
    assert names(quick) == names(found[1])
    assert quick.steps[quick.taken].strokes == pytest.approx(found[1].steps[found[1].taken].strokes)


def test_what_the_fitter_chose_by_hand_is_not_lost_among_the_clubs_near_a_choice(fittings, found, judge):
    """A head that is taken from the table, and a typed ladder, were called out of reach until the whole rack was in."""
    clubs = near(found[0])
    far = next(c for c in found[0].candidates if c.bought and c.bend_deg and built(c) not in clubs)
    held = recommend(replace(fittings[0], pinned={far.head.loft_deg: far.stock.code}), judge, clubs)
    assert held.lost_pins == ()
    assert (far.stock.code, far.head.loft_deg) in [
        (held.candidates[i].stock.code, held.candidates[i].head.loft_deg) for i in held.picks
    ]
    lofts = tuple(x + 0.5 for x in (50.0, 54.0, 58.0))
    typed = recommend(replace(fittings[0], ladder_deg=lofts), judge, clubs)
    assert typed.missing_lofts_deg == ()
    assert tuple(typed.candidates[i].head.loft_deg for i in typed.picks) == lofts


def test_another_head_is_near_when_one_of_the_set_is_sold_out(fittings, found, judge):
    """The best sets may all hold it."""
    for fitting, one in zip(fittings, found, strict=True):
        gone = [one.candidates[i].stock.code for i in one.picks if one.candidates[i].bought]
        for code in gone:
            left = replace(fitting, stock=tuple(item for item in fitting.stock if item.code != code))
            quick, whole = recommend(left, judge, near(one)), recommend(left, judge)
            assert quick.steps[quick.taken].score < whole.steps[whole.taken].score + 0.15, code


def test_without_any_club_near_all_are_looked_at(small, judge):
    one = recommend(small, judge, frozenset())
    assert names(one) == names(recommend(small, judge))
    assert not one.whole_rack, "doubt and leaks are still to come"


def test_a_favourite_club_serves_every_short_shot(small, judge):
    one = recommend(replace(small, player=player(schools=Schools(clubs="favourite"))), judge)
    short = [column.scenario is not None for column in one.columns]
    assert len(set(one.served[short].tolist())) == 1


def test_the_school_of_most_bounce_keeps_low_bounce_out_of_sand():
    rules = BenchRules()
    low, high = Head(60, 4), Head(56, 12)
    sand = [s for s in build_scenarios(player(), [SOFT]) if s.shot.kind == "sand" and s.shot.key != "plugged"]
    usual = rules.judge([low, high], sand, player())
    strict = rules.judge([low, high], sand, player(schools=Schools(sand_club="most_bounce")))
    assert (strict.parts["sand_floor"][0] < usual.parts["sand_floor"][0]).all()
    assert (strict.parts["sand_floor"][1] == 1.0).all()


def test_a_step_that_the_fitter_takes_is_shown_and_the_proposed_one_stays_named(fittings, found, judge):
    one = recommend(replace(fittings[0], heads_bought=1), judge)
    assert one.steps[one.taken].heads == 1
    assert one.recommended == found[0].recommended != one.taken
    behind = one.steps[one.recommended].gain - one.steps[one.taken].gain
    words = f"One head, taken by hand, saves {behind:.2f} strokes a round less than the proposal of two heads. "
    assert explain.verdict(one).startswith(words), "it is not advised to buy it"
    kept = recommend(replace(fittings[0], heads_bought=KEEP_BAG), judge)
    assert kept.steps[kept.taken].kind == "bag"
    assert {verdict for _, verdict, _ in explain_sets.bag_verdicts(kept)} == {"keep"}
    # it is not said that nothing matters where the fitter keeps the bag all the same
    gain = kept.steps[kept.recommended].gain
    assert explain.verdict(kept) == f"Today's bag, taken by hand: two heads would win {gain:.2f} strokes a round."
    assert {why for *_, why in explain_sets.bag_verdicts(kept)} == {"Kept by hand."}


def test_why_the_bag_is_kept_is_said_as_it_is(fittings, found, judge):
    small = found[2]
    assert small.steps[small.recommended].kind == "bag"
    dear = recommend(replace(fittings[0], economy=Economy(worth_changing=2.0)), judge)
    for one in (small, dear):
        best = one.steps[-1]
        assert explain.verdict(one).startswith(f"Keep what you have. The most that a change could win is {best.gain:.2f}")
        assert explain.verdict(one).endswith("a head that makes changing worth it.")
    # one head wins what it must over the bag, but little more than bends do
    head = next(n for n, step in enumerate(small.steps) if step.heads == 1)
    economy = replace(small.fitting.economy, worth_changing=0.95 * small.steps[head].gain)
    alone = replace(small, steps=small.steps[: head + 1], fitting=replace(small.fitting, economy=economy))
    assert "more than bends alone: not worth a head." in explain.verdict(alone)


def test_what_a_head_must_win_moves_the_decision(fittings, judge):
    def heads(worth):
        one = recommend(replace(fittings[0], economy=Economy(worth_changing=worth)), judge)
        return one.steps[one.recommended].heads

    assert [heads(worth) for worth in (0.01, 0.10, 0.4, 2.0)] == sorted((3, 2, 1, 0), reverse=True)


def test_more_wedge_shots_a_round_scale_what_is_won(fittings, found, judge):
    one = recommend(replace(fittings[1], economy=Economy(shots=35.1)), judge)
    base = found[1]
    shots = Economy().shots_for(fittings[1].player.handicap)
    assert one.strokes_bag / base.strokes_bag == pytest.approx(35.1 / shots)


@pytest.mark.parametrize(("wanted", "words"), [(1, "2 heads are set by hand where 1 wedge is wanted"),
                                               (None, "2 heads are set by hand where there is room for 1")])  # fmt: skip
def test_more_heads_set_by_hand_than_wedges_are_told(small, judge, wanted, words):
    """It was an error of the program, and the fitting could not be opened any more."""
    pinned = {item.head.loft_deg: item.code for item in small.stock if 52.0 <= item.head.loft_deg <= 60.0}
    pinned = dict(sorted(pinned.items())[::2][:2])
    asked = replace(small.player, wedge_count=wanted)
    bag = small.bag if wanted else replace(small.bag, other_clubs=13)
    with pytest.raises(InputError) as error:
        recommend(replace(small, player=asked, bag=bag, pinned=pinned), judge)
    assert [(one.field, one.message) for one in error.value.faults] == [("choices.pinned", words)]


def test_heads_set_by_hand_that_do_not_go_together_leave_the_bag(fittings, judge):
    """A set without a club was an error of the program."""
    own = next(item for item in fittings[0].stock if item.owned)
    close = next(
        item for item in fittings[0].stock if not item.owned and abs(item.head.loft_deg - own.head.loft_deg) < 1.0
    )
    pinned = {own.head.loft_deg: own.code, close.head.loft_deg: close.code}
    clubs = frozenset({(close.code, close.head.loft_deg)})
    found = recommend(replace(fittings[0], pinned=pinned), judge, clubs)
    assert ([step.kind for step in found.steps], found.clubs) == (["bag"], ())
    assert {code for _, code in found.lost_pins} == {own.code, close.code}


def test_a_pinned_head_stays_and_a_pin_that_cannot_be_built_is_said(small, judge):
    free = recommend(small, judge)
    slot = len(free.clubs) - 1
    other = free.candidates[free.clubs[slot].ranked[1][0]]
    held = recommend(replace(small, pinned={other.head.loft_deg: other.stock.code}), judge)
    assert other.stock.code in {held.candidates[i].stock.code for i in held.picks}
    assert any(held.pinned)
    lost = recommend(replace(small, pinned={62.0: "DN44"}), judge)
    name = small.club_name("DN44")
    assert name != "DN44"
    gaps = [words for kind, words in explain_notes.notes(lost) if kind == "gap"]
    assert f"{name}, set by hand at 62°, cannot be built there: the best one stands." in gaps


def test_a_typed_ladder_is_taken_and_a_loft_nobody_reaches_is_said(small, judge):
    one = recommend(replace(small, ladder_deg=(50.0, 56.0)), judge)
    assert one.ladder.lofts_deg == (50.0, 56.0)
    few = replace(small, ladder_deg=(50.0, 61.0))
    few = replace(few, stock=tuple(item for item in few.stock if item.head.loft_deg < 55))
    lost = recommend(few, judge)
    assert lost.missing_lofts_deg == (61.0,)
    assert len(lost.clubs) == 1
    assert any("61°" in words for _, words in explain_notes.notes(lost))


def test_a_hole_elsewhere_is_another_situation(small, judge):
    base = recommend(small, judge)
    near_sand = {"sand_greenside": Layout(6.0, 3.0, 10.0, "sand", "sand")}
    one = recommend(replace(small, layouts=near_sand), judge)
    sand = [n for n, c in enumerate(base.columns) if c.scenario is not None and c.scenario.shot.key == "sand_greenside"]
    assert [c.distance for c in one.columns][sand[1]] == pytest.approx(6.0)
    assert not np.allclose(base.above.strokes[:, sand], one.above.strokes[:, sand])


def test_every_club_has_a_reason_with_its_own_sum(found):
    for one in found:
        for slot, club in enumerate(one.clubs):
            words = explain_clubs.club_reason(one, slot)
            assert explain.degrees(one.candidates[club.pick].head.bounce_deg) in words
            assert "usual" in words
            assert explain_clubs.duty_words(one, slot)


def test_over_leaning_is_called_digging(small, judge):
    flat = (StockHead("A", "flat", Head(54, 4)),)
    one = recommend(replace(small, player=player(lean=14), stock=flat, ladder_deg=(54.0,)), judge)
    assert "it digs" in explain_clubs.club_reason(one, 0)


def test_every_other_school_is_asked_and_says_what_it_asks(fittings, found, judge):
    told = []
    outcomes = under_each_school(fittings[2], found[2], judge, lambda done, total: told.append((done, total)))
    assert told[-1] == (len(outcomes), len(outcomes))
    assert len({(o.question, o.choice) for o in outcomes}) == len(outcomes) >= 17
    assert all(o.asks for o in outcomes)
    assert all(getattr(fittings[2].player.schools, o.question) != o.choice for o in outcomes)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"bag": Bag(Head(46, 6), other_clubs=14)}, "bag.other_clubs"),
        ({"bag": Bag(Head(46, 6), other_clubs=12)}, "player.wedge_count"),
        ({"grounds": (replace(SOFT, share=0.0),)}, "grounds"),
        ({"stock": ()}, "bag"),
    ],
)
def test_what_cannot_be_served_names_its_field(small, judge, change, field):
    with pytest.raises(InputError) as error:
        recommend(replace(small, **change), judge)
    assert error.value.faults[0].field == field
