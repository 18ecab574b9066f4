"""Strikes from a file: opened, looked at with a mapping, checked as a whole, taken all or none, taken back."""

from __future__ import annotations

import hashlib
import threading
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import timedelta
from functools import lru_cache, partial
from itertools import compress
from typing import Any
from uuid import UUID

from pydantic import ValidationError

from oblatus.core.fitting.carries_of import ClubRow, bag_rows
from oblatus.core.gapping import Swing
from oblatus.core.gapping.strikes import SHORT_STATIONS
from oblatus.errors import InputError, OblatusError, fault
from oblatus.formats.fields import faults_of
from oblatus.formats.imports import (
    Converted,
    LayoutDocument,
    MappingDocument,
    RawTable,
    Shaped,
    Wrong,
    convert_rows,
    guess_mapping,
    read_file,
    shape,
    signature_of,
)
from oblatus.formats.imports.guess import words_in
from oblatus.formats.strikes import StrikeDocument
from oblatus.store.database import Database
from oblatus.store.imports import StudioImports
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import ImportRow, now
from oblatus.usecases.actor import Actor
from oblatus.usecases.paste_strikes import question_of_unit
from oblatus.usecases.show_carries import FittingInputs, inputs_of
from oblatus.usecases.take_strikes import MOST_STRIKES

LOOKED_AT = 500
SHOWN = 8
SAMPLES = 4
BROKEN_OFF = timedelta(seconds=60)


class StopError(OblatusError):
    """Somebody stopped it; nothing was taken."""

    status = 409
    code = "stopped"


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


@dataclass(frozen=True, slots=True)
class RunOptions:
    """How a file is run: only checked or taken; without its wrong rows; as strikes of no other file; saved as."""

    take: bool = False
    leave_out_wrong: bool = False
    other_strikes: bool = False
    keep_as: str | None = None


def begin_import(database: Database, actor: Actor, fitting_id: UUID, name: str, content: bytes) -> ImportRow:
    """Keep a file to be imported, once it is known to be a table.

    Raises
    ------
    InputError
        As `read_file` and `shape`.
    NotFoundError
        If the studio has no such fitting.
    """
    digest = hashlib.sha256(content).hexdigest()
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).fitting(fitting_id)
    shape(_read(_Content(digest, content), LayoutDocument()))
    with database.transaction() as session:
        return StudioImports(session, actor.studio_id).add_import(fitting_id, name[:200] or "file", digest, content)


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
        content = _content(imports.import_run(fitting_id, import_id, content=True))
        saved = [(row.name, row.signature, row.document) for row in imports.mappings()]
    layout = mapping.layout if mapping is not None else layout
    table = _read(content, layout)
    shaped = shape(table, layout.header_row)
    fitting = inputs.fitting()
    clubs, swings = bag_rows(fitting), fitting.swings
    guess = guess_mapping(shaped, clubs, swings, unit)
    name = None
    if mapping is None:
        fits = next((row for row in saved if row[1] == signature_of(shaped.names)), None)
        if fits is not None:
            name, mapping = fits[0], _for_this_player(MappingDocument.model_validate(fits[2]), guess, clubs, swings)
    problem: InputError | None = None
    if mapping is None:
        try:
            mapping = MappingDocument.model_validate({**guess, "layout": layout.model_dump()})
        except ValidationError as error:
            problem = faults_of(error)
    used = {c.field: c.column - 1 for c in mapping.columns} if mapping is not None else _used(guess)
    found = Converted()
    if mapping is not None:
        found = _convert(_first(shaped), mapping, clubs, swings, b"")
    strikes = [StrikeDocument.model_validate(found.strike(i) | {"origin": "file"}) for i in range(len(found.rows))]
    return Look(
        table, shaped, mapping, guess, words_in(shaped, used.get("club")), words_in(shaped, used.get("swing")),
        strikes[:SHOWN], found.wrong[:SHOWN], problem, name, question_of_unit(fitting, strikes, _carry_unit(mapping)),
    )  # fmt: skip


