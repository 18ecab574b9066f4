"""Orders as a screen and a file are told of them."""

from __future__ import annotations

from collections.abc import Sequence

from oblatus.core.words import counted
from oblatus.formats.build import BuildOut, OrderOut, SignedBuildDocument, TickOut
from oblatus.formats.sections.build import AsBuiltDocument, BuildClubDocument
from oblatus.store.tables import BuildOrderRow

WISHES = {
    "code": "head", "loft_deg": "loft", "lie_deg": "lie", "lie_mark_mm": "board mark", "bent_before_deg": "bends before",
    "grind": "grind", "length_in": "length", "shaft": "shaft", "grip": "grip", "swing_weight": "swing weight",
}  # fmt: skip
"""What of a club a changed order is about, in words."""


def wishes_of(sheet: BuildOut) -> list[BuildClubDocument]:
    """What is wished of the clubs, without what was read of them."""
    return [club.wish.model_copy(update={"read": AsBuiltDocument()}) for club in sheet.clubs]


def with_orders(sheet: BuildOut, orders: Sequence[BuildOrderRow]) -> BuildOut:
    """The sheet with its order at the bench and the earlier ones."""
    order = next((row for row in orders if row.state == "open"), None)
    earlier = tuple(order_out(row, None) for row in orders if row.state != "open")
    return sheet.model_copy(update={"order": order and order_out(order, sheet), "earlier": earlier})


def order_out(row: BuildOrderRow, now_on_sheet: BuildOut | None) -> OrderOut:
    """An order as it stands beside the sheet by now (None: it is not compared with one)."""
    ordered = BuildOut.model_validate(row.sheet)
    names = {club.wish.code: club.name for club in ordered.clubs}
    ticks = [
        TickOut.model_validate({"club": int(club), "operation": int(operation), **tick})
        for (club, _, operation), tick in ((place.partition("."), tick) for place, tick in row.ticks.items())
    ]
    changed = [] if now_on_sheet is None else _changed(ordered, now_on_sheet)
    return OrderOut(
        id=row.id, state=row.state, made_by=row.made_by, made_at=row.created_at, ended_by=row.ended_by,  # type: ignore[arg-type]
        ended_at=row.ended_at, heads=[names.get(code, code) for code in row.heads],
        clubs=[f"{club.name} {club.after.loft_deg:g}°" for club in ordered.clubs], total=ordered.total,
        ticks=sorted(ticks, key=lambda one: (one.club, one.operation)), changed=changed,
        missing=[] if now_on_sheet is None or changed else _missing(now_on_sheet, len(ticks)),
        off=0 if now_on_sheet is None else sum(one.over > 0 for club in now_on_sheet.clubs for one in club.as_built),
        reason=row.reason,
    )  # fmt: skip


def signed_document(row: BuildOrderRow) -> SignedBuildDocument:
    """A signed build as it goes into a file."""
    values = {name: getattr(row, name) for name in SignedBuildDocument.model_fields}
    return SignedBuildDocument.model_validate(
        {**values, "created_at": row.created_at.isoformat(), "ended_at": row.ended_at and row.ended_at.isoformat()}
    )


def _changed(ordered: BuildOut, sheet: BuildOut) -> list[str]:
    """What the sheet has that its order has not, club by club."""
    before, after = wishes_of(ordered), wishes_of(sheet)
    found = []
    for n, (old, new) in enumerate(zip(before, after, strict=False)):
        keys = [words for key, words in WISHES.items() if getattr(old, key) != getattr(new, key)]
        if keys:
            found.append(f"{sheet.clubs[n].name}: {', '.join(keys)} changed since the sheet went to the bench.")
    if len(before) != len(after):
        found.append(f"{counted(len(after), 'club is', 'clubs are')} on the sheet, {len(before)} went to the bench.")
    return found


def _missing(sheet: BuildOut, ticked: int) -> list[str]:
    """What has to be done before the set can be signed."""
    work = sum(len(club.operations) for club in sheet.clubs) - ticked
    found = [f"{counted(work, 'piece')} of work not ticked off."] if work else []
    for club in sheet.clubs:
        read = club.wish.read
        unread = [words for words, value in (("loft", read.loft_deg), ("lie", read.lie_deg)) if value is None]
        if club.built is not None and read.swing_weight is None:
            unread.append("swing weight")
        if unread:
            found.append(f"{club.name}: {', '.join(unread)} not read.")
    return found
