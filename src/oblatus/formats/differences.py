"""What differs between two fitting documents, field by field, by the names and units that a fitter reads."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Sequence
from contextlib import suppress
from datetime import date
from typing import Any

from oblatus.core.clubs import Head
from oblatus.core.figures import figures
from oblatus.core.gapping import MeasuredStrike
from oblatus.core.grounds import SURFACES, Ground
from oblatus.core.questions import QUESTIONS
from oblatus.core.schools import SCHOOLS
from oblatus.core.words import day
from oblatus.formats.fields import Strict
from oblatus.formats.fitting import SECTIONS
from oblatus.formats.merge import MISSING, TOLD_BY, changed_paths, same, value_at

UNITS = {
    "m": "m", "mps": "m/s", "deg": "degrees", "mm": "mm", "g": "g", "cm2": "kg/cm²", "c": "degrees C", "kg": "kg",
    "in": "in",
}  # fmt: skip
RECORDS = {**figures(Head), **figures(MeasuredStrike), **figures(Ground)}
for _kind in SURFACES.values():
    RECORDS |= figures(_kind.made_of)
NAMES = {key: record.words.lower() for key, record in RECORDS.items()} | {
    "pitching_wedge_carry_m": "pitching wedge's carry",
    "pitching_wedge_speed_mps": "pitching wedge's head speed",
    "pitching_wedge_loft_deg": "pitching wedge's loft",
    "pitching_wedge_bounce_deg": "pitching wedge's bounce",
    "nine_iron_loft_deg": "nine-iron's loft",
    "wedge_count": "number of wedges",
    "handicap": "handicap",
    "shot_mix": "shots faced",
    "readings_g": "hammer readings",
    "readings_kg_cm2": "penetrometer readings",
    "read_on": "day of reading",
    "ladder_deg": "lofts set by hand",
    "pinned": "heads set by hand",
    "distances": "distances faced",
    "other_clubs": "other clubs",
    "stamped_loft_deg": "stamped loft",
    "measured": "loft measured",
    "temperature_c": "temperature",
    "altitude_m": "altitude",
    "swings": "own swings",
    "ladder_factors": "weights of the ladder",
    "count": "number of strikes",
    "rack": "rack of this fitting",
    "former": "wedges as they were",
    "formerly": "names before",
    "built": "as built",
    "decisions": "answers to the log",
    "snoozes": "put off",
    **{key: question.words.lower() for key, question in (SCHOOLS | QUESTIONS).items()},
}
ABOUT = {"after", "delivery", "player", "bag", "choices", "measuring", "schools", "grounds", "wedges", "trips"}
"""Steps of a path that say nothing a reader needs."""
SHOWN = 8
DAY = re.compile(r"\d{4}-\d\d-\d\d")


class DifferenceOut(Strict):
    """One field that differs. `before` and `after` are figures in `unit`, or null where the words say it."""

    path: str
    name: str
    unit: str
    before: float | None
    after: float | None
    before_words: str
    after_words: str


def differences(before: dict[str, Any], after: dict[str, Any]) -> list[DifferenceOut]:
    """Every field that differs between two documents, strikes told by how many and which."""
    found = []
    for path in changed_paths(_unpacked(before), _unpacked(after)):
        one, other = value_at(_unpacked(before), path), value_at(_unpacked(after), path)
        found.append(difference(path, one, other, after))
    return [*found, *_strikes(before.get("strikes", []), after.get("strikes", []))]


def difference(path: str, before: Any, after: Any, document: dict[str, Any]) -> DifferenceOut:
    """One field with its two values in words; `document` gives the names of grounds and clubs on the path."""
    unit = _unit(path.rpartition(".")[2])
    return DifferenceOut(
        path=path,
        name=name_of(path, document),
        unit=unit,
        before=_figure(before),
        after=_figure(after),
        before_words=_answered(path, before) or words_of(before),
        after_words=_answered(path, after) or words_of(after),
    )


def name_of(path: str, document: dict[str, Any]) -> str:
    """A field's name as a fitter says it: "Scarp Down: turf firmness", "Sand wedge: loft"."""
    words: list[str] = []
    here: Any = document
    whose = ""
    for step in path.split("."):
        entries = here if isinstance(here, list) else None
        if entries is not None:
            named: Any = next((entry for entry in entries if _called(entry).replace(".", "·") == step), None)
            here = entries[int(step)] if named is None and step.isdigit() and int(step) < len(entries) else named
            whose = _called(here) or (f"number {int(step) + 1}" if step.isdigit() else step)
            continue
        here = here.get(step) if isinstance(here, dict) else None
        if step not in ABOUT:
            words.append(NAMES.get(step) or _plain(step))
    said = " ".join(words) or _plain(path.rpartition(".")[2])
    return f"{whose}: {said}" if whose and said != whose else said


