"""Photos of a player's clubs."""

from flask import Response, current_app, request

from oblatus.usecases.photos import add_photo, show_photo
from oblatus.web.answers import Answer, answer
from oblatus.web.auth import actor, database
from oblatus.web.routes import Routes
from oblatus.web.schemas import FittingPath, LoadQuery
from oblatus.web.schemas_devices import PhotoOut, PhotoPath

blueprint = Routes("photos", __name__, "/api/fittings/<uuid:fitting_id>/photos")


@blueprint.post("", responses={201: PhotoOut})
def post_photo(path: FittingPath, query: LoadQuery) -> Answer:
    """Keep a photo, sent as the body; it is re-encoded without what the camera wrote into it."""
    row = add_photo(database(), actor(), path.fitting_id, request.get_data(cache=False), query.id)
    return answer(PhotoOut(id=row.id, width=row.width, height=row.height), 201)


@blueprint.get("/<uuid:photo_id>", responses={200: None})
def get_photo(path: PhotoPath) -> Response:
    """A photo as JPEG."""
    content = show_photo(database(), actor(), path.fitting_id, path.photo_id)
    response: Response = current_app.response_class(content, mimetype="image/jpeg")
    return response
