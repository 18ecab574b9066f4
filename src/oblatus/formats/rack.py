"""The rack as a table: one head a row, columns by the keys or the labels of its figures."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from pydantic import ValidationError

from oblatus.core.clubs import Head
from oblatus.core.figures import figures
from oblatus.errors import Fault, InputError
from oblatus.formats.fields import faults_of
from oblatus.formats.limits import MOST_HEADS
from oblatus.formats.sections.bag import RackHeadDocument
from oblatus.formats.strikes_csv import safe_text

COLUMNS = ("code", "name", *(k for k in RackHeadDocument.model_fields if k not in ("code", "name")))
TEXT_COLUMNS = {"code", "name", "make"}
NEEDED = ("code", "name", "loft_deg", "bounce_deg")
LABELS = {
    "code": "code", "name": "head", "make": "make", "bend_limit_deg": "bend ±", "stock": "stock", "price": "price",
    **{key: figure.words.lower() for key, figure in figures(Head).items()},
}  # fmt: skip
"""Columns as the screen and its messages call them."""
UNITS = {"mm", "deg", "kg"}
SHORT = {figure.short.lower(): key for key, figure in figures(Head).items() if figure.short}


def column_of(header: str) -> tuple[str, float] | None:
    """The key of a column by its header, and what turns its figures into the document's: a share may be in per cent."""
    if header in COLUMNS:
        return header, 1.0
    words = re.sub(r"[^\w%]+", " ", header.casefold()).split()
    percent = words[-1:] == ["%"]
    plain = " ".join(words[:-1] if percent or (words[-1:] and words[-1] in UNITS) else words)
    names = {**SHORT, "bend": "bend_limit_deg"}
    names |= {" ".join(re.sub(r"[^\w%]+", " ", label).split()): key for key, label in LABELS.items()}
    key = names.get(plain) or (plain if plain in COLUMNS else None)
    if key is None:
        return None
    return key, 0.01 if percent else 1.0


def read_rack(text: str) -> list[RackHeadDocument]:
    """Heads from CSV text whose columns are the keys, as this program writes it; `imports.rack_file` reads any other.

    Raises
    ------
    InputError
        With one fault for each wrong cell, named `line N, column`; nothing is read in part.
    """
    reader = csv.DictReader(io.StringIO(text, newline=""))
    check_header(reader.fieldnames or ())
    return heads_of((reader.line_num, {key: _typed(key, cell) for key, cell in row.items()}) for row in reader)


def _typed(key: str, cell: str) -> str | float | int:
    if key in TEXT_COLUMNS:
        return cell
    try:
        return int(cell) if key == "stock" else float(cell)
    except (TypeError, ValueError):
        return cell


def check_header(keys: Sequence[str]) -> None:
    """Raises InputError if a column that every head needs is not among the keys, or one is there twice."""
    missing = [LABELS[key] for key in NEEDED if key not in keys]
    twice = sorted({LABELS[key] for key in keys if keys.count(key) > 1})
    if missing:
        raise InputError([Fault("header", f"lacks the columns {', '.join(missing)}")])
    if twice:
        raise InputError([Fault("header", f"has a column twice: {', '.join(twice)}")])


def heads_of(rows: Iterable[tuple[int, Mapping[str, Any]]]) -> list[RackHeadDocument]:
    """Heads from rows with their numbers in the file; what is empty takes its usual value.

    Raises
    ------
    InputError
        With one fault for each wrong cell and each code that stands twice; nothing is read in part.
    """
    heads: list[RackHeadDocument] = []
    faults: list[Fault] = []
    for n, (line, row) in enumerate(rows):
        if n == MOST_HEADS:
            raise InputError([Fault("file", f"holds more than {MOST_HEADS} heads: take out what is not to be fitted")])
        try:
            heads.append(
                RackHeadDocument.model_validate({key: cell for key, cell in row.items() if cell not in ("", None)})
            )
        except ValidationError as error:
            faults += [
                Fault(f"line {line}, {LABELS.get(one.field, one.field)}", one.message, one.value)
                for one in faults_of(error).faults
            ]
    codes = [head.code for head in heads]
    faults.extend(Fault("code", "stands twice", code) for code in sorted({c for c in codes if codes.count(c) > 1}))
    if faults:
        raise InputError(faults)
    return heads


def rack_csv(heads: Sequence[RackHeadDocument]) -> str:
    """Every head a row, columns by their keys; words that a spreadsheet would run as a formula are made text."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for head in heads:
        cells = head.model_dump()
        writer.writerow([
            safe_text(cells[key]) if key in TEXT_COLUMNS else "" if cells[key] is None else cells[key] for key in COLUMNS
        ])  # fmt: skip
    return out.getvalue()
