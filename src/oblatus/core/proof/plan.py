"""The plan of a proof: who hits what when, balanced, and what it can tell apart. docs/models/proof.md, 1."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from oblatus.core.bounds import Bound, check_all
from oblatus.core.intervals import NORMAL
from oblatus.core.proof.sequence import ERROR

SIGMA = 0.45
"""Spread of the strokes of one ball with one club in one situation (judgement, until the balls themselves tell)."""
POWER = 0.80
BOUNDS = {
    "candidates": Bound(2, 4, "clubs"),
    "situations": Bound(1, 3, "situations"),
    "balls_per_block": Bound(3, 10, "balls"),
    "rounds": Bound(1, 12, "rounds"),
}
USUAL_BLOCK = 5


@dataclass(frozen=True, slots=True)
class Block:
    """A run of balls with one club in one situation; `turn` is the time that the situation comes round."""

    place: int
    situation: int
    club: int
    turn: int


@dataclass(frozen=True, slots=True)
class Plan:
    """Blocks in their order, balls in each, and the seed by which it was made."""

    clubs: int
    situations: int
    balls_per_block: int
    rounds: int
    seed: int
    blocks: tuple[Block, ...]

    @property
    def balls_each(self) -> int:
        """Balls that every club hits in every situation."""
        return self.balls_per_block * self.rounds

    @property
    def balls(self) -> int:
        """Balls in all."""
        return self.balls_per_block * len(self.blocks)


def orders(clubs: int) -> list[tuple[int, ...]]:
    """Orders of the clubs in which each comes first, last and after every other equally often.

    Two clubs: AB, BA. An even number: a Williams square; an odd one: the square and its mirror.

    References
    ----------
    E. J. Williams, Austral. J. Sci. Res. A 2 (1949) 149.
    """
    if clubs == 1:
        return [(0,)]
    zigzag = [0]
    for step in range(1, clubs):
        zigzag.append((step + 1) // 2 if step % 2 else clubs - step // 2)
    square = [tuple((first + shift) % clubs for first in zigzag) for shift in range(clubs)]
    return square if clubs % 2 == 0 else [*square, *(order[::-1] for order in square)]


def make_plan(clubs: int, situations: int, balls_per_block: int = USUAL_BLOCK, rounds: int = 4, seed: int = 0) -> Plan:
    """A balanced plan: in every round each situation once, the clubs in the next of the balanced orders.

    The seed says which club is which letter, where the orders begin, and in which order situations come.

    Raises
    ------
    InputError
        If a number is outside its range.
    """
    check_all(
        {"candidates": clubs, "situations": situations, "balls_per_block": balls_per_block, "rounds": rounds}, BOUNDS
    )  # fmt: skip
    rng = np.random.default_rng(seed)
    known = orders(clubs)
    names = [rng.permutation(clubs).tolist() for _ in range(situations)]
    starts = (
        rng.permutation(len(known))[:situations] if situations <= len(known) else rng.integers(0, len(known), situations)
    )
    blocks: list[Block] = []
    for turn in range(rounds):
        for s in _turned(rng.permutation(situations).tolist(), blocks):
            order = _order(known, int(starts[s]), turn)
            for club in order:
                blocks.append(Block(len(blocks), s, names[s][club], turn))
    return Plan(clubs, situations, balls_per_block, rounds, seed, tuple(blocks))


def _order(known: Sequence[tuple[int, ...]], start: int, turn: int) -> tuple[int, ...]:
    """The order of a turn: forward through the balanced ones, two clubs ABBA instead of ABAB."""
    if len(known) == 2:
        return known[(start + (turn % 4 in (1, 2))) % 2]
    return known[(start + turn) % len(known)]


def _turned(order: list[int], blocks: Sequence[Block]) -> list[int]:
    """The situations of a round, not beginning with the one that was just played where there is another."""
    if blocks and len(order) > 1 and order[0] == blocks[-1].situation:
        return [*order[1:], order[0]]
    return order


def detectable(balls_each: int, sigma: float = SIGMA, error: float = ERROR, power: float = POWER) -> float:
    """Difference [strokes a shot] that so many balls with each club tell apart.

    Two-sided error and power of the comparison of two means of normal values: (z_{1-error/2} + z_power) sigma sqrt(2/n).
    """
    return (NORMAL.inv_cdf(1.0 - error / 2.0) + NORMAL.inv_cdf(power)) * sigma * math.sqrt(2.0 / balls_each)


def balls_needed(difference: float, sigma: float = SIGMA, error: float = ERROR, power: float = POWER) -> int:
    """Balls with each club that tell a difference [strokes a shot] apart; see `detectable`."""
    z = NORMAL.inv_cdf(1.0 - error / 2.0) + NORMAL.inv_cdf(power)
    return math.ceil(2.0 * (z * sigma / difference) ** 2 - 1e-9)
