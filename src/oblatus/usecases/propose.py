"""Compute the proposal for a document; equal inputs are computed once."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Sequence
from dataclasses import dataclass
from threading import Condition
from typing import TypeVar
from uuid import UUID

from cachetools import LRUCache, cached
from pydantic import BaseModel

from oblatus.core.fitting import proposal as whole
from oblatus.core.fitting.fitting import Fitting, count_strikes
from oblatus.core.fitting.recommendation import Built, near
from oblatus.core.gapping import MeasuredStrike
from oblatus.core.threads import at_leisure, patiently
from oblatus.errors import Fault, InputError
from oblatus.formats.convert import fitting_from
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.proposal_out import rack_key, recommendation_out, strikes_key
from oblatus.formats.recommendation import RecommendationOut
from oblatus.formats.sections.bag import RackHeadDocument
from oblatus.formats.sections.choices import ChoicesDocument
from oblatus.formats.sections.player import DeliveryDocument
from oblatus.usecases.answers import keep_answer, kept_answer
from oblatus.usecases.engine import engine
from oblatus.usecases.near import clubs_near, keep_near
from oblatus.usecases.question import Question, question_of, without_words

Found = TypeVar("Found")
WHOLE = "whole"


@dataclass(frozen=True, slots=True)
class Proposal:
    """A proposal, or the faults that keep the engine from making one, or neither while it is still to be worked out.

    `strikes` are those that it stands on, `strikes_key` and `rack_key` tell them and the rack from any others; `near` are
    the clubs near its choice.
    """

    result: RecommendationOut | None
    problem: tuple[Fault, ...] = ()
    strikes: int = 0
    strikes_key: str = ""
    rack_key: str = ""
    near: frozenset[Built] = frozenset()

    @property
    def to_come(self) -> bool:
        """Whether it is still to be worked out."""
        return self.result is None and not self.problem


class _Kept(BaseModel):
    """A whole answer as the other workers find it."""

    result: RecommendationOut
    strikes: int
    strikes_key: str
    rack_key: str
    near: frozenset[Built]


def propose(
    document: FittingDocument,
    rack: Sequence[RackHeadDocument],
    strikes: tuple[MeasuredStrike, ...] | None = None,
    *,
    fitting: UUID | None = None,
    edited: bool = False,
) -> Proposal:
    """The proposal for a document and the studio's rack; a document that cannot be served says why.

    `strikes`, if given, stand in for those of the document; `fitting` is the one that the proposal is for. When it was
    edited the proposal is a quick one: it looks only at the heads near the last one that was made for it, says so, and
    has neither doubt nor leaks; without a last one it is to come. What is worked on for the fitting as it was is ended.
    """
    asked = question_of(document, rack, strikes)
    work = engine().work
    found = _found(asked)
    if found is None and fitting is not None and edited:
        work.edited(fitting)
        return _near_or_to_come(asked, fitting)
    found = found or _at_leisure(lambda: _whole(asked))
    if found.near and fitting is not None:
        keep_near(work.folder, fitting, found.near)
    return found


def propose_at_once(
    document: FittingDocument,
    rack: Sequence[RackHeadDocument],
    strikes: tuple[MeasuredStrike, ...],
    fitting: UUID,
) -> Proposal:
    """What can be said without a long wait: the proposal if it was made, else a quick one, else that it is to come."""
    asked = question_of(document, rack, strikes)
    return _found(asked) or _near_or_to_come(asked, fitting)


def _near_or_to_come(asked: Question, fitting: UUID) -> Proposal:
    clubs = clubs_near(engine().work.folder, fitting)
    if clubs is not None:
        return _quick(asked, clubs)
    return Proposal(None, (), *_stands_on(asked.fitting()))


def _stands_on(fitting: Fitting) -> tuple[int, str, str]:
    """The count and key of the strikes, and the key of the rack, that a proposal stands on, made or not."""
    return count_strikes(fitting), strikes_key(fitting.strikes), rack_key(fitting.stock)


_DONE: LRUCache[Hashable, Proposal] = LRUCache(24)


def make_ahead(
    document: FittingDocument, rack: Sequence[RackHeadDocument], strikes: tuple[MeasuredStrike, ...] = ()
) -> None:
    """Begin to make, in the background, the families that edits near this document will ask for.

    Nothing is begun when only the habit, the ladder or the pins changed: those ask for families that are made already.
    """
    heads = document.rack if document.rack is not None else tuple(rack)
    delivery = document.player.delivery
    same = DeliveryDocument(release=delivery.release, opening=delivery.opening)
    player = document.player.model_copy(update={"name": "player", "complaints": "", "delivery": same})
    changes = {"rack": None, "player": player, "choices": ChoicesDocument(), "strikes": ()}
    about = without_words(document).model_copy(update=changes)
    engine().make_ahead(fitting_from(document, heads, strikes), (about.model_dump_json(), heads))


def _at_leisure(work: Callable[[], Found]) -> Found:
    """The result of work that others may be doing already: in a patient thread, whoever asks.

    A hand that waited for a patient thread would keep it pausing; patient threads that waited for a thread outside their
    pool, while that waited for room in the pool, would wait for ever.
    """
    with at_leisure():
        return patiently(work)


# equal questions that are asked at once are worked out once
_ONE_AT_A_TIME = Condition()


def _found(asked: Question) -> Proposal | None:
    """The whole answer, if this worker or another has it already."""
    with _ONE_AT_A_TIME:
        mine = _DONE.get(asked.key)
    if mine is not None:
        return mine
    theirs = kept_answer(engine().work.folder, WHOLE, _Kept, asked)
    if theirs is None:
        return None
    found = Proposal(theirs.result, (), theirs.strikes, theirs.strikes_key, theirs.rack_key, theirs.near)
    with _ONE_AT_A_TIME:
        return _DONE.setdefault(asked.key, found)


@cached(_DONE, key=lambda asked: asked.key, condition=_ONE_AT_A_TIME)
def _whole(asked: Question) -> Proposal:
    found = _ask(asked, None)
    if found.result is not None:
        kept = _Kept(
            result=found.result, strikes=found.strikes, strikes_key=found.strikes_key, rack_key=found.rack_key,
            near=found.near,
        )  # fmt: skip
        keep_answer(engine().work.folder, WHOLE, asked, kept)
    return found


@cached(LRUCache(12), key=lambda asked, clubs: (*asked.key, clubs), condition=Condition())
def _quick(asked: Question, clubs: frozenset[Built]) -> Proposal:
    return _ask(asked, clubs)


def _ask(asked: Question, clubs: frozenset[Built] | None) -> Proposal:
    fitting = asked.fitting()
    try:
        found = whole.propose(fitting, engine().judge, among=clubs)
        return Proposal(recommendation_out(found), (), *_stands_on(fitting), near(found.recommendation))
    except InputError as error:
        return Proposal(None, error.faults, *_stands_on(fitting))
