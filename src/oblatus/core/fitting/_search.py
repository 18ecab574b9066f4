"""Compiled search over sets of wedges: exact, by bounds from prices of the columns.

The strokes of a set are a sum of minima over its clubs: a p-median. A price for every column bounds them from below: the
prices' sum, less what each club stays under them (the Lagrangian of Cornuejols, Fisher and Nemhauser, Management Science 23,
1977), the clubs spaced as a set is and no more of them bought than may be. docs/models/strokes.md, section 4.
"""

import numpy as np
from numpy.typing import NDArray

from oblatus.core._compiled import kernel
from oblatus.core.constants import MOST_WEDGES

BEST, ALL = 0, 1
SLACK = 1e-9  # strokes by which a bound has to be above the limit: sums of floats are not exact
OUT = -1.0

ROUNDS = 60  # in which prices are sought, at most
LOOK = 4  # rounds, after which it is looked what they leave out
FEW = 24  # candidates that need no better prices
PATIENCE = 4  # rounds without a higher bound, before steps are halved
LEAST_STEP = 0.02  # of the step that would close the gap
LEAST_GAP = 0.001  # strokes
LEAST_RISE = 1e-6

_jit = kernel(fastmath={"contract", "nsz", "reassoc"})


def room_for(candidates: int) -> NDArray[np.float64]:
    """Room for what `_most` fills."""
    return np.zeros((MOST_WEDGES + 1, MOST_WEDGES + 1, candidates + 1))


@_jit
def stays_under(cost, prices, first, out):
    """What every candidate from `first` on stays under the prices; the one that is out stays so."""
    columns = prices.shape[0]
    for i in range(first, cost.shape[0]):
        if out[i] == OUT:
            continue
        total = 0.0
        for s in range(columns):
            total += max(prices[s] - cost[i, s], 0.0)
        out[i] = total


@_jit
def _most(under, first, after, bought, clubs, heads, out):
    """out[c, h, i]: the most that c clubs from candidate i on stay under, at most h of them bought, spaced as in a set."""
    n = under.shape[0]
    for h in range(heads + 1):
        for i in range(first, n + 1):
            out[0, h, i] = 0.0
        for c in range(1, clubs + 1):
            out[c, h, n] = 0.0
    for i in range(n - 1, first - 1, -1):
        for c in range(1, clubs + 1):
            for h in range(heads + 1):
                best = out[c, h, i + 1]
                if under[i] != OUT and not (bought[i] and h == 0):
                    best = max(best, under[i] + out[c - 1, h - 1 if bought[i] else h, after[i]])
                out[c, h, i] = best


@_jit
def _most_before(under, before, bought, clubs, heads, out):
    """out[c, h, i]: as `_most`, of the candidates before i; before[i] are those spaced from it."""
    n = under.shape[0]
    for h in range(heads + 1):
        for i in range(n + 1):
            out[0, h, i] = 0.0
        for c in range(1, clubs + 1):
            out[c, h, 0] = 0.0
    for i in range(n):
        for c in range(1, clubs + 1):
            for h in range(heads + 1):
                best = out[c, h, i]
                if under[i] != OUT and not (bought[i] and h == 0):
                    best = max(best, under[i] + out[c - 1, h - 1 if bought[i] else h, before[i]])
                out[c, h, i + 1] = best


@_jit
def _serve(cost, fixed, prices, under, most, after, bought, clubs, heads, served):
    """The set that `_most` found: how many of its clubs stay under the price of every column; returns its strokes."""
    columns = fixed.shape[0]
    mine = np.empty(MOST_WEDGES, dtype=np.int64)
    i, c, h = 0, clubs, heads
    while c > 0 and i < under.shape[0]:
        if most[c, h, i] == most[c, h, i + 1]:
            i += 1
            continue
        c -= 1
        mine[c] = i
        h -= 1 if bought[i] else 0
        i = after[i]
    total = 0.0
    for s in range(columns):
        least, times = fixed[s], 0.0
        for k in range(c, clubs):
            times += 1.0 if cost[mine[k], s] < prices[s] else 0.0
            least = min(least, cost[mine[k], s])
        served[s] = times
        total += least
    return total


