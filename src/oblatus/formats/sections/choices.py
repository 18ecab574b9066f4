"""The fitter's choices of a fitting's document: ladder, heads chosen by hand, shots, what a stroke is worth."""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated, Literal, Self

from pydantic import Field, StringConstraints, model_validator

from oblatus.core.bounds import Bound
from oblatus.core.constants import MOST_WEDGES
from oblatus.core.gapping.ladder import MOST_LOFT_DEG
from oblatus.core.shots import SHORT_SHOTS
from oblatus.core.strokes.situations import Short
from oblatus.core.words import metres
from oblatus.formats.fields import Strict, Within, at_field
from oblatus.formats.limits import MOST_BANDS
from oblatus.formats.sections.parts import Share


class PinnedHead(Strict):
    """The fitter's own choice of head for one loft of the ladder; `code` is the rack's, or own:N for an owned wedge."""

    loft_deg: Annotated[float, Within(Bound(44, 64, "degrees"))]
    code: Annotated[str, StringConstraints(min_length=1, max_length=40)]


BAND_FROM, BAND_TO = Bound(0, 170, "m"), Bound(5, 200, "m")
LEAST_BAND = 1.0
"""Metres between the two ends of a band."""
LEAST_FRONT = 1.0
"""Metres from the ball to the front edge of the green."""
LOFTS = Bound(44, MOST_LOFT_DEG, "degrees")


class BandDocument(Strict):
    """How much of the golf asks for distances between two."""

    from_m: Annotated[float, Within(BAND_FROM)]
    to_m: Annotated[float, Within(BAND_TO)]
    share: Share

    @model_validator(mode="after")
    def _rises(self) -> Self:
        if self.to_m - self.from_m < LEAST_BAND:
            raise at_field("to_m", f"must lie at least {metres(LEAST_BAND, 1)} beyond the start")
        return self


Factor = Annotated[float, Within(Bound(0, 5, ""))]


class LadderFactors(Strict):
    """How much each part of the ladder's penalty weighs, 1 being usual."""

    uncovered: Factor = 1.0
    gaps: Factor = 1.0
    steps: Factor = 1.0
    overlaps: Factor = 1.0
    top_loft: Factor = 1.0
    alternatives: Factor = 1.0
    cost: Factor = 1.0


class HoleDocument(Strict):
    """Where the hole is for a shot [m]: its distance, the room from the front edge to it, the green behind, what
    lies short.
    """

    shot: Literal[SHORT_SHOTS]  # type: ignore[valid-type]
    hole_m: Annotated[float, Within(Bound(3, 80, "m"))]
    room_m: Annotated[float, Within(Bound(1, 40, "m"))]
    behind_m: Annotated[float, Within(Bound(1, 40, "m"))]
    short: Short

    @model_validator(mode="after")
    def _edge_is_ahead(self) -> Self:
        if self.room_m > self.hole_m - LEAST_FRONT:
            raise at_field("room_m", f"leaves less than {metres(LEAST_FRONT, 1)} to the front edge")
        return self


class EconomyDocument(Strict):
    """What a round and a change are worth; null where the usual figure stands."""

    shots_a_round: Annotated[float, Within(Bound(1, 60, "shots"))] | None = None
    worth_changing: Annotated[float, Within(Bound(0, 2, "strokes a round"))] | None = None
    slot: Annotated[float, Within(Bound(0, 2, "strokes a round"))] | None = None
    practice: Annotated[float, Within(Bound(0, 0.2, "strokes a shot"))] | None = None
    table_scale: Annotated[float, Within(Bound(0.3, 2.5, ""))] | None = None
    claims_sd: Annotated[float, Within(Bound(0.05, 1.0, ""))] | None = None


class ChoicesDocument(Strict):
    """What the fitter has settled by hand; `distances` null when the shot mix says how often each is faced.

    `layouts` are the shots whose hole stands elsewhere than usual; `heads_bought` the step of change that is taken
    instead of the proposed one: -1 keeps the bag as it is, 0 bends only.
    """

    ladder_factors: LadderFactors = LadderFactors()
    distances: Annotated[tuple[BandDocument, ...], Field(min_length=1, max_length=MOST_BANDS)] | None = None

    pinned: Annotated[tuple[PinnedHead, ...], Field(max_length=MOST_WEDGES)] = ()
    layouts: Annotated[tuple[HoleDocument, ...], Field(max_length=20)] = ()
    economy: EconomyDocument = EconomyDocument()
    heads_bought: Annotated[int, Within(Bound(-1, MOST_WEDGES, "heads"))] | None = None

    ladder_deg: (
        Annotated[tuple[Annotated[float, Within(LOFTS)], ...], Field(min_length=1, max_length=MOST_WEDGES)] | None
    ) = None

    @model_validator(mode="after")
    def _one_layout_a_shot(self) -> Self:
        shots = [layout.shot for layout in self.layouts]
        twice = next((shot for shot in shots if shots.count(shot) > 1), None)
        if twice is not None:
            raise at_field("layouts", f"two layouts are for {twice}")
        return self

    @model_validator(mode="after")
    def _ascending(self) -> Self:
        lofts = self.ladder_deg or ()
        if any(b - a < 0.5 for a, b in pairwise(lofts)):
            raise at_field("ladder_deg", "must rise by at least half a degree from club to club")
        return self
