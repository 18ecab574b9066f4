"""What the balls of a proof say: run over a proof document, told as JSON models."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import Any, Literal

import numpy as np

from oblatus.core.gapping.strikes import STATIONS
from oblatus.core.proof import Ball, Comparison, Plan, ProofVerdict, ball_strokes, balls_needed, detectable, judge_proof
from oblatus.core.proof.outcome import Seen, Worth
from oblatus.core.proof.verdict import Expected
from oblatus.core.shots import BY_KEY
from oblatus.core.words import counted
from oblatus.formats.proof import (
    BallOut,
    BlockOut,
    ClubSeenOut,
    ComparisonOut,
    LaneOut,
    ProofBall,
    ProofDocument,
    ProofOut,
    ProofPlanOut,
    ProofVerdictOut,
)
from oblatus.formats.rounded import rounded
from oblatus.formats.sections.measuring import HeadEvidenceDocument, ShiftDocument

NOTE_MM = (90.0, 230.0)
"""A mark in sand as long as a note is right (judgement)."""
TRENCH_MM = 35.0
"""A mark so deep is a trench (judgement)."""


def worth_of(document: ProofDocument, ball: ProofBall) -> Worth:
    """What a ball is worth in strokes."""
    run = document.candidates[ball.club].run_m[ball.situation]
    seen = Seen(ball.outcome, ball.to_hole_m, ball.carry_m)
    return ball_strokes(seen, document.situations[ball.situation].layout(), run, document.handicap)


def judged(document: ProofDocument) -> tuple[Plan, tuple[Ball, ...], Expected, np.ndarray[Any, np.dtype[np.float64]]]:
    """What the judge takes: the plan, the balls that count, the expectation and the weights of the situations."""
    counting = [ball for ball in document.balls if ball.set_aside is None]
    balls = tuple(
        Ball(
            b.club, b.situation, b.block, place, worth_of(document, b).strokes,
            None if b.entry_mm is None else b.entry_mm / 1000.0,
        )
        for place, b in enumerate(counting)
    )  # fmt: skip
    shares = np.array([s.share for s in document.situations])
    weights = shares / shares.sum() if shares.sum() > 0 else np.full(len(shares), 1.0 / len(shares))
    return document.plan(), balls, Expected(np.array([c.expected_strokes for c in document.candidates])), weights


def verdict_of(document: ProofDocument) -> ProofVerdict:
    """The verdict after the balls of a proof."""
    return judge_proof(*judged(document))


def proof_out(document: ProofDocument) -> ProofOut:
    """A proof with everything that follows from its balls."""
    plan, balls, expected, weights = judged(document)
    verdict = judge_proof(plan, balls, expected, weights)
    return ProofOut(
        document=document, plan=_plan(document, plan), balls=[_ball(document, ball) for ball in document.balls],
        verdict=_verdict(document, verdict, _closing(plan, balls, expected, weights), expected, weights),
    )  # fmt: skip


def _closing(plan: Plan, balls: Sequence[Ball], expected: Expected, weights: Any) -> list[list[float]]:
    """Balls so far, mean, low and high of the first two clubs' difference, at the end of every block."""
    ends = [n + 1 for n in range(len(balls)) if n + 1 == len(balls) or balls[n + 1].block != balls[n].block]
    found = []
    for end in ends:
        here = judge_proof(plan, balls[:end], expected, weights)
        first = next((c for c in here.comparisons if c.situation is None and (c.first, c.second) == (0, 1)), None)
        if first is not None:
            found.append([float(end), rounded(first.mean), rounded(first.low), rounded(first.high)])
    return found


def _plan(document: ProofDocument, plan: Plan) -> ProofPlanOut:
    feel = {one.block: one.value for one in document.feel}
    hit = [[b for b in document.balls if b.block == block.place] for block in plan.blocks]
    apart = detectable(plan.balls_each * plan.situations)
    return ProofPlanOut(
        blocks=[
            BlockOut(
                place=block.place, situation=block.situation, club=block.club,
                hit=sum(b.set_aside is None for b in mine), aside=sum(b.set_aside is not None for b in mine),
                feel=feel.get(block.place),
            )
            for block, mine in zip(plan.blocks, hit, strict=True)
        ],
        balls=plan.balls, balls_each=plan.balls_each, detectable=rounded(apart),
        stations=[_station(s.shot, s.surface) for s in document.situations],
        words=plan_words(plan.balls_each * plan.situations),
    )  # fmt: skip


def plan_words(each: int) -> str:
    """What so many balls with each club can tell apart."""
    return (
        f"{each} balls with each club show a difference of {detectable(each):.2f} strokes a shot 8 times of 10; 0.1 "
        f"would take {_rounded(balls_needed(0.1))}. In truth a little less often: the balls' spread has to be found, too."
    )


def _station(shot: str, surface: str) -> str:
    """The station whose strikes are such shots: its own, else one on the same kind of ground."""
    own = [station.key for station in STATIONS if station.shot == shot]
    return (own or [s.key for s in STATIONS if BY_KEY[s.shot].surface == surface])[0]


def _rounded(count: int) -> int:
    """Two figures are enough of a number that nobody hits."""
    return round(count, -1) if count >= 100 else count


def _ball(document: ProofDocument, ball: ProofBall) -> BallOut:
    worth = worth_of(document, ball)
    return BallOut(
        ball=ball, strokes=rounded(worth.strokes), lie=worth.lie, distance_m=rounded(worth.distance),
        source=worth.source, mark=mark_words(ball, document.situations[ball.situation].surface),
    )  # fmt: skip