def _answered(path: str, value: Any) -> str | None:
    """The answer to a question as its form has it."""
    of_school, field = "schools." in path, path.rpartition(".")[2]
    question = (SCHOOLS if of_school else QUESTIONS).get(field)
    choice = question.choices.get(str(value)) if question else None
    return None if choice is None else choice.words


def words_of(value: Any) -> str:
    """A value in words, short."""
    if value is None or value is MISSING or value in ("", [], {}):
        return "none"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, (int, float)):
        return f"{value:g}"
    if isinstance(value, str):
        if DAY.fullmatch(value):
            with suppress(ValueError):  # the name of something, like a day that there is not
                return day(date.fromisoformat(value))
        return value if len(value) <= 80 else value[:79] + "…"
    if not isinstance(value, dict):
        return _listed([words_of(v) for v in value])
    if all(_called(entry) for entry in value.values()):
        return _listed([_called(entry) for entry in value.values()])
    told = {key: v for key, v in value.items() if v is not None and key != "id" and not key.endswith("_id")}
    return _called(value) or _listed([f"{_plain(key)} {words_of(v)} {_unit(key)}".rstrip() for key, v in told.items()])


def _listed(words: Sequence[str]) -> str:
    shown = ", ".join(words[:SHOWN])
    return shown if len(words) <= SHOWN else f"{shown} and {len(words) - SHOWN} more"


def _unpacked(document: dict[str, Any]) -> dict[str, Any]:
    """The document without strikes and format, lists of named entries as objects by their names."""
    return {key: _by_name(value) for key, value in document.items() if key in (*SECTIONS, "rack")}


def _by_name(value: Any) -> Any:
    if isinstance(value, dict):
        return {key: _by_name(v) for key, v in value.items()}
    if not isinstance(value, list):
        return value
    for key in TOLD_BY:
        names = [str(entry[key]) for entry in value if isinstance(entry, dict) and isinstance(entry.get(key), str)]
        if value and len(names) == len(value) == len(set(names)):
            return {name.replace(".", "·"): _by_name(entry) for name, entry in zip(names, value, strict=True)}
    return value


def _strikes(before: list[dict[str, Any]], after: list[dict[str, Any]]) -> list[DifferenceOut]:
    """Strikes that came, went, or are told otherwise."""
    one, other = ({str(strike["id"]): strike for strike in strikes} for strikes in (before, after))
    new = [other[i] for i in other if i not in one]
    gone = [one[i] for i in one if i not in other]
    told = [other[i] for i in other if i in one and not same(one[i], other[i])]
    found = []
    for key, name, strikes in (
        ("new", "strikes added", new),
        ("gone", "strikes taken out", gone),
        ("told", "strikes changed", told),
    ):
        if strikes:
            found.append(
                DifferenceOut(
                    path=f"strikes.{key}", name=name, unit="", before=None, after=float(len(strikes)),
                    before_words=f"{len(before)} in all", after_words=f"{len(strikes)}: {_counted(strikes)}",
                )
            )  # fmt: skip
    return found


def _counted(strikes: list[dict[str, Any]]) -> str:
    counts = Counter(f"{strike['club']} {strike['swing']}" for strike in strikes)
    shown = ", ".join(f"{name} {count}" for name, count in counts.most_common(SHOWN))
    return shown if len(counts) <= SHOWN else f"{shown} and others"


def _called(value: Any) -> str:
    if not isinstance(value, dict):
        return ""
    if isinstance(value.get("wedge"), dict):  # one as it was
        return f"{_called(value['wedge'])} until {words_of(value.get('until'))}"
    return next((str(value[key]) for key in ("name", *TOLD_BY) if isinstance(value.get(key), str)), "")


def _figure(value: Any) -> float | None:
    return float(value) if isinstance(value, (int, float)) and not isinstance(value, bool) else None


def _unit(field: str) -> str:
    if field in RECORDS:
        return RECORDS[field].bound.unit
    return UNITS.get(field.rpartition("_")[2], "") if "_" in field else ""


def _plain(field: str) -> str:
    head, _, tail = field.rpartition("_")
    if field.endswith("_kg_cm2"):
        head, tail = field.removesuffix("_kg_cm2"), "cm2"
    return (head if head and tail in UNITS else field).replace("_", " ")
