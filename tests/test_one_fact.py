"""A fact stands in one place: what lists a figure, a class or a step by hand is found here."""

from __future__ import annotations

import ast
import contextlib
import json
import re
from pathlib import Path
from typing import get_args, get_type_hints

import pytest

from oblatus.core._compiled import TAKEN_FROM, sources_name
from oblatus.core.clubs import Head
from oblatus.core.delivery import Schools, Swing
from oblatus.core.figures import figures, in_document, in_engine
from oblatus.core.gapping import MeasuredStrike
from oblatus.core.grounds import SURFACES
from oblatus.core.questions import QUESTIONS
from oblatus.core.schools import SCHOOLS
from oblatus.core.shots import CATALOGUE
from oblatus.formats.demo import demo_rack
from oblatus.formats.differences import LABELS
from oblatus.formats.fitting import SECTIONS
from oblatus.formats.sections.bag import HeadDocument, OwnedWedgeDocument
from oblatus.formats.sections.grounds import SURFACE_DOCUMENTS
from oblatus.formats.sections.player import DeliveryDocument
from oblatus.formats.strikes import StrikeDocument
from oblatus.store.tables import StrikeRow
from oblatus.usecases.step_states import STEPS
from oblatus.web.catalogue import catalogue_out
from oblatus.web.headers import ZONE_COOKIE

ROOT = Path(__file__).parents[1]
SOURCE = ROOT / "src/oblatus"
SCREEN = ROOT / "frontend/src"
SAID = {"loft_deg", "bounce_deg", "sole_width_mm", "lie_deg", "head_mass_kg", "mass", "moisture", "release"}
"""Figures that sentences, pictures and the gauge call by name, and words that mean other things too."""


def python_sources() -> list[Path]:
    return [p for p in SOURCE.rglob("*.py") if "versions" not in p.parts]


def screens() -> list[Path]:
    return [p for p in SCREEN.rglob("*.ts*") if "api" not in p.parts and ".test." not in p.name]


@pytest.mark.parametrize("key", sorted(set(figures(Head)) - SAID))
def test_a_figure_of_the_sole_is_written_once(key: str):
    """With this a new one needs its record, the kernel that uses it and the page that explains it."""
    named = re.compile(rf"\b{key}\b")
    assert [p.name for p in python_sources() if named.search(p.read_text())] == ["clubs.py"]
    assert [p.name for p in screens() if named.search(p.read_text())] == []


def test_the_kinds_of_ground_are_listed_once():
    """A list of them beside the record would refuse the next one: on a card, on a trip, in a file."""
    both = re.compile(r"Literal\[[^]]*\"turf\"[^]]*\"sand\"|Literal\[[^]]*\"sand\"[^]]*\"turf\"")
    assert [p.name for p in python_sources() if both.search(p.read_text())] == ["shots.py"]


def test_documents_hold_what_the_records_hold():
    assert set(HeadDocument.model_fields) == set(figures(Head))
    assert set(figures(MeasuredStrike)) <= set(StrikeDocument.model_fields) & set(StrikeRow.model_fields)
    for key, kind in SURFACES.items():
        shown = {f.key for f in figures(kind.made_of).values() if f.where != "none"}
        picked = {kind.picked.figure} if kind.picked else set()
        assert shown - picked <= set(SURFACE_DOCUMENTS[key].model_fields)
    schema = json.loads((ROOT / "docs/formats/fitting.schema.json").read_text())["$defs"]["RackHeadDocument"]
    for key, record in figures(Head).items():
        held = schema["properties"][key]
        assert (held["minimum"], held["maximum"]) == (record.bound.low, record.bound.high)


def test_figures_go_to_a_document_and_back_unchanged():
    for head in demo_rack():
        engine = Head(**in_engine(Head, head))
        assert in_document(engine) == pytest.approx({key: getattr(head, key) for key in figures(Head)}, abs=1e-9)
    swing = Swing(3.0, -2.0, -7.5, 18.0, 0.3, -0.042)
    assert in_document(swing)["entry_mm"] == -42.0


