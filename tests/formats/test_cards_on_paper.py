"""Pictures of the printed cards: the same way round as on the screens."""

from __future__ import annotations

import math
import re
from types import SimpleNamespace

import pytest

from oblatus.formats.print.cards import club_at_ball, stance


def drawn(hand: str, open_deg: float = 0.0, ball_mm: float = 0.0) -> tuple[tuple[float, float], ...]:
    """Ball, trailing and leading foot as (x, y) [cm] of the picture, down positive, the feet turned as they are."""
    svg = str(stance(SimpleNamespace(ball_mm=ball_mm, stance_mm=300.0, stance_open_deg=open_deg), hand))
    ball = re.search(r'<circle cx="([-\d.]+)" cy="([-\d.]+)"', svg)
    turn, about = (float(found) for found in re.search(r"rotate\(([-\d.]+) 0 ([-\d.]+)\)", svg).groups())
    feet = [
        (float(x) + float(w) / 2, float(y) + float(h) / 2 - about)
        for x, y, w, h in re.findall(r'<rect x="([-\d.]+)" y="([-\d.]+)" width="([\d.]+)" height="([\d.]+)"', svg)
    ]
    s, c = math.sin(math.radians(turn)), math.cos(math.radians(turn))
    low, high = (float(found) for found in re.search(r'viewBox="-45 ([-\d.]+) 90 ([\d.]+)"', svg).groups())
    placed = [(float(ball[1]), float(ball[2])), *((x * c - y * s, about + x * s + y * c) for x, y in feet)]
    assert all(low < y < low + high for _, y in placed), "nothing is cut"
    return tuple(placed)


@pytest.mark.parametrize(("hand", "side"), [("right", -1), ("left", 1)])
def test_the_target_is_at_the_right_and_a_right_hander_has_it_at_the_left_hand(hand: str, side: int):
    ball, trail, lead = drawn(hand)
    assert lead[0] > trail[0]
    assert math.copysign(1, lead[1] - ball[1]) == side, "who faces down the page has its right side at the left hand"
    assert drawn(hand, ball_mm=60.0)[0][0] > ball[0], "a ball forward lies nearer the target"


@pytest.mark.parametrize(("hand", "open_deg"), [("right", 20.0), ("left", -20.0)])
def test_an_open_stance_has_the_lead_foot_back(hand: str, open_deg: float):
    ball, trail, lead = drawn(hand, open_deg)
    assert abs(lead[1] - ball[1]) > abs(trail[1] - ball[1])


def test_the_club_leans_towards_the_target_by_its_degrees():
    lie = SimpleNamespace(lean_deg=8.0)
    svg = str(club_at_ball(lie, [[0.0, 0.0], [20.0, 0.0], [10.0, 30.0]]))
    ahead, up = (float(found) for found in re.search(r'd="M-14 -8l([-\d.]+) ([-\d.]+)"', svg).groups())
    assert math.degrees(math.atan2(ahead, -up)) == pytest.approx(8.0, abs=0.2)
