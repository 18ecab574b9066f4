"""Files as a screen sends them."""

from __future__ import annotations

import base64


def in_base64(text: str) -> str:
    """A text file in base64."""
    return base64.b64encode(text.encode()).decode()