def test_the_pages_on_models_name_every_figure():
    explained = (ROOT / "docs/models/geometry.md").read_text() + (ROOT / "docs/models/strike.md").read_text()
    missing = [f.words for f in figures(Head).values() if f.words.split(",")[0].lower() not in explained.lower()]
    assert missing == []


def test_the_screens_have_the_tables_of_the_engine():
    tables = catalogue_out()
    assert [shot.key for shot in tables.shots] == [shot.key for shot in CATALOGUE]
    assert tables.sections == list(SECTIONS)
    steps = re.findall(r'key: "(\w+)",\s*name: "\w+",\s*hotkey', (SCREEN / "app/steps.ts").read_text())
    assert steps == list(STEPS)


def test_the_answers_of_every_school_are_those_of_the_engine():
    kinds = get_type_hints(Schools)
    assert {key: set(question.choices) for key, question in SCHOOLS.items()} == {
        key: set(get_args(kind)) for key, kind in kinds.items()
    }
    for key, question in SCHOOLS.items():
        kept = [choice for choice, one in question.choices.items() if not one.asks]
        assert kept in ([], [getattr(Schools(), key)]), "what is not the habit asks for something"


@pytest.mark.parametrize("limit", [65, 105, 145, 1.8, 2.2, 2.4])
def test_no_screen_knows_where_a_class_of_ground_ends(limit: float):
    said = re.compile(rf"(<=?|>=?|\[)\s*{re.escape(str(limit))}\b")
    assert [p.name for p in screens() if said.search(p.read_text())] == []


def listed(path: Path) -> set[tuple[str, ...]]:
    """Choices that a module lists itself: of a Literal, or three or more words in a row."""
    tree = ast.parse(path.read_text())
    literals = [n for n in ast.walk(tree) if isinstance(n, ast.Subscript) and isinstance(n.value, ast.Name)]
    rows = [n.slice.elts for n in literals if n.value.id == "Literal" and isinstance(n.slice, ast.Tuple)]
    rows += [n.elts for n in ast.walk(tree) if isinstance(n, (ast.Tuple, ast.List)) and len(n.elts) > 2]
    words = [[part.value for part in row if isinstance(part, ast.Constant)] for row in rows]
    kept = [tuple(found) for found, row in zip(words, rows, strict=True) if len(found) == len(row) > 1]
    return {one for one in kept if all(isinstance(part, str) for part in one)}


def test_every_other_question_has_the_answers_of_the_document():
    documents = {"opening": DeliveryDocument, "release": DeliveryDocument, "wear_class": OwnedWedgeDocument}
    assert set(documents) == set(QUESTIONS)
    for key, document in documents.items():
        assert list(QUESTIONS[key].choices) == list(get_args(document.model_fields[key].annotation))


@pytest.mark.parametrize("answer", sorted({c for q in (SCHOOLS | QUESTIONS).values() for c in q.choices if "_" in c}))
def test_no_screen_lists_the_answers_of_a_question(answer: str):
    assert [p.name for p in screens() if re.search(rf"\b{answer}\b", p.read_text())] == []


def test_what_can_be_chosen_is_listed_once():
    """A list of choices beside the record's own would refuse the next one, or never offer it."""
    where: dict[tuple[str, ...], list[str]] = {}
    for path in python_sources():
        for choices in listed(path):
            where.setdefault(choices, []).append(path.name)
    told_apart = {("attack", "lean", "entry")}  # keys of a device's message, which no part of core may change
    assert {one: files for one, files in where.items() if len(files) > 1 and one not in told_apart} == {}


def choices_of_tables() -> dict[str, list[str]]:
    """Tables of the screens by whose keys something is chosen."""
    named = {key: value for key, value in catalogue_out().model_dump().items() if isinstance(value, list)}
    keys = {
        name: [one.get("key", one.get("name")) if isinstance(one, dict) else str(one) for one in rows]
        for name, rows in named.items()
    }
    return {name: found for name, found in keys.items() if not name.endswith("sections") and len(found) > 2}


