"""A build sheet at the bench: heads from the rack, ticks, readings, signing; what is refused and what is never lost."""

from __future__ import annotations

import csv
import io
from concurrent.futures import ThreadPoolExecutor
from uuid import uuid4

import pypdfium2
import pytest
from sqlalchemy import create_engine, text
from sqlalchemy.exc import DBAPIError

from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD
from tests.conftest import signed_in
from tests.files import in_base64


def base_of(client, name) -> str:
    lines = client.get("/api/fittings").get_json()["fittings"]
    return f"/api/fittings/{next(line['id'] for line in lines if line['player_name'] == name)}"


@pytest.fixture
def base(client) -> str:
    """The demo player whose set is being built: a new head among the clubs."""
    return base_of(client, "Tam Hollis")


def stock(client) -> dict[str, int]:
    return {head["code"]: head["stock"] for head in client.get("/api/rack").get_json()["heads"]}


def order(client, base, order_id=None):
    revision = client.get(base).get_json()["revision"]
    return client.post(f"{base}/build/orders", json={"id": order_id or str(uuid4()), "revision": revision})


def put_build(client, base, clubs) -> dict:
    revision = client.get(base).get_json()["revision"]
    reply = client.patch(base, json={"revision": revision, "build": {"clubs": clubs}})
    assert reply.status_code == 200, reply.get_json()
    return reply.get_json()


def read_all(client, base, *, off=0.0) -> list[dict]:
    """Type what the gauge and the scale would read, the first loft off by so much."""
    sheet = client.get(f"{base}/build").get_json()
    clubs = []
    for n, club in enumerate(sheet["clubs"]):
        after, built = club["after"], club["built"]
        read = {
            "loft_deg": after["loft_deg"] + (off if n == 0 else 0.0), "lie_deg": after["lie_deg"],
            "swing_weight": built and built["swing_weight"], "typed": True,
        }  # fmt: skip
        clubs.append({**club["wish"], "read": read})
    put_build(client, base, clubs)
    return clubs


def tick_all(client, base, order_id) -> None:
    sheet = client.get(f"{base}/build").get_json()
    for n, club in enumerate(sheet["clubs"]):
        for m in range(len(club["operations"])):
            body = {"club": n, "operation": m, "done": True}
            assert client.put(f"{base}/build/orders/{order_id}/ticks", json=body).status_code == 204


def test_no_proposed_set_of_a_rack_that_was_not_seen_goes_to_the_bench(client):
    base = base_of(client, "Orla Wethercote")
    seen = client.get(base).get_json()
    head = next(club["code"] for club in seen["recommendation"]["clubs"] if not club["owned"])
    rack = client.get("/api/rack").get_json()
    lines = "".join(
        f"{h['code']},{h['name']},{h['loft_deg']},{h['bounce_deg']}\n" for h in rack["heads"] if h["code"] != head
    )
    told = {"content": in_base64(f"code,name,loft_deg,bounce_deg\n{lines}"), "revision": rack["revision"]}
    assert client.put("/api/rack", json=told).status_code == 200
    body = {"id": str(uuid4()), "revision": seen["revision"], "rack_key": seen["rack_key"]}
    reply = client.post(f"{base}/build/orders", json=body)
    assert (reply.status_code, reply.get_json()["code"]) == (409, "conflict")
    now = client.get(base).get_json()
    assert client.post(f"{base}/build/orders", json={**body, "rack_key": now["rack_key"]}).status_code == 201


def test_an_order_is_no_other_for_a_wedge_that_came_into_the_bag_or_left_it(client, base):
    """A club goes by its place in the bag: "head changed since the sheet went to the bench" was said of it, and its ticks
    were lost with the changed sheet."""
    seen = client.get(base).get_json()
    bag = seen["document"]["bag"]
    owned = bag["wedges"][0]
    put_build(client, base, [{"code": "own:0", "loft_deg": owned["loft_deg"] + 1.0}])
    sheet = order(client, base).get_json()
    assert sheet["clubs"][0]["operations"]
    body = {"club": 0, "operation": 0, "done": True}
    assert client.put(f"{base}/build/orders/{sheet['order']['id']}/ticks", json=body).status_code == 204
    for wedges, code in (([{**owned, "name": "spare"}, *bag["wedges"]], "own:1"), (bag["wedges"], "own:0")):
        now = client.get(base).get_json()
        change = {"revision": now["revision"], "bag": {**now["document"]["bag"], "wedges": wedges}}
        assert client.patch(base, json=change).status_code == 200
        sheet = client.get(f"{base}/build").get_json()
        assert [club["wish"]["code"] for club in sheet["clubs"]] == [code]
        assert (sheet["order"]["changed"], len(sheet["order"]["ticks"])) == ([], 1)


