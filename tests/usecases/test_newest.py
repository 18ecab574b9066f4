"""Long questions: begun anew when the fitting is edited, in threads that give way, the same one only once."""

from __future__ import annotations

import os
import threading
import time
from dataclasses import replace
from uuid import uuid4

import pytest

from oblatus.core import threads
from oblatus.core.fitting import StrokesJudge, recommend
from oblatus.core.strike import FamilyPool
from oblatus.core.strike.families import Turns
from oblatus.core.threads import begin_at_once, end_at_once, in_threads, let_pass, patiently, side_by_side
from oblatus.core.wanted import NoLongerWanted, check_wanted, wanted_while
from oblatus.errors import LaterError
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.formats.strikes import strike_from
from oblatus.usecases import propose as proposing
from oblatus.usecases.asker import ASKER_WAITS
from oblatus.usecases.engine import FLIPS, LAWS, PATIENT_NICE, SCHOOLS, Work, engine, question
from oblatus.usecases.near import clubs_near, keep_near
from oblatus.usecases.newest import MOST_RESTARTS, of_the_newest
from tests.waiting import until


def nice() -> int:
    return os.getpriority(os.PRIO_PROCESS, threading.get_native_id())


def test_patient_work_and_its_helpers_give_way_and_nothing_else_does():
    mine = nice()
    assert patiently(nice) == mine + PATIENT_NICE
    assert patiently(lambda: list(in_threads(lambda _: nice(), range(4)))) == [mine + PATIENT_NICE] * 4
    assert patiently(lambda: list(side_by_side(lambda _: nice(), range(4)))) == [mine + PATIENT_NICE] * 4
    assert list(in_threads(lambda _: nice(), range(4))) == [mine] * 4
    assert list(side_by_side(lambda _: nice(), range(4))) == [mine] * 4
    assert patiently(lambda: patiently(nice)) == mine + PATIENT_NICE, "asked within itself it waits for no other thread"
    with pytest.raises(ZeroDivisionError):
        patiently(lambda: 1 / 0)


def test_whoever_holds_a_turn_has_helpers_though_questions_side_by_side_wait_for_it():
    turns, said = Turns(), []

    def wait_for_a_turn(n: int) -> int:
        with turns:
            return n

    asking = threading.Thread(target=lambda: said.append(list(side_by_side(wait_for_a_turn, range(4)))), daemon=True)
    with turns:
        asking.start()
        until(lambda: len(turns._waiting) == 2)
        helped = threading.Thread(target=lambda: said.append(list(in_threads(lambda n: -n, range(4)))), daemon=True)
        helped.start()
        helped.join(20.0)
        assert said == [[0, -1, -2, -3]]
    asking.join(20.0)
    assert said[1:] == [[0, 1, 2, 3]]


def test_work_ends_between_its_parts_when_it_is_wanted_no_longer():
    check_wanted()
    with wanted_while(lambda: True):
        check_wanted()
        with wanted_while(lambda: False), pytest.raises(NoLongerWanted):
            list(side_by_side(lambda _: check_wanted(), range(2)))
        with wanted_while(lambda: False), pytest.raises(NoLongerWanted):
            patiently(check_wanted)
        check_wanted()
    check_wanted()


def test_an_edit_reaches_every_worker_and_not_what_begins_later(tmp_path):
    mine, other, fitting = Work(folder=tmp_path), Work(folder=tmp_path), uuid4()
    begun = time.time() - 1.0
    assert not mine.edited_since(fitting, begun)
    other.edited(fitting)
    assert mine.edited_since(fitting, begun)
    assert not mine.edited_since(uuid4(), begun)
    assert not mine.edited_since(fitting, time.time() + 1.0)
    alone = Work()
    alone.edited(fitting)
    assert alone.edited_since(fitting, begun)


def test_a_question_is_begun_anew_after_an_edit_and_carried_through_in_the_end():
    fitting, begun = uuid4(), []

    def ask(edits: int) -> int:
        begun.append(edits)
        if len(begun) <= edits:
            time.sleep(0.002)
            engine().work.edited(fitting)
        check_wanted()
        return len(begun)

    assert of_the_newest(fitting, lambda: ask(2)) == 3
    begun.clear()
    assert of_the_newest(fitting, lambda: ask(1000)) == MOST_RESTARTS + 1, "somebody who never stops typing is answered"


