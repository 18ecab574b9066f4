"""The fitting document: everything known of one fitting as one JSON object, version 1. Keys carry units.

`docs/formats/fitting.schema.json` is generated from these models.
"""

from __future__ import annotations

import json
import math
from collections.abc import Collection, Mapping, Sequence
from datetime import date, datetime
from itertools import pairwise
from typing import TYPE_CHECKING, Annotated, Any, ClassVar, Literal, Self, get_args, get_type_hints
from uuid import UUID

from pydantic import Field, StringConstraints, ValidationError, create_model, model_validator

from oblatus.core.after.due import DUE_KEYS
from oblatus.core.bounds import FLIGHT, Bound
from oblatus.core.build.assembly import LENGTH
from oblatus.core.build.parts import GRIP_OF, SHAFT_OF
from oblatus.core.build.sheet import PRICE_LIST, Prices
from oblatus.core.clubs import Head, Make
from oblatus.core.delivery import OpeningHabit, Release, Schools
from oblatus.core.figures import figures, in_engine
from oblatus.core.gapping import SWINGS
from oblatus.core.gapping.ladder import MOST_LOFT_DEG, MOST_WEDGES
from oblatus.core.gapping.strikes import SHORT_STATIONS
from oblatus.core.geometry import Hand
from oblatus.core.grounds import SURFACES, GreenClass, Ground, Season, SurfaceKind, summarise_readings
from oblatus.core.shots import BY_KEY, SHORT_SHOTS
from oblatus.core.strokes.situations import Short
from oblatus.errors import InputError, fault
from oblatus.formats.fields import Strict, Within, at_field, document_fields, faults_of
from oblatus.formats.limits import (
    BALL_LETTERS,
    LARGEST_FITTING,
    MOST_BANDS,
    MOST_GROUNDS,
    MOST_OWN_SWINGS,
    MOST_PHOTOS,
    MOST_READINGS,
    MOST_WEDGES_OWNED,
    NAME_LETTERS,
    SWING_NAME_LETTERS,
    WHY_LETTERS,
)
from oblatus.formats.log_shots import MOST_LOGGED, LogShotDocument
from oblatus.formats.readings import ReadingDocument
from oblatus.formats.strikes import StrikeDocument, SwingKey

FORMAT: Literal["oblatus.fitting"] = "oblatus.fitting"
VERSION: Literal[1] = 1
SHARE_TOLERANCE = 0.005
LOFT = figures(Head)["loft_deg"].bound
PRICES = Prices()

Name = Annotated[str, StringConstraints(min_length=1, max_length=NAME_LETTERS, strip_whitespace=True)]
Note = Annotated[str, StringConstraints(max_length=2000)]
Share = Annotated[float, Within(Bound(0, 1, ""))]
Source = Literal["measured", "typed", "earlier", "assumed"]
GroundSource = Literal["measured", "typed", "copied", "assumed"]


class _Estimate(Strict):
    count: Annotated[int, Within(Bound(1, 100_000, "strikes"))] | None = None
    source: Source = "assumed"


class AttackEstimate(_Estimate):
    """Attack angle of partial swings [degrees], down negative."""

    mean: Annotated[float, Within(Bound(-15, 2, "degrees"))] = -5.0
    spread: Annotated[float, Within(Bound(0, 6, "degrees"))] = 1.5


class LeanEstimate(_Estimate):
    """Shaft lean of partial swings [degrees], handle ahead positive."""

    mean: Annotated[float, Within(Bound(-8, 16, "degrees"))] = 5.0
    spread: Annotated[float, Within(Bound(0, 6, "degrees"))] = 2.0


class EntryEstimate(_Estimate):
    """Where the sole lands, from the ball's centre [mm], behind negative."""

    mean: Annotated[float, Within(Bound(-150, 40, "mm"))] = -34.0
    spread: Annotated[float, Within(Bound(0, 60, "mm"))] = 15.0


class DeliveryDocument(Strict):
    """How the player delivers the club in partial swings."""

    attack_deg: AttackEstimate = AttackEstimate()
    lean_deg: LeanEstimate = LeanEstimate()
    entry_mm: EntryEstimate = EntryEstimate()
    release: Release = "level"
    opening: OpeningHabit = "when_needed"


class _SchoolsDocument(Strict):
    """The school followed where good practitioners differ; "measured" fits the habit."""

    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...


if TYPE_CHECKING:
    SchoolsDocument = _SchoolsDocument
