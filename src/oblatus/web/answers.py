"""Models as JSON responses."""

from __future__ import annotations

from flask import Response, current_app
from pydantic import BaseModel

Answer = Response


def answer(model: BaseModel, status: int = 200) -> Response:
    """A model as JSON; never cached, it changes with every edit."""
    response: Response = current_app.response_class(model.model_dump_json(), status=status, mimetype="application/json")
    response.headers["Cache-Control"] = "no-store"
    return response


def nothing() -> Response:
    """An empty answer."""
    return current_app.response_class(status=204)
