"""Building blocks of the document models: strict numbers with a range in words, and pydantic errors as faults."""

from __future__ import annotations

import json
import math
from collections.abc import Container, Iterable, Mapping
from typing import Annotated, Any, Self

from pydantic import (
    BaseModel,
    ConfigDict,
    GetCoreSchemaHandler,
    GetJsonSchemaHandler,
    StringConstraints,
    ValidationError,
)
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from oblatus.core.bounds import Bound
from oblatus.core.figures import figures
from oblatus.core.grounds import SURFACES
from oblatus.core.words import counted
from oblatus.errors import Fault, InputError, fault, shorten


class Strict(BaseModel):
    """A model that takes no unknown key, no text for a number, and nothing that is not finite."""

    model_config = ConfigDict(extra="forbid", strict=True, frozen=True, json_schema_serialization_defaults_required=True)

    @classmethod
    def model_validate(cls, obj: Any, **options: Any) -> Self:
        """Validate by the rules of JSON (a list serves for a tuple, an object for a model), wherever it came from."""
        if isinstance(obj, cls):
            return obj
        text = json.dumps(obj, default=str)
        if NUL in text:
            refuse_nul(obj)
        return cls.model_validate_json(text, **options)


SurfaceKey = Annotated[str, StringConstraints(pattern=f"^({'|'.join(SURFACES)})$")]
"""A kind of ground by its key."""

NUL = "\\u0000"


def refuse_nul(value: Any, path: str = "") -> None:
    """Refuse text with a NUL in it, which no database takes.

    Raises
    ------
    InputError
        At the field that has it.
    """
    if isinstance(value, str):
        if "\0" in value:
            raise fault(path or "text", "holds a NUL, which is no character of a text", value.replace("\0", "␀"))
    elif isinstance(value, Mapping):
        for key, inner in value.items():
            refuse_nul(str(key), path)
            refuse_nul(inner, f"{path}.{key}" if path else str(key))
    elif isinstance(value, (list, tuple)):
        for i, inner in enumerate(value):
            refuse_nul(inner, f"{path}.{i}" if path else str(i))


def at_field(field: str, words: str) -> PydanticCustomError:
    """The error of a check over several fields, to be shown at one of them."""
    return PydanticCustomError("at", "{words}", {"field": field, "words": words})


class Within:
    """Annotation: the number must lie in `bound`; the error says the range and the JSON schema holds it."""

    def __init__(self, bound: Bound) -> None:
        self.bound = bound

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        bound = self.bound

        def check(value: float) -> float:
            if not math.isfinite(value) or not bound.low <= value <= bound.high:
                raise PydanticCustomError("bounds", "{words}", {"words": bound.words()})
            return value

        return core_schema.no_info_after_validator_function(check, handler(source))

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        json = handler(schema)
        json.update(minimum=self.bound.low, maximum=self.bound.high)
        if self.bound.unit:
            json["x-unit"] = self.bound.unit
        return json


def document_fields(kind: type, *, without: Container[str] = ()) -> dict[str, Any]:
    """The figures of an engine's dataclass as fields of a document: bounds, usual values, order."""
    return {
        key: (Annotated[float, Within(record.bound)], ... if record.usual is None else record.usual)
        for key, record in figures(kind).items()
        if key not in without
    }


ENTRIES = ("entry", "entries")
WORDS = {
    "missing": "is missing",
    "extra_forbidden": "is not a field of this document",
    "float_type": "must be a number",
    "int_type": "must be a whole number",
    "int_from_float": "must be a whole number",
    "int_parsing": "must be a whole number",
    "float_parsing": "must be a number",
    "string_type": "must be text",
    "bool_type": "must be true or false",
    "finite_number": "must be a finite number",
    "model_type": "must be an object",
    "dict_type": "must be an object",
    "list_type": "must be a list",
    "tuple_type": "must be a list",
    "model_attributes_type": "must be an object",
    "none_required": "must be empty",
    "uuid_parsing": "is not an id",
    "uuid_type": "is not an id",
    **dict.fromkeys(
        ("date_type", "date_parsing", "date_from_datetime_parsing", "date_from_datetime_inexact"),
        "must be a day, as 2026-10-03",
    ),
    **dict.fromkeys(("datetime_type", "datetime_parsing", "datetime_from_date_parsing"), "must be a day and a time"),
    "string_pattern_mismatch": "is none that is known",
    "json_type": "must be JSON",
    "json_invalid": "holds text that is not Unicode, or is nested too deeply",
}


def faults_of(error: ValidationError, prefix: Iterable[str] = ()) -> InputError:
    """A pydantic error as an `InputError` with a dotted path, plain words and the value that was given."""
    head = tuple(prefix)
    faults: dict[tuple[str, str], Fault] = {}
    items = error.errors(include_url=False)
    around = {item["loc"][:n] for item in items for n in range(len(item["loc"]))}
    for item in items:
        if item["type"] == "too_short" and item["loc"] in around:
            continue  # counted short only because its entries are wrong, and those are named
        at = str(item.get("ctx", {}).get("field", ""))
        path = ".".join([*head, *(str(part) for part in item["loc"]), *([at] if at else [])])
        value = "" if item["type"] == "missing" or isinstance(item["input"], (dict, list)) else item["input"]
        wrong = Fault(path or "document", _words(item), shorten(value) if value != "" else "")
        faults.setdefault((wrong.field, wrong.message), wrong)
    return InputError(list(faults.values()))


def _words(item: Any) -> str:
    kind, context = item["type"], item.get("ctx", {})
    if kind in WORDS:
        return WORDS[kind]
    if kind == "literal_error":
        return f"must be {context['expected']}".replace("'", "")
    if kind == "string_too_long":
        return f"must be at most {context['max_length']} characters"
    if kind == "string_too_short":
        return "must not be empty"
    if kind in {"too_long", "too_short"}:
        few, many = context.get("min_length"), context.get("max_length")
        wanted = f"least {counted(few, *ENTRIES)}" if many is None else f"most {counted(many, *ENTRIES)}"
        return f"must have at {wanted}"
    return str(item["msg"]).removeprefix("Value error, ")
