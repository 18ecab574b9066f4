"""What the session's strikes say, as JSON: figures by station, drift, faults, and the habit that can be taken over."""

from __future__ import annotations

from collections.abc import Sequence

from oblatus.core import words
from oblatus.core.gapping import Swing
from oblatus.core.gapping.strikes import STATIONS, STRIKE_FIGURES
from oblatus.core.session import Fault, Figure, Session, StationSummary
from oblatus.core.session.faults import Picture
from oblatus.formats.fields import Strict
from oblatus.formats.rounded import rounded
from oblatus.formats.strikes import StrikeDocument

NAMED = {f.attribute: (f.words.lower(), f.bound.unit, f.per) for f in STRIKE_FIGURES.values()} | {
    "sand_mark": ("mark in the sand", "mm", 1000.0),
    "sole_mark": ("mark on the sole", "mm", 1000.0),
}
"""Name, unit and scale of a figure of the session, by the engine's name."""
STATION_NAMES = {station.key: station.name for station in STATIONS} | {"overall": "partial swings"}
LEAST_SPREAD = {"attack_deg": 0.2, "lean_deg": 0.2, "entry": 0.001}


class FigureOut(Strict):
    """A quantity over the strikes that count: mean, its 80 % interval, spread, count, and the strikes kept out."""

    key: str
    name: str
    unit: str
    mean: float
    low: float
    high: float
    spread: float
    count: int
    inferred: int
    outliers: list[str]


class StationOut(Strict):
    """A station of the session."""

    station: str
    name: str
    count: int
    aside: int
    figures: list[FigureOut]


class TrendOut(Strict):
    """A drift from the first strike to the last."""

    name: str
    words: str


class SessionFaultOut(Strict):
    """A fault by its rule, with those of the listed strikes that show it."""

    key: str
    words: str
    rule: str
    shown: int
    of: int
    picture: Picture
    strikes: list[str]


class SessionSummaryOut(Strict):
    """The session: partial swings together (the habit), every station, drift, faults, and the newest
    strikes of all in their order."""

    overall: StationOut
    stations: list[StationOut]
    trends: list[TrendOut]
    faults: list[SessionFaultOut]
    strikes: list[StrikeDocument]
    total: int
    simulated: int


def session_out(
    session: Session,
    faults: Sequence[Fault],
    swings: Sequence[Swing],
    newest: Sequence[StrikeDocument],
    total: int,
    simulated: int,
) -> SessionSummaryOut:
    """Summary and faults of the fitting's strikes, so many in all and so many simulated; the `newest` are listed."""
    listed = {str(strike.id) for strike in newest}
    names = STATION_NAMES | {swing.key: swing.name for swing in swings}
    return SessionSummaryOut(
        overall=_station(session.overall, names),
        stations=[_station(station, names) for station in session.stations],
        trends=[
            TrendOut(name=NAMED[t.key][0], words=_trend_words(t.key, t.change)) for t in session.trends
        ],
        faults=[
            SessionFaultOut(
                key=f.key, words=f.words, rule=f.rule, shown=f.shown, of=f.of, picture=f.picture,
                strikes=[one for one in f.strikes if one in listed],
            )
            for f in faults
        ],
        strikes=list(newest),
        total=total,
        simulated=simulated,
    )  # fmt: skip


def _station(summary: StationSummary, names: dict[str, str]) -> StationOut:
    return StationOut(
        station=summary.station,
        name=names.get(summary.station, summary.station),
        count=summary.count,
        aside=summary.aside,
        figures=[_figure(figure) for figure in summary.figures],
    )


def _figure(figure: Figure) -> FigureOut:
    name, unit, scale = NAMED[figure.key]
    return FigureOut(
        key=figure.key,
        name=name,
        unit=unit,
        mean=rounded(scale * figure.mean),
        low=rounded(scale * figure.low),
        high=rounded(scale * figure.high),
        spread=rounded(scale * max(figure.spread, LEAST_SPREAD.get(figure.key, 0.0))),
        count=figure.count,
        inferred=figure.inferred,
        outliers=list(figure.outliers),
    )


def _trend_words(key: str, change: float) -> str:
    name, unit, scale = NAMED[key]
    size = abs(scale * change)
    way = {
        "attack_deg": ("shallower", "steeper"),
        "lean_deg": ("more handle ahead", "less handle ahead"),
        "club_speed": ("faster", "slower"),
        "entry": ("nearer the ball", "farther behind the ball"),
        "impact_height": ("higher on the face", "lower on the face"),
    }[key][0 if change > 0 else 1]
    told = words.speed(size) if unit == "m/s" else f"{size:.1f} {unit}"
    return f"{name} drifts over the session: {told} {way} by its end"
