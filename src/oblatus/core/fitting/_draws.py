"""Compiled scores of many sets in many draws of their costs."""

import numpy as np

from oblatus.core._compiled import kernel

_jit = kernel(fastmath={"contract", "nsz", "reassoc"})


@_jit
def score_drawn(draws, base, slopes, bends, sets, sizes, short, favourite, score, model):
    """`score_sets` of costs that are a parabola along every axis: draws (n, axes); score, model (n, sets).

    base (2, heads, columns) costs and strokes; slopes, bends (2, axes, heads, columns).
    """
    now = np.empty((2, 1, base.shape[1], base.shape[2]))
    flat = now.reshape(2, -1)
    axes, size = draws.shape[1], base.shape[1] * base.shape[2]
    at, first, second = base.reshape(2, -1), slopes.reshape(2, axes, -1), bends.reshape(2, axes, -1)
    for d in range(draws.shape[0]):
        for w in range(2):
            for i in range(size):
                flat[w, i] = at[w, i]
            for a in range(axes):
                x = draws[d, a]
                for i in range(size):
                    flat[w, i] += x * (first[w, a, i] + x * second[w, a, i])
        score_sets(now[0], now[1], sets, sizes, short, favourite, score[d : d + 1], model[d : d + 1])


@_jit
def score_sets(cost, strokes, sets, sizes, short, favourite, score, model):
    """score, model (draws, sets): sums over the columns of the least cost and of the strokes that come with it.

    cost, strokes (draws, heads, columns), the two clubs above the wedges last; sets (n, most) heads of which the first
    `sizes` count; short (columns) short shots, all played with one wedge if `favourite`.
    """
    draws, heads, columns = cost.shape
    above, above_with = np.empty(columns), np.empty(columns)
    best, with_it = np.empty(columns), np.empty(columns)
    for d in range(draws):
        for s in range(columns):
            h = heads - 1 if cost[d, heads - 1, s] < cost[d, heads - 2, s] else heads - 2
            above[s], above_with[s] = cost[d, h, s], strokes[d, h, s]
        for n in range(sets.shape[0]):
            alone = -1
            if favourite and sizes[n] > 0:
                least = np.inf
                for c in range(sizes[n]):
                    total = 0.0
                    for s in range(columns):
                        if short[s]:
                            total += cost[d, sets[n, c], s]
                    if total < least:
                        least, alone = total, sets[n, c]
            for s in range(columns):
                if alone >= 0 and short[s]:
                    best[s], with_it[s] = cost[d, alone, s], strokes[d, alone, s]
                    continue
                best[s], with_it[s] = above[s], above_with[s]
                for c in range(sizes[n]):
                    h = sets[n, c]
                    if cost[d, h, s] < best[s]:
                        best[s], with_it[s] = cost[d, h, s], strokes[d, h, s]
            score[d, n] = best.sum()
            model[d, n] = with_it.sum()
