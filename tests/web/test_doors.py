"""Nobody gets in: sessions, names, passwords, throttles; and nothing private is left behind."""

from __future__ import annotations

import re
from dataclasses import replace
from uuid import uuid4

import pytest
from sqlalchemy import text

from oblatus.errors import InputError, NotFoundError
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD
from oblatus.usecases.users import NewFitter, add_user, list_users, remove_user, set_password
from oblatus.web.app import create_app
from oblatus.web.auth import OPEN_ENDPOINTS
from oblatus.web.headers import PROGRAM_HEADER
from tests.conftest import signed_in

OTHER = ("second@scarp-end.example", "flint and thyme")


def routes(app):
    for rule in app.url_map.iter_rules():
        if rule.rule.startswith("/api/") and rule.endpoint not in OPEN_ENDPOINTS:
            path = re.sub("<uuid:[a-z_]+>", str(uuid4()), rule.rule).replace("<string:kind>", "hammer")
            for method in ("GET", "POST", "PUT", "PATCH", "DELETE"):
                if (method, path) not in (("GET", "/api/session"), ("POST", "/api/session")):
                    yield method, path.replace("<path:_rest>", "nowhere")


def test_without_a_session_every_route_and_method_says_so(app, database):
    visitor = app.test_client()
    tried = 0
    for method, path in routes(app):
        reply = visitor.open(path, method=method, json={})
        assert (reply.status_code, reply.get_json().get("code")) == (401, "signed_out"), (method, path)
        tried += 1
    assert tried > 150


def test_a_page_left_open_never_acts_for_whoever_signed_in_after(app, client, database, settings):
    mine = client.get("/api/session").get_json()["fitter_id"]
    add_user(database, settings, NewFitter("Second fitter", *OTHER), None)
    second = signed_in(app, *OTHER)
    assert second.get("/api/fittings").status_code == 200
    for method, path in routes(app):
        reply = second.open(path, method=method, json={}, headers={"X-Oblatus-Fitter": mine})
        assert (reply.status_code, reply.get_json().get("code")) == (401, "other_fitter"), (method, path)


def test_signing_out_ends_the_session_on_the_server(app, client):
    stolen = client.get_cookie("oblatus").value
    assert client.delete("/api/session").status_code == 200
    thief = app.test_client()
    thief.set_cookie("oblatus", stolen)
    assert thief.get("/api/fittings").get_json()["code"] == "signed_out"


def test_sessions_are_listed_and_ended_one_by_one_and_all_at_once(app, client):
    other, third = (signed_in(app, DEMO_EMAIL, DEMO_PASSWORD) for _ in range(2))
    lines = client.get("/api/session/list").get_json()["sessions"]
    assert [line["this"] for line in lines].count(True) == 1
    assert len(lines) == 3
    gone = other.get("/api/session/list").get_json()["sessions"]
    mine = next(line["id"] for line in gone if line["this"])
    assert client.delete(f"/api/session/list/{mine}").status_code == 204
    assert client.delete(f"/api/session/list/{mine}").status_code == 404
    assert other.get("/api/fittings").status_code == 401
    assert third.get("/api/fittings").status_code == 200
    assert client.delete("/api/session/others").get_json() == {"ended": 1}
    assert third.get("/api/fittings").status_code == 401
    assert client.get("/api/fittings").status_code == 200


def test_another_password_ends_every_other_session(app, client):
    other = signed_in(app, DEMO_EMAIL, DEMO_PASSWORD)
    wrong = client.put("/api/session/password", json={"old": "no", "new": "a longer password"})
    assert wrong.get_json()["faults"][0]["field"] == "old"
    short = client.put("/api/session/password", json={"old": DEMO_PASSWORD, "new": "short"})
    assert short.get_json()["faults"][0]["field"] == "new"
    assert client.put("/api/session/password", json={"old": DEMO_PASSWORD, "new": "a longer one"}).status_code == 204
    assert other.get("/api/fittings").status_code == 401
    assert client.get("/api/session").get_json()["demo"] is False
    signed_in(app, DEMO_EMAIL, "a longer one")


def test_a_foreign_name_is_answered_by_nobody(client):
    for host in ("evil.example", "127.0.0.1.evil.example"):
        for path in ("/api/session", "/api/fittings", "/"):
            assert client.get(path, headers={"Host": host}).status_code == 400, (host, path)
    assert client.get("/api/session", headers={"Host": "127.0.0.1:8420"}).status_code == 200


