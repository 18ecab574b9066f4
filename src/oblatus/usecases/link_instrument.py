"""Connect a gauge, hammer or penetrometer to a fitting and say which club or ground it reads next."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict
from typing import Any
from uuid import UUID

from oblatus.core.clubs import Head
from oblatus.core.grounds import SURFACES
from oblatus.errors import fault
from oblatus.formats.convert import fitting_from, head_from
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.readings import INSTRUMENTS
from oblatus.formats.sections.bag import OwnedWedgeDocument, RackHeadDocument
from oblatus.formats.sections.grounds import GroundDocument
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import LinkRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.build_sheet import USUAL_PRICES, plan_of
from oblatus.usecases.links import link_of, want
from oblatus.usecases.rack_of import rack_for

BUILT = "built:"


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
    """Want the instrument or not, and say which club (own:N, built:N) or ground (its name) is read next.

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
            document = FittingDocument.model_validate(found.document)
            instrument_arm(document, kind, target, rack_for(rows, fitting_id))
        row = link_of(rows, fitting_id, kind)
        row.target = target
        return want(rows, row, wanted=wanted)


def instrument_arm(
    document: FittingDocument, kind: str, target: str, rack: Sequence[RackHeadDocument] = ()
) -> dict[str, Any]:
    """What an instrument is told of the club or ground before it; the stand-in reads that, a little off.

    The gauge reads an owned wedge (own:N), or a club of the build sheet as it is to be (built:N).

    Raises
    ------
    InputError
        If the fitting has no such club or ground.
    """
    if kind == "gauge" and target.startswith(BUILT):
        return {"head": asdict(_built(document, target, rack)), "measured": True}
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


def _built(document: FittingDocument, target: str, rack: Sequence[RackHeadDocument]) -> Head:
    number, clubs = target.removeprefix(BUILT), document.build.clubs
    if not number.isdigit() or int(number) >= len(clubs):
        raise fault("target", "is not a club of the build sheet", target)
    return plan_of(fitting_from(document, rack, ()), clubs, document.build, USUAL_PRICES).clubs[int(number)].head


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
