"""What a noted shot was worth: strokes.md's own table at the nodes, and the lie that a result leaves."""

from __future__ import annotations

from datetime import date

import pytest

from oblatus.core.log.shots import LoggedShot, after_shot, lie_before, strokes_of_shot
from oblatus.core.strokes import Layout
from oblatus.formats.fields import faults_of
from oblatus.formats.log_shots import LogShotDocument

GREENSIDE = Layout(12.0, 6.0, 10.0, "sand", "sand")


def shot(result: str, left: float | None = None, situation: str = "sand_greenside") -> LoggedShot:
    return LoggedShot("one", date(2026, 5, 1), situation, "", None, "own:1", None, result, left)


@pytest.mark.parametrize(
    ("result", "left", "strokes"),
    [
        ("holed", None, 1.0),
        ("close", 1.0, 2.151),  # green at 1 m, handicap 12
        ("green", 5.0, 2.908),
        ("over", 12.0, 3.694),  # rough at 12 m
        ("stayed", 12.0, 3.869),  # sand at 12 m
        ("heavy", 5.0, 2.908),  # heavy, but paced on the green
        ("heavy", 12.0, 3.869),  # heavy into the sand short of it
        ("thin", 5.0, 2.908),
        ("thin", 12.0, 3.694),
    ],
)
def test_a_shot_is_worth_one_and_what_the_table_says_is_left(result, left, strokes):
    assert strokes_of_shot(shot(result, left), GREENSIDE, 12.0) == pytest.approx(strokes, abs=0.0015)


def test_what_nobody_paced_lies_where_the_result_usually_leaves_it():
    assert after_shot(shot("green"), GREENSIDE).left == pytest.approx(3.5 + 0.05 * 12.0)
    assert after_shot(shot("stayed"), GREENSIDE).left == pytest.approx(12.0)
    assert after_shot(shot("stayed"), GREENSIDE).lie == "sand"
    order = [strokes_of_shot(shot(r), GREENSIDE, 12.0) for r in ("holed", "close", "green", "heavy", "stayed")]
    assert order == sorted(order)


def test_a_situation_has_the_lie_of_the_table_that_it_is_played_from():
    assert [lie_before(s) for s in ("approach", "chip", "lush_rough", "sand_long")] == [
        "fairway",
        "fairway",
        "rough",
        "sand",
    ]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"result": "holed", "left_m": 2.0}, "left_m"), ({"result": "holed", "holed_in": 3}, "holed_in"),
        ({"holed_in": 1}, "holed_in"), ({"on": "1912-05-01"}, "on"), ({"left_m": -1.0}, "left_m"),
        ({"distance_m": 900.0}, "distance_m"), ({"situation": "putt"}, "situation"), ({"result": "nice"}, "result"),
        ({"club": ""}, "club"), ({"left_m": float("nan")}, "left_m"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_at_its_field(change, field):
    from pydantic import ValidationError

    good = {
        "id": "5f0b2f0e-94a7-4f3c-9a66-0d3f6a2d9c11", "round": "5f0b2f0e-94a7-4f3c-9a66-0d3f6a2d9c12", "on": "2026-05-01",
        "situation": "chip", "club": "pw", "result": "green",
    }  # fmt: skip
    LogShotDocument.model_validate(good)
    with pytest.raises(ValidationError) as refused:
        LogShotDocument.model_validate({**good, **change})
    assert [one.field for one in faults_of(refused.value).faults] == [field]
