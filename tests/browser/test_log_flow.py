"""From shots noted on a phone without a connection to the fitter's Log, a changed verdict, and the next fitting."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import bench, new_context, saved


@pytest.fixture
def phone(chromium: Browser):
    """A phone of the player."""
    context = new_context(chromium, keeps=True, viewport={"width": 390, "height": 844}, has_touch=True)
    yield context.new_page()
    context.close()


@pytest.fixture
def joss(signed_in: Page) -> Page:
    """The demo player with a year of rounds, on Log."""
    signed_in.get_by_role("link", name="Joss Underhay").click()
    expect(bench(signed_in).get_by_role("article")).to_have_count(3)
    signed_in.get_by_role("link", name="Log").click()
    expect(signed_in.get_by_role("region", name="Verdict")).to_be_visible()
    return signed_in


def note(phone: Page, lie: str, result: str) -> None:
    """One shot in three taps, with the advised club."""
    phone.get_by_role("button", name=lie, exact=True).click()
    phone.locator("[data-first=true]").click()
    phone.get_by_role("button", name=result, exact=True).click()


def test_a_round_noted_without_a_connection_moves_the_verdict(joss: Page, phone: Page, address: str):
    shots = int(re.search(r"(\d+) shots of", joss.get_by_role("region", name="Verdict").inner_text())[1])
    joss.get_by_role("link", name="Card").click()
    path = joss.get_by_role("link", name="The player's page").get_attribute("href")
    joss.get_by_role("link", name="Log").click()
    phone.goto(f"{address}{path}#note")
    expect(phone.get_by_role("heading", name="Where did it lie?")).to_be_visible()
    phone.evaluate("() => navigator.serviceWorker.ready.then(() => true)")
    phone.reload()
    expect(phone.get_by_text(re.compile("With the studio: "))).to_be_visible()
    phone.wait_for_load_state("networkidle")
    phone.context.set_offline(True)
    phone.reload()
    for _ in range(3):
        note(phone, "greenside sand", "on the green")
    note(phone, "basic chip", "heavy")
    phone.get_by_role("button", name="take it back").click()
    expect(phone.get_by_text("3 shots of this round")).to_be_visible()
    phone.get_by_role("radio", name="3", exact=True).click()
    expect(phone.get_by_text("3 shots wait in this phone for a connection")).to_be_visible()
    phone.context.set_offline(False)
    expect(phone.get_by_text("in this phone")).to_have_count(0)
    verdict = joss.get_by_role("region", name="Verdict")
    expect(verdict).to_contain_text(f"{shots + 3} shots of")  # it is heard of as it comes
    rounds = joss.get_by_role("region", name="Rounds").get_by_role("listitem")
    expect(rounds.first).to_contain_text("3 shots, noted on the phone")
    before = bench(joss).inner_text()
    joss.get_by_role("button", name="Take it: Shots they face").click()
    saved(joss)
    expect(joss.get_by_role("region", name="What the log offers").get_by_role("listitem").first).to_contain_text("taken")
    expect(bench(joss)).not_to_have_text(before)
    joss.get_by_role("button", name="Undo").click()
    expect(joss.get_by_role("region", name="What the log offers").get_by_role("listitem").first).to_contain_text(
        "not taken"
    )
    saved(joss)
    rounds.first.get_by_role("button", name="Take out").click()
    expect(verdict).to_contain_text(f"{shots} shots of")
    joss.get_by_role("button", name="Put it back").click()
    expect(verdict).to_contain_text(f"{shots + 3} shots of")


def test_the_fitter_notes_a_round_puts_a_recheck_off_and_begins_the_next_fitting(joss: Page):
    here = joss.get_by_role("region", name="Note a round here")
    here.get_by_label("Lie").select_option(label="basic chip, Vale clay, winter")
    here.get_by_label("Result").select_option(label="close")
    here.get_by_label("Left, m").fill("far")
    expect(here.get_by_text("must be a number")).to_be_visible()
    here.get_by_label("Left, m").fill("1,5")
    here.get_by_role("button", name="Note the shot").click()
    expect(here.get_by_role("status")).to_contain_text("1 shot noted")
    rows = "Date,Lie,Club,How it went\n2026-05-01,basic chip,old sixty,stiff\n"
    file = joss.get_by_role("region", name="From a file")
    table = {"name": "club book.csv", "mimeType": "text/csv", "buffer": rows.encode()}
    file.get_by_label("Table of shots").set_input_files(table)
    file.get_by_label("result", exact=True).select_option(label="How it went")
    file.get_by_label("result: “stiff” means").select_option(label="close")
    expect(file.get_by_label("Name of the mapping")).to_have_value("club book")
    file.get_by_role("button", name="Take 1 shot").click()
    expect(file.get_by_text("1 new shot taken")).to_be_visible()
    expect(file.get_by_role("listitem").filter(has_text="club book")).to_be_visible()
    below = joss.evaluate("() => document.documentElement.scrollHeight - innerHeight")
    assert below <= 1, "the page itself does not scroll to where there is nothing"
    joss.get_by_text("Rechecks", exact=True).click()
    due = joss.get_by_role("region", name="What is due").get_by_role("listitem")
    expect(due.filter(has_text="grooves")).to_contain_text("due")
    due.filter(has_text="grooves").get_by_role("button", name="Looked at today").click()
    saved(joss)
    expect(due.last).to_contain_text("grooves")
    due.filter(has_text="grips").get_by_role("button", name="Put off").click()
    joss.get_by_label("Until").fill("2099-05-01")
    joss.get_by_label("Why").fill("new ones are ordered")
    joss.get_by_role("button", name="Put it off").click()
    saved(joss)
    expect(due.filter(has_text="grips")).to_contain_text("put off: new ones are ordered")
    joss.get_by_text("Trips and seasons", exact=True).click()
    expect(joss.get_by_role("region", name="Advice")).to_contain_text("Shingle Bay")
    joss.get_by_label("Or home with other turf").select_option(label="firm")
    saved(joss)
    expect(joss.get_by_role("region", name="Advice")).to_contain_text("firm turf")
    joss.get_by_text("Over the years", exact=True).click()
    joss.get_by_role("button", name="Begin the next fitting").click()
    expect(joss.get_by_role("heading", name="Player", exact=True)).to_be_visible()
    expect(joss.get_by_text("from then").first).to_be_visible()
    joss.get_by_role("link", name="Log").click()
    joss.get_by_text("Over the years", exact=True).click()
    expect(joss.get_by_role("columnheader", name="this one")).to_be_visible()
    expect(joss.get_by_role("region", name="Every moment")).to_contain_text("handed over by")
