"""Compiled strike: the sole through turf or sand, one pass, contact and ball. Equations: docs/models/strike.md.

Plane of motion: x towards the target, z up, origin at the ball's centre line on the soil. Angles in radians, SI.
Nothing is checked here; the wrappers in the package check first.
"""

import math

import numpy as np

from oblatus.core import constants
from oblatus.core._compiled import inline, leaf, quick
from oblatus.core.flight._kernels import RESTITUTION_SLOPE, clean_contact
from oblatus.core.geometry._kernels import PITCH_LOW, PITCHES
from oblatus.core.strike import parameters as p

BALL_RADIUS = constants.BALL_RADIUS.value
BALL_MASS = constants.BALL_MASS.value
ARC_RADIUS = p.ARC_RADIUS.value
REFERENCE_X = p.REFERENCE_X.value
ROW = 0.005  # m between rows of a pass
FIRST_ROW_X = -0.027  # m, where the march towards the ball begins
RUN_PAST = (p.RUN_PAST_TURF.value, p.RUN_PAST_SAND.value)
STOP_SHARE = p.STOP_SHARE.value
CONTACT_STEPS, CONTACT_WITHIN = 8, 1e-8  # of the search for a contact on the free arc, and how near it comes [m]
LONGEST_SECANT = 0.05  # m
SHAFT_MASS_X = p.SHAFT_MASS_X.value
SHAFT_MASS_Z = (p.SHAFT_MASS_Z_TURF.value, p.SHAFT_MASS_Z_SAND.value)

TURF, SAND = 0, 1
ONE = np.uint64(1)
NONE, FACE, EDGE = 0, 1, 2

# columns of a ground row; turf then sand. REBOUND is 1/s^2, GRIP the friction of ball on a clean face.
P_U, D_0, THATCH, MU, DENSITY, COHESION, BALL_Z, REBOUND, GRIP = range(9)
STIFFNESS, LOOSE, SAND_COHESION, TAN_DELTA, _DENSITY, MOISTURE, _BALL_Z, PLUG, _GRIP = range(9)
GROUND_COLUMNS = 9

# constants of the contact that may be doubted, as an array: an argument, so that a draw of them needs no recompiling
PILE_SHARE, CUSHION, STRIPE_R, COUPLING, SHEAR_DEPTH, SPIN_SHARE, RESTITUTION, GRIP_FACTOR = range(8)
CONTACT_TURF = np.array(
    [
        p.PILE_SHARE_TURF.value,
        p.CUSHION_TURF.value,
        p.STRIPE_RADIUS.value,
        0.0,
        1.0,
        0.0,
        p.RESTITUTION.value,
        1.0,
    ]
)
CONTACT_SAND = np.array(
    [
        p.PILE_SHARE_SAND.value,
        p.CUSHION_SAND.value,
        p.STRIPE_RADIUS.value,
        p.COUPLING_SAND.value,
        p.SHEAR_DEPTH.value,
        p.SPIN_SHARE_SAND.value,
        p.RESTITUTION.value,
        1.0,
    ]
)
USUAL_GRIP = p.GRIP_TURF.value
CONTACTS = np.stack([CONTACT_TURF, CONTACT_SAND])

THATCH_SHARE = p.THATCH_SHARE.value
INERTIA_SAND = p.INERTIA_SAND.value
PILE_HEIGHT = p.PILE_HEIGHT.value
WIDTHS = (p.WIDTH_TURF.value, p.WIDTH_SAND.value)
CUSHION_POWER = p.CUSHION_POWER.value
LEAST_GRIP, GRIP_SCALE = p.LEAST_GRIP.value, p.GRIP_SCALE.value
DIRECT_SCALE = p.DIRECT_SCALE.value
EDGE_TAKES_OVER = p.EDGE_TAKES_OVER.value
SLUG_RIDE = p.SLUG_RIDE.value
STOPPED_DECAY = p.STOPPED_DECAY.value
STRIPE_T = CLEAN_T = p.STRIPE_HEIGHT.value
PLUG_FREE, PLUG_SCALE, PLUG_LEAST = p.PLUG_FREE.value, p.PLUG_SCALE.value, p.PLUG_LEAST.value
FADE_FROM, FADE_OVER, FADE_LEAST = p.FADE_FROM.value, p.FADE_OVER.value, p.FADE_LEAST.value

