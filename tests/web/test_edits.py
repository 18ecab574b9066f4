"""Edits that meet: merged field by field, refused one by one, recognised when they come twice; and the bin."""

from __future__ import annotations

import copy
import json
import re
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from uuid import UUID, uuid4

import pytest
from sqlalchemy import event

from oblatus.store.database import Database
from oblatus.store.tables import FittingRow, now
from oblatus.units import METRES_PER_YARD
from oblatus.usecases import bin as bins
from tests.files import in_base64


@pytest.fixture
def base(fitting) -> str:
    return f"/api/fittings/{fitting['id']}"


def edit(client, base, seen: dict, change, **more):
    """An edit of the player made on a fitting as it was seen."""
    before = copy.deepcopy(seen["document"]["player"])
    mine = copy.deepcopy(before)
    change(mine)
    body = {"revision": seen["revision"], "base": {"player": before}, "player": mine, **more}
    return client.patch(base, json=body)


def handicap(value):
    def change(player):
        player["handicap"] = value

    return change


def lean(value):
    def change(player):
        player["delivery"]["lean_deg"]["mean"] = value

    return change


def test_edits_of_two_fields_on_the_same_screen_are_merged(client, base, fitting):
    assert edit(client, base, fitting, handicap(3)).status_code == 200
    second = edit(client, base, fitting, lean(2.0)).get_json()
    player = second["document"]["player"]
    assert (player["handicap"], player["delivery"]["lean_deg"]["mean"]) == (3, 2.0)
    assert (second["conflicts"], second["refused"]) == ([], [])


@contextmanager
def heard(database: Database) -> Iterator[list[str]]:
    """The statements of this thread; the bridge asks beside it."""
    asked: list[str] = []
    here = threading.get_ident()

    def hear(_connection, _cursor, statement, *_):
        if threading.get_ident() == here:
            asked.append(statement)

    event.listen(database.engine, "before_cursor_execute", hear)
    try:
        yield asked
    finally:
        event.remove(database.engine, "before_cursor_execute", hear)


def test_an_edit_asks_the_database_little(client, base, fitting, database):
    """Every statement costs a hand more than PostgreSQL needs to answer it."""
    with heard(database) as asked:
        assert edit(client, base, fitting, lean(2.0), edit_id=str(uuid4())).status_code == 200
    assert any("UPDATE fitting" in statement for statement in asked)
    assert len(asked) <= 9, "\n".join(asked)


def test_a_file_of_the_page_asks_the_database_nothing(client, database):
    """A step has dozens of them."""
    with heard(database) as asked:
        assert client.get("/icon.svg").status_code == 200
    assert asked == []


def test_one_field_changed_by_two_is_told_and_stays_until_it_is_chosen(client, base, fitting):
    edit(client, base, fitting, handicap(3))
    second = edit(client, base, fitting, handicap(20)).get_json()
    assert second["document"]["player"]["handicap"] == 3
    assert second["draft"]["player"]["handicap"] == 20
    [conflict] = second["conflicts"]
    assert (conflict["name"], conflict["mine"], conflict["theirs"]) == ("handicap", 20, 3)
    seen = [{"path": conflict["path"], "theirs": conflict["value"]}]
    assert edit(client, base, fitting, handicap(20), settled=seen).get_json()["document"]["player"]["handicap"] == 20
    late = edit(client, base, fitting, handicap(7), settled=seen).get_json()
    assert late["conflicts"], "what was chosen over is not what stands there now"


def test_a_refused_field_holds_only_itself(client, base, fitting):
    def change(player):
        player["pitching_wedge_carry_m"] = 999
        lean(2.0)(player)

    reply = edit(client, base, fitting, change)
    found = reply.get_json()
    assert reply.status_code == 200
    assert [fault["field"] for fault in found["refused"]] == ["player.pitching_wedge_carry_m"]
    player = found["document"]["player"]
    assert player["delivery"]["lean_deg"]["mean"] == 2.0
    assert player["pitching_wedge_carry_m"] == fitting["document"]["player"]["pitching_wedge_carry_m"]
    assert found["draft"]["player"]["pitching_wedge_carry_m"] == 999
    assert found["refused"][0]["name"] == "full pitching-wedge carry"
    alone = edit(client, base, found, handicap(99))
    assert alone.status_code == 422
    assert [(one["field"], one["name"]) for one in alone.get_json()["faults"]] == [("player.handicap", "handicap")]


