"""Guesses of what a file's columns, units, clubs and swings are; the fitter sees and changes every one."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterable, Sequence
from typing import TYPE_CHECKING, Any

from oblatus.core.fitting.carries_of import ClubRow
from oblatus.core.gapping import SWINGS, Swing
from oblatus.core.gapping.strikes import SHORT_STATIONS, STATIONS
from oblatus.formats.imports.quantities import FIELDS, NO_RESULT, USUAL_UNITS, plain_name

if TYPE_CHECKING:
    from oblatus.formats.imports.shape import Shaped

FIELD_OF = {name: field for field, known in FIELDS.items() for name in known.names}
LOOKED_AT = 2000
MOST_WORDS = 200
CLUB_WORDS = {
    "pw": ("pw", "p", "pitching", "pitching wedge", "pitch wedge"),
    "9i": ("9i", "9", "9 iron", "iron 9", "nine iron", "i9", "9 i"),
    "gap": ("gw", "aw", "gap", "gap wedge", "approach", "approach wedge", "g", "a"),
    "sand": ("sw", "sand", "sand wedge", "s"),
    "lob": ("lw", "lob", "lob wedge", "l"),
}
SWING_WORDS = {s.key: s.spellings for s in SWINGS} | {s.key: s.spellings for s in STATIONS}


def names_known(row: Iterable[object]) -> int:
    """How many cells of a row name a field that is known, each field once."""
    return len({FIELD_OF.get(plain_name(str(cell))[0]) for cell in row if cell} - {None})


def signature_of(names: Sequence[str]) -> str:
    """A header without case and marks, by which a saved mapping finds the files it was made for."""
    return "|".join(" ".join(name.split()).casefold() for name in names)[:2000]


def guess_mapping(shaped: Shaped, clubs: Sequence[ClubRow], swings: Sequence[Swing], unit: str) -> dict[str, Any]:
    """A mapping as plain data; what could not be guessed is missing or null. `unit` (m or yd) is the fitter's own.

    A unit that the file does not state is guessed only where one is usual; speeds and heights are left to be chosen.
    """
    columns: list[dict[str, Any]] = []
    taken: set[str] = set()
    for i, name in enumerate(shaped.names):
        words, stated = plain_name(name)
        field = FIELD_OF.get(words)
        if field is None or field in taken:
            continue
        taken.add(field)
        columns.append({"column": i + 1, "field": field, "unit": _unit(field, stated or shaped.units[i], unit)})
    used = {column["field"]: column["column"] - 1 for column in columns}
    return {
        "columns": columns,
        "decimal": decimal_of(shaped, [c["column"] - 1 for c in columns if FIELDS[c["field"]].units is not None]),
        "clubs": _known((word, guess_club(word, clubs)) for word in words_in(shaped, used.get("club"))),
        "swings": _known((word, guess_swing(word, swings)) for word in words_in(shaped, used.get("swing"))),
    }


def _known(words: Iterable[tuple[str, str | None]]) -> dict[str, str]:
    return {word: code for word, code in words if code is not None}


def words_in(shaped: Shaped, column: int | None) -> list[str]:
    """The different words of a column in the order of their first appearance, at most 200."""
    if column is None:
        return []
    found: dict[str, None] = {}
    for row in shaped.rows:
        if column < len(row) and row[column] not in (None, "", NO_RESULT):
            word = word_of(row[column])
            if word:
                found[word] = None
                if len(found) >= MOST_WORDS:
                    break
    return list(found)


def word_of(cell: object) -> str:
    """A cell as the word by which it is mapped: trimmed, whole numbers without a point, at most 200 letters."""
    return text_of(cell)[:200]


def text_of(cell: object) -> str:
    """A cell as text: one space between words, whole numbers without a point."""
    return f"{cell:.10g}" if isinstance(cell, float) else " ".join(str(cell).replace("\x00", "").split())


def guess_club(word: str, clubs: Sequence[ClubRow]) -> str | None:
    """The club that a word most likely means: by code or name, by usual short names, by loft if only one is near."""
    plain = re.sub(r"[^\w:/ ]+", " ", word.casefold()).strip()
    for row in clubs:
        if plain in {row.code.casefold(), row.name.casefold()}:
            return row.code
    kind = next((kind for kind, names in CLUB_WORDS.items() if plain in names), None)
    if kind in ("pw", "9i"):
        return kind
    if kind is not None:
        named = [row.code for row in clubs if kind in row.name.casefold()]
        return named[0] if len(named) == 1 else None
    loft = re.search(r"(?<!\d)(\d{2}(?:[.,]\d)?)(?!\d)", plain)
    if loft is not None:
        wanted = float(loft.group(1).replace(",", "."))
        near = [row.code for row in clubs if abs(row.loft_deg - wanted) <= 1.0]
        if len(near) == 1:
            return near[0]
    named = [row.code for row in clubs if plain and plain in row.name.casefold()]
    return named[0] if len(named) == 1 else None


def guess_swing(word: str, swings: Sequence[Swing]) -> str | None:
    """The swing or station that a word most likely means."""
    plain = word.casefold()
    for swing in swings:
        if plain in {swing.key, swing.name.casefold()}:
            return swing.key
    known = {swing.key for swing in swings} | {*SHORT_STATIONS}
    return next((key for key, names in SWING_WORDS.items() if plain in names and key in known), None)


def _unit(field: str, stated: str | None, usual: str) -> str | None:
    units = FIELDS[field].units
    if units is None:
        return None
    if stated in units:
        return stated
    if field == "carry_m":
        return usual
    return USUAL_UNITS.get(field)


def decimal_of(shaped: Shaped, columns: Sequence[int]) -> str:
    """Comma or point, by which of them stands where no thousands mark can."""
    seen: Counter[str] = Counter()
    for row in shaped.rows[:LOOKED_AT]:
        for column in columns:
            cell = row[column] if column < len(row) else None
            if not isinstance(cell, str):
                continue
            if re.search(r"\d,(\d{1,2}|\d{4,})(?!\d)", cell) or re.search(r"\d\.\d{3},\d", cell):
                seen["comma"] += 1
            elif re.search(r"\d\.(\d{1,2}|\d{4,})(?!\d)", cell) or re.search(r"\d,\d{3}\.\d", cell):
                seen["point"] += 1
    return "comma" if seen["comma"] > seen["point"] else "point"
