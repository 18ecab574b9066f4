"""Families that are asked for, and the block of memory in which they lie."""

from __future__ import annotations

import hashlib
from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from oblatus.core import ENGINE_VERSION
from oblatus.core.clubs import Head
from oblatus.core.strike import _lanes

Rows = NDArray[np.float32]

SHAPE = (_lanes.ROWS, _lanes.LANES, _lanes.COLUMNS)
CAPACITY = 24_000
TRIES = 4


class Block(Protocol):
    """A block of slots for families: of one process, or mapped by several.

    `rows` (capacity, *SHAPE) is given to the kernels as it is. A slot that is taken is one's own until it is published;
    in a block that several share, one that stands there may be taken over by another at any time.
    """

    capacity: int
    rows: Rows

    def find(self, keys: Sequence[str]) -> dict[str, int]:
        """Slots of those of the families that stand in the block."""
        ...

    def take(self, keys: Sequence[str], beside: Sequence[str]) -> dict[str, int]:
        """Slots for new families, none of them a slot of those `beside`, which are being used."""
        ...

    def publish(self, keys: Sequence[str]) -> None:
        """Let families be found that were written into the slots taken for them."""
        ...

    def drop(self, keys: Sequence[str]) -> None:
        """Give slots back that were taken and not written."""
        ...

    def still(self, slots: Mapping[str, int]) -> bool:
        """Whether every family stands where it stood."""
        ...


class OwnBlock:
    """A block of this process alone, which grows; the least recently used make room."""

    def __init__(self, capacity: int) -> None:
        self.capacity = capacity
        self.rows: Rows = np.empty((min(256, capacity), *SHAPE), dtype=np.float32)
        self._slots: OrderedDict[str, int] = OrderedDict()
        self._taken: dict[str, int] = {}
        self._free: list[int] = []

    def find(self, keys: Sequence[str]) -> dict[str, int]:
        found = {key: self._slots[key] for key in keys if key in self._slots}
        for key in found:
            self._slots.move_to_end(key)
        return found

    def take(self, keys: Sequence[str], beside: Sequence[str]) -> dict[str, int]:
        self.find(beside)  # those in use are the last to make room
        for key in keys:
            self._taken[key] = self._slot()
        return {key: self._taken[key] for key in keys}

    def publish(self, keys: Sequence[str]) -> None:
        for key in keys:
            self._slots[key] = self._taken.pop(key)

    def drop(self, keys: Sequence[str]) -> None:
        self._free += [self._taken.pop(key) for key in keys if key in self._taken]

    def still(self, slots: Mapping[str, int]) -> bool:
        return all(self._slots.get(key) == slot for key, slot in slots.items())

    def _slot(self) -> int:
        if self._free:
            return self._free.pop()
        used = len(self._slots) + len(self._taken)
        if used >= self.capacity:
            return self._slots.popitem(last=False)[1]
        if used >= len(self.rows):
            grown = np.empty((min(max(2 * len(self.rows), used + 1), self.capacity), *SHAPE), dtype=np.float32)
            grown[: len(self.rows)] = self.rows
            self.rows = grown
        return used


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
