"""Set the units in which a fitter reads distances and speeds."""

from __future__ import annotations

from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.units import DistanceUnit, SpeedUnit
from oblatus.usecases.actor import Actor


def set_units(database: Database, actor: Actor, distance: DistanceUnit, speed: SpeedUnit) -> None:
    """Remember the units; stored numbers stay in SI."""
    with database.transaction() as session:
        fitter = StudioRows(session, actor.studio_id).fitter(actor.fitter_id)
        fitter.distance_unit, fitter.speed_unit = distance, speed
        session.add(fitter)
