"""What is wrong with a page as it stands, by look.js and contrast.js; at which sizes, and once it stands still."""

from __future__ import annotations

from pathlib import Path

from playwright.sync_api import Page

LOOK = (Path(__file__).parent / "look.js").read_text()
CONTRAST = (Path(__file__).parent / "contrast.js").read_text()
SIZES = ((1280, 800), (1024, 768), (820, 1180), (390, 844), (320, 640))
STILL = """() => document.getAnimations().every(
  (a) => a.playState !== 'running' || a.effect.getComputedTiming().iterations === Infinity)"""
# pictures are drawn anew for a new width, a moment after it
DRAWN = """most => new Promise((done) => {
  const least = (picture) =>
    Math.min(...[...picture.querySelectorAll("text")].map((text) => Number.parseFloat(getComputedStyle(text).fontSize)));
  const fits = (picture) => {
    const scale = picture.getScreenCTM()?.a ?? 1;
    return Math.abs(scale - 1) < 0.002 || scale * least(picture) > 11; // some have one shape at every width
  };
  const look = (left) => requestAnimationFrame(() => {
    if (left === 0 || [...document.querySelectorAll("svg:has(text)")].every(fits)) requestAnimationFrame(done);
    else look(left - 1);
  });
  look(most);
})"""
FRAMES = 600


def still(page: Page) -> None:
    """Wait until nothing is laid out anew or fades: a dialog that is still fading in has other colours."""
    page.evaluate(DRAWN, FRAMES)
    page.wait_for_function(STILL)


def look_at_sides(page: Page, where: str, sizes: tuple[tuple[int, int], ...]) -> list[str]:
    """What runs over the side, is cut or is too small, as the page stands."""
    found = []
    for width, height in sizes:
        page.set_viewport_size({"width": width, "height": height})
        still(page)
        found += [f"{where} at {width}: {words}" for words in page.evaluate(LOOK, {"touch": True, "sides": True})]
    return found
