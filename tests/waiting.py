"""Wait for something that another thread does."""

from __future__ import annotations

import time
from collections.abc import Callable


def until(holds: Callable[[], bool], seconds: float = 120.0) -> None:
    """Until `holds()`, or fail."""
    deadline = time.monotonic() + seconds
    while not holds():
        assert time.monotonic() < deadline, "waited too long"
        time.sleep(0.02)
