"""Refresh docs/screenshots from a running application with demo data.

Usage: .venv/bin/python tools/screenshots.py [--url http://127.0.0.1:8420] [--out docs/screenshots] [view ...]
"""

from __future__ import annotations

import argparse
import re
import shutil
from pathlib import Path

from playwright.sync_api import Page, expect, sync_playwright

from oblatus.drill.tablet import Tablet
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD

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
PLAYER = "Orla Wethercote"
VIEW_OF = {
    "measure": "carries?view=measure", "merge": "player", "phone": "card", "trip": "log?view=trips",
}  # fmt: skip
VIEWS = (
    "players", "player", "ground", "bag", "strikes", "import", "carries", "measure", "lofts", "soles", "proof",
    "build", "card", "log", "trip", "desk", "kept", "phone", "merge",
)  # fmt: skip
PLAYER_OF = {"proof": "Tam Hollis", "build": "Tam Hollis", "log": "Joss Underhay", "trip": "Joss Underhay"}
ALONE = {"players", "desk"}
FILE = """Short game export;;;;;;;

Club;Shot type;Carry [yd];Club Speed [mph];Spin Rate [rpm];Attack angle;Shaft lean;Apex [ft]
Sand;full;92,5;71,2;9.850;-4,8;6,1;74
Sand;full;93,1;71,8;9.720;-5,2;5,4;75
Sand;9:00;62,0;52,1;7.900;-5,6;6,8;48
Gap;full;104,2;72,5;8.900;-4,1;5,0;78
Gap;full;1042;72,5;8.900;-4,1;5,0;78
Gap;9:00;70,4;53,0;7.100;-5,0;5,2;50
Lob;full;80,1;70,2;10.400;-4,9;4,8;80
Driver;full;228,0;94,0;2.700;1,2;0;90
"""


def main() -> None:
    """Take every view asked for, or all of them."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--url", default="http://127.0.0.1:8420")
    parser.add_argument("--out", type=Path, default=Path("docs/screenshots"))
    parser.add_argument("--width", type=int, default=1280)
    parser.add_argument("--height", type=int, default=800)
    parser.add_argument("--dark", action="store_true")
    parser.add_argument("--full", action="store_true", help="scroll to the foot of the work surface")
    parser.add_argument("views", nargs="*", default=VIEWS)
    args = parser.parse_args()
    args.out.mkdir(parents=True, exist_ok=True)
    chromium = shutil.which("chromium-headless-shell") or shutil.which("chromium")
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=chromium, args=FLAGS)
        page = browser.new_page(viewport={"width": args.width, "height": args.height})
        page.on("console", lambda m: print("console:", m.text) if m.type in {"error", "warning"} else None)
        page.on("pageerror", lambda e: print("page error:", e))
        sign_in(page, args.url)
        if args.dark:
            page.evaluate("localStorage.setItem('mantine-color-scheme-value', 'dark')")
        for view in args.views:
            page.set_viewport_size({"width": args.width, "height": args.height})  # the phone's page has its own
            take(page, args.url, view, args.out / f"{view}.png", foot=args.full)
        browser.close()


def sign_in(page: Page, url: str) -> None:
    """Sign in as the demo fitter."""
    page.goto(url)
    page.get_by_label("E-mail").fill(DEMO_EMAIL)
    page.get_by_label("Password", exact=True).fill(DEMO_PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("link", name=PLAYER).first.wait_for()


def take(page: Page, url: str, view: str, path: Path, *, foot: bool) -> None:
    """One picture of one view, once it has settled."""
    page.goto(url)
    page.get_by_role("link", name=PLAYER).wait_for()
    if view not in ALONE:
        page.get_by_role("link", name=PLAYER_OF.get(view, PLAYER)).click()
        page.locator("aside article").first.wait_for(state="attached")
        page.goto(page.url.rsplit("/", 1)[0] + f"/{VIEW_OF.get(view, view)}")
        page.locator("aside article").first.wait_for(state="attached")
    settle(page)
    STAGES.get(view, lambda _page, _url: None)(page, url)
    settle(page)
    page.wait_for_timeout(3500 if view == "soles" else 500)
    expect(page.get_by_role("status").filter(has_text=re.compile(r"^\s*Reading "))).to_have_count(0, timeout=60_000)
    if foot:
        page.locator("#work").evaluate("e => e.scrollTo(0, e.scrollHeight)")
        page.wait_for_timeout(150)
    page.screenshot(path=path)
    print(path)


def settle(page: Page) -> None:
    """Wait for the sure-figures, which come a moment later, and for what is made ahead, which says so meanwhile."""
    expect(page.locator("aside article strong", has_text="…")).to_have_count(0, timeout=20_000)
    expect(page.get_by_text("Getting ready for other heads")).to_have_count(0, timeout=120_000)


def kept(page: Page, _url: str) -> None:
    """A proposal that was kept."""
    if page.get_by_text("nothing kept yet").count():
        page.get_by_role("button", name="Keep this proposal").click()
        page.get_by_role("table").first.wait_for()


def log(page: Page, _url: str) -> None:
    """What a year of rounds says."""
    page.get_by_role("region", name="Verdict").wait_for()


def trip(page: Page, _url: str) -> None:
    """A trip with its doubt drawn."""
    page.get_by_text("8 of 10:").first.wait_for()


def ground(page: Page, _url: str) -> None:
    """A venue's history."""
    page.get_by_role("combobox", name="Venue").fill("Quarry Down")
    page.get_by_role("heading", name="Ground").click()
    page.get_by_role("button", name="Its history").click()


