"""Connect a gauge, hammer or penetrometer to a fitting and say which club or ground it reads next."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict
from typing import Any
from uuid import UUID

from oblatus.core.grounds import SURFACES
from oblatus.errors import fault
from oblatus.formats.convert import head_from
from oblatus.formats.fitting import FittingDocument, GroundDocument, OwnedWedgeDocument
from oblatus.formats.readings import INSTRUMENTS
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import LinkRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.links import link_of, want


def see_devices(database: Database, actor: Actor, fitting_id: UUID) -> Sequence[LinkRow]:
    """How every device of the fitting goes, the monitor first; off if it never had one.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        rows.fitting(fitting_id)
        return [link_of(rows, fitting_id, kind) for kind in ("monitor", *INSTRUMENTS)]


def link_instrument(
    database: Database, actor: Actor, fitting_id: UUID, kind: str, target: str, *, wanted: bool
) -> LinkRow:
    """Want the instrument or not, and say which club (own:N) or ground (its name) the next readings belong to.

    Raises
    ------
    InputError
        If the fitting has no such club or ground.
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        found = rows.fitting(fitting_id, lock=True)
        if wanted:
            instrument_arm(FittingDocument.model_validate(found.document), kind, target)
        row = link_of(rows, fitting_id, kind)
        row.target = target
        return want(rows, row, wanted=wanted)


def instrument_arm(document: FittingDocument, kind: str, target: str) -> dict[str, Any]:
    """What an instrument is told of the club or ground before it; the stand-in reads that, a little off.

    Raises
    ------
    InputError
        If the fitting has no such club or ground.
    """
    if kind == "gauge":
        wedge = _wedge(document, target)
        head = head_from(wedge)
        return {
            "head": asdict(head),
            "measured": wedge.measured,
        }
    surface = next(k for k in SURFACES.values() if k.instrument == kind)
    there = _ground(document, target).surface(surface.key)
    return {"ground": {"kind": surface.key, surface.reading: there.reading}, "measured": there.source == "measured"}


def _wedge(document: FittingDocument, target: str) -> OwnedWedgeDocument:
    number = target.removeprefix("own:")
    if not number.isdigit() or int(number) >= len(document.bag.wedges):
        raise fault("target", "is not a wedge of this bag", target)
    return document.bag.wedges[int(number)]


def _ground(document: FittingDocument, target: str) -> GroundDocument:
    found = next((ground for ground in document.grounds if ground.name == target), None)
    if found is None:
        raise fault("target", "is not a ground of this fitting", target)
    return found
