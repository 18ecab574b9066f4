"""What the balls of a proof say so far, and when it is enough. docs/models/proof.md, 3 and 4.

Differences are in strokes a shot, the first club less the second: negative is better for the first.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray
from scipy.special import stdtrit

from oblatus.core.proof.plan import ERROR, SIGMA, Plan, balls_needed
from oblatus.core.proof.sequence import half_width
from oblatus.core.proof.verdict import Advice, Ball, ClubSeen, Comparison, Expected, Finding, ProofVerdict
from oblatus.core.session.summary import TREND_LEAST

Floats = NDArray[np.float64]

SIGMA_WEIGHT = 6.0
"""Balls that the usual spread counts for beside those that were hit."""

BLOCK_SPREAD, BLOCK_WEIGHT = 0.05, 1.0
"""Usual spread of a block's mean beside that of its balls, and blocks that it counts for (judgement)."""

LEAST_BALLS = 8
"""Balls with each club before anything is called: by then their spread is known well enough that all looks together,
and the one at the planned end, stay within `ERROR` (simulated in the tests)."""

MATTERS = 0.05
"""A difference that is worth more balls [strokes a shot] (judgement)."""

MOST_MORE = 60
"""More balls with each club than anybody hits: clubs whose interval holds zero are level for this proof."""

INTERVAL = 0.80
FINDING_T = 2.0
FIRST_BALLS = 5
GRID = 801
REACH = 6.0


def judge_proof(plan: Plan, balls: Sequence[Ball], expected: Expected, weights: Floats) -> ProofVerdict:
    """The verdict after these balls.

    Parameters
    ----------
    plan : what was to be hit
    balls : those that count, in their order
    expected : the model's strokes a shot of every club in every situation
    weights : (situations,) how often each is faced, sum 1
    """
    fit = _fit(plan, balls)
    complete = _complete(plan, balls)
    comparisons = tuple(_comparisons(plan, fit, expected, weights))
    overall = [c for c in comparisons if c.situation is None]
    winner = _winner(plan, overall, complete)
    advice: Advice = "none" if not balls else "more"
    more = 0
    if winner is not None:
        advice = "take"
    elif complete:
        more = _more(plan, overall, fit)
        advice = "level" if more == 0 else "more"
    elif balls:
        more = plan.balls_each - min((_balls_of(balls, club) for club in range(plan.clubs)), default=0) // plan.situations
    return ProofVerdict(
        advice, winner, max(more, 0), complete, comparisons, tuple(_seen(plan, balls)), tuple(_findings(fit)),
        math.sqrt(fit.sigma2), math.sqrt(fit.tau2), fit.trend,
    )  # fmt: skip


@dataclass(frozen=True, slots=True, eq=False)
class _Fit:
    """Means of the cells (situation-major), their covariance, and what is left of every ball."""

    cells: int
    beta: Floats
    covariance: Floats
    known: NDArray[np.bool_]
    sigma2: float
    tau2: float
    degrees: float
    trend: float
    trend_t: float
    balls: tuple[Ball, ...]
    left: Floats


def _fit(plan: Plan, balls: Sequence[Ball]) -> _Fit:
    """Cell means with a trend over the session, blocks as replicates: generalised least squares on block means."""
    cells = plan.clubs * plan.situations
    blocks: dict[int, list[Ball]] = {}
    for ball in balls:
        blocks.setdefault(ball.block, []).append(ball)
    groups = list(blocks.values())
    means = [math.fsum(b.strokes for b in group) / len(group) for group in groups]
    y = np.array(means, dtype=float)
    n = np.array([len(group) for group in groups], dtype=float)
    cell = np.array([group[0].situation * plan.clubs + group[0].club for group in groups], dtype=int)
    within = math.fsum((b.strokes - mean) ** 2 for group, mean in zip(groups, means, strict=True) for b in group)
    inside = float(sum(len(group) - 1 for group in groups))
    sigma2 = (SIGMA_WEIGHT * SIGMA**2 + within) / (SIGMA_WEIGHT + inside)
    known = np.bincount(cell, minlength=cells) > 0
    design = np.zeros((len(groups), cells))
    design[np.arange(len(groups)), cell] = 1.0
    columns = np.flatnonzero(known)
    design = design[:, columns]
    with_trend = len(balls) >= TREND_LEAST and len(groups) >= len(columns) + 2
    if with_trend:
        time = np.array([sum(b.place for b in group) / len(group) for group in groups])
        design = np.column_stack([design, (time - time.mean()) / max(plan.balls - 1.0, 1.0)])
    spare = len(groups) - design.shape[1]
    tau2 = _block_variance(design, y, n, sigma2, spare)
    weight = 1.0 / (tau2 + sigma2 / np.maximum(n, 1.0))
    covariance_all = np.linalg.pinv(design.T @ (weight[:, None] * design)) if groups else np.zeros((0, 0))
    solved = covariance_all @ (design.T @ (weight * y)) if groups else np.zeros(0)
    beta, covariance = np.zeros(cells), np.zeros((cells, cells))
    beta[columns] = solved[: len(columns)]
    covariance[np.ix_(columns, columns)] = covariance_all[: len(columns), : len(columns)]
    trend = float(solved[-1]) if with_trend else 0.0
    trend_t = trend / math.sqrt(covariance_all[-1, -1]) if with_trend else 0.0
    share = sigma2 / max(float(n.mean()), 1.0) if groups else sigma2
    whole = share + tau2
    degrees = whole**2 / (share**2 / (SIGMA_WEIGHT + inside) + tau2**2 / max(spare, 1.0))
    left = np.array([b.strokes - beta[b.situation * plan.clubs + b.club] for b in balls])
    return _Fit(cells, beta, covariance, known, sigma2, tau2, degrees, trend, trend_t, tuple(balls), left)


