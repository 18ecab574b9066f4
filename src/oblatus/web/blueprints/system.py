"""Health and the shot catalogue."""

from oblatus import __version__
from oblatus.core import ENGINE_VERSION
from oblatus.usecases.health import health_of
from oblatus.web.answers import Answer, answer
from oblatus.web.auth import database, settings
from oblatus.web.catalogue import catalogue_out
from oblatus.web.routes import Routes
from oblatus.web.schemas import HealthOut
from oblatus.web.schemas_catalogue import CatalogueOut

blueprint = Routes("system", __name__, "/api")


@blueprint.get("/health", responses={200: HealthOut, 503: HealthOut})
def health() -> Answer:
    """Version, engine version, and what is wrong with database, disk, memory, bridge, devices and copies."""
    found = health_of(database(), settings())
    wrong = found.wrong()
    state = HealthOut(
        status="degraded" if wrong else "ok",
        version=__version__,
        engine_version=ENGINE_VERSION,
        database=found.database,
        disk=found.disk,
        memory=found.memory,
        bridge=found.bridge,
        devices=found.devices,
        backup=found.backup,
        wrong=wrong,
    )
    return answer(state, 503 if found.database == "down" or found.disk == "full" else 200)


@blueprint.get("/catalogue", responses={200: CatalogueOut})
def catalogue() -> Answer:
    """Shots, figures, kinds of ground, stations: the tables that the screens are made from."""
    return answer(catalogue_out())
