"""What a log says: seen against expected strokes, drawn toward the model while shots are few. docs/models/log.md, 2."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Hashable, Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal, TypeVar

import numpy as np
from numpy.typing import NDArray
from scipy.special import betaincinv

from oblatus.core.intervals import NORMAL
from oblatus.core.log.expected import Expected
from oblatus.core.log.shots import APPROACH, LoggedShot
from oblatus.core.shots import BY_KEY
from oblatus.errors import fault

Floats = NDArray[np.float64]

SHOT_SD, SHOT_SD_WEIGHT = 0.45, 20.0
"""Spread of one shot's strokes about what was expected, and by how many shots that guess counts (judgement)."""
SITUATION_SD = 0.15
"""How far a situation with a club truly lies from the model, from one to the other [strokes a shot] (judgement)."""
PLAYER_SD, APPROACH_SD = 0.10, 0.20
"""How far a player as a whole does, and approaches with a club beside that [strokes a shot] (judgement)."""
HEAD_SD, HEAD_THERE_SD = 0.12, 0.09
"""How far one head does beside the player, everywhere and on one kind of ground besides [strokes a shot] (judgement)."""
FEWEST = 8
"""Below so many shots nothing is called."""
CALLED_AT = NORMAL.inv_cdf(0.95)
"""A difference is called where it is not zero in 9 of 10 logs of its like."""
EIGHT_OF_TEN = NORMAL.inv_cdf(0.9)
HEAD_CALLED_AT = 1.25
"""A head is called from so many errors on: simulated, 8 of 100 without a difference are (docs/models/log.md, 2)."""
BAD_COSTS, BAD_COSTS_WEIGHT = 0.8, 10.0
"""Strokes that a heavy or thin one costs over a clean one, and by how many shots that guess counts (judgement)."""
CHANCES = (0.0, 0.5, 0.6, 0.7, 0.8, 0.9, 1.0)
"""Stretches of the expected chance of a clean strike."""

Key = TypeVar("Key", bound=Hashable)
Call = Literal["too few", "as expected", "worse", "better", "open"]
SAME = 0.10
"""A difference that lies within this [strokes a shot] in 8 of 10 is none."""


@dataclass(frozen=True, slots=True)
class Noted:
    """A logged shot that the model has a word on, with what it was worth [strokes]."""

    shot: LoggedShot
    expected: Expected
    strokes: float

    @property
    def over(self) -> float:
        """Strokes more than expected with the club that was taken."""
        return self.strokes - self.expected.strokes


@dataclass(frozen=True, slots=True)
class Seen:
    """Shots of a kind: how many, mean strokes seen and expected; the difference drawn toward the model, in 8 of 10
    between, and by how much it counts (0: the model alone, 1: the log alone)."""

    shots: int
    seen: float
    expected: float
    difference: float
    low: float
    high: float
    weight: float
    call: Call


def shot_spread(noted: Sequence[Noted]) -> float:
    """Spread of one shot about its expectation [strokes]: the usual one, moved by what was seen."""
    over = np.array([one.over for one in noted])
    squares = float(((over - over.mean()) ** 2).sum()) if len(over) > 1 else 0.0
    return float(np.sqrt((SHOT_SD_WEIGHT * SHOT_SD**2 + squares) / (SHOT_SD_WEIGHT + max(len(over) - 1, 0))))


def seen_of(noted: Sequence[Noted], spread: float, true_sd: float = SITUATION_SD) -> Seen:
    """Seen against expected for some shots.

    The difference d of n shots with spread s is drawn to d n t^2 / (n t^2 + s^2), t being `true_sd`: normal prior, normal
    shots. It is called where the mean itself lies 1.64 standard errors from zero, from eight shots on.
    """
    n = len(noted)
    if n == 0:
        raise fault("shots", "there are none")
    mean = float(np.mean([one.over for one in noted]))
    weight = n * true_sd**2 / (n * true_sd**2 + spread**2)
    shrunk, sd = weight * mean, true_sd * float(np.sqrt(1.0 - weight))
    low, high = shrunk - EIGHT_OF_TEN * sd, shrunk + EIGHT_OF_TEN * sd
    call: Call = "open"
    if n < FEWEST:
        call = "too few"
    elif abs(mean) > CALLED_AT * spread / np.sqrt(n):
        call = "worse" if mean > 0.0 else "better"
    elif low > -SAME and high < SAME:
        call = "as expected"
    return Seen(
        n, float(np.mean([one.strokes for one in noted])), float(np.mean([one.expected.strokes for one in noted])),
        shrunk, low, high, weight, call,
    )  # fmt: skip


