"""Compute the proposal for a document; equal inputs are computed once."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from functools import lru_cache

from oblatus.core.fitting import recommend
from oblatus.core.fitting.evidence import LawGains, draw_law_gains
from oblatus.core.fitting.recommend import Built
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
    document: FittingDocument,
    rack: Sequence[RackHeadDocument],
    strikes: tuple[MeasuredStrike, ...] | None = None,
    *,
    quick: bool = False,
) -> Proposal:
    """The proposal for a document and the studio's rack; a document that cannot be served says why.

    `strikes`, if given, stand in for those of the document. A quick proposal looks only at the heads near the last one
    that was made for this bag and rack, says so, and has neither doubt nor leaks; without a last one it is a whole one.
    """
    about, heads, telling = _question(document, rack, strikes)
    if quick:
        near = _NEAR.get(_place(document, heads))
        if near is not None and not _known(about, heads, telling):
            return _quick(about, heads, telling, near)
    found = _propose(about, heads, telling)
    if found.result is not None:
        _remember(_place(document, heads), found.result)
    return found


def law_gains(
    document: FittingDocument, rack: Sequence[RackHeadDocument], strikes: tuple[MeasuredStrike, ...]
) -> LawGains | None:
    """The draws of the laws for a document's proposal; equal inputs are drawn once. Raises InputError as `recommend`."""
    return _law_gains(*_question(document, rack, strikes))


def _question(
    document: FittingDocument, rack: Sequence[RackHeadDocument], strikes: tuple[MeasuredStrike, ...] | None
) -> tuple[str, tuple[RackHeadDocument, ...], tuple[MeasuredStrike, ...]]:
    """What the engine is asked, without what never reaches it."""
    if strikes is None:
        strikes = tuple(strike_from(strike) for strike in document.strikes)
    heads = document.rack if document.rack is not None else tuple(rack)
    nameless = document.player.model_copy(update={"name": "player", "complaints": ""})
    about = _without_words(document).model_copy(update={"rack": None, "player": nameless, "strikes": ()})
    known = {swing.key for swing in swings_from(document)}
    # strikes that tell neither carry nor speed change no proposal
    telling = tuple(
        s for s in strikes if s.counts and ((s.carry is not None and s.swing in known) or s.club_speed is not None)
    )
    return about.model_dump_json(), heads, telling


_NEAR: OrderedDict[Hashable, frozenset[Built]] = OrderedDict()
NEAR_KEPT = 64


def _place(document: FittingDocument, heads: tuple[RackHeadDocument, ...]) -> Hashable:
    """Bag and rack, by which the heads near the last choice are remembered."""
    return document.bag.model_dump_json(), document.player.name, heads


def _remember(place: Hashable, result: RecommendationOut) -> None:
    clubs = {(club.code, round(club.loft_deg, 2)) for step in result.steps for club in step.clubs}
    clubs |= {(c.code, round(c.head.loft_deg, 2)) for club in result.clubs for c in club.candidates[:NEAR_CANDIDATES]}
    _NEAR[place] = frozenset(clubs)
    _NEAR.move_to_end(place)
    while len(_NEAR) > NEAR_KEPT:
        _NEAR.popitem(last=False)


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


_DONE: OrderedDict[Hashable, Proposal] = OrderedDict()
DONE_KEPT = 64
NEAR_CANDIDATES = 3


def _known(document: str, heads: tuple[RackHeadDocument, ...], strikes: tuple[MeasuredStrike, ...]) -> bool:
    return (document, heads, strikes) in _DONE


def _propose(document: str, heads: tuple[RackHeadDocument, ...], strikes: tuple[MeasuredStrike, ...]) -> Proposal:
    key = (document, heads, strikes)
    found = _DONE.get(key)
    if found is None:
        found = _DONE[key] = _ask(document, heads, strikes, None)
        while len(_DONE) > DONE_KEPT:
            _DONE.popitem(last=False)
    return found


@lru_cache(maxsize=32)
def _quick(
    document: str, heads: tuple[RackHeadDocument, ...], strikes: tuple[MeasuredStrike, ...], near: frozenset[Built]
) -> Proposal:
    return _ask(document, heads, strikes, near)


def _ask(
    document: str, heads: tuple[RackHeadDocument, ...], strikes: tuple[MeasuredStrike, ...], near: frozenset[Built] | None
) -> Proposal:
    try:
        about = FittingDocument.model_validate_json(document)
        return Proposal(recommend_document(about, heads, engine().judge, strikes, among=near))
    except InputError as error:
        return Proposal(None, error.faults)


@lru_cache(maxsize=32)
def _law_gains(
    document: str, heads: tuple[RackHeadDocument, ...], strikes: tuple[MeasuredStrike, ...]
) -> LawGains | None:
    judge, work = engine().judge, engine().work
    found = recommend(fitting_from(FittingDocument.model_validate_json(document), heads, strikes), judge)
    return draw_law_gains(found, judge, work.tell_laws)
