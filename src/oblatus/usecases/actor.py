"""Who acts, and in which studio."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID


@dataclass(frozen=True, slots=True)
class Actor:
    """A signed-in fitter."""

    fitter_id: UUID
    studio_id: UUID
    name: str