else:
    SchoolsDocument = create_model(
        "SchoolsDocument", __base__=_SchoolsDocument, __doc__=_SchoolsDocument.__doc__,
        **{key: (kind, getattr(Schools(), key)) for key, kind in get_type_hints(Schools).items()},
    )  # fmt: skip


class PlayerDocument(Strict):
    """The player: who, complaints in their own words, delivery, speed, wishes."""

    name: Name
    hand: Hand = "right"
    handicap: Annotated[float, Within(Bound(-10, 54, "strokes"))] | None = None
    complaints: Note = ""
    delivery: DeliveryDocument = DeliveryDocument()
    pitching_wedge_carry_m: Annotated[float, Within(Bound(30, 170, "m"))] | None = None
    pitching_wedge_speed_mps: Annotated[float, Within(Bound(8, 48, "m/s"))] | None = None
    wedge_count: Annotated[int, Within(Bound(1, 4, "wedges"))] | None = None
    schools: SchoolsDocument = SchoolsDocument()
    shot_mix: dict[str, Share] | None = None

    @model_validator(mode="after")
    def _shot_mix_is_whole(self) -> Self:
        check_shot_mix(self.shot_mix)
        return self


class SurfaceDocument(Strict):
    """One kind of ground. With single readings of its instrument, its figure is their mean: measured, or copied."""

    kind_of: ClassVar[SurfaceKind]

    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...

    @property
    def reading(self) -> float:
        """The figure that the instrument reads."""
        return float(getattr(self, self.kind_of.reading))

    @property
    def readings(self) -> tuple[float, ...]:
        """Single readings, if there are any."""
        return tuple(getattr(self, self.kind_of.readings))

    @property
    def source(self) -> str:
        """Where the figure comes from."""
        return str(getattr(self, self.kind_of.source))

    @model_validator(mode="after")
    def _readings_say_the_figure(self) -> Self:
        kind = self.kind_of
        if not self.readings:
            return self
        mean = round(summarise_readings(self.readings).mean, figures(kind.made_of)[kind.reading].places + 2)
        source = "copied" if self.source == "copied" else "measured"
        return self.model_copy(update={kind.reading: mean, kind.source: source})


def _surface_document(kind: SurfaceKind) -> type[SurfaceDocument]:
    """The document of a kind of ground: single readings first, then the figures, one of them picked by a word."""
    known = figures(kind.made_of)
    one = Annotated[float, Within(known[kind.reading].bound)]
    rest = document_fields(kind.made_of, without=[key for key, f in known.items() if f.where == "none"])
    fields: dict[str, Any] = {kind.readings: (Annotated[tuple[one, ...], Field(max_length=MOST_READINGS)], ())}
    for key, field in rest.items():
        picked = kind.picked if kind.picked is not None and kind.picked.figure == key else None
        if picked is None:
            fields[key] = field
        else:
            fields[picked.field] = (Literal[tuple(picked.values)], picked.usual)
        if key == kind.reading:
            fields[kind.source] = (GroundSource, "assumed")
    name = f"{kind.key.capitalize()}Document"
    words = f"{kind.words} of one ground. With single readings, the figure is their mean: measured, or copied."
    made = create_model(name, __base__=SurfaceDocument, __doc__=words, **fields)
    made.kind_of = kind
    return made


SURFACE_DOCUMENTS: dict[str, type[SurfaceDocument]] = {key: _surface_document(kind) for key, kind in SURFACES.items()}


MOST_FORMER_NAMES = 8


class _GroundDocument(Strict):
    """One ground of the mix with its share of the player's golf; where, in which season and on which day it was read.

    `formerly` are names that it has on pages that players hold: shots noted there by such a name are of this ground.
    """

    name: Name
    share: Share
    venue: Name | None = None
    season: Season | None = None
    read_on: date | None = None
    formerly: Annotated[tuple[Name, ...], Field(max_length=MOST_FORMER_NAMES)] = ()

    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...

    def surface(self, key: str) -> SurfaceDocument:
        """One kind of its ground."""
        found: SurfaceDocument = getattr(self, key)
        return found


if TYPE_CHECKING:
    GroundDocument = _GroundDocument
else:
    GroundDocument = create_model(
        "GroundDocument", __base__=_GroundDocument, __doc__=_GroundDocument.__doc__,
        **{key: (document, document()) for key, document in SURFACE_DOCUMENTS.items()},
        green=(GreenClass, "medium"), **document_fields(Ground),
    )  # fmt: skip


