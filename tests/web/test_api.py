"""The API as a screen uses it, and as it should not be used."""

from __future__ import annotations

import copy
import csv
import io
import json
import re
from uuid import uuid4

import pytest

from oblatus.errors import SetUpError
from oblatus.settings import Settings, settings_from
from oblatus.usecases import near
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD
from oblatus.web.app import create_app
from tests.files import in_base64


def edit(client, fitting, **sections):
    return client.patch(f"/api/fittings/{fitting['id']}", json={"revision": fitting["revision"], **sections})


def test_health_answers_versions_and_the_database(client, settings):
    reply = client.get("/api/health").get_json()
    assert reply["database"] == "ok"
    assert reply["engine_version"]
    down = create_app(Settings("postgresql+psycopg://nobody@127.0.0.1:1/none", settings.secret_key)).test_client()
    reply = down.get("/api/health")
    assert (reply.status_code, reply.get_json()["database"]) == (503, "down")


def test_nothing_is_open_without_signing_in(app, database):
    visitor = app.test_client()
    for rule in app.url_map.iter_rules():
        if not rule.rule.startswith("/api/") or rule.endpoint == "api_unknown":
            continue
        path = rule.rule.replace("<uuid:fitting_id>", str(uuid4())).replace("<uuid:snapshot_id>", str(uuid4()))
        for method in rule.methods - {"HEAD", "OPTIONS"}:
            status = visitor.open(path, method=method, json={}).status_code
            if (method, rule.endpoint) in {("GET", "system.health"), ("GET", "session.read_session")}:
                assert status == 200
            elif rule.endpoint.startswith("page."):
                assert status in {404, 422}, (method, path)  # a player's page: the token in the address opens it
            else:
                assert status in {400, 401}, (method, path)


STRIKE = {"id": str(uuid4()), "club": "pw", "loft_deg": 46, "swing": "full", "carry_m": 100}
BODIES = {
    "/monitor": {"wanted": True, "club": "pw", "swing": "pitch"},
    "/carries": {},
    "/strikes": {"strikes": [STRIKE]},
    "/strikes/paste": {
        "text": "100",
        "unit": "m",
        "paste_id": str(uuid4()),
        "cell": {"club": "pw", "loft_deg": 46, "swing": "full"},
    },
    "/strikes/<uuid:strike_id>": {"set_aside": None},
    "/devices/<string:kind>": {"wanted": True, "target": "home"},
    "/readings/<uuid:reading_id>": {"set_aside": None},
    "/kept/<uuid:snapshot_id>": {"label": "mine now"},
    "/proofs": {"id": str(uuid4()), "candidates": ["HG54", "own:0"], "situations": [{"shot": "chip", "ground": "home"}]},
    "/proofs/<uuid:proof_id>/balls": {
        "balls": [{"id": str(uuid4()), "club": 0, "situation": 0, "block": 0, "outcome": "good"}]
    },
    "/proofs/<uuid:proof_id>/balls/<uuid:ball_id>": {"out": True},
    "/proofs/<uuid:proof_id>/feel": {"block": 0, "value": 3},
    "/build/orders": {"id": str(uuid4()), "revision": 1},
    "/build/orders/<uuid:order_id>/ticks": {"club": 0, "operation": 0, "done": True},
    "/handovers": {"id": str(uuid4()), "revision": 1},
    "/handovers/<uuid:handover_id>/scores": {
        "scores": [{"id": str(uuid4()), "drill": "line", "score": 6, "count": 10, "on": "2026-01-01"}]
    },
    "/log": {
        "shots": [
            {
                "id": str(uuid4()),
                "round": str(uuid4()),
                "on": "2026-01-01",
                "situation": "chip",
                "club": "pw",
                "result": "green",
            }
        ]
    },
    "/log/file": {"content": "YSxiCjEsMg=="},
    "/log/rounds/<uuid:round_id>": {"out": True},
    "/next": {"id": str(uuid4())},
    "/imports/<uuid:import_id>/look": {},
    "/imports/<uuid:import_id>/run": {
        "mapping": {"columns": [{"column": 1, "field": "carry_m", "unit": "m"}], "club": "pw"}
    },
}


