"""Compiled expectation over a player's strikes, and strike windows. Equations: docs/models/strike.md."""

import math

import numpy as np

from oblatus.core._compiled import leaf, quick
from oblatus.core.flight._tables import carry_of
from oblatus.core.geometry import _kernels as geometry
from oblatus.core.strike import _kernels as k
from oblatus.core.strike import _lanes as lanes

CLEAN, HEAVY, THIN, BLADED, DUG, SLID = range(6)
OUT, SHORT, LEFT_IN, LONG = 6, 7, 8, 9
CLASSES = 10

TURF_SCALE = 0.12
SAND_SCALE = 0.22
BINS = 40
LOG_LOW, LOG_HIGH = 0.0, math.log(60.0)

# results of one expectation
QUALITY, LEVEL, LAUNCH, SPIN_SPEED, FIRST_SHARE = range(5)
RESULTS = FIRST_SHARE + CLASSES


@quick
def clean_strike(loft, attack, in_plane, mass, grip, speed):
    """Ball velocity of a centre-face strike without material between: (v_x, v_z, tangential speed)."""
    return k.face_contact(
        speed, in_plane, math.sin(loft), math.cos(loft), math.sin(attack), math.cos(attack), k.CLEAN_T, mass, 0.0, 1.0,
        1.0, k.CONTACT_TURF[k.RESTITUTION], grip,
    )  # fmt: skip


@quick
def turf_class(contact, t, elevation, loft, ratio):
    """Outcome class on turf of a strike whose carry is `ratio` of the clean one."""
    if contact == k.NONE or ratio < 0.5:
        return SLID if contact == k.NONE and t > 0.042 else DUG
    if contact == k.EDGE:
        return BLADED if elevation < 0.6 * loft or ratio > 1.35 else THIN
    if t < 0.0025:
        return THIN
    if t > 0.042:
        return SLID
    return HEAVY if ratio < 0.88 else CLEAN


@quick
def sand_class(contact, elevation, material, ratio):
    """Outcome class in sand of a strike whose carry is `ratio` of the intended one."""
    if contact == k.NONE:
        return DUG
    if contact == k.EDGE and elevation < math.radians(35.0) and material < 0.015:
        return BLADED
    if ratio > 1.3:
        return LONG
    if ratio < 0.45:
        return LEFT_IN
    return SHORT if ratio < 0.75 else OUT


@quick
def _edge_factor(contact, elevation, clean_share):
    """What an edge strike in sand is worth: nothing below 28 degrees of elevation or as long as a clean strike."""
    if contact != k.EDGE:
        return 1.0
    high = min(max((math.degrees(elevation) - 28.0) / 14.0, 0.0), 1.0)
    return high * min(max((1.0 - clean_share) / 0.3, 0.0), 1.0)


@quick
def expect(
    kind,
    rows,
    heights,
    leads,
    loft_in,
    in_plane,
    mass,
    ground,
    contact_law,
    mean,
    root,
    speed,
    release,
    table,
    nodes,
    entries,
    out,
):
    """Expected quality of one head for one player in one scenario, into out (RESULTS).

    mean (attack, lean, entry); root (3, 3) lower Cholesky factor of their covariance; nodes (n, 3) = standard attack, lean, weight;
    entries (m, 2) = standard entry, weight. In sand the intended carry is the level that serves the player best.
    """
    bx, bz, vt = clean_strike(loft_in - mean[1], mean[0], in_plane, mass, ground[k.GRIP], speed)
    clean = max(carry_of(table, bx, bz, vt), 0.1)
    total = len(nodes) * len(entries)
    carries = np.empty(total)
    weights = np.empty(total)
    kinds = np.empty(total, dtype=np.int64)
    elevations = np.empty(total)
    materials = np.empty(total)
    histogram = np.zeros(BINS)
    out[:] = 0.0
    out[LAUNCH], out[SPIN_SPEED] = math.atan2(bz, bx), vt
    step = (LOG_HIGH - LOG_LOW) / (BINS - 1)
    launch_sum = weight_sum = 0.0
    n = 0
    for a in range(len(nodes)):
        attack, lean, middle, first, stride, whole = lanes.habit_node(mean, root, nodes, entries, a)
        for b in range(first, len(entries), stride):
            weight = nodes[a, 2] * entries[b, 1] / whole
            entry = middle + root[2, 2] * entries[b, 0]
            contact, t, z, share, material, bx, bz, sine, loft, stopped, x, vt = lanes.strike(
                kind, rows, heights, leads, loft_in, in_plane, mass, ground, contact_law, entry, lean, attack, speed,
                release,
            )  # fmt: skip
            elevation = math.asin(sine)
            c = carry_of(table, bx, bz, vt)
            if kind == k.TURF:
                ratio = c / clean
                if contact != k.NONE:
                    miss = (ratio - 1.0) / TURF_SCALE
                    out[QUALITY] += weight * math.exp(-0.5 * miss * miss) * min(max((1000.0 * t + 6.0) / 8.0, 0.0), 1.0)
                out[FIRST_SHARE + turf_class(contact, t, elevation, loft, ratio)] += weight
                continue
            carries[n], weights[n], kinds[n], elevations[n], materials[n] = c, weight, contact, elevation, material
            n += 1
            if contact != k.NONE and c >= 1.0:
                launch_sum += weight * math.atan2(bz, bx)
                weight_sum += weight
                u = min(max((math.log(c) - LOG_LOW) / step, 0.0), BINS - 1.000001)
                i = int(u)
                worth = weight * _edge_factor(contact, elevation, c / clean)
                histogram[i] += worth * (1.0 - (u - i))
                histogram[i + 1] += worth * (u - i)
    if kind == k.TURF:
        out[LEVEL] = clean
        return
    best = 0
    for level in range(BINS):
        q = 0.0
        for i in range(BINS):
            d = (i - level) * step / SAND_SCALE
            q += histogram[i] * math.exp(-0.5 * d * d) if abs(d) < 4.0 else 0.0
        if q > out[QUALITY]:
            out[QUALITY], best = q, level
    out[LEVEL] = math.exp(LOG_LOW + best * step)
    if weight_sum > 0.0:
        out[LAUNCH] = launch_sum / weight_sum
    for i in range(n):
        out[FIRST_SHARE + sand_class(kinds[i], elevations[i], materials[i], carries[i] / out[LEVEL])] += weights[i]


