"""Compiled families: every entry slope and pitch of a player-independent grid at once, in lanes.

A pass depends on (path slope, pitch) at touch, not on where the ball is. So a family of passes on a grid of both serves every
player and every entry: a strike is a bilinear blend of the stored rows around the ball. Equations: docs/models/strike.md, section 10.
One flat scratch array keeps the lanes apart by constant offsets, so that the compiler can vectorise the inner loops.
"""

import math

import numpy as np

from oblatus.core import constants
from oblatus.core._compiled import inline, kernel, leaf, quick
from oblatus.core.strike import _kernels as k

SLOPES, PITCHES = 8, 8
LANES = SLOPES * PITCHES
SLOPE_LOW, SLOPE_HIGH = math.radians(0.3), math.radians(18.0)
PITCH_LOW, PITCH_HIGH = math.radians(-12.0), math.radians(20.0)
ROWS = 38
COLUMNS = 5
PAD = 64  # lanes, a multiple of the vector width
ATTACK_CLAMP = math.radians(constants.FLATTEST_ATTACK.value)
CORNER = 0.1
BELOW = np.uint64(SLOPES)  # lanes to the next pitch

Z, VX, VZ, C, S, UX, UZ, V2, FX, FZ, Z1, VX1, VZ1, ME, MS, ALIVE = range(16)

_fast = kernel(error_model="numpy", fastmath={"contract", "arcp", "nsz"})
f4 = np.float32


@_fast
def _turf_lanes(w, px, pz, pnx, pnz, area, bearing, d0, thatch, mu, density, rebound):
    """Add one sole plate's force to every lane."""
    zero, one, soft = f4(0.0), f4(1.0), f4(k.THATCH_SHARE)
    for j in range(PAD):
        c, s = w[C * PAD + j], w[S * PAD + j]
        depth = s * px - c * pz - w[Z1 * PAD + j]
        nx, nz = c * pnx + s * pnz, c * pnz - s * pnx
        un = w[UX * PAD + j] * nx + w[UZ * PAD + j] * nz
        back = min(un, zero)
        un = max(un, zero)
        deep = max(depth, zero)
        d = soft * min(deep, thatch) + max(deep - thatch, zero)
        force = bearing * d * max(one - rebound * back * back, zero) / (d + d0)
        inertia = density * w[V2 * PAD + j] * un * un
        force = area * (force + (inertia if depth > zero else zero))
        w[FX * PAD + j] -= force * (nx - mu * nz)
        w[FZ * PAD + j] -= force * (nz + mu * nx)


@_fast
def _edge_lanes(w, px, pz, width, cohesion, density, cut):
    """Add one strip of the cutting edge; cut (4, PAD) holds the factors of each lane."""
    zero = f4(0.0)
    for j in range(PAD):
        deep = width * max(w[S * PAD + j] * px - w[C * PAD + j] * pz - w[Z1 * PAD + j], zero)
        inertia = density * w[V2 * PAD + j]
        w[FX * PAD + j] -= deep * (cohesion * cut[j] + inertia * cut[2 * PAD + j])
        w[FZ * PAD + j] -= deep * (cohesion * cut[PAD + j] + inertia * cut[3 * PAD + j])


@_fast
def _sand_lanes(w, px, pz, pnx, pnz, area, sign, stiffness, loose, cohesion, density):
    """Add one plate's force in sand to every lane."""
    zero, one, two = f4(0.0), f4(1.0), f4(2.0)
    for j in range(PAD):
        c, s = w[C * PAD + j], w[S * PAD + j]
        depth = s * px - c * pz - w[Z1 * PAD + j]
        nx, nz = c * pnx + s * pnz, c * pnz - s * pnx
        ux, uz = w[UX * PAD + j], w[UZ * PAD + j]
        un = ux * nx + uz * nz
        on = area if (depth > zero) and (un > zero) else zero
        sb, cb = sign * nx, -sign * nz
        cg, sg = ux, -uz
        s2, c2 = two * sb * cb, one - two * sb * sb
        plus_s, plus_c = s2 * cg + c2 * sg, c2 * cg - s2 * sg
        minus_s, minus_c = c2 * sg - s2 * cg, c2 * cg + s2 * sg
        a_z = f4(0.206) + f4(0.169) * c2 + f4(0.212) * plus_s + f4(0.358) * sg + f4(0.055) * minus_s
        a_x = f4(0.253) * cg - f4(0.124) * plus_c + f4(0.007) * minus_c + f4(0.088) * s2
        beyond = depth - loose
        p = stiffness * min(depth, loose) + cohesion
        p += f4(0.3e6) + f4(2e8) * beyond if beyond > zero else zero
        p = min(p, f4(4e6))
        q = f4(k.INERTIA_SAND) * density * w[V2 * PAD + j] * un * un
        w[FX * PAD + j] -= on * (a_x * p + q * nx)
        w[FZ * PAD + j] += on * (a_z * p - q * nz)


