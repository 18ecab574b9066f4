"""The build of a fitting's document: every club as it is to be made and was read, and the prices."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from oblatus.core.bounds import Bound
from oblatus.core.build.assembly import LENGTH
from oblatus.core.build.parts import GRIP_OF, SHAFT_OF
from oblatus.core.build.sheet import PRICE_LIST, Prices
from oblatus.core.clubs import Head
from oblatus.core.figures import figures
from oblatus.formats.fields import Strict, Within
from oblatus.formats.limits import MOST_BENDS_BEFORE
from oblatus.formats.sections.bag import SwingWeight
from oblatus.formats.sections.parts import LOFT

PRICES = Prices()

BUILD = {
    "loft_deg": LOFT, "lie_deg": figures(Head)["lie_deg"].bound, "length_in": LENGTH, "bent_deg": Bound(-4, 4, "degrees"),
    "lie_mark_mm": Bound(-25, 25, "mm"),
    "heel_mm": Bound(0, 3, "mm"), "toe_mm": Bound(0, 3, "mm"), "back_fraction": Bound(0, 0.5, "", percent=True),
    "back_deg": Bound(0, 20, "degrees"), "bevel_mm": Bound(0, 6, "mm"), "bevel_deg": Bound(0, 15, "degrees"),
}  # fmt: skip
"""What a club on the build sheet may be."""

BendDegrees = Annotated[float, Within(BUILD["bent_deg"])]


class GrindDocument(Strict):
    """Metal to be taken off a sole, beside what it has."""

    heel_mm: Annotated[float, Within(BUILD["heel_mm"])] = 0.0
    toe_mm: Annotated[float, Within(BUILD["toe_mm"])] = 0.0
    back_fraction: Annotated[float, Within(BUILD["back_fraction"])] = 0.0
    back_deg: Annotated[float, Within(BUILD["back_deg"])] = 0.0
    bevel_mm: Annotated[float, Within(BUILD["bevel_mm"])] = 0.0
    bevel_deg: Annotated[float, Within(BUILD["bevel_deg"])] = 0.0


class AsBuiltDocument(Strict):
    """What was read of a built club; None where it was not read. `typed`: by hand, not taken over from the gauge."""

    loft_deg: Annotated[float, Within(BUILD["loft_deg"])] | None = None
    lie_deg: Annotated[float, Within(BUILD["lie_deg"])] | None = None
    swing_weight: SwingWeight | None = None
    typed: bool = True


class BuildClubDocument(Strict):
    """A club to be built: its head (own:N or the rack's code) at a loft; what is None stays as it is.

    `lie_mark_mm`: where the sole marked the board, from its middle towards the toe.
    """

    code: Annotated[str, StringConstraints(min_length=1, max_length=40)]
    loft_deg: Annotated[float, Within(BUILD["loft_deg"])]
    lie_deg: Annotated[float, Within(BUILD["lie_deg"])] | None = None
    lie_mark_mm: Annotated[float, Within(BUILD["lie_mark_mm"])] | None = None
    bent_before_deg: Annotated[tuple[BendDegrees, ...], Field(max_length=MOST_BENDS_BEFORE)] = ()
    grind: GrindDocument = GrindDocument()
    length_in: Annotated[float, Within(BUILD["length_in"])] | None = None
    shaft: Literal[tuple(SHAFT_OF)] | None = None  # type: ignore[valid-type]
    grip: Literal[tuple(GRIP_OF)] | None = None  # type: ignore[valid-type]
    swing_weight: SwingWeight | None = None
    read: AsBuiltDocument = AsBuiltDocument()


class PricesDocument(Strict):
    """The studio's price list for work, and tax as a share."""

    bend: Annotated[float, Within(PRICE_LIST["bend"][1])] = PRICES.bend
    lie: Annotated[float, Within(PRICE_LIST["lie"][1])] = PRICES.lie
    grind: Annotated[float, Within(PRICE_LIST["grind"][1])] = PRICES.grind
    assemble: Annotated[float, Within(PRICE_LIST["assemble"][1])] = PRICES.assemble
    weigh: Annotated[float, Within(PRICE_LIST["weigh"][1])] = PRICES.weigh
    tax: Annotated[float, Within(PRICE_LIST["tax"][1])] = PRICES.tax


class BuildDocument(Strict):
    """The set as it is to be built; without clubs it is the proposed one as it stands. `prices` None: the studio's."""

    clubs: Annotated[tuple[BuildClubDocument, ...], Field(max_length=8)] = ()
    prices: PricesDocument | None = None
