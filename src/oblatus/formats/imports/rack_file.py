"""A rack from a CSV or XLSX file of any encoding, delimiter and decimal mark."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from oblatus.core.clubs import Head
from oblatus.core.figures import figures
from oblatus.errors import Fault, InputError
from oblatus.formats.imports.guess import decimal_of, text_of
from oblatus.formats.imports.layout import read_in
from oblatus.formats.imports.mapping import FOUND_OUT, LayoutDocument
from oblatus.formats.imports.numbers import number_of
from oblatus.formats.imports.reading import RawTable
from oblatus.formats.imports.shape import Shaped, shape
from oblatus.formats.rack import LABELS, TEXT_COLUMNS, check_header, column_of, heads_of
from oblatus.formats.sections.bag import RackHeadDocument
from oblatus.formats.strikes_csv import typed_text

LOOKED_AT = 40
PERCENT = {key for key, figure in figures(Head).items() if figure.percent}
DEGREES = {"deg": 1.0}
MILLIMETRES = {"mm": 1.0, "cm": 10.0, "in": 25.4}


def rack_table(content: bytes, layout: LayoutDocument) -> tuple[RawTable, Shaped]:
    """The table of a file; its header, where the layout does not say, is the row with most columns of a rack.

    Raises InputError as `read_file` and `shape`.
    """
    table, header_row = read_in(content, layout), layout.header_row
    if header_row is None:
        head = [sum(column_of(str(cell)) is not None for cell in row if cell) for row in table.rows[:LOOKED_AT]]
        header_row = head.index(max(head)) + 1
    return table, shape(table, header_row)


def read_rack_file(content: bytes, layout: LayoutDocument = FOUND_OUT) -> list[RackHeadDocument]:
    """Heads from a file whose columns are named by their keys or labels, in any order.

    Raises
    ------
    InputError
        As `rack_table`; for a column that is not known, missing or there twice; with one fault for each wrong cell.
    """
    _, shaped = rack_table(content, layout)
    known = [column_of(name) if name.strip() else None for name in shaped.names]
    foreign = [name for name, column in zip(shaped.names, known, strict=True) if name.strip() and column is None]
    if foreign:
        raise InputError([Fault("header", f"is no column of a rack: known are {'; '.join(LABELS.values())}", foreign[0])])
    check_header([column[0] for column in known if column is not None])
    numbers = [n for n, column in enumerate(known) if column is not None and column[0] not in TEXT_COLUMNS]
    decimal = decimal_of(shaped, numbers)
    known = [_as_written(shaped, n, column, decimal) for n, column in enumerate(known)]
    return heads_of(_rows(shaped, known, decimal))


def _as_written(shaped: Shaped, place: int, column: tuple[str, float] | None, decimal: str) -> tuple[str, float] | None:
    """A workbook shows 25 % and holds 0.25: a column in per cent whose every figure is one at most has shares of 1."""
    if column is None or column[1] == 1.0:
        return column
    cells = [number_of(row[place], decimal, 1.0, {}) for row in shaped.rows if place < len(row)]
    shares = all(isinstance(cell, float) and cell <= 1.0 for cell in cells if cell is not None)
    return (column[0], 1.0) if shares else column


def _rows(shaped: Shaped, known: list[tuple[str, float] | None], decimal: str) -> Iterator[tuple[int, dict[str, Any]]]:
    for n, cells in enumerate(shaped.rows):
        row: dict[str, Any] = {}
        for place, cell in enumerate(cells):
            if cell is None or (isinstance(cell, str) and not cell.strip()):
                continue
            column = known[place] if place < len(known) else None
            if column is None:
                words = "stands under no column of the header: is there a separator within a figure or a name?"
                raise InputError([Fault(f"line {shaped.first_row + n}", words, text_of(cell)[:60])])
            row[column[0]] = _value(column, cell, decimal)
        if row:
            yield shaped.first_row + n, row


def _value(column: tuple[str, float], cell: object, decimal: str) -> object:
    """The cell as the document takes it; what is no number stays as it stands, for the fault that names it."""
    key, factor = column
    if key in TEXT_COLUMNS:
        return typed_text(text_of(cell))
    units = DEGREES if key.endswith("_deg") else MILLIMETRES if key.endswith("_mm") else {}
    if isinstance(cell, str) and key in PERCENT and cell.rstrip().endswith("%"):
        cell, factor = cell.rstrip()[:-1], 0.01
    figure = number_of(cell, decimal, factor, units)
    if isinstance(figure, str):
        return text_of(cell)
    if figure is not None and key == "stock" and figure == int(figure):
        return int(figure)
    return None if figure is None else round(figure, 9)
