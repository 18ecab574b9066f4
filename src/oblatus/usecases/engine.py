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
from uuid import UUID, uuid4

from oblatus.core.fitting import Fitting, StrokesJudge
from oblatus.core.fitting.ahead import jobs_ahead
from oblatus.core.strike import FamilyPool
from oblatus.core.strike.family_jobs import SHAPE
from oblatus.core.threads import begin_anew, give_way_by, stand_back
from oblatus.errors import InputError
from oblatus.store.families import SharedBlock
from oblatus.store.shelf import RowShelf

LOG = logging.getLogger(__name__)

PROGRAM = uuid4().hex
"""Workers are forked from one program: what another one found, older or newer, may be otherwise."""
FRESH_SECONDS = 5.0
PATIENT_NICE = 5
STOP, EDITED = "stop", "edited"
ASKED, AHEAD, LAWS, FLIPS, SCHOOLS = KINDS = ("asked", "ahead", "laws", "flips", "schools")
"""What is counted: families for a question that waits and ahead of the next one, draws of the laws, axes along which a
change of the choice is looked for, and schools."""

WORKS_FOR: ContextVar[str] = ContextVar("WORKS_FOR", default="")
"""The studio whose question is being worked on."""


def question(fitting_id: UUID, kind: str) -> str:
    """The name by which a long question about a fitting is stopped."""
    return f"{kind}-{fitting_id}"


@dataclass(slots=True)
class Work:
    """How far long work is, kind by kind and studio by studio.

    With a folder, every worker's progress stands there for the others to read, and a stop reaches them all.
    """

    folder: Path | None = None
    counts: dict[str, dict[str, tuple[int, int]]] = field(default_factory=lambda: {kind: {} for kind in KINDS})
    _stopped: dict[str, float] = field(default_factory=dict)
    _edited: dict[UUID, float] = field(default_factory=dict)
    _lock: threading.Lock = field(default_factory=threading.Lock)

    def tell(self, done: int, total: int) -> None:
        """Hear of progress of a question of the studio that is worked for."""
        self.tell_of(ASKED, done, total)

    def tell_of(self, kind: str, done: int, total: int) -> None:
        """Hear of progress of one kind of work of the studio that is worked for."""
        self._hear(kind, WORKS_FOR.get(), done, total)

    def tell_ahead(self, studio: str, done: int, total: int) -> None:
        """Hear of progress of what is made ahead for a studio."""
        self._hear(AHEAD, studio, done, total)

    def ended(self, kind: str) -> None:
        """Hear that a question of this kind of the studio that is worked for was given up: how far it was, and the making
        of its families, is told no longer."""
        for given_up in (ASKED, kind):
            self.tell_of(given_up, 0, 0)

    def stop(self, what: str) -> None:
        """Ask every worker to stop something: making families ahead, by the studio; or a `question`."""
        self._stopped[what] = time.time()
        if self.folder is not None:
            with contextlib.suppress(OSError):  # a disk that is full: this worker stops all the same
                (self.folder / f"{STOP}-{what}").touch()

    def stopped_since(self, what: str, start: float) -> bool:
        """Whether somebody asked for this stop after `start` [s]."""
        if self._stopped.get(what, 0.0) >= start:
            return True
        try:
            return self.folder is not None and (self.folder / f"{STOP}-{what}").stat().st_mtime >= start
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

    def everywhere(self, studio: str) -> dict[str, tuple[int, int]]:
        """Done and total of every kind, of all workers that said something lately for a studio; 0 of 0 when there is
        none."""
        if self.folder is None:
            return {kind: self.counts[kind].get(studio, (0, 0)) for kind in KINDS}
        now = time.time()
        found = []
        for path in self.folder.glob("work-*.json"):
            try:
                if now - path.stat().st_mtime < FRESH_SECONDS:
                    found.append(json.loads(path.read_text()).get(studio, {}))
            except (OSError, ValueError):
                continue  # being replaced at this moment
        told = {kind: [row[kind] for row in found if kind in row] for kind in KINDS}
        return {kind: (sum(done for done, _ in rows), sum(total for _, total in rows)) for kind, rows in told.items()}

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

    def _hear(self, kind: str, studio: str, done: int, total: int) -> None:
        with self._lock:
            where = self.counts[kind]
            if done < total:
                where[studio] = (done, total)
            else:
                where.pop(studio, None)
            told: dict[str, dict[str, tuple[int, int]]] = {}
            for name, counts in self.counts.items():
                for key, count in counts.items():
                    told.setdefault(key, {})[name] = count
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
    """Let the engine hold its families in a folder, with every other worker, and lay there what it reckoned; without room
    for families there, on its own.
    """
    if folder is None:
        return
    engine().work.folder = folder
    engine().work.forget_old()
    engine().judge.reckoned.shelf = RowShelf(folder / "reckoned", PROGRAM)
    try:
        engine().pool.block = SharedBlock(folder, SHAPE)
    except OSError as error:
        LOG.warning("families are not shared: %s", type(error).__name__)
