"""Files of strikes in every dress: what is guessed, what is read, what is refused with its row and reason."""

from __future__ import annotations

import csv
import io
import zipfile

import openpyxl
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oblatus.core.fitting.carries_of import ClubRow
from oblatus.core.gapping import SWINGS
from oblatus.core.words import Reader, worded
from oblatus.errors import InputError
from oblatus.formats.imports import MappingDocument, convert_rows, guess_mapping, read_file, shape, wrong_csv
from oblatus.formats.imports import reading as limits
from oblatus.formats.imports.guess import words_in
from oblatus.formats.imports.numbers import number_of
from oblatus.formats.imports.quantities import FIELDS, RANGE, plain_name
from oblatus.formats.strikes import StrikeDocument

CLUBS = (
    ClubRow("9i", "nine-iron", 41), ClubRow("pw", "pitching wedge", 45), ClubRow("own:0", "gap", 50),
    ClubRow("own:1", "sand", 56),
)  # fmt: skip
LOFTS = {club.code: club.loft_deg for club in CLUBS}
LETTERS = st.text(st.characters(exclude_characters="\x00", codec="utf-8"), max_size=6)
STATIONS = [*(s.key for s in SWINGS), "pitch", "chip", "sand", "practice"]


def taken(content: bytes, unit: str = "m", **changes):
    """Read, guess, convert; `changes` are put over the guessed mapping."""
    table = shape(read_file(content))
    guessed = guess_mapping(table, CLUBS, SWINGS, unit) | changes
    return convert_rows(table, MappingDocument.model_validate(guessed), LOFTS, STATIONS)


def book(*rows, merge: str | None = None) -> bytes:
    made = openpyxl.Workbook()
    page = made.active
    for row in rows:
        page.append(row)
    if merge:
        page.merge_cells(merge)
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()


@pytest.mark.parametrize(
    ("text", "encoding"),
    [
        ("Club,Swing,Carry (yd),Club Speed (mph)\nPW,full,100,80\nSand,9:00,50.5,60\n", "utf-8"),
        ("Club;Swing;Carry [yd];Club Speed [mph]\r\nPW;full;100;80\r\nSand;9:00;50,5;60\r\n", "utf-16"),
        ("Club\tSwing\tCarry, yds\tClub speed, mph\nPW\tfull\t100\t80\nSand\t9:00\t50.5\t60\n", "utf-8-sig"),
        ('"Schläger";Swing;"Carry (yd)";"Club Speed (mph)"\nPW;full;"100";"80"\nSW;9:00;"50,5";60\n', "cp1252"),
        ("A range export\n\nclub|swing|carry|head speed\n|| yards|mph\npw|full|100|80\nsand|900|50.5|60\n", "utf-8"),
    ],
)  # fmt: skip
def test_any_delimiter_decimal_encoding_and_unit_gives_the_same_strikes(text, encoding):
    found = taken(text.encode(encoding))
    assert found.wrong == []
    assert found.columns["club"] == ["pw", "own:1"]
    assert found.columns["swing"] == ["full", "900"]
    assert found.columns["carry_m"] == pytest.approx([91.44, 46.1772])  # the international yard
    assert found.columns["club_speed_mps"] == pytest.approx([35.7632, 26.8224])


def test_a_merged_header_over_two_rows_and_a_row_of_units_is_understood():
    content = book(
        ["Session 4", None, None, None, None],
        [None, None, "Ball", None, "Club"],
        ["Club", "Carry", "Speed", "Spin Rate", "Speed"],
        [None, "yds", "mph", "rpm", "mph"],
        ["PW", 100, 90, 8000, 80],
        merge="C2:D2",
    )
    found = taken(content)
    assert found.wrong == []
    assert found.columns["ball_speed_mps"] == pytest.approx([40.2336])
    assert found.columns["club_speed_mps"] == pytest.approx([35.7632])
    assert found.rows == [5]


def test_formulas_stand_for_their_saved_results_and_those_without_one_are_said_by_row():
    # a workbook saved by a program that does not calculate has formulas without results
    found = taken(book(["club", "carry (m)"], ["pw", "=90+1"], ["pw", 92]))
    assert found.columns["carry_m"] == [92]
    assert [(w.row, w.column) for w in found.wrong] == [(2, "carry (m)")]
    assert "formula" in found.wrong[0].reason