# cutting factors of a blade by rake [degrees]: Reece 1965, McKyes 1985; soil friction 33, soil on metal 18 degrees
RAKES = np.arange(15.0, 61.0, 5.0)
N_CH = np.array([0.82, 0.91, 1.03, 1.17, 1.33, 1.52, 1.74, 1.99, 2.27, 2.61])
N_CV = np.array([1.26, 1.17, 1.10, 1.05, 1.00, 0.95, 0.88, 0.80, 0.70, 0.56])
N_AH = np.array([0.158, 0.222, 0.297, 0.384, 0.481, 0.589, 0.707, 0.834, 0.974, 1.12])
N_AV = np.array([0.243, 0.284, 0.319, 0.345, 0.362, 0.368, 0.360, 0.337, 0.298, 0.239])


@leaf
def at_pitch(table, pitch):
    """Linear interpolation in a table of every degree, ends held."""
    u = min(max(math.degrees(pitch) - PITCH_LOW, 0.0), PITCHES - 1.000001)
    i = np.uint64(int(u))  # unsigned: no look whether it counts from the end
    return table[i] + (u - int(u)) * (table[i + ONE] - table[i])


@leaf
def at_rake(table, rake):
    """Linear interpolation in a table of rakes [degrees], ends held."""
    u = min(max((rake - 15.0) / 5.0, 0.0), 8.999999)
    i = int(u)
    return table[i] + (u - i) * (table[i + 1] - table[i])


@leaf
def touch(heights, leads, entry, lean, attack, release):
    """Edge position, pitch and sine of the path's slope (positive is down) when the sole first touches, and low point:
    x_0, p_0, sin sigma, x_low.
    """
    kappa = (0.75 + 0.25 * release) / ARC_RADIUS
    x_low = REFERENCE_X + math.sin(-attack) / kappa
    pitch = lean
    x = entry
    for _ in range(2):
        x = entry + at_pitch(leads, pitch)
        pitch = lean - release / ARC_RADIUS * (x - REFERENCE_X)
    return x, pitch, min(max((x_low - x) * kappa, -1.0), 1.0), x_low


@leaf
def turned(s, c, by):
    """Sine and cosine of an angle turned on by a few hundredths of a radian: at 0.1 the next terms are below 1e-14."""
    b = by * by
    ds = by * (1.0 - b / 6.0 * (1.0 - b / 20.0 * (1.0 - b / 42.0)))
    dc = 1.0 - b / 2.0 * (1.0 - b / 12.0 * (1.0 - b / 30.0 * (1.0 - b / 56.0)))
    return s * dc + c * ds, c * dc - s * ds


@quick
def _turf_force(sole, edge, ground, cut, x_c, x_s, z, ux, uz, v):
    """Force on the sole and cutting edge; x_c, x_s cosine and sine of the pitch, cut the four cutting factors."""
    fx = fz = 0.0
    v2 = v * v
    for k in range(sole.shape[1]):
        depth = -(z - x_s * sole[0, k] + x_c * sole[1, k])
        if depth <= 0.0:
            continue
        nx = x_c * sole[2, k] + x_s * sole[3, k]
        nz = -x_s * sole[2, k] + x_c * sole[3, k]
        un = ux * nx + uz * nz
        # behind the lowest motion the soil unloads: its pressure ends where it has given back what it returns
        back = min(un, 0.0)
        share = max(1.0 - ground[REBOUND] * back * back, 0.0)
        un = max(un, 0.0)
        d = THATCH_SHARE * min(depth, ground[THATCH]) + max(depth - ground[THATCH], 0.0)
        bearing = ground[P_U] * d * share / (d + ground[D_0])
        force = sole[4, k] * (bearing + ground[DENSITY] * v2 * un * un)
        fx -= force * (nx - ground[MU] * nz)
        fz -= force * (nz + ground[MU] * nx)
    for j in range(edge.shape[1]):
        depth = -(z - x_s * edge[0, j] + x_c * edge[1, j])
        if depth > 0.0:
            inertia = ground[DENSITY] * v2
            fx -= edge[2, j] * depth * (ground[COHESION] * cut[0] + inertia * cut[2])
            fz -= edge[2, j] * depth * (ground[COHESION] * cut[1] + inertia * cut[3])
    return fx, fz


