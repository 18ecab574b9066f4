"""Proving candidates against one another: a balanced plan, strokes of every ball, and what the balls say so far."""

from oblatus.core.proof.judge import judge_proof
from oblatus.core.proof.outcome import OUTCOMES, Outcome, ball_strokes
from oblatus.core.proof.plan import Block, Plan, balls_needed, detectable, make_plan
from oblatus.core.proof.sequence import half_width
from oblatus.core.proof.verdict import Ball, Comparison, Finding, ProofVerdict

__all__ = [
    "OUTCOMES",
    "Ball",
    "Block",
    "Comparison",
    "Finding",
    "Outcome",
    "Plan",
    "ProofVerdict",
    "ball_strokes",
    "balls_needed",
    "detectable",
    "half_width",
    "judge_proof",
    "make_plan",
]
