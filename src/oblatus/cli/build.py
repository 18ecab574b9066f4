"""`oblatus build FILE.json`: the build sheet of a fitting document."""

from __future__ import annotations

from argparse import Namespace
from datetime import date
from pathlib import Path
from typing import Any

from oblatus.cli.arguments import read_text, say
from oblatus.core.fitting.proposal import propose
from oblatus.core.words import SI
from oblatus.formats.build import BuildOut
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_rack
from oblatus.formats.fitting import load_fitting
from oblatus.formats.print.build_sheet import build_pdf
from oblatus.formats.proposal_out import recommendation_out
from oblatus.usecases.build_sheet import sheet_of
from oblatus.usecases.engine import engine


def add_build(commands: Any) -> None:
    """Register `build`."""
    parser = commands.add_parser("build", help="the build sheet of a fitting document")
    parser.add_argument("file", help="a fitting document, - for standard input; its section build, else the proposal")
    parser.add_argument("--json", action="store_true")
    parser.add_argument("--pdf", type=Path, metavar="FILE", help="write the sheet as PDF too")
    parser.set_defaults(run=run_build)


def run_build(args: Namespace) -> int:
    """Print the sheet; a document without a rack is built from the demo rack."""
    document = load_fitting(read_text(args.file))
    fitting, judge = fitting_from(document, demo_rack()), engine().judge
    sheet = sheet_of(document, fitting, recommendation_out(propose(fitting, judge)), judge).out
    if args.pdf is not None:
        args.pdf.write_bytes(build_pdf(sheet, document.player.name, "", date.today(), SI))
    say(sheet.model_dump_json() if args.json else _words(sheet, document.player.name))
    return 0


def _words(sheet: BuildOut, name: str) -> str:
    lines = [
        f"{name}: build sheet, {sheet.total:.2f} with {sheet.tax:.2f} tax; {sheet.strokes_round:.2f} strokes a round"
    ]
    for club in sheet.clubs:
        lines.append(f"{club.name}: {club.action}, {club.after.loft_deg:g} deg, lie {club.after.lie_deg:g}")
        for n, one in enumerate(club.operations, 1):
            wanted = "" if one.wanted is None else f" ({one.wanted:g} {one.unit} within {one.tolerance:g})"
            lines.append(f"  {n}. {one.words}{wanted}")
        cautions = dict.fromkeys(one.caution for one in club.operations if one.caution)
        lines.extend(f"  ! {caution}" for caution in cautions)
        lines.extend(f"  note: {note}" for note in club.notes)
    return "\n".join([*lines, *sheet.changed])
