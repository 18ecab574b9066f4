"""`oblatus serve`: PostgreSQL, migrations, seed and gunicorn under one supervisor that cleans up after itself."""

from __future__ import annotations

import contextlib
import ctypes
import fcntl
import json
import os
import secrets
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from argparse import Namespace
from collections.abc import Iterator, Mapping
from pathlib import Path
from types import FrameType
from typing import IO, Any

from oblatus.cli.arguments import number
from oblatus.core.bounds import Bound
from oblatus.errors import SetUpError
from oblatus.settings import DEVICE_KINDS, PROJECT, Settings
from oblatus.store.database import Database
from oblatus.store.migrate import migrate
from oblatus.store.server import LocalServer
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD, seed_once

DEFAULT_PORT = 8420
PORTS_TRIED = 20
WORKERS, THREADS = 2, 40
DEVICE_PORT = 9470
PATIENCE = 400.0
LOOK_SECONDS = 0.5
PR_SET_PDEATHSIG = 1


def add_serve(commands: Any) -> None:
    """Register `serve`."""
    parser = commands.add_parser("serve", help="serve the application (./start prepares the machine first)")
    parser.add_argument("--port", type=number("port", Bound(1, 65535, "")))
    parser.add_argument("--data", type=Path, default=PROJECT / "var")
    parser.add_argument("--empty", action="store_true")
    parser.set_defaults(run=run_serve)


def run_serve(args: Namespace) -> int:
    """Serve until a signal comes, then stop everything that was started."""
    folder: Path = args.data.resolve()
    run_folder = folder / "run"
    _make_folder(run_folder)
    with _only_one(run_folder / "lock", run_folder / "address"), _signals_as_exit():
        _stop_orphan(run_folder / "gunicorn.pid")
        server = LocalServer(folder)
        started = time.monotonic()
        try:
            say("Starting PostgreSQL ...")
            url = server.start()
            devices = {kind: f"127.0.0.1:{port}" for kind, port in zip(DEVICE_KINDS, _device_ports(), strict=True)}
            settings = Settings(url, _secret(folder / "secret"), devices=devices)
            _prepare(settings, demo=not args.empty)
            port = _port(None if args.port is None else int(args.port), DEFAULT_PORT)
            say("Warming the engine (compiled once, the first start takes a minute longer) ...")
            child = _gunicorn(settings, port, run_folder, folder / "log")
            commands = {"devices.log": ["simulate", "all", "--at", _words(devices)], "bridge.log": ["bridge"]}
            helpers = {log: _helper(log, words, settings, folder / "log") for log, words in commands.items()}
            try:
                _wait_until_healthy(port, child)
                address = f"http://127.0.0.1:{port}"
                (run_folder / "address").write_text(address)
                took = time.monotonic() - started
                say(f"Oblatus is at {address}  (sign in: {DEMO_EMAIL}, password: {DEMO_PASSWORD})  [{took:.1f} s]")
                database_port = server.port()
                while child.poll() is None:
                    time.sleep(LOOK_SECONDS)
                    if server.keep_up(database_port):
                        say("PostgreSQL had stopped; it runs again, and nothing that was saved is lost.")
                    for log, helper in helpers.items():
                        if helper.poll() is not None:
                            helpers[log] = _helper(log, commands[log], settings, folder / "log")
                web_log = folder / "log" / "web.log"
                raise SetUpError(f"the web server stopped by itself with code {child.returncode} (log: {web_log})")
            finally:
                for process in (child, *helpers.values()):
                    _end(process)
        except (SystemExit, KeyboardInterrupt):
            say("Stopping ...")
            return 0
        finally:
            (run_folder / "address").unlink(missing_ok=True)
            server.stop()


def say(words: str) -> None:
    """A line for the person at the terminal; a terminal that is gone is no reason not to clean up."""
    with contextlib.suppress(OSError, ValueError):
        print(words, flush=True)


def _make_folder(folder: Path) -> None:
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise SetUpError(f"cannot make {folder}: {error.strerror}; give --data another folder") from error


@contextlib.contextmanager
def _only_one(lock: Path, address: Path) -> Iterator[None]:
    """Hold the folder's lock. The system frees it however this process ends, so it is never stale."""
    with lock.open("w") as held:
        try:
            fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            where = address.read_text() if address.exists() else "its address in a moment"
            raise SetUpError(f"Oblatus already runs on this data folder, at {where}. Use it, or give --data") from None
        yield


@contextlib.contextmanager
def _signals_as_exit() -> Iterator[None]:
    """Ctrl-C, a polite kill and a closed terminal all leave by the same door."""

    def leave(_number: int, _frame: FrameType | None) -> None:
        for each in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
            signal.signal(each, signal.SIG_IGN)  # the clean-up is not to be cut short by an impatient second Ctrl-C
        raise SystemExit(0)

    for each in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(each, leave)
    yield


