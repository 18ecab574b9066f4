"""`oblatus trip FILE.json --ground GROUND.json`: what a bag does on other ground, and what to change first."""

from __future__ import annotations

import json
from argparse import Namespace
from typing import Any

from pydantic import ValidationError

from oblatus.cli.arguments import read_text, say
from oblatus.core.words import worded
from oblatus.errors import fault
from oblatus.formats.convert import fitting_from, grounds_of
from oblatus.formats.demo import demo_rack
from oblatus.formats.fields import faults_of
from oblatus.formats.fitting import load_fitting
from oblatus.formats.sections.after import TripDocument
from oblatus.formats.sections.grounds import GroundDocument
from oblatus.usecases.engine import engine
from oblatus.usecases.trips import trip_of


def add_trip(commands: Any) -> None:
    """Register `trip`."""
    parser = commands.add_parser("trip", help="what the bag of a fitting document does on other ground")
    parser.add_argument("file", help="a fitting document, - for standard input")
    parser.add_argument("--ground", required=True, help="a ground, or a list of grounds whose shares sum to 1, as JSON")
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run_trip)


def run_trip(args: Namespace) -> int:
    """Print the answer; a document without a rack borrows from the demo rack."""
    document = load_fitting(read_text(args.file))
    trip = _trip(read_text(args.ground))
    away = grounds_of(document.model_copy(update={"grounds": trip.grounds}))
    found = trip_of(document, fitting_from(document, demo_rack()), away, engine().judge, doubt=True)
    if args.json:
        say(worded(found.model_dump_json()))
        return 0
    say(worded(found.words))
    for change in found.setup.changes:
        what = [
            f"{change.lean_change_deg:+.0f} deg lean" if change.lean_change_deg else "",
            f"{change.opening_change_deg:+.0f} deg open" if change.opening_change_deg else "",
            f"sole lands {abs(change.entry_change_mm):.0f} mm {'forward' if change.entry_change_mm > 0 else 'back'}"
            if change.entry_change_mm
            else "",
            f"{change.club} instead of the {change.before}" if change.club != change.before else "",
        ]
        say(f"  {change.name}: {', '.join(one for one in what if one)}; wins {change.gain_strokes_round:.2f}")
    return 0


def _trip(text: str) -> TripDocument:
    try:
        data = json.loads(text)
    except ValueError as error:
        raise fault("ground", f"is not JSON: {str(error)[:120]}") from error
    some = data if isinstance(data, list) else [data]
    if len(some) == 1 and isinstance(some[0], dict):
        some = [{"share": 1.0, "name": "there", **some[0]}]
    try:
        grounds = [GroundDocument.model_validate(one) for one in some]
        return TripDocument.model_validate({"name": "trip", "grounds": [one.model_dump(mode="json") for one in grounds]})
    except ValidationError as error:
        raise faults_of(error, ["ground"]) from error
