"""`oblatus import FILE`: how a file of strikes is read, and the strikes it comes to, for a fitting document."""

from __future__ import annotations

import json
import sys
from argparse import Namespace
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from oblatus.cli.arguments import read_text, say
from oblatus.core.fitting.carries_of import bag_rows
from oblatus.core.gapping.strikes import SHORT_STATIONS
from oblatus.core.words import counted
from oblatus.errors import fault
from oblatus.formats.convert import fitting_from
from oblatus.formats.fields import faults_of
from oblatus.formats.fitting import FittingDocument, load_fitting
from oblatus.formats.imports import FOUND_OUT, Converted, MappingDocument, convert_rows, guess_mapping, shape
from oblatus.formats.imports.layout import read_in
from oblatus.formats.sections.grounds import GroundDocument
from oblatus.formats.sections.player import PlayerDocument
from oblatus.formats.strikes import StrikeDocument


def add_import(commands: Any) -> None:
    """Register `import`."""
    parser = commands.add_parser("import", help="read strikes from a CSV or XLSX file of any shape")
    parser.add_argument("file", help="the file, - for standard input")
    parser.add_argument("--fitting", help="a fitting document, for its clubs and swings")
    parser.add_argument("--mapping", help="a mapping as JSON instead of a guess")
    parser.add_argument("--unit", choices=("m", "yd"), default="m", help="of carries whose header names none")
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run_import)


def run_import(args: Namespace) -> int:
    """Print the mapping, the strikes and what is wrong; nothing is saved. Exit code 1 if a row is wrong."""
    document = load_fitting(read_text(args.fitting)) if args.fitting else _nobody()
    fitting = fitting_from(document, ())
    clubs = bag_rows(fitting)
    mapping = _mapping(read_text(args.mapping)) if args.mapping else None
    layout = mapping.layout if mapping is not None else FOUND_OUT
    shaped = shape(read_in(_bytes(args.file), layout), layout.header_row)
    if mapping is None:
        mapping = _mapping(json.dumps(guess_mapping(shaped, clubs, fitting.swings, args.unit)))
    lofts = {club.code: club.loft_deg for club in clubs}
    found = convert_rows(shaped, mapping, lofts, [*(swing.key for swing in fitting.swings), *SHORT_STATIONS])
    say(json.dumps(_out(mapping, found), ensure_ascii=False, allow_nan=False) if args.json else _words(mapping, found))
    return 1 if found.wrong_rows else 0


def _nobody() -> FittingDocument:
    return FittingDocument(player=PlayerDocument(name="nobody"), grounds=(GroundDocument(name="home", share=1.0),))


def _bytes(path: str) -> bytes:
    try:
        return sys.stdin.buffer.read() if path == "-" else Path(path).read_bytes()
    except OSError as error:
        raise fault("file", error.strerror or "cannot be read", path) from error


def _mapping(text: str) -> MappingDocument:
    try:
        return MappingDocument.model_validate(json.loads(text))
    except ValidationError as error:
        raise faults_of(error) from error
    except ValueError as error:
        raise fault("mapping", "is not JSON") from error


def _out(mapping: MappingDocument, found: Converted) -> dict[str, Any]:
    strikes = [StrikeDocument.model_validate(found.strike(i) | {"origin": "file"}) for i in range(len(found.rows))]
    return {
        "mapping": mapping.model_dump(mode="json"),
        "rows": found.total,
        "left_out": found.left_out,
        "strikes": [strike.model_dump(mode="json") for strike in strikes],
        "wrong": [{"row": w.row, "column": w.column, "value": w.value, "reason": w.reason} for w in found.wrong],
    }


def _words(mapping: MappingDocument, found: Converted) -> str:
    lines = [f"column {c.column}: {c.field}{f' in {c.unit}' if c.unit else ''}" for c in mapping.columns]
    taken = f"{counted(len(found.rows), 'strike')} of {counted(found.total, 'row')}"
    lines.append(f"{taken}, {found.left_out} left out, {found.wrong_rows} wrong")
    lines += [f"row {w.row}{f', {w.column}' if w.column else ''}: {w.value!r} {w.reason}" for w in found.wrong[:40]]
    return "\n".join(lines)
