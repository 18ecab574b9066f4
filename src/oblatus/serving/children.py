"""Processes of ours: started so that they end with the supervisor, started again when they end by themselves."""

from __future__ import annotations

import contextlib
import ctypes
import os
import signal
import subprocess
import time
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import IO

from oblatus.serving.logs import reserve

PR_SET_PDEATHSIG = 1
LONG_ENOUGH_SECONDS = 20.0
FIRST_PAUSE, LONGEST_PAUSE = 0.2, 10.0


@dataclass(slots=True)
class Child:
    """A command that is to run for as long as the supervisor does."""

    name: str
    command: Sequence[str]
    environment: Mapping[str, str]
    log: Path
    process: subprocess.Popen[bytes] | None = None
    _started: float = 0.0
    _pause: float = FIRST_PAUSE
    _again_at: float = field(default=0.0)

    def start(self) -> None:
        """Start it."""
        self.log.parent.mkdir(exist_ok=True, mode=0o700)
        log: IO[bytes] = self.log.open("ab")
        with log:
            self.log.chmod(0o600)
            reserve(log.fileno())
            self.process = subprocess.Popen(
                self.command, env=dict(self.environment), stdin=subprocess.DEVNULL, stdout=log, stderr=log,
                start_new_session=True, preexec_fn=_die_with_parent,  # noqa: PLW1509 (this process has no threads)
            )  # fmt: skip
        self._started = time.monotonic()

    def running(self) -> bool:
        """Whether it runs."""
        return self.process is not None and self.process.poll() is None

    def keep_up(self) -> bool:
        """Start it again if it ended by itself, with longer pauses if that goes on. Returns whether it was started."""
        if self.running():
            return False
        now = time.monotonic()
        if self._again_at == 0.0:
            lasted = now - self._started
            self._pause = FIRST_PAUSE if lasted > LONG_ENOUGH_SECONDS else min(2.0 * self._pause, LONGEST_PAUSE)
            self._again_at = now + self._pause
        if now < self._again_at:
            return False
        self._again_at = 0.0
        self._end_offspring()
        with contextlib.suppress(OSError):  # a machine that is out of something: the next look tries again
            self.start()
            return True
        return False

    def end(self) -> None:
        """Ask it to end, and end it if it does not."""
        process = self.process
        if process is None:
            return
        if process.poll() is None:
            process.terminate()
            try:
                process.wait(timeout=15.0)
            except subprocess.TimeoutExpired:
                process.kill()
                process.wait()
        self._end_offspring()

    def _end_offspring(self) -> None:
        """End what a process that was killed outright left behind: it would hold the port and outlive us."""
        if self.process is not None:
            with contextlib.suppress(ProcessLookupError, PermissionError):
                os.killpg(self.process.pid, signal.SIGKILL)


def _die_with_parent() -> None:
    """Even a supervisor that is killed outright takes its children along (Linux)."""
    ctypes.CDLL(None).prctl(PR_SET_PDEATHSIG, signal.SIGTERM)


def end_orphan(pid_file: Path) -> bool:
    """End a server that a killed supervisor left behind; a number taken over by another program is left alone.

    Returns whether there was one.
    """
    try:
        pid = int(pid_file.read_text())
        command = Path(f"/proc/{pid}/cmdline").read_bytes()
    except (OSError, ValueError):
        return False
    if str(pid_file.parent).encode() not in command:
        return False
    with contextlib.suppress(ProcessLookupError):
        os.kill(pid, signal.SIGTERM)
    deadline = time.monotonic() + 15.0
    while Path(f"/proc/{pid}").exists() and time.monotonic() < deadline:
        time.sleep(0.1)
    return True
