"""Health and the shot catalogue."""

from flask_openapi3 import APIBlueprint

from oblatus import __version__
from oblatus.core import ENGINE_VERSION
from oblatus.core.grounds import SAND_CLASS_KG_CM2, TURF_CLASS_G
from oblatus.core.shots import CATALOGUE
from oblatus.usecases.health import health_of
from oblatus.web.answers import Answer, answer
from oblatus.web.auth import database, settings
from oblatus.web.schemas import (
    CatalogueOut,
    HealthOut,
    ShotOut,
)
from oblatus.web.schemas_errors import EVERYWHERE

blueprint = APIBlueprint("system", __name__, url_prefix="/api", abp_responses=EVERYWHERE)


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
    """Shots and class readings."""
    shots = [ShotOut(key=shot.key, name=shot.name, kind=shot.kind) for shot in CATALOGUE]
    turf = {str(key): value for key, value in TURF_CLASS_G.items()}
    sand = {str(key): value for key, value in SAND_CLASS_KG_CM2.items()}
    return answer(CatalogueOut(shots=shots, turf_class_g=turf, sand_class_kg_cm2=sand))
