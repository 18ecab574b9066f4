"""Strikes by columns, from the store to the engine."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np

from oblatus.core.gapping.strikes import STRIKE_FIGURES
from oblatus.core.session import StrikeTable
from oblatus.core.session.table import Words
from oblatus.formats.convert import LOFT_CORRECTED_DEG, lofts_now
from oblatus.formats.sections.bag import BagDocument


def strike_table(
    ids: str, swings: str, aside: str, clubs: Sequence[str], figures: Mapping[str, bytes], bag: BagDocument
) -> StrikeTable:
    """The strikes as the engine takes them, with the lofts of the bag's clubs as `fitting_from` has them.

    Parameters
    ----------
    ids, swings : a line for every strike
    aside : a letter for every strike, "1" where it does not count
    clubs : the code of every strike's club
    figures : doubles, the high byte first, by their keys, in the document's units
    """
    known = {key: np.frombuffer(told, dtype=">f8").astype(np.float64) for key, told in figures.items()}
    columns = {f.attribute: known[key] if f.per == 1.0 else known[key] / f.per for key, f in STRIKE_FIGURES.items()}
    club = Words.of(clubs)
    now = club.valued(lofts_now(bag), np.nan)
    was = columns["loft_deg"]
    columns["loft_deg"] = np.where(np.abs(now - was) <= LOFT_CORRECTED_DEG, now, was)
    counts = np.frombuffer(aside.encode(), dtype=np.uint8) == ord("0")
    return StrikeTable(ids.splitlines(), club, Words.of(swings.splitlines()), counts, columns)
