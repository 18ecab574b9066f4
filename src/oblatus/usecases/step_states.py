"""How far each step of the job is: empty, partly known, done or stale."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from oblatus.core.gapping import SWINGS
from oblatus.core.grounds import SURFACES
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.strikes import StrikeDocument
from oblatus.store.repositories import NOTHING, Stands

State = Literal["empty", "partly", "done", "stale"]

ENOUGH_STRIKES = 3
ENOUGH_FOR_HABIT = 5


@dataclass(frozen=True, slots=True)
class Known:
    """What a step's state follows from; `kept_is_fresh` None: no proposal was kept."""

    document: FittingDocument
    strikes: Sequence[StrikeDocument]
    kept_is_fresh: bool | None
    stands: Stands


def step_states(
    document: FittingDocument,
    strikes: Sequence[StrikeDocument],
    kept_is_fresh: bool | None,
    stands: Stands = NOTHING,
) -> Mapping[str, State]:
    """The state of every step; `stands` is what lies outside the document."""
    known = Known(document, strikes, kept_is_fresh, stands)
    return {step: state(known) for step, state in STEPS.items()}


def _proposal(known: Known) -> State:
    """Done once a proposal is kept, until something changes."""
    if known.kept_is_fresh is None:
        return "partly"
    return "done" if known.kept_is_fresh else "stale"


def _player(known: Known) -> State:
    document = known.document
    delivery = document.player.delivery
    told = [
        delivery.attack_deg.source != "assumed",
        delivery.lean_deg.source != "assumed",
        delivery.entry_mm.source != "assumed",
        document.player.pitching_wedge_carry_m is not None or document.player.pitching_wedge_speed_mps is not None,
    ]
    return _share(told)


def _ground(known: Known) -> State:
    return _share([g.surface(kind).source != "assumed" for g in known.document.grounds for kind in SURFACES])


def _bag(known: Known) -> State:
    wedges = known.document.bag.wedges
    if not wedges:
        return "empty"
    return "done" if all(wedge.measured for wedge in wedges) else "partly"


def _strikes(known: Known) -> State:
    """Done with five strikes that count for each of attack, lean (or what it follows from) and entry."""
    counting = [strike for strike in known.strikes if strike.set_aside is None]
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


def _carries(known: Known) -> State:
    """Done with three strikes that count for every wedge and the pitching wedge with every clock swing."""
    count: dict[tuple[str, str], int] = {}
    for strike in known.strikes:
        if strike.set_aside is None and strike.carry_m is not None:
            count[strike.club, strike.swing] = count.get((strike.club, strike.swing), 0) + 1
    if not count:
        return "empty"
    clubs = ["pw", *(f"own:{n}" for n in range(len(known.document.bag.wedges)))]
    enough = all(count.get((club, swing.key), 0) >= ENOUGH_STRIKES for club in clubs for swing in SWINGS)
    return "done" if enough else "partly"


def _proof(known: Known) -> State:
    """Done once a proof counts in the proposal."""
    if known.document.evidence:
        return "done"
    return "partly" if known.stands.proof_balls else "empty"


def _build(known: Known) -> State:
    """Begun once the sheet has clubs of its own, done once loft and lie of each were read, or a set was signed."""
    clubs = known.document.build.clubs
    if clubs and all(club.read.loft_deg is not None and club.read.lie_deg is not None for club in clubs):
        return "done"
    if not clubs and any(wedge.built is not None for wedge in known.document.bag.wedges):
        return "done"
    return "partly" if clubs else "empty"


def _card(known: Known) -> State:
    """Begun once there is a set to make it of, one that was kept or built; done once it was handed over."""
    if known.stands.handed_over:
        return "done"
    built = any(wedge.built is not None for wedge in known.document.bag.wedges)
    return "partly" if built or known.kept_is_fresh is not None else "empty"


def _log(known: Known) -> State:
    """Begun with the first shot, done once the fitter has said something to the shots faced."""
    if known.stands.logged == 0:
        return "empty"
    return "done" if any(one.key == "mix" for one in known.document.after.decisions) else "partly"


def _share(known: list[bool]) -> State:
    if all(known):
        return "done"
    return "partly" if any(known) else "empty"


STEPS: dict[str, Callable[[Known], State]] = {
    "player": _player, "ground": _ground, "bag": _bag, "strikes": _strikes, "carries": _carries, "lofts": _proposal,
    "soles": _proposal, "proof": _proof, "build": _build, "card": _card, "log": _log,
}  # fmt: skip
"""Every step of the job in its order, with what says its state."""
