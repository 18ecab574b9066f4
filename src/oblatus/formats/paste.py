"""Strikes from pasted cells of a spreadsheet: a list of carries for one club and swing, or a table with a header."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from uuid import UUID, uuid5

from pydantic import ValidationError

from oblatus.core.fitting.carries_of import ClubRow
from oblatus.core.gapping import Swing
from oblatus.core.gapping.strikes import SHORT_STATIONS
from oblatus.errors import Fault, InputError, fault
from oblatus.formats.fields import faults_of
from oblatus.formats.imports.guess import FIELD_OF, names_known
from oblatus.formats.imports.numbers import number_of
from oblatus.formats.imports.quantities import FIELDS, USUAL_UNITS, plain_name
from oblatus.formats.imports.reading import delimiter_of, rows_of_text
from oblatus.formats.strikes import MEASURED, StrikeDocument
from oblatus.units import METRES_PER_YARD

MOST_ROWS = 2000

COLUMNS = ("club", "swing", *MEASURED, "set_aside", "note")
WORDS = ("club", "swing", "set_aside", "note")
TELLING = ("carry_m", "attack_deg", "lean_deg", "entry_mm")


@dataclass(frozen=True, slots=True)
class Pasted:
    """Strikes read, in metres, and the unit that the carries were in."""

    strikes: tuple[StrikeDocument, ...]
    unit: str


def read_pasted(
    text: str,
    unit: str,
    paste_id: UUID,
    clubs: Sequence[ClubRow],
    swings: Sequence[Swing],
    cell: tuple[str, str] | None = None,
) -> Pasted:
    """Strikes of the text; ids follow from `paste_id`, so that the same paste sent again adds nothing.

    `unit` ("m" or "yd") holds for carries whose header names none; `cell` (club, swing) for rows that name none.

    Raises
    ------
    InputError
        With the line and column of every wrong cell; nothing is read in part.
    """
    if not text.strip():
        raise fault("text", "is empty: paste carries, or a table with a header")
    table = _table(text)
    if len(table) > MOST_ROWS:
        raise fault("text", f"has {len(table)} lines; paste at most {MOST_ROWS} at a time")
    header = _header(table[0])
    if header is None:
        if cell is None:
            raise fault("text", "has no header: choose a club and swing in the table, or paste a line with the names")
        carries = [part for row in table for part in row if part]
        return Pasted(
            _rows([{"carry_m": part} for part in carries], {"carry_m": _scale(unit)}, paste_id, cell, clubs, swings), unit
        )
    scales, stated = _scales(table[0], header, unit)
    rows = [dict(zip(header, row, strict=False)) for row in table[1:]]
    if not rows:
        raise fault("text", "has a header and no strike below it")
    return Pasted(_rows(rows, scales, paste_id, cell, clubs, swings), stated)


def _table(text: str) -> list[list[str]]:
    """Rows of cells: a table as the import reads it, quotes and all; figures alone parted by whatever stands between."""
    delimiter = delimiter_of(text)
    rows = [[str(cell).strip() for cell in row] for row in rows_of_text(text, delimiter)]
    rows = [row for row in rows if any(row)]
    if names_known(rows[0]) > 0:
        return rows
    lines = [line for line in text.splitlines() if line.strip()]
    # with at most one figure after a comma it is a decimal comma; any other comma parts figures, and so does a blank
    if all(re.fullmatch(r"\s*\d+(,\d)?\s*", line) for line in lines):
        return [[line.strip()] for line in lines]
    mark = next((mark for mark in ("\t", ";", ",") if any(mark in line for line in lines)), None)
    return [[part.strip() for part in line.split(mark)] for line in lines]


def _header(row: Sequence[str]) -> list[str] | None:
    """Fields of the header's columns, or None if the line has no name that is known."""
    names = [plain_name(part)[0] for part in row]
    found = [field if (field := FIELD_OF.get(name)) in COLUMNS else f"?{name}" for name in names]
    if not any(field in COLUMNS for field in found):
        return None
    if not any(field in found for field in TELLING):
        raise fault("text", "has a header without a column called carry", ", ".join(row)[:80])
    twice = next((field for field in found if field in COLUMNS and found.count(field) > 1), None)
    if twice is not None:
        raise fault("text", f"has two columns for {FIELDS[twice].label}", ", ".join(row)[:80])
    return found


