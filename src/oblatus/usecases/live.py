"""Word of changes as it comes: one listening thread a process feeds every screen that waits."""

from __future__ import annotations

import logging
import queue
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from uuid import UUID

import psycopg

LOG = logging.getLogger(__name__)
CHANNEL = "oblatus"
RETRY_SECONDS = 1.0


@dataclass(frozen=True, slots=True)
class Word:
    """Something of a fitting changed: its document (then with the revision it is at now), or its strikes, readings or
    devices (0). Without a fitting: the rack, prices or venues of the studio, or nobody knows what: look at everything
    again."""

    fitting: str | None
    revision: int


class LiveFeed:
    """Listens to the database and tells those who asked about a studio what changed."""

    def __init__(self, database_url: str) -> None:
        self._url = database_url.replace("postgresql+psycopg://", "postgresql://")
        self._waiting: dict[str, set[queue.SimpleQueue[Word]]] = {}
        self._lock = threading.Lock()
        self._thread: threading.Thread | None = None
        self._closed = threading.Event()

    @contextmanager
    def about(self, studio_id: UUID) -> Iterator[queue.SimpleQueue[Word]]:
        """A queue that gets a word whenever something of the studio changes."""
        mine: queue.SimpleQueue[Word] = queue.SimpleQueue()
        with self._lock:
            self._waiting.setdefault(str(studio_id), set()).add(mine)
            if self._thread is None:
                self._thread = threading.Thread(target=self._listen, name="live feed", daemon=True)
                self._thread.start()
        try:
            yield mine
        finally:
            with self._lock:
                others = self._waiting.get(str(studio_id), set())
                others.discard(mine)
                if not others:
                    self._waiting.pop(str(studio_id), None)

    def close(self) -> None:
        """Stop listening as soon as the database is gone or tells of anything."""
        self._closed.set()

    def _listen(self) -> None:
        while not self._closed.is_set():
            try:
                with psycopg.connect(self._url, autocommit=True) as connection:
                    connection.execute(f"listen {CHANNEL}")
                    self._tell_all()  # what came while nobody listened is looked up afresh
                    for word in connection.notifies():
                        self._hear(word.payload)
                        if self._closed.is_set():
                            return
            except psycopg.Error as error:
                if not self._closed.is_set():
                    LOG.warning("the live feed lost the database: %s", type(error).__name__)
                self._closed.wait(RETRY_SECONDS)

    def _hear(self, payload: str) -> None:
        studio, _, rest = payload.partition(" ")
        fitting, _, revision = rest.partition(" ")
        if not revision.isdigit():
            LOG.warning("a word on the channel that nobody here said")
            return
        self._tell(studio, Word(fitting or None, int(revision)))

    def _tell(self, studio_id: str, word: Word) -> None:
        with self._lock:
            for waiting in self._waiting.get(studio_id, ()):
                waiting.put(word)

    def _tell_all(self) -> None:
        with self._lock:
            names = list(self._waiting)
        for name in names:
            self._tell(name, Word(None, 0))
