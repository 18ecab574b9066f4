"""What a log says of simulated players: a right model shows nothing, a head that is off is found, the mix comes back."""

from __future__ import annotations

from datetime import date, timedelta

import numpy as np
import pytest

from oblatus.core.log.feedback import bands_of, mix_of, scale_of
from oblatus.core.log.says import (
    HEAD_SD,
    HEAD_THERE_SD,
    PLAYER_SD,
    SITUATION_SD,
    Noted,
    heads_shown,
    parts_of,
    reliability,
    seen_of,
    shot_spread,
)
from oblatus.core.log.shots import APPROACH, SITUATIONS, After, strokes_of_shot
from oblatus.core.log.simulated import TruePlayer, simulate_rounds
from oblatus.core.shots import default_shot_mix
from oblatus.core.strokes.table import TOUR_TABLE
from oblatus.errors import InputError

CLUB = "own:1"
"""The club that serves most short shots of this player."""
LOGS = 100


def mix_faced(expectations) -> dict[str, float]:
    """What the player truly faces: far more sand and fewer chips than is assumed."""
    assumed = default_shot_mix(expectations.fitting.player.handicap)
    true = {key: share for key, share in assumed.items() if key in SITUATIONS}
    true[APPROACH] = 1.0 - sum(true.values())
    true["sand_greenside"] *= 2.0
    true["chip"] *= 0.6
    whole = sum(true.values())
    return {key: share / whole for key, share in true.items()}


KNOWN: dict[tuple, list[Noted]] = {}


def log_of(expectations, seed: int, rounds: int, shift: float = 0.0, other: float = 0.1) -> list[Noted]:
    """A simulated log, made once for all tests."""
    key = (seed, rounds, shift, other)
    if key not in KNOWN:
        KNOWN[key] = simulated(expectations, *key)
    return KNOWN[key]


def simulated(expectations, seed: int, rounds: int, shift: float, other: float) -> list[Noted]:
    days = [date(2026, 4, 1) + timedelta(days=n) for n in range(rounds)]
    player = TruePlayer(mix_faced(expectations), {CLUB: shift}, other)
    shots = simulate_rounds(expectations, days, 15, player, np.random.default_rng(seed))
    return [
        Noted(shot, expected, strokes_of_shot(shot, expected.layout, expectations.handicap))
        for shot, expected in zip(shots, expectations.of(shots), strict=True)
        if expected is not None
    ]


def called(expectations, rounds: int, shift: float) -> tuple[int, int, int]:
    """In how many logs the shifted club is called worse; how many others are called, and of how many."""
    found = false = others = 0
    for seed in range(LOGS):
        noted = log_of(expectations, seed, rounds, shift)
        heads = {h.club: h for h in heads_shown(noted, shot_spread(noted), ["own:0", "own:1", "own:2"])}
        mine = heads.pop(CLUB, None)
        found += mine is not None and mine.called and mine.difference > 0.0
        rest = [*heads.values(), *([mine] if mine is not None and shift == 0.0 else [])]
        false += sum(head.called for head in rest)
        others += len(rest)
    return found, false, others


def test_a_head_without_a_difference_is_not_claimed_in_90_of_100(expectations):
    _, false, of = called(expectations, 10, 0.0)
    assert false <= 0.1 * of


def test_a_head_that_costs_a_fifth_of_a_stroke_is_found(expectations):
    """Told from the player by what the bag's other clubs did; those are seldom blamed for it."""
    few, false, of = called(expectations, 10, 0.2)
    assert few >= 85
    assert false <= 0.2 * of


def test_ten_rounds_show_that_a_club_costs_a_fifth_of_a_stroke(expectations):
    """Against the model, by head or player; of a right club it is claimed in one log of ten at most."""

    def worse(shift: float) -> int:
        found = 0
        for seed in range(LOGS):
            noted = log_of(expectations, seed, 10, shift)
            heads = heads_shown(noted, shot_spread(noted), [CLUB])
            found += heads[0].alone == ("worse" if shift else heads[0].alone) and heads[0].alone in ("worse", "better")
        return found

    assert worse(0.2) >= 95
    assert worse(0.0) <= 10


def test_ten_rounds_bring_the_mix_back_within_a_fifth(expectations):
    assumed = default_shot_mix(expectations.fitting.player.handicap)
    true = mix_faced(expectations)
    off = []
    for seed in range(40):
        found = mix_of([one.shot for one in log_of(expectations, seed, 10)], assumed)
        short = {key: found[key] for key in true if key != APPROACH}
        off.append(
            0.5 * (sum(abs(short[key] - true[key]) for key in short) + abs(1.0 - sum(short.values()) - true[APPROACH]))
        )
    assert max(off) < 0.2
    assumed_off = 0.5 * sum(abs(assumed.get(key, 0.0) - share) for key, share in true.items() if key != APPROACH)
    assert np.mean(off) < assumed_off + 0.05


def test_no_shot_leaves_the_assumed_mix_as_it_is():
    assumed = default_shot_mix(12.0)
    found = mix_of([], assumed)
    assert found == pytest.approx(assumed)
    assert sum(found.values()) == pytest.approx(1.0)


