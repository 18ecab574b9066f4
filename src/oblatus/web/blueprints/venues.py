"""The venue library of the studio."""

from typing import cast

from flask_openapi3 import APIBlueprint

from oblatus.core.grounds import sand_class, turf_class
from oblatus.formats.fitting import GroundDocument, Season, VenueDocument
from oblatus.formats.readings import PLUGS
from oblatus.store.tables import VenueRow
from oblatus.usecases.venues import forget_venue, keep_venue, list_venues
from oblatus.web.answers import Answer, answer, nothing
from oblatus.web.auth import actor, database
from oblatus.web.schemas_devices import VenueOut, VenuePath, VenuesOut
from oblatus.web.schemas_errors import EVERYWHERE

blueprint = APIBlueprint("venues", __name__, url_prefix="/api/venues", abp_responses=EVERYWHERE)


@blueprint.post("", responses={201: VenueOut})
def post_venue(body: VenueDocument) -> Answer:
    """Keep a ground in the library."""
    row = keep_venue(database(), actor(), body)
    return answer(_record(row), 201)


# after the route that takes a ground: openapi.json holds a model as the last route has it, and answers give every field
@blueprint.get("", responses={200: VenuesOut})
def get_venues() -> Answer:
    """Every record, by venue, newest reading first."""
    return answer(VenuesOut(records=[_record(row) for row in list_venues(database(), actor())]))


@blueprint.delete("/<uuid:record_id>", responses={204: None})
def delete_venue(path: VenuePath) -> Answer:
    """Take a record out of the library."""
    forget_venue(database(), actor(), path.record_id)
    return nothing()


def _record(row: VenueRow) -> VenueOut:
    ground = GroundDocument.model_validate(row.ground)
    turf, sand = ground.turf, ground.sand
    return VenueOut(
        id=row.id,
        venue=row.venue,
        season=cast(Season, row.season),
        read_on=row.read_on,
        kept_by=row.kept_by,
        ground=ground,
        turf=f"{turf.firmness_g:.0f} g, {turf_class(turf.firmness_g)}{_from(turf.readings_g, turf.firmness_source)}",
        sand=f"{sand.penetrometer_kg_cm2:.2f} kg/cm2, {PLUGS[sand_class(sand.penetrometer_kg_cm2)]}"
        f"{_from(sand.readings_kg_cm2, sand.penetrometer_source)}",
    )


def _from(readings: tuple[float, ...], source: str) -> str:
    return f", from {len(readings)}" if readings else f", {source}"
