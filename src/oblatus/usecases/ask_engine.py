"""What can be asked beyond the proposal: how sure it is, what each school would change."""

from __future__ import annotations

from uuid import UUID

from oblatus.core.fitting import recommend
from oblatus.core.fitting.evidence import Doubt, Flip, doubt_of, find_flips
from oblatus.core.fitting.proposal import settled
from oblatus.core.fitting.recommend import Recommendation
from oblatus.core.fitting.schools import SchoolOutcome, under_each_school
from oblatus.core.gapping import MeasuredStrike
from oblatus.formats.convert import fitting_from
from oblatus.formats.fitting import FittingDocument, RackHeadDocument
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.usecases.actor import Actor
from oblatus.usecases.engine import engine
from oblatus.usecases.newest import of_the_newest
from oblatus.usecases.propose import law_gains
from oblatus.usecases.rack_of import rack_for
from oblatus.usecases.strikes_of import measured, strikes_of


def how_sure(database: Database, actor: Actor, fitting_id: UUID) -> tuple[int, Recommendation, Doubt]:
    """Revision, proposal and its doubt, with the draws of the laws among it; told of as they are made.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    InputError
        If no proposal can be made from it.
    """
    return of_the_newest(fitting_id, lambda: _how_sure(database, actor, fitting_id))


def what_flips(database: Database, actor: Actor, fitting_id: UUID) -> tuple[int, Recommendation, tuple[Flip, ...]]:
    """Revision, proposal and the nearest changes that flip it; raises as `how_sure`."""
    return of_the_newest(fitting_id, lambda: _what_flips(database, actor, fitting_id))


def each_school(database: Database, actor: Actor, fitting_id: UUID) -> tuple[int, Recommendation, list[SchoolOutcome]]:
    """Revision, proposal and what every other school would make of it; raises as `how_sure`."""
    return of_the_newest(fitting_id, lambda: _each_school(database, actor, fitting_id))


def _how_sure(database: Database, actor: Actor, fitting_id: UUID) -> tuple[int, Recommendation, Doubt]:
    revision, document, rack, strikes = _inputs(database, actor, fitting_id)
    gains = law_gains(document, rack, strikes)
    judge = engine().judge
    proposal = recommend(fitting_from(document, rack, strikes), judge)
    doubt = doubt_of(proposal, judge, gains)
    proposal, doubt = settled(proposal, doubt, judge, gains)
    return revision, proposal, doubt


def _what_flips(database: Database, actor: Actor, fitting_id: UUID) -> tuple[int, Recommendation, tuple[Flip, ...]]:
    revision, document, rack, strikes = _inputs(database, actor, fitting_id)
    judge = engine().judge
    proposal = recommend(fitting_from(document, rack, strikes), judge)
    return revision, proposal, find_flips(proposal, judge)


def _each_school(database: Database, actor: Actor, fitting_id: UUID) -> tuple[int, Recommendation, list[SchoolOutcome]]:
    revision, document, rack, strikes = _inputs(database, actor, fitting_id)
    fitting = fitting_from(document, rack, strikes)
    judge = engine().judge
    proposal = recommend(fitting, judge)
    return revision, proposal, under_each_school(fitting, proposal, judge)


def _inputs(
    database: Database, actor: Actor, fitting_id: UUID
) -> tuple[int, FittingDocument, tuple[RackHeadDocument, ...], tuple[MeasuredStrike, ...]]:
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        row = rows.fitting(fitting_id)
        struck = measured(strikes_of(rows, fitting_id))
        return row.revision, FittingDocument.model_validate(row.document), rack_for(rows, fitting_id), struck
