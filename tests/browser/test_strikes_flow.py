"""Strikes by hand: practice marks, a station's plan, one set aside, and the habit taken over for the fitting."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from oblatus.devices.monitor import MonitorStandIn
from oblatus.devices.stand_in import Misbehaviour
from oblatus.usecases.bridge import Bridge, connect_to
from tests.browser.conftest import saved


def test_strikes_become_the_habit_by_keyboard(orla: Page):
    orla.locator("#work").focus()
    orla.keyboard.press("4")
    expect(orla.get_by_role("heading", name="Strikes", exact=True)).to_be_visible()
    expect(orla.get_by_text("No strike at this station yet", exact=False)).to_be_visible()
    keys, form = orla.keyboard, orla.get_by_role("form", name="A strike by hand")
    form.get_by_label("Entry, mm").focus()
    for entry, attack, lean in ((-60, -8, 9), (-66, -7.5, 10), (-70, -9, "9,5"), (-62, -8.2, 11), (-64, -7.7, 10)):
        keys.type(str(entry))
        keys.press("Tab")
        keys.type(str(attack))
        keys.press("Tab")
        keys.type(str(lean))
        keys.press("Enter")
    plan = orla.get_by_role("region", name="Plan")
    expect(plan.get_by_role("button", name="pitch 5 of 5")).to_be_visible()
    findings = orla.get_by_role("list", name="Findings")
    expect(findings).to_contain_text("ground before ball 5 of 5")
    strikes = orla.get_by_role("list", name="Strikes")
    orla.locator("#work").focus()
    keys.press("m")
    expect(orla.get_by_role("alert")).to_contain_text("heavy")
    keys.press("2")  # the reason, and not the step of that number
    expect(plan.get_by_role("button", name="pitch 4 of 5")).to_be_visible()
    expect(strikes.get_by_text("heavy")).to_be_visible()
    expect(findings.get_by_text("ground before ball")).to_have_count(0)
    orla.get_by_role("button", name="Use as the habit").click()
    saved(orla)
    expect(orla.get_by_text("The fitting stands on these strikes.")).to_be_visible()
    orla.locator("#work").focus()
    keys.press("1")
    attack = orla.get_by_role("group", name="Attack", exact=True)
    expect(attack.get_by_label("mean")).to_have_value(re.compile(r"^.8(\.\d)?$"))
    expect(attack.get_by_label("strikes")).to_have_value("4")


def settled(page: Page):
    """The picture of entries, once the session's strikes have come and nothing above it moves any more."""
    expect(page.get_by_role("table", name="What the strikes say")).to_be_visible()
    return page.get_by_role("group", name="Where the sole landed")


def test_practice_marks_are_made_on_the_ground_and_bad_figures_are_said(orla: Page):
    orla.get_by_role("link", name="Strikes").click()
    orla.get_by_role("radiogroup", name="Station").get_by_text("practice").click()
    picture = settled(orla)
    box = picture.bounding_box()
    for share in (0.40, 0.44, 0.42):
        orla.mouse.click(box["x"] + share * box["width"], box["y"] + 0.72 * box["height"])
    expect(orla.get_by_role("button", name="practice swing 3 of 10")).to_be_visible()
    expect(picture.get_by_text(re.compile(r"\d+\smm behind")).first).to_be_visible()
    form = orla.get_by_role("form", name="A strike by hand")
    form.get_by_label("Shaft lean, °").fill("90")
    expect(form.get_by_role("alert")).to_have_text("−25 to 35°")
    expect(form.get_by_role("button", name="Take strike")).to_be_disabled()


