"""The bag once a build was signed: the clubs as built, those that were, and the codes that they go by."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date
from uuid import UUID

from oblatus.core.build.plan import ClubPlan
from oblatus.core.clubs import Head
from oblatus.formats.build import BuildClubOut
from oblatus.formats.heads import head_out
from oblatus.formats.sections.bag import (
    MOST_FORMER,
    BagDocument,
    Became,
    BuiltDocument,
    FormerWedgeDocument,
    OwnedWedgeDocument,
)


def bag_as_built(
    bag: BagDocument,
    clubs: Sequence[BuildClubOut],
    plans: Sequence[ClubPlan],
    heads: Sequence[Head],
    order_id: UUID,
    on: date,
    by: str,
) -> tuple[BagDocument, Mapping[str, str], Mapping[str, str]]:
    """The bag with the built clubs in the order of the sheet, and two maps of codes that changed: of clubs, and of what
    was measured with them.

    `heads` are those that were read. A wedge that was bent or ground stays among the former ones as it was, with what was
    hit and read before; one that is not on the sheet goes there.
    """
    wedges = tuple(
        _wedge(bag, club, plan, head, order_id, on, by) for club, plan, head in zip(clubs, plans, heads, strict=True)
    )
    codes = {club.wish.code: f"own:{n}" for n, club in enumerate(clubs)}
    actions = {club.wish.code: club.action for club in clubs}
    became: dict[str | None, Became | None] = {"bend": "bent", "grind": "ground", "keep": None, None: "out of the bag"}
    former, then = [], {}
    for n, wedge in enumerate(bag.wedges):
        words, code = became[actions.get(f"own:{n}")], f"was:{order_id.hex[:8]}:{n}"
        codes.setdefault(f"own:{n}", code)
        if words:
            former.append(FormerWedgeDocument(code=code, wedge=wedge, until=on, became=words, order_id=order_id))
            then[f"own:{n}"] = code
    codes |= {f"built:{n}": f"own:{n}" for n in range(len(clubs))}
    after = bag.model_copy(update={"wedges": wedges, "former": (*former, *bag.former)[:MOST_FORMER]})
    changed = {old: new for old, new in codes.items() if old != new}
    return after, changed, {**changed, **then}


def _wedge(
    bag: BagDocument, club: BuildClubOut, plan: ClubPlan, head: Head, order_id: UUID, on: date, by: str
) -> OwnedWedgeDocument:
    wish = club.wish
    stock = plan.wish.stock
    owned = bag.wedges[int(wish.code.removeprefix("own:"))] if stock.owned else None
    bends = (*wish.bent_before_deg, *(by_deg for by_deg in (plan.lie_by_deg, plan.bend_deg) if by_deg))
    # a club that keeps its shaft keeps what the studio knows of it
    kept = owned.built if owned is not None and wish.shaft is None else None
    shafted = wish if kept is None else kept
    built = BuiltDocument(
        order_id=order_id, on=on, by=by, length_in=shafted.length_in, shaft=shafted.shaft, grip=shafted.grip,
        swing_weight=wish.read.swing_weight or (club.built.swing_weight if club.built else None),
        loft_deg=head.loft_deg,
    )  # fmt: skip
    before = {} if owned is None else owned.model_dump(exclude={"built"})
    values = {
        "name": stock.name, "make": stock.make, "bend_limit_deg": stock.bend_limit_deg,
        "stamped_loft_deg": stock.head.loft_deg if owned is None else None, **before,
        **head_out(head).model_dump(), "measured": True, "loft_typed": wish.read.typed,
        "bends_deg": (*(owned.bends_deg if owned else ()), *bends), "built": built.model_dump(mode="json"),
    }  # fmt: skip
    if plan.action == "keep" and owned is not None and owned.built is not None and wish.length_in is None:
        values["built"] = owned.built.model_dump(mode="json")
    return OwnedWedgeDocument.model_validate(values)
