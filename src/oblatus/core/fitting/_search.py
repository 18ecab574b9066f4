"""Compiled search over sets of wedges: exact, by bounding with what each further club could save alone.

The strokes of a set are a sum of minima over its clubs, so a club never saves more in a larger set than in a smaller one:
what further clubs save one by one, spaced as a set is, bounds what they save together. docs/models/strokes.md, section 4.
"""

import numba
import numpy as np

MOST_CLUBS = 4
BEST, ALL = 0, 1
TOLERANCE = 1e-6
OUT = -1.0

_jit = numba.njit(cache=True, nogil=True, fastmath={"contract", "nsz", "reassoc"})


@_jit
def saved_beside(cost, fixed, start, stop, out):
    """out (n, n): what the second candidate saves beside the first alone, for the first ones from start to stop."""
    now = np.empty(cost.shape[1])
    for i in range(start, stop):
        for s in range(cost.shape[1]):
            now[s] = min(fixed[s], cost[i, s])
        for j in range(cost.shape[0]):
            total = 0.0
            for s in range(cost.shape[1]):
                total += max(now[s] - cost[j, s], 0.0)
            out[i, j] = total


@_jit
def _savings(cost, now, first, before, beside, least, out):
    """What every candidate from `first` on would save alone on top of the present strokes.

    One that did not save `least` on top of fewer clubs (`before`), or beside the last one alone, is out: it saves no more
    now.
    """
    columns = now.shape[0]
    for i in range(first, cost.shape[0]):
        if before[i] < least or beside[i] < least:
            out[i] = OUT
            continue
        total = 0.0
        for s in range(columns):
            total += max(now[s] - cost[i, s], 0.0)
        out[i] = total


@_jit
def _most(savings, first, after, bought, clubs, heads, out):
    """out[c, h, i]: the most that c clubs from candidate i on could save, at most h of them bought, spaced as in a set."""
    n = savings.shape[0]
    for h in range(heads + 1):
        for i in range(first, n + 1):
            out[0, h, i] = 0.0
        for c in range(1, clubs + 1):
            out[c, h, n] = 0.0
    for i in range(n - 1, first - 1, -1):
        value = max(savings[i], 0.0)
        for c in range(1, clubs + 1):
            for h in range(heads + 1):
                best = out[c, h, i + 1]
                if savings[i] != OUT and not (bought[i] and h == 0):
                    best = max(best, value + out[c - 1, h - 1 if bought[i] else h, after[i]])
                out[c, h, i] = best


@_jit
def search(
    cost,
    beside,
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
    scores,
    picks,
    counts,
):
    """Every set of `clubs` candidates with at most `heads` bought whose strokes are at most `limit[0]`.

    cost (n, columns) weighted strokes, candidates by rising loft; beside as `saved_beside` fills it; fixed (columns) those of the clubs above;
    alone (n) strokes of the short shots when one club plays them all, zeros otherwise; codes (n), stock (n) physical
    heads and how many there are; group (n) loft of a typed ladder, one club for each of `groups` (0 when open);
    must (n): every one of `musts` numbers is to be in the set once, -1 for none. keep BEST: the best are kept in scores,
    picks, and limit[0] falls to the worst kept. keep ALL: every one is counted, as many kept as there is room, in no order.
    counts = found, sets looked at.
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
    after = np.empty(n, dtype=np.int64)
    for i in range(n):
        j = i + 1
        while j < n and lofts[j] < lofts[i] + spacing - TOLERANCE:
            j += 1
        after[i] = j
    at = np.full(MOST_CLUBS, -1, dtype=np.int64)
    now, least = np.empty((MOST_CLUBS, columns)), np.full(MOST_CLUBS + 1, np.inf)
    now[0] = fixed
    level = np.zeros(MOST_CLUBS)
    level[0] = fixed.sum()
    spent, held = np.zeros(MOST_CLUBS, dtype=np.int64), np.zeros(MOST_CLUBS, dtype=np.int64)
    savings = np.zeros((MOST_CLUBS, n))
    most = np.zeros((MOST_CLUBS, MOST_CLUBS + 1, MOST_CLUBS + 1, n + 1))
    start = 0
    while start < n and lofts[start] < first_loft - TOLERANCE:
        start += 1
    low = np.full((n + 1, columns), np.inf)  # the least of every later candidate, column by column
    for i in range(n - 1, -1, -1):
        for s in range(columns):
            low[i, s] = min(low[i + 1, s], cost[i, s])
    _savings(cost, now[0], start, savings[0], savings[0], OUT - 1.0, savings[0])
    _most(savings[0], start, after, bought, clubs, heads, most[0])
    depth = 0
    at[0] = start - 1
    while depth >= 0:
        at[depth] += 1
        i = at[depth]
        if i >= n:
            depth -= 1
            continue
        left = clubs - depth - 1
        if savings[depth, i] == OUT or (groups > 0 and group[i] != depth) or (bought[i] and spent[depth] + 1 > heads):
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
        best_alone = min(least[depth], alone[i])
        here = level[depth] - savings[depth, i]
        if left == 0:
            looked += 1
            score = here + (best_alone if favourite else 0.0)
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
        floor = min(best_alone, lowest_alone) if favourite else 0.0
        room = heads - spent[depth] - (1 if bought[i] else 0)
        # what later clubs save on top of fewer clubs is no less than what they save on top of these
        if here + floor - most[depth, left, room, after[i]] > limit[0]:
            continue
        bound = floor
        for s in range(columns):
            now[depth + 1, s] = min(now[depth, s], cost[i, s])
            bound += min(now[depth + 1, s], low[after[i], s])
        if bound > limit[0]:
            continue
        needed = here + floor - limit[0] - most[depth, left - 1, room, after[i]]
        _savings(cost, now[depth + 1], after[i], savings[depth], beside[i], needed - TOLERANCE, savings[depth + 1])
        if left > 1:
            _most(savings[depth + 1], after[i], after, bought, left, room, most[depth + 1])
            if here + floor - most[depth + 1, left, room, after[i]] > limit[0]:
                continue
        depth += 1
        level[depth], least[depth] = here, best_alone
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
