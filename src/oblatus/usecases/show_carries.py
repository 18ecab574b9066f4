"""The carries of a fitting: matrix, ladder in its conditions, shots for a distance; and the front of ladders."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from oblatus.core.fitting import Fitting
from oblatus.core.fitting.carries_of import ClubRow, bag_rows, view_carries
from oblatus.core.fitting.fitting import ladder_choice
from oblatus.formats.carries import CarriesIn, CarriesOut, carries_out, conditions_from
from oblatus.formats.convert import fitting_from
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.proposal_lofts import ladder_out
from oblatus.formats.recommendation import LadderOut
from oblatus.formats.sections.bag import RackHeadDocument
from oblatus.formats.strikes import StrikeDocument
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.usecases.actor import Actor
from oblatus.usecases.propose import propose
from oblatus.usecases.rack_of import rack_for
from oblatus.usecases.strikes_of import measured, strikes_of


@dataclass(frozen=True, slots=True)
class FittingInputs:
    """What the engine is asked with."""

    document: FittingDocument
    rack: tuple[RackHeadDocument, ...]
    strikes: tuple[StrikeDocument, ...]

    def fitting(self) -> Fitting:
        """The engine's fitting."""
        return fitting_from(self.document, self.rack, measured(self.strikes))


def inputs_of(database: Database, actor: Actor, fitting_id: UUID) -> FittingInputs:
    """Document, rack and strikes of a fitting.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        document = FittingDocument.model_validate(rows.fitting(fitting_id).document)
        return FittingInputs(document, rack_for(rows, fitting_id), strikes_of(rows, fitting_id))


def show_carries(database: Database, actor: Actor, fitting_id: UUID, asked: CarriesIn) -> CarriesOut:
    """The carries in the conditions asked for; raises as `inputs_of` and `view_carries`."""
    inputs = inputs_of(database, actor, fitting_id)
    fitting = inputs.fitting()
    rows = bag_rows(fitting) if asked.clubs == "bag" else proposed_rows(inputs, fitting)
    view = view_carries(fitting, rows, conditions_from(asked), asked.distance_m, asked.pin)
    return carries_out(view, asked, inputs.strikes)


def show_front(database: Database, actor: Actor, fitting_id: UUID) -> list[LadderOut]:
    """Cover against cost: the ladders that none beats in both; raises as `inputs_of` and `recommend`."""
    inputs = inputs_of(database, actor, fitting_id)
    choice = ladder_choice(inputs.fitting())
    result = propose(inputs.document, inputs.rack, measured(inputs.strikes)).result
    shown = result.lofts.chosen.lofts_deg if result is not None else []
    front = choice.search.front(len(choice.options))
    return [ladder_out(ladder, choice.options, list(ladder.lofts_deg) == shown) for ladder in front]


def proposed_rows(inputs: FittingInputs, fitting: Fitting) -> tuple[ClubRow, ...]:
    """Nine-iron, pitching wedge and the clubs of the proposal, at the lofts to which they would be built."""
    above = bag_rows(fitting)[:2]
    result = propose(inputs.document, inputs.rack, measured(inputs.strikes)).result
    clubs = result.clubs if result is not None else []
    return (
        *above,
        *(ClubRow(club.code, club.name, club.loft_deg) for club in clubs),
    )
