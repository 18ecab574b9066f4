"""The generated files are what the models say."""

from __future__ import annotations

import re
import subprocess

from oblatus.cli.export import generated


def test_openapi_and_the_fitting_schema_are_current():
    for path, text in generated().items():
        assert path.read_text() == text, f"{path.name} is stale: run oblatus export"


def test_the_front_ends_types_are_current(project, tmp_path):
    out = tmp_path / "schema.ts"
    tool = project / "frontend/node_modules/.bin/openapi-typescript"
    subprocess.run([tool, "openapi.json", "--default-non-nullable", "false", "-o", out], cwd=project, check=True,
                   capture_output=True)  # fmt: skip
    assert out.read_text() == (project / "frontend/src/api/schema.ts").read_text(), "run npm --prefix frontend run api"


def test_styles_ask_for_nothing_that_is_not_there(project):
    dist = project / "frontend/dist"
    asked = [
        (style.name, url.strip("'\"")) for style in (dist / "assets").glob("*.css")
        for url in re.findall(r"url\(([^)]+)\)", style.read_text())
    ]  # fmt: skip
    assert any(url.endswith(".woff2") for _, url in asked)
    assert [one for one in asked if not one[1].startswith("data:") and not (dist / one[1].lstrip("/")).is_file()] == []
