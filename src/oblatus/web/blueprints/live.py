"""The strike monitor of a fitting, and word of changes as they come (server-sent events)."""

import queue
from collections.abc import Iterator

from flask import Response, current_app, stream_with_context
from flask_openapi3 import APIBlueprint

from oblatus.store.tables import LinkRow
from oblatus.usecases.link_monitor import link_monitor, see_monitor
from oblatus.usecases.live import LiveFeed
from oblatus.web.answers import Answer, answer
from oblatus.web.auth import actor, database
from oblatus.web.blueprints.instruments import device_values
from oblatus.web.schemas import ErrorOut, FittingPath
from oblatus.web.schemas_devices import MonitorIn, MonitorOut

HEARTBEAT_SECONDS = 10.0

blueprint = APIBlueprint(
    "live", __name__, url_prefix="/api/fittings/<uuid:fitting_id>", abp_responses={404: ErrorOut, 422: ErrorOut}
)


@blueprint.get("/monitor", responses={200: MonitorOut})
def get_monitor(path: FittingPath) -> Answer:
    """How the strike monitor goes."""
    return answer(_monitor(see_monitor(database(), actor(), path.fitting_id)))


@blueprint.put("/monitor", responses={200: MonitorOut})
def put_monitor(path: FittingPath, body: MonitorIn) -> Answer:
    """Want the monitor or not, and say what is hit next."""
    row = link_monitor(database(), actor(), path.fitting_id, body.club, body.swing, wanted=body.wanted)
    return answer(_monitor(row))


@blueprint.get("/live", responses={200: None})
def get_live(path: FittingPath) -> Response:
    """A `change` event whenever strikes or the monitor change, and a heartbeat every ten seconds."""
    see_monitor(database(), actor(), path.fitting_id)  # whose fitting it is, is asked before anything is told
    feed: LiveFeed = current_app.extensions["oblatus_live"]

    def events() -> Iterator[str]:
        with feed.about(path.fitting_id) as words:
            yield "retry: 1000\n\n"
            while True:
                try:
                    words.get(timeout=HEARTBEAT_SECONDS)
                except queue.Empty:
                    yield ": still here\n\n"
                    continue
                while not words.empty():  # many strikes at once are one look
                    words.get()
                yield "event: change\ndata: {}\n\n"

    response = current_app.response_class(stream_with_context(events()), mimetype="text/event-stream")
    response.headers["Cache-Control"] = "no-store"
    response.headers["X-Accel-Buffering"] = "no"
    return response


def _monitor(row: LinkRow) -> MonitorOut:
    return MonitorOut(**device_values(row), club=row.club, swing=row.swing)