class VenueDocument(Strict):
    """A ground as it was read at a venue, in a season, on a day."""

    venue: Name
    season: Season
    read_on: date
    ground: GroundDocument


class _HeadDocument(Strict):
    """Static geometry of a head."""

    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...

    @model_validator(mode="after")
    def _can_exist(self) -> Self:
        try:
            Head(**in_engine(Head, self))
        except InputError as error:
            raise at_field(error.faults[0].field, error.faults[0].message) from error
        return self


if TYPE_CHECKING:
    HeadDocument = _HeadDocument
else:
    HeadDocument = create_model(
        "HeadDocument", __base__=_HeadDocument, __doc__=_HeadDocument.__doc__, **document_fields(Head)
    )


class RackHeadDocument(HeadDocument):
    """A demo head of the rack."""

    code: Annotated[str, StringConstraints(min_length=1, max_length=40, strip_whitespace=True)]
    name: Name
    make: Make = "forged"
    bend_limit_deg: Annotated[float, Within(Bound(0, 4, "degrees"))] = 3.0
    stock: Annotated[int, Within(Bound(0, 999, "heads"))] = 1
    price: Annotated[float, Within(Bound(0, 100_000, ""))] | None = None


SwingWeight = Annotated[str, StringConstraints(pattern=r"^[A-G]\d(\.\d)?$")]


class BuiltDocument(Strict):
    """What a wedge was when the studio built it; None where it was left as it was, or the loft not read."""

    order_id: UUID
    on: date
    by: Name
    length_in: Annotated[float, Within(LENGTH)] | None = None
    shaft: Literal[tuple(SHAFT_OF)] | None = None  # type: ignore[valid-type]
    grip: Literal[tuple(GRIP_OF)] | None = None  # type: ignore[valid-type]
    swing_weight: SwingWeight | None = None
    loft_deg: Annotated[float, Within(LOFT)] | None = None


class OwnedWedgeDocument(HeadDocument):
    """A wedge the player owns; `loft_deg` is the measured one, or the stamped one until it is measured.

    `loft_typed`: the measured loft was typed, not taken over from the gauge. `bends_deg`: every bend of its life, for
    loft or lie, since the studio knows it; they use up what it may be bent by. `photos` are kept by the studio beside
    the document.
    """

    name: Name
    stamped_loft_deg: Annotated[float, Within(LOFT)] | None = None
    measured: bool = False
    loft_typed: bool = False
    make: Make = "forged"
    bend_limit_deg: Annotated[float, Within(Bound(0, 4, "degrees"))] = 2.0
    wear_class: Literal["unknown", "fresh", "used", "worn"] = "unknown"
    wear: Note = ""
    photos: Annotated[tuple[UUID, ...], Field(max_length=MOST_PHOTOS)] = ()
    bends_deg: Annotated[tuple[Annotated[float, Within(Bound(-4, 4, "degrees"))], ...], Field(max_length=40)] = ()
    built: BuiltDocument | None = None


Became = Literal["bent", "ground", "out of the bag"]


class FormerWedgeDocument(Strict):
    """A wedge as it was until a day: bent, ground or out of the bag since; `code` by which its strikes go then."""

    code: Annotated[str, StringConstraints(max_length=40)]
    wedge: OwnedWedgeDocument
    until: date
    became: Became
    order_id: UUID | None = None
    """Of the build that changed it; None where it was taken out by hand."""


MOST_FORMER = 60


class BagDocument(Strict):
    """What is in the bag above the wedges, the wedges owned, and those that were, newest first."""

    nine_iron_loft_deg: Annotated[float, Within(Bound(34, 48, "degrees"))] = 41.0
    pitching_wedge_loft_deg: Annotated[float, Within(Bound(40, 52, "degrees"))] = 46.0
    pitching_wedge_bounce_deg: Annotated[float, Within(Bound(0, 12, "degrees"))] = 5.0
    other_clubs: Annotated[int, Within(Bound(5, 14, "clubs"))] = 10
    wedges: Annotated[tuple[OwnedWedgeDocument, ...], Field(max_length=MOST_WEDGES_OWNED)] = ()
    former: Annotated[tuple[FormerWedgeDocument, ...], Field(max_length=MOST_FORMER)] = ()

    @model_validator(mode="after")
    def _nine_iron_is_stronger(self) -> Self:
        if self.nine_iron_loft_deg >= self.pitching_wedge_loft_deg:
            raise at_field("nine_iron_loft_deg", "must be less than the pitching wedge's loft")
        return self


