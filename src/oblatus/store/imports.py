"""Imports of one studio: files on their way, strikes copied in bulk, saved mappings."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import datetime
from types import NoneType
from typing import Literal
from uuid import UUID

from psycopg import Connection, Cursor
from sqlalchemy.orm import defer
from sqlmodel import col, delete, select

from oblatus.store.repositories import Json, OfStudio, found
from oblatus.store.tables import ImportRow, MappingRow, StrikeRow, now

MappingKind = Literal["strikes", "log"]
COPIED_AT_ONCE = 5000
COPY_MARKS = str.maketrans({"\\": "\\\\", "\t": "\\t", "\n": "\\n", "\r": "\\r"})


class StudioImports(OfStudio):
    """Files and mappings of one studio."""

    def copy_strikes(
        self, fitting_id: UUID, import_id: UUID, columns: dict[str, list[object]], tell: Callable[[int, int], None]
    ) -> None:
        """Add many validated strikes that are not there yet, column by column, by COPY; tells rows sent of rows in all.

        Raises
        ------
        sqlalchemy.exc.IntegrityError or psycopg.errors.UniqueViolation
            If one of them is there: look at `strike_ids` first, with the fitting locked.
        """
        fixed = {"studio_id": self.studio_id, "fitting_id": fitting_id, "import_id": import_id, "origin": "file",
                 "taken_at": now().isoformat(), "note": "", "simulated": "f"}  # fmt: skip
        constant = {name: value for name, value in fixed.items() if name not in columns}
        names = ", ".join([*constant, *columns])
        start = "".join(f"{value}\t" for value in constant.values())
        total = len(next(iter(columns.values())))
        with self._cursor().copy(f"copy strike ({names}) from stdin") as copy:
            for at in range(0, total, COPIED_AT_ONCE):
                parts = [_copied(column[at : at + COPIED_AT_ONCE]) for column in columns.values()]
                copy.write("".join([start + "\t".join(row) + "\n" for row in zip(*parts, strict=True)]))
                tell(min(at + COPIED_AT_ONCE, total), total)

    def strike_ids(self, fitting_id: UUID) -> set[str]:
        """The ids of every strike of the fitting."""
        query = "select id::text from strike where fitting_id = %s and studio_id = %s"
        return {row[0] for row in self._cursor().execute(query, (fitting_id, self.studio_id)).fetchall()}

    def _cursor(self) -> Cursor:
        """The driver's own cursor in this transaction: what copies has no other way."""
        connection: Connection = self.session.connection().connection.driver_connection  # type: ignore[assignment]
        return connection.cursor()

    def add_import(self, fitting_id: UUID, name: str, digest: str, content: bytes, quiet_since: datetime) -> ImportRow:
        """A file to be imported. Files of this fitting that were never taken are forgotten.

        So are those whose run said nothing since `quiet_since`.
        """
        mine = (col(ImportRow.studio_id) == self.studio_id, col(ImportRow.fitting_id) == fitting_id)
        idle = col(ImportRow.state).in_(("ready", "checked", "stopped", "failed"))
        gone = (col(ImportRow.state) == "running") & (col(ImportRow.beat_at) < quiet_since)
        self.session.exec(delete(ImportRow).where(*mine, idle | gone))
        row = ImportRow(studio_id=self.studio_id, fitting_id=fitting_id, name=name, digest=digest, content=content)
        self.session.add(row)
        self.session.flush()
        return row

    def import_run(self, fitting_id: UUID, import_id: UUID, *, lock: bool = False, content: bool = False) -> ImportRow:
        """One import, with the file only if it is asked for; `lock` holds it until the transaction ends."""
        query = select(ImportRow).where(
            ImportRow.studio_id == self.studio_id, ImportRow.fitting_id == fitting_id, ImportRow.id == import_id
        )
        if lock:
            query = query.with_for_update()
        if not content:
            query = query.options(defer(col(ImportRow.content)))  # type: ignore[arg-type]
        return found(self.session.exec(query).first(), "import")

    def imports(self, fitting_id: UUID) -> Sequence[ImportRow]:
        """Imports of a fitting without their content, newest first."""
        query = (
            select(ImportRow)
            .where(ImportRow.studio_id == self.studio_id, ImportRow.fitting_id == fitting_id)
            .options(defer(col(ImportRow.content)), defer(col(ImportRow.wrong)))  # type: ignore[arg-type]
            .order_by(col(ImportRow.created_at).desc())
        )
        return self.session.exec(query).all()

    def remove_imported(self, fitting_id: UUID, import_id: UUID) -> int:
        """Take out the strikes of an import. Returns how many there were."""
        gone = delete(StrikeRow).where(
            col(StrikeRow.studio_id) == self.studio_id,
            col(StrikeRow.fitting_id) == fitting_id,
            col(StrikeRow.import_id) == import_id,
        )
        return self.session.exec(gone).rowcount

    def mappings(self, kind: MappingKind, *, out: bool = False) -> Sequence[MappingRow]:
        """The studio's saved mappings of a kind, the last saved first, those forgotten not; with `out` only those, the
        last one first."""
        removed = col(MappingRow.removed_at)
        there = removed.is_not(None) if out else removed.is_(None)
        mine = select(MappingRow).where(MappingRow.studio_id == self.studio_id, MappingRow.kind == kind, there)
        return self.session.exec(mine.order_by((removed if out else col(MappingRow.kept_at)).desc())).all()

    def keep_mapping(self, kind: MappingKind, name: str, signature: str, document: Json) -> None:
        """Save a validated mapping under a name, over an older one of that kind and name, forgotten or not."""
        mine = (MappingRow.studio_id == self.studio_id, MappingRow.kind == kind, MappingRow.name == name)
        row = self.session.exec(select(MappingRow).where(*mine)).first() or MappingRow(
            studio_id=self.studio_id, kind=kind, name=name, signature="", document={}
        )
        row.signature, row.document, row.kept_at, row.removed_at = signature, document, now(), None
        self.session.add(row)

    def remove_mapping(self, mapping_id: UUID, *, removed: bool = True) -> None:
        """Forget a saved mapping, or put it back."""
        query = select(MappingRow).where(MappingRow.studio_id == self.studio_id, MappingRow.id == mapping_id)
        row = found(self.session.exec(query).first(), "mapping")
        row.removed_at = now() if removed else None
        self.session.add(row)


def _copied(values: Sequence[object]) -> list[str]:
    """Values as the text that COPY reads: nothing as \\N, marks escaped, yes and no as t and f."""
    kinds = set(map(type, values))
    if kinds <= {float, NoneType}:
        return ["\\N" if value is None else repr(value) for value in values]
    if kinds == {bool}:
        return ["ft"[bool(value)] for value in values]
    return ["\\N" if value is None else str(value).translate(COPY_MARKS) for value in values]
