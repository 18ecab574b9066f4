"""The project-local PostgreSQL: made, started and stopped in a data folder, on loopback, on a free port."""

from __future__ import annotations

import os
import shutil
import socket
import subprocess
from collections.abc import Sequence
from pathlib import Path

from oblatus.errors import SetUpError

DATABASE = "oblatus"
SUPERUSER = "oblatus"
BUSY_PORTS = {5432}
DEBIAN_BINARIES = Path("/usr/lib/postgresql")
FAST_AND_FORGETFUL = ("fsync=off", "full_page_writes=off", "synchronous_commit=off")


class LocalServer:
    """PostgreSQL in `folder`; `forgetful` trades safety for speed and is for tests only."""

    def __init__(self, folder: Path, *, forgetful: bool = False) -> None:
        self.folder = folder
        self.data = folder / "postgres"
        self.log = folder / "postgres.log"
        self.forgetful = forgetful

    def start(self) -> str:
        """Make the cluster if there is none, start it if it is not running, and return the database's address.

        Raises
        ------
        SetUpError
            If PostgreSQL is not installed or does not start; the message says what to do.
        """
        self.folder.mkdir(parents=True, exist_ok=True)
        if not (self.data / "PG_VERSION").exists():
            self._make()
        if not self.running():
            self._forget_stale_lock()
            self._start()
        self._make_database()
        return self.url(DATABASE)

    def keep_up(self, port: int) -> bool:
        """Start it again on its port if it went down by itself. Returns whether it had to."""
        with socket.socket() as probe:
            probe.settimeout(1.0)
            if probe.connect_ex(("127.0.0.1", port)) == 0:
                return False
        if self.running():
            return False
        self._forget_stale_lock()
        self._start(port)
        return True

    def stop(self) -> None:
        """Stop it if it runs; connections are ended, nothing committed is lost."""
        if self.running():
            self._run("pg_ctl", "-D", str(self.data), "-m", "fast", "-w", "stop")

    def running(self) -> bool:
        """Whether a server runs on this folder, whoever started it."""
        if not (self.data / "postmaster.pid").exists():
            return False
        return self._call("pg_ctl", "-D", str(self.data), "status").returncode == 0

    def port(self) -> int:
        """Port of the running server, as it wrote it down itself."""
        return int((self.data / "postmaster.pid").read_text().splitlines()[3])

    def url(self, database: str) -> str:
        """Address of a database of the running server."""
        return f"postgresql+psycopg://{SUPERUSER}@127.0.0.1:{self.port()}/{database}"

    def _make(self) -> None:
        half_made = self.folder / "postgres.new"
        shutil.rmtree(half_made, ignore_errors=True)
        shutil.rmtree(self.data, ignore_errors=True)
        self._run(
            "initdb", "-D", str(half_made), "-U", SUPERUSER, "-A", "trust", "-E", "UTF8", "--locale=C.UTF-8", "--no-sync"
        )
        half_made.rename(self.data)  # only a whole cluster ever bears the name

    def _start(self, port: int | None = None) -> None:
        options = ["-h 127.0.0.1", f"-p {port or free_port()}", "-k ''"]
        if self.forgetful:
            options += [f"-c {setting}" for setting in FAST_AND_FORGETFUL]
        self._run(
            "pg_ctl", "-D", str(self.data), "-l", str(self.log), "-w", "-t", "60", "-o", " ".join(options), "start"
        )  # fmt: skip

    def _forget_stale_lock(self) -> None:
        """After a crash the lock may name a process that is gone, or another program that got its number."""
        lock = self.data / "postmaster.pid"
        if lock.exists():
            lock.unlink()

    def _make_database(self) -> None:
        import psycopg

        with psycopg.connect(f"postgresql://{SUPERUSER}@127.0.0.1:{self.port()}/postgres", autocommit=True) as connection:
            found = connection.execute("select 1 from pg_database where datname = %s", (DATABASE,)).fetchone()
            if found is None:
                connection.execute(f"create database {DATABASE}")

    def _run(self, program: str, *arguments: str) -> None:
        done = self._call(program, *arguments)
        if done.returncode != 0:
            said = (done.stderr or done.stdout).strip().splitlines()[-3:]
            raise SetUpError(f"{program} failed: {' '.join(said)} (log: {self.log})")

    def _call(self, program: str, *arguments: str) -> subprocess.CompletedProcess[str]:
        command = [*_as_another_user(), binary(program), *arguments]
        # the server keeps what it inherits, so output goes to a file: a pipe would stay open as long as it runs
        self.folder.mkdir(parents=True, exist_ok=True)
        said = self.folder / f"{program}.out"
        with said.open("w") as out:
            code = subprocess.run(command, stdin=subprocess.DEVNULL, stdout=out, stderr=out, check=False).returncode
        return subprocess.CompletedProcess(command, code, said.read_text(errors="replace"), "")


def binary(program: str) -> str:
    """Path of a PostgreSQL program: Debian's newest, or the one on the path.

    Raises
    ------
    SetUpError
        If there is none.
    """
    versions = sorted(DEBIAN_BINARIES.glob(f"*/bin/{program}"), key=lambda path: int(path.parts[-3]))
    found = str(versions[-1]) if versions else shutil.which(program)
    if found is None:
        raise SetUpError("PostgreSQL is not installed. Run: apt-get install -y postgresql-15")
    return found


def free_port() -> int:
    """A free loopback port that is not PostgreSQL's usual one."""
    while True:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            port = int(probe.getsockname()[1])
        if port not in BUSY_PORTS:
            return port


def _as_another_user() -> Sequence[str]:
    """PostgreSQL refuses root: a user namespace makes us somebody else and leaves the files ours."""
    if os.geteuid() != 0:
        return ()
    if shutil.which("unshare") is None:
        raise SetUpError("as root, PostgreSQL needs unshare (package util-linux); or run ./start as an ordinary user")
    return ("unshare", "--user", "--map-user=1000", "--map-group=1000")
