"""The clubs near a fitting's last choice, among which its next edit is answered; every worker's, in a file a fitting."""

from __future__ import annotations

import contextlib
import json
import threading
from collections.abc import Iterable
from pathlib import Path
from uuid import UUID

from cachetools import LRUCache

from oblatus.core.fitting.recommendation import Built

NEAR = "near"
_MINE: LRUCache[UUID, frozenset[Built]] = LRUCache(64)
"""Those of this process, where no folder is shared."""
_GUARD = threading.Lock()


def clubs_near(folder: Path | None, fitting: UUID) -> frozenset[Built] | None:
    """Clubs by code and loft [degrees]; None for a fitting that no worker has proposed a set for."""
    if folder is None:
        with _GUARD:  # looking one up moves it
            return _MINE.get(fitting)
    try:
        return frozenset((str(code), float(loft)) for code, loft in json.loads(_file(folder, fitting).read_text()))
    except (OSError, ValueError):
        return None  # none yet


def keep_near(folder: Path | None, fitting: UUID, clubs: Iterable[Built]) -> None:
    """Keep the clubs near a choice, for every worker that shares the folder."""
    if folder is None:
        with _GUARD:
            _MINE[fitting] = frozenset(clubs)
        return
    file = _file(folder, fitting)
    new = file.with_suffix(f".{threading.get_native_id()}")
    with contextlib.suppress(OSError):  # a disk that is full: the next edit waits for the whole rack
        new.write_text(json.dumps(sorted(clubs)))
        new.rename(file)


def _file(folder: Path, fitting: UUID) -> Path:
    return folder / f"{NEAR}-{fitting}"
