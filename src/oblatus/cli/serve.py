"""`oblatus serve`: PostgreSQL, migrations, seed and every process under one supervisor."""

from __future__ import annotations

import contextlib
import os
import subprocess
import sys
import time
from argparse import Namespace
from pathlib import Path
from typing import Any

from oblatus.cli.arguments import number
from oblatus.core.bounds import Bound
from oblatus.errors import SetUpError
from oblatus.serving.front import program
from oblatus.serving.supervisor import Plan, Supervisor, device_addresses, only_one, signals_as_exit
from oblatus.settings import PROJECT, TRUSTED_HOSTS, Settings, devices_from
from oblatus.store.server import LocalServer, secret_in

PUBLISHED = "run/published"


def add_serve(commands: Any) -> None:
    """Register `serve`."""
    parser = commands.add_parser("serve", help="serve the application (./start prepares the machine first)")
    parser.add_argument("--port", type=number("port", Bound(1, 65535, "")))
    parser.add_argument(
        "--host", default="127.0.0.1", help="address to listen at; others than loopback are reached by others"
    )
    parser.add_argument("--trust", action="append", default=[], metavar="NAME", help="a host name under which it answers")
    parser.add_argument("--data", type=Path, default=PROJECT / "var")
    parser.add_argument("--empty", action="store_true", help="no demo data: asks for the fitter's name and password")
    parser.add_argument("--no-front", action="store_true", help="without nginx in front: works, slower")
    parser.add_argument("--copies", type=number("copies", Bound(0, 365, "")), default=7.0, help="nightly copies kept")
    parser.add_argument("--seed", type=number("seed", Bound(0, 1e9, "")), help="of the stand-in devices")
    parser.set_defaults(run=run_serve)


def run_serve(args: Namespace) -> int:
    """Serve until a signal comes, then stop everything that was started."""
    os.umask(0o077)  # whatever is made from here on is ours alone
    folder: Path = args.data.resolve()
    if not args.no_front and program() is None:
        raise SetUpError("nginx is not installed. Run: apt-get install -y nginx-light, or give --no-front")
    port = None if args.port is None else int(args.port)
    names = (*args.trust, *([] if args.host in ("0.0.0.0", "::") else [args.host]))
    given = devices_from(os.environ.get("OBLATUS_DEVICES", ""))
    seed = None if args.seed is None else int(args.seed)
    plan = Plan(folder, args.host, port, names, not args.no_front, int(args.copies), frozenset(given), seed)
    with only_one(folder), signals_as_exit():
        server = LocalServer(folder)
        started = time.monotonic()
        address_file = folder / "run" / "address"
        try:
            say("Starting PostgreSQL ...")
            url = server.start()
            settings = _settings(url, folder, names)
            code = _prepare(folder, empty=args.empty)
            if not (folder / PUBLISHED).exists():  # it failed and said why, or was told to stop
                return code
            supervisor = Supervisor(plan, settings, server, say)
            say("Warming the engine (compiled once, the first start takes a minute longer) ...")
            try:
                supervisor.start()
                address_file.write_text(supervisor.address)
                say(f"Oblatus is at {supervisor.address}{_how_to_sign_in(folder)}  [{time.monotonic() - started:.1f} s]")
                supervisor.watch()
            finally:
                supervisor.end()
        except (SystemExit, KeyboardInterrupt):
            say("Stopping ...")
            return 0
        finally:
            address_file.unlink(missing_ok=True)
            server.stop()
    return 0


def say(words: str) -> None:
    """A line for the person at the terminal; a terminal that is gone is no reason not to clean up."""
    with contextlib.suppress(OSError, ValueError):
        print(words, flush=True)


def _settings(url: str, folder: Path, names: tuple[str, ...]) -> Settings:
    devices = device_addresses(devices_from(os.environ.get("OBLATUS_DEVICES", "")))
    token = os.environ.get("OBLATUS_DEVICE_TOKEN") or secret_in(folder / "device.token")
    return Settings(
        url, secret_in(folder / "secret"), devices=devices, device_token=token, data_dir=folder,
        trusted_hosts=(*TRUSTED_HOSTS, *names),
    )  # fmt: skip


def _prepare(folder: Path, *, empty: bool) -> int:
    (folder / PUBLISHED).unlink(missing_ok=True)
    command = [sys.executable, "-m", "oblatus.cli.main", "prepare", "--data", str(folder)]
    return subprocess.run([*command, *(["--empty"] if empty else [])], check=False).returncode


def _how_to_sign_in(folder: Path) -> str:
    """The published sign-in, as long as it works."""
    published = (folder / PUBLISHED).read_text()
    return f"  ({published})" if published else ""
