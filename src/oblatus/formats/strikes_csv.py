"""Strikes as CSV: a header with units in brackets, which pasting reads again."""

from __future__ import annotations

import csv
import io
from collections.abc import Mapping, Sequence

from oblatus.core.gapping.strikes import STRIKE_FIGURES
from oblatus.formats.strikes import MEASURED, StrikeDocument

SHELL_UNITS = {"degrees": "deg"}


def _head(key: str) -> str:
    record = STRIKE_FIGURES[key]
    return f"{record.words.lower()} ({SHELL_UNITS.get(record.bound.unit, record.bound.unit)})"


HEADER = {key: _head(key) for key in MEASURED}
TAIL = ("divot", "set aside", "note", "origin", "simulated", "id")
FORMULA = ("=", "+", "-", "@", "＝", "＋", "－", "＠")
BLANKS = "\ufeff\u200b\u2060"
"""That `str.strip` leaves: marks without a width."""


def strikes_csv(strikes: Sequence[StrikeDocument], clubs: Mapping[str, str], swings: Mapping[str, str]) -> str:
    """Every strike a row, set aside or not; words that a spreadsheet would run as a formula are made text."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(["club", "loft (deg)", "swing", *HEADER.values(), *TAIL])
    for strike in strikes:
        figures = [getattr(strike, name) for name in HEADER]
        club, swing = clubs.get(strike.club, strike.club), swings.get(strike.swing, strike.swing)
        row = [
            safe_text(club),
            strike.loft_deg,
            safe_text(swing),
            *("" if figure is None else figure for figure in figures),
        ]
        told = [strike.divot or "", safe_text(strike.set_aside or ""), safe_text(strike.note), strike.origin]
        writer.writerow([*row, *told, "yes" if strike.simulated else "no", strike.id])
    return out.getvalue()


def typed_text(text: str) -> str:
    """Text as it was before `safe_text`."""
    return text[1:] if text.startswith("'") and safe_text(text[1:]) == text else text


def safe_text(text: str) -> str:
    """Text that a spreadsheet shows and does not run; it looks behind blanks and line breaks as a spreadsheet does."""
    shown = text
    while shown != (bare := shown.strip().strip(BLANKS)):
        shown = bare
    return f"'{text}" if shown.startswith(FORMULA) else text
