"""Helper threads for compiled work: kernels release the interpreter's lock. Patient work lets all other go first."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import Future, ThreadPoolExecutor, wait
from contextlib import contextmanager
from contextvars import copy_context
from functools import partial
from typing import TypeVar

from oblatus.errors import LaterError

THREADS = 2
PATIENT = 8
LONGEST_PAUSE = 1.0
LOOK = 0.1

Item = TypeVar("Item")
Found = TypeVar("Found")

_here = threading.local()
_changed = threading.Condition()
_hands: dict[int, float] = {}
"""Threads with a question for which somebody's hand waits, and how many seconds patient work still pauses for each."""
_pausing = 0


def nothing() -> None:
    """A thread that cannot give way."""


_give_way = nothing


def give_way_by(act: Callable[[], None]) -> None:
    """How a thread gives way to every other that wants the machine: the operating system's business."""
    global _give_way  # noqa: PLW0603 (one machine a process)
    _give_way = act


def stand_back() -> None:
    """Have this thread give way, from now on."""
    _give_way()
    _here.patient = True


class _Pools:
    """The threads of this process."""

    def __init__(self) -> None:
        # those that help only reckon and wait for nobody: whoever holds a lock may wait for them
        self.helpers = ThreadPoolExecutor(THREADS, "oblatus-engine")
        self.patient = ThreadPoolExecutor(PATIENT, "oblatus-patient", stand_back)
        self.patient_helpers = ThreadPoolExecutor(THREADS, "oblatus-patient-engine", stand_back)
        # those that answer whole questions side by side wait for locks and for helpers, and nobody who holds one waits
        # for them
        self.beside = ThreadPoolExecutor(THREADS, "oblatus-beside")
        self.patient_beside = ThreadPoolExecutor(THREADS, "oblatus-patient-beside", stand_back)
        # those that do another part of a question meanwhile wait for the families' turn and for helpers, and for no
        # other of them
        self.meanwhile = ThreadPoolExecutor(2 * THREADS, "oblatus-meanwhile")


_pools = _Pools()


def begin_anew() -> None:
    """Have threads of one's own in a process that was forked: it has none of those that its pools believe in."""
    global _pools  # noqa: PLW0603 (one set of threads a process)
    _pools = _Pools()


def patiently(work: Callable[[], Found]) -> Found:
    """The result of work for which nobody's hand waits: it and its helpers give way to all other work.

    Within a question that is asked at once it is part of that.
    """
    if is_patient() or _urgent_here():
        return work()
    return _submitted(_pools.patient, work).result()


def is_patient() -> bool:
    """Whether this thread gives way to all that are not patient."""
    return getattr(_here, "patient", False)


def _urgent_here() -> bool:
    return getattr(_here, "urgent", False)


def begin_at_once() -> None:
    """This thread has a question for which somebody's hand waits: patient work pauses at its next part."""
    if not _urgent_here() and not is_patient():
        _here.urgent = True
        with _changed:
            _hands[threading.get_ident()] = LONGEST_PAUSE


def end_at_once() -> None:
    """It is answered, or can wait."""
    if _urgent_here():
        _here.urgent = False
        with _changed:
            del _hands[threading.get_ident()]
            _changed.notify_all()


@contextmanager
def at_leisure() -> Iterator[None]:
    """What is asked in this block can wait, whatever it is asked within."""
    before = _urgent_here()
    end_at_once()
    try:
        yield
    finally:
        if before:
            begin_at_once()


def let_pass() -> None:
    """Between two parts of patient work: wait while a hand waits, but for none longer than `LONGEST_PAUSE` in all.

    Whoever waits longer may be waiting for this very work. For the same reason never within a part.
    """
    global _pausing  # noqa: PLW0603 (one machine a process)
    if not is_patient() or not _hands:
        return
    with _changed:
        _pausing += 1
        while any(left > 0.0 for left in _hands.values()):
            if not _changed.wait(LOOK):
                for hand in _hands:
                    _hands[hand] -= LOOK / _pausing  # all that pause count the same seconds
        _pausing -= 1


def in_threads(work: Callable[[Item], Found], items: Sequence[Item], threads: int = THREADS) -> Iterator[Found]:
    """Results of the work on every item, in order: work that reckons, and waits for no lock and no other thread.

    Whatever goes wrong, nothing is still running when it comes out.
    """
    if len(items) < 2 or threads < 2:
        yield from (work(item) for item in items)
        return
    yield from _each(_pools.patient_helpers if is_patient() else _pools.helpers, work, items)


def side_by_side(work: Callable[[Item], Found], items: Sequence[Item]) -> Iterator[Found]:
    """Results of questions of one kind, in order, two at a time: one is prepared beside what the other reckons.

    Whatever goes wrong, nothing is still running when it comes out. Such a question asks for no others side by side.
    """
    yield from _each(_pools.patient_beside if is_patient() else _pools.beside, work, items)


@contextmanager
def meanwhile(work: Callable[[], Found]) -> Iterator[Callable[[], Found]]:
    """Have another part of a question done during this block: gives what waits for its result.

    While one part's kernels run, the other is prepared. Such a part has none done meanwhile itself. Whatever goes wrong,
    nothing is still running when it comes out. Patient work does it when it is asked for: every thread of it more would
    hold the interpreter's lock against a hand.
    """
    if is_patient():
        yield work
        return
    future = _submitted(_pools.meanwhile, work)
    try:
        yield future.result
    finally:
        future.cancel()
        wait([future])


def _each(pool: ThreadPoolExecutor, work: Callable[[Item], Found], items: Sequence[Item]) -> Iterator[Found]:
    futures = [_submitted(pool, partial(work, item)) for item in items]
    try:
        for future in futures:
            yield future.result()
    finally:
        for future in futures:
            future.cancel()
        wait(futures)


def _submitted(pool: ThreadPoolExecutor, work: Callable[[], Found]) -> Future[Found]:
    """The work handed to a pool with the context of whoever asks."""
    try:
        return pool.submit(copy_context().run, work)
    except RuntimeError as error:
        if "shutdown" not in str(error):
            raise
        raise LaterError("The program is ending: this is worked out once it runs again.") from error


def parts(count: int, pieces: int) -> list[slice]:
    """Slices that cover `count` rows in about that many pieces."""
    step = max(-(-count // pieces), 1)
    return [slice(i, min(i + step, count)) for i in range(0, count, step)]


def share_out(work: Callable[[slice], object], count: int, least: int = 1) -> None:
    """Do the work on every slice of `count` rows. Fewer rows than `least` are done before they are handed to a thread."""
    pieces = max(min(4 * THREADS, count // least), 1)
    for _ in in_threads(work, parts(count, pieces)):
        pass
