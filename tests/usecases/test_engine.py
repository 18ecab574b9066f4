"""The process's engine: progress that other workers can read, and proposals computed once."""

from __future__ import annotations

import json
import os
import time
from dataclasses import replace

from oblatus.core.fitting import StrokesJudge, recommend
from oblatus.core.strike import FamilyPool
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.usecases.engine import AHEAD, KINDS, LAWS, WORKS_FOR, Engine, Work
from oblatus.usecases.passwords import hash_password, password_fits
from oblatus.usecases.propose import propose


def test_progress_of_all_workers_is_summed_and_a_broken_file_is_passed_over(tmp_path):
    work = Work(folder=tmp_path)
    WORKS_FOR.set("mine")
    work.tell(64, 300)
    others = {"mine": {"asked": [10, 100], "ahead": [5, 7], "laws": [2, 8]}, "theirs": {"asked": [1, 900]}}
    (tmp_path / "work-1.json").write_text(json.dumps(others))
    (tmp_path / "work-2.json").write_text("[")
    idle = dict.fromkeys(KINDS, (0, 0))
    mine = idle | {"asked": (74, 400), "ahead": (5, 7), "laws": (2, 8)}
    assert Work(folder=tmp_path).everywhere("mine") == mine
    work.tell(300, 300)
    assert work.everywhere("mine") == mine | {"asked": (10, 100)}
    work.tell_of(LAWS, 1, 8)
    assert work.everywhere("mine") == mine | {"asked": (10, 100), "laws": (3, 16)}
    assert work.everywhere("theirs") == idle | {"asked": (1, 900)}
    assert Work().everywhere("mine") == idle


def test_what_workers_that_are_gone_have_left_is_taken_away(tmp_path):
    gone, alive = tmp_path / "work-1.json", tmp_path / "work-2.json"
    for file in (gone, alive):
        file.write_text("{}")
    os.utime(gone, (1.0, 1.0))
    Work(folder=tmp_path).forget_old()
    assert not gone.exists()
    assert alive.exists()


def test_a_stop_reaches_every_worker_and_not_what_begins_later(tmp_path):
    mine, other = Work(folder=tmp_path), Work(folder=tmp_path)
    begun = time.time() - 1
    assert not mine.stopped_since("scarp", begun)
    other.stop("scarp")
    assert mine.stopped_since("scarp", begun)
    assert not mine.stopped_since("another studio", begun)
    assert not mine.stopped_since("scarp", time.time() + 1)


def ahead_engine() -> Engine:
    return Engine(works_ahead=True)


def test_what_is_made_ahead_serves_the_search_and_the_next_habit():
    fitting = fitting_from(demo_fittings()[3], demo_rack())
    engine = ahead_engine()
    engine.make_ahead(fitting, "fitting")
    engine.wait()
    made = engine.pool.computed
    recommend(fitting, engine.judge)
    # what comes after are the bends of the sets near the best, reckoned exactly
    searched = engine.pool.computed
    assert made < searched < 1.25 * made
    habit = fitting.player.habit
    moved = replace(habit, attack_deg=replace(habit.attack_deg, mean=-6.0))
    recommend(replace(fitting, player=replace(fitting.player, habit=moved)), engine.judge)
    assert engine.pool.computed < 1.1 * searched
    engine.make_ahead(fitting, "fitting")
    engine.wait()
    assert engine.work.counts[AHEAD] == {}


def test_making_ahead_can_be_stopped_and_a_later_fitting_takes_its_place():
    fittings = [fitting_from(demo_fittings()[n], demo_rack()) for n in (0, 3)]
    WORKS_FOR.set("scarp")
    engine = ahead_engine()
    engine.make_ahead(fittings[0], "first")
    while "scarp" not in engine.work.counts[AHEAD]:
        time.sleep(0.005)
    total = engine.work.counts[AHEAD]["scarp"][1]
    engine.work.stop("another studio")
    engine.work.stop("scarp")
    engine.wait()
    assert engine.pool.computed < total / 2
    engine.make_ahead(fittings[0], "again")
    engine.make_ahead(fittings[1], "second")
    engine.wait()
    ahead = engine.pool.computed
    recommend(fittings[1], engine.judge)
    assert engine.pool.computed < 1.25 * ahead


def test_equal_inputs_are_computed_once_whoever_brings_the_rack():
    document, rack = demo_fittings()[1], demo_rack()
    first = propose(document, rack)
    carried = document.model_copy(update={"rack": tuple(rack)})
    assert propose(carried, ()) is first
    assert propose(document, rack[:-1]) is not first


def test_typing_a_complaint_computes_nothing_and_a_number_does():
    document, rack = demo_fittings()[1], demo_rack()
    first = propose(document, rack)
    words = document.player.model_copy(update={"complaints": "digs", "name": "Someone Else"})
    assert propose(document.model_copy(update={"player": words}), rack) is first
    number = document.player.model_copy(update={"handicap": 3.0})
    assert propose(document.model_copy(update={"player": number}), rack) is not first


def test_families_outlive_a_change_of_player():
    document, rack, pool = demo_fittings()[1], demo_rack()[:6], FamilyPool()
    recommend(fitting_from(document, rack), StrokesJudge(pool))
    made = pool.computed
    delivery = document.player.delivery
    entry = delivery.entry_mm.model_copy(update={"mean": -50.0})
    delivery = delivery.model_copy(update={"entry_mm": entry})
    player = document.player.model_copy(update={"delivery": delivery})
    recommend(fitting_from(document.model_copy(update={"player": player}), rack), StrokesJudge(pool))
    assert 0 < pool.computed < 1.1 * made


def test_passwords(settings):
    stored = hash_password("chalk", settings)
    assert password_fits("chalk", stored, settings)
    assert not password_fits("cheese", stored, settings)
    assert not password_fits("chalk", None, settings)
    assert not password_fits("chalk", "not a hash", settings)
