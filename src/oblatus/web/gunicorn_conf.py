"""Workers: threads that share one process, kernels warmed once before the fork."""

from __future__ import annotations

import gc
import os
from typing import Any

worker_class = "gthread"
accesslog = None
graceful_timeout = 2  # screens that wait for word of strikes never end by themselves
loglevel = "warning"
control_socket_disable = True

NEW_THINGS = 50_000


def on_starting(server: Any) -> None:
    """Read the program once, before the workers are forked: what they only read of it they share."""
    import oblatus.web.app
    from oblatus.formats.print import pages
    from oblatus.usecases.warm_up import warm_up

    del server, oblatus, pages, warm_up


def when_ready(server: Any) -> None:
    """Compile or load the kernels before the workers are forked, which share them; who asks meanwhile waits."""
    from oblatus.formats.print import pages
    from oblatus.settings import settings_from
    from oblatus.usecases.engine import keep_families_in
    from oblatus.usecases.warm_up import warm_up

    keep_families_in(settings_from(os.environ).families_dir)
    warm_up()
    pages.warm_up()
    gc.collect()
    gc.freeze()  # what the warm-up made stays: collections during requests need not look at it
    server.log.info("kernels are warm")


def post_worker_init(worker: Any) -> None:
    """Have a worker make families ahead of the next question, and say in its log where a thread ended."""
    from oblatus.logs import quiet_threads
    from oblatus.usecases.engine import engine

    del worker
    quiet_threads()
    # an answer is made of fifty thousand small things that are kept: the collector would look at them seventy times
    gc.set_threshold(NEW_THINGS, *gc.get_threshold()[1:])
    engine().works_ahead = True
