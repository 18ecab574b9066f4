"""Mean, spread and doubt of attack, lean, speed, entry and loft by station, robustly; lean inferred where it must be."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core.gapping.strikes import MeasuredStrike
from oblatus.core.intervals import interval_width
from oblatus.core.session.table import StrikeTable, table_of

Floats = NDArray[np.float64]

KEYS = (
    "attack_deg", "lean_deg", "club_speed", "entry", "dynamic_loft_deg", "impact_height", "carry", "sand_mark",
    "sole_mark",
)  # fmt: skip
FLOORS = np.array([0.6, 0.8, 0.25, 0.006, 0.8, 0.002, 1.0, 0.010, 0.002])
"""Scatter below which nothing is called an outlier: how well such figures can be measured at all (judgement)."""
OUTLIER_DEVIATIONS = 3.5
LEAST_FOR_OUTLIERS = 5
NORMAL_MAD = 1.4826
UNTRENDED = ("carry", "dynamic_loft_deg", "sand_mark", "sole_mark")
"""Figures that change with the club and the place that is hit, not with the hour."""

TREND_LEAST = 12
TREND_T = 2.8


@dataclass(frozen=True, slots=True)
class Figure:
    """A quantity over strikes: mean with its 80 % interval, spread, count, strikes kept out, how many inferred."""

    key: str
    mean: float
    low: float
    high: float
    spread: float
    count: int
    outliers: tuple[str, ...]
    inferred: int


@dataclass(frozen=True, slots=True)
class Trend:
    """A drift over the session: change from its first to its last strike, and its t value."""

    key: str
    change: float
    t: float


@dataclass(frozen=True, slots=True)
class StationSummary:
    """One station: strikes that count, set aside, and its figures."""

    station: str
    count: int
    aside: int
    figures: tuple[Figure, ...]


@dataclass(frozen=True, slots=True)
class Session:
    """The whole session: overall, by station, and what drifts."""

    overall: StationSummary
    stations: tuple[StationSummary, ...]
    trends: tuple[Trend, ...]


def summarise(strikes: Sequence[MeasuredStrike] | StrikeTable, partial: Sequence[str]) -> Session:
    """The session in its order. `partial` are the stations whose strikes make the habit of partial swings (overall).

    Robust: values beyond 3.5 scaled median deviations from the median are kept out and named (from five values on); the
    interval of the mean is Student's.
    """
    known = strikes if isinstance(strikes, StrikeTable) else table_of(strikes)
    table, inferred = _columns(known)
    counts, ids = known.counts, known.ids
    swing = known.swings.codes
    stations = tuple(
        _station(name, table, inferred, counts, swing == n, ids) for n, name in enumerate(known.swings.names)
    )
    mine = known.swings.among(partial)
    used = counts & mine
    groups = swing * len(known.clubs.names) + known.clubs.codes
    return Session(_station("overall", table, inferred, counts, mine, ids), stations, _trends(table[used], groups[used]))


def _columns(known: StrikeTable) -> tuple[Floats, NDArray[np.bool_]]:
    """Quantities (n, keys), not-a-number where unknown, and whether lean was inferred (n,)."""
    lean, inferred = known.leans()
    of = known.figures
    derived = {"lean_deg": lean, "sand_mark": of["exit"] - of["entry"], "sole_mark": of["mark_back"]}
    return np.column_stack([derived[key] if key in derived else of[key] for key in KEYS]), inferred


def _station(
    name: str, table: Floats, inferred: NDArray[np.bool_], counts: NDArray[np.bool_], mine: NDArray[np.bool_],
    ids: Sequence[str],
) -> StationSummary:  # fmt: skip
    rows = np.flatnonzero(mine & counts)
    figures = []
    for column, key in enumerate(KEYS):
        known = rows[np.isfinite(table[rows, column])]
        if len(known) == 0:
            continue
        guessed = int(inferred[known].sum()) if key == "lean_deg" else 0
        figures.append(_figure(key, table[known, column], known, ids, float(FLOORS[column]), guessed))
    return StationSummary(name, len(rows), int((mine & ~counts).sum()), tuple(figures))


def _figure(
    key: str, values: Floats, known: NDArray[np.int64], ids: Sequence[str], floor: float, inferred: int
) -> Figure:
    """A figure of values whose strikes stand at `known` among all ids."""
    kept = np.ones(len(values), dtype=bool)
    if len(values) >= LEAST_FOR_OUTLIERS:
        middle = np.median(values)
        scale = max(NORMAL_MAD * float(np.median(np.abs(values - middle))), floor)
        kept = np.abs(values - middle) <= OUTLIER_DEVIATIONS * scale
    used = values[kept]
    n = len(used)
    mean = float(used.mean())
    # one or two values say nothing of the spread: the usual measuring scatter stands in
    spread = float(used.std(ddof=1)) if n > 1 else floor
    half = interval_width(max(n - 1.0, 1.0)) * max(spread, 0.3 * floor) / math.sqrt(n)
    outliers = tuple(ids[i] for i in known[~kept].tolist())
    return Figure(key, mean, mean - half, mean + half, spread, n, outliers, inferred)


def _trends(table: Floats, groups: NDArray[np.int64]) -> tuple[Trend, ...]:
    """Straight lines over the order of the strikes, where they are many and the slope is far from none.

    Order and value are taken from the middle of their own station and club: going from chips to pitches is no drift.
    """
    found = []
    for column, key in enumerate(KEYS):
        if key in UNTRENDED:
            continue
        known = np.flatnonzero(np.isfinite(table[:, column]))
        if len(known) < TREND_LEAST:
            continue
        x, y = known.astype(float), table[known, column].copy()
        for group in np.unique(groups[known]):
            here = groups[known] == group
            x[here] -= x[here].mean()
            y[here] -= y[here].mean()
        free = len(y) - 1 - len(np.unique(groups[known]))
        if free < 1 or x @ x == 0.0:
            continue
        slope = float(x @ y / (x @ x))
        rest = y - slope * x
        error = math.sqrt(float(rest @ rest) / free / float(x @ x))
        if error > 0.0 and abs(slope) / error > TREND_T:
            found.append(Trend(key, slope * float(known[-1] - known[0]), slope / error))
    return tuple(found)