def test_nothing_goes_on_for_an_asker_who_has_gone_but_what_is_kept_for_later_until_an_edit():
    fitting, begun, here = uuid4(), [], [True]

    def ask(edits: int, gone_at: int) -> int:
        begun.append(edits)
        if len(begun) <= edits:
            time.sleep(0.002)
            engine().work.edited(fitting)
        here[0] = len(begun) < gone_at
        check_wanted()
        return len(begun)

    token = ASKER_WAITS.set(lambda: here[0])
    try:
        assert of_the_newest(fitting, lambda: ask(0, 1), for_later=FLIPS) == 1, "whoever comes back finds it"
        begun.clear()
        with pytest.raises(LaterError):
            of_the_newest(fitting, lambda: ask(0, 1))
        assert len(begun) == 1
        for edits in (1, 2, 1000):
            begun.clear()
            with pytest.raises(LaterError):
                of_the_newest(fitting, lambda: ask(edits, 1), for_later=FLIPS)  # noqa: B023 (now)
            assert len(begun) == 1
        begun.clear()
        with pytest.raises(LaterError):
            of_the_newest(fitting, lambda: ask(1, 2), for_later=FLIPS)
        assert len(begun) == 2, "what was begun anew ends with its asker"
        begun.clear()
        with pytest.raises(LaterError):
            of_the_newest(fitting, lambda: ask(1000, MOST_RESTARTS + 1))
        assert len(begun) == MOST_RESTARTS + 1
    finally:
        ASKER_WAITS.reset(token)


def test_a_question_that_is_stopped_ends_though_it_is_kept_for_later_and_another_screen_has_it_begun_anew():
    fitting, begun, here = uuid4(), [], [False]

    def ask(kind: str) -> int:
        begun.append(kind)
        if len(begun) == 1:
            time.sleep(0.002)
            engine().work.stop(question(fitting, FLIPS))
        check_wanted()
        return len(begun)

    token = ASKER_WAITS.set(lambda: here[0])
    try:
        with pytest.raises(LaterError):
            of_the_newest(fitting, lambda: ask(FLIPS), for_later=FLIPS)
        begun.clear()
        assert of_the_newest(fitting, lambda: ask(SCHOOLS), for_later=SCHOOLS) == 1, "a question of another kind goes on"
        begun.clear()
        here[0] = True
        assert of_the_newest(fitting, lambda: ask(FLIPS), for_later=FLIPS) == 2
    finally:
        ASKER_WAITS.reset(token)


def test_what_was_given_up_is_counted_no_longer():
    """It stood on the screen for five seconds more, and again beside every count that came later."""
    fitting, work, counted = uuid4(), engine().work, []

    def ask() -> int:
        counted.append((dict(work.counts["asked"]), dict(work.counts[LAWS])))
        if len(counted) == 1:
            work.tell(10, 100)
            work.tell_of(LAWS, 3, 8)
            time.sleep(0.002)
            work.edited(fitting)
        check_wanted()
        return len(counted)

    assert of_the_newest(fitting, ask) == 2
    assert counted[1] == ({}, {})


def test_a_stop_takes_away_the_count_of_its_own_question_alone():
    """The trials go on beside it, and their count is what they are stopped by."""
    fitting, work, counted = uuid4(), engine().work, []

    def ask() -> int:
        counted.append((dict(work.counts[FLIPS]), dict(work.counts[LAWS])))
        if len(counted) == 1:
            work.tell_of(LAWS, 3, 8)
            work.tell_of(FLIPS, 2, 5)
            time.sleep(0.002)
            work.stop(question(fitting, FLIPS))
        check_wanted()
        return len(counted)

    try:
        assert of_the_newest(fitting, ask, for_later=FLIPS) == 2
        assert [len(kind) for kind in counted[1]] == [0, 1]
    finally:
        work.tell_of(LAWS, 0, 0)


