"""The course log: shots come in once, in any order, from phones, forms and files; what they say and offer."""

from __future__ import annotations

import copy
import json
from datetime import date, datetime, timedelta
from uuid import uuid4
from zoneinfo import ZoneInfo

import pytest

from oblatus.web.headers import ZONE_COOKIE
from tests.files import in_base64, workbook

NAME = "Joss Underhay"


@pytest.fixture
def base(client) -> str:
    """The demo player with a year of rounds."""
    lines = client.get("/api/fittings").get_json()["fittings"]
    return f"/api/fittings/{next(line['id'] for line in lines if line['player_name'] == NAME)}"


@pytest.fixture
def empty(fitting) -> str:
    """A player without a log."""
    return f"/api/fittings/{fitting['id']}"


def a_shot(**changes) -> dict:
    return {
        "id": str(uuid4()), "round": str(uuid4()), "on": "2026-05-01", "situation": "chip", "club": "own:0",
        "result": "green", **changes,
    }  # fmt: skip


def log(client, base) -> dict:
    reply = client.get(f"{base}/log")
    assert reply.status_code == 200, reply.get_json()
    return reply.get_json()


def edit(client, base, **sections) -> dict:
    reply = client.patch(base, json={"revision": client.get(base).get_json()["revision"], **sections})
    assert reply.status_code == 200, reply.get_json()
    return reply.get_json()


def note(client, base, *shots):
    return client.post(f"{base}/log", json={"shots": list(shots)})


def test_a_shot_sent_twice_counts_once_and_one_taken_back_stays_back(client, empty):
    one, gone = a_shot(), a_shot(removed=True)
    assert note(client, empty, one, one).get_json() == {"taken": 1}
    assert note(client, empty, one).get_json() == {"taken": 0}
    assert note(client, empty, {**one, "removed": True}).status_code == 200
    assert log(client, empty)["shots"] == 0
    assert note(client, empty, one).status_code == 200, "it comes again after it was taken back"
    note(client, empty, gone)
    note(client, empty, {**gone, "removed": False})
    assert log(client, empty)["shots"] == 0, "taken back before it came"


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"club": "own:7"}, "shots.0.club"),
        ({"on": str(date.today() + timedelta(days=3))}, "shots.0.on"),
        ({"left_m": 500}, "shots.0.left_m"),
        ({"situation": "putt"}, "shots.0.situation"),
    ],
)
def test_what_cannot_be_is_refused_at_its_field_and_nothing_is_taken(client, empty, change, field):
    reply = note(client, empty, a_shot(**change), a_shot())
    assert reply.status_code == 422
    assert field in [fault["field"].removeprefix("body.") for fault in reply.get_json()["faults"]]
    assert log(client, empty)["shots"] == 0


def test_a_log_says_as_much_as_its_shots(client, base):
    found = log(client, base)
    assert found["shots"] == sum(r["shots"] for r in found["rounds"]) > 400
    assert found["whole"]["shots"] == found["shots"] - found["unknown"]
    assert sum(line["seen"]["shots"] for line in found["situations"]) == found["whole"]["shots"]
    assert sum(line["seen"]["shots"] for line in found["clubs"]) == found["whole"]["shots"]
    assert sum(line["seen"]["shots"] for line in found["months"]) == found["whole"]["shots"]
    assert {line["seen"]["call"] for line in found["clubs"] if line["seen"]["shots"] < 8} == {"too few"}
    for head in found["heads"]:
        assert head["total"] == pytest.approx(head["model"] + head["proof"] + head["log"], abs=0.002)
    shots = client.get(f"{base}/log/rounds/{found['rounds'][0]['round']}").get_json()["shots"]
    over = sum(one["strokes"] - one["expected"] for one in shots if one["strokes"] is not None)
    assert over == pytest.approx(found["rounds"][0]["over"], abs=0.1)


def test_two_rounds_of_a_day_that_look_the_same_are_named(client, empty):
    for _ in range(2):
        other = str(uuid4())
        note(client, empty, *(a_shot(round=other, result=result) for result in ("green", "close", "thin", "over")))
    note(client, empty, a_shot(on="2026-05-02"))
    found = log(client, empty)
    assert [r["same_as"] for r in found["rounds"]] == [None, "2026-05-01", "2026-05-01"]
    out = found["rounds"][1]["round"]
    assert client.patch(f"{empty}/log/rounds/{out}", json={"out": True}).status_code == 204
    assert [r["same_as"] for r in log(client, empty)["rounds"]] == [None, None]
    client.patch(f"{empty}/log/rounds/{out}", json={"out": False})
    assert log(client, empty)["shots"] == 9
    assert client.patch(f"{empty}/log/rounds/{uuid4()}", json={"out": True}).status_code == 404


