"""What the routes take and answer."""

from __future__ import annotations

from datetime import date, datetime
from typing import TYPE_CHECKING, Annotated, Any, Literal, get_type_hints
from uuid import UUID

from pydantic import Field, GetCoreSchemaHandler, StringConstraints, create_model
from pydantic_core import CoreSchema, core_schema

from oblatus.core.bounds import Bound
from oblatus.core.figures import Where
from oblatus.core.gapping.strikes import STRIKE_FIGURES
from oblatus.core.grounds import GreenClass, Season
from oblatus.core.proof.outcome import Outcome
from oblatus.core.shots import Kind, Short
from oblatus.formats.carries import CellKey
from oblatus.formats.differences import DifferenceOut
from oblatus.formats.earlier import EarlierOut
from oblatus.formats.fields import Strict, Within
from oblatus.formats.fitting import SECTIONS, FittingDocument
from oblatus.formats.limits import NAME_LETTERS
from oblatus.formats.recommendation import LadderOut, RecommendationOut
from oblatus.formats.sections.bag import Rack, RackHeadDocument
from oblatus.formats.sections.parts import Name
from oblatus.formats.strike import GroundIn, SwingIn
from oblatus.formats.strikes import Divot, Note, Reason, StrikeDocument
from oblatus.store.disk import Room
from oblatus.units import DistanceUnit, SpeedUnit
from oblatus.usecases.health import BridgeState, CopyState, DatabaseState, DevicesState, MemoryState
from oblatus.usecases.step_states import State
from oblatus.web.schemas_errors import FaultOut

Revision = Annotated[int, Within(Bound(1, 1_000_000_000, ""))]


class HealthOut(Strict):
    """Version of the program and of its engine; what is wrong with the machine, and "ok" only if nothing is."""

    status: Literal["ok", "degraded"]
    version: str
    engine_version: str
    database: DatabaseState
    disk: Room
    memory: MemoryState
    bridge: BridgeState
    devices: DevicesState
    backup: CopyState
    wrong: list[str]


class UnitsIO(Strict):
    """Units for distances and head speed."""

    distance: DistanceUnit
    speed: SpeedUnit


class SignInIn(Strict):
    """Address and password."""

    email: Annotated[str, StringConstraints(min_length=1, max_length=254)]
    password: Annotated[str, StringConstraints(min_length=1, max_length=200)]


class SessionOut(Strict):
    """Who is signed in (null when nobody is) and the token that every change must carry."""

    csrf_token: str
    fitter: str | None = None
    fitter_id: UUID | None = None
    email: str | None = None
    demo: bool = False
    studio: str | None = None
    units: UnitsIO | None = None


class PasswordIn(Strict):
    """The present password and the one to come."""

    old: Annotated[str, StringConstraints(min_length=1, max_length=200)]
    new: Annotated[str, StringConstraints(min_length=1, max_length=200)]


class SessionPath(Strict):
    """A session's id."""

    session_id: UUID


class SessionLine(Strict):
    """Where a fitter is signed in."""

    id: UUID
    browser: str
    address: str
    created_at: datetime
    seen_at: datetime
    this: bool


class SessionList(Strict):
    """A fitter's open sessions, last seen first."""

    sessions: list[SessionLine]


class EndedOut(Strict):
    """How many sessions ended."""

    ended: int


class FittingPath(Strict):
    """A fitting's id."""

    fitting_id: UUID


class OpenQuery(Strict):
    """Whether to answer without waiting for the whole proposal."""

    at_once: Annotated[bool, Field(strict=False)] = False


class SnapshotPath(FittingPath):
    """A kept proposal's id."""

    snapshot_id: UUID


class FittingLine(Strict):
    """A fitting in the list; when a proposal was kept last, and its clubs; what is due first; which fitting of the same
    player it follows, and whether one follows it."""

    id: UUID
    player_name: str
    revision: int
    updated_at: datetime
    kept_at: datetime | None
    kept_clubs: list[str]
    due_on: date | None
    due_words: str
    due_late: bool
    follows: UUID | None
    followed: bool


class FittingList(Strict):
    """The fittings of the studio, last changed first."""

    fittings: list[FittingLine]


class StartIn(Strict):
    """A new player; sent again under its id it is the same."""

    player_name: Name
    id: UUID | None = None


