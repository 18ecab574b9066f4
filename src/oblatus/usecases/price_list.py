"""The studio's price list."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from sqlmodel import Session

from oblatus.core.build.parts import USUAL_SHELF
from oblatus.errors import ConflictError, fault
from oblatus.formats.sections.build import PricesDocument
from oblatus.store.builds import StudioBuilds
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import Studio
from oblatus.usecases.actor import Actor


@dataclass(frozen=True, slots=True)
class PriceList:
    """Prices, how many of every part are on the shelf, and the revision that both are at."""

    prices: PricesDocument
    parts: Mapping[str, int]
    revision: int


def prices_of(studio: Studio) -> PricesDocument:
    """The studio's prices, the usual ones until somebody typed others."""
    return PricesDocument.model_validate(studio.prices or {})


def see_prices(database: Database, actor: Actor) -> PriceList:
    """The price list as it stands."""
    with database.transaction() as session:
        studio = StudioRows(session, actor.studio_id).studio()
        return PriceList(prices_of(studio), _shelf(session, studio), studio.prices_revision)


def _shelf(session: Session, studio: Studio) -> Mapping[str, int]:
    return StudioBuilds(session, studio.id).shelf(studio)


def put_prices(
    database: Database, actor: Actor, prices: PricesDocument, parts: Mapping[str, int], revision: int
) -> PriceList:
    """Put a price list and a count of parts in place of those at a revision.

    Raises
    ------
    ConflictError
        If somebody else changed it since.
    InputError
        If a part is none of ours.
    """
    for code in parts:
        if code not in USUAL_SHELF:
            raise fault(f"parts.{code}", "is no part of ours", code)
    with database.transaction() as session:
        studio = StudioRows(session, actor.studio_id).studio(lock=True)
        if studio.prices_revision != revision:
            raise ConflictError("Somebody else changed the price list since it was shown.", studio.prices_revision)
        studio.prices = prices.model_dump()
        studio.parts_stock = {**_shelf(session, studio), **parts}
        studio.prices_revision += 1
        session.add(studio)
        return PriceList(prices, _shelf(session, studio), studio.prices_revision)
