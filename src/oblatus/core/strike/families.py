"""Families of passes, computed once for a head, opening, ground, speed and release: they serve every player."""

from __future__ import annotations

import threading
from collections import deque
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.flight.tables import carry_table
from oblatus.core.geometry import HANDS_DROP, head_row
from oblatus.core.geometry import _kernels as geometry
from oblatus.core.strike import _quality
from oblatus.core.strike._kernels import CONTACTS
from oblatus.core.strike.family_jobs import CAPACITY, TRIES, Block, FamilyJob, OwnBlock
from oblatus.core.threads import THREADS, in_threads, is_patient, let_pass, share_out
from oblatus.core.wanted import check_wanted

Floats = NDArray[np.float64]
Rows = NDArray[np.float32]
Ints = NDArray[np.int64]

ANSWER_PART = 640
AT_ONE_LOOK = 2048
MAKING_PART = 128
QUIET_PART = 32
MEET = 256
JOBS_REMEMBERED = 100_000
Progress = Callable[[int, int], None]


class Turns:
    """A lock that is had in the order of asking; Python's own goes to whoever is quickest, which starves the patient."""

    def __init__(self) -> None:
        self._guard = threading.Lock()
        self._waiting: deque[threading.Lock] = deque()
        self._taken = False

    def __enter__(self) -> None:
        with self._guard:
            if not self._taken:
                self._taken = True
                return
            gate = threading.Lock()
            gate.acquire()
            self._waiting.append(gate)
        gate.acquire()

    def __exit__(self, *_: object) -> None:
        with self._guard:
            if self._waiting:
                self._waiting.popleft().release()
            else:
                self._taken = False


@lru_cache(maxsize=16)
def _sorted(jobs: tuple[FamilyJob, ...]) -> tuple[tuple[FamilyJob, ...], Ints, Ints, Ints]:
    """The distinct jobs, the place of every job among them, the rows by place, and where the rows of each place begin.

    Remembered, because an edit of the habit asks for the same families again.
    """
    unique: dict[FamilyJob, int] = {}
    family = np.array([unique.setdefault(job, len(unique)) for job in jobs], dtype=np.int64)
    order = np.argsort(family, kind="stable")
    return tuple(unique), family, order, np.searchsorted(family[order], np.arange(len(unique) + 1))


@lru_cache(maxsize=16)
def _as_rows(jobs: tuple[FamilyJob, ...]) -> tuple[Ints, Floats, Floats, Floats]:
    """Kind of ground, its row, speed [m/s] and release of every job; remembered as `_sorted` is."""
    return (
        np.array([job.kind for job in jobs], dtype=np.int64),
        np.array([job.ground for job in jobs]),
        np.array([job.speed for job in jobs]),
        np.array([job.release for job in jobs]),
    )


