"""What the engine is asked about a fitting; equal questions are answered once."""

from __future__ import annotations

from collections.abc import Hashable, Sequence
from dataclasses import dataclass

from oblatus.core.fitting import Fitting
from oblatus.core.gapping import MeasuredStrike
from oblatus.formats.convert import fitting_from, swings_from
from oblatus.formats.fitting import AFTER_THE_SET, FittingDocument
from oblatus.formats.sections.bag import RackHeadDocument
from oblatus.formats.strikes import strike_from


@dataclass(frozen=True, slots=True)
class Question:
    """What the engine is asked, without what never reaches it; equal questions have equal keys."""

    document: FittingDocument
    heads: tuple[RackHeadDocument, ...]
    strikes: tuple[MeasuredStrike, ...]
    key: tuple[Hashable, ...]

    def fitting(self) -> Fitting:
        """The engine's fitting."""
        return fitting_from(self.document, self.heads, self.strikes)


def question_of(
    document: FittingDocument, rack: Sequence[RackHeadDocument], strikes: tuple[MeasuredStrike, ...] | None
) -> Question:
    """The question of a document and the studio's rack; `strikes`, if given, stand in for those of the document."""
    if strikes is None:
        strikes = tuple(strike_from(strike) for strike in document.strikes)
    heads = document.rack if document.rack is not None else tuple(rack)
    nameless = document.player.model_copy(update={"name": "player", "complaints": ""})
    about = without_words(document).model_copy(update={"rack": None, "player": nameless, "strikes": ()})
    known = {swing.key for swing in swings_from(document)}
    # strikes that tell neither carry nor speed change no proposal
    telling = tuple(
        s for s in strikes if s.counts and ((s.carry is not None and s.swing in known) or s.club_speed is not None)
    )
    return Question(about, heads, telling, (about.model_dump_json(), heads, telling))


_AFTER_THE_SET = {
    name: FittingDocument.model_fields[name].get_default(call_default_factory=True) for name in AFTER_THE_SET
}


def without_words(document: FittingDocument) -> FittingDocument:
    """The document without what never reaches the engine: typing it asks for nothing new."""
    wordless = {"wear": "", "wear_class": "unknown", "photos": (), "loft_typed": False, "built": None}
    wedges = tuple(wedge.model_copy(update=wordless) for wedge in document.bag.wedges)
    unread = {"venue": None, "season": None, "read_on": None, "formerly": ()}
    grounds = tuple(ground.model_copy(update=unread) for ground in document.grounds)
    by_hand = {pin.code for pin in document.choices.pinned}
    former = tuple(one for one in document.bag.former if one.code in by_hand)  # told by name that it cannot be had
    bag = document.bag.model_copy(update={"wedges": wedges, "former": former})
    return document.model_copy(update={"grounds": grounds, "bag": bag, **_AFTER_THE_SET})
