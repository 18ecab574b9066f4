"""The application in a throw-away folder, on a small disk of its own where the machine allows it."""

from __future__ import annotations

import json
import os
import shutil
import signal
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from dataclasses import dataclass, field
from pathlib import Path

from oblatus.errors import SetUpError
from oblatus.store.server import free_port

DISK = "1100m"
NEARLY_NOTHING = 6_000_000
PATIENCE = 420.0
IN_A_ROOM = ("unshare", "--user", "--map-root-user", "--mount", "--kill-child")


@dataclass(slots=True)
class Served:
    """A served application that can be broken part by part."""

    folder: Path
    port: int
    own_disk: bool
    process: subprocess.Popen[str]
    lines: list[str] = field(default_factory=list)

    @classmethod
    def start(cls, *flags: str) -> Served:
        """Serve the demo data; `own_disk` tells whether the folder is on a disk that can be filled.

        Raises
        ------
        SetUpError
            If it does not come up.
        """
        folder, port = Path(tempfile.mkdtemp(prefix="oblatus-drill-")), free_port()
        data = folder / "data"
        data.mkdir()
        serve = [sys.executable, "-m", "oblatus.cli.main", "serve", "--data", str(data), "--port", str(port), *flags]
        own_disk = _rooms_work(data)
        if own_disk:
            mount = f'mount -t tmpfs -o size={DISK},mode=0700 tmpfs "$1" && shift && exec "$@"'
            serve = [*IN_A_ROOM, "sh", "-c", mount, "sh", str(data), *serve]
        process = subprocess.Popen(serve, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True)
        made = cls(data, port, own_disk, process)
        if not made._hears("Oblatus is at"):
            made.stop()
            raise SetUpError("the application did not come up: " + " ".join(made.lines[-3:]))
        return made

    @property
    def address(self) -> str:
        """Where it is served."""
        return f"http://127.0.0.1:{self.port}"

    @property
    def inside(self) -> Path:
        """The data folder as it is seen from here."""
        return Path(f"/proc/{self._supervisor()}/root") / self.folder.relative_to("/") if self.own_disk else self.folder

    def kill(self, part: str) -> None:
        """End a part outright: worker, master, bridge, front, live or database."""
        os.kill(self.pid(part), signal.SIGKILL)

    def kill_workers(self) -> None:
        """End every worker outright: those that come in their place are fresh ones."""
        for pid in _children(self.pid("master")):
            os.kill(pid, signal.SIGKILL)

    def hold(self, part: str, seconds: float) -> None:
        """Let a part hang for a while: whoever asks it gets no answer."""
        pid = self.pid(part)
        os.kill(pid, signal.SIGSTOP)
        time.sleep(seconds)
        os.kill(pid, signal.SIGCONT)

    def pid(self, part: str) -> int:
        """The process of a part.

        Raises
        ------
        SetUpError
            If it does not run within a while.
        """
        deadline = time.monotonic() + 60.0
        while time.monotonic() < deadline:
            found = self._find(part)
            if found is not None:
                return found
            time.sleep(0.1)
        raise SetUpError(f"{part} does not run")

    def fill_disk(self) -> None:
        """Leave nearly nothing on the application's own disk."""
        folder = self.inside
        with (folder / "fill").open("ab") as filler:
            free = shutil.disk_usage(folder).free
            if free > NEARLY_NOTHING:
                os.posix_fallocate(filler.fileno(), filler.tell(), free - NEARLY_NOTHING)

    def clear_disk(self) -> None:
        """Make room again."""
        (self.inside / "fill").unlink(missing_ok=True)

    def health(self) -> dict[str, object]:
        """What it says of itself; empty when nothing answers."""
        try:
            with urllib.request.urlopen(f"{self.address}/api/health", timeout=10) as reply:
                return dict(json.load(reply))
        except urllib.error.HTTPError as error:
            with error:
                return dict(json.load(error))
        except (OSError, ValueError):
            return {}

    def memory_mb(self) -> float:
        """Memory of all its processes together [MB]; what several share counts once."""
        pids = {self._supervisor(), *_below(self._supervisor())}
        database = self._find("database")
        if database is not None:
            pids |= {database, *_below(database)}
        return sum(_share_kb(pid) for pid in pids) / 1024.0

    def stop(self) -> None:
        """End everything and remove the folder."""
        if self.process.poll() is None:
            os.kill(self._supervisor(), signal.SIGINT)
            try:
                self.process.wait(timeout=60)
            except subprocess.TimeoutExpired:
                self.process.kill()
        shutil.rmtree(self.folder.parent, ignore_errors=True)

    def _supervisor(self) -> int:
        """`unshare` forks the shell that becomes the supervisor; without a room of its own it is the process itself."""
        if not self.own_disk:
            return self.process.pid
        return next(iter(_children(self.process.pid)), self.process.pid)

    def _find(self, part: str) -> int | None:
        marks = {
            "master": "oblatus.web.app:create_app", "live": "oblatus.web.live_app", "front": "nginx.conf",
            "bridge": "oblatus.cli.main bridge",
        }  # fmt: skip
        if part == "database":
            mine = [pid for pid in _same_room(self._supervisor()) if f"{self.folder}/postgres" in _words(pid)]
            return mine[0] if mine else None
        mark = marks["master" if part == "worker" else part]
        found = [pid for pid in _children(self._supervisor()) if mark in _words(pid)]
        if not found:
            return None
        return next(iter(_children(found[0])), None) if part == "worker" else found[0]

    def _hears(self, words: str) -> bool:
        deadline = time.monotonic() + PATIENCE
        assert self.process.stdout is not None
        while time.monotonic() < deadline:
            line = self.process.stdout.readline()
            self.lines.append(line.strip())
            if words in line:
                return True
            if not line and self.process.poll() is not None:
                return False
        return False


def _rooms_work(folder: Path) -> bool:
    """Whether this machine lets us have a small disk of our own."""
    if shutil.which("unshare") is None:
        return False
    tried = subprocess.run(
        [*IN_A_ROOM, "mount", "-t", "tmpfs", "-o", "size=1m", "tmpfs", str(folder)], capture_output=True, check=False
    )
    return tried.returncode == 0


def _children(pid: int) -> list[int]:
    try:
        return [int(child) for child in Path(f"/proc/{pid}/task/{pid}/children").read_text().split()]
    except OSError:
        return []


def _below(pid: int) -> list[int]:
    """All processes that a process started, and those that they started."""
    mine = _children(pid)
    return [*mine, *(other for child in mine for other in _below(child))]


def _share_kb(pid: int) -> int:
    """A process's proportional share of memory [kB]; 0 for one that has ended."""
    try:
        lines = Path(f"/proc/{pid}/smaps_rollup").read_text().splitlines()
    except OSError:
        return 0
    return next((int(line.split()[1]) for line in lines if line.startswith("Pss:")), 0)


def _same_room(pid: int) -> list[int]:
    """Processes that see the same disks: PostgreSQL leaves its parent, but not its room."""
    try:
        room = os.readlink(f"/proc/{pid}/ns/mnt")
    except OSError:
        return []
    found = []
    for entry in Path("/proc").glob("[0-9]*"):
        try:
            if os.readlink(entry / "ns" / "mnt") == room:
                found.append(int(entry.name))
        except OSError:
            continue  # gone meanwhile, or somebody else's
    return sorted(found)


def _words(pid: int) -> str:
    try:
        return Path(f"/proc/{pid}/cmdline").read_bytes().replace(b"\0", b" ").decode(errors="replace")
    except OSError:
        return ""