class FamilyPool:
    """Families in a block of slots, its own or one that several processes map. Safe for several threads.

    A question is served in parts. Families are found and made by one question at a time, whoever else waits has their
    turn between two parts; several are answered at once, and each looks at the end whether its families still stood.
    """

    def __init__(self, capacity: int = CAPACITY, block: Block | None = None) -> None:
        self.block: Block = block or OwnBlock(capacity)
        self._bank = Bank()
        self._known: dict[FamilyJob, tuple[str, int]] = {}
        self._turns = Turns()
        self.computed = 0

    def visit(
        self,
        jobs: Sequence[FamilyJob],
        use: Callable[[Ints, Batch, Bank, Rows], None],
        progress: Progress | None = None,
    ) -> None:
        """Have `use` answer every row of `jobs`, part by part, while the families of its part are in memory.

        `use` gets the rows' numbers, their batch, the meshes and the block of families. Missing families are made first,
        and told of as (done, missing).
        """
        distinct, family, order, ends = _sorted(tuple(jobs))

        def answer(start: int, batch: Batch, rows: Rows) -> None:
            mine = np.sort(order[ends[start] : ends[start + len(batch.slots)]])
            use(mine, batch.pick(family[mine] - start), self._bank, rows)

        if self._all_there(distinct, answer):
            return
        # what is missing is made in small parts first; then large ones, which are quick, give the answers
        self._in_parts(self._missing(distinct)[: self.block.capacity], MAKING_PART, progress)
        self._in_parts(distinct, ANSWER_PART, None, answer)

    def _all_there(self, jobs: Sequence[FamilyJob], answer: Callable[[int, Batch, Rows], None]) -> bool:
        """Answer at one look a question whose few families are all in memory, and stay there; False for any other."""
        # patient work lets others pass between parts
        if len(jobs) > min(ANSWER_PART if is_patient() else AT_ONE_LOOK, self.block.capacity):
            return False
        let_pass()
        check_wanted()
        with self._turns:
            self._meet(jobs)
            keys = [self._known[job][0] for job in jobs]
            slots = self.block.find(keys)
            if not all(key in slots for key in keys):
                return False
            batch, rows = self._as_batch(jobs, keys, slots), self.block.rows
        answer(0, batch, rows)
        return self.block.still(slots)

    def expect(
        self,
        jobs: Sequence[FamilyJob],
        means: Floats,
        roots: Floats,
        nodes: Floats,
        entries: Floats,
        progress: Progress | None = None,
    ) -> Floats:
        """Expected quality and classes of every job (n, RESULTS): see `_quality.expect`.

        means (n, 3) attack, lean [rad], entry [m]; roots (n, 3, 3) Cholesky factors.
        """
        out = np.empty((len(jobs), _quality.RESULTS))

        def use(mine: Ints, batch: Batch, bank: Bank, pool: Rows) -> None:
            result = np.empty((len(mine), _quality.RESULTS))

            def work(part: slice) -> None:
                rows = mine[part]
                _quality.expect_many(
                    batch.solids[part], batch.kinds[part], batch.grounds[part], CONTACTS, batch.speeds[part],
                    batch.releases[part], batch.slots[part], means[rows], roots[rows], bank.heights, bank.leads,
                    bank.scalars, pool, carry_table(), nodes, entries, result[part],
                )  # fmt: skip

            share_out(work, len(mine))
            out[mine] = result

        self.visit(jobs, use, progress)
        return out

    def prepare(
        self, jobs: Sequence[FamilyJob], progress: Progress | None = None, go_on: Callable[[], bool] | None = None
    ) -> bool:
        """Make the families of the jobs that are missing, so that a later question finds them; as many as memory holds.

        Small parts, so that questions come between; `go_on` is asked before each. False if it said stop.
        """
        missing = self._missing(list(dict.fromkeys(jobs))[: self.block.capacity])
        return self._in_parts(missing, QUIET_PART, progress, None, go_on, threads=1)

    def _in_parts(
        self,
        jobs: Sequence[FamilyJob],
        size: int,
        progress: Progress | None,
        answer: Callable[[int, Batch, Rows], None] | None = None,
        go_on: Callable[[], bool] | None = None,
        threads: int = THREADS,
    ) -> bool:
        """Have the families of the jobs in memory, part by part, and let `answer` use each part while it is there."""
        size = min(size, self.block.capacity)
        for start in range(0, len(jobs), size):
            if go_on is not None and not go_on():
                return False
            let_pass()
            check_wanted()
            part = jobs[start : start + size]
            if not any(self._one_part(start, part, threads, answer) for _ in range(TRIES)):
                self._apart(start, part, threads, answer)
            if progress is not None:
                progress(start + len(part), len(jobs))
        return True

    def _one_part(
        self, start: int, part: Sequence[FamilyJob], threads: int, answer: Callable[[int, Batch, Rows], None] | None
    ) -> bool:
        """Make and use one part; False if others needed the room meanwhile, so that it is not to be trusted."""
        with self._turns:
            batch, slots = self._batch(part, threads)
            block, rows = self.block, self.block.rows
        if answer is None:
            return True
        answer(start, batch, rows)
        return block.still(slots)

    def _apart(
        self, start: int, part: Sequence[FamilyJob], threads: int, answer: Callable[[int, Batch, Rows], None] | None
    ) -> None:
        """Make and use one part in a block of its own: for a crowd that leaves no room."""
        with self._turns:
            shared, own = self.block, OwnBlock(len(part))
            self.block = own
            try:
                batch, _ = self._batch(part, threads)
            finally:
                self.block = shared
        if answer is not None:
            answer(start, batch, own.rows)

    def _missing(self, jobs: Sequence[FamilyJob]) -> list[FamilyJob]:
        """One job for every family that is not in memory."""
        found: dict[str, FamilyJob] = {}
        for start in range(0, len(jobs), MEET):
            with self._turns:
                part = jobs[start : start + MEET]
                self._meet(part)
                keys = [self._known[job][0] for job in part]
                there = self.block.find(keys)
                for key, job in zip(keys, part, strict=True):
                    if key not in there:
                        found.setdefault(key, job)
        return list(found.values())

    def _batch(self, jobs: Sequence[FamilyJob], threads: int) -> tuple[Batch, dict[str, int]]:
        """The jobs as arrays with their families in the block, and the slots where they stand."""
        self._meet(jobs)
        keys = [self._known[job][0] for job in jobs]
        slots = self.block.find(keys)
        absent = list({key: i for i, key in enumerate(keys) if key not in slots}.values())
        new = [keys[i] for i in absent]
        slots |= self.block.take(new, list(slots)) if new else {}
        batch = self._as_batch(jobs, keys, slots)
        try:
            self._compute(batch, absent, threads)
        except BaseException:
            self.block.drop(new)  # a slot that was taken but not filled is not to be found
            raise
        if new:
            self.block.publish(new)
        return batch, slots

    def _as_batch(self, jobs: Sequence[FamilyJob], keys: Sequence[str], slots: Mapping[str, int]) -> Batch:
        return Batch(
            np.array([self._known[job][1] for job in jobs], dtype=np.int64),
            *_as_rows(tuple(jobs)),
            np.array([slots[key] for key in keys], dtype=np.int64),
        )

    def _meet(self, jobs: Sequence[FamilyJob]) -> None:
        """Content key and mesh of jobs that were not seen before."""
        if len(self._known) + len(jobs) > JOBS_REMEMBERED:
            self._known.clear()
        new = [job for job in jobs if job not in self._known]
        if not new:
            return
        solids = self._bank.places([(job.head, job.opening_deg) for job in new])
        for job, solid in zip(new, solids.tolist(), strict=True):
            self._known[job] = (job.key(self._bank.keys[solid]), solid)

    def _compute(self, batch: Batch, missing: Sequence[int], threads: int) -> None:
        if not missing:
            return
        index = np.array(missing, dtype=np.int64)
        step = max(len(index) // (2 * threads), 4)
        bank = self._bank

        def work(chunk: Ints) -> int:
            part = batch.pick(chunk)
            _quality.families(
                part.solids, part.kinds, part.grounds, part.speeds, part.releases, part.slots,
                bank.sole, bank.face, bank.edge, bank.heights, bank.scalars, self.block.rows,
            )  # fmt: skip
            return len(chunk)

        for count in in_threads(work, [index[i : i + step] for i in range(0, len(index), step)], threads):
            self.computed += count


@dataclass(slots=True)
class Batch:
    """Jobs as arrays for the kernels."""

    solids: Ints
    kinds: Ints
    grounds: Floats
    speeds: Floats
    releases: Floats
    slots: Ints

    def pick(self, index: Ints) -> Batch:
        """Some of the jobs."""
        return Batch(*(getattr(self, name)[index] for name in self.__slots__))


class Bank:
    """Production meshes of every (head, opening) met so far."""

    def __init__(self) -> None:
        self.keys: list[bytes] = []
        self._place: dict[tuple[Head, float], int] = {}
        self.sole = np.empty((0, 5, 24), dtype=np.float32)
        self.face = np.empty((0, 5, 15), dtype=np.float32)
        self.edge = np.empty((0, 3, 3), dtype=np.float32)
        self.heights = np.empty((0, geometry.PITCHES))
        self.leads = np.empty((0, geometry.PITCHES))
        self.scalars = np.empty((0, 3))

    def places(self, wanted: Sequence[tuple[Head, float]]) -> Ints:
        """Index of every solid asked for; new ones are built together."""
        new = list(dict.fromkeys(pair for pair in wanted if pair not in self._place))
        if new:
            self._build(new)
        return np.array([self._place[pair] for pair in wanted], dtype=np.int64)

    def _build(self, new: Sequence[tuple[Head, float]]) -> None:
        heads = np.array([head_row(head) for head, _ in new])
        openings = np.radians([opening for _, opening in new])
        n = len(new)
        parts = (
            np.empty((n, 5, 24), dtype=np.float32),
            np.empty((n, 5, 15), dtype=np.float32),
            np.empty((n, 3, 3), dtype=np.float32),
            np.empty((n, geometry.PITCHES)),
            np.empty((n, geometry.PITCHES)),
            np.empty((n, 3)),
        )

        def work(some: slice) -> None:
            _quality.build_solids(heads[some], openings[some], HANDS_DROP, *(part[some] for part in parts))

        share_out(work, n)
        names = ("sole", "face", "edge", "heights", "leads", "scalars")
        for name, part in zip(names, parts, strict=True):
            setattr(self, name, np.concatenate([getattr(self, name), part]))
        for i, pair in enumerate(new):
            self._place[pair] = len(self.keys)
            self.keys.append(np.append(heads[i], [openings[i], HANDS_DROP]).tobytes())
