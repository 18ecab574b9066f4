"""Measured strikes as JSON, and read from pasted text."""

from __future__ import annotations

from typing import Annotated, Any, Literal, Self
from uuid import UUID

from pydantic import StringConstraints, model_validator

from oblatus.core.gapping import MeasuredStrike
from oblatus.core.gapping.strikes import BOUNDS
from oblatus.formats.fields import Strict, Within, at_field

ClubCode = Annotated[str, StringConstraints(min_length=1, max_length=40)]
SwingKey = Annotated[str, StringConstraints(pattern=r"^[a-z0-9_]{1,24}$")]
Reason = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]
Origin = Literal["typed", "pasted", "file", "device"]

MOST_SHOWN = 3000
"""Strikes that an answer lists, the newest; figures are over all of them."""

FIGURES = (
    "carry_m", "club_speed_mps", "ball_speed_mps", "launch_deg", "spin_rpm", "apex_m", "landing_deg", "attack_deg",
    "lean_deg", "entry_mm", "dynamic_loft_deg", "impact_height_mm", "divot", "exit_mm", "mark_back_mm", "mark_toe_mm",
)  # fmt: skip


class StrikeDocument(Strict):
    """One strike. `id` is given where it is taken, so that it is never counted twice.

    `club` is 9i, pw, own:N (the Nth owned wedge) or a head's code on the rack; `loft_deg` its loft when it was hit;
    `swing` full, 1030, 900, a swing of the fitter's own, or a station: pitch, chip, sand, practice. At least one figure
    is measured. `set_aside` says why it does not count; `simulated` that a stand-in device made it up.
    """

    id: UUID
    club: ClubCode
    loft_deg: Annotated[float, Within(BOUNDS["loft_deg"])]
    swing: SwingKey
    carry_m: Annotated[float, Within(BOUNDS["carry_m"])] | None = None
    club_speed_mps: Annotated[float, Within(BOUNDS["club_speed_mps"])] | None = None
    ball_speed_mps: Annotated[float, Within(BOUNDS["ball_speed_mps"])] | None = None
    launch_deg: Annotated[float, Within(BOUNDS["launch_deg"])] | None = None
    spin_rpm: Annotated[float, Within(BOUNDS["spin_rpm"])] | None = None
    apex_m: Annotated[float, Within(BOUNDS["apex_m"])] | None = None
    landing_deg: Annotated[float, Within(BOUNDS["landing_deg"])] | None = None
    attack_deg: Annotated[float, Within(BOUNDS["attack_deg"])] | None = None
    lean_deg: Annotated[float, Within(BOUNDS["lean_deg"])] | None = None
    entry_mm: Annotated[float, Within(BOUNDS["entry_mm"])] | None = None
    dynamic_loft_deg: Annotated[float, Within(BOUNDS["dynamic_loft_deg"])] | None = None
    impact_height_mm: Annotated[float, Within(BOUNDS["impact_height_mm"])] | None = None
    exit_mm: Annotated[float, Within(BOUNDS["exit_mm"])] | None = None
    mark_back_mm: Annotated[float, Within(BOUNDS["mark_back_mm"])] | None = None
    mark_toe_mm: Annotated[float, Within(BOUNDS["mark_toe_mm"])] | None = None
    divot: Literal["none", "bruise", "shallow", "deep"] | None = None
    note: Annotated[str, StringConstraints(max_length=200)] = ""
    set_aside: Reason | None = None
    origin: Origin = "typed"
    simulated: bool = False

    @classmethod
    def of_row(cls, row: dict[str, Any]) -> Self:
        """A strike that was checked when it was taken, with every field given: nothing is looked at again.

        pydantic's own way to that takes 50 microseconds a strike, with 100,000 of them to be made for every question.
        """
        made = cls.__new__(cls)
        object.__setattr__(made, "__dict__", row)
        object.__setattr__(made, "__pydantic_fields_set__", ALL_FIELDS)
        object.__setattr__(made, "__pydantic_extra__", None)
        object.__setattr__(made, "__pydantic_private__", None)
        return made

    @model_validator(mode="after")
    def _something_is_measured(self) -> Self:
        if all(getattr(self, name) is None for name in FIGURES):
            raise at_field("carry_m", "nothing was measured of this strike")
        if self.exit_mm is not None and self.entry_mm is not None and self.exit_mm <= self.entry_mm:
            raise at_field("exit_mm", "must lie ahead of the entry")
        return self


ALL_FIELDS = set(StrikeDocument.model_fields)


def strike_from(document: StrikeDocument) -> MeasuredStrike:
    """The engine's strike."""
    return MeasuredStrike(
        id=str(document.id),
        club=document.club,
        loft_deg=document.loft_deg,
        swing=document.swing,
        carry=document.carry_m,
        club_speed=document.club_speed_mps,
        ball_speed=document.ball_speed_mps,
        launch_deg=document.launch_deg,
        spin_rpm=document.spin_rpm,
        apex=document.apex_m,
        landing_deg=document.landing_deg,
        set_aside=document.set_aside,
        attack_deg=document.attack_deg,
        lean_deg=document.lean_deg,
        entry=None if document.entry_mm is None else document.entry_mm / 1000.0,
        dynamic_loft_deg=document.dynamic_loft_deg,
        impact_height=None if document.impact_height_mm is None else document.impact_height_mm / 1000.0,
        exit=None if document.exit_mm is None else document.exit_mm / 1000.0,
        mark_back=None if document.mark_back_mm is None else document.mark_back_mm / 1000.0,
        mark_toe=None if document.mark_toe_mm is None else document.mark_toe_mm / 1000.0,
    )