def test_a_session_from_the_stand_in_to_the_summary(orla: Page, database):
    """A monitor that repeats itself and sends rubbish: strikes show as they are hit, marked as simulated, and add up."""
    stand_in = MonitorStandIn(seed=4, every=0.6, most=12, wrong=Misbehaviour(repeat=0.3, rubbish=0.6)).start()
    bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{stand_in.port}"})).start()
    try:
        orla.get_by_role("link", name="Strikes").click()
        monitor = orla.get_by_role("region", name="Strike monitor")
        monitor.get_by_role("button", name="Connect the monitor").click()
        expect(monitor.get_by_role("status")).to_contain_text("stand-in monitor, live, simulated")
        expect(orla.get_by_label("Last strike", exact=True)).to_contain_text("pitch, simulated")
        plan = orla.get_by_role("region", name="Plan")
        expect(plan.get_by_role("button", name=re.compile("pitch (5 of 5|[6-9] hit, 5 wanted)"))).to_be_visible()
        orla.get_by_role("radiogroup", name="Station").get_by_text("chip").click()
        expect(plan.get_by_role("button", name=re.compile("chip ([3-5] of 5|[6-9] hit, 5 wanted)"))).to_be_visible()
        expect(monitor.get_by_role("status")).to_contain_text("12 taken")
        expect(monitor).to_contain_text("refused")
        expect(orla.get_by_text("12 of 56 simulated")).to_be_visible()
        orla.get_by_role("list", name="Strikes").get_by_role("button", name="Set aside").first.click()
        orla.get_by_role("button", name=re.compile("thin")).click()
        says = orla.get_by_role("table", name="What the strikes say")
        expect(says.get_by_role("row", name=re.compile("^pitch"))).to_contain_text("±")
        monitor.get_by_role("button", name="Stop the monitor").click()
        expect(monitor.get_by_role("status")).to_have_text("Strike monitor off")
    finally:
        bridge.close()
        stand_in.close()


def tap(page: Page, picture, share: float) -> None:
    box = picture.bounding_box()
    page.mouse.click(box["x"] + share * box["width"], box["y"] + 0.7 * box["height"])


def test_sand_is_marked_by_two_taps_and_the_eye_adds_what_no_device_sees(orla: Page):
    orla.get_by_role("link", name="Strikes").click()
    orla.locator("#work").focus()
    station = orla.get_by_role("radiogroup", name="Station")
    club = orla.get_by_role("combobox", name="Club")
    expect(station.get_by_role("radio", name="pitch")).to_be_checked()
    before = club.input_value()
    station.get_by_text("pitch").click()  # the focus stays on it
    orla.keyboard.press("PageUp")  # the two buttons of a remote: club, station
    expect(club).not_to_have_value(before)
    orla.keyboard.press("PageDown")
    orla.keyboard.press("PageDown")
    expect(station.get_by_role("radio", name="sand")).to_be_checked()
    picture = settled(orla)
    tap(orla, picture, 0.30)
    expect(picture).to_contain_text("now press where it came out")
    orla.keyboard.press("Escape")
    expect(picture).not_to_contain_text("now press where it came out")
    tap(orla, picture, 0.30)
    tap(orla, picture, 0.72)
    expect(orla.get_by_label("Last strike", exact=True)).to_contain_text("mark in the sand")
    about = orla.get_by_role("region", name="About the last strike")
    about.get_by_role("radiogroup", name="Divot of the last strike").get_by_text("shallow").click()
    sole = about.get_by_role("group", name="Mark on the sole")
    sole.focus()
    orla.keyboard.press("ArrowDown")
    expect(about.get_by_role("group", name=re.compile(r"Mark on the sole: \d+\smm behind the edge"))).to_be_visible()
    about.get_by_label("Note on the last strike").fill("wet face")
    orla.keyboard.press("Enter")
    strikes = orla.get_by_role("list", name="Strikes")
    expect(strikes).to_contain_text("wet face")
    expect(orla.get_by_role("status", name="Waiting to be sent")).to_have_count(0)
    orla.reload()
    orla.get_by_role("radiogroup", name="Station").get_by_text("sand").click()
    expect(strikes).to_contain_text(re.compile(r"sand mark \d+\smm, sole marked \d+\smm back, divot shallow, wet face"))


@pytest.mark.keeps_the_program
def test_strikes_wait_in_the_browser_without_a_network_and_arrive_once(orla: Page):
    orla.get_by_role("link", name="Strikes").click()
    orla.get_by_role("radiogroup", name="Station").get_by_text("practice").click()
    picture = settled(orla)
    orla.context.set_offline(True)
    for share in (0.40, 0.42, 0.44, 0.46):
        tap(orla, picture, share)
    waiting = orla.get_by_role("status", name="Waiting to be sent")
    expect(waiting).to_have_text("4 strikes wait for a connection")
    orla.keyboard.press("1")
    expect(orla.get_by_role("heading", name="Player", exact=True)).to_be_visible()
    expect(waiting).to_be_visible()  # on whatever step is open
    orla.context.set_offline(False)
    expect(waiting).to_have_count(0)
    orla.locator("#work").focus()
    orla.keyboard.press("4")
    expect(orla.get_by_role("region", name="Plan").get_by_role("button", name="practice swing 4 of 10")).to_be_visible()
    orla.reload()
    expect(orla.get_by_role("region", name="Plan").get_by_role("button", name="practice swing 4 of 10")).to_be_visible()