def _block_variance(design: Floats, y: Floats, n: Floats, sigma2: float, spare: int) -> float:
    """Variance of block means beside that of their balls, by moments, with a little of what is usual."""
    usual = BLOCK_SPREAD**2
    if spare < 1:
        return usual
    root = np.sqrt(n)
    solved, *_ = np.linalg.lstsq(design * root[:, None], y * root, rcond=None)
    between = float(np.sum(n * (y - design @ solved) ** 2)) / spare
    found = (between - sigma2) / float(n.mean())
    return max((spare * found + BLOCK_WEIGHT * usual) / (spare + BLOCK_WEIGHT), 0.0)


def _comparisons(plan: Plan, fit: _Fit, expected: Expected, weights: Floats) -> list[Comparison]:
    found = []
    for a, b in combinations(range(plan.clubs), 2):
        for situation in (None, *range(plan.situations)):
            share = np.zeros(plan.situations)
            if situation is None:
                share[:] = weights
            else:
                share[situation] = 1.0
            here = [
                fit.known[s * plan.clubs + a] and fit.known[s * plan.clubs + b] for s in range(plan.situations)
            ]  # fmt: skip
            share = share * here
            if share.sum() <= 0.0:
                continue
            found.append(_comparison(plan, fit, expected, share / share.sum(), (a, b), situation))
    return found


def _comparison(
    plan: Plan, fit: _Fit, expected: Expected, share: Floats, pair: tuple[int, int], situation: int | None
) -> Comparison:
    a, b = pair
    contrast = np.zeros(fit.cells)
    for s in range(plan.situations):
        contrast[s * plan.clubs + a] += share[s]
        contrast[s * plan.clubs + b] -= share[s]
    seen = float(contrast @ fit.beta)
    error = math.sqrt(max(float(contrast @ fit.covariance @ contrast), 1e-12))
    balls = min(_balls_of(fit.balls, club, situation) for club in pair)
    pairs = 2.0 * fit.sigma2 / error**2
    watched = half_width(math.sqrt(2.0 * fit.sigma2), max(pairs, 1e-6)) if balls >= 1 else math.inf
    model, doubt = expected.of(a, b, share)
    mean, spread, low, high, chance = _believed(seen, error, fit.degrees, model, doubt)
    return Comparison(
        a, b, situation, balls, seen, error, fit.degrees, watched, model, doubt, mean, spread, low, high, chance
    )  # fmt: skip


def _believed(
    seen: float, error: float, degrees: float, model: float, doubt: float
) -> tuple[float, float, float, float, float]:
    """Mean, spread, 80 % interval and chance below zero: normal prior, Student likelihood, on a grid."""
    reach = REACH * max(doubt, error)
    grid = np.linspace(min(model, seen) - reach, max(model, seen) + reach, GRID)
    t = (seen - grid) / error
    log = -0.5 * ((grid - model) / doubt) ** 2 - 0.5 * (degrees + 1.0) * np.log1p(t * t / degrees)
    weight = np.exp(log - log.max())
    weight /= weight.sum()
    mean = float(weight @ grid)
    spread = math.sqrt(float(weight @ (grid - mean) ** 2))
    rising = np.cumsum(weight)
    tail = 0.5 * (1.0 - INTERVAL)
    low, high = (float(np.interp(q, rising, grid)) for q in (tail, 1.0 - tail))
    return mean, spread, low, high, float(np.interp(0.0, grid, rising))


