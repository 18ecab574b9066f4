"""From the device's line to word on the screen's connection: twenty stations at once, in one process."""

from __future__ import annotations

import queue
import threading
import time
from contextlib import ExitStack
from typing import Any
from uuid import UUID

import numpy as np

from oblatus.devices import stand_in as standing
from oblatus.devices.monitor import MonitorStandIn
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.sections.grounds import GroundDocument
from oblatus.formats.sections.player import PlayerDocument
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.usecases.actor import Actor
from oblatus.usecases.bridge import Bridge, connect_to
from oblatus.usecases.link_monitor import link_monitor
from oblatus.usecases.live import LiveFeed
from oblatus.usecases.start_fitting import add_document

STATIONS = 20
STRIKES = 10
EVERY = 1.0


def measure_live(database: Database, database_url: str, studio_id: UUID) -> dict[str, float]:
    """Seconds from the stand-in's sending of a strike to the word at a listening screen, with 20 monitors at once."""
    actor = Actor(UUID(int=0), studio_id, "bench")
    document = FittingDocument(player=PlayerDocument(name="bench"), grounds=(GroundDocument(name="home", share=1.0),))
    with database.transaction() as session:
        rows = StudioRows(session, studio_id)
        fittings = [add_document(rows, document).id for _ in range(STATIONS)]
    sent: dict[str, list[float]] = {str(fitting): [] for fitting in fittings}
    heard: list[float] = []
    made = standing.Stream.make

    def make(stream: Any, measure: Any) -> int:
        seq = made(stream, measure)
        sent[stream.listener].append(time.perf_counter())
        return seq

    stand_in = MonitorStandIn(every=EVERY, most=STRIKES).start()
    feed, bridge = LiveFeed(database_url), Bridge(database, connect_to({"monitor": f"127.0.0.1:{stand_in.port}"}))
    with ExitStack() as stack:
        stack.callback(stand_in.close)
        stack.callback(bridge.close)
        stack.callback(feed.close)
        stack.callback(setattr, standing.Stream, "make", made)
        setattr(standing.Stream, "make", make)  # noqa: B010 (a method of slots, timed for the bench)
        queues = {str(f): stack.enter_context(feed.about(studio_id)) for f in fittings}
        for fitting in fittings:
            link_monitor(database, actor, fitting, "pw", "pitch", wanted=True)
        stop = threading.Event()

        def screen(name: str) -> None:
            while not stop.is_set():
                try:
                    word = queues[name].get(timeout=0.2)
                except queue.Empty:
                    continue
                if word.fitting == name and sent[name]:
                    heard.append(time.perf_counter() - sent[name].pop(0))

        threads = [threading.Thread(target=screen, args=(str(f),), daemon=True) for f in fittings]
        for thread in threads:
            thread.start()
        bridge.start()
        time.sleep(STRIKES * EVERY + 4.0)
        stop.set()
        for thread in threads:
            thread.join()
    taken = 1e3 * np.array(heard)
    return {
        "live_stations": float(STATIONS),
        "live_strikes_heard": float(len(taken)),
        "live_line_to_screen_p50_ms": float(np.percentile(taken, 50)),
        "live_line_to_screen_p95_ms": float(np.percentile(taken, 95)),
    }