def _prepare(settings: Settings, *, demo: bool) -> None:
    database = Database(settings.database_url)
    say("Migrating the database ...")
    migrate(database.engine)
    if seed_once(database, settings, demo=demo):
        say("Made the studio" + (" with the demo data." if demo else ", empty."))
    database.engine.dispose()


def _secret(path: Path) -> str:
    if not path.exists():
        new = path.with_suffix(".new")
        new.touch(mode=0o600)
        new.write_text(secrets.token_urlsafe(48))
        new.rename(path)
    return path.read_text()


def _port(asked: int | None, usual: int) -> int:
    if asked is not None:
        if not _is_free(asked):
            raise SetUpError(f"port {asked} is taken by another program, or may not be used: give another --port")
        return asked
    for port in range(usual, usual + PORTS_TRIED):
        if _is_free(port):
            return port
    raise SetUpError(f"ports {usual} to {usual + PORTS_TRIED - 1} are all taken: end what holds them, or give --port")


def _device_ports() -> list[int]:
    """A free port for each stand-in."""
    found: list[int] = []
    for _ in DEVICE_KINDS:
        found.append(_port(None, found[-1] + 1 if found else DEVICE_PORT))
    return found


def _words(devices: Mapping[str, str]) -> str:
    return " ".join(f"{kind}={address}" for kind, address in devices.items())


def _is_free(port: int) -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            return False
    return True


def _gunicorn(settings: Settings, port: int, run_folder: Path, log_folder: Path) -> subprocess.Popen[bytes]:
    environment = _environment(settings) | {"OBLATUS_FAMILIES": str(run_folder.parent / "families")}
    command = [
        sys.executable, "-m", "gunicorn", "oblatus.web.app:create_app()", "--config", "python:oblatus.web.gunicorn_conf",
        "--bind", f"127.0.0.1:{port}", "--workers", str(WORKERS), "--threads", str(THREADS),
        "--pid", str(run_folder / "gunicorn.pid"),
    ]  # fmt: skip
    return _child(command, environment, log_folder / "web.log")


def _helper(log: str, arguments: list[str], settings: Settings, log_folder: Path) -> subprocess.Popen[bytes]:
    """Another command of ours beside the web server."""
    return _child([sys.executable, "-m", "oblatus.cli.main", *arguments], _environment(settings), log_folder / log)


def _environment(settings: Settings) -> dict[str, str]:
    return {
        **os.environ,
        "OBLATUS_DATABASE_URL": settings.database_url,
        "OBLATUS_SECRET_KEY": settings.secret_key,
        "OBLATUS_DEVICES": _words(settings.devices),
    }


def _child(command: list[str], environment: dict[str, str], log_path: Path) -> subprocess.Popen[bytes]:
    log_path.parent.mkdir(exist_ok=True)
    log: IO[bytes] = log_path.open("ab")
    with log:
        return subprocess.Popen(
            command, env=environment, stdin=subprocess.DEVNULL, stdout=log, stderr=log,
            start_new_session=True, preexec_fn=_die_with_parent,  # noqa: PLW1509 (this process has no threads)
        )  # fmt: skip


def _die_with_parent() -> None:
    """Even a supervisor that is killed outright takes its web server along (Linux)."""
    ctypes.CDLL(None).prctl(PR_SET_PDEATHSIG, signal.SIGTERM)


def _stop_orphan(pid_file: Path) -> None:
    """End a web server that a killed supervisor left behind; a number taken over by another program is left alone."""
    try:
        pid = int(pid_file.read_text())
        command = Path(f"/proc/{pid}/cmdline").read_bytes()
    except (OSError, ValueError):
        return
    if str(pid_file).encode() not in command:
        return
    say("Ending the web server of an earlier run ...")
    with contextlib.suppress(ProcessLookupError):
        os.kill(pid, signal.SIGTERM)
    deadline = time.monotonic() + 15.0
    while Path(f"/proc/{pid}").exists() and time.monotonic() < deadline:
        time.sleep(0.1)


def _wait_until_healthy(port: int, child: subprocess.Popen[bytes]) -> None:
    deadline = time.monotonic() + PATIENCE
    while time.monotonic() < deadline:
        if child.poll() is not None:
            break
        if _healthy(port):
            return
        time.sleep(0.1)
    raise SetUpError("the web server did not come up; its log is log/web.log in the data folder")


def _healthy(port: int) -> bool:
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=5.0) as response:
            return bool(json.load(response)["status"] == "ok")
    except (OSError, ValueError):
        return False


def _end(child: subprocess.Popen[bytes]) -> None:
    if child.poll() is None:
        child.terminate()
        try:
            child.wait(timeout=15.0)
        except subprocess.TimeoutExpired:
            child.kill()
            child.wait()
