"""What the strikes of a fitting say: figures by station, drift, and faults by the player's usual openings."""

from __future__ import annotations

from oblatus.core.fitting.fitting import Fitting
from oblatus.core.fitting.scenarios import usual_setup
from oblatus.core.gapping.strikes import STATIONS
from oblatus.core.session import Fault, Session, find_faults, summarise
from oblatus.core.shots import BY_KEY


def session_of(fitting: Fitting) -> tuple[Session, tuple[Fault, ...]]:
    """The session and its faults; the habit is taken from partial swings, clock swings but the full one among them."""
    partial = [swing.key for swing in fitting.swings[1:]]
    partial += [station.key for station in STATIONS if station.habit]
    bounce = {item.code: item.head.bounce_deg for item in fitting.stock} | {"pw": fitting.bag.pitching_wedge.bounce_deg}
    player = fitting.player
    opening = {s.key: usual_setup(BY_KEY[s.shot], player.habit, player.schools).opening_deg for s in STATIONS}
    return summarise(fitting.strikes, partial), find_faults(fitting.strikes, bounce, opening)
