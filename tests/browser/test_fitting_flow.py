"""A fitter's path through the real screen."""

from __future__ import annotations

import json
import re

import pytest
from playwright.sync_api import Page, expect

from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD
from tests.browser.conftest import bench, saved

NAME_OF_FOCUS = """() => {
    const e = document.activeElement;
    if (e === document.body) return "";
    return (e.labels?.[0]?.textContent ?? "") + "|" + (e.getAttribute("aria-label") ?? "") + "|" + e.textContent;
}"""


class Keyboard:
    """Keys as a person without a mouse presses them, counted but for what is typed."""

    def __init__(self, page: Page) -> None:
        self.page, self.presses = page, 0

    def press(self, key: str) -> None:
        """One press."""
        self.presses += 1
        self.page.keyboard.press(key)

    def type(self, text: str) -> None:
        """A value in place of the one that stands in the field."""
        self.page.keyboard.press("Control+a")
        self.page.keyboard.type(text)

    def tab_to(self, label: str, most: int = 60) -> None:
        """Tab until the field with this label has the focus."""
        for _ in range(most):
            self.press("Tab")
            if label in self.page.evaluate(NAME_OF_FOCUS):
                return
        pytest.fail(f"Tab never reached {label!r}")


MOST_PRESSES = 60


def test_from_an_empty_studio_to_a_kept_proposal_by_keyboard_alone(desk: Page, database):
    from sqlalchemy import text

    with database.engine.begin() as connection:
        connection.execute(text("delete from fitting"))
    keys = Keyboard(desk)
    expect(desk.get_by_label("E-mail")).to_be_focused()
    keys.type(DEMO_EMAIL)
    keys.press("Tab")
    keys.type(DEMO_PASSWORD)
    keys.press("Enter")
    expect(desk.get_by_text("No player yet")).to_be_visible()
    expect(desk.get_by_label("New player")).to_be_focused()

    keys.presses = 0
    keys.type("Wim Chalkley")
    keys.press("Enter")
    expect(bench(desk).get_by_role("article").first).to_be_visible()
    expect(desk.get_by_role("link", name="Player empty")).to_be_visible()
    expect(desk.get_by_role("heading", name="Player", level=1)).to_be_focused()
    for label, value in (("Attack, mean", "-7"), ("Shaft lean, mean", "6"), ("Entry, mean", "-40")):
        keys.tab_to(label)
        keys.type(value)
    keys.tab_to("Full pitching-wedge carry")
    keys.type("98")
    saved(desk)
    expect(desk.get_by_role("link", name="Player done")).to_be_visible()

    keys.press("Escape")
    keys.press("2")
    expect(desk.get_by_role("heading", name="Ground")).to_be_focused()
    keys.tab_to("Firmness")
    keys.type("132")
    saved(desk)
    turf = desk.get_by_role("radiogroup", name="Class").first
    expect(turf.get_by_role("radio", name="firm", exact=True)).to_be_checked()
    keys.tab_to("Penetrometer")
    keys.type("2.3")

    keys.press("Escape")
    keys.press("3")
    expect(desk.get_by_role("heading", name="Bag")).to_be_focused()
    keys.tab_to("Add a wedge they own")
    keys.press("Enter")
    expect(desk.get_by_label("Name", exact=True)).to_be_focused()
    keys.type("old sand")
    keys.tab_to("Measured loft")
    keys.type("55")
    keys.tab_to("Bounce")
    keys.type("11")
    saved(desk)

    keys.press("Escape")
    keys.press("7")
    expect(desk.get_by_role("heading", name="Soles")).to_be_focused()
    expect(bench(desk).get_by_role("button", name="Keep this proposal")).to_be_enabled()
    keys.press("k")
    expect(bench(desk).get_by_text(re.compile(r"kept \d\d:\d\d · unchanged"))).to_be_visible()
    expect(desk.get_by_role("link", name="Soles done")).to_be_visible()
    assert keys.presses < MOST_PRESSES


