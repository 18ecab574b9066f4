"""What a screen costs, from the hand to the paint, in a real browser: Debian's Chromium, driven without a monitor."""

from __future__ import annotations

import re
import shutil
import time
from collections.abc import Callable
from typing import TYPE_CHECKING, Any

import numpy as np
from sqlmodel import select

from oblatus.cli.bench_imports import many_strikes
from oblatus.drill.served import Served
from oblatus.errors import SetUpError
from oblatus.formats.demo import demo_fittings
from oblatus.store.tables import Studio
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD

if TYPE_CHECKING:
    from playwright.sync_api import Page

PLAYER = "Orla Wethercote"
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-dev-shm-usage", "--disable-background-networking"]
EDITS, SWITCHES, MOVES, FOLLOWS = 20, 24, 36, 4
STEPS = ("player", "ground", "bag", "lofts", "soles", "carries")
SETTLED_SECONDS = 20.0

# from a key to the frame after the set bench holds the answer to it
TYPED = """value => new Promise(done => {
  setTimeout(() => done(NaN), 15000);
  const group = [...document.querySelectorAll('[role=group], fieldset')].find(g => g.textContent.includes('Shaft lean'));
  const input = group.querySelector('input');
  let began = 0, busy = false;
  // the whole document: another answer that comes just then may put another list in the place of this one
  const watch = new MutationObserver(() => {
    const list = document.querySelector('[aria-label="The set, club by club"]');
    const now = list.getAttribute('aria-busy') === 'true';
    if (busy && !now) {
      watch.disconnect();
      requestAnimationFrame(() => setTimeout(() => done(performance.now() - began)));
    }
    busy = busy || now;
  });
  watch.observe(document.body, { subtree: true, childList: true, attributes: true, attributeFilter: ['aria-busy'] });
  input.focus();
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
  set.call(input, value);
  began = performance.now();
  input.dispatchEvent(new Event('input', { bubbles: true }));
})"""
# until the set bench shows the whole rack's answer: watched, not looked for at every frame, which took the server a tenth
# of the machine
FOLLOWED = """() => new Promise(done => {
  const began = performance.now();
  const there = () => document.querySelector('[data-old]')?.dataset.old === 'false';
  const end = taken => {
    watch.disconnect();
    clearTimeout(late);
    setTimeout(() => done(taken()));
  };
  const watch = new MutationObserver(() => there() && end(() => performance.now() - began));
  const late = setTimeout(() => end(() => NaN), 60000);
  watch.observe(document.body, { subtree: true, childList: true, attributes: true, attributeFilter: ['data-old'] });
  if (there()) end(() => performance.now() - began);
})"""
# from the press of a step's link to the frame that shows its heading
SWITCHED = """name => new Promise(done => {
  setTimeout(() => done(NaN), 15000);
  const link = [...document.querySelectorAll('nav a')].find(a => a.getAttribute('href').endsWith('/' + name));
  const before = document.querySelector('main h1');
  const began = performance.now();
  link.click();
  const look = () => {
    const head = document.querySelector('main h1');
    if (location.pathname.endsWith('/' + name) && head && head !== before)
      setTimeout(() => done(performance.now() - began));
    else requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
})"""
# from the press of Strikes until its list has strikes on the screen: without one it says so, or nothing
LISTED = """() => new Promise(done => {
  const link = [...document.querySelectorAll('nav a')].find(a => a.getAttribute('href').endsWith('/strikes'));
  const began = performance.now();
  link.click();
  const look = () => {
    const there = document.querySelector('main ol[aria-label="Strikes"] li button');
    if (there) setTimeout(() => done(performance.now() - began));
    else if (performance.now() - began > 60000) done(NaN);
    else requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
})"""
# from a move of the pointer on the sole pass to the frame that shows it
DRAGGED = """([name, x]) => new Promise(done => {
  setTimeout(() => done(NaN), 15000);
  const dial = [...document.querySelectorAll('[role=slider]')].find(s => s.getAttribute('aria-label') === name);
  const box = dial.getBoundingClientRect();
  const at = { clientX: box.left + x * box.width, clientY: box.top + box.height / 2, bubbles: true, pointerId: 1,
    isPrimary: true, buttons: 1 };
  const before = dial.getAttribute('aria-valuenow');
  const began = performance.now();
  dial.dispatchEvent(new PointerEvent('pointermove', at));
  const look = () => {
    if (dial.getAttribute('aria-valuenow') !== before) setTimeout(() => done(performance.now() - began));
    else if (performance.now() - began > 2000) done(NaN);
    else requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
})"""


def measure_screens() -> dict[str, float]:
    """Milliseconds at the 95th percentile, the medians beside them.

    Raises
    ------
    SetUpError
        If there is no Chromium, or the tests' packages (Playwright) are not installed.
    """
    try:
        from playwright.sync_api import sync_playwright
    except ImportError as error:
        raise SetUpError("the browser part needs the tests' packages: run ./test once") from error
    path = shutil.which("chromium-headless-shell") or shutil.which("chromium")
    if path is None:
        raise SetUpError("the browser part needs Debian's chromium: run ./test once")
    served = Served.start()
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=path, args=FLAGS)
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            sent = _sign_in(page, served.address)
            figures = {"sign_in_page_sent_kb": sent / 1000.0} | _hand(page) | _whole(page, served.address)
            figures |= _many_strikes(page, served)
            browser.close()
    finally:
        served.stop()
    return figures