@quick
def _sand_plates(plates, sign, ground, x_c, x_s, z, ux, uz, v2):
    """Resistive force theory with the inertial term, for the sole (sign 1) or the face (sign -1)."""
    fx = fz = 0.0
    cg, sg = ux, -uz
    for k in range(plates.shape[1]):
        depth = -(z - x_s * plates[0, k] + x_c * plates[1, k])
        if depth <= 0.0:
            continue
        nx = x_c * plates[2, k] + x_s * plates[3, k]
        nz = -x_s * plates[2, k] + x_c * plates[3, k]
        un = ux * nx + uz * nz
        if un <= 0.0:
            continue
        sb, cb = sign * nx, -sign * nz
        s2, c2 = 2.0 * sb * cb, cb * cb - sb * sb
        plus_s, plus_c = s2 * cg + c2 * sg, c2 * cg - s2 * sg
        minus_s, minus_c = -s2 * cg + c2 * sg, c2 * cg + s2 * sg
        a_z = 0.206 + 0.169 * c2 + 0.212 * plus_s + 0.358 * sg + 0.055 * minus_s
        a_x = -0.124 * plus_c + 0.253 * cg + 0.007 * minus_c + 0.088 * s2
        beyond = depth - ground[LOOSE]
        p = ground[STIFFNESS] * min(depth, ground[LOOSE]) + ground[SAND_COHESION]
        if beyond > 0.0:
            p += 0.3e6 + 2e8 * beyond
        p = min(p, 4e6)
        q = INERTIA_SAND * ground[DENSITY] * v2 * un * un
        fx -= plates[4, k] * (a_x * p + q * nx)
        fz += plates[4, k] * (a_z * p - q * nz)
    return fx, fz


@quick
def _force(kind, sole, face, edge, ground, cut, x_c, x_s, z, vx, vz):
    v = math.sqrt(vx * vx + vz * vz)
    ux, uz = vx / v, vz / v
    if kind == TURF:
        return _turf_force(sole, edge, ground, cut, x_c, x_s, z, ux, uz, v)
    fx, fz = _sand_plates(sole, 1.0, ground, x_c, x_s, z, ux, uz, v * v)
    gx, gz = _sand_plates(face, -1.0, ground, x_c, x_s, z, ux, uz, v * v)
    return fx + gx, fz + gz


