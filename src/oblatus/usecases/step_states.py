"""How far each step of the job is: empty, partly known, done or stale."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from oblatus.formats.fitting import FittingDocument

State = Literal["empty", "partly", "done", "stale", "later"]

STEPS = ("player", "ground", "bag", "strikes", "carries", "lofts", "soles", "proof", "build", "card", "log")
LATER = ("strikes", "carries", "proof", "build", "card", "log")


def step_states(document: FittingDocument, revision: int, kept_revision: int | None) -> Mapping[str, State]:
    """The state of every step; a kept proposal makes Lofts and Soles done until something changes."""
    proposal: State = "partly"
    if kept_revision is not None:
        proposal = "done" if kept_revision == revision else "stale"
    states: dict[str, State] = dict.fromkeys(LATER, "later")
    states.update(player=_player(document), ground=_ground(document), bag=_bag(document), lofts=proposal, soles=proposal)
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


def _share(known: list[bool]) -> State:
    if all(known):
        return "done"
    return "partly" if any(known) else "empty"
