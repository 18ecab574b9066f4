"""Which wedge is which when one leaves the bag or comes back, and where what was measured with it goes."""

from __future__ import annotations

from datetime import date
from uuid import uuid4

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oblatus.formats.bag_codes import codes_today, moved_wedges, recoded
from oblatus.formats.sections.bag import BagDocument, FormerWedgeDocument, OwnedWedgeDocument

ON = date(2026, 10, 3)


def wedge(name: str, loft_deg: float = 52.0) -> OwnedWedgeDocument:
    return OwnedWedgeDocument(name=name, loft_deg=loft_deg, bounce_deg=8.0)


def bag(*names: str, **change) -> BagDocument:
    return BagDocument(wedges=tuple(wedge(name, 50.0 + 2 * n) for n, name in enumerate(names)), **change)


def without(one: BagDocument, *places: int) -> BagDocument:
    return one.model_copy(update={"wedges": tuple(w for n, w in enumerate(one.wedges) if n not in places)})


GAP_SAND_LOB = bag("gap", "sand", "lob")


def test_edited_wedges_stay_where_they_are():
    edited = list(GAP_SAND_LOB.wedges)
    edited[1] = edited[1].model_copy(update={"name": "old sand", "loft_deg": 55.0})
    after = GAP_SAND_LOB.model_copy(update={"wedges": tuple(edited)})
    assert moved_wedges(GAP_SAND_LOB.wedges, after.wedges) == ({0: 0, 1: 1, 2: 2}, [], [])
    assert recoded(GAP_SAND_LOB, after, lambda: pytest.fail("nothing is asked"), ON) == (after, {})


def test_one_more_at_the_end_moves_none():
    after = bag("gap", "sand", "lob", "wedge 4")
    assert moved_wedges(GAP_SAND_LOB.wedges, after.wedges) == ({0: 0, 1: 1, 2: 2}, [], [3])
    assert recoded(GAP_SAND_LOB, after, lambda: {"own:0"}, ON)[1] == {}


def test_those_after_one_that_leaves_move_up_and_what_was_hit_with_it_stays_its_own():
    left, codes = recoded(GAP_SAND_LOB, without(GAP_SAND_LOB, 0), lambda: {"own:0", "own:2", "pw"}, ON)
    assert (codes["own:1"], codes["own:2"]) == ("own:0", "own:1")
    assert codes["own:0"].startswith("was:")
    assert [(one.code, one.wedge.name, one.until, one.became, one.order_id) for one in left.former] == [
        (codes["own:0"], "gap", ON, "out of the bag", None)
    ]


def test_one_that_nothing_was_hit_with_leaves_no_trace():
    left, codes = recoded(GAP_SAND_LOB, without(GAP_SAND_LOB, 1), lambda: {"own:0", "own:2"}, ON)
    assert left.former == ()
    assert codes["own:2"] == "own:1"
    assert codes["own:1"].startswith("was:"), "its pin and its line of the sheet go to no other wedge"


def test_one_that_comes_back_gets_back_what_was_its_own():
    left, away = recoded(GAP_SAND_LOB, without(GAP_SAND_LOB, 0), lambda: {"own:0", "own:1"}, ON)
    undone = left.model_copy(update={"wedges": GAP_SAND_LOB.wedges})
    back, codes = recoded(left, undone, lambda: {away["own:0"], "own:0"}, ON)
    assert codes == {away["own:0"]: "own:0", "own:0": "own:1", "own:1": "own:2"}
    assert back == GAP_SAND_LOB


def test_one_that_leaves_again_by_undo_stands_once_among_those_that_were():
    """Taken out, brought back with a kept proposal, and that taken back: the bag of then has it by its code of then."""
    left, away = recoded(GAP_SAND_LOB, without(GAP_SAND_LOB, 0), lambda: {"own:0"}, ON)
    back, _ = recoded(left, GAP_SAND_LOB, lambda: {away["own:0"]}, ON)
    again, codes = recoded(back, left, lambda: {"own:0"}, ON)
    assert [one.code for one in again.former] == [codes["own:0"]]
    bent = FormerWedgeDocument(code="was:1:1", wedge=wedge("sand", 57.0), until=ON, became="bent", order_id=uuid4())
    both = recoded(back, left.model_copy(update={"former": (*left.former, bent)}), lambda: {"own:0"}, ON)[0]
    assert [one.wedge.name for one in both.former] == ["gap", "sand"], "what a build changed is told, measured or not"


def test_an_older_bag_put_in_place_leaves_nothing_without_a_club():
    left, away = recoded(GAP_SAND_LOB, without(GAP_SAND_LOB, 2), lambda: {"own:2"}, ON)
    then = bag("driving iron")
    back, codes = recoded(left, then, lambda: {away["own:2"], "own:0"}, ON)
    assert {one.code for one in back.former} == {away["own:2"], codes["own:0"]}
    assert codes["own:1"] != codes["own:0"]


