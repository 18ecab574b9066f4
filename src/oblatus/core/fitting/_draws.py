"""Compiled scores of many sets in many draws of their costs."""

import numba
import numpy as np

_jit = numba.njit(cache=True, nogil=True, fastmath={"contract", "nsz", "reassoc"})


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
