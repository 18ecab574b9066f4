"""A proof: planned from the proposal, hit by keys and by the stand-in monitor, counted in the proposal; and the set built
from it, read by the stand-in gauge and signed."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from oblatus.devices.instruments import GaugeStandIn
from oblatus.devices.monitor import MonitorStandIn
from oblatus.usecases.bridge import Bridge, connect_to
from tests.browser.conftest import bench, saved


@pytest.fixture
def devices(database):
    monitor, gauge = MonitorStandIn(seed=9, every=0.4).start(), GaugeStandIn(every=0.2).start()
    ports = {"monitor": f"127.0.0.1:{monitor.port}", "gauge": f"127.0.0.1:{gauge.port}"}
    bridge = Bridge(database, connect_to(ports)).start()
    yield monitor
    bridge.close()
    gauge.close()
    monitor.close()


def test_from_a_proposal_over_a_proof_of_40_balls_to_a_signed_build(orla: Page, devices: MonitorStandIn):
    prove(orla, devices)
    build(orla)


def prove(orla: Page, stand_in: MonitorStandIn) -> None:
    """Forty balls, the first by keys, the others by the monitor; what they show counts in the proposal."""
    keys = orla.keyboard
    orla.locator("#work").focus()
    keys.press("8")
    expect(orla.get_by_role("heading", name="Proof", exact=True)).to_be_visible()
    sand = orla.get_by_role("group", name="Situations, one to three").get_by_label(re.compile("sand"))
    sand.and_(orla.get_by_role("checkbox", checked=True)).uncheck()
    expect(orla.get_by_text("40 balls in all, 20 with each club in each situation.")).to_be_visible()
    expect(
        orla.get_by_text("show a difference of 0.35 strokes a shot 8 times of 10; 0.1 would take 250.", exact=False)
    ).to_be_visible()
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
    expect(orla.get_by_text("The plan is hit")).to_be_visible(timeout=300_000)
    stand_in.close()  # nobody hits any more
    expect(orla.get_by_text("35 simulated", exact=False).first).to_be_visible()
    for n in range(8):
        expect(blocks.nth(n)).to_contain_text("5/5")
    counts = orla.get_by_role("region", name="In the proposal")
    counts.get_by_role("button", name="Let it count in the proposal").click()
    saved(orla)
    expect(counts).to_contain_text("strokes a shot against the model")
    expect(bench(orla)).to_contain_text(re.compile(r"(proved|level|contradicted|not settled): \d\.\d\d strokes"))


PLACES = """rows => rows.map((row) => {
  const [list, box] = [row.closest("ol").getBoundingClientRect(), row.getBoundingClientRect()];
  return [Math.round(box.x - list.x), Math.round(box.y - list.y)];
})"""
"""Where every row stands in its list."""


def build(orla: Page) -> None:
    """The sheet at the bench, every piece of work ticked, clubs read by gauge and by hand, signed."""
    orla.locator("#work").focus()
    orla.keyboard.press("9")
    order = orla.get_by_role("region", name="Order")
    order.get_by_role("button", name="Give it to the bench").click()
    expect(order).to_contain_text("At the bench: 0 of")
    work = orla.get_by_role("list", name=re.compile("order of work$"))
    rows = work.get_by_role("listitem")
    before = rows.evaluate_all(PLACES)
    for n in range(work.count()):
        boxes = work.nth(n).get_by_role("checkbox")
        for m in range(boxes.count()):
            boxes.nth(m).check()
    expect(order).not_to_contain_text("not ticked off")
    expect(work.get_by_text(re.compile("^Demo fitter, "))).to_have_count(rows.count())
    assert rows.evaluate_all(PLACES) == before, "a row moved from under a finger"
    gauge = orla.get_by_role("region", name=re.compile("^gauge: the built"))
    gauge.first.get_by_role("button", name=re.compile("with the gauge$")).click()
    expect(gauge.first.get_by_role("listitem")).to_have_count(3)
    gauge.first.get_by_role("button", name="Use them").click()
    expect(gauge.first).to_contain_text("The fitting stands on them.")
    gauge.first.get_by_role("button", name="Stop the gauge").click()
    for n in range(work.count()):
        read = orla.get_by_role("group", name=re.compile("as built$")).nth(n)
        built = orla.get_by_role("row", name=re.compile("^as built")).nth(n).get_by_role("cell")
        if n > 0:
            read.get_by_label("Read: loft").fill(built.nth(1).inner_text())
            read.get_by_label("Read: lie").fill(built.nth(3).inner_text())
        if read.get_by_label("Read: swing weight").count():
            read.get_by_label("Read: swing weight").fill("D4")
            orla.keyboard.press("Tab")
    orla.locator("#work").focus()
    saved(orla)
    sign = order.get_by_role("button", name="Sign it as built")
    expect(sign).to_be_visible()
    why = order.get_by_label(re.compile("outside tolerance: why"))
    if why.count():
        expect(sign).to_be_disabled()
        why.fill("the player likes the head so")
    sign.click()
    earlier = order.get_by_role("list", name="Earlier orders")
    expect(earlier).to_contain_text(re.compile("Signed .* by Demo fitter"))
    with orla.expect_download() as download:
        earlier.get_by_role("link", name="PDF").click()
    assert download.value.suggested_filename.endswith("build-sheet.pdf")
    orla.locator("#work").focus()
    orla.keyboard.press("3")
    expect(orla.get_by_text(re.compile("built \\d+ ")).first).to_be_visible()
    expect(orla.get_by_role("table", name="Clubs as they were").get_by_role("row").nth(1)).to_be_visible()


@pytest.mark.keeps_the_program
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