def test_every_wrong_cell_is_said_with_its_row_and_the_good_rows_stand():
    text = (
        "club,swing,carry (m),attack\n"
        "pw,full,90,-4\n"
        "spoon,full,90,-4\n"
        "pw,full,ninety,-4\n"
        "pw,full,900,-4\n"
        "pw,full,,\n"
        "\n"
        "pw,full,91,-5,7\n"
        "pw,moon,91,-5\n"
    )
    found = taken(text.encode())
    assert found.rows == [2]
    assert {(w.row, w.column): worded(w.reason) for w in found.wrong} == {
        (3, "club"): "is no club that was chosen",
        (4, "carry (m)"): "is not a number",
        (5, "carry (m)"): "must be between 1 and 200 m",
        (6, ""): "nothing was measured of this strike",
        (8, ""): "has 5 cells under a header of 4",
        (9, "swing"): "is no swing that was chosen",
    }
    assert (found.total, found.wrong_rows) == (7, 6)
    listed = list(csv.DictReader(io.StringIO(wrong_csv(found.wrong))))
    assert listed[2] == {"row": "5", "column": "carry (m)", "value": "900", "reason": "must be between 1 and 200 m"}
    yards = list(csv.DictReader(io.StringIO(wrong_csv(found.wrong, Reader("yd", "mph", "\u00a0")))))
    assert yards[2]["reason"] == "must be between 1.1 and 218.7 yd"


def test_rows_of_words_that_mean_nothing_here_are_left_out_on_request():
    content = b"club,carry (m)\npw,90\nDriver,230\nAverage,160\n"
    found = taken(content, clubs={"pw": "pw", "Driver": None, "Average": None})
    assert (len(found.rows), found.left_out, found.wrong) == (1, 2, [])


def test_a_club_written_once_over_its_rows_goes_on_below():
    content = book(["club", "carry (m)"], ["pw", 90], [None, 91], ["sand", 70], [None, 71], merge="A2:A3")
    merged = taken(content)
    assert (merged.columns["club"], [w.row for w in merged.wrong]) == (["pw", "pw", "own:1"], [5])
    assert taken(content, fill_down=True).columns["club"] == ["pw", "pw", "own:1", "own:1"]


def test_a_figure_merged_over_two_rows_is_one_measurement():
    found = taken(book(["club", "carry (m)"], ["pw", 90], ["pw", None], merge="B2:B3"))
    assert (found.columns["carry_m"], [w.row for w in found.wrong]) == ([90], [3])


def test_a_cell_far_away_is_refused_before_the_emptiness_before_it_is_made():
    for far in ("XFD2", "B1048576"):
        made = openpyxl.Workbook()
        made.active[far] = 1
        out = io.BytesIO()
        made.save(out)
        with pytest.raises(InputError, match="more than"):
            read_file(out.getvalue())


def test_the_same_file_gives_the_same_ids_and_a_longer_export_only_adds():
    first = taken(b"club,carry (m)\npw,90\npw,90\npw,91\n").columns["id"]
    longer = taken(b"club,carry (m)\npw,90\npw,90\npw,91\npw,90\n").columns["id"]
    assert len(set(longer)) == 4
    assert longer[:3] == first
    salted = convert_rows(
        shape(read_file(b"club,carry (m)\npw,90\n")),
        MappingDocument.model_validate(
            {"columns": [{"column": 1, "field": "club"}, {"column": 2, "field": "carry_m", "unit": "m"}],
             "clubs": {"pw": "pw"}}
        ),
        LOFTS, STATIONS, salt=b"another file",
    )  # fmt: skip
    assert salted.columns["id"][0] not in longer


@pytest.mark.parametrize(
    ("cell", "decimal", "value"),
    [
        ("1,234.5", "point", 1234.5),
        ("1.234,5", "comma", 1234.5),
        ("7 850", "point", 7850),
        ("7'850", "comma", 7850),
        ("−3.5", "point", -3.5),
        ("90 yd", "point", 82.296),
        ("90,5 m", "comma", 90.5),
        ("--", "point", None),
        (".5", "point", 0.5),
    ],
)
def test_numbers_as_files_write_them(cell, decimal, value):
    found = number_of(cell, decimal, 1.0, RANGE)
    assert found == (None if value is None else pytest.approx(value))


@pytest.mark.parametrize("cell", ["1,5", "12,34,5", "1_000", "inf", "5 L", "0x10", "90 mph", "1.2.3"])
def test_what_is_no_number_with_a_decimal_point_is_said(cell):
    assert isinstance(number_of(cell, "point", 1.0, RANGE), str)


def test_a_comma_that_may_be_a_thousand_is_never_read_as_a_decimal():
    found = taken(b"club;carry (m);spin (rpm)\npw;90,5;7.850\npw;91,5;8.100\n")
    assert found.columns["spin_rpm"] == [7850, 8100]
    assert found.columns["carry_m"] == [90.5, 91.5]


