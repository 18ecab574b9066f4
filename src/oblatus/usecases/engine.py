"""The engine of this process: one pool of families for every fitter."""

from __future__ import annotations

import json
import os
import threading
import time
from dataclasses import dataclass, field
from pathlib import Path

from oblatus.core.fitting import StrikeJudge
from oblatus.core.strike import FamilyPool
from oblatus.core.strike.families import SHAPE
from oblatus.store.families import FamilyShelves

FRESH_SECONDS = 5.0


@dataclass(slots=True)
class Work:
    """How far the making of families is. With a folder, every worker's progress stands there for the others to read."""

    done: int = 0
    total: int = 0
    folder: Path | None = None

    def tell(self, done: int, total: int) -> None:
        """Hear of progress."""
        self.done, self.total = (done, total) if done < total else (0, 0)
        if self.folder is not None:
            mine = self.folder / f"work-{os.getpid()}.json"
            new = mine.with_suffix(".new")
            new.write_text(json.dumps([self.done, self.total]))
            new.rename(mine)

    def everywhere(self) -> tuple[int, int]:
        """Done and total of all workers that said something lately; 0 of 0 when nothing is being made."""
        if self.folder is None:
            return self.done, self.total
        now = time.time()
        found = []
        for path in self.folder.glob("work-*.json"):
            try:
                if now - path.stat().st_mtime < FRESH_SECONDS:
                    found.append(json.loads(path.read_text()))
            except (OSError, ValueError):
                continue  # being replaced at this moment
        return sum(d for d, _ in found), sum(t for _, t in found)


@dataclass(slots=True)
class Engine:
    """The pool, its judge, and what it is doing."""

    pool: FamilyPool = field(default_factory=FamilyPool)
    work: Work = field(default_factory=Work)
    judge: StrikeJudge = field(init=False)

    def __post_init__(self) -> None:
        self.judge = StrikeJudge(self.pool, self.work.tell)


_engine: Engine | None = None
_lock = threading.Lock()


def engine() -> Engine:
    """The process's engine, made at the first question."""
    global _engine  # noqa: PLW0603 (one pool a process is the point)
    with _lock:
        if _engine is None:
            _engine = Engine()
        return _engine


def keep_families_in(folder: Path | None) -> None:
    """Let the engine keep its families in a folder as well."""
    if folder is not None:
        engine().pool.backing = FamilyShelves(folder, SHAPE)
        engine().work.folder = folder