def test_a_shot_taken_back_does_not_come_back_with_its_round(client, empty):
    other = str(uuid4())
    back = a_shot(round=other)
    note(client, empty, back, a_shot(round=other))
    note(client, empty, {**back, "removed": True})
    client.patch(f"{empty}/log/rounds/{other}", json={"out": True})
    out = client.get(f"{empty}/out").get_json()["rounds"]
    assert out == [{"round": other, "on": back["on"], "shots": 1}], "of the two, the one that comes back"
    client.patch(f"{empty}/log/rounds/{other}", json={"out": False})
    assert log(client, empty)["shots"] == 1
    assert client.get(f"{empty}/out").get_json()["rounds"] == []


def test_an_offer_that_is_taken_moves_the_verdict_and_one_that_is_left_does_not(client, base):
    offers = {offer["key"]: offer for offer in log(client, base)["offers"]}
    before = client.get(base).get_json()
    decisions = [{"key": "mix", "accepted": False, "on": "2026-11-01", "shots": offers["mix"]["shots"]}]
    left = edit(client, base, after={**before["document"]["after"], "decisions": decisions})
    assert left["recommendation"]["scenarios"] == before["recommendation"]["scenarios"]
    states = {offer["key"]: offer["state"] for offer in log(client, base)["offers"]}
    assert (states["mix"], states["distances"]) == ("declined", "open")
    player = before["document"]["player"]
    taken = edit(client, base, player={**player, "shot_mix": offers["mix"]["shot_mix"]})
    share = {s["shot"]: s["share"] for s in taken["recommendation"]["scenarios"]}
    assert taken["recommendation"]["scenarios"] != before["recommendation"]["scenarios"], share
    distances = edit(
        client, base, choices={**before["document"]["choices"], "distances": offers["distances"]["distances"]}
    )
    assert distances["document"]["choices"]["distances"] == offers["distances"]["distances"]
    note(client, base, a_shot())
    assert {o["key"]: o["state"] for o in log(client, base)["offers"]}["mix"] == "newer"
    kept = client.get(f"{base}/kept").get_json()["kept"]
    assert client.get(f"{base}/kept/{kept[-1]['id']}").get_json()["document"]["player"]["shot_mix"] is None


def test_shots_are_counted_beside_what_the_fitter_typed_and_what_was_typed_comes_back(client, base):
    document = client.get(base).get_json()["document"]
    assumed = {offer["key"]: offer for offer in log(client, base)["offers"]}
    assert assumed["mix"]["before"]["shot_mix"] is None
    typed = {key: 0.0 for key in assumed["mix"]["shot_mix"]} | {"lush_rough": 0.7, "full": 0.3}
    edit(client, base, player={**document["player"], "shot_mix": typed})
    beside = {offer["key"]: offer for offer in log(client, base)["offers"]}["mix"]
    assert beside["words"].endswith("in the place of the typed mix")
    assert beside["before"]["shot_mix"] == typed
    assert beside["shot_mix"]["lush_rough"] > assumed["mix"]["shot_mix"]["lush_rough"] + 0.02
    put = {"shot_mix": beside["shot_mix"], "distances": None, "table_scale": None}
    said = {"key": "mix", "accepted": True, "on": "2026-11-01", "shots": beside["shots"], "put": put}
    decisions = [{**said, "before": beside["before"]}]
    edit(client, base, after={**document["after"], "decisions": decisions})
    edit(client, base, player={**document["player"], "shot_mix": beside["shot_mix"]})
    taken = {offer["key"]: offer for offer in log(client, base)["offers"]}["mix"]
    assert (taken["state"], taken["before"]["shot_mix"]) == ("accepted", typed)
    note(client, base, a_shot(situation="lush_rough"))
    newer = {offer["key"]: offer for offer in log(client, base)["offers"]}["mix"]
    assert (newer["state"], newer["before"]["shot_mix"]) == ("newer", typed), "counted beside what was typed, once"
    wrong = [{**said, "before": {"shot_mix": {"putt": 1.0}}}]
    reply = client.patch(
        base,
        json={"revision": client.get(base).get_json()["revision"], "after": {**document["after"], "decisions": wrong}},
    )
    assert reply.status_code == 422
    typed_bands = [{"from_m": 30, "to_m": 60, "share": 1.0}]
    edit(client, base, choices={**document["choices"], "distances": typed_bands})
    found = {offer["key"]: offer for offer in log(client, base)["offers"]}["distances"]
    assert [band["from_m"] for band in found["before"]["distances"]] == [30]
    assert found["distances"][0]["share"] > assumed["distances"]["distances"][0]["share"]


