"""Which wedge is which when one leaves the bag or comes back, and where what was measured with it goes."""

from __future__ import annotations

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oblatus.formats.bag_codes import moved_wedges, recoded
from oblatus.formats.fitting import BagDocument, OwnedWedgeDocument

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
    assert moved_wedges(GAP_SAND_LOB, after) == ({0: 0, 1: 1, 2: 2}, [], [])
    assert recoded(GAP_SAND_LOB, after, lambda: pytest.fail("nothing is asked"), ON) == (after, {})


def test_one_more_at_the_end_moves_none():
    after = bag("gap", "sand", "lob", "wedge 4")
    assert moved_wedges(GAP_SAND_LOB, after) == ({0: 0, 1: 1, 2: 2}, [], [3])
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


def test_an_older_bag_put_in_place_leaves_nothing_without_a_club():
    left, away = recoded(GAP_SAND_LOB, without(GAP_SAND_LOB, 2), lambda: {"own:2"}, ON)
    then = bag("driving iron")
    back, codes = recoded(left, then, lambda: {away["own:2"], "own:0"}, ON)
    assert {one.code for one in back.former} == {away["own:2"], codes["own:0"]}
    assert codes["own:1"] != codes["own:0"]


def test_another_order_takes_everything_along():
    after = GAP_SAND_LOB.model_copy(update={"wedges": (GAP_SAND_LOB.wedges[2], GAP_SAND_LOB.wedges[0])})
    assert moved_wedges(GAP_SAND_LOB, after) == ({0: 1, 2: 0}, [1], [])
    turned = GAP_SAND_LOB.model_copy(update={"wedges": GAP_SAND_LOB.wedges[1:] + GAP_SAND_LOB.wedges[:1]})
    assert moved_wedges(GAP_SAND_LOB, turned) == ({0: 2, 1: 0, 2: 1}, [], [])
    edited = wedge("gap", 49.0)
    both = GAP_SAND_LOB.model_copy(update={"wedges": (*GAP_SAND_LOB.wedges[1:], edited)})
    assert moved_wedges(GAP_SAND_LOB, both)[0] == {0: 2, 1: 0, 2: 1}


def test_of_two_alike_as_many_strikes_stay_as_there_were():
    twins = bag("gap").model_copy(update={"wedges": (wedge("sand", 56), wedge("sand", 56), wedge("lob", 60))})
    _, codes = recoded(twins, without(twins, 0), lambda: {"own:0", "own:1", "own:2"}, ON)
    moved = [codes.get(f"own:{n}", f"own:{n}") for n in range(3)]
    assert sorted(code for code in moved if not code.startswith("was:")) == ["own:0", "own:1"]


@given(st.lists(st.sampled_from("abcdef"), max_size=8), st.lists(st.sampled_from("abcdef"), max_size=8))
def test_no_wedge_becomes_two_and_none_is_lost(was: list[str], now: list[str]):
    kept, gone, new = moved_wedges(bag(*was), bag(*now))
    assert sorted([*kept, *gone]) == list(range(len(was)))
    assert sorted([*kept.values(), *new]) == list(range(len(now)))
    _, codes = recoded(bag(*was), bag(*now), lambda: {f"own:{n}" for n in range(8)}, ON)
    after = [codes.get(f"own:{n}", f"own:{n}") for n in range(len(was))]
    assert len(set(after)) == len(was), "what was measured with two wedges is never mixed"
