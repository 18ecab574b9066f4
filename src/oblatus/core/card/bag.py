"""The bag card: every club and swing by carry, a table of distances, and what wind and a firm green change."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from statistics import median

from oblatus.core.fitting.carries_of import ClubRow, bag_rows, view_carries
from oblatus.core.fitting.fitting import Fitting
from oblatus.core.flight import GREEN_FIRMNESS, Green
from oblatus.core.gapping.conditions import Conditions, LadderShot
from oblatus.core.gapping.finder import Pin, find_shots
from oblatus.core.intervals import NORMAL
from oblatus.core.words import counted, metres, speed

LIKELY = 0.8
"""A ball falls within the likely range in so many cases."""
INTO = 4.0
"""Head wind of the card [m/s]."""
WIDE = NORMAL.inv_cdf(0.5 + 0.5 * LIKELY)
FEWEST = 2


@dataclass(frozen=True, slots=True)
class CardRow:
    """A club with a swing: carry [m], between what 8 of 10 balls carry, total with run on a medium green [m]."""

    club: ClubRow
    swing: str
    swing_name: str
    carry: float
    low: float
    high: float
    total: float
    source: str
    count: int


@dataclass(frozen=True, slots=True)
class CardDistance:
    """Which row of the card for a distance [m]: in still air, into the card's wind, to a firm green."""

    distance: float
    still: int
    into: int
    firm: int


@dataclass(frozen=True, slots=True)
class BagCard:
    """Rows, longest carry first; distances; the rules of this player in words; the air that it holds for.

    `measured` of the rows stand on strikes.
    """

    rows: tuple[CardRow, ...]
    distances: tuple[CardDistance, ...]
    rules: tuple[str, ...]
    temperature_c: float
    measured: int


def bag_card(fitting: Fitting, rows: Sequence[ClubRow], every: float) -> BagCard:
    """The card of clubs, with a line for every so many metres.

    Raises
    ------
    InputError
        As `fit_player_model`.
    """
    still = _shots(fitting, rows, Conditions(air=fitting.air))
    into = _shots(fitting, rows, Conditions(air=replace(fitting.air, wind_head=INTO)))
    firm = _shots(fitting, rows, Conditions(air=fitting.air, green=Green(GREEN_FIRMNESS["firm"])))
    names = {row.code: row for row in rows}
    swings = {swing.key: swing.name for swing in fitting.swings}
    order = sorted(range(len(still)), key=lambda n: -still[n].carry)
    place = {n: at for at, n in enumerate(order)}

    def row(shot: LadderShot) -> CardRow:
        cell, estimate = shot.estimate.cell, shot.estimate
        club = next((one for one in rows if (one.code, one.loft_deg) == (cell.club, cell.loft_deg)), names[cell.club])
        half = WIDE * shot.spread
        return CardRow(
            club, cell.swing, swings[cell.swing], shot.carry, shot.carry - half, shot.carry + half, shot.total,
            estimate.source, estimate.count,
        )  # fmt: skip

    def best(shots: Sequence[LadderShot], distance: float, pin: Pin = "middle") -> int:
        return place[shots.index(find_shots(shots, distance, pin, 1)[0].shot)]

    shortest, longest = min(shot.total for shot in still), max(shot.total for shot in still)
    steps = range(int(shortest // every) + 1, int(longest // every) + 1)
    distances = tuple(
        CardDistance(n * every, best(still, n * every), best(into, n * every), best(firm, n * every)) for n in steps
    )
    card = tuple(row(still[n]) for n in order)
    return BagCard(
        card, distances, tuple(_rules(still, into, firm, distances)), fitting.air.temperature_c,
        sum(one.source == "measured" for one in card),
    )  # fmt: skip


def _shots(fitting: Fitting, rows: Sequence[ClubRow], conditions: Conditions) -> tuple[LadderShot, ...]:
    return view_carries(fitting, rows, conditions).shots


def _rules(
    still: Sequence[LadderShot], into: Sequence[LadderShot], firm: Sequence[LadderShot], distances: Sequence[CardDistance]
) -> list[str]:
    """What wind and a firm green do to this player, at the middle of the card."""
    if len(distances) < FEWEST:
        return []
    middle = distances[len(distances) // 2].distance
    near = min(range(len(still)), key=lambda n: abs(still[n].total - middle))
    lost = still[near].carry - into[near].carry
    up = round(median(line.still - line.into for line in distances))
    lines = "the same line" if up < 1 else f"{counted(up, 'line')} up the card"
    release = firm[near].run - still[near].run
    return [
        f"{speed(INTO, 0)} into the wind: {metres(lost)} less at {metres(middle)}, {lines}",
        f"firm green: {metres(max(release, 0.0))} more release at {metres(middle)}: land it so much shorter",
    ]


def card_rows(fitting: Fitting, proposed: Sequence[ClubRow]) -> tuple[ClubRow, ...]:
    """Nine-iron and pitching wedge, then the wedges of the card by loft."""
    return (*bag_rows(fitting)[:2], *sorted(proposed, key=lambda row: row.loft_deg))
