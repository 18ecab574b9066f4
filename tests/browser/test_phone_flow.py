"""From the hand-over to a phone: the page without a connection, a drill counted there and sent once, a closed page."""

from __future__ import annotations

import gzip
import re

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import new_context
from tests.browser.test_every_screen import look

PHONES = ((390, 844), (360, 640))


@pytest.fixture
def phone(chromium: Browser):
    """A phone of somebody who is not signed in; an error in its console fails the test."""
    context = new_context(chromium, keeps=True, viewport={"width": 390, "height": 844}, has_touch=True)
    page = context.new_page()
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    yield page
    context.close()
    assert errors == []


def hand_over(orla: Page) -> str:
    """Hand the first demo fitting over; the address of the player's page."""
    orla.locator("#work").focus()
    orla.keyboard.press("0")
    orla.get_by_role("button", name="Hand it over").click()
    link = orla.get_by_role("link", name="The player's page")
    expect(link).to_be_visible()
    expect(orla.get_by_alt_text("The link to the player's page as a QR code")).to_be_visible()
    return link.get_attribute("href") or ""


def test_a_page_works_without_a_connection_and_its_scores_arrive_once(orla: Page, phone: Page, address: str):
    path = hand_over(orla)
    phone.goto(address + path)
    answers = phone.get_by_role("list", name="What to take").get_by_role("listitem")
    expect(answers).to_have_count(3)
    phone.wait_for_load_state("networkidle")
    before = answers.first.inner_text()
    phone.get_by_role("radio", name="into").click()
    expect(answers.first).not_to_have_text(before)
    phone.get_by_role("radio", name="still").click()
    phone.get_by_role("button", name="Longer").click()
    phone.get_by_role("button", name="Shorter").click()
    expect(answers.first).to_have_text(re.compile(r"°.*carries \d+, runs \d+", re.S))
    phone.evaluate("() => navigator.serviceWorker.ready.then(() => true)")
    phone.reload()  # from now on the worker has seen everything
    expect(answers).to_have_count(3)
    phone.wait_for_load_state("networkidle")
    phone.context.set_offline(True)
    phone.reload()
    expect(answers).to_have_count(3)
    phone.get_by_role("button", name="My lie").click()
    phone.get_by_label("Where does it lie?").select_option(label="greenside sand, Quarry Down")
    expect(phone.get_by_role("heading", level=1)).to_have_text("greenside sand, Quarry Down")
    expect(phone.get_by_text("does not touch the sand")).to_be_visible()
    phone.get_by_role("button", name="Practise").click()
    name = phone.get_by_role("heading", level=1).inner_text()
    for n in range(10):
        phone.get_by_role("button", name="it came off" if n % 4 else "it did not").click()
    expect(phone.get_by_text("1 score waits in this phone")).to_be_visible()
    expect(phone.get_by_role("img", name=re.compile("Scores: 7; pass"))).to_be_visible()
    phone.context.set_offline(False)
    expect(phone.get_by_text("waits in this phone")).to_have_count(0)
    phone.reload()
    phone.get_by_role("button", name="Practise").click()
    expect(phone.get_by_role("img", name=re.compile("Scores: 7; pass"))).to_be_visible()
    orla.reload()
    told = orla.get_by_role("region", name="Hand over")
    expect(told).to_contain_text(f"{name}: 1 go")
    expect(told.get_by_role("img", name=re.compile(f"{name}: 7; pass \\d+ of 10"))).to_be_visible()


def test_a_page_is_light_readable_and_closed_by_a_press(orla: Page, phone: Page, address: str):
    path = hand_over(orla)
    bodies: list[tuple[str, bytes]] = []
    phone.on("response", lambda reply: bodies.append((reply.url, reply.body())))
    phone.goto(address + path)
    expect(phone.get_by_role("list", name="What to take")).to_be_visible()
    phone.wait_for_load_state("networkidle")
    # as the front server sends it: fonts as they are, everything else squeezed
    light = {url: len(body) if url.endswith("woff2") else len(gzip.compress(body, 6)) for url, body in bodies}
    assert 60_000 < sum(light.values()) < 120_000, light
    wrong = []
    for tab in ("How far", "My lie", "Note", "Practise", "Clubs"):
        phone.get_by_role("button", name=tab).click()
        wrong += look(phone, f"phone, {tab}", PHONES)
    assert wrong == []
    with phone.expect_download() as calendar:
        phone.get_by_role("link", name="Into my calendar").click()
    assert calendar.value.suggested_filename == "wedges.ics"
    orla.get_by_role("button", name="Close the page").click()
    expect(orla.get_by_role("region", name="Hand over")).to_contain_text("Closed ")
    phone.reload()
    expect(phone.get_by_role("status")).to_have_text("The studio has closed this page. Ask there for a new one.")
