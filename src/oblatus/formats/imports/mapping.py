"""How a file's columns become strikes: layout, columns with units, words for clubs and swings. Saved under a name."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Literal, Self

from pydantic import Field, StringConstraints, model_validator

from oblatus.core.bounds import Bound
from oblatus.formats.fields import Strict, Within, at_field
from oblatus.formats.imports.quantities import FIELDS
from oblatus.formats.strikes import MEASURED, ClubCode, SwingKey

Word = Annotated[str, StringConstraints(max_length=200)]
ENCODINGS = {
    "utf-8": "Unicode (UTF-8)", "utf-16": "Unicode (UTF-16)", "utf-16-le": "Unicode (UTF-16, little)",
    "utf-16-be": "Unicode (UTF-16, big)", "cp1252": "Western European", "iso-8859-15": "Western European (ISO)",
    "cp1250": "Central European", "cp1251": "Cyrillic", "mac_roman": "Old Macintosh", "shift_jis": "Japanese",
    "gb18030": "Chinese",
}  # fmt: skip
DELIMITERS = {"tab": "\t", "semicolon": ";", "pipe": "|", "comma": ","}
if TYPE_CHECKING:
    FieldName = str
    Encoding = str
    Delimiter = str
else:
    FieldName = Literal[tuple(FIELDS)]
    Encoding = Literal[tuple(ENCODINGS)]
    Delimiter = Literal[tuple(DELIMITERS)]


class LayoutDocument(Strict):
    """Where the table stands: what is null is found out. `header_row` counts from 1; 0 means there is no header."""

    sheet: Word | None = None
    encoding: Encoding | None = None
    delimiter: Delimiter | None = None
    header_row: Annotated[int, Within(Bound(0, 1000, ""))] | None = None


FOUND_OUT = LayoutDocument()


class ColumnDocument(Strict):
    """One column that is used: its place from 1, the field it fills, and the unit its numbers are in."""

    column: Annotated[int, Within(Bound(1, 200, ""))]
    field: FieldName
    unit: Annotated[str, StringConstraints(max_length=30)] | None = None

    @model_validator(mode="after")
    def _unit_is_of_the_field(self) -> Self:
        units = FIELDS[self.field].units
        if units is None:
            if self.unit is not None:
                raise at_field("unit", f"{FIELDS[self.field].label} has no unit")
        elif self.unit not in units:
            raise at_field("unit", f"must be one of {'; '.join(units)}" if self.unit else "must be chosen")
        return self


class MappingDocument(Strict):
    """A whole mapping. A word for a club or swing that maps to null means that such rows are left out."""

    layout: LayoutDocument = FOUND_OUT
    columns: Annotated[tuple[ColumnDocument, ...], Field(min_length=1, max_length=40)]
    decimal: Literal["point", "comma"] = "point"
    club: ClubCode | None = None
    swing: SwingKey = "full"
    clubs: Annotated[dict[Word, ClubCode | None], Field(max_length=400, default_factory=dict)]
    swings: Annotated[dict[Word, SwingKey | None], Field(max_length=400, default_factory=dict)]
    fill_down: bool = False

    @model_validator(mode="after")
    def _columns_are_told_apart(self) -> Self:
        fields = [column.field for column in self.columns]
        twice = next((field for field in fields if fields.count(field) > 1), None)
        if twice is not None:
            raise at_field("columns", f"two columns are {FIELDS[twice].label}")
        places = [column.column for column in self.columns]
        if len(set(places)) < len(places):
            raise at_field("columns", "one column is used twice")
        if not set(fields) & {*MEASURED, "divot"}:
            raise at_field("columns", "no column holds anything that was measured, such as carry or entry")
        if "club" not in fields and self.club is None:
            raise at_field("club", "must be chosen: no column says which club it was")
        return self
