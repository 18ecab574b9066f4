"""Compiled flight: impact, trajectory, landing, bounce and roll. Plain floats in, (values, status) out.

Frame: x downrange, y up, z right of the target line. Equations and symbols: docs/models/flight.md.
Nothing is checked here; the wrappers in the package check first.
"""

import math

from oblatus.core import constants
from oblatus.core._compiled import kernel

G = constants.GRAVITY.value
BALL_MASS = constants.BALL_MASS.value
BALL_RADIUS = constants.BALL_RADIUS.value
INERTIA_FACTOR = constants.BALL_INERTIA_FACTOR.value
BALL_AREA = constants.BALL_AREA.value
STIMP_SPEED = constants.STIMP_RELEASE_SPEED.value

RESTITUTION_SLOPE = 0.0029  # s/m, Penner, Am. J. Phys. 69 (2001) 563
TANGENTIAL_RESTITUTION = 0.32  # -, fitted; sign and size: Maw, Barber & Fawcett, Wear 38 (1976) 101

CD_BELOW_CRISIS = 0.50  # -, Bearman & Harvey, Aero. Quart. 27 (1976) 112
CD_BASE = 0.240  # -, drag of a dimpled ball without spin, fitted to published carries
CD_SLOPE = 0.209  # -, and how it rises with the spin ratio, fitted
CL_AMPLITUDE = 0.435  # -, lift at a large spin ratio, fitted
CL_HALF = 0.15  # -, spin ratio of half that lift, fitted
CL_LOSS = 0.30  # -, share of the lift lost below the drag crisis, fitted
CRISIS_LOW = 3.0e4  # -, Reynolds numbers between which the drag falls
CRISIS_HIGH = 8.0e4
PER_CRISIS = 1.0 / (CRISIS_HIGH - CRISIS_LOW)
SPIN_MOMENT = 0.012  # -, Tavares, Shannon & Melvin, Science and Golf III (1999)

MAX_STEPS = 4000  # of a flight
ROOT_STEPS = 4  # of Newton's, from a chord: the last moves it by less than 1e-12 of a step
MAX_BOUNCES = 25  # of a run
LEAST_HOP_SPEED = 0.30  # m/s, a slower bounce is a roll

LANDED = 0
DID_NOT_LAND = 1

_jit = kernel()
# no division by what stays the same from step to step: in lanes each would cost as much as all the rest
inline_flight = kernel(error_model="numpy", forceinline=True, fastmath={"contract"})


@_jit
def clean_contact(un, ut, mass_e, friction, e):
    """Ball's normal and tangential speed after a contact at normal and tangential speed un, ut; section 1.

    Grip with elastic over-spin passes smoothly into Coulomb sliding: an exponent of 8, three square roots.
    """
    ratio = BALL_MASS / mass_e
    vn = (1.0 + e) * un / (1.0 + ratio)
    grip = (1.0 + TANGENTIAL_RESTITUTION) * ut / (1.0 + 1.0 / INERTIA_FACTOR + ratio)
    over = grip / (friction * vn)
    over *= over
    over *= over
    over *= over
    return vn, grip / math.sqrt(math.sqrt(math.sqrt(1.0 + over)))


@_jit
def impact(speed, loft, attack, face, path, friction, head_mass, offset, gyration, restitution):
    """Ball velocity (3) and spin (3) after impact; angles in radians. Section 1 of docs/models/flight.md."""
    nx, ny, nz = math.cos(loft) * math.cos(face), math.sin(loft), math.cos(loft) * math.sin(face)
    ux = speed * math.cos(attack) * math.cos(path)
    uy = speed * math.sin(attack)
    uz = speed * math.cos(attack) * math.sin(path)
    un = ux * nx + uy * ny + uz * nz
    tx, ty, tz = ux - un * nx, uy - un * ny, uz - un * nz
    ut = math.sqrt(tx * tx + ty * ty + tz * tz)
    if ut > 1e-12:
        tx, ty, tz = tx / ut, ty / ut, tz / ut
    mass_e = head_mass / (1.0 + (offset / gyration) ** 2)
    vn, vt = clean_contact(un, ut, mass_e, friction, restitution - RESTITUTION_SLOPE * un)
    w = vt / (INERTIA_FACTOR * BALL_RADIUS)
    return (
        vn * nx + vt * tx,
        vn * ny + vt * ty,
        vn * nz + vt * tz,
        -w * (ny * tz - nz * ty),
        -w * (nz * tx - nx * tz),
        -w * (nx * ty - ny * tx),
    )


