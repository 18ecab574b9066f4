"""Tables of strikes from files of any shape: read, guess what the columns are, convert, say what is wrong by row."""

from oblatus.formats.imports.convert import Converted, Wrong, convert_rows, wrong_csv
from oblatus.formats.imports.guess import guess_mapping, signature_of
from oblatus.formats.imports.mapping import FOUND_OUT, ColumnDocument, LayoutDocument, MappingDocument
from oblatus.formats.imports.reading import RawTable, read_file
from oblatus.formats.imports.shape import Shaped, shape

__all__ = [
    "FOUND_OUT", "ColumnDocument", "Converted", "LayoutDocument", "MappingDocument", "RawTable", "Shaped", "Wrong",
    "convert_rows", "guess_mapping", "read_file", "shape", "signature_of", "wrong_csv",
]  # fmt: skip
