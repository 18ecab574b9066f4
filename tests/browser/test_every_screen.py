"""Every screen at four sizes and in both lights: axe, the smallest text, labels that touch, what is cut or runs over."""

from __future__ import annotations

from pathlib import Path
from typing import Literal

import pypdfium2
import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import new_context, sign_in
from tests.browser.looking import CONTRAST, LOOK, SIZES, look_at_sides, still

AXE = Path(__file__).parents[2] / "frontend/node_modules/axe-core/axe.min.js"
NARROWEST = 320
STEPS = (
    "player", "ground", "bag", "strikes", "import", "carries", "carries?view=measure", "lofts", "soles", "proof",
    "build", "card", "kept",
)  # fmt: skip


@pytest.fixture(scope="module")
def tablet(chromium: Browser):
    """A page under a finger."""
    context = new_context(chromium, viewport={"width": 1280, "height": 800}, has_touch=True)
    page = context.new_page()
    page.emulate_media(reduced_motion="reduce")  # nothing fades, so that nothing is waited for
    yield page
    context.close()


@pytest.fixture
def signed(tablet: Page, address: str, database) -> Page:
    """The tablet, signed in; the studio is made anew for every test."""
    tablet.context.clear_cookies()
    tablet.set_viewport_size({"width": 1280, "height": 800})
    tablet.emulate_media(media="screen", forced_colors="none")  # whatever a test before left
    sign_in(tablet, address)
    return tablet


PAPER = ((718, 1000), (740, 950))
"""A4 and letter between their margins, in CSS px."""
LEAST_CAPITAL = 0.62
"""Of the size of the font, where the browser printed it as large as it was to be."""
CUT = """() => {
  const across = document.documentElement.clientWidth;
  const words = [...document.querySelectorAll("td, th, p, li, h1, h2, strong, text")];
  const cut = words.filter((e) => e.checkVisibility() && e.getBoundingClientRect().right > across + 1);
  return cut.map((e) => `cut on paper: ${e.textContent.slice(0, 30)}`);
}"""


def look_at_paper(page: Page, where: str) -> list[str]:
    """What a print of the page would cut, and what it lacks."""
    found = []
    page.emulate_media(media="print")
    for width, height in PAPER:
        page.set_viewport_size({"width": width, "height": height})
        found += [f"{where}, {width}: {words}" for words in page.evaluate(CUT)]
    brand = page.get_by_text("Oblatus", exact=True).first
    size = 0.75 * float(brand.evaluate("e => Number.parseFloat(getComputedStyle(e).fontSize)"))  # points
    with pypdfium2.PdfDocument(page.pdf(format="A4")) as paper:
        words = paper[0].get_textpage()
        _, low, _, high = words.get_charbox(words.get_text_range().index("Oblatus"))
    if high - low < LEAST_CAPITAL * size:
        found.append(f"{where}: shrunk on A4, because something runs over its side")
    player = page.get_by_text("Orla Wethercote").first
    if not player.is_visible() or page.get_by_role("navigation", name="Steps").is_visible():
        found.append(f"{where}: no player on paper, or the rail")
    page.emulate_media(media="screen")
    return found


LIGHT = """light => {
  localStorage.setItem("mantine-color-scheme-value", light);
  dispatchEvent(new StorageEvent("storage", {
    key: "mantine-color-scheme-value", newValue: light, storageArea: localStorage }));
}"""


def put_light(page: Page, light: Literal["light", "dark"]) -> None:
    """Have the desk's page chosen so and the player's page, which follows the phone, shown so."""
    page.evaluate(LIGHT, light)
    page.emulate_media(color_scheme=light)
    expect(page.locator("html")).to_have_attribute("data-mantine-color-scheme", light)
    still(page)


