"""The stand-in strike monitor: makes up the strikes of the player it is armed with, or plays a recorded session."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from oblatus.core.clubs import Head
from oblatus.core.grounds import SURFACES
from oblatus.core.session.simulated import Described, simulate_strike
from oblatus.devices.recording import Recorded
from oblatus.devices.stand_in import StandIn, Stream, own_rng


class MonitorStandIn(StandIn):
    """A strike monitor: attack, lean, entry, contact, speed, launch, spin, carry of a described player."""

    device = "strike monitor"
    serial = "stand-in monitor"

    def read_arm(self, arm: dict[str, Any]) -> Described:
        """See `StandIn`."""
        return described(arm)

    def measure(self, armed: Any, number: int, rng: np.random.Generator) -> dict[str, Any]:
        """See `StandIn`."""
        return {"strike": simulate_strike(armed, number, rng)}


class ReplayStandIn(StandIn):
    """A strike monitor that plays a recorded session, in its own time or `speed` times as fast."""

    device = "strike monitor"
    serial = "stand-in replay"

    def __init__(self, recorded: Sequence[Recorded], port: int = 0, seed: int = 1, speed: float = 1.0) -> None:
        super().__init__(port, seed, every=recorded[0].after_s / speed, most=len(recorded))
        self.recorded, self.speed = recorded, speed

    def read_arm(self, arm: dict[str, Any]) -> object:
        """Whoever is armed hears the recording."""
        return arm

    def measure(self, armed: Any, number: int, rng: np.random.Generator) -> dict[str, Any]:
        """See `StandIn`."""
        del armed, rng
        return {"strike": dict(self.recorded[number].figures)}

    def every_after(self, stream: Stream) -> float:
        """The pause before the recording's next strike [s]."""
        following = stream.made + 1
        return self.recorded[following].after_s / self.speed if following < len(self.recorded) else 0.0


OFF_SHARE = 0.6
"""A player is off what is known of them by about so many of their own spreads: the session is there to find it out."""


def _played(arm: dict[str, Any]) -> list[tuple[float, float]]:
    """Attack, lean and entry as this player has them, mean and spread: off what the arm says, the same way every time."""
    told = [(float(arm[key][0]), float(arm[key][1])) for key in ("attack", "lean", "entry")]
    off = own_rng(repr([spread for _, spread in told])).normal(0.0, OFF_SHARE, len(told))
    return [(mean + by * spread, spread) for (mean, spread), by in zip(told, off.tolist(), strict=True)]


def described(arm: dict[str, Any]) -> Described:
    """The player, club and ground of an arm message.

    Raises
    ------
    InputError
        If the head or the ground cannot exist.
    KeyError
        If something is missing.
    """
    head, ground = arm["head"], dict(arm["ground"])
    attack, lean, entry = _played(arm)
    made_of = SURFACES[ground.pop("kind")].made_of
    return Described(
        Head(**head),
        made_of(**ground),
        float(arm["opening_deg"]),
        attack,
        lean,
        entry,
        float(arm["speed"]),
        float(arm["release"]),
        float(arm.get("tiring", 0.0)),
    )
