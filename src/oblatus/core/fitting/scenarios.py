"""Scenarios: each shot of the catalogue on each ground of the mix, with its share and the player's setup for it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from oblatus.core.constants import FLATTEST_ATTACK
from oblatus.core.delivery import RELEASE_RATE, Habit, Player, Schools
from oblatus.core.grounds import SAND, TURF, Ground, Sand, Turf
from oblatus.core.shots import CATALOGUE, Shot, default_shot_mix
from oblatus.core.strokes.situations import Layout, OwnLie, lip_of

ALWAYS_OPEN_SAND_DEG = 35.0
ALWAYS_OPEN_TURF_DEG = 12.0
SAND_ENTRY_PER_DEG = 0.0009
"""Entry moved back a degree of opening [m] (judgement: an opening of 20 degrees lifts the edge by 4.2 mm)."""

SHOT_SHIFT: dict[str, dict[str, tuple[float, float]]] = {
    "tight_firm": {"measured": (0.0, 0.0), "use_sole": (-4.0, 2.0), "use_edge": (4.0, -2.0)},
    "tight_soft": {"measured": (0.0, 0.0), "brush": (-3.0, 2.0), "same_swing": (0.0, 0.0)},
    "long_sand": {"measured": (0.0, 0.0), "blast": (-2.0, 2.0), "clip": (3.0, -1.0)},
}
"""Lean and attack [degrees] that a school adds where its shot is played, by question and choice (judgement)."""
HANDS_LEAN = {"measured": 0.0, "quiet": 1.0, "free": -2.0}
HANDS_RELEASE = {"measured": 0.0, "quiet": -0.4, "free": 0.4}
ARC_ATTACK = {"measured": 0.0, "wide": 1.0, "early_set": -1.0}
"""What the schools of hands and arc add on every short shot: lean, release rate, attack [degrees] (judgement)."""


@dataclass(frozen=True, slots=True)
class Setup:
    """How the club is set and swung: opening, lean, attack [degrees], entry [m] from the ball's centre, release rate."""

    opening_deg: float
    lean_deg: float
    attack_deg: float
    entry: float = -0.034
    release: float = 1.0


@dataclass(frozen=True)
class Scenario:
    """One shot on one ground: its share of all golf with these clubs (the shares sum to 1).

    `setup` is the shot's usual one; `setups` are those that the player chooses from, `layout` where the hole is.
    """

    shot: Shot
    ground: Ground
    share: float
    setup: Setup
    setups: tuple[Setup, ...]
    layout: Layout

    @property
    def key(self) -> str:
        """Shot key and ground name."""
        return f"{self.shot.key}|{self.ground.name}"

    @property
    def lip(self) -> float:
        """Height of the lip to clear [m], 0 on turf."""
        return lip_of(self.ground.lip_height, self.shot.lip) if self.shot.kind == "sand" else 0.0

    @cached_property
    def turf(self) -> Turf:
        """The ground's turf with the ball where this lie has it."""
        height = self.shot.ball_height
        return self.ground.turf if height is None else replace(self.ground.turf, ball_height=height)

    @cached_property
    def sand(self) -> Sand:
        """The ground's sand, deeper around a plugged ball."""
        depth = self.shot.plug_depth
        return self.ground.sand if depth is None else replace(self.ground.sand, plug_depth=depth)

    @cached_property
    def surface(self) -> Turf | Sand:
        """What the ball lies on."""
        lies: dict[str, Turf | Sand] = {TURF.key: self.turf, SAND.key: self.sand}
        return lies[self.shot.surface]


