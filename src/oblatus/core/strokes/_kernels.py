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
SHORT_PINS = len(PINS)
DISTANCES = 16  # of approaches
ONE = np.uint64(1)

# columns of a ball
WEIGHT, LAUNCH_CELL, LAUNCH_PART, SPIN_CELL, SPIN_PART, SPEED, ON_FACE, MOVED = range(8)
BALL_COLUMNS = 8

# rows of the room that a shot is reckoned in: (ROOMS, MOST_AIMS), used again shot after shot
FACTORS, CARRY_OF, RUN_OF, HEIGHT_OF, MEAN, NOISE_TAPS, FEEL_NOISE_TAPS = range(7)
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
def _columns(balls, b, table, first, last, out):
    """A table's values for the launch and spin of a ball at the speeds first..last."""
    j, m = int(balls[b, LAUNCH_CELL]), int(balls[b, SPIN_CELL])
    v, w = balls[b, LAUNCH_PART], balls[b, SPIN_PART]
    c00, c01, c10, c11 = (1.0 - v) * (1.0 - w), (1.0 - v) * w, v * (1.0 - w), v * w
    for i in range(first, last + 1):
        out[i - first] = (
            c00 * table[j, m, i] + c01 * table[j, m + 1, i] + c10 * table[j + 1, m, i] + c11 * table[j + 1, m + 1, i]
        )


def costs_for(pins):
    """`costs_at` for a number of pins, which the compiler is to know: its innermost loop runs over them."""

    @leaf
    def costs_at(balls, aims, edges, short, lip, heights, carries, runs, rows_short, rows_green, fail, room, face, every):
        """Strokes without speed noise at every speed factor and pin: over the strikes on the face, and over all.

        The room holds `aims` factors, rising; edges (p); rows_short, rows_green (cells, p) and fail (p) hold strokes with
        this one counted; face, every (a, p).
        """
        cells, factors = rows_short.shape[0], room[FACTORS]
        carry_of, run_of, height_of = room[CARRY_OF], room[RUN_OF], room[HEIGHT_OF]
        face[:aims, :] = 0.0
        every[:aims, :] = 0.0
        top = cells - 1.000001
        for b in range(balls.shape[0]):
            weight = balls[b, WEIGHT]
            # the strikes on the face are added to the others at the end
            into = face if balls[b, ON_FACE] > 0.0 else every
            speed_here = balls[b, SPEED] / SPEED_STEP
            moved = balls[b, MOVED] > 0.0
            first = 0
            if moved:
                first = min(int(speed_here * factors[0]), SPEEDS - 2)
                last = min(int(speed_here * factors[aims - 1]) + 1, SPEEDS - 1)
                _columns(balls, b, carries, first, last, carry_of)
                _columns(balls, b, runs, first, last, run_of)
                if lip > 0.0:
                    _columns(balls, b, heights, first, last, height_of)
            for a in range(aims):
                x = min(speed_here * factors[a], SPEEDS - 1.000001)
                stays = not moved or x * SPEED_STEP < LEAST_MOVE
                carry = run = 0.0
                if not stays:
                    i = np.uint64(int(x) - first)
                    u, next_ = x - int(x), i + ONE
                    carry = (carry_of[i] + u * (carry_of[next_] - carry_of[i])) * x * x * (SPEED_STEP * SPEED_STEP)
                    run = run_of[i] + u * (run_of[next_] - run_of[i])
                    if lip > 0.0:
                        stays = height_of[i] + u * (height_of[next_] - height_of[i]) < lip
                if stays:
                    for p in range(pins):
                        into[a, p] += weight * fail[p]
                    continue
                before = carry
                if short == SHORT_FRINGE:
                    before = carry + FRINGE_RUN * run
                elif short == SHORT_ROUGH:
                    before = carry + ROUGH_STOP
                at = min(max(before, 0.0) / CELL, top)
                near = np.uint64(at)  # unsigned: no look whether it counts from the end
                part = at - near
                at = min(max(carry + run, 0.0) / CELL, top)
                far = np.uint64(at)
                rest = at - far
                for p in range(pins):
                    c = rows_short[near, p] + part * (rows_short[near + ONE, p] - rows_short[near, p])
                    beyond = rows_green[far, p] + rest * (rows_green[far + ONE, p] - rows_green[far, p])
                    into[a, p] += weight * (c if carry < edges[p] else beyond)
        for a in range(aims):
            for p in range(pins):
                every[a, p] += face[a, p]

    return costs_at


