"""`oblatus strokes`: strokes to hole out from a lie."""

from __future__ import annotations

from argparse import Namespace
from typing import Any

from oblatus.cli.arguments import number, show
from oblatus.core.shots import USUAL_HANDICAP
from oblatus.core.strokes import LIES, TOUR_TABLE
from oblatus.core.strokes.table import BOUNDS


def add_strokes(commands: Any) -> None:
    """Register `strokes`."""
    parser = commands.add_parser("strokes", help="expected strokes to hole out from a lie at a distance")
    parser.add_argument("--handicap", type=number("handicap", BOUNDS["handicap"]), default=USUAL_HANDICAP)
    parser.add_argument("--lie", choices=LIES, required=True)
    parser.add_argument(
        "--distance", type=number("distance_m", BOUNDS["distance_m"]), required=True, help="to the hole [m]"
    )
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run_strokes)


def run_strokes(args: Namespace) -> int:
    """Print the strokes of one lie."""
    strokes = TOUR_TABLE.checked(args.lie, args.distance, args.handicap)
    show(
        {"lie": args.lie, "distance_m": args.distance, "handicap": args.handicap, "strokes": round(strokes, 4)}, args.json
    )
    return 0
