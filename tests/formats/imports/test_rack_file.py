"""A rack from whatever table a fitter keeps it in, and back."""

from __future__ import annotations

import io

import openpyxl
import pytest

from oblatus.errors import InputError
from oblatus.formats.demo import demo_rack
from oblatus.formats.imports.rack_file import read_rack_file
from oblatus.formats.limits import MOST_HEADS
from oblatus.formats.rack import COLUMNS, LABELS, column_of, rack_csv, read_rack


def test_a_rack_that_was_saved_is_read_back_as_it_was():
    first, second, *others = demo_rack()
    heads = [first.model_copy(update={"name": "=Down 44"}), second.model_copy(update={"code": "-D46"}), *others]
    assert read_rack_file(b"\xef\xbb\xbf" + rack_csv(heads).encode()) == heads
    assert read_rack(rack_csv(demo_rack())) == demo_rack()


def test_a_rack_is_read_from_a_workbook():
    book = openpyxl.Workbook()
    book.active.append(["Spring rack"])
    book.active.append(["Head", "Code", "Loft °", "Bounce °", "Back %", "Stock", "", "Price"])
    book.active.append(["Down 44", 44, 44, 5.5, 25, 2, None, 118])
    book.active.append([None, None, None])
    book.active.append(["Down 46", "DN46", 46, 6, None, None, None, None])
    out = io.BytesIO()
    book.save(out)
    one, other = read_rack_file(out.getvalue())
    assert (one.code, one.name, one.loft_deg, one.bounce_deg) == ("44", "Down 44", 44.0, 5.5)
    assert (one.trailing_relief_fraction, one.stock, one.price) == (0.25, 2, 118.0)
    assert (other.trailing_relief_fraction, other.stock, other.price) == (0.0, 1, None)


@pytest.mark.parametrize(
    ("header", "cells", "shares"),
    [("Back %", (25, 30), (0.25, 0.3)), ("Back %", (0.25, 0.0), (0.25, 0.0)), ("Back", (0.25, 0.3), (0.25, 0.3)),
     ("Back", ("25 %", "30%"), (0.25, 0.3)), ("Back %", ("25", "0.5"), (0.25, 0.005)),
     ("Back %", ("0.25", "0"), (0.25, 0.0))],
)  # fmt: skip
def test_a_share_in_per_cent_is_read_as_it_is_meant(header, cells, shares):
    book = openpyxl.Workbook()
    book.active.append(["Code", "Head", "Loft", "Bounce", header])
    for n, cell in enumerate(cells):
        book.active.append([f"H{n}", f"head {n}", 56, 10, cell])
    out = io.BytesIO()
    book.save(out)
    assert tuple(head.trailing_relief_fraction for head in read_rack_file(out.getvalue())) == shares


@pytest.mark.parametrize("encoding", ["utf-8", "utf-16", "cp1252"])
def test_a_rack_of_another_country_is_read(encoding):
    table = "Code;Head;Loft;Bounce;Sole width mm;head_mass_kg;Bend ±°\nA;Düne;55,5;10;2,1 cm;0,305;0\nB;Heide;60;4;21;;\n"
    one, other = read_rack_file(table.encode(encoding))
    assert (one.name, one.loft_deg, one.sole_width_mm, one.head_mass_kg) == ("Düne", 55.5, 21.0, 0.305)
    assert (one.bend_limit_deg, other.bend_limit_deg, other.head_mass_kg) == (0.0, 3.0, 0.3)


@pytest.mark.parametrize(
    ("table", "fields"),
    [("code,head,loft,bounce,colour\nA,a,56,10,red", ["header"]), ("code,head,loft\nA,a,56", ["header"]),
     ("code,head,loft,bounce,Loft °\nA,a,56,10,56", ["header"]),
     ("code,head,loft,bounce,stock\nA,a,56,10,1.5", ["line 2, stock"]),
     ("code,head,loft,bounce\nA,a,,10\nA,b,156,much\nA,a,56,10\nA,a,56,10",
      ["line 2, loft", "line 3, loft", "line 3, bounce", "code"]),
     ("code,head,loft,bounce,Back relief share\nA,a,56,10,25", ["line 2, back relief, share"]),
     ("code,head,loft,bounce,front bevel length,back\nA,a,56,10,8,0.6", ["line 2, front bevel, length"]),
     ("code,head,loft,bounce\nA,a,56,5,10", ["line 2"]), ("code,head,loft,bounce,\nA,a,56,10, \nB,b,56,10,x", ["line 3"]),
     ("code,head,loft,bounce", ["file"]), ("", ["file"])],
)  # fmt: skip
def test_what_is_wrong_with_a_rack_is_named_by_line_and_column(table, fields):
    with pytest.raises(InputError) as error:
        read_rack_file(table.encode())
    assert [fault.field for fault in error.value.faults] == fields


def test_a_rack_holds_no_more_heads_than_a_fittings_file_takes():
    rows = "".join(f"H{n},head {n},56,10\n" for n in range(MOST_HEADS))
    assert len(read_rack_file(f"code,head,loft,bounce\n{rows}".encode())) == MOST_HEADS
    with pytest.raises(InputError, match="more than 400 heads"):
        read_rack_file(f"code,head,loft,bounce\n{rows}last,one,56,10\n".encode())


def test_every_column_is_known_by_its_key_and_by_its_label():
    assert set(LABELS) == set(COLUMNS)
    for key in COLUMNS:
        assert column_of(key) == (key, 1.0)
        assert column_of(LABELS[key].title()) == (key, 1.0)
    assert column_of("") is None
    assert column_of("%") is None
