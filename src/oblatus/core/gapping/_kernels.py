"""Compiled scoring of ladders. Each loft covers a set of distance bins, kept as bits of one 64-bit number."""

import numba

_jit = numba.njit(cache=True, nogil=True)

UNCOVERED, GAPS, STEPS, OVERLAPS, TOP, COST = range(6)
PARTS = 6


@_jit
def score(ladders, lofts, carries, masks, bin_weights, base_mask, top_loft, top_carry, wish, change_cost, out):
    """Penalty parts (n, PARTS) of ladders (n, k), each a row of indices into `lofts` in ascending order.

    carries: full carry of each loft; top_*: the pitching wedge; wish = wanted gap [m], least and most step [deg],
    wanted top loft, overlap limit [m], school (0 carry, 1 loft, 2 clock cover).
    """
    wanted, step_low, step_high, wanted_top, overlap, school = wish[0], wish[1], wish[2], wish[3], wish[4], wish[5]
    n, k = ladders.shape
    for i in range(n):
        mask = base_mask
        previous_loft, previous_carry = top_loft, top_carry
        gaps = steps = overlaps = cost = 0.0
        mean_gap = (top_carry - carries[ladders[i, k - 1]]) / k
        mean_step = (lofts[ladders[i, k - 1]] - top_loft) / k
        for j in range(k):
            index = ladders[i, j]
            mask |= masks[index]
            gap = previous_carry - carries[index]
            step = lofts[index] - previous_loft
            miss = (gap - wanted) / wanted
            uneven = (gap - mean_gap) / wanted
            if school == 1.0:
                uneven = (step - mean_step) / 5.0
            gaps += min(0.5 * miss * miss + uneven * uneven, 2.0)
            beyond = max(step_low - step, step - step_high, 0.0)
            steps += min(beyond * beyond / 4.0, 2.0)
            if gap < overlap:
                overlaps += 1.0
            cost += change_cost[index]
            previous_loft, previous_carry = lofts[index], carries[index]
        uncovered = 0.0
        for b in range(bin_weights.shape[0]):
            if (mask >> b) & 1 == 0:
                uncovered += bin_weights[b]
        beyond_top = (previous_loft - wanted_top) / 5.0
        top = beyond_top * beyond_top
        if previous_loft > 60.0:
            top += (previous_loft - 60.0) / 4.0
        out[i, UNCOVERED] = uncovered
        out[i, GAPS] = gaps / k
        out[i, STEPS] = steps / k
        out[i, OVERLAPS] = overlaps / k
        out[i, TOP] = top
        out[i, COST] = cost
