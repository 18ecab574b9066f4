"""The shot desk as JSON: heads, one setup, one ground in; pass, window, shares, flight and risk out."""

from __future__ import annotations

from typing import Annotated

import numpy as np
from pydantic import Field

from oblatus.core.bounds import Bound
from oblatus.core.fitting.desk import Desk, DeskHead, Spreads
from oblatus.core.strike.risk import Light
from oblatus.formats.fields import Strict, Within
from oblatus.formats.heads import outline_mm
from oblatus.formats.rounded import rounded
from oblatus.formats.sections.bag import HeadDocument
from oblatus.formats.strike import GroundIn, StrikeOut, SwingIn, WindowOut, strike_out, window_out


class DeskIn(SwingIn):
    """Heads to compare with one setup on one ground, and the spread of attack, lean and entry."""

    heads: Annotated[tuple[HeadDocument, ...], Field(min_length=1, max_length=8)]
    ground: GroundIn
    attack_spread_deg: Annotated[float, Within(Bound(0, 6, "degrees"))] = 1.5
    lean_spread_deg: Annotated[float, Within(Bound(0, 6, "degrees"))] = 2.0
    entry_spread_mm: Annotated[float, Within(Bound(0, 60, "mm"))] = 15.0
    twins: bool = False

    def spreads(self) -> Spreads:
        """The engine's spreads."""
        return Spreads(self.attack_spread_deg, self.lean_spread_deg, self.entry_spread_mm / 1000.0)


class TwinOut(Strict):
    """A setup that makes this head behave like the first one on this ground; `likeness` 0..1."""

    opening_deg: float
    lean_deg: float
    likeness: float


class DeskHeadOut(Strict):
    """One head at the desk."""

    outline_mm: list[list[float]]
    strike: StrikeOut
    window: WindowOut
    path_mm: list[list[float]]
    contact_mm: list[float] | None
    expected_quality: float
    inside_share: float
    shares: dict[str, float]
    risk: Light
    risk_rule: str
    flight_m: list[list[float]]
    apex_m: float
    landing_deg: float
    scan_entry_mm: list[float]
    scan_carry_m: list[float]
    scan_outcome: list[str]
    twin: TwinOut | None


class DeskOut(Strict):
    """Every head, first the one in hand; `thatch_mm` is how deep turf gives before the soil, 0 in sand."""

    heads: list[DeskHeadOut]
    thatch_mm: float


def desk_out(desk: Desk) -> DeskOut:
    """The engine's answer in millimetres and degrees."""
    return DeskOut(heads=[_head(head) for head in desk.heads], thatch_mm=rounded(1000.0 * desk.thatch))


def _head(found: DeskHead) -> DeskHeadOut:
    result, window, twin = found.result, found.window, found.twin
    met = [rounded(1000 * result.contact_x), rounded(1000 * result.leading_edge)]
    path = np.column_stack([1000 * found.path[:, :2], np.degrees(found.path[:, 2])])
    scan = slice(None, None, 2)
    return DeskHeadOut(
        outline_mm=outline_mm(found.head),
        strike=strike_out(result),
        window=window_out(window, result.extrapolated),
        path_mm=np.round(path, 3).tolist(),
        contact_mm=None if result.contact == "none" else met,
        expected_quality=rounded(found.quality),
        inside_share=rounded(found.inside),
        shares={name: rounded(share) for name, share in found.shares.items() if share >= 5e-5},
        risk=found.risk.light,
        risk_rule=found.risk.rule,
        flight_m=np.round(found.flight, 2).tolist(),
        apex_m=rounded(found.apex),
        landing_deg=rounded(found.landing_deg),
        scan_entry_mm=np.round(1000 * window.entries[scan], 1).tolist(),
        scan_carry_m=np.round(window.carries[scan], 2).tolist(),
        scan_outcome=list(window.outcomes[scan]),
        twin=None
        if twin is None
        else TwinOut(opening_deg=twin.opening_deg, lean_deg=twin.lean_deg, likeness=rounded(twin.likeness)),
    )
