"""Measured strikes as JSON, and read from pasted text."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

from pydantic import StringConstraints

from oblatus.core.gapping import MeasuredStrike
from oblatus.core.gapping.strikes import BOUNDS
from oblatus.formats.fields import Strict, Within

ClubCode = Annotated[str, StringConstraints(min_length=1, max_length=40)]
SwingKey = Annotated[str, StringConstraints(pattern=r"^[a-z0-9_]{1,24}$")]
Reason = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]
Origin = Literal["typed", "pasted", "file", "device"]

ASIDE_REASONS = ("thin", "heavy", "toe or heel", "not the swing meant", "misread")


class StrikeDocument(Strict):
    """One ball. `id` is given where the strike is taken, so that it is never counted twice.

    `club` is 9i, pw, own:N (the Nth owned wedge) or a head's code on the rack; `loft_deg` its loft when it was hit;
    `swing` full, 1030, 900 or a swing of the fitter's own. `set_aside` says why it does not count.
    """

    id: UUID
    club: ClubCode
    loft_deg: Annotated[float, Within(BOUNDS["loft_deg"])]
    swing: SwingKey
    carry_m: Annotated[float, Within(BOUNDS["carry_m"])]
    club_speed_mps: Annotated[float, Within(BOUNDS["club_speed_mps"])] | None = None
    ball_speed_mps: Annotated[float, Within(BOUNDS["ball_speed_mps"])] | None = None
    launch_deg: Annotated[float, Within(BOUNDS["launch_deg"])] | None = None
    spin_rpm: Annotated[float, Within(BOUNDS["spin_rpm"])] | None = None
    apex_m: Annotated[float, Within(BOUNDS["apex_m"])] | None = None
    landing_deg: Annotated[float, Within(BOUNDS["landing_deg"])] | None = None
    set_aside: Reason | None = None
    origin: Origin = "typed"


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
    )
