"""A trip or a season of a fitting: what its bag does on other ground, and what to change first."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from threading import Condition
from uuid import UUID

from cachetools import LRUCache, cached

from oblatus.core.after.trip import trip_answer
from oblatus.core.card.setup import Tool, lie_cards
from oblatus.core.fitting import Fitting, StrokesJudge
from oblatus.core.fitting.scenarios import build_scenarios
from oblatus.core.grounds import Ground
from oblatus.errors import NotFoundError
from oblatus.formats.card import lie_out
from oblatus.formats.convert import grounds_of
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.heads import outline_mm
from oblatus.formats.sections.after import TripDocument
from oblatus.formats.trip import TripOut, trip_out
from oblatus.store.database import Database
from oblatus.usecases.actor import Actor
from oblatus.usecases.engine import engine
from oblatus.usecases.question import Question, question_of
from oblatus.usecases.show_carries import FittingInputs, inputs_of
from oblatus.usecases.strikes_of import measured


def see_trip(database: Database, actor: Actor, fitting_id: UUID, name: str, *, doubt: bool) -> TripOut:
    """The answer for a trip of the fitting; `doubt` draws the laws too.

    Raises
    ------
    InputError
        If there is no wedge to take along.
    NotFoundError
        If the studio has no such fitting, or the fitting no such trip.
    """
    inputs = inputs_of(database, actor, fitting_id)
    trip = next((one for one in inputs.document.after.trips if one.name == name), None)
    if trip is None:
        raise NotFoundError("There is no such trip.")
    return _answered(inputs, question_of(inputs.document, inputs.rack, measured(inputs.strikes)), trip, doubt)


@cached(
    LRUCache(64),
    key=lambda inputs, asked, trip, doubt: (asked.key, tuple(one.model_dump_json() for one in trip.grounds), doubt),
    condition=Condition(),
)
def _answered(inputs: FittingInputs, asked: Question, trip: TripDocument, doubt: bool) -> TripOut:
    away = grounds_of(inputs.document.model_copy(update={"grounds": trip.grounds}))
    return trip_of(inputs.document, inputs.fitting(), away, engine().judge, doubt=doubt)


def trip_of(
    document: FittingDocument, fitting: Fitting, grounds: Sequence[Ground], judge: StrokesJudge, *, doubt: bool
) -> TripOut:
    """The answer for a bag on other ground, with how to play each shot there."""
    tools = tuple(Tool(item.code, item.name, item.head) for item in fitting.stock if item.owned)
    answer = trip_answer(fitting, tools, grounds, judge, doubt=doubt)
    there = replace(fitting, grounds=tuple(grounds))
    changed = {change.scenario.key: change.setup for change in answer.changes}
    scenarios = [
        replace(one, setups=(changed[one.key],)) if one.key in changed else one
        for one in build_scenarios(there.player, there.grounds, there.layouts)
    ]
    cards = lie_cards(there, tools, judge, scenarios)
    outlines = {one.tool.code: outline_mm(one.tool.head) for one in cards}
    return trip_out(answer, [lie_out(one, document.player.hand) for one in cards], outlines)
