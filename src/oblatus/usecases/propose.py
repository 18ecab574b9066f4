"""Compute the proposal for a document; equal inputs are computed once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from oblatus.core.gapping import MeasuredStrike
from oblatus.errors import Fault, InputError
from oblatus.formats.convert import fitting_from, swings_from
from oblatus.formats.fitting import ChoicesDocument, DeliveryDocument, FittingDocument, RackHeadDocument
from oblatus.formats.recommendation import RecommendationOut, recommend_document
from oblatus.formats.strikes import strike_from
from oblatus.usecases.engine import engine


@dataclass(frozen=True, slots=True)
class Proposal:
    """A proposal, or the faults that keep the engine from making one."""

    result: RecommendationOut | None
    problem: tuple[Fault, ...] = ()


def propose(
    document: FittingDocument, rack: Sequence[RackHeadDocument], strikes: tuple[MeasuredStrike, ...] | None = None
) -> Proposal:
    """The proposal for a document and the studio's rack; a document that cannot be served says why.

    `strikes`, if given, stand in for those of the document.
    """
    if strikes is None:
        strikes = tuple(strike_from(strike) for strike in document.strikes)
    heads = document.rack if document.rack is not None else tuple(rack)
    nameless = document.player.model_copy(update={"name": "player", "complaints": ""})
    about = _without_words(document).model_copy(update={"rack": None, "player": nameless, "strikes": ()})
    known = {swing.key for swing in swings_from(document)}
    # strikes that tell no carry change no proposal: one more pitch asks for nothing new
    telling = tuple(s for s in strikes if s.counts and s.carry is not None and s.swing in known)
    return _propose(about.model_dump_json(), heads, telling)


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
    about = _without_words(document).model_copy(update=changes)
    engine().make_ahead(fitting_from(document, heads, strikes), (about.model_dump_json(), heads))


def _without_words(document: FittingDocument) -> FittingDocument:
    """The document without what never reaches the engine: typing it asks for nothing new."""
    wordless = {"wear": "", "wear_class": "unknown", "photos": (), "loft_typed": False}
    wedges = tuple(wedge.model_copy(update=wordless) for wedge in document.bag.wedges)
    grounds = tuple(g.model_copy(update={"venue": None, "season": None, "read_on": None}) for g in document.grounds)
    return document.model_copy(update={"grounds": grounds, "bag": document.bag.model_copy(update={"wedges": wedges})})


@lru_cache(maxsize=64)
def _propose(document: str, heads: tuple[RackHeadDocument, ...], strikes: tuple[MeasuredStrike, ...]) -> Proposal:
    try:
        about = FittingDocument.model_validate_json(document)
        return Proposal(recommend_document(about, heads, engine().judge, strikes))
    except InputError as error:
        return Proposal(None, error.faults)
