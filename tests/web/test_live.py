"""The one line of a browser: word of its own studio, and of its session's end."""

from __future__ import annotations

import json
import queue
import threading

from oblatus.usecases.live import Word
from oblatus.web.blueprints import live


def test_word_of_many_changes_is_one_line_a_fitting():
    words: queue.SimpleQueue[Word] = queue.SimpleQueue()
    for word in (Word("b", 0), Word("a", 3), Word("a", 2)):
        words.put(word)
    told = live._told(Word("a", 0), words)
    lines = [json.loads(line[6:]) for line in told.splitlines() if line.startswith("data: ")]
    assert lines == [{"fitting": "a", "revision": 3}, {"fitting": "b", "revision": 0}]


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
