"""The line protocol: one JSON object a line, UTF-8, at most 8 kB; numbered by the device, acknowledged by the listener.

`docs/formats/device-protocol.md` describes every line with an example.
"""

from __future__ import annotations

import json
import math
from dataclasses import dataclass, field
from typing import Any
from uuid import UUID

from oblatus.errors import OblatusError

PROTOCOL = 1
LONGEST_LINE = 8192
LONGEST_AGO = 86_400.0  # s


class LineError(OblatusError):
    """A line that cannot be used, with the reason in words."""


@dataclass(frozen=True, slots=True)
class Hello:
    """The first line of a device: what it is, its serial, whether it is simulated, and the studio's token."""

    device: str
    serial: str
    simulated: bool
    token: str = ""


@dataclass(frozen=True, slots=True)
class StrikeLine:
    """A strike: number of the line, id from the source, figures with their units in the names, the device's clock [s].

    `ago` is how long before the line was sent it was hit [s], if the device tells.
    """

    seq: int
    id: UUID
    figures: dict[str, float] = field(default_factory=dict)
    clock: float | None = None
    ago: float | None = None


@dataclass(frozen=True, slots=True)
class TroubleLine:
    """What the device says is wrong with it."""

    seq: int
    words: str


@dataclass(frozen=True, slots=True)
class ReadingLine:
    """A reading of a gauge, hammer or penetrometer: number of the line, id from the source, figures, clock, ago [s]."""

    seq: int
    id: UUID
    figures: dict[str, float] = field(default_factory=dict)
    clock: float | None = None
    ago: float | None = None


Line = Hello | StrikeLine | ReadingLine | TroubleLine


def encode(message: dict[str, Any]) -> bytes:
    """A message as a line."""
    return json.dumps(message, ensure_ascii=False, allow_nan=False).encode() + b"\n"


def read_line(raw: bytes) -> Line:
    """A device's line.

    Raises
    ------
    LineError
        If it is too long, cut, no JSON object, of no kind that is known, or a figure is not a finite number.
    """
    if len(raw) > LONGEST_LINE:
        raise LineError(f"is longer than {LONGEST_LINE} bytes")
    if not raw.endswith(b"\n"):
        raise LineError("ends in the middle")
    try:
        data = json.loads(raw)
    except (ValueError, RecursionError):
        raise LineError("is not JSON") from None
    if not isinstance(data, dict):
        raise LineError("is not an object")
    if "hello" in data:
        return _hello(data)
    seq = data.get("seq")
    if not isinstance(seq, int) or isinstance(seq, bool) or seq < 1:
        raise LineError("has no number")
    if isinstance(data.get("trouble"), str):
        return TroubleLine(seq, _text(data["trouble"])[:200])
    if "strike" in data:
        return StrikeLine(seq, _id(data.get("id")), figures_of(data["strike"]), _clock(data), _ago(data))
    if "reading" in data:
        return ReadingLine(seq, _id(data.get("id")), figures_of(data["reading"]), _clock(data), _ago(data))
    raise LineError("is of no kind that is known")


def number_of(raw: bytes) -> int | None:
    """The number of a line that could not be used otherwise, so that it can be acknowledged and is not sent for ever."""
    try:
        seq = json.loads(raw).get("seq")
    except (ValueError, AttributeError, RecursionError):
        return None
    return seq if isinstance(seq, int) and not isinstance(seq, bool) and seq > 0 else None


def _hello(data: dict[str, Any]) -> Hello:
    if data.get("hello") != PROTOCOL:
        raise LineError(f"speaks version {data.get('hello')!r} of the protocol, not {PROTOCOL}")
    device, serial = data.get("device"), data.get("serial")
    if not isinstance(device, str) or not isinstance(serial, str):
        raise LineError("does not say which device it is")
    token = data.get("token", "")
    shown = token if isinstance(token, str) else ""
    return Hello(_text(device)[:40], _text(serial)[:40], bool(data.get("simulated", False)), shown)


def _text(value: str) -> str:
    """Text that can be kept.

    Raises
    ------
    LineError
        If it holds what no text has: a NUL, or half of a character.
    """
    if "\0" in value or (not value.isascii() and any("\ud800" <= mark <= "\udfff" for mark in value)):
        raise LineError("holds a character that no text has")
    return value


def _finite(value: Any) -> float | None:
    """A finite number, or None for anything else, one of four hundred digits included."""
    if isinstance(value, bool) or not isinstance(value, (int, float)):
        return None
    try:
        number = float(value)
    except OverflowError:
        return None
    return number if math.isfinite(number) else None


def _clock(data: dict[str, Any]) -> float | None:
    """The device's clock, if it tells it as a number: nothing depends on it."""
    return _finite(data.get("clock"))


def _ago(data: dict[str, Any]) -> float | None:
    """How long before the line was sent its figures were measured [s]; None for a device that does not tell, or tells
    what cannot be.
    """
    told = _finite(data.get("ago_s"))
    return None if told is None or not 0.0 <= told <= LONGEST_AGO else told


def _id(value: Any) -> UUID:
    try:
        return UUID(value)
    except (ValueError, TypeError, AttributeError):
        raise LineError("has no id") from None


def figures_of(value: Any) -> dict[str, float]:
    """Figures of a strike or reading: names with finite numbers.

    Raises
    ------
    LineError
        If it is no object of numbers.
    """
    if not isinstance(value, dict) or len(value) > 40:
        raise LineError("has no figures")
    found = {}
    for name, figure in value.items():
        number = _finite(figure)
        if number is None:
            raise LineError(f"has a figure that is no number: {_text(str(name))[:40]}")
        found[_text(str(name))] = number
    return found
