"""Strikes from a spreadsheet of somebody else's making: mapped, checked, taken, taken back, and never twice."""

from __future__ import annotations

from pathlib import Path

import openpyxl
from playwright.sync_api import Page, expect

from tests.browser.looking import SIZES, look_at_sides

ROWS = (
    "Schläger;Shot type;Carry [yd];Apex;Attack angle",
    "Sand;9:00;62,0;48;-5,6",
    "Sand;9:00;60,5;47;-5,1",
    "Sand;9:00;605;47;-5,1",
    "Driver;full;228,0;90;1,2",
)


def open_import(page: Page, path: Path) -> None:
    page.get_by_role("link", name="Strikes").first.click()
    page.get_by_role("link", name="Strikes from a file").click()
    page.get_by_label("File of strikes").set_input_files(path)
    expect(page.get_by_role("table", name="Columns of the file")).to_be_visible()


def test_a_file_is_mapped_checked_and_taken_and_the_same_file_adds_nothing(orla: Page, tmp_path):
    path = tmp_path / "bay export.csv"
    path.write_bytes("\r\n".join(ROWS).encode("cp1252"))
    open_import(orla, path)
    columns = orla.get_by_role("table", name="Columns of the file")
    expect(columns.get_by_label("What Carry [yd] is")).to_have_value("carry_m")
    expect(columns.get_by_label("Unit of Carry [yd]")).to_have_value("yd")
    expect(columns.get_by_role("alert")).to_have_text("must be chosen")
    check = orla.get_by_role("button", name="Check all rows")
    expect(check).to_be_disabled()
    columns.get_by_label("Unit of Apex").select_option("ft")
    first = orla.get_by_role("table", name="The first strikes, as they will be taken")
    expect(first.get_by_role("row").nth(1)).to_contain_text("56.7")
    orla.get_by_label("What Driver means").select_option("leave these rows out")
    check.click()
    outcome = orla.get_by_role("region", name="Outcome")
    expect(outcome.get_by_role("status")).to_contain_text("2 new strikes of 4 rows; 1 left out as you said; 1 wrong")
    expect(outcome.get_by_role("list", name="Wrong rows")).to_contain_text("row 4, Carry [yd], “605”")
    with orla.expect_download() as download:
        outcome.get_by_role("link", name="Save the list of wrong rows").click()
    assert "must be between 1 and 200 m" in Path(download.value.path()).read_text("utf-8-sig")
    assert look_at_sides(orla, "a file", SIZES[1:]) == []
    orla.set_viewport_size({"width": 1280, "height": 800})
    take = outcome.get_by_role("button", name="Take 2 strikes")
    expect(take).to_be_disabled()
    outcome.get_by_label("Leave the wrong row out").check()
    take.click()
    expect(outcome.get_by_role("status")).to_contain_text("2 strikes taken from bay export.csv")
    # again, as another fitter would: the mapping is known, and nothing is new
    orla.get_by_label("File of strikes").set_input_files(path)
    expect(orla.get_by_text("Mapped as “bay export”, saved earlier.")).to_be_visible()
    orla.get_by_label("What Driver means").select_option("leave these rows out")
    check.click()
    expect(outcome.get_by_role("status")).to_contain_text("0 new strikes of 4 rows; 2 stand here already")
    orla.get_by_role("link", name="Back to Strikes").click()
    orla.get_by_role("link", name="Strikes from a file").click()
    expect(outcome.get_by_role("status")).to_contain_text("0 new strikes of 4 rows; 2 stand here already")
    expect(orla.get_by_label("What Driver means").locator("option:checked")).to_have_text("leave these rows out")
    orla.get_by_role("button", name="Put the file away").click()
    earlier = orla.get_by_role("list", name="Files taken before")
    expect(earlier.get_by_role("listitem")).to_contain_text("2 strikes")
    earlier.get_by_role("button", name="Take it back").click()
    expect(earlier.get_by_role("listitem")).to_contain_text("taken back")


def test_a_workbook_with_a_sheet_to_choose_and_a_file_that_is_none(orla: Page, tmp_path):
    book = openpyxl.Workbook()
    book.active.title = "notes"
    book.active.append(["nothing here"])
    page = book.create_sheet("strikes")
    for row in (["carry (m)", "entry (in)"], [61, -1.5], [62, -2], [63, -1]):
        page.append(row)
    path = tmp_path / "book.xlsx"
    book.save(path)
    open_import(orla, path)
    expect(orla.get_by_role("alert")).to_contain_text("club must be chosen: no column says which club it was")
    orla.get_by_role("group", name="Club").get_by_role("combobox").select_option("pitching wedge")
    first = orla.get_by_role("table", name="The first strikes, as they will be taken")
    expect(first.get_by_role("row").nth(1)).to_contain_text("−38")
    orla.get_by_role("heading", name="Strikes from a file").click()
    orla.evaluate(
        """() => {
            const data = new DataTransfer();
            data.setData("text/plain", "club\\tcarry (m)\\tentry (in)\\nPW\\t61\\t-2\\n");
            document.body.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true }));
        }"""
    )
    expect(orla.get_by_text("pasted cells.txt: 1 rows")).to_be_visible()
    expect(first.get_by_role("row").nth(1)).to_contain_text("−51")
    path.write_bytes(b"PK\x03\x04 cut off")
    orla.get_by_label("File of strikes").set_input_files(path)
    expect(orla.get_by_role("alert")).to_contain_text("The file is a damaged workbook: save it again. Nothing was taken.")
