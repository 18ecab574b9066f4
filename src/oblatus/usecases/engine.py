"""The engine of this process: one pool of families for every fitter."""

from __future__ import annotations

import contextlib
import json
import logging
import os
import threading
import time
from collections.abc import Hashable
from contextvars import ContextVar
from dataclasses import dataclass, field
from functools import partial
from pathlib import Path
from uuid import UUID

from oblatus.core.fitting import Fitting, StrokesJudge
from oblatus.core.fitting.ahead import jobs_ahead
from oblatus.core.strike import FamilyPool
from oblatus.core.strike.family_jobs import SHAPE
from oblatus.core.threads import begin_anew, give_way_by, stand_back
from oblatus.errors import InputError
from oblatus.store.families import SharedBlock

LOG = logging.getLogger(__name__)

FRESH_SECONDS = 5.0
PATIENT_NICE = 5
STOP, EDITED = "stop", "edited"
KINDS = 6
WORKS_FOR: ContextVar[str] = ContextVar("WORKS_FOR", default="")
"""The studio whose question is being worked on."""


@dataclass(slots=True)
class Work:
    """How far the making of families is: for a question that waits, ahead of the next one, and of the draws of the
    laws, studio by studio.

    With a folder, every worker's progress stands there for the others to read, and a studio's stop reaches them all.
    """

    folder: Path | None = None
    asked: dict[str, tuple[int, int]] = field(default_factory=dict)
    ahead: dict[str, tuple[int, int]] = field(default_factory=dict)
    laws: dict[str, tuple[int, int]] = field(default_factory=dict)
    _stopped: dict[str, float] = field(default_factory=dict)
    _edited: dict[UUID, float] = field(default_factory=dict)
    _lock: threading.Lock = field(default_factory=threading.Lock)

    def tell(self, done: int, total: int) -> None:
        """Hear of progress of a question of the studio that is worked for."""
        self._hear(self.asked, WORKS_FOR.get(), done, total)

    def tell_ahead(self, studio: str, done: int, total: int) -> None:
        """Hear of progress of what is made ahead for a studio."""
        self._hear(self.ahead, studio, done, total)

    def tell_laws(self, done: int, total: int) -> None:
        """Hear of the draws of the laws of the studio that is worked for."""
        self._hear(self.laws, WORKS_FOR.get(), done, total)

    def ended(self) -> None:
        """Hear that a question of the studio that is worked for was given up: how far it was is told no longer."""
        for kind in (self.asked, self.laws):
            self._hear(kind, WORKS_FOR.get(), 0, 0)

    def stop(self, studio: str) -> None:
        """Ask every worker to stop making families ahead for a studio."""
        self._stopped[studio] = time.time()
        if self.folder is not None:
            with contextlib.suppress(OSError):  # a disk that is full: this worker stops all the same
                (self.folder / f"{STOP}-{studio}").touch()

    def stopped_since(self, studio: str, start: float) -> bool:
        """Whether the studio asked for a stop after `start` [s]."""
        if self._stopped.get(studio, 0.0) >= start:
            return True
        try:
            return self.folder is not None and (self.folder / f"{STOP}-{studio}").stat().st_mtime >= start
        except FileNotFoundError:
            return False

    def edited(self, fitting_id: UUID) -> None:
        """Let every worker know that a fitting was edited so that its proposal is another."""
        self._edited[fitting_id] = time.time()
        if self.folder is not None:
            with contextlib.suppress(OSError):  # a disk that is full: what is worked on elsewhere is carried through
                (self.folder / f"{EDITED}-{fitting_id}").touch()

    def edited_since(self, fitting_id: UUID, start: float) -> bool:
        """Whether a fitting was edited after `start` [s], by any worker."""
        if self._edited.get(fitting_id, 0.0) > start:
            return True
        try:
            return self.folder is not None and (self.folder / f"{EDITED}-{fitting_id}").stat().st_mtime > start
        except FileNotFoundError:
            return False

    def everywhere(self, studio: str) -> tuple[tuple[int, int], ...]:
        """Done and total of all workers that said something lately for a studio: asked, ahead and draws of the laws;
        0 of 0 when nothing is made."""
        if self.folder is None:
            return tuple(kind.get(studio, (0, 0)) for kind in (self.asked, self.ahead, self.laws))
        now = time.time()
        found = []
        for path in self.folder.glob("work-*.json"):
            try:
                if now - path.stat().st_mtime < FRESH_SECONDS:
                    found.append(json.loads(path.read_text()).get(studio, [0] * KINDS))
            except (OSError, ValueError):
                continue  # being replaced at this moment
        sums = [sum(row[i] for row in found) for i in range(KINDS)]
        return tuple((sums[i], sums[i + 1]) for i in range(0, KINDS, 2))

    def forget_old(self) -> None:
        """Take away what workers that are gone have left; one that lives says anew how far it is."""
        if self.folder is None:
            return
        for path in self.folder.glob("work-*"):
            try:
                if time.time() - path.stat().st_mtime > FRESH_SECONDS:
                    path.unlink()
            except FileNotFoundError:
                continue  # another worker was quicker

    def _hear(self, where: dict[str, tuple[int, int]], studio: str, done: int, total: int) -> None:
        with self._lock:
            if done < total:
                where[studio] = (done, total)
            else:
                where.pop(studio, None)
            kinds = (self.asked, self.ahead, self.laws)
            told = {key: [n for kind in kinds for n in kind.get(key, (0, 0))] for key in set().union(*kinds)}
        if self.folder is not None:
            mine = self.folder / f"work-{os.getpid()}.json"
            new = mine.with_suffix(f".{threading.get_ident()}")
            with contextlib.suppress(OSError):  # a count that cannot be written stops no work
                new.write_text(json.dumps(told))
                new.rename(mine)


