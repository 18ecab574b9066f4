"""Compiled search over sets of wedges: exact, by bounds from prices of the columns.

The strokes of a set are a sum of minima over its clubs: a p-median. A price for every column bounds them from below: the
prices' sum, less what each club stays under them (the Lagrangian of Cornuejols, Fisher and Nemhauser, Management Science 23,
1977), the clubs spaced as a set is and no more of them bought than may be. docs/models/strokes.md, section 4.
"""

import numba
import numpy as np

MOST_CLUBS = 4
BEST, ALL = 0, 1
TOLERANCE = 1e-6
SLACK = 1e-9  # strokes by which a bound has to be above the limit: sums of floats are not exact
OUT = -1.0

ROUNDS = 60  # in which prices are sought, at most
LOOK = 4  # rounds, after which it is looked what they leave out
FEW = 24  # candidates that need no better prices
PATIENCE = 4  # rounds without a higher bound, before steps are halved
LEAST_STEP = 0.02  # of the step that would close the gap
LEAST_GAP = 0.001  # strokes

_jit = numba.njit(cache=True, nogil=True, fastmath={"contract", "nsz", "reassoc"})


@_jit
def _under(cost, prices, first, out):
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
def _serve(cost, fixed, prices, under, most, after, bought, clubs, heads, start, served, strokes):
    """The set that `_most` found: how many of its clubs stay under the price of every column, and its strokes there."""
    columns = fixed.shape[0]
    served[:] = 0.0
    strokes[:] = fixed
    i, c, h = start, clubs, heads
    while c > 0 and i < under.shape[0]:
        if most[c, h, i] == most[c, h, i + 1]:
            i += 1
            continue
        for s in range(columns):
            served[s] += 1.0 if cost[i, s] < prices[s] else 0.0
            strokes[s] = min(strokes[s], cost[i, s])
        c -= 1
        h -= 1 if bought[i] else 0
        i = after[i]


@_jit
def _leave_out(total, limit, under, most, before_most, before, after, bought, clubs, heads, start):
    """Put out every candidate with which no set comes down to the limit; returns how many are left.

    total: the prices' sum; most: as `_most` fills it; before_most: room for the same of earlier candidates.
    """
    _most_before(under, before, bought, clubs - 1, heads, before_most)
    left = 0
    for i in range(start, under.shape[0]):
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
def _find_prices(cost, fixed, under, most, before, after, bought, clubs, heads, start, floor, limit, prices):
    """Prices of the columns by which the bound is high, from those given; candidates that they show to be of no use are
    put out. Returns the bound.

    They rise where no club of the bound's own set stays under them and fall where several do (subgradients), until the
    bound is above the limit, or rises no more, or few candidates are left.
    """
    columns = fixed.shape[0]
    now, served, strokes = prices.copy(), np.empty(columns), np.empty(columns)
    before_most = np.zeros((MOST_CLUBS + 1, MOST_CLUBS + 1, under.shape[0] + 1))
    best, step, idle, target = -np.inf, 1.0, 0, limit
    for round_ in range(ROUNDS):
        total = floor
        for s in range(columns):
            now[s] = min(now[s], fixed[s])
            total += now[s]
        _under(cost, now, start, under)
        _most(under, start, after, bought, clubs, heads, most)
        bound = total - most[clubs, heads, start]
        if bound > best + 1e-6:
            best, idle = bound, 0
            prices[:] = now
            if bound > limit:
                return bound
            if round_ % LOOK == 0 and FEW > _leave_out(
                total, limit, under, most, before_most, before, after, bought, clubs, heads, start
            ):
                return bound
        else:
            idle += 1
            if idle == PATIENCE:
                step, idle = 0.5 * step, 0
                now[:] = prices
                if step < LEAST_STEP:
                    break
                continue
        _serve(cost, fixed, now, under, most, after, bought, clubs, heads, start, served, strokes)
        target = min(target, strokes.sum() + floor)
        length = 0.0
        for s in range(columns):
            if now[s] == fixed[s] and served[s] == 0.0:
                served[s] = 1.0  # as dear as it can be
            length += (1.0 - served[s]) ** 2
        if length == 0.0:
            break
        by = step * max(target - bound, LEAST_GAP) / length
        for s in range(columns):
            now[s] += by * (1.0 - served[s])
    _under(cost, prices, start, under)
    _most(under, start, after, bought, clubs, heads, most)
    _leave_out(prices.sum() + floor, limit, under, most, before_most, before, after, bought, clubs, heads, start)
    return best