@_jit
def _leave_out(total, limit, under, most, before_most, before, after, bought, clubs, heads):
    """Put out every candidate with which no set comes down to the limit; returns how many are left.

    total: the prices' sum; most: as `_most` fills it; before_most: room for the same of earlier candidates.
    """
    _most_before(under, before, bought, clubs - 1, heads, before_most)
    left = 0
    for i in range(under.shape[0]):
        if under[i] == OUT:
            continue
        room, beside = heads - (1 if bought[i] else 0), 0.0
        for c in range(clubs):
            for h in range(room + 1):
                beside = max(beside, before_most[c, h, before[i]] + most[clubs - 1 - c, room - h, after[i]])
        if total - under[i] - beside > limit:
            under[i] = OUT
        else:
            left += 1
    return left


@_jit
def find_prices(cost, fixed, under, most, before, after, bought, clubs, heads, limit, prices):
    """Prices of the columns (columns,) by which the bound is high, in place of those given; candidates that they show to
    be of no use are put out. Returns the bound.

    cost (n, columns) weighted strokes, candidates by rising loft; fixed (columns) those of the clubs above; under (n): OUT
    for those that are out, else filled with what they stay under the prices; most: `room_for` so many; before (n) how many
    come before, spaced from it, after (n) the first one after.

    Prices rise where no club of the bound's own set stays under them and fall where several do (subgradients), until the
    bound is above the limit, or rises no more, or few candidates are left.
    """
    columns = fixed.shape[0]
    now, served = np.empty(columns), np.empty(columns)
    before_most = np.zeros(most.shape)
    best, step, idle, target = -np.inf, 1.0, 0, limit
    for s in range(columns):
        now[s] = prices[s]
    for turn in range(ROUNDS + 1):
        last = turn == ROUNDS or step < LEAST_STEP  # the best prices once more
        total = 0.0
        for s in range(columns):
            now[s] = min(prices[s] if last else now[s], fixed[s])
            total += now[s]
        stays_under(cost, now, 0, under)
        _most(under, 0, after, bought, clubs, heads, most)
        bound = total - most[clubs, heads, 0]
        risen = bound > best + LEAST_RISE
        if risen or last:
            best, idle = max(best, bound), 0
            for s in range(columns):
                prices[s] = now[s]
            if best > limit:
                return best
        if last or (risen and turn % LOOK == 0):
            left = _leave_out(total, limit, under, most, before_most, before, after, bought, clubs, heads)
            if last or left < FEW:
                return best
        if not risen:
            idle += 1
            if idle == PATIENCE:
                step, idle = 0.5 * step, 0
                for s in range(columns):
                    now[s] = prices[s]
                continue
        target = min(target, _serve(cost, fixed, now, under, most, after, bought, clubs, heads, served))
        length = 0.0
        for s in range(columns):
            if now[s] == fixed[s] and served[s] == 0.0:
                served[s] = 1.0  # as dear as it can be
            length += (1.0 - served[s]) ** 2
        if length == 0.0:
            step = 0.0
            continue
        by = step * max(target - bound, LEAST_GAP) / length
        for s in range(columns):
            now[s] += by * (1.0 - served[s])
    return best


