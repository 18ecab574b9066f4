"""Compiled sole geometry. Frame: x along the path, y towards the player (heel), z up; origin mid leading edge.

Equations: docs/models/geometry.md. Angles in radians, lengths in metres. Nothing is checked here.
"""

import math

import numpy as np

from oblatus.core._compiled import kernel

HALF_BLADE = 0.025  # m, half of the modelled blade (judgement)
PLAN_DIVISOR = 0.140  # m, twice the 70 mm plan radius of the leading edge
ROCKER_DIVISOR = 0.700  # m, twice the 350 mm heel-to-toe radius
ALONG = 25  # points of the turned surface, front to back
ACROSS = 9  # and heel to toe
SOFT_MIN = 0.0003  # m, width of the soft least that keeps the lead from jumping

# columns of a head row
LOFT, BOUNCE, WIDTH, CAMBER, NOSE, BEVEL, BEVEL_ANGLE, BACK, BACK_ANGLE, HEEL, TOE, LIE, MASS = range(13)
COLUMNS = 13

_jit = kernel(error_model="numpy")
_reduce = kernel(error_model="numpy", fastmath={"nnan", "ninf", "nsz", "reassoc", "contract"})


@_jit
def smoothstep(t):
    """3 t^2 - 2 t^3, clamped to 0..1."""
    t = min(max(t, 0.0), 1.0)
    return t * t * (3.0 - 2.0 * t)


@_jit
def sole_angle(head, s0, s1):
    """Mean downward angle of the profile between arc lengths s0 and s1; brackets weighted by covered fraction."""
    w = head[WIDTH]
    span = s1 - s0
    bevel = min(max(head[BEVEL] - s0, 0.0), span) / span
    start = w * (1.0 - head[BACK])
    back = min(max(s1 - start, 0.0), span) / span
    return head[BOUNCE] - (0.5 * (s0 + s1) - 0.5 * w) / head[CAMBER] + head[BEVEL_ANGLE] * bevel - head[BACK_ANGLE] * back


@_jit
def relief(head, s, v):
    """Height of the removed metal at arc length s and blade position v (-1 toe .. 1 heel)."""
    u = smoothstep((s / head[WIDTH] - 0.10) / 0.70)
    return head[HEEL] * smoothstep((v - 0.05) / 0.95) * u + head[TOE] * smoothstep((-v - 0.05) / 0.95) * u


@_jit
def profile(head, points):
    """Mid-blade section: points (n, 2) = x, z at equal steps of arc length."""
    n = points.shape[0]
    ds = head[WIDTH] / (n - 1)
    x = z = 0.0
    points[0, 0] = points[0, 1] = 0.0
    for i in range(1, n):
        angle = sole_angle(head, (i - 1) * ds, i * ds)
        x -= math.cos(angle) * ds
        z -= math.sin(angle) * ds
        points[i, 0], points[i, 1] = x, z


@_jit
def vertices(head, out):
    """The sole's surface as points (ALONG * ACROSS, 3)."""
    section = np.empty((ALONG, 2))
    profile(head, section)
    ds = head[WIDTH] / (ALONG - 1)
    k = 0
    for i in range(ALONG):
        for j in range(ACROSS):
            v = -1.0 + 2.0 * j / (ACROSS - 1)
            y = HALF_BLADE * v
            out[k, 0] = section[i, 0] - y * y / PLAN_DIVISOR
            out[k, 1] = y
            out[k, 2] = section[i, 1] + y * y / ROCKER_DIVISOR + relief(head, i * ds, v)
            k += 1


@_jit
def opening_matrix(opening, lie, hands_drop, m):
    """M = R_x(-k max(opening, 0)) R_s(-opening): Rodrigues about the shaft, then the hands lowered."""
    c, s = math.cos(-opening), math.sin(-opening)
    sy, sz = math.cos(lie), math.sin(lie)
    d = 1.0 - c
    r00, r01, r02 = c, -sz * s, sy * s
    r10, r11, r12 = sz * s, c + sy * sy * d, sy * sz * d
    r20, r21, r22 = -sy * s, sy * sz * d, c + sz * sz * d
    drop = -hands_drop * max(opening, 0.0)
    cx, sx = math.cos(drop), math.sin(drop)
    m[0, 0], m[0, 1], m[0, 2] = r00, r01, r02
    m[1, 0], m[1, 1], m[1, 2] = cx * r10 - sx * r20, cx * r11 - sx * r21, cx * r12 - sx * r22
    m[2, 0], m[2, 1], m[2, 2] = sx * r10 + cx * r20, sx * r11 + cx * r21, sx * r12 + cx * r22


