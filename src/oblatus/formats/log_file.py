"""A log from a table: which column is what, guessed by its header and changed by the fitter; every row or none."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from functools import partial
from typing import TYPE_CHECKING, Annotated, Literal, TypeAlias
from uuid import UUID, uuid5

from pydantic import Field, StringConstraints, ValidationError

from oblatus.core.fitting.carries_of import ClubRow
from oblatus.core.log.shots import APPROACH, RESULTS, SITUATIONS
from oblatus.core.shots import BY_KEY
from oblatus.errors import fault
from oblatus.formats.fields import Strict, faults_of
from oblatus.formats.imports import FOUND_OUT, LayoutDocument, RawTable
from oblatus.formats.imports.guess import decimal_of, guess_club, text_of, word_of
from oblatus.formats.imports.layout import TableOut, find_table, read_in
from oblatus.formats.imports.numbers import number_of
from oblatus.formats.imports.quantities import plain_name
from oblatus.formats.imports.shape import Shaped, shape
from oblatus.formats.log import RowRefusedOut
from oblatus.formats.log_shots import LogShotDocument, ResultKey, SituationKey
from oblatus.units import METRES_PER_YARD, DistanceUnit

LOG_FIELDS = {
    "on": "day", "round": "round", "situation": "lie", "ground": "ground", "distance_m": "to the hole", "club": "club",
    "result": "result", "left_m": "left", "holed_in": "strokes to hole out",
}  # fmt: skip
if TYPE_CHECKING:
    LogField: TypeAlias = str
else:
    LogField = Literal[tuple(LOG_FIELDS)]
FIGURES: tuple[LogField, ...] = ("distance_m", "left_m")
NEEDED: tuple[LogField, ...] = ("on", "situation", "club", "result")
NAMES: dict[LogField, tuple[str, ...]] = {
    "on": ("date", "day", "on", "played"),
    "round": ("round", "round no", "game"),
    "situation": ("situation", "lie", "shot", "shot type"),
    "ground": ("ground", "course", "venue"),
    "distance_m": ("distance", "distance to hole", "to hole", "start distance", "distance m"),
    "club": ("club", "wedge"),
    "result": ("result", "outcome", "what happened"),
    "left_m": ("left", "distance left", "proximity", "end distance", "left m"),
    "holed_in": ("holed in", "strokes", "strokes to hole out", "total"),
}
DAYS = ("%Y-%m-%d", "%d.%m.%Y", "%d/%m/%Y", "%d %b %Y", "%d %B %Y", "%Y/%m/%d")
MOST_WRONG = 200
Word = Annotated[str, StringConstraints(max_length=200)]


class LogMappingDocument(Strict):
    """Where the table stands, which column (from 1) is what, the unit of distances, and words for clubs, situations and
    results."""

    layout: LayoutDocument = FOUND_OUT
    columns: dict[LogField, Annotated[int, Field(ge=1, le=200)]]
    unit: DistanceUnit = "m"
    clubs: Annotated[dict[Word, str], Field(max_length=400, default_factory=dict)]
    situations: Annotated[dict[Word, SituationKey], Field(max_length=400, default_factory=dict)]
    results: Annotated[dict[Word, ResultKey], Field(max_length=400, default_factory=dict)]


class LogFileOut(TableOut):
    """A file as it was understood: the mapping and the name that it was saved under; what has no column yet and needs
    one, shots that it comes to, and rows that are wrong."""

    mapping: LogMappingDocument
    saved_as: str | None
    unknown: dict[str, list[str]]
    missing: list[LogField]
    rows: int
    refused: list[RowRefusedOut]
    taken: int | None


@dataclass(frozen=True, slots=True)
class LogTable:
    """A file's table, and how it is understood, with the name of a saved mapping."""

    raw: RawTable
    shaped: Shaped
    mapping: LogMappingDocument
    saved_as: str | None = None


def read_log_file(
    content: bytes, clubs: Sequence[ClubRow], mapping: LogMappingDocument | None, unit: str,
    saved: Sequence[tuple[str, str, LogMappingDocument]] = (), layout: LayoutDocument = FOUND_OUT,
) -> LogTable:  # fmt: skip
    """The table of a CSV or XLSX file with a mapping: the one that is given, with its layout; or by `layout` one that was
    `saved` (name, header, mapping) for its header, or a guess. Raises InputError as `read_file` and `shape`.

    Words for clubs are guessed anew: those of a saved mapping are another player's.
    """
    if mapping is not None:
        raw = read_in(content, mapping.layout)
        return LogTable(raw, shape(raw, mapping.layout.header_row), mapping)
    found = find_table(partial(read_in, content), layout, [(row[1], row[2].layout) for row in saved])
    guess = _guess(found.shaped, clubs, unit).model_copy(update={"layout": found.layout})
    if found.fits is None:
        return LogTable(found.raw, found.shaped, guess)
    name, _, own = saved[found.fits]
    words = {"situations": guess.situations | own.situations, "results": guess.results | own.results}
    fitting = own.model_copy(update={"layout": found.layout, "clubs": guess.clubs, **words})
    return LogTable(found.raw, found.shaped, fitting, name)


