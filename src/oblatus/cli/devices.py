"""`oblatus simulate monitor`: the stand-in strike monitor. `oblatus bridge`: from monitors into the database."""

from __future__ import annotations

import os
import signal
import sys
from argparse import Namespace
from types import FrameType
from typing import Any

from oblatus.cli.arguments import number
from oblatus.core.bounds import Bound
from oblatus.devices.monitor import Misbehaviour, MonitorStandIn
from oblatus.errors import SetUpError
from oblatus.settings import settings_from
from oblatus.store.database import Database
from oblatus.usecases.bridge import Bridge, connect_to

SHARE = Bound(0, 1, "")


def add_simulate(commands: Any) -> None:
    """Register `simulate`."""
    parser = commands.add_parser("simulate", help="a stand-in device that speaks the line protocol")
    kinds = parser.add_subparsers(dest="device", required=True, parser_class=type(parser))
    monitor = kinds.add_parser("monitor", help="a strike monitor that makes its strikes up")
    monitor.add_argument("--port", type=number("port", Bound(0, 65535, "")), default=0.0)
    monitor.add_argument("--seed", type=number("seed", Bound(0, 1e9, "")), default=1.0)
    monitor.add_argument("--every", type=number("every", Bound(0.005, 600, "s")), default=4.0, help="seconds a strike")
    monitor.add_argument("--most", type=number("most", Bound(1, 1e6, "strikes")))
    for name, words in (
        ("repeat", "sent twice"), ("rubbish", "preceded by rubbish"), ("shuffle", "sent late"), ("drop", "then dropped"),
    ):  # fmt: skip
        monitor.add_argument(f"--{name}", type=number(name, SHARE), default=0.0, help=f"share of strikes {words}")
    monitor.set_defaults(run=run_monitor)


def add_bridge(commands: Any) -> None:
    """Register `bridge`."""
    parser = commands.add_parser("bridge", help="take the lines of every wanted monitor into the database")
    parser.set_defaults(run=run_bridge)


def run_monitor(args: Namespace) -> int:
    """Serve strikes until told to stop."""
    wrong = Misbehaviour(args.repeat, args.rubbish, args.shuffle, args.drop)
    most = None if args.most is None else int(args.most)
    try:
        stand_in = MonitorStandIn(int(args.port), int(args.seed), args.every, most, wrong)
    except OSError as error:
        raise SetUpError(f"port {int(args.port)} cannot be used: {error.strerror}") from error
    print(f"simulated strike monitor at 127.0.0.1:{stand_in.port}", flush=True)
    _leave_politely()
    stand_in.serve()
    return 0


def run_bridge(_: Namespace) -> int:
    """Serve every wanted monitor until told to stop; settings come from the environment, as the web server's."""
    settings = settings_from(os.environ)
    if settings.monitor is None:
        raise SetUpError("OBLATUS_MONITOR must be set to the monitor's host:port; ./start does that")
    _leave_politely()
    Bridge(Database(settings.database_url), connect_to(settings.monitor)).run()
    return 0


def _leave_politely() -> None:
    def leave(_number: int, _frame: FrameType | None) -> None:
        sys.exit(0)

    signal.signal(signal.SIGTERM, leave)
    signal.signal(signal.SIGINT, leave)