def _scales(row: Sequence[str], header: Sequence[str], unit: str) -> tuple[dict[str, float], str]:
    """Factor of every column with figures, and the unit that the carries are in."""
    scales: dict[str, float] = {}
    stated = unit
    for part, field in zip(row, header, strict=True):
        units = FIELDS[field].units if field in COLUMNS else None
        if units is None:
            continue
        said = plain_name(part)[1]
        bracket = re.search(r"[\[(]\s*(.*?)\s*[\])]", part)
        if bracket is not None and said not in units:
            raise fault("text", f"the column {part} has a unit that is not known here", bracket.group(1))
        named = said if said in units else (unit if field == "carry_m" else USUAL_UNITS.get(field))
        if named is None:
            known = ", ".join(units)
            raise fault("text", f"the column {part} names no unit: write one of {known} after it in brackets", part)
        scales[field] = units[named]
        if field == "carry_m":
            stated = "yd" if named == "yd" else "m"
    return scales, stated


def _scale(unit: str) -> float:
    return METRES_PER_YARD if unit == "yd" else 1.0


def _rows(
    rows: Sequence[Mapping[str, str]],
    scales: Mapping[str, float],
    paste_id: UUID,
    cell: tuple[str, str] | None,
    clubs: Sequence[ClubRow],
    swings: Sequence[Swing],
) -> tuple[StrikeDocument, ...]:
    found: list[StrikeDocument] = []
    faults: list[Fault] = []
    for number, row in enumerate(rows, start=1):
        try:
            found.append(_strike(row, scales, uuid5(paste_id, str(number)), cell, clubs, swings))
        except InputError as error:
            faults.extend(Fault(f"line {number}: {f.field}", f.message, f.value) for f in error.faults)
    if faults:
        raise InputError(faults)
    return tuple(found)


def _strike(
    row: Mapping[str, str],
    scales: Mapping[str, float],
    strike_id: UUID,
    cell: tuple[str, str] | None,
    clubs: Sequence[ClubRow],
    swings: Sequence[Swing],
) -> StrikeDocument:
    club = _club(row.get("club", ""), clubs, cell)
    values: dict[str, object] = {
        "id": str(strike_id),
        "club": club.code,
        "loft_deg": club.loft_deg,
        "swing": _swing(row.get("swing", ""), swings, cell),
        "origin": "pasted",
    }
    for field, text in row.items():
        if field in COLUMNS and field not in {"club", "swing"} and text:
            values[field] = text if field in WORDS else _number(field, text, scales[field])
    try:
        return StrikeDocument.model_validate(values)
    except ValidationError as error:
        raise faults_of(error) from error


def _number(field: str, text: str, scale: float) -> float | None:
    """A cell's figure, None if it says that there is none; one comma and no point is a decimal comma."""
    decimal = "comma" if text.count(",") == 1 and "." not in text else "point"
    figure = number_of(text, decimal, scale, FIELDS[field].units or {})
    if isinstance(figure, str):
        raise fault(field, figure, text[:40])
    return figure


def _club(text: str, clubs: Sequence[ClubRow], cell: tuple[str, str] | None) -> ClubRow:
    """A club by code, name, or loft when only one club has it within half a degree."""
    wanted = text.casefold().rstrip("°").strip()
    if not wanted:
        if cell is None:
            raise fault("club", "is empty")
        wanted = cell[0].casefold()
    named = [row for row in clubs if wanted in {row.code.casefold(), row.name.casefold()}]
    if not named and re.fullmatch(r"\d+([.,]\d+)?", wanted):
        loft = float(wanted.replace(",", "."))
        named = [row for row in clubs if abs(row.loft_deg - loft) <= 0.5]
    if len(named) != 1:
        known = ", ".join(row.name for row in clubs)
        raise fault("club", "is two clubs here" if named else f"is not a club here; there are {known}", text)
    return named[0]


def _swing(text: str, swings: Sequence[Swing], cell: tuple[str, str] | None) -> str:
    wanted = text.casefold().strip()
    if not wanted:
        return cell[1] if cell is not None else "full"
    if wanted in SHORT_STATIONS:
        return wanted
    for swing in swings:
        if wanted in {swing.key, swing.name.casefold(), swing.name.replace(":", "")}:
            return swing.key
    raise fault("swing", f"is not a swing here; there are {', '.join(s.name for s in swings)}", text)