@inline_flight
def pulls(v2, v, rwc, w, rho, viscosity):
    """What air does to a ball at speed v (v2 squared) with spin w, rwc = radius times spin times the speed across its
    axis: lift by the cross product of axis and velocity, drag by velocity, and the spin's decay. Section 2."""
    below = rwc + CL_HALF * v2
    both = 1.0 / (v2 * below)  # one division for the spin ratio and the lift
    spin_ratio = rwc * below * both
    q = v * (2.0 * BALL_RADIUS * rho / viscosity * PER_CRISIS) - CRISIS_LOW * PER_CRISIS
    q = min(max(q, 0.0), 1.0)
    s = q * q * (3.0 - 2.0 * q)
    cd = CD_BELOW_CRISIS + (CD_BASE + CD_SLOPE * spin_ratio - CD_BELOW_CRISIS) * s
    k = 0.5 * rho * BALL_AREA / BALL_MASS
    # CL c_vec / c with CL = A S / (S + 0.15): the c cancels, so a spin axis along the flight is no special case
    lift = k * CL_AMPLITUDE * BALL_RADIUS * w * (1.0 - CL_LOSS * (1.0 - s)) * v2 * v2 * both
    drag = k * cd * v
    decay = rho * BALL_AREA * SPIN_MOMENT / (INERTIA_FACTOR * BALL_MASS)
    return lift, drag, decay * v * w


@_jit
def _acceleration(y, vx, vy, vz, w, ax, ay, az, wind_x, wind_z, rho, viscosity):
    """Acceleration (3) and spin decay rate at one state. Section 2."""
    height = y if y > 0.0 else 0.0
    profile = 1.338 * (height + 2.80) / (height + 7.126)
    rx, ry, rz = vx - wind_x * profile, vy, vz - wind_z * profile
    v2 = rx * rx + ry * ry + rz * rz
    cx, cy, cz = ay * rz - az * ry, az * rx - ax * rz, ax * ry - ay * rx
    c = math.sqrt(cx * cx + cy * cy + cz * cz)
    lift, drag, decay = pulls(v2, math.sqrt(v2), BALL_RADIUS * w * c, w, rho, viscosity)
    return lift * cx - drag * rx, lift * cy - drag * ry - G, lift * cz - drag * rz, -decay


@inline_flight
def hermite(u, step, p0, d0, p1, d1):
    """Cubic Hermite through two positions and slopes, u in 0..1."""
    u2, u3 = u * u, u * u * u
    return (
        p0 * (2.0 * u3 - 3.0 * u2 + 1.0)
        + step * d0 * (u3 - 2.0 * u2 + u)
        + p1 * (3.0 * u2 - 2.0 * u3)
        + step * d1 * (u3 - u2)
    )


@inline_flight
def hermite_slope(u, step, p0, d0, p1, d1):
    """Derivative of `hermite` by u."""
    return (
        p0 * (6.0 * u * u - 6.0 * u)
        + step * d0 * (3.0 * u * u - 4.0 * u + 1.0)
        + p1 * (6.0 * u - 6.0 * u * u)
        + step * d1 * (3.0 * u * u - 2.0 * u)
    )


