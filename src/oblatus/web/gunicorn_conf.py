"""Workers: threads that share one process, kernels warmed after the fork."""

from __future__ import annotations

import gc
from typing import Any

worker_class = "gthread"
accesslog = None
graceful_timeout = 2  # screens that wait for word of strikes never end by themselves
loglevel = "warning"
control_socket_disable = True


def on_starting(server: Any) -> None:
    """Read the program once, before the workers are forked: what they only read of it they share."""
    import oblatus.web.app
    from oblatus.formats.print import pages
    from oblatus.usecases.warm_up import warm_up

    del server, oblatus, pages, warm_up
    gc.collect()
    gc.freeze()


def post_worker_init(worker: Any) -> None:
    """Compile or load the kernels before the first request asks for them."""
    from oblatus.formats.print import pages
    from oblatus.logs import quiet_threads
    from oblatus.usecases.engine import engine
    from oblatus.usecases.warm_up import warm_up

    quiet_threads()
    warm_up()
    pages.warm_up()
    engine().works_ahead = True
    gc.collect()
    gc.freeze()  # what the warm-up made stays: collections during requests need not look at it
    worker.log.info("kernels are warm")
