"""Families of passes, computed once for a head, opening, ground, speed and release: they serve every player."""

from __future__ import annotations

import hashlib
import threading
from collections import OrderedDict
from collections.abc import Callable, Iterator, Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import Protocol, TypeVar

import numpy as np
from numpy.typing import NDArray

from oblatus.core import ENGINE_VERSION
from oblatus.core.clubs import Head
from oblatus.core.geometry import HANDS_DROP, head_row
from oblatus.core.geometry import _kernels as geometry
from oblatus.core.strike import _lanes, _quality

Floats = NDArray[np.float64]
Rows = NDArray[np.float32]
Ints = NDArray[np.int64]

SHAPE = (_lanes.ROWS, _lanes.COLUMNS, _lanes.LANES)
CHUNK = 64
JOBS_REMEMBERED = 50_000
THREADS = 2

Progress = Callable[[int, int], None]
Item = TypeVar("Item")
Found = TypeVar("Found")


class Backing(Protocol):
    """A place beyond memory where families are kept, such as a folder."""

    def find(self, keys: Sequence[str]) -> Mapping[str, Rows]:
        """Those of the families that it has."""
        ...

    def put(self, families: Mapping[str, Rows]) -> None:
        """Keep families; a failure to keep them is its own matter."""
        ...


@dataclass(frozen=True, slots=True, eq=False)
class FamilyJob:
    """What a family depends on: head and opening [degrees], ground kind and row, speed [m/s], release rate.

    Compared by identity, because thousands are looked up in one question; equal ones share their family by content key.
    """

    head: Head
    opening_deg: float
    kind: int
    ground: tuple[float, ...]
    speed: float
    release: float

    def key(self, solid_key: bytes) -> str:
        """Content key: geometry, ground, speed, release, grid and engine."""
        digest = hashlib.blake2b(solid_key, digest_size=16)
        digest.update(np.array([self.kind, *self.ground, self.speed, self.release, *SHAPE]).tobytes())
        digest.update(ENGINE_VERSION.encode())
        return digest.hexdigest()