short_costs, swing_costs, one_cost = costs_for(SHORT_PINS), costs_for(DISTANCES), costs_for(1)


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
def _factor_for(carry_of, run_of, speed, wanted, low, high):
    """Logarithm of the speed factor whose total is the wanted distance, by halving."""
    for _ in range(7):
        middle = 0.5 * (low + high)
        x = min(speed * math.exp(middle), SPEEDS - 1.000001)
        i = int(x)
        u = x - i
        total = (carry_of[i] + u * (carry_of[i + 1] - carry_of[i])) * x * x + run_of[i] + u * (run_of[i + 1] - run_of[i])
        if total < wanted:
            low = middle
        else:
            high = middle
    return 0.5 * (low + high)


@leaf
def aimed(
    balls, noise, most, holes, edges, short, lip, heights, carries, runs, rows_short, rows_green, fail, room, face, every,
    out, aims,
):  # fmt: skip
    """Strokes of a short shot at every pin, aimed: out (p) and the speed factors taken, aims (p).

    The aim costs least over the strikes on the face; edge strikes then go where they go. Speed noise is a normal of the
    logarithm of speed, summed over the grid of the aims, so that one row of costs serves every aim and every node.
    """
    pins = holes.shape[0]
    step = STEP * noise
    taps = room[NOISE_TAPS, : 2 * TAPS + 1]
    _fill_taps(STEP, TAPS, taps)
    low, high = math.log(AIM_LOW), math.log(max(min(AIM_HIGH, most), AIM_LOW))
    first, last = low, high
    carry_of, run_of, factors = room[CARRY_OF], room[RUN_OF], room[FACTORS]
    if _mean_ball(balls, room[MEAN]):
        speed = room[MEAN, SPEED] / SPEED_STEP
        slow = min(int(speed * AIM_LOW), SPEEDS - 2)
        fast = min(int(speed * AIM_HIGH) + 1, SPEEDS - 1)
        _columns(room, MEAN, carries, slow, fast, carry_of[slow:])
        _columns(room, MEAN, runs, slow, fast, run_of[slow:])
        first, last = 1e9, -1e9
        for p in range(pins):
            at = _factor_for(carry_of, run_of, speed, holes[p], low, high)
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
        inside = True
        for p in range(pins):
            best, place_of = 1e9, 0
            for a in range(count):
                noisy = _noisy(face, taps, a, p)
                if noisy < best:
                    best, place_of = noisy, a
            if attempt == 0 and (
                (place_of == 0 and first > low + 1e-9) or (place_of == count - 1 and last < high - 1e-9)
            ):
                inside = False
            _take_best(face, every, taps, place_of, count, p, first, step, high, out, aims)
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
    for t in range(taps.shape[0]):
        total += taps[t] * rows[a + t, p]
    return total


@leaf
def _take_best(face, every, taps, a, count, p, first, step, high, out, aims):
    """The least by the parabola through the best aim and its neighbours, never above the fastest aim."""
    shift = 0.0
    if 0 < a < count - 1:
        lower, here, upper = _noisy(face, taps, a - 1, p), _noisy(face, taps, a, p), _noisy(face, taps, a + 1, p)
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
    out,
    feel,
):
    """Strokes of a stock swing at every distance: as it is, and by feel at `low` to `high` of its speed, twice the noise.

    out (p) gets the stock swing's, feel (p) the best of the shortened ones over the strikes on the face.
    """
    pins = edges.shape[0]
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
    for p in range(pins):
        out[p] = _noisy(every, plain, FEEL_TAPS - start - STOCK_TAPS, p)
        best = 1e9
        for a in range(count):
            cost = _noisy(face, wide, a, p)
            if cost < best:
                best = cost
                feel[p] = _noisy(every, wide, a, p)