def test_the_published_sign_in_works_on_this_machine_only(app, database, settings):
    def tries(address: str) -> int:
        visitor = app.test_client()
        visitor.environ_base["REMOTE_ADDR"] = address
        token = {"X-CSRF-Token": visitor.get("/api/session").get_json()["csrf_token"]}
        body = {"email": DEMO_EMAIL, "password": DEMO_PASSWORD}
        return visitor.post("/api/session", json=body, headers=token).status_code

    assert tries("127.0.0.1") == 200
    assert tries("192.0.2.7") == 401
    set_password(database, settings, DEMO_EMAIL, DEMO_PASSWORD)  # now it is their own
    assert tries("192.0.2.7") == 200


def test_whoever_tries_passwords_locks_nobody_else_out(database, settings):
    strict = replace(settings, sign_in_tries=3)
    apps = [create_app(strict), create_app(strict)]  # two workers
    add_user(database, settings, NewFitter("Second fitter", *OTHER), None)
    known = signed_in(apps[0], DEMO_EMAIL, DEMO_PASSWORD)

    def try_from(visitor, email: str, password: str, address: str = "127.0.0.1"):
        visitor.environ_base["REMOTE_ADDR"] = address
        token = {"X-CSRF-Token": visitor.get("/api/session").get_json()["csrf_token"]}
        return visitor.post("/api/session", json={"email": email, "password": password}, headers=token)

    said = [try_from(apps[i % 2].test_client(), DEMO_EMAIL, "guess").status_code for i in range(5)]
    assert said == [401, 401, 401, 429, 429], "counted over both workers"
    assert try_from(apps[1].test_client(), DEMO_EMAIL, DEMO_PASSWORD).status_code == 429
    assert try_from(apps[1].test_client(), *OTHER).status_code == 200, "another account from the same address"
    assert try_from(known, DEMO_EMAIL, DEMO_PASSWORD).status_code == 200, "a browser that signed in before"
    elsewhere = try_from(apps[0].test_client(), DEMO_EMAIL, "guess", "192.0.2.7")
    assert elsewhere.status_code == 401, "another address has tries of its own"


def test_nothing_private_is_kept_by_a_browser(app, client, fitting):
    base = f"/api/fittings/{fitting['id']}"
    for path in ("", "/export", "/strikes.csv", "/recording.jsonl", "/kept", "/session", "/devices", "/readings"):
        assert client.get(base + path).headers["Cache-Control"] == "no-store", path
    name = client.get(f"{base}/export").headers["Content-Disposition"]
    assert "Orla-Wethercote.json" in name


def test_every_answer_names_the_program_that_the_page_begins_with_now(app, tmp_path, settings):
    def page(script: str) -> None:
        (tmp_path / "new.html").write_text(f'<script type="module" crossorigin src="/assets/{script}"></script>')
        (tmp_path / "new.html").rename(tmp_path / "index.html")

    client = create_app(replace(settings, static_dir=tmp_path)).test_client()
    for path in ("/api/session", "/api/fittings", "/api/nothing"):
        assert PROGRAM_HEADER not in client.get(path).headers  # not built yet
    page("index-old.js")
    for path in ("/api/session", "/api/fittings", "/api/nothing"):
        assert client.get(path).headers[PROGRAM_HEADER] == "index-old.js"
    page("index-new.js")
    assert client.get("/api/session").headers[PROGRAM_HEADER] == "index-new.js"
    assert PROGRAM_HEADER not in client.get("/").headers


def test_the_application_reads_and_writes_rows_and_nothing_else(database):
    for statement in (
        "drop table strike", "alter table snapshot disable trigger all", "create table mine (a int)",
        "copy strike to program 'id'", "select pg_read_file('/etc/passwd')", "set role oblatus",
    ):  # fmt: skip
        with (
            pytest.raises(
                Exception, match=r"permission denied|must be (owner|superuser)|not have|only (roles|superusers)"
            ),
            database.engine.begin() as connection,
        ):
            connection.execute(text(statement))


def test_fitters_are_added_listed_and_removed(database, settings):
    add_user(database, settings, NewFitter(" Second fitter ", "Second@Scarp-End.example", "flint and thyme"), None)
    assert [(fitter.name, fitter.demo) for fitter, _ in list_users(database)] == [
        ("Demo fitter", True),
        ("Second fitter", False),
    ]
    with pytest.raises(InputError, match="taken"):
        add_user(database, settings, NewFitter("Again", *OTHER), None)
    with pytest.raises(InputError, match="address"):
        add_user(database, settings, NewFitter("Again", "no address", "flint and thyme"), None)
    with pytest.raises(InputError, match="characters"):
        add_user(database, settings, NewFitter("Again", "again@example.com", "short"), None)
    remove_user(database, OTHER[0])
    with pytest.raises(NotFoundError):
        set_password(database, settings, OTHER[0], "flint and thyme")
    with pytest.raises(InputError, match="only fitter"):
        remove_user(database, DEMO_EMAIL)
