"""Compiled costs of many strikes at once: a family and a habit give balls, the balls give strokes at every pin."""

import numpy as np

from oblatus.core._compiled import leaf, quick
from oblatus.core.strike import _kernels as k
from oblatus.core.strike import _lanes as lanes
from oblatus.core.strokes import _kernels as strokes

# columns of a situation's numbers
SHORT, LIP, LIP_TABLE, GREEN, NOISE = range(5)
SITUATION_COLUMNS = 5


@leaf
def gather(
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
    nodes,
    entries,
    balls,
):
    """The balls of a habit, from one family; returns how many rows of `balls` are filled.

    mean (attack, lean, entry); root (3, 3) lower Cholesky factor of their covariance; nodes (n, 3) = standard attack,
    lean, weight; entries (m, 2) = standard entry, weight.
    """
    n = 0
    for a in range(len(nodes)):
        attack, lean, middle, first, stride, whole = lanes.habit_node(mean, root, nodes, entries, a)
        for b in range(first, len(entries), stride):
            contact, t, z, share, material, bx, bz, sine, loft, stopped, x, vt = lanes.strike(
                kind, rows, heights, leads, loft_in, in_plane, mass, ground, contact_law,
                middle + root[2, 2] * entries[b, 0], lean, attack, speed, release,
            )  # fmt: skip
            weight = nodes[a, 2] * entries[b, 1] / whole
            strokes.put_ball(balls[n], weight, bx, bz, vt, contact == k.FACE, contact != k.NONE)
            n += 1
    return n


@quick
def short_shots(
    solid,
    kinds,
    grounds,
    speeds,
    releases,
    slots,
    means,
    root,
    situation,
    most,
    heights,
    leads,
    scalars,
    pool,
    contacts,
    nodes,
    entries,
    carries,
    runs,
    lips,
    numbers,
    holes,
    edges,
    rows_short,
    rows_green,
    fail,
    out,
    aims,
):
    """Strokes of every row at its situation's pins by every reading of the strokes table: out, aims (n, readings, pins).

    numbers (situations, SITUATION_COLUMNS), holes, edges (situations, columns), fail (readings, situations, columns),
    rows (readings, situations, cells, columns), the columns as of `in_fours`; runs (greens, ...), lips (tables, ...) are
    the flight's tables.
    """
    balls = np.empty((len(nodes) * len(entries), strokes.BALL_COLUMNS))
    room = np.empty((strokes.ROOMS, strokes.MOST_AIMS))
    shape = strokes.MOST_AIMS, strokes.SHORT_COLUMNS
    face, every, noisy = np.empty(shape), np.empty(shape), np.empty(shape)
    for i in range(len(solid)):
        s, q, kind = solid[i], situation[i], kinds[i]
        n = gather(
            kind, pool[slots[i]], heights[s], leads[s], scalars[s, 0], scalars[s, 1], scalars[s, 2], grounds[i],
            contacts[kind], means[i], root, speeds[i], releases[i], nodes, entries, balls,
        )  # fmt: skip
        for r in range(len(fail)):
            strokes.aimed(
                balls[:n], numbers[q, NOISE], most[i], holes[q], edges[q], int(numbers[q, SHORT]), numbers[q, LIP],
                lips[int(numbers[q, LIP_TABLE])], carries, runs[int(numbers[q, GREEN])], rows_short[r, q],
                rows_green[r, q], fail[r, q], room, face, every, noisy, out[i, r], aims[i, r],
            )  # fmt: skip


@quick
def stock_swings(
    solid,
    kinds,
    grounds,
    speeds,
    releases,
    slots,
    means,
    root,
    green,
    share,
    heights,
    leads,
    scalars,
    pool,
    contacts,
    nodes,
    entries,
    carries,
    runs,
    noise,
    low,
    high,
    edges,
    short,
    rows_short,
    rows_green,
    fail,
    out,
    feel,
):
    """Strokes of stock swings at every distance by every reading of the strokes table (n, readings, distances): out as
    they are, feel shortened by feel.

    `share` is the true speed over the family's, which stands on a grid.
    """
    balls = np.empty((len(nodes) * len(entries), strokes.BALL_COLUMNS))
    room, nothing = np.empty((strokes.ROOMS, strokes.MOST_AIMS)), np.empty((1, 1, 1))
    shape = strokes.MOST_AIMS, strokes.DISTANCES
    face, every, noisy = np.empty(shape), np.empty(shape), np.empty(shape)
    for i in range(len(solid)):
        s, kind = solid[i], kinds[i]
        n = gather(
            kind, pool[slots[i]], heights[s], leads[s], scalars[s, 0], scalars[s, 1], scalars[s, 2], grounds[i],
            contacts[kind], means[i], root, speeds[i], releases[i], nodes, entries, balls,
        )  # fmt: skip
        for b in range(n):
            balls[b, strokes.SPEED] *= share[i]
        for r in range(len(fail)):
            strokes.stock(
                balls[:n], noise, low, high, edges, short, carries, runs[green[i]], rows_short[r], rows_green[r],
                fail[r], nothing, room, face, every, noisy, out[i, r], feel[i, r],
            )  # fmt: skip
