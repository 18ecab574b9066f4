"""The bin: fittings that were removed, brought back or let go for good."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import timedelta
from uuid import UUID

from oblatus.store.builds import StudioBuilds
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows, bins_before
from oblatus.store.tables import FittingRow, now
from oblatus.usecases.actor import Actor
from oblatus.usecases.build_orders import end_order

KEPT_FOR = timedelta(days=30)


def remove_fitting(database: Database, actor: Actor, fitting_id: UUID) -> None:
    """Put a fitting into the bin; an order at the bench is cancelled, its heads are for others then.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).bin_fitting(fitting_id)
        builds = StudioBuilds(session, actor.studio_id)
        for order in builds.orders(fitting_id):
            if order.state == "open":
                end_order(session, builds, order, actor.name)


def list_bin(database: Database, actor: Actor) -> Sequence[FittingRow]:
    """What is in the bin, last removed first."""
    with database.transaction() as session:
        return StudioRows(session, actor.studio_id).binned()


def bring_back(database: Database, actor: Actor, fitting_id: UUID) -> None:
    """Take a fitting out of the bin; raises `NotFoundError` if it is not there."""
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).restore_fitting(fitting_id)


def remove_for_good(database: Database, actor: Actor, fitting_id: UUID) -> None:
    """Remove a fitting in the bin with everything of it; raises `NotFoundError` if it is not there."""
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).remove_fitting(fitting_id)


def empty_bins(database: Database) -> int:
    """Let go of what has been in a bin for longer than `KEPT_FOR`, in every studio. Returns how many rows went."""
    with database.transaction() as session:
        return bins_before(session, now() - KEPT_FOR)