class PinnedHead(Strict):
    """The fitter's own choice of head for one loft of the ladder; `code` is the rack's, or own:N for an owned wedge."""

    loft_deg: Annotated[float, Within(Bound(44, 64, "degrees"))]
    code: Annotated[str, StringConstraints(min_length=1, max_length=40)]


BAND_FROM, BAND_TO = Bound(0, 170, "m"), Bound(5, 200, "m")
LOFTS = Bound(44, MOST_LOFT_DEG, "degrees")


class BandDocument(Strict):
    """How much of the golf asks for distances between two."""

    from_m: Annotated[float, Within(BAND_FROM)]
    to_m: Annotated[float, Within(BAND_TO)]
    share: Share

    @model_validator(mode="after")
    def _rises(self) -> Self:
        if self.to_m - self.from_m < 1.0:
            raise at_field("to_m", "must lie at least a metre beyond the start")
        return self


Factor = Annotated[float, Within(Bound(0, 5, ""))]


class LadderFactors(Strict):
    """How much each part of the ladder's penalty weighs, 1 being usual."""

    uncovered: Factor = 1.0
    gaps: Factor = 1.0
    steps: Factor = 1.0
    overlaps: Factor = 1.0
    top_loft: Factor = 1.0
    alternatives: Factor = 1.0
    cost: Factor = 1.0


class HoleDocument(Strict):
    """Where the hole is for a shot [m]: its distance, the room from the front edge to it, the green behind, what
    lies short.
    """

    shot: Literal[SHORT_SHOTS]  # type: ignore[valid-type]
    hole_m: Annotated[float, Within(Bound(3, 80, "m"))]
    room_m: Annotated[float, Within(Bound(1, 40, "m"))]
    behind_m: Annotated[float, Within(Bound(1, 40, "m"))]
    short: Short

    @model_validator(mode="after")
    def _edge_is_ahead(self) -> Self:
        if self.room_m > self.hole_m - 1.0:
            raise at_field("room_m", "leaves less than a metre to the front edge")
        return self


class EconomyDocument(Strict):
    """What a round and a change are worth; null where the usual figure stands."""

    shots_a_round: Annotated[float, Within(Bound(1, 60, "shots"))] | None = None
    worth_changing: Annotated[float, Within(Bound(0, 2, "strokes a round"))] | None = None
    slot: Annotated[float, Within(Bound(0, 2, "strokes a round"))] | None = None
    practice: Annotated[float, Within(Bound(0, 0.2, "strokes a shot"))] | None = None
    table_scale: Annotated[float, Within(Bound(0.3, 2.5, ""))] | None = None
    claims_sd: Annotated[float, Within(Bound(0.05, 1.0, ""))] | None = None


class ChoicesDocument(Strict):
    """What the fitter has settled by hand; `distances` null when the shot mix says how often each is faced.

    `layouts` are the shots whose hole stands elsewhere than usual; `heads_bought` the step of change that is taken
    instead of the proposed one: -1 keeps the bag as it is, 0 bends only.
    """

    ladder_factors: LadderFactors = LadderFactors()
    distances: Annotated[tuple[BandDocument, ...], Field(min_length=1, max_length=MOST_BANDS)] | None = None

    pinned: Annotated[tuple[PinnedHead, ...], Field(max_length=MOST_WEDGES)] = ()
    layouts: Annotated[tuple[HoleDocument, ...], Field(max_length=20)] = ()
    economy: EconomyDocument = EconomyDocument()
    heads_bought: Annotated[int, Within(Bound(-1, MOST_WEDGES, "heads"))] | None = None

    ladder_deg: (
        Annotated[tuple[Annotated[float, Within(LOFTS)], ...], Field(min_length=1, max_length=MOST_WEDGES)] | None
    ) = None

    @model_validator(mode="after")
    def _one_layout_a_shot(self) -> Self:
        shots = [layout.shot for layout in self.layouts]
        twice = next((shot for shot in shots if shots.count(shot) > 1), None)
        if twice is not None:
            raise at_field("layouts", f"two layouts are for {twice}")
        return self

    @model_validator(mode="after")
    def _ascending(self) -> Self:
        lofts = self.ladder_deg or ()
        if any(b - a < 0.5 for a, b in pairwise(lofts)):
            raise at_field("ladder_deg", "must rise by at least half a degree from club to club")
        return self