def test_what_was_said_of_a_head_stays_with_it_when_another_wedge_comes_into_the_bag(client, base):
    document = client.get(base).get_json()["document"]
    head = next(offer for offer in log(client, base)["offers"] if offer["evidence"])
    no = [{"key": head["key"], "accepted": False, "on": "2026-11-01", "shots": head["shots"]}]
    edit(client, base, after={**document["after"], "decisions": no})
    bag = document["bag"]
    spare = {**bag["wedges"][0], "name": "spare"}
    place = int(head["key"].split(":")[2])
    for wedges, now in (([spare, *bag["wedges"]], place + 1), (bag["wedges"], place)):
        after = edit(client, base, bag={**client.get(base).get_json()["document"]["bag"], "wedges": wedges})
        key = f"head:own:{now}:{head['key'].split(':')[-1]}"
        assert [one["key"] for one in after["document"]["after"]["decisions"]] == [key]
        states = {offer["key"]: offer["state"] for offer in log(client, base)["offers"]}
        assert (states[key], list(states.values()).count("declined")) == ("declined", 1)


def test_an_offer_counts_as_taken_only_while_the_fitting_holds_it(client, base):
    """Whatever was said: an answer and what it put in place are two edits, and either may be taken back alone."""
    offers = {offer["key"]: offer for offer in log(client, base)["offers"]}
    document = client.get(base).get_json()["document"]
    said = [{"key": "mix", "accepted": True, "on": "2026-11-01", "shots": offers["mix"]["shots"]}]

    def states() -> dict[str, str]:
        return {offer["key"]: offer["state"] for offer in log(client, base)["offers"]}

    edit(client, base, after={**document["after"], "decisions": said})
    assert states()["mix"] == "open", "said, but not put in place"
    edit(client, base, player={**document["player"], "shot_mix": offers["mix"]["shot_mix"]})
    assert states()["mix"] == "accepted"
    edit(client, base, choices={**document["choices"], "distances": offers["distances"]["distances"]})
    assert (states()["mix"], states()["distances"]) == ("accepted", "accepted")
    head = next(offer for offer in log(client, base)["offers"] if offer["evidence"])
    edit(client, base, evidence=[head["evidence"]])
    assert states()[head["key"]] == "accepted"
    edit(client, base, after=document["after"])
    assert states()["mix"] == "accepted", "held, whatever was said"
    edit(client, base, player=document["player"], evidence=[])
    assert (states()["mix"], states()[head["key"]]) == ("open", "open")


def test_a_proposal_kept_after_the_rounds_is_not_what_was_played_with(client, base):
    before = client.get("/api/claims").get_json()["claims"]
    revision = client.get(base).get_json()["revision"]
    assert client.post(f"{base}/kept", json={"revision": revision, "label": "this year"}).status_code == 201
    assert client.get("/api/claims").get_json()["claims"] == before
    assert client.get(f"{base}/timeline").get_json()["eras"][0]["promised_strokes_round"] == pytest.approx(
        before[0]["claimed"], abs=0.01
    )


def test_a_loft_that_was_typed_has_no_day(client, empty, base):
    document = client.get(base).get_json()["document"]
    wedges = [dict(wedge) for wedge in document["bag"]["wedges"]]
    whole = client.get(f"{base}/export").get_json()
    wedges[0]["loft_deg"] += 0.6
    whole["bag"]["wedges"], whole["attached"]["readings"] = wedges, []
    made = client.post("/api/fittings/import", json=whole).get_json()
    after = client.get(f"/api/fittings/{made['id']}/after").get_json()
    assert [(one["code"], one["read_on"]) for one in after["drifts"]] == [("own:0", None)]
    assert next(one for one in after["due"] if one["key"] == "lofts")["on"] == "2026-04-18", "not read again"
    assert client.get(f"/api/fittings/{empty.rpartition('/')[2]}").get_json()["steps"]["log"] == "empty"
    one = a_shot()
    note(client, empty, one)
    assert client.get(empty).get_json()["steps"]["log"] == "partly"
    note(client, empty, {**one, "removed": True})
    assert client.get(empty).get_json()["steps"]["log"] == "empty", "a shot taken back counts nowhere"


