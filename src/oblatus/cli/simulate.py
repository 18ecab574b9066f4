"""`oblatus simulate`: the stand-in devices."""

from __future__ import annotations

import os
import secrets
import threading
from argparse import Namespace
from collections.abc import Callable
from typing import Any

from oblatus.cli.arguments import number, read_text
from oblatus.cli.leaving import leave_politely
from oblatus.core.bounds import Bound
from oblatus.devices.instruments import GaugeStandIn, HammerStandIn, PenetrometerStandIn
from oblatus.devices.monitor import MonitorStandIn, ReplayStandIn
from oblatus.devices.recording import load_recording
from oblatus.devices.stand_in import Misbehaviour, StandIn
from oblatus.errors import SetUpError
from oblatus.settings import devices_from

SHARE = Bound(0, 1, "")
KINDS: dict[str, type[StandIn]] = {
    "monitor": MonitorStandIn, "gauge": GaugeStandIn, "hammer": HammerStandIn, "penetrometer": PenetrometerStandIn,
}  # fmt: skip
SAME_AGAIN = "measure the same as another of this seed, under the same names"
EVERY = {"monitor": 4.0, "gauge": 2.0, "hammer": 2.5, "penetrometer": 2.5}


def add_simulate(commands: Any) -> None:
    """Register `simulate`."""
    parser = commands.add_parser("simulate", help="a stand-in device that speaks the line protocol")
    kinds = parser.add_subparsers(dest="device", required=True, parser_class=type(parser))
    for kind, made in KINDS.items():
        one = kinds.add_parser(kind, help=f"a {made.device}")
        one.add_argument("--port", type=number("port", Bound(0, 65535, "")), default=0.0)
        one.add_argument("--seed", type=number("seed", Bound(0, 1e9, "")), help=SAME_AGAIN)
        one.add_argument(
            "--every", type=number("every", Bound(0.005, 600, "s")), default=EVERY[kind], help="seconds a line"
        )
        one.add_argument("--most", type=number("most", Bound(1, 1e6, "lines")))
        for name, words in (
            ("repeat", "sent twice"), ("rubbish", "preceded by rubbish"), ("shuffle", "sent late"),
            ("drop", "then dropped"),
        ):  # fmt: skip
            one.add_argument(f"--{name}", type=number(name, SHARE), default=0.0, help=f"share of lines {words}")
        if kind == "monitor":
            one.add_argument("--replay", metavar="FILE", help="play a recorded session instead")
            one.add_argument("--speed", type=number("speed", Bound(0.1, 1000, "")), default=1.0, help="times as fast")
        one.set_defaults(run=run_device, kind=kind)
    every = kinds.add_parser("all", help="every device, for ./start")
    every.add_argument("--at", required=True, help="addresses: monitor=127.0.0.1:9470 gauge=…")
    every.add_argument("--seed", type=number("seed", Bound(0, 1e9, "")), help=SAME_AGAIN)
    every.set_defaults(run=run_all)


def run_device(args: Namespace) -> int:
    """Serve one device until told to stop."""
    port = int(args.port)
    if args.kind == "monitor" and args.replay is not None:
        recorded = load_recording(read_text(args.replay))
        stand_in = _at(port, lambda: ReplayStandIn(recorded, port, _seed(args), args.speed))
    else:
        wrong = Misbehaviour(args.repeat, args.rubbish, args.shuffle, args.drop)
        most = None if args.most is None else int(args.most)
        stand_in = _at(port, lambda: KINDS[args.kind](port, _seed(args), args.every, most, wrong))
    print(f"simulated {stand_in.device} at 127.0.0.1:{stand_in.port}", flush=True)
    leave_politely()
    stand_in.serve()
    return 0


def run_all(args: Namespace) -> int:
    """Serve every device until told to stop."""
    StandIn.token = os.environ.get("OBLATUS_DEVICE_TOKEN", "")
    for kind, address in devices_from(args.at).items():
        port = int(address.rpartition(":")[2])
        stand_in = _at(port, lambda kind=kind, port=port: KINDS[kind](port, _seed(args), EVERY[kind]))  # type: ignore[misc]
        print(f"simulated {stand_in.start().device} at 127.0.0.1:{stand_in.port}", flush=True)
    leave_politely()
    threading.Event().wait()
    return 0


def _seed(args: Namespace) -> int:
    """What its figures and the names of its lines are drawn from: another every time, or the lines would be taken for
    those that it sent before it was switched off."""
    return secrets.randbelow(10**9) if args.seed is None else int(args.seed)


def _at(port: int, make: Callable[[], StandIn]) -> StandIn:
    try:
        return make()
    except OSError as error:
        raise SetUpError(f"port {port} cannot be used: {error.strerror}") from error
