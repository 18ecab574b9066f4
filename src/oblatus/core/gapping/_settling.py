"""Compiled steps of the player's fit: strikes weighed against what is told of their cells, and the unknowns moved."""

import numpy as np

from oblatus.core._compiled import quick

CARRY = 0
WEIGHING_ROUNDS = 3
STEPS = 40
SETTLED = 1e-4  # of a doubt


@quick
def residual_of(data, seen, where, at, own, out):
    """What is measured less what is told, strike by strike (n, channels); 0 where nothing was measured.

    at (cells, channels) is told of every cell, own (cells,) its own share of carry.
    """
    for i in range(len(where)):
        for c in range(data.shape[1]):
            told = at[where[i], c] + (own[where[i]] if c == CARRY else 0.0)
            out[i, c] = data[i, c] - told if seen[i, c] else 0.0


@quick
def weigh(residual, seen, independence, usual_scatter, usual_count, df, weights, scatter):
    """Scatter of every channel and Student weights (n, channels), the one from the other, a few times round."""
    n, channels = residual.shape
    for c in range(channels):
        count = 0
        for i in range(n):
            count += seen[i, c]
            weights[i, c] /= independence[i]
        for _ in range(WEIGHING_ROUNDS):
            squares = 0.0
            for i in range(n):
                squares += weights[i, c] * residual[i, c] * residual[i, c]
            scatter[c] = np.sqrt((usual_count * usual_scatter[c] ** 2 + squares) / (usual_count + count))
            for i in range(n):
                off = residual[i, c] / scatter[c]
                weights[i, c] = (df + 1.0) / (df + off * off) if seen[i, c] else 0.0
        for i in range(n):
            weights[i, c] *= independence[i]


@quick
def normal(x, usual, precision, where, weights, scatter, residual, slopes, told, curvature, pull):
    """Curvature (p + cells, p + cells) and pull of the penalised squares, strikes summed by cell first.

    slopes (cells and the typed carry, channels, p); told = (residual, precision) of the typed carry, 0 without one.
    """
    p, cells, channels = len(usual), len(x) - len(usual), len(scatter)
    total, off = np.zeros(cells), np.zeros(cells)
    curvature[:] = 0.0
    for a in range(len(x)):
        curvature[a, a] = precision[a]
        pull[a] = precision[a] * ((usual[a] if a < p else 0.0) - x[a])
    for c in range(channels):
        total[:] = 0.0
        off[:] = 0.0
        for i in range(len(where)):
            weight = weights[i, c] / (scatter[c] * scatter[c])
            total[where[i]] += weight
            off[where[i]] += weight * residual[i, c]
        for m in range(cells):
            if total[m] == 0.0:
                continue
            for a in range(p):
                j = slopes[m, c, a]
                pull[a] += j * off[m]
                for b in range(p):
                    curvature[a, b] += total[m] * j * slopes[m, c, b]
            if c == CARRY:
                for a in range(p):
                    curvature[a, p + m] += total[m] * slopes[m, c, a]
                    curvature[p + m, a] += total[m] * slopes[m, c, a]
                curvature[p + m, p + m] += total[m]
                pull[p + m] += off[m]
    if told[1] > 0.0:
        for a in range(p):
            j = slopes[cells, CARRY, a]
            pull[a] += j * told[0] * told[1]
            for b in range(p):
                curvature[a, b] += j * slopes[cells, CARRY, b] * told[1]


@quick
def settle(
    x, at, slopes, data, seen, where, independence, usual, precision, low, high, longest, typed, usual_scatter,
    usual_count, df, weights, scatter,
):  # fmt: skip
    """Move the unknowns x, weights and scatter until they agree, as if what is told went straight with the unknowns.

    at (cells and the typed carry, channels) and its slopes are those at the first x; typed = (logarithm, precision) of
    the typed carry. No step is longer than `longest` doubts, and the parameters stay between low and high.
    """
    p, cells = len(usual), len(x) - len(usual)
    begun, linear = x.copy(), at.copy()
    residual = np.empty_like(data)
    curvature, pull = np.empty((len(x), len(x))), np.empty(len(x))
    told = np.zeros(2)
    told[1] = typed[1]
    scale = 1.0 / np.sqrt(precision)
    for _ in range(STEPS):
        for m in range(at.shape[0]):
            for c in range(at.shape[1]):
                moved = 0.0
                for a in range(p):
                    moved += slopes[m, c, a] * (x[a] - begun[a])
                linear[m, c] = at[m, c] + moved
        residual_of(data, seen, where, linear, x[p:], residual)
        weigh(residual, seen, independence, usual_scatter, usual_count, df, weights, scatter)
        if typed[1] > 0.0:
            told[0] = typed[0] - linear[cells, CARRY]
        normal(x, usual, precision, where, weights, scatter, residual, slopes, told, curvature, pull)
        step = np.linalg.solve(curvature, pull)
        far = np.max(np.abs(step) / scale)
        if far > longest:
            step *= longest / far
        most = 0.0
        for a in range(len(x)):
            was = x[a]
            x[a] += step[a]
            if a < p:
                x[a] = min(max(x[a], low[a]), high[a])
            most = max(most, abs(x[a] - was) / scale[a])
        if most < SETTLED:
            return
