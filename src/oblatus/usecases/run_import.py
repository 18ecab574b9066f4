"""Check a file as a whole, or take it, all or none, in a thread of its own; stop it; take it back."""

from __future__ import annotations

import threading
from dataclasses import dataclass
from functools import partial
from itertools import compress
from uuid import UUID

from oblatus.core.fitting.carries_of import bag_rows
from oblatus.core.words import counted
from oblatus.errors import InputError, OblatusError, fault
from oblatus.formats.imports import Converted, MappingDocument, Shaped, shape, signature_of
from oblatus.store.database import Database
from oblatus.store.imports import StudioImports
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import ImportRow, now
from oblatus.usecases.actor import Actor
from oblatus.usecases.begin_import import broken_off
from oblatus.usecases.import_file import FileContent, content_of, read_content, strikes_of_file
from oblatus.usecases.show_carries import FittingInputs, inputs_of
from oblatus.usecases.take_strikes import MOST_STRIKES


class StopError(OblatusError):
    """Somebody stopped it; nothing was taken."""

    status = 409
    code = "stopped"


@dataclass(frozen=True, slots=True)
class RunOptions:
    """How a file is run: only checked or taken; without its wrong rows; as strikes of no other file; saved as."""

    take: bool = False
    leave_out_wrong: bool = False
    other_strikes: bool = False
    keep_as: str | None = None


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
        content = content_of(row)
        row.mapping = mapping.model_dump(mode="json")
        row.state, row.stage, row.stop, row.words = "running", "reading", False, ""
        row.done, row.total, row.counts, row.wrong, row.beat_at = 0, 0, None, None, now()
        row.taken_by = actor.name
        session.add(row)
    run = ImportRun(database, actor, fitting_id, import_id, content, mapping, options, inputs)
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


@dataclass(frozen=True, slots=True)
class ImportRun:
    """One run of a file, in its own thread."""

    database: Database
    actor: Actor
    fitting_id: UUID
    import_id: UUID
    content: FileContent
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
        table = read_content(self.content, layout, lambda done: self._tell("reading", done, 0))
        shaped = shape(table, layout.header_row)
        fitting = self.inputs.fitting()
        salt = self._salt()
        found = strikes_of_file(
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
            self._end(
                "checked", f"{counted(found.wrong_rows, 'row is', 'rows are')} wrong: nothing was taken", counts, wrong
            )
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
                imports.keep_mapping("strikes", self.options.keep_as, signature_of(shaped.names), document)

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
