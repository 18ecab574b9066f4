"""Sessions: every address under /api is closed unless it is named here."""

from __future__ import annotations

from uuid import UUID

from flask import Flask, current_app, request
from flask_limiter import Limiter
from flask_limiter.util import get_remote_address
from flask_login import LoginManager, UserMixin, current_user
from flask_wtf.csrf import CSRFProtect

from oblatus.errors import SignInError
from oblatus.settings import Settings
from oblatus.store.database import Database
from oblatus.usecases.actor import Actor
from oblatus.usecases.sign_in import who_is

OPEN_ENDPOINTS = {"system.health", "session.read_session", "session.start_session"}
csrf = CSRFProtect()
limiter = Limiter(get_remote_address, storage_uri="memory://")


class SignedIn(UserMixin):  # type: ignore[misc]
    """The fitter of this request."""

    def __init__(self, actor: Actor, studio: str, distance: str, speed: str) -> None:
        self.id = f"{actor.studio_id}:{actor.fitter_id}"
        self.actor = actor
        self.studio = studio
        self.distance = distance
        self.speed = speed


def database() -> Database:
    """The application's database."""
    found: Database = current_app.extensions["oblatus_database"]
    return found


def settings() -> Settings:
    """The application's settings."""
    found: Settings = current_app.extensions["oblatus_settings"]
    return found


def actor() -> Actor:
    """Who acts in this request."""
    user: SignedIn = current_user
    return user.actor


def signed_in() -> SignedIn:
    """Who acts, with their units."""
    user: SignedIn = current_user
    return user


def configure_auth(app: Flask) -> None:
    """Sign-in, closed by default; cross-site requests refused; sign-in tries limited."""
    manager = LoginManager(app)
    manager.user_loader(_load)
    csrf.init_app(app)
    limiter.init_app(app)
    app.before_request(_close)


def _load(key: str) -> SignedIn | None:
    studio, _, fitter = key.partition(":")
    found = who_is(database(), UUID(studio), UUID(fitter))
    if found is None:
        return None
    person, place = found
    return SignedIn(Actor(person.id, person.studio_id, person.name), place.name, person.distance_unit, person.speed_unit)


def _close() -> None:
    if not request.path.startswith("/api/") or request.endpoint in OPEN_ENDPOINTS or request.endpoint is None:
        return
    if not current_user.is_authenticated:
        raise SignInError("Sign in first.")
