"""The fit behind `player_model`: Gauss-Newton on a physical model with priors, Student weights, cells that differ a little.

Unknown are head speed, lean, friction, restitution, loss of speed by loft, and for every clock swing its share of speed and
extra lean; every club with a swing may also differ from the model by a few per cent of its own. Strikes count with
Student weights, so that a mishit pulls little. Equations and figures: docs/models/carries.md.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from oblatus.core.delivery import Player
from oblatus.core.flight import Air
from oblatus.core.flight.impact import LIE_FRICTION, RESTITUTION
from oblatus.core.gapping import _settling
from oblatus.core.gapping.carries import (
    SPEED_PER_DEGREE,
    SPEED_PER_DEGREE_ABOVE,
    SWINGS,
    CarryModel,
    Swing,
    square_flights,
)
from oblatus.core.gapping.estimates import Cell, CellEstimate, NextCell, Outlier, Parameter, PlayerModel, Source, cell_of
from oblatus.core.gapping.faced import Faced
from oblatus.core.gapping.strikes import MeasuredStrike
from oblatus.core.intervals import interval_width

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

CHANNELS = ("carry", "ball_speed", "launch_deg", "spin_rpm", "club_speed")
CARRY, BALL_SPEED, LAUNCH, SPIN, CLUB_SPEED = range(5)
USUAL_SCATTER = np.array([0.06, 0.04, 2.0, 0.12, 0.025])
"""Strike to strike: shares of carry, ball speed, spin and head speed; launch in degrees (judgement for club players)."""
SCATTER_COUNT = 6.0
STUDENT_DF = 5.0
STUDENT_INFORMATION = (STUDENT_DF + 1.0) / (STUDENT_DF + 3.0)
NORMAL_SCALE = 1.25
"""Standard deviation of a normal scatter in units of the Student scale that is fitted to it."""
CHANNELS_AGREE = 0.25
"""Channels of one strike move together: each counts 1 / (1 + 0.25 (k - 1)) of an independent one (calibrated, tests)."""
CELL_DOUBT = 0.02
"""How far a club with a swing may lie from the model by itself, as a share of carry (physics: 2.5 % for partial wedges)."""
TYPED_CARRY_DOUBT = 0.04
OUTLIER = 3.0
BALLS_A_CELL = 5
FACED_FLOOR = 0.1
"""A cell that is hardly ever asked for still counts a little."""
ITERATIONS = 30
LARGEST_STEP = 1.5


class Problem:
    """One fit: unknowns x = (parameters, a share for every cell), Gauss-Newton with weights made anew each time."""

    def __init__(
        self,
        player: Player,
        start: CarryModel,
        cells: list[Cell],
        swings: Sequence[Swing],
        air: Air,
        strikes: Sequence[MeasuredStrike],
    ) -> None:
        self.start, self.cells, self.swings, self.air = start, cells, tuple(swings), air
        place = {cell: i for i, cell in enumerate(cells)}
        self.strikes = strikes
        self.where = np.array([place[cell_of(strike)] for strike in strikes], dtype=np.int64)
        self.data = _observations(strikes)
        self.seen = np.isfinite(self.data)
        self.independence = 1.0 / (1.0 + CHANNELS_AGREE * (self.seen.sum(axis=1) - 1.0))
        self.lofts = np.array([cell.loft_deg for cell in cells])
        keys = [swing.key for swing in swings]
        self.swing_of = np.array([keys.index(cell.swing) for cell in cells], dtype=np.int64)
        self.usual, self.doubt, self.names = _priors(player, start, self.swings)
        carry = player.pitching_wedge_carry
        self.typed = math.log(carry) if carry is not None else None
        # the typed carry is one more place to look at, behind the cells
        told = [] if self.typed is None else [start.pitching_wedge_loft_deg]
        self.every_loft = np.array([*self.lofts, *told])
        self.every_swing = np.array([*self.swing_of, *(0 for _ in told)], dtype=np.int64)
        self.size = len(self.usual)
        self.x = np.concatenate([self.usual, np.zeros(len(cells))])
        self.precision = np.concatenate([1.0 / self.doubt**2, np.full(len(cells), 1.0 / CELL_DOUBT**2)])
        self.scatter = USUAL_SCATTER.copy()
        self.weights = np.ones_like(self.data)

    def model(self, x: Floats) -> CarryModel:
        """The carry model of a set of unknowns."""
        n = len(self.swings)
        shares = np.concatenate([[0.0], x[5 + n : 4 + 2 * n]])
        swings = tuple(
            Swing(swing.key, swing.name, float(math.exp(share)), float(extra))
            for swing, share, extra in zip(self.swings, shares, x[5 : 5 + n], strict=True)
        )
        return CarryModel(
            float(math.exp(x[0])), self.start.pitching_wedge_loft_deg, float(x[1]), self.start.attack_deg,
            self.start.assumed, swings, float(math.exp(x[2])), float(x[3]), float(x[4]),
        )  # fmt: skip

    def predict(self, x: Floats, lofts: Floats, swing_of: Ints) -> Floats:
        """Channels (..., n, 5) of n lofts with swings for unknowns (..., p); shares as logarithms."""
        n = len(self.swings)
        full = np.zeros((*x.shape[:-1], 1))
        shares = np.concatenate([full, x[..., 5 + n : 4 + 2 * n]], axis=-1)
        degrees = lofts - self.start.pitching_wedge_loft_deg
        per_degree = np.where(degrees > 0.0, x[..., 4:5], SPEED_PER_DEGREE_ABOVE)
        speed = np.exp(x[..., :1] + shares[..., swing_of]) * (1.0 - per_degree * degrees)
        dynamic = np.radians(lofts - x[..., 1:2] - x[..., 5 : 5 + n][..., swing_of])
        friction, restitution = (
            np.broadcast_to(part, speed.shape).ravel() for part in (np.exp(x[..., 2:3]), x[..., 3:4])
        )
        out = square_flights(speed.ravel(), dynamic.ravel(), self.start.attack_deg, friction, restitution, self.air)
        channels = [
            np.log(out[:, 0]), np.log(out[:, 4]), np.degrees(out[:, 5]), np.log(out[:, 3] * 30.0 / math.pi),
            np.log(speed.ravel()),
        ]  # fmt: skip
        return np.stack(channels, axis=-1).reshape(*speed.shape, len(CHANNELS))

    def slopes(self, x: Floats, lofts: Floats, swing_of: Ints) -> tuple[Floats, Floats]:
        """`predict` (n, 5) and its derivatives (n, 5, parameters)."""
        steps = 0.1 * self.doubt
        moved = np.tile(x, (self.size + 1, 1))
        moved[1:, : self.size] += np.diag(steps)
        found = self.predict(moved, lofts, swing_of)
        return found[0], np.ascontiguousarray(np.moveaxis((found[1:] - found[0]) / steps[:, None, None], 0, -1))

    def solve(self) -> None:
        """The most probable unknowns; `covariance` is the inverse of the curvature there.

        Balls are flown for where the unknowns stand and for a little beside; with these slopes unknowns and weights are
        settled, and flown anew, until nothing moves.
        """
        low, high = _limits(self.usual, self.doubt)
        scale = np.sqrt(1.0 / self.precision)
        typed = np.array([0.0, 0.0] if self.typed is None else [self.typed, TYPED_CARRY_DOUBT**-2.0])
        for _ in range(ITERATIONS):
            at, slopes = self._linearise()
            before = self.x.copy()
            _settling.settle(
                self.x, at, slopes, self.data, self.seen, self.where, self.independence, self.usual, self.precision, low,
                high, LARGEST_STEP, typed, USUAL_SCATTER, SCATTER_COUNT, STUDENT_DF, self.weights, self.scatter,
            )  # fmt: skip
            if float(np.max(np.abs(self.x - before) / scale)) < 1e-3:
                break
        at, slopes = self._linearise()
        n, p = len(self.cells), self.size
        residual = np.empty_like(self.data)
        _settling.residual_of(self.data, self.seen, self.where, at, self.x[p:], residual)
        _settling.weigh(
            residual, self.seen, self.independence, USUAL_SCATTER, SCATTER_COUNT, STUDENT_DF, self.weights, self.scatter
        )
        # what strikes really tell: Student's expected information, and no more than an average strike each
        self.weights = STUDENT_INFORMATION * np.minimum(self.weights, 1.0)
        told = np.array([0.0 if self.typed is None else self.typed - at[n, CARRY], typed[1]])
        curvature = np.empty((p + n, p + n))
        _settling.normal(
            self.x, self.usual, self.precision, self.where, self.weights, self.scatter, residual, slopes, told, curvature,
            np.empty(p + n),
        )  # fmt: skip
        self.covariance = np.linalg.inv(curvature)
        self.at, self.slopes_at, self.residual = at[:n], slopes[:n], residual

    def _linearise(self) -> tuple[Floats, Floats]:
        """What the unknowns tell of every cell, and of the typed carry behind them, with its slopes."""
        return self.slopes(self.x, self.every_loft, self.every_swing)

    def result(self, strikes: Sequence[MeasuredStrike], faced: Faced | None) -> PlayerModel:
        """Everything that a screen asks of the fit."""
        n, p = len(self.cells), self.size
        lead = np.hstack([self.slopes_at[:, CARRY, :], np.eye(n)])
        spread_of = lead @ self.covariance @ lead.T
        log_carry = self.at[:, CARRY] + self.x[p:]
        count = np.bincount(self.where, minlength=n)
        usual = NORMAL_SCALE * self.scatter[CARRY]
        squares = np.bincount(self.where, np.minimum(np.abs(self.residual[:, CARRY]), 2.5 * usual) ** 2, minlength=n)
        own_scatter = np.sqrt((SCATTER_COUNT * usual**2 + squares) / (SCATTER_COUNT + count))
        width = interval_width(SCATTER_COUNT + len(self.strikes) - 1.0)
        aside = _aside_by_cell(strikes)
        told: Source = "assumed" if self.start.assumed and not len(self.strikes) else "modelled"
        error = np.sqrt(np.diag(spread_of))
        estimates = tuple(
            CellEstimate(
                cell, math.exp(log_carry[i]), math.exp(log_carry[i] - width * error[i]),
                math.exp(log_carry[i] + width * error[i]), own_scatter[i] * math.exp(log_carry[i]), int(count[i]),
                aside.get(cell, 0), "measured" if count[i] else told, math.exp(self.x[p + i]),
            )
            for i, cell in enumerate(self.cells)
        )  # fmt: skip
        return PlayerModel(
            carries=self.model(self.x),
            cells=estimates,
            parameters=self._parameters(),
            outliers=self._outliers(),
            used=len(self.strikes),
            aside=sum(aside.values()),
            leave_one_out=self._leave_one_out(spread_of, log_carry),
            next_cells=self._next(spread_of, np.exp(log_carry), own_scatter, faced),
            scatter=NORMAL_SCALE * float(self.scatter[CARRY]),
            covariance=spread_of,
        )

    def _parameters(self) -> tuple[Parameter, ...]:
        error = np.sqrt(np.diag(self.covariance))
        found = []
        for i, (name, unit, kind) in enumerate(self.names):
            value, usual, doubt, err = self.x[i], self.usual[i], self.doubt[i], error[i]
            if kind == "log":
                value, usual = math.exp(value), math.exp(usual)
                doubt, err = doubt * usual, err * value
            scale = 100.0 if unit == "%" else 1.0
            found.append(Parameter(name, unit, value * scale, err * scale, usual * scale, doubt * scale))
        return tuple(found)

    def _outliers(self) -> tuple[Outlier, ...]:
        worst = self._deviations()
        return tuple(
            Outlier(self.strikes[i].id, math.exp(self.residual[i, CARRY]) - 1.0, float(worst[i]))
            for i in np.flatnonzero(worst > OUTLIER).tolist()
        )

    def _deviations(self) -> Floats:
        """How far each strike's worst channel is from what was expected, in standard deviations (n,)."""
        deviations: Floats = np.abs(self.residual / (NORMAL_SCALE * self.scatter)).max(axis=1, initial=0.0)
        return deviations

    def _leave_one_out(self, spread_of: Floats, log_carry: Floats) -> float | None:
        """By the hat matrix of the last linear step: what the fit would have told without the strike."""
        if len(self.strikes) < 3:
            return None
        lever = self.weights[:, CARRY] / self.scatter[CARRY] ** 2 * np.diag(spread_of)[self.where]
        without = self.residual[:, CARRY] / (1.0 - np.minimum(lever, 0.99))
        fair = self._deviations() <= OUTLIER
        if not fair.any():
            return None
        metres = without[fair] * np.exp(log_carry)[self.where[fair]]
        return float(np.sqrt(np.mean(metres**2)))

    def _next(self, spread_of: Floats, carry: Floats, own_scatter: Floats, faced: Faced | None) -> tuple[NextCell, ...]:
        """Cells by how much five balls there would narrow all of them, weighted by how often they are faced."""
        if not self.cells:
            return ()
        weight = carry**2 * (1.0 if faced is None else np.array([faced.at(float(c)) + FACED_FLOOR for c in carry]))
        weight /= max(weight.sum(), 1e-12) / np.average(carry**2)
        variance = np.diag(spread_of)
        left = variance[:, None] - spread_of**2 / (variance + own_scatter**2 / BALLS_A_CELL)[None, :]
        then = np.sqrt(weight @ left)
        now = math.sqrt(float(weight @ variance))
        return tuple(
            NextCell(
                self.cells[i], float(math.sqrt(variance[i]) * carry[i]), float(math.sqrt(left[i, i]) * carry[i]),
                now, float(then[i]),
            )
            for i in np.argsort(then)
        )  # fmt: skip


