"""Strokes that were reckoned, head by head and question by question: an edit reckons what it changes, and no more.

A change of the shot mix, or of one ground of three, leaves most questions of a sheet as they were. A card and a trip ask
many that the fitting asked. What other workers reckon is found on a shelf.
"""

from __future__ import annotations

import hashlib
from collections import OrderedDict
from collections.abc import Collection, Hashable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from threading import Lock
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

ROWS_KEPT = 64
MOST_QUESTIONS = 400
"""Of one player; with more they are begun anew, so that a ground which is changed all day does not fill the memory."""
NAME_BYTES = 16


@lru_cache(maxsize=8_000)
def name_of(thing: Hashable) -> bytes:
    """A name for a thing by its value: an equal one has it in every worker."""
    return hashlib.blake2b(repr(thing).encode(), digest_size=NAME_BYTES).digest()


def name_of_all(*things: Hashable) -> bytes:
    """A name for things together."""
    return hashlib.blake2b(b"".join(name_of(thing) for thing in things), digest_size=NAME_BYTES).digest()


@dataclass(frozen=True, slots=True, eq=False)
class Part:
    """Figures (heads, questions, width) by the names of heads and questions; NaN where none were reckoned."""

    heads: list[bytes]
    questions: list[bytes]
    figures: Floats


class Shelf(Protocol):
    """Where workers lay what they reckoned for one another."""

    def lay(self, about: bytes, part: Part) -> str:
        """Lay a part there; returns its title."""

    def laid(self, about: bytes, known: Collection[str]) -> list[tuple[str, Part]]:
        """The parts that are there with their titles, but for those that are known."""


class Rows:
    """Figures of heads at questions, for one player under one law. Safe for several threads."""

    def __init__(self, about: bytes, width: int, shelf: Shelf | None = None, known: Collection[str] = ()) -> None:
        self._about, self._shelf = about, shelf
        self._guard = Lock()
        self._known = set(known)
        self._heads: dict[bytes, int] = {}
        self._questions: dict[bytes, int] = {}
        self._figures = np.full((0, 0, width), np.nan)

    def places(self, questions: Sequence[bytes]) -> Ints:
        """The places of the questions of these names (questions,): they stay theirs."""
        with self._guard:
            return self._places(self._questions, questions)

    def of(self, heads: Sequence[Head], places: Ints) -> Floats:
        """Figures of heads at the questions of these places (heads, places, width); NaN where none were reckoned."""
        with self._guard:
            out = np.full((len(heads), len(places), self._figures.shape[2]), np.nan)
            rows = np.array([self._heads.get(name_of(head), -1) for head in heads], dtype=np.int64)
            known, here = np.flatnonzero(rows >= 0), np.flatnonzero(places < self._figures.shape[1])
            out[np.ix_(known, here)] = self._figures[np.ix_(rows[known], places[here])]
            return out

    def look(self) -> bool:
        """Take in what others have laid on the shelf; returns whether there was anything."""
        if self._shelf is None:
            return False
        laid = self._shelf.laid(self._about, self._known)
        for title, part in laid:
            self._take(part)
            self._known.add(title)
        return bool(laid)

    def put(self, heads: Sequence[Head], places: Ints, figures: Floats, new: Bools) -> None:
        """Take down those of the figures (heads, places, width) that are new (heads, places), here and on the shelf."""
        some, here = np.flatnonzero(new.any(axis=1)), np.flatnonzero(new.any(axis=0))
        with self._guard:
            questions = list(self._questions)
        at = np.ix_(some, here)
        part = Part(
            [name_of(heads[n]) for n in some.tolist()], [questions[place] for place in places[here].tolist()],
            np.where(new[at][:, :, None], figures[at], np.nan),
        )  # fmt: skip
        self._take(part)
        if self._shelf is not None:
            self._known.add(self._shelf.lay(self._about, part))

    @property
    def known(self) -> set[str]:
        """Titles of the parts that were laid here or taken in."""
        return set(self._known)

    @property
    def full(self) -> bool:
        """Whether they had better be begun anew."""
        return len(self._questions) > MOST_QUESTIONS

    def _take(self, part: Part) -> None:
        with self._guard:
            heads, places = self._places(self._heads, part.heads), self._places(self._questions, part.questions)
            self._make_room()
            at = np.ix_(heads, places)
            self._figures[at] = np.where(np.isnan(part.figures), self._figures[at], part.figures)

    @staticmethod
    def _places(known: dict[bytes, int], names: Sequence[bytes]) -> Ints:
        return np.array([known.setdefault(name, len(known)) for name in names], dtype=np.int64)

    def _make_room(self) -> None:
        heads, questions, width = self._figures.shape
        if len(self._heads) <= heads and len(self._questions) <= questions:
            return
        more = np.full((max(len(self._heads), heads), max(len(self._questions), questions), width), np.nan)
        more[:heads, :questions] = self._figures
        self._figures = more


class Reckoned:
    """Rows by what their figures depend on besides head and question; the ones asked for longest ago are forgotten."""

    def __init__(self, shelf: Shelf | None = None) -> None:
        self.shelf = shelf
        self._guard = Lock()
        self._rows: OrderedDict[bytes, Rows] = OrderedDict()

    def rows(self, about: bytes, width: int) -> Rows:
        """The rows of what has this name, of that many figures."""
        with self._guard:
            found = self._rows.get(about)
            if found is None or found.full:
                # what filled them is not taken from the shelf again
                known = () if found is None else found.known
                found = self._rows[about] = Rows(about, width, self.shelf, known)
                while len(self._rows) > ROWS_KEPT:
                    self._rows.popitem(last=False)
            self._rows.move_to_end(about)
            return found
