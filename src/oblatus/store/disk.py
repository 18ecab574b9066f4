"""Room on the disk. Writing stops before nothing is left, so that PostgreSQL keeps its feet and reading goes on."""

from __future__ import annotations

import shutil
from pathlib import Path
from typing import Literal

from oblatus.errors import DiskFullError

FLOOR_BYTES = 40_000_000
LOW_BYTES = 400_000_000


def room(folder: Path | None) -> Literal["ok", "low", "full"]:
    """How much room the disk of the data folder has; "ok" without a folder."""
    if folder is None:
        return "ok"
    free = shutil.disk_usage(folder).free
    return "full" if free < FLOOR_BYTES else "low" if free < LOW_BYTES else "ok"


def refuse_when_full(folder: Path | None) -> None:
    """Refuse to write when there is no room.

    Raises
    ------
    DiskFullError
        If there is none.
    """
    if room(folder) == "full":
        raise DiskFullError
