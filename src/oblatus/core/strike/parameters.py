"""The laws' constants as records: value, unit, and where each comes from. The kernels take their values from here.

F fitted to the bench's bands and claims (docs/models/strike.md), D derived, L literature from memory, J judgement.
"""

from __future__ import annotations

from oblatus.core.constants import Constant

ARC_RADIUS = Constant(1.1, "m", "J: effective radius of the head's arc in a partial swing")
REFERENCE_X = Constant(-0.012, "m", "where lean and attack are those of impact: the edge from the ball's centre")
STOP_SHARE = Constant(0.12, "-", "J: a pass ends when the head keeps less of its speed")
RUN_PAST_TURF = Constant(0.025, "m", "J: how far past the ball a pass on turf is followed")
RUN_PAST_SAND = Constant(0.060, "m", "J: how far past the ball a pass in sand is followed")

SHAFT_MASS_X = Constant(0.02, "kg", "J: what of the shaft has to be stopped along the path with the head")
SHAFT_MASS_Z_TURF = Constant(0.07, "kg", "F/J: and up and down, on turf: a bending wave runs 0.2 m in 2 ms")
SHAFT_MASS_Z_SAND = Constant(0.25, "kg", "F/J: in sand, where a pass takes 8 to 12 ms")

THATCH_SHARE = Constant(0.30, "-", "J: share of a depth in thatch that counts as depth in soil")
SLANTED_LOAD = Constant(0.80, "-", "F: inclined load (Meyerhof) against faster loading than the hammer's")
NARROW_CONTACT = Constant(0.50, "-", "F: a sole's strip is three to five times narrower than the hammer (Terzaghi 1955)")
MOST_THATCH = Constant(0.009, "m", "J: thatch is never deeper")
THATCH_OF_SIT = Constant(0.63, "-", "J: thatch by how high the ball sits")
REBOUND_SLOPE = Constant(0.28, "-", "D: rebound of the soil behind the lowest motion, by the hammer's restitution")
HAMMER_MASS = Constant(2.25, "kg", "the drop hammer")
HAMMER_AREA = Constant(19.63e-4, "m^2", "the hammer's face, 50 mm across")
HAMMER_ENERGY = Constant(9.93, "J", "the hammer's fall of 450 mm")
TURF_COHESION = Constant(190e3, "Pa", "F: root-bound soil at 90 g, about twice its slow strength")

INERTIA_SAND = Constant(1.8, "-", "F: inertial term of sand (Agarwal, Karsai, Goldman, Kamrin 2021: 1.1 to 2)")
TIP_RADIUS = Constant(0.02135, "m", "the penetrometer's ball-shaped tip")
PASCAL_PER_KG_CM2 = Constant(98066.0, "Pa", "kg/cm² in pascal")

PILE_SHARE_TURF = Constant(0.80, "-", "F: share of what the sole moves that piles up ahead: a divot moves whole")
PILE_SHARE_SAND = Constant(0.60, "-", "F: the same in sand")
PILE_HEIGHT = Constant(0.0025, "m", "J: an edge that passes so much too high has no pile before it")
CUSHION_TURF = Constant(0.008, "kg", "F: material between face and ball that takes the bounce out of the blow")
CUSHION_SAND = Constant(0.006, "kg", "F: the same in sand")
CUSHION_POWER = Constant(1.3, "-", "F: the first gram is squeezed out")
STRIPE_RADIUS = Constant(0.026, "m", "F: how fast the head gives way off the middle of the face")
STRIPE_HEIGHT = Constant(0.020, "m", "D: middle of the face, where a strike is the flight model's clean contact")
RESTITUTION = Constant(0.875, "-", "Penner, Am. J. Phys. 69 (2001) 563, at no speed")
COUPLING_SAND = Constant(2.95, "-", "F: speed of the ball by that of the sand that carries it")
SHEAR_DEPTH = Constant(0.016, "m", "F: sand under the ball that shears instead of pushing")
SPIN_SHARE_SAND = Constant(0.80, "-", "J: share of the sand's slip that turns the ball")
SLUG_RIDE = Constant(0.030, "m", "J: how far the ball rides on the sand after contact")
STOPPED_DECAY = Constant(0.014, "m", "J: length over which the speed of a stopped pass dies away")
DIRECT_SCALE = Constant(0.0025, "kg", "F: material that leaves a third of the blow direct")
EDGE_TAKES_OVER = Constant(0.007, "m", "J: depth of the edge at which it drives what sand no longer does")
WIDTH_TURF = Constant(0.043, "m", "J: width of what reaches the ball on turf")
WIDTH_SAND = Constant(0.060, "m", "J: width of what reaches the ball in sand")

GRIP_TURF = Constant(0.285, "-", "J: friction of ball on a clean face from turf")
GRIP_SAND = Constant(0.20, "-", "J: and from sand")
LEAST_GRIP = Constant(0.09, "-", "J: friction with much between face and ball")
GRIP_SCALE = Constant(0.003, "kg", "J: material that takes away two thirds of the grip")
FADE_FROM = Constant(0.040, "m", "J: height up the face where the blow fades")
FADE_OVER = Constant(0.014, "m", "J: over which it fades")
FADE_LEAST = Constant(0.15, "-", "J: what is left of it")
PLUG_FREE = Constant(0.004, "m", "J: a ball so deep is not held")
PLUG_SCALE = Constant(0.025, "m", "J: depth that costs two thirds of the speed at a launch straight up")
PLUG_LEAST = Constant(0.30, "-", "J: sine of launch below which it costs no more")
