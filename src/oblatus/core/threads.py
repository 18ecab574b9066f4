"""Two helper threads for compiled work: kernels release the interpreter's lock."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor, wait
from typing import TypeVar

THREADS = 2

Item = TypeVar("Item")
Found = TypeVar("Found")

_helpers = ThreadPoolExecutor(THREADS, thread_name_prefix="oblatus-engine")


def in_threads(work: Callable[[Item], Found], items: Sequence[Item], threads: int = THREADS) -> Iterator[Found]:
    """Results of the work on every item, in order. Whatever goes wrong, nothing is still running when it comes out."""
    if len(items) < 2 or threads < 2:
        yield from (work(item) for item in items)
        return
    futures = [_helpers.submit(work, item) for item in items]
    try:
        for future in futures:
            yield future.result()
    finally:
        for future in futures:
            future.cancel()
        wait(futures)


def parts(count: int, pieces: int) -> list[slice]:
    """Slices that cover `count` rows in about that many pieces."""
    step = max(-(-count // pieces), 1)
    return [slice(i, min(i + step, count)) for i in range(0, count, step)]


def share_out(work: Callable[[slice], object], count: int, pieces: int = 4 * THREADS) -> None:
    """Do the work on every slice of `count` rows."""
    for _ in in_threads(work, parts(count, pieces)):
        pass