def test_a_right_model_lies_on_the_line(expectations):
    for one in reliability(log_of(expectations, 5, 200)):
        # the stretch's true share lies within three widths of its own interval
        assert abs(one.came - one.expected) < 3.0 * (one.came_high - one.came_low) / 2.56 + 0.01, one
    whole = log_of(expectations, 5, 200)
    assert abs(seen_of(whole, shot_spread(whole)).difference) < 0.05


def test_few_shots_are_drawn_to_the_model_and_not_called(expectations):
    noted = log_of(expectations, 1, 1)[:3]
    terrible = [Noted(one.shot, one.expected, one.expected.strokes + 2.0) for one in noted]
    found = seen_of(terrible, 0.45)
    assert found.call == "too few"
    # n t^2 / (n t^2 + s^2), by hand
    weight = 3 * SITUATION_SD**2 / (3 * SITUATION_SD**2 + 0.45**2)
    assert found.weight == pytest.approx(weight)
    assert found.difference == pytest.approx(2.0 * weight)
    assert found.high - found.low == pytest.approx(2 * 1.2816 * SITUATION_SD * np.sqrt(1.0 - weight), rel=1e-3)
    with pytest.raises(InputError):
        seen_of([], 0.45)


def test_one_head_alone_takes_its_share_of_what_cannot_be_told_apart(expectations):
    """Every short shot with one club, each 0.3 worse, no approach: player and club share it by their variances."""
    noted = [
        one for one in log_of(expectations, 2, 400, other=0.0) if one.shot.club == CLUB and one.shot.situation == "pitch"
    ]
    worse = [Noted(one.shot, one.expected, one.expected.strokes + 0.3) for one in noted]
    found = heads_shown(worse, 0.45, [CLUB])[0]
    mine = HEAD_SD**2 + HEAD_THERE_SD**2
    assert len(noted) > 300
    assert found.difference == pytest.approx(0.3 * mine / (mine + PLAYER_SD**2), abs=0.01)


def test_the_parts_add_up_to_what_was_seen(expectations):
    noted = log_of(expectations, 3, 20, other=0.3)
    found = parts_of(noted, 20)
    over = sum(one.over for one in noted) / 20
    assert found.strike + found.distance == pytest.approx(over)
    assert found.choice == pytest.approx(sum(one.strokes_round for one in found.instead))
    assert found.choice > 0.0
    assert sum(one.times for one in found.instead) == sum(one.shot.club != one.expected.advised_club for one in noted)
    none_wrong = parts_of(log_of(expectations, 3, 20, other=0.0), 20)
    assert none_wrong.choice == 0.0


def test_counted_distances_move_the_bands(expectations):
    faced = expectations.sheet.asked.faced
    shots = [one.shot for one in log_of(expectations, 4, 40)]
    bands = bands_of(shots, faced)
    assert sum(band.share for band in bands) == pytest.approx(1.0)
    assert sum(band.count for band in bands) == sum(shot.situation == APPROACH for shot in shots)
    most = max(bands, key=lambda band: band.count)
    assert most.low <= 75.0 <= most.high, "they come from about 75 m"
    assert bands_of([], faced) == []


def test_the_handicap_of_the_table_follows_what_was_holed():
    rng = np.random.default_rng(3)
    lies = [After("green", float(left)) for left in rng.uniform(2.0, 14.0, 400)]

    def counted(scale: float) -> list[tuple[After, int]]:
        needed = [float(TOUR_TABLE.strokes("green", after.left, 18.0 * scale)) for after in lies]
        return [(after, int(n) + int(rng.random() < n % 1.0)) for after, n in zip(lies, needed, strict=True)]

    low, high = scale_of(counted(0.5), 18.0), scale_of(counted(1.6), 18.0)
    assert low.scale < 0.85
    assert high.scale > 1.15
    assert low.low < low.scale < low.high
    few = scale_of(counted(1.6)[:3], 18.0)
    assert abs(few.scale - 1.0) < abs(high.scale - 1.0), "three balls say little"
    assert scale_of([], 18.0) is None
    assert scale_of([(After(None, 0.0), 0)], 18.0) is None


def test_a_club_that_is_not_in_the_bag_is_not_judged(expectations):
    from dataclasses import replace

    shot = log_of(expectations, 1, 1)[0].shot
    assert expectations.of([replace(shot, club="gone:own:7"), shot])[0] is None
    assert expectations.of([replace(shot, situation="plugged", ground="somewhere else")])[0] is not None


def test_farther_is_harder_and_the_advised_club_is_the_pages(expectations):
    from dataclasses import replace

    shot = replace(log_of(expectations, 1, 1)[0].shot, situation="chip", distance=8.0)
    near, far = expectations.of([shot, replace(shot, distance=25.0)])
    assert near.strokes < far.strokes
    told = expectations.of([replace(shot, advised="9i")])[0]
    assert told.advised_club == "9i"
    assert expectations.of([replace(shot, advised="gone:1")])[0].advised_club == told.best_club
