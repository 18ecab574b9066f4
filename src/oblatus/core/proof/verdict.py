"""What a proof is judged by, and what it says: balls, expectation, comparisons, findings, advice."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Advice = Literal["none", "take", "more", "level"]
Fault = Literal["warm_up", "tired", "order"]


@dataclass(frozen=True, slots=True)
class Ball:
    """A ball that counts: club, situation and block, its place in the session, its strokes, and entry [m] if marked."""

    club: int
    situation: int
    block: int
    place: int
    strokes: float
    entry: float | None = None


@dataclass(frozen=True, slots=True)
class Expected:
    """What the model expects: strokes a shot (clubs, situations), and its doubt of a difference as a share of it."""

    strokes: Floats
    share: float = 0.5
    least: float = 0.12

    def of(self, a: int, b: int, weights: Floats) -> tuple[float, float]:
        """Difference of two clubs over situations with these weights, and its standard deviation.

        The doubt is common to the situations: the laws that could be wrong are the same in each.
        """
        difference = self.strokes[a] - self.strokes[b]
        return float(difference @ weights), float(np.hypot(self.share * difference, self.least) @ weights)


@dataclass(frozen=True, slots=True)
class Comparison:
    """Two clubs in one situation, or over all of them (None).

    `seen` and `error` are of the balls alone, `degrees` their degrees of freedom; `watched` half the width of the
    interval that may be looked at after every ball; `model`, `doubt` what was expected; `mean` with `low` and `high`
    (80 %) what is believed now, and `chance` that the first is the better one.
    """

    first: int
    second: int
    situation: int | None
    balls: int
    seen: float
    error: float
    degrees: float
    watched: float
    model: float
    doubt: float
    mean: float
    spread: float
    low: float
    high: float
    chance: float


@dataclass(frozen=True, slots=True)
class ClubSeen:
    """What was seen of a club in a situation: balls, mean strokes and their spread, entry mean and spread [m]."""

    club: int
    situation: int
    balls: int
    strokes: float
    spread: float
    entry: float | None
    entry_spread: float | None


@dataclass(frozen=True, slots=True)
class Finding:
    """Something in the order of the balls: the first ones, the last ones, or who hit first; by how much [strokes]."""

    kind: Fault
    size: float
    t: float


@dataclass(frozen=True, slots=True)
class ProofVerdict:
    """What is advised: take a club, hit so many more with each, or call them level; and what it stands on.

    `sigma` is the spread of one ball, `block_spread` that of a block beside it, `trend` strokes gained or lost over the
    session.
    """

    advice: Advice
    club: int | None
    more: int
    complete: bool
    comparisons: tuple[Comparison, ...]
    seen: tuple[ClubSeen, ...]
    findings: tuple[Finding, ...]
    sigma: float
    block_spread: float
    trend: float
