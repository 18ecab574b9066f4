"""The twelve printed strikes: head, opening, ground, swing; then what the reference mesh gave."""

from oblatus.core.clubs import Head
from oblatus.core.grounds import Sand, Turf

USUAL = Head(56, 10)
LEANED = Head(56, 12, sole_width=0.022)
MEDIUM = Turf(90, 0.0035, 0.5, 1.0)
FIRM = Turf(130, 0.001, 0.3, 1.0)
SAND = Sand(2.1, 0.080, 0.3, 0.003)
CUT = Head(56, 10, heel_relief=0.0015, trailing_relief_fraction=0.3, trailing_relief_deg=10,
           front_bevel=0.004, front_bevel_deg=8)  # fmt: skip

# case: head, opening, ground, speed, attack, lean, entry mm
#       | contact, t mm, edge mm, v/v0, material g, ball, launch, spin, carry by the constant-drag law
VECTORS = {
    "A": (USUAL, 0, MEDIUM, 20, -5, 0, -46, "face", 11.1, 0.90, 0.988, 1.9, 15.0, 45.5, 3186, 21.0),
    "B": (USUAL, 0, MEDIUM, 20, -5, 0, -71, "face", 13.3, -0.28, 0.919, 7.7, 12.5, 50.6, 1461, 14.7),
    "C": (USUAL, 0, MEDIUM, 20, -5, 0, 15, "face", 1.4, 6.37, 1.000, 0.0, 15.1, 40.2, 4611, 21.4),
    "D": (Head(56, 4, sole_width=0.017), 0, Turf(50, 0.008, 0.8, 1.0), 20, -5, 8, -61,
          "face", 28.9, -5.72, 0.910, 14.7, 10.5, 43.8, 1073, 10.9),
    "E": (LEANED, 0, FIRM, 20, -4, 0, -5, "edge", -2.5, 6.17, 1.000, 0.0, 18.3, 34.0, 5400, 29.3),
    "F": (LEANED, 0, FIRM, 20, -4, 7, -5, "face", 3.9, 3.66, 1.000, 0.0, 18.9, 33.9, 5538, 31.2),
    "G": (USUAL, 0, SAND, 22, -9, 0, -71, "face", 11.0, -5.54, 0.932, 18.7, 11.8, 38.7, 3239, 13.4),
    "H": (USUAL, 20, SAND, 22, -9, 0, -95, "face", 11.4, -5.77, 0.870, 41.3, 10.8, 49.0, 2961, 11.3),
    "I": (Head(56, 5, sole_width=0.018), 0, Sand(1.5, 0.080, 0.1, 0.003), 22, -9, 8, -71,
          "face", 21.7, -12.04, 0.909, 38.4, 10.0, 32.1, 2562, 9.1),
    "J": (Head(56, 14, sole_width=0.023), 30, Sand(2.3, 0.004, 0.6, 0.003), 22, -9, 0, -105,
          "edge", -4.3, -0.26, 0.833, 14.3, 8.8, 52.9, 2307, 7.4),
    "K": (USUAL, -15, Sand(1.9, 0.080, 0.2, 0.016), 26, -11, 6, -75,
          "face", 3.9, -12.29, 0.914, 34.5, 9.1, 26.9, 2410, 6.8),
    "L": (CUT, 15, SAND, 22, -9, 0, -80, "face", 10.4, -5.38, 0.900, 26.3, 10.6, 46.1, 2909, 11.1),
}  # fmt: skip


def constant_drag_carry(speed, launch_deg):
    """The law by which the carry column was printed: drag 0.33, lift 0.17 at all speeds. It checks these rows only."""
    import math

    factor, dt = 0.5 * 1.2 * 1.432e-3 / 0.0459, 0.0005
    vx, vz, x, z = speed * math.cos(math.radians(launch_deg)), speed * math.sin(math.radians(launch_deg)), 0.0, 0.0
    while True:
        s = factor * math.hypot(vx, vz)
        ax, az = -s * (0.33 * vx + 0.17 * vz), -9.81 - s * (0.33 * vz - 0.17 * vx)
        x1, z1 = x + dt * (vx + 0.5 * dt * ax), z + dt * (vz + 0.5 * dt * az)
        if z1 < 0.0:
            return x + (x1 - x) * z / (z - z1)
        x, z, vx, vz = x1, z1, vx + dt * ax, vz + dt * az
