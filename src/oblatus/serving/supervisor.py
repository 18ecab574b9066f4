"""Everything of one data folder under one supervisor that starts it, keeps it up and cleans up after itself."""

from __future__ import annotations

import contextlib
import fcntl
import json
import os
import signal
import socket
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from pathlib import Path
from types import FrameType

from oblatus.errors import SetUpError
from oblatus.serving import front as fronts
from oblatus.serving.ballast import trim
from oblatus.serving.children import Child, end_orphan
from oblatus.serving.logs import rotate
from oblatus.settings import DEVICE_KINDS, Settings
from oblatus.store.server import LocalServer, free_port

DEFAULT_PORT = 8420
PORTS_TRIED = 20
WORKERS, THREADS = 2, 40
MOST_STREAMS = 2000
DEVICE_PORT = 9470
PATIENCE = 400.0
ALLOCATION = {"MALLOC_ARENA_MAX": "2"}
"""Every thread would have a heap of its own, which keeps what it once needed: 60 MB more a worker after 40 edits."""
LOOK_SECONDS = 0.5
CARE_SECONDS = 5.0
DAY_SECONDS = 86_400.0
FIRST_COPY_AFTER = 600.0

Say = Callable[[str], None]


@dataclass(frozen=True, slots=True)
class Plan:
    """What is served: where it listens, under which names, with or without the front, how many copies are kept, and for
    which kinds of devices the studio has its own: those need no stand-in. `seed` is of the others' figures."""

    folder: Path
    host: str = "127.0.0.1"
    port: int | None = None
    names: tuple[str, ...] = ()
    front: bool = True
    copies: int = 7
    own_devices: frozenset[str] = frozenset()
    seed: int | None = None


@dataclass(slots=True)
class Supervisor:
    """The processes of a plan."""

    plan: Plan
    settings: Settings
    server: LocalServer
    say: Say
    port: int = field(init=False)
    children: dict[str, Child] = field(default_factory=dict)
    _cared: float = field(default_factory=time.monotonic)
    _started: float = field(default_factory=time.monotonic)
    _nightly: Child | None = None

    def __post_init__(self) -> None:
        self.port = choose_port(self.plan.host, self.plan.port, DEFAULT_PORT)

    @property
    def address(self) -> str:
        """Where it is served."""
        host = self.plan.host if self.plan.host not in ("0.0.0.0", "::") else "127.0.0.1"
        return f"http://{host}:{self.port}"

    def start(self) -> None:
        """Start every process and wait until the application answers.

        Raises
        ------
        SetUpError
            If it does not come up.
        """
        for child in self._plan_children():
            self.children[child.name] = child
            child.start()
        web = self.children["web"]
        deadline = time.monotonic() + PATIENCE
        while time.monotonic() < deadline and web.running():
            if _answers(self.address):
                return
            time.sleep(0.1)
        raise SetUpError("the web server did not come up; its log is log/web.log in the data folder")

    def watch(self) -> None:
        """Keep everything up until a signal comes."""
        database_port = self.server.port()
        while True:
            time.sleep(LOOK_SECONDS)
            try:
                if self.server.keep_up(database_port):
                    self.say("PostgreSQL had stopped; it runs again, and nothing that was saved is lost.")
            except SetUpError:
                self.say("PostgreSQL stopped and does not start yet; it is tried again. Is the disk full?")
            for child in self.children.values():
                if child.keep_up():
                    self.say(f"{child.name} had stopped; it runs again.")
            if time.monotonic() - self._cared > CARE_SECONDS:
                self._cared = time.monotonic()
                self._care()

    def end(self) -> None:
        """End every process that was started."""
        for child in [*self.children.values(), *([self._nightly] if self._nightly else [])]:
            child.end()

    def _care(self) -> None:
        """Room on the disk, logs, and the night's copy."""
        folder = self.plan.folder
        with contextlib.suppress(OSError):  # looked at again in a moment
            trim(folder)
            rotate([*(folder / "log").glob("*.log"), folder / "postgres.log"])
        copying = self._nightly is not None and self._nightly.running()
        if not copying and self.plan.copies and time.monotonic() - self._started > FIRST_COPY_AFTER and copy_due(folder):
            self._nightly = self._child("nightly", "nightly", "--data", str(folder), "--copies", str(self.plan.copies))
            self._nightly.start()

    def _plan_children(self) -> Iterator[Child]:
        run, devices = self.plan.folder / "run", dict(self.settings.devices)
        for left in (run / "front" / "nginx.pid", run / "live.pid", run / "gunicorn.pid"):
            end_orphan(left)
        web_port = free_port() if self.plan.front else self.port
        web_host = "127.0.0.1" if self.plan.front else self.plan.host
        yield self._gunicorn("web", "oblatus.web.app:create_app()", f"{web_host}:{web_port}", run / "gunicorn.pid", [
            "--config", "python:oblatus.web.gunicorn_conf", "--workers", str(WORKERS), "--threads", str(THREADS),
        ])  # fmt: skip
        if self.plan.front:
            live_port = free_port()
            live_app = "oblatus.web.live_app:create_live_app()"
            yield self._gunicorn("live", live_app, f"127.0.0.1:{live_port}", run / "live.pid", [
                "--worker-class", "gevent", "--workers", "1", "--worker-connections", str(MOST_STREAMS),
                "--graceful-timeout", "1", "--backlog", str(MOST_STREAMS),
            ])  # fmt: skip
            names = sorted(set(self.settings.trusted_hosts))
            front = fronts.Front(
                self.plan.host, self.port, web_port, live_port, self.settings.static_dir, run / "front", names
            )
            yield Child("front", front.command(), self._environment(), self.plan.folder / "log" / "front.log")
        yield self._child("bridge", "bridge")
        simulated = {kind: address for kind, address in devices.items() if kind not in self.plan.own_devices}
        if simulated:
            seed = [] if self.plan.seed is None else ["--seed", str(self.plan.seed)]
            yield self._child("devices", "simulate", "all", "--at", words(simulated), *seed)

    def _gunicorn(self, name: str, app: str, bind: str, pid: Path, more: list[str]) -> Child:
        command = [
            sys.executable, "-m", "gunicorn", app, "--bind", bind, "--pid", str(pid), "--no-control-socket",
            "--log-level", "warning", "--worker-tmp-dir", "/dev/shm", *more,
        ]  # fmt: skip
        return Child(name, command, self._environment(), self.plan.folder / "log" / f"{name}.log")

    def _child(self, name: str, *arguments: str) -> Child:
        command = [sys.executable, "-m", "oblatus.cli.main", *arguments]
        return Child(name, command, self._environment(), self.plan.folder / "log" / f"{name}.log")

    def _environment(self) -> dict[str, str]:
        return {
            **ALLOCATION,
            **os.environ,
            "OBLATUS_DATABASE_URL": self.settings.database_url,
            "OBLATUS_SECRET_KEY": self.settings.secret_key,
            "OBLATUS_DEVICES": words(self.settings.devices),
            "OBLATUS_DEVICE_TOKEN": self.settings.device_token,
            "OBLATUS_DATA": str(self.plan.folder),
            "OBLATUS_FAMILIES": os.environ.get("OBLATUS_FAMILIES", str(self.plan.folder / "families")),
            "OBLATUS_HOSTS": " ".join(self.plan.names),
            "OBLATUS_FRONT": "yes" if self.plan.front else "no",
        }


