"""Sessions: every address under /api is closed unless it is named here."""

from __future__ import annotations

import ipaddress
import secrets
from dataclasses import replace
from typing import Any

from flask import Flask, Response, current_app, request
from flask_login import LoginManager, UserMixin, current_user
from flask_wtf.csrf import CSRFProtect
from itsdangerous import BadSignature, URLSafeSerializer

from oblatus.core.words import ONE_LINE, SI, Reader
from oblatus.errors import OtherFitterError, SignedOutError
from oblatus.settings import Settings
from oblatus.store.database import Database
from oblatus.units import DistanceUnit
from oblatus.usecases.actor import Actor
from oblatus.usecases.player_page import page_reader
from oblatus.usecases.sign_in import Entered, who_is
from oblatus.usecases.throttle import Caller, account_digest

OPEN_ENDPOINTS = {
    "system.health", "session.read_session", "session.start_session", "page.get_page", "page.post_scores",
    "page.post_shots",
    "page.get_dates",
    "page.get_manifest",
}  # fmt: skip
FITTER_HEADER = "X-Oblatus-Fitter"
"""The fitter for whom the page was made: a page left open never acts for whoever signed in after."""
BROWSER_COOKIE = "oblatus_browser"
BROWSER_SECONDS = 400 * 24 * 3600
MOST_ACCOUNTS = 8
csrf = CSRFProtect()


class SignedIn(UserMixin):  # type: ignore[misc]
    """The fitter of this request; its id is the key that the browser holds."""

    def __init__(self, key: str, entered: Entered) -> None:
        self.id = key
        self.entered = entered


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
    return entered().actor


def entered() -> Entered:
    """The open session of this request."""
    user: SignedIn = current_user
    return user.entered


def reader() -> Reader:
    """The units of who reads this answer: of the page that its token opens, of the fitter who is signed in, else SI."""
    token = (request.view_args or {}).get("token")
    of_page = None if token is None else page_reader(database(), token)
    if of_page is not None:
        return of_page
    if not current_user.is_authenticated:
        return replace(SI, gap=ONE_LINE)
    fitter = entered().fitter
    distance: DistanceUnit = "yd" if fitter.distance_unit == "yd" else "m"
    return Reader(distance, "mph" if fitter.speed_unit == "mph" else "mps", ONE_LINE)


def caller(email: str) -> Caller:
    """Who tries to sign in to an account."""
    address = request.remote_addr or ""
    known = _browser()
    known_as = str(known["browser"])[:64] if account_digest(email) in known.get("accounts", ()) else None
    return Caller(address, _browser_words(request.user_agent.string), known_as, _is_here(address))


def know_browser(response: Response, email: str) -> Response:
    """Let the browser show next time that it signed in to this account before."""
    known = _browser()
    others = [digest for digest in known.get("accounts", ()) if digest != account_digest(email)]
    accounts = [*others, account_digest(email)][-MOST_ACCOUNTS:]
    known = {"browser": known.get("browser") or secrets.token_hex(16), "accounts": accounts}
    response.set_cookie(
        BROWSER_COOKIE,
        _signer().dumps(known),
        max_age=BROWSER_SECONDS,
        httponly=True,
        samesite="Strict",
        path="/api/session",
    )
    return response


def configure_auth(app: Flask) -> None:
    """Closed by default; cross-site requests refused. Who is signed in is asked before anything else is looked at."""
    manager = LoginManager(app)
    manager.session_protection = None  # the session lives on the server; an address that changes does not end it
    manager.user_loader(_load)
    app.before_request(_close)
    csrf.init_app(app)


def _load(key: str) -> SignedIn | None:
    found = who_is(database(), key)
    return None if found is None else SignedIn(key, found)


def _close() -> None:
    if not request.path.startswith("/api/") or request.endpoint in OPEN_ENDPOINTS:
        return
    if not current_user.is_authenticated:
        raise SignedOutError("You are signed out. Sign in again: what you did stays here.")
    meant = request.headers.get(FITTER_HEADER) or request.args.get("fitter")
    if meant and meant != str(entered().fitter.id):
        raise OtherFitterError("Somebody else has signed in on this browser. What you did stays here for you.")


def _browser() -> dict[str, Any]:
    try:
        found = _signer().loads(request.cookies.get(BROWSER_COOKIE, ""))
    except BadSignature:
        return {}
    return found if isinstance(found, dict) else {}


def _signer() -> URLSafeSerializer:
    return URLSafeSerializer(settings().secret_key, salt="browser")


def _is_here(address: str) -> bool:
    try:
        return ipaddress.ip_address(address).is_loopback
    except ValueError:
        return False


def _browser_words(agent: str) -> str:
    """A browser and its system in two words, enough to know one's own tablet again."""
    systems = {
        "iPad": "iPad",
        "iPhone": "iPhone",
        "Android": "Android",
        "Windows": "Windows",
        "Mac OS": "Mac",
        "Linux": "Linux",
    }
    browsers = {"Firefox": "Firefox", "Edg": "Edge", "Chrome": "Chrome", "Safari": "Safari"}
    system = next((words for mark, words in systems.items() if mark in agent), "")
    browser = next((words for mark, words in browsers.items() if mark in agent), "")
    return " on ".join(words for words in (browser, system) if words) or agent[:60] or "unknown browser"
