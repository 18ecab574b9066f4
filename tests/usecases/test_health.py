"""What the machine says of itself: what is wrong is named, and a full disk stops writing and nothing else."""

from __future__ import annotations

import os
import time
from collections import namedtuple
from dataclasses import replace
from datetime import timedelta
from uuid import uuid4

import pytest

from oblatus.store import disk
from oblatus.store.tables import LinkRow, now
from oblatus.usecases import health
from oblatus.usecases.health import BEAT, Health, health_of, state_of
from oblatus.web.app import create_app
from tests.conftest import signed_in

Usage = namedtuple("Usage", "total used free")


@pytest.fixture
def folder(tmp_path):
    (tmp_path / "run").mkdir()
    (tmp_path / "run" / BEAT).touch()
    return tmp_path


def test_all_is_well(database, settings, folder):
    found = health_of(database, replace(settings, data_dir=folder))
    assert found == Health("ok", found.disk, "ok", "ok", "none", "none")
    assert found.disk != "ok" or found.wrong() == []


def test_everything_that_can_be_wrong_is_named(database, settings, folder, monkeypatch):
    there = replace(settings, data_dir=folder)
    os.utime(folder / "run" / BEAT, (time.time() - 60, time.time() - 60))
    assert "the bridge to the devices does not run" in health_of(database, there).wrong()
    (folder / "run" / BEAT).unlink()
    assert health_of(database, there).bridge == "down"
    monkeypatch.setattr(disk.shutil, "disk_usage", lambda _: Usage(10, 10, 1_000))
    assert "the disk is full: nothing can be saved" in health_of(database, there).wrong()
    given_up = disk.FLOOR_BYTES + disk.BALLAST_BYTES - 1
    monkeypatch.setattr(disk.shutil, "disk_usage", lambda _: Usage(10, 10, given_up))
    assert health_of(database, there).disk == "full", "the ballast was given up for PostgreSQL, not for more strikes"
    (folder / disk.BALLAST).touch()
    assert health_of(database, there).disk == "low"
    monkeypatch.setattr(disk.shutil, "disk_usage", lambda _: Usage(10, 10, disk.LOW_BYTES - 1))
    assert "little room is left on the disk" in health_of(database, there).wrong()
    monkeypatch.setattr(health, "_memory_left", lambda: 1)
    assert "little memory is left" in health_of(database, there).wrong()
    copies = folder / "copies"
    copies.mkdir()
    old = copies / "old.oblatus"
    old.touch()
    assert health_of(database, there).backup == "ok"
    os.utime(old, (0, time.time() - 3 * 86400))
    assert health_of(database, there).backup == "late"


def test_a_device_is_live_only_while_its_lines_are_taken():
    row = LinkRow(fitting_id=uuid4(), studio_id=uuid4(), wanted=True, state="live", heard_at=now())
    assert state_of(row) == "live"
    assert state_of(row, now() + timedelta(seconds=health.HEARD_SECONDS + 1)) == "lost"
    row.heard_at = None
    assert state_of(row) == "lost"
    row.state = "connecting"
    assert state_of(row) == "connecting"


def test_a_full_disk_stops_writing_and_nothing_else(database, settings, folder, fitting, monkeypatch):
    app = create_app(replace(settings, data_dir=folder))
    client = signed_in(app, "fitter@scarp-end.example", "chalk and slate")
    base = f"/api/fittings/{fitting['id']}"
    monkeypatch.setattr(disk.shutil, "disk_usage", lambda _: Usage(10, 10, 1_000))
    strike = {"id": str(uuid4()), "club": "pw", "loft_deg": 46, "swing": "pitch", "carry_m": 20}
    for reply in (
        client.post(f"{base}/strikes", json={"strikes": [strike]}),
        client.patch(base, json={"revision": fitting["revision"], "player": fitting["document"]["player"]}),
        client.delete(base),
    ):
        assert (reply.status_code, reply.get_json()["code"]) == (507, "disk_full")
        assert reply.headers["Retry-After"]
    for path in ("", "/export", "/session"):
        assert client.get(base + path).status_code == 200
    assert client.post(f"{base}/carries", json={}).status_code == 200, "a question is no writing"
    state = client.get("/api/health")
    assert (state.status_code, state.get_json()["disk"], state.get_json()["status"]) == (503, "full", "degraded")
    signed_in(app, "fitter@scarp-end.example", "chalk and slate")
