"""What the strikes of a fitting say: figures by station, drift, and faults by the player's usual openings."""

from __future__ import annotations

from oblatus.core.fitting.fitting import Fitting
from oblatus.core.fitting.scenarios import usual_setup
from oblatus.core.gapping.strikes import STATIONS
from oblatus.core.session import Fault, Session, StrikeTable, find_faults, summarise, table_of
from oblatus.core.shots import BY_KEY


def session_of(fitting: Fitting, strikes: StrikeTable | None = None) -> tuple[Session, tuple[Fault, ...]]:
    """The session and its faults; the habit is taken from partial swings, clock swings but the full one among them.

    `strikes`, if given, stand in for those of the fitting.
    """
    table = table_of(fitting.strikes) if strikes is None else strikes
    partial = [swing.key for swing in fitting.swings[1:]]
    partial += [station.key for station in STATIONS if station.habit]
    bounce = {item.code: item.head.bounce_deg for item in fitting.stock} | {"pw": fitting.bag.pitching_wedge.bounce_deg}
    player = fitting.player
    opening = {s.key: usual_setup(BY_KEY[s.shot], player.habit, player.schools).opening_deg for s in STATIONS}
    return summarise(table, partial), find_faults(table, bounce, opening)