def test_shares_that_do_not_sum_hold_the_shares_and_not_the_firmness(client, base, fitting):
    grounds = copy.deepcopy(fitting["document"]["grounds"])
    grounds[0]["share"] = 0.1
    grounds[0]["turf"] |= {"firmness_g": 99.0, "firmness_source": "typed", "readings_g": []}
    body = {
        "revision": fitting["revision"],
        "base": {"grounds": fitting["document"]["grounds"]},
        "grounds": grounds,
    }
    found = client.patch(base, json=body).get_json()
    assert found["document"]["grounds"][0]["turf"]["firmness_g"] == 99.0
    assert found["document"]["grounds"][0]["share"] == fitting["document"]["grounds"][0]["share"]
    assert found["refused"][0]["field"] == "grounds"


def test_an_edit_whose_answer_was_lost_is_recognised(client, base, fitting):
    first = str(uuid4())
    one = edit(client, base, fitting, handicap(3), edit_id=first).get_json()
    again = edit(client, base, fitting, handicap(3), edit_id=first).get_json()
    assert again["revision"] == one["revision"]
    mine = copy.deepcopy(fitting["document"]["player"]) | {"handicap": 3}
    attempts = [{"edit_id": str(uuid4()), "sections": {}}, {"edit_id": first, "sections": {"player": mine}}]
    next_one = edit(client, base, fitting, handicap(4), edit_id=str(uuid4()), attempts=attempts).get_json()
    assert next_one["conflicts"] == [], "an edit does not meet itself"
    assert next_one["document"]["player"]["handicap"] == 4


def test_what_was_taken_of_an_edit_whose_answer_was_lost_is_known_too(client, base, fitting):
    """One field of it was refused, so that it is no edit that was made: what was taken is still the editor's own."""
    first = str(uuid4())

    def change(player):
        player["pitching_wedge_carry_m"] = 999
        player["handicap"] = 3

    edit(client, base, fitting, change, edit_id=first)
    mine = copy.deepcopy(fitting["document"]["player"])
    change(mine)
    attempts = [{"edit_id": first, "sections": {"player": mine}}]
    found = edit(client, base, fitting, handicap(4), edit_id=str(uuid4()), attempts=attempts).get_json()
    assert found["conflicts"] == []
    assert found["document"]["player"]["handicap"] == 4


