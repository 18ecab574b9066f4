"""The venue library of the studio."""

from typing import cast

from oblatus.core.figures import figures
from oblatus.core.grounds import SURFACES, Season
from oblatus.formats.sections.grounds import GroundDocument, SurfaceDocument, VenueDocument
from oblatus.store.tables import VenueRow
from oblatus.usecases.venues import forget_venue, keep_venue, list_venues
from oblatus.web.answers import Answer, answer, nothing
from oblatus.web.auth import actor, database
from oblatus.web.routes import Routes
from oblatus.web.schemas import LoadQuery
from oblatus.web.schemas_devices import SurfaceLine, VenueOut, VenuePath, VenuesOut

blueprint = Routes("venues", __name__, "/api/venues")


@blueprint.post("", responses={201: VenueOut})
def post_venue(query: LoadQuery, body: VenueDocument) -> Answer:
    """Keep a ground in the library."""
    row = keep_venue(database(), actor(), body, query.id)
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
    return VenueOut(
        id=row.id,
        venue=row.venue,
        season=cast(Season, row.season),
        read_on=row.read_on,
        kept_by=row.kept_by,
        ground=ground,
        surfaces=[_line(ground.surface(key)) for key in SURFACES],
    )


def _line(there: SurfaceDocument) -> SurfaceLine:
    kind = there.kind_of
    record = figures(kind.made_of)[kind.reading]
    from_what = f"from {len(there.readings)}" if there.readings else there.source
    words = f"{there.reading:.{record.places}f} {record.bound.unit}, {kind.class_of(there.reading).words}, {from_what}"
    return SurfaceLine(key=kind.key, name=kind.words, words=words)