class SwingDocument(Strict):
    """A swing of the fitter's own: key, name, head speed as a share of full, lean beyond the habit [degrees]."""

    key: SwingKey
    name: Annotated[str, StringConstraints(min_length=1, max_length=SWING_NAME_LETTERS, strip_whitespace=True)]
    speed_share: Annotated[float, Within(Bound(0.2, 1.05, ""))] = 0.8
    extra_lean_deg: Annotated[float, Within(Bound(-6, 8, "degrees"))] = 0.0


class MeasuringDocument(Strict):
    """How carries are measured: the fitter's own swings beside full, 10:30 and 9:00, and the air of the session."""

    swings: Annotated[tuple[SwingDocument, ...], Field(max_length=MOST_OWN_SWINGS)] = ()
    temperature_c: Annotated[float, Within(FLIGHT["temperature_c"])] = 20.0
    altitude_m: Annotated[float, Within(FLIGHT["altitude_m"])] = 0.0

    @model_validator(mode="after")
    def _swings_differ(self) -> Self:
        keys = [*(swing.key for swing in SWINGS), *SHORT_STATIONS, *(swing.key for swing in self.swings)]
        twice = next((key for key in keys if keys.count(key) > 1), None)
        if twice is not None:
            raise at_field("swings", f"two swings have the key {twice}")
        return self


class ShiftDocument(Strict):
    """What balls showed of a head in one situation: strokes a shot more than the model says, and how sure."""

    shot: Literal[SHORT_SHOTS]  # type: ignore[valid-type]
    strokes: Annotated[float, Within(Bound(-2, 2, "strokes"))]
    spread: Annotated[float, Within(Bound(0, 2, "strokes"))]
    balls: Annotated[int, Within(Bound(1, 10_000, "balls"))]


ProofStanding = Literal["proved", "level", "contradicted", "open"]


class HeadEvidenceDocument(Strict):
    """What was shown of a head, by a proof or by the course; it counts in the proposal.

    `source_id` is the proof's; `against` the club that it was compared with; `standing` how the model's promise came off.
    The head is kept as it was proved: it is found again bent or not, and without effect once it is neither owned nor on
    the rack.
    """

    source: Literal["proof", "log"]
    source_id: UUID
    on: date
    name: Name
    against: Annotated[str, StringConstraints(max_length=NAME_LETTERS)] = ""
    standing: ProofStanding = "open"
    head: HeadDocument
    shots: Annotated[tuple[ShiftDocument, ...], Field(min_length=1, max_length=20)]


BUILD = {
    "loft_deg": LOFT, "lie_deg": figures(Head)["lie_deg"].bound, "length_in": LENGTH, "bent_deg": Bound(-4, 4, "degrees"),
    "lie_mark_mm": Bound(-25, 25, "mm"),
    "heel_mm": Bound(0, 3, "mm"), "toe_mm": Bound(0, 3, "mm"), "back_fraction": Bound(0, 0.5, ""),
    "back_deg": Bound(0, 20, "degrees"), "bevel_mm": Bound(0, 6, "mm"), "bevel_deg": Bound(0, 15, "degrees"),
}  # fmt: skip
"""What a club on the build sheet may be."""


class GrindDocument(Strict):
    """Metal to be taken off a sole, beside what it has."""

    heel_mm: Annotated[float, Within(BUILD["heel_mm"])] = 0.0
    toe_mm: Annotated[float, Within(BUILD["toe_mm"])] = 0.0
    back_fraction: Annotated[float, Within(BUILD["back_fraction"])] = 0.0
    back_deg: Annotated[float, Within(BUILD["back_deg"])] = 0.0
    bevel_mm: Annotated[float, Within(BUILD["bevel_mm"])] = 0.0
    bevel_deg: Annotated[float, Within(BUILD["bevel_deg"])] = 0.0


class AsBuiltDocument(Strict):
    """What was read of a built club; None where it was not read. `typed`: by hand, not taken over from the gauge."""

    loft_deg: Annotated[float, Within(BUILD["loft_deg"])] | None = None
    lie_deg: Annotated[float, Within(BUILD["lie_deg"])] | None = None
    swing_weight: SwingWeight | None = None
    typed: bool = True


