"""Room set by on the data folder's disk, given up when the disk is full so that PostgreSQL goes on."""

from __future__ import annotations

import os
import shutil
from pathlib import Path

from oblatus.store.disk import BALLAST, BALLAST_BYTES

GIVEN_UP_BELOW = 12_000_000
TAKEN_BACK_ABOVE = 600_000_000


def trim(folder: Path) -> None:
    """Give the ballast up on a full disk, and take it on again when there is room."""
    ballast = folder / BALLAST
    free = shutil.disk_usage(folder).free
    if free < GIVEN_UP_BELOW:
        ballast.unlink(missing_ok=True)
    elif free > TAKEN_BACK_ABOVE and not ballast.exists():
        with ballast.open("wb") as taken:
            os.posix_fallocate(taken.fileno(), 0, BALLAST_BYTES)
