"""Press and type at random in a running application with demo data, and say what broke.

Usage: .venv/bin/python tools/at_random.py --url URL [--seed 1] [--minutes 4] [--width 820] [--player "Orla Wethercote"]

It spoils the data that it plays with: serve a folder of its own. Two at once, on players of their own, are each other's
other screen. Said once each: errors of the page, answers of 409 and 500 and more, refused questions, words such as "NaN",
and what runs over the side.
"""

from __future__ import annotations

import argparse
import random
import shutil
import time
from contextlib import suppress
from dataclasses import dataclass, field

from playwright.sync_api import ElementHandle, Error, Page, Response, sync_playwright
from screenshots import FLAGS, sign_in

STEPS = (
    "player", "ground", "bag", "strikes", "import", "carries", "carries?view=measure", "lofts", "soles", "proof",
    "build", "card", "log", "log?view=rechecks", "log?view=trips", "log?view=years", "kept",
)  # fmt: skip
PRESSED = ":is(main, aside) :is(button, input, select, textarea, summary, label, [role=radio], [role=slider])"
TYPED = ("", "0", "-5", "1e9", "12,5", "3.7", "abc", "55", "999", "7", "=1+1", "  ", "½")
KEYS = ("Escape", "u", "Control+z", "Control+Shift+z", "ArrowUp", "ArrowDown", "Space", "Enter", "?", "1", "4", "x")
NEVER_SAID = ("NaN", "undefined", "[object", "Infinity", "null°", "Something went wrong")
WAITED = 800
"""Milliseconds for one act: what does not stand still, or lies under something, is left."""


@dataclass  # no slots: the browser hangs a mark on what it calls
class Found:
    """What broke, each once, with the last acts before it."""

    acts: list[str] = field(default_factory=list)
    said: set[str] = field(default_factory=set)

    def say(self, words: str) -> None:
        """Print it, if it is new."""
        if words not in self.said:
            self.said.add(words)
            print(f"{words}\n    after {'; '.join(self.acts[-4:])}", flush=True)

    def heard(self, response: Response) -> None:
        """Look at an answer: a field that was refused is no fault."""
        asked = response.request.method
        if response.status >= 500 or response.status == 409 or (response.status == 422 and asked != "PATCH"):
            with suppress(Error):  # the page was left before it was read
                self.say(f"{response.status} {asked} {response.url.split('/api/')[-1]}: {response.text()[:300]}")


def main() -> None:
    """Press until the time is over."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--url", required=True)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--minutes", type=float, default=4.0)
    parser.add_argument("--width", type=int, default=820)
    parser.add_argument("--player", default="Orla Wethercote")
    args = parser.parse_args()
    chance, found = random.Random(args.seed), Found()
    chromium = shutil.which("chromium-headless-shell") or shutil.which("chromium")
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=chromium, args=FLAGS)
        page = browser.new_page(viewport={"width": args.width, "height": 800}, service_workers="block")
        page.on("pageerror", lambda error: found.say(f"error of the page: {error}"))
        page.on("response", found.heard)
        page.on("dialog", lambda dialog: dialog.dismiss())
        sign_in(page, args.url)
        page.get_by_role("link", name=args.player).first.click()
        page.wait_for_url("**/fittings/**")
        base, end = page.url.rsplit("/", 1)[0], time.monotonic() + 60.0 * args.minutes
        while time.monotonic() < end:
            step = chance.choice(STEPS)
            found.acts.append(step)
            page.goto(f"{base}/{step}")
            page.wait_for_timeout(WAITED)
            for _ in range(chance.randint(6, 16)):
                if not page.url.startswith(base):
                    break  # a link led away
                act(page, chance, found)
                look(page, found, step)
        browser.close()
    print(f"{len(found.acts)} acts, {len(found.said)} faults")


def _within_reach(one: ElementHandle) -> bool:
    """Whether it can be pressed; what left the page meanwhile cannot."""
    with suppress(Error):
        return one.is_visible() and one.is_enabled()
    return False


def act(page: Page, chance: random.Random, found: Found) -> None:
    """One act at one thing that can be pressed or typed into, now and then with a key after it."""
    every = [one for one in page.query_selector_all(PRESSED) if _within_reach(one)]
    if not every:
        return
    one = chance.choice(every)
    name = one.evaluate("e => e.ariaLabel || (e.labels?.[0] ?? e).textContent || e.type").strip()[:40]
    try:
        found.acts.append(f"{touch(page, one, chance)} {name}")
    except Error as error:
        if "Timeout" not in str(error) and "not attached" not in str(error):
            raise
    if chance.random() < 0.2:
        page.keyboard.press(chance.choice(KEYS))
    page.wait_for_timeout(chance.choice((0, 0, 50, 150, 400)))


def touch(page: Page, one: ElementHandle, chance: random.Random) -> str:
    """Type, choose or press, by what it is; returns which."""
    kind = one.evaluate("e => e.tagName + (e.tagName === 'INPUT' ? ' ' + e.type : '')")
    if kind in ("INPUT text", "INPUT number", "TEXTAREA"):
        text = chance.choice(TYPED)
        one.fill(text, timeout=WAITED)
        page.keyboard.press(chance.choice(("Tab", "Enter", "Escape")))
        return f"typed {text!r} in"
    if kind == "SELECT":
        one.select_option(index=chance.randrange(one.evaluate("e => e.options.length")), timeout=WAITED)
        return "chose in"
    if kind != "INPUT file":
        one.click(timeout=WAITED)
    return "pressed"


def look(page: Page, found: Found, step: str) -> None:
    """What stands on the page that never should, and what runs over its side."""
    words = page.evaluate("document.body.innerText")
    for bad in NEVER_SAID:
        if bad in words:
            at = words.index(bad)
            found.say(f"{step} says {words[max(at - 60, 0) : at + 40]!r}")
    if page.evaluate("document.scrollingElement.scrollWidth > innerWidth + 1"):
        found.say(f"{step} runs over the side")


if __name__ == "__main__":
    main()
