"""A file on its way in: its bytes, its rows, and the strikes that a mapping makes of them."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache

from oblatus.core.fitting.carries_of import ClubRow
from oblatus.core.gapping import Swing
from oblatus.core.gapping.strikes import SHORT_STATIONS
from oblatus.errors import fault
from oblatus.formats.imports import Converted, LayoutDocument, MappingDocument, RawTable, Shaped, convert_rows
from oblatus.formats.imports.layout import read_in
from oblatus.store.tables import ImportRow


@dataclass(frozen=True, slots=True)
class FileContent:
    """A file's bytes, told apart by their digest."""

    digest: str
    content: bytes

    def __hash__(self) -> int:
        return hash(self.digest)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, FileContent) and other.digest == self.digest


def content_of(row: ImportRow) -> FileContent:
    if row.content is None:
        raise fault("import", "is taken already")
    return FileContent(row.digest, row.content)


def read_content(content: FileContent, layout: LayoutDocument, tell: Callable[[int], None] | None = None) -> RawTable:
    """The file's rows; the last ones read are remembered, for a mapping is changed many times before it is right."""
    if tell is not None:
        return read_in(content.content, layout, tell)
    return _remembered(content, layout.model_copy(update={"header_row": None}))


@lru_cache(maxsize=2)
def _remembered(content: FileContent, layout: LayoutDocument) -> RawTable:
    return read_in(content.content, layout)


def strikes_of_file(
    shaped: Shaped, mapping: MappingDocument, clubs: Sequence[ClubRow], swings: Sequence[Swing], salt: bytes,
    tell: Callable[[int, int], None] = lambda _done, _total: None,
) -> Converted:  # fmt: skip
    width = max(c.column for c in mapping.columns)
    if width > len(shaped.names):
        raise fault("columns", f"the file has {len(shaped.names)} columns, not {width}")
    lofts = {club.code: club.loft_deg for club in clubs}
    return convert_rows(shaped, mapping, lofts, [*(swing.key for swing in swings), *SHORT_STATIONS], salt, tell)
