"""The application factory, in named steps; nothing happens at import."""

from __future__ import annotations

import os
import re
import socket
from functools import lru_cache
from pathlib import Path

from flask import Response, abort, request, send_from_directory
from flask.typing import ResponseReturnValue
from flask_login import current_user
from flask_openapi3 import Info, OpenAPI

from oblatus import __version__
from oblatus.core.threads import begin_at_once, end_at_once
from oblatus.formats.imports.reading import LARGEST_BYTES as LARGEST_FILE
from oblatus.formats.limits import LARGEST_FITTING
from oblatus.formats.photos import LARGEST_BYTES as LARGEST_PHOTO
from oblatus.settings import Settings, settings_from
from oblatus.store.disk import refuse_when_full
from oblatus.usecases.asker import ASKER_WAITS
from oblatus.usecases.engine import WORKS_FOR, keep_families_in
from oblatus.web.auth import actor, configure_auth, settings
from oblatus.web.base import configure_core
from oblatus.web.blueprints import (
    build,
    card,
    carries,
    claims,
    engine,
    fittings,
    handovers,
    imports,
    instruments,
    live,
    log,
    page,
    photos,
    prices,
    proofs,
    rack,
    session,
    system,
    venues,
)
from oblatus.web.blueprints.log import LARGEST_LOG
from oblatus.web.errors import HTTP_WORDS, configure_errors, error_response, validation_response
from oblatus.web.headers import ASSET_CACHE, PHONE_HEADERS, PROGRAM_HEADER
from oblatus.web.schemas_errors import EVERYWHERE, ErrorOut

LARGER_BODIES = {
    "fittings.post_import": LARGEST_FITTING,
    "imports.post_import": LARGEST_FILE + 1000,
    "photos.post_photo": LARGEST_PHOTO + 1000,
    "log.post_log_file": LARGEST_LOG,
}
"""Requests that bring a whole file; the limit stands before anything reads the body."""


MODULES = (
    system, session, fittings, carries, imports, live, instruments, venues, photos, proofs, build, prices, card,
    handovers, page, log, claims, rack, engine
)  # fmt: skip


def create_app(settings: Settings | None = None) -> OpenAPI:
    """The application with its settings, from the environment unless they are given."""
    settings = settings or settings_from(os.environ)
    app = OpenAPI(
        "oblatus",
        info=Info(title="Oblatus", version=__version__),
        security_schemes={"session": {"type": "apiKey", "name": "oblatus", "in": "cookie"}},
        responses=EVERYWHERE,
        validation_error_model=ErrorOut,
        validation_error_callback=validation_response,
        validate_response=settings.testing,
        doc_ui=False,
        static_folder=None,
    )
    configure_core(app, settings)
    configure_errors(app)
    app.before_request(begin_at_once)
    app.after_request(_answered)
    app.teardown_request(_over)
    app.before_request(_widen)
    configure_auth(app)
    app.before_request(_before_work)
    app.before_request(_listen)
    keep_families_in(settings.families_dir)
    configure_routes(app)
    configure_frontend(app, settings)
    return app


def configure_routes(app: OpenAPI) -> None:
    """Every blueprint of the API, and JSON for unknown addresses under it."""
    for module in MODULES:
        app.register_api(module.blueprint)
    app.add_url_rule("/api/<path:_rest>", "api_unknown", _api_unknown, methods=["GET", "POST", "PUT", "PATCH", "DELETE"])


def configure_frontend(app: OpenAPI, settings: Settings) -> None:
    """The built interface: hashed assets cached for good; an address that is no file's answers the page."""

    def page(path: str = "") -> Response:
        target = settings.static_dir / path
        if path and target.is_file():
            response = send_from_directory(settings.static_dir, path)
            if path.startswith("assets/"):
                response.headers["Cache-Control"] = ASSET_CACHE
            return response
        if "." in path.rsplit("/", 1)[-1]:
            abort(404)
        response = send_from_directory(settings.static_dir, "index.html")
        response.headers["Cache-Control"] = "no-cache"
        return response

    def phone(token: str) -> Response:
        del token  # the page asks for what it opens
        response = send_from_directory(settings.static_dir, "phone.html")
        for name, value in PHONE_HEADERS.items():
            response.headers[name] = value
        return response

    def name_program(response: Response) -> Response:
        if request.path.startswith("/api/") and (name := program_of(settings.static_dir)):
            response.headers[PROGRAM_HEADER] = name
        return response

    app.after_request(name_program)
    app.add_url_rule("/p/<string:token>", "phone", phone)
    app.add_url_rule("/", "page", page)
    app.add_url_rule("/<path:path>", "page_or_asset", page)


def program_of(static_dir: Path) -> str | None:
    """Name of the script with which the page of this folder begins; None while there is no page."""
    page = static_dir / "index.html"
    try:
        return _script_of(page, page.stat().st_mtime_ns)
    except FileNotFoundError:
        return None  # not built, or being replaced at this moment


@lru_cache(maxsize=1)
def _script_of(page: Path, _made_at: int) -> str | None:
    found = re.search(r'<script type="module"[^>]* src="/assets/([^"]+)"', page.read_text())
    return found[1] if found else None


WRITES_LITTLE = {
    "session.start_session",
    "session.end_this_session",
    "session.end_one_session",
    "session.end_other_sessions",
}
READS = {"carries.post_carries", "engine.post_desk", "engine.stop_work", "imports.post_look", "rack.post_look"}
"""Requests of another method than GET that a full disk does not stop."""


def _before_work() -> None:
    """For whose studio the engine works; nothing is begun that a full disk would break off.

    Files of the page are anybody's: nobody is looked up for them.
    """
    if request.path.startswith("/api/") and current_user.is_authenticated:
        WORKS_FOR.set(str(actor().studio_id))
    if request.method not in ("GET", "HEAD", "OPTIONS") and request.endpoint not in READS | WRITES_LITTLE:
        refuse_when_full(settings().data_dir)


def _listen() -> None:
    """Let long work know when whoever asked has hung up: the front closes its line then, too."""
    line: socket.socket | None = request.environ.get("gunicorn.socket")

    def waits() -> bool:
        if line is None:
            return True
        try:
            return line.recv(1, socket.MSG_PEEK | socket.MSG_DONTWAIT) != b""
        except BlockingIOError:
            return True  # nothing came, and the line stands
        except OSError:
            return False

    ASKER_WAITS.set(waits)


def _answered(response: Response) -> Response:
    """Somebody's hand waited for this; a line that goes on being told is nobody's hand."""
    end_at_once()
    return response


def _over(_error: BaseException | None) -> None:
    end_at_once()


def _widen() -> None:
    if request.endpoint in LARGER_BODIES:
        request.max_content_length = LARGER_BODIES[request.endpoint]


def _api_unknown(_rest: str) -> ResponseReturnValue:
    code, message = HTTP_WORDS[404]
    return error_response(ErrorOut(code=code, message=message), 404)
