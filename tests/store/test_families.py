"""Families on disk: found again, shared, and never read when broken."""

from __future__ import annotations

import numpy as np
import pytest

from oblatus.store.families import FamilyShelves

SHAPE = (3, 2, 4)


def rows(value: float) -> np.ndarray:
    return np.full(SHAPE, value, dtype=np.float32)


def test_what_one_worker_keeps_another_finds(tmp_path):
    one, other = FamilyShelves(tmp_path, SHAPE), FamilyShelves(tmp_path, SHAPE)
    assert other.find(["a"]) == {}
    one.put({"a": rows(1), "b": rows(2)})
    one.put({"c": rows(3)})
    found = other.find(["a", "c", "nowhere"])
    assert sorted(found) == ["a", "c"]
    assert found["c"] == pytest.approx(rows(3))
    assert FamilyShelves(tmp_path, SHAPE).find(["b"])["b"] == pytest.approx(rows(2))


def test_a_half_written_or_changed_shelf_is_never_read(tmp_path):
    FamilyShelves(tmp_path, SHAPE).put({"a": rows(1)})
    shelf = next(tmp_path.glob("*.shelf"))
    whole = shelf.read_bytes()
    for broken in (whole[:-5], whole[:10], b"", whole[:-1] + b"\x7f"):
        shelf.write_bytes(broken)
        assert FamilyShelves(tmp_path, SHAPE).find(["a"]) == {}
    (tmp_path / "later.new").write_bytes(whole)
    assert FamilyShelves(tmp_path, SHAPE).find(["a"]) == {}
    assert FamilyShelves(tmp_path, (3, 2, 5)).find(["a"]) == {}
    shelf.write_bytes(whole)
    assert list(FamilyShelves(tmp_path, SHAPE).find(["a"])) == ["a"]


def test_a_shelf_cleared_away_is_just_not_found(tmp_path):
    shelves = FamilyShelves(tmp_path, SHAPE)
    shelves.put({"a": rows(1)})
    assert list(shelves.find(["a"])) == ["a"]
    next(tmp_path.glob("*.shelf")).unlink()
    assert shelves.find(["a"]) == {}


def test_a_full_disk_costs_the_saving_not_the_answer(tmp_path, monkeypatch):
    shelves = FamilyShelves(tmp_path, SHAPE)

    def full(*_):
        raise OSError("no space left")

    monkeypatch.setattr("oblatus.store.families.os.fsync", full)
    shelves.put({"a": rows(1)})
    assert list(tmp_path.iterdir()) == []
