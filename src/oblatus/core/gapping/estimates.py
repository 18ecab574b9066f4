"""What is known of a player's carries: cells (a club with a swing), their estimates, and what to measure next."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from oblatus.core.gapping.carries import CarryModel
from oblatus.core.gapping.strikes import MeasuredStrike

Floats = NDArray[np.float64]
Source = Literal["measured", "modelled", "assumed"]
ToldBy = Literal["strikes", "both", "usual"]
MOSTLY, PARTLY = 0.5, 0.1


@dataclass(frozen=True, slots=True)
class Cell:
    """A club with a swing: code of the club, static loft [degrees], key of the swing."""

    club: str
    loft_deg: float
    swing: str


@dataclass(frozen=True, slots=True)
class CellEstimate:
    """What is known of a cell.

    `carry` is the mean carry [m] with its 80 % interval; `spread` the standard deviation of one ball [m]. `source` is
    "measured" with strikes of its own (`count`), "modelled" from the player's other strikes or a known carry, "assumed"
    when nothing of this player is known.
    """

    cell: Cell
    carry: float
    low: float
    high: float
    spread: float
    count: int
    aside: int
    source: Source
    own_share: float
    """What the cell's own strikes add to the model, as a factor of carry."""


@dataclass(frozen=True, slots=True)
class Parameter:
    """An unknown of the model: estimate with its standard error beside the usual value with its doubt."""

    name: str
    unit: str
    value: float
    error: float
    usual: float
    usual_error: float

    @property
    def told_by(self) -> ToldBy:
        """Whether the strikes tell it, what is usual does, or both: by how much they narrow its doubt."""
        narrowed = 1.0 - self.error / self.usual_error
        return "strikes" if narrowed > MOSTLY else "both" if narrowed > PARTLY else "usual"


@dataclass(frozen=True, slots=True)
class Outlier:
    """A strike that does not fit the others: how far its carry is off, as a share; its worst figure in deviations."""

    strike: str
    share: float
    deviations: float


@dataclass(frozen=True, slots=True)
class NextCell:
    """What five more balls in a cell would do: its doubt now and then, and the doubt of all cells, weighted [m]."""

    cell: Cell
    own_now: float
    own_then: float
    all_now: float
    all_then: float


@dataclass(frozen=True, slots=True)
class PlayerModel:
    """The fitted model, every cell asked for, and how good it is.

    `leave_one_out` is the root mean square [m] of what each strike's cell would have been told without that strike,
    outliers left out; None below three strikes.
    """

    carries: CarryModel
    cells: tuple[CellEstimate, ...]
    parameters: tuple[Parameter, ...]
    outliers: tuple[Outlier, ...]
    used: int
    aside: int
    leave_one_out: float | None
    next_cells: tuple[NextCell, ...]
    scatter: float
    covariance: Floats = field(repr=False, compare=False)
    """Of the log carries of the cells (cells, cells)."""


def cell_of(strike: MeasuredStrike) -> Cell:
    """The cell that a strike belongs to."""
    return Cell(strike.club, strike.loft_deg, strike.swing)
