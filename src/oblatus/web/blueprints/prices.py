"""The studio's price list."""

from oblatus.usecases.price_list import PriceList, put_prices, see_prices
from oblatus.web.answers import Answer, answer
from oblatus.web.auth import actor, database
from oblatus.web.routes import Routes
from oblatus.web.schemas_build import PriceListIn, PriceListOut
from oblatus.web.schemas_errors import ErrorOut

blueprint = Routes("prices", __name__, "/api/prices")


@blueprint.get("", responses={200: PriceListOut})
def get_prices() -> Answer:
    """What the studio takes for its work, and tax."""
    return answer(_prices(see_prices(database(), actor())))


@blueprint.put("", responses={200: PriceListOut, 409: ErrorOut})
def put_price_list(body: PriceListIn) -> Answer:
    """Put a price list and a count of parts in place of those at a revision."""
    return answer(_prices(put_prices(database(), actor(), body.prices, body.parts, body.revision)))


def _prices(found: PriceList) -> PriceListOut:
    return PriceListOut(prices=found.prices, parts=dict(found.parts), revision=found.revision)
