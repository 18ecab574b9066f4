"""What differs between two fitting documents, field by field, by the names and units that a fitter reads."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Mapping, Sequence
from contextlib import suppress
from datetime import date
from itertools import takewhile
from typing import Any

from oblatus.core.after.due import SHORT_WORDS
from oblatus.core.build.parts import GRIP_OF, SHAFT_OF
from oblatus.core.build.sheet import PRICE_LIST
from oblatus.core.clubs import Head
from oblatus.core.figures import figures
from oblatus.core.gapping import MeasuredStrike
from oblatus.core.gapping.ladder import PART_WORDS
from oblatus.core.grounds import SURFACES, Ground
from oblatus.core.questions import QUESTIONS
from oblatus.core.schools import SCHOOLS
from oblatus.core.shots import BY_KEY
from oblatus.core.words import day, metres, quantity, shortened, speed, trimmed
from oblatus.formats.fields import Strict
from oblatus.formats.fitting import SECTIONS, WITH_CODES
from oblatus.formats.merge import MISSING, TOLD_BY, changed_paths, same, value_at
from oblatus.formats.sections.after import CARD_PAPERS, CARD_PARTS, OFFERS, head_of

UNITS = {
    "m": "m", "mps": "m/s", "deg": "degrees", "mm": "mm", "g": "g", "cm2": "kg/cm²", "c": "°C", "kg": "kg", "in": "in",
}  # fmt: skip
RECORDS = {**figures(Head), **figures(MeasuredStrike), **figures(Ground)}
for _kind in SURFACES.values():
    RECORDS |= figures(_kind.made_of)
LABELS = {
    "pitching_wedge_carry_m": "full pitching-wedge carry",
    "pitching_wedge_loft_deg": "pitching-wedge loft",
    "nine_iron_loft_deg": "nine-iron loft",
    "wedge_count": "wedges wanted",
    "shot_mix": "shots they face",
    "complaints": "complaints, in their own words",
    "grounds.share": "share of their golf",
    "green": "greens",
    "read_on": "read on",
    "other_clubs": "clubs that are not wedges",
    "stamped_loft_deg": "stamped loft",
    "bend_limit_deg": "may be bent by",
    "distances": "distances faced",
    "layouts": "where the hole is",
    "hole_m": "to the hole",
    "room_m": "room in front of it",
    "behind_m": "green behind",
    "short": "short lies",
    "shots_a_round": "wedge shots a round",
    "worth_changing": "a head must win",
    "slot": "a place in the bag is worth",
    "practice": "practice, for 4° off the band",
    "table_scale": "handicap in the strokes table",
    "claims_sd": "how far claims come true",
    "speed_share": "% of full speed",
    "temperature_c": "temperature",
    "altitude_m": "altitude",
    "lie_mark_mm": "board mark, toe +",
    "bent_before_deg": "bent before",
    "grind.heel_mm": "heel off",
    "grind.toe_mm": "toe off",
    "grind.back_fraction": "back relief, share",
    "grind.back_deg": "back relief, angle",
    "grind.bevel_mm": "front bevel, length",
    "grind.bevel_deg": "front bevel, angle",
    "clubs.swing_weight": "wished swing weight",
    "ball": "ball that the carries hold for",
    "size": "paper",
    "parts": "on it",
    "rounds_year": "rounds a year",
    "range_balls_week": "range balls a week",
    "trips.season": "a season of every year",
    "trips.from_on": "from",
    "trips.to_on": "to",
}
"""Fields by the labels that they have on the screens; where one key has several, with the field or list that it is in."""
NAMES = {
    **{key: record.words.lower() for key, record in RECORDS.items()},
    **LABELS,
    "pitching_wedge_speed_mps": "full pitching-wedge head speed",
    "pitching_wedge_bounce_deg": "pitching-wedge bounce",
    "readings_g": "hammer readings",
    "readings_kg_cm2": "penetrometer readings",
    "ladder_deg": "lofts set by hand",
    "pinned": "heads set by hand",
    "heads_bought": "step of change taken by hand",
    "measured": "loft measured",
    "wear": "wear, where and how",
    "swings": "own swings",
    "mean": ", mean",
    "spread": ", spread",
    "count": ", strikes",
    "rack": "rack of this fitting",
    "former": "wedges as they were",
    "formerly": "names before",
    "built": "as built",
    "build.clubs": "clubs of the build sheet",
    "read": "read:",
    "grey": "printed in grey",
    "evidence": "what was shown of it",
    "decisions": "answers to the log",
    "target": "what is to be read",
    "snoozes": "put off",
    **{f"ladder_factors.{key}": f"weight of {words}" for key, words in PART_WORDS.items()},
    **{f"prices.{key}": words.lower() for key, (words, _) in PRICE_LIST.items()},
    **{f"shot_mix.{key}": f"share of {shot.name}" for key, shot in BY_KEY.items()},
    **{key: question.words.lower() for key, question in (SCHOOLS | QUESTIONS).items()},
}
ABOUT = {
    "after", "delivery", "player", "bag", "choices", "measuring", "schools", "grounds", "wedges", "trips", "economy",
    "layouts", "ladder_factors", "build", "clubs", "grind", "prices", "card", "use", "swings", "wedge", "shot_mix",
    "shots", "figures",
}  # fmt: skip
"""Steps of a path that say nothing a reader needs, unless the path ends there."""
SHARES = {"share", "speed_share", "back_fraction", *(key for key, record in RECORDS.items() if record.percent)}
FREE = {"name", "complaints", "wear", "ball", "reason", "against", "code", "venue", "by", "formerly"}
"""Texts that somebody typed: all others are words of ours."""
CHOSEN: dict[str, Mapping[Any, str]] = {
    "shaft": {code: shaft.name for code, shaft in SHAFT_OF.items()},
    "grip": {code: grip.name for code, grip in GRIP_OF.items()},
    "parts": CARD_PARTS,
    "size": CARD_PAPERS,
    "key": SHORT_WORDS,
    "shot": {key: shot.name for key, shot in BY_KEY.items()},
}
"""What is chosen from a table by its key, by what the table calls it."""
SHOWN = 8
ALIKE = 24
"""Letters of what two texts have in common, before they part."""
ENTRIES = {"distances": "band"}
"""What the entries of a list are called that have no names: a form counts them."""
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
    """Every field that differs between two documents, strikes told by how many and which; ids say nothing.

    Clubs are told by their names: a code is a place in the bag, where another wedge may stand by now.
    """
    found = []
    before, after = (
        document | {key: _with_names(document[key], document) for key in (*WITH_CODES, "after") if key in document}
        for document in (before, after)
    )
    was, now = _unpacked(before), _unpacked(after)
    for path in changed_paths(was, now):
        if path.endswith("_id"):
            continue
        one, other = value_at(was, path), value_at(now, path)
        found.append(difference(path, one, other, before if other is MISSING else after))
    return [*found, *_strikes(before.get("strikes", []), after.get("strikes", []))]


def difference(path: str, before: Any, after: Any, document: dict[str, Any]) -> DifferenceOut:
    """One field with its two values in words; `document` gives the names of grounds and clubs."""
    field = _field(path)
    words_before, words_after = _apart(_with_names(before, document), _with_names(after, document), field)
    return DifferenceOut(
        path=path,
        name=name_of(path, document),
        unit="%" if field in SHARES else _unit(field),
        before=_figure(before, field),
        after=_figure(after, field),
        before_words=_answered(path, before) or words_before,
        after_words=_answered(path, after) or words_after,
    )


def _apart(before: Any, after: Any, field: str) -> tuple[str, str]:
    """Two values in words; of long texts that begin alike, what is there from where they part."""
    words = words_of(before, field), words_of(after, field)
    if words[0] != words[1] or not (isinstance(before, str) and isinstance(after, str)):
        return words
    alike = sum(1 for _ in takewhile(lambda pair: pair[0] == pair[1], zip(before, after, strict=False)))
    start = max(alike - ALIKE, 0)
    return f"…{words_of(before[start:], field)}", f"…{words_of(after[start:], field)}"


def _field(path: str) -> str:
    """The field of a path that says the unit: an estimate's mean has the estimate's, a reading that of its list."""
    steps = [step for step in path.split(".") if not step.isdecimal()]
    if "shot_mix" in steps[:-1]:
        return "share"
    return steps[-2] if steps[-1] in ("mean", "spread") and len(steps) > 1 else steps[-1]


def name_of(path: str, document: dict[str, Any]) -> str:
    """A field's name as its form has it: "Scarp Down: turf firmness", "Sand wedge: loft".

    The document may be what was refused: nothing in it need be what it should be.
    """
    words: list[str] = []
    here: Any = document
    whose = parent = ""
    steps = path.split(".")
    for n, step in enumerate(steps):
        entries = here if isinstance(here, list) else None
        if entries is not None:
            named: Any = next((entry for entry in entries if _called(entry).replace(".", "·") == step), None)
            here = entries[int(step)] if named is None and step.isdecimal() and int(step) < len(entries) else named
            own = _called(here)
            called = _club(step, document) or _club(own, document) or _offered(own, document) or own or _shot(here)
            whose = f"{whose}, {called}" if whose and called else called or whose
            if not called and parent in ENTRIES and step.isdecimal():
                whose = f"{ENTRIES[parent]} {int(step) + 1}"
                words.clear()
            elif not called:
                words.append(_named(parent, step))
            continue
        here = here.get(step) if isinstance(here, dict) else None
        if step not in ABOUT or n == len(steps) - 1:
            words.append(_named(parent, step))
        parent = "trip" if step == "grounds" and n > 0 else step
    said = " ".join(words).replace(" ,", ",").lstrip(", ") or whose
    return f"{whose}: {said}" if whose and said != whose else said


def _named(parent: str, step: str) -> str:
    """A step of a path as a form has it."""
    if step.isdecimal():
        return f"number {int(step) + 1}"
    return NAMES.get(f"{parent}.{step}") or NAMES.get(step) or _plain(step)


def _club(code: str, document: dict[str, Any]) -> str:
    """The name of a club by its code, where it is owned, was owned, or the fitting has its rack."""
    kind, _, place = code.partition(":")
    bag = document.get("bag")
    bag = bag if isinstance(bag, dict) else {}
    owned = bag.get("wedges")
    if kind == "own" and place.isdecimal() and isinstance(owned, list) and int(place) < len(owned):
        return _called(owned[int(place)])
    for heads in (document.get("rack"), bag.get("former")):
        for head in heads if isinstance(heads, list) else []:
            if isinstance(head, dict) and head.get("code") == code:
                return _called(head)
    return ""


def _with_names(value: Any, document: dict[str, Any]) -> Any:
    """A value with the names of clubs, and of what a log said, where it has their codes and keys."""
    if isinstance(value, list):
        return [_with_names(entry, document) for entry in value]
    if not isinstance(value, dict):
        return value
    named = {key: _with_names(entry, document) for key, entry in value.items()}
    code, key = value.get("code"), value.get("key")
    if isinstance(code, str):
        named["code"] = _club(code, document) or code
    if isinstance(key, str):
        named["key"] = _offered(key, document) or key
    return named


def _offered(key: str, document: dict[str, Any]) -> str:
    """What a log said, by its key; empty if it is none of these."""
    club, surface = head_of(key)
    return f"{_club(club, document) or club}, {surface}" if club else OFFERS.get(key, "").lower()


def _shot(value: Any) -> str:
    """The shot that an entry is for, where it has no name of its own."""
    key = value.get("shot") if isinstance(value, dict) else None
    return BY_KEY[key].name if isinstance(key, str) and key in BY_KEY else ""


def _answered(path: str, value: Any) -> str | None:
    """The answer to a question as its form has it."""
    of_school, field = "schools." in path, path.rpartition(".")[2]
    question = (SCHOOLS if of_school else QUESTIONS).get(field)
    choice = question.choices.get(str(value)) if question else None
    return None if choice is None else choice.words


def words_of(value: Any, field: str = "") -> str:
    """A value in words, short; the field says in what unit it is."""
    if value is None or value is MISSING or value in ("", [], {}):
        return "none"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, (int, float)):
        return _told(float(value), field)
    if isinstance(value, str):
        if DAY.fullmatch(value):
            with suppress(ValueError):  # the name of something, like a day that there is not
                return day(date.fromisoformat(value))
        if field not in FREE:
            value = CHOSEN.get(field, {}).get(value) or value.replace("_", " ")
        return shortened(str(value), 80)
    if not isinstance(value, dict):
        return _listed([words_of(v, field) for v in value])
    if all(_called(entry) for entry in value.values()):
        return _listed([words_of(entry) for entry in value.values()])
    if {"loft_deg", "code"} == set(value):
        return f"{value['code']} at {words_of(value['loft_deg'], 'loft_deg')}"
    told = {key: v for key, v in value.items() if v is not None and key != "id" and not key.endswith("_id")}
    return _called(value) or _listed([f"{NAMES.get(key) or _plain(key)} {words_of(v, key)}" for key, v in told.items()])


def _told(value: float, field: str) -> str:
    """A figure with its unit, for a sentence."""
    unit = _unit(field)
    if field in SHARES:
        return quantity(trimmed(100.0 * value), "%")
    if unit == "m":
        return metres(value, 1)
    if unit == "m/s":
        return speed(value)
    shown = trimmed(value, 3)
    return f"{shown}°" if unit == "degrees" else quantity(shown, unit) if unit else shown


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


def _figure(value: Any, field: str) -> float | None:
    if not isinstance(value, (int, float)) or isinstance(value, bool):
        return None
    return round(100.0 * value, 6) if field in SHARES else float(value)


def _unit(field: str) -> str:
    if field in RECORDS:
        return RECORDS[field].bound.unit
    return UNITS.get(field.rpartition("_")[2], "") if "_" in field else ""


def _plain(field: str) -> str:
    head, _, tail = field.rpartition("_")
    if field.endswith("_kg_cm2"):
        head, tail = field.removesuffix("_kg_cm2"), "cm2"
    return (head if head and tail in UNITS else field).replace("_", " ")