def start_import(
    database: Database, actor: Actor, fitting_id: UUID, import_id: UUID, mapping: MappingDocument, options: RunOptions
) -> ImportRow:
    """Check a file as a whole, or take it, in a thread of its own; `import_run` says how far it is.

    Raises
    ------
    InputError
        If it runs already, or was taken and not taken back.
    NotFoundError
        If the studio has no such fitting or import.
    """
    inputs = inputs_of(database, actor, fitting_id)
    with database.transaction() as session:
        imports = StudioImports(session, actor.studio_id)
        row = imports.import_run(fitting_id, import_id, lock=True, content=True)
        if row.state == "running" and not broken_off(row):
            raise fault("import", "runs already")
        if row.state == "taken":
            raise fault("import", "is taken already")
        content = _content(row)
        row.mapping = mapping.model_dump(mode="json")
        row.state, row.stage, row.stop, row.words = "running", "reading", False, ""
        row.done, row.total, row.counts, row.wrong, row.beat_at = 0, 0, None, None, now()
        row.taken_by = actor.name
        session.add(row)
    run = _Run(database, actor, fitting_id, import_id, content, mapping, options, inputs)
    threading.Thread(target=run.go, name=f"import {import_id}", daemon=True).start()
    return row


def stop_import(database: Database, actor: Actor, fitting_id: UUID, import_id: UUID) -> None:
    """Ask a run to stop; nothing of it is taken."""
    with database.transaction() as session:
        row = StudioImports(session, actor.studio_id).import_run(fitting_id, import_id, lock=True)
        row.stop = True
        session.add(row)


def withdraw_import(database: Database, actor: Actor, fitting_id: UUID, import_id: UUID) -> int:
    """Take a whole import back. Returns how many strikes went.

    Raises
    ------
    InputError
        If it was not taken.
    NotFoundError
        If the studio has no such import.
    """
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).fitting(fitting_id, lock=True)
        imports = StudioImports(session, actor.studio_id)
        row = imports.import_run(fitting_id, import_id, lock=True)
        if row.state != "taken":
            raise fault("import", "was not taken")
        gone = imports.remove_imported(fitting_id, import_id)
        row.state = "withdrawn"
        session.add(row)
        return gone


def import_run(database: Database, actor: Actor, fitting_id: UUID, import_id: UUID) -> ImportRow:
    """How an import goes; raises as `StudioImports.import_run`."""
    with database.transaction() as session:
        return StudioImports(session, actor.studio_id).import_run(fitting_id, import_id)


def imports_of(database: Database, actor: Actor, fitting_id: UUID) -> Sequence[ImportRow]:
    """Every import of a fitting, newest first; raises `NotFoundError` if the studio has no such fitting."""
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).fitting(fitting_id)
        return StudioImports(session, actor.studio_id).imports(fitting_id)


def broken_off(row: ImportRow) -> bool:
    """Whether whoever ran it is gone: it said nothing for a minute. Nothing of it was taken."""
    return row.state == "running" and now() - row.beat_at > BROKEN_OFF


