"""The card of a fitting: the clubs as built, else as proposed, with everything that the player takes home."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date
from uuid import UUID

from oblatus.core.card.bag import bag_card, card_rows
from oblatus.core.card.drills import WEEKS, Gain, prescribe, standing_of
from oblatus.core.card.setup import Tool, lie_cards
from oblatus.core.fitting import Fitting, StrokesJudge
from oblatus.core.fitting.carries_of import ClubRow
from oblatus.core.fitting.session_of import session_of
from oblatus.errors import InputError
from oblatus.formats.card import EVERY, Basis, CardOut, clubs_out, distances_out, drill_out, lie_out, rows_out
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.heads import outline_mm
from oblatus.formats.recommendation import RecommendationOut
from oblatus.store.database import Database
from oblatus.units import DistanceUnit
from oblatus.usecases.actor import Actor
from oblatus.usecases.days import today
from oblatus.usecases.engine import engine
from oblatus.usecases.propose import propose
from oblatus.usecases.show_carries import inputs_of
from oblatus.usecases.strikes_of import measured


def see_card(database: Database, actor: Actor, fitting_id: UUID, unit: DistanceUnit) -> CardOut:
    """The card of a fitting as it stands.

    Raises
    ------
    InputError
        If there is no wedge to make it from.
    NotFoundError
        If the studio has no such fitting.
    """
    inputs = inputs_of(database, actor, fitting_id)
    found = propose(inputs.document, inputs.rack, measured(inputs.strikes))
    if found.result is None and not inputs.document.bag.wedges:
        raise InputError(list(found.problem))
    return card_of(inputs.document, inputs.fitting(), found.result, engine().judge, EVERY[unit], today(), {})


def card_of(
    document: FittingDocument,
    fitting: Fitting,
    proposal: RecommendationOut | None,
    judge: StrokesJudge,
    every: float,
    today: date,
    scores: Mapping[str, Sequence[int]],
) -> CardOut:
    """The card for a document: a line of distances for every so many metres, `scores` of drills by their key."""
    basis, tools = tools_of(document, fitting, proposal)
    rows = card_rows(fitting, [ClubRow(tool.code, tool.name, tool.head.loft_deg) for tool in tools])
    bag = bag_card(fitting, rows, every)
    lies = lie_cards(fitting, tools, judge)
    gains = [Gain(leak.situation, leak.name, leak.halving) for leak in proposal.leaks] if proposal else []
    drills = prescribe(gains, session_of(fitting)[1])
    return CardOut(
        player=document.player.name, hand=document.player.hand, made_on=today, basis=basis, ball=document.card.ball,
        temperature_c=bag.temperature_c, measured=bag.measured, every_m=every, clubs=clubs_out(tools), rows=rows_out(bag),
        distances=distances_out(bag), rules=list(bag.rules), lies=[lie_out(one, document.player.hand) for one in lies],
        outlines_mm={one.tool.code: outline_mm(one.tool.head) for one in lies},
        drills=[drill_out(one, standing_of(one.drill, scores.get(one.drill.key, ()))) for one in drills],
        practice_weeks=WEEKS,
    )  # fmt: skip


def tools_of(
    document: FittingDocument, fitting: Fitting, proposal: RecommendationOut | None
) -> tuple[Basis, tuple[Tool, ...]]:
    """The wedges of the card: those that were built, else those proposed, else those owned."""
    owned = tuple(Tool(item.code, item.name, item.head) for item in fitting.stock if item.owned)
    if any(wedge.built is not None for wedge in document.bag.wedges):
        return "built", owned
    if proposal is None or not proposal.clubs:
        return "owned", owned
    stock = {item.code: item for item in fitting.stock}
    return "proposed", tuple(
        Tool(club.code, club.name, stock[club.code].head.bent(club.loft_deg - stock[club.code].head.loft_deg))
        for club in proposal.clubs
    )
