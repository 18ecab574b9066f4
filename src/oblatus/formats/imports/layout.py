"""How a file was read: its sheet or separator and encoding, the line of its header. Found out, and changed by hand."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace

from oblatus.errors import InputError
from oblatus.formats.fields import Strict
from oblatus.formats.imports.guess import signature_of, text_of
from oblatus.formats.imports.mapping import FOUND_OUT, LayoutDocument
from oblatus.formats.imports.reading import FileKind, RawTable, Tell, read_file
from oblatus.formats.imports.shape import Shaped, shape

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


@dataclass(frozen=True, slots=True)
class Found:
    """The rows of a file as they were read by a layout, and the place of the saved mapping that is for their header."""

    raw: RawTable
    shaped: Shaped
    layout: LayoutDocument
    fits: int | None = None


def find_table(
    read: Callable[[LayoutDocument], RawTable], layout: LayoutDocument, saved: Sequence[tuple[str, LayoutDocument]]
) -> Found:
    """The table of a file by a layout; where nothing of it is said, one whose header a mapping was saved for.

    `saved` are header and layout of each mapping. Looked at are how it was read when it was saved, what is found out, and
    the other sheets of a workbook, in this order. Raises InputError as `read_file` and `shape`.
    """

    def by(one: LayoutDocument) -> Found:
        raw = read(one)
        shaped = shape(raw, one.header_row)
        mine = signature_of(shaped.names)
        return Found(raw, shaped, one, next((n for n, (header, _) in enumerate(saved) if header == mine), None))

    if layout != FOUND_OUT:
        return by(layout)
    for n, (_, own) in enumerate(saved):
        if own != FOUND_OUT:
            with suppress(InputError):  # it is another file's
                found = by(own)
                if found.fits is not None and saved[found.fits][0] == saved[n][0]:
                    return replace(found, fits=n)
    found = by(layout)
    if found.fits is None and saved:
        for sheet in found.raw.sheets:
            with suppress(InputError):  # a sheet without rows
                other = by(layout.model_copy(update={"sheet": sheet}))
                if other.fits is not None:
                    return other
    return found


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
