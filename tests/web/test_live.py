"""The one line of a browser: word of its own studio, and of its session's end."""

from __future__ import annotations

import json
import queue
import threading
import time
from datetime import date
from uuid import uuid4

import pytest
from sqlalchemy import text

from oblatus.usecases.live import LiveFeed, Word
from oblatus.web.blueprints import live
from tests.files import in_base64


def test_word_of_many_changes_is_one_line_a_fitting():
    words: queue.SimpleQueue[Word] = queue.SimpleQueue()
    for word in (Word("b", 0), Word("a", 3), Word("a", 2)):
        words.put(word)
    told = live._told(Word("a", 0), words)
    lines = [json.loads(line[6:]) for line in told.splitlines() if line.startswith("data: ")]
    assert lines == [{"fitting": "a", "revision": 3}, {"fitting": "b", "revision": 0}]


@pytest.fixture
def words(app, database):
    """What the demo studio's screens are told, from a quiet moment on."""
    feed: LiveFeed = app.extensions["oblatus_live"]
    with database.transaction() as session:
        studio = session.execute(text("select studio_id from fitting")).scalars().first()
    with feed.about(studio) as found:
        listening(database, f"{studio} probe 0", found)
        quiet(found)
        yield found


def listening(database, word: str, words: queue.SimpleQueue[Word]) -> None:
    """Wait until the feed, which connects in a thread of its own, hears what the database says."""
    for _ in range(300):
        with database.transaction() as session:
            session.execute(text("select pg_notify('oblatus', :word)"), {"word": word})
        try:
            while words.get(timeout=0.2) != Word("probe", 0):
                pass
        except queue.Empty:
            continue
        return
    raise AssertionError("the feed hears nothing")


@pytest.mark.usefixtures("words")
def test_an_edit_is_told_to_its_own_studio_and_an_ended_session_ends_the_line(
    app, client, stranger, fitting, monkeypatch
):
    monkeypatch.setattr(live, "HEARTBEAT_SECONDS", 0.2)
    monkeypatch.setattr(live, "ASKED_EVERY_SECONDS", 0.0)
    heard: dict[str, list[str]] = {"mine": [], "theirs": []}
    first = threading.Barrier(3)

    def listen(name: str, who) -> None:
        response = who.get("/api/live", buffered=False)
        assert response.mimetype == "text/event-stream"
        stream = response.response
        next(iter(stream))
        first.wait()
        for part in stream:
            heard[name].append(part if isinstance(part, str) else part.decode())
            if "signed_out" in heard[name][-1]:
                return

    threads = [
        threading.Thread(target=listen, args=(name, who), daemon=True)
        for name, who in (("mine", client), ("theirs", stranger))
    ]
    for thread in threads:
        thread.start()
    first.wait()
    player = {**fitting["document"]["player"], "complaints": "digs"}
    own = app.test_client()
    own.set_cookie("oblatus", client.get_cookie("oblatus").value)
    headers = {"X-CSRF-Token": client.environ_base["HTTP_X_CSRF_TOKEN"]}
    body = {"revision": fitting["revision"], "player": player}
    assert own.patch(f"/api/fittings/{fitting['id']}", json=body, headers=headers).status_code == 200
    own.delete("/api/session", headers=headers)
    other = app.test_client()
    other.set_cookie("oblatus", stranger.get_cookie("oblatus").value)
    threads[0].join(20)
    other.delete("/api/session", headers={"X-CSRF-Token": stranger.environ_base["HTTP_X_CSRF_TOKEN"]})
    threads[1].join(20)
    assert any(fitting["id"] in part for part in heard["mine"])
    assert "signed_out" in heard["mine"][-1]
    assert not any(fitting["id"] in part for part in heard["theirs"])


def quiet(words: queue.SimpleQueue[Word]) -> None:
    """Hear everything that is still on its way."""
    time.sleep(0.4)
    while not words.empty():
        words.get()


def test_what_is_done_to_a_proof_a_kept_proposal_or_a_page_is_told_to_other_screens(app, client, fitting, words):
    base = f"/api/fittings/{fitting['id']}"
    owned = [f"own:{n}" for n in range(2)]
    situation = {"shot": "chip", "ground": fitting["document"]["grounds"][0]["name"]}

    def told(reply) -> dict:
        assert reply.status_code < 300, reply.get_json()
        assert words.get(timeout=60) == Word(fitting["id"], 0)
        quiet(words)
        return reply.get_json(silent=True)

    plan = {"id": str(uuid4()), "candidates": owned, "situations": [situation]}
    proof = told(client.post(f"{base}/proofs", json=plan))
    block = proof["plan"]["blocks"][0]
    ball = {"id": str(uuid4()), "club": block["club"], "situation": 0, "block": 0, "outcome": "good"}
    balls = f"{base}/proofs/{plan['id']}/balls"
    told(client.post(balls, json={"balls": [ball]}))
    told(client.patch(f"{balls}/{ball['id']}", json={"set_aside": "misread"}))
    told(client.post(f"{base}/kept", json={"revision": fitting["revision"], "label": "first"}))
    handed = told(client.post(f"{base}/handovers", json={"id": str(uuid4()), "revision": fitting["revision"]}))
    page = f"/api/page/{handed['handovers'][0]['path'].removeprefix('/p/')}"
    score = {"id": str(uuid4()), "drill": "line", "score": 6, "count": 10, "on": str(date.today())}
    told(app.test_client().post(f"{page}/scores", json={"scores": [score]}))


def test_what_is_the_studios_is_told_to_every_screen_of_it(client, fitting, words):
    def told(reply) -> None:
        assert reply.status_code < 300, reply.get_json()
        assert words.get(timeout=60) == Word(None, 0)
        quiet(words)

    rack = "code,name,loft_deg,bounce_deg\nA,Plain 52,52,9\nB,Plain 57,57,11\n"
    told(
        client.put(
            "/api/rack", json={"content": in_base64(rack), "revision": client.get("/api/rack").get_json()["revision"]}
        )
    )
    prices = client.get("/api/prices").get_json()
    told(client.put("/api/prices", json={"revision": prices["revision"], "prices": prices["prices"]}))
    ground = fitting["document"]["grounds"][0]
    told(
        client.post(
            "/api/venues", json={"venue": "Flint Bottom", "season": "autumn", "read_on": "2026-10-03", "ground": ground}
        )
    )
    told(client.post("/api/fittings", json={"player_name": "Somebody New"}))
    told(client.delete(f"/api/fittings/{fitting['id']}"))
