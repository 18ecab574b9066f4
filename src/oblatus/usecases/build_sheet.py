"""The build sheet of a fitting: the set as it is to be built, and what it is worth so."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from uuid import UUID

from oblatus.core.build.plan import SetPlan, Wish, plan_set
from oblatus.core.build.sheet import as_read
from oblatus.core.clubs import Head
from oblatus.core.fitting import Fitting, StrokesJudge
from oblatus.core.fitting.as_built import strokes_with
from oblatus.core.fitting.proved import same_sole
from oblatus.errors import Fault, InputError
from oblatus.formats.build import BuildOut, build_out, prices_from, usual_club, wish_from
from oblatus.formats.fitting import AsBuiltDocument, BuildClubDocument, FittingDocument
from oblatus.formats.recommendation import RecommendationOut
from oblatus.store.database import Database
from oblatus.usecases.actor import Actor
from oblatus.usecases.engine import engine
from oblatus.usecases.propose import propose
from oblatus.usecases.show_carries import inputs_of
from oblatus.usecases.strikes_of import measured


def see_build(database: Database, actor: Actor, fitting_id: UUID) -> BuildOut:
    """The sheet of a fitting.

    Raises
    ------
    InputError
        If a club cannot be built so, at its field; or if nothing is proposed and no club was chosen.
    NotFoundError
        If the studio has no such fitting.
    """
    inputs = inputs_of(database, actor, fitting_id)
    found = propose(inputs.document, inputs.rack, measured(inputs.strikes))
    if found.result is None and not inputs.document.build.clubs:
        raise InputError(list(found.problem))
    return sheet_of(inputs.document, inputs.fitting(), found.result, engine().judge)


def sheet_of(
    document: FittingDocument, fitting: Fitting, proposal: RecommendationOut | None, judge: StrokesJudge
) -> BuildOut:
    """The sheet for a document: its own clubs, or the proposed ones with the usual parts; raises as `see_build`."""
    own = bool(document.build.clubs)
    proposed = [usual_club(c.code, c.loft_deg, owned=c.owned) for c in proposal.clubs] if proposal else []
    clubs = list(document.build.clubs) if own else proposed
    stock = {item.code: item for item in fitting.stock}
    wishes = [wish_from(club, stock, n) for n, club in enumerate(clubs)]
    try:
        plan = plan_set(wishes, prices_from(document.build))
    except InputError as error:
        raise InputError([Fault(f"build.{one.field}", one.message, one.value) for one in error.faults]) from error
    strokes = strokes_with(fitting, [club.head for club in plan.clubs], judge)
    plan = _with_notes(fitting, plan)
    read = [_as_read(n, club.head, wish) for n, (club, wish) in enumerate(zip(plan.clubs, clubs, strict=True))]
    was_read = any(w.read != AsBuiltDocument() for w in clubs)
    as_built = strokes_with(fitting, read, judge) if was_read else None
    changed = _changed(clubs, proposed, {item.code: item.name for item in fitting.stock}) if own else []
    return build_out(
        clubs, plan, _worths(fitting, wishes, plan, strokes, judge), changed, strokes, as_built,
        proposal.strokes_round if proposal else None, own=own,
    )  # fmt: skip


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