def test_an_order_takes_heads_once_and_gives_them_back_when_it_is_cancelled(client, base):
    before, one = stock(client), str(uuid4())
    reply = order(client, base, one)
    assert reply.status_code == 201
    sheet = reply.get_json()
    new = [club["wish"]["code"] for club in sheet["clubs"] if club["action"] == "replace"]
    assert new
    assert sheet["order"]["heads"] == [club["name"] for club in sheet["clubs"] if club["action"] == "replace"]
    taken = {code: before[code] - left for code, left in stock(client).items() if before[code] != left}
    assert taken == {code: new.count(code) for code in new}
    assert order(client, base, one).status_code == 201  # sent again
    assert stock(client) == {**before, **{code: before[code] - new.count(code) for code in new}}
    second = order(client, base)
    assert second.status_code == 422
    assert "at the bench already" in second.get_json()["faults"][0]["message"]
    # its own heads are on the shelf for it: the proposal is the same
    assert [club["on_shelf"] for club in sheet["clubs"] if club["on_shelf"] is not None] == [before[c] for c in new]
    for _ in range(2):
        assert client.delete(f"{base}/build/orders/{one}").status_code == 204
    assert stock(client) == before
    after = client.get(f"{base}/build").get_json()
    assert after["order"] is None
    assert [(e["state"], e["ended_by"]) for e in after["earlier"]] == [("cancelled", "Demo fitter")]
    tick = client.put(f"{base}/build/orders/{one}/ticks", json={"club": 0, "operation": 0, "done": True})
    assert "was cancelled by Demo fitter" in tick.get_json()["faults"][0]["message"]


def test_two_fitters_cannot_take_the_last_head(app, client, base, database, server):
    sheet = client.get(f"{base}/build").get_json()
    code = next(club["wish"]["code"] for club in sheet["clubs"] if club["action"] == "replace")
    owner = create_engine(server.owner_url())
    with owner.begin() as connection:
        connection.execute(text("update rack_head set stock = 1 where code = :code"), {"code": code})
    owner.dispose()
    other = base_of(client, "Orla Wethercote")
    clubs = [c["wish"] for c in client.get(f"{other}/build").get_json()["clubs"]]
    put_build(client, other, [*clubs[:1], next(c["wish"] for c in sheet["clubs"] if c["wish"]["code"] == code)])
    clients = [signed_in(app, DEMO_EMAIL, DEMO_PASSWORD) for _ in range(2)]
    with ThreadPoolExecutor(2) as pool:
        replies = list(pool.map(order, clients, (base, other)))
    assert sorted(reply.status_code for reply in replies) == [201, 422]
    assert stock(client)[code] == 0
    refused = next(reply for reply in replies if reply.status_code == 422).get_json()["faults"][0]
    assert refused["field"].endswith(".code")
    assert "gone from the shelf" in refused["message"]


def test_a_sheet_that_was_changed_is_said_and_taken_into_the_order_by_a_press(client, base):
    one = order(client, base).get_json()["order"]["id"]
    tick_all(client, base, one)
    sheet = client.get(f"{base}/build").get_json()
    before = len(sheet["order"]["ticks"])
    clubs = [club["wish"] for club in sheet["clubs"]]
    changed = {**clubs[-1], "swing_weight": "D6"}
    revision = put_build(client, base, [*clubs[:-1], changed])["revision"]
    said = client.get(f"{base}/build").get_json()["order"]["changed"]
    assert len(said) == 1
    assert "swing weight changed since" in said[0]
    read_all(client, base)
    revision = client.get(base).get_json()["revision"]
    refused = client.post(f"{base}/build/orders/{one}/sign", json={"revision": revision})
    assert refused.status_code == 422
    stale = client.put(f"{base}/build/orders/{one}", json={"revision": revision - 1})
    assert stale.status_code == 409
    anew = client.put(f"{base}/build/orders/{one}", json={"revision": revision}).get_json()
    assert anew["order"]["changed"] == []
    kept = [tick["club"] for tick in anew["order"]["ticks"]]
    assert len(clubs) - 1 not in kept
    assert 0 < len(kept) < before