def _observations(strikes: Sequence[MeasuredStrike]) -> Floats:
    """Channels (n, 5) with not-a-number where nothing was measured."""
    rows = np.array(
        [[s.carry, s.ball_speed, s.launch_deg, s.spin_rpm, s.club_speed] for s in strikes], dtype=float
    ).reshape(-1, len(CHANNELS))
    logs = [CARRY, BALL_SPEED, SPIN, CLUB_SPEED]
    rows[:, logs] = np.log(rows[:, logs])
    return rows


def _aside_by_cell(strikes: Sequence[MeasuredStrike]) -> dict[Cell, int]:
    found: dict[Cell, int] = {}
    for strike in strikes:
        if not strike.counts:
            found[cell_of(strike)] = found.get(cell_of(strike), 0) + 1
    return found


def _priors(
    player: Player, start: CarryModel, swings: Sequence[Swing]
) -> tuple[Floats, Floats, list[tuple[str, str, str]]]:
    """Usual values, their doubt (judgement, wide) and names with unit; shares and speeds as logarithms."""
    lean = player.habit.lean_deg
    lean_doubt = {"measured": 1.0, "typed": 2.0, "assumed": 3.0}[lean.source]
    speed_doubt = 0.02 if player.pitching_wedge_speed is not None and player.pitching_wedge_carry is None else 0.12
    rows = [
        (math.log(start.speed), speed_doubt, ("head speed, full pitching wedge", "m/s", "log")),
        (start.lean_deg, lean_doubt, ("lean of partial swings", "degrees", "")),
        (math.log(LIE_FRICTION["dry"]), 0.12, ("friction of ball on face", "", "log")),
        (RESTITUTION, 0.015, ("restitution", "", "")),
        (SPEED_PER_DEGREE, 0.0012, ("head speed lost a degree of loft", "%", "")),
    ]
    for swing in swings:
        usual = swing in SWINGS
        rows.append((swing.extra_lean_deg, 1.0 if usual else 1.5, (f"extra lean, {swing.name}", "degrees", "")))
    for swing in swings[1:]:
        rows.append(
            (math.log(swing.speed_share), 0.05 if swing in SWINGS else 0.12, (f"head speed, {swing.name}", "%", "log"))
        )
    return np.array([r[0] for r in rows]), np.array([r[1] for r in rows]), [r[2] for r in rows]


def _limits(usual: Floats, doubt: Floats) -> tuple[Floats, Floats]:
    """Five doubts either way: beyond them the strikes are wrong, not the player."""
    return usual - 5.0 * doubt, usual + 5.0 * doubt
