"""The build sheet through the API: the proposed set, a club changed, faults at their field, what changed since."""

from __future__ import annotations

import pytest


@pytest.fixture
def base(fitting) -> str:
    return f"/api/fittings/{fitting['id']}"


def edited(client, base, clubs) -> dict:
    revision = client.get(base).get_json()["revision"]
    reply = client.patch(base, json={"revision": revision, "build": {"clubs": clubs}})
    assert reply.status_code == 200, reply.get_json()
    return reply.get_json()


def test_the_proposed_set_is_the_sheet_and_worth_the_same(client, base, fitting):
    sheet = client.get(f"{base}/build").get_json()
    proposed = fitting["recommendation"]
    assert [c["wish"]["code"] for c in sheet["clubs"]] == [c["code"] for c in proposed["clubs"]]
    assert sheet["strokes_round"] == pytest.approx(proposed["strokes_round"], abs=0.0002)
    assert not sheet["own"]
    assert sheet["total"] == pytest.approx(sheet["parts"] + sheet["labour"] + sheet["tax"], abs=0.011)
    assert fitting["steps"]["build"] == "empty"
    for club in sheet["clubs"]:
        assert (club["built"] is None) == (club["action"] != "replace")


def test_a_changed_club_moves_its_figures_and_says_how_it_differs_from_the_proposal(client, base):
    clubs = [c["wish"] for c in client.get(f"{base}/build").get_json()["clubs"]]
    wanted = {"lie_mark_mm": 3.1, "lie_deg": 64.5, "swing_weight": "D8", "loft_deg": clubs[0]["loft_deg"] + 0.5}
    clubs[0] = {**clubs[0], **wanted}
    assert edited(client, base, clubs)["steps"]["build"] == "partly"
    sheet = client.get(f"{base}/build").get_json()
    first = sheet["clubs"][0]
    assert first["built"]["swing_weight"] == "D8"
    assert first["lie_by_deg"] == 0.5
    assert first["lie_asked_deg"] == 64.5
    assert first["start_m"] < 0, "an upright lie starts a right-hander's ball left"
    player = client.get(base).get_json()["document"]["player"]
    revision = client.get(base).get_json()["revision"]
    left = client.patch(base, json={"revision": revision, "player": {**player, "hand": "left"}})
    assert left.status_code == 200
    assert client.get(f"{base}/build").get_json()["clubs"][0]["start_m"] == -first["start_m"], "a left-hander's right"
    assert first["after"]["loft_deg"] == clubs[0]["loft_deg"]
    assert [words.split()[1] for words in sheet["changed"]] == ["proposal", "sheet"]
    assert sheet["strokes_round"] >= sheet["proposal_strokes_round"] - 0.02


def test_what_cannot_be_built_is_refused_at_its_field_and_nothing_is_lost(client, base):
    clubs = [c["wish"] for c in client.get(f"{base}/build").get_json()["clubs"]]
    bent = [{**clubs[0], "bent_before_deg": [2.5, -0.5], "loft_deg": clubs[0]["loft_deg"] + 1.0}, *clubs[1:]]
    edited(client, base, bent)
    sheet = client.get(f"{base}/build").get_json()
    fault = sheet["faults"][0]
    assert fault["field"] == "build.clubs.0.bend_deg"
    assert sheet["clubs"][0]["before"] == sheet["clubs"][0]["after"], "it stands there as it comes"
    assert sheet["clubs"][0]["wish"]["bent_before_deg"] == [2.5, -0.5], "with what was typed"
    assert client.get(f"{base}/build/sheet.pdf").status_code == 422
    order = {"id": "5b0f1c1e-3b0e-4d38-9d7e-0a6d6b6a2c11", "revision": client.get(base).get_json()["revision"]}
    refused = client.post(f"{base}/build/orders", json=order)
    assert refused.get_json()["faults"][0]["field"] == "build.clubs.0.bend_deg"
    assert "at most 0° either way" in fault["message"]
    assert client.get(base).get_json()["document"]["build"]["clubs"][0]["bent_before_deg"] == [2.5, -0.5]
    edited(client, base, [{**clubs[0], "code": "NONE"}])
    gone = client.get(f"{base}/build").get_json()
    assert gone["faults"][0]["field"] == "build.clubs.0.code"
    assert gone["message"] == "Club 1 of the sheet, NONE, is neither owned nor on the rack: take the proposed set anew."
    revision = client.get(base).get_json()["revision"]
    wrong = {"revision": revision, "build": {"clubs": [{**clubs[0], "swing_weight": "H9"}]}}
    reply = client.patch(base, json=wrong)
    assert reply.status_code == 422
    assert "swing_weight" in reply.get_json()["faults"][0]["field"]


def test_another_studio_has_no_sheet_of_ours(stranger, base):
    assert stranger.get(f"{base}/build").status_code == 404


def test_a_ground_sole_loses_its_proof_and_says_so(client):
    lines = client.get("/api/fittings").get_json()["fittings"]
    base = f"/api/fittings/{next(line for line in lines if line['player_name'] == 'Tam Hollis')['id']}"
    sheet = client.get(f"{base}/build").get_json()
    assert sheet["own"]
    assert sheet["changed"] == []
    assert sheet["clubs"][1]["built"]["swing_weight"] == "D4"
    clubs = [club["wish"] for club in sheet["clubs"]]
    edited(client, base, [clubs[0], {**clubs[1], "grind": {"heel_mm": 1.0}}])
    ground = client.get(f"{base}/build").get_json()["clubs"][1]
    assert 0.9 < ground["removed_g"] < 1.5
    assert any("proof was of this sole" in note for note in ground["notes"])


def test_what_was_read_is_judged_again_and_is_off_only_beyond_its_tolerance(client, base):
    clubs = [c["wish"] for c in client.get(f"{base}/build").get_json()["clubs"]]
    assert client.get(f"{base}/build").get_json()["as_built_strokes_round"] is None
    read = [{**c, "read": {"loft_deg": c["loft_deg"], "lie_deg": 64.2, "swing_weight": None}} for c in clubs]
    read[1]["read"]["loft_deg"] += 1.5
    assert edited(client, base, read)["steps"]["build"] == "done"
    sheet = client.get(f"{base}/build").get_json()
    off = {one["key"]: one["over"] for one in sheet["clubs"][1]["as_built"]}
    assert off["loft_deg"] == pytest.approx(1.25)
    assert sheet["clubs"][0]["as_built"][0]["over"] == 0.0
    assert abs(sheet["as_built_strokes_round"] - sheet["strokes_round"]) > 0.001
    edited(client, base, [*read[:2], {**read[2], "read": {"loft_deg": 50.0}}])
    assert client.get(f"{base}/build").get_json()["faults"][0]["field"] == "build.clubs.2.read.loft_deg"
