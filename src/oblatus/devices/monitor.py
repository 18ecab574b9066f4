"""The stand-in strike monitor: a server of the line protocol that makes strikes up, and can misbehave on request."""

from __future__ import annotations

import contextlib
import hashlib
import json
import socket
import socketserver
import threading
import time
from dataclasses import dataclass, field
from typing import Any
from uuid import UUID, uuid5

import numpy as np

from oblatus.core.clubs import Head
from oblatus.core.grounds import Sand, Turf
from oblatus.core.session.simulated import Described, simulate_strike
from oblatus.devices.protocol import PROTOCOL, encode
from oblatus.errors import InputError

SERIAL = "stand-in monitor"
NAMESPACE = UUID("5f0b8f86-4a0f-5d3c-9f8e-0b1a75000000")
RESEND_SECONDS = 2.0


@dataclass(frozen=True, slots=True)
class Misbehaviour:
    """Shares of lines with which it goes wrong: sent twice, cut or rubbish, out of order; and a dropped connection."""

    repeat: float = 0.0
    rubbish: float = 0.0
    shuffle: float = 0.0
    drop: float = 0.0


@dataclass(slots=True)
class Stream:
    """What one listener has coming: numbered lines not yet acknowledged, and its own random numbers and clock."""

    listener: str
    seed: int
    made: int = 0
    seq: int = 0
    armed: Described | None = None
    unacknowledged: dict[int, bytes] = field(default_factory=dict)
    rng: np.random.Generator = field(init=False)
    lock: threading.Lock = field(default_factory=threading.Lock)

    def __post_init__(self) -> None:
        digest = hashlib.blake2b(f"{self.seed}|{self.listener}".encode(), digest_size=8).digest()
        self.rng = np.random.default_rng(int.from_bytes(digest))

    def make(self) -> bytes:
        """The next strike as a line, kept until it is acknowledged."""
        if self.armed is None:
            raise InputError([])
        figures = simulate_strike(self.armed, self.made, self.rng)
        self.made += 1
        self.seq += 1
        name = str(uuid5(NAMESPACE, f"{self.seed}|{self.listener}|{self.seq}"))
        line = encode({"seq": self.seq, "id": name, "clock": round(time.time(), 3), "strike": figures})
        self.unacknowledged[self.seq] = line
        return line


class MonitorStandIn:
    """Serves strikes over TCP: one every `every` seconds to each listener that has armed it, up to `most`."""

    def __init__(
        self,
        port: int = 0,
        seed: int = 1,
        every: float = 4.0,
        most: int | None = None,
        wrong: Misbehaviour | None = None,
    ) -> None:
        self.seed, self.every, self.most = seed, every, most
        self.wrong = wrong or Misbehaviour()
        self.streams: dict[str, Stream] = {}
        self._lock = threading.Lock()
        stand_in = self

        class Handler(socketserver.BaseRequestHandler):
            def handle(self) -> None:
                stand_in.talk(self.request)

        socketserver.ThreadingTCPServer.allow_reuse_address = True
        self._server = socketserver.ThreadingTCPServer(("127.0.0.1", port), Handler)
        self._server.daemon_threads = True
        self.port = int(self._server.server_address[1])
        self._closing = threading.Event()

    def start(self) -> MonitorStandIn:
        """Serve in a thread of its own."""
        threading.Thread(target=self._server.serve_forever, name="stand-in monitor", daemon=True).start()
        return self

    def serve(self) -> None:
        """Serve until the process is told to stop."""
        self._server.serve_forever()

    def close(self) -> None:
        """Stop serving; every connection ends."""
        self._closing.set()
        self._server.shutdown()
        self._server.server_close()

    def talk(self, connection: socket.socket) -> None:
        """One connection: hello, then what was not acknowledged, then a strike at a time."""
        connection.settimeout(0.05)
        with contextlib.suppress(OSError):
            connection.sendall(
                encode({"hello": PROTOCOL, "device": "strike monitor", "serial": SERIAL, "simulated": True})
            )
            self._talk(connection)

    def _talk(self, connection: socket.socket) -> None:
        stream: Stream | None = None
        held, due, sent_at = b"", time.monotonic() + self.every, 0.0
        late: list[bytes] = []
        while not self._closing.is_set():
            try:
                got = connection.recv(65536)
                if not got:
                    return
                held += got
            except TimeoutError:
                pass
            while b"\n" in held:
                raw, held = held.split(b"\n", 1)
                stream = self._hear(raw, stream)
            if stream is None:
                continue
            with stream.lock:
                now = time.monotonic()
                if stream.unacknowledged and now - sent_at > RESEND_SECONDS:
                    for line in list(stream.unacknowledged.values()):
                        connection.sendall(line)
                    sent_at = now
                if stream.armed is None or now < due or (self.most is not None and stream.made >= self.most):
                    continue
                due = now + self.every
                if not self._send(connection, stream, late):
                    return
                sent_at = now

    def _send(self, connection: socket.socket, stream: Stream, late: list[bytes]) -> bool:
        """Send the next strike, with whatever goes wrong; False when the connection is to drop."""
        line, rng = stream.make(), stream.rng
        if rng.random() < self.wrong.rubbish:
            connection.sendall(line[: len(line) // 2] + b"\n" if rng.random() < 0.5 else b"\x00\xffnonsense\n")
        if rng.random() < self.wrong.shuffle:
            late.append(line)
            return True
        connection.sendall(line)
        while late:
            connection.sendall(late.pop())
        if rng.random() < self.wrong.repeat:
            connection.sendall(line)
        return bool(rng.random() >= self.wrong.drop)

    def _hear(self, raw: bytes, stream: Stream | None) -> Stream | None:
        try:
            message = json.loads(raw)
        except ValueError:
            return stream
        if "listen" in message:
            with self._lock:
                name = str(message["listen"])
                return self.streams.setdefault(name, Stream(name, self.seed))
        if stream is not None and "ack" in message:
            with stream.lock:
                stream.unacknowledged.pop(int(message["ack"]), None)
        elif stream is not None and "arm" in message:
            with stream.lock, contextlib.suppress(InputError, KeyError, TypeError):
                stream.armed = described(message["arm"])
        return stream


def described(arm: dict[str, Any]) -> Described:
    """The player, club and ground of an arm message.

    Raises
    ------
    InputError
        If the head or the ground cannot exist.
    KeyError
        If something is missing.
    """
    head, ground = arm["head"], dict(arm["ground"])
    sand = ground.pop("kind") == "sand"
    return Described(
        Head(**head),
        Sand(**ground) if sand else Turf(**ground),
        float(arm["opening_deg"]),
        (float(arm["attack"][0]), float(arm["attack"][1])),
        (float(arm["lean"][0]), float(arm["lean"][1])),
        (float(arm["entry"][0]), float(arm["entry"][1])),
        float(arm["speed"]),
        float(arm["release"]),
        float(arm.get("tiring", 0.0)),
    )
