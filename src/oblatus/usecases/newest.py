"""Long questions about a fitting: asked of its newest state, and begun anew when it is edited meanwhile."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import TypeVar
from uuid import UUID

from oblatus.core.threads import at_leisure, patiently
from oblatus.core.wanted import NoLongerWanted, wanted_while
from oblatus.usecases.engine import engine

MOST_RESTARTS = 8

Answer = TypeVar("Answer")


def of_the_newest(fitting_id: UUID, ask: Callable[[], Answer]) -> Answer:
    """What `ask` gives, which reads the fitting itself; it lets edits go first.

    An edit that changes the proposal ends it, and it is asked again: nobody wants an answer that is old when it comes.
    After some restarts in a row it is carried through.
    """
    with at_leisure():
        for _ in range(MOST_RESTARTS):
            began = time.time()
            try:
                with wanted_while(lambda: not engine().work.edited_since(fitting_id, began)):  # noqa: B023 (now)
                    return patiently(ask)
            except NoLongerWanted:
                continue
        return patiently(ask)