def test_another_order_takes_everything_along():
    after = GAP_SAND_LOB.model_copy(update={"wedges": (GAP_SAND_LOB.wedges[2], GAP_SAND_LOB.wedges[0])})
    assert moved_wedges(GAP_SAND_LOB.wedges, after.wedges) == ({0: 1, 2: 0}, [1], [])
    turned = GAP_SAND_LOB.model_copy(update={"wedges": GAP_SAND_LOB.wedges[1:] + GAP_SAND_LOB.wedges[:1]})
    assert moved_wedges(GAP_SAND_LOB.wedges, turned.wedges) == ({0: 2, 1: 0, 2: 1}, [], [])
    edited = wedge("gap", 49.0)
    both = GAP_SAND_LOB.model_copy(update={"wedges": (*GAP_SAND_LOB.wedges[1:], edited)})
    assert moved_wedges(GAP_SAND_LOB.wedges, both.wedges)[0] == {0: 2, 1: 0, 2: 1}


def test_of_two_alike_as_many_strikes_stay_as_there_were():
    twins = bag("gap").model_copy(update={"wedges": (wedge("sand", 56), wedge("sand", 56), wedge("lob", 60))})
    _, codes = recoded(twins, without(twins, 0), lambda: {"own:0", "own:1", "own:2"}, ON)
    moved = [codes.get(f"own:{n}", f"own:{n}") for n in range(3)]
    assert sorted(code for code in moved if not code.startswith("was:")) == ["own:0", "own:1"]


def test_what_was_told_by_places_goes_to_its_wedges_whatever_left_the_bag_meanwhile():
    told = GAP_SAND_LOB.wedges
    left, away = recoded(GAP_SAND_LOB, without(GAP_SAND_LOB, 0), lambda: {"own:0"}, ON)
    assert codes_today(told, GAP_SAND_LOB, {"own:2"}, ON) == (GAP_SAND_LOB, {})
    bag_now, codes = codes_today(told, left, {"own:2", "own:0"}, ON)
    assert (bag_now, codes) == (left, {"own:0": away["own:0"], "own:1": "own:0", "own:2": "own:1"})


def test_a_wedge_that_left_without_a_trace_gets_one_when_a_strike_of_it_arrives_and_comes_back_with_it():
    left = recoded(GAP_SAND_LOB, without(GAP_SAND_LOB, 0), set, ON)[0]
    assert codes_today(GAP_SAND_LOB.wedges, left, {"own:1"}, ON)[0] == left, "nothing of it has arrived"
    now, codes = codes_today(GAP_SAND_LOB.wedges, left, {"own:0"}, ON)
    assert [(one.code, one.wedge.name) for one in now.former] == [(codes["own:0"], "gap")]
    assert codes_today(GAP_SAND_LOB.wedges, now, {"own:0"}, ON) == (now, codes), "a second one goes the same way"
    undone = now.model_copy(update={"wedges": GAP_SAND_LOB.wedges})
    assert recoded(now, undone, lambda: {codes["own:0"]}, ON)[1][codes["own:0"]] == "own:0"


def test_a_strike_that_is_here_before_the_edit_of_the_bag_goes_along_with_it():
    told = without(GAP_SAND_LOB, 0)  # taken out on the screen, and not saved yet
    codes = codes_today(told.wedges, GAP_SAND_LOB, {"own:0"}, ON)[1]
    assert codes == {"own:0": "own:1", "own:1": "own:2"}
    later = recoded(GAP_SAND_LOB, told, lambda: set(codes.values()), ON)[1]
    assert [later[codes[f"own:{n}"]] for n in range(2)] == ["own:0", "own:1"]
    added = bag("gap", "sand", "lob", "new")
    assert codes_today(added.wedges, GAP_SAND_LOB, {"own:3"}, ON) == (GAP_SAND_LOB, {})


def test_of_a_wedge_that_was_bent_meanwhile_it_was_the_one_before_and_an_edited_one_is_the_same():
    bent = GAP_SAND_LOB.wedges[1].model_copy(update={"loft_deg": 50.0})
    was = FormerWedgeDocument(code="was:1:1", wedge=GAP_SAND_LOB.wedges[1], until=ON, became="bent")
    wedges = (GAP_SAND_LOB.wedges[0], bent, GAP_SAND_LOB.wedges[2])
    built = GAP_SAND_LOB.model_copy(update={"wedges": wedges, "former": (was,)})
    assert codes_today(GAP_SAND_LOB.wedges, built, {"own:1"}, ON) == (built, {"own:1": "was:1:1"})
    typed = GAP_SAND_LOB.model_copy(update={"wedges": wedges})
    assert codes_today(GAP_SAND_LOB.wedges, typed, {"own:1"}, ON) == (typed, {})


@given(st.lists(st.sampled_from("abcdef"), max_size=8), st.lists(st.sampled_from("abcdef"), max_size=8))
def test_no_wedge_becomes_two_and_none_is_lost(was: list[str], now: list[str]):
    kept, gone, new = moved_wedges(bag(*was).wedges, bag(*now).wedges)
    assert sorted([*kept, *gone]) == list(range(len(was)))
    assert sorted([*kept.values(), *new]) == list(range(len(now)))
    _, codes = recoded(bag(*was), bag(*now), lambda: {f"own:{n}" for n in range(8)}, ON)
    after = [codes.get(f"own:{n}", f"own:{n}") for n in range(len(was))]
    assert len(set(after)) == len(was), "what was measured with two wedges is never mixed"
