"""Pasted strikes: lists and tables, units said and not guessed, every wrong line named."""

from __future__ import annotations

import csv
import io
from uuid import UUID

import pytest

from oblatus.core.fitting.carries_of import ClubRow
from oblatus.core.gapping import SWINGS
from oblatus.errors import InputError
from oblatus.formats.paste import read_pasted
from oblatus.formats.strikes import StrikeDocument
from oblatus.formats.strikes_csv import strikes_csv

PASTE = UUID(int=7)
CLUBS = (ClubRow("pw", "pitching wedge", 46.0), ClubRow("own:0", "old gap", 50.8), ClubRow("own:1", "old sand", 56.0))


def read(text, unit="m", cell=("own:0", "900")):
    return read_pasted(text, unit, PASTE, CLUBS, SWINGS, cell)


@pytest.mark.parametrize(
    "text", ["62\n63.5\n61", "62\t63.5\t61", "62; 63.5; 61", "62 63.5 61", "62,63.5,61", "62\r\n63,5\r\n61"]
)
def test_a_list_of_carries_goes_to_the_cell_whatever_parts_it(text):
    found = read(text)
    assert [strike.carry_m for strike in found.strikes] == [62.0, 63.5, 61.0]
    assert {(strike.club, strike.loft_deg, strike.swing) for strike in found.strikes} == {("own:0", 50.8, "900")}


def test_a_table_with_units_in_its_header():
    header = "Club\tSwing\tCarry (yd)\tBall speed (mph)\tLaunch angle\tSpin rate\tApex (ft)"
    text = f"{header}\nold sand\t10:30\t70\t60\t31\t8000\t42\n46\tfull\t110\t\t\t\t"
    first, second = read(text).strikes
    assert (first.club, first.swing, second.club, second.swing) == ("own:1", "1030", "pw", "full")
    assert first.carry_m == pytest.approx(70 * 0.9144)
    assert first.ball_speed_mps == pytest.approx(60 * 0.44704)
    assert first.apex_m == pytest.approx(42 * 0.3048)
    assert (first.launch_deg, first.spin_rpm, second.ball_speed_mps) == (31.0, 8000.0, None)
    assert read(text).unit == "yd"


def test_a_decimal_comma_and_the_unit_of_the_box():
    found = read("carry;club\n62,5;old gap\n60,0;50.8", unit="yd")
    assert [strike.carry_m for strike in found.strikes] == pytest.approx([62.5 * 0.9144, 60 * 0.9144])


def test_a_unit_that_is_stated_holds_for_every_figure():
    found = read("club\tcarry (ft)\tentry (in)\tattack (rad)\nold gap\t200\t-2\t-0.1\nold gap\t60 m\t-5 cm\t-", cell=None)
    first, second = found.strikes
    assert (first.carry_m, first.entry_mm) == (pytest.approx(60.96), pytest.approx(-50.8))
    assert first.attack_deg == pytest.approx(-5.7296, abs=1e-4)
    assert (second.carry_m, second.entry_mm, second.attack_deg) == (60.0, -50.0, None)


def test_a_note_with_a_comma_or_a_quote_stays_one_note():
    (strike,) = read('carry,club,note\n62.5,old gap,"thin, then ""good"""').strikes
    assert (strike.carry_m, strike.club, strike.note) == (62.5, "own:0", 'thin, then "good"')


def test_the_same_paste_has_the_same_ids_and_another_has_others():
    assert [s.id for s in read("62 63").strikes] == [s.id for s in read("62 63").strikes]
    other = read_pasted("62 63", "m", UUID(int=8), CLUBS, SWINGS, ("own:0", "900"))
    assert not {s.id for s in other.strikes} & {s.id for s in read("62 63").strikes}


@pytest.mark.parametrize(
    ("text", "cell", "words"),
    [
        ("", ("pw", "full"), "is empty"),
        ("62 63", None, "choose a club"),
        ("club\tspin\npw\t8000", None, "without a column called carry"),
        ("club\tcarry\tball speed\npw\t90\t60", None, "names no unit"),
        ("club\tcarry (furlong)\npw\t90", None, "a unit that is not known"),
        ("carry\tcarry\n90\t91", ("pw", "full"), "two columns for carry"),
        ("carry", ("pw", "full"), "no strike below"),
        ("club\tcarry\nputter\t9", None, "is not a club here"),
        ("carry\tswing\n90\thalf", ("pw", "full"), "is not a swing here"),
        ("entry\tclub\nfar\tpw", None, "is not a number"),
    ],
)
def test_what_cannot_be_read_says_why(text, cell, words):
    with pytest.raises(InputError) as error:
        read(text, cell=cell)
    assert words in error.value.message


def test_every_wrong_line_is_named_and_nothing_is_read():
    with pytest.raises(InputError) as error:
        read("club\tcarry\npw\t90\npw\tlong\nold gap\t900\n\nold lob\t50")
    assert [fault.field for fault in error.value.faults] == ["line 2: carry_m", "line 3: carry_m", "line 4: club"]


def test_the_strikes_of_a_csv_are_read_back_by_pasting_and_no_cell_is_a_formula():
    told = [
        ("900", 41.5, {}),
        ("pitch", None, {"attack_deg": -6.25, "note": "=2+3"}),
        ("full", 80.0, {"set_aside": "-thin"}),
    ]
    common = {"club": "own:1", "loft_deg": 56.0, "entry_mm": -31.5}
    strikes = [
        StrikeDocument(id=UUID(int=n), swing=swing, carry_m=carry, **common, **more)
        for n, (swing, carry, more) in enumerate(told)
    ]
    text = strikes_csv(strikes, {"own:1": "old sand"}, {"900": "9:00"})
    cells = [cell for row in csv.reader(io.StringIO(text)) for cell in row]
    assert not [cell for cell in cells if cell.startswith(("=", "@")) or (cell.startswith("-") and not is_number(cell))]
    again = read(text.replace("\r\n", "\n"), cell=None).strikes
    for one, other in zip(strikes, again, strict=True):
        assert (one.swing, one.carry_m, one.entry_mm, one.attack_deg) == (
            other.swing, other.carry_m, other.entry_mm, other.attack_deg,
        )  # fmt: skip
    assert again[2].set_aside == "'-thin"


def is_number(text: str) -> bool:
    try:
        float(text)
    except ValueError:
        return False
    return True