def test_no_route_crosses_into_another_studio(app, client, stranger, fitting):
    kept = client.post(f"/api/fittings/{fitting['id']}/kept", json={"revision": fitting["revision"]}).get_json()
    strike = client.post(f"/api/fittings/{fitting['id']}/carries", json={}).get_json()["strikes"][0]
    tried = 0
    for rule in app.url_map.iter_rules():
        if "fitting_id" not in rule.arguments:
            continue
        path = rule.rule.replace("<uuid:fitting_id>", fitting["id"]).replace("<uuid:snapshot_id>", kept["id"])
        path = path.replace("<uuid:strike_id>", strike["id"]).replace("<string:kind>", "hammer")
        path = re.sub("<uuid:[a-z_]+>", str(uuid4()), path)
        body = BODIES.get(rule.rule.rpartition("<uuid:fitting_id>")[2], {"revision": fitting["revision"]})
        for method in rule.methods - {"HEAD", "OPTIONS"}:
            reply = stranger.open(path, method=method, json=body)
            assert reply.status_code == 404, (method, path)
            assert reply.get_json()["code"] == "not_found"
            tried += 1
    assert tried >= 12
    assert stranger.get("/api/fittings").get_json()["fittings"] == []
    assert stranger.get("/api/rack").get_json()["heads"] == []
    assert client.get(f"/api/fittings/{fitting['id']}").get_json()["revision"] == fitting["revision"]


def test_a_kept_proposal_is_found_only_under_its_own_fitting(client, fitting):
    kept = client.post(f"/api/fittings/{fitting['id']}/kept", json={"revision": fitting["revision"]}).get_json()
    lines = client.get("/api/fittings").get_json()["fittings"]
    other = next(line["id"] for line in lines if line["id"] != fitting["id"])
    assert client.get(f"/api/fittings/{other}/kept/{kept['id']}").status_code == 404


def test_changes_need_the_token(client, fitting):
    del client.environ_base["HTTP_X_CSRF_TOKEN"]
    reply = edit(client, fitting)
    assert (reply.status_code, reply.get_json()["code"]) == (400, "csrf")


def test_the_cookie_is_out_of_reach_of_scripts_and_other_sites(app, database):
    visitor = app.test_client()
    cookie = visitor.get("/api/session").headers["Set-Cookie"]
    assert "HttpOnly" in cookie
    assert "SameSite=Strict" in cookie


def test_sign_in_says_no_and_then_wait(database, settings):
    limited = create_app(Settings(settings.database_url, settings.secret_key, sign_in_tries=3,
                                  argon_time_cost=1, argon_memory_kib=64)).test_client()  # fmt: skip
    token = {"X-CSRF-Token": limited.get("/api/session").get_json()["csrf_token"]}
    tries = [{"email": DEMO_EMAIL, "password": "wrong"}, {"email": "nobody@example.test", "password": DEMO_PASSWORD}]
    replies = [limited.post("/api/session", json=body, headers=token) for body in tries]
    assert [r.status_code for r in replies] == [401, 401]
    assert replies[0].get_json()["message"] == replies[1].get_json()["message"]
    for _ in range(2):
        limited.post("/api/session", json=tries[0], headers=token)
    last = limited.post("/api/session", json={"email": DEMO_EMAIL, "password": DEMO_PASSWORD}, headers=token)
    assert (last.status_code, last.get_json()["code"]) == (429, "too_many")
    assert 500 < int(last.headers["Retry-After"]) <= 600
    assert limited.post("/api/session", json=tries[1], headers=token).status_code == 401, "another account may still try"


def test_signing_out_closes_the_door(client):
    assert client.get("/api/fittings").status_code == 200
    client.delete("/api/session")
    assert client.get("/api/fittings").status_code == 401


def test_an_edit_answers_with_its_own_proposal(client, fitting):
    player = copy.deepcopy(fitting["document"]["player"])
    player["delivery"]["lean_deg"]["mean"] = 1.0
    reply = edit(client, fitting, player=player).get_json()
    assert reply["revision"] == fitting["revision"] + 1
    assert reply["document"]["player"] == player
    quick = reply["recommendation"]
    assert quick["steps"] != fitting["recommendation"]["steps"]
    assert not quick["whole_rack"]
    # the whole rack is asked for afterwards, and has doubt and leaks
    again = client.get(f"/api/fittings/{fitting['id']}").get_json()["recommendation"]
    assert again["whole_rack"]
    assert again["leaks"]
    assert again["doubt"]
    assert again["strokes_round_bag"] == quick["strokes_round_bag"]


