"""A fitting handed over: a page that its token opens, scores once, closed and expired pages, dates as a calendar."""

from __future__ import annotations

from datetime import date, timedelta
from uuid import uuid4

import pypdfium2
import pytest
from icalendar import Calendar
from sqlalchemy import create_engine, text
from sqlalchemy.exc import DBAPIError

from oblatus.usecases import hand_over, player_page


@pytest.fixture
def base(fitting) -> str:
    return f"/api/fittings/{fitting['id']}"


@pytest.fixture
def visitor(app, database):
    """Somebody who is not signed in."""
    return app.test_client()


@pytest.fixture
def handed(client, base) -> dict:
    return handed_over(client, base).get_json()["handovers"][0]


def handed_over(client, base, handover_id=None):
    revision = client.get(base).get_json()["revision"]
    return client.post(f"{base}/handovers", json={"id": handover_id or str(uuid4()), "revision": revision})


def address_of(handed: dict) -> str:
    return f"/api/page/{handed['path'].removeprefix('/p/')}"


def a_score(drill="line", score=6, on=None) -> dict:
    return {"id": str(uuid4()), "drill": drill, "score": score, "count": 10, "on": str(on or date.today())}


def test_a_token_opens_what_was_handed_over_and_nothing_else(client, visitor, base, handed, server):
    page = visitor.get(address_of(handed)).get_json()
    assert client.get(base).get_json()["steps"]["card"] == "done"
    assert page["page"]["card"] == {**client.get(f"{base}/card").get_json(), "made_on": page["page"]["made_on"]}
    assert page["newer"] is False
    assert visitor.get(base).status_code == 401
    assert len(handed["path"].removeprefix("/p/")) == 22, "128 bits"
    owner = create_engine(server.owner_url())
    with owner.begin() as connection:
        kept = connection.execute(text("select digest from handover order by created_at desc")).scalars().first()
    owner.dispose()
    assert handed["path"].removeprefix("/p/") not in kept
    html = visitor.get(handed["path"])
    assert html.headers["X-Robots-Tag"].startswith("noindex")
    assert html.headers["Referrer-Policy"] == "no-referrer"
    assert handed["qr"].startswith("data:image/svg+xml;base64,")
    wrong = visitor.get("/api/page/" + "A" * 22)
    assert wrong.status_code == 404
    assert "opens nothing" in wrong.get_json()["message"]


def test_the_page_is_a_snapshot_and_says_that_a_newer_one_is_there(client, visitor, base, handed, server):
    before = visitor.get(address_of(handed)).get_json()["page"]
    player = client.get(base).get_json()["document"]["player"]
    revision = client.get(base).get_json()["revision"]
    client.patch(base, json={"revision": revision, "player": {**player, "hand": "left"}})
    assert visitor.get(address_of(handed)).get_json()["page"] == before
    assert client.post(f"{base}/handovers", json={"id": str(uuid4()), "revision": revision}).status_code == 409
    again = handed_over(client, base).get_json()["handovers"]
    assert len(again) == 2
    assert visitor.get(address_of(handed)).get_json()["newer"] is True
    assert visitor.get(address_of(again[0])).get_json()["page"]["card"]["hand"] == "left"
    assert len(handed_over(client, base, again[0]["id"]).get_json()["handovers"]) == 2
    owner = create_engine(server.owner_url())
    with pytest.raises(DBAPIError, match="never rewritten"), owner.begin() as connection:
        connection.execute(text("update handover set made_by = 'somebody else'"))
    owner.dispose()