def look(page: Page, where: str, sizes: tuple[tuple[int, int], ...] = SIZES, *, contrast: bool = True) -> list[str]:
    """What is wrong with the page as it stands, at every size; the colours in both lights, unless they are forced.

    To axe, and as far as colours go, a page of 320 px is one of 390; what touches or is cut there is looked at.
    """
    found: list[str] = []
    wide = [size for size in sizes if size[0] > NARROWEST]
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text())

    def at(size: tuple[int, int], light: str, ours: bool, **told: bool) -> None:
        page.set_viewport_size({"width": size[0], "height": size[1]})
        still(page)
        wrong = page.evaluate(CONTRAST) if ours else []
        wrong += page.evaluate(LOOK, {"touch": size[0] <= 820, "contrast": ours, **told})
        found.extend(f"{where}{light} at {size[0]}: {words}" for words in wrong)

    for size in sizes:
        at(size, "", contrast and size in wide, axes=not contrast or size in wide)
    if contrast:
        put_light(page, "dark")
        for size in wide:
            at(size, ", dark", True, colours=True)
        put_light(page, "light")
    return found


def test_what_is_hard_to_read_is_found(chromium: Browser):
    """Each of these, and not what stands beside it."""
    said = """<body style="background:#fff;color:#111"><p>good</p><p style="opacity:.4">faint</p>
      <div style="background:#222"><b style="color:#777">7</b><b style="color:#fff">8</b></div>
      <div style="position:relative"><i style="position:absolute;inset:0;background:#333"></i>
        <span style="color:#fff">on</span><span style="color:#444">off</span></div>
      <input value="typed"><input value="pale" style="color:#aaa"><input placeholder="hint" class="hint">
      <style>.hint::placeholder { color: #bbb }</style>
      <svg width="200" height="40"><rect width="100" height="40" fill="#133"/><text x="9" y="20" fill="#255">dark</text>
        <text x="120" y="20" fill="#255">beside</text></svg></body>"""
    context = new_context(chromium)
    page = context.new_page()
    page.set_content(said)
    assert [words.rsplit(" ", 1)[1] for words in page.evaluate(CONTRAST)] == ["faint", "7", "off", "pale", "hint", "dark"]
    context.close()


OPENED = """() => {
  const more = [...document.querySelectorAll("#work :is(button[aria-expanded=false], button[aria-pressed=false])")];
  const opens = more.filter((button) => /^[TBW] ?(table|balls|what)|^More|^Its|^All/.test(button.textContent.trim()));
  for (const closed of document.querySelectorAll("#work details:not([open])")) closed.open = true;
  for (const button of opens) button.click();
}"""


def look_at_what_opens(page: Page, where: str) -> list[str]:
    """What runs over the side of a narrow screen once every table and more is shown, and a distance was asked."""
    distance = page.get_by_label("How far is it?")
    if distance.count():
        distance.fill("68")
        expect(page.get_by_text("Shots for this distance")).to_be_visible()
    page.evaluate(OPENED)
    return look_at_sides(page, f"{where}, opened", SIZES[2:])


def test_every_step_is_readable_and_within_reach(signed: Page):
    signed.get_by_role("link", name="Orla Wethercote").click()
    expect(signed.get_by_role("complementary", name="The set").get_by_role("article")).to_have_count(3)
    base = signed.url.rsplit("/", 1)[0]
    wrong = []
    for step in STEPS:
        signed.set_viewport_size({"width": 1280, "height": 800})
        signed.goto(f"{base}/{step}")
        expect(signed.get_by_role("complementary", name="The set").get_by_role("article")).to_have_count(3)
        expect(signed.get_by_role("main").get_by_role("heading", level=1)).to_be_visible()
        if step == "soles":
            expect(signed.get_by_role("group", name="Strike windows")).to_be_visible()
        if step == "build":
            expect(signed.get_by_label("Quote")).to_be_visible()
        wrong += look(signed, step)
        wrong += look_at_paper(signed, step)
        wrong += look_at_what_opens(signed, step)
    assert wrong == []


