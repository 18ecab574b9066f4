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
#       | contact, t mm, edge mm, v/v0, material g, ball, launch, carry
VECTORS = {
    "A": (USUAL, 0, MEDIUM, 20, -5, 0, -46, "face", 11.4, 0.76, 0.993, 1.5, 15.5, 34.9, 21.6),
    "B": (USUAL, 0, MEDIUM, 20, -5, 0, -71, "face", 16.6, -2.09, 0.922, 8.4, 12.8, 32.8, 14.6),
    "C": (USUAL, 0, MEDIUM, 20, -5, 0, 15, "face", 1.4, 6.37, 1.000, 0.0, 15.6, 34.4, 21.9),
    "D": (Head(56, 4, sole_width=0.017), 0, Turf(50, 0.008, 0.8, 1.0), 20, -5, 8, -61,
          "face", 29.9, -6.36, 0.915, 15.5, 12.2, 25.8, 11.7),
    "E": (LEANED, 0, FIRM, 20, -4, 0, -5, "edge", -2.5, 6.17, 1.000, 0.0, 18.5, 32.6, 29.3),
    "F": (LEANED, 0, FIRM, 20, -4, 7, -5, "face", 3.9, 3.66, 1.000, 0.0, 19.0, 33.0, 31.0),
    "G": (USUAL, 0, SAND, 22, -9, 0, -71, "face", 11.4, -5.72, 0.932, 19.2, 11.7, 37.5, 13.0),
    "H": (USUAL, 20, SAND, 22, -9, 0, -95, "face", 12.9, -6.35, 0.865, 44.5, 11.1, 38.6, 11.8),
    "I": (Head(56, 5, sole_width=0.018), 0, Sand(1.5, 0.080, 0.1, 0.003), 22, -9, 8, -71,
          "face", 21.8, -12.08, 0.908, 38.6, 9.8, 36.1, 9.2),
    "J": (Head(56, 14, sole_width=0.023), 30, Sand(2.3, 0.004, 0.6, 0.003), 22, -9, 0, -105,
          "edge", -3.0, -0.89, 0.815, 18.1, 10.7, 30.5, 9.9),
    "K": (USUAL, -15, Sand(1.9, 0.080, 0.2, 0.016), 26, -11, 6, -75,
          "face", 4.0, -12.42, 0.915, 34.8, 9.2, 32.3, 7.7),
    "L": (CUT, 15, SAND, 22, -9, 0, -80, "face", 11.2, -5.74, 0.898, 27.7, 10.8, 38.9, 11.3),
}  # fmt: skip