def mark_words(ball: ProofBall, surface: str) -> str:
    """What a divot or a mark in the sand says, in a word or two; empty where it was not looked at."""
    length, depth = ball.mark_length_mm, ball.mark_depth_mm
    if length is None and depth is None:
        return ""
    if depth is not None and depth > TRENCH_MM:
        return "a trench"
    if surface == "sand" and length is not None and depth is not None:
        return "the size of a note, shallow" if NOTE_MM[0] <= length <= NOTE_MM[1] else "shallow, not a note's length"
    return "shallow"


def _verdict(
    document: ProofDocument, verdict: ProofVerdict, closing: list[list[float]], expected: Expected, weights: Any
) -> ProofVerdictOut:
    shots = document.shots_a_round * document.round_share
    return ProofVerdictOut(
        advice=verdict.advice, club=verdict.club, more=verdict.more, complete=verdict.complete,
        words=verdict_words(document, verdict), findings=[_finding(f.kind, f.size) for f in verdict.findings],
        comparisons=[_comparison(c, shots) for c in verdict.comparisons],
        seen=[
            ClubSeenOut(
                club=s.club, situation=s.situation, balls=s.balls, strokes=rounded(s.strokes),
                spread=rounded(s.spread), entry_mm=None if s.entry is None else rounded(1000 * s.entry),
                entry_spread_mm=None if s.entry_spread is None else rounded(1000 * s.entry_spread),
            )
            for s in verdict.seen
        ],
        lanes=[_lane(verdict, expected, n, weights) for n in range(len(document.candidates))],
        sigma=rounded(verdict.sigma), closing=closing,
    )  # fmt: skip


def _lane(verdict: ProofVerdict, expected: Expected, club: int, weights: Any) -> LaneOut:
    """A club's mean over the situations in which it was hit, and what was expected of it over all."""
    mine = [s for s in verdict.seen if s.club == club and s.balls]
    whole = sum(float(weights[s.situation]) for s in mine)
    strokes = sum(s.strokes * float(weights[s.situation]) for s in mine) / whole if whole else None
    return LaneOut(
        club=club, balls=sum(s.balls for s in mine), strokes=None if strokes is None else rounded(strokes),
        expected=rounded(float(expected.strokes[club] @ weights)), expected_spread=expected.least,
    )  # fmt: skip


def _comparison(c: Comparison, shots: float) -> ComparisonOut:
    return ComparisonOut(
        first=c.first, second=c.second, situation=c.situation, balls=c.balls, seen=rounded(c.seen),
        error=rounded(c.error), watched=None if np.isinf(c.watched) else rounded(c.watched),
        expected=rounded(c.model), expected_spread=rounded(c.doubt), mean=rounded(c.mean), low=rounded(c.low),
        high=rounded(c.high), a_round=rounded(c.mean * shots), chance=rounded(c.chance),
    )  # fmt: skip


def verdict_words(document: ProofDocument, verdict: ProofVerdict) -> str:
    """What the fitter is advised, in a sentence."""
    names = [candidate.name for candidate in document.candidates]
    if verdict.advice == "none":
        return "No ball yet."
    if verdict.advice == "take" and verdict.club is not None:
        return f"Enough: take the {names[verdict.club]}."
    if verdict.advice == "level":
        return "Level: choose by price or feel. No number of balls that anybody hits would tell them apart."
    if verdict.complete:
        return f"Not settled: {verdict.more} more with each would settle it."
    left = document.plan().balls - sum(ball.set_aside is None for ball in document.balls)
    return f"{counted(left, 'ball')} to the end of the plan."


def _finding(kind: str, size: float) -> str:
    return {
        "warm_up": f"The first balls cost {size:.2f} strokes more than the rest: warm up before the next proof.",
        "tired": f"Balls cost {size:.2f} strokes more by the end than at the start: stop earlier, or rest.",
        "order": f"The first ball of a block differs from the others by {abs(size):.2f} strokes.",
    }[kind]


def evidence_of(document: ProofDocument, today: date) -> list[HeadEvidenceDocument]:
    """What the proof shows of each candidate against the reference, for the proposal.

    The reference is the first owned club, or the last candidate: only differences were proved, so that it keeps the
    model's strokes and the others are moved.
    """
    verdict = verdict_of(document)
    reference = next((n for n, c in enumerate(document.candidates) if c.owned), len(document.candidates) - 1)
    found = []
    for n, candidate in enumerate(document.candidates):
        if n == reference:
            continue
        shots = [shift for s in range(len(document.situations)) if (shift := _shift(document, verdict, n, reference, s))]
        if shots:
            found.append(
                HeadEvidenceDocument(
                    source="proof", source_id=document.id, on=today, name=candidate.name,
                    against=document.candidates[reference].name,
                    standing=standing(document) or "open", head=candidate.head, shots=tuple(shots),
                )
            )  # fmt: skip
    return found


def _shift(
    document: ProofDocument, verdict: ProofVerdict, club: int, reference: int, situation: int
) -> ShiftDocument | None:
    pair = sorted((club, reference))
    c = next((c for c in verdict.comparisons if [c.first, c.second] == pair and c.situation == situation), None)
    if c is None or c.balls == 0:
        return None
    sign = 1.0 if c.first == club else -1.0
    return ShiftDocument(
        shot=document.situations[situation].shot, strokes=round(sign * (c.mean - c.model), 4),
        spread=round(min(c.spread, 2.0), 4), balls=c.balls,
    )  # fmt: skip


def standing(document: ProofDocument) -> Literal["proved", "level", "contradicted"] | None:
    """How the proof stands to what the model expected of the first candidate against the reference; None while open."""
    verdict = verdict_of(document)
    if verdict.advice in ("none", "more"):
        return None
    if verdict.advice == "level" or verdict.club is None:
        return "level"
    expected = np.array([np.mean(c.expected_strokes) for c in document.candidates])
    return "proved" if int(expected.argmin()) == verdict.club else "contradicted"
