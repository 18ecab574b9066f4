"""The one place where errors become JSON."""

from __future__ import annotations

import logging
from uuid import uuid4

from flask import Flask, Response, jsonify, make_response
from flask_wtf.csrf import CSRFError
from pydantic import ValidationError
from sqlalchemy.exc import OperationalError
from werkzeug.exceptions import HTTPException

from oblatus.errors import ConflictError, InputError, OblatusError
from oblatus.formats.fields import faults_of
from oblatus.web.schemas import ErrorOut, FaultOut

LOG = logging.getLogger(__name__)

HTTP_WORDS = {
    404: ("not_found", "There is nothing at this address."),
    405: ("method", "This address does not take that."),
    413: ("too_large", "That is larger than can be sent here; nothing was saved."),
    415: ("media_type", "The body must be JSON."),
    429: ("too_many", "Too many tries. Wait a minute, then try again."),
}


def error_response(error: ErrorOut, status: int) -> Response:
    """An error as a JSON response."""
    response = make_response(jsonify(error.model_dump(mode="json")), status)
    response.headers["Cache-Control"] = "no-store"
    return response


def fault_list(error: InputError) -> list[FaultOut]:
    """Faults as they leave."""
    return [FaultOut(field=f.field, message=f.message, value=f.value) for f in error.faults]


def validation_response(error: ValidationError) -> Response:
    """A body, query or path that does not fit its model."""
    return _ours(faults_of(error))


def configure_errors(app: Flask) -> None:
    """Register every handler."""
    app.register_error_handler(OblatusError, _ours)
    app.register_error_handler(CSRFError, _csrf)
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(OperationalError, _database)
    app.register_error_handler(Exception, _unknown)


def _ours(error: OblatusError) -> Response:
    faults = tuple(fault_list(error)) if isinstance(error, InputError) else ()
    revision = error.revision if isinstance(error, ConflictError) else None
    return error_response(
        ErrorOut(code=error.code, message=error.message, faults=faults, revision=revision), error.status
    )


def _csrf(_: CSRFError) -> Response:
    return error_response(ErrorOut(code="csrf", message="The page is out of date: load it again."), 400)


def _http(error: HTTPException) -> Response:
    status = error.code or 500
    if error.response is not None and isinstance(error.response, Response):
        return error.response
    code, message = HTTP_WORDS.get(status, ("http", error.name))
    return error_response(ErrorOut(code=code, message=message), status)


def _database(error: OperationalError) -> Response:
    LOG.warning("database: %s", error.orig)
    return error_response(ErrorOut(code="database", message="The database does not answer; nothing was saved."), 503)


def _unknown(error: Exception) -> Response:
    reference = uuid4().hex[:8]
    LOG.error("unexpected error %s", reference, exc_info=error)
    words = f"Something went wrong here; nothing was saved. Reference {reference}."
    return error_response(ErrorOut(code="unexpected", message=words, reference=reference), 500)
