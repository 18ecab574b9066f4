"""Compiled worth of strikes: balls, scaled to the aim, through the flight's tables to strokes. docs/models/strokes.md, 3."""

import math

import numpy as np

from oblatus.core._compiled import leaf
from oblatus.core.flight._tables import LAUNCHES, RATIOS, SPEED_STEP, SPEEDS, place
from oblatus.core.strokes.situations import PINS

CELL = 0.125  # m of a row of strokes
LEAST_MOVE = 0.3
SHORT_FRINGE, SHORT_ROUGH, SHORT_SAND = range(3)
ROUGH_STOP, FRINGE_RUN = 1.0, 0.6
SCUTTLE = math.radians(2.0)
WINDOW = 2.0  # of the speed noise, beyond the aims that the mean ball asks for
STEP = 1.0  # of the speed noise, between aims
TAPS = 3  # aims on either side over which the noise is summed
STOCK_TAPS, FEEL_TAPS = 3, 6  # of a stock swing's noise, and of twice that by feel, a deviation of the first apart
AIM_LOW, AIM_HIGH = 0.55, 1.56
MOST_AIMS = 160
LEAST_NOISE = 0.002  # of a stock swing: so that its aims find room
FOUR = 4  # pins whose strokes are added together
SHORT_PINS = len(PINS)
SHORT_COLUMNS = -(-SHORT_PINS // FOUR) * FOUR  # of a short shot: its pins, the last one again where four are not full
DISTANCES = 16  # of approaches
ONE, TWO, THREE = np.uint64(1), np.uint64(2), np.uint64(3)

# columns of a ball
WEIGHT, LAUNCH_CELL, LAUNCH_PART, SPIN_CELL, SPIN_PART, SPEED, ON_FACE, MOVED = range(8)
BALL_COLUMNS = 8

# rows of the room that a shot is reckoned in: (ROOMS, MOST_AIMS), used again shot after shot
FACTORS, CARRY_AND_RUN_OF, HEIGHT_OF, EDGES, MEAN, NOISE_TAPS, FEEL_NOISE_TAPS = range(7)
ROOMS = 7


@leaf
def put_ball(out, weight, bx, bz, vt, face, moved):
    """A row of balls: its cells in the tables do not change with the aim, only its speed does."""
    out[WEIGHT], out[ON_FACE] = weight, 1.0 if face else 0.0
    out[MOVED] = 1.0 if moved else 0.0
    if moved and bz <= 0.0:  # driven down: it scuttles off
        speed = math.sqrt(bx * bx + bz * bz)
        bx, bz, vt = speed * math.cos(SCUTTLE), speed * math.sin(SCUTTLE), 0.0
    _, j, m, _, v, w, speed = place(bx, bz, vt)
    out[LAUNCH_CELL], out[LAUNCH_PART], out[SPIN_CELL], out[SPIN_PART], out[SPEED] = j, v, m, w, speed


@leaf
def _cells(ball, table):
    """The rows of a table around a ball's launch and spin, and their weights."""
    j, m = np.uint64(ball[LAUNCH_CELL]), np.uint64(ball[SPIN_CELL])
    v, w = ball[LAUNCH_PART], ball[SPIN_PART]
    rows = table[j, m], table[j, m + ONE], table[j + ONE, m], table[j + ONE, m + ONE]
    return rows, ((1.0 - v) * (1.0 - w), (1.0 - v) * w, v * (1.0 - w), v * w)


@leaf
def _carries_and_runs(ball, carries, runs, first, last, out):
    """Carry (over speed squared) and run of a ball at the speeds first..last, one beside the other."""
    (c00, c01, c10, c11), (w00, w01, w10, w11) = _cells(ball, carries)
    (r00, r01, r10, r11), _ = _cells(ball, runs)
    start = np.uint64(first)
    for i in range(np.uint64(last + 1 - first)):
        at = start + i
        carry = w00 * c00[at] + w01 * c01[at] + w10 * c10[at] + w11 * c11[at]
        run = w00 * r00[at] + w01 * r01[at] + w10 * r10[at] + w11 * r11[at]
        out[TWO * i], out[TWO * i + ONE] = carry, run


@leaf
def _heights(ball, table, first, last, out):
    """Height of a ball over the lip at the speeds first..last."""
    (t00, t01, t10, t11), (w00, w01, w10, w11) = _cells(ball, table)
    start = np.uint64(first)
    for i in range(np.uint64(last + 1 - first)):
        at = start + i
        out[i] = w00 * t00[at] + w01 * t01[at] + w10 * t10[at] + w11 * t11[at]


@leaf
def _four(row, after, part, at):
    """Four neighbours of a row of strokes, and a part of the way to those of the row after it."""
    p0 = np.uint64(at)
    p1, p2, p3 = p0 + ONE, p0 + TWO, p0 + THREE
    a0, a1, a2, a3 = row[p0], row[p1], row[p2], row[p3]
    b0, b1, b2, b3 = after[p0], after[p1], after[p2], after[p3]
    return a0 + part * (b0 - a0), a1 + part * (b1 - a1), a2 + part * (b2 - a2), a3 + part * (b3 - a3)


@leaf
def _add_four(into, four, weight, at):
    """Add to four neighbours: all are read before any is written, so that the compiler may take them together."""
    p0 = np.uint64(at)
    p1, p2, p3 = p0 + ONE, p0 + TWO, p0 + THREE
    c0, c1, c2, c3 = four
    i0, i1, i2, i3 = into[p0], into[p1], into[p2], into[p3]
    i0, i1, i2, i3 = i0 + weight * c0, i1 + weight * c1, i2 + weight * c2, i3 + weight * c3
    into[p0], into[p1], into[p2], into[p3] = i0, i1, i2, i3


@leaf
def _first_and_last_edge(edges, at):
    """The nearest and the farthest edge of four pins."""
    low, high = edges[at], edges[at]
    for p in range(at + 1, at + FOUR):
        low, high = min(low, edges[p]), max(high, edges[p])
    return low, high


def costs_for(columns):
    """`costs_at` for a number of columns, a multiple of four, which the compiler is to know."""

    @leaf
    def costs_at(balls, aims, edges, short, lip, heights, carries, runs, rows_short, rows_green, fail, room, face, every):
        """Strokes without speed noise at every speed factor and pin: over the strikes on the face, and over all.

        The room holds `aims` factors, rising; edges (p); rows_short, rows_green (cells, p) and fail (p) hold strokes with
        this one counted; face, every (a, p).
        """
        factors, both, height_of = room[FACTORS], room[CARRY_AND_RUN_OF], room[HEIGHT_OF]
        for a in range(np.uint64(aims)):
            for p in range(columns):
                face[a, p] = every[a, p] = 0.0
        for p in range(0, columns, FOUR):
            room[EDGES, p], room[EDGES, p + 1] = _first_and_last_edge(edges, p)
        top = rows_short.shape[0] - 1.000001
        # what of a ball that lands short counts towards the green: some of its run, or no more than a stop
        share = FRINGE_RUN if short == SHORT_FRINGE else 0.0
        stop = ROUGH_STOP if short == SHORT_ROUGH else 0.0
        for b in range(np.uint64(balls.shape[0])):
            ball, weight = balls[b], balls[b, WEIGHT]
            # the strikes on the face are added to the others at the end
            into = face if ball[ON_FACE] > 0.0 else every
            speed_here = ball[SPEED] / SPEED_STEP
            moved = ball[MOVED] > 0.0
            first = 0
            if moved:
                first = min(int(speed_here * factors[0]), SPEEDS - 2)
                last = min(int(speed_here * factors[aims - 1]) + 1, SPEEDS - 1)
                _carries_and_runs(ball, carries, runs, first, last, both)
                if lip > 0.0:
                    _heights(ball, heights, first, last, height_of)
            for a in range(np.uint64(aims)):
                x = min(speed_here * factors[a], SPEEDS - 1.000001)
                stays = not moved or x * SPEED_STEP < LEAST_MOVE
                carry = run = 0.0
                if not stays:
                    i = np.uint64(int(x) - first)  # unsigned: no look whether it counts from the end
                    u, at = x - int(x), TWO * i
                    c0, r0, c1, r1 = both[at], both[at + ONE], both[at + TWO], both[at + THREE]
                    carry, run = c0 + u * (c1 - c0), r0 + u * (r1 - r0)
                    carry *= x * x * (SPEED_STEP * SPEED_STEP)
                    if lip > 0.0:
                        stays = height_of[i] + u * (height_of[i + ONE] - height_of[i]) < lip
                if stays:
                    for p in range(columns):
                        into[a, p] += weight * fail[p]
                    continue
                before = min(max(carry + share * run + stop, 0.0) / CELL, top)
                behind = min(max(carry + run, 0.0) / CELL, top)
                near, far = np.uint64(int(before)), np.uint64(int(behind))
                part, rest = before - int(before), behind - int(behind)
                for p in range(0, columns, FOUR):
                    if carry < room[EDGES, p]:
                        _add_four(into[a], _four(rows_short[near], rows_short[near + ONE], part, p), weight, p)
                    elif carry >= room[EDGES, p + 1]:
                        _add_four(into[a], _four(rows_green[far], rows_green[far + ONE], rest, p), weight, p)
                    else:
                        s0, s1, s2, s3 = _four(rows_short[near], rows_short[near + ONE], part, p)
                        g0, g1, g2, g3 = _four(rows_green[far], rows_green[far + ONE], rest, p)
                        s0, s1 = s0 if carry < edges[p] else g0, s1 if carry < edges[p + 1] else g1
                        s2, s3 = s2 if carry < edges[p + 2] else g2, s3 if carry < edges[p + 3] else g3
                        _add_four(into[a], (s0, s1, s2, s3), weight, p)
        for a in range(np.uint64(aims)):
            for p in range(columns):
                every[a, p] += face[a, p]

    return costs_at


short_costs, swing_costs = costs_for(SHORT_COLUMNS), costs_for(DISTANCES)


@leaf
def _mean_ball(balls, out):
    """The mean of the strikes on the face as one ball; False if there is none."""
    whole = speed = launch = spin = 0.0
    for b in range(balls.shape[0]):
        w = balls[b, WEIGHT] * balls[b, ON_FACE] * balls[b, MOVED]
        whole += w
        speed += w * balls[b, SPEED]
        launch += w * (balls[b, LAUNCH_CELL] + balls[b, LAUNCH_PART])
        spin += w * (balls[b, SPIN_CELL] + balls[b, SPIN_PART])
    if whole <= 0.0:
        return False
    speed, launch, spin = speed / whole, launch / whole, spin / whole
    j, m = min(int(launch), LAUNCHES - 2), min(int(spin), RATIOS - 2)
    out[LAUNCH_CELL], out[LAUNCH_PART], out[SPIN_CELL], out[SPIN_PART] = j, launch - j, m, spin - m
    out[SPEED] = speed
    return True


@leaf
def _factor_for(both, slow, speed, wanted, low, high):
    """Logarithm of the speed factor whose total is the wanted distance, by halving; `both` begins at the speed `slow`."""
    for _ in range(7):
        middle = 0.5 * (low + high)
        x = min(speed * math.exp(middle), SPEEDS - 1.000001)
        whole = max(int(x), slow)  # the lowest factor may round to less than the lowest speed
        u, at = x - whole, TWO * np.uint64(whole - slow)
        c0, r0, c1, r1 = both[at], both[at + ONE], both[at + TWO], both[at + THREE]
        total = (c0 + u * (c1 - c0)) * x * x + r0 + u * (r1 - r0)
        if total < wanted:
            low = middle
        else:
            high = middle
    return 0.5 * (low + high)


@leaf
def aimed(
    balls, noise, most, holes, edges, short, lip, heights, carries, runs, rows_short, rows_green, fail, room, face, every,
    noisy, out, aims,
):  # fmt: skip
    """Strokes of a short shot at every pin, aimed: out (pins) and the speed factors taken, aims (pins).

    The aim costs least over the strikes on the face; edge strikes then go where they go. Speed noise is a normal of the
    logarithm of speed, summed over the grid of the aims, so that one row of costs serves every aim and every node.
    """
    step = STEP * noise
    taps = room[NOISE_TAPS, : 2 * TAPS + 1]
    _fill_taps(STEP, TAPS, taps)
    low, high = math.log(AIM_LOW), math.log(max(min(AIM_HIGH, most), AIM_LOW))
    first, last = low, high
    both, factors = room[CARRY_AND_RUN_OF], room[FACTORS]
    if _mean_ball(balls, room[MEAN]):
        speed = room[MEAN, SPEED] / SPEED_STEP
        slow = min(int(speed * AIM_LOW), SPEEDS - 2)
        fast = min(int(speed * AIM_HIGH) + 1, SPEEDS - 1)
        _carries_and_runs(room[MEAN], carries, runs, slow, fast, both)
        first, last = 1e9, -1e9
        for p in range(SHORT_PINS):
            at = _factor_for(both, slow, speed, holes[p], low, high)
            first, last = min(first, at), max(last, at)
        first, last = max(first - WINDOW * noise, low), min(last + WINDOW * noise, high)
    for attempt in range(2):
        count = min(int((last - first) / step) + 2, MOST_AIMS - 2 * TAPS)
        whole = count + 2 * TAPS
        for a in range(whole):
            factors[a] = math.exp(first + (a - TAPS) * step)
        short_costs(
            balls, whole, edges, short, lip, heights, carries, runs, rows_short, rows_green, fail, room, face, every
        )
        _fill_noisy(face, taps, count, SHORT_COLUMNS, noisy)
        inside = True
        for p in range(SHORT_PINS):
            best, place_of = 1e9, 0
            for a in range(count):
                if noisy[a, p] < best:
                    best, place_of = noisy[a, p], a
            if attempt == 0 and (
                (place_of == 0 and first > low + 1e-9) or (place_of == count - 1 and last < high - 1e-9)
            ):
                inside = False
            _take_best(noisy, every, taps, place_of, count, p, first, step, high, out, aims)
        if inside:
            return
        first, last = low, high


@leaf
def _fill_taps(step, reach, out):
    """Weights of a normal at multiples of `step` of its deviation, sum 1."""
    total = 0.0
    for t in range(2 * reach + 1):
        z = step * (t - reach)
        out[t] = math.exp(-0.5 * z * z)
        total += out[t]
    for t in range(2 * reach + 1):
        out[t] /= total


@leaf
def _noisy(rows, taps, a, p):
    """Cost at aim a of the grid with the speed noise averaged in; the aims stand half the taps in."""
    total = 0.0
    for t in range(np.uint64(taps.shape[0])):
        total += taps[t] * rows[np.uint64(a) + t, p]
    return total


@leaf
def _fill_noisy(rows, taps, count, columns, out):
    """`_noisy` of the first `count` aims at every column, into out (aims, columns)."""
    for a in range(np.uint64(count)):
        for p in range(0, columns, FOUR):
            p0 = np.uint64(p)
            p1, p2, p3 = p0 + ONE, p0 + TWO, p0 + THREE
            c0 = c1 = c2 = c3 = 0.0
            for t in range(np.uint64(taps.shape[0])):
                weight, row = taps[t], rows[a + t]
                r0, r1, r2, r3 = row[p0], row[p1], row[p2], row[p3]
                c0, c1, c2, c3 = c0 + weight * r0, c1 + weight * r1, c2 + weight * r2, c3 + weight * r3
            out[a, p0], out[a, p1], out[a, p2], out[a, p3] = c0, c1, c2, c3


@leaf
def _take_best(noisy, every, taps, a, count, p, first, step, high, out, aims):
    """The least by the parabola through the best aim and its neighbours, never above the fastest aim."""
    shift = 0.0
    if 0 < a < count - 1:
        lower, here, upper = noisy[a - 1, p], noisy[a, p], noisy[a + 1, p]
        bend = lower - 2.0 * here + upper
        if bend > 1e-12:
            shift = min(max(0.5 * (lower - upper) / bend, -0.5), 0.5)
    if first + (a + shift) * step > high:
        shift = min((high - first) / step - a, 0.0)
    here = _noisy(every, taps, a, p)
    if shift > 0.0 and a < count - 1:
        here += shift * (_noisy(every, taps, a + 1, p) - here)
    elif shift < 0.0 and a > 0:
        here -= shift * (_noisy(every, taps, a - 1, p) - here)
    out[p] = here
    aims[p] = math.exp(first + (a + shift) * step)


@leaf
def stock(
    balls,
    noise,
    low,
    high,
    edges,
    short,
    carries,
    runs,
    rows_short,
    rows_green,
    fail,
    nothing,
    room,
    face,
    every,
    noisy,
    out,
    feel,
):
    """Strokes of a stock swing at every distance: as it is, and by feel at `low` to `high` of its speed, twice the noise.

    out (p) gets the stock swing's, feel (p) the best of the shortened ones over the strikes on the face.
    """
    step = max(noise, LEAST_NOISE)
    plain, wide = room[NOISE_TAPS, : 2 * STOCK_TAPS + 1], room[FEEL_NOISE_TAPS, : 2 * FEEL_TAPS + 1]
    _fill_taps(1.0, STOCK_TAPS, plain)
    _fill_taps(0.5, FEEL_TAPS, wide)
    start = -int(-math.log(low) / step)
    count = int(math.log(high) / step) - start + 1
    total = count + 2 * FEEL_TAPS
    for a in range(total):
        room[FACTORS, a] = math.exp((start + a - FEEL_TAPS) * step)
    swing_costs(balls, total, edges, short, 0.0, nothing, carries, runs, rows_short, rows_green, fail, room, face, every)
    _fill_noisy(face, wide, count, DISTANCES, noisy)
    for p in range(DISTANCES):
        out[p] = _noisy(every, plain, FEEL_TAPS - start - STOCK_TAPS, p)
        best, place_of = 1e9, 0
        for a in range(count):
            if noisy[a, p] < best:
                best, place_of = noisy[a, p], a
        feel[p] = _noisy(every, wide, place_of, p)