def test_signs_counted_the_other_way_are_turned():
    found = taken(
        b"club,attack,entry\npw,5,2\n",
        columns=[
            {"column": 1, "field": "club"},
            {"column": 2, "field": "attack_deg", "unit": "deg, down positive"},
            {"column": 3, "field": "entry_mm", "unit": "in, behind positive"},
        ],
    )
    assert (found.columns["attack_deg"], found.columns["entry_mm"]) == ([-5], [-50.8])


@settings(max_examples=150, deadline=None)
@given(
    carry=st.one_of(st.floats(-50, 400), LETTERS),
    spin=st.one_of(st.integers(0, 20000), st.sampled_from(["", "-", "7,850"])),
    note=st.text(st.characters(exclude_characters="\x00", codec="utf-8"), max_size=220),
)
def test_whatever_is_taken_is_a_strike_that_could_have_been_typed(carry, spin, note):
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(["club", "carry (m)", "spin (rpm)", "note"])
    writer.writerow(["pw", carry, spin, note])
    found = taken(out.getvalue().encode())
    assert len(found.rows) + found.wrong_rows <= 1
    for i in range(len(found.rows)):
        StrikeDocument.model_validate(found.strike(i) | {"origin": "file"})


def test_what_cannot_be_a_table_is_refused_in_words(monkeypatch):
    bomb = io.BytesIO()
    with zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("xl/worksheets/sheet1.xml", b"0" * 60_000_000)
    other = io.BytesIO()
    with zipfile.ZipFile(other, "w") as packed:
        packed.writestr("readme.txt", "no workbook")
    monkeypatch.setattr(limits, "MOST_ROWS", 50)
    for content, words in (
        (b"", "is empty"),
        (b"   \n \n", "is empty"),
        (bomb.getvalue(), "unpacks to 60 MB"),
        (other.getvalue(), "no workbook"),
        (b"PK\x03\x04 cut off", "damaged"),
        (b"\xd0\xcf\x11\xe0 old", "old kind"),
        (b"club,carry\n" + b"pw,90\n" * 60, "more than 50 rows"),
        (b"club,carry\n\x00\x01\x02", "no table"),
        (b"club,carry\n", "no row below"),
        (b"x" * 64_000_001, "larger than 64 MB"),
        (("," * 300 + "\n").encode(), "columns"),
    ):
        with pytest.raises(InputError) as caught:
            shape(read_file(content))
        assert words in caught.value.message, content[:20]


def test_a_mapping_that_cannot_be_is_refused_at_its_field():
    carry = {"column": 2, "field": "carry_m", "unit": "m"}
    for values, words in (
        ({"columns": [carry]}, "which club"),
        ({"columns": [{"column": 1, "field": "club"}]}, "measured"),
        ({"columns": [carry, carry], "club": "pw"}, "two columns are carry"),
        ({"columns": [{**carry, "unit": "rpm"}], "club": "pw"}, "must be one of m; yd; ft"),
        ({"columns": [{"column": 2, "field": "ball_speed_mps"}], "club": "pw"}, "must be chosen"),
    ):
        with pytest.raises(ValueError, match=words):
            MappingDocument.model_validate(values)


def test_names_and_units_of_headers():
    assert plain_name("Club Speed (mph)") == ("club speed", "mph")
    assert plain_name("Carry_Distance [yds]") == ("carry distance", "yd")
    assert plain_name("Launch Angle °") == ("launch angle", "deg")
    assert plain_name("Club, name") == ("club name", None)
    words = [name for known in FIELDS.values() for name in known.names]
    assert len(set(words)) == len(words)


