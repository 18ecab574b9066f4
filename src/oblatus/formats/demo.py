"""The invented data that ships with the program: read here, put into a database by `usecases.seed`."""

from __future__ import annotations

import json
from importlib import resources

from oblatus.formats.fitting import FittingDocument, parse_fitting
from oblatus.formats.rack import read_rack
from oblatus.formats.sections.bag import RackHeadDocument
from oblatus.formats.sections.grounds import VenueDocument


def demo_rack() -> list[RackHeadDocument]:
    """The invented rack that ships with the program."""
    return read_rack(resources.files("oblatus.demo").joinpath("rack.csv").read_text(encoding="utf-8"))


def demo_venues() -> list[VenueDocument]:
    """The readings of invented venues that ship with the program."""
    text = resources.files("oblatus.demo").joinpath("venues.json").read_text(encoding="utf-8")
    return [VenueDocument.model_validate(record) for record in json.loads(text)]


def demo_fittings() -> list[FittingDocument]:
    """The invented players that ship with the program."""
    folder = resources.files("oblatus.demo").joinpath("fittings")
    files = sorted((f for f in folder.iterdir() if f.name.endswith(".json")), key=lambda f: f.name)
    return [parse_fitting(json.loads(f.read_text(encoding="utf-8"))) for f in files]