def test_the_strip_holds_all_that_is_to_be_said_and_the_set_opens_beside_it(signed: Page):
    """A device that is not heard, a field that is to be mended and a conflict, on every width."""
    signed.get_by_role("link", name="Orla Wethercote").click()
    expect(signed.get_by_role("complementary", name="The set").get_by_role("article")).to_have_count(3)
    base = signed.url.rsplit("/", 1)[0]
    signed.goto(f"{base}/strikes")
    signed.get_by_role("region", name="Strike monitor").get_by_role("button", name="Connect the monitor").click()
    strip, bench = signed.get_by_role("banner"), signed.get_by_role("complementary", name="The set")
    expect(strip.get_by_label("Devices")).to_be_visible()
    signed.goto(f"{base}/bag")
    signed.get_by_label("Bounce").first.fill("81")
    signed.keyboard.press("Tab")
    expect(strip.get_by_text("not saved: 1 to mend")).to_be_visible()
    wrong = look_at_sides(signed, "strip", SIZES)
    for width, height in SIZES[2:]:
        signed.set_viewport_size({"width": width, "height": height})
        strip.get_by_role("button", name="The set").click()
        expect(bench).to_be_visible()
        above, below = strip.bounding_box(), signed.get_by_role("navigation", name="Steps").bounding_box()
        here = bench.bounding_box()
        if here["y"] < above["y"] + above["height"] - 1 or here["y"] + here["height"] > below["y"] + 1:
            wrong.append(f"the set lies over strip or steps at {width}")
        strip.get_by_role("button", name="The set").click()
        expect(bench).to_be_hidden()
    assert wrong == []


DARK, LONG = 60, 0.6
"""Of a pixel's light, and of a page's width: the ruler of a picture runs across it."""


def test_paper_is_white_and_keeps_what_pictures_say_in_either_light(signed: Page):
    """Browsers leave backgrounds out: bars, hatches and the ruler are backgrounds, and those of the dark are dark."""
    signed.get_by_role("link", name="Orla Wethercote").click()
    expect(signed.get_by_role("complementary", name="The set").get_by_role("article")).to_have_count(3)
    signed.goto(f"{signed.url.rsplit('/', 1)[0]}/lofts")
    for light in ("light", "dark"):
        expect(signed.get_by_text("take this")).to_be_visible()
        put_light(signed, light)
        signed.emulate_media(media="print")
        with pypdfium2.PdfDocument(signed.pdf(format="A4")) as paper:
            page = paper[0].render(scale=1).to_numpy()[:, :, :3].max(axis=2)
        signed.emulate_media(media="screen")
        assert page[2].min() == 255, f"{light}: the paper's rim is not white"
        assert (page < DARK).mean(axis=1).max() > LONG, f"{light}: the ruler is not printed"
    put_light(signed, "light")


TWO_SIZES = ((1280, 800), (820, 1180))
SEEN_IN_FORCED_COLOURS = """() => {
  const canvas = getComputedStyle(document.body).backgroundColor;
  const bars = [...document.querySelectorAll('[class*="_mark_"]:not(svg *), [class*="_range_"], [data-part="won"]')];
  const chosen = [...document.querySelectorAll('nav [aria-current], .mantine-SegmentedControl-label[data-active]')];
  return [
    ...bars.filter((one) => getComputedStyle(one).backgroundColor === canvas).map((one) => `no bar: ${one.className}`),
    ...chosen.filter((one) => getComputedStyle(one).outlineStyle !== "solid").map((one) => `free: ${one.textContent}`),
  ];
}"""


def test_strange_displays_are_served(signed: Page):
    """Forced colours, no motion, and four times as large: a screen of 1280 px at 400 % is 320 px wide."""
    signed.get_by_role("link", name="Orla Wethercote").click()
    expect(signed.get_by_role("complementary", name="The set").get_by_role("article")).to_have_count(3)
    base = signed.url.rsplit("/", 1)[0]
    signed.emulate_media(forced_colors="active")
    wrong = []
    for step in ("lofts", "soles", "bag"):
        signed.set_viewport_size({"width": 1280, "height": 800})
        signed.goto(f"{base}/{step}")
        expect(signed.get_by_role("main").get_by_role("heading", level=1)).to_be_visible()
        expect(signed.get_by_role("complementary", name="The set").get_by_role("article")).to_have_count(3)
        wrong += look(signed, f"{step}, forced colours", (*TWO_SIZES, (320, 200)), contrast=False)
        wrong += [f"{step}, forced colours: {words}" for words in signed.evaluate(SEEN_IN_FORCED_COLOURS)]
        moving = "() => document.getAnimations().filter((a) => a.playState === 'running').length"
        if signed.evaluate(moving):
            wrong.append(f"{step}: something moves")
    assert wrong == []