def build_scenarios(
    player: Player, grounds: Sequence[Ground], layouts: Mapping[str, Layout] | None = None
) -> list[Scenario]:
    """Every shot that occurs, on every ground where it occurs, shares scaled to sum to 1.

    `layouts` are the fitter's own, by shot.

    A shot's share is split over the grounds that have such a lie in proportion to their shares;
    a shot that no ground of the mix has is left out.
    """
    mix = player.shot_mix or default_shot_mix(player.handicap)
    found: list[tuple[Shot, Ground, float]] = []
    for shot in CATALOGUE:
        places = [ground for ground in grounds if ground.share > 0.0 and shot.occurs_on(ground)]
        total = sum(ground.share for ground in places)
        share = mix.get(shot.key, 0.0)
        if total > 0.0 and share > 0.0:
            found.extend((shot, ground, share * ground.share / total) for ground in places)
    whole = sum(share for _, _, share in found)
    habit, schools = player.habit, player.schools
    # what a shot's setups are does not depend on the ground that it is played from
    setups = {shot.key: (usual_setup(shot, habit, schools), setups_for(shot, habit, schools)) for shot, _, _ in found}
    return [
        Scenario(
            shot, ground, share / whole, *setups[shot.key], (layouts or {}).get(shot.key) or usual_layout(shot),
        )
        for shot, ground, share in found
    ]  # fmt: skip


def usual_layout(shot: Shot) -> Layout:
    """Where the hole usually is for a shot of the catalogue."""
    own: OwnLie = "sand" if shot.kind == "sand" else "rough"
    return Layout(shot.hole, shot.room, shot.behind, shot.short, own)


def setups_for(shot: Shot, habit: Habit, schools: Schools) -> tuple[Setup, ...]:
    """The setups that the player chooses from: the face square, half and all of the way to the shot's usual opening.

    Players who never open, or always the same, have one.
    """
    usual = _opening(shot, habit, schools)
    fixed = habit.opening == "always" or (shot.kind == "sand" and schools.sand_opening == "always_open")
    openings = (usual,) if fixed or usual == 0.0 else (0.0, 0.5 * usual, usual)
    return tuple(_setup(shot, habit, schools, opening) for opening in openings)


def usual_setup(shot: Shot, habit: Habit, schools: Schools) -> Setup:
    """The player's usual setup for a shot: the habit, moved by the shot and by the chosen schools."""
    return _setup(shot, habit, schools, _opening(shot, habit, schools))


def _setup(shot: Shot, habit: Habit, schools: Schools, opening: float) -> Setup:
    lean = habit.lean_deg.mean + shot.lean_offset_deg
    attack = habit.attack_deg.mean + shot.attack_offset_deg
    lean_shift, attack_shift = _school_shift(shot, schools)
    return Setup(
        opening,
        min(max(lean + lean_shift, -8.0), 18.0),
        min(max(attack + attack_shift, -14.0), FLATTEST_ATTACK.value),
        _entry(shot, habit, schools, opening),
        _release(shot, habit, schools),
    )


def _entry(shot: Shot, habit: Habit, schools: Schools, opening: float) -> float:
    """Where the sole is meant to land [m]: behind the habit in sand, except for the school that clips long sand.

    An open face stands on a higher edge: in sand the entry moves back with it.
    """
    back = SAND_ENTRY_PER_DEG * max(opening, 0.0) if shot.kind == "sand" else 0.0
    offset = 0.0 if shot.school == "long_sand" and schools.long_sand == "clip" else shot.entry_offset
    return min(max(habit.entry.mean + offset - back, -0.15), 0.04)


def _release(shot: Shot, habit: Habit, schools: Schools) -> float:
    """Release rate; the schools of quiet and free hands act on short shots."""
    rate = RELEASE_RATE[habit.release]
    if shot.kind == "full":
        return rate
    return rate + HANDS_RELEASE[schools.hands]


def _opening(shot: Shot, habit: Habit, schools: Schools) -> float:
    if shot.kind == "sand" and not shot.buried:
        if schools.sand_opening == "always_open":
            return ALWAYS_OPEN_SAND_DEG
        if schools.sand_opening == "square":
            return 0.0
    if shot.kind == "full":
        return 0.0
    if habit.opening == "square":
        return min(shot.opening_deg, 0.0)
    if habit.opening == "always" and not shot.buried:
        return max(shot.opening_deg, ALWAYS_OPEN_TURF_DEG)
    return shot.opening_deg


def _school_shift(shot: Shot, schools: Schools) -> tuple[float, float]:
    """Lean and attack [degrees] that a school adds to the habit for this shot."""
    lean, attack = SHOT_SHIFT[shot.school][getattr(schools, shot.school)] if shot.school else (0.0, 0.0)
    if shot.kind != "full":
        lean += HANDS_LEAN[schools.hands]
        attack += ARC_ATTACK[schools.arc]
    return lean, attack
