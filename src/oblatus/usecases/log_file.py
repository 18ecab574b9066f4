"""Take a log from a file: looked at first, then every row or none."""

from __future__ import annotations

from uuid import UUID

from oblatus.core.fitting.carries_of import bag_rows
from oblatus.core.words import Reader
from oblatus.formats.imports import FOUND_OUT, LayoutDocument
from oblatus.formats.imports.guess import signature_of
from oblatus.formats.imports.layout import table_out
from oblatus.formats.log_file import (
    NEEDED,
    LogFileOut,
    LogMappingDocument,
    read_log_file,
    shots_of,
    unknown_words,
)
from oblatus.store.database import Database
from oblatus.store.imports import StudioImports
from oblatus.store.repositories import StudioRows
from oblatus.store.rounds import StudioRounds
from oblatus.usecases.actor import Actor
from oblatus.usecases.course_log import add_shots, check_shots
from oblatus.usecases.show_carries import inputs_of


def log_from_file(
    database: Database, actor: Actor, fitting_id: UUID, content: bytes, mapping: LogMappingDocument | None,
    reader: Reader, *, take: bool, keep_as: str | None = None, layout: LayoutDocument = FOUND_OUT,
) -> LogFileOut:  # fmt: skip
    """A file as it is understood, read by the mapping's layout or, without a mapping, by `layout`.

    With `take`, its shots are added if no row is wrong, and not twice, and the mapping is saved as `keep_as` for files
    with the same header.

    Raises
    ------
    InputError
        If the file cannot be read so, a needed column is not named, or a shot is of a day to come.
    NotFoundError
        If the studio has no such fitting.
    """
    inputs = inputs_of(database, actor, fitting_id)
    with database.transaction() as session:
        saved = [
            (row.name, row.signature, LogMappingDocument.model_validate(row.document))
            for row in StudioImports(session, actor.studio_id).mappings("log")
        ]
    table = read_log_file(content, bag_rows(inputs.fitting()), mapping, reader.distance, saved, layout)
    missing = [field for field in NEEDED if field not in table.mapping.columns]
    shots, refused = shots_of(table, fitting_id) if take or not missing else ([], [])
    taken = None
    if take and not refused:
        check_shots(inputs.document, shots)
        with database.transaction() as session:
            StudioRows(session, actor.studio_id).fitting(fitting_id)
            taken = add_shots(StudioRounds(session, actor.studio_id), fitting_id, shots, "file")
            if keep_as:
                document = table.mapping.model_dump(mode="json") | {"clubs": {}}
                StudioImports(session, actor.studio_id).keep_mapping(
                    "log", keep_as, signature_of(table.shaped.names), document
                )
    return LogFileOut(
        **dict(table_out(table.raw, table.shaped)),
        mapping=table.mapping, saved_as=table.saved_as, unknown=unknown_words(table), missing=missing,
        rows=len(shots), refused=refused, taken=taken,
    )  # fmt: skip
