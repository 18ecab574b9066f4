"""Connect the strike monitor to a fitting, say what is hit next, and see how it goes."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any
from uuid import UUID

from oblatus.core.clubs import Head
from oblatus.core.fitting import Fitting
from oblatus.core.fitting.fitting import carry_model_of
from oblatus.core.fitting.scenarios import usual_setup
from oblatus.core.gapping.strikes import STATIONS
from oblatus.core.grounds import SURFACES, TURF, Ground, SurfaceKind
from oblatus.core.shots import BY_KEY
from oblatus.errors import fault
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import LinkRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.links import link_of, want

STATION_OF = {station.key: station for station in STATIONS}
USUAL_SPEED = 20.0


def see_monitor(database: Database, actor: Actor, fitting_id: UUID) -> LinkRow:
    """How the fitting's monitor goes; off if it never had one.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        rows.fitting(fitting_id)
        return link_of(rows, fitting_id, "monitor")


def link_monitor(database: Database, actor: Actor, fitting_id: UUID, club: str, swing: str, *, wanted: bool) -> LinkRow:
    """Want the monitor or not, and say which club and station its next strikes belong to.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        rows.fitting(fitting_id, lock=True)
        row = link_of(rows, fitting_id, "monitor")
        row.club, row.swing = club, swing
        return want(rows, row, wanted=wanted)


def arm_message(fitting: Fitting, club: str, swing: str) -> dict[str, Any]:
    """What a monitor is told of the next strikes: club, ground, and how the player is known to swing.

    Raises
    ------
    InputError
        If the fitting has no such club.
    """
    head = head_of(fitting, club)
    model = carry_model_of(fitting)
    swings = {s.key: s for s in model.swings}
    station = STATION_OF.get(swing)
    shot = BY_KEY[station.shot if station is not None else swings.get(swing, model.swings[0]).shot]
    setup = usual_setup(shot, fitting.player.habit, fitting.player.schools)
    ground = max(fitting.grounds, key=lambda g: g.share)
    habit = fitting.player.habit
    speed = USUAL_SPEED if station is None else station.speed
    if swing in swings:
        speed = float(model.full_speeds([head.loft_deg])[0]) * swings[swing].speed_share
    return {
        "head": asdict(head),
        "ground": _surface(ground, SURFACES[shot.surface]),
        "opening_deg": setup.opening_deg,
        "attack": [setup.attack_deg, habit.attack_deg.spread],
        "lean": [setup.lean_deg, habit.lean_deg.spread],
        "entry": [setup.entry, habit.entry.spread],
        "speed": speed,
        "release": setup.release,
    }


def _surface(ground: Ground, kind: SurfaceKind) -> dict[str, Any]:
    """What the ball lies on, as the stand-in takes it: turf at a fairway lie."""
    return {"kind": kind.key, **asdict(ground.turf_at_lie("fairway") if kind is TURF else getattr(ground, kind.key))}


def head_of(fitting: Fitting, club: str) -> Head:
    """The head of a club of the bag or the rack.

    Raises
    ------
    InputError
        If the fitting has no such club.
    """
    if club == "pw":
        return fitting.bag.pitching_wedge
    found = next((item.head for item in fitting.stock if item.code == club), None)
    if found is None:
        raise fault("club", "is not in the bag or on the rack", club)
    return found