@_fast
def _directions(w):
    """Unit velocity, squared speed and cleared forces from the trial state."""
    for j in range(PAD):
        vx, vz = w[VX1 * PAD + j], w[VZ1 * PAD + j]
        v2 = vx * vx + vz * vz
        inverse = f4(1.0) / math.sqrt(v2)
        w[UX * PAD + j], w[UZ * PAD + j], w[V2 * PAD + j] = vx * inverse, vz * inverse, v2
        w[FX * PAD + j], w[FZ * PAD + j] = f4(0.0), f4(0.0)


@quick
def _forces(w, kind, sole, face, edge, ground, cut):
    _directions(w)
    if kind == k.TURF:
        bearing = f4(ground[k.P_U])
        for i in range(sole.shape[1]):
            _turf_lanes(
                w, sole[0, i], sole[1, i], sole[2, i], sole[3, i], sole[4, i], bearing, f4(ground[k.D_0]),
                f4(ground[k.THATCH]), f4(ground[k.MU]), f4(ground[k.DENSITY]), f4(ground[k.REBOUND]),
            )  # fmt: skip
        for i in range(edge.shape[1]):
            _edge_lanes(w, edge[0, i], edge[1, i], edge[2, i], f4(ground[k.COHESION]), f4(ground[k.DENSITY]), cut)
        return
    stiffness, loose = f4(ground[k.STIFFNESS]), f4(ground[k.LOOSE])
    cohesion, density = f4(ground[k.SAND_COHESION]), f4(ground[k.DENSITY])
    for i in range(sole.shape[1]):
        _sand_lanes(
            w, sole[0, i], sole[1, i], sole[2, i], sole[3, i], sole[4, i], f4(1.0), stiffness, loose, cohesion, density
        )
    for i in range(face.shape[1]):
        _sand_lanes(
            w, face[0, i], face[1, i], face[2, i], face[3, i], face[4, i], f4(-1.0), stiffness, loose, cohesion, density
        )


@quick
def _pitch_lanes(w, angle):
    """Cosine and sine of every lane's pitch; only PITCHES of them differ."""
    step = (PITCH_HIGH - PITCH_LOW) / (PITCHES - 1)
    for p in range(PITCHES):
        c, s = f4(math.cos(PITCH_LOW + p * step + angle)), f4(math.sin(PITCH_LOW + p * step + angle))
        for i in range(SLOPES):
            w[C * PAD + p * SLOPES + i], w[S * PAD + p * SLOPES + i] = c, s


@_fast
def _half_step(w, h, kappa, m_x, m_z):
    """Trial state at the middle of the row, from the forces at its start."""
    for j in range(PAD):
        vx, vz = w[VX * PAD + j], w[VZ * PAD + j]
        ac = kappa * math.sqrt(w[V2 * PAD + j])
        w[VX1 * PAD + j] = vx + h * (w[FX * PAD + j] / m_x - ac * vz) / vx
        w[VZ1 * PAD + j] = vz + h * (w[FZ * PAD + j] / m_z + ac * vx) / vx
        w[Z1 * PAD + j] = w[Z * PAD + j] + h * vz / vx


@_fast
def _full_step(w, ds, kappa, m_x, m_z, density, slowest, rest_heights):
    """The row's end from the forces at its middle; a lane that stops keeps height and masses, its speed decays."""
    zero = f4(0.0)
    for j in range(PAD):
        vx, vz = w[VX * PAD + j], w[VZ * PAD + j]
        x1, z1 = max(w[VX1 * PAD + j], slowest), w[VZ1 * PAD + j]
        ac = kappa * math.sqrt(x1 * x1 + z1 * z1)
        nx = vx + ds * (w[FX * PAD + j] / m_x - ac * z1) / x1
        nz = vz + ds * (w[FZ * PAD + j] / m_z + ac * x1) / x1
        going = w[ALIVE * PAD + j] if (nx >= slowest) and (w[VX1 * PAD + j] >= slowest) else zero
        stopped = f4(1.0) - going
        deep = max(-w[Z1 * PAD + j], zero)
        below = max(rest_heights[j] - w[Z1 * PAD + j] - deep, zero)
        w[ALIVE * PAD + j] = going
        w[Z * PAD + j] += going * ds * z1 / x1
        w[ME * PAD + j] += going * ds * density * deep
        w[MS * PAD + j] += going * ds * density * below
        w[VX * PAD + j] = going * nx + stopped * f4(0.7) * vx
        w[VZ * PAD + j] = going * nz + stopped * f4(0.7) * vz


