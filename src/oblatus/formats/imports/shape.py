"""Where the table starts: its header, over one row or two, a row of units below it, and its rows."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from oblatus.errors import fault
from oblatus.formats.imports.guess import names_known
from oblatus.formats.imports.quantities import unit_named
from oblatus.formats.imports.reading import Cell, RawTable

LOOKED_AT = 40


@dataclass(frozen=True, slots=True)
class Shaped:
    """A table: header names with their units, rows, and the number in the file of the first of them."""

    header_row: int
    names: tuple[str, ...]
    units: tuple[str | None, ...]
    rows: list[Sequence[Cell]]
    first_row: int


def shape(table: RawTable, header_row: int | None = None) -> Shaped:
    """The table of a file; `header_row` (from 1; 0 for none) is found out when it is not given.

    A header may stand over two rows, the upper one merged over several columns, and a row of units may stand below.

    Raises
    ------
    InputError
        If the header row is not in the file or no row follows it.
    """
    rows = table.rows
    if header_row is None:
        header_row = _find_header(rows)
    if header_row > len(rows):
        raise fault("layout.header_row", f"must be at most {len(rows)}, the last row of the file", header_row)
    if header_row == 0:
        width = max(len(row) for row in rows)
        return Shaped(0, tuple(f"column {i + 1}" for i in range(width)), (None,) * width, rows, 1)
    names = _names(rows, header_row - 1)
    first = header_row
    units: tuple[str | None, ...] = (None,) * len(names)
    if first < len(rows) - 1 and _is_units(rows[first]):
        here = [unit_named(_text(cell).strip("[]()")) for cell in rows[first]]
        units = tuple((here + [None] * len(names))[: len(names)])
        first += 1
    if first >= len(rows):
        raise fault("file", "has a header and no row below it")
    return Shaped(header_row, names, units, rows[first:], first + 1)


def _find_header(rows: Sequence[Sequence[Cell]]) -> int:
    """The row with most names that are known; without any, the first row of words above a row of numbers; else none."""
    head = rows[:LOOKED_AT]
    known = [names_known(_names(rows, i)) for i in range(len(head))]
    best = max(range(len(head)), key=lambda i: (known[i], -i))
    if known[best] > 0:
        return best + 1
    for i in range(len(head) - 1):
        if len(head[i]) > 1 and not any(_is_number(c) for c in head[i]) and any(_is_number(c) for c in head[i + 1]):
            return i + 1
    return 0


def _names(rows: Sequence[Sequence[Cell]], at: int) -> tuple[str, ...]:
    """Names of a header row, joined with the merged one above it where that makes more of them known."""
    own = tuple(_text(cell) for cell in rows[at])
    if at == 0:
        return own
    above: list[str] = []
    for i in range(len(own)):
        cell = _text(rows[at - 1][i]) if i < len(rows[at - 1]) else ""
        above.append(cell or (above[-1] if above else ""))
    joined = tuple(
        f"{upper} {lower}".strip() if upper != lower else lower for upper, lower in zip(above, own, strict=True)
    )
    return joined if names_known(joined) > names_known(own) else own


def _is_units(row: Sequence[Cell]) -> bool:
    words = [_text(cell).strip("[]()") for cell in row if _text(cell)]
    return bool(words) and 2 * sum(unit_named(word) is not None for word in words) >= len(words)


def _text(cell: Cell) -> str:
    return "" if cell is None else str(cell).strip()


def _is_number(cell: Cell) -> bool:
    if isinstance(cell, float):
        return True
    try:
        float((cell or "").replace(",", "."))
    except ValueError:
        return False
    return True
