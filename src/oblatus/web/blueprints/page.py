"""The player's page: open to whoever holds its token, and to nothing else of the studio."""

from typing import Annotated, Literal

from flask import request
from pydantic import StringConstraints

from oblatus.formats.fields import Strict
from oblatus.formats.page import PageOut
from oblatus.usecases.player_page import open_page, page_dates, player_scores, player_shots
from oblatus.web.answers import Answer, answer, download
from oblatus.web.auth import csrf, database
from oblatus.web.blueprints.handovers import ScoresIn, ScoresOut
from oblatus.web.blueprints.log import LogShotsIn, LogTakenOut
from oblatus.web.routes import Routes

blueprint = Routes("page", __name__, "/api/page")
csrf.exempt(blueprint)  # the token in the address is what allows it, not a cookie


class TokenPath(Strict):
    """The token of a page."""

    token: Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{1,64}$")]


class ManifestOut(Strict):
    """A web application manifest (W3C)."""

    name: str
    short_name: str
    id: str
    start_url: str
    scope: str
    display: Literal["standalone"] = "standalone"
    background_color: str = "#EEF1EC"
    theme_color: str = "#EEF1EC"
    icons: list[dict[str, str]]


@blueprint.get("/<string:token>", responses={200: PageOut})
def get_page(path: TokenPath) -> Answer:
    """What was handed over, and the scores since."""
    return answer(open_page(database(), path.token, request.remote_addr or ""))


@blueprint.post("/<string:token>/scores", responses={200: ScoresOut})
def post_scores(path: TokenPath, body: ScoresIn) -> Answer:
    """Scores of drills; sending them twice counts them once."""
    return answer(ScoresOut(taken=player_scores(database(), path.token, body.scores, request.remote_addr or "")))


@blueprint.post("/<string:token>/shots", responses={200: LogTakenOut})
def post_shots(path: TokenPath, body: LogShotsIn) -> Answer:
    """Shots noted on the course; sending them twice counts them once, taking one back is sent as removed."""
    return answer(LogTakenOut(taken=player_shots(database(), path.token, body.shots, request.remote_addr or "")))


@blueprint.get("/<string:token>/app.webmanifest", responses={200: ManifestOut})
def get_manifest(path: TokenPath) -> Answer:
    """What a phone needs to keep the page among its programs."""
    opened = open_page(database(), path.token, request.remote_addr or "")
    start = f"/p/{path.token}"
    name = f"Wedges, {opened.page.studio}"
    icon = {"src": "/icon.svg", "sizes": "any", "type": "image/svg+xml"}
    return answer(ManifestOut(name=name, short_name="My wedges", id=start, start_url=start, scope="/p/", icons=[icon]))


@blueprint.get(
    "/<string:token>/dates.ics", responses={200: {"content": {"text/calendar": {"schema": {"type": "string"}}}}}
)
def get_dates(path: TokenPath) -> Answer:
    """The days ahead, to download or subscribe to."""
    content = page_dates(database(), path.token, request.remote_addr or "")
    return download(content, "text/calendar; charset=utf-8", "wedges", ".ics")