@inline_flight
def comes_down(h, level, y, vy, y1, vy1):
    """Share of a step at which the ball comes down through a level [m]."""
    # a flight shorter than one step leaves from the very height on which it lands: its landing is the later root
    u = (y - level) / (y - y1) if y > level else 1.0
    for _ in range(ROOT_STEPS):
        u -= (hermite(u, h, y, vy, y1, vy1) - level) / hermite_slope(u, h, y, vy, y1, vy1)
    return u


@inline_flight
def speed_within(u, h, v, v1, a):
    """A velocity at a share of a step, from both ends and the acceleration at the first."""
    return v + h * u * a + (v1 - v - h * a) * u * u


@_jit
def _step(x, y, z, vx, vy, vz, w, ax, ay, az, wind_x, wind_z, rho, viscosity, h):
    """One Runge-Kutta step of order four; also the first acceleration, which the landing needs."""
    a1, b1, c1, d1 = _acceleration(y, vx, vy, vz, w, ax, ay, az, wind_x, wind_z, rho, viscosity)
    g = 0.5 * h
    a2, b2, c2, d2 = _acceleration(
        y + g * vy, vx + g * a1, vy + g * b1, vz + g * c1, w + g * d1, ax, ay, az, wind_x, wind_z, rho, viscosity
    )
    a3, b3, c3, d3 = _acceleration(
        y + g * (vy + g * b1), vx + g * a2, vy + g * b2, vz + g * c2, w + g * d2,
        ax, ay, az, wind_x, wind_z, rho, viscosity,
    )  # fmt: skip
    a4, b4, c4, d4 = _acceleration(
        y + h * (vy + g * b2), vx + h * a3, vy + h * b3, vz + h * c3, w + h * d3,
        ax, ay, az, wind_x, wind_z, rho, viscosity,
    )  # fmt: skip
    sixth = h / 6.0
    return (
        x + h * vx + h * sixth * (a1 + a2 + a3),
        y + h * vy + h * sixth * (b1 + b2 + b3),
        z + h * vz + h * sixth * (c1 + c2 + c3),
        vx + sixth * (a1 + 2.0 * a2 + 2.0 * a3 + a4),
        vy + sixth * (b1 + 2.0 * b2 + 2.0 * b3 + b4),
        vz + sixth * (c1 + 2.0 * c2 + 2.0 * c3 + c4),
        w + sixth * (d1 + 2.0 * d2 + 2.0 * d3 + d4),
        a1,
        b1,
        c1,
    )


@_jit
def fly(vx, vy, vz, wx, wy, wz, wind_x, wind_z, rho, viscosity, h, landing_height, path):
    """Fly from the origin until the ball comes down through `landing_height` [m].

    Returns (x, z, apex, time, vx, vy, vz, w, status, samples); `path` (n, 3), maybe empty, takes the states.
    """
    w = math.sqrt(wx * wx + wy * wy + wz * wz)
    ax, ay, az = 0.0, 0.0, 1.0
    if w > 1e-9:
        ax, ay, az = wx / w, wy / w, wz / w
    x = y = z = t = 0.0
    apex = 0.0
    n = 0
    if path.shape[0] > 0:
        path[0, :] = 0.0
        n = 1
    for _ in range(MAX_STEPS):
        x1, y1, z1, vx1, vy1, vz1, w1, a0, b0, c0 = _step(
            x, y, z, vx, vy, vz, w, ax, ay, az, wind_x, wind_z, rho, viscosity, h
        )
        if vy >= 0.0 and vy1 < 0.0:
            u = vy / (vy - vy1)
            apex = max(apex, hermite(u, h, y, vy, y1, vy1))
        if vy1 < 0.0 and y1 <= landing_height:
            u = comes_down(h, landing_height, y, vy, y1, vy1)
            xl = hermite(u, h, x, vx, x1, vx1)
            zl = hermite(u, h, z, vz, z1, vz1)
            vxl = speed_within(u, h, vx, vx1, a0)
            vyl = speed_within(u, h, vy, vy1, b0)
            vzl = speed_within(u, h, vz, vz1, c0)
            if n < path.shape[0]:
                path[n, 0], path[n, 1], path[n, 2] = xl, landing_height, zl
                n += 1
            return xl, zl, apex, t + u * h, vxl, vyl, vzl, w + (w1 - w) * u, LANDED, n
        x, y, z, vx, vy, vz, w = x1, y1, z1, vx1, vy1, vz1, w1
        t += h
        if n < path.shape[0]:
            path[n, 0], path[n, 1], path[n, 2] = x, y, z
            n += 1
    return x, z, apex, t, vx, vy, vz, w, DID_NOT_LAND, n