@quick
def run(kind, sole, face, edge, heights, loft_in, mass, ground, x0, p0, down, speed, release, ds, rows):
    """One pass through the ground: rows (n, 7) = x, z, v_x, v_z, m_edge, m_sole [kg/m], pitch; returns (rows, stopped)."""
    m_x, m_z = mass + SHAFT_MASS_X, mass + SHAFT_MASS_Z[kind]
    kappa = (0.75 + 0.25 * release) / ARC_RADIUS
    turn = release / ARC_RADIUS
    rake = 90.0 - math.degrees(loft_in - p0)
    cut = (at_rake(N_CH, rake), at_rake(N_CV, rake), at_rake(N_AH, rake), at_rake(N_AV, rake))
    end = RUN_PAST[1] if kind == SAND else RUN_PAST[0]
    z, vx, vz = at_pitch(heights, p0), speed * math.sqrt(1.0 - down * down), -speed * down
    m_edge = m_sole = 0.0
    n = 0
    while n < rows.shape[0]:
        x = x0 + n * ds
        pitch = p0 - turn * n * ds
        rows[n, 0], rows[n, 1], rows[n, 2], rows[n, 3] = x, z, vx, vz
        rows[n, 4], rows[n, 5], rows[n, 6] = m_edge, m_sole, pitch
        n += 1
        if x > end:
            break
        fx, fz = _force(kind, sole, face, edge, ground, cut, math.cos(pitch), math.sin(pitch), z, vx, vz)
        ac = kappa * math.sqrt(vx * vx + vz * vz)
        h = 0.5 * ds
        vx1 = vx + h * (fx / m_x - ac * vz) / vx
        vz1 = vz + h * (fz / m_z + ac * vx) / vx
        z1 = z + h * vz / vx
        if vx1 < STOP_SHARE * speed:
            return n, True
        pitch1 = pitch - turn * h
        fx, fz = _force(kind, sole, face, edge, ground, cut, math.cos(pitch1), math.sin(pitch1), z1, vx1, vz1)
        ac = kappa * math.sqrt(vx1 * vx1 + vz1 * vz1)
        deep = max(-z1, 0.0)
        m_edge += ds * ground[DENSITY] * deep
        m_sole += ds * ground[DENSITY] * max(at_pitch(heights, pitch1) - z1 - deep, 0.0)
        vx += ds * (fx / m_x - ac * vz1) / vx1
        vz += ds * (fz / m_z + ac * vx1) / vx1
        z += ds * vz1 / vx1
        if vx < STOP_SHARE * speed:
            return n, True
    return n, False


@leaf
def up_the_face(x, z, s, c, z_ball):
    """Height of the contact up the face of an edge at (x, z); s, c of the loft. Below zero the edge meets the ball."""
    return x * s + (z_ball + BALL_RADIUS - z) * c


@leaf
def gap_to_ball(x, z, s, c, z_ball):
    """The gap that closes first: of the face above the edge, of the edge below it; s, c of the loft."""
    h = z_ball + BALL_RADIUS - z
    if x * s + h * c >= 0.0:
        return h * s - x * c - BALL_RADIUS
    gap = math.sqrt(x * x + h * h) - BALL_RADIUS
    return min(gap, -x) if x > -BALL_RADIUS else gap


@leaf
def meets_free(heights, s, c, x0, p0, down, z_ball):
    """Whether the ball is met on the free arc: the sole is rising at touch, or touches only beyond the ball's front.

    s, c of the loft at touch, `down` the sine of the path's slope there.
    """
    if down < 0.0:
        return True
    return x0 > FIRST_ROW_X and gap_to_ball(x0, at_pitch(heights, p0), s, c, z_ball) <= 0.0


@leaf
def free_contact(heights, s_touch, c_touch, p_touch, x_touch, down_touch, x_low, release, z_ball):
    """Contact on the free arc, before any ground is touched: (x, z, pitch, sine of the path angle down, s, c of the loft).

    Where the edge would have to stand at the height that it has there, by secants.
    """
    kappa = (0.75 + 0.25 * release) / ARC_RADIUS
    turn = release / ARC_RADIUS
    zc = z_ball + BALL_RADIUS
    sagitta = (1.0 - math.sqrt(1.0 - down_touch * down_touch)) / kappa
    if down_touch < 0.0:
        sagitta = -sagitta
    x, z, pitch, down, s, c = x_touch, 0.0, p_touch, 0.0, s_touch, c_touch
    for attempt in range(2):
        edge = attempt == 1
        x = min(x_touch, 0.0)  # anew for the edge: of a face that lies nearly flat the search may have run far off
        before = miss = miss_before = 0.0
        for step in range(CONTACT_STEPS):
            pitch = p_touch - turn * (x - x_touch)
            s, c = turned(s_touch, c_touch, turn * (x - x_touch))
            down = min(max((x_low - x) * kappa, -1.0), 1.0)
            z = at_pitch(heights, pitch) + (1.0 - math.sqrt(1.0 - down * down)) / kappa - sagitta
            if edge:
                drop = min(max((zc - z) / BALL_RADIUS, -1.0), 1.0)
                miss = -BALL_RADIUS * math.sqrt(1.0 - drop * drop) - x
            else:
                miss = ((zc - z) * s - BALL_RADIUS) / c - x
            if abs(miss) < CONTACT_WITHIN:
                break
            on = miss
            if step > 0 and miss != miss_before:
                on = min(max(miss * (x - before) / (miss_before - miss), -LONGEST_SECANT), LONGEST_SECANT)
            before, miss_before = x, miss
            x += on
        # a face that lies beyond flat looks down: its edge has met the ball before
        if not edge and abs(miss) < CONTACT_WITHIN and c > 0.0 and up_the_face(x, z, s, c, z_ball) >= 0.0:
            break
    return x, z, pitch, down, s, c


