"""Which shot for a distance, for every condition that a phone can be told of: made once, no phone has to reckon."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import product

from oblatus.core.card.bag import INTO
from oblatus.core.fitting.carries_of import ClubRow, view_carries
from oblatus.core.fitting.fitting import Fitting
from oblatus.core.flight import GREEN_FIRMNESS, Green
from oblatus.core.flight.impact import LieClass
from oblatus.core.flight.tables import GREENS
from oblatus.core.gapping.conditions import Conditions, LadderShot
from oblatus.core.gapping.finder import PINS, find_shots

WINDS = {"into": INTO, "still": 0.0, "helping": -INTO}
"""Head wind [m/s] by the word that a player chooses."""
LIES: dict[str, LieClass] = {"dry": "dry", "wet": "wet", "rough": "light_rough"}
SHOWN = 3
NEAREST = 15.0


@dataclass(frozen=True, slots=True)
class FarTable:
    """Answers to "how far?".

    `shots` are club and swing by name; `figures` [condition][shot] carry and run [m]; `answers`
    [condition][pin][distance] the best shots, best first, as places in `shots`. Conditions are wind, green and lie in the
    order of `conditions`.
    """

    distances: tuple[float, ...]
    shots: tuple[tuple[ClubRow, str], ...]
    conditions: tuple[tuple[str, str, str], ...]
    figures: tuple[tuple[tuple[float, float], ...], ...]
    answers: tuple[tuple[tuple[tuple[int, ...], ...], ...], ...]


def far_table(fitting: Fitting, rows: Sequence[ClubRow], every: float) -> FarTable:
    """The table for distances every so many metres, up to the longest shot with the wind.

    Raises
    ------
    InputError
        As `fit_player_model`.
    """
    conditions = tuple(product(WINDS, GREENS, LIES))
    shots = [_shots(fitting, rows, *one) for one in conditions]
    longest = max(shot.total for some in shots for shot in some)
    steps = [n * every for n in range(int(NEAREST // every), int(longest // every) + 1)]
    names = {(row.code, row.loft_deg): row for row in rows}
    swings = {swing.key: swing.name for swing in fitting.swings}
    cells = [shot.estimate.cell for shot in shots[0]]
    return FarTable(
        tuple(steps), tuple((names[cell.club, cell.loft_deg], swings[cell.swing]) for cell in cells), conditions,
        tuple(tuple((shot.carry, shot.run) for shot in some) for some in shots),
        tuple(
            tuple(
                tuple(tuple(some.index(one.shot) for one in find_shots(some, far, pin, SHOWN)) for far in steps)
                for pin in PINS
            )
            for some in shots
        ),
    )  # fmt: skip


def _shots(fitting: Fitting, rows: Sequence[ClubRow], wind: str, green: str, lie: str) -> list[LadderShot]:
    air = replace(fitting.air, wind_head=WINDS[wind])
    conditions = Conditions(air, Green(GREEN_FIRMNESS[green]), LIES[lie])
    return list(view_carries(fitting, rows, conditions).shots)
