"""Codes of owned wedges when one is taken out of the bag, or comes back, by hand.

A wedge goes by its place: own:0, own:1, ... What was measured with it, its pin and its line of the build sheet go with
the wedge, not with the place.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from datetime import date
from difflib import SequenceMatcher
from typing import Any
from uuid import uuid4

from pydantic import ValidationError

from oblatus.formats.sections.bag import MOST_FORMER, BagDocument, FormerWedgeDocument, OwnedWedgeDocument

Codes = Mapping[str, str]


def moved_wedges(
    before: Sequence[OwnedWedgeDocument], after: Sequence[OwnedWedgeDocument]
) -> tuple[dict[int, int], list[int], list[int]]:
    """Where the wedges of one bag stand in the next: old place to new, the places that are gone, and those that are new.

    Wedges that are the same stand for themselves, also in another order; between them, as many as there were are those
    that were, edited; of the others those of one name are the same.
    """
    was = [wedge.model_dump_json() for wedge in before]
    now = [wedge.model_dump_json() for wedge in after]
    kept: dict[int, int] = {}
    for what, a, b, c, d in SequenceMatcher(None, was, now, autojunk=False).get_opcodes():
        if what == "equal" or b - a == d - c:
            kept |= dict(zip(range(a, b), range(c, d), strict=True))
    for keys in ((was, now), ([w.name for w in before], [w.name for w in after])):
        for place in range(len(was)):
            free = (n for n in range(len(now)) if n not in kept.values() and keys[1][n] == keys[0][place])
            found = None if place in kept else next(free, None)
            if found is not None:
                kept[place] = found
    gone = [place for place in range(len(was)) if place not in kept]
    return kept, gone, [place for place in range(len(now)) if place not in kept.values()]


def recoded(
    before: BagDocument, after: BagDocument, used: Callable[[], Collection[str]], on: date
) -> tuple[BagDocument, Codes]:
    """The bag with the wedges that left it among the former ones, if something goes by them, and the codes that changed,
    old to new.

    A wedge that comes back as it was, by Undo or with a kept proposal, gets what went by it back. `used` tells the codes
    of what was measured, of pins and of the build sheet; it is asked only where a wedge went or came.
    """
    kept, gone, new = moved_wedges(before.wedges, after.wedges)
    codes = {f"own:{a}": f"own:{b}" for a, b in kept.items() if a != b}
    if not gone and not new:
        return after, codes
    known = used()
    former = list(after.former)
    listed = {one.code for one in former}
    # those that an older bag, put in place of this one, did not have yet
    former += [one for one in before.former if one.code not in listed and one.code in known]
    for place in new:
        back = next((one for one in former if one.wedge == after.wedges[place]), None)
        if back is not None:
            codes[back.code] = f"own:{place}"
            former.remove(back)
    for place in gone:
        left = _left(before.wedges[place], place, on)
        codes[f"own:{place}"] = left.code
        if f"own:{place}" in known:
            former.insert(0, left)
    stay = {one.code for one in before.former} | {codes.get(code, code) for code in known}
    left_now = [before.wedges[place] for place in gone]
    # Undo brings back those that were by their codes of then: one that leaves again has another by now
    former = [one for one in former if one.code in stay or one.wedge not in left_now]
    return after.model_copy(update={"former": tuple(former[:MOST_FORMER])}), codes


def as_told(told: Sequence[Any], bag: BagDocument) -> list[OwnedWedgeDocument]:
    """The wedges of a screen; one that cannot be read, by an earlier program or half typed, is the bag's of its name, or
    in its place."""
    found: list[OwnedWedgeDocument] = []
    for place, wedge in enumerate(told):
        try:
            found.append(OwnedWedgeDocument.model_validate(wedge))
        except ValidationError:
            name = wedge.get("name") if isinstance(wedge, dict) else None
            here = [one for one in bag.wedges if one.name == name] or list(bag.wedges[place : place + 1])
            if not here:
                break
            found.append(here[0])
    return found


def with_codes(value: Any, codes: Codes) -> Any:
    """A section, whatever was sent as it, with other codes of clubs."""
    if isinstance(value, list):
        return [with_codes(entry, codes) for entry in value]
    if not isinstance(value, dict):
        return value
    found = {key: with_codes(entry, codes) for key, entry in value.items()}
    code = value.get("code")
    return {**found, "code": codes[code]} if isinstance(code, str) and code in codes else found


def codes_of(value: Any) -> set[str]:
    """The codes of clubs in a section, whatever was sent as it."""
    entries = value if isinstance(value, list) else list(value.values()) if isinstance(value, dict) else []
    here = {value["code"]} if isinstance(value, dict) and isinstance(value.get("code"), str) else set()
    return here.union(*(codes_of(entry) for entry in entries))


def codes_today(
    told: Sequence[OwnedWedgeDocument], bag: BagDocument, used: Collection[str], on: date
) -> tuple[BagDocument, Codes]:
    """The codes by which clubs go today that were told by their places among the wedges that a screen showed (`told`),
    where they are others: a strike, or an edit, may have waited without a connection while the bag changed.

    A wedge that is in the bag no longer goes by the code that it went out with; one of `used` that has none, for nothing
    was measured with it before, is put among the former ones.
    """
    kept = moved_wedges(told, bag.wedges)[0]
    former, codes = list(bag.former), {}
    for place, wedge in enumerate(told):
        now = kept.get(place)
        gone = next((one.code for one in former if one.wedge == wedge), None)
        if now is not None and (gone is None or bag.wedges[now] == wedge):
            codes[f"own:{place}"] = f"own:{now}"
        elif gone is not None:
            codes[f"own:{place}"] = gone
        # beyond the last one it is a wedge whose own way here is not at its end yet
        elif f"own:{place}" in used and place < len(bag.wedges):
            left = _left(wedge, place, on)
            codes[f"own:{place}"] = left.code
            former.insert(0, left)
    after = bag if len(former) == len(bag.former) else bag.model_copy(update={"former": tuple(former[:MOST_FORMER])})
    return after, {old: new for old, new in codes.items() if old != new}


def _left(wedge: OwnedWedgeDocument, place: int, on: date) -> FormerWedgeDocument:
    """A wedge that is out of the bag, with the code that it goes by from now on."""
    return FormerWedgeDocument(code=f"was:{uuid4().hex[:8]}:{place}", wedge=wedge, until=on, became="out of the bag")
