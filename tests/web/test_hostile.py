"""Whatever is sent, the answer is one of ours: no 5xx that says nothing, no status that openapi.json does not name."""

from __future__ import annotations

import json
import os
import threading

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from schemathesis import GenerationMode
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import status_code_conformance
from sqlalchemy.exc import OperationalError

from oblatus.formats.strikes_csv import safe_text
from oblatus.logs import quiet_threads
from oblatus.settings import PROJECT
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD
from tests.conftest import signed_in
from tests.files import in_base64

EXAMPLES = int(os.environ.get("OBLATUS_HOSTILE_EXAMPLES", "2"))
DEEP = "[" * 200_000 + "]" * 200_000


@pytest.mark.parametrize(
    ("body", "status"),
    [
        (DEEP, 422),
        ('{"player_name": ' + DEEP + "}", 422),
        ('{"player_name": "a\\u0000b"}', 422),
        ('{"player_name": "a\\ud800b"}', 422),
        ('{"player_name": 1e999}', 422),
        ('{"player_name": ' + "9" * 5000 + "}", 422),
        ("\xff\xfe", 422),
    ],
)
def test_odd_json_is_refused_and_the_field_named(client, body, status):
    reply = client.post("/api/fittings", data=body.encode("utf-8", "surrogatepass"), content_type="application/json")
    assert reply.status_code == status, reply.get_json()
    assert reply.get_json()["faults"], reply.get_json()


def test_a_nul_is_refused_wherever_it_stands(client, fitting):
    base = f"/api/fittings/{fitting['id']}"
    player = fitting["document"]["player"] | {"complaints": "a\0b"}
    for body in (
        {"revision": fitting["revision"], "player": player},
        {"revision": fitting["revision"], "player": player, "base": {"player": fitting["document"]["player"]}},
    ):
        reply = client.patch(base, json=body)
        assert reply.status_code == 422
        assert reply.get_json()["faults"][0]["field"].endswith("player.complaints")
    assert client.post(f"{base}/kept", json={"revision": fitting["revision"], "label": "\0"}).status_code == 422
    assert client.post(f"{base}/imports?name=%00", data=b"club;carry\npw;100\n").status_code == 422
    wide = "code,name,loft_deg,bounce_deg\nA," + "x" * 140_000 + ",56,10\n"
    assert (
        client.put("/api/rack", json={"content": in_base64(wide), "revision": 1}).get_json()["faults"][0]["field"]
        == "file"
    )


@pytest.mark.parametrize("text", ["=1", " =1", "\n\t+1", "\u00a0-1", "\ufeff@a", "\u200b =1", "＝1", "\r\n@x"])
def test_no_word_becomes_a_formula(text):
    assert safe_text(text).startswith("'")


def test_a_word_stays_a_word():
    assert safe_text("a=1") == "a=1"
    assert safe_text(" heavy") == " heavy"


@pytest.mark.parametrize(
    ("state", "status", "code"),
    [
        ("53100", 507, "disk_full"), ("57014", 503, "busy"), ("40P01", 503, "busy"), ("55P03", 503, "busy"),
        ("57P01", 503, "busy"), ("53300", 503, "busy"), ("22021", 422, "invalid"), ("22003", 422, "invalid"),
        ("23503", 404, "not_found"), ("XX000", 500, "unexpected"),
    ],
)  # fmt: skip
def test_what_the_database_says_is_told_in_our_words(app, client, monkeypatch, state, status, code):
    class Refusal(Exception):
        sqlstate = state

    def refuse(*_):
        raise OperationalError("select secret", {"name": "Orla"}, Refusal("Orla Wethercote"))

    monkeypatch.setattr("oblatus.web.blueprints.fittings.list_fittings", refuse)
    monkeypatch.setattr(app, "testing", False)
    monkeypatch.setitem(app.config, "PROPAGATE_EXCEPTIONS", False)
    reply = client.get("/api/fittings")
    assert (reply.status_code, reply.get_json()["code"]) == (status, code)
    assert "Orla" not in reply.get_data(as_text=True)
    assert ("Retry-After" in reply.headers) == (status in (503, 507))


