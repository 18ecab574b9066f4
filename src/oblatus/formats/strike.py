"""A strike as JSON: what `oblatus strike`, `oblatus window` and the shot desk take and answer. Keys carry units."""

from __future__ import annotations

import json
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from oblatus.core.bounds import DELIVERY, Bound
from oblatus.core.grounds import BOUNDS, Sand, Turf
from oblatus.core.strike import PRODUCTION, REFERENCE, StrikeResult, Swing, Window, strike, strike_window
from oblatus.core.strike.single import RELEASE_BOUND, SPEED_BOUND
from oblatus.errors import Fault, InputError, fault
from oblatus.formats.convert import head_from
from oblatus.formats.fields import Strict, Within, faults_of
from oblatus.formats.fitting import HeadDocument

MOST_STRIKES = 10_000
_PATH_COLUMNS = ("x_mm", "z_mm", "vx_mps", "vz_mps", "edge_material_g_per_mm", "sole_material_g_per_mm", "pitch_deg")


class TurfIn(Strict):
    """Turf by its readings."""

    kind: Literal["turf"]
    firmness_g: Annotated[float, Within(BOUNDS["firmness_g"])] = 90.0
    moisture: Annotated[float, Within(BOUNDS["turf_moisture"])] = 0.5
    root_density: Annotated[float, Within(BOUNDS["root_density"])] = 1.0
    ball_height_mm: Annotated[float, Within(BOUNDS["ball_height_mm"])] = 3.5

    def ground(self) -> Turf:
        """The engine's turf."""
        return Turf(self.firmness_g, self.ball_height_mm / 1000.0, self.moisture, self.root_density)


class SandIn(Strict):
    """Sand by its readings."""

    kind: Literal["sand"]
    penetrometer_kg_cm2: Annotated[float, Within(BOUNDS["penetrometer_kg_cm2"])] = 2.0
    loose_depth_mm: Annotated[float, Within(BOUNDS["loose_depth_mm"])] = 80.0
    moisture: Annotated[float, Within(BOUNDS["sand_moisture"])] = 0.3
    plug_depth_mm: Annotated[float, Within(BOUNDS["plug_depth_mm"])] = 3.0

    def ground(self) -> Sand:
        """The engine's sand."""
        return Sand(self.penetrometer_kg_cm2, self.loose_depth_mm / 1000.0, self.moisture, self.plug_depth_mm / 1000.0)


GroundIn = Annotated[TurfIn | SandIn, Field(discriminator="kind")]


class SwingIn(Strict):
    """How the club is set and swung; `entry_mm` is from the ball's centre, behind negative."""

    opening_deg: Annotated[float, Within(DELIVERY["opening_deg"])] = 0.0
    lean_deg: Annotated[float, Within(DELIVERY["lean_deg"])] = 0.0
    attack_deg: Annotated[float, Within(DELIVERY["attack_deg"])] = -5.0
    speed_mps: Annotated[float, Within(SPEED_BOUND)] = 20.0
    release: Annotated[float, Within(RELEASE_BOUND)] = 1.0
    entry_mm: Annotated[float, Within(DELIVERY["entry_mm"])] = -34.0

    def swing(self) -> Swing:
        """The engine's swing."""
        return Swing(
            self.opening_deg, self.lean_deg, self.attack_deg, self.speed_mps, self.release, self.entry_mm / 1000.0
        )


class StrikeIn(SwingIn):
    """One strike: a club, a swing and a ground."""

    club: HeadDocument
    ground: GroundIn
    intended_carry_m: Annotated[float, Within(Bound(1, 120, "m"))] | None = None


class StrikeOut(Strict):
    """What the strike did; `extrapolated` names what lies outside the calibrated range."""

    contact: Literal["face", "edge", "none"]
    impact_height_mm: float
    leading_edge_mm: float
    speed_ratio: float
    material_g: float
    ball_speed_mps: float
    launch_deg: float
    spin_rpm: float
    outcome: str
    carry_m: float
    intended_carry_m: float
    delivered_loft_deg: float
    delivered_bounce_deg: float
    extrapolated: list[str]


class WindowOut(Strict):
    """The strike window: entries from the ball's centre [mm], null when no entry plays."""

    low_mm: float | None
    high_mm: float | None
    width_mm: float
    open_ahead: bool
    level_carry_m: float
    extrapolated: list[str]


def load_strikes(text: str) -> tuple[list[StrikeIn], bool]:
    """Strikes from JSON: one object, or a list of them; the second value says whether it was a list.

    Raises
    ------
    InputError
        Naming the index in a list, the field, the value and its bounds.
    """
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise fault("file", f"is not JSON: {str(error)[:120]}") from error
    many = isinstance(data, list)
    items: list[Any] = data if many else [data]
    if len(items) > MOST_STRIKES:
        raise fault("file", f"holds more than {MOST_STRIKES} strikes", len(items))
    found: list[StrikeIn] = []
    faults: list[Fault] = []
    for index, item in enumerate(items):
        try:
            found.append(StrikeIn.model_validate(item))
        except ValidationError as error:
            faults.extend(faults_of(error, [str(index)] if many else []).faults)
    if faults:
        raise InputError(faults)
    return found, many


def run_strike(item: StrikeIn, *, reference: bool = False) -> StrikeResult:
    """The engine's answer to a strike; `reference` takes the fine mesh."""
    return strike(
        head_from(item.club),
        item.swing(),
        item.ground.ground(),
        mesh=REFERENCE if reference else PRODUCTION,
        intended=item.intended_carry_m,
    )


def run_window(item: StrikeIn) -> Window:
    """The strike window of a strike's club, swing and ground; its entry does not matter."""
    return strike_window(head_from(item.club), item.swing(), item.ground.ground())


def strike_out(result: StrikeResult) -> StrikeOut:
    """The result in millimetres, grams and degrees."""
    return StrikeOut(
        contact=result.contact,
        impact_height_mm=_r(1000 * result.impact_height),
        leading_edge_mm=_r(1000 * result.leading_edge),
        speed_ratio=_r(result.speed_ratio, 4),
        material_g=_r(1000 * result.material),
        ball_speed_mps=_r(result.ball_speed),
        launch_deg=_r(result.launch_deg),
        spin_rpm=_r(result.spin_rpm, 0),
        outcome=result.outcome,
        carry_m=_r(result.carry),
        intended_carry_m=_r(result.intended),
        delivered_loft_deg=_r(result.delivered_loft_deg),
        delivered_bounce_deg=_r(result.delivered_bounce_deg),
        extrapolated=list(result.extrapolated),
    )


def path_out(result: StrikeResult) -> list[dict[str, float]]:
    """The edge's way through the ground, a row each step of the pass."""
    scale = (1000.0, 1000.0, 1.0, 1.0, 1.0, 1.0, 57.29577951308232)
    return [
        {name: _r(value * factor, 4) for name, value, factor in zip(_PATH_COLUMNS, row, scale, strict=True)}
        for row in result.path.tolist()
    ]


def window_out(window: Window, extrapolated: tuple[str, ...]) -> WindowOut:
    """The window in millimetres."""
    return WindowOut(
        low_mm=None if window.low is None else _r(1000 * window.low),
        high_mm=None if window.high is None else _r(1000 * window.high),
        width_mm=_r(1000 * window.width),
        open_ahead=window.open_ahead,
        level_carry_m=_r(window.level),
        extrapolated=list(extrapolated),
    )


def _r(value: float, places: int = 3) -> float:
    return round(float(value), places) + 0.0
