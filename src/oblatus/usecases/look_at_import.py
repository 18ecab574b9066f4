"""Look at a file through a mapping: the one that is given, one that was saved for its header, or a guess."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from typing import Any
from uuid import UUID

from pydantic import ValidationError

from oblatus.core.fitting.carries_of import ClubRow, bag_rows
from oblatus.core.gapping import Swing
from oblatus.core.gapping.strikes import SHORT_STATIONS
from oblatus.errors import InputError
from oblatus.formats.fields import faults_of
from oblatus.formats.imports import (
    Converted,
    LayoutDocument,
    MappingDocument,
    RawTable,
    Shaped,
    Wrong,
    guess_mapping,
    shape,
)
from oblatus.formats.imports.guess import words_in
from oblatus.formats.imports.layout import Found, find_table
from oblatus.formats.strikes import StrikeDocument
from oblatus.store.database import Database
from oblatus.store.imports import StudioImports
from oblatus.usecases.actor import Actor
from oblatus.usecases.import_file import content_of, read_content, strikes_of_file
from oblatus.usecases.paste_strikes import question_of_unit
from oblatus.usecases.show_carries import inputs_of

LOOKED_AT = 500
SHOWN = 8


@dataclass(frozen=True, slots=True)
class Look:
    """A file as its mapping makes it: layout, columns with samples, words to be mapped, the first strikes."""

    table: RawTable
    shaped: Shaped
    mapping: MappingDocument | None
    guess: dict[str, Any]
    club_words: list[str]
    swing_words: list[str]
    strikes: list[StrikeDocument]
    wrong: list[Wrong]
    fault: InputError | None
    saved_as: str | None
    question: str | None


def look_at_import(
    database: Database, actor: Actor, fitting_id: UUID, import_id: UUID, layout: LayoutDocument,
    mapping: MappingDocument | None, unit: str,
) -> Look:  # fmt: skip
    """The file with a mapping, or with the one that is saved for its header, or with a guess.

    Raises
    ------
    InputError
        If the layout does not fit the file.
    NotFoundError
        If the studio has no such fitting or import.
    """
    inputs = inputs_of(database, actor, fitting_id)
    with database.transaction() as session:
        imports = StudioImports(session, actor.studio_id)
        content = content_of(imports.import_run(fitting_id, import_id, content=True))
        saved = [(row.name, row.signature, row.document) for row in imports.mappings("strikes")]
    read = partial(read_content, content)
    if mapping is not None:
        table = read(mapping.layout)
        seen = Found(table, shape(table, mapping.layout.header_row), mapping.layout)
    else:
        own = [(header, LayoutDocument.model_validate(document.get("layout") or {})) for _, header, document in saved]
        seen = find_table(read, layout, own)
    table, shaped, layout = seen.raw, seen.shaped, seen.layout
    fitting = inputs.fitting()
    clubs, swings = bag_rows(fitting), fitting.swings
    guess = guess_mapping(shaped, clubs, swings, unit)
    name = None
    if seen.fits is not None:
        name, _, document = saved[seen.fits]
        kept = MappingDocument.model_validate(document)
        mapping = _for_this_player(kept, guess, clubs, swings).model_copy(update={"layout": layout})
    problem: InputError | None = None
    if mapping is None:
        try:
            mapping = MappingDocument.model_validate({**guess, "layout": layout.model_dump()})
        except ValidationError as error:
            problem = faults_of(error)
    used = {c.field: c.column - 1 for c in mapping.columns} if mapping is not None else _used(guess)
    found = Converted()
    if mapping is not None:
        found = strikes_of_file(_first(shaped), mapping, clubs, swings, b"")
    strikes = [StrikeDocument.model_validate(found.strike(i) | {"origin": "file"}) for i in range(len(found.rows))]
    return Look(
        table, shaped, mapping, guess, words_in(shaped, used.get("club")), words_in(shaped, used.get("swing")),
        strikes[:SHOWN], found.wrong[:SHOWN], problem, name, question_of_unit(fitting, strikes, _carry_unit(mapping)),
    )  # fmt: skip


def _for_this_player(
    saved: MappingDocument, guess: dict[str, Any], clubs: Sequence[ClubRow], swings: Sequence[Swing]
) -> MappingDocument:
    """A saved mapping for another player: owned clubs are guessed anew, for theirs are not this player's."""
    known = {club.code for club in clubs if not club.code.startswith("own:")}
    stations = {swing.key for swing in swings} | {*SHORT_STATIONS}
    kept = {word: code for word, code in saved.clubs.items() if code is None or code in known}
    told = {word: key for word, key in saved.swings.items() if key is None or key in stations}
    club = saved.club if saved.club in known else None
    changes = {"clubs": guess["clubs"] | kept, "swings": guess["swings"] | told, "club": club}
    return saved.model_copy(update=changes)


def _first(shaped: Shaped) -> Shaped:
    return Shaped(shaped.header_row, shaped.names, shaped.units, shaped.rows[:LOOKED_AT], shaped.first_row)


def _carry_unit(mapping: MappingDocument | None) -> str:
    unit = next((c.unit for c in mapping.columns if c.field == "carry_m"), None) if mapping is not None else None
    return "yd" if unit == "yd" else "m"


def _used(guess: dict[str, Any]) -> dict[str, int]:
    return {c["field"]: c["column"] - 1 for c in guess["columns"]}
