"""Models as JSON responses."""

from __future__ import annotations

import io
import re
import unicodedata

from flask import Response, current_app, send_file
from pydantic import BaseModel

from oblatus.core.words import GAP, OPEN, worded
from oblatus.web.auth import reader

Answer = Response


def answer(model: BaseModel, status: int = 200) -> Response:
    """A model as JSON, its sentences in the reader's units; never cached, it changes with every edit."""
    text = said(model.model_dump_json())
    response: Response = current_app.response_class(text, status=status, mimetype="application/json")
    response.headers["Cache-Control"] = "no-store"
    response.direct_passthrough = False
    return response


def said(text: str) -> str:
    """Sentences in the units of who reads."""
    return worded(text, reader()) if OPEN in text or GAP in text else text


def nothing() -> Response:
    """An empty answer."""
    return current_app.response_class(status=204)


def inline(content: str | bytes, kind: str) -> Response:
    """A file to be shown; never cached, it changes with every edit."""
    response: Response = current_app.response_class(content, mimetype=kind)
    response.headers["Cache-Control"] = "no-store"
    return response


def download(content: str | bytes, kind: str, name: str, ending: str) -> Response:
    """A file to keep, named after whom it is about."""
    data = content.encode() if isinstance(content, str) else content
    safe = re.sub(r"[^\w.-]+", "-", unicodedata.normalize("NFC", name)).strip("-.") or "fitting"
    response: Response = send_file(io.BytesIO(data), kind, as_attachment=True, download_name=f"{safe}{ending}", max_age=0)
    response.headers["Cache-Control"] = "no-store"
    response.direct_passthrough = False
    return response
