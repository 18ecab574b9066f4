"""What one worker has worked out the others find, under all that it rests on, and nothing that is broken or older."""

from __future__ import annotations

import os
from uuid import uuid4

from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.formats.strikes import strike_from
from oblatus.usecases import answers, ask_engine
from oblatus.usecases import propose as proposing
from oblatus.usecases.answers import keep_answer, kept_answer
from oblatus.usecases.engine import engine
from oblatus.usecases.question import Question, question_of


def asked(handicap: float = 15.4) -> Question:
    document = demo_fittings()[0]
    player = document.player.model_copy(update={"handicap": handicap})
    strikes = tuple(strike_from(strike) for strike in document.strikes)
    return question_of(document.model_copy(update={"player": player}), demo_rack(), strikes)


class Told(ask_engine.FlipsOut):
    """An answer that costs nothing."""


ANSWER = Told(revision=7, flips=[])


def test_an_answer_is_found_for_the_same_question_of_the_same_program_and_for_no_other(tmp_path, monkeypatch):
    keep_answer(tmp_path, "flips", asked(), ANSWER)
    assert kept_answer(tmp_path, "flips", Told, asked()) == ANSWER
    one_less = Question(asked().document, asked().heads, asked().strikes[1:], asked().key)
    another_rack = Question(asked().document, asked().heads[1:], asked().strikes, asked().key)
    for other in (asked(15.5), one_less, another_rack):
        assert kept_answer(tmp_path, "flips", Told, other) is None
    assert kept_answer(tmp_path, "schools", Told, asked()) is None
    assert kept_answer(None, "flips", Told, asked()) is None
    monkeypatch.setattr(answers, "PROGRAM", "a newer one")
    assert kept_answer(tmp_path, "flips", Told, asked()) is None


def test_what_was_broken_off_is_worked_out_again_and_what_is_old_makes_room(tmp_path, monkeypatch):
    monkeypatch.setattr(answers, "KEPT", 2)
    for n, handicap in enumerate((1.0, 2.0, 3.0)):
        keep_answer(tmp_path, "flips", asked(handicap), ANSWER)
        newest = max(tmp_path.iterdir(), key=lambda file: file.stat().st_mtime_ns)
        os.utime(newest, (n, n))
    assert [kept_answer(tmp_path, "flips", Told, asked(h)) for h in (1.0, 2.0, 3.0)] == [None, ANSWER, ANSWER]
    newest.write_text('{"revision": 7, "fl')
    assert kept_answer(tmp_path, "flips", Told, asked(3.0)) is None
    keep_answer(tmp_path / "gone", "flips", asked(), ANSWER)  # no room, or no folder: what is not kept is not there
    assert kept_answer(tmp_path / "gone", "flips", Told, asked()) is None


def test_what_another_worker_proposed_is_no_edit_and_is_worked_out_by_nobody_again(tmp_path, monkeypatch):
    """Choices on a card, say, ask for nothing new: the worker that takes them may not be the one that has searched."""
    monkeypatch.setattr(engine().work, "folder", tmp_path)
    document, fitting = demo_fittings()[1], uuid4()
    document = document.model_copy(update={"player": document.player.model_copy(update={"handicap": 17.9})})
    found = proposing.propose(document, demo_rack(), fitting=fitting)
    sure = ask_engine._how_sure(question_of(document, demo_rack(), None))
    proposing._DONE.clear()
    ask_engine._how_sure.cache.clear()
    monkeypatch.delattr(proposing.whole, "propose")
    monkeypatch.delattr(ask_engine, "recommend")
    after_an_edit = proposing.propose(document, demo_rack(), fitting=fitting, edited=True)
    assert after_an_edit == found
    assert after_an_edit.result is not None
    assert after_an_edit.result.whole_rack
    assert ask_engine._how_sure(question_of(document, demo_rack(), None)) == sure


def test_a_name_that_takes_long_to_reckon_is_not_asked_for(tmp_path, monkeypatch):
    monkeypatch.setattr(answers, "MOST_STRIKES", 5)
    keep_answer(tmp_path, "flips", asked(), ANSWER)
    assert list(tmp_path.iterdir()) == []