def test_the_number_of_wedges_is_taken_by_keyboard(orla: Page):
    keys = Keyboard(orla)
    keys.press("6")
    expect(orla.get_by_role("heading", name="Lofts")).to_be_focused()
    keys.tab_to("What a change wins")
    keys.press("ArrowRight")
    keys.tab_to("Two wedges")
    keys.press("Enter")
    expect(bench(orla).get_by_role("article")).to_have_count(2)
    saved(orla)


def test_the_demo_fitting_saved_to_a_file_and_loaded_again_is_equal(orla: Page, tmp_path):
    with orla.expect_download() as waiting:
        orla.get_by_role("link", name="Save to file").click()
    path = tmp_path / "fitting.json"
    waiting.value.save_as(path)
    sure = bench(orla).get_by_text(re.compile(r"better than today’s bag in .* trials$"))
    expect(sure).to_be_visible()
    clubs = bench(orla).get_by_role("article").all_inner_texts()
    orla.get_by_role("link", name="Oblatus").click()
    orla.get_by_label("Fitting document").set_input_files(path)
    expect(bench(orla).get_by_role("article")).to_have_count(3)
    expect(sure).to_be_visible()
    assert bench(orla).get_by_role("article").all_inner_texts() == clubs
    with orla.expect_download() as waiting:
        orla.get_by_role("link", name="Save to file").click()
    twin = tmp_path / "twin.json"
    waiting.value.save_as(twin)
    assert twin.read_text() == path.read_text()


def test_a_file_that_is_no_fitting_is_refused_with_its_field(signed_in: Page, tmp_path):
    path = tmp_path / "old.json"
    path.write_text(json.dumps({"format": "oblatus.fitting", "version": 0}))
    signed_in.get_by_label("Fitting document").set_input_files(path)
    expect(signed_in.get_by_role("alert")).to_contain_text("version = 0: this program reads version 1 only")
    expect(signed_in.get_by_role("listitem").filter(has_text="changed")).to_have_count(5)


def test_the_bench_follows_an_edit_and_undo_takes_it_back(orla: Page):
    why = bench(orla).get_by_role("article").first.locator("p").nth(2)
    before = why.inner_text()
    lean = orla.get_by_role("group", name="Shaft lean").get_by_label("mean")
    lean.fill("0")
    expect(why).not_to_have_text(before)
    saved(orla)
    orla.get_by_role("button", name="Undo").click()
    expect(lean).to_have_value("6")
    saved(orla)
    expect(why).to_have_text(before)


def test_a_wrong_value_is_said_at_its_field_kept_and_does_not_hold_the_rest_back(orla: Page):
    lean = orla.get_by_role("group", name="Shaft lean").get_by_label("mean")
    lean.fill("90")
    expect(orla.get_by_text("must be between −8 and 16°")).to_be_visible()
    expect(orla.get_by_text("not saved: 1 to mend")).to_be_visible()
    expect(lean).to_have_value("90")
    orla.get_by_role("link", name="Ground").click()
    orla.get_by_label("Firmness", exact=True).fill("80")
    expect(orla.get_by_role("button", name="Quarry Down").get_by_text("80 g")).to_be_visible()
    orla.get_by_role("link", name="Player").click()
    expect(lean).to_have_value("90")
    lean.fill("six")
    expect(orla.get_by_text("must be a number")).to_be_visible()
    lean.fill("5,5")
    saved(orla)
    orla.reload()
    expect(lean).to_have_value("5.5")
    orla.get_by_role("link", name="Ground").click()
    expect(orla.get_by_label("Firmness", exact=True)).to_have_value("80")


@pytest.mark.keeps_the_program
def test_what_is_typed_without_a_connection_is_there_afterwards(orla: Page):
    orla.context.set_offline(True)
    orla.get_by_label("Handicap").fill("7")
    expect(orla.get_by_text("no connection, kept here")).to_be_visible()
    orla.context.set_offline(False)
    saved(orla)
    orla.reload()
    expect(orla.get_by_label("Handicap")).to_have_value("7")


