"""Whether an answer is still wanted: long work looks between its parts, and ends when what was asked has changed."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

_WANTED: ContextVar[Callable[[], bool] | None] = ContextVar("_WANTED", default=None)


class NoLongerWanted(Exception):
    """The question changed while it was worked on."""


@contextmanager
def wanted_while(test: Callable[[], bool]) -> Iterator[None]:
    """Let work in this block end with `NoLongerWanted` once `test` says so."""
    before = _WANTED.set(test)
    try:
        yield
    finally:
        _WANTED.reset(before)


def check_wanted() -> None:
    """Raise `NoLongerWanted` if the answer is wanted no longer."""
    test = _WANTED.get()
    if test is not None and not test():
        raise NoLongerWanted
