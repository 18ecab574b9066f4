"""The shelf on which workers lay what they reckoned, for one another: a file for a part.

A file comes under its name only when it is whole. Those that were laid longest ago make room, and so do those of other
programs, which may reckon otherwise.
"""

from __future__ import annotations

import contextlib
import os
import shutil
from collections.abc import Collection
from pathlib import Path
from uuid import uuid4

import numpy as np

from oblatus.core.fitting.reckoned import NAME_BYTES, Part
from oblatus.store.disk import room

KEPT = 400
LAID_BETWEEN = 32
"""Parts that one worker lays before it looks for old ones."""
WHOLE = ".npy"


class RowShelf:
    """A shelf in a folder, for the workers of one program."""

    def __init__(self, folder: Path, program: str) -> None:
        self._folder, self._count = folder / program, 0
        with contextlib.suppress(OSError):  # without a folder nothing is laid, and nothing found
            self._folder.mkdir(parents=True, exist_ok=True)
            for old in folder.iterdir():
                if old != self._folder:
                    shutil.rmtree(old, ignore_errors=True)

    def lay(self, about: bytes, part: Part) -> str:
        """Let the others find a part; returns its title. On a disk that is nearly full they reckon it themselves."""
        title = f"{about.hex()}-{uuid4().hex}{WHOLE}"
        with contextlib.suppress(OSError):
            if room(self._folder) != "ok":
                return title
            new = self._folder / f"{title}.new"
            with new.open("wb") as file:
                for names in (part.heads, part.questions):
                    np.save(file, np.frombuffer(b"".join(names), dtype=np.uint8).reshape(-1, NAME_BYTES))
                np.save(file, part.figures)
            new.rename(self._folder / title)
            self._count += 1
            if self._count % LAID_BETWEEN == 0:
                self._make_room()
        return title

    def laid(self, about: bytes, known: Collection[str]) -> list[tuple[str, Part]]:
        """The parts that are there with their titles, but for those that are known."""
        mine = about.hex()
        try:
            there = [name for name in os.listdir(self._folder) if name.startswith(mine) and name.endswith(WHOLE)]
        except OSError:
            return []  # there is no folder
        new = [name for name in there if name not in known]
        return [(title, part) for title in new if (part := _read(self._folder / title)) is not None]

    def _make_room(self) -> None:
        for old in sorted(self._folder.iterdir(), key=_written)[:-KEPT]:
            old.unlink(missing_ok=True)


def _read(file: Path) -> Part | None:
    try:
        with file.open("rb") as opened:
            heads, questions, figures = (np.load(opened, allow_pickle=False) for _ in range(3))
    except (OSError, ValueError, EOFError):
        return None  # made room meanwhile, or broken off by a machine that went down
    return Part([row.tobytes() for row in heads], [row.tobytes() for row in questions], figures)


def _written(file: Path) -> float:
    try:
        return file.stat().st_mtime
    except FileNotFoundError:
        return 0.0  # another worker was quicker
