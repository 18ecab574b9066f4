"""Give a build sheet to the bench: heads taken from the rack, work ticked off, the set signed or the order cancelled."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlmodel import Session

from oblatus.errors import ConflictError, Fault, InputError, fault
from oblatus.formats.build import BuildOut
from oblatus.formats.built_bag import bag_as_built
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.proposal_out import rack_key
from oblatus.formats.sections.after import decision_with
from oblatus.formats.sections.build import BuildDocument
from oblatus.formats.sections.choices import PinnedHead
from oblatus.store.builds import StudioBuilds
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import BuildOrderRow, FittingRow, now
from oblatus.usecases.actor import Actor
from oblatus.usecases.build_sheet import Sheet, sheet_of
from oblatus.usecases.days import day_of
from oblatus.usecases.engine import engine
from oblatus.usecases.orders_told import order_out, wishes_of, with_orders
from oblatus.usecases.price_list import prices_of
from oblatus.usecases.propose import propose
from oblatus.usecases.rack_of import rack_for
from oblatus.usecases.show_carries import FittingInputs
from oblatus.usecases.strikes_of import measured, strikes_of

MOST_ORDERS = 60


@dataclass(frozen=True, slots=True)
class _Seen:
    """A fitting at a revision with its sheet and orders."""

    revision: int
    inputs: FittingInputs
    sheet: Sheet
    orders: Sequence[BuildOrderRow]


def see_build(database: Database, actor: Actor, fitting_id: UUID) -> BuildOut:
    """The sheet of a fitting with its orders; a club that cannot be built is on it as it comes, with the reason.

    Raises
    ------
    InputError
        If a head is neither owned nor on the rack, or nothing is proposed and no club was chosen.
    NotFoundError
        If the studio has no such fitting.
    """
    seen = _seen(database, actor, fitting_id, lenient=True)
    return with_orders(seen.sheet.out, seen.orders)


def sheet_to_print(database: Database, actor: Actor, fitting_id: UUID) -> BuildOut:
    """The sheet with its orders, for paper; raises as `see_build`, and for a club that cannot be built so."""
    seen = _seen(database, actor, fitting_id)
    return with_orders(seen.sheet.out, seen.orders)


def signed_sheet(database: Database, actor: Actor, fitting_id: UUID, order_id: UUID) -> BuildOut:
    """The sheet of an order as it was signed, cancelled, or given to the bench; raises NotFoundError."""
    with database.transaction() as session:
        row = StudioBuilds(session, actor.studio_id).order(fitting_id, order_id)
    sheet = BuildOut.model_validate(row.sheet)
    return sheet.model_copy(update={"order": order_out(row, None)})


def order_build(
    database: Database, actor: Actor, fitting_id: UUID, order_id: UUID, revision: int, seen_rack: str | None = None
) -> BuildOut:
    """Give the sheet of a revision to the bench and take its heads from the rack; sent again it is the same order.

    `seen_rack` is the key of the rack that the fitter saw: with another one the proposed set may be another.

    Raises
    ------
    ConflictError
        If the fitting, or the rack of a proposed set, has moved on from the sheet that was seen.
    InputError
        If a head is not on the shelf any longer, at its club; or if there is an order at the bench already.
    NotFoundError
        If the studio has no such fitting.
    """
    seen = _seen(database, actor, fitting_id)
    if any(row.id == order_id for row in seen.orders):
        return with_orders(seen.sheet.out, seen.orders)
    with database.transaction() as session:
        rows, builds = StudioRows(session, actor.studio_id), StudioBuilds(session, actor.studio_id)
        row = rows.fitting(fitting_id, lock=True)
        orders = builds.orders(fitting_id)
        if any(one.state == "open" for one in orders):
            raise fault("order", "a sheet of this fitting is at the bench already")
        if len(orders) >= MOST_ORDERS:
            raise fault("order", f"a fitting holds at most {MOST_ORDERS} orders")
        _same_revision(row, revision, seen)
        proposed = not seen.inputs.document.build.clubs
        if proposed and seen_rack not in {None, rack_key(seen.inputs.fitting().stock)}:
            raise ConflictError(
                "The rack changed since the sheet on this screen was made: look at it first.", row.revision
            )
        heads, parts = _heads_of(seen), _parts_of(seen)
        _take(builds, seen.sheet.out, Counter(heads))
        builds.move_parts({code: -count for code, count in Counter(parts).items()})
        if proposed:  # what is at the bench does not follow the proposal any longer
            build = BuildDocument(clubs=tuple(club.wish for club in seen.sheet.out.clubs))
            document = seen.inputs.document.model_copy(update={"build": build})
            rows.change_fitting(row, row.player_name, document.model_dump(mode="json"), row.revision)
        order = BuildOrderRow(
            id=order_id, studio_id=actor.studio_id, fitting_id=fitting_id, heads=heads, parts=parts, made_by=actor.name,
            sheet=_stored(seen.sheet.out),
        )  # fmt: skip
        session.add(order)
    return see_build(database, actor, fitting_id)


def order_anew(database: Database, actor: Actor, fitting_id: UUID, order_id: UUID, revision: int) -> BuildOut:
    """Take what the sheet has by now into its order: heads are given back and taken, ticks of changed clubs go.

    Raises
    ------
    ConflictError, InputError, NotFoundError
        As `order_build`; InputError too if the order is not at the bench any longer.
    """
    seen = _seen(database, actor, fitting_id)
    with database.transaction() as session:
        rows, builds = StudioRows(session, actor.studio_id), StudioBuilds(session, actor.studio_id)
        row = rows.fitting(fitting_id, lock=True)
        order = _open_order(builds, fitting_id, order_id)
        _same_revision(row, revision, seen)
        heads, parts = _heads_of(seen), _parts_of(seen)
        more = Counter(heads)
        more.subtract(Counter(order.heads))
        _take(builds, seen.sheet.out, more)
        back = Counter(order.parts)
        back.subtract(Counter(parts))
        builds.move_parts(back)
        before, after = wishes_of(BuildOut.model_validate(order.sheet)), wishes_of(seen.sheet.out)
        same = [n for n, (old, new) in enumerate(zip(before, after, strict=False)) if old == new]
        order.ticks = {place: tick for place, tick in order.ticks.items() if int(place.partition(".")[0]) in same}
        order.heads, order.parts, order.sheet = heads, parts, _stored(seen.sheet.out)
        session.add(order)
    return see_build(database, actor, fitting_id)


def cancel_order(database: Database, actor: Actor, fitting_id: UUID, order_id: UUID) -> None:
    """Cancel an order and give its heads back to the rack; cancelled already, nothing happens.

    Raises
    ------
    InputError
        If it was signed.
    NotFoundError
        If the studio has no such order.
    """
    with database.transaction() as session:
        builds = StudioBuilds(session, actor.studio_id)
        StudioRows(session, actor.studio_id).fitting(fitting_id, lock=True)
        if builds.order(fitting_id, order_id, lock=True).state == "cancelled":
            return
        end_order(session, builds, _open_order(builds, fitting_id, order_id), actor.name)


def end_order(session: Session, builds: StudioBuilds, order: BuildOrderRow, by: str) -> None:
    """Cancel an order that is at the bench: its heads are back on the shelf."""
    builds.move_stock(Counter(order.heads))
    builds.move_parts(Counter(order.parts))
    order.state, order.ended_by, order.ended_at = "cancelled", by, now()
    session.add(order)


def tick(
    database: Database, actor: Actor, fitting_id: UUID, order_id: UUID, club: int, operation: int, *, done: bool
) -> None:
    """Tick a piece of work off as done, or not after all; a tick that stands keeps who set it and when.

    Raises
    ------
    InputError
        If the order is not at the bench or has no such work.
    NotFoundError
        If the studio has no such order.
    """
    with database.transaction() as session:
        builds = StudioBuilds(session, actor.studio_id)
        order = _open_order(builds, fitting_id, order_id)
        clubs = order.sheet["clubs"]
        if club >= len(clubs) or operation >= len(clubs[club]["operations"]):
            raise fault("operation", "is no work of this sheet", f"{club}.{operation}")
        place = f"{club}.{operation}"
        ticks = {key: value for key, value in order.ticks.items() if done or key != place}
        if done and place not in ticks:
            ticks[place] = {"by": actor.name, "at": now().isoformat()}
        order.ticks = ticks
        session.add(order)


def sign_build(
    database: Database, actor: Actor, fitting_id: UUID, order_id: UUID, revision: int, reason: str
) -> BuildOut:
    """Sign a set as built: from then on it is never rewritten, and the bag holds the built clubs.

    `reason`: why readings outside their tolerance stay; asked for only where there are such.

    Raises
    ------
    ConflictError
        If the fitting has moved on from what was seen.
    InputError
        With everything that is missing.
    NotFoundError
        If the studio has no such order.
    """
    seen = _seen(database, actor, fitting_id)
    with database.transaction() as session:
        rows, builds = StudioRows(session, actor.studio_id), StudioBuilds(session, actor.studio_id)
        row = rows.fitting(fitting_id, lock=True)
        order = builds.order(fitting_id, order_id, lock=True)
        if order.state == "built":  # it arrived, and the answer to it did not
            return with_orders(seen.sheet.out, seen.orders)
        order = _open_order(builds, fitting_id, order_id)
        _same_revision(row, revision, seen)
        standing = order_out(order, seen.sheet.out)
        missing = [*standing.changed, *standing.missing]
        if missing:
            raise InputError([Fault("order", words) for words in missing])
        if standing.off and not reason.strip():
            raise fault("reason", "is missing: readings are outside their tolerance")
        moment = now()
        bag, codes, measured_codes = bag_as_built(
            seen.inputs.document.bag, seen.sheet.out.clubs, seen.sheet.plan.clubs, seen.sheet.read, order_id,
            day_of(moment), actor.name,
        )  # fmt: skip
        document = _after(seen.inputs.document, bag, codes, measured_codes)
        rows.change_fitting(row, row.player_name, document.model_dump(mode="json"), row.revision)
        builds.rename_clubs(fitting_id, codes, measured_codes)
        order.state, order.reason = "built", reason.strip() if standing.off else ""
        order.ended_by, order.ended_at, order.sheet = actor.name, moment, _stored(seen.sheet.out)
        session.add(order)
    return see_build(database, actor, fitting_id)


def _after(
    document: FittingDocument, bag: Any, codes: Mapping[str, str], measured_codes: Mapping[str, str]
) -> FittingDocument:
    """The document once its set was built: pins follow their heads, what was said to the log its shots, the sheet is
    empty, the step of change was taken."""
    pinned = tuple(
        PinnedHead(loft_deg=pin.loft_deg, code=codes.get(pin.code, pin.code))
        for pin in document.choices.pinned
        if not codes.get(pin.code, "").startswith("was:")
    )
    choices = document.choices.model_copy(update={"pinned": pinned, "heads_bought": None})
    decisions = tuple(decision_with(one, measured_codes) for one in document.after.decisions)
    after = document.after.model_copy(update={"decisions": decisions})
    changes = {"bag": bag, "choices": choices, "build": BuildDocument(), "after": after}
    return FittingDocument.model_validate(document.model_copy(update=changes).model_dump(mode="json"))


def _seen(database: Database, actor: Actor, fitting_id: UUID, *, lenient: bool = False) -> _Seen:
    """The sheet of a fitting as it stands; raises as `see_build`."""
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        row = rows.fitting(fitting_id)
        document = FittingDocument.model_validate(row.document)
        inputs = FittingInputs(document, rack_for(rows, fitting_id), strikes_of(rows, fitting_id))
        studio, revision, builds = rows.studio(), row.revision, StudioBuilds(session, actor.studio_id)
        # its own parts are on the shelf for it
        prices, shelf = prices_of(studio), Counter(builds.shelf(studio)) + Counter(builds.parts_taken(fitting_id))
        orders = builds.orders(fitting_id)
    found = propose(inputs.document, inputs.rack, measured(inputs.strikes))
    if found.result is None and not inputs.document.build.clubs:
        raise InputError(list(found.problem))
    sheet = sheet_of(inputs.document, inputs.fitting(), found.result, engine().judge, prices, shelf, lenient=lenient)
    return _Seen(revision, inputs, sheet, orders)


def _same_revision(row: FittingRow, revision: int, seen: _Seen) -> None:
    if row.revision != revision or seen.revision != revision:
        raise ConflictError("This fitting changed since the sheet on this screen was made.", row.revision)


def _open_order(builds: StudioBuilds, fitting_id: UUID, order_id: UUID) -> BuildOrderRow:
    order = builds.order(fitting_id, order_id, lock=True)
    if order.state != "open":
        words = {"built": "was signed", "cancelled": "was cancelled"}[order.state]
        raise fault("order", f"{words} by {order.ended_by}: it is not at the bench any longer")
    return order


def _heads_of(seen: _Seen) -> list[str]:
    """Codes of the rack's heads on the sheet; a fitting that brings a rack of its own takes none of the studio's."""
    if seen.inputs.document.rack is not None:
        return []
    return [plan.wish.stock.code for plan in seen.sheet.plan.clubs if not plan.wish.stock.owned]


def _parts_of(seen: _Seen) -> list[str]:
    """Codes of shafts and grips that the shelf has for the sheet."""
    wishes = [plan.wish for plan in seen.sheet.plan.clubs]
    wanted = [(wish, part) for wish in wishes for part in (wish.shaft, wish.grip) if part is not None]
    return [part.code for wish, part in wanted if part.code not in wish.ordered]


def _take(builds: StudioBuilds, sheet: BuildOut, heads: Mapping[str, int]) -> None:
    """Take heads from the shelf, give back those that are negative; raises InputError at the clubs that lack one."""
    missing = builds.move_stock({code: -count for code, count in heads.items()})
    if missing:
        raise InputError([
            Fault(f"build.clubs.{n}.code", f"{club.name} is gone from the shelf: somebody else took the last one")
            for n, club in enumerate(sheet.clubs)
            if club.wish.code in missing
        ])  # fmt: skip


def _stored(sheet: BuildOut) -> dict[str, Any]:
    return sheet.model_copy(update={"order": None, "earlier": ()}).model_dump(mode="json")