def test_what_the_server_refuses_of_a_phone_is_told_in_the_units_of_its_page(client, visitor, base):
    revision = client.get(base).get_json()["revision"]
    body = {"id": str(uuid4()), "revision": revision, "distance": "yd"}
    handed = client.post(f"{base}/handovers", json=body).get_json()["handovers"][0]
    shot = {"id": str(uuid4()), "round": str(uuid4()), "on": str(date.today()), "situation": "pitch", "club": "pw",
            "result": "close", "distance_m": 900}  # fmt: skip
    for caller in (visitor, client):
        faults = caller.post(f"{address_of(handed)}/shots", json={"shots": [shot]}).get_json()["faults"]
        assert [fault["message"] for fault in faults] == ["must be between 1.1 and 218.7\u00a0yd"]
    nowhere = visitor.post("/api/page/" + "A" * 22 + "/shots", json={"shots": [shot]}).get_json()["faults"]
    assert [fault["message"] for fault in nowhere] == ["must be between 1 and 200\u00a0m"]


def test_answers_of_the_page_are_those_of_the_finder(client, visitor, base, handed):
    page = visitor.get(address_of(handed)).get_json()["page"]
    far, card = page["far"], page["card"]
    still = far["conditions"].index(["still", "medium", "dry"])
    middle = far["pins"].index("middle")
    for line in card["distances"]:
        place = far["distances_m"].index(line["distance_m"])
        best = far["answers"][still][middle][place][0]
        shot, row = far["shots"][best], card["rows"][line["still"]]
        assert (shot["loft_deg"], shot["swing"]) == (row["loft_deg"], row["swing_name"])
        # each is rounded to whole metres by itself
        assert far["figures_m"][still][best][0] == row["carry_m"]


def test_scores_are_counted_once_whoever_sends_them(client, visitor, base, handed):
    sent = [a_score(score=7), a_score(score=6, on=date.today() + timedelta(days=4000))]
    for taken in (2, 0):
        assert visitor.post(f"{address_of(handed)}/scores", json={"scores": sent}).get_json() == {"taken": taken}
    fitter = client.post(f"{base}/handovers/{handed['id']}/scores", json={"scores": [a_score(score=8)]})
    assert fitter.get_json() == {"taken": 1}
    scores = visitor.get(address_of(handed)).get_json()["scores"]
    assert [(one["score"], one["by"]) for one in scores] == [(7, "player"), (6, "player"), (8, "fitter")]
    assert all(one["on"] <= str(date.today() + timedelta(days=1)) for one in scores), "a phone with a wrong clock"
    for wrong in ({"drill": "nodrill"}, {"score": 11}, {"score": -1}):
        reply = visitor.post(f"{address_of(handed)}/scores", json={"scores": [{**a_score(), **wrong}]})
        assert reply.status_code == 422
    assert len(visitor.get(address_of(handed)).get_json()["scores"]) == 3


def test_levels_follow_the_scores_and_the_card_on_paper_holds_the_link(client, visitor, base, handed):
    drill = handed["page"]["card"]["drills"][0]
    before = next(one for one in visitor.get(address_of(handed)).get_json()["standings"] if one["drill"] == drill["key"])
    assert (before["level"], before["advice"]) == (0, "go on")
    sent = [{**a_score(drill["key"], drill["mark"]), "count": drill["count"]} for _ in range(3)]
    visitor.post(f"{address_of(handed)}/scores", json={"scores": sent})
    after = next(one for one in visitor.get(address_of(handed)).get_json()["standings"] if one["drill"] == drill["key"])
    assert (after["level"], after["advice"]) == (1, "next level")
    assert after["mark"] > before["mark"]
    with pypdfium2.PdfDocument(client.get(f"{base}/card/bag.pdf").data) as document:
        assert "your page" in document[0].get_textpage().get_text_range()
    client.delete(f"{base}/handovers/{handed['id']}")
    with pypdfium2.PdfDocument(client.get(f"{base}/card/bag.pdf").data) as document:
        assert "your page" not in document[0].get_textpage().get_text_range()