@_jit
def normals(head, opening, hands_drop):
    """Face and sole normals (6 numbers) after opening, before lean."""
    m = np.empty((3, 3))
    opening_matrix(opening, head[LIE], hands_drop, m)
    fx, fz = math.cos(head[LOFT]), math.sin(head[LOFT])
    sx, sz = math.sin(head[BOUNCE]), -math.cos(head[BOUNCE])
    return (
        m[0, 0] * fx + m[0, 2] * fz,
        m[1, 0] * fx + m[1, 2] * fz,
        m[2, 0] * fx + m[2, 2] * fz,
        m[0, 0] * sx + m[0, 2] * sz,
        m[1, 0] * sx + m[1, 2] * sz,
        m[2, 0] * sx + m[2, 2] * sz,
    )


@_reduce
def rest(points, c, s):
    """Rest height of the leading edge and its lead over the lowest point, at pitch with cosine c and sine s."""
    n = points.shape[0]
    low = 0.0
    for i in range(n):
        low = min(low, c * points[i, 2] - s * points[i, 0])
    total = weighted = 0.0
    for i in range(n):
        above = (c * points[i, 2] - s * points[i, 0] - low) / SOFT_MIN
        if above < 14.0:  # the others weigh less than a millionth
            w = math.exp(-above)
            total += w
            weighted += w * (c * points[i, 0] + s * points[i, 2])
    return -low, -weighted / total


@_jit
def rotate(points, m, out):
    """Every point by the matrix m."""
    for i in range(points.shape[0]):
        x, y, z = points[i, 0], points[i, 1], points[i, 2]
        out[i, 0] = m[0, 0] * x + m[0, 1] * y + m[0, 2] * z
        out[i, 1] = m[1, 0] * x + m[1, 1] * y + m[1, 2] * z
        out[i, 2] = m[2, 0] * x + m[2, 1] * y + m[2, 2] * z


@_jit
def deliver(heads, openings, leans, hands_drop, out):
    """Delivered geometry of every head (n, COLUMNS) at every setup (k openings and leans).

    out (n, k, 4) = loft, bounce, face direction (right positive), leading-edge height [rad, rad, rad, m].
    Setups that share an opening with the one before reuse its rotated surface.
    """
    base = np.empty((ALONG * ACROSS, 3))
    turned = np.empty((ALONG * ACROSS, 3))
    m = np.empty((3, 3))
    for i in range(heads.shape[0]):
        head = heads[i]
        vertices(head, base)
        for k in range(openings.shape[0]):
            if k == 0 or openings[k] != openings[k - 1]:
                opening_matrix(openings[k], head[LIE], hands_drop, m)
                rotate(base, m, turned)
                fx, fy, fz, sx, _, sz = normals(head, openings[k], hands_drop)
            c, s = math.cos(leans[k]), math.sin(leans[k])
            gx, gz = c * fx + s * fz, -s * fx + c * fz
            tx, tz = c * sx + s * sz, -s * sx + c * sz
            out[i, k, 0] = math.asin(min(max(gz, -1.0), 1.0))
            out[i, k, 1] = math.atan2(tx, -tz)
            out[i, k, 2] = math.atan2(-fy, gx)
            out[i, k, 3] = lowest(turned, c, s)


@_jit
def lofts(head, openings, hands_drop, out):
    """Loft [rad] in the plane of motion at zero lean of a head opened by each angle, out (k,)."""
    for k in range(openings.shape[0]):
        fx, _, fz, _, _, _ = normals(head, openings[k], hands_drop)
        out[k] = math.atan2(fz, fx)


@_jit
def bounces(heads, openings, leans, hands_drop, out):
    """Delivered bounce [rad] of every head at every setup, out (n, k); as `deliver` without the rest of it."""
    for i in range(heads.shape[0]):
        for k in range(openings.shape[0]):
            if k == 0 or openings[k] != openings[k - 1]:
                _, _, _, sx, _, sz = normals(heads[i], openings[k], hands_drop)
            c, s = math.cos(leans[k]), math.sin(leans[k])
            out[i, k] = math.atan2(c * sx + s * sz, s * sx - c * sz)


@_reduce
def lowest(points, c, s):
    """Height of the leading edge when the sole rests on its lowest point."""
    low = 0.0
    for i in range(points.shape[0]):
        low = min(low, -s * points[i, 0] + c * points[i, 2])
    return -low


FACE_HEIGHT = 0.036  # m, edge to top of the face (judgement)
PITCH_LOW, PITCH_HIGH = -25, 45
PITCHES = PITCH_HIGH - PITCH_LOW + 1


