"""What was taken out of a fitting and can be put back, strikes aside: kept proposals, proofs, rounds of the log."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from uuid import UUID

from oblatus.store.database import Database
from oblatus.store.proofs import StudioProofs
from oblatus.store.repositories import KeptRow, StudioRows
from oblatus.store.rounds import StudioRounds
from oblatus.usecases.actor import Actor
from oblatus.usecases.days import day_of

MOST_LISTED = 50


@dataclass(frozen=True, slots=True)
class ProofOutside:
    """A proof that was taken out, by its day and clubs."""

    id: UUID
    on: date
    clubs: Sequence[str]


@dataclass(frozen=True, slots=True)
class TakenOut:
    """What was taken out, of each kind the last one first; of a round its day, and how many shots come back with it."""

    kept: Sequence[KeptRow]
    proofs: Sequence[ProofOutside]
    rounds: Sequence[tuple[UUID, date, int]]


def taken_out(database: Database, actor: Actor, fitting_id: UUID) -> TakenOut:
    """What can be put back, at most `MOST_LISTED` of a kind; raises NotFoundError if the studio has no such fitting."""
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        rows.fitting(fitting_id)
        proofs = StudioProofs(session, actor.studio_id).proofs(fitting_id, out=True)[:MOST_LISTED]
        return TakenOut(
            rows.kept(fitting_id, MOST_LISTED, out=True),
            [
                ProofOutside(row.id, day_of(row.created_at), [one["name"] for one in row.document["candidates"]])
                for row in proofs
            ],
            StudioRounds(session, actor.studio_id).rounds_taken_out(fitting_id, MOST_LISTED),
        )
