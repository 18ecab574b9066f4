"""The catalogue: what is the same for every fitting, as the screens are told it."""

from __future__ import annotations

from oblatus.core.figures import Where
from oblatus.core.grounds import GreenClass, Season
from oblatus.core.proof.outcome import Outcome
from oblatus.core.shots import Kind, Short
from oblatus.formats.fields import Strict
from oblatus.formats.strike import GroundIn, SwingIn
from oblatus.formats.strikes import Divot


class ShotOut(Strict):
    """A shot of the catalogue."""

    key: str
    name: str
    kind: Kind


class FigureField(Strict):
    """A figure as it is typed: its key in documents, name, unit, range, usual value, and where a form has it.

    A share is shown in per cent where `percent`; `where` is first, more or none; `short` heads a column.
    """

    key: str
    words: str
    unit: str
    low: float
    high: float
    usual: float | None
    percent: bool
    places: int
    where: Where
    short: str | None


class ClassOut(Strict):
    """A class of readings: name, where it ends (null: open) and whether with that, the reading assumed for it."""

    key: str
    words: str
    upto: float | None
    with_end: bool
    usual: float


class PickedOut(Strict):
    """A figure that is picked by a word: the document's field, its name, and the words with the figure's values."""

    field: str
    words: str
    figure: str
    values: dict[str, float]


class SurfaceKindOut(Strict):
    """A kind of ground: its figures, the one that its instrument reads, the fields beside it, and its classes."""

    key: str
    words: str
    reading: str
    readings: str
    readings_words: str
    source: str
    instrument: str | None
    instrument_figure: str
    figures: list[FigureField]
    classes: list[ClassOut]
    picked: PickedOut | None


class StationKeyOut(Strict):
    """A swing of the clock or a station beside it: strikes planned there, and whether the sole goes through sand."""

    key: str
    name: str
    wanted: int
    in_sand: bool
    clock: bool


class LieOut(Strict):
    """A lie to begin from at the shot desk: how the club is swung, and the ground."""

    name: str
    swing: SwingIn
    ground: GroundIn


class SpreadsOut(Strict):
    """The usual spread of a habit."""

    attack_spread_deg: float
    lean_spread_deg: float
    entry_spread_mm: float


class BoundOut(Strict):
    """What a number may be."""

    low: float
    high: float


class FigureBoundOut(BoundOut):
    """What a figure may be, with its unit."""

    unit: str


class LogShotBoundsOut(Strict):
    """What the distances of a shot on the course may be."""

    distance_m: FigureBoundOut
    left_m: FigureBoundOut


class ProvedElsewhere(Strict):
    """Shares of a proved difference that hold in other situations on the same ground, and on the other ground."""

    other_situations: float
    other_surface: float


class KeyNameOut(Strict):
    """Something that is chosen by its key, and what it is called."""

    key: str
    name: str


class QuestionOut(Strict):
    """A question and what can be answered, by the keys of the document."""

    key: str
    name: str
    choices: list[KeyNameOut]


class SchoolQuestionOut(QuestionOut):
    """Where good practitioners differ, and the answer that stands unless another is chosen."""

    usual: str


class PriceLineOut(Strict):
    """A line of the price list, and what it may be."""

    key: str
    name: str
    low: float
    high: float


class AirOut(Strict):
    """What may be asked of the air where a ball flies."""

    temperature_c: BoundOut
    altitude_m: BoundOut
    wind_head_mps: BoundOut
    wind_cross_mps: BoundOut


class LadderEdgesOut(Strict):
    """What a ladder typed by hand can be."""

    most_wedges: int
    most_loft_deg: float


class BandEdgesOut(Strict):
    """What the bands of distances can be."""

    from_m: BoundOut
    to_m: BoundOut


class OutcomeOut(Strict):
    """How a ball of a proof came off, in words; whether only in sand."""

    key: Outcome
    name: str
    in_sand: bool


class MostOut(Strict):
    """How many of a thing a document holds; of a text, how many letters."""

    grounds: int
    readings: int
    wedges: int
    photos: int
    swings: int
    bands: int
    bends_before: int
    name: int
    swing_name: int
    mapping_name: int
    ball: int
    note: int
    why: int


class CatalogueOut(Strict):
    """What the screens are made from: shots, figures of a head and of a swing, kinds of ground, swings and stations."""

    shots: list[ShotOut]
    schools: list[SchoolQuestionOut]
    questions: list[QuestionOut]
    head: list[FigureField]
    swing: list[FigureField]
    grounds: list[SurfaceKindOut]
    place: list[FigureField]
    sections: list[str]
    proposal_sections: list[str]
    sections_with_codes: list[str]
    greens: list[GreenClass]
    carry_lies: list[KeyNameOut]
    pins: list[KeyNameOut]
    shorts: list[Short]
    into_mps: float
    divots: list[Divot]
    outcomes: list[OutcomeOut]
    stations: list[StationKeyOut]
    strike: list[FigureField]
    lies: list[LieOut]
    spreads: SpreadsOut
    most: MostOut
    share_tolerance: float
    bend_limit_deg: dict[str, float]
    drift_matters_deg: float
    proved_elsewhere: ProvedElsewhere
    proof_plan: dict[str, BoundOut]
    proof_ball: dict[str, FigureBoundOut]
    prices: list[PriceLineOut]
    results: list[KeyNameOut]
    log_situations: list[KeyNameOut]
    log_fields: list[KeyNameOut]
    log_shot: LogShotBoundsOut
    card_parts: list[KeyNameOut]
    card_papers: list[KeyNameOut]
    card_bases: list[KeyNameOut]
    encodings: list[KeyNameOut]
    delimiters: list[str]
    build: dict[str, BoundOut]
    air: AirOut
    ladder_parts: list[KeyNameOut]
    ladder_air_c: float
    ladder: LadderEdgesOut
    bands: BandEdgesOut
    seasons: list[Season]
    season_of_month: list[Season]
    finder_m: BoundOut
    assumed_carry_m: float
