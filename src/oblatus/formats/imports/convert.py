"""Rows of a file as strikes, column by column; every wrong cell is named with its row, column, value and reason."""

from __future__ import annotations

import csv
import hashlib
import io
import math
from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from uuid import UUID

import numpy as np
from numpy.typing import NDArray

from oblatus.core.gapping.strikes import STRIKE_FIGURES
from oblatus.core.words import SI, Reader, worded
from oblatus.formats.imports.guess import text_of, word_of
from oblatus.formats.imports.mapping import MappingDocument
from oblatus.formats.imports.numbers import numbers_of
from oblatus.formats.imports.quantities import FIELDS, NO_RESULT
from oblatus.formats.imports.reading import Cell
from oblatus.formats.imports.shape import Shaped
from oblatus.formats.strikes import MEASURED
from oblatus.formats.strikes_csv import safe_text, typed_text

CHUNK = 5000
MOST_KEPT = 20_000
LONGEST = {"note": 200, "set_aside": 120}
DIVOTS = {"none": "none", "no": "none", "bruise": "bruise", "brushed": "bruise", "shallow": "shallow", "deep": "deep"}
YES = frozenset({"yes", "true", "1", "y", "x"})
NO = frozenset({"no", "false", "0", "n"})
FORMULA_WORDS = "is a formula without a saved result: paste its value in its place"
NOTES = ("divot", "note", "set_aside", "simulated")

Column = list[object]
Tell = Callable[[int, int], None]
"""Hears rows done and rows in all; raises to stop."""


@dataclass(frozen=True, slots=True)
class Wrong:
    """What is wrong with a row of the file: its number there, column, value and reason."""

    row: int
    column: str
    value: str
    reason: str


@dataclass(slots=True)
class Converted:
    """Strikes column by column, by the names of `StrikeDocument`, with the row each came from; and what is wrong."""

    columns: dict[str, Column] = field(default_factory=dict)
    rows: list[int] = field(default_factory=list)
    total: int = 0
    left_out: int = 0
    wrong: list[Wrong] = field(default_factory=list)
    wrong_rows: int = 0

    def strike(self, i: int) -> dict[str, object]:
        """The i-th strike that can be taken."""
        return {name: column[i] for name, column in self.columns.items()}


def convert_rows(
    shaped: Shaped,
    mapping: MappingDocument,
    lofts: Mapping[str, float],
    swings: Sequence[str],
    salt: bytes = b"",
    tell: Tell = lambda _done, _total: None,
) -> Converted:
    """Strikes of the rows. `lofts` gives every club's loft [degrees], `swings` the swings there are.

    A strike's id follows from its row's cells and from how often the same row came before: the same file gives the same
    ids, and so does a longer export of the same session. `salt` makes them other strikes than those of any other file.
    """
    found = Converted(columns={name: [] for name in _names(mapping)}, total=len(shaped.rows))
    work = _Work(shaped, mapping, lofts, frozenset(swings), salt)
    for start in range(0, len(shaped.rows), CHUNK):
        work.take(start, shaped.rows[start : start + CHUNK], found)
        tell(min(start + CHUNK, len(shaped.rows)), len(shaped.rows))
    return found