def test_two_screens_do_not_overwrite_each_other(client, fitting):
    player = {**fitting["document"]["player"], "handicap": 3.0}
    assert edit(client, fitting, player=player).status_code == 200
    late = edit(client, fitting, player={**player, "handicap": 20.0})
    assert late.status_code == 409
    assert late.get_json()["revision"] == fitting["revision"] + 1
    assert client.get(f"/api/fittings/{fitting['id']}").get_json()["document"]["player"]["handicap"] == 3.0


@pytest.mark.parametrize(
    ("section", "change", "field"),
    [
        ("player", lambda p: p["delivery"]["lean_deg"].update(mean=90), "player.delivery.lean_deg.mean"),
        ("player", lambda p: p.update(handicap="scratch"), "player.handicap"),
        ("player", lambda p: p.update(complaints="x" * 5000), "player.complaints"),
        ("grounds", lambda g: g[0]["turf"].update(firmness_g=-3), "grounds.0.turf.firmness_g"),
        ("grounds", lambda g: g[0].update(share=0.1), "grounds"),
        ("bag", lambda b: b["wedges"][0].update(loft_deg=5), "bag.wedges.0.loft_deg"),
    ],
)
def test_a_wrong_value_saves_nothing_and_names_its_field(client, fitting, section, change, field):
    sections = {key: copy.deepcopy(fitting["document"][key]) for key in ("player", "grounds", "bag")}
    sections["player"]["handicap"] = 1.0
    change(sections[section])
    reply = edit(client, fitting, **sections)
    assert reply.status_code == 422
    assert [f["field"] for f in reply.get_json()["faults"]] == [field]
    after = client.get(f"/api/fittings/{fitting['id']}").get_json()
    assert (after["revision"], after["document"]) == (fitting["revision"], fitting["document"])


def test_two_megabytes_are_refused_before_they_are_read(client, fitting):
    reply = edit(client, fitting, player={**fitting["document"]["player"], "complaints": "x" * 2_000_000})
    assert (reply.status_code, reply.get_json()["code"]) == (413, "too_large")


@pytest.mark.parametrize("body", ["{", "[]", '"x"', "NaN", '{"revision": NaN}', '{"revision": 1, "colour": 1}', ""])
def test_foreign_bodies_are_clear_errors(client, fitting, body):
    reply = client.patch(f"/api/fittings/{fitting['id']}", data=body, content_type="application/json")
    assert reply.status_code == 422, reply.get_json()
    assert reply.get_json()["faults"]


def test_unknown_ids_and_addresses_answer_json(client):
    for path in (f"/api/fittings/{uuid4()}", "/api/fittings/17", "/api/nothing/here"):
        reply = client.get(path)
        assert (reply.status_code, reply.get_json()["code"]) == (404, "not_found")


def test_a_fitting_that_cannot_be_served_is_saved_and_says_why(client, fitting):
    reply = edit(client, fitting, bag={**fitting["document"]["bag"], "other_clubs": 14}).get_json()
    assert reply["recommendation"] is None
    assert reply["problem"][0]["field"] == "bag.other_clubs"
    kept = client.post(f"/api/fittings/{fitting['id']}/kept", json={"revision": reply["revision"]})
    assert kept.status_code == 422


def test_export_and_import_are_equal_and_bring_the_rack(client, fitting):
    text = client.get(f"/api/fittings/{fitting['id']}/export").get_data(as_text=True)
    reply = client.post("/api/fittings/import", data=text, content_type="application/json")
    assert reply.status_code == 201
    twin = reply.get_json()
    assert twin["id"] != fitting["id"]
    assert client.get(f"/api/fittings/{twin['id']}/export").get_data(as_text=True) == text
    assert twin["recommendation"] == fitting["recommendation"]
    dropped = client.patch(f"/api/fittings/{twin['id']}", json={"revision": 1, "drop_rack": True}).get_json()
    assert dropped["document"]["rack"] is None