def _winner(plan: Plan, overall: Sequence[Comparison], complete: bool) -> int | None:
    """The club that beats every other: by the interval that may be watched, or at the planned end by one look."""
    for club in range(plan.clubs):
        mine = [c for c in overall if club in (c.first, c.second)]
        if len(mine) == plan.clubs - 1 and all(_beats(club, c, complete) for c in mine):
            return club
    return None


def _beats(club: int, c: Comparison, complete: bool) -> bool:
    if c.balls < LEAST_BALLS:
        return False
    better = -c.seen if club == c.first else c.seen
    if better > c.watched:
        return True
    return complete and better > c.error * float(stdtrit(c.degrees, 1.0 - ERROR / 2.0))


def _more(plan: Plan, overall: Sequence[Comparison], fit: _Fit) -> int:
    """Balls with each club that would settle the nearest pair at the top; 0 where it does not matter or never would."""
    best = int(np.argmin([_standing(club, overall) for club in range(plan.clubs)]))
    open_pairs = [c for c in overall if best in (c.first, c.second) and abs(c.mean) >= MATTERS]
    if not open_pairs:
        return 0
    hit = plan.balls_each * plan.situations
    most = max(balls_needed(abs(c.mean), math.sqrt(fit.sigma2)) - hit for c in open_pairs)
    rounded = math.ceil(max(most, plan.balls_per_block) / plan.balls_per_block) * plan.balls_per_block
    leaning = all(c.low > 0.0 or c.high < 0.0 for c in open_pairs)
    return rounded if leaning or rounded <= MOST_MORE else 0


def _standing(club: int, overall: Sequence[Comparison]) -> float:
    return sum(c.mean if c.first == club else -c.mean for c in overall if club in (c.first, c.second))


def _complete(plan: Plan, balls: Sequence[Ball]) -> bool:
    count = np.zeros((plan.situations, plan.clubs), dtype=int)
    for ball in balls:
        count[ball.situation, ball.club] += 1
    return bool((count >= plan.balls_each).all())


def _balls_of(balls: Sequence[Ball], club: int, situation: int | None = None) -> int:
    return sum(b.club == club and situation in (None, b.situation) for b in balls)


def _seen(plan: Plan, balls: Sequence[Ball]) -> list[ClubSeen]:
    found = []
    for situation in range(plan.situations):
        for club in range(plan.clubs):
            mine = [b for b in balls if b.club == club and b.situation == situation]
            strokes = np.array([b.strokes for b in mine])
            entries = np.array([b.entry for b in mine if b.entry is not None])
            found.append(
                ClubSeen(
                    club, situation, len(mine), float(strokes.mean()) if mine else 0.0,
                    float(strokes.std(ddof=1)) if len(mine) > 1 else 0.0,
                    float(entries.mean()) if len(entries) else None,
                    float(entries.std(ddof=1)) if len(entries) > 1 else None,
                )
            )  # fmt: skip
    return found


def _findings(fit: _Fit) -> list[Finding]:
    """Warm-up, tiredness and order, each a t value over what the clubs leave unexplained."""
    found: list[Finding] = []
    if len(fit.balls) < TREND_LEAST:
        return found
    sigma = math.sqrt(fit.sigma2)
    first = fit.left[:FIRST_BALLS]
    t = float(first.mean()) / (sigma * math.sqrt(1.0 / len(first) + 1.0 / max(len(fit.left) - len(first), 1)))
    if t > FINDING_T:
        found.append(Finding("warm_up", float(first.mean() - fit.left[FIRST_BALLS:].mean()), t))
    if fit.trend_t > FINDING_T:
        found.append(Finding("tired", fit.trend, fit.trend_t))
    opened: dict[int, int] = {}
    for b in fit.balls:
        opened.setdefault(b.block, b.place)
    opening = np.array([b.place == opened[b.block] for b in fit.balls])
    if opening.any() and not opening.all():
        difference = float(fit.left[opening].mean() - fit.left[~opening].mean())
        error = sigma * math.sqrt(1.0 / opening.sum() + 1.0 / (~opening).sum())
        if abs(difference) / error > FINDING_T:
            found.append(Finding("order", difference, difference / error))
    return found