@_jit
def search(
    cost,
    fixed,
    low,
    prices,
    first_under,
    after,
    codes,
    stock,
    bought,
    group,
    must,
    musts,
    clubs,
    heads,
    limit,
    keep,
    scores,
    picks,
    counts,
):
    """Every set of `clubs` candidates with at most `heads` bought whose strokes are at most `limit[0]`.

    cost, fixed, prices, after: see `find_prices`; first_under (n): what every candidate stays under the prices; low
    (n + 1, columns) the least of each candidate and all after it; codes (n), stock (n) physical heads and how many there
    are; group (n) which club of the set it would be, -1 for any; must (n): every one of `musts` numbers is to be in the set
    once, -1 for none. keep BEST: the best are kept in scores, picks, and limit[0] falls to the worst kept. keep ALL: every
    one is counted, as many kept as there is room, in no order. counts (1): how many were found.
    """
    n, columns = cost.shape
    found = 0
    under = np.zeros((MOST_WEDGES, n))
    most = np.zeros((MOST_WEDGES, MOST_WEDGES + 1, MOST_WEDGES + 1, n + 1))
    for i in range(n):
        under[0, i] = first_under[i]
    at = np.empty(MOST_WEDGES, dtype=np.int64)
    now, tops = np.empty((MOST_WEDGES, columns)), np.empty(columns)
    level, priced = np.zeros(MOST_WEDGES), np.zeros(MOST_WEDGES)
    spent, held = np.zeros(MOST_WEDGES, dtype=np.int64), np.zeros(MOST_WEDGES, dtype=np.int64)
    for s in range(columns):
        now[0, s] = fixed[s]
        level[0] += fixed[s]
        priced[0] += prices[s]
    _most(under[0], 0, after, bought, clubs, heads, most[0])
    depth = 0
    at[0] = -1
    while depth >= 0:
        at[depth] += 1
        i = at[depth]
        if i >= n:
            depth -= 1
            continue
        left = clubs - depth - 1
        room = heads - spent[depth] - (1 if bought[i] else 0)
        if under[depth, i] == OUT or (group[i] >= 0 and group[i] != depth) or room < 0:
            continue
        if left > 0 and priced[depth] - under[depth, i] - most[depth, left, room, after[i]] > limit[0] + SLACK:
            continue
        used, twice = 0, False
        for j in range(depth):
            if codes[at[j]] == codes[i]:
                used += 1
            if must[i] >= 0 and must[at[j]] == must[i]:
                twice = True
        held_now = held[depth] + (1 if must[i] >= 0 else 0)
        if used >= stock[i] or twice or musts - held_now > left:
            continue
        if left == 0:
            score = level[depth] - under[depth, i]
            if score <= limit[0]:
                if keep == BEST:
                    found = _insert(score, at, i, depth, scores, picks, found)
                    if found == scores.shape[0]:
                        limit[0] = min(limit[0], scores[found - 1])
                else:
                    if found < scores.shape[0]:
                        scores[found] = score
                        for j in range(depth):
                            picks[found, j] = at[j]
                        picks[found, depth] = i
                    found += 1
            continue
        whole = below = lowest = 0.0
        for s in range(columns):
            here = min(now[depth, s], cost[i, s])
            top = min(here, prices[s])
            now[depth + 1, s] = here
            tops[s] = here if left == 1 else top
            whole += here
            below += top
            lowest += min(here, low[after[i], s])
        # what later clubs stay under on top of fewer clubs is no less than on top of these
        spare = limit[0] + SLACK - below
        if lowest > limit[0] + SLACK or -most[depth, left, room, after[i]] > spare:
            continue
        rest = most[depth, left - 1, room, after[i]]
        for j in range(after[i], n):
            under[depth + 1, j] = OUT if -under[depth, j] - rest > spare else under[depth, j]
        stays_under(cost, tops, after[i], under[depth + 1])
        if left > 1:
            _most(under[depth + 1], after[i], after, bought, left, room, most[depth + 1])
            if -most[depth + 1, left, room, after[i]] > spare:
                continue
        depth += 1
        level[depth], priced[depth] = whole, below
        spent[depth], held[depth] = heads - room, held_now
        at[depth] = after[i] - 1
    counts[0] += found


@_jit
def _insert(score, at, last, depth, scores, picks, found):
    """Keep the list sorted, least first; returns how many it holds."""
    m = scores.shape[0]
    if found == m and score >= scores[m - 1]:
        return found
    place = min(found, m - 1)
    while place > 0 and scores[place - 1] > score:
        scores[place] = scores[place - 1]
        for j in range(depth + 1):
            picks[place, j] = picks[place - 1, j]
        place -= 1
    scores[place] = score
    for j in range(depth):
        picks[place, j] = at[j]
    picks[place, depth] = last
    return min(found + 1, m)
