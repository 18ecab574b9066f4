"""The studio's rack as heads."""

from __future__ import annotations

from functools import lru_cache

from oblatus.formats.fitting import RackHeadDocument
from oblatus.store.repositories import StudioRows


def rack_of(rows: StudioRows) -> tuple[RackHeadDocument, ...]:
    """Every head of the studio's rack, in its order; equal rows are parsed once."""
    return _heads(tuple(tuple(head.items()) for head in rows.rack()))


@lru_cache(maxsize=32)
def _heads(rows: tuple[tuple[tuple[str, object], ...], ...]) -> tuple[RackHeadDocument, ...]:
    return tuple(RackHeadDocument.model_validate(dict(row)) for row in rows)