def test_a_head_that_did_worse_is_judged_by_what_it_did(client, base):
    """Taken, it counts in the proposal, and the log still looks at the shots against the model without it."""
    before = log(client, base)
    offer = next(
        o for o in before["offers"] if o["key"].startswith("head:") and o["evidence"]["shots"][0]["strokes"] > 0.02
    )
    evidence = [{**offer["evidence"], "shots": [{**s, "strokes": 0.6} for s in offer["evidence"]["shots"]]}]
    sheet = edit(client, base, evidence=evidence)
    assert [(e["source"], e["name"]) for e in sheet["document"]["evidence"]] == [("log", offer["evidence"]["name"])]
    assert [head["model"] for head in log(client, base)["heads"]] == [head["model"] for head in before["heads"]]


ROWS = """Date,Lie,Course,Distance [yd],Club,Result,Left [yd],Strokes
2026-05-01,greenside sand,Quarry Down,14,sand,on the green,4,3
2026-05-01,basic chip,Quarry Down,20,old gap,close,,
2026-05-01,approach,Quarry Down,88,pw,short of it,12,3
2026-05-01,basic chip,Quarry Down,20,old gap,close,,
"""


def post_file(client, base, text: str, take=False, mapping=None, keep_as=None):
    return client.post(
        f"{base}/log/file", json={"content": in_base64(text), "take": take, "mapping": mapping, "keep_as": keep_as}
    )


def test_a_mapping_is_kept_for_tables_with_the_same_header(client, empty, base, stranger):
    """Words for clubs are not: another player's bag has others."""
    odd = ROWS.replace("Result", "How it went").replace("close", "stiff")
    seen = post_file(client, empty, odd).get_json()
    assert (seen["rows"], seen["saved_as"], seen["missing"]) == (0, None, ["result"])
    mapping = {**seen["mapping"], "columns": {**seen["mapping"]["columns"], "result": 6}, "results": {"stiff": "close"}}
    mapping["results"] |= {"on the green": "green", "short of it": "short"}
    assert post_file(client, empty, odd, True, mapping, "club book").get_json()["taken"] == 4
    again = post_file(client, empty, odd).get_json()
    assert (again["saved_as"], again["rows"], again["refused"]) == ("club book", 4, [])
    assert post_file(client, empty, odd, take=True).get_json()["taken"] == 0, "taken through the mapping that is kept"
    other = post_file(client, base, odd).get_json()
    assert other["saved_as"] == "club book"
    assert "own:0" in again["mapping"]["clubs"].values()
    assert "old gap" in other["unknown"]["club"], "Joss has no such club"
    assert post_file(client, empty, ROWS).get_json()["saved_as"] is None, "another header"
    kept = client.get("/api/mappings?kind=log").get_json()["mappings"]
    assert [one["name"] for one in kept] == ["club book"]
    assert client.get("/api/mappings").get_json()["mappings"] == [], "strikes have their own"
    assert stranger.get("/api/mappings?kind=log").get_json()["mappings"] == []
    assert stranger.delete(f"/api/mappings/{kept[0]['id']}").status_code == 404
    assert client.delete(f"/api/mappings/{kept[0]['id']}").status_code == 204
    assert post_file(client, empty, odd).get_json()["rows"] == 0


def test_a_table_is_understood_taken_and_not_taken_twice(client, empty):
    seen = post_file(client, empty, ROWS).get_json()
    assert (seen["rows"], seen["refused"], seen["unknown"], seen["taken"]) == (4, [], {}, None)
    assert seen["missing"] == []
    assert seen["mapping"]["unit"] == "yd"
    assert log(client, empty)["shots"] == 0
    assert post_file(client, empty, ROWS, take=True).get_json()["taken"] == 4, "two rows alike are two shots"
    longer = ROWS + "2026-05-02,pitch,Quarry Down,40,old lob,heavy,,\n"
    assert post_file(client, empty, longer, take=True).get_json()["taken"] == 1
    found = log(client, empty)
    assert [r["shots"] for r in found["rounds"]] == [1, 4]
    assert {r["by"] for r in found["rounds"]} == {"file"}
    shots = client.get(f"{empty}/log/rounds/{found['rounds'][1]['round']}").get_json()["shots"]
    assert shots[0]["shot"]["distance_m"] == pytest.approx(14 * 0.9144)
    assert shots[0]["shot"]["holed_in"] == 3


