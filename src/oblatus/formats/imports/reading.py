"""A CSV or XLSX file as rows of cells, whatever its encoding and delimiter; what cannot be a table is refused."""

from __future__ import annotations

import csv
import io
import re
import zipfile
import zlib
from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time
from typing import Any, Literal
from xml.etree.ElementTree import ParseError

import openpyxl
from defusedxml.common import DefusedXmlException
from openpyxl.utils.exceptions import InvalidFileException
from openpyxl.worksheet.formula import ArrayFormula, DataTableFormula
from python_calamine import CalamineError, CalamineWorkbook, SheetTypeEnum, SheetVisibleEnum

from oblatus.errors import InputError, fault
from oblatus.formats.imports.guess import names_known
from oblatus.formats.imports.mapping import DELIMITERS
from oblatus.formats.imports.quantities import NO_RESULT

MOST_ROWS = 120_000
MOST_COLUMNS = 200
LARGEST_BYTES = 64_000_000
LARGEST_UNPACKED = 400_000_000
STEEPEST_PACKING = 250
MOST_PARTS = 2000
LOOKED_AT = 60
ZIP_START = b"PK\x03\x04"
OLD_WORKBOOK = b"\xd0\xcf\x11\xe0"

SCANNED = 4_000_000
PLAIN_MARKS = bytes.maketrans(b"\t\n\r'", b'   "')
FAR = re.compile(rb' r="(?:(?:[A-Z]{3,}|[H-Z][A-Z]|G[S-Z])\d|[A-Z]*(\d{6,})")')
"""A cell beyond column 200, or with its row in the group one whose row has six figures or more."""
FORMULAS = (b"<f>", b"<f ", b"<f/", b":f>", b":f ", b":f/")
BROKEN = (
    CalamineError, zipfile.BadZipFile, InvalidFileException, ParseError, DefusedXmlException, KeyError, ValueError,
    TypeError, AttributeError, IndexError, EOFError, OSError,
)  # fmt: skip

Cell = str | float | None
FileKind = Literal["csv", "xlsx"]
Tell = Callable[[int], None]
"""Hears how many rows are read; raises to stop."""


@dataclass(frozen=True, slots=True)
class RawTable:
    """Every row of a file as it stands, row 1 first; empty cells are None or ''."""

    kind: FileKind
    sheets: tuple[str, ...]
    sheet: str | None
    encoding: str | None
    delimiter: str | None
    rows: list[Sequence[Cell]]
    formulas: int


def read_file(
    content: bytes,
    sheet: str | None = None,
    encoding: str | None = None,
    delimiter: str | None = None,
    tell: Tell = lambda _: None,
) -> RawTable:
    """Rows of a CSV or XLSX file. What is not said is found out: the sheet with most rows, encoding, delimiter.

    Raises
    ------
    InputError
        If the file is empty, too large, packed like a bomb, damaged, of another kind, or has no rows.
    """
    if not content:
        raise fault("file", "is empty")
    if len(content) > LARGEST_BYTES:
        raise fault("file", f"is larger than {LARGEST_BYTES // 1_000_000} MB: split it")
    if content.startswith(ZIP_START):
        return _read_workbook(content, sheet, tell)
    if content.startswith(OLD_WORKBOOK):
        raise fault("file", "is a workbook of the old kind: save it as XLSX or CSV")
    return _read_text(content, encoding, delimiter, tell)


def _read_text(content: bytes, encoding: str | None, delimiter: str | None, tell: Tell) -> RawTable:
    text, encoding = _decode(content, encoding)
    if "\x00" in text:
        raise fault("file", "is no table: it holds bytes that no text has")
    if not text.strip():
        raise fault("file", "is empty")
    delimiter = delimiter or delimiter_of(text)
    return RawTable("csv", (), None, encoding, delimiter, rows_of_text(text, delimiter, tell), 0)


