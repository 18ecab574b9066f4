"""A fitting as a screen needs it: document, revision, proposal, step states, what was kept last."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import Enum, auto
from uuid import UUID

from oblatus.formats.convert import heads_by_hand
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.recommendation import club_labels
from oblatus.formats.sections.bag import RackHeadDocument
from oblatus.formats.strikes import StrikeDocument
from oblatus.store.repositories import NOTHING, KeptRow, Stands
from oblatus.store.tables import FittingRow
from oblatus.usecases.propose import Proposal, make_ahead, propose, propose_at_once
from oblatus.usecases.step_states import State, step_states
from oblatus.usecases.strikes_of import measured


@dataclass(frozen=True, slots=True)
class FittingView:
    """What `open_fitting` and every edit answer; `by_hand`: what heads set by hand are called; `kept_is_shown`: whether
    the set kept last is the one proposed."""

    id: UUID
    revision: int
    document: FittingDocument
    proposal: Proposal
    by_hand: Sequence[str]
    steps: Mapping[str, State]
    kept: KeptRow | None
    kept_is_shown: bool


class Asked(Enum):
    """What a view is asked after: its proposal is the whole one, a quick one, or what can be said at once."""

    WHOLE = auto()
    EDIT = auto()
    AT_ONCE = auto()


def view_of(
    row: FittingRow,
    rack: Sequence[RackHeadDocument],
    snapshots: Sequence[KeptRow],
    strikes: tuple[StrikeDocument, ...] = (),
    stands: Stands = NOTHING,
    document: FittingDocument | None = None,
    *,
    asked: Asked = Asked.WHOLE,
) -> FittingView:
    """The view of a fitting with the studio's rack, its kept proposals, newest first, its strikes and what
    else stands beside its document.

    `document` is the row's, where it was looked at already. After an edit, and at once, the proposal may be among the
    clubs near the last choice only, or to come, and says so.
    """
    if document is None:
        document = FittingDocument.model_validate(row.document)
    kept = snapshots[0] if snapshots else None
    struck = measured(strikes)
    if asked is Asked.AT_ONCE:
        proposal = propose_at_once(document, rack, struck, row.id)
    else:
        proposal = propose(document, rack, struck, fitting=row.id, edited=asked is Asked.EDIT)
    fresh = kept is not None and kept.revision == row.revision and kept.strikes == proposal.strikes
    if kept is not None and kept.strikes_key is not None:  # one that was kept by an older program has none
        fresh = fresh and kept.strikes_key == proposal.strikes_key
    # the rack is the studio's: with another one the same inputs may have another set. A quick one does not tell.
    found = proposal.result
    shown = kept is not None and (found is None or not found.whole_rack or list(kept.clubs) == club_labels(found))
    states = step_states(document, strikes, None if kept is None else fresh and shown, stands)
    make_ahead(document, rack, struck)
    by_hand = heads_by_hand(document, rack)
    return FittingView(row.id, row.revision, document, proposal, by_hand, states, kept, shown)