@quick
def family(kind, sole, face, edge, heights, loft_in, mass, ground, speed, release, out):
    """Integrate the whole grid: out (ROWS, LANES, COLUMNS) = z, v_x, v_z, m_edge, m_sole every 5 mm from touch.

    A strike reads all that stands at a few lanes of a few rows: it lies together.
    """
    w = np.empty(16 * PAD, dtype=np.float32)
    cut = np.empty(4 * PAD, dtype=np.float32)
    rest_heights = np.empty(PAD, dtype=np.float32)
    pitch_step = (PITCH_HIGH - PITCH_LOW) / (PITCHES - 1)
    slope_step = (SLOPE_HIGH - SLOPE_LOW) / (SLOPES - 1)
    kappa, turn = (0.75 + 0.25 * release) / k.ARC_RADIUS, release / k.ARC_RADIUS
    m_x, m_z = f4(mass + k.SHAFT_MASS_X), f4(mass + k.SHAFT_MASS_Z[kind])
    ds, slowest = f4(k.ROW), f4(k.STOP_SHARE * speed)
    for j in range(PAD):
        lane = min(j, LANES - 1)
        pitch = PITCH_LOW + (lane // SLOPES) * pitch_step
        sigma = SLOPE_LOW + (lane % SLOPES) * slope_step
        w[Z * PAD + j] = k.at_pitch(heights, pitch)
        w[VX * PAD + j], w[VZ * PAD + j] = speed * math.cos(sigma), -speed * math.sin(sigma)
        w[ME * PAD + j] = w[MS * PAD + j] = f4(0.0)
        w[ALIVE * PAD + j] = f4(1.0)
        w[C * PAD + j], w[S * PAD + j] = math.cos(pitch), math.sin(pitch)
        rake = 90.0 - math.degrees(loft_in - pitch)
        cut[j], cut[PAD + j] = k.at_rake(k.N_CH, rake), k.at_rake(k.N_CV, rake)
        cut[2 * PAD + j], cut[3 * PAD + j] = k.at_rake(k.N_AH, rake), k.at_rake(k.N_AV, rake)
    for r in range(ROWS):
        for j in range(LANES):
            out[r, j, 0], out[r, j, 1], out[r, j, 2] = w[Z * PAD + j], w[VX * PAD + j], w[VZ * PAD + j]
            out[r, j, 3], out[r, j, 4] = w[ME * PAD + j], w[MS * PAD + j]
        _pitch_lanes(w, -turn * r * k.ROW)
        for j in range(PAD):
            w[Z1 * PAD + j], w[VX1 * PAD + j], w[VZ1 * PAD + j] = w[Z * PAD + j], w[VX * PAD + j], w[VZ * PAD + j]
        _forces(w, kind, sole, face, edge, ground, cut)
        _half_step(w, f4(0.5 * k.ROW), f4(kappa), m_x, m_z)
        _pitch_lanes(w, -turn * (r + 0.5) * k.ROW)
        for p in range(PITCHES):
            height = f4(k.at_pitch(heights, PITCH_LOW + p * pitch_step - turn * (r + 0.5) * k.ROW))
            for i in range(SLOPES):
                rest_heights[p * SLOPES + i] = height
        for j in range(LANES, PAD):
            rest_heights[j] = rest_heights[LANES - 1]
        _forces(w, kind, sole, face, edge, ground, cut)
        _full_step(w, ds, f4(kappa), m_x, m_z, f4(ground[k.DENSITY]), slowest, rest_heights)


@leaf
def _weights(sigma, pitch):
    """First lane and the two fractions of a point of the grid; beyond it the edge is held."""
    u = (min(max(sigma, SLOPE_LOW), SLOPE_HIGH) - SLOPE_LOW) * ((SLOPES - 1) / (SLOPE_HIGH - SLOPE_LOW))
    v = (min(max(pitch, PITCH_LOW), PITCH_HIGH) - PITCH_LOW) * ((PITCHES - 1) / (PITCH_HIGH - PITCH_LOW))
    i, j = min(int(u), SLOPES - 2), min(int(v), PITCHES - 2)
    return np.uint64(j * SLOPES + i), u - i, v - j


@leaf
def _blend(rows, r, c, lane, u, v):
    """One column of one row at a point of the grid."""
    row, below = rows[np.uint64(r)], lane + BELOW
    a, b, d, e = row[lane, c], row[lane + k.ONE, c], row[below, c], row[below + k.ONE, c]
    low = a + u * (b - a)
    return low + v * (d + u * (e - d) - low)


@leaf
def _column(row, c, lane, wide):
    """One column of a row; `wide` are the weights of the four lanes around the point."""
    below = lane + BELOW
    return (
        wide[0] * row[lane, c]
        + wide[1] * row[lane + k.ONE, c]
        + wide[2] * row[below, c]
        + wide[3] * row[below + k.ONE, c]
    )


@leaf
def _state(rows, lane, u, v, x_row):
    """z, v_x, v_z, m_edge and m_sole at a fractional row."""
    first = min(int(x_row), ROWS - 2)
    here, next_ = rows[np.uint64(first)], rows[np.uint64(first) + k.ONE]
    wide = ((1.0 - u) * (1.0 - v), u * (1.0 - v), (1.0 - u) * v, u * v)
    part = x_row - first
    z, vx, vz = _column(here, 0, lane, wide), _column(here, 1, lane, wide), _column(here, 2, lane, wide)
    me, ms = _column(here, 3, lane, wide), _column(here, 4, lane, wide)
    z1, vx1, vz1 = _column(next_, 0, lane, wide), _column(next_, 1, lane, wide), _column(next_, 2, lane, wide)
    me1, ms1 = _column(next_, 3, lane, wide), _column(next_, 4, lane, wide)
    return (
        z + part * (z1 - z), vx + part * (vx1 - vx), vz + part * (vz1 - vz), me + part * (me1 - me),
        ms + part * (ms1 - ms),
    )  # fmt: skip


@inline
def strike(kind, rows, heights, leads, loft_in, in_plane, mass, ground, contact, entry, lean, attack, speed, release):
    """One strike from a family: see `k.met`."""
    z_ball = ground[k.BALL_Z]
    x0, p0, down, x_low = k.touch(heights, leads, entry, lean, attack, release)
    s0, c0 = math.sin(loft_in - p0), math.cos(loft_in - p0)
    if k.meets_free(heights, s0, c0, x0, p0, down, z_ball):
        return k.met_free(
            kind, heights, s0, c0, in_plane, mass, ground, contact, x0, p0, down, x_low, loft_in, speed, release
        )
    lane, u, v = _weights(math.asin(down), p0)
    turn = release / k.ARC_RADIUS
    start = max(int(math.ceil((k.FIRST_ROW_X - x0) / k.ROW)), 0)
    end = min(ROWS, int((k.RUN_PAST[kind] - x0) / k.ROW) + 2)
    before = 1.0
    s, c = k.turned(s0, c0, turn * start * k.ROW)
    for r in range(start, end):
        gap = k.gap_to_ball(x0 + r * k.ROW, _blend(rows, r, 0, lane, u, v), s, c, z_ball)
        if gap <= 0.0:
            at = float(r)
            if r > start and before > gap:
                at = r - 1 + before / (before - gap)
            s, c = k.turned(s0, c0, turn * at * k.ROW)
            x = x0 + at * k.ROW
            z, vx, vz, me, ms = _state(rows, lane, u, v, at)
            loft = loft_in - p0 + turn * at * k.ROW
            vv = math.sqrt(vx * vx + vz * vz)
            if vx < k.STOP_SHARE * speed:
                return k.NONE, k.up_the_face(x, z, s, c, z_ball), z, vv / speed, 0.0, 0.0, 0.0, 0.0, loft, True, x, 0.0
            z_s, v_s, me_s, ms_s = z, vv, me, ms
            if kind == k.SAND:
                later = min(at + k.SLUG_RIDE / k.ROW, ROWS - 1.0)
                z_s, sx, sz, me_s, ms_s = _state(rows, lane, u, v, later)
                v_s = math.sqrt(sx * sx + sz * sz)
            return k.met(
                kind, in_plane, mass, ground, contact, x, z, loft, s, c, vz / vv, vx / vv, vv, speed, me, ms, z_s, v_s,
                me_s, ms_s, False,
            )  # fmt: skip
        before = gap
        s, c = k.turned(s, c, turn * k.ROW)
    last = end - 1
    return k.missed(_blend(rows, last, 0, lane, u, v), 0.0, loft_in - p0, True, x0)


@leaf
def habit_node(mean, root, nodes, entries, a):
    """Attack, lean [rad] and middle entry [m] of a node of a habit; first entry, stride and whole weight of its entries."""
    z1, z2 = nodes[a, 0], nodes[a, 1]
    attack = min(mean[0] + root[0, 0] * z1, ATTACK_CLAMP)
    lean = mean[1] + root[1, 0] * z1 + root[1, 1] * z2
    middle = mean[2] + root[2, 0] * z1 + root[2, 1] * z2
    # a corner of the hexagon weighs a twelfth: every second entry serves it, odd and even ones in turn
    stride = 2 if nodes[a, 2] < CORNER else 1
    first = a % 2 if stride == 2 else 0
    whole = 0.0
    for b in range(first, len(entries), stride):
        whole += entries[b, 1]
    return attack, lean, middle, first, stride, whole
