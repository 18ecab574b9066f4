"""Strikes and carries through the API: once each, set aside, undone, pasted; the ladder follows conditions."""

from __future__ import annotations

import re
from uuid import uuid4

import pytest

from tests.files import in_base64


def strike(**changes) -> dict:
    return {"id": str(uuid4()), "club": "own:0", "loft_deg": 50.5, "swing": "900", "carry_m": 46.0, **changes}


@pytest.fixture
def base(fitting) -> str:
    return f"/api/fittings/{fitting['id']}"


def carries(client, base, **asked) -> dict:
    reply = client.post(f"{base}/carries", json=asked)
    assert reply.status_code == 200, reply.get_json()
    return reply.get_json()


def cell(found: dict, club: str, swing: str) -> dict:
    return next(c for c in found["cells"] if (c["club"], c["swing"]) == (club, swing))


def test_every_club_and_swing_has_a_figure_with_its_source(client, base):
    found = carries(client, base)
    assert len(found["cells"]) == len(found["rows"]) * 3
    assert {c["source"] for c in found["cells"]} == {"measured", "modelled"}
    for c in found["cells"]:
        assert c["low_m"] < c["carry_m"] < c["high_m"]
        assert ("no strike of its own" not in c["from_what"]) == (c["source"] == "measured")
    assert found["used"] == 42
    assert found["aside"] == 2
    assert 0 < found["leave_one_out_m"] < 5
    for cell_next in found["next"]:  # a doubt that falls by less than is shown does not fall
        assert not re.search(r"from (±\S+) m to \1 m", cell_next["words"])
    assert "stays ±" in found["next"][0]["words"]
    assert sum(weight for _, weight in found["faced"]) == pytest.approx(64, rel=0.01)


def test_strikes_sent_twice_are_taken_once_and_change_cell_and_proposal(client, base):
    before = client.get(base).get_json()
    five = [strike(carry_m=50.0 + i / 2) for i in range(5)]
    assert client.post(f"{base}/strikes", json={"strikes": five}).get_json() == {"taken": 5}
    assert client.post(f"{base}/strikes", json={"strikes": [*five, strike(carry_m=51.0)]}).get_json() == {"taken": 1}
    found = cell(carries(client, base), "own:0", "900")
    assert (found["count"], found["source"]) == (6, "measured")
    assert 47.5 < found["carry_m"] < 51.5
    after = client.get(base).get_json()
    assert after["revision"] == before["revision"]
    assert after["strikes"] == before["strikes"] + 6
    assert after["recommendation"]["club_speed_mps"] != before["recommendation"]["club_speed_mps"]


def test_a_strike_is_set_aside_with_its_reason_counted_again_and_undone(client, base):
    one = strike(carry_m=20.0)
    client.post(f"{base}/strikes", json={"strikes": [one]})
    path = f"{base}/strikes/{one['id']}"
    assert client.patch(path, json={"set_aside": "heavy"}).status_code == 204
    found = carries(client, base)
    assert cell(found, "own:0", "900")["aside"] == 1
    assert cell(found, "own:0", "900")["source"] == "modelled"
    assert next(s for s in found["strikes"] if s["id"] == one["id"])["set_aside"] == "heavy"
    assert client.patch(path, json={"set_aside": None}).status_code == 204
    assert cell(carries(client, base), "own:0", "900")["count"] == 1
    assert client.delete(path).status_code == 204
    assert client.delete(path).status_code == 204, "sent again after a lost answer it is done all the same"
    assert cell(carries(client, base), "own:0", "900")["count"] == 0


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"carry_m": 400.0}, "strikes.0.carry_m"),
        ({"swing": "half"}, "strikes.0.swing"),
        ({"id": "seven"}, "strikes.0.id"),
        ({"spin_rpm": 0}, "strikes.0.spin_rpm"),
    ],
)
def test_a_strike_that_cannot_be_takes_none_of_them(client, base, change, field):
    before = len(carries(client, base)["strikes"])
    reply = client.post(f"{base}/strikes", json={"strikes": [strike(**change), strike()]})
    assert reply.status_code == 422
    assert field in [fault["field"] for fault in reply.get_json()["faults"]]
    assert len(carries(client, base)["strikes"]) == before


