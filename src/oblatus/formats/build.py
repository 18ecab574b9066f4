"""The build sheet as JSON: every club before and after, parts, work in its order, price; what the set is worth so."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict
from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import StringConstraints

from oblatus.core.build.assembly import read_swing_weight
from oblatus.core.build.bench import SEEN_AT, Grind, edge_height, lie_from_mark
from oblatus.core.build.parts import GRIP_OF, GRIPS, SHAFT_OF, SHAFTS, USUAL_SHELF, Grip, Shaft
from oblatus.core.build.plan import ClubPlan, SetPlan, Wish
from oblatus.core.build.sheet import Action, Prices, read_back
from oblatus.core.clubs import Head
from oblatus.core.fitting import Fitting
from oblatus.core.geometry import Hand
from oblatus.errors import Fault, InputError
from oblatus.formats.fields import Strict
from oblatus.formats.heads import outline_mm
from oblatus.formats.limits import NAME_LETTERS, WHY_LETTERS
from oblatus.formats.rounded import rounded
from oblatus.formats.sections.build import BuildClubDocument, BuildDocument, PricesDocument

USUAL_LENGTH_IN = ((50.0, 35.5), (56.0, 35.25), (70.0, 35.0))
"""Length of a wedge up to a loft [degrees, in] (judgement: half a club shorter a wedge)."""
USUAL_SHAFT, USUAL_GRIP = "FF127", "CB50"


class OperationOut(Strict):
    """One piece of work with its wanted figure, tolerance and caution."""

    key: str
    words: str
    wanted: float | None
    tolerance: float | None
    unit: str
    caution: str


class AssemblyOut(Strict):
    """The whole club."""

    length_in: float
    mass_g: float
    balance_in: float
    swing_weight: str
    moment_oz_in: float
    butt_trim_in: float
    tip_weight_g: float
    butt_weight_g: float


class HeadFacts(Strict):
    """A head with its section and the height of its resting edge."""

    loft_deg: float
    bounce_deg: float
    lie_deg: float
    mass_g: float
    outline_mm: list[list[float]]
    edge_height_mm: float


class ReadBackOut(Strict):
    """A figure of a built club beside the wanted one, and by how much it is outside its tolerance."""

    key: Literal["loft_deg", "lie_deg", "swing_weight_points"]
    wanted: float
    read: float
    over: float


class BuildClubOut(Strict):
    """A club of the sheet.

    `lie_asked_deg` is the lie that the mark on the board asks for; `usual` has the parts that a new club of its loft
    gets; `start_m` is where a changed lie starts this player's ball at `seen_at_m`, right positive;
    `worth_strokes_round` what the set would cost more without the work on this club.
    """

    wish: BuildClubDocument
    usual: BuildClubDocument
    name: str
    action: Action
    before: HeadFacts
    after: HeadFacts
    bend_deg: float
    bend_left_deg: float
    lie_by_deg: float
    lie_asked_deg: float | None
    start_deg: float
    start_m: float
    removed_g: float
    deepest_mm: float
    built: AssemblyOut | None
    operations: list[OperationOut]
    as_built: list[ReadBackOut]
    labour: float
    parts: float
    weeks: int
    on_shelf: int | None
    notes: list[str]
    unmatched: bool
    worth_strokes_round: float | None


class PartOut(Strict):
    """A shaft or grip of the studio: how many are on the shelf, `weeks` until one is here that is not."""

    code: str
    name: str
    mass_g: float
    price: float
    stock: int
    weeks: int


class TickOut(Strict):
    """A piece of work that is done: the club's and the operation's place on the sheet, by whom and when."""

    club: int
    operation: int
    by: str
    at: datetime


class OrderOut(Strict):
    """A sheet at the bench, or one that was signed or cancelled.

    `heads`: names of those taken from the rack for it. `changed`: what the sheet has by now that the order has not.
    `missing`: what has to be done before it can be signed; `off`: readings outside their tolerance, for which a reason
    is asked.
    """

    id: UUID
    state: Literal["open", "built", "cancelled"]
    made_by: str
    made_at: datetime
    ended_by: str
    ended_at: datetime | None
    heads: list[str]
    clubs: list[str]
    total: float
    ticks: list[TickOut]
    changed: list[str]
    missing: list[str]
    off: int
    reason: str


class WhyNot(Strict):
    """Why a club cannot be built as wished, at the field of the wish."""

    field: str
    message: str


class BuildOut(Strict):
    """The sheet: clubs, what they cost, what the set is worth as it would be built against the proposal.

    `faults`: why clubs cannot be built as wished; those stand on the sheet as they come.
    `own`: the fitter's own list of clubs, else the proposed set as it stands. `changed`: what the proposal has that the
    sheet has not, in words. `weeks` until the last club is done. `order`: the one at the bench; `earlier`: those that
    were signed or cancelled, newest first.
    """

    faults: list[WhyNot]
    clubs: list[BuildClubOut]
    own: bool
    changed: list[str]
    seen_at_m: float
    labour: float
    parts: float
    tax: float
    total: float
    weeks: int
    strokes_round: float | None
    as_built_strokes_round: float | None
    proposal_strokes_round: float | None
    shafts: list[PartOut]
    grips: list[PartOut]
    order: OrderOut | None = None
    earlier: tuple[OrderOut, ...] = ()


class SignedBuildDocument(Strict):
    """A build that was signed, in a file: the sheet as built, by whom and when; its id is in the built wedges."""

    id: UUID
    sheet: BuildOut
    heads: tuple[Annotated[str, StringConstraints(max_length=40)], ...]
    ticks: dict[Annotated[str, StringConstraints(pattern=r"^\d+\.\d+$")], TickedDocument]
    reason: Annotated[str, StringConstraints(max_length=WHY_LETTERS)]
    made_by: Annotated[str, StringConstraints(max_length=NAME_LETTERS)]
    created_at: datetime
    ended_by: Annotated[str, StringConstraints(max_length=NAME_LETTERS)]
    ended_at: datetime


class TickedDocument(Strict):
    """Who did a piece of work, and when."""

    by: Annotated[str, StringConstraints(max_length=NAME_LETTERS)]
    at: datetime


def wish_from(club: BuildClubDocument, fitting: Fitting, place: int, ordered: frozenset[str] = frozenset()) -> Wish:
    """The engine's wish, `ordered` being its parts that are not on the shelf.

    Raises
    ------
    InputError
        If the head is neither owned nor on the rack.
    """
    head = next((item for item in fitting.stock if item.code == club.code), None)
    if head is None:
        raise InputError(
            [
                Fault(
                    f"build.clubs.{place}.code",
                    "is neither owned nor on the rack: take the proposed set anew",
                    club.code,
                    name=f"Club {place + 1} of the sheet, {fitting.club_name(club.code)},",
                )
            ]
        )
    g = club.grind
    return Wish(
        head, club.loft_deg, club.lie_deg, club.bent_before_deg,
        Grind(g.heel_mm / 1e3, g.toe_mm / 1e3, g.back_fraction, g.back_deg, g.bevel_mm / 1e3, g.bevel_deg),
        club.length_in, SHAFT_OF.get(club.shaft or ""), GRIP_OF.get(club.grip or ""),
        None if club.swing_weight is None else read_swing_weight(club.swing_weight), ordered,
    )  # fmt: skip


def ordered_parts(clubs: Sequence[BuildClubDocument], shelf: Mapping[str, int]) -> list[frozenset[str]]:
    """The parts of each club that the shelf has not, taken club by club."""
    left, found = dict(shelf), []
    for club in clubs:
        wanted = [code for code in (club.shaft, club.grip) if code is not None]
        found.append(frozenset(code for code in wanted if left.get(code, 0) < 1))
        for code in wanted:
            left[code] = left.get(code, 0) - 1
    return found


def prices_from(document: BuildDocument, studio: PricesDocument) -> Prices:
    """The price list: the studio's, unless the fitting brings one."""
    return Prices(**(studio if document.prices is None else document.prices).model_dump())


