"""What can be asked beyond the proposal: how sure it is, what would flip it, what each school would change.

Equal questions are answered once: a second screen, or one that comes back, does not wait again, whichever worker it
reaches.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import partial, wraps
from threading import Condition
from typing import TypeVar
from uuid import UUID

from cachetools import LRUCache, cached

from oblatus.core.fitting import recommend
from oblatus.core.fitting.evidence import doubt_of, draw_law_gains
from oblatus.core.fitting.flips import find_flips
from oblatus.core.fitting.proposal import settled
from oblatus.core.fitting.schools import under_each_school
from oblatus.formats.evidence import EvidenceOut, FlipsOut, SchoolsOut, evidence_out, flips_out, schools_out
from oblatus.formats.fitting import FittingDocument
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.usecases.actor import Actor
from oblatus.usecases.answers import keep_answer, kept_answer
from oblatus.usecases.engine import FLIPS, LAWS, SCHOOLS, engine, question
from oblatus.usecases.newest import of_the_newest
from oblatus.usecases.question import Question, question_of
from oblatus.usecases.rack_of import rack_for
from oblatus.usecases.strikes_of import measured, strikes_of

ANSWERS_KEPT = 16

Out = TypeVar("Out", EvidenceOut, FlipsOut, SchoolsOut)


def how_sure(database: Database, actor: Actor, fitting_id: UUID) -> EvidenceOut:
    """The doubt of the proposal, with the draws of the laws among it; told of as they are made.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    InputError
        If no proposal can be made from it.
    """
    return of_the_newest(fitting_id, lambda: _answered(database, actor, fitting_id, _how_sure))


def what_flips(database: Database, actor: Actor, fitting_id: UUID) -> FlipsOut:
    """The nearest changes that flip the proposal; raises as `how_sure`."""
    return of_the_newest(fitting_id, lambda: _answered(database, actor, fitting_id, _what_flips), for_later=FLIPS)


def each_school(database: Database, actor: Actor, fitting_id: UUID) -> SchoolsOut:
    """What every other school would make of the fitting; raises as `how_sure`."""
    return of_the_newest(fitting_id, lambda: _answered(database, actor, fitting_id, _each_school), for_later=SCHOOLS)


def stop_question(database: Database, actor: Actor, fitting_id: UUID, kind: str) -> None:
    """Stop working out what flips the proposal, or what each school would change: nobody is to come back for it.

    Another screen that waits for it has it begun anew.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).fitting(fitting_id)
    engine().work.stop(question(fitting_id, kind))


def _answered(database: Database, actor: Actor, fitting_id: UUID, answer: Callable[[Question], Out]) -> Out:
    """The answer to a fitting's question as it is now, under its revision."""
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        row = rows.fitting(fitting_id)
        struck = measured(strikes_of(rows, fitting_id))
        asked = question_of(FittingDocument.model_validate(row.document), rack_for(rows, fitting_id), struck)
        revision = row.revision
    return answer(asked).model_copy(update={"revision": revision})


def _worked_out_once(kind: str, answer: type[Out]) -> Callable[[Callable[[Question], Out]], Callable[[Question], Out]]:
    """Equal questions are answered once: in this worker while they are fresh, and by none that another has answered."""

    def around(work_out: Callable[[Question], Out]) -> Callable[[Question], Out]:
        @cached(LRUCache(ANSWERS_KEPT), key=lambda asked: asked.key, condition=Condition())
        @wraps(work_out)
        def found(asked: Question) -> Out:
            folder = engine().work.folder
            kept = kept_answer(folder, kind, answer, asked)
            if kept is None:
                kept = work_out(asked)
                keep_answer(folder, kind, asked, kept)
            return kept

        return found

    return around


@_worked_out_once("sure", EvidenceOut)
def _how_sure(asked: Question) -> EvidenceOut:
    judge = engine().judge
    proposal = recommend(asked.fitting(), judge)
    gains = draw_law_gains(proposal, partial(engine().work.tell_of, LAWS))
    return evidence_out(0, *settled(proposal, doubt_of(proposal, judge, gains), judge, gains))


@_worked_out_once("flips", FlipsOut)
def _what_flips(asked: Question) -> FlipsOut:
    judge, tell = engine().judge, partial(engine().work.tell_of, FLIPS)
    return flips_out(0, find_flips(recommend(asked.fitting(), judge), judge, tell))


@_worked_out_once("schools", SchoolsOut)
def _each_school(asked: Question) -> SchoolsOut:
    fitting, judge, tell = asked.fitting(), engine().judge, partial(engine().work.tell_of, SCHOOLS)
    return schools_out(0, under_each_school(fitting, recommend(fitting, judge), judge, tell))