def test_a_reference_stands_in_the_log_without_names(app, client, monkeypatch, caplog):
    def fail(*_):
        raise RuntimeError("Orla Wethercote")

    monkeypatch.setattr("oblatus.web.blueprints.fittings.list_fittings", fail)
    monkeypatch.setattr(app, "testing", False)
    monkeypatch.setitem(app.config, "PROPAGATE_EXCEPTIONS", False)
    reference = client.get("/api/fittings").get_json()["reference"]
    assert reference in caplog.text
    assert "Orla" not in caplog.text


def test_a_thread_that_ends_says_where_and_no_names(caplog, monkeypatch):
    monkeypatch.setattr(threading, "excepthook", threading.excepthook)
    quiet_threads()

    def fail() -> None:
        raise RuntimeError("Orla Wethercote")

    thread = threading.Thread(target=fail, name="import 7")
    thread.start()
    thread.join()
    assert "import 7" in caplog.text
    assert "RuntimeError" in caplog.text
    assert "Orla" not in caplog.text


ROUTES = json.loads((PROJECT / "openapi.json").read_text())


def varies(way: str, path: str) -> bool:
    """Whether something beside a route's address can be sent otherwise."""
    route = ROUTES["paths"][path][way]
    return "requestBody" in route or any(one["in"] == "query" for one in route.get("parameters", []))


SENT = [
    pytest.param(way, path, mode, id=f"{mode.value} {way} {path}")
    for path, ways in ROUTES["paths"].items() if not path.endswith("/live")
    for way in ways for mode in GenerationMode if mode.is_positive or varies(way, path)
]  # fmt: skip
"""What fits every route, and what does not where there is something to get wrong beside its address. Named by us: all
that schemathesis collects has one name, of which a run of several processes keeps a single one."""


@pytest.fixture(scope="module")
def routes():
    """Every route as it is described."""
    return schemathesis.openapi.from_dict(ROUTES)


@pytest.fixture
def key(app, database, monkeypatch):
    """What somebody signed in sends along, and a fitting of theirs."""
    monkeypatch.setattr(app, "testing", False)
    monkeypatch.setitem(app.config, "PROPAGATE_EXCEPTIONS", False)
    monkeypatch.setattr(app, "validate_response", False)
    client = signed_in(app, DEMO_EMAIL, DEMO_PASSWORD)
    lines = client.get("/api/fittings").get_json()["fittings"]
    fitting = next(line["id"] for line in lines if line["player_name"] == "Tam Hollis")  # the one answered soonest
    return client.get_cookie("oblatus").value, client.environ_base["HTTP_X_CSRF_TOKEN"], fitting


@pytest.mark.parametrize(("way", "path", "mode"), SENT)
def test_every_route_answers_as_it_says(way, path, mode, routes, app, key):
    cookie, token, fitting = key
    examples = EXAMPLES if varies(way, path) else 1

    @given(routes[path][way].as_strategy(generation_mode=mode))
    @settings(max_examples=examples, deadline=None, derandomize=True, suppress_health_check=list(HealthCheck))
    def ask(case):
        if "fitting_id" in (case.path_parameters or {}):
            case.path_parameters["fitting_id"] = fitting  # one that is there: what comes after the look-up is meant
        inside = case.call(app=app, cookies={"oblatus": cookie}, headers={"X-CSRF-Token": token})
        case.validate_response(inside, checks=[not_a_server_error, status_code_conformance])
        outside = case.call(app=app)
        case.validate_response(outside, checks=[not_a_server_error, status_code_conformance])
        assert path.startswith("/api/session") or inside.status_code != 401, "whoever is signed in is let in"

    ask()
