"""How far each step of the job is: empty, partly known, done or stale."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Literal

from oblatus.core.gapping import SWINGS
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.strikes import StrikeDocument

State = Literal["empty", "partly", "done", "stale", "later"]

STEPS = ("player", "ground", "bag", "strikes", "carries", "lofts", "soles", "proof", "build", "card", "log")
LATER = ("proof", "build", "card", "log")
ENOUGH_STRIKES = 3
ENOUGH_FOR_HABIT = 5


def step_states(
    document: FittingDocument, strikes: Sequence[StrikeDocument], kept_is_fresh: bool | None
) -> Mapping[str, State]:
    """The state of every step; a kept proposal makes Lofts and Soles done until something changes (None: none kept)."""
    proposal: State = "partly"
    if kept_is_fresh is not None:
        proposal = "done" if kept_is_fresh else "stale"
    states: dict[str, State] = dict.fromkeys(LATER, "later")
    states.update(player=_player(document), ground=_ground(document), bag=_bag(document))
    states.update(strikes=_strikes(strikes))
    states.update(carries=_carries(document, strikes), lofts=proposal, soles=proposal)
    return {step: states[step] for step in STEPS}


def _player(document: FittingDocument) -> State:
    delivery = document.player.delivery
    known = [
        delivery.attack_deg.source != "assumed",
        delivery.lean_deg.source != "assumed",
        delivery.entry_mm.source != "assumed",
        document.player.pitching_wedge_carry_m is not None or document.player.pitching_wedge_speed_mps is not None,
    ]
    return _share(known)


def _ground(document: FittingDocument) -> State:
    sources = [g.turf.firmness_source for g in document.grounds] + [g.sand.penetrometer_source for g in document.grounds]
    return _share([source != "assumed" for source in sources])


def _bag(document: FittingDocument) -> State:
    wedges = document.bag.wedges
    if not wedges:
        return "empty"
    return "done" if all(wedge.measured for wedge in wedges) else "partly"


def _strikes(strikes: Sequence[StrikeDocument]) -> State:
    """Done with five strikes that count for each of attack, lean (or what it follows from) and entry."""
    counting = [strike for strike in strikes if strike.set_aside is None]
    attack = sum(strike.attack_deg is not None for strike in counting)
    lean = sum(
        strike.lean_deg is not None or strike.dynamic_loft_deg is not None or _tells_lean(strike) for strike in counting
    )
    entry = sum(strike.entry_mm is not None for strike in counting)
    if min(attack, lean, entry) >= ENOUGH_FOR_HABIT:
        return "done"
    return "partly" if max(attack, lean, entry) > 0 else "empty"


def _tells_lean(strike: StrikeDocument) -> bool:
    return None not in (strike.launch_deg, strike.spin_rpm, strike.ball_speed_mps)


def _carries(document: FittingDocument, strikes: Sequence[StrikeDocument]) -> State:
    """Done with three strikes that count for every wedge and the pitching wedge with every clock swing."""
    count: dict[tuple[str, str], int] = {}
    for strike in strikes:
        if strike.set_aside is None and strike.carry_m is not None:
            count[strike.club, strike.swing] = count.get((strike.club, strike.swing), 0) + 1
    if not count:
        return "empty"
    clubs = ["pw", *(f"own:{n}" for n in range(len(document.bag.wedges)))]
    enough = all(count.get((club, swing.key), 0) >= ENOUGH_STRIKES for club in clubs for swing in SWINGS)
    return "done" if enough else "partly"


def _share(known: list[bool]) -> State:
    if all(known):
        return "done"
    return "partly" if any(known) else "empty"
