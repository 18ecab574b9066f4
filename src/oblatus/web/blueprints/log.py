"""After the fitting: the course log, rechecks, trips, the timeline, the next fitting."""

from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field, StringConstraints

from oblatus.formats.fields import Strict
from oblatus.formats.imports import FOUND_OUT, LayoutDocument
from oblatus.formats.limits import NAME_LETTERS
from oblatus.formats.log import AfterOut, LogOut, NotedOut, TimelineOut
from oblatus.formats.log_file import LogFileOut, LogMappingDocument
from oblatus.formats.log_shots import LogShotDocument
from oblatus.formats.trip import TripOut
from oblatus.usecases.course_log import mark_round, see_log, see_round, take_shots
from oblatus.usecases.log_file import log_from_file
from oblatus.usecases.next_fitting import open_next
from oblatus.usecases.rechecks import see_after
from oblatus.usecases.timeline import see_timeline
from oblatus.usecases.trips import see_trip
from oblatus.web.answers import Answer, answer, nothing
from oblatus.web.auth import actor, database, reader
from oblatus.web.files import bytes_of
from oblatus.web.routes import Routes
from oblatus.web.schemas import FittingPath
from oblatus.web.schemas_errors import ErrorOut
from oblatus.web.schemas_imports import MappingName

blueprint = Routes("log", __name__, "/api/fittings/<uuid:fitting_id>")


LARGEST_LOG = 14_100_000
"""A file of ten megabytes in base64, with its mapping."""


class LogShotsIn(Strict):
    """Shots, each under an id of its own: sent twice, they count once."""

    shots: Annotated[tuple[LogShotDocument, ...], Field(min_length=1, max_length=200)]


class LogTakenOut(Strict):
    """How many were new."""

    taken: int


class RoundPath(Strict):
    """A round of a fitting's log."""

    fitting_id: UUID
    round_id: UUID


class RoundIn(Strict):
    """Take a round out of the log, or put it back."""

    out: bool


class NotedListOut(Strict):
    """Shots of a round."""

    shots: list[NotedOut]


class LogFileIn(Strict):
    """A file in base64, how it is read, whether its shots are taken, and under which name the mapping is kept.

    A mapping has its own layout.
    """

    content: Annotated[str, StringConstraints(min_length=1, max_length=14_000_000)]
    layout: LayoutDocument = FOUND_OUT
    mapping: LogMappingDocument | None = None
    take: bool = False
    keep_as: MappingName | None = None


class TripIn(Strict):
    """Which trip, and whether the laws are drawn too."""

    name: Annotated[str, StringConstraints(max_length=NAME_LETTERS)] = ""
    doubt: Literal["yes", "no"] = "no"


class NextFittingIn(Strict):
    """The id of the fitting that follows, so that one sent twice is one."""

    id: UUID


class NextFittingOut(Strict):
    """The fitting that follows."""

    id: UUID


@blueprint.get("/log", responses={200: LogOut})
def get_log(path: FittingPath) -> Answer:
    """What the course log says."""
    return answer(see_log(database(), actor(), path.fitting_id))


@blueprint.post("/log", responses={200: LogTakenOut})
def post_log(path: FittingPath, body: LogShotsIn) -> Answer:
    """Shots that the fitter noted, from a card or from what the player tells."""
    return answer(LogTakenOut(taken=take_shots(database(), actor(), path.fitting_id, body.shots)))


@blueprint.post("/log/file", responses={200: LogFileOut})
def post_log_file(path: FittingPath, body: LogFileIn) -> Answer:
    """A log from a table: as it is understood, or taken."""
    content = bytes_of(body.content)
    found = log_from_file(
        database(), actor(), path.fitting_id, content, body.mapping, reader(), take=body.take, keep_as=body.keep_as,
        layout=body.layout,
    )  # fmt: skip
    return answer(found)


@blueprint.get("/log/rounds/<uuid:round_id>", responses={200: NotedListOut})
def get_round(path: RoundPath) -> Answer:
    """The shots of a round."""
    return answer(NotedListOut(shots=see_round(database(), actor(), path.fitting_id, path.round_id)))


@blueprint.patch("/log/rounds/<uuid:round_id>", responses={204: None})
def patch_round(path: RoundPath, body: RoundIn) -> Answer:
    """Take a round out, or put it back."""
    mark_round(database(), actor(), path.fitting_id, path.round_id, out=body.out)
    return nothing()


@blueprint.get("/after", responses={200: AfterOut})
def get_after(path: FittingPath) -> Answer:
    """What is due, lofts read again, wear."""
    return answer(see_after(database(), actor(), path.fitting_id))


@blueprint.get("/trip", responses={200: TripOut})
def get_trip(path: FittingPath, query: TripIn) -> Answer:
    """What the bag does on a trip's ground."""
    return answer(see_trip(database(), actor(), path.fitting_id, query.name, doubt=query.doubt == "yes"))


@blueprint.get("/timeline", responses={200: TimelineOut})
def get_timeline(path: FittingPath) -> Answer:
    """The player over the years."""
    return answer(see_timeline(database(), actor(), path.fitting_id))


@blueprint.post("/next", responses={201: NextFittingOut, 409: ErrorOut})
def post_next(path: FittingPath, body: NextFittingIn) -> Answer:
    """Begin the next fitting of this player from this one."""
    return answer(NextFittingOut(id=open_next(database(), actor(), path.fitting_id, body.id)), 201)
