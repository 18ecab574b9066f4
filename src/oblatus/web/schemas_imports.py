"""What the routes of imports take and answer."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import StringConstraints

from oblatus.formats.fields import Strict
from oblatus.formats.imports import FOUND_OUT, LayoutDocument, MappingDocument
from oblatus.formats.imports.layout import LayoutOut
from oblatus.formats.limits import MAPPING_NAME_LETTERS
from oblatus.formats.strikes import StrikeDocument
from oblatus.store.imports import MappingKind
from oblatus.web.schemas import (
    FittingPath,
)
from oblatus.web.schemas_errors import FaultOut

MappingName = Annotated[str, StringConstraints(min_length=1, max_length=MAPPING_NAME_LETTERS, strip_whitespace=True)]


class ImportQuery(Strict):
    """Name of a file that is sent."""

    name: Annotated[str, StringConstraints(max_length=200)] = "file"


class ImportPath(FittingPath):
    """An import's id."""

    import_id: UUID


class MappingPath(Strict):
    """A saved mapping's id."""

    mapping_id: UUID


class WrongOut(Strict):
    """What is wrong with a row of the file."""

    row: int
    column: str
    value: str
    reason: str


class ImportCounts(Strict):
    """Rows with anything in them; ready to be taken; of those, there already; left out by their words; wrong; taken."""

    rows: int
    ready: int
    known: int
    left_out: int
    wrong: int
    taken: int


class ImportOut(Strict):
    """An import: where it stands, how far a run is, what came of it. `words` says why it stopped or failed."""

    id: UUID
    name: str
    state: Literal["ready", "running", "checked", "taken", "stopped", "failed", "withdrawn"]
    words: str
    stage: str
    done: int
    total: int
    counts: ImportCounts | None
    wrong: list[WrongOut]
    created_at: datetime
    taken_by: str


class ImportsOut(Strict):
    """Imports of a fitting, newest first."""

    imports: list[ImportOut]


class LookIn(Strict):
    """A mapping to look through; null for the saved one that fits the header, or a guess."""

    layout: LayoutDocument = FOUND_OUT
    mapping: MappingDocument | None = None


class FileColumnOut(Strict):
    """A column of the file: its name, the unit it states, and its first cells."""

    column: int
    name: str
    samples: list[str]


class FieldOut(Strict):
    """What a column can hold, with the units its numbers can be in."""

    field: str
    label: str
    units: list[str]


class LookOut(Strict):
    """A file as a mapping makes it; `guess` is shown while no whole mapping stands, with the fault that says why not."""

    layout: LayoutOut
    rows: int
    columns: list[FileColumnOut]
    fields: list[FieldOut]
    mapping: MappingDocument | None
    guess: dict[str, object]
    saved_as: str | None
    club_words: list[str]
    swing_words: list[str]
    strikes: list[StrikeDocument]
    wrong: list[WrongOut]
    faults: list[FaultOut]
    question: str | None


class RunIn(Strict):
    """How a file is run: checked as a whole or taken, all or none."""

    mapping: MappingDocument
    take: bool = False
    leave_out_wrong: bool = False
    other_strikes: bool = False
    keep_as: MappingName | None = None


class MappingsQuery(Strict):
    """Mappings of which files: strikes, or shots on the course."""

    kind: MappingKind = "strikes"


class SavedMappingOut(Strict):
    """A saved mapping."""

    id: UUID
    name: str
    kept_at: datetime


class SavedMappingsOut(Strict):
    """The studio's saved mappings, and those that were forgotten and can be put back."""

    mappings: list[SavedMappingOut]
    forgotten: list[SavedMappingOut]
