"""What a log may say of an error: its kind and place. Its words may hold names, and stay out of it."""

from __future__ import annotations

import logging
import threading
import traceback

LOG = logging.getLogger(__name__)


def where(error: BaseException) -> str:
    """Kind and place of an error and of its causes."""
    lines: list[str] = []
    found: BaseException | None = error
    while found is not None:
        lines.append(f"{type(found).__name__} at")
        lines += [f"  {f.filename}:{f.lineno} {f.name}" for f in traceback.extract_tb(found.__traceback__)]
        found = found.__cause__ or found.__context__
    return "\n".join(lines)


def quiet_threads() -> None:
    """Let a thread that ends by an error say where, and nothing else."""

    def tell(args: threading.ExceptHookArgs) -> None:
        if args.exc_value is not None:
            LOG.error("a thread ended: %s\n%s", args.thread.name if args.thread else "", where(args.exc_value))

    threading.excepthook = tell
