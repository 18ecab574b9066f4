"""The supervisor: one start serves, a killed one is cleaned up after, a second one on the same folder is told so."""

from __future__ import annotations

import contextlib
import json
import signal
import subprocess
import sys
import time
import urllib.error
import urllib.request
from pathlib import Path

import pytest

from oblatus.cli.bench_front import crowd
from oblatus.drill.served import Served
from oblatus.drill.tablet import Tablet
from oblatus.store.server import LocalServer, free_port
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD
from oblatus.web.headers import SECURITY_HEADERS

PATIENCE = 300


PATHS = ("/fittings/none/player", "/icon.svg", "/lost.woff2", "/src/lost.woff2", "/assets/lost.js", "/api/lost.pdf")
ANSWERS = [200, 200, 404, 404, 404, 401]
"""Every address of a step is the page's, a file that is not there is nobody's, and the API asks who is there."""
FIRST = "First Fitter\nfirst@long-barrow.example\nflint and thyme\n"


def start(folder: Path, port: int, *flags: str, answers: str = FIRST) -> subprocess.Popen:
    command = [sys.executable, "-m", "oblatus.cli.main", "serve", "--data", str(folder), "--port", str(port), *flags]
    process = subprocess.Popen(
        command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True
    )
    with contextlib.suppress(BrokenPipeError):
        process.stdin.write(answers)
        process.stdin.close()
    process.stdin = None
    return process


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
    with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=PATIENCE) as reply:
        return json.load(reply)


def status(port: int, path: str) -> int:
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}{path}", timeout=PATIENCE) as reply:
            return reply.status
    except urllib.error.HTTPError as refused:
        return refused.code


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
        assert health(port)["database"] == "ok"
        assert not any("chalk and slate" in line for line in lines), "the published password is not set"
        tablet = Tablet(f"http://127.0.0.1:{port}", "first@long-barrow.example", "flint and thyme")
        tablet.sign_in()
        assert tablet.insist("GET", "/api/fittings").body == {"fittings": []}
        page = urllib.request.urlopen(f"http://127.0.0.1:{port}/", timeout=PATIENCE)
        assert page.headers["Content-Security-Policy"] == SECURITY_HEADERS["Content-Security-Policy"]
        assert [status(port, path) for path in PATHS] == ANSWERS
        with crowd(Served(tmp_path, port, False, first), tablet, 130, 130) as answered:
            assert answered == 130
            assert tablet.ask("GET", "/api/fittings").status == 200

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


def test_without_a_front_it_serves_and_live_lines_too(tmp_path):
    port = free_port()
    served = start(tmp_path, port, "--no-front")
    try:
        wait_for(served, "Oblatus is at")
        assert [status(port, path) for path in PATHS] == ANSWERS
        tablet = Tablet(f"http://127.0.0.1:{port}", DEMO_EMAIL, DEMO_PASSWORD)
        tablet.sign_in()
        with crowd(Served(tmp_path, port, False, served), tablet, 3, 3) as answered:
            assert answered == 3
            assert tablet.ask("GET", "/api/fittings").status == 200
    finally:
        served.send_signal(signal.SIGINT)
        served.wait(timeout=PATIENCE)
        LocalServer(tmp_path).stop()


def test_nobody_to_sign_in_is_said(tmp_path):
    process = start(tmp_path, free_port(), "--empty", answers="")
    out, _ = process.communicate(timeout=PATIENCE)
    assert process.returncode == 1
    assert "three lines of standard input" in out
    assert not LocalServer(tmp_path).running()


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