class LoadQuery(Strict):
    """The id of what is made; sent again under it, it is the same."""

    id: UUID | None = None


class _AsItStands:
    """Annotation: taken as the JSON it is. The use case checks it field by field, so that one wrong field holds only
    itself; the schema says what it should be."""

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.no_info_wrap_validator_function(lambda value, _: value, handler(source))


class _SectionsIn(Strict):
    """Sections of a fitting as they are on a screen."""


if TYPE_CHECKING:
    SectionsIn = _SectionsIn
else:
    SectionsIn = create_model(
        "SectionsIn",
        __base__=_SectionsIn,
        __doc__=_SectionsIn.__doc__,
        **{
            name: (Annotated[kind | None, _AsItStands()], None)
            for name, kind in get_type_hints(FittingDocument, include_extras=True).items()
            if name in SECTIONS
        },
    )


class SettledIn(Strict):
    """A conflict in which the editor's own value was chosen, with the value of the other that was seen then."""

    path: Annotated[str, StringConstraints(min_length=1, max_length=300)]
    theirs: Any


class AttemptIn(Strict):
    """An edit that was sent before and never answered: it may have been committed."""

    edit_id: UUID
    sections: SectionsIn


class EditIn(SectionsIn):
    """New sections for a fitting at `revision`; those left out stay as they are.

    With `base`, the sections as they were at `revision`, the edit is merged field by field with what others changed
    since, and a refused field holds only itself. `edit_id` lets a repeated edit be recognised, `attempts` those before it
    that got no answer.
    """

    revision: Revision
    edit_id: UUID | None = None
    base: SectionsIn | None = None
    attempts: Annotated[tuple[AttemptIn, ...], Field(max_length=20)] = ()
    settled: Annotated[tuple[SettledIn, ...], Field(max_length=500)] = ()
    rack: Annotated[Rack | None, _AsItStands()] = None
    drop_rack: bool = False


class KeptLine(Strict):
    """A kept proposal in the list."""

    id: UUID
    label: str
    revision: int
    created_at: datetime
    engine_version: str
    kept_by: str
    clubs: list[str]
    strikes: int
    strikes_key: str | None


class KeptList(Strict):
    """Kept proposals of a fitting, newest first."""

    kept: list[KeptLine]


class KeptOut(KeptLine):
    """A kept proposal whole: inputs and result as they were; `earlier` instead of a result when an earlier engine
    made it.
    """

    document: FittingDocument
    result: RecommendationOut | None
    earlier: EarlierOut | None


class NameIn(Strict):
    """Another name for a kept proposal."""

    label: Annotated[str, StringConstraints(max_length=NAME_LETTERS, strip_whitespace=True)]


class CompareQuery(Strict):
    """The other kept proposal; the fitting as it stands if there is none."""

    other: UUID | None = None


class ComparedOut(Strict):
    """A kept proposal beside another one (null: the fitting as it stands), and what differs in their inputs."""

    before: KeptLine
    after: KeptLine | None
    differences: list[DifferenceOut]


class BinLine(Strict):
    """A removed fitting: since when, and when it goes for good."""

    id: UUID
    player_name: str
    removed_at: datetime
    gone_on: date


class BinOut(Strict):
    """What was removed and can be brought back, last removed first."""

    fittings: list[BinLine]


class KeepIn(Strict):
    """Keep the proposal made from `revision`; sent again under its id it is kept once."""

    revision: Revision
    id: UUID | None = None
    label: Annotated[str, StringConstraints(max_length=NAME_LETTERS)] = ""


class OwnedOut(Strict):
    """An owned wedge as it is drawn: its section, and how far the edge stands off the floor with the shaft upright."""

    shape: str
    edge_height_mm: float
    outline_mm: list[list[float]]


class FittingOut(Strict):
    """A fitting with its proposal, or the faults that keep the engine from one; `to_come` while it is to be worked out.

    `readings` says for every ground and kind of it what its single readings say together, empty where there are none;
    `thatch_mm` how deep its turf gives before the soil, `wedge_room` how many wedges the clubs allowed leave room for.
    """

    id: UUID
    revision: int
    document: FittingDocument
    recommendation: RecommendationOut | None
    problem: list[FaultOut]
    to_come: bool
    owned: list[OwnedOut]
    readings: list[dict[str, str]]
    thatch_mm: list[float]
    wedge_room: int
    steps: dict[str, State]
    default_shot_mix: dict[str, float]
    kept: KeptLine | None
    strikes: int
    strikes_key: str


