"""Carries and lofts by keyboard: measure a matrix, find the hole, choose a ladder; nothing lost without a connection."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import bench, saved


def open_step(page: Page, key: str, name: str) -> None:
    page.locator("#work").focus()
    page.keyboard.press(key)
    expect(page.get_by_role("heading", name=name, exact=True)).to_be_visible()


def measure(page: Page) -> None:
    open_step(page, "5", "Carries")
    page.get_by_role("radiogroup", name="View").get_by_text("Measure").click()
    expect(page.get_by_role("table", name="Carries by club and swing")).to_be_visible()


def cell(page: Page, words: str):
    return page.get_by_role("button", name=re.compile(words))


def test_a_matrix_is_measured_from_the_keyboard_with_mishits_and_undo(orla: Page):
    measure(orla)
    keys, panel = orla.keyboard, orla.get_by_role("region", name="old lob, 10:30")
    field = orla.get_by_role("textbox", name=re.compile("Carry of the next ball"))
    expect(field).to_be_focused()
    for _ in range(4):
        keys.press("ArrowDown")
    expect(panel).to_be_visible()
    expect(cell(orla, r"^old lob, 10:30: \d+ m, modelled")).to_be_visible()
    for carry in ("47", "48,5", "46", "20"):
        keys.type(carry)
        keys.press("Enter")
    expect(panel.get_by_role("listitem")).to_have_count(4)
    keys.press("m")
    expect(panel.get_by_role("alert")).to_contain_text("heavy")
    keys.press("2")
    expect(panel.get_by_text("heavy")).to_be_visible()
    keys.type("99")
    keys.press("Enter")
    keys.press("u")
    expect(panel.get_by_text("99.0 m")).to_have_count(0)
    expect(cell(orla, r"^old lob, 10:30: 4[67] m, measured")).to_contain_text("3 balls, 1 aside")
    for carry in ("47.5", "46.5"):
        keys.type(carry)
        keys.press("Enter")
    expect(orla.get_by_role("region", name="old lob, 9:00")).to_be_visible()
    expect(orla.get_by_text(re.compile("^47 strikes, 3 set aside"))).to_be_visible()
    keys.type("900")
    keys.press("Enter")
    expect(orla.get_by_text("1 to 200 m")).to_be_visible()
    orla.reload()
    expect(cell(orla, r"^old lob, 10:30: 4[67] m, measured")).to_contain_text("5 balls, 1 aside")


@pytest.mark.keeps_the_program
def test_strikes_without_a_connection_wait_and_arrive_once(orla: Page):
    measure(orla)
    orla.context.set_offline(True)
    for carry in ("81", "82", "83"):
        orla.keyboard.type(carry)
        orla.keyboard.press("Enter")
    expect(orla.get_by_text("3 strikes kept in this browser")).to_be_visible()
    expect(cell(orla, "^pitching wedge, 10:30")).to_contain_text("3 waiting")
    orla.context.set_offline(False)
    expect(cell(orla, "^pitching wedge, 10:30")).to_contain_text("3 balls")
    expect(orla.get_by_text("45 strikes, 2 set aside")).to_be_visible()


def test_pasted_yards_are_asked_about_before_they_are_taken(orla: Page):
    measure(orla)
    cell(orla, "^old gap, full").click()
    box = orla.get_by_role("region", name="Paste strikes")
    box.get_by_role("textbox").fill("103 104 102 103")
    box.get_by_role("button", name="Take strikes").click()
    expect(box.get_by_role("alert")).to_contain_text("Are they in yards?")
    box.get_by_role("button", name="Yes, in yards").click()
    box.get_by_role("button", name="Take strikes").click()
    expect(box.get_by_text("4 taken")).to_be_visible()
    expect(cell(orla, "^old gap, full: 9[34] m")).to_contain_text("9 balls")
    box.get_by_role("textbox").fill("carry\tclub\n50\tputter")
    box.get_by_role("button", name="Look at it").click()
    expect(box.get_by_role("alert")).to_contain_text("line 1: club: is not a club here")


def test_the_ladder_shows_its_hole_answers_a_distance_and_follows_the_wind(orla: Page):
    open_step(orla, "5", "Carries")
    ladder = orla.get_by_role("group", name="Carry ladder")
    expect(ladder.get_by_text(re.compile(r"^hole \d"))).not_to_have_count(0)
    expect(orla.get_by_text(re.compile(r"holes, the widest from \d+ to \d+\sm"))).to_be_visible()
    orla.get_by_label("How far is it?").fill("68")
    finder = orla.get_by_role("region", name="Distance finder")
    expect(finder.get_by_text("first", exact=True)).to_be_visible()
    expect(finder.get_by_role("table").get_by_role("row")).to_have_count(7)
    rung = ladder.get_by_role("button", name=re.compile("^old sand, full"))
    still = rung.locator("title").text_content() or ""
    rung.focus()
    orla.keyboard.press("Enter")
    expect(rung).to_have_attribute("aria-pressed", "true")
    ladder.get_by_role("button", name=re.compile("^pitching wedge, 10:30")).focus()
    expect(orla.get_by_text(re.compile(r"Against the pinned shot: .*less spin"))).to_be_visible()
    expect(orla.get_by_text(re.compile("From what\\?"))).to_be_visible()
    orla.get_by_role("radiogroup", name="Wind").get_by_text("into").click()
    expect(ladder.get_by_role("button", name=re.compile("^old sand, full")).locator("title")).not_to_have_text(still)


def test_a_ladder_is_chosen_weighed_and_taken_back(orla: Page):
    open_step(orla, "6", "Lofts")
    orla.get_by_text("Ladder", exact=True).click()
    heading = orla.get_by_text(re.compile("aimed for$")).locator("xpath=preceding-sibling::strong").first
    proposed = heading.inner_text()
    front = orla.get_by_role("table", name=re.compile("Cover against cost"))
    expect(front.get_by_role("row")).not_to_have_count(0)
    front.get_by_role("button", name="Take").first.click()
    saved(orla)
    expect(orla.get_by_text("set by hand")).to_be_visible()
    expect(bench(orla).get_by_role("article")).to_have_count(1)
    orla.get_by_role("button", name="Back to the proposal").click()
    saved(orla)
    expect(heading).to_have_text(proposed)
    orla.get_by_role("slider", name="Weight of uncovered distance").focus()
    for _ in range(4):
        orla.keyboard.press("ArrowLeft")
    saved(orla)
    expect(orla.get_by_role("button", name="Usual weights")).to_be_enabled()
    # the ladder's penalty is shown beside the set and chooses no loft
    expect(heading).to_have_text(proposed)
    orla.get_by_role("button", name="Usual weights").click()
    saved(orla)
