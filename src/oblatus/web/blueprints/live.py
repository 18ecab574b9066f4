"""Word of changes as they come (server-sent events), one line for everything a browser shows."""

import json
import queue
import time
from collections.abc import Iterator
from uuid import UUID

from flask import Response, current_app, stream_with_context
from flask_login import current_user

from oblatus.store.database import Database
from oblatus.usecases.live import LiveFeed, Word
from oblatus.usecases.sign_in import who_is
from oblatus.web.auth import SignedIn, actor, database
from oblatus.web.routes import Routes

HEARTBEAT_SECONDS = 10.0
ASKED_EVERY_SECONDS = 30.0

blueprint = Routes("live", __name__, "/api")


@blueprint.get("/live", responses={200: None})
def get_live() -> Response:
    """A `change` event with fitting and revision whenever something of the studio changes, a heartbeat every ten seconds,
    and `signed_out` when the session has ended."""
    feed: LiveFeed = current_app.extensions["oblatus_live"]
    user: SignedIn = current_user
    events = _events(feed, database(), actor().studio_id, user.id)
    response = current_app.response_class(stream_with_context(events), mimetype="text/event-stream")
    response.headers["Cache-Control"] = "no-store"
    response.headers["X-Accel-Buffering"] = "no"
    return response


def _events(feed: LiveFeed, database: Database, studio_id: UUID, key: str) -> Iterator[str]:
    with feed.about(studio_id) as words:
        yield "retry: 1000\n\n"
        asked = time.monotonic()
        while True:
            try:
                first = words.get(timeout=HEARTBEAT_SECONDS)
            except queue.Empty:
                yield ": still here\n\n"
            else:
                yield _told(first, words)
            if time.monotonic() - asked > ASKED_EVERY_SECONDS:
                asked = time.monotonic()
                if who_is(database, key) is None:
                    yield "event: signed_out\ndata: {}\n\n"
                    return


def _told(first: Word, words: "queue.SimpleQueue[Word]") -> str:
    """Everything that waits, a line a fitting: many strikes at once are one look."""
    latest: dict[str | None, int] = {first.fitting: first.revision}
    while not words.empty():
        word = words.get()
        latest[word.fitting] = max(word.revision, latest.get(word.fitting, 0))
    lines = ({"fitting": fitting, "revision": revision} for fitting, revision in latest.items())
    return "".join(f"event: change\ndata: {json.dumps(line)}\n\n" for line in lines)
