"""How carries are measured, and what balls have proved of heads."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal, Self
from uuid import UUID

from pydantic import Field, StringConstraints, model_validator

from oblatus.core.bounds import FLIGHT, Bound
from oblatus.core.gapping import SWINGS
from oblatus.core.gapping.strikes import SHORT_STATIONS
from oblatus.core.shots import SHORT_SHOTS
from oblatus.formats.fields import Strict, Within, at_field
from oblatus.formats.limits import MOST_OWN_SWINGS, NAME_LETTERS, SWING_NAME_LETTERS
from oblatus.formats.sections.bag import HeadDocument
from oblatus.formats.sections.parts import Name
from oblatus.formats.strikes import SwingKey


class SwingDocument(Strict):
    """A swing of the fitter's own: key, name, head speed as a share of full, lean beyond the habit [degrees]."""

    key: SwingKey
    name: Annotated[str, StringConstraints(min_length=1, max_length=SWING_NAME_LETTERS, strip_whitespace=True)]
    speed_share: Annotated[float, Within(Bound(0.2, 1.05, "", percent=True))] = 0.8
    extra_lean_deg: Annotated[float, Within(Bound(-6, 8, "degrees"))] = 0.0


class MeasuringDocument(Strict):
    """How carries are measured: the fitter's own swings beside full, 10:30 and 9:00, and the air of the session."""

    swings: Annotated[tuple[SwingDocument, ...], Field(max_length=MOST_OWN_SWINGS)] = ()
    temperature_c: Annotated[float, Within(FLIGHT["temperature_c"])] = 20.0
    altitude_m: Annotated[float, Within(FLIGHT["altitude_m"])] = 0.0

    @model_validator(mode="after")
    def _swings_differ(self) -> Self:
        keys = [*(swing.key for swing in SWINGS), *SHORT_STATIONS, *(swing.key for swing in self.swings)]
        twice = next((key for key in keys if keys.count(key) > 1), None)
        if twice is not None:
            raise at_field("swings", f"two swings have the key {twice}")
        return self


class ShiftDocument(Strict):
    """What balls showed of a head in one situation: strokes a shot more than the model says, and how sure."""

    shot: Literal[SHORT_SHOTS]  # type: ignore[valid-type]
    strokes: Annotated[float, Within(Bound(-2, 2, "strokes"))]
    spread: Annotated[float, Within(Bound(0, 2, "strokes"))]
    balls: Annotated[int, Within(Bound(1, 10_000, "balls"))]


ProofStanding = Literal["proved", "level", "contradicted", "open"]


class HeadEvidenceDocument(Strict):
    """What was shown of a head, by a proof or by the course; it counts in the proposal.

    `source_id` is the proof's; `against` the club that it was compared with; `standing` how the model's promise came off.
    The head is kept as it was proved: it is found again bent or not, and without effect once it is neither owned nor on
    the rack.
    """

    source: Literal["proof", "log"]
    source_id: UUID
    on: date
    name: Name
    against: Annotated[str, StringConstraints(max_length=NAME_LETTERS)] = ""
    standing: ProofStanding = "open"
    head: HeadDocument
    shots: Annotated[tuple[ShiftDocument, ...], Field(min_length=1, max_length=20)]
