"""The shot desk and the questions about sureness, as a screen asks them."""

from __future__ import annotations

import json
import socket
import time
from uuid import UUID

import pytest

from oblatus.core.wanted import check_wanted
from oblatus.usecases import ask_engine
from oblatus.usecases.engine import FLIPS, SCHOOLS, engine, question

HEAD = {"loft_deg": 56, "bounce_deg": 12, "sole_width_mm": 22}
LOW = {"loft_deg": 56, "bounce_deg": 5, "sole_width_mm": 17}
FIRM = {"kind": "turf", "firmness_g": 130, "moisture": 0.3, "ball_height_mm": 1}


def ask(client, **more):
    body = {"heads": [HEAD, LOW], "lean_deg": 0, "attack_deg": -4, "entry_mm": -5, "ground": FIRM, **more}
    return client.post("/api/desk", json=body)


def test_the_desk_shows_pass_window_risk_and_flight(client):
    first, second = ask(client).get_json()["heads"]
    assert (first["strike"]["outcome"], second["strike"]["outcome"]) == ("thin", "clean")
    assert first["strike"]["contact"] == "edge"
    assert first["window"]["width_mm"] < second["window"]["width_mm"]
    assert first["inside_share"] < second["inside_share"]
    assert first["expected_quality"] < second["expected_quality"]
    assert sum(first["shares"].values()) == pytest.approx(1.0, abs=0.01)
    assert first["risk"] in {"careful", "leave it"}
    assert first["risk_rule"]
    assert first["flight_m"][-1][0] == pytest.approx(first["strike"]["carry_m"], rel=0.06)
    assert first["path_mm"][0][0] < -60
    assert second["twin"] is None


def test_dragging_the_entry_changes_the_class(client):
    soft = {"kind": "turf", "firmness_g": 60, "moisture": 0.7, "ball_height_mm": 3.5}
    classes = [
        ask(client, heads=[HEAD], ground=soft, lean_deg=5, attack_deg=-6, entry_mm=e).get_json()["heads"][0]["strike"][
            "outcome"
        ]
        for e in (-110, -62, -34)
    ]
    assert classes[-1] == "clean"
    assert classes[0] in {"dug", "heavy"}
    assert classes[1] == "heavy"


def test_a_twin_setup_undoes_the_bounce(client):
    twin = ask(client, twins=True).get_json()["heads"][1]["twin"]
    assert twin["lean_deg"] < -2
    assert 0 <= twin["likeness"] <= 1


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"heads": [{"loft_deg": 56, "bounce_deg": 12, "sole_width_mm": 2}]}, "heads.0.sole_width_mm"),
        ({"heads": []}, "heads"),
        ({"lean_deg": 90}, "lean_deg"),
        ({"ground": {"kind": "turf", "firmness_g": -3}}, "ground.turf.firmness_g"),
        ({"ground": {"kind": "snow"}}, "ground"),
        ({"heads": [{**HEAD, "camber_radius_mm": 1}]}, "heads.0.camber_radius_mm"),
    ],
)
def test_the_desk_refuses_what_cannot_exist(client, change, field):
    reply = ask(client, **change)
    assert reply.status_code == 422
    assert [f["field"] for f in reply.get_json()["faults"]] == [field]


def test_sureness_flips_and_schools_belong_to_a_revision_and_are_worked_out_once(client, fitting, monkeypatch):
    path = f"/api/fittings/{fitting['id']}"
    evidence = client.get(f"{path}/evidence").get_json()
    assert evidence["draws"] == 500
    assert evidence["law_draws"] == 8
    assert len(evidence["steps"]) == len(fitting["recommendation"]["steps"])
    assert evidence["revision"] == fitting["revision"]
    assert {s["slot"] for s in evidence["shares"]} == {c["slot"] for c in fitting["recommendation"]["clubs"]}
    flips = client.get(f"{path}/flips").get_json()
    assert all(f["text"] for f in flips["flips"])
    schools = client.get(f"{path}/schools").get_json()["schools"]
    assert {"sand_opening", "clubs", "gaps"} <= {s["question"] for s in schools}
    json.dumps(schools, allow_nan=False)
    # asked again, under whatever name, it is not worked out again and says under which revision it stands
    body = {"revision": fitting["revision"], "player": {**fitting["document"]["player"], "name": "Somebody Else"}}
    named = client.patch(path, json=body).get_json()
    assert named["revision"] > fitting["revision"]
    with monkeypatch.context() as gone:
        for worked in ("find_flips", "doubt_of", "under_each_school"):
            gone.delattr(ask_engine, worked)
        again = [client.get(f"{path}/{question}").get_json() for question in ("evidence", "flips", "schools")]
    assert again == [{**was, "revision": named["revision"]} for was in (evidence, flips, {"schools": schools})]


@pytest.mark.parametrize("kind", [FLIPS, SCHOOLS])
def test_a_long_question_is_stopped_by_its_studio_alone(client, fitting, stranger, kind):
    path, began = f"/api/fittings/{fitting['id']}/{kind}", time.time() - 0.01
    assert stranger.delete(path).status_code == 404
    assert not engine().work.stopped_since(question(UUID(fitting["id"]), kind), began)
    assert client.delete(path).status_code == 204
    assert engine().work.stopped_since(question(UUID(fitting["id"]), kind), began)


def test_an_edit_has_nothing_begun_anew_for_a_screen_that_hung_up(client, fitting, monkeypatch):
    """Each edit would leave a question behind, and the next answer would wait for all of them."""
    begun = []

    def how_sure(asked):
        begun.append(asked)
        if len(begun) == 1:
            time.sleep(0.002)
            engine().work.edited(UUID(fitting["id"]))
        check_wanted()
        return sure

    sure = ask_engine.EvidenceOut.model_validate(client.get(f"/api/fittings/{fitting['id']}/evidence").get_json())
    monkeypatch.setattr(ask_engine, "_how_sure", how_sure)
    here, screen = socket.socketpair()
    with here, screen:

        def ask():
            path = f"/api/fittings/{fitting['id']}/evidence"
            return client.get(path, environ_overrides={"gunicorn.socket": here}).status_code, len(begun)

        assert ask() == (200, 2)
        screen.close()
        begun.clear()
        assert ask() == (503, 1)


def test_a_proposal_carries_the_lie_and_speed_of_every_scenario(fitting):
    result = fitting["recommendation"]
    kinds = {s["kind"]: s["ground_here"]["kind"] for s in result["scenarios"]}
    assert kinds == {"full": "turf", "turf": "turf", "sand": "sand"}
    assert all(5 <= row["speed_mps"] <= 60 for row in result["clubs"][0]["situations"])


def test_what_keeps_a_set_from_being_proposed_has_the_name_of_its_field(client, fitting):
    document = fitting["document"]
    pinned = [{"loft_deg": head["loft_deg"], "code": f"own:{n}"} for n, head in enumerate(document["bag"]["wedges"][:2])]
    base = f"/api/fittings/{fitting['id']}"
    changes = {"choices": {**document["choices"], "pinned": pinned}, "player": {**document["player"], "wedge_count": 1}}
    told = client.patch(base, json={"revision": fitting["revision"], **changes})
    assert (told.status_code, told.get_json()["recommendation"]) == (200, None)
    for key in ("strikes", "strikes_key", "rack_key"):
        assert told.get_json()[key] == fitting[key], "they are not others for having no set: that is no change"
    for problem in (told.get_json()["problem"], client.get(base).get_json()["problem"]):
        assert [(one["name"], one["message"]) for one in problem] == [
            ("heads set by hand", "2 heads are set by hand where 1 wedge is wanted")
        ]
