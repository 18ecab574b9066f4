"""What every error looks like."""

from __future__ import annotations

from http import HTTPStatus
from typing import Any

from pydantic import BaseModel

from oblatus.formats.fields import Strict


class FaultOut(Strict):
    """One thing wrong: where, what, the value given, and what a fitter calls the field; empty where it has no name."""

    field: str
    message: str
    value: str
    name: str = ""


class ErrorOut(Strict):
    """Every error has this shape; `reference` names an unexpected one in the log."""

    code: str
    message: str
    faults: tuple[FaultOut, ...] = ()
    revision: int | None = None
    reference: str | None = None


EVERYWHERE: dict[str | int | HTTPStatus, type[BaseModel] | dict[Any, Any] | None] = dict.fromkeys(
    (400, 401, 404, 405, 413, 422, 429, 503, 507), ErrorOut
)
"""What any route may answer: nobody is signed in, the body makes no sense, the machine is busy or out of something."""
