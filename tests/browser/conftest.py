"""The real interface on a live server, driven in headless Chromium."""

from __future__ import annotations

import shutil
import threading
from collections.abc import Iterator
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect, sync_playwright
from werkzeug.serving import make_server

from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD
from oblatus.usecases.warm_up import warm_up

FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-dev-shm-usage",
]
PATIENCE_MS = 180_000
"""Two workers on two cores, each with an engine of its own, on a machine that others may starve."""
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def address(app) -> Iterator[str]:
    """The application on a free loopback port, many threads."""
    warm_up()  # a fresh machine compiles for a minute: no test is to wait for that
    live = make_server("127.0.0.1", 0, app, threaded=True)
    thread = threading.Thread(target=live.serve_forever, daemon=True)
    thread.start()
    yield f"http://127.0.0.1:{live.server_port}"
    live.shutdown()


@pytest.fixture(scope="session")
def chromium() -> Iterator[Browser]:
    """Debian's Chromium."""
    path = shutil.which("chromium-headless-shell") or shutil.which("chromium")
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=path, args=FLAGS)
        yield browser
        browser.close()


def new_context(chromium: Browser, *, keeps: bool = False, **how: Any) -> BrowserContext:
    """A browser of its own to its cookies, patient with a slow machine.

    `keeps`: whether it keeps the program, to go on without a connection: two seconds of processor for each.
    """
    context = chromium.new_context(service_workers="allow" if keeps else "block", **how)
    context.set_default_timeout(PATIENCE_MS)
    return context


@pytest.fixture
def blank(chromium: Browser, database, request: pytest.FixtureRequest) -> Iterator[Page]:
    """A page at 1280x800 with nothing in it; an error in the browser's console fails the test."""
    keeps = request.node.get_closest_marker("keeps_the_program") is not None
    context = new_context(chromium, keeps=keeps, viewport={"width": 1280, "height": 800}, accept_downloads=True)
    page = context.new_page()
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    yield page
    context.close()
    assert errors == []


@pytest.fixture
def desk(blank: Page, address: str) -> Page:
    """A page on the sign-in screen."""
    blank.goto(address)
    return blank


@pytest.fixture
def signed_in(blank: Page, address: str) -> Page:
    """A page on the list of players, signed in beside the screen: other tests sign in at it."""
    sign_in(blank, address)
    return blank


def sign_in(page: Page, address: str) -> None:
    """Give the page's browser a session of the demo fitter, and open the list of players."""
    enter(page, address)
    page.goto(address)
    expect(page.get_by_role("link", name="Orla Wethercote")).to_be_visible()


def enter(page: Page, address: str) -> None:
    """Give the page's browser a session of the demo fitter."""
    session, ask = f"{address}/api/session", page.context.request
    token = ask.get(session).json()["csrf_token"]
    who = {"email": DEMO_EMAIL, "password": DEMO_PASSWORD}
    assert ask.post(session, data=who, headers={"X-CSRF-Token": token}).ok


@pytest.fixture
def orla(blank: Page, address: str) -> Page:
    """The first demo fitting, open on its Player step."""
    enter(blank, address)
    fittings = blank.context.request.get(f"{address}/api/fittings").json()["fittings"]
    mine = next(line["id"] for line in fittings if line["player_name"] == "Orla Wethercote")
    blank.goto(f"{address}/fittings/{mine}/player")
    expect(bench(blank).get_by_role("article")).to_have_count(3)
    return blank


def bench(page: Page):
    """The set bench."""
    return page.get_by_role("complementary", name="The set")


def saved(page: Page) -> None:
    """Wait until everything typed is on the server."""
    expect(page.get_by_role("status").filter(has_text="saved").first).to_have_text("saved")
