"""Files that come in the body of a request."""

from __future__ import annotations

import base64

from oblatus.errors import fault


def bytes_of(content: str) -> bytes:
    """A file from its base64.

    Raises
    ------
    InputError
        If it is not base64.
    """
    try:
        return base64.b64decode(content, validate=True)
    except ValueError as error:
        raise fault("content", "is not base64") from error