@pytest.mark.parametrize("table", sorted(choices_of_tables()))
def test_no_screen_lists_what_a_table_has(table: str):
    """The phone loads no tables: what it asks for came with the page."""
    keys = choices_of_tables()[table]
    texts = {p.name: p.read_text() for p in screens() if "phone" not in p.parts}
    quoted = {name: [key for key in keys if re.search(rf'\["{re.escape(key)}", "', text)] for name, text in texts.items()}
    assert {name: found for name, found in quoted.items() if len(found) > 2} == {}


def test_no_screen_knows_how_much_a_document_takes():
    letters = r"maxLength=\{\d|\.name\b.*slice\(0, \d"
    counts = r"\bconst MOST = \d|(?:wedges|grounds|photos|swings)\.length (?:>=|<) \d"
    typed = re.compile(f"{letters}|{counts}")
    assert [p.name for p in screens() if typed.search(p.read_text())] == []


def constants(path: Path) -> dict[str, object]:
    """Names in capitals that a module gives a plain value, with it."""
    found: dict[str, object] = {}
    for node in ast.parse(path.read_text()).body:
        if not isinstance(node, ast.Assign):
            continue
        for target in node.targets:
            names, values = ([target], [node.value])
            if isinstance(target, ast.Tuple) and isinstance(node.value, ast.Tuple):
                names, values = target.elts, node.value.elts
            for name, value in zip(names, values, strict=True):
                if isinstance(name, ast.Name) and name.id.isupper():
                    with contextlib.suppress(ValueError):  # reckoned from others: not written twice
                        found[name.id] = ast.literal_eval(value)
    return found


def test_no_constant_of_core_is_written_twice():
    where: dict[tuple[str, str], list[str]] = {}
    for path in (SOURCE / "core").rglob("*.py"):
        for name, value in constants(path).items():
            where.setdefault((name, repr(value)), []).append(path.name)
    assert {name: files for (name, _), files in where.items() if len(files) > 1} == {}


def test_the_usual_handicap_and_the_ball_are_written_once():
    literal = re.compile(r"\b12(\.0)? if [\w.]*handicap is None")
    assert [p.name for p in python_sources() if literal.search(p.read_text())] == []
    ball = re.compile(r"\b(21\.3\d*|0\.02133\d*)\b")
    assert [p.name for p in (*python_sources(), *screens()) if ball.search(p.read_text())] == ["constants.py"]


ENGINE = {
    "recommend", "doubt_of", "leaks_of", "draw_law_gains", "strike", "strike_window", "summarise", "find_faults",
    "carries_of", "shots_in", "find_shots", "fit_player_model", "under_each_school", "find_flips", "ladder_choice",
}  # fmt: skip


def test_no_format_runs_the_engine():
    found = []
    for path in (SOURCE / "formats").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in ENGINE:
                found.append(f"{path.name}: {node.func.id}")
    assert found == []


def test_kernels_are_named_by_every_file_that_is_compiled_into_them(tmp_path):
    """numba looks at the date of a kernel's own file alone."""
    core = SOURCE / "core"
    asks_numba = re.compile("^(import|from) numba", re.MULTILINE)
    assert [p.name for p in core.rglob("*.py") if asks_numba.search(p.read_text())] == ["_compiled.py"]
    kernels = [p for p in core.rglob("*.py") if "_compiled import" in p.read_text()]
    taken = set()
    for node in (node for p in kernels for node in ast.walk(ast.parse(p.read_text()))):
        if isinstance(node, ast.ImportFrom) and node.module and node.module.startswith("oblatus"):
            inside = SOURCE.parent / node.module.replace(".", "/")
            files = [inside.with_suffix(".py"), *(inside / f"{name.name}.py" for name in node.names)]
            taken |= {p.name for p in files if p.is_file() and not p.name.startswith("_")}
    assert all(p.name.startswith("_") for p in kernels)
    assert sorted(taken) == sorted(TAKEN_FROM)

    for path in ("strike/_lanes.py", "constants.py", "clubs.py"):
        (tmp_path / path).parent.mkdir(exist_ok=True)
        (tmp_path / path).write_text("ONE = 1.0")
    names = [sources_name(tmp_path)]
    for path in ("strike/_lanes.py", "constants.py", "clubs.py"):
        (tmp_path / path).write_text("ONE = 1.1")
        names.append(sources_name(tmp_path))
    assert len(set(names)) == 3
    assert names[2] == names[3], "nothing of clubs is compiled"