def test_eight_racks_at_once_are_one_after_another(app, client):
    def csv(name: str) -> str:
        return f"code,name,loft_deg,bounce_deg\n{name},{name},56,10\n"

    answers = []

    def put(i: int) -> None:
        own = app.test_client()
        for cookie in ("oblatus",):
            own.set_cookie(cookie, client.get_cookie(cookie).value)
        own.environ_base["HTTP_X_CSRF_TOKEN"] = client.environ_base["HTTP_X_CSRF_TOKEN"]
        answers.append(own.put("/api/rack", json={"content": in_base64(csv(f"R{i}")), "revision": 1}).status_code)

    threads = [threading.Thread(target=put, args=(i,)) for i in range(8)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(answers) == [200] + [409] * 7
    assert client.get("/api/rack").get_json()["revision"] == 2


def test_a_removed_player_lies_in_the_bin_with_everything(client, stranger, base, fitting, database, monkeypatch):
    kept = client.post(f"{base}/kept", json={"revision": fitting["revision"], "label": "first"}).get_json()
    before = client.get(f"{base}/export").get_data()
    assert client.delete(base).status_code == 204
    assert client.get(base).status_code == 404
    [line] = client.get("/api/fittings/bin").get_json()["fittings"]
    assert line["player_name"] == "Orla Wethercote"
    assert stranger.get("/api/fittings/bin").get_json()["fittings"] == []
    assert stranger.post(f"/api/fittings/bin/{fitting['id']}/back").status_code == 404
    assert stranger.delete(f"/api/fittings/bin/{fitting['id']}").status_code == 404
    assert client.post(f"/api/fittings/bin/{fitting['id']}/back").status_code == 204
    assert client.get(f"{base}/export").get_data() == before
    assert client.get(f"{base}/kept").get_json()["kept"][0]["id"] == kept["id"]
    client.delete(base)
    assert bins.empty_bins(database) == 0
    monkeypatch.setattr(bins, "now", lambda: now() + bins.KEPT_FOR)
    assert bins.empty_bins(database) == 1
    assert client.get("/api/fittings/bin").get_json()["fittings"] == []


def test_a_strike_taken_out_counts_nowhere_and_comes_back_in_its_place(client, base):
    strikes = client.get(f"{base}/session").get_json()["strikes"]
    out = strikes[3]
    client.delete(f"{base}/strikes/{out['id']}")
    assert out["id"] not in {s["id"] for s in client.get(f"{base}/session").get_json()["strikes"]}
    assert out["id"] not in client.get(f"{base}/strikes.csv").get_data(as_text=True)
    assert [s["id"] for s in client.get(f"{base}/strikes/out").get_json()["strikes"]] == [out["id"]]
    again = client.post(f"{base}/strikes", json={"strikes": [out]})
    assert again.get_json()["taken"] == 0, "a late copy of it does not bring it back"
    client.post(f"{base}/strikes/{out['id']}/back")
    assert client.get(f"{base}/session").get_json()["strikes"] == strikes


def test_two_notes_on_a_strike_stand_beside_one_another(client, base):
    one = client.get(f"{base}/session").get_json()["strikes"][0]
    path = f"{base}/strikes/{one['id']}"

    def noted(note, was):
        answer = client.patch(path, json={"note": note, "note_was": was})
        found = client.get(f"{base}/session").get_json()["strikes"]
        return answer.status_code, next(strike["note"] for strike in found if strike["id"] == one["id"])

    assert noted("wet face, low", one["note"]) == (204, "wet face, low")
    assert noted("wet", "wet face, low") == (204, "wet"), "one may be made shorter"
    for _ in range(2):  # sent again, as it is when its answer was lost
        assert noted("gusty", one["note"]) == (204, "wet; gusty")
    assert noted("", one["note"]) == (204, "wet; gusty"), "whoever clears a note clears the one they saw"
    status, note = noted("x" * 195, one["note"])
    assert (status, note) == (422, "wet; gusty")
    assert noted("", "wet; gusty") == (204, "")


def test_a_kept_proposal_is_named_taken_out_and_compared(client, base, fitting):
    told = {"revision": fitting["revision"], "id": str(uuid4())}
    one = client.post(f"{base}/kept", json=told).get_json()
    changed = edit(client, base, fitting, lean(1.0)).get_json()
    two = client.post(f"{base}/kept", json={"revision": changed["revision"]}).get_json()
    assert client.post(f"{base}/kept", json=told).get_json() == one, (
        "sent again it is kept once, whatever was edited since"
    )
    path = f"{base}/kept/{one['id']}"
    assert client.patch(path, json={"label": " before "}).get_json()["label"] == "before"
    late = client.patch(path, json={"label": "spring", "was": ""})
    assert late.status_code == 409
    assert "“before”" in late.get_json()["message"]
    for _ in range(2):  # sent again, as it is when its answer was lost
        assert client.patch(path, json={"label": "spring", "was": "before"}).get_json()["label"] == "spring"
    whole = client.get(path).get_json()
    for query in (f"?other={two['id']}", ""):
        found = client.get(f"{path}/compare{query}").get_json()
        assert [d["name"] for d in found["differences"]] == ["shaft lean, mean"]
        assert found["differences"][0]["after"] == 1.0
    assert client.delete(path).status_code == 204
    assert [k["id"] for k in client.get(f"{base}/kept").get_json()["kept"]] == [two["id"]]
    (out,) = client.get(f"{base}/out").get_json()["kept"]
    assert path.endswith(out["id"])
    client.post(f"{path}/back")
    assert client.get(f"{base}/out").get_json()["kept"] == []
    assert client.get(path).get_json() == whole


def test_a_reader_of_yards_is_told_limits_that_they_can_type(client, base, fitting):
    def far(player):
        player["pitching_wedge_carry_m"] = 999

    assert client.put("/api/session/units", json={"distance": "yd", "speed": "mph"}).status_code == 200
    file = client.get(f"{base}/export").get_json()
    far(file["player"])
    [fault] = client.post("/api/fittings/import", json=file).get_json()["faults"]
    assert (fault["value"], fault["message"]) == ("999", "must be between 30 and 170 m"), "a file has one unit"
    [fault] = edit(client, base, fitting, far).get_json()["faults"]
    low, high = re.fullmatch(r"must be between ([\d.]+) and ([\d.]+)\u00a0yd", fault["message"]).groups()
    for typed in (float(low), float(high)):

        def near(player, carry=typed * METRES_PER_YARD):
            player["pitching_wedge_carry_m"] = carry

        assert edit(client, base, client.get(base).get_json(), near).status_code == 200


def test_what_an_earlier_program_did_not_keep_yet_is_no_difference(client, base, fitting):
    client.post(f"{base}/kept", json={"revision": fitting["revision"]})
    file = client.get(f"{base}/export").get_json()
    for ground in file["attached"]["kept"][0]["document"]["grounds"]:
        del ground["formerly"]
    made = client.post("/api/fittings/import", json=file).get_json()
    [kept] = client.get(f"/api/fittings/{made['id']}/kept").get_json()["kept"]
    there = f"/api/fittings/{made['id']}/kept/{kept['id']}"
    assert client.get(f"{there}/compare").get_json()["differences"] == []


def test_a_file_holds_everything_and_another_studio_reads_it(client, stranger, base, fitting):
    client.post(f"{base}/kept", json={"revision": fitting["revision"], "label": "first"})
    text = client.get(f"{base}/export").get_data()
    document = json.loads(text)
    assert [kept["label"] for kept in document["attached"]["kept"]] == ["first"]
    made = stranger.post("/api/fittings/import", data=text, content_type="application/json")
    assert made.status_code == 201, made.get_json()
    there = json.loads(stranger.get(f"/api/fittings/{made.get_json()['id']}/export").get_data())
    assert there == document
    document["attached"]["photos"] = [{"id": str(uuid4()), "jpeg": "no picture"}]
    bad = stranger.post("/api/fittings/import", data=json.dumps(document), content_type="application/json")
    assert bad.get_json()["faults"][0]["field"] == "attached.photos.0.jpeg"
    document["attached"]["photos"] = []
    document["attached"]["kept"][0]["result"] = {"clubs": 1}
    bad = stranger.post("/api/fittings/import", data=json.dumps(document), content_type="application/json")
    assert bad.get_json()["faults"][0]["field"].startswith("attached.kept.0.result")


def test_a_fitting_kept_by_an_earlier_program_takes_edits_of_fields_that_came_since(client, fitting, database):
    """Its row has neither the section nor the field; the screen was told both with their usual values."""
    with database.transaction() as session:
        row = session.get(FittingRow, UUID(fitting["id"]))
        row.document = {key: value for key, value in row.document.items() if key not in ("build", "evidence")}
        session.add(row)
    club = {"code": "own:0", "loft_deg": 50.8}
    body = {
        "revision": fitting["revision"], "edit_id": str(uuid4()), "base": {"build": fitting["document"]["build"]},
        "build": {**fitting["document"]["build"], "clubs": [club]},
    }  # fmt: skip
    reply = client.patch(f"/api/fittings/{fitting['id']}", json=body).get_json()
    assert reply["conflicts"] == []
    assert reply["document"]["build"]["clubs"][0]["code"] == "own:0"


def strike(club: str, loft_deg: float, carry_m: float) -> dict:
    return {"id": str(uuid4()), "club": club, "loft_deg": loft_deg, "swing": "full", "carry_m": carry_m}


def clubs_of_strikes(client, base) -> dict[str, str]:
    return {one["id"]: one["club"] for one in client.get(f"{base}/session").get_json()["strikes"]}


def put_wedges(client, base, seen: dict, wedges) -> dict:
    mine = {**seen["document"]["bag"], "wedges": wedges}
    body = {"revision": seen["revision"], "base": {"bag": seen["document"]["bag"]}, "bag": mine}
    reply = client.patch(base, json=body).get_json()
    assert (reply["refused"], reply["conflicts"]) == ([], [])
    return reply


def test_strikes_pins_and_the_sheet_go_with_their_wedge_when_another_leaves_the_bag_and_when_it_comes_back(
    client, base, fitting
):
    bag = fitting["document"]["bag"]
    lofts = [wedge["loft_deg"] for wedge in bag["wedges"]]
    hit = [strike(f"own:{n}", loft, 90.0 - 10 * n) for n, loft in enumerate(lofts)]
    assert client.post(f"{base}/strikes", json={"strikes": hit}).status_code in (200, 201, 204)
    last = len(lofts) - 1
    choices = {**fitting["document"]["choices"], "pinned": [{"loft_deg": lofts[last], "code": f"own:{last}"}]}
    sheet = {"clubs": [{"code": f"own:{last}", "loft_deg": lofts[last]}]}
    seen = client.patch(base, json={"revision": fitting["revision"], "choices": choices, "build": sheet}).get_json()

    gone = put_wedges(client, base, seen, bag["wedges"][1:])
    now_called = clubs_of_strikes(client, base)
    left = gone["document"]["bag"]["former"][0]
    assert (left["wedge"]["name"], left["became"]) == (bag["wedges"][0]["name"], "out of the bag")
    assert [now_called[one["id"]] for one in hit] == [left["code"], *(f"own:{n}" for n in range(last))]
    assert gone["document"]["choices"]["pinned"] == [{"loft_deg": lofts[last], "code": f"own:{last - 1}"}]
    assert [one["code"] for one in gone["document"]["build"]["clubs"]] == [f"own:{last - 1}"]

    back = put_wedges(client, base, gone, bag["wedges"])
    now_called = clubs_of_strikes(client, base)
    assert [now_called[one["id"]] for one in hit] == [one["club"] for one in hit]
    assert back["document"]["bag"] == bag
    assert back["document"]["choices"]["pinned"] == choices["pinned"]


def test_a_pin_and_a_line_of_the_sheet_whose_wedge_left_say_so_by_its_name_and_have_it_again_with_undo(
    client, base, fitting
):
    bag = fitting["document"]["bag"]
    loft, name = bag["wedges"][0]["loft_deg"], bag["wedges"][0]["name"]
    choices = {**fitting["document"]["choices"], "pinned": [{"loft_deg": loft, "code": "own:0"}]}
    sheet = {"clubs": [{"code": "own:0", "loft_deg": loft}]}
    seen = client.patch(base, json={"revision": fitting["revision"], "choices": choices, "build": sheet}).get_json()
    assert seen["by_hand"] == [name]

    gone = put_wedges(client, base, seen, bag["wedges"][1:])
    (left,) = gone["document"]["bag"]["former"]
    assert [pin["code"] for pin in gone["document"]["choices"]["pinned"]] == [left["code"]]
    assert gone["by_hand"] == [f"{name}, as it was"]
    assert all(not one["pinned"] for one in gone["recommendation"]["clubs"]), "it goes to no other"
    said = [note["text"] for note in gone["recommendation"]["notes"] if "set by hand" in note["text"]]
    assert said == [f"{name}, as it was, set by hand at {loft:g}°, cannot be built there: the best one stands."]
    refused = client.get(f"{base}/build").get_json()["message"]
    assert refused.startswith(f"Club 1 of the sheet, {name}, as it was, is neither owned nor on the rack")

    back = put_wedges(client, base, gone, bag["wedges"])
    assert back["document"]["bag"] == bag, "nothing else went by it"
    assert back["document"]["choices"]["pinned"] == choices["pinned"]
    assert [one["code"] for one in back["document"]["build"]["clubs"]] == ["own:0"]
    assert client.get(f"{base}/build").status_code == 200


def edit_choices(client, base, seen: dict, pinned: list[dict], wedges, **more) -> dict:
    """An edit of the pins on a fitting as it was seen, by the places of wedges."""
    before = {"choices": seen["document"]["choices"], **{name: seen["document"][name] for name in more}}
    mine = {"choices": {**before["choices"], "pinned": pinned}, **more}
    body = {"revision": seen["revision"], "edit_id": str(uuid4()), "base": before, "wedges": wedges, **mine}
    reply = client.patch(base, json=body).get_json()
    assert (reply["refused"], reply["conflicts"]) == ([], [])
    return reply


def test_pins_that_come_with_a_bag_go_by_it(client, base, fitting):
    """Work goes on from a kept proposal: own:0 is another wedge there than in the bag of today."""
    bag = fitting["document"]["bag"]
    pinned = [{"loft_deg": bag["wedges"][0]["loft_deg"], "code": "own:0"}]
    now = put_wedges(client, base, fitting, bag["wedges"][1:])
    now = edit_choices(client, base, now, [{"loft_deg": bag["wedges"][1]["loft_deg"], "code": "own:0"}], None)
    kept = edit_choices(client, base, now, pinned, bag["wedges"], bag=bag)
    assert (kept["document"]["choices"]["pinned"], kept["by_hand"]) == (pinned, [bag["wedges"][0]["name"]])
    assert kept["revision"] == now["revision"] + 1, "one act is one change"
    undone = edit_choices(
        client, base, kept, now["document"]["choices"]["pinned"], bag["wedges"][1:], bag=now["document"]["bag"]
    )
    assert (undone["document"]["choices"], undone["by_hand"]) == (now["document"]["choices"], [bag["wedges"][1]["name"]])


def test_a_pin_goes_to_the_wedge_that_its_screen_showed(client, base, fitting):
    """Somebody else took another wedge out of the bag since; the screen sends again what got no answer."""
    wedges = fitting["document"]["bag"]["wedges"]
    last = len(wedges) - 1
    pins = [[{"loft_deg": wedges[n]["loft_deg"], "code": f"own:{n}"}] for n in (last, 0)]
    put_wedges(client, base, fitting, wedges[1:])
    edit_id, choices = str(uuid4()), fitting["document"]["choices"]
    first = {"choices": {**choices, "pinned": pins[0]}}
    body = {"revision": fitting["revision"], "base": {"choices": choices}, "wedges": wedges}
    reply = client.patch(base, json={**body, "edit_id": edit_id, **first}).get_json()
    assert [pin["code"] for pin in reply["document"]["choices"]["pinned"]] == [f"own:{last - 1}"]
    assert reply["by_hand"] == [wedges[last]["name"]]

    again = {"edit_id": str(uuid4()), "attempts": [{"edit_id": edit_id, "sections": first}]}
    reply = client.patch(base, json={**body, **again, "choices": {**choices, "pinned": pins[1]}}).get_json()
    assert (reply["refused"], reply["conflicts"]) == ([], []), "what it began from is its own"
    assert reply["by_hand"] == [f"{wedges[0]['name']}, as it was"], "it is in the bag no longer, and named"


def test_strikes_that_waited_go_to_the_wedges_that_their_screen_showed(client, base, fitting):
    mine = fitting["document"]["bag"]["wedges"]
    shown = [{**mine[0], "name": "spare"}, *mine]
    of_old = [{**wedge, "loft": None} if n == 1 else wedge for n, wedge in enumerate(shown)]
    gone = put_wedges(client, base, put_wedges(client, base, fitting, shown), mine)
    assert gone["document"]["bag"]["former"] == [], "nothing had been measured with it"
    hit = [strike(f"own:{n}", wedge["loft_deg"], 80.0) for n, wedge in enumerate(shown)]
    for one in hit:
        assert client.post(f"{base}/strikes", json={"strikes": [one], "wedges": of_old}).get_json() == {"taken": 1}
    again = client.post(f"{base}/strikes", json={"strikes": hit, "wedges": shown}).get_json()
    assert again == {"taken": 0}, "sent again after a lost answer they are there already"
    after = client.get(base).get_json()
    (left,) = after["document"]["bag"]["former"]
    assert (left["wedge"]["name"], left["became"]) == ("spare", "out of the bag")
    assert after["revision"] == gone["revision"] + 1, "the bag has one more among those that were"
    found = clubs_of_strikes(client, base)
    assert [found[one["id"]] for one in hit] == [left["code"], *(f"own:{n}" for n in range(len(shown) - 1))]


@pytest.mark.parametrize("bag", ["x", [1], {"wedges": "x"}, {"wedges": [1, {"name": 7}, None]}, {"wedges": []}])
def test_pins_of_a_screen_whose_wedges_are_none_are_taken_all_the_same(client, base, fitting, bag):
    document = fitting["document"]
    pinned = [{"loft_deg": 50.0, "code": "own:0"}]
    body = {
        "revision": fitting["revision"], "wedges": [{"name": 5}, {}], "bag": document["bag"],
        "base": {"choices": document["choices"], "bag": bag}, "choices": {**document["choices"], "pinned": pinned},
    }  # fmt: skip
    reply = client.patch(base, json=body)
    assert reply.status_code == 200, reply.get_json()
    assert [pin["loft_deg"] for pin in reply.get_json()["document"]["choices"]["pinned"]] == [50.0]


@pytest.mark.parametrize(
    "sections",
    [
        {"choices": {"layouts": [{"shot": ["x"], "hole_m": 9.0}]}},
        {"bag": {"wedges": [{}]}, "build": {"clubs": [{"code": "own:0", "loft_deg": 999}]}},
        {"build": {"clubs": [{"code": "own:²", "loft_deg": 999}]}},
    ],
)
def test_a_section_that_is_no_document_is_refused_with_its_faults(client, base, fitting, sections):
    before = {name: fitting["document"][name] for name in sections}
    mine = {
        name: {**(before[name] or {}), **value} if isinstance(value, dict) else value for name, value in sections.items()
    }
    reply = client.patch(base, json={"revision": fitting["revision"], "base": before, **mine})
    assert reply.status_code == 422
    assert reply.get_json()["faults"]
