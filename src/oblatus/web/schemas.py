"""What the routes of fittings take and answer, and what the program says of its health."""

from __future__ import annotations

from datetime import date, datetime
from typing import TYPE_CHECKING, Annotated, Any, Literal, get_type_hints
from uuid import UUID

from pydantic import Field, GetCoreSchemaHandler, StringConstraints, create_model
from pydantic_core import CoreSchema, core_schema

from oblatus.core.bounds import Bound
from oblatus.formats.differences import DifferenceOut
from oblatus.formats.earlier import EarlierOut
from oblatus.formats.fields import Strict, Within
from oblatus.formats.fitting import SECTIONS, FittingDocument
from oblatus.formats.imports import FOUND_OUT, LayoutDocument
from oblatus.formats.limits import MOST_WEDGES_OWNED, NAME_LETTERS
from oblatus.formats.recommendation import RecommendationOut
from oblatus.formats.sections.bag import Rack, RackHeadDocument
from oblatus.formats.sections.parts import Name
from oblatus.store.disk import Room
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
    that got no answer. `wedges` are those by whose places pins and build sheet go, if they may be others than are saved.
    """

    revision: Revision
    edit_id: UUID | None = None
    base: SectionsIn | None = None
    attempts: Annotated[tuple[AttemptIn, ...], Field(max_length=20)] = ()
    settled: Annotated[tuple[SettledIn, ...], Field(max_length=500)] = ()
    wedges: Annotated[list[dict[str, Any]], Field(max_length=MOST_WEDGES_OWNED)] | None = None
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


class ProofLine(Strict):
    """A proof in a list: its day and clubs."""

    id: UUID
    on: date
    clubs: list[str]


class RoundLine(Strict):
    """A round in a list: its day, and how many shots it has."""

    round: UUID
    on: date
    shots: int


class OutList(Strict):
    """What was taken out of a fitting and can be put back, of each kind the last one first."""

    kept: list[KeptLine]
    proofs: list[ProofLine]
    rounds: list[RoundLine]


class KeptOut(KeptLine):
    """A kept proposal whole: inputs and result as they were; `earlier` instead of a result when an earlier engine
    made it.
    """

    document: FittingDocument
    result: RecommendationOut | None
    earlier: EarlierOut | None


class NameIn(Strict):
    """Another name for a kept proposal; `was`: the one in whose place it was written."""

    label: Annotated[str, StringConstraints(max_length=NAME_LETTERS, strip_whitespace=True)]
    was: Annotated[str, StringConstraints(max_length=NAME_LETTERS, strip_whitespace=True)] | None = None


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
    """Keep the proposal made from `revision` and, if it is told, the rack of `rack_key`; sent again under its id it is
    kept once."""

    revision: Revision
    id: UUID | None = None
    rack_key: Annotated[str, StringConstraints(max_length=12)] | None = None
    label: Annotated[str, StringConstraints(max_length=NAME_LETTERS)] = ""


class OwnedOut(Strict):
    """An owned wedge as it is drawn: its section, and how far the edge stands off the floor with the shaft upright."""

    shape: str
    edge_height_mm: float
    outline_mm: list[list[float]]


class FittingOut(Strict):
    """A fitting with its proposal, or the faults that keep the engine from one; `to_come` while it is to be worked out.

    `by_hand` says what the heads set by hand are called, in their order; `readings` for every ground and kind of it what
    its single readings say together, empty where there are none; `thatch_mm` how deep its turf gives before the soil,
    `wedge_room` how many wedges the clubs allowed leave room for; `kept_is_shown` whether the set kept last is the one
    proposed. `strikes_key` and `rack_key` tell the strikes and the rack that the proposal stands on from any others.
    """

    id: UUID
    revision: int
    document: FittingDocument
    recommendation: RecommendationOut | None
    problem: list[FaultOut]
    to_come: bool
    by_hand: list[str]
    owned: list[OwnedOut]
    readings: list[dict[str, str]]
    thatch_mm: list[float]
    wedge_room: int
    steps: dict[str, State]
    default_shot_mix: dict[str, float]
    kept: KeptLine | None
    kept_is_shown: bool
    strikes: int
    strikes_key: str
    rack_key: str


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


class CountOut(Strict):
    """How much of something is done; 0 of 0 when nothing is."""

    done: int
    total: int


class WorkOut(Strict):
    """Families for a question that waits and ahead of the next one, draws of the laws, axes along which a change of the
    choice is looked for, and schools."""

    asked: CountOut
    ahead: CountOut
    laws: CountOut
    flips: CountOut
    schools: CountOut


class RackOut(Strict):
    """The studio's rack."""

    heads: list[RackHeadDocument]
    revision: int


class RackFileIn(Strict):
    """A rack as a CSV or XLSX file in base64, and how it is read."""

    content: Annotated[str, StringConstraints(min_length=1)]
    layout: LayoutDocument = FOUND_OUT


class RackIn(RackFileIn):
    """A rack in place of the one at a revision."""

    revision: Revision
