"""Compiled search over sets (branch and bound, exact), and what a scenario's shot needs of speed, run and height."""

import math

import numba
import numpy as np

from oblatus.core.flight._kernels import fly, run_out
from oblatus.core.flight._tables import carry_of
from oblatus.core.strike._quality import clean_strike

AIR_DENSITY, AIR_VISCOSITY = 1.17691, 1.83723e-5  # the reference air of the flight model
STIMP, MU_BOUNCE, MU_SLIDE = 3.048, 0.33, 0.35
SPIN_RADIUS = 0.4 * 0.02135

_jit = numba.njit(cache=True, nogil=True)


@_jit
def search(values, shares, short, starts, counts, codes, single, costs, fixed, favourite, scores, picks):
    """The best sets, filled into scores (m, descending) and picks (m, slots); returns (found, leaves scored).

    values (n, k): candidates of all slots one after the other, slot j from starts[j], counts[j] of them;
    fixed (k): what the clubs above the wedges do; short (k): scenarios that a favourite club serves alone;
    codes (n), single (n): physical head and whether only one of it exists; costs (n).
    A branch is dropped when even the best of every later slot in every scenario could not enter the list.
    """
    slots, k = starts.shape[0], values.shape[1]
    later = np.zeros((slots + 1, k))
    later_cost = np.zeros(slots + 1)
    for j in range(slots - 1, -1, -1):
        later[j] = later[j + 1]
        least = costs[starts[j]]
        for i in range(starts[j], starts[j] + counts[j]):
            least = min(least, costs[i])
            for s in range(k):
                later[j, s] = max(later[j, s], values[i, s])
        later_cost[j] = later_cost[j + 1] + least
    best = np.empty((slots + 1, k))
    best[0] = fixed
    spent = np.zeros(slots + 1)
    at = np.full(slots, -1, dtype=np.int64)
    found = leaves = 0
    depth = 0
    while depth >= 0:
        at[depth] += 1
        if at[depth] >= counts[depth]:
            at[depth] = -1
            depth -= 1
            continue
        pick = starts[depth] + at[depth]
        if _clash(at, starts, depth, pick, codes, single):
            continue
        spent[depth + 1] = spent[depth] + costs[pick]
        bound = -spent[depth + 1] - later_cost[depth + 1]
        for s in range(k):
            value = max(best[depth, s], values[pick, s])
            best[depth + 1, s] = value
            bound += shares[s] * max(value, later[depth + 1, s])
        if found == scores.shape[0] and bound <= scores[found - 1]:
            continue
        if depth + 1 < slots:
            depth += 1
            continue
        leaves += 1
        score = bound
        if favourite:
            score = _favourite(values, shares, short, starts, at, best[slots]) - spent[slots]
        found = _insert(score, starts, at, scores, picks, found)
    return found, leaves


@_jit
def _clash(at, starts, depth, pick, codes, single):
    """Whether the only head of its kind would be used twice."""
    if not single[pick]:
        return False
    for j in range(depth):
        if codes[starts[j] + at[j]] == codes[pick]:
            return True
    return False


@_jit
def _favourite(values, shares, short, starts, at, best):
    """One favourite club serves all short shots; the best club serves the full swings."""
    top = 0.0
    for j in range(starts.shape[0]):
        total = 0.0
        for s in range(shares.shape[0]):
            total += shares[s] * (values[starts[j] + at[j], s] if short[s] else best[s])
        top = max(top, total)
    return top


@_jit
def _insert(score, starts, at, scores, picks, found):
    """Keep the list sorted; returns how many it holds."""
    m = scores.shape[0]
    if found == m and score <= scores[m - 1]:
        return found
    place = min(found, m - 1)
    while place > 0 and scores[place - 1] < score:
        scores[place] = scores[place - 1]
        picks[place] = picks[place - 1]
        place -= 1
    scores[place] = score
    for j in range(starts.shape[0]):
        picks[place, j] = starts[j] + at[j]
    return min(found + 1, m)


@_jit
def clean_speeds(lofts, attacks, in_plane, mass, targets, table, out):
    """Head speed [m/s] that carries each target on turf with a clean strike, by halving in the carry law."""
    for i in range(lofts.shape[0]):
        low, high = 2.0, 60.0
        for _ in range(13):
            speed = 0.5 * (low + high)
            bx, bz, vt = clean_strike(lofts[i], attacks[i], in_plane[i], mass[i], 0.285, speed)
            if carry_of(table, bx, bz, vt) < targets[i]:
                low = speed
            else:
                high = speed
        out[i] = 0.5 * (low + high)


@_jit
def needs(launches, spin_speeds, targets, firmness, lip_heights, lip_distances, table, out):
    """What each shot does in the air and after: out (n, 3) = run [m], height over the lip [m], apex [m].

    The ball's speed is the one that carries the target at this launch; spin_speeds are tangential ball speeds for a ball speed of 1.
    """
    path = np.empty((120, 3))
    for i in range(launches.shape[0]):
        c, s = math.cos(launches[i]), math.sin(launches[i])
        low, high = 0.5, 69.0
        for _ in range(13):
            speed = 0.5 * (low + high)
            if carry_of(table, speed * c, speed * s, spin_speeds[i] * speed) < targets[i]:
                low = speed
            else:
                high = speed
        spin = spin_speeds[i] * speed / SPIN_RADIUS
        step = 0.05 if lip_heights[i] > 0.0 else 0.25
        x, _, apex, _, vx, vy, vz, w, status, n = fly(
            speed * c, speed * s, 0.0, 0.0, 0.0, spin, 0.0, 0.0, AIR_DENSITY, AIR_VISCOSITY, step, 0.0, path
        )
        run, _ = run_out(vx, vy, vz, 0.0, 0.0, w, firmness[i], STIMP, MU_BOUNCE, MU_SLIDE)
        over = 9.0
        if lip_heights[i] > 0.0:
            over = -lip_heights[i]
            for j in range(1, n):
                if path[j, 0] >= lip_distances[i]:
                    u = (lip_distances[i] - path[j - 1, 0]) / (path[j, 0] - path[j - 1, 0])
                    over = path[j - 1, 1] + u * (path[j, 1] - path[j - 1, 1]) - lip_heights[i]
                    break
        out[i, 0], out[i, 1], out[i, 2] = run, over, apex
