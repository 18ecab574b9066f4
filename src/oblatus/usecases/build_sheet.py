"""The build sheet of a fitting: the set as it is to be built, and what it is worth so."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from oblatus.core.build.parts import USUAL_SHELF
from oblatus.core.build.plan import SetPlan, Wish, plan_set
from oblatus.core.build.sheet import as_read
from oblatus.core.clubs import Head
from oblatus.core.fitting import Fitting, StrokesJudge
from oblatus.core.fitting.as_built import strokes_with
from oblatus.core.fitting.proved import same_sole
from oblatus.errors import Fault, InputError
from oblatus.formats.build import BuildOut, build_out, ordered_parts, prices_from, usual_club, wish_from
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.recommendation import RecommendationOut
from oblatus.formats.sections.build import AsBuiltDocument, BuildClubDocument, BuildDocument, PricesDocument

USUAL_PRICES = PricesDocument()


@dataclass(frozen=True, slots=True)
class Sheet:
    """The sheet as it is shown, the plan behind it, and the heads as they were read."""

    out: BuildOut
    plan: SetPlan
    read: tuple[Head, ...]


def sheet_of(
    document: FittingDocument,
    fitting: Fitting,
    proposal: RecommendationOut | None,
    judge: StrokesJudge,
    prices: PricesDocument = USUAL_PRICES,
    shelf: Mapping[str, int] = USUAL_SHELF,
    *,
    lenient: bool = False,
) -> Sheet:
    """The sheet for a document: its own clubs, or the proposed ones with the usual parts.

    A lenient one shows a club that cannot be built as it comes, and says why, so that it can be mended.

    Raises
    ------
    InputError
        If a club cannot be built so, at its field; a lenient one only if a head is neither owned nor on the rack.
    """
    own = bool(document.build.clubs)
    proposed = [usual_club(c.code, c.loft_deg, owned=c.owned) for c in proposal.clubs] if proposal else []
    clubs = list(document.build.clubs) if own else proposed
    faults: tuple[Fault, ...] = ()
    buildable: Sequence[BuildClubDocument] = clubs
    try:
        plan = plan_of(fitting, clubs, document.build, prices, shelf)
        read = _read_of(plan, clubs)
    except InputError as error:
        if not lenient:
            raise
        faults, buildable = error.faults, _as_they_come(fitting, clubs, error.faults)
        plan = plan_of(fitting, buildable, document.build, prices, shelf)
        read = _read_of(plan, buildable)
    strokes = strokes_with(fitting, [club.head for club in plan.clubs], judge)
    plan = _with_notes(fitting, plan)
    was_read = any(w.read != AsBuiltDocument() for w in buildable)
    as_built = strokes_with(fitting, read, judge) if was_read else None
    changed = _changed(clubs, proposed, {item.code: item.name for item in fitting.stock}) if own else []
    wishes = [club.wish for club in plan.clubs]
    out = build_out(
        clubs, plan, _worths(fitting, wishes, plan, strokes, judge), changed, strokes, as_built,
        proposal.strokes_round if proposal else None, faults, shelf, own=own, hand=document.player.hand,
    )  # fmt: skip
    return Sheet(out, plan, read)


def _as_they_come(
    fitting: Fitting, clubs: Sequence[BuildClubDocument], faults: Sequence[Fault]
) -> list[BuildClubDocument]:
    """The clubs, those with a fault without any work."""
    stock = {item.code: item for item in fitting.stock}
    wrong = {int(one.field.split(".")[2]) for one in faults}
    if any(clubs[n].code not in stock for n in wrong):
        raise InputError(list(faults))
    return [
        BuildClubDocument(code=club.code, loft_deg=stock[club.code].head.loft_deg) if n in wrong else club
        for n, club in enumerate(clubs)
    ]


def _read_of(plan: SetPlan, clubs: Sequence[BuildClubDocument]) -> tuple[Head, ...]:
    return tuple(_as_read(n, club.head, wish) for n, (club, wish) in enumerate(zip(plan.clubs, clubs, strict=True)))


def plan_of(
    fitting: Fitting,
    clubs: Sequence[BuildClubDocument],
    document: BuildDocument,
    prices: PricesDocument,
    shelf: Mapping[str, int] = USUAL_SHELF,
) -> SetPlan:
    """The bench's plan of wished clubs; raises InputError at the field."""
    try:
        wishes = [
            wish_from(club, fitting, n, ordered)
            for n, (club, ordered) in enumerate(zip(clubs, ordered_parts(clubs, shelf), strict=True))
        ]
        return plan_set(wishes, prices_from(document, prices))
    except InputError as error:
        faults = [
            f if f.field.startswith("build.") else Fault(f"build.{f.field}", f.message, f.value) for f in error.faults
        ]
        raise InputError(faults) from error


def _as_read(place: int, head: Head, wish: BuildClubDocument) -> Head:
    try:
        return as_read(head, wish.read.loft_deg, wish.read.lie_deg)
    except InputError as error:
        words = "cannot be: with this loft the sole would have no bounce"
        raise InputError([Fault(f"build.clubs.{place}.read.loft_deg", words, str(wish.read.loft_deg))]) from error


def _with_notes(fitting: Fitting, plan: SetPlan) -> SetPlan:
    """The plan, saying of a ground head that its proof was of the sole before."""
    clubs = []
    for club in plan.clubs:
        lost = any(
            same_sole(shift.head, club.wish.stock.head) and not same_sole(shift.head, club.head)
            for shift in fitting.proved
        )
        note = "The proof was of this sole before the grind: it does not count for the ground one."
        clubs.append(replace(club, notes=(*club.notes, note)) if lost else club)
    return replace(plan, clubs=tuple(clubs))


def _worths(
    fitting: Fitting, wishes: Sequence[Wish], plan: SetPlan, strokes: float, judge: StrokesJudge
) -> list[float | None]:
    """What the set would cost more with each club left as it comes; None for one on which nothing is done."""
    found: list[float | None] = []
    for n, (wish, club) in enumerate(zip(wishes, plan.clubs, strict=True)):
        if club.head == wish.stock.head:
            found.append(None)
            continue
        heads = [other.head for other in plan.clubs]
        heads[n] = replace(wish.stock.head)
        found.append(strokes_with(fitting, heads, judge) - strokes)
    return found


def _changed(
    clubs: Sequence[BuildClubDocument], proposed: Sequence[BuildClubDocument], names: dict[str, str]
) -> list[str]:
    """How the proposal differs from the sheet, club by club."""
    on_sheet = {(club.code, round(club.loft_deg, 2)) for club in clubs}
    now = {(club.code, round(club.loft_deg, 2)) for club in proposed}
    new = [
        f"The proposal has the {names[code]} at {loft:g}°, the sheet has not." for code, loft in sorted(now - on_sheet)
    ]
    old = [
        f"The sheet has the {names[code]} at {loft:g}°, the proposal has not." for code, loft in sorted(on_sheet - now)
    ]
    return new + old