def rewritten(content: bytes, part: str, *changes: tuple[str, str]) -> bytes:
    """A workbook with the text of one of its parts changed."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(content)) as old, zipfile.ZipFile(out, "w") as new:
        for info in old.infolist():
            text = old.read(info)
            if info.filename == part:
                for before, after in changes:
                    assert before.encode() in text
                    text = text.replace(before.encode(), after.encode())
            new.writestr(info, text)
    return out.getvalue()


def test_a_formula_that_was_worked_out_stands_for_its_result():
    content = rewritten(
        book(["club", "carry (m)"], ["pw", "=90+1"], ["pw", "=90+2"]),
        "xl/worksheets/sheet1.xml", ("<f>90+1</f><v />", "<f>90+1</f><v>91</v>"),
    )  # fmt: skip
    table = read_file(content)
    assert table.formulas == 2
    found = taken(content)
    assert found.columns["carry_m"] == [91]
    assert [(w.row, w.value) for w in found.wrong] == [(3, "formula")]


def test_the_sheet_with_most_rows_is_read_and_another_can_be_asked_for():
    made = openpyxl.Workbook()
    made.active.title = "notes"
    made.active.append(["carry (m)"])
    made.active.append([50])
    page = made.create_sheet("strikes")
    for row in (["carry (m)"], [60], [61]):
        page.append(row)
    made.create_sheet("secret").sheet_state = "hidden"
    out = io.BytesIO()
    made.save(out)
    found = read_file(out.getvalue())
    assert (found.sheet, found.sheets) == ("strikes", ("notes", "strikes"))
    assert read_file(out.getvalue(), sheet="notes").rows[1] == [50.0]
    for name in ("secret", "nowhere"):
        with pytest.raises(InputError, match="notes, strikes"):
            read_file(out.getvalue(), sheet=name)


def test_dates_and_truths_of_a_workbook_are_words_and_empty_rows_at_its_end_are_none():
    from datetime import datetime

    found = read_file(
        book(["club", "when", "carry (m)"], ["pw", datetime(2026, 5, 3, 10, 4), 60], [True, None, 61], [None])
    )
    assert found.rows[1:] == [["pw", "2026-05-03T10:04:00", 60.0], ["yes", "", 61.0]]


def test_a_header_of_unknown_names_stands_above_the_first_numbers():
    table = shape(read_file(b"Aug 2026\nWer,Wie weit\nPW,90\nPW,91\n"))
    assert (table.header_row, table.names) == (2, ("Wer", "Wie weit"))
    bare = shape(read_file(b"90,1\n91,2\n"))
    assert (bare.header_row, bare.names, bare.first_row) == (0, ("column 1", "column 2"), 1)


def test_an_encoding_that_was_chosen_holds_and_one_that_does_not_fit_says_the_line():
    text = "club,carry (m),note\npw,90,naß\n".encode()
    assert read_file(text, encoding="cp1252").rows[1][2] == "naÃŸ"
    with pytest.raises(InputError, match="line 2"):
        read_file("club,carry (m),note\npw,90,naß\n".encode("cp1252"), encoding="utf-8")
    assert read_file("club,carry\npw,90\n".encode("utf-16-le")).rows[1] == ["pw", "90"]


def test_words_of_our_own_export_come_back_as_they_were():
    text = (
        "club,carry (m),note,set aside,simulated,divot\n"
        "pw,90,'=not run,thin,yes,brushed\n"
        "pw,91,fine,no,,ploughed\n"
        f"pw,92,{'x' * 201},,perhaps,\n"
    )
    found = taken(text.encode())
    assert found.strike(0) | {"id": ""} == {
        "id": "", "club": "pw", "loft_deg": 45, "swing": "full", "carry_m": 90.0, "note": "=not run", "set_aside": "thin",
        "simulated": True, "divot": "bruise",
    }  # fmt: skip
    assert {(w.row, w.column): worded(w.reason) for w in found.wrong} == {
        (3, "divot"): "must be none, bruise, shallow or deep",
        (4, "note"): "is longer than 200 characters",
        (4, "simulated"): "must be yes or no",
    }


def test_an_id_that_is_none_and_one_that_stands_twice_are_wrong():
    name = "0b0e6f0a-91d1-4c07-9f5e-111111111111"
    found = taken(f"club,carry (m),id\npw,90,{name}\npw,91,{name}\npw,92,seven\npw,93,\n".encode())
    assert found.columns["id"][0] == name
    assert [(w.row, w.reason) for w in found.wrong] == [
        (3, "stands in a row above too"), (4, "is no id: leave this column out"),
    ]  # fmt: skip
    assert len(found.rows) == 2


def test_sand_that_is_left_before_it_is_entered_is_wrong():
    found = taken(b"club,swing,entry (mm),exit (mm)\nsand,sand,-60,90\nsand,sand,-60,-70\nsand,sand,-60,\n")
    assert found.rows == [2, 4]
    assert [(w.row, w.column, w.reason) for w in found.wrong] == [(3, "exit (mm)", "must lie ahead of the entry")]


def test_a_formula_without_a_result_is_wrong_in_a_column_of_words_too():
    content = book(["club", "carry (m)", "note"], ["=A9", 60, "fine"], ["pw", 61, "=A9"], ["pw", 62, "fine"])
    table = shape(read_file(content))
    assert guess_mapping(table, CLUBS, SWINGS, "m")["clubs"] == {"pw": "pw"}
    assert words_in(table, 0) == ["pw"]
    found = taken(content)
    assert found.rows == [4]
    assert [(w.row, w.column, w.value) for w in found.wrong] == [(2, "club", "formula"), (3, "note", "formula")]