def test_an_edit_ends_the_search_for_the_fitting_as_it_was_and_the_next_one_is_the_newests():
    documents = [demo_fittings()[3]]
    player = documents[0].player
    lean = player.delivery.lean_deg.model_copy(update={"mean": 2.75})
    delivery = player.delivery.model_copy(update={"lean_deg": lean})
    edited = documents[0].model_copy(update={"player": player.model_copy(update={"delivery": delivery})})
    fitting, asked = uuid4(), []
    proposing.propose(documents[0], demo_rack(), fitting=fitting)

    def ask() -> proposing.Proposal:
        now = edited.model_copy() if not asked else later
        asked.append(now)
        if len(asked) == 1:  # somebody types while this is asked
            quick = proposing.propose(later, demo_rack(), fitting=fitting, edited=True)
            assert quick.result is not None
            assert not quick.result.whole_rack
        return proposing.propose(now, demo_rack())

    wide = lean.model_copy(update={"mean": 2.8})
    later = edited.model_copy(
        update={"player": player.model_copy(update={"delivery": delivery.model_copy(update={"lean_deg": wide})})}
    )
    found = of_the_newest(fitting, ask)
    assert len(asked) == 2
    assert found.result is not None
    assert found.result.whole_rack


def test_the_same_question_asked_twice_at_once_is_worked_out_once(monkeypatch):
    worked = []
    whole = proposing.whole.propose

    def counted(*arguments, **named):
        worked.append(arguments)
        return whole(*arguments, **named)

    monkeypatch.setattr(proposing.whole, "propose", counted)
    document = demo_fittings()[1]
    document = document.model_copy(update={"player": document.player.model_copy(update={"handicap": 17.3})})
    found = list(side_by_side(lambda _: proposing.propose(document, demo_rack()), range(2)))
    assert found[0] is found[1]
    assert len(worked) == 1


def test_a_hand_that_asks_what_is_worked_on_already_does_not_hold_it_up(monkeypatch):
    """However long patient work would pause, and though more ask at once than there are patient threads."""
    monkeypatch.setattr(threads, "LONGEST_PAUSE", 3600.0)
    whole, worked, begun = proposing.whole.propose, [], threading.Event()

    def counted(*arguments, **named):
        worked.append(arguments)
        begun.set()
        return whole(*arguments, **named)

    monkeypatch.setattr(proposing.whole, "propose", counted)
    document = demo_fittings()[1]
    document = document.model_copy(update={"player": document.player.model_copy(update={"handicap": 17.6})})
    found = []

    def by_hand() -> None:
        begin_at_once()
        found.append(proposing.propose(document, demo_rack()))
        end_at_once()

    def at_leisure() -> None:
        found.append(of_the_newest(uuid4(), lambda: proposing.propose(document, demo_rack())))

    asking = [threading.Thread(target=at_leisure, daemon=True)]
    asking[0].start()
    assert begun.wait(60.0)
    for ask in [by_hand, *[at_leisure] * threads.PATIENT, by_hand]:
        asking.append(threading.Thread(target=ask, daemon=True))
        asking[-1].start()
    for thread in asking:
        thread.join(120.0)
    assert len(found) == len(asking)
    assert len(worked) == 1
    assert all(one is found[0] for one in found)


def test_patient_work_pauses_a_while_for_a_hand_and_not_anew_at_every_part(monkeypatch):
    monkeypatch.setattr(threads, "LONGEST_PAUSE", 0.2)
    begin_at_once()
    try:
        began = time.monotonic()
        paused = threading.Thread(target=lambda: (threads.stand_back(), [let_pass() for _ in range(100)]))
        paused.start()
        paused.join()
        assert 0.1 < time.monotonic() - began < 15.0  # a pause at every part would take twenty seconds
    finally:
        end_at_once()


