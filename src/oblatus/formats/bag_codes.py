"""Codes of owned wedges when one is taken out of the bag, or comes back, by hand.

A wedge goes by its place: own:0, own:1, ... What was measured with it, its pin and its line of the build sheet go with
the wedge, not with the place.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping
from datetime import date
from difflib import SequenceMatcher
from uuid import uuid4

from oblatus.formats.fitting import MOST_FORMER, BagDocument, FormerWedgeDocument

Codes = Mapping[str, str]


def moved_wedges(before: BagDocument, after: BagDocument) -> tuple[dict[int, int], list[int], list[int]]:
    """Where the wedges of one bag stand in the next: old place to new, the places that are gone, and those that are new.

    Wedges that are the same stand for themselves, also in another order; between them, as many as there were are those
    that were, edited; of the others those of one name are the same.
    """
    was = [wedge.model_dump_json() for wedge in before.wedges]
    now = [wedge.model_dump_json() for wedge in after.wedges]
    kept: dict[int, int] = {}
    for what, a, b, c, d in SequenceMatcher(None, was, now, autojunk=False).get_opcodes():
        if what == "equal" or b - a == d - c:
            kept |= dict(zip(range(a, b), range(c, d), strict=True))
    for keys in ((was, now), ([w.name for w in before.wedges], [w.name for w in after.wedges])):
        for place in range(len(was)):
            free = (n for n in range(len(now)) if n not in kept.values() and keys[1][n] == keys[0][place])
            found = None if place in kept else next(free, None)
            if found is not None:
                kept[place] = found
    gone = [place for place in range(len(was)) if place not in kept]
    return kept, gone, [place for place in range(len(now)) if place not in kept.values()]


def recoded(
    before: BagDocument, after: BagDocument, measured: Callable[[], Collection[str]], on: date
) -> tuple[BagDocument, Codes]:
    """The bag with the wedges that left it among the former ones, if something was measured with them, and the codes that
    changed, old to new.

    A wedge that comes back as it was, by Undo or with a kept proposal, gets what was measured with it back. `measured`
    tells the codes that strikes, readings and shots go by; it is asked only where a wedge went or came.
    """
    kept, gone, new = moved_wedges(before, after)
    codes = {f"own:{a}": f"own:{b}" for a, b in kept.items() if a != b}
    if not gone and not new:
        return after, codes
    known = measured()
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
        code = f"was:{uuid4().hex[:8]}:{place}"
        codes[f"own:{place}"] = code
        if f"own:{place}" in known:
            left = FormerWedgeDocument(code=code, wedge=before.wedges[place], until=on, became="out of the bag")
            former.insert(0, left)
    return after.model_copy(update={"former": tuple(former[:MOST_FORMER])}), codes
