"""What the routes take and answer."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field, StringConstraints

from oblatus.core.bounds import Bound
from oblatus.core.gapping.strikes import BOUNDS
from oblatus.formats.carries import CellKey
from oblatus.formats.fields import Strict, Within
from oblatus.formats.fitting import (
    BagDocument,
    ChoicesDocument,
    FittingDocument,
    GroundDocument,
    Grounds,
    MeasuringDocument,
    Name,
    PlayerDocument,
    Rack,
    RackHeadDocument,
    Season,
)
from oblatus.formats.imports import LayoutDocument, MappingDocument
from oblatus.formats.readings import ReadingDocument, ReadSummary, Target
from oblatus.formats.recommendation import LadderOut, RecommendationOut
from oblatus.formats.strikes import ClubCode, Reason, StrikeDocument, SwingKey

Revision = Annotated[int, Within(Bound(1, 1_000_000_000, ""))]


class FaultOut(Strict):
    """One thing wrong: where, what, and the value given."""

    field: str
    message: str
    value: str


class ErrorOut(Strict):
    """Every error has this shape; `reference` names an unexpected one in the log."""

    code: str
    message: str
    faults: tuple[FaultOut, ...] = ()
    revision: int | None = None
    reference: str | None = None


class HealthOut(Strict):
    """Version of the program and of its engine; whether the database answers."""

    status: Literal["ok", "degraded"]
    version: str
    engine_version: str
    database: Literal["ok", "down"]


class UnitsIO(Strict):
    """Units for distances and head speed."""

    distance: Literal["m", "yd"]
    speed: Literal["mps", "mph"]


class SignInIn(Strict):
    """Address and password."""

    email: Annotated[str, StringConstraints(min_length=1, max_length=254)]
    password: Annotated[str, StringConstraints(min_length=1, max_length=200)]


class SessionOut(Strict):
    """Who is signed in (null when nobody is) and the token that every change must carry."""

    csrf_token: str
    fitter: str | None = None
    studio: str | None = None
    units: UnitsIO | None = None


class FittingPath(Strict):
    """A fitting's id."""

    fitting_id: UUID


class SnapshotPath(FittingPath):
    """A kept proposal's id."""

    snapshot_id: UUID


class FittingLine(Strict):
    """A fitting in the list."""

    id: UUID
    player_name: str
    revision: int
    updated_at: datetime


class FittingList(Strict):
    """The fittings of the studio, last changed first."""

    fittings: list[FittingLine]


class StartIn(Strict):
    """A new player."""

    player_name: Name


class EditIn(Strict):
    """New sections for a fitting at `revision`; those left out stay as they are."""

    revision: Revision
    player: PlayerDocument | None = None
    grounds: Grounds | None = None
    bag: BagDocument | None = None
    choices: ChoicesDocument | None = None
    measuring: MeasuringDocument | None = None
    rack: Rack | None = None
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
    """A kept proposal whole: inputs and result as they were."""

    document: FittingDocument
    result: RecommendationOut


class KeepIn(Strict):
    """Keep the proposal made from `revision`."""

    revision: Revision
    label: Annotated[str, StringConstraints(max_length=120)] = ""


class OwnedOut(Strict):
    """An owned wedge as it is drawn: its section, and how far the edge stands off the floor with the shaft upright."""

    shape: str
    edge_height_mm: float
    outline_mm: list[list[float]]


class ReadingsOut(Strict):
    """What the readings of one ground say, in words; empty where there are none."""

    turf: str
    sand: str


class FittingOut(Strict):
    """A fitting with its proposal, or the faults that keep the engine from one."""

    id: UUID
    revision: int
    document: FittingDocument
    recommendation: RecommendationOut | None
    problem: list[FaultOut]
    owned: list[OwnedOut]
    readings: list[ReadingsOut]
    steps: dict[str, Literal["empty", "partly", "done", "stale", "later"]]
    default_shot_mix: dict[str, float]
    kept: KeptLine | None
    strikes: int
    strikes_key: str


class StrikePath(FittingPath):
    """A strike's id."""

    strike_id: UUID


class StrikesIn(Strict):
    """Strikes to take; those that are there already are left as they are."""

    strikes: Annotated[tuple[StrikeDocument, ...], Field(min_length=1, max_length=500)]


class StrikesOut(Strict):
    """How many of the strikes were new."""

    taken: int


class AsideIn(Strict):
    """Why a strike does not count; null when it counts after all."""

    set_aside: Reason | None


class TellIn(Strict):
    """More of a strike; what is not sent stays as it is. `set_aside` null: it counts after all."""

    set_aside: Reason | None = None
    note: Annotated[str, StringConstraints(max_length=200)] | None = None
    divot: Literal["none", "bruise", "shallow", "deep"] | None = None
    exit_mm: Annotated[float, Within(BOUNDS["exit_mm"])] | None = None
    mark_back_mm: Annotated[float, Within(BOUNDS["mark_back_mm"])] | None = None
    mark_toe_mm: Annotated[float, Within(BOUNDS["mark_toe_mm"])] | None = None


class PasteIn(Strict):
    """Pasted text; looked at only unless `take`, and taken despite a question of unit when `sure_of_unit`."""

    text: Annotated[str, StringConstraints(max_length=200_000)]
    unit: Literal["m", "yd"]
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


class MonitorIn(Strict):
    """Whether the strike monitor is wanted, and the club and station of the next strikes."""

    wanted: bool
    club: ClubCode
    swing: SwingKey


class MonitorOut(Strict):
    """How the strike monitor goes: strikes taken, lines refused with the last reason. `available`: the studio has one."""

    available: bool
    wanted: bool
    state: Literal["off", "connecting", "live", "lost"]
    device: str
    simulated: bool
    club: str
    swing: str
    taken: int
    refused: int
    last_refusal: str


