"""Drills: chosen by what half the scatter is worth and by faults, raised and changed on evidence."""

from __future__ import annotations

import pytest

from oblatus.core.card.drills import BY_NAME, CATALOGUE, Gain, prescribe, standing_of, worked
from oblatus.core.session.faults import Fault


def gains(entry=0.0, lean=0.0, speed=0.0, key="pitch"):
    return [Gain(key, key, {"entry": entry, "lean": lean, "speed": speed})]


def test_the_catalogue_is_whole():
    assert len(CATALOGUE) >= 14
    assert len(BY_NAME) == len(CATALOGUE)
    for drill in CATALOGUE:
        assert drill.stop
        assert all(0 < a < b <= drill.count for a, b in zip(drill.levels, drill.levels[1:], strict=False))


@pytest.mark.parametrize("lever", ["entry", "lean", "speed"])
def test_what_half_the_scatter_wins_chooses_the_drill(lever):
    found = prescribe(gains(**{"entry": 0.02, "lean": 0.02, "speed": 0.02, lever: 0.5}), [])
    assert found[0].drill.trains == lever
    assert found[0].worth == pytest.approx(0.5)
    assert len(found) <= 3


def test_sand_is_trained_in_sand_and_nothing_is_prescribed_for_nothing():
    found = prescribe(gains(entry=0.3, key="sand_greenside"), [])
    assert found[0].drill.surface in {"sand", "any"}
    assert prescribe(gains(0.001, 0.001, 0.001), []) == ()


def test_a_fault_that_strikes_show_comes_first_and_is_named():
    fault = Fault("early_release", "hands passed early", "", 6, 10, "set_plane", ())
    found = prescribe(gains(entry=0.04, lean=0.03), [fault])
    assert found[0].drill.key == "hand"
    assert "6 of 10" in found[0].why
    assert found[0].worth == pytest.approx(0.03), "the worth is the model's, not the order's"


def test_three_passes_raise_the_level_and_six_goes_without_one_ask_for_another():
    line = BY_NAME["line"]  # 6, 8, 9 of 10
    assert (standing_of(line, []).level, standing_of(line, []).mark) == (0, 6)
    assert standing_of(line, [6, 7, 6]).advice == "next level"
    assert standing_of(line, [6, 7, 6]).mark == 8
    assert standing_of(line, [6, 7, 5, 6, 7]).level == 0, "three in a row, not three in all"
    assert standing_of(line, [3] * 6).advice == "another drill"
    assert standing_of(line, [6] * 3 + [8] * 3 + [9] * 3).advice == "done"


def test_what_became_of_a_trained_spread_is_told_by_the_f_distribution():
    """F(9, 9) at 0.9 is 2.44 in the published tables: equal spreads of ten strikes lie between 1 / 1.56 and 1.56."""
    same = worked((12.0, 10), (12.0, 10))
    assert (same.ratio, same.call) == (1.0, "no difference shown")
    assert same.high == pytest.approx(2.44**0.5, abs=0.002)
    assert same.low == pytest.approx(1.0 / same.high)
    assert worked((12.0, 40), (8.0, 40)).call == "smaller"
    assert worked((8.0, 40), (12.0, 40)).call == "larger"
    assert worked((12.0, 40), (8.0, 3)).call == "no difference shown", "three strikes say little"
    assert worked((12.0, 1), (8.0, 40)).call == worked((0.0, 9), (8.0, 9)).call == "no difference shown"