def test_a_player_started_or_loaded_again_after_a_lost_answer_is_one(client, stranger, fitting):
    def count() -> int:
        return len(client.get("/api/fittings").get_json()["fittings"])

    before, new, loaded = count(), str(uuid4()), str(uuid4())
    text = client.get(f"/api/fittings/{fitting['id']}/export").get_data(as_text=True)
    for _ in range(2):
        started = client.post("/api/fittings", json={"player_name": "Wren Coombe", "id": new})
        assert (started.status_code, started.get_json()["id"]) == (201, new)
        reply = client.post(f"/api/fittings/import?id={loaded}", data=text, content_type="application/json")
        assert (reply.status_code, reply.get_json()["id"]) == (201, loaded)
    assert count() == before + 2
    client.delete(f"/api/fittings/{new}")
    again = client.post("/api/fittings", json={"player_name": "Wren Coombe", "id": new})
    assert again.status_code == 404, "it lies in the bin: nothing comes out of it unseen"


def test_a_broken_import_saves_nothing(client):
    before = client.get("/api/fittings").get_json()
    for text in ("{", "[]", json.dumps({"format": "oblatus.fitting", "version": 0})):
        reply = client.post("/api/fittings/import", data=text, content_type="application/json")
        assert reply.status_code == 422
    assert client.get("/api/fittings").get_json() == before


def test_a_kept_proposal_stays_as_it_was(client, fitting):
    kept = client.post(f"/api/fittings/{fitting['id']}/kept", json={"revision": fitting["revision"], "label": "first"})
    assert kept.status_code == 201
    player = copy.deepcopy(fitting["document"]["player"])
    player["delivery"]["lean_deg"]["mean"] = 0.0
    now = edit(client, fitting, player=player).get_json()
    assert now["steps"]["soles"] == "stale"
    old = client.get(f"/api/fittings/{fitting['id']}/kept/{kept.get_json()['id']}").get_json()
    assert old["result"] == fitting["recommendation"]
    assert old["document"]["player"] == fitting["document"]["player"]
    assert len(old["document"]["rack"]) >= 40
    late = client.post(f"/api/fittings/{fitting['id']}/kept", json={"revision": fitting["revision"]})
    assert late.status_code == 409


def test_the_list_says_what_was_kept_last(client, fitting):
    def line():
        return next(one for one in client.get("/api/fittings").get_json()["fittings"] if one["id"] == fitting["id"])

    assert (line()["kept_at"], line()["kept_clubs"]) == (None, [])
    kept = [
        client.post(f"/api/fittings/{fitting['id']}/kept", json={"revision": fitting["revision"]}).get_json()
        for _ in range(2)
    ]
    assert line()["kept_at"] == kept[1]["created_at"]
    assert line()["kept_clubs"] == kept[1]["clubs"]
    client.delete(f"/api/fittings/{fitting['id']}/kept/{kept[1]['id']}")
    assert line()["kept_at"] == kept[0]["created_at"]


def test_a_new_player_starts_assumed_and_can_be_removed(client):
    rack = "code,name,loft_deg,bounce_deg\nW,of this test alone,57,11\n"  # the usual player's set may be known by now
    assert client.put("/api/rack", json={"content": in_base64(rack), "revision": 1}).status_code == 200
    made = client.post("/api/fittings", json={"player_name": "Wim Chalkley"}).get_json()
    assert (made["to_come"], made["recommendation"]) == (True, None), "nobody waits for the search"
    assert made["steps"]["player"] == "empty"
    edit = {"revision": made["revision"], "player": {**made["document"]["player"], "name": "Wim C"}}
    typed = client.patch(f"/api/fittings/{made['id']}", json=edit).get_json()
    assert (typed["document"]["player"]["name"], typed["to_come"]) == ("Wim C", True)
    assert client.get(f"/api/fittings/{made['id']}").get_json()["recommendation"]["carry_assumed"]
    assert client.delete(f"/api/fittings/{made['id']}").status_code == 204
    assert client.get(f"/api/fittings/{made['id']}").status_code == 404
    assert client.post("/api/fittings", json={"player_name": " "}).status_code == 422


