"""`oblatus export`: the files that are generated from the models and committed."""

from __future__ import annotations

import json
from argparse import Namespace
from pathlib import Path
from typing import Any

from oblatus.core.constants import BALL_RADIUS
from oblatus.formats.fitting import FittingDocument
from oblatus.settings import PROJECT, Settings

OPENAPI = PROJECT / "openapi.json"
FITTING_SCHEMA = PROJECT / "docs" / "formats" / "fitting.schema.json"
CATALOGUE = PROJECT / "frontend" / "src" / "api" / "catalogue.json"
BALL = CATALOGUE.with_name("ball.json")
"""By itself: the player's page draws a ball and is to stay light."""


def add_export(commands: Any) -> None:
    """Register `export`."""
    parser = commands.add_parser("export", help="write openapi.json, the fitting schema and the tables of the screens")
    parser.set_defaults(run=run_export)


def run_export(_: Namespace) -> int:
    """Write every file."""
    for path, text in generated().items():
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(text, encoding="utf-8")
        print(path.relative_to(PROJECT))
    return 0


def generated() -> dict[Path, str]:
    """Every generated file with the text that it should have."""
    from oblatus.web.app import MODULES, create_app
    from oblatus.web.catalogue import catalogue_out

    nowhere = Settings("postgresql+psycopg://nobody@127.0.0.1:1/none", "only the routes are looked at, never served")
    for module in MODULES:
        module.blueprint.describe()
    schema = FittingDocument.model_json_schema(mode="validation")
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    return {
        OPENAPI: _text(create_app(nowhere).api_doc),
        FITTING_SCHEMA: _text(schema),
        CATALOGUE: _text(catalogue_out().model_dump(mode="json")),
        BALL: _text({"radius_mm": round(1000.0 * BALL_RADIUS.value, 3)}),
    }


def _text(data: Any) -> str:
    return json.dumps(data, indent=1, ensure_ascii=False, sort_keys=True) + "\n"
