"""Families of passes in one file that every worker maps: held once for all of them, whatever one makes the others find.

Those that were not asked for longest make room, whoever asked: a fitter who comes back to another player's fitting finds
what is left of its families, and only what is missing is made. The index says which family stands in which slot and when
it was put there, so that a worker learns what others did by looking at what is newer than what it knows. What a computer
that went down left behind is not trusted: the file begins anew with every start of the machine, and with another grid.
"""

from __future__ import annotations

import fcntl
import logging
import os
import threading
from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from itertools import cycle, islice
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from oblatus.store.disk import room

LOG = logging.getLogger(__name__)

Rows = NDArray[np.float32]

CAPACITY = 14_336
GROWTH = 512
BOOT = Path("/proc/sys/kernel/random/boot_id")
HEAD = np.dtype([("boot", "S40"), ("shape", "i8", 3), ("next", "i8"), ("size", "i8"), ("stamp", "i8"), ("clock", "i8")])
ENTRY = np.dtype([("key", "S32"), ("stamp", "i8"), ("used", "i8")])


class SharedBlock:
    """A block of slots in a folder, shared by every worker that maps it.

    Raises
    ------
    OSError
        If the folder cannot be written or has no room for a first part of the block.
    """

    def __init__(self, folder: Path, shape: tuple[int, int, int], capacity: int = CAPACITY) -> None:
        self.capacity, self.folder = capacity, folder
        folder.mkdir(parents=True, exist_ok=True)
        self._lock, self._guard = folder / "families.lock", threading.RLock()
        row_bytes = int(np.prod(shape)) * 4
        self._row_bytes = row_bytes
        self._told = False
        with self._alone():
            self._file = os.open(folder / "families.block", os.O_RDWR | os.O_CREAT, 0o600)
            os.ftruncate(self._file, capacity * row_bytes)
            index = folder / "families.index"
            size = HEAD.itemsize + capacity * ENTRY.itemsize
            if not index.exists() or index.stat().st_size != size:
                index.write_bytes(b"\0" * size)
            index.chmod(0o600)
            raw = np.memmap(index, dtype=np.uint8, mode="r+")
            self._head = raw[: HEAD.itemsize].view(HEAD)
            self._index = raw[HEAD.itemsize :].view(ENTRY)
            self._begin(shape)
        self.rows: Rows = np.memmap(folder / "families.block", dtype=np.float32, mode="r+", shape=(capacity, *shape))
        self._slots: dict[str, int] = {}
        self._keys: dict[int, str] = {}
        self._seen = 0
        self._taken: dict[str, int] = {}

    def _begin(self, shape: tuple[int, int, int]) -> None:
        """Empty a block that another start of the machine or another grid left behind."""
        boot = BOOT.read_bytes().strip() if BOOT.exists() else b""
        head = self._head[0]
        if bytes(head["boot"]) == boot and tuple(head["shape"]) == tuple(shape) and head["size"] > 0:
            return
        self._index["key"], self._index["stamp"], self._index["used"] = b"", 0, 0
        self._head[0] = (boot, shape, 0, 0, 0, 0)
        self._grow()

    @contextmanager
    def _alone(self) -> Iterator[None]:
        """Nobody else, of this process or another, changes the index meanwhile."""
        with self._guard, self._lock.open("a") as held:
            fcntl.flock(held, fcntl.LOCK_EX)
            yield

    def _grow(self) -> bool:
        """Have the disk set more slots by: writing into what it has not would end the process when it is full."""
        size = int(self._head[0]["size"])
        more = min(GROWTH, self.capacity - size)
        if more <= 0 or (size > 0 and room(self.folder) != "ok"):
            return False
        try:
            os.posix_fallocate(self._file, size * self._row_bytes, more * self._row_bytes)
        except OSError as error:
            if size == 0:
                raise
            if not self._told:
                LOG.warning("no more room for families: %s", type(error).__name__)
            self._told = True
            return False
        self._head["size"] = size + more
        return True

    def find(self, keys: Sequence[str]) -> dict[str, int]:
        """Slots of those of the families that stand in the block."""
        with self._guard:
            self._look()
            found = {key: self._slots[key] for key in keys if key in self._slots}
            self._use(list(found.values()))
            return found

    def _use(self, slots: Sequence[int]) -> None:
        """Note that these are asked for now; of two workers that note it at once one is noted, which is near enough."""
        clock = int(self._head[0]["clock"]) + 1
        self._head["clock"] = clock
        self._index["used"][slots] = clock

    def _look(self) -> None:
        """Learn what was put or taken since."""
        stamps = self._index["stamp"]
        newest = int(self._head[0]["stamp"])
        if newest == self._seen:
            return
        for slot in np.nonzero(stamps > self._seen)[0].tolist():
            old = self._keys.pop(slot, None)
            if old is not None and self._slots.get(old) == slot:
                del self._slots[old]
            key = bytes(self._index[slot]["key"]).decode()
            if key:
                self._slots[key], self._keys[slot] = slot, key
        self._seen = newest

    def take(self, keys: Sequence[str], beside: Sequence[str]) -> dict[str, int]:
        """Slots for new families: empty ones, else those not asked for longest; none of them in use by this question."""
        with self._alone():
            self._look()
            in_use = {self._slots[key] for key in beside if key in self._slots} | set(self._taken.values())
            slots = self._empty(len(keys))
            slots += self._longest_unused(len(keys) - len(slots), in_use.union(slots))
            for key, slot in zip(keys, slots, strict=True):
                self._stamp(slot, "")
                self._taken[key] = slot
            self._use(slots)
            self._look()
            return {key: self._taken[key] for key in keys}

    def _empty(self, count: int) -> list[int]:
        """Up to so many slots in which nothing ever stood."""
        found: list[int] = []
        while len(found) < count:
            slot = int(self._head[0]["next"])
            if slot >= int(self._head[0]["size"]) and not self._grow():
                break
            self._head["next"] = slot + 1
            found.append(slot)
        return found

    def _longest_unused(self, count: int, in_use: set[int]) -> list[int]:
        """Slots of those not asked for longest, those in use last; where there are too few some are given twice, and
        `still` says so."""
        if count == 0:
            return []
        order = np.argsort(self._index["used"][: int(self._head[0]["size"])], kind="stable").tolist()
        return list(islice(cycle(sorted(order, key=in_use.__contains__)), count))

    def _stamp(self, slot: int, key: str) -> None:
        stamp = int(self._head[0]["stamp"]) + 1
        self._index["key"][slot], self._index["stamp"][slot] = key.encode(), stamp
        self._head["stamp"] = stamp

    def publish(self, keys: Sequence[str]) -> None:
        """Let families be found that were written into the slots taken for them."""
        with self._alone():
            for key in keys:
                self._stamp(self._taken.pop(key), key)
            self._look()

    def drop(self, keys: Sequence[str]) -> None:
        """Let slots go that were taken and not written: they stand empty until their turn comes again."""
        with self._guard:
            for key in keys:
                self._taken.pop(key, None)

    def still(self, slots: Mapping[str, int]) -> bool:
        """Whether every family stands where it stood; another worker may have needed the room."""
        with self._guard:
            self._look()
            return all(self._slots.get(key) == slot for key, slot in slots.items())