class ConflictOut(Strict):
    """A field that two people changed: by its name and unit, before both, mine and theirs; `value` is theirs as it is."""

    path: str
    name: str
    unit: str
    mine: float | None
    theirs: float | None
    mine_words: str
    theirs_words: str
    value: Any


class EditedOut(FittingOut):
    """The fitting after an edit, and what was not taken of it: refused fields, conflicts, and the sections as the editor
    has them."""

    refused: list[FaultOut]
    conflicts: list[ConflictOut]
    draft: dict[str, Any]


class StrikePath(FittingPath):
    """A strike's id."""

    strike_id: UUID


class StrikesIn(Strict):
    """Strikes to take; those that are there already are left as they are. `wedges`: those of the bag on the screen that
    took them, by which own:N is understood; without them it is by the bag as it is now."""

    strikes: Annotated[tuple[StrikeDocument, ...], Field(min_length=1, max_length=500)]
    wedges: Annotated[tuple[dict[str, Any], ...], Field(max_length=8)] | None = None


class TakenOutOut(Strict):
    """Strikes that were taken out and can be put back, the last one first."""

    strikes: list[StrikeDocument]


class StrikesOut(Strict):
    """How many of the strikes were new."""

    taken: int


class AsideIn(Strict):
    """Why a strike does not count; null when it counts after all."""

    set_aside: Reason | None


class TellIn(Strict):
    """More of a strike; what is not sent stays as it is. `set_aside` null: it counts after all."""

    set_aside: Reason | None = None
    note: Note | None = None
    divot: Divot | None = None
    exit_mm: Annotated[float, Within(STRIKE_FIGURES["exit_mm"].bound)] | None = None
    mark_back_mm: Annotated[float, Within(STRIKE_FIGURES["mark_back_mm"].bound)] | None = None
    mark_toe_mm: Annotated[float, Within(STRIKE_FIGURES["mark_toe_mm"].bound)] | None = None


class PasteIn(Strict):
    """Pasted text; looked at only unless `take`, and taken despite a question of unit when `sure_of_unit`."""

    text: Annotated[str, StringConstraints(max_length=200_000)]
    unit: DistanceUnit
    paste_id: UUID
    cell: CellKey | None = None
    take: bool = False
    sure_of_unit: bool = False


class PasteOut(Strict):
    """What was read, a question about the unit if there is one, and how many strikes were taken."""

    strikes: list[StrikeDocument]
    unit: str
    question: str | None
    taken: int


class LaddersOut(Strict):
    """Cover against cost: ladders that none beats in both, cheapest first."""

    front: list[LadderOut]


class WorkOut(Strict):
    """Families made of families to make, for a question and ahead of the next; 0 of 0 when nothing is being made."""

    done: int
    total: int
    ahead_done: int
    ahead_total: int
    laws_done: int
    laws_total: int


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


class ProvedElsewhere(Strict):
    """Shares of a proved difference that hold in other situations on the same ground, and on the other ground."""

    other_situations: float
    other_surface: float


class KeyNameOut(Strict):
    """Something that is chosen by its key, and what it is called."""

    key: str
    name: str


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
    name: int
    swing_name: int
    mapping_name: int
    ball: int
    note: int
    why: int


class CatalogueOut(Strict):
    """What the screens are made from: shots, figures of a head and of a swing, kinds of ground, swings and stations."""

    shots: list[ShotOut]
    head: list[FigureField]
    swing: list[FigureField]
    grounds: list[SurfaceKindOut]
    place: list[FigureField]
    sections: list[str]
    proposal_sections: list[str]
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
    prices: list[PriceLineOut]
    results: list[KeyNameOut]
    log_situations: list[KeyNameOut]
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


class RackOut(Strict):
    """The studio's rack."""

    heads: list[RackHeadDocument]
    revision: int


class RackIn(Strict):
    """A rack as CSV text, in place of the one at a revision."""

    revision: Revision
    csv: Annotated[str, StringConstraints(min_length=1, max_length=400_000)]
