"""Handing a fitting over to its player."""

from dataclasses import replace
from typing import Annotated
from uuid import UUID

from flask import request
from pydantic import Field

from oblatus.formats.fields import Strict
from oblatus.formats.page import HandoverOut, ScoreDocument
from oblatus.units import DistanceUnit
from oblatus.usecases.hand_over import close_page, fitter_scores, hand_over, see_handovers
from oblatus.web.answers import Answer, answer, nothing
from oblatus.web.auth import actor, database, reader, settings
from oblatus.web.routes import Routes
from oblatus.web.schemas import FittingPath
from oblatus.web.schemas_errors import ErrorOut

blueprint = Routes("handovers", __name__, "/api/fittings/<uuid:fitting_id>")


class HandoverIn(Strict):
    """A hand-over of what was seen at a revision; the id is the screen's, so that one sent twice is one;
    `distance` the unit that the player reads, null: the fitter's."""

    id: UUID
    revision: Annotated[int, Field(ge=1)]
    distance: DistanceUnit | None = None


class HandoverPath(Strict):
    """A hand-over of a fitting."""

    fitting_id: UUID
    handover_id: UUID


class HandoversOut(Strict):
    """Every hand-over, newest first."""

    handovers: list[HandoverOut]


class ScoresIn(Strict):
    """Scores of drills, each under an id of its own."""

    scores: Annotated[tuple[ScoreDocument, ...], Field(min_length=1, max_length=100)]


class ScoresOut(Strict):
    """How many were new."""

    taken: int


@blueprint.get("/handovers", responses={200: HandoversOut})
def get_handovers(path: FittingPath) -> Answer:
    """What was handed over, with links and scores."""
    found = see_handovers(database(), settings(), actor(), path.fitting_id, request.host_url)
    return answer(HandoversOut(handovers=found))


@blueprint.post("/handovers", responses={201: HandoversOut, 409: ErrorOut})
def post_handover(path: FittingPath, body: HandoverIn) -> Answer:
    """Hand the fitting over as it stands."""
    reads = reader() if body.distance is None else replace(reader(), distance=body.distance)
    hand_over(database(), settings(), actor(), path.fitting_id, body.id, body.revision, reads)
    found = see_handovers(database(), settings(), actor(), path.fitting_id, request.host_url)
    return answer(HandoversOut(handovers=found), 201)


@blueprint.delete("/handovers/<uuid:handover_id>", responses={204: None})
def delete_handover(path: HandoverPath) -> Answer:
    """Close the player's page."""
    close_page(database(), actor(), path.fitting_id, path.handover_id)
    return nothing()


@blueprint.post("/handovers/<uuid:handover_id>/scores", responses={200: ScoresOut})
def post_fitter_scores(path: HandoverPath, body: ScoresIn) -> Answer:
    """Scores that the fitter counted."""
    return answer(ScoresOut(taken=fitter_scores(database(), actor(), path.fitting_id, path.handover_id, body.scores)))