def bag(page: Page, _url: str) -> None:
    """A wedge in the gauge."""
    page.get_by_role("button", name="with the gauge").click()
    readings = page.get_by_role("list", name="Readings of old gap")
    expect(readings.get_by_role("listitem")).to_have_count(3, timeout=30_000)
    page.get_by_role("button", name="Stop the gauge").click()
    readings.scroll_into_view_if_needed()


def strikes_of_a_file(page: Page, _url: str) -> None:
    """A file with a wrong row."""
    content = {"name": "range export.csv", "mimeType": "text/csv", "buffer": FILE.encode()}
    page.get_by_label("File of strikes").set_input_files([content])
    page.get_by_label("What Driver means").select_option("leave these rows out")
    page.get_by_role("button", name="Check all rows").click()
    page.get_by_role("list", name="Wrong rows").wait_for()


def build(page: Page, _url: str) -> None:
    """The new club of the set."""
    page.get_by_label("Quote").wait_for()
    page.get_by_role("region", name="Barrow 55", exact=True).evaluate("e => e.scrollIntoView()")


def card(page: Page, _url: str) -> None:
    """The card as it is printed."""
    page.get_by_alt_text("The bag card as it is printed").wait_for()


def phone(page: Page, url: str) -> None:
    """The player's page, at a phone's width."""
    page.get_by_role("button", name="Hand it over").or_(page.get_by_role("button", name="Hand over as it is now")).click()
    link = page.get_by_role("link", name="The player's page").first
    path = link.get_attribute("href") or ""
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(url + path)
    page.get_by_role("list", name="What to take").wait_for()


def strikes(page: Page, _url: str) -> None:
    """Five pitches from the monitor."""
    monitor = page.get_by_role("region", name="Strike monitor")
    monitor.get_by_role("button", name="Connect the monitor").click()
    page.get_by_role("button", name="pitch 5 of 5").wait_for(timeout=60_000)
    monitor.get_by_role("button", name="Stop the monitor").click()


def carries(page: Page, _url: str) -> None:
    """Shots for a distance."""
    page.get_by_label("How far is it?").fill("68")
    page.get_by_text("instead", exact=True).wait_for()


def soles(page: Page, _url: str) -> None:
    """The sole pass, once it is drawn."""
    page.get_by_role("slider", name="Sole pass").wait_for()


def desk(page: Page, url: str) -> None:
    """The shot desk."""
    page.goto(f"{url}/desk")
    page.get_by_role("slider", name="Sole pass").wait_for()


def meet(page: Page, url: str) -> None:
    """Somebody else changes what is being changed here."""
    other = Tablet(url, DEMO_EMAIL, DEMO_PASSWORD)
    other.sign_in()
    path = "/api/fittings/" + page.url.split("/fittings/")[1].split("/")[0]
    page.context.set_offline(True)
    page.get_by_label("Handicap").fill("14")
    page.get_by_label("Complaints, in their own words").fill("comes up short from soft ground")
    seen = other.insist("GET", path).body
    player = {**seen["document"]["player"], "handicap": 12, "complaints": "digs, and skulls the next one"}
    other.insist("PATCH", path, {"revision": seen["revision"], "player": player})
    page.context.set_offline(False)
    page.get_by_role("alert", name="Changed by somebody else too").scroll_into_view_if_needed()


STAGES = {
    "kept": kept, "log": log, "trip": trip, "merge": meet, "ground": ground, "bag": bag, "import": strikes_of_a_file,
    "strikes": strikes, "carries": carries, "soles": soles, "build": build, "card": card, "phone": phone, "desk": desk,
}  # fmt: skip

if __name__ == "__main__":
    main()
