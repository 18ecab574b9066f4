"""The engine of this process: one pool of families for every fitter."""

from __future__ import annotations

import json
import os
import threading
import time
from collections.abc import Hashable
from dataclasses import dataclass, field
from pathlib import Path

from oblatus.core.fitting import Fitting, StrikeJudge
from oblatus.core.fitting.ahead import jobs_ahead
from oblatus.core.strike import FamilyPool
from oblatus.core.strike.families import SHAPE
from oblatus.errors import InputError
from oblatus.store.families import FamilyShelves

FRESH_SECONDS = 5.0
STOP = "stop"


@dataclass(slots=True)
class Work:
    """How far the making of families is: for a question that waits, and ahead of the next one.

    With a folder, every worker's progress stands there for the others to read, and a stop reaches them all.
    """

    folder: Path | None = None
    asked: tuple[int, int] = (0, 0)
    ahead: tuple[int, int] = (0, 0)
    stopped_at: float = 0.0

    def tell(self, done: int, total: int) -> None:
        """Hear of progress of a question."""
        self.asked = (done, total) if done < total else (0, 0)
        self._write()

    def tell_ahead(self, done: int, total: int) -> None:
        """Hear of progress of what is made ahead."""
        self.ahead = (done, total) if done < total else (0, 0)
        self._write()

    def stop(self) -> None:
        """Ask every worker to stop making families ahead."""
        self.stopped_at = time.time()
        if self.folder is not None:
            (self.folder / STOP).touch()

    def stopped_since(self, start: float) -> bool:
        """Whether a stop was asked for after `start` [s]."""
        if self.stopped_at >= start:
            return True
        try:
            return self.folder is not None and (self.folder / STOP).stat().st_mtime >= start
        except FileNotFoundError:
            return False

    def everywhere(self) -> tuple[tuple[int, int], tuple[int, int]]:
        """Done and total of all workers that said something lately, asked and ahead; 0 of 0 when nothing is made."""
        if self.folder is None:
            return self.asked, self.ahead
        now = time.time()
        found = []
        for path in self.folder.glob("work-*.json"):
            try:
                if now - path.stat().st_mtime < FRESH_SECONDS:
                    found.append(json.loads(path.read_text()))
            except (OSError, ValueError):
                continue  # being replaced at this moment
        asked, ahead, later, all_of_it = (sum(row[i] for row in found) for i in range(4))
        return (asked, ahead), (later, all_of_it)

    def _write(self) -> None:
        if self.folder is not None:
            mine = self.folder / f"work-{os.getpid()}.json"
            new = mine.with_suffix(f".{threading.get_ident()}")
            new.write_text(json.dumps([*self.asked, *self.ahead]))
            new.rename(mine)


@dataclass(slots=True)
class Engine:
    """The pool, its judge, and what it is doing. Only a worker that serves fitters works ahead."""

    works_ahead: bool = False
    pool: FamilyPool = field(default_factory=FamilyPool)
    work: Work = field(default_factory=Work)
    judge: StrikeJudge = field(init=False)
    _ahead: threading.Thread | None = field(default=None, init=False)
    _latest: object = field(default=None, init=False)
    _signature: Hashable = field(default=None, init=False)
    _guard: threading.Lock = field(default_factory=threading.Lock, init=False)

    def __post_init__(self) -> None:
        self.judge = StrikeJudge(self.pool, self.work.tell)

    def make_ahead(self, fitting: Fitting, signature: Hashable) -> None:
        """Make in the background what the next edits of this fitting will ask; a later fitting takes its place.

        `signature` names what the families depend on: an equal one is not begun again, also not after a stop.
        """
        with self._guard:
            if not self.works_ahead or signature == self._signature:
                return
            self._signature = signature
            self._latest = turn = object()
            before = self._ahead
            self._ahead = threading.Thread(
                target=self._make, args=(fitting, turn, time.time(), before), name="families ahead", daemon=True
            )
            self._ahead.start()

    def wait(self) -> None:
        """Until nothing is being made ahead."""
        thread = self._ahead
        if thread is not None:
            thread.join()

    def _make(self, fitting: Fitting, turn: object, start: float, before: threading.Thread | None) -> None:
        if before is not None:
            before.join()

        def go_on() -> bool:
            return self._latest is turn and not self.work.stopped_since(start)

        if not go_on():
            return
        try:
            jobs = jobs_ahead(fitting, self.judge)
        except InputError:
            return  # nothing can be proposed from it yet: the screen says so, and there is nothing to make
        try:
            self.pool.prepare(jobs, self.work.tell_ahead, go_on)
        finally:
            self.work.tell_ahead(0, 0)


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
