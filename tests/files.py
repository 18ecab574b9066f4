"""Files as a screen sends them."""

from __future__ import annotations

import base64
import io
from collections.abc import Mapping, Sequence

import openpyxl


def in_base64(content: str | bytes) -> str:
    """A file in base64."""
    return base64.b64encode(content.encode() if isinstance(content, str) else content).decode()


def workbook(sheets: Mapping[str, Sequence[Sequence[object]]]) -> bytes:
    """A workbook with rows by sheet."""
    book = openpyxl.Workbook()
    book.remove(book.active)
    for name, rows in sheets.items():
        sheet = book.create_sheet(name)
        for row in rows:
            sheet.append(list(row))
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
