"""Compiled scoring of ladders. What each loft covers stands bin by bin: least and most landing angle of its shots."""

import numpy as np

from oblatus.core._compiled import leaf, quick

UNCOVERED, GAPS, STEPS, OVERLAPS, TOP, ALTERNATIVES, COST = range(7)
PARTS = 7
CARRY, LOFT, CLOCK = 0.0, 1.0, 2.0
ROUNDING = 1e-9  # of a penalty, by which a bound has to be above the best: sums of floats are not exact


@quick
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


@leaf
def _covered(bin_weights, least, most, low, high, other):
    """Weights of the bins that no shot covers, and of those where none lands `other` degrees from the rest, when a loft's
    shots (low, high) come to those of the clubs above.
    """
    uncovered = alone = 0.0
    for b in range(np.uint64(bin_weights.shape[0])):
        up, down = max(most[b], high[b]), min(least[b], low[b])
        uncovered += bin_weights[b] if up == 0.0 else 0.0
        alone += bin_weights[b] if up - down < other else 0.0
    return uncovered, alone


@leaf
def _join(least, most, low, high, least_out, most_out):
    for b in range(np.uint64(least.shape[0])):
        least_out[b], most_out[b] = min(least[b], low[b]), max(most[b], high[b])


@leaf
def _spacing(ladder, lofts, carries, pitching, wish, out):
    """Uneven gaps, steps outside the rule, overlaps and a top loft that was not wanted, into out."""
    wanted, step_low, step_high, wanted_top, overlap, school = wish[0], wish[1], wish[2], wish[3], wish[4], wish[5]
    k = ladder.shape[0]
    previous_loft, previous_carry = pitching[0], pitching[1]
    gaps = steps = overlaps = 0.0
    mean_gap = (previous_carry - carries[ladder[k - 1]]) / k
    mean_step = (lofts[ladder[k - 1]] - previous_loft) / k
    for j in range(k):
        index = ladder[j]
        gap = previous_carry - carries[index]
        step = lofts[index] - previous_loft
        miss = (gap - wanted) / wanted
        uneven = (step - mean_step) / 5.0 if school == LOFT else (gap - mean_gap) / wanted
        gaps += min(0.5 * miss * miss + uneven * uneven, 2.0)
        beyond = max(step_low - step, step - step_high, 0.0)
        steps += min(beyond * (1.0 + 0.5 * beyond), 2.0)
        overlaps += 1.0 if gap < overlap else 0.0
        previous_loft, previous_carry = lofts[index], carries[index]
    off = (previous_loft - wanted_top) / 5.0
    out[GAPS], out[STEPS], out[OVERLAPS] = gaps / k, steps / k, overlaps / k
    out[TOP] = off * off + max(previous_loft - 60.0, 0.0) / 4.0


@quick
def score(
    ladders, lofts, carries, low, high, bin_weights, base_low, base_high, pitching, wish, owned, limits, costs, out
):
    """Parts of the penalty (n, PARTS), not yet weighted, of ladders (n, k): rows of indices into `lofts`, ascending.

    carries (lofts,) full carry; low, high (lofts, bins) least and most landing angle of the shots that cover a bin,
    infinite and 0 where none does; base_* (bins,) those of the clubs above. pitching = its loft, full carry. wish =
    wanted gap [m], least and most step [deg], wanted top loft, overlap limit [m], school, landing difference of an
    alternative [deg]. What a ladder has in common with the row before it is joined once.
    """
    n, k = ladders.shape
    plan, best_plan, spent = np.full(k, -1), np.full(k, -1), np.zeros(k + 1)
    least, most = np.empty((k, bin_weights.shape[0])), np.empty((k, bin_weights.shape[0]))
    _join(base_low, base_high, base_low, base_high, least[0], most[0])
    for i in range(n):
        ladder = ladders[i]
        same = i > 0
        for j in range(k - 1):  # the last loft is joined to the others in `_covered`
            same = same and ladder[j] == ladders[i - 1, j]
            if not same:
                _join(least[j], most[j], low[ladder[j]], high[ladder[j]], least[j + 1], most[j + 1])
        last = ladder[k - 1]
        out[i, UNCOVERED], out[i, ALTERNATIVES] = _covered(
            bin_weights, least[k - 1], most[k - 1], low[last], high[last], wish[6]
        )
        _spacing(ladder, lofts, carries, pitching, wish, out[i])
        out[i, COST] = cheapest(lofts, ladder, owned, limits, costs, plan, best_plan, spent)


@leaf
def _of_spacing(parts, weights):
    return (
        weights[GAPS] * parts[GAPS]
        + weights[STEPS] * parts[STEPS]
        + weights[OVERLAPS] * parts[OVERLAPS]
        + weights[TOP] * parts[TOP]
    )


@quick
def best_of(
    ladders, lofts, carries, low, high, bin_weights, base_low, base_high, pitching, wish, owned, limits, costs, weights
):
    """Which of the ladders, scored as by `score`, has the least penalty by the weights (PARTS), none of them negative.

    What a ladder covers takes longest, and is looked at only where the least that it can be is below the best so far:
    spacing, cost, and as little uncovered as if no two of its lofts covered the same. The one of the lowest such bound
    comes first.
    """
    n, k = ladders.shape
    plan, best_plan, spent = np.full(k, -1), np.full(k, -1), np.zeros(k + 1)
    least, most = np.empty((k, bin_weights.shape[0])), np.empty((k, bin_weights.shape[0]))
    joined = np.full(k, -1)
    parts, bounds, brings = np.empty(PARTS), np.empty(n), np.zeros(lofts.shape[0])
    base = 0.0
    for b in range(bin_weights.shape[0]):
        if base_high[b] == 0.0:
            base += bin_weights[b]
            for j in range(lofts.shape[0]):
                brings[j] += bin_weights[b] if high[j, b] > 0.0 else 0.0
    start = 0
    for i in range(n):
        _spacing(ladders[i], lofts, carries, pitching, wish, parts)
        uncovered = base
        for j in range(k):
            uncovered -= brings[ladders[i, j]]
        bounds[i] = _of_spacing(parts, weights) + weights[UNCOVERED] * max(uncovered, 0.0)
        if bounds[i] < bounds[start]:
            start = i
    _join(base_low, base_high, base_low, base_high, least[0], most[0])
    found, best = -1, np.inf
    for turn in range(n + 1):
        i = turn - 1 if turn > 0 else start
        if bounds[i] > best + ROUNDING:
            continue
        ladder = ladders[i]
        cost = weights[COST] * cheapest(lofts, ladder, owned, limits, costs, plan, best_plan, spent)
        if bounds[i] + cost > best + ROUNDING:
            continue
        same = True
        for j in range(k - 1):
            same = same and joined[j] == ladder[j]
            if not same:
                _join(least[j], most[j], low[ladder[j]], high[ladder[j]], least[j + 1], most[j + 1])
                joined[j] = ladder[j]
        last = ladder[k - 1]
        uncovered, alone = _covered(bin_weights, least[k - 1], most[k - 1], low[last], high[last], wish[6])
        _spacing(ladder, lofts, carries, pitching, wish, parts)
        penalty = _of_spacing(parts, weights) + cost + weights[UNCOVERED] * uncovered + weights[ALTERNATIVES] * alone
        if penalty < best or (penalty == best and i < found):
            found, best = i, penalty
    return found