class DevicePath(FittingPath):
    """An instrument of a fitting."""

    kind: Literal["gauge", "hammer", "penetrometer"]


class DeviceIn(Strict):
    """Whether an instrument is wanted, and the club (own:N) or ground (its name) of the next readings."""

    wanted: bool
    target: Target


class DeviceOut(Strict):
    """How a device goes: what it reads, lines kept and refused, the last reason. `available`: the studio has one."""

    kind: Literal["monitor", "gauge", "hammer", "penetrometer"]
    available: bool
    wanted: bool
    state: Literal["off", "connecting", "live", "lost"]
    device: str
    simulated: bool
    target: str
    taken: int
    refused: int
    last_refusal: str


class DevicesOut(Strict):
    """The fitting's devices, the strike monitor first."""

    devices: list[DeviceOut]


class ReadingPath(FittingPath):
    """A reading's id."""

    reading_id: UUID


class ReadingsListOut(Strict):
    """Readings of the fitting's instruments in their order, and what they say by club or ground."""

    readings: list[ReadingDocument]
    summaries: list[ReadSummary]


class PhotoPath(FittingPath):
    """A photo's id."""

    photo_id: UUID


class PhotoOut(Strict):
    """A photo that is kept, re-encoded: width and height in pixels."""

    id: UUID
    width: int
    height: int


class VenuePath(Strict):
    """A record of the venue library."""

    record_id: UUID


class VenueOut(Strict):
    """A record of the library, with what its readings say."""

    id: UUID
    venue: str
    season: Season
    read_on: date
    kept_by: str
    ground: GroundDocument
    turf: str
    sand: str


class VenuesOut(Strict):
    """The library by venue, newest reading first."""

    records: list[VenueOut]


class LaddersOut(Strict):
    """Cover against cost: ladders that none beats in both, cheapest first."""

    front: list[LadderOut]


class WorkOut(Strict):
    """Families made of families to make, for a question and ahead of the next; 0 of 0 when nothing is being made."""

    done: int
    total: int
    ahead_done: int
    ahead_total: int


class ShotOut(Strict):
    """A shot of the catalogue."""

    key: str
    name: str
    kind: Literal["full", "turf", "sand"]


class CatalogueOut(Strict):
    """The shot catalogue and the readings assumed for classes."""

    shots: list[ShotOut]
    turf_class_g: dict[str, float]
    sand_class_kg_cm2: dict[str, float]


class RackOut(Strict):
    """The studio's rack."""

    heads: list[RackHeadDocument]


class RackIn(Strict):
    """A rack as CSV text."""

    csv: Annotated[str, StringConstraints(min_length=1, max_length=400_000)]


class ImportQuery(Strict):
    """Name of a file that is sent."""

    name: Annotated[str, StringConstraints(max_length=200)] = "file"


class ImportPath(FittingPath):
    """An import's id."""

    import_id: UUID


class MappingPath(Strict):
    """A saved mapping's id."""

    mapping_id: UUID


class WrongOut(Strict):
    """What is wrong with a row of the file."""

    row: int
    column: str
    value: str
    reason: str


class ImportCounts(Strict):
    """Rows with anything in them; ready to be taken; of those, there already; left out by their words; wrong; taken."""

    rows: int
    ready: int
    known: int
    left_out: int
    wrong: int
    taken: int


class ImportOut(Strict):
    """An import: where it stands, how far a run is, what came of it. `words` says why it stopped or failed."""

    id: UUID
    name: str
    state: Literal["ready", "running", "checked", "taken", "stopped", "failed", "withdrawn"]
    words: str
    stage: str
    done: int
    total: int
    counts: ImportCounts | None
    wrong: list[WrongOut]
    created_at: datetime
    taken_by: str


class ImportsOut(Strict):
    """Imports of a fitting, newest first."""

    imports: list[ImportOut]


class LookIn(Strict):
    """A mapping to look through; null for the saved one that fits the header, or a guess."""

    layout: LayoutDocument = LayoutDocument()
    mapping: MappingDocument | None = None


class FileColumnOut(Strict):
    """A column of the file: its name, the unit it states, and its first cells."""

    column: int
    name: str
    samples: list[str]


class FieldOut(Strict):
    """What a column can hold, with the units its numbers can be in."""

    field: str
    label: str
    units: list[str]


class LookOut(Strict):
    """A file as a mapping makes it; `guess` is shown while no whole mapping stands, with the fault that says why not."""

    kind: Literal["csv", "xlsx"]
    sheets: list[str]
    sheet: str | None
    encoding: str | None
    delimiter: str | None
    header_row: int
    rows: int
    formulas: int
    columns: list[FileColumnOut]
    fields: list[FieldOut]
    mapping: MappingDocument | None
    guess: dict[str, object]
    saved_as: str | None
    club_words: list[str]
    swing_words: list[str]
    strikes: list[StrikeDocument]
    wrong: list[WrongOut]
    faults: list[FaultOut]
    question: str | None


class RunIn(Strict):
    """How a file is run: checked as a whole or taken, all or none."""

    mapping: MappingDocument
    take: bool = False
    leave_out_wrong: bool = False
    other_strikes: bool = False
    keep_as: Annotated[str, StringConstraints(min_length=1, max_length=80, strip_whitespace=True)] | None = None


class SavedMappingOut(Strict):
    """A saved mapping."""

    id: UUID
    name: str
    kept_at: datetime


class SavedMappingsOut(Strict):
    """The studio's saved mappings."""

    mappings: list[SavedMappingOut]