class FamilyPool:
    """Families in memory, one block of slots; the least recently used make room. Safe for several threads."""

    def __init__(self, capacity: int = 5000, backing: Backing | None = None) -> None:
        self.capacity = capacity
        self.backing = backing
        self._pool: Rows = np.empty((256, *SHAPE), dtype=np.float32)
        self._slots: OrderedDict[str, int] = OrderedDict()
        self._bank = _SolidBank()
        self._known: dict[FamilyJob, tuple[str, int]] = {}
        self._lock = threading.RLock()
        self.computed = 0

    def expect(
        self,
        jobs: Sequence[FamilyJob],
        means: Floats,
        roots: Floats,
        nodes: Floats,
        entries: Floats,
        progress: Progress | None = None,
    ) -> Floats:
        """Expected quality of every job (n, RESULTS): see `_quality.expect`.

        means (n, 3) attack, lean [rad], entry [m]; roots (n, 3, 3) Cholesky factors. Missing families are made;
        more families than the pool holds are served in parts.
        """
        out = np.empty((len(jobs), _quality.RESULTS))
        unique: dict[FamilyJob, int] = {}
        family = np.array([unique.setdefault(job, len(unique)) for job in jobs], dtype=np.int64)
        distinct = list(unique)
        with self._lock:
            for start in range(0, len(distinct), self.capacity):
                part = distinct[start : start + self.capacity]
                mine = np.flatnonzero((family >= start) & (family < start + len(part)))
                batch = self._batch(part, progress)
                self._expect(batch.pick(family[mine] - start), means[mine], roots[mine], nodes, entries, mine, out)
        return out

    def prepare(self, jobs: Sequence[FamilyJob], progress: Progress | None = None) -> None:
        """Make the families of the jobs that are missing, so that a later question finds them."""
        with self._lock:
            self._batch(list(dict.fromkeys(jobs))[: self.capacity], progress)

    def _batch(self, jobs: Sequence[FamilyJob], progress: Progress | None) -> _Batch:
        if len(self._known) + len(jobs) > JOBS_REMEMBERED:
            self._known.clear()
        self._meet([job for job in jobs if job not in self._known])
        keys = [self._known[job][0] for job in jobs]
        batch = _Batch(
            np.array([self._known[job][1] for job in jobs], dtype=np.int64),
            np.array([job.kind for job in jobs], dtype=np.int64),
            np.array([job.ground for job in jobs]),
            np.array([job.speed for job in jobs]),
            np.array([job.release for job in jobs]),
            np.empty(len(jobs), dtype=np.int64),
        )
        missing = list({key: i for i, key in enumerate(keys) if key not in self._slots}.values())
        for key in keys:
            if key in self._slots:
                self._slots.move_to_end(key)
        missing = self._load(keys, missing)
        for i in missing:
            self._take_slot(keys[i])
        batch.slots[:] = [self._slots[key] for key in keys]
        try:
            self._compute(batch, missing, progress)
        except BaseException:
            for i in missing:  # a slot that was promised but not filled is not to be found again
                self._free(keys[i])
            raise
        if self.backing is not None and missing:
            self.backing.put({keys[i]: self._pool[self._slots[keys[i]]] for i in missing})
        return batch

    def _meet(self, new: Sequence[FamilyJob]) -> None:
        """Content key and mesh of jobs that were not seen before."""
        if not new:
            return
        solids = self._bank.places([(job.head, job.opening_deg) for job in new])
        for job, solid in zip(new, solids.tolist(), strict=True):
            self._known[job] = (job.key(self._bank.keys[solid]), solid)

    def _load(self, keys: Sequence[str], missing: list[int]) -> list[int]:
        if self.backing is None or not missing:
            return missing
        found = self.backing.find([keys[i] for i in missing])
        for key, rows in found.items():
            self._take_slot(key)
            self._pool[self._slots[key]] = rows
        return [i for i in missing if keys[i] not in found]

    def _take_slot(self, key: str) -> None:
        if key in self._slots:
            return
        used = len(self._slots)
        if used >= self.capacity:
            _, slot = self._slots.popitem(last=False)
        else:
            slot = used
            if slot >= len(self._pool):
                size = min(max(2 * len(self._pool), slot + 1), self.capacity)
                grown = np.empty((size, *SHAPE), dtype=np.float32)
                grown[: len(self._pool)] = self._pool
                self._pool = grown
        self._slots[key] = slot

    def _free(self, key: str) -> None:
        """Give a slot back: the last one moves into its place, so that slots stay without gaps."""
        slot = self._slots.pop(key, None)
        if slot is None:
            return
        last = len(self._slots)
        mover = next((other for other, place in self._slots.items() if place == last), None)
        if mover is not None and slot != last:
            self._pool[slot] = self._pool[last]
            self._slots[mover] = slot

    def _compute(self, batch: _Batch, missing: Sequence[int], progress: Progress | None) -> None:
        if not missing:
            return
        index = np.array(missing, dtype=np.int64)
        chunks = [index[i : i + CHUNK] for i in range(0, len(index), CHUNK)]
        bank = self._bank

        def work(chunk: Ints) -> int:
            part = batch.pick(chunk)
            _quality.families(
                part.solids, part.kinds, part.grounds, part.speeds, part.releases, part.slots,
                bank.sole, bank.face, bank.edge, bank.heights, bank.scalars, self._pool,
            )  # fmt: skip
            return len(chunk)

        done = 0
        for count in _run(work, chunks):
            done += count
            self.computed += count
            if progress is not None:
                progress(done, len(missing))

    def _expect(
        self, batch: _Batch, means: Floats, roots: Floats, nodes: Floats, entries: Floats, where: Ints, out: Floats
    ) -> None:
        from oblatus.core.strike.single import carry_table

        table, bank = carry_table(), self._bank
        result = np.empty((len(where), _quality.RESULTS))

        def work(part: slice) -> None:
            _quality.expect_many(
                batch.solids[part], batch.kinds[part], batch.grounds[part], batch.speeds[part], batch.releases[part],
                batch.slots[part], means[part], roots[part], bank.heights, bank.leads, bank.scalars, self._pool, table,
                nodes, entries, result[part],
            )  # fmt: skip

        step = max(len(where) // (4 * THREADS), 1)
        for _ in _run(work, [slice(i, i + step) for i in range(0, len(where), step)]):
            pass
        out[where] = result


@dataclass(slots=True)
class _Batch:
    """Jobs as arrays for the kernels."""

    solids: Ints
    kinds: Ints
    grounds: Floats
    speeds: Floats
    releases: Floats
    slots: Ints

    def pick(self, index: Ints) -> _Batch:
        """Some of the jobs."""
        return _Batch(*(getattr(self, name)[index] for name in self.__slots__))


class _SolidBank:
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

        step = max(n // (2 * THREADS), 1)
        for _ in _run(work, [slice(i, i + step) for i in range(0, n, step)]):
            pass
        names = ("sole", "face", "edge", "heights", "leads", "scalars")
        for name, part in zip(names, parts, strict=True):
            setattr(self, name, np.concatenate([getattr(self, name), part]))
        for i, pair in enumerate(new):
            self._place[pair] = len(self.keys)
            self.keys.append(np.append(heads[i], [openings[i], HANDS_DROP]).tobytes())


def _run(work: Callable[[Item], Found], items: Sequence[Item]) -> Iterator[Found]:
    """Run the work in two threads, results as they come in order: the kernels release the lock."""
    if len(items) < 2:
        yield from (work(item) for item in items)
        return
    with ThreadPoolExecutor(THREADS) as pool:
        futures = [pool.submit(work, item) for item in items]
        try:
            for future in futures:
                yield future.result()
        finally:
            for future in futures:
                future.cancel()