def test_a_wrong_row_is_named_and_holds_every_other(client, empty):
    wrong = ROWS + "someday,basic chip,x,20,old gap,splendid,far,\n"
    found = post_file(client, empty, wrong, take=True).get_json()
    assert found["taken"] is None
    assert {(one["row"], one["field"]) for one in found["refused"]} == {(6, "on"), (6, "result"), (6, "left_m")}
    assert found["unknown"] == {"result": ["splendid"]}
    mapping = {**found["mapping"], "results": {**found["mapping"]["results"], "splendid": "close"}}
    again = post_file(client, empty, wrong.replace("someday", "2026-05-03").replace("far", "3"), True, mapping).get_json()
    assert again["taken"] == 5
    without = {**mapping, "columns": {k: v for k, v in mapping["columns"].items() if k != "club"}}
    assert post_file(client, empty, ROWS, True, without).status_code == 422
    assert post_file(client, empty, "").status_code == 422
    assert client.post(f"{empty}/log/file", json={"content": "no base64!"}).status_code == 422


def test_shots_of_any_sheet_of_a_workbook_are_taken(client, empty):
    """The sheet with most rows is read first; of another the columns are guessed anew, and a mapping says its own."""
    rows = [line.split(",") for line in ROWS.splitlines()]
    book = workbook({"2025": [*rows, *rows[1:]], "2026": [["My wedges"], [], *rows[:2]]})

    def post(**body):
        return client.post(f"{empty}/log/file", json={"content": in_base64(book), **body}).get_json()

    seen = post()
    assert (seen["layout"]["sheets"], seen["layout"]["sheet"], seen["rows"]) == (["2025", "2026"], "2025", 8)
    other = post(layout={"sheet": "2026"})
    assert (other["layout"]["sheet"], other["layout"]["header_row"], other["rows"]) == ("2026", 3, 1)
    assert post(layout={"sheet": "2026"}, mapping=seen["mapping"])["rows"] == 8, "a mapping has its own layout"
    assert post(mapping=other["mapping"], take=True, keep_as="book")["taken"] == 1
    again = post()
    assert (again["saved_as"], again["layout"]["sheet"], again["rows"]) == ("book", "2026", 1), "as it was read then"
    assert post(layout={"sheet": "2025"})["rows"] == 8, "and by hand any other"
    assert post(layout={"sheet": "2027"})["faults"][0]["field"] == "sheet"
    book = workbook({"Notes": [["day", "weather"], *[["fine", n] for n in range(9)]], "2027": rows})
    third = post()
    assert (third["saved_as"], third["layout"]["sheet"], third["rows"]) == ("book", "2027", 4), "by its header"


def test_a_table_with_decimal_commas_is_read(client, empty):
    table = ROWS.replace(",", ";").replace(";14;", ";14,5;").replace(";4;3", ";3,25;3")
    assert post_file(client, empty, table, take=True).get_json()["taken"] == 4
    found = client.get(f"{empty}/log/rounds/{log(client, empty)['rounds'][0]['round']}").get_json()["shots"]
    by_distance = {round(one["shot"]["distance_m"] / 0.9144, 3): one["shot"]["left_m"] for one in found}
    assert by_distance[14.5] == pytest.approx(3.25 * 0.9144)


def test_a_thousand_rounds_come_in_at_once(client, empty):
    rows = "".join(
        f"{date(2023, 1, 1) + timedelta(days=n)},basic chip,,,old gap,on the green,{n % 9},\n" for n in range(1000)
    )
    assert post_file(client, empty, ROWS.splitlines()[0] + "\n" + rows, take=True).get_json()["taken"] == 1000
    found = log(client, empty)
    assert len(found["rounds"]) == 1000
    assert found["whole"]["weight"] > 0.95


def test_the_log_goes_with_the_file_and_with_the_player(client, base, stranger, database):
    whole = client.get(f"{base}/export").get_json()
    assert len(whole["attached"]["log"]) == log(client, base)["shots"]
    assert len(whole["attached"]["handovers"][0]["scores"]) > 10
    made = stranger.post("/api/fittings/import", json=whole).get_json()
    there = f"/api/fittings/{made['id']}"
    assert log(stranger, there)["whole"] == log(client, base)["whole"]
    handed = stranger.get(f"{there}/handovers").get_json()["handovers"][0]
    assert (handed["path"], len(handed["scores"])) == ("", len(whole["attached"]["handovers"][0]["scores"]))
    client.delete(base)
    fitting_id = base.rpartition("/")[2]
    assert client.delete(f"/api/fittings/bin/{fitting_id}").status_code == 204
    with database.transaction() as session:
        from sqlalchemy import text

        left = session.execute(
            text("select count(*) from log_shot where fitting_id = :id"), {"id": fitting_id}
        ).scalar_one()
    assert left == 0


