"""Children that are kept up, logs that are kept short and can be written on a full disk, ports, and the front's words."""

from __future__ import annotations

import ast
import importlib.metadata
import importlib.util
import itertools
import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

from oblatus.errors import SetUpError
from oblatus.serving import ballast, logs
from oblatus.serving.children import FIRST_PAUSE, Child
from oblatus.serving.front import Front
from oblatus.serving.supervisor import choose_port, device_addresses, only_one
from oblatus.settings import PROJECT
from oblatus.store.server import LocalServer, free_port
from oblatus.web.headers import SECURITY_HEADERS
from tests.waiting import until


def child(tmp_path: Path, script: str) -> Child:
    return Child("test", [sys.executable, "-c", script], dict(os.environ), tmp_path / "log" / "test.log")


def test_a_child_that_ends_is_started_again_and_its_log_is_its_owners(tmp_path):
    one = child(tmp_path, "print('here', flush=True); import time; time.sleep(60)")
    one.start()
    assert one.log.stat().st_mode & 0o777 == 0o600
    first = one.process.pid
    os.kill(first, signal.SIGKILL)
    until(one.keep_up)
    assert one.running()
    assert one.process.pid != first
    one.end()
    assert not one.running()


def test_what_a_killed_child_leaves_behind_goes_before_it_is_started_again(tmp_path):
    told = tmp_path / "pid"
    script = (
        f"import subprocess, time; p = subprocess.Popen(['sleep', '60']); open({str(told)!r}, 'w').write(str(p.pid)); "
    )
    one = child(tmp_path, script + "time.sleep(60)")
    one.start()
    until(lambda: told.exists() and told.read_text() != "")
    left = Path(f"/proc/{told.read_text()}")
    os.kill(one.process.pid, signal.SIGKILL)
    until(one.keep_up)
    until(lambda: not left.exists() or "Z" in (left / "stat").read_text().split()[2])
    one.end()


def test_one_that_cannot_run_is_tried_with_longer_pauses(tmp_path):
    one = child(tmp_path, "raise SystemExit(1)")
    one.start()
    starts = [time.monotonic()]
    for _ in range(3):
        until(one.keep_up)
        starts.append(time.monotonic())
    pauses = [later - before for before, later in itertools.pairwise(starts)]
    assert all(pause >= FIRST_PAUSE * 2**n for n, pause in enumerate(pauses, 1))


def test_a_long_log_is_cut_while_it_is_written(tmp_path, monkeypatch):
    monkeypatch.setattr(logs, "LARGEST_BYTES", 1000)
    log = tmp_path / "web.log"
    with log.open("ab", buffering=0) as writer:
        for round_ in range(5):
            writer.write(b"x" * 1500 + b"\n")
            logs.rotate([log, tmp_path / "none.log"])
            writer.write(f"after {round_}\n".encode())
            assert log.read_bytes().startswith(b"after")
    assert sorted(path.name for path in tmp_path.glob("web.log.*")) == ["web.log.1", "web.log.2", "web.log.3"]


def test_a_log_has_room_set_by(tmp_path):
    with (tmp_path / "log").open("wb") as log:
        logs.reserve(log.fileno())
        found = os.fstat(log.fileno())
        assert found.st_size == 0
        assert found.st_blocks * 512 >= logs.RESERVE_BYTES


def test_the_ballast_is_given_up_and_taken_back(tmp_path, monkeypatch):
    ballast.trim(tmp_path)
    held = tmp_path / "ballast"
    assert held.exists() == (os.statvfs(tmp_path).f_bavail * os.statvfs(tmp_path).f_frsize > ballast.TAKEN_BACK_ABOVE)
    held.touch()
    monkeypatch.setattr(ballast, "GIVEN_UP_BELOW", 1 << 62)
    ballast.trim(tmp_path)
    assert not held.exists()


def test_devices_of_the_studios_own_are_kept_and_the_others_get_stand_ins():
    given = {"monitor": "192.0.2.9:7000"}
    found = device_addresses(given)
    assert found["monitor"] == "192.0.2.9:7000"
    ports = [found[kind].rpartition(":")[2] for kind in ("gauge", "hammer", "penetrometer")]
    assert len(set(ports)) == 3


def test_a_folder_serves_once_and_a_port_is_said(tmp_path):
    with only_one(tmp_path), pytest.raises(SetUpError, match="already runs"), only_one(tmp_path):
        pass
    with pytest.raises(SetUpError, match="port 1 "):
        choose_port("203.0.113.1", 1, 1)


def test_the_front_says_what_the_application_says(tmp_path):
    front = Front("127.0.0.1", free_port(), 1, 2, PROJECT / "frontend" / "dist", tmp_path, ["localhost"])
    command = front.command()
    done = subprocess.run([*command, "-t"], capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
    text = front.configuration()
    for name, value in SECURITY_HEADERS.items():
        assert f'add_header {name} "{value}" always;' in text


def test_an_old_cluster_without_checksums_gets_them_once_it_was_shut_down(tmp_path):
    server = LocalServer(tmp_path)
    server.start()

    def checksums() -> bool:
        return "checksum version:           1" in server._call("pg_controldata", "-D", str(server.data)).stdout

    assert checksums()
    server.stop()
    server._run("pg_checksums", "--disable", "-D", str(server.data))
    server.start()
    assert checksums()
    server.stop()


def test_an_old_cluster_without_passwords_is_closed(tmp_path):
    server = LocalServer(tmp_path, forgetful=True)
    server.start()
    rules = server.data / "pg_hba.conf"
    closed = rules.read_text()
    rules.write_text("host all all 127.0.0.1/32 trust\n")
    server.stop()
    url = server.start()
    assert rules.read_text() == closed
    assert "oblatus_app:" in url
    server.stop()


def test_what_the_live_worker_imports_stands_in_what_start_installs():
    """`./test` installs more than `./start`: what only the tests' packages bring would be missing where it is served."""
    worker = Path(str(importlib.util.find_spec("gunicorn.workers.ggevent").origin))
    found = {
        (node.module if isinstance(node, ast.ImportFrom) else node.names[0].name).split(".")[0]
        for node in ast.walk(ast.parse(worker.read_text()))
        if isinstance(node, ast.Import | ast.ImportFrom)
    }
    made_by = importlib.metadata.packages_distributions()
    asked = {one.lower() for name in found for one in made_by.get(name, [])}
    lines = (PROJECT / "requirements.txt").read_text().splitlines()
    locked = {line.split("==")[0].split("[")[0].lower() for line in lines if "==" in line and not line.startswith(" ")}
    assert {"gunicorn", "gevent", "packaging"} <= asked
    assert asked - locked == set()
