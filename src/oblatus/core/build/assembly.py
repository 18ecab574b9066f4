"""The whole club: mass, balance and swing weight, and the weight that a wish asks for. docs/models/build.md, 3."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median_low

from oblatus.core.bounds import Bound, check_all
from oblatus.core.build.parts import Grip, Shaft
from oblatus.errors import Fault, InputError

GRAMS_PER_OUNCE = 28.349523125
FULCRUM_IN = 14.0
"""Swing weight is the moment about a point so far from the butt [in]."""
D0_OZ_IN = 213.5
POINT_OZ_IN = 1.75
HEAD_REACH_IN = 0.1
"""Centre of mass of a wedge head along the shaft, short of the club's length [in]: 36 mm towards the toe and 19 mm
above the ground at a lie of 64 degrees, 19 sin 64 - 36 cos 64 (judgement: a usual head)."""
SHAFT_END_IN = 1.0
"""Tip end of the shaft in the neck, short of the club's length [in] (judgement)."""
JOINT_G = 3.0
"""Ferrule and epoxy, at the neck [g] (judgement)."""
NECK_IN = 2.2
"""Neck end short of the club's length [in] (judgement)."""
TAPE_G = 4.0
"""Tape and solvent under the grip [g] (judgement)."""
TIP_TRIM_IN = 0.5
TIP_WEIGHT_IN = 2.5
"""Where a weight in the tip of the shaft sits, short of the club's length [in] (judgement)."""
BUTT_WEIGHT_IN = 1.0
"""Where a weight under the grip sits from the butt [in] (judgement)."""
MOST_TIP_G, MOST_BUTT_G = 9.0, 30.0
"""Weights that fit the tip and the butt [g] (judgement)."""
MATCH_POINTS = 1.0
"""Clubs of a set are matched within a point."""
LENGTH = Bound(32, 38, "in")
LETTERS = "ABCDEFG"


@dataclass(frozen=True, slots=True)
class Assembly:
    """A club: length [in], total mass [g], balance point from the butt [in], moment about 14 in [oz in], swing weight.

    `points` counts from D0; `butt_trim_in` is what comes off the shaft's butt after the tip was trimmed.
    """

    length_in: float
    mass_g: float
    balance_in: float
    moment_oz_in: float
    points: float
    butt_trim_in: float

    @property
    def swing_weight(self) -> str:
        """As it is written: D2.5."""
        return swing_weight_words(self.points)


def assemble(
    head_g: float, length_in: float, shaft: Shaft, grip: Grip, tip_g: float = 0.0, butt_g: float = 0.0
) -> Assembly:
    """The club of these parts at a length, with weights in tip and butt [g].

    A cut shaft keeps mass by length; its balance point keeps its share. Each part's moment is its mass times the way
    from the fulcrum 14 in below the butt.

    Raises
    ------
    InputError
        If the length is outside its range or longer than the shaft allows.
    """
    check_all({"length_in": length_in}, {"length_in": LENGTH})
    used = length_in - SHAFT_END_IN
    trim = shaft.length_in - TIP_TRIM_IN - used
    if trim < 0.0:
        longest = shaft.length_in - TIP_TRIM_IN + SHAFT_END_IN
        raise InputError([Fault("length_in", f"the {shaft.name} reaches {longest:g} in at most", str(length_in))])
    parts = (
        (head_g, length_in - HEAD_REACH_IN),
        (shaft.mass_g * used / shaft.length_in, used * (1.0 - shaft.balance)),
        (grip.mass_g, grip.balance_in),
        (JOINT_G, length_in - NECK_IN),
        (TAPE_G, grip.balance_in),
        (tip_g, length_in - TIP_WEIGHT_IN),
        (butt_g, BUTT_WEIGHT_IN),
    )  # fmt: skip
    mass = sum(grams for grams, _ in parts)
    moment = sum(grams * (at - FULCRUM_IN) for grams, at in parts) / GRAMS_PER_OUNCE
    balance = sum(grams * at for grams, at in parts) / mass
    return Assembly(length_in, mass, balance, moment, (moment - D0_OZ_IN) / POINT_OZ_IN, trim)


def swing_weight_words(points_from_d0: float) -> str:
    """Points from D0 as a letter and a number: D2.5, C9."""
    whole = 30.0 + round(points_from_d0, 1)
    letter = min(max(int(whole // 10), 0), len(LETTERS) - 1)
    return f"{LETTERS[letter]}{whole - 10 * letter:g}"


def read_swing_weight(text: str) -> float:
    """Points from D0 of a swing weight as it is written.

    Raises
    ------
    InputError
        If it is none.
    """
    found = re.fullmatch(r"([A-Ga-g])\s*(\d(?:[.,]\d)?)", text.strip())
    if not found:
        raise InputError([Fault("swing_weight", "must be a letter from A to G and a number to 9.9, as D2.5", text)])
    return 10.0 * LETTERS.index(found[1].upper()) + float(found[2].replace(",", ".")) - 30.0


@dataclass(frozen=True, slots=True)
class Weighting:
    """Grams into the tip, or under the grip, and the swing weight that follows [points from D0]; what cannot be met."""

    tip_g: float
    butt_g: float
    points: float
    off: float


def solve_weight(head_g: float, length_in: float, shaft: Shaft, grip: Grip, points: float) -> Weighting:
    """Where to put how much for a swing weight at a length: at the tip to raise it, under the grip to lower it.

    Moments are linear in a weight: grams = wanted moment over its arm. Weights beyond what fits are left out and said.
    """
    bare = assemble(head_g, length_in, shaft, grip)
    wanted = (points - bare.points) * POINT_OZ_IN * GRAMS_PER_OUNCE
    tip = min(max(wanted / (length_in - TIP_WEIGHT_IN - FULCRUM_IN), 0.0), MOST_TIP_G)
    butt = min(max(wanted / (BUTT_WEIGHT_IN - FULCRUM_IN), 0.0), MOST_BUTT_G)
    built = assemble(head_g, length_in, shaft, grip, tip, butt)
    return Weighting(tip, butt, built.points, built.points - points)


def unmatched(points: Sequence[float]) -> list[int]:
    """Clubs of a set whose swing weight is more than a point off its middle one (of two, the lower), by place."""
    middle = median_low(points) if points else 0.0
    return [n for n, one in enumerate(points) if abs(one - middle) > MATCH_POINTS + 1e-9]
