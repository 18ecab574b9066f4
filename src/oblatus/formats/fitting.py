"""The fitting document: everything known of one fitting as one JSON object, version 1. Keys carry units.

`docs/formats/fitting.schema.json` is generated from these models.
"""

from __future__ import annotations

import json
from dataclasses import replace
from typing import Annotated, Any, Literal, Self

from pydantic import Field, ValidationError, model_validator

from oblatus.core.words import worded
from oblatus.errors import InputError, fault
from oblatus.formats.fields import Strict, at_field, faults_of
from oblatus.formats.limits import LARGEST_FITTING
from oblatus.formats.sections.after import AfterDocument, CardDocument
from oblatus.formats.sections.bag import BagDocument, Rack
from oblatus.formats.sections.beside import AttachedDocument
from oblatus.formats.sections.build import BuildDocument
from oblatus.formats.sections.choices import ChoicesDocument
from oblatus.formats.sections.grounds import Grounds, check_grounds
from oblatus.formats.sections.measuring import HeadEvidenceDocument, MeasuringDocument
from oblatus.formats.sections.player import PlayerDocument
from oblatus.formats.strikes import StrikeDocument

FORMAT: Literal["oblatus.fitting"] = "oblatus.fitting"
VERSION: Literal[1] = 1


class FittingDocument(Strict):
    """One fitting. `rack` is null when the studio's own rack is meant; `strikes` are those measured, in their order;
    `attached` is there in a file only: kept proposals, readings of instruments and photos."""

    format: Literal["oblatus.fitting"] = FORMAT
    version: Literal[1] = VERSION
    player: PlayerDocument
    grounds: Grounds
    bag: BagDocument = BagDocument()
    choices: ChoicesDocument = ChoicesDocument()
    measuring: MeasuringDocument = MeasuringDocument()
    evidence: Annotated[tuple[HeadEvidenceDocument, ...], Field(max_length=60)] = ()
    build: BuildDocument = BuildDocument()
    card: CardDocument = CardDocument()
    after: AfterDocument = AfterDocument()
    rack: Rack | None = None
    strikes: Annotated[tuple[StrikeDocument, ...], Field(max_length=120_000)] = ()
    attached: AttachedDocument | None = None

    @model_validator(mode="after")
    def _grounds_are_whole(self) -> Self:
        check_grounds(self.grounds)
        return self

    @model_validator(mode="after")
    def _strikes_are_told_apart(self) -> Self:
        if len({strike.id for strike in self.strikes}) < len(self.strikes):
            raise at_field("strikes", "two strikes have the same id")
        return self


BESIDE = ("format", "version", "strikes", "rack", "attached")

SECTIONS = tuple(name for name in FittingDocument.model_fields if name not in BESIDE)
"""The parts of a document that are edited on a screen."""

AFTER_THE_SET = ("build", "card", "after")
"""Those that are about the set once it is chosen: no proposal stands on them."""

WITH_CODES = ("choices", "build")
"""Those in which clubs go by their codes, own:0 for the first wedge of the bag."""


def load_fitting(text: str | bytes) -> FittingDocument:
    """Read a fitting document.

    Raises
    ------
    InputError
        If the text is not JSON, not this format, another version, or any field is wrong; nothing is guessed.
    """
    if len(text) > LARGEST_FITTING:
        raise fault("document", f"is larger than {LARGEST_FITTING // 1000} kB")
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise fault("document", f"is not JSON: {str(error)[:120]}") from error
    return parse_fitting(data)


def parse_fitting(data: Any) -> FittingDocument:
    """A fitting document from parsed JSON; format and version are looked at first.

    Raises
    ------
    InputError
        As `load_fitting`.
    """
    if not isinstance(data, dict):
        raise fault("document", "must be a JSON object", type(data).__name__)
    if data.get("format") != FORMAT:
        raise fault("format", f"must be {FORMAT}: this is not a fitting", data.get("format", "missing"))
    version = data.get("version")
    if version != VERSION or isinstance(version, bool):
        raise fault("version", f"this program reads version {VERSION} only", "missing" if version is None else version)
    try:
        return FittingDocument.model_validate(data)
    except ValidationError as error:
        raise faults_of(error) from error
    except ValueError as error:
        raise fault("document", "holds a number that is not finite, or text that is not Unicode") from error


def as_in_file(error: InputError) -> InputError:
    """What is wrong with a file in its own units, whoever reads it: the values beside it are quoted from the file."""
    return InputError([replace(one, message=worded(one.message)) for one in error.faults])


def dump_fitting(document: FittingDocument) -> str:
    """The document as text: stable order of keys, two spaces, a final newline."""
    return json.dumps(document.model_dump(mode="json"), indent=2, ensure_ascii=False, allow_nan=False) + "\n"