def test_the_rack_is_replaced_whole_or_not_at_all(client, fitting):
    before = client.get("/api/rack").get_json()["heads"]
    bad = client.put(
        "/api/rack", json={"content": in_base64("code,name,loft_deg,bounce_deg\nA,a,56,10\nB,b,156,10\n"), "revision": 1}
    )
    assert [f["field"] for f in bad.get_json()["faults"]] == ["line 3, loft"]
    assert client.get("/api/rack").get_json()["heads"] == before
    good = client.put(
        "/api/rack", json={"content": in_base64("code,name,loft_deg,bounce_deg\nA,a,56,10\nB,b,52,9\n"), "revision": 1}
    )
    assert [h["code"] for h in good.get_json()["heads"]] == ["A", "B"]
    late = client.put(
        "/api/rack", json={"content": in_base64("code,name,loft_deg,bounce_deg\nC,c,56,10\n"), "revision": 1}
    )
    assert (late.status_code, late.get_json()["revision"]) == (409, 2), "somebody else's rack is not replaced unseen"
    found = client.get(f"/api/fittings/{fitting['id']}").get_json()["recommendation"]
    codes = {c["code"] for club in found["clubs"] for c in club["candidates"]}
    assert codes <= {"A", "B", "own:0", "own:1", "own:2"}
    table = io.StringIO()
    csv.DictWriter(table, before[0].keys()).writeheader()
    csv.DictWriter(table, before[0].keys()).writerows(before)
    back = client.put("/api/rack", json={"content": in_base64(table.getvalue()), "revision": 2})
    assert back.get_json()["heads"] == before, "a rack is put back as it was told"
    saved = client.get("/api/rack/rack.csv")
    assert saved.headers["Content-Disposition"] == "attachment; filename=rack.csv"
    again = client.put("/api/rack", json={"content": in_base64(saved.get_data(as_text=True)), "revision": 3})
    assert again.get_json()["heads"] == before, "and as it was saved"
    assert client.put("/api/rack", json={"content": "%", "revision": 4}).get_json()["faults"][0]["field"] == "content"


def test_units_are_remembered(client):
    client.put("/api/session/units", json={"distance": "yd", "speed": "mph"})
    assert client.get("/api/session").get_json()["units"] == {"distance": "yd", "speed": "mph"}
    assert client.put("/api/session/units", json={"distance": "ell", "speed": "mph"}).status_code == 422


def test_a_fault_of_ours_gives_a_reference_and_no_inner_words(app, client, monkeypatch):
    def fail(*_):
        raise RuntimeError("inner words")

    monkeypatch.setattr("oblatus.web.blueprints.fittings.list_fittings", fail)
    app.testing = app.config["PROPAGATE_EXCEPTIONS"] = False
    try:
        reply = client.get("/api/fittings")
    finally:
        app.testing, app.config["PROPAGATE_EXCEPTIONS"] = True, None
    assert reply.status_code == 500
    assert reply.get_json()["reference"] in reply.get_json()["message"]
    assert "inner" not in reply.get_data(as_text=True)


def test_settings_are_checked_at_start():
    with pytest.raises(SetUpError, match="OBLATUS_SECRET_KEY"):
        settings_from({"OBLATUS_DATABASE_URL": "postgresql+psycopg://x"})
    with pytest.raises(SetUpError, match="postgresql"):
        settings_from({"OBLATUS_DATABASE_URL": "sqlite://", "OBLATUS_SECRET_KEY": "k" * 40})
    with pytest.raises(SetUpError, match="32 characters"):
        settings_from({"OBLATUS_DATABASE_URL": "postgresql+psycopg://x", "OBLATUS_SECRET_KEY": "short"})


def test_a_fitting_is_opened_at_once_with_all_but_the_set_that_is_to_come(client, fitting, monkeypatch):
    edited = edit(client, fitting, player={**fitting["document"]["player"], "handicap": 14.7}).get_json()
    monkeypatch.setattr(near, "_MINE", {})  # as where no worker met this fitting
    address = f"/api/fittings/{edited['id']}"
    opened = client.get(f"{address}?at_once=true").get_json()
    assert (opened["to_come"], opened["recommendation"], opened["problem"]) == (True, None, [])
    whole = client.get(address).get_json()
    assert whole["recommendation"]["whole_rack"]
    assert client.get(f"{address}?at_once=true").get_json() == whole
    assert {key for key, value in whole.items() if opened[key] != value} == {"to_come", "recommendation"}
    assert client.get(f"{address}?at_once=perhaps").status_code == 422
