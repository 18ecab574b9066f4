"""Whether whoever asked still waits: a screen that goes on hangs up, and work for nobody keeps others waiting."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from oblatus.core.wanted import NoLongerWanted, wanted_while
from oblatus.errors import LaterError
from oblatus.usecases.engine import ASKED, engine

ASKER_WAITS: ContextVar[Callable[[], bool]] = ContextVar("ASKER_WAITS", default=lambda: True)
"""Set for every request."""


def gone() -> LaterError:
    """What is told to a line at whose end nobody listens."""
    return LaterError("Nobody waits for this answer any more.")


@contextmanager
def while_asker_waits() -> Iterator[None]:
    """Let work in this block end between two of its parts once nobody waits for it: `LaterError`."""
    try:
        with wanted_while(ASKER_WAITS.get()):
            yield
    except NoLongerWanted:
        engine().work.ended(ASKED)
        raise gone() from None
