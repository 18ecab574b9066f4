"""A proof: planned from the proposal, hit by keys and by the stand-in monitor, set aside, and counted in the proposal."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from oblatus.devices.monitor import MonitorStandIn
from oblatus.usecases.bridge import Bridge, connect_to
from tests.browser.conftest import bench, saved

pytestmark = pytest.mark.browser


def test_a_proof_of_40_balls_from_the_proposal_to_the_set(orla: Page, database):
    stand_in = MonitorStandIn(seed=9, every=0.15, most=400).start()
    bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{stand_in.port}"})).start()
    keys = orla.keyboard
    try:
        orla.locator("#work").focus()
        keys.press("8")
        expect(orla.get_by_role("heading", name="Proof", exact=True)).to_be_visible()
        sand = orla.get_by_role("group", name="Situations, one to three").get_by_label(re.compile("sand"))
        sand.and_(orla.get_by_role("checkbox", checked=True)).uncheck()
        expect(orla.get_by_text("40 balls in all, 20 with each club in each situation.")).to_be_visible()
        expect(orla.get_by_text("20 balls each tell 0.35 strokes a shot apart; 0.1 would take 250.")).to_be_visible()
        orla.get_by_role("button", name="Plan the proof").click()
        blocks = orla.get_by_role("list", name="Blocks").get_by_role("listitem")
        expect(blocks).to_have_count(8)
        orla.locator("#work").focus()
        for key in "gghgt":
            keys.press(key)
        expect(blocks.nth(0)).to_contain_text("5/5")
        keys.press("u")
        expect(blocks.nth(0)).to_contain_text("4/5")
        keys.press("g")
        expect(blocks.nth(1)).to_have_attribute("aria-current", "step")
        keys.press("b")
        row = orla.get_by_role("table", name="Balls in their order").get_by_role("row").nth(3)
        row.get_by_role("button", name="Set aside").click()
        row.get_by_role("button", name="disturbed").click()
        expect(blocks.nth(0)).to_contain_text("4/5")
        expect(row).to_contain_text("disturbed")
        row.get_by_role("button").click()
        expect(blocks.nth(0)).to_contain_text("5/5")
        orla.get_by_role("group", name="Feel of the last block").get_by_role("button", name="4").click()
        monitor = orla.get_by_role("region", name="Strike monitor")
        monitor.get_by_role("button", name="Connect the monitor").click()
        expect(orla.get_by_text("The plan is hit")).to_be_visible(timeout=90_000)
    finally:
        bridge.close()
        stand_in.close()
    expect(orla.get_by_text("35 simulated", exact=False).first).to_be_visible()
    for n in range(8):
        expect(blocks.nth(n)).to_contain_text("5/5")
    counts = orla.get_by_role("region", name="In the proposal")
    counts.get_by_role("button", name="Let it count in the proposal").click()
    saved(orla)
    expect(counts).to_contain_text("strokes a shot against the model")
    expect(bench(orla)).to_contain_text(re.compile(r"(proved|level|contradicted|not settled): \d\.\d\d strokes"))


def test_balls_wait_without_a_network_and_arrive_once(orla: Page):
    orla.get_by_role("link", name="Proof").first.click()
    orla.get_by_role("button", name="Plan the proof").click()
    blocks = orla.get_by_role("list", name="Blocks").get_by_role("listitem")
    expect(blocks.nth(0)).to_contain_text("0/5")
    orla.context.set_offline(True)
    orla.locator("#work").focus()
    for key in "ghg":
        orla.keyboard.press(key)
    expect(blocks.nth(0)).to_contain_text("3/5")
    expect(orla.get_by_text(re.compile("3 .*(waiting|wait)")).first).to_be_visible()
    orla.context.set_offline(False)
    expect(orla.get_by_text(re.compile("3 .*(waiting|wait)"))).to_have_count(0)
    orla.reload()
    expect(blocks.nth(0)).to_contain_text("3/5")
    expect(orla.get_by_role("list", name="Blocks").get_by_role("listitem").nth(0)).to_contain_text("3/5")