@dataclass(frozen=True, slots=True)
class _Run:
    """One run of a file, in its own thread."""

    database: Database
    actor: Actor
    fitting_id: UUID
    import_id: UUID
    content: _Content
    mapping: MappingDocument
    options: RunOptions
    inputs: FittingInputs

    def go(self) -> None:
        """Read, check, and take; whatever happens is said in the import's row."""
        try:
            self._go()
        except StopError as error:
            self._end("stopped", error.message)
        except InputError as error:
            self._end("failed", error.message)
        except Exception:
            self._end("failed", "Something went wrong here; nothing was taken.")
            raise

    def _go(self) -> None:
        layout = self.mapping.layout
        table = _read(self.content, layout, lambda done: self._tell("reading", done, 0))
        shaped = shape(table, layout.header_row)
        fitting = self.inputs.fitting()
        salt = self._salt()
        found = _convert(
            shaped, self.mapping, bag_rows(fitting), fitting.swings, salt,
            lambda done, total: self._tell("checking", done, total),
        )  # fmt: skip
        with self.database.transaction() as session:
            imports = StudioImports(session, self.actor.studio_id)
            known = len(imports.strike_ids(self.fitting_id).intersection(found.columns["id"]))
        counts = {
            "rows": found.total, "ready": len(found.rows), "known": known, "left_out": found.left_out,
            "wrong": found.wrong_rows, "taken": 0,
        }  # fmt: skip
        wrong = [[w.row, w.column, w.value, w.reason] for w in found.wrong]
        if not self.options.take:
            self._end("checked", "", counts, wrong)
            return
        if found.wrong_rows and not self.options.leave_out_wrong:
            self._end("checked", f"{found.wrong_rows} rows are wrong: nothing was taken", counts, wrong)
            return
        self._take(shaped, found, counts, wrong)

    def _take(self, shaped: Shaped, found: Converted, counts: dict[str, int], wrong: list[list[object]]) -> None:
        """All or none, with what is said of it, in one transaction."""
        with self.database.transaction() as session:
            rows = StudioRows(session, self.actor.studio_id)
            rows.fitting(self.fitting_id, lock=True)
            imports = StudioImports(session, self.actor.studio_id)
            there = imports.strike_ids(self.fitting_id)  # with the fitting locked, nobody else takes strikes meanwhile
            new = found.columns
            if not there.isdisjoint(new["id"]):
                keep = [name not in there for name in new["id"]]
                new = {name: list(compress(column, keep)) for name, column in new.items()}
            taken = len(new["id"])
            if len(there) + taken > MOST_STRIKES:
                raise fault("file", f"a fitting holds at most {MOST_STRIKES} strikes")
            if taken:
                tell = partial(self._tell, "taking")
                imports.copy_strikes(self.fitting_id, self.import_id, new, tell)
            counts = {**counts, "known": len(found.rows) - taken, "taken": taken}
            row = imports.import_run(self.fitting_id, self.import_id, lock=True)
            if row.stop:
                raise StopError("Stopped: nothing was taken.")
            row.state, row.words, row.content = "taken", "", None
            row.counts, row.wrong = counts, wrong
            session.add(row)
            if self.options.keep_as:
                document = self.mapping.model_dump(mode="json")
                imports.keep_mapping(self.options.keep_as, signature_of(shaped.names), document)

    def _salt(self) -> bytes:
        """Nothing, so that a row that was taken from another file is the same strike; or the file's digest.

        A file that was taken before stays what it was then: it never adds a row twice.
        """
        with self.database.transaction() as session:
            runs = StudioImports(session, self.actor.studio_id).imports(self.fitting_id)
            before = any(run.state == "taken" and run.digest == self.content.digest for run in runs)
        return self.content.digest.encode() if self.options.other_strikes and not before else b""

    def _tell(self, stage: str, done: int, total: int) -> None:
        with self.database.transaction() as session:
            row = StudioImports(session, self.actor.studio_id).import_run(self.fitting_id, self.import_id, lock=True)
            if row.stop:
                raise StopError("Stopped: nothing was taken.")
            row.stage, row.done, row.total, row.beat_at = stage, done, total, now()
            session.add(row)

    def _end(
        self, state: str, words: str, counts: dict[str, int] | None = None, wrong: list[list[object]] | None = None
    ) -> None:
        with self.database.transaction() as session:
            row = StudioImports(session, self.actor.studio_id).import_run(self.fitting_id, self.import_id, lock=True)
            row.state, row.words, row.counts, row.wrong = state, words[:300], counts, wrong
            session.add(row)


@dataclass(frozen=True, slots=True)
class _Content:
    """A file's bytes, told apart by their digest."""

    digest: str
    content: bytes

    def __hash__(self) -> int:
        return hash(self.digest)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Content) and other.digest == self.digest


def _content(row: ImportRow) -> _Content:
    if row.content is None:
        raise fault("import", "is taken already")
    return _Content(row.digest, row.content)


def _read(content: _Content, layout: LayoutDocument, tell: Callable[[int], None] | None = None) -> RawTable:
    """The file's rows; the last ones read are remembered, for a mapping is changed many times before it is right."""
    if tell is not None:
        return read_file(content.content, layout.sheet, layout.encoding, layout.delimiter, tell)
    return _remembered(content, layout.sheet, layout.encoding, layout.delimiter)


@lru_cache(maxsize=2)
def _remembered(content: _Content, sheet: str | None, encoding: str | None, delimiter: str | None) -> RawTable:
    return read_file(content.content, sheet, encoding, delimiter)


def _convert(
    shaped: Shaped, mapping: MappingDocument, clubs: Sequence[ClubRow], swings: Sequence[Swing], salt: bytes,
    tell: Callable[[int, int], None] = lambda _done, _total: None,
) -> Converted:  # fmt: skip
    width = max(c.column for c in mapping.columns)
    if width > len(shaped.names):
        raise fault("columns", f"the file has {len(shaped.names)} columns, not {width}")
    lofts = {club.code: club.loft_deg for club in clubs}
    return convert_rows(shaped, mapping, lofts, [*(swing.key for swing in swings), *SHORT_STATIONS], salt, tell)


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