def grouped(noted: Iterable[Noted], by: Callable[[Noted], Key]) -> dict[Key, list[Noted]]:
    """Shots by a key."""
    found: dict[Key, list[Noted]] = {}
    for one in noted:
        found.setdefault(by(one), []).append(one)
    return found


@dataclass(frozen=True, slots=True)
class Reliable:
    """Shots whose chance of a clean strike was expected between two: how many, mean expected, share that came clean, and
    between which that share truly lies in 8 of 10 (Jeffreys)."""

    low: float
    high: float
    shots: int
    expected: float
    came: float
    came_low: float
    came_high: float


def reliability(noted: Sequence[Noted]) -> list[Reliable]:
    """Expected chance of a clean strike against what came, by stretches that have shots; approaches aside."""
    known = [(one.expected.clean, one.shot.clean) for one in noted if one.expected.clean is not None]
    found = []
    for low, high in pairwise(CHANCES):
        here = [(chance, clean) for chance, clean in known if low <= chance < high or (high == 1.0 and chance == 1.0)]
        if here:
            came = sum(clean for _, clean in here)
            a, b = came + 0.5, len(here) - came + 0.5
            found.append(
                Reliable(
                    low, high, len(here), float(np.mean([chance for chance, _ in here])), came / len(here),
                    float(betaincinv(a, b, 0.1)), float(betaincinv(a, b, 0.9)),
                )
            )  # fmt: skip
    return found


@dataclass(frozen=True, slots=True)
class Instead:
    """A club taken where another was advised: how often, and what that cost [strokes a round]."""

    taken: str
    advised: str
    times: int
    strokes_round: float


@dataclass(frozen=True, slots=True)
class Parts:
    """Which part was off, strokes a round: `strike` by more heavy and thin ones than expected, `distance` by what else
    differs with the club taken, `choice` by other clubs than
    the advised one.

    `bad_seen`, `bad_expected` heavy and thin ones among the `known` shots for which a chance is expected; `bad_costs`
    strokes of one over a clean one.
    """

    strike: float
    distance: float
    choice: float
    bad_seen: int
    bad_expected: float
    known: int
    bad_costs: float
    instead: tuple[Instead, ...]


def parts_of(noted: Sequence[Noted], rounds: int) -> Parts:
    """Seen less expected, taken apart."""
    known = [one for one in noted if one.expected.clean is not None]
    bad = [one for one in known if not one.shot.clean]
    expected_bad = sum(1.0 - (one.expected.clean or 0.0) for one in known)
    cost = _bad_costs(known, bad)
    strike = (len(bad) - expected_bad) * cost
    over = sum(one.over for one in noted)
    wrong = [one for one in noted if one.shot.club != one.expected.advised_club]
    pairs: Counter[tuple[str, str]] = Counter((one.shot.club, one.expected.advised_club) for one in wrong)
    lost = {
        pair: sum(_choice(one) for one in wrong if (one.shot.club, one.expected.advised_club) == pair) / rounds
        for pair in pairs
    }
    instead = [Instead(taken, best, times, lost[taken, best]) for (taken, best), times in pairs.items()]
    return Parts(
        strike / rounds, (over - strike) / rounds, sum(lost.values()), len(bad), expected_bad, len(known), cost,
        tuple(sorted(instead, key=lambda one: -one.strokes_round)),
    )  # fmt: skip


def _choice(one: Noted) -> float:
    return max(one.expected.strokes - one.expected.advised, 0.0)


def _bad_costs(known: Sequence[Noted], bad: Sequence[Noted]) -> float:
    """Strokes of a heavy or thin one over a clean one: the usual, moved by what was seen."""
    clean = [one.over for one in known if one.shot.clean]
    if not bad or not clean:
        return BAD_COSTS
    seen = float(np.mean([one.over for one in bad]) - np.mean(clean))
    n = len(bad)
    return (BAD_COSTS_WEIGHT * BAD_COSTS + n * seen) / (BAD_COSTS_WEIGHT + n)


