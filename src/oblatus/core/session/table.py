"""The strikes of a session by columns: a hundred thousand of them are looked through in a moment."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core import constants
from oblatus.core.gapping.strikes import STRIKE_FIGURES, MeasuredStrike

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]

ATTRIBUTES = tuple(f.attribute for f in STRIKE_FIGURES.values())
SPIN_ARM = constants.BALL_INERTIA_FACTOR.value * constants.BALL_RADIUS.value


@dataclass(frozen=True, slots=True, eq=False)
class Words:
    """Words by numbers (n,): equal ones have the same, by which `names` has it; the first met comes first."""

    codes: NDArray[np.int64]
    names: list[str]

    @classmethod
    def of(cls, words: Sequence[str]) -> Words:
        """Words in their order."""
        names = list(dict.fromkeys(words))
        places = {name: n for n, name in enumerate(names)}
        return cls(np.fromiter(map(places.__getitem__, words), dtype=np.int64, count=len(words)), names)

    def valued(self, values: Mapping[str, float], otherwise: float) -> Floats:
        """The value of every word (n,)."""
        return np.array([values.get(name, otherwise) for name in self.names], dtype=float)[self.codes]

    def among(self, wanted: Iterable[str]) -> Flags:
        """Which of them are among these (n,)."""
        some = set(wanted)
        return np.array([name in some for name in self.names], dtype=bool)[self.codes]


@dataclass(frozen=True, slots=True, eq=False)
class StrikeTable:
    """Strikes in their order, by columns of one length.

    `counts` tells those that are not set aside; `figures` hold what was measured by the engine's names, in the units of
    `MeasuredStrike`, not-a-number where nothing was.
    """

    ids: Sequence[str]
    clubs: Words
    swings: Words
    counts: Flags
    figures: Mapping[str, Floats]

    def ids_where(self, some: Flags) -> tuple[str, ...]:
        """The ids of some of the strikes."""
        return tuple(self.ids[i] for i in np.flatnonzero(some).tolist())

    def leans(self) -> tuple[Floats, Flags]:
        """Shaft lean [degrees], and where it is inferred: see `inferred_leans`."""
        lean, figures = self.figures["lean_deg"], self.figures
        guess = inferred_leans(*(figures[name] for name in _LEAN_FROM))
        inferred = np.isnan(lean) & np.isfinite(guess)
        return np.where(inferred, guess, lean), inferred


_LEAN_FROM = ("loft_deg", "dynamic_loft_deg", "launch_deg", "spin_rpm", "ball_speed")


def table_of(strikes: Sequence[MeasuredStrike]) -> StrikeTable:
    """Strikes as a table."""
    figures = {
        name: np.array([getattr(strike, name) for strike in strikes], dtype=float).reshape(-1) for name in ATTRIBUTES
    }
    return StrikeTable(
        [strike.id for strike in strikes], Words.of([strike.club for strike in strikes]),
        Words.of([strike.swing for strike in strikes]),
        np.array([strike.counts for strike in strikes], dtype=bool), figures,
    )  # fmt: skip


def inferred_leans(loft: Floats, dynamic_loft: Floats, launch: Floats, spin: Floats, ball_speed: Floats) -> Floats:
    """Shaft lean [degrees] of square strikes from the dynamic loft, or from launch [degrees], spin [rpm] and ball speed
    [m/s]; not-a-number where neither is known.

    A centred hit obeys sin(D - launch) = k r w / v exactly, whatever friction and restitution (docs/models/flight.md, 1);
    lean is the loft less the dynamic loft D. Off-centre hits and an opened face are read as lean.
    """
    share = SPIN_ARM * spin * math.pi / 30.0 / ball_speed
    share = np.where(share < 1.0, share, np.nan)
    told = np.where(np.isfinite(dynamic_loft), dynamic_loft, launch + np.degrees(np.arcsin(share)))
    return np.asarray(loft - told)