def test_dialogs_the_desk_and_another_player_are_readable(signed: Page, address: str):
    wrong = []
    signed.get_by_role("link", name="Tam Hollis").click()
    expect(signed.get_by_role("complementary", name="The set").get_by_role("article").first).to_be_visible()
    base = signed.url.rsplit("/", 1)[0]
    for step in ("player", "bag", "lofts", "soles"):
        signed.set_viewport_size({"width": 1280, "height": 800})
        signed.goto(f"{base}/{step}")
        expect(signed.get_by_role("main").get_by_role("heading", level=1)).to_be_visible()
        expect(signed.get_by_role("complementary", name="The set").get_by_role("article").first).to_be_visible()
        wrong += look(signed, f"Hollis, {step}", TWO_SIZES)
    signed.set_viewport_size({"width": 1280, "height": 800})
    signed.locator("#work").focus()
    signed.keyboard.press("/")
    expect(signed.get_by_label("Step or command")).to_be_focused()
    wrong += look(signed, "palette", TWO_SIZES)
    signed.keyboard.press("Escape")
    expect(signed.get_by_label("Step or command")).to_be_hidden()
    signed.locator("#work").focus()
    signed.keyboard.press("?")
    expect(signed.get_by_role("dialog", name="Keys")).to_be_visible()
    wrong += look(signed, "keys", TWO_SIZES)
    signed.goto(f"{address}/desk")
    expect(signed.get_by_role("slider", name="Sole pass: entry")).to_be_visible()
    wrong += look(signed, "desk")
    signed.context.clear_cookies()
    signed.goto(address)
    expect(signed.get_by_label("E-mail")).to_be_visible()
    found = wrong + look(signed, "sign-in")
    assert found == [], "\n".join(found)


def test_the_log_what_comes_after_and_the_steps_of_its_player_are_readable_and_within_reach(signed: Page, address: str):
    signed.get_by_role("link", name="Joss Underhay").click()
    expect(signed.get_by_role("complementary", name="The set").get_by_role("article")).to_have_count(3)
    base = signed.url.rsplit("/", 1)[0]
    wrong = []
    for view, there in (("seen", "Verdict"), ("rechecks", "Grooves"), ("trips", "Advice"), ("years", "Every moment")):
        signed.set_viewport_size({"width": 1280, "height": 800})
        signed.goto(f"{base}/log?view={view}")
        expect(signed.get_by_role("region", name=there)).to_be_visible()
        wrong += look(signed, f"log, {view}")
    for step in STEPS:
        signed.set_viewport_size({"width": 1280, "height": 800})
        signed.goto(f"{base}/{step}")
        expect(signed.get_by_role("complementary", name="The set").get_by_role("article")).to_have_count(3)
        expect(signed.get_by_role("main").get_by_role("heading", level=1)).to_be_visible()
        wrong += look_at_sides(signed, f"Underhay, {step}", SIZES[1:])
    signed.set_viewport_size({"width": 1280, "height": 800})
    signed.goto(f"{address}/claims")
    expect(signed.get_by_text("came true").first).to_be_visible()
    wrong += look(signed, "claims")
    assert wrong == [], "\n".join(wrong)


def test_players_and_account_are_readable_and_within_reach(signed: Page, address: str):
    signed.goto(address)
    expect(signed.get_by_role("link", name="Orla Wethercote")).to_be_visible()
    wrong = look(signed, "players")
    signed.goto(f"{address}/account")
    expect(signed.get_by_text("this browser")).to_be_visible()
    assert wrong + look(signed, "account") == []
