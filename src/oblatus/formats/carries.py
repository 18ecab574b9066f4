"""Carries as JSON: the matrix of clubs and swings, the ladder in its conditions, shots for a distance, and from what."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal

import numpy as np

from oblatus.core.bounds import FLIGHT, Bound
from oblatus.core.fitting.carries_of import CarryView, FullGap, GapKind
from oblatus.core.flight import GREEN_FIRMNESS, Air, Green
from oblatus.core.flight.impact import LieClass
from oblatus.core.gapping import Cell, CellEstimate, PlayerModel, Swing
from oblatus.core.gapping.conditions import (
    RUN_DOUBT,
    SAME_CARRY,
    SAME_LANDING_DEG,
    SAME_RUN,
    Conditions,
    LadderShot,
    shot_path,
)
from oblatus.core.gapping.estimates import Source, ToldBy
from oblatus.core.gapping.finder import Pin, compared, reasons_for
from oblatus.core.gapping.ladder import LEAST_RUNG_TOLERANCE, RUNG_TOLERANCE
from oblatus.core.gapping.strikes import STRIKE_FIGURES
from oblatus.core.grounds import GreenClass
from oblatus.core.words import counted, metres, percent, quantity, speed, trimmed
from oblatus.formats.fields import Strict, Within
from oblatus.formats.rounded import rounded
from oblatus.formats.strikes import MOST_SHOWN, ClubCode, StrikeDocument, SwingKey

NEXT_CELLS = 3
FINDER = Bound(5, 180, "m")
"""Distances for which shots are looked for."""


class ConditionsIn(Strict):
    """Wind at 10 m (against the ball positive), air, green and lie; and what to do with them."""

    wind_head_mps: Annotated[float, Within(FLIGHT["wind_head_mps"])] = 0.0
    wind_cross_mps: Annotated[float, Within(FLIGHT["wind_cross_mps"])] = 0.0
    temperature_c: Annotated[float, Within(FLIGHT["temperature_c"])] = 20.0
    altitude_m: Annotated[float, Within(FLIGHT["altitude_m"])] = 0.0
    green: GreenClass = "medium"
    lie: LieClass = "dry"


class CellKey(Strict):
    """A club at a loft with a swing."""

    club: ClubCode
    loft_deg: Annotated[float, Within(STRIKE_FIGURES["loft_deg"].bound)]
    swing: SwingKey


class CarriesIn(ConditionsIn):
    """The ladder of the bag, or of the proposed set; with a distance [m] and a pin, the shots for it.

    With a pinned rung, every other is told as it differs from it.
    """

    clubs: Literal["bag", "proposed"] = "bag"
    distance_m: Annotated[float, Within(FINDER)] | None = None
    pin: Pin = "middle"
    pinned: CellKey | None = None


class ClubRowOut(Strict):
    """A club of the matrix."""

    code: str
    name: str
    loft_deg: float


class SwingOut(Strict):
    """A swing of the matrix, with this player's share of full head speed."""

    key: str
    name: str
    speed_share: float


class CellOut(Strict):
    """A club with a swing in the given conditions: mean carry with its 80 % interval, spread of one ball, and flight.

    `from_what` says what the figure rests on; `path_m` are points (x, height) of its flight.
    """

    club: str
    name: str
    loft_deg: float
    swing: str
    swing_name: str
    source: Source
    count: int
    aside: int
    carry_m: float
    low_m: float
    high_m: float
    spread_m: float
    still_m: float
    club_speed_mps: float
    dynamic_loft_deg: float
    launch_deg: float
    spin_rpm: float
    apex_m: float
    landing_deg: float
    run_m: float
    total_m: float
    lateral_m: float
    gust_m: float
    from_what: str
    against_pinned: str
    path_m: list[list[float]]


class HoleOut(Strict):
    """Distances that no rung serves [m]."""

    low_m: float
    high_m: float


class OverlapOut(Strict):
    """Two rungs of different clubs that do the same job."""

    words: str
    carry_m: float


class FullGapOut(Strict):
    """Carry between neighbouring full swings [m]."""

    from_club: str
    to_club: str
    gap_m: float
    kind: GapKind


class ParameterOut(Strict):
    """An unknown of the player's model: what the strikes say beside what is usual."""

    name: str
    unit: str
    value: float
    error: float
    usual: float
    usual_error: float
    told_by: ToldBy


class OutlierOut(Strict):
    """A strike that does not fit the others."""

    strike: str
    share: float
    deviations: float
    words: str


class NextOut(Strict):
    """A cell worth five more balls, and what they would do."""

    club: str
    swing: str
    words: str


