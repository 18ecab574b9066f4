"""What was reckoned serves again: an edit reckons what it changes, and its figures are those of a fresh judge."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import replace

import numpy as np
import pytest

from oblatus.core.clubs import Head
from oblatus.core.fitting import StrokesJudge, recommend
from oblatus.core.fitting.asked import Wanted
from oblatus.core.fitting.reckoned import MOST_QUESTIONS, Part, Reckoned, Rows, name_of, name_of_all
from oblatus.core.fitting.recommendation import near
from oblatus.core.shots import default_shot_mix
from oblatus.core.strike import FamilyPool


@pytest.fixture
def rows(monkeypatch):
    """How many rows of strikes each question to the families had."""
    counted: list[int] = []
    visit = FamilyPool.visit

    def counting(pool, jobs, *rest):
        counted.append(len(jobs))
        visit(pool, jobs, *rest)

    monkeypatch.setattr(FamilyPool, "visit", counting)
    return counted


def of_player(fitting, **changes):
    return replace(fitting, player=replace(fitting.player, **changes))


def of_first_ground(fitting, **changes):
    first, *others = fitting.grounds
    return replace(fitting, grounds=(replace(first, **changes), *others))


def mixed(fitting):
    mix = default_shot_mix(fitting.player.handicap)
    key = max(mix, key=lambda one: mix[one])
    return of_player(fitting, shot_mix=mix | {key: 1.5 * mix[key]})


def leaning(fitting):
    habit = fitting.player.habit
    lean = replace(habit.lean_deg, mean=habit.lean_deg.mean + 0.7)
    return of_player(fitting, habit=replace(habit, lean_deg=lean))


NOTHING, SOME, ALL = "nothing", "some", "all"
EDITS = {
    "practice": (NOTHING, lambda f: replace(f, economy=replace(f.economy, practice=2.0 * f.economy.practice))),
    "share": (NOTHING, lambda f: of_first_ground(f, share=0.5 * f.grounds[0].share)),
    "mix": (SOME, mixed),
    "turf": (SOME, lambda f: of_first_ground(f, turf=replace(f.grounds[0].turf, firmness_g=110.0))),
    "school": (SOME, lambda f: of_player(f, schools=replace(f.player.schools, tight_firm="use_sole"))),
    "green": (SOME, lambda f: of_first_ground(f, green="firm" if f.grounds[0].green != "firm" else "soft")),
    "handicap": (ALL, lambda f: of_player(f, handicap=f.player.handicap + 3.0)),
    "lean": (ALL, leaning),
}


@pytest.mark.parametrize("edit", EDITS)
def test_an_edit_reckons_what_it_changes_and_says_what_a_fresh_judge_says(edit, fittings, judge, rows):
    fitting, (much, change) = fittings[0], EDITS[edit]
    mine = StrokesJudge(judge.pool)
    among = near(recommend(fitting, mine, frozenset()))
    recommend(fitting, mine, among)
    rows.clear()
    changed = change(fitting)
    again = recommend(changed, mine, among)
    asked = sum(rows)
    rows.clear()
    fresh = recommend(changed, StrokesJudge(judge.pool), among)
    whole = sum(rows)
    assert {NOTHING: asked == 0, SOME: 0 < asked < 0.8 * whole, ALL: asked == whole}[much], (asked, whole)
    for name in ("cost", "strokes", "pick"):
        np.testing.assert_array_equal(getattr(again.costs, name), getattr(fresh.costs, name))
    head = again.candidates[again.picks[0]].head
    assert again.sheet.speeds(head) == fresh.sheet.speeds(head)
    assert again.steps == fresh.steps


def test_what_is_wanted_of_a_head_is_reckoned_once_and_is_what_a_new_sheet_says(found, judge, rows):
    one = found[1]
    mine, fresh = (StrokesJudge(judge.pool).sheet(one.sheet.asked) for _ in range(2))
    heads = [one.candidates[i].head for i in (0, 3, 6, 9)]
    wanted, scales = fresh.close(heads, 0.1, 0.3), (1.0, 1.25)
    assert 0 < wanted.short.sum() < wanted.short.size

    def of(*some: int) -> tuple[list[Head], Wanted]:
        return [heads[i] for i in some], Wanted(wanted.short[list(some)], wanted.swings[list(some)])

    def asked(*some: int) -> int:
        _, what = of(*some)
        return int(what.short.sum() + what.swings.sum())

    rows.clear()
    mine.partly(*of(0, 1), scales)
    assert sum(rows) == asked(0, 1)
    again = mine.partly(*of(2, 1, 0, 3, 2), scales)
    assert sum(rows) == asked(0, 1, 2, 3), "one that was asked before, or twice, is reckoned once"
    mine.partly(*of(1, 2), (1.0,))
    assert sum(rows) == asked(0, 1, 2, 3, 1, 2), "other scales are another question"
    other = StrokesJudge(judge.pool).sheet(one.sheet.asked)
    for costs, new in zip(again, other.partly(*of(2, 1, 0, 3, 2), scales), strict=True):
        np.testing.assert_array_equal(costs.cost, new.cost)
        np.testing.assert_array_equal(costs.pick, new.pick)
    rows.clear()
    np.testing.assert_array_equal(mine.raw(heads), fresh.raw(heads))


class Board:
    """A shelf in memory."""

    def __init__(self) -> None:
        self.parts: dict[bytes, dict[str, Part]] = {}

    def lay(self, about: bytes, part: Part) -> str:
        mine = self.parts.setdefault(about, {})
        mine[str(len(mine))] = part
        return str(len(mine) - 1)

    def laid(self, about: bytes, known: Collection[str]) -> list[tuple[str, Part]]:
        return [(title, part) for title, part in self.parts.get(about, {}).items() if title not in known]


def test_what_one_worker_reckoned_another_finds(fittings, judge, rows):
    fitting, board = fittings[0], Board()
    one, other = StrokesJudge(judge.pool), StrokesJudge(judge.pool)
    one.reckoned, other.reckoned = Reckoned(board), Reckoned(board)
    among = near(recommend(fitting, one, frozenset()))
    first = recommend(fitting, one, among)
    rows.clear()
    second = recommend(fitting, other, among)
    assert sum(rows) == 0
    np.testing.assert_array_equal(first.costs.cost, second.costs.cost)
    assert first.sheet.speeds(first.candidates[0].head) == second.sheet.speeds(first.candidates[0].head)
    changed = EDITS["turf"][1](fitting)
    mine = recommend(changed, other, among)
    rows.clear()
    theirs = recommend(changed, one, among)
    assert sum(rows) == 0
    np.testing.assert_array_equal(mine.costs.cost, theirs.costs.cost)


def test_equal_things_have_one_name_and_others_another():
    head = Head(56.0, 12.0)
    assert name_of(head) == name_of(Head(56.0, 12.0))
    assert len({name_of(one) for one in (head, Head(56.0, 12.1), "head", (head,), ("head", 1))}) == 5
    assert name_of_all("a", "b") != name_of_all("b", "a")


def test_rows_of_many_questions_begin_anew_and_those_in_use_stay():
    reckoned, head = Reckoned(), Head(56.0, 12.0)
    old = reckoned.rows(b"a player", 1)
    names = [name_of(n) for n in range(MOST_QUESTIONS + 1)]
    places = old.places(names)
    old.put([head], places, np.ones((1, len(places), 1)), np.ones((1, len(places)), dtype=bool))
    new = reckoned.rows(b"a player", 1)
    assert new is not old
    assert reckoned.rows(b"a player", 1) is new
    assert np.isnan(new.of([head], new.places(names[:3]))).all()
    assert (old.of([head], places) == 1.0).all()
    assert np.isnan(old.of([Head(50.0, 12.0)], places)).all()


def test_rows_that_begin_anew_leave_on_the_shelf_what_filled_them():
    board, head = Board(), Head(56.0, 12.0)
    reckoned = Reckoned(board)
    names = [name_of(n) for n in range(MOST_QUESTIONS + 2)]

    def lay(rows: Rows, *some: int) -> None:
        places = rows.places([names[n] for n in some])
        rows.put([head], places, np.ones((1, len(some), 1)), np.ones((1, len(some)), dtype=bool))

    lay(reckoned.rows(b"a player", 1), *range(MOST_QUESTIONS + 1))
    new = reckoned.rows(b"a player", 1)
    assert not new.look()
    lay(Rows(b"a player", 1, board), MOST_QUESTIONS + 1)
    assert new.look()
    assert not np.isnan(new.of([head], new.places(names[-1:]))).any()
    assert not new.full


def test_what_is_not_new_is_not_taken_down():
    rows, head = Reckoned().rows(b"a player", 2), Head(56.0, 12.0)
    places = rows.places([name_of(n) for n in range(3)])
    rows.put([head], places, np.full((1, 3, 2), 5.0), np.array([[True, False, True]]))
    found = rows.of([head], places)[0, :, 0]
    np.testing.assert_array_equal(found, [5.0, np.nan, 5.0])
    rows.put([head], places, np.full((1, 3, 2), 7.0), np.array([[False, True, False]]))
    np.testing.assert_array_equal(rows.of([head], places)[0, :, 0], [5.0, 7.0, 5.0])
