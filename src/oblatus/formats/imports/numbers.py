"""Numbers as files write them: decimal comma or point, thousands marks, a unit behind the figure, dashes for nothing."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from oblatus.formats.imports.quantities import unit_named

NOTHING = frozenset({"", "-", "--", "–", "—", "n/a", "na", "null", "none", "nan"})
SPACES = str.maketrans({"\u00a0": " ", "\u202f": " ", "\u2009": " ", "−": "-", "’": "'"})
SHAPE = re.compile(r"([+-]?(?:\d[\d.,' ]*)?\d(?:[.,](?!\d))?|[+-]?[.,]\d+)(e[+-]?\d+)?\s*(\D*)", re.IGNORECASE)
WHOLE = {
    "point": re.compile(r"[+-]?(?:\d+|\d{1,3}(?:[,' ]\d{3})+)?(?:\.\d*)?"),
    "comma": re.compile(r"[+-]?(?:\d+|\d{1,3}(?:[.' ]\d{3})+)?(?:,\d*)?"),
}


def numbers_of(
    cells: Sequence[object], decimal: str, factor: float, units: Mapping[str, float]
) -> tuple[NDArray[np.float64], dict[int, str]]:
    """Figures of a column (n,) in the field's unit, not-a-number where the cell is empty; and what is wrong, by place.

    `factor` turns a bare figure into the field's unit; a cell that states a unit of `units` itself goes by that one.
    """
    quick = _quick(cells, decimal)
    if quick is not None:
        return np.round(quick * factor, 6), {}
    found = np.full(len(cells), np.nan)
    wrong: dict[int, str] = {}
    for i, cell in enumerate(cells):
        figure = number_of(cell, decimal, factor, units)
        if isinstance(figure, str):
            wrong[i] = figure
        elif figure is not None:
            found[i] = figure
    return np.round(found, 6), wrong


def number_of(cell: object, decimal: str, factor: float, units: Mapping[str, float]) -> float | str | None:
    """One cell: its figure in the field's unit, None if it is empty, or words on what is wrong with it."""
    if cell is None:
        return None
    if isinstance(cell, float):
        return cell * factor if math.isfinite(cell) else "is not a finite number"
    text = str(cell).translate(SPACES).strip()
    if text.casefold() in NOTHING:
        return None
    parts = SHAPE.fullmatch(text)
    if parts is None:
        return "is not a number"
    figures, power, tail = parts.group(1).strip(), parts.group(2) or "", parts.group(3).strip()
    if WHOLE[decimal].fullmatch(figures) is None:
        return f"is not a number with a decimal {decimal}"
    thousands = "," if decimal == "point" else "."
    plain = re.sub(rf"[{thousands}' ]", "", figures).replace(",", ".") + power
    if not tail:
        return float(plain) * factor
    unit = unit_named(tail)
    if unit is None or unit not in units:
        return f"has a unit that does not fit here: {tail[:20]}"
    sign = -1.0 if factor < 0 else 1.0  # a column counted the other way stays so whatever unit a cell states
    return float(plain) * units[unit] * sign


def _quick(cells: Sequence[object], decimal: str) -> NDArray[np.float64] | None:
    """The column at once where every cell is a plain number or empty; None where a closer look is needed."""
    texts = ["" if cell is None else cell for cell in cells]
    if decimal == "comma":
        texts = [cell.replace(",", ".") if isinstance(cell, str) and "." not in cell else cell for cell in texts]
        if any(isinstance(cell, str) and cell.count(".") == 1 and len(cell) - cell.find(".") == 4 for cell in texts):
            return None  # 1.234 may be a thousand: the slow way knows
    try:
        found = np.array([math.nan if cell == "" else float(cell) for cell in texts])  # type: ignore[arg-type]
    except (ValueError, OverflowError):
        return None
    filled = np.array([cell != "" for cell in texts], dtype=bool)
    if not np.isfinite(found[filled]).all() or any("_" in cell for cell in texts if isinstance(cell, str)):
        return None
    return found