class FoundOut(Strict):
    """A shot for the asked distance, and how it differs from the first."""

    club: str
    loft_deg: float
    swing: str
    miss_m: float
    on_green: float
    near: float
    reasons: str
    against_first: str


class CarriesOut(Strict):
    """Everything of the Carries step in the given conditions."""

    conditions: ConditionsIn
    rows: list[ClubRowOut]
    swings: list[SwingOut]
    cells: list[CellOut]
    strikes: list[StrikeDocument]
    used: int
    aside: int
    scatter_share: float
    leave_one_out_m: float | None
    parameters: list[ParameterOut]
    outliers: list[OutlierOut]
    next: list[NextOut]
    holes: list[HoleOut]
    overlaps: list[OverlapOut]
    gaps: list[FullGapOut]
    faced: list[list[float]]
    found: list[FoundOut]
    rule: str


def _share(share: float) -> str:
    return quantity(trimmed(100.0 * share), "%")


RULE = (
    f"A hole lies farther than {_share(RUNG_TOLERANCE)} of the carry (at least {metres(LEAST_RUNG_TOLERANCE, 1)}) from "
    f"every rung; two rungs of different clubs overlap when carries agree within {_share(SAME_CARRY)}, landings within "
    f"{SAME_LANDING_DEG:g}° and releases within {metres(SAME_RUN)}. Release after landing is good to half of what is "
    f"shown, or {metres(RUN_DOUBT, 1)} near zero."
)


def conditions_from(asked: ConditionsIn) -> Conditions:
    """The engine's conditions."""
    air = Air(asked.temperature_c, asked.altitude_m, 0.5, asked.wind_head_mps, asked.wind_cross_mps)
    return Conditions(air, Green(GREEN_FIRMNESS[asked.green]), asked.lie)


def carries_out(view: CarryView, asked: CarriesIn, strikes: Sequence[StrikeDocument]) -> CarriesOut:
    """The matrix, the ladder and the shots for a distance."""
    model, shots, found, conditions = view.model, view.shots, view.found, view.conditions
    shown = {(row.code, row.loft_deg): row.name for row in view.rows}
    swings = {swing.key: swing for swing in model.carries.swings}
    name = _Names(shown, swings)
    wanted = None if asked.pinned is None else Cell(asked.pinned.club, asked.pinned.loft_deg, asked.pinned.swing)
    pinned = next((shot for shot in shots if shot.estimate.cell == wanted), None)
    return CarriesOut(
        conditions=ConditionsIn(**{field: getattr(asked, field) for field in ConditionsIn.model_fields}),
        rows=[ClubRowOut(code=row.code, name=row.name, loft_deg=rounded(row.loft_deg)) for row in view.rows],
        swings=[
            SwingOut(key=swing.key, name=swing.name, speed_share=rounded(swing.speed_share))
            for swing in model.carries.swings
        ],
        cells=[_cell(shot, name, conditions, model, pinned) for shot in shots],
        strikes=list(strikes[-MOST_SHOWN:]),
        used=model.used,
        aside=model.aside,
        scatter_share=rounded(model.scatter),
        leave_one_out_m=None if model.leave_one_out is None else rounded(model.leave_one_out),
        parameters=[
            ParameterOut(
                name=p.name, unit=p.unit, value=rounded(p.value), error=rounded(p.error), usual=rounded(p.usual),
                usual_error=rounded(p.usual_error), told_by=p.told_by,
            )
            for p in model.parameters
        ],
        outliers=[
            OutlierOut(
                strike=o.strike, share=rounded(o.share), deviations=rounded(o.deviations),
                words=f"{percent(abs(o.share))} {'long' if o.share > 0 else 'short'} of its club and swing, "
                f"{o.deviations:.1f} standard deviations off in its worst figure",
            )
            for o in model.outliers
        ],
        next=[
            NextOut(
                club=n.cell.club, swing=n.cell.swing,
                words=f"5 balls with the {name.of(n.cell.club, n.cell.loft_deg)} at {swings[n.cell.swing].name}: "
                f"its own doubt {_doubt(n.own_now, n.own_then)}, that of all carries {_doubt(n.all_now, n.all_then)}",
            )
            for n in model.next_cells
            if (n.cell.club, n.cell.loft_deg) in shown
        ][:NEXT_CELLS],
        holes=[HoleOut(low_m=rounded(h.low), high_m=rounded(h.high)) for h in view.holes],
        overlaps=[
            OverlapOut(
                words=f"{name.shot(a)} and {name.shot(b)}: both {metres(a.carry)}, landing and release alike",
                carry_m=rounded(a.carry),
            )
            for a, b in view.overlaps
        ],
        gaps=[_gap(gap, name) for gap in view.gaps],
        faced=np.round(
            np.column_stack([view.faced.centres, view.faced.weights * len(view.faced.weights)]), 3
        ).tolist(),
        found=[
            FoundOut(
                club=f.shot.estimate.cell.club,
                loft_deg=rounded(f.shot.estimate.cell.loft_deg), swing=f.shot.estimate.cell.swing,
                miss_m=rounded(f.miss),
                on_green=rounded(f.on_green), near=rounded(f.near), reasons=reasons_for(f, asked.distance_m or 0.0),
                against_first="" if i == 0 else compared(found[0].shot, f.shot),
            )
            for i, f in enumerate(found)
        ],
        rule=RULE,
    )  # fmt: skip