def _sign_in(page: Page, address: str) -> float:
    """Sign in; returns the bytes that the sign-in page had sent."""
    sent: list[int] = []
    devtools = page.context.new_cdp_session(page)
    devtools.send("Network.enable")
    devtools.on("Network.loadingFinished", lambda event: sent.append(int(event["encodedDataLength"])))
    page.goto(address)
    page.get_by_label("E-mail").wait_for()
    page.wait_for_load_state("networkidle")
    before = float(sum(sent))
    page.get_by_label("E-mail").fill(DEMO_EMAIL)
    page.get_by_label("Password", exact=True).fill(DEMO_PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("link", name=PLAYER).click()
    page.get_by_role("complementary", name="The set").get_by_role("article").first.wait_for()
    return before


def _hand(page: Page) -> dict[str, float]:
    """An edit, a step switch and a drag, each again and again once everything is there."""
    time.sleep(SETTLED_SECONDS)  # families ahead are made, and the draws of the laws done
    here = page.url.rpartition("/")[0]
    page.goto(f"{here}/player")
    page.get_by_role("group", name="Shaft lean").wait_for()
    page.wait_for_load_state("networkidle")

    def again(count: int, act: Callable[[int], Any], pause: float = 0.0) -> list[float]:
        found = []
        for n in range(count):
            found.append(float(act(n)))
            time.sleep(pause)
        return found

    def typed(n: int) -> Any:
        return page.evaluate(TYPED, f"{4.0 + 0.1 * n:.1f}")

    def switched(n: int) -> Any:
        return page.evaluate(SWITCHED, STEPS[(n + 1) % len(STEPS)])  # the first one is open

    again(3, typed, 2.0)
    figures = _told("lean_typed_to_set_bench", again(EDITS, typed, 1.5))
    again(len(STEPS), switched, 1.0)
    figures |= _told("step_switch", again(SWITCHES, switched, 0.4))
    page.evaluate(SWITCHED, "soles")
    dial = page.get_by_role("slider", name=re.compile("Sole pass"))
    dial.wait_for()
    name = dial.get_attribute("aria-label")
    box = dial.bounding_box() or {"x": 0, "y": 0, "width": 1, "height": 1}
    page.mouse.move(box["x"] + 0.3 * box["width"], box["y"] + box["height"] / 2)
    page.mouse.down()
    figures |= _told("dial_drag", again(MOVES, lambda n: page.evaluate(DRAGGED, [name, 0.31 + 0.01 * n]), 0.05))
    page.mouse.up()
    return figures


def _whole(page: Page, address: str) -> dict[str, float]:
    """From the first answer to a typed lean to the whole rack's, of every demo player: the slowest one's median is told,
    too.

    Between two edits the draws of the laws have begun: what is left of them must not hold the next answer up.
    """
    found = np.empty((len(demo_fittings()), FOLLOWS))
    for document, taken in zip(demo_fittings(), found, strict=True):
        page.goto(address)
        page.get_by_role("link", name=document.player.name).click()
        page.get_by_role("group", name="Shaft lean").wait_for()
        page.evaluate(FOLLOWED)
        time.sleep(SETTLED_SECONDS / 2)
        for n in range(FOLLOWS):
            page.evaluate(TYPED, f"{5.0 + 0.13 * n:.2f}")
            taken[n] = page.evaluate(FOLLOWED)
            time.sleep(3.0)
    return _told("whole_rack_after_the_first_answer", found.ravel().tolist()) | {
        "whole_rack_after_the_first_answer_slowest_player_ms": float(np.nanmedian(found, axis=1).max())
    }


def _many_strikes(page: Page, served: Served) -> dict[str, float]:
    """How long Strikes takes until a hundred thousand of them are told and the last are listed."""
    from oblatus.store.database import Database
    from oblatus.store.server import LocalServer

    database = Database(LocalServer(served.inside).url())
    try:
        with database.transaction() as session:
            studio_id = session.exec(select(Studio)).one().id
        fitting = many_strikes(database, studio_id)
    finally:
        database.engine.dispose()
    page.goto(f"{served.address}/fittings/{fitting}/player")
    page.get_by_role("group", name="Shaft lean").wait_for()
    time.sleep(SETTLED_SECONDS)
    return {"strikes_of_100000_open_ms": float(page.evaluate(LISTED))}


def _told(name: str, taken: list[float]) -> dict[str, float]:
    """Percentiles of what was answered, and how many were not within fifteen seconds."""
    there = [one for one in taken if np.isfinite(one)]
    return {
        f"{name}_p50_ms": float(np.percentile(there, 50)), f"{name}_p95_ms": float(np.percentile(there, 95)),
        f"{name}_unanswered": float(len(taken) - len(there)),
    }  # fmt: skip
