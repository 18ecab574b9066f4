"""How sure a proposal is, what would flip it, and where the strokes go."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from oblatus.core.delivery import Estimate
from oblatus.core.fitting import recommend
from oblatus.core.fitting.evidence import doubt_of, draw_law_gains
from oblatus.core.fitting.explain import next_measurement
from oblatus.core.fitting.field import Field
from oblatus.core.fitting.flips import find_flips
from oblatus.core.fitting.laws import DRAWS, as_taken, draw_laws
from oblatus.core.fitting.leaks import leaks_of
from oblatus.core.strike import _kernels as k
from oblatus.core.words import worded


@pytest.fixture(scope="module")
def hollis(fittings, found):
    return fittings[1], found[1]


def measured(fitting, count, factor=1.0):
    habit = fitting.player.habit
    estimates = {
        name: replace(getattr(habit, name), count=count, source="measured", spread=factor * getattr(habit, name).spread)
        for name in ("attack_deg", "lean_deg", "entry")
    }
    return replace(fitting, player=replace(fitting.player, habit=replace(habit, **estimates)))


def test_intervals_hold_the_gain_and_widen_with_fewer_strikes(hollis, judge):
    fitting, _ = hollis
    widths = []
    for count in (4, 400):
        one = recommend(measured(fitting, count), judge)
        doubt = doubt_of(one, judge)
        step = one.steps[one.recommended]
        drawn = doubt.steps[one.recommended]
        assert drawn.low < step.gain < drawn.high
        assert drawn.better_share > 0.95
        assert not doubt.assumed_count
        widths.append(drawn.high - drawn.low)
    assert widths[0] > widths[1]


def test_the_bag_is_not_better_than_itself(hollis, judge):
    _, one = hollis
    doubt = doubt_of(one, judge)
    assert doubt.steps[0].low == doubt.steps[0].high == doubt.steps[0].better_share == 0.0


def test_what_to_measure_next_is_what_would_change_the_choice(hollis, judge):
    doubt = replace(doubt_of(hollis[1], judge), assumed_count=False, next_axis="entry", next_share=0.124)
    assert worded(next_measurement(doubt)) == (
        "Measure next: more strikes with entry. It alone changes the choice in 12 % of the trials."
    )
    assert next_measurement(replace(doubt, next_share=0.004)).startswith("Nothing to measure next")
    assert next_measurement(replace(doubt, assumed_count=True)).startswith("Measure next: ten strikes")


def test_survival_is_a_share_and_says_what_draws_could_have_said_otherwise(fittings, found, judge):
    shares = [share.share for one in found for share in doubt_of(one, judge).shares]
    assert all(0.0 <= share <= 1.0 for share in shares)
    loose = recommend(measured(fittings[0], 2, 2.5), judge)
    assert min(share.share for share in doubt_of(loose, judge).shares) < 1.0


def test_the_draws_of_the_laws_are_eight_and_move_the_figures_a_little(hollis, judge):
    _, one = hollis
    told = []
    gains = draw_law_gains(one, lambda done, total: told.append((done, total)))
    assert told == [(n, DRAWS) for n in range(1, DRAWS + 1)]
    assert gains.strokes.shape == (DRAWS, len(one.steps))
    difference = gains.strokes[:, 0] - gains.strokes[:, one.recommended]
    assert 0.001 < difference.std() < 0.5
    assert doubt_of(one, judge, gains).law_draws == DRAWS


def test_the_laws_are_drawn_about_what_they_are_taken_for():
    assert np.all(as_taken().ground == 1.0)
    drawn = np.array([law.ground[k.TURF, k.P_U] for law in draw_laws()])
    assert len(set(drawn)) == DRAWS
    assert 0.1 < np.log(drawn).std() < 0.5
    assert all(law.ground[k.TURF, k.BALL_Z] == 1.0 for law in draw_laws())


def test_a_flip_flips(fittings, found, judge):
    """At the value that is named another set near the shown one is better, and just this side of it none is."""
    from oblatus.core.fitting.axes import axes_of

    flipped = 0
    for fitting, one in zip(fittings[1:], found[1:], strict=True):
        axes = {axis.key: axis for axis in axes_of(fitting)}
        field = Field(one, judge)
        told: list[tuple[int, int]] = []
        flips = find_flips(one, judge, lambda done, total: told.append((done, total)))  # noqa: B023 (now)
        assert told == [(done, len(axes)) for done in range(len(axes) + 1)]
        for flip in flips:
            by = flip.at - flip.value
            assert field.better(axes[flip.axis], by) is not None
            assert field.better(axes[flip.axis], 0.0) is None
            assert flip.old or flip.new
            flipped += 1
    assert flipped


def test_leaks_split_into_the_club_and_the_player(found, judge):
    for one in found:
        leaks = leaks_of(one, judge)
        assert sum(leak.share for leak in leaks) == pytest.approx(1.0)
        for leak in leaks:
            assert leak.club_part >= -1e-9
            assert leak.player_part >= -1e-9
            assert leak.strokes == pytest.approx(leak.club_part + leak.player_part)
            assert set(leak.served_by) == {"short", "middle", "roomy"}
        won = sum(leak.won for leak in leaks)
        assert won == pytest.approx(one.steps[one.taken].gain, abs=1e-6)


def test_a_wilder_entry_leaks_more_and_the_drill_follows_it(fittings, judge):
    fitting = fittings[3]
    habit = fitting.player.habit

    def leaks(spread):
        wild = replace(habit, entry=Estimate(habit.entry.mean, spread))
        one = recommend(replace(fitting, player=replace(fitting.player, habit=wild)), judge)
        return {leak.key: leak for leak in leaks_of(one, judge)}

    calm, wild = leaks(0.008), leaks(0.030)
    assert sum(leak.player_part for leak in wild.values()) > sum(leak.player_part for leak in calm.values())
    assert wild["sand_greenside"].halving["entry"] > calm["sand_greenside"].halving["entry"]
    assert wild["sand_greenside"].drill == "box in the sand"
