"""The application factory, in named steps; nothing happens at import."""

from __future__ import annotations

import os
from datetime import timedelta

from flask import Response, request, send_from_directory
from flask.typing import ResponseReturnValue
from flask_openapi3 import Info, OpenAPI

from oblatus import __version__
from oblatus.formats.fitting import LARGEST_BYTES as LARGEST_FITTING
from oblatus.formats.imports.reading import LARGEST_BYTES as LARGEST_FILE
from oblatus.formats.photos import LARGEST_BYTES as LARGEST_PHOTO
from oblatus.settings import Settings, settings_from
from oblatus.store.database import Database
from oblatus.usecases.engine import keep_families_in
from oblatus.usecases.live import LiveFeed
from oblatus.web.auth import configure_auth
from oblatus.web.blueprints import (
    carries,
    engine,
    fittings,
    imports,
    instruments,
    live,
    photos,
    rack,
    session,
    system,
    venues,
)
from oblatus.web.errors import HTTP_WORDS, configure_errors, error_response, validation_response
from oblatus.web.schemas import ErrorOut

LARGEST_BODY = 1_000_000
LARGER_BODIES = {
    "fittings.post_import": LARGEST_FITTING,
    "imports.post_import": LARGEST_FILE + 1000,
    "photos.post_photo": LARGEST_PHOTO + 1000,
}
"""Requests that bring a whole file; the limit stands before anything reads the body."""


def create_app(settings: Settings | None = None) -> OpenAPI:
    """The application with its settings, from the environment unless they are given."""
    settings = settings or settings_from(os.environ)
    app = OpenAPI(
        "oblatus",
        info=Info(title="Oblatus", version=__version__),
        security_schemes={"session": {"type": "apiKey", "name": "oblatus", "in": "cookie"}},
        validation_error_model=ErrorOut,
        validation_error_callback=validation_response,
        validate_response=settings.testing,
        doc_ui=False,
        static_folder=None,
    )
    configure_core(app, settings)
    configure_errors(app)
    configure_auth(app)
    configure_routes(app)
    configure_frontend(app, settings)
    app.after_request(harden)
    return app


def configure_core(app: OpenAPI, settings: Settings) -> None:
    """Settings, cookie and database."""
    app.config.update(
        SECRET_KEY=settings.secret_key,
        MAX_CONTENT_LENGTH=LARGEST_BODY,
        SESSION_COOKIE_NAME="oblatus",
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SAMESITE="Strict",
        PERMANENT_SESSION_LIFETIME=timedelta(days=14),
        WTF_CSRF_TIME_LIMIT=None,
        WTF_CSRF_HEADERS=["X-CSRF-Token"],
        TESTING=settings.testing,
    )
    app.extensions["oblatus_settings"] = settings
    app.extensions["oblatus_database"] = Database(settings.database_url)
    app.extensions["oblatus_live"] = LiveFeed(settings.database_url)
    keep_families_in(settings.families_dir)
    app.before_request(_widen)


def configure_routes(app: OpenAPI) -> None:
    """Every blueprint of the API, and JSON for unknown addresses under it."""
    for module in (system, session, fittings, carries, imports, live, instruments, venues, photos, rack, engine):
        app.register_api(module.blueprint)
    app.add_url_rule("/api/<path:_rest>", "api_unknown", _api_unknown, methods=["GET", "POST", "PUT", "PATCH", "DELETE"])


def configure_frontend(app: OpenAPI, settings: Settings) -> None:
    """The built interface: hashed assets cached for good, every other address answers the page."""

    def page(path: str = "") -> Response:
        target = settings.static_dir / path
        if path and target.is_file():
            response = send_from_directory(settings.static_dir, path)
            if path.startswith("assets/"):
                response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
            return response
        response = send_from_directory(settings.static_dir, "index.html")
        response.headers["Cache-Control"] = "no-cache"
        return response

    app.add_url_rule("/", "page", page)
    app.add_url_rule("/<path:path>", "page_or_asset", page)


def harden(response: Response) -> Response:
    """Headers that keep the page to itself."""
    response.headers.setdefault("X-Content-Type-Options", "nosniff")
    response.headers.setdefault("Referrer-Policy", "same-origin")
    response.headers.setdefault(
        "Content-Security-Policy",
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self'; "
        "frame-ancestors 'none'; base-uri 'none'; form-action 'self'",
    )
    return response


def _widen() -> None:
    if request.endpoint in LARGER_BODIES:
        request.max_content_length = LARGER_BODIES[request.endpoint]


def _api_unknown(_rest: str) -> ResponseReturnValue:
    code, message = HTTP_WORDS[404]
    return error_response(ErrorOut(code=code, message=message), 404)
