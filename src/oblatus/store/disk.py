"""Room on the disk. Writing stops before nothing is left, so that PostgreSQL keeps its feet and reading goes on."""

from __future__ import annotations

import shutil
from pathlib import Path
from typing import Literal

from oblatus.errors import DiskFullError

FLOOR_BYTES = 40_000_000
LOW_BYTES = 400_000_000
Room = Literal["ok", "low", "full"]

BALLAST, BALLAST_BYTES = "ballast", 48_000_000
"""Set by on the disk, given up for PostgreSQL when nothing else is left: not for anybody else to write into."""


def room(folder: Path | None) -> Room:
    """How much room the disk of the data folder has; "ok" without a folder."""
    if folder is None:
        return "ok"
    free = shutil.disk_usage(folder).free
    floor = FLOOR_BYTES if (folder / BALLAST).exists() else FLOOR_BYTES + BALLAST_BYTES
    return "full" if free < floor else "low" if free < LOW_BYTES else "ok"


def refuse_when_full(folder: Path | None) -> None:
    """Refuse to write when there is no room.

    Raises
    ------
    DiskFullError
        If there is none.
    """
    if room(folder) == "full":
        raise DiskFullError
