"""Families of passes on disk: shelves of many, written whole under a new name, checked before they are read."""

from __future__ import annotations

import hashlib
import json
import logging
import os
import threading
from collections.abc import Mapping, Sequence
from pathlib import Path
from uuid import uuid4

import numpy as np
from numpy.typing import NDArray

from oblatus.store.disk import room

LOG = logging.getLogger(__name__)

Rows = NDArray[np.float32]

MAGIC = b"oblatus families 1\n"
LARGEST_BYTES = 1_500_000_000


class FamilyShelves:
    """A folder of shelves, shared by every worker.

    A key names geometry, ground, swing, grid and engine, so what stands there never goes stale.
    """

    def __init__(self, folder: Path, shape: tuple[int, ...]) -> None:
        self.folder = folder
        self.shape = shape
        self._where: dict[str, tuple[Path, int]] = {}
        self._read: set[str] = set()
        self._lock = threading.Lock()
        folder.mkdir(parents=True, exist_ok=True)

    def find(self, keys: Sequence[str]) -> Mapping[str, Rows]:
        """Those of the families that stand on a shelf."""
        with self._lock:
            self._look()
            wanted = [(key, *self._where[key]) for key in keys if key in self._where]
        found: dict[str, Rows] = {}
        size = int(np.prod(self.shape)) * 4
        for key, path, offset in wanted:
            try:
                with path.open("rb") as shelf:
                    shelf.seek(offset)
                    data = shelf.read(size)
            except OSError:
                continue  # cleared away by another worker: it is computed again
            if len(data) == size:
                found[key] = np.frombuffer(data, dtype=np.float32).reshape(self.shape)
        return found

    def put(self, families: Mapping[str, Rows]) -> None:
        """Write a shelf and move it into place; a disk that is full costs the saving, not the answer."""
        if room(self.folder) != "ok":
            return  # what can be computed again is not what the last of the disk is for
        keys = list(families)
        body = b"".join(np.ascontiguousarray(families[key]).tobytes() for key in keys)
        head = {"keys": keys, "shape": self.shape, "sha256": hashlib.sha256(body).hexdigest()}
        new = self.folder / f"{uuid4().hex}.new"
        try:
            with new.open("wb") as shelf:
                shelf.write(MAGIC + json.dumps(head).encode() + b"\n" + body)
                shelf.flush()
                os.fsync(shelf.fileno())
            new.rename(new.with_suffix(".shelf"))
            self._clear_away()
        except OSError as error:
            LOG.warning("families not kept: %s", error)
            new.unlink(missing_ok=True)

    def _look(self) -> None:
        """Learn the keys of shelves that came since; a shelf that is broken is left alone and never read."""
        for path in sorted(self.folder.glob("*.shelf")):
            if path.name not in self._read:
                self._read.add(path.name)
                self._learn(path)

    def _learn(self, path: Path) -> None:
        try:
            with path.open("rb") as shelf:
                if shelf.readline() != MAGIC:
                    return
                head = json.loads(shelf.readline())
                start = shelf.tell()
                whole = hashlib.sha256(shelf.read()).hexdigest() == head["sha256"]
        except (OSError, ValueError, KeyError, TypeError):
            return
        if not whole or tuple(head["shape"]) != tuple(self.shape):
            return
        size = int(np.prod(self.shape)) * 4
        for index, key in enumerate(head["keys"]):
            self._where[key] = (path, start + index * size)

    def _clear_away(self) -> None:
        """Keep the folder under its limit: the oldest shelves go."""
        shelves = sorted(((p.stat().st_mtime, p.stat().st_size, p) for p in self.folder.glob("*.shelf")), reverse=True)
        total = 0
        for _, size, path in shelves:
            total += size
            if total > LARGEST_BYTES:
                path.unlink(missing_ok=True)
