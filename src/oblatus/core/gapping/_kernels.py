"""Compiled scoring of ladders. What each loft covers stands bin by bin: the landing angle of its shot, 0 for none."""

import numba
import numpy as np

_jit = numba.njit(cache=True, nogil=True)

UNCOVERED, GAPS, STEPS, OVERLAPS, TOP, ALTERNATIVES, COST = range(7)
PARTS = 7
CARRY, LOFT, CLOCK = 0.0, 1.0, 2.0


@_jit
def cheapest(lofts, ladder, owned, limits, costs, plan, best_plan, spent):
    """Least cost of coming by the lofts of a ladder (k,): keep or bend an owned wedge, each once, or buy.

    costs = buy, bend, bend a degree. Every assignment is tried, slot by slot, as long as it is cheaper than the best;
    `best_plan` (k,) takes the owned wedge of every slot, -1 to buy; plan (k,) and spent (k + 1,) are scratch.
    """
    k, m = ladder.shape[0], owned.shape[0]
    best = 1e9
    slot = 0
    spent[0] = 0.0
    plan[0] = -2
    while slot >= 0:
        plan[slot] += 1
        choice = plan[slot]
        if choice >= m:
            slot -= 1
            continue
        more = costs[0]
        if choice >= 0:
            bend = abs(lofts[ladder[slot]] - owned[choice])
            if bend > limits[choice] + 0.01:
                continue
            taken = False
            for earlier in range(slot):
                taken = taken or plan[earlier] == choice
            if taken:
                continue
            more = 0.0 if bend <= 0.01 else costs[1] + costs[2] * bend
        total = spent[slot] + more
        if total >= best:
            continue
        if slot == k - 1:
            best = total
            for n in range(k):
                best_plan[n] = plan[n]
            continue
        slot += 1
        spent[slot] = total
        plan[slot] = -2
    return best


@_jit
def score(
    ladders, lofts, carries, low, high, bin_weights, base_low, base_high, pitching, wish, owned, limits, costs, out
):
    """Parts of the penalty (n, PARTS), not yet weighted, of ladders (n, k): rows of indices into `lofts`, ascending.

    carries (lofts,) full carry; low, high (lofts, bins) least and most landing angle of the shots that cover a bin, 0
    where none does; base_* (bins,) those of the clubs above. pitching = its loft, full carry. wish = wanted gap [m],
    least and most step [deg], wanted top loft, overlap limit [m], school, landing difference of an alternative [deg].
    """
    wanted, step_low, step_high, wanted_top, overlap = wish[0], wish[1], wish[2], wish[3], wish[4]
    school, other = wish[5], wish[6]
    n, k = ladders.shape
    bins = bin_weights.shape[0]
    plan, best_plan, spent = np.full(k, -1), np.full(k, -1), np.zeros(k + 1)
    for i in range(n):
        previous_loft, previous_carry = pitching[0], pitching[1]
        gaps = steps = overlaps = 0.0
        mean_gap = (previous_carry - carries[ladders[i, k - 1]]) / k
        mean_step = (lofts[ladders[i, k - 1]] - previous_loft) / k
        for j in range(k):
            index = ladders[i, j]
            gap = previous_carry - carries[index]
            step = lofts[index] - previous_loft
            miss = (gap - wanted) / wanted
            uneven = (gap - mean_gap) / wanted
            if school == LOFT:
                uneven = (step - mean_step) / 5.0
            gaps += min(0.5 * miss * miss + uneven * uneven, 2.0)
            beyond = max(step_low - step, step - step_high, 0.0)
            steps += min(beyond * (1.0 + 0.5 * beyond), 2.0)
            if gap < overlap:
                overlaps += 1.0
            previous_loft, previous_carry = lofts[index], carries[index]
        uncovered = alone = 0.0
        for b in range(bins):
            least, most = base_low[b], base_high[b]
            for j in range(k):
                index = ladders[i, j]
                if high[index, b] > 0.0:
                    most = max(most, high[index, b])
                    least = low[index, b] if least == 0.0 else min(least, low[index, b])
            if most == 0.0:
                uncovered += bin_weights[b]
            if most - least < other:
                alone += bin_weights[b]
        top = ((previous_loft - wanted_top) / 5.0) ** 2
        if previous_loft > 60.0:
            top += (previous_loft - 60.0) / 4.0
        out[i, UNCOVERED] = uncovered
        out[i, GAPS] = gaps / k
        out[i, STEPS] = steps / k
        out[i, OVERLAPS] = overlaps / k
        out[i, TOP] = top
        out[i, ALTERNATIVES] = alone
        out[i, COST] = cheapest(lofts, ladders[i], owned, limits, costs, plan, best_plan, spent)