@leaf
def _put_in(values, out):
    for i in range(values.shape[0]):
        for j in range(values.shape[1]):
            out[i, j] = values[i, j]


@quick
def build_solids(heads, openings, hands_drop, sole, face, edge, heights, leads, scalars):
    """Production meshes of n (head, opening) pairs; scalars (n, 3) = in-plane loft, in-plane share of the normal, mass."""
    for i in range(heads.shape[0]):
        s, f, e = np.empty((5, 24)), np.empty((5, 15)), np.empty((3, 3))
        geometry.plates(heads[i], openings[i], hands_drop, 3, 6, 2, 5, s, f, e)
        _put_in(s, sole[i])
        _put_in(f, face[i])
        _put_in(e, edge[i])
        geometry.rest_tables(heads[i], openings[i], hands_drop, heights[i], leads[i])
        n = geometry.normals(heads[i], openings[i], hands_drop)
        scalars[i, 0], scalars[i, 1] = math.atan2(n[2], n[0]), math.sqrt(n[0] * n[0] + n[2] * n[2])
        scalars[i, 2] = heads[i, geometry.MASS]


@quick
def families(solid, kinds, grounds, speeds, releases, slots, sole, face, edge, heights, scalars, pool):
    """Integrate families into their slots of the pool."""
    for i in range(len(solid)):
        s = solid[i]
        lanes.family(
            kinds[i], sole[s], face[s], edge[s], heights[s], scalars[s, 0], scalars[s, 2], grounds[i], speeds[i], releases[i],
            pool[slots[i]],
        )  # fmt: skip


@quick
def expect_many(
    solid,
    kinds,
    grounds,
    contacts,
    speeds,
    releases,
    slots,
    means,
    roots,
    heights,
    leads,
    scalars,
    pool,
    table,
    nodes,
    entries,
    out,
):
    """`expect` for every job; contacts (2, n) are the contact's constants on turf and in sand."""
    for i in range(len(solid)):
        s = solid[i]
        expect(
            kinds[i], pool[slots[i]], heights[s], leads[s], scalars[s, 0], scalars[s, 1], scalars[s, 2], grounds[i],
            contacts[kinds[i]], means[i], roots[i], speeds[i], releases[i], table, nodes, entries, out[i],
        )  # fmt: skip


@quick
def scan(
    kind,
    rows,
    heights,
    leads,
    loft_in,
    in_plane,
    mass,
    ground,
    contact_law,
    lean,
    attack,
    speed,
    release,
    table,
    entries,
    out,
):
    """A strike at every entry: out (n, 7) = contact, t, carry, elevation, material, loft, edge height."""
    for i in range(len(entries)):
        contact, t, z, share, material, bx, bz, sine, loft, stopped, x, vt = lanes.strike(
            kind, rows, heights, leads, loft_in, in_plane, mass, ground, contact_law, entries[i], lean, attack, speed,
            release,
        )  # fmt: skip
        out[i, 0], out[i, 1], out[i, 2] = contact, t, carry_of(table, bx, bz, vt)
        out[i, 3], out[i, 4], out[i, 5], out[i, 6] = math.asin(sine), material, loft, z


@quick
def turf_window(entries, strikes, clean):
    """First and last entry of the longest run that still plays (indices), or (-1, -1)."""
    best_a, best_b, start = -1, -2, -1
    for i in range(len(entries) + 1):
        good = False
        if i < len(entries):
            ratio = strikes[i, 2] / clean
            good = strikes[i, 0] != k.NONE and strikes[i, 1] > -0.001 and 0.85 <= ratio <= 1.12
        if good and start < 0:
            start = i
        if not good and start >= 0:
            if i - 1 - start > best_b - best_a:
                best_a, best_b = start, i - 1
            start = -1
    return best_a, best_b


@quick
def sand_window(entries, strikes):
    """Longest run of entries whose carries fit in one level +-25 % (indices and the level), or (-1, -1, 0)."""
    best_a, best_b, level = -1, -2, 0.0
    for a in range(len(entries)):
        low, high = 1e9, 0.0
        for b in range(a, len(entries)):
            c = strikes[b, 2]
            edge = strikes[b, 0] == k.EDGE and strikes[b, 3] < math.radians(38.0)
            if strikes[b, 0] == k.NONE or edge or c < 1.0:
                break
            low, high = min(low, c), max(high, c)
            if high / low > 1.25 / 0.75:
                break
            if b - a > best_b - best_a:
                best_a, best_b, level = a, b, 0.5 * (low + high)
    return best_a, best_b, level
