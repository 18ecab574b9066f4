"""Logs: readable by their owner only, kept short, with room set by for the lines that matter when the disk is full."""

from __future__ import annotations

import contextlib
import ctypes
import os
import shutil
from collections.abc import Iterable
from pathlib import Path

LARGEST_BYTES = 5_000_000
OLDER_KEPT = 3
RESERVE_BYTES = 262_144
FALLOC_FL_KEEP_SIZE = 1


def reserve(descriptor: int) -> None:
    """Set disk blocks by behind the end of an open file: lines can be written there when nothing else can be."""
    end = os.fstat(descriptor).st_size
    libc = ctypes.CDLL(None, use_errno=True)
    libc.fallocate(descriptor, FALLOC_FL_KEEP_SIZE, ctypes.c_long(end), ctypes.c_long(RESERVE_BYTES))
    # a file system that cannot do this writes its log as before


def rotate(logs: Iterable[Path]) -> None:
    """Move what is in a log that grew too long aside and go on in the same file, which its writers hold open."""
    for log in logs:
        try:
            if log.stat().st_size < LARGEST_BYTES:
                continue
        except FileNotFoundError:
            continue
        for number in range(OLDER_KEPT, 1, -1):
            with contextlib.suppress(FileNotFoundError):
                Path(f"{log}.{number - 1}").replace(f"{log}.{number}")
        with contextlib.suppress(OSError):  # no room for the old lines: they make way for the new ones
            shutil.copyfile(log, f"{log}.1")
            Path(f"{log}.1").chmod(0o600)
        with log.open("r+b") as emptied:
            emptied.truncate(0)
            reserve(emptied.fileno())