def test_a_signed_build_is_the_bag_and_is_never_rewritten(client, base, database, server, settings):
    bag = client.get(base).get_json()["document"]["bag"]
    one = order(client, base).get_json()["order"]["id"]
    missing = client.get(f"{base}/build").get_json()["order"]["missing"]
    assert any("not ticked off" in words for words in missing)
    tick_all(client, base, one)
    read_all(client, base, off=0.6)
    sheet = client.get(f"{base}/build").get_json()
    assert sheet["order"]["missing"] == []
    assert sheet["order"]["off"] == 1
    left = stock(client)
    revision = client.get(base).get_json()["revision"]
    sign = f"{base}/build/orders/{one}/sign"
    unsaid = client.post(sign, json={"revision": revision})
    assert unsaid.get_json()["faults"][0]["field"] == "reason"
    signed = client.post(sign, json={"revision": revision, "reason": "the player likes it so"})
    assert signed.status_code == 200, signed.get_json()
    assert client.post(sign, json={"revision": revision, "reason": "again"}).status_code == 200
    assert stock(client) == left
    view = client.get(base).get_json()
    wedges = view["document"]["bag"]["wedges"]
    assert [w["loft_deg"] for w in wedges] == pytest.approx(
        [c["after"]["loft_deg"] + (0.6 if n == 0 else 0.0) for n, c in enumerate(sheet["clubs"])]
    )
    assert all(w["measured"] and w["loft_typed"] for w in wedges)
    assert {w["built"]["order_id"] for w in wedges} == {one}
    assert view["document"]["build"]["clubs"] == []
    assert view["steps"]["build"] == "done"
    former = view["document"]["bag"]["former"]
    assert {(f["wedge"]["name"], f["wedge"]["loft_deg"]) for f in former} <= {
        (w["name"], w["loft_deg"]) for w in bag["wedges"]
    }
    earlier = client.get(f"{base}/build").get_json()["earlier"][0]
    assert earlier["state"] == "built"
    assert earlier["reason"] == "the player likes it so"
    owner = create_engine(server.owner_url())
    with pytest.raises(DBAPIError, match="never rewritten"), owner.begin() as connection:
        connection.execute(text("update build_order set made_by = 'somebody else'"))
    owner.dispose()
    # a file holds it, and another fitting read from that file has it as its own
    file = client.get(f"{base}/export")
    again = client.post("/api/fittings/import", data=file.data, content_type="application/json").get_json()
    assert again["document"]["bag"]["wedges"][0]["built"]["order_id"] != one
    copied = client.get(f"/api/fittings/{again['id']}/build").get_json()["earlier"]
    assert [(e["state"], e["reason"]) for e in copied] == [("built", "the player likes it so")]


def test_strikes_and_readings_go_with_their_clubs(client, base):
    bag = client.get(base).get_json()["document"]["bag"]["wedges"]
    strikes = [
        {"id": str(uuid4()), "club": f"own:{n}", "loft_deg": wedge["loft_deg"], "swing": "pitch", "carry_m": 30.0 + n}
        for n, wedge in enumerate(bag)
    ]
    assert client.post(f"{base}/strikes", json={"strikes": strikes}).status_code == 200
    wishes = [club["wish"] for club in client.get(f"{base}/build").get_json()["clubs"]]
    bent = next(n for n, wish in enumerate(wishes) if wish["code"].startswith("own:"))
    wishes[bent] = {**wishes[bent], "loft_deg": wishes[bent]["loft_deg"] + 0.5}
    put_build(client, base, wishes)
    one = order(client, base).get_json()["order"]["id"]
    tick_all(client, base, one)
    read_all(client, base)
    revision = client.get(base).get_json()["revision"]
    signed = client.post(f"{base}/build/orders/{one}/sign", json={"revision": revision})
    assert signed.status_code == 200, signed.get_json()
    now = {s["id"]: s["club"] for s in client.get(f"{base}/session").get_json()["strikes"]}
    former = {f["code"]: f["wedge"]["name"] for f in client.get(base).get_json()["document"]["bag"]["former"]}
    for n, strike in enumerate(strikes):  # hit before the bench, with the club as it was
        assert former[now[strike["id"]]] == bag[n]["name"]
    rows = client.post(f"{base}/carries", json={}).get_json()["rows"]
    assert not any(row["name"].startswith("was:") for row in rows)


