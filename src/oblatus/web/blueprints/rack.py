"""The studio's rack of demo heads."""

from flask import Response

from oblatus.formats.imports.layout import TableOut
from oblatus.usecases.replace_rack import Rack, export_rack, look_at_rack, replace_rack, studio_rack
from oblatus.web.answers import Answer, answer, download
from oblatus.web.auth import actor, database
from oblatus.web.files import bytes_of
from oblatus.web.routes import Routes
from oblatus.web.schemas import RackFileIn, RackIn, RackOut
from oblatus.web.schemas_errors import ErrorOut

blueprint = Routes("rack", __name__, "/api/rack")


@blueprint.get("", responses={200: RackOut})
def get_rack() -> Answer:
    """The rack in its order."""
    return answer(_rack(studio_rack(database(), actor())))


@blueprint.get("/rack.csv", responses={200: None})
def get_rack_csv() -> Response:
    """The rack as CSV, with every column."""
    return download("\ufeff" + export_rack(database(), actor()), "text/csv", "rack", ".csv")


@blueprint.post("/look", responses={200: TableOut})
def post_look(body: RackFileIn) -> Answer:
    """How a file is read as a rack; nothing is put in place of anything."""
    return answer(look_at_rack(bytes_of(body.content), body.layout))


@blueprint.put("", responses={200: RackOut, 409: ErrorOut})
def put_rack(body: RackIn) -> Answer:
    """Put the rack of a CSV or XLSX file in place of the one at a revision."""
    made = replace_rack(database(), actor(), bytes_of(body.content), body.layout, body.revision)
    return answer(_rack(made))


def _rack(rack: Rack) -> RackOut:
    return RackOut(heads=list(rack.heads), revision=rack.revision)