class BuildClubDocument(Strict):
    """A club to be built: its head (own:N or the rack's code) at a loft; what is None stays as it is.

    `lie_mark_mm`: where the sole marked the board, from its middle towards the toe.
    """

    code: Annotated[str, StringConstraints(min_length=1, max_length=40)]
    loft_deg: Annotated[float, Within(BUILD["loft_deg"])]
    lie_deg: Annotated[float, Within(BUILD["lie_deg"])] | None = None
    lie_mark_mm: Annotated[float, Within(BUILD["lie_mark_mm"])] | None = None
    bent_before_deg: Annotated[tuple[Annotated[float, Within(BUILD["bent_deg"])], ...], Field(max_length=12)] = ()
    grind: GrindDocument = GrindDocument()
    length_in: Annotated[float, Within(BUILD["length_in"])] | None = None
    shaft: Literal[tuple(SHAFT_OF)] | None = None  # type: ignore[valid-type]
    grip: Literal[tuple(GRIP_OF)] | None = None  # type: ignore[valid-type]
    swing_weight: SwingWeight | None = None
    read: AsBuiltDocument = AsBuiltDocument()


class PricesDocument(Strict):
    """The studio's price list for work, and tax as a share."""

    bend: Annotated[float, Within(PRICE_LIST["bend"][1])] = PRICES.bend
    lie: Annotated[float, Within(PRICE_LIST["lie"][1])] = PRICES.lie
    grind: Annotated[float, Within(PRICE_LIST["grind"][1])] = PRICES.grind
    assemble: Annotated[float, Within(PRICE_LIST["assemble"][1])] = PRICES.assemble
    weigh: Annotated[float, Within(PRICE_LIST["weigh"][1])] = PRICES.weigh
    tax: Annotated[float, Within(PRICE_LIST["tax"][1])] = PRICES.tax


class BuildDocument(Strict):
    """The set as it is to be built; without clubs it is the proposed one as it stands. `prices` None: the studio's."""

    clubs: Annotated[tuple[BuildClubDocument, ...], Field(max_length=8)] = ()
    prices: PricesDocument | None = None


CardPart = Literal["lofts", "full", "distances", "rows", "rules"]
CARD_PARTS: tuple[CardPart, ...] = get_args(CardPart)


class CardDocument(Strict):
    """What is on the player's card: the ball that the carries hold for, paper, colour, parts."""

    ball: Annotated[str, StringConstraints(max_length=BALL_LETTERS)] = ""
    size: Literal["pocket", "a6", "a4", "letter"] = "a6"
    grey: bool = False
    parts: Annotated[tuple[CardPart, ...], Field(min_length=1, max_length=5)] = CARD_PARTS

    @model_validator(mode="after")
    def _once(self) -> Self:
        if len(set(self.parts)) < len(self.parts):
            raise at_field("parts", "name a part twice")
        return self


class HeldDocument(Strict):
    """What a fitting holds of the things that a log counts; null where it is assumed."""

    shot_mix: dict[str, Share] | None = None
    distances: Annotated[tuple[BandDocument, ...], Field(min_length=1, max_length=MOST_BANDS)] | None = None
    table_scale: Annotated[float, Within(Bound(0.3, 2.5, ""))] | None = None

    @model_validator(mode="after")
    def _shot_mix_is_whole(self) -> Self:
        check_shot_mix(self.shot_mix)
        return self


class DecisionDocument(Strict):
    """What the fitter said to something that the log offers: taken or not, on which day, by how many shots it stood;
    what was put in place, and what stood there before."""

    key: Annotated[str, StringConstraints(min_length=1, max_length=80)]
    accepted: bool
    on: date
    shots: Annotated[int, Within(Bound(0, 100_000, "shots"))]
    put: HeldDocument | None = None
    before: HeldDocument | None = None


class SnoozeDocument(Strict):
    """Something due that is put off, and why."""

    key: Literal[DUE_KEYS]  # type: ignore[valid-type]
    until: date
    reason: Annotated[str, StringConstraints(min_length=1, max_length=WHY_LETTERS, strip_whitespace=True)]


class LookedAtDocument(Strict):
    """Something due that was looked at on a day: it is due again from then."""

    key: Literal[DUE_KEYS]  # type: ignore[valid-type]
    on: date


class UseDocument(Strict):
    """How much the clubs are used; null where nobody said."""

    rounds_year: Annotated[float, Within(Bound(0, 400, "rounds a year"))] | None = None
    range_balls_week: Annotated[float, Within(Bound(0, 3000, "balls a week"))] | None = None


Grounds = Annotated[tuple[GroundDocument, ...], Field(min_length=1, max_length=MOST_GROUNDS)]


class TripDocument(Strict):
    """Other ground for some days, or for a season of every year; `from_on`, `to_on` null where no day is set."""

    name: Name
    season: bool = False
    from_on: date | None = None
    to_on: date | None = None
    grounds: Grounds

    @model_validator(mode="after")
    def _can_be(self) -> Self:
        check_grounds(self.grounds)
        if self.from_on is not None and self.to_on is not None and self.to_on < self.from_on:
            raise at_field("to_on", "is before the first day")
        return self


