"""The work on a club in its order, with tolerances and cautions, and what it costs. docs/models/build.md, 4."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from oblatus.core.bounds import Bound
from oblatus.core.build.assembly import Assembly, Weighting
from oblatus.core.build.bench import Ground
from oblatus.core.clubs import Head
from oblatus.core.words import quantity

Action = Literal["keep", "bend", "grind", "replace"]
TOLERANCE = {"loft_deg": 0.25, "lie_deg": 0.5, "swing_weight_points": 1.0}
"""How far what was built may be off the sheet."""

BENCH_WEEKS: dict[Action, int] = {"keep": 0, "bend": 1, "grind": 2, "replace": 1}
"""Weeks that the bench takes, its queue included (judgement)."""
HEAD_WEEKS = 4
"""Weeks until a head that is not on the shelf is here (judgement)."""

CAUTIONS = {
    "bend": "Heads can crack: the maker's limit and a trained bench hand decide. Eye protection.",
    "grind": "Sparks and metal dust: guard, extraction, eye and breathing protection. A ground head must still conform "
    "to the rules in force; the maker's warranty usually ends.",
    "glue": "Epoxy and solvent: gloves, air, no flame. The club is swung only when the glue has cured.",
    "cut": "Cut shafts are sharp: eye protection, dust of fibre shafts is not breathed.",
}


@dataclass(frozen=True, slots=True)
class Operation:
    """One piece of work: what, the wanted figure with its tolerance and unit, and the caution that belongs to it."""

    key: str
    words: str
    wanted: float | None = None
    tolerance: float | None = None
    unit: str = ""
    caution: str = ""


@dataclass(frozen=True, slots=True)
class Prices:
    """The studio's price list: labour for each operation, and tax as a share; all in the studio's currency."""

    bend: float = 8.0
    lie: float = 6.0
    grind: float = 45.0
    assemble: float = 18.0
    weigh: float = 4.0
    tax: float = 0.2

    def of(self, key: str) -> float:
        """Labour of an operation; those that belong to another one are free."""
        return {
            "loft": self.bend, "lie": self.lie, "grind": self.grind, "glue": self.assemble, "weight": self.weigh
        }.get(key, 0.0)  # fmt: skip


PRICE_LIST = {
    "bend": ("Bend loft", Bound(0, 1000, "")),
    "lie": ("Bend lie", Bound(0, 1000, "")),
    "grind": ("Grind", Bound(0, 1000, "")),
    "assemble": ("Put together", Bound(0, 1000, "")),
    "weigh": ("Weight", Bound(0, 1000, "")),
    "tax": ("Tax, as a share", Bound(0, 0.5, "")),
}
"""The lines of a price list: their words and what they may be."""


def operations(
    loft_deg: float,
    lie_deg: float,
    bend_deg: float,
    lie_by_deg: float,
    ground: Ground | None,
    weighting: Weighting | None,
    built: Assembly | None,
) -> list[Operation]:
    """The work on one club in its order.

    Lie before loft: turning the neck for lie takes asin(sin L cos a) of loft with it, bending for loft leaves lie. Grind
    after bending, because the bend moves bounce. Glue, cut, weigh, grip; at the end everything is read again.
    """
    found = [Operation("read", "Read loft, lie and bounce on the gauge")]
    loft_limit, lie_limit = TOLERANCE["loft_deg"], TOLERANCE["lie_deg"]
    if lie_by_deg:
        way = "upright" if lie_by_deg > 0 else "flat"
        words = f"Bend lie {abs(lie_by_deg):g}° {way}"
        found.append(Operation("lie", words, lie_deg, lie_limit, "degrees", CAUTIONS["bend"]))
    if bend_deg:
        way = "weak" if bend_deg > 0 else "strong"
        words = f"Bend loft {abs(bend_deg):g}° {way}; bounce follows"
        found.append(Operation("loft", words, loft_deg, loft_limit, "degrees", CAUTIONS["bend"]))
    if ground is not None and ground.removed_g > 0.0:
        off, depth = quantity(f"{ground.removed_g:.1f}", "g"), quantity(f"{1000 * ground.depth:.1f}", "mm")
        words = f"Grind: {off} off, {depth} at the deepest"
        found.append(Operation("grind", words, round(1000.0 * ground.head.mass, 1), 0.5, "g", CAUTIONS["grind"]))
    if built is not None:
        words = f"Trim the tip, cut the butt by {quantity(f'{built.butt_trim_in:.2f}', 'in')}"
        found.append(Operation("cut", words, built.length_in, 0.06, "in", CAUTIONS["cut"]))
        if weighting is not None and weighting.tip_g >= 0.05:
            found.append(Operation("weight", "Weight in the tip", round(weighting.tip_g, 1), 0.2, "g"))
        found.append(Operation("glue", "Glue head and ferrule; let it cure", caution=CAUTIONS["glue"]))
        if weighting is not None and weighting.butt_g >= 0.05:
            found.append(Operation("weight", "Weight under the grip", round(weighting.butt_g, 1), 0.2, "g"))
        found.append(Operation("grip", "Grip on, square to the face", caution=CAUTIONS["glue"]))
        limit = TOLERANCE["swing_weight_points"]
        found.append(
            Operation("swing_weight", f"Read swing weight: {built.swing_weight}", round(built.points, 1), limit, "points")
        )
    found.append(Operation("final_loft", "Read loft", loft_deg, loft_limit, "degrees"))
    found.append(Operation("final_lie", "Read lie", lie_deg, lie_limit, "degrees"))
    return found


def action_of(*, owned: bool, bend_deg: float, lie_by_deg: float, ground: Ground | None) -> Action:
    """What is done with a club: a rack head replaces, a ground one is ground, a bent one bent, else it is kept."""
    if not owned:
        return "replace"
    if ground is not None and ground.removed_g > 0.0:
        return "grind"
    return "bend" if bend_deg or lie_by_deg else "keep"


def off(wanted: float, read: float, tolerance: float) -> float:
    """How far a reading is outside its tolerance; 0 where it is within."""
    return max(abs(read - wanted) - tolerance - 1e-9, 0.0)


@dataclass(frozen=True, slots=True)
class ReadBack:
    """A figure of a built club beside the wanted one, and by how much it is outside its tolerance."""

    key: str
    wanted: float
    read: float
    over: float


def read_back(
    head: Head, built: Assembly | None, loft_deg: float | None, lie_deg: float | None, points: float | None
) -> list[ReadBack]:
    """What was read of a club against its sheet; figures that were not read are left out."""
    wanted = {"loft_deg": head.loft_deg, "lie_deg": head.lie_deg, "swing_weight_points": built.points if built else None}
    read = {"loft_deg": loft_deg, "lie_deg": lie_deg, "swing_weight_points": points}
    return [
        ReadBack(key, want, got, off(want, got, TOLERANCE[key]))
        for key, want in wanted.items()
        if want is not None and (got := read[key]) is not None
    ]


def as_read(head: Head, loft_deg: float | None, lie_deg: float | None) -> Head:
    """The head at the figures that were read: bounce goes with loft, what was not read is as on the sheet."""
    moved = head if loft_deg is None else head.bent(loft_deg - head.loft_deg)
    return moved if lie_deg is None else replace(moved, lie_deg=lie_deg)
