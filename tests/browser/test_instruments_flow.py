"""A ground from the venue library and the drop hammer, a club from the gauge with its photo, by the stand-ins."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from oblatus.devices.instruments import GaugeStandIn, HammerStandIn
from oblatus.usecases.bridge import Bridge, connect_to
from tests.browser.conftest import saved
from tests.formats.test_photos import jpeg


@pytest.fixture
def instruments(database):
    hammer, gauge = HammerStandIn(every=0.2).start(), GaugeStandIn(every=0.2).start()
    bridge = Bridge(
        database, connect_to({"hammer": f"127.0.0.1:{hammer.port}", "gauge": f"127.0.0.1:{gauge.port}"})
    ).start()
    yield
    bridge.close()
    hammer.close()
    gauge.close()


def test_last_winters_readings_are_taken_over_and_the_hammer_goes_beyond_them(orla: Page, instruments):
    orla.locator("#work").focus()
    orla.keyboard.press("2")
    library = orla.get_by_role("region", name="Venue library")
    venue = library.get_by_role("combobox", name="Venue")
    venue.fill("quarry down")
    library.get_by_role("button", name="Use last winter's").click()
    firmness = orla.get_by_label("Firmness", exact=True)
    expect(firmness).to_have_value(re.compile(r"^96"))
    expect(library.get_by_label("Read on")).to_have_value("2026-01-24")
    library.get_by_role("button", name="Its history: read 4 times").click()
    rows = library.get_by_role("table").get_by_role("row")
    expect(rows).to_have_count(5)
    rows.nth(1).get_by_role("button", name="Forget").click()
    expect(rows).to_have_count(4)
    library.get_by_role("button", name="Put them back").click()
    expect(rows).to_have_count(5)
    saved(orla)
    hammer = orla.get_by_role("region", name="drop hammer: Quarry Down")
    hammer.get_by_role("button", name="Read Quarry Down with the drop hammer").click()
    expect(orla.get_by_role("status", name="Devices")).to_contain_text("drop hammer live, simulated")
    drops = hammer.get_by_role("list", name="Readings of Quarry Down").get_by_role("listitem")
    expect(drops).to_have_count(6)
    drops.first.get_by_role("button").click()
    expect(hammer).to_contain_text("from 5, 1 set aside, simulated")
    hammer.get_by_role("button", name="Use them").click()
    expect(hammer).to_contain_text("The fitting stands on them.")
    expect(orla.get_by_label("Drops, g")).to_have_value(re.compile(r"^(\d+(\.\d)?\s*){5}$"))
    saved(orla)
    hammer.get_by_role("button", name="Stop the drop hammer").click()
    expect(hammer.get_by_role("status")).to_have_text("off")
    venue.fill("Long Barrow")
    library.get_by_role("button", name="Keep in the library").click()
    expect(library.get_by_role("button", name="Hide its history")).to_be_visible()


def test_the_gauge_flags_the_drift_and_a_photo_stays(orla: Page, instruments, tmp_path: Path):
    orla.locator("#work").focus()
    orla.keyboard.press("3")
    orla.get_by_role("button", name=re.compile("old lob")).click()
    gauge = orla.get_by_role("region", name="gauge: old lob")
    gauge.get_by_role("button", name="Read old lob with the gauge").click()
    expect(gauge.get_by_role("listitem")).to_have_count(3)
    orla.get_by_label("Measured loft").fill("62.5")  # whatever the gauge says, it is not this
    gauge.get_by_role("button", name="Use them").click()
    expect(gauge).to_contain_text("The fitting stands on them.")
    saved(orla)
    picture = tmp_path / "sole.jpg"
    picture.write_bytes(jpeg())
    orla.get_by_label("Photo of old lob").set_input_files(picture)
    shown = orla.get_by_role("img", name="old lob, 1")
    expect(shown).to_be_visible()
    expect(shown).to_have_js_property("naturalWidth", 200)
    saved(orla)
    orla.reload()
    orla.get_by_role("button", name=re.compile("old lob")).click()
    expect(orla.get_by_role("img", name="old lob, 1")).to_be_visible()
    picture.write_bytes(b"no picture")
    orla.get_by_label("Photo of old lob").set_input_files(picture)
    expect(orla.get_by_role("alert")).to_have_text("The photo is no PNG or JPEG that can be read.")