class AfterDocument(Strict):
    """What comes after the fitting: what was said to the log's offers, what is put off and was looked at, use,
    seasons and trips."""

    decisions: Annotated[tuple[DecisionDocument, ...], Field(max_length=200)] = ()
    snoozes: Annotated[tuple[SnoozeDocument, ...], Field(max_length=20)] = ()
    looked_at: Annotated[tuple[LookedAtDocument, ...], Field(max_length=20)] = ()
    use: UseDocument = UseDocument()
    trips: Annotated[tuple[TripDocument, ...], Field(max_length=20)] = ()

    @model_validator(mode="after")
    def _told_apart(self) -> Self:
        for where, names in (
            ("decisions", [one.key for one in self.decisions]),
            ("snoozes", [one.key for one in self.snoozes]),
            ("looked_at", [one.key for one in self.looked_at]),
            ("trips", [one.name.casefold() for one in self.trips]),
        ):
            twice = next((name for name in names if names.count(name) > 1), None)
            if twice is not None:
                raise at_field(where, f"two are called {twice}")
        return self


class KeptDocument(Strict):
    """A kept proposal in a file: name, when, by whom, with which engine, inputs and result as they were."""

    label: Annotated[str, StringConstraints(max_length=NAME_LETTERS)] = ""
    revision: Annotated[int, Within(Bound(1, 1_000_000_000, ""))]
    created_at: datetime
    engine_version: Annotated[str, StringConstraints(min_length=1, max_length=20)]
    kept_by: Name
    clubs: Annotated[tuple[Annotated[str, StringConstraints(max_length=200)], ...], Field(max_length=8)] = ()
    document: dict[str, Any]
    result: dict[str, Any]


class PhotoDocument(Strict):
    """A photo in a file: the id by which a wedge shows it, and a JPEG in base64."""

    id: UUID
    jpeg: Annotated[str, StringConstraints(min_length=4, max_length=4_000_000)]


class AttachedDocument(Strict):
    """What belongs to a fitting beside its document; `proofs` are whole proof documents (formats/proof.py), `builds`
    builds that were signed (formats/build.py), `handovers` what was handed over with its scores (formats/page.py), `log`
    shots noted on the course."""

    kept: Annotated[tuple[KeptDocument, ...], Field(max_length=500)] = ()
    readings: Annotated[tuple[ReadingDocument, ...], Field(max_length=5000)] = ()
    photos: Annotated[tuple[PhotoDocument, ...], Field(max_length=80)] = ()
    proofs: Annotated[tuple[dict[str, Any], ...], Field(max_length=60)] = ()
    builds: Annotated[tuple[dict[str, Any], ...], Field(max_length=60)] = ()
    log: Annotated[tuple[LogShotDocument, ...], Field(max_length=MOST_LOGGED)] = ()
    handovers: Annotated[tuple[dict[str, Any], ...], Field(max_length=200)] = ()
    begun_at: datetime | None = None


Rack = Annotated[tuple[RackHeadDocument, ...], Field(max_length=400)]


class FittingDocument(Strict):
    """One fitting. `rack` is null when the studio's own rack is meant; `strikes` are those measured, in their order;
    `attached` is there in a file only: kept proposals, readings of instruments and photos."""

    format: Literal["oblatus.fitting"] = FORMAT
    version: Literal[1] = VERSION
    player: PlayerDocument
    grounds: Grounds
    bag: BagDocument = BagDocument()
    choices: ChoicesDocument = ChoicesDocument()
    measuring: MeasuringDocument = MeasuringDocument()
    evidence: Annotated[tuple[HeadEvidenceDocument, ...], Field(max_length=60)] = ()
    build: BuildDocument = BuildDocument()
    card: CardDocument = CardDocument()
    after: AfterDocument = AfterDocument()
    rack: Rack | None = None
    strikes: Annotated[tuple[StrikeDocument, ...], Field(max_length=120_000)] = ()
    attached: AttachedDocument | None = None

    @model_validator(mode="after")
    def _grounds_are_whole(self) -> Self:
        check_grounds(self.grounds)
        return self

    @model_validator(mode="after")
    def _strikes_are_told_apart(self) -> Self:
        if len({strike.id for strike in self.strikes}) < len(self.strikes):
            raise at_field("strikes", "two strikes have the same id")
        return self


