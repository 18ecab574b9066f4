"""What the session's strikes say, as JSON: figures by station, drift, faults, and the habit that can be taken over."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from oblatus.core.fitting import Fitting
from oblatus.core.fitting.scenarios import usual_setup
from oblatus.core.gapping.strikes import SHORT_STATIONS
from oblatus.core.session import Figure, StationSummary, find_faults, summarise
from oblatus.core.shots import BY_KEY
from oblatus.formats.fields import Strict
from oblatus.formats.strikes import MOST_SHOWN, StrikeDocument

SCALES = {"entry": 1000.0, "impact_height": 1000.0, "sand_mark": 1000.0, "sole_mark": 1000.0}
UNITS = {
    "attack_deg": ("attack", "degrees"),
    "lean_deg": ("shaft lean", "degrees"),
    "club_speed": ("head speed", "m/s"),
    "entry": ("entry", "mm"),
    "dynamic_loft_deg": ("dynamic loft", "degrees"),
    "impact_height": ("contact height", "mm"),
    "carry": ("carry", "m"),
    "sand_mark": ("mark in the sand", "mm"),
    "sole_mark": ("mark on the sole", "mm"),
}
STATION_NAMES = {
    "pitch": "pitch",
    "chip": "chip",
    "sand": "sand",
    "practice": "practice swing",
    "overall": "partial swings",
}
NOT_THE_HABIT = ("full", "sand")
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
    """A fault by its rule, with the strikes that show it."""

    key: str
    words: str
    rule: str
    shown: int
    of: int
    picture: Literal["entries", "sole_pass", "set_plane"]
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


def session_out(fitting: Fitting, strikes: Sequence[StrikeDocument]) -> SessionSummaryOut:
    """Summary and faults of the fitting's strikes."""
    names = STATION_NAMES | {swing.key: swing.name for swing in fitting.swings}
    partial = [swing.key for swing in fitting.swings if swing.key not in NOT_THE_HABIT]
    partial += [station for station in SHORT_STATIONS if station not in NOT_THE_HABIT]
    session = summarise(fitting.strikes, partial)
    bounce = {item.code: item.head.bounce_deg for item in fitting.stock} | {"pw": fitting.bag.pitching_wedge.bounce_deg}
    opening = usual_setup(BY_KEY["sand_greenside"], fitting.player.habit, fitting.player.schools).opening_deg
    return SessionSummaryOut(
        overall=_station(session.overall, names),
        stations=[_station(station, names) for station in session.stations],
        trends=[
            TrendOut(name=UNITS[t.key][0], words=_trend_words(t.key, t.change)) for t in session.trends
        ],
        faults=[
            SessionFaultOut(
                key=f.key, words=f.words, rule=f.rule, shown=f.shown, of=f.of, picture=f.picture, strikes=list(f.strikes)
            )
            for f in find_faults(fitting.strikes, bounce, {"sand": opening})
        ],
        strikes=list(strikes[-MOST_SHOWN:]),
        total=len(strikes),
        simulated=sum(strike.simulated for strike in strikes),
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
    scale = SCALES.get(figure.key, 1.0)
    name, unit = UNITS[figure.key]
    return FigureOut(
        key=figure.key,
        name=name,
        unit=unit,
        mean=round(scale * figure.mean, 3),
        low=round(scale * figure.low, 3),
        high=round(scale * figure.high, 3),
        spread=round(scale * max(figure.spread, LEAST_SPREAD.get(figure.key, 0.0)), 3),
        count=figure.count,
        inferred=figure.inferred,
        outliers=list(figure.outliers),
    )


def _trend_words(key: str, change: float) -> str:
    name, unit = UNITS[key]
    size = abs(SCALES.get(key, 1.0) * change)
    way = {
        "attack_deg": ("shallower", "steeper"),
        "lean_deg": ("more handle ahead", "less handle ahead"),
        "club_speed": ("faster", "slower"),
        "entry": ("nearer the ball", "farther behind the ball"),
        "impact_height": ("higher on the face", "lower on the face"),
    }[key][0 if change > 0 else 1]
    return f"{name} drifts over the session: {size:.1f} {unit} {way} by its end"
