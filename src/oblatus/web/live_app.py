"""The application for live streams alone: nothing of the engine in it, so that one small process holds hundreds."""

from __future__ import annotations

import os

from flask_openapi3 import OpenAPI

from oblatus.settings import Settings, settings_from
from oblatus.web.auth import configure_auth
from oblatus.web.base import configure_core
from oblatus.web.blueprints import live
from oblatus.web.errors import configure_errors


def create_live_app(settings: Settings | None = None) -> OpenAPI:
    """The application with its settings, from the environment unless they are given."""
    app = OpenAPI("oblatus", static_folder=None, doc_ui=False)
    configure_core(app, settings or settings_from(os.environ))
    configure_errors(app)
    configure_auth(app)
    app.register_api(live.blueprint)
    return app