BESIDE = ("format", "version", "strikes", "rack", "attached")
SECTIONS = tuple(name for name in FittingDocument.model_fields if name not in BESIDE)
"""The parts of a document that are edited on a screen."""
AFTER_THE_SET = ("build", "card", "after")
"""Those that are about the set once it is chosen: no proposal stands on them."""


def check_shot_mix(mix: dict[str, float] | None) -> None:
    """Shares of shots of the catalogue that sum to 1; raises PydanticCustomError where they do not."""
    if mix is None:
        return
    unknown = sorted(set(mix) - set(BY_KEY))
    if unknown:
        raise at_field(f"shot_mix.{unknown[0]}", "is not a shot of the catalogue")
    _whole(mix.values(), "shot_mix")


def check_grounds(grounds: tuple[GroundDocument, ...]) -> None:
    """Shares sum to 1 and names differ.

    Raises
    ------
    PydanticCustomError
        Where they do not.
    """
    _whole((ground.share for ground in grounds), "grounds")
    names = [ground.name.casefold() for ground in grounds]
    twice = next((name for name in names if names.count(name) > 1), None)
    if twice is not None:
        raise at_field("grounds", f"two grounds are called {twice}")


def renamed(before: Sequence[GroundDocument], after: Sequence[GroundDocument]) -> dict[str, str]:
    """Old name to new of every ground that stands in its place and is as it was, but for its name and its share."""
    if len(before) != len(after):
        return {}
    was, now = {ground.name for ground in before}, {ground.name for ground in after}
    return {
        old.name: new.name
        for old, new in zip(before, after, strict=True)
        if old.name not in now
        and new.name not in was
        and old.model_copy(update={"name": new.name, "share": new.share}) == new
    }


def called_before(
    grounds: Sequence[GroundDocument], names: Mapping[str, str], shown: Collection[str]
) -> tuple[GroundDocument, ...]:
    """The grounds after `names` were changed, old to new, with the old ones that stand on pages (`shown`)."""
    was = {new: old for old, new in names.items()}

    def one(ground: GroundDocument) -> GroundDocument:
        before = [was[ground.name]] if was.get(ground.name) in shown else []
        formerly = [name for name in dict.fromkeys([*before, *ground.formerly]) if name != ground.name]
        return ground.model_copy(update={"formerly": tuple(formerly[:MOST_FORMER_NAMES])})

    return tuple(one(ground) if ground.name in was else ground for ground in grounds)


def ground_called(grounds: Sequence[GroundDocument], name: str) -> str:
    """The name today of a ground that a page calls `name`; that name itself where no ground has or had it."""
    if any(ground.name == name for ground in grounds):
        return name
    return next((ground.name for ground in grounds if name in ground.formerly), name)


def _whole(shares: Any, where: str) -> None:
    total = math.fsum(shares)
    if abs(total - 1.0) > SHARE_TOLERANCE:
        raise at_field(where, f"the shares sum to {100 * total:.4g} %, not 100")


def load_fitting(text: str | bytes) -> FittingDocument:
    """Read a fitting document.

    Raises
    ------
    InputError
        If the text is not JSON, not this format, another version, or any field is wrong; nothing is guessed.
    """
    if len(text) > LARGEST_FITTING:
        raise fault("document", f"is larger than {LARGEST_FITTING // 1000} kB")
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise fault("document", f"is not JSON: {str(error)[:120]}") from error
    return parse_fitting(data)


def parse_fitting(data: Any) -> FittingDocument:
    """A fitting document from parsed JSON; format and version are looked at first.

    Raises
    ------
    InputError
        As `load_fitting`.
    """
    if not isinstance(data, dict):
        raise fault("document", "must be a JSON object", type(data).__name__)
    if data.get("format") != FORMAT:
        raise fault("format", f"must be {FORMAT}: this is not a fitting", data.get("format", "missing"))
    version = data.get("version")
    if version != VERSION or isinstance(version, bool):
        raise fault("version", f"this program reads version {VERSION} only", "missing" if version is None else version)
    try:
        return FittingDocument.model_validate(data)
    except ValidationError as error:
        raise faults_of(error) from error
    except ValueError as error:
        raise fault("document", "holds a number that is not finite, or text that is not Unicode") from error


def dump_fitting(document: FittingDocument) -> str:
    """The document as text: stable order of keys, two spaces, a final newline."""
    return json.dumps(document.model_dump(mode="json"), indent=2, ensure_ascii=False, allow_nan=False) + "\n"
