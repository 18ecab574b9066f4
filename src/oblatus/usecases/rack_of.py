"""The studio's rack as heads."""

from __future__ import annotations

from oblatus.formats.fitting import RackHeadDocument
from oblatus.store.repositories import StudioRows


def rack_of(rows: StudioRows) -> list[RackHeadDocument]:
    """Every head of the studio's rack, in its order."""
    return [RackHeadDocument.model_validate(head) for head in rows.rack()]