@leaf
def face_contact(v, in_plane, se, ce, sp, cp, contact_t, mass, material, cushion, stripe, restitution, grip):
    """Ball velocity (x, z) and tangential speed of a contact of face or edge; `cushion` [kg] lies between.

    se, ce are sine and cosine of the direction to the ball's centre, sp, cp of the path. The law is that of the flight's
    impact: what lies between lowers restitution and friction.
    """
    un = v * in_plane * (ce * cp + se * sp)
    ut = math.sqrt(max(v * v - un * un, 1e-12))
    off = (max(contact_t, 0.0) - STRIPE_T) / stripe
    e, friction = restitution - RESTITUTION_SLOPE * un, grip
    if material > 0.0:
        e *= math.exp(-((material / cushion) ** CUSHION_POWER))
        friction = LEAST_GRIP + (grip - LEAST_GRIP) * math.exp(-material / GRIP_SCALE)
    vn, vt = clean_contact(un, ut, mass / (1.0 + off * off), friction, e)
    if contact_t > FADE_FROM:
        fade = min(max(1.0 - (contact_t - FADE_FROM) / FADE_OVER, FADE_LEAST), 1.0)
        vn, vt = vn * fade, vt * fade
    side = math.sqrt(max(1.0 - in_plane * in_plane, 0.0))
    nx, nz = in_plane * ce, in_plane * se
    tx = (v * cp - un * nx) / ut
    ty = -un * side / ut
    tz = (v * sp - un * nz) / ut
    forward, across = vn * nx + vt * tx, vn * side + vt * ty
    return math.sqrt(forward * forward + across * across), vn * nz + vt * tz, vt


@leaf
def ball(
    kind,
    ground,
    contact,
    mass,
    in_plane,
    contact_t,
    se,
    ce,
    sl,
    cl,
    sp,
    cp,
    v,
    z,
    m_edge,
    m_sole,
    z_s,
    v_s,
    m_edge_s,
    m_sole_s,
):
    """Ball velocity (x, z), material between face and ball [kg], tangential speed.

    se, ce, sl, cl, sp, cp are sine and cosine of the direction to the ball's centre, the loft and the path. `contact`
    holds the constants of the contact; z_s, v_s, m_edge_s, m_sole_s are the state 30 mm later (sand).
    """
    z_ball = ground[BALL_Z]
    width = WIDTHS[kind]
    under = z_ball + BALL_RADIUS * (1.0 - sl) - z
    material = width * m_edge
    if m_sole > 0.0:
        material += width * contact[PILE_SHARE] * m_sole / (1.0 + math.exp(-under / PILE_HEIGHT))
    bx, bz, vt = face_contact(
        v,
        in_plane,
        se,
        ce,
        sp,
        cp,
        contact_t,
        mass,
        material,
        contact[CUSHION],
        contact[STRIPE_R],
        contact[RESTITUTION],
        ground[GRIP] * contact[GRIP_FACTOR],
    )
    if kind == TURF:
        return bx, bz, material, vt
    direct = math.exp(-material / DIRECT_SCALE)
    if under < 0.0:
        direct = 1.0 - (1.0 - direct) * math.exp(under / EDGE_TAKES_OVER)
    slug = width * (m_edge_s + contact[PILE_SHARE] * m_sole_s)
    chi = contact[COUPLING] * slug / (slug + BALL_MASS) * math.exp(-max(z_ball - z_s, 0.0) / contact[SHEAR_DEPTH])
    # sand leaves the face at the wall friction angle: momentum along the face's normal, and friction against its slip
    c = in_plane * cl
    s = math.sqrt(max(1.0 - c * c, 1e-12))
    q = min(ground[TAN_DELTA], s / max(c, 1e-9)) / s
    ny, nz = math.sqrt(max(1.0 - in_plane * in_plane, 0.0)), in_plane * sl
    drive = v_s * chi * c
    forward, across = drive * (c + q * (1.0 - c * c)), drive * ny * (1.0 - q * c)
    bx = direct * bx + (1.0 - direct) * math.sqrt(forward * forward + across * across)
    bz = direct * bz + (1.0 - direct) * drive * nz * (1.0 - q * c)
    vt = direct * vt + (1.0 - direct) * contact[SPIN_SHARE] * ground[TAN_DELTA] * drive
    if ground[PLUG] > PLUG_FREE:
        launch = math.atan2(bz, bx)
        fade = math.exp(-(ground[PLUG] - PLUG_FREE) / (PLUG_SCALE * max(math.sin(launch), PLUG_LEAST)))
        bx, bz, vt = bx * fade, bz * fade, vt * fade
    return bx, bz, material, vt


