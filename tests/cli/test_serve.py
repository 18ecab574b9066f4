"""The supervisor: one start serves, a killed one is cleaned up after, a second one on the same folder is told so."""

from __future__ import annotations

import contextlib
import http.client
import http.cookiejar
import json
import os
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from pathlib import Path
from uuid import uuid4

import pytest

from oblatus.store.server import LocalServer, free_port
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD

PATIENCE = 300


def start(folder: Path, port: int, *flags: str) -> subprocess.Popen:
    command = [sys.executable, "-m", "oblatus.cli.main", "serve", "--data", str(folder), "--port", str(port), *flags]
    return subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True)


def wait_for(process: subprocess.Popen, words: str) -> list[str]:
    lines = []
    deadline = time.monotonic() + PATIENCE
    while time.monotonic() < deadline:
        line = process.stdout.readline()
        lines.append(line)
        if words in line:
            return lines
        if not line and process.poll() is not None:
            break
    pytest.fail(f"no {words!r} in {lines}")


def health(port: int) -> dict:
    with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=10) as reply:
        return json.load(reply)


def gone(pid: int) -> bool:
    for _ in range(200):
        if not Path(f"/proc/{pid}").exists() or "Z" in Path(f"/proc/{pid}/stat").read_text().split()[2]:
            return True
        time.sleep(0.1)
    return False


def test_start_kill_start_and_stop(tmp_path):
    port = free_port()
    first = start(tmp_path, port, "--empty")
    try:
        lines = wait_for(first, "Oblatus is at")
        assert any("empty" in line for line in lines)
        assert health(port)["status"] == "ok"

        second = start(tmp_path, free_port())
        out, _ = second.communicate(timeout=PATIENCE)
        assert second.returncode == 1
        assert f"already runs on this data folder, at http://127.0.0.1:{port}" in out

        web = int((tmp_path / "run" / "gunicorn.pid").read_text())
        first.kill()
        first.wait()
        assert gone(web), "the web server outlives its killed supervisor"
        assert LocalServer(tmp_path).running(), "PostgreSQL is left behind by a kill, as after a crash"

        third = start(tmp_path, port)
        try:
            lines = wait_for(third, "Oblatus is at")
            assert not any("Made the studio" in line for line in lines), "seeded once"
            assert health(port)["database"] == "ok"
            third.send_signal(signal.SIGINT)
            assert third.wait(timeout=PATIENCE) == 0
        finally:
            third.kill()
        assert not LocalServer(tmp_path).running()
        assert not (tmp_path / "run" / "address").exists()
    finally:
        first.kill()
        LocalServer(tmp_path).stop()


def test_a_taken_port_is_said_and_nothing_stays(tmp_path):
    command = [sys.executable, "-u", "-m", "http.server", "0", "--bind", "127.0.0.1"]
    taken = subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True)
    try:
        port = int(taken.stdout.readline().split("port ")[1].split()[0])
        process = start(tmp_path, port, "--empty")
        out, _ = process.communicate(timeout=PATIENCE)
        assert process.returncode == 1
        assert f"port {port} is taken" in out
        assert not LocalServer(tmp_path).running()
    finally:
        taken.kill()


class Tablet:
    """What the browser's queue does: one strike after another, each until the server has it, from the same session."""

    def __init__(self, port: int) -> None:
        self.base = f"http://127.0.0.1:{port}"
        self.cookies = urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar())
        self.opener = urllib.request.build_opener(self.cookies)
        self.token = self.ask("GET", "/api/session")["csrf_token"]
        signed = self.ask("POST", "/api/session", {"email": DEMO_EMAIL, "password": DEMO_PASSWORD})
        self.token = signed["csrf_token"]
        self.retries = 0

    def ask(self, method: str, path: str, body: dict | None = None) -> dict:
        headers = {"Content-Type": "application/json", "X-CSRF-Token": getattr(self, "token", "")}
        data = None if body is None else json.dumps(body).encode()
        request = urllib.request.Request(self.base + path, data=data, method=method, headers=headers)
        with self.opener.open(request, timeout=20) as reply:
            return json.loads(reply.read() or b"{}")

    def insist(self, path: str, body: dict) -> None:
        deadline = time.monotonic() + PATIENCE
        while True:
            try:
                self.ask("POST", path, body)
                return
            except urllib.error.HTTPError as error:
                if error.code < 500:
                    raise
            except (OSError, http.client.HTTPException):
                pass  # the connection was cut, before or after the strike was taken
            self.retries += 1
            assert time.monotonic() < deadline
            time.sleep(0.05)

    def hang_up(self, path: str, body: dict) -> None:
        """Send a strike and walk out of range before the answer."""
        data = json.dumps(body).encode()
        cookie = "; ".join(f"{c.name}={c.value}" for c in self.cookies.cookiejar)
        with socket.create_connection(("127.0.0.1", int(self.base.rsplit(":", 1)[1])), 10) as line:
            head = f"POST {path} HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: {cookie}\r\nX-CSRF-Token: {self.token}\r\n"
            line.sendall(f"{head}Content-Type: application/json\r\nContent-Length: {len(data)}\r\n\r\n".encode() + data)


def workers(folder: Path) -> list[int]:
    master = (folder / "run" / "gunicorn.pid").read_text().strip()
    return [int(pid) for pid in Path(f"/proc/{master}/task/{master}/children").read_text().split()]


def test_a_thousand_strikes_arrive_once_though_worker_database_and_network_are_cut(tmp_path):
    """Workers are killed outright, PostgreSQL too, and answers are not waited for: 1,000 strikes stand there, once."""
    port = free_port()
    served = start(tmp_path, port)
    try:
        wait_for(served, "Oblatus is at")
        tablet = Tablet(port)
        fitting = tablet.ask("GET", "/api/fittings")["fittings"][0]["id"]
        path = f"/api/fittings/{fitting}/strikes"
        before = tablet.ask("GET", f"/api/fittings/{fitting}/session")["total"]
        for i in range(1000):
            strike = {"id": str(uuid4()), "club": "pw", "loft_deg": 46, "swing": "pitch", "carry_m": 20 + i / 100}
            body = {"strikes": [strike]}
            if i == 200:
                os.kill(workers(tmp_path)[0], signal.SIGKILL)
            if i == 450:
                os.kill(int((tmp_path / "postgres" / "postmaster.pid").read_text().split()[0]), signal.SIGKILL)
            if i == 700:
                for worker in workers(tmp_path):
                    os.kill(worker, signal.SIGKILL)
            if i % 97 == 0:
                with contextlib.suppress(OSError):  # nobody may be there to hear it
                    tablet.hang_up(path, body)
            tablet.insist(path, body)
        assert tablet.retries > 3
        found = tablet.ask("GET", f"/api/fittings/{fitting}/session")
        mine = [s["carry_m"] for s in found["strikes"] if s["swing"] == "pitch" and s["carry_m"] is not None][-1000:]
        assert found["total"] - before == 1000
        assert mine == [20 + i / 100 for i in range(1000)]
    finally:
        served.send_signal(signal.SIGINT)
        served.wait(timeout=60)
        LocalServer(tmp_path).stop()