def rows_of_text(text: str, delimiter: str, tell: Tell = lambda _: None) -> list[Sequence[Cell]]:
    """Rows of delimited text, quotes taken off.

    Raises
    ------
    InputError
        If a quote is left open or there is too much of it.
    """
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=DELIMITERS[delimiter])
    rows: list[Sequence[Cell]] = []
    try:
        for row in reader:
            rows.append(row)
            _count(rows, tell)
    except csv.Error as error:
        raise fault("file", f"cannot be read at line {reader.line_num}: {error}") from error
    _width(rows)
    return rows


def _decode(content: bytes, encoding: str | None) -> tuple[str, str]:
    """Text and the encoding it was in: a byte order mark decides, then UTF-8 if it fits, then Western European."""
    tried = [encoding] if encoding is not None else _likely(content)
    for name in tried:
        try:
            return content.decode("utf-8-sig" if name == "utf-8" else name), name
        except UnicodeDecodeError as error:
            where = content.count(b"\n", 0, error.start) + 1
    raise fault("encoding", f"does not fit line {where} of the file: choose another", tried[-1])


def _likely(content: bytes) -> list[str]:
    start = content[:400]
    if start.startswith((b"\xff\xfe", b"\xfe\xff")):
        return ["utf-16"]
    odd = start[1::2].count(0)
    if odd > len(start) // 8:
        return ["utf-16-le"]
    if start[0::2].count(0) > len(start) // 8:
        return ["utf-16-be"]
    return ["utf-8", "cp1252", "iso-8859-15"]


def delimiter_of(text: str) -> str:
    """The delimiter that gives most column names we know, then the most even table."""
    sample = text[:200_000].splitlines()[:LOOKED_AT]

    def worth(name: str) -> tuple[int, float]:
        try:
            rows = list(csv.reader(sample, delimiter=DELIMITERS[name]))
        except csv.Error:
            return 0, 0.0  # the reading itself says at which line
        widths = Counter(len(row) for row in rows if len(row) > 1)
        if not widths:
            return 0, 0.0
        width, count = max(widths.items(), key=lambda item: (item[1], item[0]))
        return max(names_known(row) for row in rows), count / len(rows) + 0.001 * width

    return max(DELIMITERS, key=worth)


def _read_workbook(content: bytes, sheet: str | None, tell: Tell) -> RawTable:
    formulas = _look_before_unpacking(content)
    try:
        return _sheet(content, sheet, tell, formulas=formulas)
    except InputError:
        raise
    except BaseException as error:
        # the reader is compiled and can panic on a damaged file, with an error of no common kind
        if isinstance(error, BROKEN) or type(error).__name__ == "PanicException":
            words = "is no workbook that can be read: open it, save it as XLSX again, or as CSV"
            raise fault("file", words) from error
        raise


def _look_before_unpacking(content: bytes) -> bool:
    """Refuse what would fill the machine when it is opened; says whether a sheet holds formulas."""
    try:
        packed = zipfile.ZipFile(io.BytesIO(content))
        parts = packed.infolist()
    except (zipfile.BadZipFile, ValueError, OSError, NotImplementedError) as error:
        raise fault("file", "is a damaged workbook: save it again") from error
    if len(parts) > MOST_PARTS:
        raise fault("file", f"has {len(parts)} parts inside: no workbook has so many")
    size = sum(part.file_size for part in parts)
    held = sum(part.compress_size for part in parts)
    if size > LARGEST_UNPACKED or (size > 20_000_000 and size > STEEPEST_PACKING * max(held, 1)):
        raise fault("file", f"unpacks to {size // 1_000_000} MB: no table of strikes is so large. It was not opened")
    if any(part.flag_bits & 0x1 for part in parts):
        raise fault("file", "is locked by a password: save it without one")
    sheets = [part for part in parts if part.filename.startswith("xl/worksheets/") and part.filename.endswith(".xml")]
    try:
        return any([_look_at_sheet(packed, part) for part in sheets])
    except (zipfile.BadZipFile, zlib.error, ValueError, OSError, EOFError, NotImplementedError) as error:
        raise fault("file", "is a damaged workbook: save it again") from error


