"""Mappings that the studio saved for files of one kind."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from oblatus.store.database import Database
from oblatus.store.imports import MappingKind, StudioImports
from oblatus.store.tables import MappingRow
from oblatus.usecases.actor import Actor


def saved_mappings(
    database: Database, actor: Actor, kind: MappingKind
) -> tuple[Sequence[MappingRow], Sequence[MappingRow]]:
    """The studio's saved mappings of a kind, and those that were forgotten and can be put back; the last one first."""
    with database.transaction() as session:
        imports = StudioImports(session, actor.studio_id)
        return imports.mappings(kind), imports.mappings(kind, out=True)


def forget_mapping(database: Database, actor: Actor, mapping_id: UUID, *, forgotten: bool = True) -> None:
    """Forget one, or put it back; raises `NotFoundError` if the studio has no such mapping."""
    with database.transaction() as session:
        StudioImports(session, actor.studio_id).remove_mapping(mapping_id, removed=forgotten)