def test_the_next_fitting_starts_from_the_last(client, base):
    then = client.get(base).get_json()["document"]
    following = str(uuid4())
    assert client.post(f"{base}/next", json={"id": following}).get_json() == {"id": following}
    assert client.post(f"{base}/next", json={"id": following}).status_code == 201, "sent again it is the same"
    assert client.post(f"{base}/next", json={"id": str(uuid4())}).status_code == 409, "one follows already"
    now = client.get(f"/api/fittings/{following}").get_json()["document"]
    assert now["player"]["delivery"]["attack_deg"] == {**then["player"]["delivery"]["attack_deg"], "source": "earlier"}
    assert now["grounds"] == then["grounds"]
    lofts = [wedge["loft_deg"] for wedge in now["bag"]["wedges"]]
    rechecked = {d["code"]: d["now_deg"] for d in client.get(f"{base}/after").get_json()["drifts"]}
    assert lofts == pytest.approx([rechecked[f"own:{n}"] for n in range(len(lofts))], abs=0.01)
    assert (now["after"]["decisions"], len(now["after"]["trips"])) == ([], 2)
    line = client.get(f"/api/fittings/{following}/timeline").get_json()
    assert [(era["here"], era["rounds"]) for era in line["eras"]] == [(False, 42), (True, 0)]
    kinds = {moment["kind"] for moment in line["moments"]}
    assert kinds == {"fitting", "kept", "built", "handed over", "round", "recheck"}
    assert line["eras"][0]["promised_strokes_round"] > 1.0
    lines = {one["id"]: one for one in client.get("/api/fittings").get_json()["fittings"]}
    assert lines[base.rpartition("/")[2]]["followed"]
    assert lines[following]["follows"] == base.rpartition("/")[2]
    assert client.get(base).get_json()["document"] == then, "the last fitting stays as it was"


def test_why_a_trip_cannot_be_told_is_said_without_the_documents_keys(client, empty):
    document = client.get(empty).get_json()["document"]
    trip = {"name": "sands", "grounds": [{**document["grounds"][0], "name": "away", "share": 1.0}]}
    edit(client, empty, after={**document["after"], "trips": [trip]}, bag={**document["bag"], "wedges": []})
    refused = client.get(f"{empty}/trip?name=sands").get_json()
    assert refused["message"] == "wedges: there is no wedge to take along."


def test_days_are_those_where_the_browser_is(client, empty):
    """Twenty-six hours lie between the two: it is never one day in both."""
    begun = datetime.fromisoformat(next(f for f in client.get("/api/fittings").get_json()["fittings"])["updated_at"])
    for zone in ("Pacific/Kiritimati", "Etc/GMT+12"):
        client.set_cookie(ZONE_COOKIE, zone)
        line = client.get(f"{empty}/timeline").get_json()
        assert {era["on"] for era in line["eras"]} == {begun.astimezone(ZoneInfo(zone)).date().isoformat()}
        assert {moment["on"] for moment in line["moments"]} == {line["eras"][0]["on"]}
    client.delete_cookie(ZONE_COOKIE)


def test_what_is_due_is_told_put_off_and_looked_at(client, base):
    after = client.get(f"{base}/after").get_json()
    lofts = next(one for one in after["due"] if one["key"] == "lofts")
    assert lofts["on"] == "2026-12-03", "six months after the gauge had them"
    assert [d["advice"] for d in after["drifts"]] == ["leave", "leave", "bend back"]
    assert 0.05 < after["wear"]["worn"] < 0.3
    document = client.get(base).get_json()["document"]
    snoozes = [{"key": "grips", "until": "2099-01-01", "reason": "new ones are ordered"}]
    looked = [{"key": "grooves", "on": "2026-11-20"}]
    edit(client, base, after={**document["after"], "snoozes": snoozes, "looked_at": looked})
    due = {one["key"]: one for one in client.get(f"{base}/after").get_json()["due"]}
    assert due["grips"]["put_off"] == "new ones are ordered"
    assert due["grooves"]["on"] == "2027-11-20"
    line = next(one for one in client.get("/api/fittings").get_json()["fittings"] if one["player_name"] == NAME)
    assert (line["due_words"], line["due_late"]) == ("next visit", True)
    twice = {**document["after"], "snoozes": snoozes * 2}
    reply = client.patch(base, json={"revision": client.get(base).get_json()["revision"], "after": twice})
    assert reply.status_code == 422