@_jit
def run_out(vx, vy, vz, wx, wy, wz, firmness, stimp, mu_bounce, mu_slide):
    """Bounce, slide and roll on a flat green; returns the displacement (x, z) [m] from the pitch mark. Section 3."""
    crater = 1.25 - 0.50 * firmness
    liveliness = 0.70 + 0.60 * firmness
    k, r = INERTIA_FACTOR, BALL_RADIUS
    dx = dz = 0.0
    for _ in range(MAX_BOUNCES):
        v = math.sqrt(vx * vx + vy * vy + vz * vz)
        vh = math.sqrt(vx * vx + vz * vz)
        phi = math.degrees(math.atan2(vh, -vy))
        theta = crater * 18.5 * (2.0 * v / (v + 18.6)) * (phi / 44.4)
        theta = math.radians(min(theta, phi))
        hx, hz = (vx / vh, vz / vh) if vh > 1e-9 else (1.0, 0.0)
        nx, ny, nz = -math.sin(theta) * hx, math.cos(theta), -math.sin(theta) * hz
        vn = -(vx * nx + vy * ny + vz * nz)
        e = 0.510 - 0.0375 * vn + 0.000903 * vn * vn if vn < 20.0 else 0.120
        e = min(e * liveliness, 0.75)
        tx, ty, tz = vx + vn * nx, vy + vn * ny, vz + vn * nz
        ux = tx - r * (wy * nz - wz * ny)
        uy = ty - r * (wz * nx - wx * nz)
        uz = tz - r * (wx * ny - wy * nx)
        un = ux * nx + uy * ny + uz * nz
        ux, uy, uz = ux - un * nx, uy - un * ny, uz - un * nz
        slip = math.sqrt(ux * ux + uy * uy + uz * uz)
        jx = jy = jz = 0.0
        if slip > 1e-12:
            j = min(mu_bounce * (1.0 + e) * vn, slip * k / (1.0 + k))
            jx, jy, jz = -j * ux / slip, -j * uy / slip, -j * uz / slip
        vx, vy, vz = tx + jx + e * vn * nx, ty + jy + e * vn * ny, tz + jz + e * vn * nz
        wx -= (ny * jz - nz * jy) / (k * r)
        wy -= (nz * jx - nx * jz) / (k * r)
        wz -= (nx * jy - ny * jx) / (k * r)
        if vy < LEAST_HOP_SPEED:
            break
        hop = 2.0 * vy / G
        dx += vx * hop
        dz += vz * hop
        vy = -vy
    ux, uz = vx + r * wz, vz - r * wx
    slip = math.sqrt(ux * ux + uz * uz)
    if slip > 1e-12:
        t = slip / ((1.0 + 1.0 / k) * mu_slide * G)
        dx += vx * t - 0.5 * mu_slide * G * ux / slip * t * t
        dz += vz * t - 0.5 * mu_slide * G * uz / slip * t * t
        vx -= ux * k / (1.0 + k)
        vz -= uz * k / (1.0 + k)
    v = math.sqrt(vx * vx + vz * vz)
    a = STIMP_SPEED * STIMP_SPEED / (2.0 * stimp)
    return dx + vx * v / (2.0 * a), dz + vz * v / (2.0 * a)
