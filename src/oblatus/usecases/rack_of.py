"""The studio's rack as heads."""

from __future__ import annotations

from functools import lru_cache
from uuid import UUID

from oblatus.formats.fitting import RackHeadDocument
from oblatus.store.builds import StudioBuilds
from oblatus.store.repositories import StudioRows


def rack_of(rows: StudioRows) -> tuple[RackHeadDocument, ...]:
    """Every head of the studio's rack, in its order; equal rows are parsed once."""
    return _heads(tuple(tuple(head.items()) for head in rows.rack()))


def rack_for(rows: StudioRows, fitting_id: UUID) -> tuple[RackHeadDocument, ...]:
    """The rack as a fitting may use it: heads that are set aside for its own build are on the shelf for it."""
    heads, own = rack_of(rows), StudioBuilds(rows.session, rows.studio_id).reserved(fitting_id)
    if not own:
        return heads
    return tuple(
        head.model_copy(update={"stock": head.stock + own[head.code]}) if head.code in own else head for head in heads
    )


@lru_cache(maxsize=32)
def _heads(rows: tuple[tuple[tuple[str, object], ...], ...]) -> tuple[RackHeadDocument, ...]:
    return tuple(RackHeadDocument.model_validate(dict(row)) for row in rows)
