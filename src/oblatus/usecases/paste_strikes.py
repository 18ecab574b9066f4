"""Strikes from pasted text: looked at first, then taken all or none."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from uuid import UUID

from oblatus.core.fitting import Fitting
from oblatus.core.fitting.carries_of import bag_rows, carries_of
from oblatus.core.gapping.unit_doubt import ODDS, other_unit_odds
from oblatus.core.words import percent
from oblatus.formats.paste import read_pasted
from oblatus.formats.strikes import StrikeDocument
from oblatus.store.database import Database
from oblatus.units import METRES_PER_YARD, DistanceUnit
from oblatus.usecases.actor import Actor
from oblatus.usecases.show_carries import inputs_of
from oblatus.usecases.strikes_of import measured
from oblatus.usecases.take_strikes import take_strikes


@dataclass(frozen=True, slots=True)
class PasteResult:
    """Strikes as read, the unit they were read in, a question about it if there is one, and how many were taken."""

    strikes: tuple[StrikeDocument, ...]
    unit: str
    question: str | None
    taken: int


def paste_strikes(
    database: Database,
    actor: Actor,
    fitting_id: UUID,
    text: str,
    unit: DistanceUnit,
    paste_id: UUID,
    cell: tuple[str, str] | None,
    *,
    take: bool,
    sure_of_unit: bool,
) -> PasteResult:
    """Read the text; with `take`, take its strikes unless the unit is in question and `sure_of_unit` does not settle it.

    Raises
    ------
    InputError
        As `read_pasted`, with every wrong line.
    NotFoundError
        If the studio has no such fitting.
    """
    inputs = inputs_of(database, actor, fitting_id)
    fitting = inputs.fitting()
    pasted = read_pasted(text, unit, paste_id, bag_rows(fitting), fitting.swings, cell)
    question = None if sure_of_unit else question_of_unit(fitting, pasted.strikes, pasted.unit)
    taken = 0
    if take and question is None:
        taken = take_strikes(database, actor, fitting_id, pasted.strikes)
    return PasteResult(pasted.strikes, pasted.unit, question, taken)


def question_of_unit(fitting: Fitting, strikes: Sequence[StrikeDocument], unit: str) -> str | None:
    """What to ask about the unit of new carries that fit the player better in the other one; None if they do not."""
    known = {swing.key for swing in fitting.swings}
    new = [strike for strike in measured(tuple(strikes)) if strike.carry is not None and strike.swing in known]
    if not new:
        return None
    rows = bag_rows(replace(fitting, strikes=(*fitting.strikes, *new)))
    odds = other_unit_odds(carries_of(fitting, rows), new, unit)
    if odds < ODDS:
        return None
    said, other, way = ("metres", "yards", "longer") if unit == "m" else ("yards", "metres", "shorter")
    return (
        f"Read as {said}, these carries are about {percent(1.0 - METRES_PER_YARD)} {way} than all else "
        f"that is known of this player. Are they in {other}?"
    )