@inline
def met_free(
    kind, heights, s, c, in_plane, mass, ground, contact, x0, p0, down, x_low, loft_in, speed, release,
):  # fmt: skip
    """A strike that meets the ball, or passes over it, before any ground: see `met`; s, c of the loft at touch."""
    z_ball = ground[BALL_Z]
    x, z, pitch, down, s, c = free_contact(heights, s, c, p0, x0, down, x_low, release, z_ball)
    loft = loft_in - pitch
    if z - z_ball > 2.0 * BALL_RADIUS:
        return NONE, up_the_face(x, z, s, c, z_ball), z, 1.0, 0.0, 0.0, 0.0, 0.0, loft, False, x, 0.0
    return met(
        kind, in_plane, mass, ground, contact, x, z, loft, s, c, -down, math.sqrt(1.0 - down * down), speed, speed, 0.0,
        0.0, z, speed, 0.0, 0.0, False,
    )  # fmt: skip


@inline
def met(
    kind, in_plane, mass, ground, contact, x, z, loft, s, c, sp, cp, v, speed, m_edge, m_sole, z_s, v_s, m_edge_s,
    m_sole_s, stopped,
):  # fmt: skip
    """The meeting of a head whose edge stands at (x, z) with the ball: the one ending of every strike.

    s, c are of the loft there, sp, cp of the path; v the head's speed there, `speed` before any ground; the rest as in
    `ball`. Returns (contact, t, z, v/v0, material, ball v_x, v_z, sine of the elevation, loft, stopped, x, v_t).
    """
    z_ball = ground[BALL_Z]
    t = up_the_face(x, z, s, c, z_ball)
    hit, se, ce = elevation_of(t, z, s, c, z_ball)
    bx, bz, material, vt = ball(
        kind, ground, contact, mass, in_plane, t, se, ce, s, c, sp, cp, v, z, m_edge, m_sole, z_s, v_s, m_edge_s, m_sole_s
    )
    # a sine that was turned on may pass 1 by its last digit
    return hit, t, z, v / speed, material, bx, bz, min(se, 1.0), loft, stopped, x, vt


@quick
def _gap_of_row(rows, i, loft_in, z_ball):
    loft = loft_in - rows[i, 6]
    return gap_to_ball(rows[i, 0], rows[i, 1], math.sin(loft), math.cos(loft), z_ball)


