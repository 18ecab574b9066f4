"""The studio's rack as heads."""

from __future__ import annotations

from collections import Counter
from functools import lru_cache
from uuid import UUID

from pydantic import TypeAdapter

from oblatus.formats.sections.bag import RackHeadDocument
from oblatus.store.repositories import StudioRows

RACK = TypeAdapter(tuple[RackHeadDocument, ...])


def rack_of(rows: StudioRows) -> tuple[RackHeadDocument, ...]:
    """Every head of the studio's rack, in its order; an equal one is parsed once."""
    return _heads(rows.rack()[0])


def rack_for(rows: StudioRows, fitting_id: UUID) -> tuple[RackHeadDocument, ...]:
    """The rack as a fitting may use it: heads that are set aside for its own build are on the shelf for it."""
    rack, reserved = rows.rack(fitting_id)
    heads, own = _heads(rack), Counter(reserved)
    if not own:
        return heads
    return tuple(
        head.model_copy(update={"stock": head.stock + own[head.code]}) if head.code in own else head for head in heads
    )


@lru_cache(maxsize=32)
def _heads(rack: str) -> tuple[RackHeadDocument, ...]:
    return RACK.validate_json(rack)