def test_a_hand_is_never_waited_for_by_whom_it_waits_for(monkeypatch):
    """However long patient work would pause: not within a part, for whose end the other may be waiting."""
    monkeypatch.setattr(threads, "LONGEST_PAUSE", 3600.0)
    judge, over = StrokesJudge(FamilyPool()), threading.Event()
    slow, quick = (fitting_from(demo_fittings()[n], demo_rack()) for n in (1, 3))
    recommend(quick, judge)

    def work() -> None:
        while not over.is_set():
            recommend(slow, StrokesJudge(judge.pool))

    patient = threading.Thread(target=lambda: patiently(work))

    def ask() -> None:
        for n in range(6):
            begin_at_once()
            moved = replace(quick.player, handicap=10.0 + n)
            recommend(replace(quick, player=moved), judge)
            end_at_once()

    hand = threading.Thread(target=ask, daemon=True)
    patient.start()
    hand.start()
    hand.join(120.0)
    over.set()
    patient.join(120.0)
    assert not hand.is_alive()
    assert not patient.is_alive()


def test_a_fitting_that_is_opened_waits_for_no_search():
    """It says that its set is to come, and on what strikes; once one was made for it, a quick one."""
    document, fitting = demo_fittings()[0], uuid4()
    player = document.player.model_copy(update={"handicap": 15.2})
    unknown = document.model_copy(update={"player": player})
    strikes = tuple(strike_from(strike) for strike in document.strikes)
    first = proposing.propose_at_once(unknown, demo_rack(), strikes, fitting)
    assert first.to_come
    whole = proposing.propose(unknown, demo_rack(), strikes, fitting=fitting)
    assert (first.strikes, first.strikes_key) == (whole.strikes, whole.strikes_key)
    assert whole.strikes > 20
    assert not whole.to_come
    assert proposing.propose_at_once(unknown, demo_rack(), strikes, fitting) is whole
    other = unknown.model_copy(update={"player": player.model_copy(update={"handicap": 15.3})})
    near = proposing.propose_at_once(other, demo_rack(), strikes, fitting)
    assert near.result is not None
    assert not near.result.whole_rack


def test_what_keeps_the_engine_from_a_set_is_no_set_that_is_to_come():
    document = demo_fittings()[0]
    full = document.model_copy(update={"bag": document.bag.model_copy(update={"other_clubs": 14})})
    assert proposing.propose_at_once(full, demo_rack(), (), uuid4()).to_come
    found = proposing.propose(full, demo_rack(), ())
    assert not found.to_come
    assert [fault.field for fault in found.problem] == ["bag.other_clubs"]
    assert not proposing.propose_at_once(full, demo_rack(), (), uuid4()).to_come


def test_clubs_near_a_choice_are_every_workers(tmp_path):
    fitting, clubs = uuid4(), frozenset({("HG50", 50.0), ("own-1", 60.5)})
    for folder in (tmp_path, None):
        assert clubs_near(folder, fitting) is None
        keep_near(folder, fitting, clubs)
        assert clubs_near(folder, fitting) == clubs
        assert clubs_near(folder, uuid4()) is None
    keep_near(tmp_path, fitting, {("BN55", 55.0)})
    assert clubs_near(tmp_path, fitting) == {("BN55", 55.0)}
    assert len(list(tmp_path.iterdir())) == 1
    keep_near(tmp_path / "gone", fitting, clubs)  # no room, or no folder: what is not kept is not there
    assert clubs_near(tmp_path / "gone", fitting) is None


def test_an_edit_of_the_bag_is_answered_from_the_clubs_near_the_fittings_last_choice():
    document, fitting = demo_fittings()[0], uuid4()
    wedges = [wedge.model_copy(update={"loft_deg": wedge.loft_deg + 0.5}) for wedge in document.bag.wedges]
    bent = document.model_copy(update={"bag": document.bag.model_copy(update={"wedges": tuple(wedges)})})
    proposing.propose(document, demo_rack(), fitting=fitting)
    mine = proposing.propose(bent, demo_rack(), fitting=fitting, edited=True)
    assert mine.result is not None
    assert not mine.result.whole_rack
    assert len(mine.result.bag) == len(wedges)
    anybodys = proposing.propose(bent, demo_rack(), fitting=uuid4(), edited=True)
    assert anybodys.to_come, "a fitting that had no set yet has none near it, and its edit waits for none"
