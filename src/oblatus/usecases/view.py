"""A fitting as a screen needs it: document, revision, proposal, step states, what was kept last."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from uuid import UUID

from oblatus.formats.fitting import FittingDocument, RackHeadDocument
from oblatus.store.repositories import KeptRow
from oblatus.store.tables import FittingRow
from oblatus.usecases.propose import Proposal, make_ahead, propose
from oblatus.usecases.step_states import State, step_states


@dataclass(frozen=True, slots=True)
class FittingView:
    """What `open_fitting` and every edit answer."""

    id: UUID
    revision: int
    document: FittingDocument
    proposal: Proposal
    steps: Mapping[str, State]
    kept: KeptRow | None


def view_of(row: FittingRow, rack: Sequence[RackHeadDocument], snapshots: Sequence[KeptRow]) -> FittingView:
    """The view of a fitting with the studio's rack and its kept proposals, newest first."""
    document = FittingDocument.model_validate(row.document)
    kept = snapshots[0] if snapshots else None
    states = step_states(document, row.revision, kept.revision if kept else None)
    proposal = propose(document, rack)
    make_ahead(document, rack)
    return FittingView(row.id, row.revision, document, proposal, states, kept)
