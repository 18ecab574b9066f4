"""What the routes take and answer."""

from __future__ import annotations

from datetime import datetime
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
    Grounds,
    MeasuringDocument,
    Name,
    PlayerDocument,
    Rack,
    RackHeadDocument,
)
from oblatus.formats.recommendation import LadderOut, RecommendationOut
from oblatus.formats.strikes import Reason, StrikeDocument

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
