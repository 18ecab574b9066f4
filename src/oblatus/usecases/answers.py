"""Answers that one worker has worked out, for the others: each would take seconds of two cores to find the same.

They stand in files beside the families, under all that they rest on; those not written lately make room.
"""

from __future__ import annotations

import contextlib
import hashlib
import threading
from functools import lru_cache
from pathlib import Path
from typing import TypeVar

from pydantic import BaseModel, ValidationError

from oblatus.formats.sections.bag import RackHeadDocument
from oblatus.usecases.engine import PROGRAM
from oblatus.usecases.question import Question

KEPT = 64
MOST_STRIKES = 2000
"""With more of them a question's name takes longer to reckon than it spares."""

Answer = TypeVar("Answer", bound=BaseModel)


def kept_answer(folder: Path | None, kind: str, answer: type[Answer], asked: Question) -> Answer | None:
    """What another worker has found for an equal question of that kind; None if none has, or its file is gone."""
    file = _file(folder, kind, asked)
    if file is None:
        return None
    try:
        return answer.model_validate_json(file.read_bytes())
    except (OSError, ValidationError):
        return None  # none yet, or broken off by a machine that went down


def keep_answer(folder: Path | None, kind: str, asked: Question, answer: BaseModel) -> None:
    """Let the other workers find an answer."""
    file = _file(folder, kind, asked)
    if file is None:
        return
    new = file.with_suffix(f".{threading.get_native_id()}")
    with contextlib.suppress(OSError):  # a disk that is full: the others work it out themselves
        new.write_text(answer.model_dump_json())
        new.rename(file)
        for old in sorted(file.parent.glob("answer-*"), key=_written)[:-KEPT]:
            old.unlink(missing_ok=True)


def _file(folder: Path | None, kind: str, asked: Question) -> Path | None:
    if folder is None or len(asked.strikes) > MOST_STRIKES:
        return None
    name = hashlib.blake2b(PROGRAM.encode(), digest_size=16)
    for part in (asked.document.model_dump_json(), _told(asked.heads), repr(asked.strikes)):
        name.update(hashlib.blake2b(part.encode()).digest())
    return folder / f"answer-{kind}-{name.hexdigest()}.json"


@lru_cache(maxsize=4)
def _told(heads: tuple[RackHeadDocument, ...]) -> str:
    return "\n".join(head.model_dump_json() for head in heads)


def _written(file: Path) -> float:
    try:
        return file.stat().st_mtime
    except FileNotFoundError:
        return 0.0  # another worker was quicker