def wrong_csv(wrong: Sequence[Wrong], reader: Reader = SI) -> str:
    """What is wrong, as CSV: row, column, value, and the reason in the reader's units."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(["row", "column", "value", "reason"])
    plain = replace(reader, gap=" ")
    for item in wrong:
        writer.writerow([item.row, safe_text(item.column), safe_text(item.value), safe_text(worded(item.reason, plain))])
    return out.getvalue()


def _names(mapping: MappingDocument) -> list[str]:
    own = [c.field for c in mapping.columns if c.field in MEASURED or c.field in NOTES]
    return ["id", "club", "loft_deg", "swing", *own]


class _Work:
    """The state that goes from chunk to chunk: words looked up, the last club above, rows seen."""

    def __init__(
        self, shaped: Shaped, mapping: MappingDocument, lofts: Mapping[str, float], swings: frozenset[str], salt: bytes
    ) -> None:
        self.shaped, self.mapping, self.lofts, self.swings, self.salt = shaped, mapping, lofts, swings, salt
        self.at: dict[str, int] = {c.field: c.column - 1 for c in mapping.columns}
        self.unit: dict[str, str | None] = {c.field: c.unit for c in mapping.columns}
        self.seen: Counter[bytes] = Counter()
        self.ids: set[str] = set()
        self.above: dict[str, object] = {}
        self.width = len(shaped.names)
        self.last_used = max(self.at.values())

    def take(self, start: int, rows: Sequence[Sequence[Cell]], found: Converted) -> None:
        """Add the strikes of a chunk, whose first row is the table's row `start`."""
        numbers: list[int] = []
        kept: list[Sequence[Cell]] = []
        for i, row in enumerate(rows):
            if any(cell not in (None, "") for cell in row):
                numbers.append(self.shaped.first_row + start + i)
                kept.append(row if len(row) > self.last_used else [*row, *[None] * (self.last_used + 1 - len(row))])
        found.total -= len(rows) - len(kept)
        if not kept:
            return
        wrong: dict[int, list[Wrong]] = {}
        clubs, skip = self._words("club", kept, numbers, wrong)
        swings, skip_too = self._words("swing", kept, numbers, wrong)
        out = skip | skip_too
        figures = {name: self._figures(name, kept, numbers, wrong) for name in self.at if name in MEASURED}
        lofts = self._lofts(clubs, kept, numbers, wrong)
        notes = {name: self._notes(name, kept, numbers, wrong) for name in self.at if name in NOTES}
        measured = [~np.isnan(column) for column in figures.values()]
        known = np.any(measured, axis=0) if measured else np.zeros(len(kept), dtype=bool)
        divots = notes.get("divot", [None] * len(kept))
        nowhere = np.full(len(kept), np.nan)
        backwards = figures.get("exit_mm", nowhere) <= figures.get("entry_mm", nowhere)
        ids = self._ids(kept, numbers, out, wrong)
        for i, row in enumerate(kept):
            if i in out:
                continue
            if not known[i] and divots[i] is None and i not in wrong:
                _say(wrong, i, numbers[i], "", "", "nothing was measured of this strike")
            if backwards[i]:
                _say(wrong, i, numbers[i], self.shaped.names[self.at["exit_mm"]], "", "must lie ahead of the entry")
            if len(row) > self.width and any(cell not in (None, "") for cell in row[self.width :]):
                _say(wrong, i, numbers[i], "", "", f"has {len(row)} cells under a header of {self.width}")
        taken = [i for i in range(len(kept)) if i not in out and i not in wrong]
        ready: dict[str, Sequence[object]] = {"id": ids, "club": clubs, "loft_deg": lofts, "swing": swings}
        ready |= {name: [None if math.isnan(v) else v for v in column.tolist()] for name, column in figures.items()}
        ready.update(notes)
        for name, column in found.columns.items():
            column.extend([ready[name][i] for i in taken])
        found.rows.extend(numbers[i] for i in taken)
        found.left_out += len(out)
        bad = [i for i in sorted(wrong) if i not in out]
        found.wrong_rows += len(bad)
        for i in bad:
            if len(found.wrong) < MOST_KEPT:
                found.wrong.extend(wrong[i])

    def _cells(self, name: str, rows: Sequence[Sequence[Cell]]) -> list[Cell]:
        at = self.at[name]
        return [row[at] for row in rows]

    def _words(
        self, name: str, rows: Sequence[Sequence[Cell]], numbers: Sequence[int], wrong: dict[int, list[Wrong]]
    ) -> tuple[list[str], set[int]]:
        """Club codes or swing keys of the rows, and the rows that the fitter leaves out by their word."""
        usual = self.mapping.club if name == "club" else self.mapping.swing
        known = self.lofts if name == "club" else self.swings
        if name not in self.at:
            if usual is None or usual not in known:
                for i, number in enumerate(numbers):
                    _say(wrong, i, number, name, usual or "", f"is not a {name} of this fitting")
            return [usual or ""] * len(rows), set()
        words = self.mapping.clubs if name == "club" else self.mapping.swings
        found: list[str] = []
        out: set[int] = set()
        for i, cell in enumerate(self._cells(name, rows)):
            if cell == NO_RESULT:
                _say(wrong, i, numbers[i], name, "formula", FORMULA_WORDS)
                found.append("")
                continue
            word = "" if cell is None else word_of(cell)
            if not word and self.mapping.fill_down:
                word = str(self.above.get(name, ""))
            self.above[name] = word
            code = usual if not word else words.get(word, "")
            if code is None and word:
                out.add(i)
            elif not code:
                _say(wrong, i, numbers[i], name, word, "is empty" if not word else f"is no {name} that was chosen")
            elif code not in known:
                _say(wrong, i, numbers[i], name, word, f"is mapped to {code}, which this fitting does not have")
            found.append(code or "")
        return found, out

    def _figures(
        self, name: str, rows: Sequence[Sequence[Cell]], numbers: Sequence[int], wrong: dict[int, list[Wrong]]
    ) -> NDArray[np.float64]:
        units = FIELDS[name].units or {}
        cells = self._cells(name, rows)
        figures, bad = numbers_of(cells, self.mapping.decimal, units[self.unit[name] or ""], units)
        bound = STRIKE_FIGURES[name].bound
        with np.errstate(invalid="ignore"):
            outside = np.flatnonzero((figures < bound.low) | (figures > bound.high))
        bad |= {int(i): bound.words() for i in outside}
        for i, reason in bad.items():
            said = FORMULA_WORDS if cells[i] == NO_RESULT else reason
            _say(wrong, i, numbers[i], self.shaped.names[self.at[name]], _shown(cells[i]), said)
        return figures

    def _lofts(
        self, clubs: Sequence[str], rows: Sequence[Sequence[Cell]], numbers: Sequence[int],
        wrong: dict[int, list[Wrong]],
    ) -> list[float]:  # fmt: skip
        usual = [self.lofts.get(club, 0.0) for club in clubs]
        if "loft_deg" not in self.at:
            return usual
        stated = self._figures("loft_deg", rows, numbers, wrong).tolist()
        return [known if math.isnan(figure) else figure for figure, known in zip(stated, usual, strict=True)]

    def _notes(
        self, name: str, rows: Sequence[Sequence[Cell]], numbers: Sequence[int], wrong: dict[int, list[Wrong]]
    ) -> list[object]:
        found: list[object] = []
        for i, cell in enumerate(self._cells(name, rows)):
            word = "" if cell is None else text_of(cell)
            value, reason = (None, FORMULA_WORDS) if cell == NO_RESULT else _note(name, word)
            if reason:
                _say(wrong, i, numbers[i], self.shaped.names[self.at[name]], _shown(word), reason)
            found.append(value)
        return found

    def _ids(
        self, rows: Sequence[Sequence[Cell]], numbers: Sequence[int], out: set[int], wrong: dict[int, list[Wrong]]
    ) -> list[str]:
        stated = self._cells("id", rows) if "id" in self.at else [None] * len(rows)
        found: list[str] = []
        for i, (row, cell) in enumerate(zip(rows, stated, strict=True)):
            if cell in (None, ""):
                found.append(self._own_id(row))
                continue
            try:
                name = str(UUID(str(cell).strip()))
            except ValueError:
                _say(wrong, i, numbers[i], "id", _shown(cell), "is no id: leave this column out")
                name = ""
            if name in self.ids and i not in out:
                _say(wrong, i, numbers[i], "id", name, "stands in a row above too")
            self.ids.add(name)
            found.append(name)
        return found

    def _own_id(self, row: Sequence[Cell]) -> str:
        text = "\x1f".join(["" if cell is None else str(cell).strip() for cell in row]).rstrip("\x1f").encode()
        again = self.seen[text]
        self.seen[text] += 1
        digest = hashlib.blake2b(b"%d|%b" % (again, text), digest_size=16, key=self.salt[:64]).hexdigest()
        # a UUID of version 8 (RFC 9562): made from content
        return f"{digest[:8]}-{digest[8:12]}-8{digest[13:16]}-8{digest[17:20]}-{digest[20:]}"


def _note(name: str, word: str) -> tuple[object, str]:
    """Value of a column of words, and what is wrong with it."""
    plain = word.casefold()
    if name == "divot":
        if not word or plain in DIVOTS:
            return DIVOTS.get(plain), ""
        return None, "must be none, bruise, shallow or deep"
    if name == "simulated":
        return plain in YES, "" if not word or plain in YES | NO else "must be yes or no"
    if len(word) > LONGEST[name]:
        return "", f"is longer than {LONGEST[name]} characters"
    word = typed_text(word)  # our own export keeps spreadsheets from running it
    if name == "set_aside":
        return (None if not word or plain in NO else "set aside in the file" if plain in YES else word), ""
    return word, ""


def _say(wrong: dict[int, list[Wrong]], i: int, row: int, column: str, value: str, reason: str) -> None:
    wrong.setdefault(i, []).append(Wrong(row, column, value[:60], reason))


def _shown(cell: object) -> str:
    return f"{cell:.10g}" if isinstance(cell, float) else str(cell).replace(NO_RESULT, "formula")