@dataclass(frozen=True, slots=True)
class HeadShown:
    """What the log shows of one head on one kind of ground beside the others of the bag.

    `difference` strokes a shot more than expected, drawn toward none, spread `sd`; `weight` how much the log counts in
    it; `called` where a head without a difference would seldom look so. `alone` is what all short shots with this club
    say against the model, be it head or player.
    """

    club: str
    surface: str
    shots: int
    difference: float
    sd: float
    weight: float
    called: bool
    alone: Call


def surface_of(shot: LoggedShot) -> str:
    """The kind of ground that a shot is played from."""
    return "turf" if shot.situation == APPROACH else BY_KEY[shot.situation].surface


def heads_shown(noted: Sequence[Noted], spread: float, clubs: Sequence[str]) -> list[HeadShown]:
    """Player and heads told apart.

    over = player + head + head on this kind of ground + shot, all normal: the player's part with sd 0.10, a head's 0.12,
    0.09 of its own on each kind of ground, solved at once (linear mixed model with known variances: best linear unbiased
    prediction, Henderson, Biometrics 31 (1975) 423). Approaches tell of the player; a head has a part of its own there.
    A head is called by all its short shots: where they lie so far from none that one head in ten without a
    difference would. That takes other clubs to tell it from the player; what its shots say alone takes none.
    """
    solved = _Solved.of(noted, spread, clubs)
    found = []
    for code in clubs:
        counts = {surface: n for (club, surface), n in solved.counts.items() if club == code and surface != APPROACH}
        total = sum(counts.values())
        if total == 0:
            continue
        whole = solved.told(code, {surface: n / total for surface, n in counts.items()})
        called = total >= FEWEST and abs(whole.z) > HEAD_CALLED_AT
        alone = seen_of([one for one in noted if one.shot.club == code and _kind(one) != APPROACH], spread).call
        for surface, n in counts.items():
            here = solved.told(code, {surface: 1.0})
            found.append(HeadShown(code, surface, n, here.mean, here.sd, here.weight, called, alone))
    return found


@dataclass(frozen=True, slots=True)
class _Told:
    """A difference drawn toward none, its sd, how much the log counts in it, and how far it is from none in errors."""

    mean: float
    sd: float
    weight: float
    z: float


@dataclass(frozen=True, slots=True, eq=False)
class _Solved:
    """The solved model: columns are the player, every club, and every club on every kind of ground."""

    counts: Counter[tuple[str, str]]
    columns: dict[Hashable, int]
    mean: Floats
    covariance: Floats

    @classmethod
    def of(cls, noted: Sequence[Noted], spread: float, clubs: Sequence[str]) -> _Solved:
        places = [(one.shot.club, _kind(one)) for one in noted]
        counts = Counter(places)
        keys: list[Hashable] = ["player", *dict.fromkeys(club for club, _ in places), *counts]
        columns = {key: n for n, key in enumerate(keys)}
        design = np.zeros((len(noted), len(keys)))
        for row, (club, kind) in enumerate(places):
            design[row, 0] = design[row, columns[club, kind]] = 1.0
            if kind != APPROACH:
                design[row, columns[club]] = 1.0
        sds = np.array([_sd_before(key) for key in keys])
        covariance = np.asarray(np.linalg.inv(design.T @ design / spread**2 + np.diag(sds**-2.0)))
        mean = np.asarray(covariance @ design.T @ np.array([one.over for one in noted]) / spread**2)
        return cls(counts, columns, mean, covariance)

    def told(self, club: str, shares: dict[str, float]) -> _Told:
        """A club over kinds of ground in some shares."""
        line = np.zeros(len(self.columns))
        line[self.columns[club]] = 1.0
        for kind, share in shares.items():
            line[self.columns[club, kind]] = share
        mean, variance = float(line @ self.mean), float(line @ self.covariance @ line)
        before = HEAD_SD**2 + HEAD_THERE_SD**2 * sum(share**2 for share in shares.values())
        weight = 1.0 - variance / before
        # drawn toward none by the weight: undone, the estimate has this error of its own
        return _Told(mean, float(np.sqrt(variance)), weight, mean / float(np.sqrt(before * weight * (1.0 - weight))))


def _sd_before(key: Hashable) -> float:
    """How far a part of the model may be from none before any shot."""
    if key == "player":
        return PLAYER_SD
    if isinstance(key, tuple):
        return APPROACH_SD if key[1] == APPROACH else HEAD_THERE_SD
    return HEAD_SD


def _kind(one: Noted) -> str:
    return APPROACH if one.shot.situation == APPROACH else surface_of(one.shot)