def usual_club(code: str, loft_deg: float, *, owned: bool) -> BuildClubDocument:
    """A proposed club: an owned one keeps shaft and grip, a new one gets the usual parts for its loft."""
    if owned:
        return BuildClubDocument(code=code, loft_deg=loft_deg)
    length = next(inches for upto, inches in USUAL_LENGTH_IN if loft_deg <= upto)
    return BuildClubDocument(
        code=code, loft_deg=loft_deg, length_in=length, shaft=USUAL_SHAFT, grip=USUAL_GRIP
    )  # fmt: skip


def build_out(
    wishes: Sequence[BuildClubDocument], plan: SetPlan, worths: Sequence[float | None], changed: Sequence[str],
    strokes: float | None, as_built: float | None, proposal: float | None, faults: Sequence[Fault] = (),
    shelf: Mapping[str, int] = USUAL_SHELF, *, own: bool, hand: Hand,
) -> BuildOut:  # fmt: skip
    """The sheet as JSON models, for a right- or left-handed player."""
    clubs = [
        _club(wish, club, worth, hand, unmatched=n in plan.unmatched)
        for n, (wish, club, worth) in enumerate(zip(wishes, plan.clubs, worths, strict=True))
    ]
    return BuildOut(
        faults=[WhyNot(field=one.field, message=one.message) for one in faults],
        clubs=clubs, own=own, changed=list(changed), seen_at_m=SEEN_AT, labour=round(plan.labour, 2),
        parts=round(plan.parts, 2), tax=round(plan.tax, 2), total=round(plan.total, 2), weeks=plan.weeks,
        strokes_round=None if strokes is None else rounded(strokes),
        as_built_strokes_round=None if as_built is None else rounded(as_built),
        proposal_strokes_round=None if proposal is None else rounded(proposal),
        shafts=[_part(shaft, shelf) for shaft in SHAFTS],
        grips=[_part(grip, shelf) for grip in GRIPS],
    )  # fmt: skip