def test_wind_lie_and_the_proposed_set_redraw_the_ladder(client, base):
    still, windy = carries(client, base), carries(client, base, wind_head_mps=5.0)
    assert all(b["carry_m"] < a["carry_m"] for a, b in zip(still["cells"], windy["cells"], strict=True))
    assert all(b["still_m"] == a["still_m"] for a, b in zip(still["cells"], windy["cells"], strict=True))
    proposed = carries(client, base, clubs="proposed")
    lofts = [row["loft_deg"] for row in proposed["rows"]][2:]
    assert lofts == client.get(base).get_json()["recommendation"]["lofts"]["chosen"]["lofts_deg"]
    assert still["holes"]
    reply = client.post(f"{base}/carries", json={"wind_head_mps": 90})
    assert reply.get_json()["faults"][0]["field"] == "wind_head_mps"


def test_a_distance_is_answered_with_ranked_shots_and_reasons(client, base):
    found = carries(client, base, distance_m=68.0, wind_head_mps=4.0, green="firm", pin="front")["found"]
    assert len(found) >= 3
    assert found[0]["miss_m"] <= found[-1]["miss_m"]
    assert found[0]["against_first"] == ""
    assert all(f["against_first"] for f in found[1:])
    assert all("m high" in f["reasons"] for f in found)


def test_a_pinned_rung_is_what_the_others_are_told_against(client, base):
    pinned = {"club": "own:1", "loft_deg": 54.6, "swing": "full"}
    found = carries(client, base, pinned=pinned)
    assert cell(found, "own:1", "full")["against_pinned"] == ""
    assert "less spin" in cell(found, "own:0", "1030")["against_pinned"]
    assert {c["against_pinned"] for c in carries(client, base)["cells"]} == {""}


def test_pasting_looks_first_asks_about_the_unit_and_takes_all_or_none(client, base):
    def paste(text, **more):
        body = {
            "text": text,
            "unit": "m",
            "paste_id": str(uuid4()),
            "cell": {"club": "own:0", "loft_deg": 50.8, "swing": "full"},
            **more,
        }
        return client.post(f"{base}/strikes/paste", json=body)

    before = len(carries(client, base)["strikes"])
    seen = paste("94 95 93.5").get_json()
    assert (len(seen["strikes"]), seen["taken"], seen["question"]) == (3, 0, None)
    yards = paste("103 104 102 103", take=True).get_json()
    assert yards["taken"] == 0
    assert "yards" in yards["question"]
    assert len(carries(client, base)["strikes"]) == before
    assert paste("103 104 102 103", take=True, unit="yd").get_json()["taken"] == 4
    assert paste("103 104", take=True, sure_of_unit=True).get_json()["taken"] == 2
    wrong = paste("club\tcarry\nold gap\t90\nold gap\tfar", take=True)
    assert wrong.status_code == 422
    assert wrong.get_json()["faults"][0]["field"] == "line 2: carry_m"
    same = str(uuid4())
    assert paste("94 95", take=True, paste_id=same).get_json()["taken"] == 2
    assert paste("94 95", take=True, paste_id=same).get_json()["taken"] == 0
    assert len(carries(client, base)["strikes"]) == before + 8


def test_a_kept_proposal_knows_its_strikes_and_export_brings_them_all(client, base, fitting):
    kept = client.post(f"{base}/kept", json={"revision": fitting["revision"]}).get_json()
    assert kept["strikes"] == 42
    assert client.get(base).get_json()["steps"]["lofts"] == "done"
    client.post(f"{base}/strikes", json={"strikes": [strike()]})
    assert client.get(base).get_json()["steps"]["lofts"] == "stale"
    document = client.get(f"{base}/export").get_json()
    assert len(document["strikes"]) == 45
    copy = client.post("/api/fittings/import", json=document).get_json()
    assert copy["strikes"] == 43
    assert copy["recommendation"]["lofts"] == client.get(base).get_json()["recommendation"]["lofts"]