def test_a_fitting_in_the_bin_holds_no_heads(client, base):
    before = stock(client)
    order(client, base)
    assert stock(client) != before
    assert client.delete(base).status_code == 204
    assert stock(client) == before


def test_the_sheet_is_printed_whole(client, base):
    one = order(client, base).get_json()["order"]["id"]
    client.put(f"{base}/build/orders/{one}/ticks", json={"club": 0, "operation": 0, "done": True})
    pdf = client.get(f"{base}/build/sheet.pdf")
    assert pdf.status_code == 200
    assert pdf.mimetype == "application/pdf"
    document = pypdfium2.PdfDocument(pdf.data)
    words = " ".join(page.get_textpage().get_text_range() for page in document).replace("\r\n", " ")
    sheet = client.get(f"{base}/build").get_json()
    for club in sheet["clubs"]:
        assert club["name"] in words
        for operation in club["operations"]:
            assert " ".join(operation["words"].split()[:3]) in words
    assert f"{sheet['total']:.2f}" in words
    assert "Eye protection" in words
    assert "Demo fitter" in words
    rows = list(csv.reader(io.StringIO(client.get(f"{base}/build/sheet.csv").get_data(as_text=True))))
    assert sum(row[1] == "work" for row in rows) == sum(len(club["operations"]) for club in sheet["clubs"])
    assert [row[8] for row in rows if row[8]] == ["done by", "Demo fitter"]
    assert rows[-1][3] == f"{sheet['total']:.2f}".rstrip("0").rstrip(".")


def test_the_price_list_is_the_studios_and_nobody_overwrites_anothers(client, stranger, base):
    shown = client.get("/api/prices").get_json()
    dearer = {**shown["prices"], "bend": 20.0, "tax": 0.1}
    before = client.get(f"{base}/build").get_json()
    assert client.put("/api/prices", json={"prices": dearer, "revision": shown["revision"]}).status_code == 200
    assert client.put("/api/prices", json={"prices": shown["prices"], "revision": shown["revision"]}).status_code == 409
    after = client.get(f"{base}/build").get_json()
    assert after["tax"] == pytest.approx(0.1 * (after["labour"] + after["parts"]), abs=0.011)
    bends = sum(one["key"] == "loft" for club in before["clubs"] for one in club["operations"])
    assert after["labour"] - before["labour"] == pytest.approx(12.0 * bends)
    assert stranger.get("/api/prices").get_json()["prices"] == shown["prices"]


def parts_of(client) -> dict[str, int]:
    return client.get("/api/prices").get_json()["parts"]


def test_parts_leave_the_shelf_with_the_order_and_what_is_not_there_is_ordered(client, base):
    before = parts_of(client)
    sheet = client.get(f"{base}/build").get_json()
    wishes = [club["wish"] for club in sheet["clubs"]]
    new = next(wish for wish in wishes if wish["shaft"])
    one = order(client, base).get_json()["order"]["id"]
    taken = {code: before[code] - left for code, left in parts_of(client).items() if left != before[code]}
    assert taken == {new["shaft"]: 1, new["grip"]: 1}
    there = {part["code"]: part["stock"] for part in client.get(f"{base}/build").get_json()["shafts"]}
    assert there[new["shaft"]] == before[new["shaft"]], "its own are there for it"
    client.delete(f"{base}/build/orders/{one}")
    assert parts_of(client) == before
    shown = client.get("/api/prices").get_json()
    counted = {"prices": shown["prices"], "parts": {new["shaft"]: 0}, "revision": shown["revision"]}
    assert client.put("/api/prices", json=counted).get_json()["parts"][new["shaft"]] == 0
    late = client.get(f"{base}/build").get_json()
    assert late["weeks"] == sheet["weeks"] + 1
    assert any("has to be ordered" in note for club in late["clubs"] for note in club["notes"])
    assert order(client, base).status_code == 201
    assert parts_of(client)[new["shaft"]] == 0, "nothing is taken that is not there"
    wrong = {**counted, "parts": {"NONE": 1}, "revision": client.get("/api/prices").get_json()["revision"]}
    assert client.put("/api/prices", json=wrong).get_json()["faults"][0]["field"] == "parts.NONE"
