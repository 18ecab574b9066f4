"""Situations: a hole at a distance, the room in front of it, the green behind it, and what lies short. Pins move the
hole.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from oblatus.core.shots import Short

OwnLie = Literal["rough", "sand"]

LEAST_BEHIND = 4.0
HIGH_LIP_SHARE = 0.6
USUAL_LIP_MOST = 0.8
LIP_CLEARANCE = 0.020
APPROACH_ROOM = 11.0
APPROACH_BEHIND = 11.0


@dataclass(frozen=True, slots=True)
class Layout:
    """Where the hole is [m]: its distance, the room from the green's front edge to it, the green behind, what lies short.

    `own` is the lie that a ball that stays is played from again.
    """

    hole: float
    room: float
    behind: float
    short: Short
    own: OwnLie

    @property
    def edge(self) -> float:
        """Distance to the front edge [m]."""
        return self.hole - self.room


@dataclass(frozen=True, slots=True)
class Pin:
    """A place of the hole on the green: name, what it is called, the room as a share of the usual one, how often."""

    name: Literal["short", "middle", "roomy"]
    words: str
    room_share: float
    weight: float


PINS = (
    Pin("short", "short-sided", 0.45, 0.3),
    Pin("middle", "middle", 1.0, 0.4),
    Pin("roomy", "roomy", 1.8, 0.3),
)
"""Judgement. Without short-sided holes no lofted club earns its place."""


def pins_of(layout: Layout) -> tuple[Layout, ...]:
    """The layout with the hole at each pin: the front edge and the back of the green stay where they are."""
    back = layout.hole + layout.behind
    found = []
    for pin in PINS:
        room = layout.room * pin.room_share
        hole = layout.edge + room
        found.append(Layout(hole, room, max(back - hole, LEAST_BEHIND), layout.short, layout.own))
    return tuple(found)


def lip_of(height: float, high: bool) -> float:
    """Lip that a bunker shot must clear [m]: the ground's for a high-lip bunker, six tenths of it elsewhere, 0.8 at
    most.
    """
    return height if high else min(HIGH_LIP_SHARE * height, USUAL_LIP_MOST)