@quick
def strike(
    kind,
    sole,
    face,
    edge,
    heights,
    leads,
    loft_in,
    in_plane,
    mass,
    ground,
    contact_law,
    entry,
    lean,
    attack,
    speed,
    release,
    ds,
    rows,
):
    """One strike, and the rows of its pass: see `met`, and how many rows were used."""
    z_ball = ground[BALL_Z]
    x0, p0, down, x_low = touch(heights, leads, entry, lean, attack, release)
    s, c = math.sin(loft_in - p0), math.cos(loft_in - p0)
    if meets_free(heights, s, c, x0, p0, down, z_ball):
        return met_free(
            kind, heights, s, c, in_plane, mass, ground, contact_law, x0, p0, down, x_low, loft_in, speed, release
        ), 0
    n, stopped = run(kind, sole, face, edge, heights, loft_in, mass, ground, x0, p0, down, speed, release, ds, rows)
    before = 1.0
    for i in range(n):
        if rows[i, 0] < FIRST_ROW_X and i + 1 < n:
            continue
        gap = _gap_of_row(rows, i, loft_in, z_ball)
        if gap <= 0.0:
            u = 1.0
            if i > 0:
                before = _gap_of_row(rows, i - 1, loft_in, z_ball)
                u = before / (before - gap) if before > gap else 1.0
            a = max(i - 1, 0)
            x = rows[a, 0] + u * (rows[i, 0] - rows[a, 0])
            z = rows[a, 1] + u * (rows[i, 1] - rows[a, 1])
            vx = rows[a, 2] + u * (rows[i, 2] - rows[a, 2])
            vz = rows[a, 3] + u * (rows[i, 3] - rows[a, 3])
            me = rows[a, 4] + u * (rows[i, 4] - rows[a, 4])
            ms = rows[a, 5] + u * (rows[i, 5] - rows[a, 5])
            loft = loft_in - (rows[a, 6] + u * (rows[i, 6] - rows[a, 6]))
            v = math.sqrt(vx * vx + vz * vz)
            z_s, v_s, me_s, ms_s = _later(rows, n, x + SLUG_RIDE, ds)
            return met(
                kind, in_plane, mass, ground, contact_law, x, z, loft, math.sin(loft), math.cos(loft), vz / v, vx / v, v,
                speed, me, ms, z_s, v_s, me_s, ms_s, stopped,
            ), n  # fmt: skip
    last = max(n - 1, 0)
    v = math.sqrt(rows[last, 2] ** 2 + rows[last, 3] ** 2)
    return missed(rows[last, 1], v / speed, loft_in - rows[last, 6], stopped, rows[last, 0]), n


@inline
def missed(z, share, loft, stopped, x):
    """A strike that does not reach the ball, as `met` tells of one that does."""
    return NONE, 0.0, z, share, 0.0, 0.0, 0.0, 0.0, loft, stopped, x, 0.0


@leaf
def elevation_of(t, z, s, c, z_ball):
    """Face or edge, and sine and cosine of the direction from the contact to the ball's centre; s, c of the loft."""
    if t >= 0.0:
        return FACE, s, c
    up = min(max((z_ball + BALL_RADIUS - z) / BALL_RADIUS, -1.0), 1.0)
    return EDGE, up, math.sqrt(1.0 - up * up)


@quick
def _later(rows, n, x, ds):
    """Edge height, speed and masses at x; beyond the end of a stopped run the speed decays and the masses stay."""
    u = (x - rows[0, 0]) / ds
    i = int(u)
    if i + 1 < n:
        w = u - i
        z = rows[i, 1] + w * (rows[i + 1, 1] - rows[i, 1])
        vx = rows[i, 2] + w * (rows[i + 1, 2] - rows[i, 2])
        vz = rows[i, 3] + w * (rows[i + 1, 3] - rows[i, 3])
        me = rows[i, 4] + w * (rows[i + 1, 4] - rows[i, 4])
        ms = rows[i, 5] + w * (rows[i + 1, 5] - rows[i, 5])
        return z, math.sqrt(vx * vx + vz * vz), me, ms
    last = n - 1
    v = math.sqrt(rows[last, 2] ** 2 + rows[last, 3] ** 2)
    return rows[last, 1], v * math.exp(-(x - rows[last, 0]) / STOPPED_DECAY), rows[last, 4], rows[last, 5]
