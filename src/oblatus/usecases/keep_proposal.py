"""Keep a proposal as a snapshot that nothing rewrites, and read what was kept."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from uuid import UUID, uuid4

from oblatus.core import ENGINE_VERSION
from oblatus.errors import ConflictError, InputError
from oblatus.formats.differences import DifferenceOut, differences
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.recommendation import club_labels
from oblatus.store.database import Database
from oblatus.store.repositories import KeptRow, StudioRows
from oblatus.store.tables import SnapshotRow, now
from oblatus.usecases.actor import Actor
from oblatus.usecases.propose import propose
from oblatus.usecases.rack_of import rack_for
from oblatus.usecases.strikes_of import measured, strikes_of, whole_document


def keep_proposal(
    database: Database,
    actor: Actor,
    fitting_id: UUID,
    revision: int,
    label: str,
    snapshot_id: UUID | None = None,
    rack_key: str | None = None,
) -> SnapshotRow:
    """Keep the proposal that belongs to `revision`: inputs with the rack, engine version, time and result.

    `rack_key` tells the rack that the fitter saw it made from. Sent again under its id it is kept once.

    Raises
    ------
    ConflictError
        If the fitting or the rack has moved on: what is kept is what the fitter saw.
    InputError
        If the engine cannot make a proposal from it.
    NotFoundError
        If the studio has no such fitting, or the id stands for something else.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        row = rows.fitting(fitting_id, lock=True)
        before = rows.kept_before(fitting_id, snapshot_id) if snapshot_id else None
        if before is not None:
            return before
        if row.revision != revision:
            raise ConflictError("This fitting changed since the proposal on this screen was made.", row.revision)
        document = FittingDocument.model_validate(row.document)
        rack, strikes = rack_for(rows, fitting_id), strikes_of(rows, fitting_id)
        proposal = propose(document, rack, measured(strikes))
        if proposal.result is None:
            raise InputError(proposal.problem)
        if rack_key not in {None, proposal.rack_key}:
            words = "The rack changed since the set on this screen was proposed: look at the set, then keep it."
            raise ConflictError(words, row.revision)
        inputs = whole_document(document, rack, strikes)
        snapshot = SnapshotRow(
            id=snapshot_id or uuid4(),
            studio_id=actor.studio_id,
            fitting_id=fitting_id,
            label=label,
            revision=revision,
            document=inputs.model_dump(mode="json"),
            result=proposal.result.model_dump(mode="json"),
            clubs=club_labels(proposal.result),
            engine_version=ENGINE_VERSION,
            kept_by=actor.name,
        )
        session.add(snapshot)
    return snapshot


def list_kept(database: Database, actor: Actor, fitting_id: UUID) -> Sequence[KeptRow]:
    """Kept proposals of a fitting, newest first.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        rows.fitting(fitting_id)
        return rows.kept(fitting_id)


def open_kept(database: Database, actor: Actor, fitting_id: UUID, snapshot_id: UUID) -> SnapshotRow:
    """One kept proposal as it was."""
    with database.transaction() as session:
        return StudioRows(session, actor.studio_id).snapshot(fitting_id, snapshot_id)


def name_kept(
    database: Database, actor: Actor, fitting_id: UUID, snapshot_id: UUID, label: str, was: str | None = None
) -> SnapshotRow:
    """Give a kept proposal another name in the place of `was`; nothing else of it changes.

    Raises
    ------
    ConflictError
        If it has another name by now than either.
    NotFoundError
        If the fitting has no such proposal.
    """
    with database.transaction() as session:
        row = StudioRows(session, actor.studio_id).snapshot(fitting_id, snapshot_id, lock=True)
        if was is not None and row.label not in (was, label):
            named = f"named “{row.label}”" if row.label else "left without a name"
            raise ConflictError(f"It was {named} on another screen meanwhile.", row.revision)
        row.label = label
        session.add(row)
    return row


def take_kept_out(database: Database, actor: Actor, fitting_id: UUID, snapshot_id: UUID, *, out: bool) -> None:
    """Take a kept proposal out of the list, or put it back."""
    with database.transaction() as session:
        row = StudioRows(session, actor.studio_id).snapshot(fitting_id, snapshot_id)
        row.removed_at = now() if out else None
        session.add(row)


@dataclass(frozen=True, slots=True)
class Compared:
    """Two proposals of a fitting and what differs in what they were made from; `None` is the fitting as it stands."""

    before: SnapshotRow
    after: SnapshotRow | None
    differences: Sequence[DifferenceOut]


def compare_kept(
    database: Database, actor: Actor, fitting_id: UUID, snapshot_id: UUID, other_id: UUID | None
) -> Compared:
    """A kept proposal beside another one, or beside the fitting as it stands.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting or proposal.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        before = rows.snapshot(fitting_id, snapshot_id)
        after = rows.snapshot(fitting_id, other_id) if other_id is not None else None
        # one that was kept by an earlier program has the usual where fields came since: that is no difference
        kept = [FittingDocument.model_validate(row.document) for row in (before, after) if row is not None]
        if after is None:
            standing = FittingDocument.model_validate(rows.fitting(fitting_id).document)
            kept.append(whole_document(standing, rack_for(rows, fitting_id), strikes_of(rows, fitting_id)))
    one, other = (document.model_dump(mode="json") for document in kept)
    return Compared(before, after, differences(one, other))
