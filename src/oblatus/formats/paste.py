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
from oblatus.formats.strikes import StrikeDocument
from oblatus.units import METRES_PER_FOOT, METRES_PER_SECOND_PER_MPH, METRES_PER_YARD

MOST_ROWS = 2000

COLUMNS = {
    "club": ("club",),
    "swing": ("swing", "clock"),
    "carry_m": ("carry",),
    "club_speed_mps": ("club speed", "head speed", "club head speed"),
    "ball_speed_mps": ("ball speed",),
    "launch_deg": ("launch", "launch angle"),
    "spin_rpm": ("spin", "spin rate", "backspin"),
    "apex_m": ("apex", "height", "peak height"),
    "landing_deg": ("landing", "landing angle", "descent", "descent angle"),
    "attack_deg": ("attack", "attack angle"),
    "lean_deg": ("lean", "shaft lean"),
    "entry_mm": ("entry",),
    "dynamic_loft_deg": ("dynamic loft",),
    "impact_height_mm": ("contact height",),
    "exit_mm": ("exit",),
    "mark_back_mm": ("mark back",),
    "mark_toe_mm": ("mark toe",),
    "set_aside": ("set aside",),
    "note": ("note",),
}
WORDS = ("club", "swing", "set_aside", "note")
TELLING = ("carry_m", "attack_deg", "lean_deg", "entry_mm")
UNITS = {
    "carry_m": {"m": 1.0, "metres": 1.0, "yd": METRES_PER_YARD, "yds": METRES_PER_YARD, "yards": METRES_PER_YARD},
    "apex_m": {"m": 1.0, "yd": METRES_PER_YARD, "ft": METRES_PER_FOOT, "feet": METRES_PER_FOOT},
    "club_speed_mps": {"m/s": 1.0, "mph": METRES_PER_SECOND_PER_MPH, "km/h": 1.0 / 3.6},
    "ball_speed_mps": {"m/s": 1.0, "mph": METRES_PER_SECOND_PER_MPH, "km/h": 1.0 / 3.6},
}
NEEDS_UNIT = ("apex_m", "club_speed_mps", "ball_speed_mps")


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
    lines = [line for line in text.replace("\r\n", "\n").replace("\r", "\n").split("\n") if line.strip()]
    if not lines:
        raise fault("text", "is empty: paste carries, or a table with a header")
    if len(lines) > MOST_ROWS:
        raise fault("text", f"has {len(lines)} lines; paste at most {MOST_ROWS} at a time")
    delimiter = _delimiter(lines)
    table = [[part.strip() for part in line.split(delimiter)] for line in lines]
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


def _delimiter(lines: Sequence[str]) -> str:
    """Tab, semicolon or comma, whichever the first line has; a decimal comma never parts when a semicolon or tab does."""
    for mark in ("\t", ";"):
        if any(mark in line for line in lines):
            return mark
    # numbers alone on their lines with at most one figure after a comma: a decimal comma; any other comma parts cells
    if all(re.fullmatch(r"\s*\d+(,\d)?\s*", line) for line in lines):
        return "\n"
    return "," if any("," in line for line in lines) else ("\n" if not any(" " in x.strip() for x in lines) else " ")


def _header(row: Sequence[str]) -> list[str] | None:
    """Fields of the header's columns, or None if the line has no name that is known."""
    names = [re.sub(r"[\[(].*", "", part).strip().casefold() for part in row]
    found = [next((field for field, words in COLUMNS.items() if name in words), f"?{name}") for name in names]
    if not any(field in COLUMNS for field in found):
        return None
    if not any(field in found for field in TELLING):
        raise fault("text", "has a header without a column called carry", ", ".join(row)[:80])
    twice = next((field for field in found if field in COLUMNS and found.count(field) > 1), None)
    if twice is not None:
        raise fault("text", f"has two columns for {COLUMNS[twice][0]}", ", ".join(row)[:80])
    return found


def _scales(row: Sequence[str], header: Sequence[str], unit: str) -> tuple[dict[str, float], str]:
    scales: dict[str, float] = {}
    stated = unit
    for part, field in zip(row, header, strict=True):
        named = re.search(r"[\[(]\s*([a-z/]+)\s*[\])]", part.casefold())
        if field not in UNITS:
            continue
        if named is None and field in NEEDS_UNIT:
            known = ", ".join(UNITS[field])
            raise fault("text", f"the column {part} names no unit: write one of {known} after it in brackets", part)
        if named is None:
            scales[field] = _scale(unit)
            continue
        if named.group(1) not in UNITS[field]:
            raise fault("text", f"the column {part} has a unit that is not known here", named.group(1))
        scales[field] = UNITS[field][named.group(1)]
        if field == "carry_m":
            stated = "m" if scales[field] == 1.0 else "yd"
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
            values[field] = text if field in WORDS else _number(field, text) * scales.get(field, 1.0)
    try:
        return StrikeDocument.model_validate(values)
    except ValidationError as error:
        raise faults_of(error) from error


def _number(field: str, text: str) -> float:
    plain = text.replace("\u00a0", "").replace(" ", "")
    if plain.count(",") == 1 and "." not in plain:
        plain = plain.replace(",", ".")
    try:
        return float(plain)
    except ValueError:
        raise fault(field, "is not a number", text[:40]) from None


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