@_jit
def search(
    cost,
    alone,
    fixed,
    lofts,
    spacing,
    codes,
    stock,
    bought,
    group,
    groups,
    must,
    musts,
    clubs,
    heads,
    first_loft,
    limit,
    keep,
    prices,
    scores,
    picks,
    counts,
):
    """Every set of `clubs` candidates with at most `heads` bought whose strokes are at most `limit[0]`.

    cost (n, columns) weighted strokes, candidates by rising loft; fixed (columns) those of the clubs above;
    alone (n) strokes of the short shots when one club plays them all, zeros otherwise; codes (n), stock (n) physical
    heads and how many there are; group (n) loft of a typed ladder, one club for each of `groups` (0 when open);
    must (n): every one of `musts` numbers is to be in the set once, -1 for none. keep BEST: the best are kept in scores,
    picks, and limit[0] falls to the worst kept. keep ALL: every one is counted, as many kept as there is room, in no order.
    prices (columns): those to begin from, and then those found. counts = found, sets looked at.
    """
    n, columns = cost.shape
    found = looked = 0
    favourite = n > 0 and alone.min() > 0.0
    lowest_alone = alone.min() if favourite else 0.0
    if clubs == 0:
        if fixed.sum() <= limit[0] and musts == 0 and not favourite:
            if scores.shape[0] > 0:
                scores[0] = fixed.sum()
            counts[0] += 1
        return
    heads = min(heads, clubs)
    after, before = np.empty(n, dtype=np.int64), np.zeros(n, dtype=np.int64)
    for i in range(n):
        j = i + 1
        while j < n and lofts[j] < lofts[i] + spacing - TOLERANCE:
            j += 1
        after[i] = j
    j = 0
    for i in range(n):
        while after[j] <= i:
            j += 1
        before[i] = j
    at = np.full(MOST_CLUBS, -1, dtype=np.int64)
    now, least = np.empty((MOST_CLUBS, columns)), np.full(MOST_CLUBS + 1, np.inf)
    now[0] = fixed
    level, priced = np.zeros(MOST_CLUBS), np.zeros(MOST_CLUBS)
    level[0] = fixed.sum()
    spent, held = np.zeros(MOST_CLUBS, dtype=np.int64), np.zeros(MOST_CLUBS, dtype=np.int64)
    under = np.zeros((MOST_CLUBS, n))
    most = np.zeros((MOST_CLUBS, MOST_CLUBS + 1, MOST_CLUBS + 1, n + 1))
    start = 0
    for i in range(n):
        if lofts[i] < first_loft - TOLERANCE:
            start = i + 1
        if lofts[i] < first_loft - TOLERANCE or (groups > 0 and group[i] < 0) or (bought[i] and heads == 0):
            under[0, i] = OUT
    low = np.full((n + 1, columns), np.inf)  # the least of every later candidate, column by column
    for i in range(n - 1, -1, -1):
        for s in range(columns):
            low[i, s] = min(low[i + 1, s], cost[i, s]) if under[0, i] != OUT else low[i + 1, s]
    if clubs == 1:
        prices[:] = fixed
        _under(cost, fixed, start, under[0])
    else:
        bound = _find_prices(
            cost, fixed, under[0], most[0], before, after, bought, clubs, heads, start, lowest_alone, limit[0] + SLACK,
            prices,
        )  # fmt: skip
        if bound > limit[0] + SLACK:
            return
        _most(under[0], start, after, bought, clubs, heads, most[0])
    priced[0] = prices.sum()
    depth = 0
    at[0] = start - 1
    while depth >= 0:
        at[depth] += 1
        i = at[depth]
        if i >= n:
            depth -= 1
            continue
        left = clubs - depth - 1
        if under[depth, i] == OUT or (groups > 0 and group[i] != depth) or (bought[i] and spent[depth] + 1 > heads):
            continue
        best_alone = min(least[depth], alone[i])
        floor = min(best_alone, lowest_alone) if favourite else 0.0
        room = heads - spent[depth] - (1 if bought[i] else 0)
        if left > 0 and priced[depth] - under[depth, i] + floor - most[depth, left, room, after[i]] > limit[0] + SLACK:
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
            looked += 1
            score = level[depth] - under[depth, i] + (best_alone if favourite else 0.0)
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
        whole = below = 0.0
        lowest = floor
        for s in range(columns):
            here = min(now[depth, s], cost[i, s])
            now[depth + 1, s] = here
            whole += here
            below += min(here, prices[s])
            lowest += min(here, low[after[i], s])
        # what later clubs stay under on top of fewer clubs is no less than on top of these
        spare = limit[0] + SLACK - below - floor
        if lowest > limit[0] + SLACK or -most[depth, left, room, after[i]] > spare:
            continue
        rest = most[depth, left - 1, room, after[i]]
        if left == 1:
            for j in range(after[i], n):
                if under[depth, j] == OUT or -under[depth, j] > spare:
                    under[depth + 1, j] = OUT
                    continue
                total = 0.0
                for s in range(columns):
                    total += max(now[depth + 1, s] - cost[j, s], 0.0)
                under[depth + 1, j] = total
        else:
            for j in range(after[i], n):
                if under[depth, j] == OUT or -under[depth, j] - rest > spare:
                    under[depth + 1, j] = OUT
                    continue
                total = 0.0
                for s in range(columns):
                    total += max(min(now[depth + 1, s], prices[s]) - cost[j, s], 0.0)
                under[depth + 1, j] = total
            _most(under[depth + 1], after[i], after, bought, left, room, most[depth + 1])
            if -most[depth + 1, left, room, after[i]] > spare:
                continue
        depth += 1
        level[depth], priced[depth], least[depth] = whole, below, best_alone
        spent[depth], held[depth] = heads - room, held_now
        at[depth] = after[i] - 1
    counts[0] += found
    counts[1] += looked


@_jit
def _insert(score, at, last, depth, scores, picks, found):
    """Keep the list sorted, least first; returns how many it holds."""
    m = scores.shape[0]
    if found == m and score >= scores[m - 1]:
        return found
    place = min(found, m - 1)
    while place > 0 and scores[place - 1] > score:
        scores[place] = scores[place - 1]
        picks[place] = picks[place - 1]
        place -= 1
    scores[place] = score
    for j in range(depth):
        picks[place, j] = at[j]
    picks[place, depth] = last
    return min(found + 1, m)