def _guess(shaped: Shaped, clubs: Sequence[ClubRow], unit: str) -> LogMappingDocument:
    columns: dict[LogField, int] = {}
    stated = unit
    for n, name in enumerate(shaped.names):
        plain, said = plain_name(name)
        field = next((key for key in LOG_FIELDS if plain in NAMES[key]), None)
        if field is not None and field not in columns:
            columns[field] = n + 1
            if field == "distance_m" and said in ("m", "yd"):
                stated = said
    club = {word: code for word in _words(shaped, columns.get("club")) if (code := guess_club(word, clubs))}
    return LogMappingDocument.model_validate(
        {
            "columns": columns, "unit": stated if stated in ("m", "yd") else "m", "clubs": club,
            "situations": _known(_words(shaped, columns.get("situation")), SITUATION_WORDS),
            "results": _known(_words(shaped, columns.get("result")), RESULT_WORDS),
        }
    )  # fmt: skip


SITUATION_WORDS = {APPROACH: APPROACH, "full": APPROACH} | {
    word: key for key in SITUATIONS if key in BY_KEY for word in (key, BY_KEY[key].name.casefold())
} | {"bunker": "sand_greenside", "sand": "sand_greenside"}  # fmt: skip
RESULT_WORDS = {word: one.key for one in RESULTS for word in (one.key, one.name)} | {"holed": "holed", "fat": "heavy"}


def _known(words: Sequence[str], known: Mapping[str, str]) -> dict[str, str]:
    return {word: known[word.casefold()] for word in words if word.casefold() in known}


def _words(shaped: Shaped, column: int | None) -> list[str]:
    if column is None:
        return []
    cells = (row[column - 1] for row in shaped.rows if column <= len(row))
    return list(dict.fromkeys(word for cell in cells if cell not in (None, "") and (word := word_of(cell))))[:200]


def unknown_words(table: LogTable) -> dict[str, list[str]]:
    """Words that stand for no club, situation or result yet, by field."""
    m = table.mapping
    known: dict[LogField, Mapping[str, str]] = {"club": m.clubs, "situation": m.situations, "result": m.results}
    found = {
        field: [word for word in _words(table.shaped, m.columns.get(field)) if word not in words]
        for field, words in known.items()
    }
    return {field: words for field, words in found.items() if words}


def shots_of(table: LogTable, fitting_id: UUID) -> tuple[list[LogShotDocument], list[RowRefusedOut]]:
    """The shots of the rows, and rows that are wrong.

    The same row gives the same shot whenever the file is read: its id follows from what stands in it, and from how many
    rows like it stand before. Raises InputError if a needed column is not named.
    """
    for needed in NEEDED:
        if needed not in table.mapping.columns:
            raise fault(f"columns.{needed}", "must be named: nothing can be told without it")
    shots: list[LogShotDocument] = []
    wrong: list[RowRefusedOut] = []
    seen: dict[str, int] = {}
    # as they stand in the file, in whichever order a mapping names them: a row's id follows from its cells
    columns = sorted(table.mapping.columns.items(), key=lambda item: item[1])
    decimal = decimal_of(table.shaped, [at - 1 for field, at in columns if field in FIGURES])
    for n, row in enumerate(table.shaped.rows):
        cells = {field: row[at - 1] if at <= len(row) else None for field, at in columns}
        if all(cell in (None, "") for cell in cells.values()):
            continue
        number = table.shaped.first_row + n
        told = "|".join("" if cell is None else str(cell) for cell in cells.values())
        seen[told] = seen.get(told, 0) + 1
        shot = _shot(cells, table.mapping, fitting_id, f"{told}|{seen[told]}", decimal)
        if isinstance(shot, LogShotDocument):
            shots.append(shot)
        else:
            wrong += [RowRefusedOut(row=number, field=field, message=message) for field, message in shot]
    return shots, wrong[:MOST_WRONG]


def _shot(
    cells: Mapping[LogField, object], mapping: LogMappingDocument, fitting_id: UUID, told: str, decimal: str
) -> LogShotDocument | list[tuple[str, str]]:
    wrong: list[tuple[str, str]] = []
    on = _day(cells.get("on"))
    if on is None:
        wrong.append(("on", f"is no day: {text_of(cells.get('on') or 'empty')[:40]}"))
    values: dict[str, object] = {"id": str(uuid5(fitting_id, told)), "on": None if on is None else on.isoformat()}
    values["round"] = str(uuid5(fitting_id, f"{on}|{text_of(cells.get('round') or '')}"))
    words: dict[LogField, Mapping[str, str]] = {
        "club": mapping.clubs,
        "situation": mapping.situations,
        "result": mapping.results,
    }
    for field, known in words.items():
        word = word_of(cells.get(field) or "")
        values[field] = known.get(word)
        if word not in known:
            wrong.append((field, f"stands for nothing we know: {word[:40] or 'empty'}"))
    factor = METRES_PER_YARD if mapping.unit == "yd" else 1.0
    for figure in FIGURES:
        number = number_of(cells.get(figure), decimal, factor, {"m": 1.0, "yd": METRES_PER_YARD})
        if isinstance(number, str):
            wrong.append((figure, number))
        else:
            values[figure] = number
    count = number_of(cells.get("holed_in"), "point", 1.0, {})
    if isinstance(count, str) or (count is not None and count != int(count)):
        wrong.append(("holed_in", "must be a whole number"))
    else:
        values["holed_in"] = None if count is None else int(count)
    values["ground"] = text_of(cells.get("ground") or "")[:120]
    if wrong:
        return wrong
    try:
        return LogShotDocument.model_validate(values)
    except ValidationError as error:
        return [(one.field, one.message) for one in faults_of(error).faults]


def _day(cell: object) -> date | None:
    if isinstance(cell, datetime):
        return cell.date()
    if isinstance(cell, date):
        return cell
    for pattern in DAYS:
        try:
            return datetime.strptime(str(cell or "").strip(), pattern).date()
        except ValueError:
            continue
    return None
