"""Plain calls while hundreds of screens wait for word and hundreds of requests stay half-sent."""

from __future__ import annotations

import http.client
import socket
import time
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager

import numpy as np

from oblatus.drill.served import Served
from oblatus.drill.tablet import Tablet
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD

STREAMS, HALVES, CALLS = 500, 200, 200


def measure_front() -> dict[str, float]:
    """95th percentile of a plain call [ms], alone and beside 500 live streams and 200 half-sent requests."""
    served = Served.start()
    try:
        tablet = Tablet(served.address, DEMO_EMAIL, DEMO_PASSWORD)
        tablet.sign_in()
        alone = _calls(served, tablet)
        with crowd(served, tablet, STREAMS, HALVES) as open_streams:
            beside = _calls(served, tablet)
        return {
            "live_streams_open": float(open_streams),
            "plain_call_p95_ms": alone,
            "plain_call_beside_streams_p95_ms": beside,
            "plain_call_beside_streams_ratio": beside / alone,
        }
    finally:
        served.stop()


@contextmanager
def crowd(served: Served, tablet: Tablet, streams: int, halves: int) -> Iterator[int]:
    """Open live streams and half-sent requests for the block. Gives how many streams were answered."""
    cookie = cookie_of(tablet)
    with ExitStack() as stack:
        lines = [stack.enter_context(_line(served.port)) for _ in range(streams)]
        for line in lines:
            line.sendall(f"GET /api/live HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: {cookie}\r\n\r\n".encode())
        answered = sum(line.recv(64).startswith(b"HTTP/1.1 200") for line in lines)
        for _ in range(halves):
            stack.enter_context(_line(served.port)).sendall(b"POST /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nConte")
        yield answered


def cookie_of(tablet: Tablet) -> str:
    """The tablet's cookies as a header."""
    return "; ".join(f"{cookie.name}={cookie.value}" for cookie in tablet.jar)


def _line(port: int) -> socket.socket:
    return socket.create_connection(("127.0.0.1", port), 30.0)


def _calls(served: Served, tablet: Tablet) -> float:
    """95th percentile of a plain call [ms]."""
    taken = []
    for _ in range(CALLS):
        start = time.perf_counter()
        connection = http.client.HTTPConnection("127.0.0.1", served.port, timeout=30)
        connection.request("GET", "/api/fittings", headers={"Cookie": cookie_of(tablet)})
        if connection.getresponse().read()[:1] != b"{":
            raise RuntimeError("a plain call was not answered")
        connection.close()
        taken.append(1e3 * (time.perf_counter() - start))
    return float(np.percentile(taken, 95))
