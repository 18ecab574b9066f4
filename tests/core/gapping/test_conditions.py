"""The ladder in wind, air and lie; holes and overlaps by their rule; shots for a distance."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oblatus.core.delivery import Player
from oblatus.core.flight import Air, Green
from oblatus.core.gapping import SWINGS, Cell, MeasuredStrike, fit_player_model
from oblatus.core.gapping.conditions import Conditions, holes_of, miss_of, overlaps_of, shot_path, shots_in
from oblatus.core.gapping.finder import compared, find_shots, reasons_for
from oblatus.core.words import worded

CELLS = [Cell(f"{loft}", loft, swing.key) for loft in (46.0, 50.0, 55.0, 60.0) for swing in SWINGS]
STRIKES = [MeasuredStrike(str(i), "50.0", 50.0, "full", 96.0 + i % 3) for i in range(6)]
MODEL = fit_player_model(Player(pitching_wedge_carry=106), 46, STRIKES, CELLS)
STILL = shots_in(MODEL, Conditions())


def carries(**air) -> np.ndarray:
    return np.array([shot.carry for shot in shots_in(MODEL, Conditions(Air(**air)))])


def test_in_the_air_of_the_session_the_ladder_is_the_model():
    for shot, estimate in zip(STILL, MODEL.cells, strict=True):
        assert shot.carry == pytest.approx(estimate.carry, rel=1e-6)
        assert shot.carry == pytest.approx(shot.still, rel=1e-6)


def test_wind_air_and_lie_move_carries_the_way_they_do():
    still = np.array([shot.carry for shot in STILL])
    assert (carries(wind_head=4.0) < still).all()
    assert (carries(wind_head=-4.0) > still).all()
    assert (carries(altitude=1500.0) >= still - 0.15).all()  # a short, slow ball gains nothing from thin air
    full = [i for i, cell in enumerate(CELLS) if cell.swing == "full"]
    assert carries(altitude=1500.0)[full[0]] > still[full[0]] + 4.0
    assert carries(temperature_c=5.0)[full[0]] < still[full[0]] - 1.0
    across = shots_in(MODEL, Conditions(Air(wind_cross=3.0)))
    assert all(shot.lateral > 0.3 for shot in across)
    damp = shots_in(MODEL, Conditions(lie="wet"))
    assert all(a.launch.spin_rpm < b.launch.spin_rpm for a, b in zip(damp, STILL, strict=True))
    firm = shots_in(MODEL, Conditions(green=Green(0.8)))
    assert sum(shot.run for shot in firm) > sum(shot.run for shot in STILL)


def test_holes_are_where_no_rung_reaches_and_nowhere_else():
    longest = max(shot.carry for shot in STILL)
    holes = holes_of(STILL, longest)
    assert holes
    for distance in np.arange(30.5, longest, 0.5):
        near = any(abs(shot.carry - distance) <= max(0.04 * shot.carry, 2.5) for shot in STILL)
        inside = any(hole.low + 0.01 < distance < hole.high - 0.01 for hole in holes)
        if inside:
            assert not near
    assert holes_of(STILL, longest)[0].low >= 30.0
    assert holes_of(STILL[:1], longest)[0].high == pytest.approx(STILL[0].carry - 0.04 * STILL[0].carry)


def test_rungs_that_do_the_same_job_are_named_and_a_club_never_overlaps_itself():
    twins = [*CELLS, Cell("twin", 50.5, "full")]
    model = fit_player_model(Player(pitching_wedge_carry=106), 46, [], twins)
    pairs = overlaps_of(shots_in(model, Conditions()))
    assert {("50.0", "twin")} <= {(a.estimate.cell.club, b.estimate.cell.club) for a, b in pairs}
    assert all(a.estimate.cell.club != b.estimate.cell.club for a, b in pairs)


@settings(max_examples=60)
@given(st.floats(20, 130), st.sampled_from(STILL))
def test_the_mean_miss_is_that_of_a_normal_scatter(distance, shot):
    rng = np.random.default_rng(1)
    balls = rng.normal(shot.total, shot.spread, 40_000)
    assert miss_of(shot, distance) == pytest.approx(np.abs(balls - distance).mean(), rel=0.02, abs=0.05)


def test_the_finder_takes_the_rung_at_its_distance_and_the_pin_matters():
    for shot in STILL:
        found = find_shots(STILL, shot.total)
        assert abs(found[0].shot.total - shot.total) < 3.0
        assert [f.cost for f in found] == sorted(f.cost for f in found)
    front, back = (find_shots(STILL, 71.0, pin, most=12) for pin in ("front", "back"))
    short = min(STILL, key=lambda shot: abs(shot.total - 66.0))
    place = [[f.shot for f in found].index(short) for found in (front, back)]
    assert place[1] <= place[0]  # a ball that comes up short costs most to a front pin
    assert "of ten within 4 m" in worded(reasons_for(front[0], 71.0))


def test_two_shots_of_like_carry_are_told_apart_in_words():
    full, shorter = STILL[6], STILL[4]  # 55 full and 50 at 10:30
    words = compared(full, shorter)
    assert "lower" in words
    assert "less spin" in words
    assert "more release" in words
    assert compared(full, full) == "nothing to tell them apart"


def test_the_drawn_flight_ends_at_the_carry():
    for shot in STILL:
        path = shot_path(shot, Conditions())
        assert path[-1] == pytest.approx([shot.carry, 0.0], abs=0.06)
        assert path[:, 1].max() == pytest.approx(shot.apex, abs=0.15)
