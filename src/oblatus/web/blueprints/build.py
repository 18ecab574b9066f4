"""The build sheet."""

from flask_openapi3 import APIBlueprint

from oblatus.formats.build import BuildOut
from oblatus.usecases.build_sheet import see_build
from oblatus.web.answers import Answer, answer
from oblatus.web.auth import actor, database
from oblatus.web.schemas import FittingPath
from oblatus.web.schemas_errors import EVERYWHERE

blueprint = APIBlueprint("build", __name__, url_prefix="/api/fittings/<uuid:fitting_id>", abp_responses=EVERYWHERE)


@blueprint.get("/build", responses={200: BuildOut})
def get_build(path: FittingPath) -> Answer:
    """The set as it is to be built: work, parts, price, and what it is worth so."""
    return answer(see_build(database(), actor(), path.fitting_id))