def _look_at_sheet(packed: zipfile.ZipFile, part: zipfile.ZipInfo) -> bool:
    """Refuse a cell far away, for which all the emptiness before it would be made; says whether there are formulas."""
    formulas, before = False, b""
    with packed.open(part) as opened:
        while chunk := opened.read(SCANNED):
            text = before + chunk.translate(PLAIN_MARKS)
            for far in FAR.finditer(text):
                if far.group(1) is None:
                    raise fault("file", f"has more than {MOST_COLUMNS} columns")
                if int(far.group(1)) > MOST_ROWS:
                    raise fault("file", f"has more than {MOST_ROWS} rows: split it")
            formulas = formulas or any(mark in text for mark in FORMULAS)
            before = text[-40:]
    return formulas


def _sheet(content: bytes, sheet: str | None, tell: Tell, *, formulas: bool) -> RawTable:
    book = CalamineWorkbook.from_filelike(io.BytesIO(content))
    names = tuple(
        meta.name for meta in book.sheets_metadata
        if meta.typ == SheetTypeEnum.WorkSheet and meta.visible == SheetVisibleEnum.Visible
    )  # fmt: skip
    if not names:
        raise fault("file", "has no sheet with cells")
    if sheet is not None and sheet not in names:
        raise fault("sheet", f"is not in the file; there are {', '.join(names)}", sheet)
    pages = [book.get_sheet_by_name(name) for name in ((sheet,) if sheet is not None else names)]
    page = max(pages, key=lambda p: p.total_height)
    rows: list[Sequence[Cell]] = []
    for row in page.to_python(skip_empty_area=False):
        rows.append([value if type(value) is float or type(value) is str else _cell(value) for value in row])
        _count(rows, tell)
    while rows and all(cell in (None, "") for cell in rows[-1]):
        rows.pop()
    if not rows:
        raise fault("sheet", "has no rows", page.name)
    _fill_merged(rows, page.merged_cell_ranges or [])
    count = _mark_formulas(content, page.name, rows) if formulas else 0
    return RawTable("xlsx", names, page.name, None, None, rows, count)


def _fill_merged(rows: list[Sequence[Cell]], merged: Sequence[tuple[tuple[int, int], tuple[int, int]]]) -> None:
    """A word merged over several rows stands in each of them; a figure is not repeated, for it was measured once."""
    for (top, left), (bottom, right) in merged:
        word = rows[top][left] if top < len(rows) and left < len(rows[top]) else None
        if left == right and isinstance(word, str) and word:
            for row in rows[top + 1 : bottom + 1]:
                row[left] = word  # type: ignore[index]


def _mark_formulas(content: bytes, sheet: str, rows: list[Sequence[Cell]]) -> int:
    """Mark formulas without a saved result; the others stand for the result. Returns how many formulas there are."""
    book = openpyxl.load_workbook(io.BytesIO(content), read_only=True, keep_links=False)
    count = 0
    try:
        page = book[sheet]
        page.reset_dimensions()
        for i, row in enumerate(page.iter_rows(values_only=True, max_row=len(rows))):
            for j, value in enumerate(row[:MOST_COLUMNS]):
                if _is_formula(value):
                    count += 1
                    if j < len(rows[i]) and rows[i][j] in (None, ""):
                        rows[i][j] = NO_RESULT  # type: ignore[index]
    finally:
        book.close()
    return count


def _is_formula(value: Any) -> bool:
    return (isinstance(value, str) and value.startswith("=")) or isinstance(value, (ArrayFormula, DataTableFormula))


def _cell(value: Any) -> Cell:
    if value is None or isinstance(value, str):
        return value
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, (int, float)):
        return float(value)
    if isinstance(value, (datetime, date, time)):
        return value.isoformat()
    return str(value)


def _count(rows: list[Sequence[Cell]], tell: Tell) -> None:
    if len(rows) > MOST_ROWS:
        raise fault("file", f"has more than {MOST_ROWS} rows: split it")
    if len(rows) % 5000 == 0:
        tell(len(rows))


def _width(rows: list[Sequence[Cell]]) -> None:
    widest = max(range(len(rows)), key=lambda i: len(rows[i]), default=0)
    if rows and len(rows[widest]) > MOST_COLUMNS:
        raise fault("file", f"has more than {MOST_COLUMNS} columns in row {widest + 1}: is the delimiter right?")
