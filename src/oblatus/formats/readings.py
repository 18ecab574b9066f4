"""Readings of a gauge, hammer or penetrometer as JSON: figures by kind within their ranges, and what several say."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal
from uuid import UUID

from pydantic import StringConstraints

from oblatus.core.bounds import HEAD, Bound
from oblatus.core.grounds import BOUNDS as GROUND
from oblatus.core.grounds import sand_class, summarise_readings, turf_class
from oblatus.formats.fields import Strict, Within

Kind = Literal["gauge", "hammer", "penetrometer"]
Target = Annotated[str, StringConstraints(min_length=1, max_length=120)]


class GaugeFigures(Strict):
    """A club in the gauge: angles in degrees, sole width and leading-edge height in mm."""

    loft_deg: Annotated[float, Within(Bound(34, 68, "degrees"))]
    lie_deg: Annotated[float, Within(HEAD["lie_deg"])]
    bounce_deg: Annotated[float, Within(HEAD["bounce_deg"])]
    sole_width_mm: Annotated[float, Within(HEAD["sole_width_mm"])] | None = None
    edge_height_mm: Annotated[float, Within(Bound(0, 12, "mm"))] | None = None


class HammerFigures(Strict):
    """A drop: peak deceleration."""

    peak_g: Annotated[float, Within(GROUND["firmness_g"])]


class PenetrometerFigures(Strict):
    """A push: pressure at half the tip's depth."""

    pressure_kg_cm2: Annotated[float, Within(GROUND["penetrometer_kg_cm2"])]


FIGURES: dict[str, type[Strict]] = {
    "gauge": GaugeFigures, "hammer": HammerFigures, "penetrometer": PenetrometerFigures,
}  # fmt: skip
PLUGS = {
    "loose": "plugs easily", "medium": "plugs moderately", "firm": "plugs little", "packed": "hardly ever plugs",
}  # fmt: skip


class ReadingDocument(Strict):
    """One reading: `target` is own:N for a club in the gauge, or the name of the ground."""

    id: UUID
    kind: Kind
    target: Target
    figures: dict[str, float]
    simulated: bool
    set_aside: str | None


class ReadFigure(Strict):
    """A figure over the readings that count: mean, spread, count."""

    key: str
    mean: float
    spread: float
    count: int


class ReadSummary(Strict):
    """What the readings of one club or ground say; `words` names the class of a ground."""

    kind: Kind
    target: str
    count: int
    aside: int
    simulated: bool
    figures: list[ReadFigure]
    words: str


def summarise_targets(readings: Sequence[ReadingDocument]) -> list[ReadSummary]:
    """One summary for each kind of instrument and each club or ground, in the order of their first reading."""
    groups: dict[tuple[Kind, str], list[ReadingDocument]] = {}
    for reading in readings:
        groups.setdefault((reading.kind, reading.target), []).append(reading)
    return [_summary(kind, target, mine) for (kind, target), mine in groups.items()]


def _summary(kind: Kind, target: str, readings: Sequence[ReadingDocument]) -> ReadSummary:
    counting = [reading for reading in readings if reading.set_aside is None]
    names = list(dict.fromkeys(name for reading in counting for name in reading.figures))
    figures = [_figure(name, [r.figures[name] for r in counting if name in r.figures]) for name in names]
    return ReadSummary(
        kind=kind, target=target, count=len(counting), aside=len(readings) - len(counting),
        simulated=any(reading.simulated for reading in readings), figures=figures, words=_words(figures),
    )  # fmt: skip


def _figure(name: str, values: Sequence[float]) -> ReadFigure:
    found = summarise_readings(values)
    return ReadFigure(key=name, mean=round(found.mean, 3), spread=round(found.spread, 3), count=found.count)


def _words(figures: Sequence[ReadFigure]) -> str:
    for figure in figures:
        if figure.key == "peak_g":
            return turf_class(figure.mean)
        if figure.key == "pressure_kg_cm2":
            return PLUGS[sand_class(figure.mean)]
    return ""
