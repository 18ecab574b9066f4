"""The compiled steps of the player's fit against the same sums in numpy and an independent minimiser."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.optimize import minimize

from oblatus.core.gapping import _settling

DF, COUNT = 5.0, 6.0
USUAL_SCATTER = np.array([0.06, 0.04])


class Case:
    """Strikes of three cells in two channels, told by two parameters in a straight line, and a typed carry."""

    def __init__(self, seed: int = 0, strikes: int = 24) -> None:
        rng = np.random.default_rng(seed)
        self.at = rng.normal(0.0, 0.1, (4, 2))
        self.slopes = np.ascontiguousarray(rng.normal(0.0, 1.0, (4, 2, 2)))
        self.where = np.sort(rng.integers(0, 3, strikes))
        true = np.array([0.08, -0.05])
        told = (self.at + self.slopes @ true)[self.where]
        self.data = told + USUAL_SCATTER * rng.standard_t(6, (strikes, 2))
        self.seen = rng.uniform(size=(strikes, 2)) > 0.2
        self.data[~self.seen] = np.nan
        self.usual, self.precision = np.zeros(2), np.array([100.0, 100.0, 2500.0, 2500.0, 2500.0])
        self.independence = np.ones(strikes)
        self.typed = np.array([0.05, 400.0])

    def settled(self, typed: np.ndarray | None = None, low: float = -1.0, high: float = 1.0):
        x, weights, scatter = np.zeros(5), np.ones_like(self.data), USUAL_SCATTER.copy()
        _settling.settle(
            x, self.at, self.slopes, self.data, self.seen, self.where, self.independence, self.usual, self.precision,
            np.full(2, low), np.full(2, high), 1.5, self.typed if typed is None else typed, USUAL_SCATTER, COUNT, DF,
            weights, scatter,
        )  # fmt: skip
        return x, weights, scatter

    def residual(self, x: np.ndarray) -> np.ndarray:
        told = (self.at + self.slopes @ x[:2])[self.where]
        told[:, 0] += x[2:][self.where]
        return np.where(self.seen, self.data - told, 0.0)

    def squares(self, x: np.ndarray, weights: np.ndarray, scatter: np.ndarray) -> float:
        """Half the penalised squares with weights held."""
        typed = self.at[3, 0] + self.slopes[3, 0] @ x[:2]
        return 0.5 * float(
            (weights * (self.residual(x) / scatter) ** 2).sum()
            + (self.precision * x**2).sum() + self.typed[1] * (self.typed[0] - typed) ** 2
        )  # fmt: skip


@pytest.mark.parametrize("seed", range(4))
def test_what_is_settled_is_the_least_of_its_own_weighted_squares(seed):
    case = Case(seed)
    x, weights, scatter = case.settled()
    least = minimize(case.squares, np.zeros(5), args=(weights, scatter), method="BFGS", options={"gtol": 1e-9})
    assert x == pytest.approx(least.x, abs=2e-4)


@pytest.mark.parametrize("seed", range(4))
def test_weights_and_scatter_agree_with_each_other(seed):
    case = Case(seed)
    x, weights, scatter = case.settled()
    residual = case.residual(x)
    squares = (weights * residual**2).sum(axis=0)
    count = case.seen.sum(axis=0)
    assert scatter == pytest.approx(np.sqrt((COUNT * USUAL_SCATTER**2 + squares) / (COUNT + count)), rel=2e-3)
    student = np.where(case.seen, (DF + 1.0) / (DF + (residual / scatter) ** 2), 0.0)
    assert weights == pytest.approx(student, abs=2e-3)


def test_a_mishit_pulls_little():
    calm, wild = Case(7), Case(7)
    wild.data[np.flatnonzero(wild.seen[:, 0])[0], 0] -= 1.5  # a carry topped to a fifth
    (before, _, _), (after, weights, _) = calm.settled(), wild.settled()
    assert np.abs(after[:2] - before[:2]).max() < 0.02
    assert weights[np.flatnonzero(wild.seen[:, 0])[0], 0] < 0.15


def test_curvature_and_pull_are_those_of_the_squares():
    case = Case(3)
    x, weights, scatter = case.settled()
    x = x + np.array([0.02, -0.01, 0.004, 0.0, -0.003])
    residual, told = (
        case.residual(x),
        np.array([case.typed[0] - case.at[3, 0] - case.slopes[3, 0] @ x[:2], case.typed[1]]),
    )
    curvature, pull = np.empty((5, 5)), np.empty(5)
    _settling.normal(
        x, case.usual, case.precision, case.where, weights, scatter, residual, case.slopes, told, curvature, pull
    )
    step = 1e-4
    for a in range(5):
        move = np.eye(5)[a] * step
        up, down = (case.squares(x + sign * move, weights, scatter) for sign in (1.0, -1.0))
        assert pull[a] == pytest.approx((down - up) / (2.0 * step), rel=1e-5, abs=1e-6)
        assert curvature[a, a] == pytest.approx((up + down - 2.0 * case.squares(x, weights, scatter)) / step**2, rel=1e-4)
    assert curvature == pytest.approx(curvature.T)


def test_parameters_stay_within_their_limits():
    x, _, _ = Case(1).settled(low=-0.01, high=0.01)
    assert np.abs(x[:2]).max() == pytest.approx(0.01)


def test_without_strikes_or_a_typed_carry_nothing_moves():
    case = Case(2, strikes=0)
    x, _, scatter = case.settled(typed=np.zeros(2))
    assert np.all(x == 0.0)
    assert scatter == pytest.approx(USUAL_SCATTER)
