"""The studio's price list."""

from __future__ import annotations

from dataclasses import dataclass

from oblatus.errors import ConflictError
from oblatus.formats.fitting import PricesDocument
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import Studio
from oblatus.usecases.actor import Actor


@dataclass(frozen=True, slots=True)
class PriceList:
    """Prices and the revision that they are at."""

    prices: PricesDocument
    revision: int


def prices_of(studio: Studio) -> PricesDocument:
    """The studio's prices, the usual ones until somebody typed others."""
    return PricesDocument.model_validate(studio.prices or {})


def see_prices(database: Database, actor: Actor) -> PriceList:
    """The price list as it stands."""
    with database.transaction() as session:
        studio = StudioRows(session, actor.studio_id).studio()
        return PriceList(prices_of(studio), studio.prices_revision)


def put_prices(database: Database, actor: Actor, prices: PricesDocument, revision: int) -> PriceList:
    """Put a price list in place of the one at a revision.

    Raises
    ------
    ConflictError
        If somebody else changed it since.
    """
    with database.transaction() as session:
        studio = StudioRows(session, actor.studio_id).studio(lock=True)
        if studio.prices_revision != revision:
            raise ConflictError("Somebody else changed the price list since it was shown.", studio.prices_revision)
        studio.prices = prices.model_dump()
        studio.prices_revision += 1
        session.add(studio)
        return PriceList(prices, studio.prices_revision)
