"""The one interface between the application and a device; a new device is one more driver."""

from __future__ import annotations

import contextlib
import socket
from collections.abc import Iterator
from hmac import compare_digest
from typing import Any, Protocol

from oblatus.devices.protocol import LONGEST_LINE, Hello, Line, LineError, encode, number_of, read_line

CONNECT_SECONDS = 3.0
GONE_AFTER = {socket.TCP_KEEPIDLE: 3, socket.TCP_KEEPINTVL: 1, socket.TCP_KEEPCNT: 3}
STRANGER = "does not show this studio's token: it is not listened to"


class Driver(Protocol):
    """A device that gives lines. A line is acknowledged once it is kept; until then the device gives it again."""

    def lines(self) -> Iterator[Line | LineError | None]:
        """Lines as they come; a `LineError` for one that cannot be used, None when nothing came for a while."""
        ...

    def acknowledge(self, seq: int) -> None:
        """Tell the device that the line with this number is kept."""
        ...

    def refuse(self, seq: int | None, words: str) -> None:
        """Tell the device why a line was not taken; it is not to send it again."""
        ...

    def arm(self, message: dict[str, Any]) -> None:
        """Tell the device what is hit next."""
        ...

    def close(self) -> None:
        """Let go of the device."""
        ...


class LineDriver:
    """A device that speaks the line protocol over TCP. With a token, only one that shows it first is listened to."""

    def __init__(self, host: str, port: int, listener: str, token: str = "", quiet_seconds: float = 0.25) -> None:
        self._token, self._shown = token, not token
        self._socket = socket.create_connection((host, port), CONNECT_SECONDS)
        self._socket.settimeout(quiet_seconds)
        self._socket.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
        for option, value in GONE_AFTER.items():  # a device that is switched off is missed within seconds
            self._socket.setsockopt(socket.IPPROTO_TCP, option, value)
        self._socket.setsockopt(socket.SOL_SOCKET, socket.SO_KEEPALIVE, 1)
        self._send({"listen": listener})

    def lines(self) -> Iterator[Line | LineError | None]:
        """See `Driver`; ends when the device closes the connection."""
        held = b""
        while True:
            try:
                got = self._socket.recv(65536)
            except TimeoutError:
                yield None
                continue
            if not got:
                if held:
                    yield LineError("ends in the middle")
                return
            held += got
            while b"\n" in held:
                raw, held = held.split(b"\n", 1)
                line = self._read(raw + b"\n")
                yield line
                if not self._shown:
                    return
            if len(held) > LONGEST_LINE:
                held = b""
                yield LineError(f"is longer than {LONGEST_LINE} bytes")

    def _read(self, raw: bytes) -> Line | LineError:
        try:
            line = read_line(raw)
            if isinstance(line, Hello):
                self._shown = not self._token or compare_digest(
                    line.token.encode("utf-8", "replace"), self._token.encode()
                )
            if not self._shown:
                raise LineError(STRANGER)
        except LineError as error:
            self.refuse(number_of(raw), error.message)
            return error
        return line

    def refuse(self, seq: int | None, words: str) -> None:
        """See `Driver`."""
        if seq is not None and self._shown:
            self.acknowledge(seq)  # rubbish stays rubbish: it is flagged once and not asked for again
        self._send({"refused": words})

    def acknowledge(self, seq: int) -> None:
        """See `Driver`."""
        self._send({"ack": seq})

    def arm(self, message: dict[str, Any]) -> None:
        """See `Driver`."""
        self._send({"arm": message})

    def close(self) -> None:
        """See `Driver`."""
        with contextlib.suppress(OSError):
            self._socket.close()

    def _send(self, message: dict[str, Any]) -> None:
        self._socket.sendall(encode(message))
