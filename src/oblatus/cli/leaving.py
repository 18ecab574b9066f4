"""Processes that work until they are told to stop."""

from __future__ import annotations

import signal
import sys
from types import FrameType


def leave_politely() -> None:
    """End with code 0 on the signals that stop a process."""

    def leave(_number: int, _frame: FrameType | None) -> None:
        sys.exit(0)

    signal.signal(signal.SIGTERM, leave)
    signal.signal(signal.SIGINT, leave)
