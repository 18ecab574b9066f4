"""The studio's rack of demo heads."""

from flask_openapi3 import APIBlueprint

from oblatus.usecases.replace_rack import replace_rack, studio_rack
from oblatus.web.answers import Answer, answer
from oblatus.web.auth import actor, database
from oblatus.web.schemas import ErrorOut, RackIn, RackOut

blueprint = APIBlueprint("rack", __name__, url_prefix="/api/rack")


@blueprint.get("", responses={200: RackOut})
def get_rack() -> Answer:
    """The rack in its order."""
    return answer(RackOut(heads=list(studio_rack(database(), actor()))))


@blueprint.put("", responses={200: RackOut, 422: ErrorOut})
def put_rack(body: RackIn) -> Answer:
    """Put the rack of a CSV file in place of this one."""
    return answer(RackOut(heads=list(replace_rack(database(), actor(), body.csv))))
