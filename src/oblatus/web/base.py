"""What the application and its worker for live streams share: settings, database, trusted names, headers."""

from __future__ import annotations

from datetime import timedelta

from flask import Flask, Response, request
from werkzeug.middleware.proxy_fix import ProxyFix

from oblatus.settings import Settings
from oblatus.store.database import Database
from oblatus.usecases.days import HERE, zone_named
from oblatus.usecases.live import LiveFeed
from oblatus.web.headers import SECURITY_HEADERS, ZONE_COOKIE

LARGEST_BODY = 1_000_000


def configure_core(app: Flask, settings: Settings) -> None:
    """Settings, cookie, database, and the names under which it answers."""
    if settings.behind_front:
        app.wsgi_app = ProxyFix(app.wsgi_app, x_for=1)  # type: ignore[method-assign]
    app.config.update(
        SECRET_KEY=settings.secret_key,
        MAX_CONTENT_LENGTH=LARGEST_BODY,
        SESSION_COOKIE_NAME="oblatus",
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SAMESITE="Strict",
        PERMANENT_SESSION_LIFETIME=timedelta(days=14),
        WTF_CSRF_TIME_LIMIT=None,
        WTF_CSRF_HEADERS=["X-CSRF-Token"],
        TRUSTED_HOSTS=list(settings.trusted_hosts),
        TESTING=settings.testing,
    )
    app.extensions["oblatus_settings"] = settings
    app.extensions["oblatus_database"] = Database(settings.database_url)
    app.extensions["oblatus_live"] = LiveFeed(settings.database_url)
    app.before_request(_trust)
    app.before_request(_place)
    app.after_request(harden)


def harden(response: Response) -> Response:
    """Headers that keep the page to itself; nothing under /api is kept by a browser or a proxy."""
    if request.path.startswith("/api/"):
        response.headers.setdefault("Cache-Control", "no-store")
    for name, value in SECURITY_HEADERS.items():
        response.headers.setdefault(name, value)
    return response


def _trust() -> None:
    """Refuse a request under a name that is not ours, before anything else is looked at."""
    request.host  # noqa: B018 (werkzeug raises SecurityError, a 400, for a host that is not trusted)


def _place() -> None:
    """Days of this request are those where its browser is."""
    HERE.set(zone_named(request.cookies.get(ZONE_COOKIE, "")))