def test_a_closed_page_and_an_expired_one_open_nothing(client, visitor, stranger, base, handed, server, monkeypatch):
    assert stranger.delete(f"{base}/handovers/{handed['id']}").status_code == 404
    later = hand_over.now() + hand_over.HOLDS_FOR + timedelta(days=1)
    with monkeypatch.context() as patched:
        patched.setattr(player_page, "now", lambda: later)
        expired = visitor.get(address_of(handed))
        assert expired.status_code == 404
        assert "held until" in expired.get_json()["message"]
    assert client.delete(f"{base}/handovers/{handed['id']}").status_code == 204
    closed = visitor.get(address_of(handed))
    assert closed.status_code == 404
    assert "closed this page" in closed.get_json()["message"]
    assert visitor.post(f"{address_of(handed)}/scores", json={"scores": [a_score()]}).status_code == 404
    shown = client.get(f"{base}/handovers").get_json()["handovers"][0]
    assert (shown["path"], shown["qr"]) == ("", "")


def test_dates_are_a_calendar_that_stays_the_same(visitor, handed):
    first, again = (visitor.get(f"{address_of(handed)}/dates.ics").data for _ in range(2))
    assert first == again
    events = list(Calendar.from_ical(first).walk("VEVENT"))
    assert len({str(event["UID"]) for event in events}) == len(events) == 6
    dates = visitor.get(address_of(handed)).get_json()["dates"]
    assert [str(event["DTSTART"].dt) for event in events] == [one["on"] for one in dates]
    assert dates == sorted(dates, key=lambda one: one["on"])


def test_who_asks_too_often_waits(visitor, handed, monkeypatch):
    monkeypatch.setattr(player_page, "MOST_A_MINUTE", 3)
    player_page._CALLS.clear()
    replies = [visitor.get(address_of(handed)).status_code for _ in range(5)]
    player_page._CALLS.clear()
    assert replies == [200, 200, 200, 429, 429]


def test_the_player_reads_their_own_unit_and_the_days_as_they_stand(client, visitor, base):
    revision = client.get(base).get_json()["revision"]
    body = {"id": str(uuid4()), "revision": revision, "distance": "yd"}
    handed = client.post(f"{base}/handovers", json=body).get_json()["handovers"][0]
    opened = visitor.get(address_of(handed)).get_json()
    assert opened["page"]["distance"] == "yd"
    assert client.get("/api/session").get_json()["units"]["distance"] == "m"
    grips = next(one for one in opened["dates"] if one["kind"] == "grips")
    document = client.get(base).get_json()["document"]
    later = [{"key": "grips", "until": "2099-01-01", "reason": "new ones are ordered"}]
    client.patch(base, json={"revision": client.get(base).get_json()["revision"],
                             "after": {**document["after"], "snoozes": later}})  # fmt: skip
    now = visitor.get(address_of(handed)).get_json()
    assert [one["on"] for one in now["dates"] if one["kind"] == "grips"] == ["2099-01-01"] != [grips["on"]]
    assert b"20990101" in visitor.get(f"{address_of(handed)}/dates.ics").data
    assert now["page"] == opened["page"], "what was handed over stays as it was"


def test_a_page_says_which_of_its_clubs_are_in_the_bag_no_longer(client, visitor, app):
    lines = client.get("/api/fittings").get_json()["fittings"]
    base = f"/api/fittings/{next(line['id'] for line in lines if line['player_name'] == 'Joss Underhay')}"
    handed = client.get(f"{base}/handovers").get_json()["handovers"][0]
    assert visitor.get(address_of(handed)).get_json()["gone"] == []
    seen = client.get(base).get_json()
    first, *others = seen["document"]["bag"]["wedges"]
    bag = {**seen["document"]["bag"], "wedges": [{**first, "name": "called otherwise"}, *others]}
    seen = client.patch(base, json={"revision": seen["revision"], "bag": bag}).get_json()
    assert visitor.get(address_of(handed)).get_json()["gone"] == [], "the same wedge under another name"
    bag["wedges"] = bag["wedges"][:2]
    client.patch(base, json={"revision": seen["revision"], "bag": bag})
    assert visitor.get(address_of(handed)).get_json()["gone"] == ["old sixty"]
