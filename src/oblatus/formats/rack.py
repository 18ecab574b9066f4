"""The rack as CSV: one head a row, units in the headers."""

from __future__ import annotations

import csv
import io

from pydantic import ValidationError

from oblatus.errors import Fault, InputError
from oblatus.formats.fields import faults_of
from oblatus.formats.sections.bag import RackHeadDocument

TEXT_COLUMNS = {"code", "name", "make"}
COLUMNS = ("code", "name", *(k for k in RackHeadDocument.model_fields if k not in ("code", "name")))


def read_rack(text: str) -> list[RackHeadDocument]:
    """Heads from CSV text.

    Raises
    ------
    InputError
        With one fault for each wrong cell, named `line N, column`; nothing is read in part.
    """
    try:
        return _heads(csv.DictReader(io.StringIO(text, newline="")))
    except csv.Error as error:
        raise InputError([Fault("csv", f"cannot be read: {error}")]) from error


def _heads(reader: csv.DictReader[str]) -> list[RackHeadDocument]:
    missing = {"code", "name", "loft_deg", "bounce_deg"} - set(reader.fieldnames or ())
    if missing:
        raise InputError([Fault("header", f"lacks the columns {', '.join(sorted(missing))}")])
    heads: list[RackHeadDocument] = []
    faults: list[Fault] = []
    for row in reader:
        try:
            heads.append(RackHeadDocument.model_validate(_typed(row)))
        except ValidationError as error:
            faults.extend(faults_of(error, [f"line {reader.line_num}"]).faults)
    codes = [head.code for head in heads]
    faults.extend(Fault("code", "stands twice", code) for code in sorted({c for c in codes if codes.count(c) > 1}))
    if faults:
        raise InputError(faults)
    return heads


def _typed(row: dict[str, str]) -> dict[str, str | float | int]:
    typed: dict[str, str | float | int] = {}
    for key, cell in row.items():
        if key in TEXT_COLUMNS:
            typed[key] = cell
            continue
        if key == "price" and cell == "":
            continue  # the studio states none
        try:
            typed[key] = int(cell) if key == "stock" else float(cell)
        except (TypeError, ValueError):
            typed[key] = cell
    return typed
