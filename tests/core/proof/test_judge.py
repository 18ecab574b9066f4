"""What the balls say: how often equal clubs are told apart, how often unequal ones are, and what the intervals hold."""

from __future__ import annotations

from concurrent.futures import ProcessPoolExecutor
from multiprocessing import get_context

import numpy as np
import pytest

from oblatus.core.proof import Ball, balls_needed, judge_proof, make_plan
from oblatus.core.proof.plan import Plan
from oblatus.core.proof.verdict import Expected, ProofVerdict

SESSIONS = 1000
FIRST_LOOK = 16


def session(plan: Plan, seed: int, worse: float = 0.0, trend: float = 0.0, block: float = 0.0) -> list[Ball]:
    """Balls of invented clubs of which every next one costs `worse` strokes more, with a trend and a spread of blocks."""
    rng = np.random.default_rng(seed)
    balls: list[Ball] = []
    for one in plan.blocks:
        shift = rng.normal(0.0, block) if block else 0.0
        for _ in range(plan.balls_per_block):
            mean = 2.7 + worse * one.club + shift + trend * len(balls) / plan.balls
            balls.append(Ball(one.club, one.situation, one.place, len(balls), mean + rng.normal(0.0, 0.45)))
    return balls


def judged(plan: Plan, balls: list[Ball], expected: float = 0.0) -> ProofVerdict:
    strokes = 2.7 + expected * np.arange(plan.clubs)[:, None] * np.ones(plan.situations)
    return judge_proof(plan, balls, Expected(strokes), np.full(plan.situations, 1.0 / plan.situations))


def called_while_watched(seed: int) -> bool:
    """Whether a session of equal clubs, looked at after every ball, ever calls a winner."""
    plan = make_plan(2, 1, 5, 3, seed)
    balls = session(plan, seed)
    return any(judged(plan, balls[:n]).advice == "take" for n in range(FIRST_LOOK, len(balls) + 1))


def called_at_the_end(seed: int) -> int | None:
    """Which club a session of unequal ones calls at its planned end."""
    plan = make_plan(2, 1, 5, -(-balls_needed(0.35) // 5), seed)
    return judged(plan, session(plan, seed, 0.35)).club


def covered(seed: int) -> tuple[bool, bool]:
    """Whether the 80 % interval holds the difference, and the watched one at every look, when the prior is as it is."""
    plan = make_plan(2, 1, 5, 4, seed)
    expected = Expected(np.zeros((2, 1)))
    worse = float(np.random.default_rng(seed + 10_000).normal(0.0, expected.of(0, 1, np.ones(1))[1]))
    balls = session(plan, seed, worse, block=0.05)
    looks = [judged(plan, balls[:n]).comparisons[0] for n in range(8, len(balls) + 1, 8)]
    last = looks[-1]
    return last.low <= -worse <= last.high, all(abs(c.seen + worse) <= c.watched for c in looks)


@pytest.fixture(scope="module")
def pool():
    with ProcessPoolExecutor(2, mp_context=get_context("spawn")) as workers:
        yield workers


def test_equal_clubs_watched_after_every_ball_call_a_winner_in_at_most_a_tenth(pool):
    called = sum(pool.map(called_while_watched, range(SESSIONS), chunksize=100))
    assert 0.01 * SESSIONS < called <= 0.10 * SESSIONS


def test_unequal_clubs_are_told_apart_at_the_planned_number(pool):
    called = list(pool.map(called_at_the_end, range(SESSIONS), chunksize=100))
    assert called.count(0) >= 0.80 * SESSIONS
    assert called.count(1) <= 0.01 * SESSIONS


def test_intervals_hold_what_they_say(pool):
    held = np.array(list(pool.map(covered, range(SESSIONS), chunksize=100)))
    assert 0.77 <= held[:, 0].mean() <= 0.86
    assert held[:, 1].mean() >= 0.88


def test_a_trend_over_the_session_favours_nobody():
    plan = make_plan(2, 1, 5, 4, 3)
    level, tired = judged(plan, session(plan, 3)), judged(plan, session(plan, 3, trend=0.8))
    assert tired.comparisons[0].seen == pytest.approx(level.comparisons[0].seen, abs=0.02)
    assert tired.trend - level.trend == pytest.approx(0.8, abs=0.05)
    assert {f.kind for f in tired.findings} >= {"tired"}


def test_cold_first_balls_are_said():
    plan = make_plan(2, 1, 5, 4, 1)
    balls = session(plan, 1)
    cold = [Ball(b.club, b.situation, b.block, b.place, b.strokes + (1.2 if b.place < 5 else 0.0)) for b in balls]
    assert "warm_up" in {f.kind for f in judged(plan, cold).findings}
    assert "warm_up" not in {f.kind for f in judged(plan, balls).findings}


def test_what_was_expected_pulls_and_the_balls_pull_more_the_more_there_are():
    plan = make_plan(2, 1, 5, 4, 5)
    balls = session(plan, 5)
    blank, told = judged(plan, balls[:10]), judged(plan, balls[:10], expected=0.4)
    pulled = abs(told.comparisons[0].mean - blank.comparisons[0].mean)
    assert told.comparisons[0].chance > blank.comparisons[0].chance
    late = abs(judged(plan, balls, expected=0.4).comparisons[0].mean - judged(plan, balls).comparisons[0].mean)
    assert 0.0 < late < pulled


def test_every_ball_moves_the_verdict_the_right_way():
    plan = make_plan(2, 2, 5, 2, 9)
    balls = session(plan, 9, 0.1)
    before = judged(plan, balls).comparisons[0].mean
    for n, b in enumerate(balls):
        worse = [*balls[:n], Ball(b.club, b.situation, b.block, b.place, b.strokes + 1.0), *balls[n + 1 :]]
        after = judged(plan, worse).comparisons[0].mean
        assert (after - before) * (1 if b.club == 0 else -1) > 0.0


def test_clubs_far_apart_are_called_before_the_end_and_not_after_two_balls():
    plan = make_plan(2, 1, 5, 4, 2)
    balls = session(plan, 2, 1.5)
    looks = [judged(plan, balls[:n]) for n in range(1, len(balls) + 1)]
    first = next(n for n, look in enumerate(looks, 1) if look.advice == "take")
    assert FIRST_LOOK <= first < len(balls)
    assert looks[0].advice == "more"
    assert not looks[first - 1].complete


def test_a_leaning_that_is_not_settled_is_not_called_level():
    plan = make_plan(2, 1, 5, 4, 0)
    verdicts = [judged(plan, session(plan, seed, 0.2), expected=0.15) for seed in range(60)]
    assert {verdict.advice for verdict in verdicts} == {"take", "more", "level"}
    for verdict in verdicts:
        c = verdict.comparisons[0]
        if verdict.advice == "level":
            assert c.low < 0.0 < c.high
        if verdict.advice == "more":
            assert verdict.more > 0


def test_three_clubs_take_only_the_one_that_beats_both():
    plan = make_plan(3, 1, 5, 6, 0)
    verdict = judged(plan, session(plan, 4, 0.6))
    assert (verdict.advice, verdict.club) == ("take", 0)
    assert len([c for c in verdict.comparisons if c.situation is None]) == 3
