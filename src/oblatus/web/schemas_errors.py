"""What every error looks like."""

from __future__ import annotations

from oblatus.formats.fields import Strict


class FaultOut(Strict):
    """One thing wrong: where, what, and the value given."""

    field: str
    message: str
    value: str


class ErrorOut(Strict):
    """Every error has this shape; `reference` names an unexpected one in the log."""

    code: str
    message: str
    faults: tuple[FaultOut, ...] = ()
    revision: int | None = None
    reference: str | None = None
