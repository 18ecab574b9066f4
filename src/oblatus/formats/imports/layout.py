"""How a file was read: its sheet or separator and encoding, the line of its header. Found out, and changed by hand."""

from __future__ import annotations

from oblatus.formats.fields import Strict
from oblatus.formats.imports.guess import text_of
from oblatus.formats.imports.mapping import LayoutDocument
from oblatus.formats.imports.reading import FileKind, RawTable, Tell, read_file
from oblatus.formats.imports.shape import Shaped

FIRST_ROWS = 6
LONGEST = 60


class LayoutOut(Strict):
    """What a file is read as; a workbook has sheets, a text has an encoding and a delimiter."""

    kind: FileKind
    sheets: list[str]
    sheet: str | None
    encoding: str | None
    delimiter: str | None
    header_row: int
    formulas: int


class TableOut(Strict):
    """The table of a file: how it was read, its header and first rows."""

    layout: LayoutOut
    header: list[str]
    first: list[list[str]]


def read_in(content: bytes, layout: LayoutDocument, tell: Tell = lambda _: None) -> RawTable:
    """The rows of a file by a layout; raises InputError as `read_file`."""
    return read_file(content, layout.sheet, layout.encoding, layout.delimiter, tell)


def layout_out(table: RawTable, shaped: Shaped) -> LayoutOut:
    """How a table was read."""
    return LayoutOut(
        kind=table.kind, sheets=list(table.sheets), sheet=table.sheet, encoding=table.encoding,
        delimiter=table.delimiter, header_row=shaped.header_row, formulas=table.formulas,
    )  # fmt: skip


def table_out(table: RawTable, shaped: Shaped) -> TableOut:
    """A table as it is shown before its columns are known: no cell longer than fits a line."""
    return TableOut(
        layout=layout_out(table, shaped),
        header=[name or f"column {n + 1}" for n, name in enumerate(shaped.names)],
        first=[["" if c is None else text_of(c)[:LONGEST] for c in row] for row in shaped.rows[:FIRST_ROWS]],
    )