def test_a_draft_survives_a_closed_page(orla: Page):
    orla.route("**/api/fittings/*", lambda route: route.abort() if route.request.method == "PATCH" else route.continue_())
    orla.get_by_label("Handicap").fill("9")
    expect(orla.get_by_text("no connection, kept here")).to_be_visible()
    orla.unroute("**/api/fittings/*")
    orla.reload()
    saved(orla)
    expect(orla.get_by_label("Handicap")).to_have_value("9")


def test_two_screens_show_the_same_and_what_each_changed_is_merged(orla: Page):
    other = orla.context.new_page()
    other.goto(orla.url)
    other.get_by_label("Handicap").fill("3")
    saved(other)
    expect(orla.get_by_label("Handicap")).to_have_value("3")
    orla.get_by_label("Complaints, in their own words").fill("digs")
    other.get_by_label("Handicap").fill("4")
    saved(other)
    saved(orla)
    expect(orla.get_by_label("Handicap")).to_have_value("4")
    expect(other.get_by_label("Complaints, in their own words")).to_have_value("digs")


def test_shares_that_do_not_sum_are_said_and_mended(orla: Page):
    orla.get_by_role("link", name="Ground").click()
    orla.get_by_label("Share of their golf").fill("50")
    expect(orla.get_by_text("the shares sum to 90 %, not 100")).to_be_visible()
    orla.get_by_role("button", name="Scale to 100 %").click()
    saved(orla)
    expect(orla.get_by_text("shares sum to 100 %")).to_be_visible()


def test_a_head_taken_by_hand_stands_until_it_is_let_go(orla: Page):
    orla.get_by_role("link", name="Soles").click()
    why = bench(orla).get_by_role("article").first.locator("p").nth(2)
    first = why.inner_text()
    row = orla.get_by_role("table", name=re.compile("Heads in the place of")).get_by_role("row").nth(2)
    name = row.get_by_role("cell").first.inner_text().split("\n")[0].replace(" owned", "")
    row.get_by_role("button", name="Take it").click()
    expect(orla.get_by_text(f"{name}, by hand.")).to_be_visible()
    expect(why).not_to_have_text(first)
    orla.get_by_role("button", name="Let it go").click()
    expect(orla.get_by_text("by hand.")).to_have_count(0)
    saved(orla)
    expect(why).to_have_text(first)


def test_a_ladder_by_hand_is_scored_and_compared_with_what_was_kept(orla: Page):
    orla.get_by_role("button", name="Keep this proposal").click()
    expect(bench(orla).get_by_text("unchanged")).to_be_visible()
    orla.get_by_role("link", name="Lofts").click()
    orla.get_by_text("Ladder", exact=True).click()
    orla.get_by_label("Loft 2").fill("54")
    expect(orla.get_by_text("set by hand")).to_be_visible()
    expect(bench(orla).get_by_text("54°", exact=True)).to_be_visible()
    expect(orla.get_by_role("link", name="Lofts stale")).to_be_visible()
    bench(orla).get_by_role("link", name=re.compile("kept")).click()
    table = orla.get_by_role("table", name=re.compile("beside now"))
    expect(table.get_by_role("row").nth(2)).to_contain_text("54°")
    orla.get_by_role("button", name="Work on from this one").click()
    saved(orla)
    orla.get_by_role("link", name="Lofts").click()
    orla.get_by_text("Ladder", exact=True).click()
    expect(orla.get_by_text("of the shown set;")).to_be_visible()


def test_a_step_of_change_is_taken_by_a_press_and_let_go_by_another(orla: Page):
    orla.get_by_role("link", name="Lofts").click()
    steps = orla.get_by_role("list", name="What a change wins")
    proposed = steps.get_by_role("button", pressed=True)
    expect(proposed).to_contain_text("take this")
    name = proposed.inner_text().split("\n")[0]
    saved_now = bench(orla).get_by_text(re.compile(r"^\d\.\d\d strokes a round"))
    before = saved_now.inner_text()
    steps.get_by_role("button", name=re.compile("^today’s bag")).click()
    expect(steps.get_by_role("button", pressed=True)).to_contain_text("taken by hand")
    expect(
        bench(orla).get_by_text(f"Today's bag, taken by hand: two heads would win {before.split()[0]}")
    ).to_be_visible()
    steps.get_by_role("button", name=re.compile(f"^{name}")).click()
    saved(orla)
    expect(saved_now).to_have_text(before)
    expect(orla.get_by_role("list", name="Where the strokes go").get_by_role("listitem")).not_to_have_count(0)


