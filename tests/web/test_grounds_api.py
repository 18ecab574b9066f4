"""Venues shared by the studio, photos of clubs, and fittings with thousands of strikes."""

from __future__ import annotations

import json
from datetime import timedelta
from uuid import uuid4

import pytest

from oblatus.store.tables import now
from oblatus.usecases import photos
from tests.formats.test_photos import PLACE, jpeg


@pytest.fixture
def base(fitting) -> str:
    return f"/api/fittings/{fitting['id']}"


def test_a_ground_is_kept_for_every_fitting_of_the_studio_and_no_other(client, stranger, fitting):
    ground = fitting["document"]["grounds"][0] | {"turf": {"readings_g": [110, 120, 115]}}
    body = {"venue": "Long Barrow", "season": "autumn", "read_on": "2026-10-30", "ground": ground}
    once = f"/api/venues?id={uuid4()}"
    made = client.post(once, json=body)
    assert made.status_code == 201, made.get_json()
    assert client.post(once, json=body).get_json() == made.get_json(), "sent again it is kept once"
    assert stranger.post(once, json=body).status_code == 404
    assert made.get_json()["surfaces"][0] == {"key": "turf", "name": "Turf", "words": "115 g, firm, from 3"}
    records = client.get("/api/venues").get_json()["records"]
    mine = [r for r in records if r["venue"] == "Long Barrow"]
    assert len(mine) == 1
    assert (mine[0]["ground"]["season"], mine[0]["ground"]["read_on"]) == ("autumn", "2026-10-30")
    down = [r["read_on"] for r in records if r["venue"] == "Quarry Down"]
    assert down == sorted(down, reverse=True)
    assert len(down) == 4
    assert "Long Barrow" not in {r["venue"] for r in stranger.get("/api/venues").get_json()["records"]}
    assert stranger.delete(f"/api/venues/{mine[0]['id']}").status_code == 404
    assert client.delete(f"/api/venues/{mine[0]['id']}").status_code == 204
    later = body | {"read_on": (now().date() + timedelta(days=2)).isoformat()}
    assert client.post("/api/venues", json=later).get_json()["faults"][0]["field"] == "read_on"
    farther_east = body | {"read_on": (now().date() + timedelta(days=1)).isoformat()}
    assert client.post("/api/venues", json=farther_east).status_code == 201, "it is that day in New Zealand already"
    assert client.post("/api/venues", json=body | {"season": "monsoon"}).status_code == 422


def test_where_and_when_a_ground_was_read_changes_no_proposal(client, base, fitting):
    grounds = fitting["document"]["grounds"]
    grounds[0] |= {"venue": "Quarry Down", "season": "winter", "read_on": "2026-01-24"}
    reply = client.patch(base, json={"revision": fitting["revision"], "grounds": grounds}).get_json()
    assert reply["document"]["grounds"][0]["read_on"] == "2026-01-24"
    assert reply["recommendation"] == fitting["recommendation"]


def test_photos_are_kept_without_metadata_and_make_room(client, base, fitting, monkeypatch):
    made = client.post(f"{base}/photos", data=jpeg(), content_type="image/jpeg")
    assert made.status_code == 201, made.get_json()
    photo = made.get_json()["id"]
    shown = client.get(f"{base}/photos/{photo}")
    assert shown.mimetype == "image/jpeg"
    assert PLACE.encode() not in shown.get_data()
    bag = fitting["document"]["bag"]
    bag["wedges"][0] |= {"photos": [photo], "wear_class": "worn"}
    assert client.patch(base, json={"revision": fitting["revision"], "bag": bag}).status_code == 200
    monkeypatch.setattr(photos, "MOST_HELD", 2)
    again = {"id": str(uuid4())}
    second = client.post(f"{base}/photos", data=jpeg(), query_string=again).get_json()["id"]
    # sent again, because its answer was lost: there is still room for it alone
    assert client.post(f"{base}/photos", data=jpeg(), query_string=again).get_json()["id"] == second == again["id"]
    assert client.post(f"{base}/photos", data=jpeg()).status_code == 201  # the one that nothing shows made room
    assert client.get(f"{base}/photos/{second}").status_code == 404
    assert client.get(f"{base}/photos/{photo}").status_code == 200
    assert client.post(f"{base}/photos", data=b"no photo").get_json()["faults"][0]["field"] == "photo"


def test_a_fitting_with_thousands_of_strikes_leaves_and_comes_back(client, base):
    document = json.loads(client.get(f"{base}/export").get_data())
    strike = next(s for s in document["strikes"] if s["carry_m"])
    document["strikes"] = [strike | {"id": str(uuid4())} for _ in range(6000)]
    text = json.dumps(document)
    assert len(text) > 2_000_000
    made = client.post("/api/fittings/import", data=text, content_type="application/json")
    assert made.status_code == 201, made.get_json()
    again = json.loads(client.get(f"/api/fittings/{made.get_json()['id']}/export").get_data())
    assert [s["id"] for s in again["strikes"]] == [s["id"] for s in document["strikes"]]


def test_readings_and_shots_go_with_a_ground_that_is_called_otherwise_and_come_back_with_undo(client, base):
    document = json.loads(client.get(f"{base}/export").get_data())
    old = document["grounds"][0]["name"]
    figures = {"figures": {"peak_g": 118.0}, "simulated": False, "set_aside": None}
    read = {"id": str(uuid4()), "kind": "hammer", "target": old, **figures}
    document["attached"] = {**(document["attached"] or {}), "readings": [read]}
    fitting = client.post("/api/fittings/import", json=document).get_json()
    there = f"/api/fittings/{fitting['id']}"
    hit = {"situation": "chip", "club": "own:0", "result": "green", "on": "2026-05-01", "ground": old}
    shots = [{**hit, "id": str(uuid4()), "round": str(uuid4())}]
    assert client.post(f"{there}/log", json={"shots": shots}).status_code == 200
    assert client.put(f"{there}/devices/hammer", json={"wanted": False, "target": old}).status_code == 200

    def put(**changes) -> dict[str, str]:
        now = client.get(there).get_json()
        grounds = [{**now["document"]["grounds"][0], **changes}, *now["document"]["grounds"][1:]]
        reply = client.patch(there, json={"revision": now["revision"], "grounds": grounds})
        assert reply.status_code == 200, reply.get_json()
        whole = json.loads(client.get(f"{there}/export").get_data())["attached"]
        devices = client.get(f"{there}/devices").get_json()["devices"]
        return {
            "reading": whole["readings"][0]["target"],
            "shot": whole["log"][0]["ground"],
            "hammer": next(one["target"] for one in devices if one["kind"] == "hammer"),
        }

    assert set(put(name="Long Barrow").values()) == {"Long Barrow"}
    assert set(put(name=old).values()) == {old}, "as Undo does"
    harder = {**fitting["document"]["grounds"][0]["turf"], "readings_g": [], "firmness_g": 150.0}
    assert set(put(name="Long Barrow", turf=harder).values()) == {old}, "another ground came in its place"
