"""Keep a file to be imported, and see what became of it and of those before it."""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from datetime import timedelta
from uuid import UUID

from oblatus.formats.imports import LayoutDocument, shape
from oblatus.store.database import Database
from oblatus.store.imports import StudioImports
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import ImportRow, now
from oblatus.usecases.actor import Actor
from oblatus.usecases.import_file import FileContent, read_content

BROKEN_OFF = timedelta(seconds=60)


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
    shape(read_content(FileContent(digest, content), LayoutDocument()))
    with database.transaction() as session:
        imports = StudioImports(session, actor.studio_id)
        return imports.add_import(fitting_id, name[:200] or "file", digest, content, now() - BROKEN_OFF)


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