@dataclass(slots=True)
class Engine:
    """The pool, its judge, and what it is doing. Only a worker that serves fitters works ahead."""

    works_ahead: bool = False
    pool: FamilyPool = field(default_factory=FamilyPool)
    work: Work = field(default_factory=Work)
    judge: StrokesJudge = field(init=False)
    _ahead: threading.Thread | None = field(default=None, init=False)
    _latest: object = field(default=None, init=False)
    _signature: Hashable = field(default=None, init=False)
    _guard: threading.Lock = field(default_factory=threading.Lock, init=False)

    def __post_init__(self) -> None:
        self.judge = StrokesJudge(self.pool, self.work.tell)

    def make_ahead(self, fitting: Fitting, signature: Hashable) -> None:
        """Make in the background what the next edits of this fitting will ask; a later fitting takes its place.

        `signature` names what the families depend on: an equal one is not begun again, also not after a stop.
        """
        with self._guard:
            if not self.works_ahead or signature == self._signature:
                return
            self._signature = signature
            self._latest = turn = object()
            studio = WORKS_FOR.get()
            before = self._ahead
            self._ahead = threading.Thread(
                target=self._make, args=(fitting, turn, time.time(), before, studio), name="families ahead", daemon=True
            )
            self._ahead.start()

    def wait(self) -> None:
        """Until nothing is being made ahead."""
        thread = self._ahead
        if thread is not None:
            thread.join()

    def _make(self, fitting: Fitting, turn: object, start: float, before: threading.Thread | None, studio: str) -> None:
        stand_back()
        if before is not None:
            before.join()

        def go_on() -> bool:
            return self._latest is turn and not self.work.stopped_since(studio, start)

        if not go_on():
            return
        try:
            jobs = jobs_ahead(fitting, self.judge)
        except InputError:
            return  # nothing can be proposed from it yet: the screen says so, and there is nothing to make
        try:
            self.pool.prepare(jobs, partial(self.work.tell_ahead, studio), go_on)
        finally:
            self.work.tell_ahead(studio, 0, 0)


def _be_nice() -> None:
    """Have this thread yield the processor to all that are not as nice."""
    os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), PATIENT_NICE)


give_way_by(_be_nice)
os.register_at_fork(after_in_child=begin_anew)
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
    """Let the engine hold its families in a folder, with every other worker; without room there, on its own."""
    if folder is None:
        return
    engine().work.folder = folder
    engine().work.forget_old()
    try:
        engine().pool.block = SharedBlock(folder, SHAPE)
    except OSError as error:
        LOG.warning("families are not shared: %s", type(error).__name__)
