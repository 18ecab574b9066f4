"""The shot catalogue: the situations that a set of wedges must cover, and their usual share of a player's golf."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from oblatus.core.grounds import BALL_HEIGHT, SAND, TURF, Ground, assumed, upper_end

Kind = Literal["full", "turf", "sand"]
Short = Literal["fringe", "rough", "sand"]


def everywhere(ground: Ground) -> bool:
    """Every ground has such a lie."""
    del ground
    return True


def not_firm(ground: Ground) -> bool:
    """Turf that is not firm."""
    return ground.turf.firmness_g <= upper_end(TURF, "medium")


def rather_firm(ground: Ground) -> bool:
    """Turf from the middle of the medium class up."""
    return ground.turf.firmness_g > assumed(TURF, "medium")


def soft_enough_to_plug(ground: Ground) -> bool:
    """Sand in which a ball buries itself."""
    return ground.sand.penetrometer_kg_cm2 <= upper_end(SAND, "firm") and not ground.sand.thin_or_wet


def thin_or_firm_sand(ground: Ground) -> bool:
    """Sand with little to slide through."""
    return ground.sand.thin_or_wet or ground.sand.penetrometer_kg_cm2 > upper_end(SAND, "medium")


def high_lip(ground: Ground) -> bool:
    """A lip that has to be thought of."""
    return ground.lip_height >= HIGH_LIP


HIGH_LIP = 1.0
USUAL_HANDICAP = 12.0
"""From this height of the lip [m] there are shots over a high one (judgement)."""


@dataclass(frozen=True, slots=True)
class Shot:
    """One situation of the catalogue.

    Parameters
    ----------
    carry : range of carries [m]
    opening_deg, lean_offset_deg, attack_offset_deg : usual setup; the offsets are added to the player's own habit
    loft_deg : delivered loft that suits it, from and to
    edge : how much a low leading edge matters, 0..1
    share, handicap_slope : usual share of golf at handicap 12, and its change in log per ten strokes
    ball_height : ball bottom above the soil [m] when the shot itself says so
    hole, room, behind : distance to the hole, room from the green's front edge to it, green behind it [m] (judgement)
    short : what lies short of the front edge
    entry_offset : where the sole is meant to land, added to the player's own entry on turf [m]
    lip : whether the ball must clear the ground's lip
    occurs_on : whether a ground has such a lie
    plug_depth : how deep the ball lies in the sand [m] when the shot itself says so
    blast : whether it is a plain explosion, for the school that takes the most loft
    school : the question of the schools that moves its setup
    high : whether it asks for a lofted club: the ladder's top loft follows the share of such shots
    """

    key: str
    name: str
    kind: Kind
    carry: tuple[float, float]
    opening_deg: float
    lean_offset_deg: float
    attack_offset_deg: float
    loft_deg: tuple[float, float]
    edge: float
    share: float
    handicap_slope: float = 0.0
    ball_height: float | None = None
    hole: float = 0.0
    room: float = 0.0
    behind: float = 0.0
    short: Short = "rough"
    entry_offset: float = 0.0
    lip: bool = False
    occurs_on: Callable[[Ground], bool] = everywhere
    plug_depth: float | None = None
    blast: bool = False
    school: str | None = None
    high: bool = False

    @property
    def target(self) -> float:
        """The carry that stands for the shot [m]: the middle of its range."""
        return 0.5 * (self.carry[0] + self.carry[1])

    @property
    def surface(self) -> str:
        """The kind of ground that it is played from."""
        return SAND.key if self.kind == SAND.key else TURF.key

    @property
    def buried(self) -> bool:
        """Whether the ball lies buried: the edge has to dig, and nobody opens the face."""
        return self.plug_depth is not None


_TIGHT = BALL_HEIGHT["tight"]
_LUSH = BALL_HEIGHT["sitting_up"]

_SAND_ENTRY = -0.040

CATALOGUE: tuple[Shot, ...] = (
    Shot("full", "full swing to a green", "full", (60, 130), 0, 4, 0, (0, 90), 0.2, 0.18, -0.10),
    Shot("swing_1030", "10:30 swing", "full", (45, 105), 0, 1, 0, (0, 90), 0.2, 0.08, -0.15),
    Shot("swing_900", "9:00 swing", "full", (30, 80), 0, 0, 0, (0, 90), 0.2, 0.06, -0.10),
    Shot("pitch", "pitch", "turf", (30, 60), 0, 0, 0, (44, 56), 0.4, 0.10, -0.05, None, 45, 9, 10, "rough"),
    Shot("short_pitch", "short pitch over trouble", "turf", (10, 30), 10, -3, 1, (55, 66), 0.5, 0.05, 0.0, None,
         20, 5, 9, "sand", high=True),
    Shot("chip", "basic chip", "turf", (4, 15), 0, 2, 0, (42, 52), 0.5, 0.14, 0.10, None, 13, 9, 10, "fringe"),
    Shot("low_runner", "low runner", "turf", (3, 12), 0, 4, -1, (36, 46), 0.3, 0.06, 0.15, None, 18, 15, 10, "fringe"),
    Shot("high_soft", "high soft shot, tight lie", "turf", (8, 25), 20, -4, 1, (62, 74), 0.9, 0.03, -0.20, _TIGHT,
         16, 4, 9, "rough", high=True),
    Shot("lush_rough", "from lush rough", "turf", (8, 40), 10, 0, -2, (54, 68), 0.1, 0.07, 0.15, _LUSH,
         22, 8, 9, "rough"),
    Shot("tight_soft", "tight lie, soft ground", "turf", (10, 40), 0, 0, 0, (46, 58), 0.5, 0.04, 0.0, _TIGHT,
         25, 8, 9, "rough", occurs_on=not_firm, school="tight_soft"),
    Shot("tight_firm", "tight lie, firm ground", "turf", (10, 40), 0, 0, 0, (46, 58), 1.0, 0.04, 0.0, _TIGHT,
         25, 8, 9, "rough", occurs_on=rather_firm, school="tight_firm"),
    Shot("against_grain", "against the grain", "turf", (5, 25), 0, -1, 0, (46, 58), 0.2, 0.02, 0.0, None,
         15, 8, 10, "fringe"),
    Shot("sand_greenside", "greenside sand", "sand", (5, 15), 20, -3, -3, (58, 74), 0.2, 0.07, 0.10, None,
         12, 6, 10, "sand", _SAND_ENTRY, blast=True),
    Shot("sand_high_lip", "greenside sand, high lip", "sand", (5, 15), 30, -4, -3, (64, 78), 0.2, 0.02, 0.0, None,
         11, 5, 10, "sand", _SAND_ENTRY, lip=True, occurs_on=high_lip, blast=True, high=True),
    Shot("sand_long", "long sand", "sand", (25, 55), 5, 0, -2, (46, 58), 0.3, 0.02, 0.0, None,
         40, 11, 11, "sand", 0.5 * _SAND_ENTRY, school="long_sand"),
    Shot("plugged", "plugged", "sand", (4, 12), -10, 3, -5, (40, 54), 0.3, 0.01, 0.15, None, 12, 8, 10, "sand",
         _SAND_ENTRY, occurs_on=soft_enough_to_plug, plug_depth=0.016),
    Shot("sand_thin", "wet or thin sand", "sand", (5, 20), 0, 0, -2, (50, 62), 0.8, 0.01, 0.0, None, 14, 8, 10, "sand",
         0.5 * _SAND_ENTRY, occurs_on=thin_or_firm_sand),
)  # fmt: skip

BY_KEY = {shot.key: shot for shot in CATALOGUE}
SHORT_SHOTS = tuple(shot.key for shot in CATALOGUE if shot.kind != "full")


def handicap_or_usual(handicap: float | None) -> float:
    """The handicap that a player is reckoned with: their own, or the usual one."""
    return USUAL_HANDICAP if handicap is None else handicap


def default_shot_mix(handicap: float | None) -> dict[str, float]:
    """Usual shares (sum 1) of the catalogue for a handicap."""
    strokes = (handicap_or_usual(handicap) - USUAL_HANDICAP) / 10.0
    raw = {shot.key: shot.share * math.exp(shot.handicap_slope * strokes) for shot in CATALOGUE}
    total = sum(raw.values())
    return {key: value / total for key, value in raw.items()}