def test_a_figure_and_its_unit_stay_on_one_line():
    """A space between them is where a narrow screen breaks the line."""
    apart = re.compile(
        r"[^$}]\} (?:mm|g|rpm|kg/cm²|m/s|°C|%)(?![\w=])|\} \$?\{(?:unit|units\.\w+|SPEED_LABEL\[[\w.]+\])\}"
    )
    parted = {p.name: apart.findall(p.read_text()) for p in screens()}
    assert {name: found for name, found in parted.items() if found} == {}
    papers = {p.name: re.findall(r"\}\} (?:mm|g|in|°C|%)(?!\w)", p.read_text()) for p in SOURCE.rglob("print/*.html")}
    assert {name: found for name, found in papers.items() if found} == {}


BY_WORD = re.compile(r"\b(?:an?|one|two|few|\d[\d.]*)[ \u00a0](?:metres?|yards?|m|yd|m/s|mph)\b")
"""A distance or speed in words: its reader may read the other unit."""
NOUNS = "strikes|shots|balls|rounds|rows|cells|heads|weeks|scores|pieces|lines"
ONE_OR_MORE = re.compile(rf"\}} (?:{NOUNS})\b(?!=)")
"""A count and its noun, which is wrong for one of them; not the name of a property after another."""
SEVERAL = {"RackTable.tsx", "StrikesStep.tsx", "PlanForm.tsx"}
"""Here there is never one."""


def said_in(path: Path) -> str:
    """The strings of a module, without what explains it; the text of a screen without its comments."""
    text = path.read_text()
    if path.suffix != ".py":
        return re.sub(r"/\*.*?\*/|(?<!:)//[^\n]*", "", text, flags=re.DOTALL)
    told = [node for node in ast.walk(ast.parse(text)) if not isinstance(node, ast.Expr)]
    parts = [part for node in told for part in ast.iter_child_nodes(node) if isinstance(part, ast.Constant)]
    return "\n".join(part.value for part in parts if isinstance(part.value, str))


def test_no_sentence_has_a_distance_in_one_readers_unit():
    """It goes through `metres` or `showDistance`; sources of constants and the shell stay in SI."""
    shell, sources = {"cli", "drill", "demo"}, {"parameters.py", "constants.py"}
    python = [p for p in python_sources() if not shell & set(p.parts) and p.name not in sources]
    said = {p.name: BY_WORD.findall(said_in(p)) for p in [*python, *screens()]}
    assert {name: found for name, found in said.items() if found} == {}


def test_what_is_counted_is_one_or_more():
    said = {p.name: ONE_OR_MORE.findall(said_in(p)) for p in screens() if p.name not in SEVERAL}
    assert {name: found for name, found in said.items() if found} == {}


def test_a_difference_names_a_field_as_its_form_does():
    said = "\n".join(p.read_text() for p in screens()).lower()
    assert [label for label in LABELS.values() if label not in said] == []


def test_what_measures_the_screens_calls_their_parts_as_they_do():
    """No test runs it, for it takes many minutes: a label that is called otherwise would end it."""
    bench = (SOURCE / "cli/bench_screens.py").read_text()
    calls = r"get_by_label\(\"([^\"]+)|name=(?:re\.compile\()?\"([^\"]+)|aria-label=\"([^\"]+)|includes\('([^']+)"
    looked_for = {next(filter(None, found)) for found in re.findall(calls, bench)}
    told = [*screens(), *(p for p in python_sources() if "cli" not in p.parts)]
    said = "\n".join(said_in(p) for p in told)
    assert len(looked_for) >= 8
    # at the beginning of a text, of a property or of a line
    assert [n for n in sorted(looked_for) if not re.search(rf"(?:[\">]|^\s*){re.escape(n)}", said, re.MULTILINE)] == []


def test_the_cookie_of_the_time_zone_has_one_name():
    assert f'const ZONE_COOKIE = "{ZONE_COOKIE}";' in (ROOT / "frontend/src/api/zone.ts").read_text()
