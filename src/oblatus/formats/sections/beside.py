"""What goes with a fitting's file beside its sections: kept proposals, photos, the log."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from pydantic import Field, StringConstraints

from oblatus.core.bounds import Bound
from oblatus.formats.fields import Strict, Within
from oblatus.formats.limits import NAME_LETTERS
from oblatus.formats.log_shots import MOST_LOGGED, LogShotDocument
from oblatus.formats.readings import ReadingDocument
from oblatus.formats.sections.parts import Name


class KeptDocument(Strict):
    """A kept proposal in a file: name, when, by whom, with which engine, inputs and result as they were."""

    label: Annotated[str, StringConstraints(max_length=NAME_LETTERS)] = ""
    revision: Annotated[int, Within(Bound(1, 1_000_000_000, ""))]
    created_at: datetime
    engine_version: Annotated[str, StringConstraints(min_length=1, max_length=20)]
    kept_by: Name
    clubs: Annotated[tuple[Annotated[str, StringConstraints(max_length=200)], ...], Field(max_length=8)] = ()
    document: dict[str, Any]
    result: dict[str, Any]


class PhotoDocument(Strict):
    """A photo in a file: the id by which a wedge shows it, and a JPEG in base64."""

    id: UUID
    jpeg: Annotated[str, StringConstraints(min_length=4, max_length=4_000_000)]


class AttachedDocument(Strict):
    """What belongs to a fitting beside its document; `proofs` are whole proof documents (formats/proof.py), `builds`
    builds that were signed (formats/build.py), `handovers` what was handed over with its scores (formats/page.py), `log`
    shots noted on the course."""

    kept: Annotated[tuple[KeptDocument, ...], Field(max_length=500)] = ()
    readings: Annotated[tuple[ReadingDocument, ...], Field(max_length=5000)] = ()
    photos: Annotated[tuple[PhotoDocument, ...], Field(max_length=80)] = ()
    proofs: Annotated[tuple[dict[str, Any], ...], Field(max_length=60)] = ()
    builds: Annotated[tuple[dict[str, Any], ...], Field(max_length=60)] = ()
    log: Annotated[tuple[LogShotDocument, ...], Field(max_length=MOST_LOGGED)] = ()
    handovers: Annotated[tuple[dict[str, Any], ...], Field(max_length=200)] = ()
    begun_at: datetime | None = None