def device_addresses(given: Mapping[str, str]) -> dict[str, str]:
    """Addresses of every kind of device: those given, and a free port for the stand-in of every other."""
    found, port = dict(given), DEVICE_PORT - 1
    for kind in DEVICE_KINDS:
        if kind not in found:
            port = choose_port("127.0.0.1", None, port + 1)
            found[kind] = f"127.0.0.1:{port}"
    return found


def words(devices: Mapping[str, str]) -> str:
    """Addresses as `OBLATUS_DEVICES` has them."""
    return " ".join(f"{kind}={address}" for kind, address in devices.items())


@contextlib.contextmanager
def only_one(folder: Path) -> Iterator[None]:
    """Hold the folder's lock. The system frees it however this process ends, so it is never stale.

    Raises
    ------
    SetUpError
        If somebody holds it already.
    """
    run = folder / "run"
    try:
        run.mkdir(parents=True, exist_ok=True, mode=0o700)
    except OSError as error:
        raise SetUpError(f"cannot make {run}: {error.strerror}; give --data another folder") from error
    address = run / "address"
    with (run / "lock").open("w") as held:
        try:
            fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            where = address.read_text() if address.exists() else "its address in a moment"
            raise SetUpError(f"Oblatus already runs on this data folder, at {where}. Use it, or give --data") from None
        yield


@contextlib.contextmanager
def signals_as_exit() -> Iterator[None]:
    """Ctrl-C, a polite kill and a closed terminal all leave by the same door."""

    def leave(_number: int, _frame: FrameType | None) -> None:
        for each in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
            signal.signal(each, signal.SIG_IGN)  # the clean-up is not to be cut short by an impatient second Ctrl-C
        raise SystemExit(0)

    for each in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(each, leave)
    yield


def choose_port(host: str, asked: int | None, usual: int) -> int:
    """The port asked for, or the first free one from the usual one on.

    Raises
    ------
    SetUpError
        If it is taken, or all are.
    """
    if asked is not None:
        if not _is_free(host, asked):
            raise SetUpError(f"port {asked} is taken by another program, or may not be used: give another --port")
        return asked
    for port in range(usual, usual + PORTS_TRIED):
        if _is_free(host, port):
            return port
    raise SetUpError(f"ports {usual} to {usual + PORTS_TRIED - 1} are all taken: end what holds them, or give --port")


def copy_due(folder: Path) -> bool:
    """Whether the newest copy is a day old, or there is none."""
    made = [path.stat().st_mtime for path in (folder / "copies").glob("*.oblatus")]
    return time.time() - max(made, default=0.0) > DAY_SECONDS


def _is_free(host: str, port: int) -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            return False
    return True


def _answers(address: str) -> bool:
    """Whether the application answers and has its database, whatever else may be wrong with the machine."""
    try:
        with urllib.request.urlopen(f"{address}/api/health", timeout=5.0) as response:
            return bool(json.load(response)["database"] == "ok")
    except urllib.error.HTTPError as error:
        with error, contextlib.suppress(ValueError, KeyError):
            return bool(json.load(error)["database"] == "ok")
        return False
    except (OSError, ValueError):
        return False