def test_what_a_head_must_win_and_where_a_hole_is_can_be_said(orla: Page):
    orla.get_by_role("link", name="Lofts").click()
    steps = orla.get_by_role("list", name="What a change wins")
    expect(steps).to_be_visible()
    orla.locator("#work").focus()
    orla.keyboard.press("w")
    orla.get_by_role("textbox", name="A head must win").fill("2")
    saved(orla)
    expect(steps.get_by_role("button", name=re.compile("^today’s bag"))).to_contain_text("keep this")
    orla.get_by_role("textbox", name="A head must win").fill("")
    saved(orla)
    expect(steps.get_by_role("button", name=re.compile("^today’s bag"))).not_to_contain_text("keep this")
    orla.get_by_label("basic chip, to the hole").fill("30")
    saved(orla)
    row = orla.get_by_role("row").filter(has=orla.get_by_label("basic chip, to the hole"))
    expect(row).to_contain_text("typed")
    orla.get_by_label("basic chip, room").fill("40")
    expect(row).to_contain_text("leaves less than 1.0\u00a0m")
    row.get_by_role("button", name="Usual").click()
    saved(orla)
    expect(row).to_contain_text("assumed")


def test_keys_palette_and_remote_reach_every_step(orla: Page):
    orla.locator("#work").focus()
    for key, name in (("3", "Bag"), ("4", "Strikes"), ("0", "Card"), ("-", "Log"), ("1", "Player")):
        orla.keyboard.press(key)
        expect(orla.get_by_role("heading", name=name, exact=True)).to_be_visible()
    orla.keyboard.press("PageDown")
    expect(orla.get_by_role("heading", name="Ground")).to_be_visible()
    orla.keyboard.press("PageUp")
    expect(orla.get_by_role("heading", name="Player")).to_be_visible()
    orla.keyboard.press("/")
    orla.get_by_label("Step or command").fill("sol")
    orla.keyboard.press("Enter")
    expect(orla.get_by_role("heading", name="Soles")).to_be_visible()
    orla.go_back()
    expect(orla.get_by_role("heading", name="Player")).to_be_visible()
    orla.locator("#work").focus()
    orla.keyboard.press("?")
    expect(orla.get_by_role("dialog").get_by_text("keep this proposal")).to_be_visible()


def test_units_change_what_is_read_not_what_is_stored(orla: Page):
    expect(orla.get_by_label("Full pitching-wedge carry")).to_have_value("106")
    orla.get_by_role("button", name="m, m/s").click()
    expect(orla.get_by_label("Full pitching-wedge carry")).to_have_value("115.9")
    orla.get_by_label("Full pitching-wedge carry").fill("120")
    saved(orla)
    orla.get_by_role("button", name="yd, mph").click()
    expect(orla.get_by_label("Full pitching-wedge carry")).to_have_value("109.7")


def pass_words(page: Page) -> str:
    return page.get_by_role("slider", name="Sole pass: entry").get_attribute("aria-valuetext") or ""


def test_dragging_the_entry_goes_from_thin_to_clean_to_heavy(signed_in: Page):
    signed_in.goto(signed_in.url + "desk")
    signed_in.get_by_text("tight, firm").click()
    slider = signed_in.get_by_role("slider", name="Sole pass: entry")
    expect(slider).to_be_visible()
    expect(slider.get_by_text("turf 130 g")).to_be_visible()
    expect(slider).to_have_attribute("aria-valuetext", re.compile(r"^\w+"))
    box = slider.bounding_box()
    signed_in.mouse.move(box["x"] + box["width"] * 0.5, box["y"] + 150)
    signed_in.mouse.down()
    for share, outcome in ((0.66, "Thin"), (0.40, "Clean"), (0.22, "Heavy|Dug in")):
        signed_in.mouse.move(box["x"] + box["width"] * share, box["y"] + 150, steps=6)
        expect(slider).to_have_attribute("aria-valuetext", re.compile(f"^({outcome})"))
    signed_in.mouse.up()
    expect(signed_in.get_by_text("Same bounce by setup.")).to_be_visible()


