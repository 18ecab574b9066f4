"""The plan of a proof: balance of the blocks, and what so many balls tell apart."""

from __future__ import annotations

from collections import Counter
from itertools import pairwise

import pytest

from oblatus.core.proof import balls_needed, detectable, make_plan
from oblatus.core.proof.plan import orders
from oblatus.core.proof.sequence import half_width
from oblatus.errors import InputError


def test_half_width_is_robbins():
    assert half_width(0.45, 20) == pytest.approx(0.279, abs=0.0005)


def test_balls_and_differences_belong_together():
    assert detectable(20) == pytest.approx(0.35, abs=0.005)
    assert balls_needed(0.1) == pytest.approx(250, abs=2)
    assert detectable(balls_needed(0.2)) <= 0.2 < detectable(balls_needed(0.2) - 1)
    assert balls_needed(0.2, sigma=0.9) == pytest.approx(4 * balls_needed(0.2, sigma=0.45), abs=3)


@pytest.mark.parametrize("clubs", [2, 3, 4])
def test_every_club_comes_first_last_and_after_every_other_equally_often(clubs):
    known = orders(clubs)
    assert set(Counter(order[0] for order in known).values()) == {len(known) // clubs}
    assert set(Counter(order[-1] for order in known).values()) == {len(known) // clubs}
    after = Counter(pair for order in known for pair in pairwise(order))
    assert len(after) == clubs * (clubs - 1)
    assert len(set(after.values())) == 1


@pytest.mark.parametrize(("clubs", "situations", "rounds"), [(2, 1, 4), (2, 2, 4), (3, 2, 6), (4, 3, 4), (4, 1, 12)])
@pytest.mark.parametrize("seed", range(5))
def test_a_plan_gives_every_club_its_balls_and_its_turns(clubs, situations, rounds, seed):
    plan = make_plan(clubs, situations, 5, rounds, seed)
    each = Counter((block.situation, block.club) for block in plan.blocks)
    assert set(each.values()) == {rounds}
    assert len(each) == clubs * situations
    assert plan.balls == 5 * clubs * situations * rounds
    first = Counter(plan.blocks[i].club for i in range(0, len(plan.blocks), clubs))
    assert max(first.values()) - min(first.get(club, 0) for club in range(clubs)) <= situations
    assert plan == make_plan(clubs, situations, 5, rounds, seed)


def test_two_clubs_go_abba():
    plan = make_plan(2, 1, 5, 4, 0)
    letters = "".join("AB"[block.club] for block in plan.blocks)
    assert letters in {"ABBABAAB", "BAABABBA"}


def test_a_plan_that_nobody_can_hit_is_refused_at_its_field():
    with pytest.raises(InputError) as caught:
        make_plan(5, 1, 2, 4, 0)
    assert {fault.field for fault in caught.value.faults} == {"candidates", "balls_per_block"}
