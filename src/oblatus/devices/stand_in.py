"""What every stand-in device does: serve the line protocol, number its lines, send again, and misbehave on request."""

from __future__ import annotations

import contextlib
import hashlib
import json
import socket
import socketserver
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Self
from uuid import UUID, uuid5

import numpy as np

from oblatus.devices.protocol import PROTOCOL, encode
from oblatus.errors import InputError

NAMESPACE = UUID("5f0b8f86-4a0f-5d3c-9f8e-0b1a75000000")
RESEND_SECONDS = 2.0

Make = Callable[[Any, int, np.random.Generator], dict[str, Any]]
"""What a device measures of what it is armed with: the n-th line's own part, `{"strike": …}` or `{"reading": …}`."""


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

    serial: str
    listener: str
    seed: int
    made: int = 0
    seq: int = 0
    armed: Any = None
    told: Any = None
    since_armed: int = 0
    unacknowledged: dict[int, tuple[float, dict[str, Any]]] = field(default_factory=dict)
    rng: np.random.Generator = field(init=False)
    lock: threading.Lock = field(default_factory=threading.Lock)

    def __post_init__(self) -> None:
        digest = hashlib.blake2b(f"{self.serial}|{self.seed}|{self.listener}".encode(), digest_size=8).digest()
        self.rng = np.random.default_rng(int.from_bytes(digest))

    def make(self, make: Make) -> int:
        """The number of the next measurement, which is kept until it is acknowledged."""
        measured = make(self.armed, self.made, self.rng)
        self.made += 1
        self.since_armed += 1
        self.seq += 1
        name = str(uuid5(NAMESPACE, f"{self.serial}|{self.seed}|{self.listener}|{self.seq}"))
        line = {"seq": self.seq, "id": name, "clock": round(time.time(), 3), **measured}
        self.unacknowledged[self.seq] = time.monotonic(), line
        return self.seq

    def line(self, seq: int) -> bytes:
        """A measurement as a line that is sent now; nothing of one that was acknowledged meanwhile."""
        if seq not in self.unacknowledged:
            return b""
        measured_at, line = self.unacknowledged[seq]
        return encode({**line, "ago_s": round(time.monotonic() - measured_at, 3)})


class StandIn:
    """Serves measurements over TCP: one every `every` seconds to each listener that has armed it, up to `most`.

    A kind of device says what it is (`device`, `serial`), reads what it is armed with (`read_arm`), and makes
    measurements of it (`measure`); `per_arm` is how many it makes of one thing before it waits to be armed anew. `token`
    is the studio's, shown with the first line.
    """

    device = ""
    serial = ""
    per_arm: int | None = None
    token = ""

    def read_arm(self, arm: dict[str, Any]) -> Any:
        """What is to be measured.

        Raises
        ------
        InputError, KeyError, TypeError
            If it cannot be; the device then goes on with what it had.
        """
        raise NotImplementedError

    def measure(self, armed: Any, number: int, rng: np.random.Generator) -> dict[str, Any]:
        """The device's part of a line, with figures that name their units."""
        raise NotImplementedError

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

    def start(self) -> Self:
        """Serve in a thread of its own."""
        threading.Thread(target=self._server.serve_forever, name=self.serial, daemon=True).start()
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
        """One connection: hello, then what was not acknowledged, then a line at a time."""
        connection.settimeout(0.05)
        with contextlib.suppress(OSError):
            connection.sendall(
                encode(
                    {
                        "hello": PROTOCOL,
                        "device": self.device,
                        "serial": self.serial,
                        "simulated": True,
                        "token": self.token,
                    }
                )
            )
            self._talk(connection)

    def _talk(self, connection: socket.socket) -> None:
        stream: Stream | None = None
        held, due, sent_at = b"", time.monotonic() + self.every, 0.0
        late: list[int] = []
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
                    for seq in list(stream.unacknowledged):
                        connection.sendall(stream.line(seq))
                    sent_at = now
                if stream.armed is None or now < due or self._is_done(stream):
                    continue
                due = now + self.every_after(stream)
                if not self._send(connection, stream, late):
                    return
                sent_at = now

    def every_after(self, stream: Stream) -> float:
        """Seconds until the measurement after the present one."""
        del stream
        return self.every

    def _is_done(self, stream: Stream) -> bool:
        if self.most is not None and stream.made >= self.most:
            return True
        return self.per_arm is not None and stream.since_armed >= self.per_arm

    def _send(self, connection: socket.socket, stream: Stream, late: list[int]) -> bool:
        """Send the next line, with whatever goes wrong; False when the connection is to drop."""
        seq, rng = stream.make(self.measure), stream.rng
        line = stream.line(seq)
        if rng.random() < self.wrong.rubbish:
            connection.sendall(line[: len(line) // 2] + b"\n" if rng.random() < 0.5 else b"\x00\xffnonsense\n")
        if rng.random() < self.wrong.shuffle:
            late.append(seq)
            return True
        connection.sendall(line)
        while late:
            connection.sendall(stream.line(late.pop()))
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
                return self.streams.setdefault(name, Stream(self.serial, name, self.seed))
        if stream is not None and "ack" in message:
            with stream.lock:
                stream.unacknowledged.pop(int(message["ack"]), None)
        elif stream is not None and "arm" in message:
            with stream.lock, contextlib.suppress(InputError, KeyError, TypeError):
                stream.armed = self.read_arm(message["arm"])
                if message["arm"] != stream.told:  # told again after a lost connection, it goes on where it was
                    stream.told, stream.since_armed = message["arm"], 0
        return stream


def own_rng(what: str) -> np.random.Generator:
    """Random numbers that belong to one thing: it is off in the same way every time."""
    return np.random.default_rng(int.from_bytes(hashlib.blake2b(what.encode(), digest_size=8).digest()))
