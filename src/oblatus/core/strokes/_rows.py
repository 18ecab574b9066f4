"""Compiled strokes to hole out: from a lie at a distance, and rows of them around a hole. docs/models/strokes.md, 1 and 3."""

import math

from oblatus.core._compiled import leaf, quick
from oblatus.core.strokes._kernels import CELL, SHORT_FRINGE, SHORT_SAND

GREEN, FRINGE, FAIRWAY, ROUGH, SAND = range(5)

# numbers of a strokes table: what a stroke of handicap does, and the fringe
GREEN_SLOPE, GREEN_PER_METRE, FAIRWAY_SLOPE, ROUGH_SLOPE, SAND_SLOPE, FRINGE_EXTRA, FRINGE_SLOPE = range(7)

FRINGE_REACH = 6.0  # m before the green's edge that are fringe
FAR_SHORT = 8.0  # m before the edge that are sand, where sand lies before the green
MIDDLE, BESIDE = 4.0 / 6.0, 2.0 / 6.0  # three-point Gauss-Hermite: both sides are the same


@leaf
def _place(x, nodes, at):
    """The node that x follows, sought from `at`: distances that are asked for in turn lie near one another."""
    while at > 0 and x < nodes[at]:
        at -= 1
    while at < nodes.shape[0] - 2 and x >= nodes[at + 1]:
        at += 1
    return at


@leaf
def _line(x, at, nodes, values):
    """Linear after the node `at`; before the first node its value, beyond the last with the slope of the last two."""
    slope = (values[at + 1] - values[at]) / (nodes[at + 1] - nodes[at])
    return values[at] + (max(x, nodes[0]) - nodes[at]) * slope


@leaf
def _places(d, h, putts, marks, numbers, before):
    """A distance d [m] as a putt of a handicap h is long, and the nodes that this and d follow; before: those of the
    distance before.
    """
    longer = d * (1.0 + numbers[GREEN_SLOPE] * h)
    return longer, _place(longer, putts, before[0]), _place(d, marks, before[1])


@leaf
def _strokes(lie, d, h, placed, putts, green, marks, lies, numbers):
    """Strokes from a lie at d [m] for a handicap h: `StrokesTable.strokes`.

    putts, green: nodes [m] and strokes of putts; marks, lies (3, n): nodes [m] and strokes from fairway, rough and sand;
    placed: d among them.
    """
    putt = 0.0
    if lie == GREEN or lie == FRINGE:
        putt = _line(placed[0], placed[1], putts, green) + numbers[GREEN_PER_METRE] * h * d
        if lie == GREEN:
            return putt
    there = lie - FAIRWAY if lie >= FAIRWAY else 0
    from_there = _line(d, placed[2], marks, lies[there]) + numbers[FAIRWAY_SLOPE + there] * h
    if lie == FRINGE:
        return min(putt + numbers[FRINGE_EXTRA] + numbers[FRINGE_SLOPE] * h, from_there)
    return from_there


@leaf
def _around(lie, away, beside, h, on_line, off_line, putts, green, marks, lies, numbers):
    """Strokes from a lie at a distance in line with the hole, and from either side of it."""
    middle = _strokes(lie, away, h, on_line, putts, green, marks, lies, numbers)
    return MIDDLE * middle + BESIDE * _strokes(lie, beside, h, off_line, putts, green, marks, lies, numbers)


@quick
def strokes_from(lie, distances, h, putts, green, marks, lies, numbers, out):
    """Strokes from a lie at every distance (n,) for a handicap h."""
    at = 0, 0
    for i in range(len(distances)):
        placed = _places(distances[i], h, putts, marks, numbers, at)
        at = placed[1], placed[2]
        out[i] = _strokes(lie, distances[i], h, placed, putts, green, marks, lies, numbers)


@quick
def fill_rows(hole, edge, behind, aside, short, own, h, putts, green, marks, lies, numbers, before, beyond, fail):
    """Of p holes the strokes with this one counted at every `CELL` of total distance: before the edge (cells, p) and
    beyond it (cells, p), and of a miss (p,).

    aside: how far off line a ball ends [m]; short: what lies before the edge; own: the lie that is played from.
    """
    for p in range(len(hole)):
        placed = _places(hole[p], h, putts, marks, numbers, (0, 0))
        fail[p] = 1.0 + _strokes(own[p], hole[p], h, placed, putts, green, marks, lies, numbers)
        line, side = (0, 0), (0, 0)
        for i in range(before.shape[0]):
            t = i * CELL
            away, missing = abs(t - hole[p]), edge[p] - t
            beside = math.sqrt(away * away + aside[p] * aside[p])
            on_line = _places(away, h, putts, marks, numbers, line)
            off_line = _places(beside, h, putts, marks, numbers, side)
            line, side = (on_line[1], on_line[2]), (off_line[1], off_line[2])
            far = GREEN if t <= hole[p] + behind[p] else ROUGH
            near = ROUGH
            if short[p] == SHORT_FRINGE and missing <= 0.0:
                near = far
            elif short[p] == SHORT_FRINGE and missing <= FRINGE_REACH:
                near = FRINGE
            elif short[p] == SHORT_SAND:
                near = SAND if missing <= FAR_SHORT else own[p]
            before[i, p] = 1.0 + _around(near, away, beside, h, on_line, off_line, putts, green, marks, lies, numbers)
            beyond[i, p] = 1.0 + _around(far, away, beside, h, on_line, off_line, putts, green, marks, lies, numbers)