def _part(part: Shaft | Grip, shelf: Mapping[str, int]) -> PartOut:
    return PartOut(
        code=part.code, name=part.name, mass_g=part.mass_g, price=part.price, stock=shelf.get(part.code, 0),
        weeks=part.weeks,
    )  # fmt: skip


def _facts(head: Head) -> HeadFacts:
    return HeadFacts(
        loft_deg=rounded(head.loft_deg), bounce_deg=rounded(head.bounce_deg), lie_deg=rounded(head.lie_deg),
        mass_g=rounded(1000.0 * head.mass), outline_mm=outline_mm(head),
        edge_height_mm=rounded(1000.0 * edge_height(head)),
    )  # fmt: skip


def _club(wish: BuildClubDocument, club: ClubPlan, worth: float | None, hand: Hand, *, unmatched: bool) -> BuildClubOut:
    side = 1.0 if hand == "right" else -1.0  # an upright club starts a left-hander's ball right
    stock, built, weights, mark = club.wish.stock, club.built, club.weighting, wish.lie_mark_mm
    return BuildClubOut(
        wish=wish, usual=usual_club(wish.code, wish.loft_deg, owned=False), name=stock.name,
        action=club.action, before=_facts(stock.head), after=_facts(club.head),
        bend_deg=club.bend_deg, bend_left_deg=rounded(club.bend_left_deg), lie_by_deg=club.lie_by_deg,
        lie_asked_deg=None if mark is None else rounded(stock.head.lie_deg + lie_from_mark(mark), 1),
        start_deg=rounded(side * club.lie.start_deg), start_m=rounded(side * club.lie.start_m),
        removed_g=0.0 if club.ground is None else rounded(club.ground.removed_g),
        deepest_mm=0.0 if club.ground is None else rounded(1000.0 * club.ground.depth),
        built=None if built is None else AssemblyOut(
            length_in=built.length_in, mass_g=rounded(built.mass_g), balance_in=rounded(built.balance_in),
            swing_weight=built.swing_weight, moment_oz_in=rounded(built.moment_oz_in),
            butt_trim_in=rounded(built.butt_trim_in), tip_weight_g=0.0 if weights is None else rounded(weights.tip_g),
            butt_weight_g=0.0 if weights is None else rounded(weights.butt_g),
        ),
        operations=[OperationOut(**asdict(one)) for one in club.operations],
        as_built=[
            ReadBackOut(key=one.key, wanted=rounded(one.wanted), read=rounded(one.read), over=rounded(one.over))  # type: ignore[arg-type]
            for one in read_back(
                club.head, built, wish.read.loft_deg, wish.read.lie_deg,
                None if wish.read.swing_weight is None else read_swing_weight(wish.read.swing_weight),
            )
        ],
        labour=club.labour, parts=club.parts, weeks=club.weeks,
        on_shelf=None if stock.owned else stock.stock, notes=list(club.notes), unmatched=unmatched,
        worth_strokes_round=None if worth is None else rounded(worth),
    )  # fmt: skip