@_jit
def _tilt(head, s, v):
    """Slopes of the removed metal along the arc and across the blade, by central differences."""
    h = 1e-5
    along = (relief(head, s + h, v) - relief(head, max(s - h, 0.0), v)) / (s + h - max(s - h, 0.0))
    across = (relief(head, s, v + 1e-4) - relief(head, s, v - 1e-4)) / (2e-4 * HALF_BLADE)
    return along, across


@_jit
def _put(out, k, m, x, y, z, nx, ny, nz, area):
    """One plate, turned by m and reduced to the plane: centre, unit normal, area times the projected normal."""
    out[0, k] = m[0, 0] * x + m[0, 1] * y + m[0, 2] * z
    out[1, k] = m[2, 0] * x + m[2, 1] * y + m[2, 2] * z
    px = m[0, 0] * nx + m[0, 1] * ny + m[0, 2] * nz
    pz = m[2, 0] * nx + m[2, 1] * ny + m[2, 2] * nz
    length = math.sqrt(px * px + pz * pz)
    out[2, k], out[3, k], out[4, k] = px / length, pz / length, area * length


@_jit
def plates(head, opening, hands_drop, strips, cells, nose, rows, sole, face, edge):
    """The sole, face and leading edge as plates of the plane of motion, opened but not leaned.

    sole (5, strips * (cells + nose)) and face (5, strips * rows) hold x, z, n_x, n_z, area; edge (3, strips) x, z, width.
    """
    m = np.empty((3, 3))
    opening_matrix(opening, head[LIE], hands_drop, m)
    width = 2.0 * HALF_BLADE / strips
    ds = head[WIDTH] / cells
    front = head[BOUNCE] + head[WIDTH] / (2.0 * head[CAMBER]) + head[BEVEL_ANGLE]
    sl, cl = math.sin(head[LOFT]), math.cos(head[LOFT])
    k = f = 0
    for j in range(strips):
        v = -1.0 + (2.0 * j + 1.0) / strips
        y = HALF_BLADE * v
        x0, z0 = -y * y / PLAN_DIVISOR, y * y / ROCKER_DIVISOR
        edge[0, j] = m[0, 0] * x0 + m[0, 1] * y + m[0, 2] * z0
        edge[1, j] = m[2, 0] * x0 + m[2, 1] * y + m[2, 2] * z0
        edge[2, j] = width
        x = z = 0.0
        for i in range(cells):
            angle = sole_angle(head, i * ds, (i + 1) * ds)
            c, s = math.cos(angle), math.sin(angle)
            middle = (i + 0.5) * ds
            along, across = _tilt(head, middle, v)
            # tangents (-c, 0, -s + along) and (-2y/140, 1, 2y/700 + across); their cross product points down and forward
            ax, az = -2.0 * y / PLAN_DIVISOR, 2.0 * y / ROCKER_DIVISOR + across
            tz = -s + along
            nx, ny, nz = -tz, tz * ax + c * az, -c
            size = math.sqrt(nx * nx + ny * ny + nz * nz)
            cx, cz = x - 0.5 * c * ds, z - 0.5 * s * ds + relief(head, middle, v)
            _put(sole, k, m, x0 + cx, y, z0 + cz, nx / size, ny / size, nz / size, width * ds * size)
            x -= c * ds
            z -= s * ds
            k += 1
        for i in range(nose):
            a = front + (i + 0.5) * (0.5 * math.pi - front) / nose
            area = width * head[NOSE] * (0.5 * math.pi - front) / nose
            _put(sole, k, m, x0, y, z0, math.sin(a), 0.0, -math.cos(a), area)
            k += 1
        for i in range(rows):
            t = (i + 0.5) * FACE_HEIGHT / rows
            _put(face, f, m, x0 - sl * t, y, z0 + cl * t, cl, 0.0, sl, width * FACE_HEIGHT / rows)
            f += 1


@_jit
def rest_tables(head, opening, hands_drop, heights, leads):
    """Rest height of the edge and its lead over the lowest point [m], every degree of pitch from -25 to 45."""
    base = np.empty((ALONG * ACROSS, 3))
    turned = np.empty((ALONG * ACROSS, 3))
    m = np.empty((3, 3))
    vertices(head, base)
    opening_matrix(opening, head[LIE], hands_drop, m)
    rotate(base, m, turned)
    for i in range(PITCHES):
        pitch = math.radians(PITCH_LOW + i)
        heights[i], leads[i] = rest(turned, math.cos(pitch), math.sin(pitch))
