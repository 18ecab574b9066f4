"""The judge: sheets of strokes for fittings, families from one pool; equal questions share one sheet."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Hashable

from oblatus.core.fitting.asked import Asked
from oblatus.core.fitting.costs import Sheet
from oblatus.core.fitting.jobs import JobBook
from oblatus.core.fitting.reckoned import Reckoned
from oblatus.core.strike import FamilyPool
from oblatus.core.strike.families import Progress

SHEETS_KEPT = 32
LAW_FAMILIES = 2048
"""Those of one draw of the laws find room."""


class StrokesJudge:
    """Sheets by question; the ones asked for longest ago are forgotten. `progress` hears of families that are missing."""

    def __init__(self, pool: FamilyPool, progress: Progress | None = None) -> None:
        self.pool, self.progress = pool, progress
        self.jobs, self.reckoned = JobBook(), Reckoned()
        self._sheets: OrderedDict[_Key, Sheet] = OrderedDict()
        self._guard = threading.Lock()

    def sheet(self, asked: Asked) -> Sheet:
        """The sheet of a question."""
        key = _Key(_key(asked))
        with self._guard:
            sheet = self._sheets.get(key)
            if sheet is None:
                sheet = self._sheets[key] = Sheet(asked, self.pool, self.jobs, self.reckoned, self.progress)
                while len(self._sheets) > SHEETS_KEPT:
                    self._sheets.popitem(last=False)
            self._sheets.move_to_end(key)
        return sheet


def judge_of_laws() -> StrokesJudge:
    """A judge for other laws than those taken.

    Families of theirs serve nothing else: made in the room of the search, they would crowd out its own.
    """
    return StrokesJudge(FamilyPool(LAW_FAMILIES))


class _Key:
    """A deep key whose hash is reckoned once: most keys differ, and are told apart by it."""

    __slots__ = ("_hash", "value")

    def __init__(self, value: Hashable) -> None:
        self.value, self._hash = value, hash(value)

    def __hash__(self) -> int:
        return self._hash

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Key) and self._hash == other._hash and self.value == other.value


def _key(asked: Asked) -> Hashable:
    """All that strokes depend on besides the heads."""
    player = asked.player
    return (
        player.habit, player.handicap, player.schools.clubs, asked.model, asked.short, asked.approaches,
        asked.faced.weights.tobytes(), asked.faced.centres.tobytes(), asked.scatter, asked.economy, asked.table,
        asked.entries, asked.law.ground.tobytes(), asked.law.contact.tobytes(), asked.proved,
    )  # fmt: skip
