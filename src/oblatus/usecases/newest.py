"""Long questions about a fitting: asked of its newest state, and begun anew when it is edited meanwhile."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import TypeVar
from uuid import UUID

from oblatus.core.threads import at_leisure, patiently
from oblatus.core.wanted import NoLongerWanted, wanted_while
from oblatus.usecases.asker import ASKER_WAITS, gone
from oblatus.usecases.engine import LAWS, engine, question

MOST_RESTARTS = 8

Answer = TypeVar("Answer")


def of_the_newest(fitting_id: UUID, ask: Callable[[], Answer], *, for_later: str = "") -> Answer:
    """What `ask` gives, which reads the fitting itself; it lets edits go first.

    An edit that changes the proposal ends it, and it is asked again: nobody wants an answer that is old when it comes.
    After some restarts in a row it is carried through. A screen asks anew by itself of what changed: nothing goes on for
    an asker who has gone. With `for_later`, the kind of the question, it does until an edit or a stop: for whoever comes
    back to the step that shows it.

    Raises
    ------
    LaterError
        If nobody waits for the answer any more.
    """
    with at_leisure():
        for turn in range(MOST_RESTARTS + 1):
            try:
                with wanted_while(_wanted(fitting_id, turn, for_later)):
                    return patiently(ask)
            except NoLongerWanted:
                engine().work.ended(for_later or LAWS)
                if not ASKER_WAITS.get()():
                    break
    raise gone()


def _wanted(fitting_id: UUID, turn: int, for_later: str) -> Callable[[], bool]:
    began, asker_waits = time.time(), ASKER_WAITS.get()

    def test() -> bool:
        if not (for_later and turn == 0) and not asker_waits():
            return False
        if turn == MOST_RESTARTS:
            return True
        work = engine().work
        stopped = bool(for_later) and work.stopped_since(question(fitting_id, for_later), began)
        return not stopped and not work.edited_since(fitting_id, began)

    return test
