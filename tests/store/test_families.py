"""Families in one mapped file: found by every worker, never read while another writes, begun anew after a restart."""

from __future__ import annotations

import multiprocessing

import numpy as np
import pytest

from oblatus.core.clubs import Head
from oblatus.core.fitting.nodes import quadrature
from oblatus.core.grounds import Turf
from oblatus.core.strike import FamilyJob, FamilyPool, ground_row
from oblatus.core.strike.family_jobs import SHAPE as FAMILY
from oblatus.store import families
from oblatus.store.families import SharedBlock

SHAPE = (3, 2, 4)


def put(block: SharedBlock, **values: float) -> None:
    for key, slot in block.take(list(values), []).items():
        block.rows[slot] = values[key]
    block.publish(list(values))


def test_what_one_worker_makes_another_finds(tmp_path):
    one, other = SharedBlock(tmp_path, SHAPE, 8), SharedBlock(tmp_path, SHAPE, 8)
    assert other.find(["a"]) == {}
    put(one, a=1.0, b=2.0)
    put(other, c=3.0)
    for block in (one, other, SharedBlock(tmp_path, SHAPE, 8)):
        found = block.find(["a", "b", "c", "nowhere"])
        assert sorted(found) == ["a", "b", "c"]
        assert [float(block.rows[found[key]].mean()) for key in "abc"] == [1.0, 2.0, 3.0]


def test_what_is_taken_and_not_published_is_not_found(tmp_path):
    one, other = SharedBlock(tmp_path, SHAPE, 8), SharedBlock(tmp_path, SHAPE, 8)
    one.take(["a"], [])
    assert other.find(["a"]) == {}
    one.drop(["a"])
    put(other, a=5.0)
    assert float(one.rows[one.find(["a"])["a"]].mean()) == 5.0


def test_those_not_asked_for_longest_make_room_and_whoever_used_them_hears_of_it(tmp_path):
    one, other = SharedBlock(tmp_path, SHAPE, 4), SharedBlock(tmp_path, SHAPE, 4)
    put(one, a=1.0, b=2.0)
    held = other.find(["a", "b"])
    assert other.still(held)
    put(one, c=3.0, d=4.0)
    assert other.still(held)
    other.find(["a"])
    put(one, e=5.0)
    assert not other.still(held)
    assert sorted(other.find(["a", "b", "c", "d", "e"])) == ["a", "c", "d", "e"]


def test_what_is_in_use_is_not_taken_over_by_the_same_question(tmp_path):
    block = SharedBlock(tmp_path, SHAPE, 4)
    put(block, a=1.0, b=2.0, c=3.0)
    block.take(["d", "e"], ["a"])
    assert "a" in block.find(["a"])


def test_another_grid_or_start_of_the_machine_begins_anew(tmp_path, monkeypatch):
    put(SharedBlock(tmp_path, SHAPE, 8), a=1.0)
    assert SharedBlock(tmp_path, (3, 2, 5), 8).find(["a"]) == {}
    put(SharedBlock(tmp_path, SHAPE, 8), a=1.0)
    boot = tmp_path / "boot"
    boot.write_text("another")
    monkeypatch.setattr(families, "BOOT", boot)
    assert SharedBlock(tmp_path, SHAPE, 8).find(["a"]) == {}


def test_a_question_that_comes_back_has_made_what_is_missing_alone(tmp_path):
    """Slots that went round had new ones push out others of the same question."""
    pool = FamilyPool(block=SharedBlock(tmp_path, FAMILY, 50))
    first, second = _jobs(0, 30), _jobs(100, 130)
    for jobs in (first, second):
        pool.prepare(jobs)
    assert pool.computed == 60
    for _ in range(2):
        pool.prepare(first)
        assert pool.computed == 70


def test_a_disk_without_room_stops_the_growth_and_the_oldest_make_room(tmp_path, monkeypatch):
    monkeypatch.setattr(families, "GROWTH", 2)
    monkeypatch.setattr(families, "room", lambda _: "low")
    block = SharedBlock(tmp_path, SHAPE, 8)
    put(block, a=1.0, b=2.0)
    put(block, c=3.0)
    assert sorted(block.find(["a", "b", "c"])) == ["b", "c"]


def test_more_than_a_disk_without_room_holds_is_told_as_not_standing(tmp_path, monkeypatch):
    """Whoever asked makes them in a block of its own then."""
    monkeypatch.setattr(families, "GROWTH", 2)
    monkeypatch.setattr(families, "room", lambda _: "low")
    block = SharedBlock(tmp_path, SHAPE, 8)
    put(block, a=1.0)
    slots = block.take(["b", "c", "d"], ["a"])
    block.publish(["b", "c", "d"])
    assert not block.still(slots)
    assert block.still(block.find(["b", "c", "d"]))


def test_no_room_at_all_is_an_error(tmp_path, monkeypatch):
    def full(*_):
        raise OSError("no space left")

    monkeypatch.setattr("oblatus.store.families.os.posix_fallocate", full)
    with pytest.raises(OSError, match="no space"):
        SharedBlock(tmp_path, SHAPE, 8)


def _jobs(low: int, high: int) -> list[FamilyJob]:
    kind, row = ground_row(Turf(90))
    return [FamilyJob(Head(48 + n / 10, 9), 0.0, kind, tuple(row.tolist()), 20.0, 1.0) for n in range(low, high)]


def _answers(pool: FamilyPool, jobs: list[FamilyJob]) -> np.ndarray:
    n = len(jobs)
    means, roots = np.tile([-0.09, 0.07, -0.034], (n, 1)), np.tile(np.diag([0.026, 0.035, 0.015]), (n, 1, 1))
    return pool.expect(jobs, means, roots, *quadrature())


def _ask(folder: str, low: int, high: int, answers) -> None:
    from pathlib import Path

    pool = FamilyPool(block=SharedBlock(Path(folder), FAMILY, 75))
    answers.put((low, [_answers(pool, _jobs(low + k, high + k)).tolist() for k in range(0, 60, 10)]))


def test_two_processes_that_crowd_one_another_out_get_right_answers(tmp_path):
    """Hardly more slots than both need: each takes over the other's, and asks again when it was so."""
    context = multiprocessing.get_context("spawn")
    answers = context.Queue()
    asked = [context.Process(target=_ask, args=(str(tmp_path), low, low + 30, answers)) for low in (0, 15)]
    for process in asked:
        process.start()
    told = dict(answers.get(timeout=120) for _ in asked)
    for process in asked:
        process.join()
    for low in (0, 15):
        for k, answer in zip(range(0, 60, 10), told[low], strict=True):
            assert np.array(answer) == pytest.approx(_answers(FamilyPool(), _jobs(low + k, low + 30 + k)))
