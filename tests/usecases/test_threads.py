"""Helper threads of a process and of those that are forked from it."""

import subprocess
import sys

import pytest

from oblatus.core import threads
from oblatus.errors import LaterError

FORKS = """
import os, signal
import oblatus.usecases.engine  # which knows what to do in a forked process
from oblatus.core.threads import in_threads, meanwhile, patiently, side_by_side

def all_kinds():
    with meanwhile(lambda: 4) as part:
        return [*in_threads(abs, [-1, -2]), *side_by_side(abs, [-3]), part(), patiently(lambda: 5)]

assert all_kinds() == [1, 2, 3, 4, 5]
child = os.fork()
if child == 0:
    signal.alarm(30)  # one that waits for ever ends all the same
    os._exit(0 if all_kinds() == [1, 2, 3, 4, 5] else 1)
assert os.waitpid(child, 0)[1] == 0
"""


def test_a_forked_process_has_threads_of_its_own():
    # in a process of its own: this one may have threads that a fork would lose
    subprocess.run([sys.executable, "-c", FORKS], check=True, timeout=60)


def test_a_question_that_comes_while_the_program_ends_is_to_be_asked_again(monkeypatch):
    ending = threads._Pools()
    for pool in (ending.helpers, ending.meanwhile, ending.patient):
        pool.shutdown()
    monkeypatch.setattr(threads, "_pools", ending)
    for ask in (lambda: [*threads.in_threads(abs, [-1, -2])], lambda: threads.patiently(lambda: 1)):
        with pytest.raises(LaterError, match="ending"):
            ask()
