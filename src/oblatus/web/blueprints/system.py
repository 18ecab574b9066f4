"""Health and the shot catalogue."""

from flask_openapi3 import APIBlueprint
from sqlalchemy.exc import SQLAlchemyError

from oblatus import __version__
from oblatus.core import ENGINE_VERSION
from oblatus.core.grounds import SAND_CLASS_KG_CM2, TURF_CLASS_G
from oblatus.core.shots import CATALOGUE
from oblatus.web.answers import Answer, answer
from oblatus.web.auth import database
from oblatus.web.schemas import CatalogueOut, HealthOut, ShotOut

blueprint = APIBlueprint("system", __name__, url_prefix="/api")


@blueprint.get("/health", responses={200: HealthOut, 503: HealthOut})
def health() -> Answer:
    """Version, engine version and database state."""
    try:
        up = database().answers()
    except SQLAlchemyError:
        up = False
    state = HealthOut(
        status="ok" if up else "degraded",
        version=__version__,
        engine_version=ENGINE_VERSION,
        database="ok" if up else "down",
    )
    return answer(state, 200 if up else 503)


@blueprint.get("/catalogue", responses={200: CatalogueOut})
def catalogue() -> Answer:
    """Shots and class readings."""
    shots = [ShotOut(key=shot.key, name=shot.name, kind=shot.kind) for shot in CATALOGUE]
    turf = {str(key): value for key, value in TURF_CLASS_G.items()}
    sand = {str(key): value for key, value in SAND_CLASS_KG_CM2.items()}
    return answer(CatalogueOut(shots=shots, turf_class_g=turf, sand_class_kg_cm2=sand))
