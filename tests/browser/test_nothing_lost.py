"""In a real browser: sessions that end, people who meet in one fitting, connections that go, tabs by the dozen."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from oblatus.store.database import Database
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD
from oblatus.usecases.users import NewFitter, add_user
from tests.browser.conftest import bench, saved
from tests.waiting import until


def strikes_step(page: Page) -> None:
    page.get_by_role("link", name="Strikes").click()
    expect(page.get_by_role("heading", name="Strikes", exact=True)).to_be_visible()


def take(page: Page, entry: str) -> None:
    field = page.get_by_role("form", name="A strike by hand").get_by_label("Entry, mm")
    field.fill(entry)
    field.press("Enter")


def entries_of(client, fitting_id: str) -> list[float]:
    return [s["entry_mm"] for s in client.get(f"/api/fittings/{fitting_id}/session").get_json()["strikes"]]


def fitting_id(page: Page) -> str:
    return re.search(r"/fittings/([0-9a-f-]{36})", page.url).group(1)


def sign_in_again(page: Page) -> None:
    sheet = page.get_by_role("dialog", name="You are signed out")
    expect(sheet).to_be_visible()
    expect(sheet.get_by_label("E-mail")).to_have_value(DEMO_EMAIL)
    sheet.get_by_label("Password", exact=True).fill(DEMO_PASSWORD)
    sheet.get_by_role("button", name="Sign in").click()
    expect(sheet).to_have_count(0)


def test_a_lost_cookie_costs_neither_strike_nor_text(orla: Page, client):
    # what is worked on is asked for twice a second for as long as the laws are drawn
    orla.route("**/api/engine/work", lambda route: route.abort())
    strikes_step(orla)
    before = len(entries_of(client, fitting_id(orla)))
    # an answer still on its way would bring the cookie back
    quiet = "(e) => e.name.endsWith('/engine/work') || e.responseEnd < performance.now() - 800"
    orla.wait_for_function(f"() => performance.getEntriesByType('resource').every({quiet})")
    orla.context.clear_cookies()
    take(orla, "-47")
    expect(orla.get_by_role("status", name="Waiting to be sent")).to_have_text("1 strike waits for you to sign in")
    expect(orla.locator("[data-state=saved]").filter(has_text="saved")).to_have_count(0)
    sign_in_again(orla)
    expect(orla.get_by_role("status", name="Waiting to be sent")).to_have_count(0)
    saved(orla)
    found = entries_of(client, fitting_id(orla))
    assert len(found) == before + 1
    assert found[-1] == -47


def test_signing_out_and_in_again_in_another_tab_goes_on_by_itself(orla: Page, client):
    strikes_step(orla)
    other = orla.context.new_page()
    other.goto(orla.url.split("/fittings")[0])
    other.get_by_role("button", name="Sign out").click()
    expect(other.get_by_label("E-mail")).to_be_visible()
    expect(orla.get_by_role("dialog", name="You are signed out")).to_be_visible()
    other.get_by_label("E-mail").fill(DEMO_EMAIL)
    other.get_by_label("Password", exact=True).fill(DEMO_PASSWORD)
    other.get_by_role("button", name="Sign in").click()
    expect(orla.get_by_role("dialog", name="You are signed out")).to_have_count(0)
    take(orla, "-48")
    saved(orla)
    assert entries_of(client, fitting_id(orla))[-1] == -48


def test_another_person_on_the_same_tablet_neither_sees_nor_sends(orla: Page, client, database: Database, settings):
    add_user(database, settings, NewFitter("Second Fitter", "second@scarp-end.example", "flint and thyme"), None)
    strikes_step(orla)
    before = entries_of(client, fitting_id(orla))
    orla.context.clear_cookies()
    take(orla, "-49")
    expect(orla.get_by_role("status", name="Waiting to be sent")).to_be_visible()
    other = orla.context.new_page()
    other.goto(orla.url.split("/fittings")[0])
    other.get_by_label("E-mail").fill("second@scarp-end.example")
    other.get_by_label("Password", exact=True).fill("flint and thyme")
    other.get_by_role("button", name="Sign in").click()
    other.get_by_role("link", name="Orla Wethercote").click()
    expect(bench(other).get_by_role("article")).to_have_count(3)
    expect(other.get_by_role("status", name="Waiting to be sent")).to_have_count(0)
    expect(orla.get_by_role("dialog", name="Somebody else signed in on this browser")).to_be_visible()
    assert entries_of(client, fitting_id(orla)) == before
    other.close()
    sheet = orla.get_by_role("dialog")
    sheet.get_by_label("Password", exact=True).fill(DEMO_PASSWORD)
    sheet.get_by_role("button", name="Sign in").click()
    saved(orla)
    assert entries_of(client, fitting_id(orla)) == [*before, -49]


@pytest.mark.keeps_the_program
def test_what_two_changed_is_chosen_and_never_saved_unseen(orla: Page, client):
    base = f"/api/fittings/{fitting_id(orla)}"
    orla.context.set_offline(True)
    orla.get_by_label("Handicap").fill("20")
    expect(orla.get_by_text("no connection, kept here")).to_be_visible()
    theirs = client.get(base).get_json()
    theirs["document"]["player"] |= {"handicap": 3, "complaints": "skulls them"}
    body = {"revision": theirs["revision"], "player": theirs["document"]["player"]}
    assert client.patch(base, json=body).status_code == 200
    orla.context.set_offline(False)
    panel = orla.get_by_role("alert", name="Changed by somebody else too")
    expect(panel.get_by_role("row", name=re.compile("handicap.*20.*3"))).to_be_visible()
    assert client.get(base).get_json()["document"]["player"]["handicap"] == 3
    panel.get_by_role("button", name="Take yours: handicap").click()
    saved(orla)
    player = client.get(base).get_json()["document"]["player"]
    assert (player["handicap"], player["complaints"]) == (20, "skulls them")


def test_undo_and_redo_go_by_act_and_survive_a_reload(orla: Page):
    handicap = orla.get_by_label("Handicap")
    before = handicap.input_value()
    handicap.press_sequentially("0")
    typed = handicap.input_value()
    handicap.press("Backspace")
    handicap.fill("17")
    handicap.blur()
    saved(orla)
    orla.reload()
    expect(orla.get_by_label("Handicap")).to_have_value("17")
    orla.get_by_role("button", name="Undo", exact=True).click()
    expect(orla.get_by_label("Handicap")).to_have_value(before)
    assert typed != before
    orla.get_by_role("button", name="Redo", exact=True).click()
    expect(orla.get_by_label("Handicap")).to_have_value("17")
    saved(orla)


def test_a_wrong_field_holds_only_itself(orla: Page, client):
    orla.get_by_label("Full pitching-wedge carry").fill("999")
    expect(orla.get_by_text(re.compile("not saved: 1 to mend"))).to_be_visible()
    orla.get_by_role("group", name="Shaft lean").get_by_label("mean").fill("9")
    base = f"/api/fittings/{fitting_id(orla)}"
    until(lambda: client.get(base).get_json()["document"]["player"]["delivery"]["lean_deg"]["mean"] == 9)
    expect(orla.get_by_label("Full pitching-wedge carry")).to_have_value("999")


@pytest.mark.keeps_the_program
def test_every_step_opens_without_a_connection(orla: Page):
    orla.evaluate("navigator.serviceWorker.ready")
    orla.reload()  # from here on the browser's own copy of the program answers
    expect(bench(orla).get_by_role("article")).to_have_count(3)
    orla.wait_for_timeout(2500)  # what was heard is kept a moment later
    orla.context.set_offline(True)
    orla.reload()
    expect(orla.get_by_role("status", name="How old this is")).to_be_visible()
    for step in ("Ground", "Bag", "Strikes", "Carries", "Lofts", "Soles", "Proof"):
        orla.get_by_role("navigation", name="Steps").get_by_role("link", name=re.compile(f"^{step}")).click()
        expect(orla.get_by_role("heading", level=1)).to_contain_text(step)
    strikes_step(orla)
    take(orla, "-51")
    expect(orla.get_by_role("status", name="Waiting to be sent")).to_have_text("1 strike waits for a connection")
    orla.context.set_offline(False)
    saved(orla)


def test_a_dozen_tabs_share_one_line(orla: Page):
    strikes_step(orla)
    tabs = [orla.context.new_page() for _ in range(8)]
    for tab in tabs:
        tab.goto(orla.url)
        expect(tab.get_by_role("heading", name="Strikes", exact=True)).to_be_visible()
    take(orla, "-52")
    for tab in tabs:
        expect(tab.get_by_role("listitem").filter(has_text="52 mm").first).to_be_visible()


def test_a_player_goes_to_the_bin_and_comes_back(signed_in: Page):
    row = signed_in.get_by_role("listitem").filter(has_text="Orla Wethercote")
    row.get_by_role("button", name="Remove").click()
    signed_in.get_by_role("dialog").get_by_role("button", name="Remove").click()
    removed = signed_in.get_by_role("region", name="Bin")
    expect(removed.get_by_text("Orla Wethercote")).to_be_visible()
    removed.get_by_role("button", name="Bring back").click()
    expect(signed_in.get_by_role("link", name="Orla Wethercote")).to_be_visible()
    expect(removed).to_have_count(0)


KEPT_LATE = """() => {
  const { fetch } = window;
  window.fetch = async (request, ...more) => {
    if (request.method === "POST" && request.url.endsWith("/kept")) await new Promise((done) => setTimeout(done, 1000));
    return fetch(request, ...more);
  };
}"""


def test_a_kept_proposal_is_named_compared_and_taken_out(orla: Page):
    orla.evaluate(KEPT_LATE)  # the edit that is made meanwhile does not overtake it
    bench(orla).get_by_role("button", name="Keep this proposal").click()
    orla.get_by_role("group", name="Shaft lean").get_by_label("mean").fill("1")
    saved(orla)
    bench(orla).get_by_role("link", name=re.compile("^kept")).click()
    orla.get_by_label("Name of the one chosen").fill("before the lesson")
    orla.get_by_role("button", name="Name it").click()
    expect(orla.get_by_role("button", name=re.compile("before the lesson"))).to_be_visible()
    table = orla.get_by_role("table", name=re.compile("Inputs that differ"))
    expect(table.get_by_role("row", name=re.compile("shaft lean, mean"))).to_be_visible()
    orla.get_by_role("button", name="Take it out").click()
    expect(orla.get_by_text("Nothing kept yet. Press")).to_be_visible()
    orla.get_by_role("button", name="Put it back").click()
    expect(orla.get_by_role("button", name=re.compile("before the lesson"))).to_be_visible()


def test_sessions_are_listed_and_ended_and_the_password_is_changed(signed_in: Page, client):
    signed_in.get_by_role("link", name="Demo fitter").click()
    assert client.get("/api/fittings").status_code == 200, "a second session, somewhere else"
    expect(signed_in.get_by_text("this browser")).to_be_visible()
    signed_in.get_by_role("button", name=re.compile("^End the other")).click()
    expect(signed_in.get_by_role("button", name="End", exact=True)).to_have_count(0)
    assert client.get("/api/fittings").get_json()["code"] == "signed_out"
    signed_in.get_by_label("Present password").fill("not this one")
    signed_in.get_by_label("New password").fill("chalk, flint and thyme")
    signed_in.get_by_role("button", name="Change the password").click()
    expect(signed_in.get_by_text("is not the present password")).to_be_visible()
    signed_in.get_by_label("Present password").fill(DEMO_PASSWORD)
    signed_in.get_by_role("button", name="Change the password").click()
    expect(signed_in.get_by_text("Changed. Every other session has ended.")).to_be_visible()


def test_a_page_of_before_an_upgrade_says_so_and_takes_the_newer_program(orla: Page):
    newer, handicap = orla.get_by_role("alert", name="A newer Oblatus"), orla.get_by_label("Handicap")
    handicap.fill("13")
    saved(orla)
    expect(newer).to_have_count(0)  # this one began with the program that is served
    orla.evaluate("document.querySelector('script[type=module]').src = '/assets/index-older.js'")
    handicap.fill("13.5")
    expect(newer).to_contain_text("What is saved stays")
    saved(orla)
    newer.get_by_role("button", name="Load the newer one").click()
    expect(newer).to_have_count(0)
    expect(handicap).to_have_value("13.5")


def test_what_is_typed_and_chosen_and_not_sent_is_there_after_another_step_and_a_reload(orla: Page):
    strikes_step(orla)
    orla.get_by_label("Station").get_by_text("sand", exact=True).click()
    entry = orla.get_by_role("form", name="A strike by hand").get_by_label("Entry, mm")
    entry.fill("-47")
    orla.get_by_role("link", name="Proof").click()
    low = orla.get_by_role("checkbox", name=re.compile("^low runner"))
    low.click()
    orla.get_by_label("Rounds").fill("6")
    orla.get_by_label("Rounds").press("Tab")
    orla.get_by_role("link", name="Carries").click()
    orla.get_by_text("Measure", exact=True).click()
    orla.get_by_label("Paste from a spreadsheet").fill("82.5\n84")
    ball = orla.get_by_label(re.compile("^Carry of the next ball"))
    ball.fill("81")
    name = ball.get_attribute("aria-label")
    for again in (lambda: orla.get_by_role("link", name="Player").click(), orla.reload):
        again()
        orla.get_by_role("link", name="Carries").click()
        orla.get_by_text("Measure", exact=True).click()
        expect(orla.get_by_label(name)).to_have_value("81")
        expect(orla.get_by_label("Paste from a spreadsheet")).to_have_value("82.5\n84")
        orla.get_by_role("link", name="Proof").click()
        expect(orla.get_by_label("Rounds")).to_have_value("6")
        expect(low).to_be_checked()
        strikes_step(orla)
        expect(orla.get_by_label("Station").get_by_role("radio", name="sand")).to_be_checked()
        expect(entry).to_have_value("-47")