def test_own_swings_are_columns_and_an_unknown_pitching_wedge_is_answered(client, base, fitting):
    swing = {"key": "low_75", "name": "low 75", "speed_share": 0.8}
    body = {"revision": fitting["revision"], "measuring": {"swings": [swing], "temperature_c": 12.0}}
    assert client.patch(base, json=body).status_code == 200
    found = carries(client, base)
    assert [s["key"] for s in found["swings"]] == ["full", "1030", "900", "low_75"]
    assert client.post(f"{base}/strikes", json={"strikes": [strike(swing="low_75", carry_m=58)]}).get_json()["taken"] == 1
    twice = {"revision": fitting["revision"] + 1, "measuring": {"swings": [{**swing, "key": "900"}]}}
    assert client.patch(base, json=twice).get_json()["faults"][0]["field"] == "measuring.swings"


def test_ladders_by_cover_against_cost_and_the_fitters_weights(client, base, fitting):
    front = client.get(f"{base}/ladders").get_json()["front"]
    assert len(front) >= 3
    assert [ladder["cost"] for ladder in front] == sorted(ladder["cost"] for ladder in front)
    assert all(len(ladder["changes"]) == len(ladder["lofts_deg"]) for ladder in front)
    choices = {**fitting["document"]["choices"], "ladder_factors": {**fitting["document"]["choices"]["ladder_factors"]}}
    choices["ladder_factors"]["cost"] = 5.0
    thrifty = client.patch(base, json={"revision": fitting["revision"], "choices": choices}).get_json()
    count = len(thrifty["recommendation"]["lofts"]["chosen"]["lofts_deg"])
    assert count <= len(fitting["recommendation"]["lofts"]["chosen"]["lofts_deg"])


def test_other_strikes_in_the_place_of_some_make_a_kept_proposal_stale(client, base):
    first = strike(carry_m=101.0)
    assert client.post(f"{base}/strikes", json={"strikes": [first]}).status_code == 200
    now = client.get(base).get_json()
    assert client.post(f"{base}/kept", json={"revision": now["revision"]}).status_code == 201
    kept = client.get(base).get_json()
    assert kept["steps"]["soles"] == "done"
    assert kept["kept"]["strikes_key"] == kept["strikes_key"] != ""
    assert client.delete(f"{base}/strikes/{first['id']}").status_code == 204
    assert client.post(f"{base}/strikes", json={"strikes": [strike(carry_m=64.0)]}).status_code == 200
    after = client.get(base).get_json()
    assert after["strikes"] == kept["strikes"]
    assert after["strikes_key"] != kept["strikes_key"]
    assert after["steps"]["soles"] == "stale"


def test_another_rack_is_told_and_makes_a_kept_set_stale_that_it_has_no_longer(client, base, fitting):
    assert client.post(f"{base}/kept", json={"revision": fitting["revision"]}).status_code == 201
    kept = client.get(base).get_json()
    assert (kept["kept_is_shown"], kept["steps"]["soles"]) == (True, "done")
    revision = client.get("/api/rack").get_json()["revision"]
    rack = "code,name,loft_deg,bounce_deg\nA,Plain 52,52,9\nB,Plain 57,57,11\n"
    assert client.put("/api/rack", json={"content": in_base64(rack), "revision": revision}).status_code == 200
    quick = client.get(f"{base}?at_once=true").get_json()
    assert (quick["recommendation"]["whole_rack"], quick["kept_is_shown"]) == (False, True), "a quick set does not tell"
    after = client.get(base).get_json()
    assert (after["revision"], after["strikes_key"]) == (kept["revision"], kept["strikes_key"])
    assert after["rack_key"] != kept["rack_key"]
    assert (after["kept_is_shown"], after["steps"]["soles"]) == (False, "stale")
    unseen = {"revision": after["revision"], "rack_key": kept["rack_key"]}
    assert client.post(f"{base}/kept", json=unseen).status_code == 409, "no set is kept that the fitter has not seen"
    assert client.post(f"{base}/kept", json={**unseen, "rack_key": after["rack_key"]}).status_code == 201
