"""A club and a set as they are to be built: order of work, faults at their field, what it costs."""

from __future__ import annotations

from dataclasses import replace

import pytest

from oblatus.core.build.bench import Grind
from oblatus.core.build.parts import GRIPS, SHAFTS
from oblatus.core.build.plan import Wish, plan_club, plan_set
from oblatus.core.build.sheet import Prices, as_read, off, read_back
from oblatus.core.clubs import Head, StockHead
from oblatus.errors import InputError

PRICES = Prices()
OWNED = StockHead("own:0", "sand", Head(56.0, 10.0), owned=True, bend_limit_deg=2.0)
NEW = StockHead("X54", "new", Head(54.0, 10.0), bend_limit_deg=3.0, price=100.0)


def test_what_is_done_names_the_club():
    assert plan_club(Wish(OWNED, 56.0), PRICES).action == "keep"
    assert plan_club(Wish(OWNED, 55.0), PRICES).action == "bend"
    assert plan_club(Wish(OWNED, 55.0, grind=Grind(heel=0.001)), PRICES).action == "grind"
    assert plan_club(Wish(NEW, 54.0), PRICES).action == "replace"


def test_work_goes_lie_loft_grind_shaft_and_reads_at_the_end():
    wish = Wish(NEW, 55.0, 64.5, (), Grind(heel=0.001), 35.25, SHAFTS[0], GRIPS[0], 3.0)
    plan = plan_club(wish, PRICES)
    assert [one.key for one in plan.operations] == [
        "read", "lie", "loft", "grind", "cut", "weight", "glue", "grip", "swing_weight", "final_loft", "final_lie",
    ]  # fmt: skip
    assert all(one.caution for one in plan.operations if one.key in ("lie", "loft", "grind", "cut", "glue"))
    assert plan.head.bounce_deg == 11.0
    assert plan.bend_left_deg == pytest.approx(1.5)
    assert plan.built is not None
    assert plan.built.points == pytest.approx(3.0)
    assert plan.labour == PRICES.lie + PRICES.bend + PRICES.grind + PRICES.assemble + PRICES.weigh
    assert plan.parts == 100.0 + SHAFTS[0].price + GRIPS[0].price


def test_lie_and_loft_spend_the_same_limit_and_the_fault_is_at_its_club():
    with pytest.raises(InputError) as caught:
        plan_set([Wish(OWNED, 56.0), Wish(OWNED, 54.5, 65.0)], PRICES)
    fault = caught.value.faults[0]
    assert fault.field == "clubs.1.bend_deg"
    assert "at most 1° either way" in fault.message


def test_a_shaft_without_a_grip_is_no_club():
    with pytest.raises(InputError) as caught:
        plan_club(Wish(NEW, 54.0, shaft=SHAFTS[0], length_in=35.0), PRICES)
    assert caught.value.faults[0].field == "grip"


def test_the_quote_is_parts_labour_and_tax():
    plan = plan_set([Wish(OWNED, 55.0), Wish(NEW, 54.0)], PRICES)
    assert (plan.labour, plan.parts) == (PRICES.bend, 100.0)
    assert plan.total == pytest.approx(1.2 * (PRICES.bend + 100.0))


def test_readings_are_off_only_beyond_their_tolerance():
    assert off(56.0, 56.25, 0.25) == 0.0
    assert off(56.0, 55.5, 0.25) == pytest.approx(0.25)


def test_what_was_read_stands_beside_the_sheet_and_moves_the_head():
    plan = plan_club(Wish(NEW, 55.0, None, (), Grind(), 35.25, SHAFTS[0], GRIPS[0]), PRICES)
    assert plan.built is not None
    found = read_back(plan.head, plan.built, 55.5, plan.head.lie_deg + 0.4, plan.built.points - 1.5)
    assert [(one.key, round(one.over, 6)) for one in found] == [
        ("loft_deg", 0.25), ("lie_deg", 0.0), ("swing_weight_points", 0.5),
    ]  # fmt: skip
    assert read_back(plan.head, None, None, None, 3.0) == []
    moved = as_read(plan.head, 55.5, None)
    assert (moved.loft_deg, moved.bounce_deg, moved.lie_deg) == (55.5, 11.5, plan.head.lie_deg)


def test_weeks_are_those_of_what_is_not_there_and_then_the_benchs():
    shaft, grip = SHAFTS[0], GRIPS[0]
    there = Wish(OWNED, 56.0, length_in=35.0, shaft=shaft, grip=grip)
    assert plan_set([Wish(OWNED, 56.0)], PRICES).weeks == 0
    bent = plan_set([there, Wish(OWNED, 57.0)], PRICES)
    assert bent.weeks == 1
    late = plan_set([replace(there, ordered=frozenset({shaft.code}))], PRICES)
    assert late.weeks == shaft.weeks
    assert any(shaft.name in note for note in late.clubs[0].notes)
    none_left = replace(NEW, stock=0)
    assert plan_set([Wish(none_left, none_left.head.loft_deg)], PRICES).weeks == 5
