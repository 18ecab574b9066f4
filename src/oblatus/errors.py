"""The one error tree. Every error carries the data that a screen or a shell needs to say what to do."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing wrong with the input: where (a dotted path), what, the value that was given, and the field's name as a
    fitter says it, where it has one."""

    field: str
    message: str
    value: str = ""
    name: str = ""

    def line(self) -> str:
        """The fault as one line: field, value, what is allowed."""
        shown = f" = {self.value}" if self.value else ""
        return f"{self.field}{shown}: {self.message}"


class OblatusError(Exception):
    """Base of every error that Oblatus raises on purpose."""

    status = 500
    code = "error"

    def __init__(self, message: str) -> None:
        super().__init__(message)
        self.message = message


class InputError(OblatusError):
    """The input is wrong; `faults` says where."""

    status = 422
    code = "invalid"

    def __init__(self, faults: Sequence[Fault]) -> None:
        self.faults = tuple(faults)
        super().__init__("; ".join(fault.line() for fault in self.faults))


class NotFoundError(OblatusError):
    """No such thing in this studio."""

    status = 404
    code = "not_found"


class ConflictError(OblatusError):
    """Someone else changed it first; `revision` is the one that stands."""

    status = 409
    code = "conflict"

    def __init__(self, message: str, revision: int) -> None:
        super().__init__(message)
        self.revision = revision


class SignInError(OblatusError):
    """The address or the password is wrong."""

    status = 401
    code = "sign_in"


class SignedOutError(OblatusError):
    """Nobody is signed in here, or not any more."""

    status = 401
    code = "signed_out"


class OtherFitterError(OblatusError):
    """Somebody else has signed in on this browser than the one the page was made for."""

    status = 401
    code = "other_fitter"


class LaterError(OblatusError):
    """Not now: the same may be asked again after `seconds`."""

    status = 503
    code = "busy"

    def __init__(self, message: str, seconds: int = 2) -> None:
        super().__init__(message)
        self.seconds = seconds


class TooManyError(LaterError):
    """Too many tries."""

    status = 429
    code = "too_many"


class DiskFullError(LaterError):
    """The disk is full: nothing is written, everything can be read."""

    status = 507
    code = "disk_full"

    def __init__(self) -> None:
        super().__init__("The disk of the machine that serves is full; nothing was saved. Make room, then it goes on.", 5)


class SetUpError(OblatusError):
    """The machine lacks something, or a step of the set-up failed; the message says what to do."""

    code = "set_up"


def fault(field: str, message: str, value: object = "") -> InputError:
    """An `InputError` with a single fault."""
    return InputError([Fault(field, message, shorten(value))])


def shorten(value: object, limit: int = 60) -> str:
    """A value as text, short enough for one line of an error."""
    text = value if isinstance(value, str) else repr(value)
    return text if len(text) <= limit else text[: limit - 1] + "…"