def test_two_trips_of_one_name_are_refused_at_the_name_of_the_second(client, base):
    found = client.get(base).get_json()
    bay = found["document"]["after"]["trips"][0]["name"]
    after = copy.deepcopy(found["document"]["after"])
    after["trips"][1]["name"] = bay.upper()
    body = {"revision": found["revision"], "base": {"after": found["document"]["after"]}, "after": after}
    [fault] = client.patch(base, json=body).get_json()["faults"]
    assert (fault["field"], fault["name"]) == ("after.trips.1.name", f"{bay.upper()}: name")
    assert fault["message"] == "is the name of another trip, too"


def test_a_trip_is_worked_out_anew_for_another_pitching_wedge(client, base):
    ask = f"{base}/trip?name=Shingle Bay in June&doubt=no"
    before, found = client.get(ask).get_json(), client.get(base).get_json()
    bag = found["document"]["bag"]
    stronger = {**bag, "pitching_wedge_loft_deg": bag["pitching_wedge_loft_deg"] - 2.0}
    assert client.patch(base, json={"revision": found["revision"], "bag": stronger}).status_code == 200
    assert client.get(ask).get_json()["at_home_strokes_round"] != before["at_home_strokes_round"]


def test_a_trip_answers_and_its_mix_must_be_whole(client, base):
    found = client.get(f"{base}/trip?name=Shingle Bay in June&doubt=yes").get_json()
    assert found["advice"] in {"setup", "club", "both", "none"}
    assert found["setup"]["gain_strokes_round"] == pytest.approx(
        sum(c["gain_strokes_round"] for c in found["setup"]["changes"]), abs=0.01
    )
    assert found["setup"]["doubt"]["low"] < found["setup"]["gain_strokes_round"] < found["setup"]["doubt"]["high"]
    assert {lie["ground"] for lie in found["lies"]} == {"Shingle Bay"}
    assert client.get(f"{base}/trip?name=nowhere").status_code == 404
    document = client.get(base).get_json()["document"]
    trip = document["after"]["trips"][0]
    for wrong in (
        {**trip, "grounds": [{**trip["grounds"][0], "share": 0.4}]},
        {**trip, "from_on": "2027-06-14", "to_on": "2027-06-11"},
    ):
        body = {"revision": client.get(base).get_json()["revision"], "after": {**document["after"], "trips": [wrong]}}
        assert client.patch(base, json=body).status_code == 422
    # the venue is forgotten: the trip has its own copy of the ground
    for record in client.get("/api/venues").get_json()["records"]:
        client.delete(f"/api/venues/{record['id']}")
    assert client.get(f"{base}/trip?name=Shingle Bay in June").get_json()["advice"] == found["advice"]


def test_the_studios_claims_are_held_against_its_logs(client, base, stranger):
    found = client.get("/api/claims").get_json()
    assert [one["player"] for one in found["claims"]] == [NAME]
    assert found["claims"][0]["low"] < found["claims"][0]["seen"] < found["claims"][0]["high"]
    assert found["every"]["claims"] == 1
    assert found["would_be"] == found["claims_sd"] == 0.5
    assert stranger.get("/api/claims").get_json()["claims"] == []
    assert client.put("/api/claims", json={"claims_sd": 0.3}).get_json()["claims_sd"] == 0.3
    assert client.put("/api/claims", json={"claims_sd": 3.0}).status_code == 422
    new = client.post("/api/fittings", json={"player_name": "Somebody new"}).get_json()
    assert new["document"]["choices"]["economy"]["claims_sd"] == 0.3
    assert client.get(base).get_json()["document"]["choices"]["economy"]["claims_sd"] is None
    assert stranger.get("/api/claims").get_json()["claims_sd"] == 0.5


