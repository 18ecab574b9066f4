"""Compute the proposal for a document; equal inputs are computed once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from oblatus.errors import Fault, InputError
from oblatus.formats.convert import fitting_from
from oblatus.formats.fitting import ChoicesDocument, DeliveryDocument, FittingDocument, RackHeadDocument
from oblatus.formats.recommendation import RecommendationOut, recommend_document
from oblatus.usecases.engine import engine


@dataclass(frozen=True, slots=True)
class Proposal:
    """A proposal, or the faults that keep the engine from making one."""

    result: RecommendationOut | None
    problem: tuple[Fault, ...] = ()


def propose(document: FittingDocument, rack: Sequence[RackHeadDocument]) -> Proposal:
    """The proposal for a document and the studio's rack; a document that cannot be served says why."""
    heads = document.rack if document.rack is not None else tuple(rack)
    # who the player is and what they say of their game never reaches the engine: typing it asks for nothing new
    nameless = document.player.model_copy(update={"name": "player", "complaints": ""})
    return _propose(document.model_copy(update={"rack": None, "player": nameless}).model_dump_json(), heads)


def make_ahead(document: FittingDocument, rack: Sequence[RackHeadDocument]) -> None:
    """Begin to make, in the background, the families that edits near this document will ask for.

    Nothing is begun when only the habit, the ladder or the pins changed: those ask for families that are made already.
    """
    heads = document.rack if document.rack is not None else tuple(rack)
    delivery = document.player.delivery
    same = DeliveryDocument(release=delivery.release, opening=delivery.opening)
    player = document.player.model_copy(update={"name": "player", "complaints": "", "delivery": same})
    about = document.model_copy(update={"rack": None, "player": player, "choices": ChoicesDocument()})
    engine().make_ahead(fitting_from(document, heads), (about.model_dump_json(), heads))


@lru_cache(maxsize=64)
def _propose(document: str, heads: tuple[RackHeadDocument, ...]) -> Proposal:
    try:
        return Proposal(recommend_document(FittingDocument.model_validate_json(document), heads, engine().judge))
    except InputError as error:
        return Proposal(None, error.faults)
