"""Connect the strike monitor to a fitting, say what is hit next, and see how it goes."""

from __future__ import annotations

from typing import Any
from uuid import UUID

import numpy as np

from oblatus.core.clubs import Head
from oblatus.core.fitting import Fitting
from oblatus.core.fitting.fitting import carry_model_of
from oblatus.core.fitting.scenarios import usual_setup
from oblatus.core.grounds import BALL_HEIGHT, Ground
from oblatus.core.shots import BY_KEY
from oblatus.errors import fault
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import LinkRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.links import link_of, want

SHOT_OF = {
    "1030": "swing_1030",
    "900": "swing_900",
    "pitch": "pitch",
    "chip": "chip",
    "sand": "sand_greenside",
    "practice": "pitch",
}
SPEED_OF = {"pitch": 20.0, "chip": 13.0, "sand": 22.0, "practice": 20.0}


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
    """What a monitor is told of the next strikes; the stand-in plays this player, off by a little of its own.

    Raises
    ------
    InputError
        If the fitting has no such club.
    """
    head = _head(fitting, club)
    shot = BY_KEY[SHOT_OF.get(swing, "full")]
    setup = usual_setup(shot, fitting.player.habit, fitting.player.schools)
    ground = max(fitting.grounds, key=lambda g: g.share)
    habit = fitting.player.habit
    # the player is not quite what was typed: the session is there to find that out
    rng = np.random.default_rng(abs(hash((habit.attack_deg.mean, habit.lean_deg.mean))) % 2**32)
    off = rng.normal(0.0, 0.6, 3)
    model = carry_model_of(fitting)
    swings = {s.key: s for s in model.swings}
    speed = SPEED_OF.get(swing, 20.0)
    if swing in swings:
        speed = float(model.full_speeds([head.loft_deg])[0]) * swings[swing].speed_share
    return {
        "head": {name: getattr(head, name) for name in Head.__dataclass_fields__},
        "ground": _surface(ground, sand=swing == "sand"),
        "opening_deg": setup.opening_deg,
        "attack": [setup.attack_deg + off[0] * habit.attack_deg.spread, habit.attack_deg.spread],
        "lean": [setup.lean_deg + off[1] * habit.lean_deg.spread, habit.lean_deg.spread],
        "entry": [setup.entry + off[2] * habit.entry.spread, habit.entry.spread],
        "speed": speed,
        "release": setup.release,
    }


def _surface(ground: Ground, *, sand: bool) -> dict[str, Any]:
    """The ground's turf at a fairway lie, or its sand, as the stand-in takes it."""
    if sand:
        there = ground.sand
        return {
            "kind": "sand",
            "penetrometer_kg_cm2": there.penetrometer_kg_cm2,
            "loose_depth": there.loose_depth,
            "moisture": there.moisture,
        }
    turf = ground.turf
    return {
        "kind": "turf",
        "firmness_g": turf.firmness_g,
        "ball_height": BALL_HEIGHT["fairway"],
        "moisture": turf.moisture,
        "root_density": turf.root_density,
    }


def _head(fitting: Fitting, club: str) -> Head:
    if club == "pw":
        return fitting.bag.pitching_wedge
    found = next((item.head for item in fitting.stock if item.code == club), None)
    if found is None:
        raise fault("club", "is not in the bag or on the rack", club)
    return found