def test_shots_of_a_phone_go_to_the_clubs_as_they_are_called_today(client, app, base):
    handed = client.get(f"{base}/handovers").get_json()["handovers"][0]
    address = f"/api/page/{handed['path'].removeprefix('/p/')}"
    visitor = app.test_client()
    page = visitor.get(address).get_json()
    assert page["noted_shots"] == log(client, base)["shots"]
    assert [club["code"] for club in page["clubs"]][-2:] == ["pw", "9i"]
    assert page["clubs"][2]["name"] == "old sixty"
    # the bag is put in another order since
    document = client.get(base).get_json()["document"]
    wedges = document["bag"]["wedges"]
    edit(client, base, bag={**document["bag"], "wedges": [wedges[2], wedges[0]]})
    far = str(date.today() + timedelta(days=400))
    shots = [a_shot(club="own:2", on=far), a_shot(club="own:1"), a_shot(club="pw", advised="own:0")]
    assert visitor.post(f"{address}/shots", json={"shots": shots}).get_json() == {"taken": 3}
    with_clubs = {
        one["shot"]["id"]: (one["shot"]["club"], one["shot"]["advised"], one["shot"]["on"])
        for shot in shots
        for one in client.get(f"{base}/log/rounds/{shot['round']}").get_json()["shots"]
    }
    assert with_clubs[shots[0]["id"]][0] == "own:0", "the old sixty is the first one now"
    assert with_clubs[shots[0]["id"]][2] <= str(date.today() + timedelta(days=1)), "a phone with a wrong clock"
    former = client.get(base).get_json()["document"]["bag"]["former"][0]
    assert (with_clubs[shots[1]["id"]][0], former["wedge"]["name"]) == (former["code"], wedges[1]["name"])
    assert with_clubs[shots[2]["id"]][:2] == ("pw", "own:1")
    assert log(client, base)["unknown"] > 0
    assert visitor.post(f"{address[:-1]}x/shots", json={"shots": shots}).status_code == 404
    client.delete(f"{base}/handovers/{handed['id']}")
    assert visitor.post(f"{address}/shots", json={"shots": [a_shot()]}).status_code == 404


def test_shots_of_a_phone_go_to_grounds_and_clubs_that_were_only_named_otherwise(client, app, base):
    handed = client.get(f"{base}/handovers").get_json()["handovers"][0]
    address = f"/api/page/{handed['path'].removeprefix('/p/')}"
    page = app.test_client().get(address).get_json()
    lie = next(one for one in page["page"]["card"]["lies"] if one["key"].startswith("chip"))
    for name in ("Lon", "Long Barrow"):  # as it is typed
        document = client.get(base).get_json()["document"]
        place = next(n for n, one in enumerate(document["grounds"]) if lie["ground"] in (one["name"], *one["formerly"]))
        grounds = [{**one, "name": name} if n == place else one for n, one in enumerate(document["grounds"])]
        edit(client, base, grounds=grounds)
    wedges = client.get(base).get_json()["document"]["bag"]["wedges"]
    renamed = [{**wedges[0], "name": "the old one"}, *wedges[1:]]
    after = edit(client, base, bag={**document["bag"], "wedges": renamed})
    assert after["document"]["grounds"][place]["formerly"] == [lie["ground"]], "no page shows what was half typed"
    shot = a_shot(club="own:0", ground=lie["ground"])
    assert app.test_client().post(f"{address}/shots", json={"shots": [shot]}).get_json() == {"taken": 1}
    (noted,) = client.get(f"{base}/log/rounds/{shot['round']}").get_json()["shots"]
    assert (noted["shot"]["ground"], noted["shot"]["club"]) == ("Long Barrow", "own:0")
    back = edit(
        client, base, grounds=[{**one, "name": lie["ground"]} if n == place else one for n, one in enumerate(grounds)]
    )
    assert back["document"]["grounds"][place]["formerly"] == [], "it is called so again"


def test_a_build_takes_the_shots_of_its_clubs_along(client, base, database):
    """Renamed with the strikes: the shots of a club that is built anew stay with the club as it was."""
    from uuid import UUID

    from oblatus.store.builds import StudioBuilds
    from oblatus.store.repositories import studios

    before = {line["club"] for line in log(client, base)["clubs"]}
    assert "old sixty" in before
    with database.transaction() as session:
        names = {"own:2": "was:12345678:2"}
        StudioBuilds(session, studios(session)[0].id).rename_clubs(UUID(base.rpartition("/")[2]), names, names)
    after = log(client, base)
    assert "old sixty" not in {line["club"] for line in after["clubs"]}
    assert after["unknown"] > 0
    assert json.dumps(after)