class _Names:
    """Names of clubs and swings."""

    def __init__(self, clubs: dict[tuple[str, float], str], swings: dict[str, Swing]) -> None:
        self.clubs, self.swings = clubs, swings

    def of(self, code: str, loft_deg: float) -> str:
        """A club."""
        return self.clubs[code, loft_deg]

    def shot(self, shot: LadderShot) -> str:
        """A club with its swing."""
        cell = shot.estimate.cell
        return f"{self.of(cell.club, cell.loft_deg)} {self.swings[cell.swing].name}"


def _gap(gap: FullGap, name: _Names) -> FullGapOut:
    one, other = gap.weaker.estimate.cell, gap.stronger.estimate.cell
    return FullGapOut(
        from_club=name.of(one.club, one.loft_deg), to_club=name.of(other.club, other.loft_deg),
        gap_m=rounded(gap.metres), kind=gap.kind,
    )  # fmt: skip


def _cell(
    shot: LadderShot, name: _Names, conditions: Conditions, model: PlayerModel, pinned: LadderShot | None
) -> CellOut:
    estimate = shot.estimate
    cell = estimate.cell
    return CellOut(
        club=cell.club,
        name=name.of(cell.club, cell.loft_deg),
        loft_deg=rounded(cell.loft_deg),
        swing=cell.swing,
        swing_name=name.swings[cell.swing].name,
        source=estimate.source,
        count=estimate.count,
        aside=estimate.aside,
        carry_m=rounded(shot.carry),
        low_m=rounded(shot.low),
        high_m=rounded(shot.high),
        spread_m=rounded(shot.spread),
        still_m=rounded(shot.still),
        club_speed_mps=rounded(shot.club_speed),
        dynamic_loft_deg=rounded(shot.dynamic_loft_deg),
        launch_deg=rounded(shot.launch.launch_deg),
        spin_rpm=rounded(shot.launch.spin_rpm, 0),
        apex_m=rounded(shot.apex),
        landing_deg=rounded(shot.landing_deg),
        run_m=rounded(shot.run),
        total_m=rounded(shot.total),
        lateral_m=rounded(shot.lateral),
        gust_m=rounded(shot.gust),
        from_what=from_what(estimate, model),
        against_pinned="" if pinned is None or pinned is shot else compared(pinned, shot),
        path_m=np.round(shot_path(shot, conditions), 2).tolist(),
    )


def from_what(estimate: CellEstimate, model: PlayerModel) -> str:
    """What a figure rests on."""
    aside = f", {estimate.aside} set aside" if estimate.aside else ""
    head_speed = f"{speed(model.carries.speed)} of head speed with the full pitching wedge"
    if estimate.source == "measured":
        share = round(estimate.own_share - 1.0, 3)
        held = "as the player's model has it"
        if share:
            held = f"{percent(abs(share), 1)} {'longer' if share > 0 else 'shorter'} than the player's model"
        return (
            f"{counted(estimate.count, 'strike')} of its own{aside}, "
            f"taken {held} ({counted(model.used, 'strike')} in all)"
        )
    if estimate.source == "modelled" and model.used:
        return f"no strike of its own{aside}: the model of this player, by {counted(model.used, 'strike')}, {head_speed}"
    if estimate.source == "modelled":
        return f"no strikes: the flight model, with {head_speed} from the one carry or speed that is known"
    return f"nothing measured: a usual player, {head_speed}"


def _doubt(now: float, then: float) -> str:
    """How a doubt [m] falls."""
    before, after = round(now, 1), round(then, 1)
    if before == after:
        return f"stays ±{metres(before, 1)}"
    return f"from ±{metres(before, 1)} to ±{metres(after, 1)}"
