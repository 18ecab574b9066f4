"""Strokes that were reckoned, head by head and question by question: an edit reckons what it changes, and no more.

A change of the shot mix, or of one ground of three, leaves most questions of a sheet as they were. A card and a trip ask
many that the fitting asked.
"""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Hashable, Sequence
from threading import Lock

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

ROWS_KEPT = 64
MOST_QUESTIONS = 400
"""Of one player; with more they are begun anew, so that a ground which is changed all day does not fill the memory."""


class Rows:
    """Figures of heads at questions, for one player under one law. Safe for several threads."""

    def __init__(self, width: int) -> None:
        self._guard = Lock()
        self._heads: dict[Head, int] = {}
        self._questions: dict[Hashable, int] = {}
        self._figures = np.full((0, 0, width), np.nan)

    def places(self, questions: Sequence[Hashable]) -> Ints:
        """The places of these questions (questions,): they stay theirs."""
        with self._guard:
            found = [self._questions.setdefault(question, len(self._questions)) for question in questions]
        return np.array(found, dtype=np.int64)

    def of(self, heads: Sequence[Head], places: Ints) -> Floats:
        """Figures of heads at the questions of these places (heads, places, width); NaN where none were reckoned."""
        with self._guard:
            out = np.full((len(heads), len(places), self._figures.shape[2]), np.nan)
            rows = np.array([self._heads.get(head, -1) for head in heads], dtype=np.int64)
            known, here = np.flatnonzero(rows >= 0), np.flatnonzero(places < self._figures.shape[1])
            out[np.ix_(known, here)] = self._figures[np.ix_(rows[known], places[here])]
            return out

    def put(self, heads: Sequence[Head], places: Ints, figures: Floats) -> None:
        """Take down the figures (heads, places, width) that are not NaN."""
        with self._guard:
            for head in heads:
                self._heads.setdefault(head, len(self._heads))
            self._make_room()
            at = np.ix_(np.array([self._heads[head] for head in heads], dtype=np.int64), places)
            self._figures[at] = np.where(np.isnan(figures), self._figures[at], figures)

    @property
    def full(self) -> bool:
        """Whether they had better be begun anew."""
        return len(self._questions) > MOST_QUESTIONS

    def _make_room(self) -> None:
        heads, questions, width = self._figures.shape
        if len(self._heads) <= heads and len(self._questions) <= questions:
            return
        more = np.full((max(len(self._heads), heads), max(len(self._questions), questions), width), np.nan)
        more[:heads, :questions] = self._figures
        self._figures = more


class Reckoned:
    """Rows by what their figures depend on besides head and question; the ones asked for longest ago are forgotten."""

    def __init__(self) -> None:
        self._guard = Lock()
        self._rows: OrderedDict[Hashable, Rows] = OrderedDict()

    def rows(self, about: Hashable, width: int) -> Rows:
        """The rows of what `about` says, of that many figures."""
        with self._guard:
            found = self._rows.get(about)
            if found is None or found.full:
                found = self._rows[about] = Rows(width)
                while len(self._rows) > ROWS_KEPT:
                    self._rows.popitem(last=False)
            self._rows.move_to_end(about)
            return found
