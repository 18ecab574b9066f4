"""Readings of a gauge, hammer or penetrometer as JSON: figures by kind within their ranges, and what several say."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import StringConstraints, create_model

from oblatus.core.bounds import Bound
from oblatus.core.clubs import Head
from oblatus.core.figures import figures
from oblatus.core.grounds import SURFACES, SurfaceKind, summarise_readings
from oblatus.formats.fields import Strict, Within
from oblatus.formats.limits import NAME_LETTERS

Kind = Literal["gauge", "hammer", "penetrometer"]
_HEAD = figures(Head)
Target = Annotated[str, StringConstraints(min_length=1, max_length=NAME_LETTERS)]


class GaugeFigures(Strict):
    """A club in the gauge: angles in degrees, sole width and leading-edge height in mm."""

    loft_deg: Annotated[float, Within(Bound(34, 68, "degrees"))]
    lie_deg: Annotated[float, Within(_HEAD["lie_deg"].bound)]
    bounce_deg: Annotated[float, Within(_HEAD["bounce_deg"].bound)]
    sole_width_mm: Annotated[float, Within(_HEAD["sole_width_mm"].bound)] | None = None
    edge_height_mm: Annotated[float, Within(Bound(0, 12, "mm"))] | None = None


def _surface_figures(kind: SurfaceKind) -> type[Strict]:
    """What the instrument of a kind of ground says at once: one figure."""
    bound = figures(kind.made_of)[kind.reading].bound
    figure: dict[str, Any] = {kind.instrument_figure: (Annotated[float, Within(bound)], ...)}
    return create_model(f"{kind.key.capitalize()}Figures", __base__=Strict, __doc__="One reading.", **figure)


FIGURES: dict[str, type[Strict]] = {"gauge": GaugeFigures} | {
    kind.instrument: _surface_figures(kind) for kind in SURFACES.values() if kind.instrument is not None
}
INSTRUMENTS = tuple(FIGURES)


class ReadingDocument(Strict):
    """One reading: `target` is own:N for a club in the gauge, or the name of the ground; `taken_at` null: now."""

    id: UUID
    kind: Kind
    target: Target
    figures: dict[str, float]
    simulated: bool
    set_aside: str | None
    taken_at: datetime | None = None


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
    found = [_figure(name, [r.figures[name] for r in counting if name in r.figures]) for name in names]
    return ReadSummary(
        kind=kind, target=target, count=len(counting), aside=len(readings) - len(counting),
        simulated=any(reading.simulated for reading in readings), figures=found, words=_words(found),
    )  # fmt: skip


def _figure(name: str, values: Sequence[float]) -> ReadFigure:
    found = summarise_readings(values)
    return ReadFigure(key=name, mean=round(found.mean, 3), spread=round(found.spread, 3), count=found.count)


def _words(found: Sequence[ReadFigure]) -> str:
    """The class of a ground, as a fitter says it."""
    kinds = {kind.instrument_figure: kind for kind in SURFACES.values()}
    return next((kinds[figure.key].class_of(figure.mean).words for figure in found if figure.key in kinds), "")