def test_the_sole_pass_follows_its_dials_and_goes_back_to_the_player(orla: Page):
    orla.get_by_role("link", name="Soles").click()
    slider = orla.get_by_role("slider", name="Sole pass: entry")
    expect(slider).to_be_visible()
    before = pass_words(orla)
    slider.focus()
    for _ in range(25):
        orla.keyboard.press("ArrowLeft")
    expect(slider).not_to_have_attribute("aria-valuetext", before)
    windows = orla.get_by_role("group", name="Strike windows")
    expect(windows.get_by_role("img")).to_have_count(6)
    orla.locator("#work").focus()
    orla.keyboard.press("c")
    second = (windows.get_by_role("img").nth(1).get_attribute("aria-label") or "").split(":")[0]
    expect(slider.get_by_text(f"{second}:")).to_be_visible()
    orla.get_by_role("button", name="Back to the player's setup").click()
    expect(slider).to_have_attribute("aria-valuetext", before)


def test_switching_a_school_changes_the_setup_and_the_snapshot_keeps_the_old_one(orla: Page):
    orla.get_by_role("button", name="Keep this proposal").click()
    expect(bench(orla).get_by_text("unchanged")).to_be_visible()
    orla.get_by_role("radiogroup", name="Sand: opening").get_by_text("square").click()
    saved(orla)
    expect(orla.get_by_text("1 school chosen")).to_be_visible()
    expect(bench(orla).get_by_text("1 change since")).to_be_visible()
    orla.get_by_role("link", name="Soles").click()
    orla.get_by_role("button", name=re.compile(r"^All \d+ situations")).click()
    row = (
        orla.get_by_role("table", name="Every situation")
        .get_by_role("row")
        .filter(has_text=re.compile("^greenside sand[A-Z]"))
    )
    expect(row.first.get_by_role("cell").nth(7)).to_have_text("0")
    sure = bench(orla).get_by_text(re.compile(r"Among the best in (all|\d+ of) 500 trials"))
    expect(sure.first).to_be_visible()
    bench(orla).get_by_role("link", name=re.compile("kept")).click()
    differs = orla.get_by_role("table", name=re.compile("Inputs that differ"))
    expect(differs).to_contain_text("sand: openingown habitsquare")


def test_players_are_found_and_put_in_order(signed_in: Page):
    players = signed_in.get_by_role("region", name="Players")
    expect(players.get_by_role("listitem")).to_have_count(5)
    players.get_by_label("Find a player").fill("holl")
    expect(players.get_by_role("listitem")).to_have_count(1)
    expect(players.get_by_role("status")).to_have_text("1 of 5 players")
    players.get_by_label("Find a player").fill("")
    players.get_by_label("In order of").select_option("name")
    expect(players.get_by_role("listitem").first).to_contain_text("Ines Marchbank")
    expect(players.get_by_role("listitem").first).to_contain_text("nothing kept yet")
    players.get_by_label("In order of").select_option("due")
    expect(players.get_by_role("listitem").first).to_contain_text("Joss Underhay")
    expect(players.get_by_role("listitem").first).to_contain_text("due since")


def test_a_step_key_goes_to_the_heading_and_escape_leaves_a_field(orla: Page):
    orla.locator("#work").focus()
    orla.keyboard.press("6")
    expect(orla.get_by_role("heading", name="Lofts", level=1)).to_be_focused()
    orla.keyboard.press("1")
    field = orla.get_by_label("Handicap")
    field.focus()
    before = field.input_value()
    orla.keyboard.press("Escape")
    expect(field).not_to_be_focused()
    orla.keyboard.press("3")
    expect(orla.get_by_role("heading", name="Bag", level=1)).to_be_focused()
    orla.keyboard.press("1")
    expect(orla.get_by_label("Handicap")).to_have_value(before)
