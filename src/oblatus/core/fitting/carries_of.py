"""The player's carries in a fitting: the fitted model with every club that is asked for."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from oblatus.core.delivery import Habit, Player
from oblatus.core.fitting.fitting import Fitting, measured_carries
from oblatus.core.flight import Air
from oblatus.core.gapping import (
    Band,
    Cell,
    Faced,
    MeasuredStrike,
    PlayerModel,
    Swing,
    faced_distances,
    fit_carry_model,
    fit_player_model,
)
from oblatus.core.gapping.conditions import Conditions, Hole, LadderShot, full_gaps, holes_of, overlaps_of, shots_in
from oblatus.core.gapping.finder import FoundShot, Pin, find_shots
from oblatus.core.gapping.ladder import overlap_limit, wanted_gap


@dataclass(frozen=True, slots=True)
class ClubRow:
    """A club of the carry matrix: code, name, static loft [degrees]."""

    code: str
    name: str
    loft_deg: float


def bag_rows(fitting: Fitting) -> tuple[ClubRow, ...]:
    """Nine-iron, pitching wedge, the owned wedges by loft, and whatever else was hit."""
    rows = [
        ClubRow("9i", "nine-iron", fitting.bag.nine_iron_loft_deg),
        ClubRow("pw", "pitching wedge", fitting.bag.pitching_wedge.loft_deg),
    ]
    owned = [ClubRow(item.code, item.name, item.head.loft_deg) for item in fitting.stock if item.owned]
    rows += sorted(owned, key=lambda row: row.loft_deg)
    known = {(row.code, row.loft_deg) for row in rows}
    others = dict.fromkeys((s.club, s.loft_deg) for s in measured_carries(fitting) if (s.club, s.loft_deg) not in known)
    return (*rows, *(ClubRow(code, fitting.club_name(code), loft) for code, loft in sorted(others, key=lambda o: o[1])))


def carries_of(fitting: Fitting, rows: Sequence[ClubRow]) -> PlayerModel:
    """The player's model with a cell for every club of the rows and every swing; equal questions are fitted once.

    Raises
    ------
    InputError
        As `fit_player_model`.
    """
    player = fitting.player
    return _fit(
        player.habit, player.handicap, player.pitching_wedge_carry, player.pitching_wedge_speed,
        None if player.shot_mix is None else tuple(sorted(player.shot_mix.items())),
        fitting.bag.pitching_wedge.loft_deg, fitting.strikes, fitting.swings, fitting.air, fitting.bands, tuple(rows),
    )  # fmt: skip


def faced_of(fitting: Fitting, longest: float) -> Faced:
    """How often each distance up to the longest [m] is faced."""
    return faced_distances(fitting.player, longest, fitting.bands)


GapKind = Literal["even", "hole", "overlap"]
HOLE_FACTOR = 1.5
"""A full gap so many times the usual one is a hole (judgement)."""


def gap_kind(gap: float, usual: float) -> GapKind:
    """What a gap between full swings is beside the usual one, both in metres."""
    return "hole" if gap > HOLE_FACTOR * usual else "overlap" if gap < overlap_limit(usual) else "even"


@dataclass(frozen=True, slots=True)
class FullGap:
    """Full-swing gap between neighbours [m] and what it is."""

    weaker: LadderShot
    stronger: LadderShot
    metres: float
    kind: GapKind


@dataclass(frozen=True, slots=True)
class CarryView:
    """The carries of a fitting in some conditions.

    `shots` are every club of the `rows` with every swing, `longest` the full pitching wedge [m], `found` the shots for
    the distance that was asked for, `holes` and `overlaps` of the ladder, `gaps` between full swings of the wedges.
    """

    rows: tuple[ClubRow, ...]
    model: PlayerModel
    conditions: Conditions
    shots: tuple[LadderShot, ...]
    longest: float
    faced: Faced
    holes: tuple[Hole, ...]
    overlaps: tuple[tuple[LadderShot, LadderShot], ...]
    gaps: tuple[FullGap, ...]
    found: tuple[FoundShot, ...]


def view_carries(
    fitting: Fitting, rows: Sequence[ClubRow], conditions: Conditions, distance: float | None = None, pin: Pin = "middle"
) -> CarryView:
    """Matrix, ladder and, with a distance [m], the shots for it.

    Raises
    ------
    InputError
        As `fit_player_model`.
    """
    model = carries_of(fitting, rows)
    shown = {(row.code, row.loft_deg) for row in rows}
    told = [(shot, shot.estimate.cell) for shot in shots_in(model, conditions)]
    shots = tuple(shot for shot, cell in told if (cell.club, cell.loft_deg) in shown)
    full = [shot.carry for shot, cell in told if (cell.club, cell.swing) == ("pw", "full")]
    longest = max(full, default=max(shot.carry for shot in shots))
    return CarryView(
        tuple(rows), model, conditions, shots, longest, faced_of(fitting, longest), tuple(holes_of(shots, longest)),
        tuple(overlaps_of(shots)), tuple(_gaps(shots, longest)),
        () if distance is None else tuple(find_shots(shots, distance, pin)),
    )  # fmt: skip


def _gaps(shots: Sequence[LadderShot], longest: float) -> Iterator[FullGap]:
    usual = wanted_gap(longest)
    for a, b, gap in full_gaps(shots):
        if a.estimate.cell.club == "9i":
            continue  # the gap above the pitching wedge is not the wedges' to fill
        yield FullGap(a, b, gap, gap_kind(gap, usual))


@lru_cache(maxsize=64)
def _fit(
    habit: Habit,
    handicap: float | None,
    carry: float | None,
    speed: float | None,
    mix: tuple[tuple[str, float], ...] | None,
    pitching_wedge_loft_deg: float,
    strikes: tuple[MeasuredStrike, ...],
    swings: tuple[Swing, ...],
    air: Air,
    bands: tuple[Band, ...],
    rows: tuple[ClubRow, ...],
) -> PlayerModel:
    player = Player(habit, handicap, carry, speed, shot_mix=None if mix is None else dict(mix))
    start = fit_carry_model(player, pitching_wedge_loft_deg)
    longest = float(start.carries([pitching_wedge_loft_deg], start.swings[:1])[0, 0])
    cells = [Cell(row.code, row.loft_deg, swing.key) for row in rows for swing in swings]
    faced = faced_distances(player, longest, bands)
    return fit_player_model(player, pitching_wedge_loft_deg, strikes, cells, swings, air, faced)
