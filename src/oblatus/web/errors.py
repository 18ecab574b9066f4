"""The one place where errors become JSON."""

from __future__ import annotations

import errno
import logging
from collections.abc import Iterable
from uuid import uuid4

from flask import Flask, Response, current_app
from flask_wtf.csrf import CSRFError
from pydantic import ValidationError
from sqlalchemy.exc import DBAPIError, SQLAlchemyError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from werkzeug.exceptions import HTTPException

from oblatus.errors import (
    ConflictError,
    DiskFullError,
    Fault,
    InputError,
    LaterError,
    NotFoundError,
    OblatusError,
    fault,
)
from oblatus.formats.differences import name_of
from oblatus.formats.fields import faults_of
from oblatus.logs import where
from oblatus.web.answers import said
from oblatus.web.schemas_errors import ErrorOut, FaultOut

LOG = logging.getLogger(__name__)

HTTP_WORDS = {
    400: ("request", "This request makes no sense here; nothing was saved."),
    404: ("not_found", "There is nothing at this address."),
    405: ("method", "This address does not take that."),
    413: ("too_large", "That is larger than can be sent here; nothing was saved."),
    415: ("media_type", "The body must be JSON."),
}
BUSY = "Somebody else is changing the same; nothing was saved. Try again."
AWAY = "The database does not answer; nothing was saved."
NO_TEXT = "holds a character that no text has"
NO_NUMBER = "holds a number that is too large to be kept"
GONE = "What this belongs to was removed meanwhile."


def _of_database(state: str | None) -> OblatusError | None:
    """What a state of PostgreSQL means to a person (its appendix A); None for one that nobody foresaw."""
    if state is None or state.startswith(("08", "57P")):
        return LaterError(AWAY)
    if state.startswith("53"):
        return DiskFullError() if state == "53100" else LaterError(AWAY, 5)
    if state.startswith("40") or state in {"55P03", "23505"}:
        return LaterError(BUSY)
    known: dict[str, OblatusError] = {
        "57014": LaterError("The database took too long over this; nothing was saved.", 5),
        "25P03": LaterError("This took too long; nothing was saved.", 5),
        "22021": fault("body", NO_TEXT),
        "22P05": fault("body", NO_TEXT),
        "22003": fault("body", NO_NUMBER),
        "22001": fault("body", "holds a text that is too long"),
        "23503": NotFoundError(GONE),
        "23514": fault("body", "holds a figure that cannot be"),
    }
    return known.get(state)


def error_response(error: ErrorOut, status: int) -> Response:
    """An error as a JSON response."""
    response = current_app.response_class(said(error.model_dump_json()), status=status, mimetype="application/json")
    response.headers["Cache-Control"] = "no-store"
    return response


def fault_list(faults: Iterable[Fault]) -> list[FaultOut]:
    """Faults as they leave."""
    return [FaultOut(field=f.field, message=f.message, value=f.value, name=f.name) for f in faults]


def validation_response(error: ValidationError) -> Response:
    """A body, query or path that does not fit its model."""
    return _ours(faults_of(error))


def configure_errors(app: Flask) -> None:
    """Register every handler."""
    app.register_error_handler(OblatusError, _ours)
    app.register_error_handler(CSRFError, _csrf)
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(PoolTimeout, lambda _: _ours(LaterError(AWAY)))
    app.register_error_handler(SQLAlchemyError, _database)
    app.register_error_handler(RecursionError, lambda _: _ours(fault("body", "is nested too deeply")))
    app.register_error_handler(UnicodeError, lambda _: _ours(fault("body", NO_TEXT)))
    app.register_error_handler(OSError, _system)
    app.register_error_handler(Exception, _unknown)


def _ours(error: OblatusError) -> Response:
    faults = tuple(fault_list(error.faults)) if isinstance(error, InputError) else ()
    # not its value: it would stand there in the document's units, and as it is kept
    told = [f"{one.name} {one.message}." if one.name else f"{name_of(one.field, {})}: {one.message}." for one in faults]
    message = " ".join(told) or error.message
    revision = error.revision if isinstance(error, ConflictError) else None
    response = error_response(ErrorOut(code=error.code, message=message, faults=faults, revision=revision), error.status)
    if isinstance(error, LaterError):
        response.headers["Retry-After"] = str(error.seconds)
    return response


def _csrf(_: CSRFError) -> Response:
    return error_response(ErrorOut(code="csrf", message="The page is out of date: load it again."), 400)


def _http(error: HTTPException) -> Response:
    status = error.code or 500
    if error.response is not None and isinstance(error.response, Response):
        return error.response
    code, message = HTTP_WORDS.get(status, ("http", error.name))
    return error_response(ErrorOut(code=code, message=message), status)


def _database(error: SQLAlchemyError) -> Response:
    cause = error.orig if isinstance(error, DBAPIError) else None
    if cause is not None and "NUL" in str(cause):
        return _ours(fault("body", NO_TEXT))
    state = getattr(cause, "sqlstate", None)
    known = _of_database(state) if cause is not None else None
    if known is None:
        return _unknown(error)
    LOG.warning("database: %s %s", type(cause).__name__, state or "no answer")
    return _ours(known)


def _system(error: OSError) -> Response:
    if error.errno in (errno.ENOSPC, errno.EDQUOT):
        return _ours(DiskFullError())
    return _unknown(error)


def _unknown(error: Exception) -> Response:
    reference = uuid4().hex[:8]
    LOG.error("unexpected error %s\n%s", reference, where(error))
    # an edit is saved before its proposal is worked out: nothing can be said of that here
    words = f"Something went wrong here. Look whether it was saved. Reference {reference}."
    return error_response(ErrorOut(code="unexpected", message=words, reference=reference), 500)
