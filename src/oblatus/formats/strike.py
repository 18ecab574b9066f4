"""A strike as JSON: what `oblatus strike`, `oblatus window` and the shot desk take and answer. Keys carry units."""

from __future__ import annotations

import json
from functools import lru_cache
from typing import TYPE_CHECKING, Annotated, Any, Literal, Union

from pydantic import Field, ValidationError, create_model

from oblatus.core.bounds import Bound
from oblatus.core.figures import in_document, in_engine
from oblatus.core.grounds import SURFACES, Sand, SurfaceKind, Turf, kind_of
from oblatus.core.strike import StrikeResult, Swing, Window
from oblatus.core.strike.single import Contact
from oblatus.errors import Fault, InputError, fault
from oblatus.formats.fields import Strict, Within, document_fields, faults_of
from oblatus.formats.rounded import rounded
from oblatus.formats.sections.bag import HeadDocument

MOST_STRIKES = 10_000
_PATH_COLUMNS = ("x_mm", "z_mm", "vx_mps", "vz_mps", "edge_material_g_per_mm", "sole_material_g_per_mm", "pitch_deg")


class SurfaceIn(Strict):
    """One kind of ground by its readings, `kind` says which."""

    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...

    def ground(self) -> Turf | Sand:
        """The engine's ground."""
        made_of = SURFACES[self.kind].made_of
        made: Turf | Sand = made_of(**in_engine(made_of, self))
        return made


def _surface_in(kind: SurfaceKind) -> type[SurfaceIn]:
    """The model of a kind of ground."""
    fields: dict[str, Any] = {"kind": (Literal[kind.key], ...), **document_fields(kind.made_of)}
    words = f"{kind.words} by its readings."
    return create_model(f"{kind.key.capitalize()}In", __base__=SurfaceIn, __doc__=words, **fields)


SURFACES_IN = {key: _surface_in(kind) for key, kind in SURFACES.items()}

if TYPE_CHECKING:
    GroundIn = SurfaceIn
else:
    GroundIn = Annotated[Union[tuple(SURFACES_IN.values())], Field(discriminator="kind")]  # noqa: UP007


@lru_cache(maxsize=1024)
def surface_out(surface: Turf | Sand) -> SurfaceIn:
    """A ground of the engine as the shot desk takes it; remembered, because every edit shows the same ones again."""
    kind = kind_of(surface)
    return SURFACES_IN[kind.key].model_validate({"kind": kind.key, **in_document(surface)})


class _SwingIn(Strict):
    """How the club is set and swung; `entry_mm` is from the ball's centre, behind negative."""

    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...

    def swing(self) -> Swing:
        """The engine's swing."""
        return Swing(**in_engine(Swing, self))


if TYPE_CHECKING:
    SwingIn = _SwingIn
else:
    SwingIn = create_model("SwingIn", __base__=_SwingIn, __doc__=_SwingIn.__doc__, **document_fields(Swing))


class StrikeIn(SwingIn):
    """One strike: a club, a swing and a ground."""

    club: HeadDocument
    ground: GroundIn
    intended_carry_m: Annotated[float, Within(Bound(1, 120, "m"))] | None = None


class StrikeOut(Strict):
    """What the strike did; `extrapolated` names what lies outside the calibrated range."""

    contact: Contact
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


def strike_out(result: StrikeResult) -> StrikeOut:
    """The result in millimetres, grams and degrees."""
    return StrikeOut(
        contact=result.contact,
        impact_height_mm=rounded(1000 * result.impact_height),
        leading_edge_mm=rounded(1000 * result.leading_edge),
        speed_ratio=rounded(result.speed_ratio),
        material_g=rounded(1000 * result.material),
        ball_speed_mps=rounded(result.ball_speed),
        launch_deg=rounded(result.launch_deg),
        spin_rpm=rounded(result.spin_rpm, 0),
        outcome=result.outcome,
        carry_m=rounded(result.carry),
        intended_carry_m=rounded(result.intended),
        delivered_loft_deg=rounded(result.delivered_loft_deg),
        delivered_bounce_deg=rounded(result.delivered_bounce_deg),
        extrapolated=list(result.extrapolated),
    )


def path_out(result: StrikeResult) -> list[dict[str, float]]:
    """The edge's way through the ground, a row each step of the pass."""
    scale = (1000.0, 1000.0, 1.0, 1.0, 1.0, 1.0, 57.29577951308232)
    return [
        {name: rounded(value * factor, 3) for name, value, factor in zip(_PATH_COLUMNS, row, scale, strict=True)}
        for row in result.path.tolist()
    ]


def window_out(window: Window, extrapolated: tuple[str, ...]) -> WindowOut:
    """The window in millimetres."""
    return WindowOut(
        low_mm=None if window.low is None else rounded(1000 * window.low),
        high_mm=None if window.high is None else rounded(1000 * window.high),
        width_mm=rounded(1000 * window.width),
        open_ahead=window.open_ahead,
        level_carry_m=rounded(window.level),
        extrapolated=list(extrapolated),
    )
