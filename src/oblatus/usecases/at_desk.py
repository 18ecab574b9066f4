"""The shot desk: heads, one setup, one ground: pass, window, expected shares, flight, risk, and twins by setup."""

from __future__ import annotations

import math
from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from oblatus.core.bounds import Bound
from oblatus.core.clubs import Head
from oblatus.core.fitting.costs import quadrature
from oblatus.core.flight import Launch, flight_path
from oblatus.core.geometry import head_outline
from oblatus.core.strike import (
    OUTCOMES,
    FamilyJob,
    FamilyPool,
    StrikeResult,
    Window,
    _quality,
    ground_row,
    strike,
    strike_window,
)
from oblatus.core.strike.risk import Risk, risk_of
from oblatus.core.strike.single import approach, build_solid
from oblatus.core.strike.twin import find_twins
from oblatus.formats.convert import head_from
from oblatus.formats.fields import Strict, Within
from oblatus.formats.fitting import HeadDocument
from oblatus.formats.strike import GroundIn, StrikeOut, SwingIn, WindowOut, strike_out, window_out

PATH_ROWS = 60


class DeskIn(SwingIn):
    """Heads to compare with one setup on one ground, and the spread of attack, lean and entry."""

    heads: Annotated[tuple[HeadDocument, ...], Field(min_length=1, max_length=8)]
    ground: GroundIn
    attack_spread_deg: Annotated[float, Within(Bound(0, 6, "degrees"))] = 1.5
    lean_spread_deg: Annotated[float, Within(Bound(0, 6, "degrees"))] = 2.0
    entry_spread_mm: Annotated[float, Within(Bound(0, 60, "mm"))] = 15.0
    twins: bool = False


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
    risk: Literal["clear", "careful", "leave it"]
    risk_rule: str
    flight_m: list[list[float]]
    apex_m: float
    landing_deg: float
    scan_entry_mm: list[float]
    scan_carry_m: list[float]
    scan_outcome: list[str]
    twin: TwinOut | None


class DeskOut(Strict):
    """Every head, first the one in hand."""

    heads: list[DeskHeadOut]


def at_desk(body: DeskIn, pool: FamilyPool) -> DeskOut:
    """The engine's answer for every head."""
    heads = [head_from(document) for document in body.heads]
    expected = _expect(heads, body, pool)
    twins = find_twins(heads, body.swing(), body.ground.ground()) if body.twins else [None] * len(heads)
    return DeskOut(
        heads=[
            _head(head, body, expected[i], None if twin is None else TwinOut(
                opening_deg=twin.opening_deg, lean_deg=twin.lean_deg, likeness=round(twin.likeness, 3)
            ))
            for i, (head, twin) in enumerate(zip(heads, twins, strict=True))
        ]
    )  # fmt: skip


def _expect(heads: list[Head], body: DeskIn, pool: FamilyPool) -> np.ndarray[tuple[int, int], np.dtype[np.float64]]:
    kind, row = ground_row(body.ground.ground())
    ground = tuple(row.tolist())
    jobs = [FamilyJob(head, body.opening_deg, kind, ground, body.speed_mps, body.release) for head in heads]
    mean = np.array([math.radians(body.attack_deg), math.radians(body.lean_deg), body.entry_mm / 1000])
    spreads = [math.radians(body.attack_spread_deg), math.radians(body.lean_spread_deg), body.entry_spread_mm / 1000]
    root = np.diag(np.maximum(spreads, 1e-6))
    nodes, entries = quadrature(16)
    n = len(heads)
    return pool.expect(jobs, np.tile(mean, (n, 1)), np.tile(root, (n, 1, 1)), nodes, entries)


def _head(
    head: Head, body: DeskIn, expected: np.ndarray[tuple[int], np.dtype[np.float64]], twin: TwinOut | None
) -> DeskHeadOut:
    ground, swing = body.ground.ground(), body.swing()
    window = strike_window(head, swing, ground)
    result = strike(head, swing, ground, intended=window.level if window.level > 0 else None)
    shares: dict[str, float] = dict(
        zip(OUTCOMES, (round(float(s), 4) for s in expected[_quality.FIRST_SHARE :]), strict=True)
    )
    risk: Risk = risk_of(shares, head.loft_deg, result.carry if result.carry > 1 else window.level)
    flight, apex, landing = _flight(result)
    scan = slice(None, None, 2)
    return DeskHeadOut(
        outline_mm=[[x, z] for x, z in np.round(1000 * head_outline(head), 2).tolist()],
        strike=strike_out(result),
        window=window_out(window, result.extrapolated),
        path_mm=_path(head, result, body),
        contact_mm=_contact(result),
        expected_quality=round(float(expected[_quality.QUALITY]), 4),
        inside_share=_inside(window, body),
        shares={name: share for name, share in shares.items() if share > 0},
        risk=risk.light,
        risk_rule=risk.rule,
        flight_m=flight,
        apex_m=apex,
        landing_deg=landing,
        scan_entry_mm=np.round(1000 * window.entries[scan], 1).tolist(),
        scan_carry_m=np.round(window.carries[scan], 2).tolist(),
        scan_outcome=list(window.outcomes[scan]),
        twin=twin,
    )


def _inside(window: Window, body: DeskIn) -> float:
    """Share of the player's entries that fall inside the window."""
    if window.low is None or window.high is None:
        return 0.0
    mean, spread = body.entry_mm / 1000, max(body.entry_spread_mm / 1000, 1e-6)

    def below(x: float) -> float:
        return 0.5 * (1.0 + math.erf((x - mean) / (spread * math.sqrt(2.0))))

    return round((1.0 if window.open_ahead else below(window.high)) - below(window.low), 4)


def _path(head: Head, result: StrikeResult, body: DeskIn) -> list[list[float]]:
    """Edge x, z [mm] and pitch [degrees] along the pass; for a ball-first strike the contact alone."""
    before = approach(build_solid(head, body.opening_deg), body.swing())
    lead = [[round(1000 * x, 2), round(1000 * z, 2), round(math.degrees(p), 3)] for x, z, p in before.tolist()]
    if len(result.path) == 0:
        pitch = body.lean_deg - body.release / 1.1 * math.degrees(result.contact_x + 0.012)
        return [*lead, [round(1000 * result.contact_x, 2), round(1000 * result.leading_edge, 2), round(pitch, 3)]]
    rows = result.path[:PATH_ROWS]
    points = np.column_stack([1000 * rows[:, 0], 1000 * rows[:, 1], np.degrees(rows[:, 6])])
    return [*lead, *([float(value) for value in row] for row in np.round(points, 3))]


def _contact(result: StrikeResult) -> list[float] | None:
    """Edge position at contact [mm]."""
    if result.contact == "none":
        return None
    return [round(1000 * result.contact_x, 2), round(1000 * result.leading_edge, 2)]


def _flight(result: StrikeResult) -> tuple[list[list[float]], float, float]:
    if result.ball_speed < 1.5 or result.launch_deg < 1.0:
        return [], 0.0, 0.0
    spin = min(result.spin_rpm, 16000.0)
    flight, path = flight_path(Launch(result.ball_speed, min(result.launch_deg, 85.0), 0.0, spin, 0.0))
    points = np.vstack([path[:-1:3], path[-1:]])[:, :2]
    return np.round(points, 2).tolist(), round(flight.apex, 3), round(flight.landing_deg, 2)
