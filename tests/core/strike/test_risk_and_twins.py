"""The risk light's rule, and the setup that makes one club behave like another."""

from __future__ import annotations

import pytest

from oblatus.core.clubs import Head
from oblatus.core.grounds import Turf
from oblatus.core.strike import Swing
from oblatus.core.strike.risk import risk_of
from oblatus.core.strike.twin import find_twins
from oblatus.core.words import Reader, worded

FIRM = Turf(130, 0.001, 0.3)


@pytest.mark.parametrize(
    ("shares", "loft", "light"),
    [
        ({"clean": 1.0}, 56, "clear"),
        ({"clean": 0.95, "dug": 0.05}, 56, "clear"),
        ({"clean": 0.85, "dug": 0.15}, 56, "careful"),
        ({"clean": 0.70, "dug": 0.30}, 56, "leave it"),
        ({"clean": 0.91, "bladed": 0.09}, 56, "careful"),
        ({"clean": 0.91, "bladed": 0.09}, 60, "leave it"),
        ({"clean": 0.60, "thin": 0.40}, 56, "clear"),
        ({"out": 0.8, "left-in": 0.2}, 56, "careful"),
    ],
)
def test_the_light_follows_the_weighed_chance(shares, loft, light):
    risk = risk_of(shares, loft, 20.0)
    assert risk.light == light
    assert f"{100 * risk.weight:.0f} %" in worded(risk.rule)


def test_a_blade_says_how_far_it_goes():
    rule = risk_of({"clean": 0.9, "bladed": 0.1}, 60, 20.0).rule
    assert "about 50 m instead of 20 m" in worded(rule)
    assert "about 55 yd instead of 22 yd" in worded(rule, Reader("yd", "mph"))


def test_the_twin_of_itself_is_itself():
    head = Head(56, 10)
    twin = find_twins([head, head], Swing(0.0, 4.0, -5.0, 20.0), FIRM)[1]
    assert twin is not None
    assert (twin.lean_deg, twin.opening_deg) == (4.0, 0.0)
    assert twin.likeness == pytest.approx(1.0)


def test_less_bounce_is_made_up_by_less_lean():
    twins = find_twins([Head(56, 12), Head(56, 8), Head(56, 5)], Swing(0.0, 4.0, -5.0, 20.0), Turf(90))
    leans = [twin.lean_deg for twin in twins if twin is not None]
    assert leans[1] < leans[0] < 4.0
