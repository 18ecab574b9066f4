"""The player's cards on paper, as a picture, or as a table."""

from __future__ import annotations

from typing import Literal
from uuid import UUID

from oblatus.core.words import Reader
from oblatus.formats.card import CardOut, card_csv
from oblatus.formats.print.cards import bag_card_pdf, setup_card_pdf
from oblatus.formats.print.pages import as_png
from oblatus.formats.sections.after import CardDocument
from oblatus.store.database import Database
from oblatus.usecases.actor import Actor
from oblatus.usecases.asker import while_asker_waits
from oblatus.usecases.card_of import see_card
from oblatus.usecases.print_build import Printed
from oblatus.usecases.show_carries import inputs_of

DOTS_PER_INCH = 192.0
"""Twice what a screen has at true size."""
Kind = Literal["bag", "setup"]


def print_card(
    database: Database, actor: Actor, fitting_id: UUID, kind: Kind, reader: Reader, link: str | None = None
) -> Printed:
    """A card as PDF, on the paper and with the parts that the fitter chose; `link` opens the player's page.

    Raises
    ------
    InputError
        If it does not fit on its paper, with what to leave out.
    LaterError
        If nobody waits for it any more.
    NotFoundError
        If the studio has no such fitting.
    """
    return Printed(*_set(database, actor, fitting_id, kind, reader, link))


def draw_card(
    database: Database, actor: Actor, fitting_id: UUID, kind: Kind, reader: Reader, link: str | None = None
) -> Printed:
    """The first page of a card as PNG; raises as `print_card`."""
    pdf, name = _set(database, actor, fitting_id, kind, reader, link)
    return Printed(as_png(pdf, DOTS_PER_INCH), name)


def list_card(database: Database, actor: Actor, fitting_id: UUID, reader: Reader) -> Printed:
    """Distances and carries as CSV; raises as `see_card`."""
    card, _ = _card(database, actor, fitting_id, reader)
    return Printed(card_csv(card, reader), f"{card.player} distances")


def _card(database: Database, actor: Actor, fitting_id: UUID, reader: Reader) -> tuple[CardOut, CardDocument]:
    chosen = inputs_of(database, actor, fitting_id).document.card
    return see_card(database, actor, fitting_id, reader.distance), chosen


def _set(
    database: Database, actor: Actor, fitting_id: UUID, kind: Kind, reader: Reader, link: str | None
) -> tuple[bytes, str]:
    """A card as PDF, and its name. A page takes seconds to set: not for a screen that has chosen otherwise meanwhile."""
    with while_asker_waits():
        card, chosen = _card(database, actor, fitting_id, reader)
        name = f"{card.player} {kind} card"
        if kind == "bag":
            printed = bag_card_pdf(card, chosen.size, chosen.parts, reader, grey=chosen.grey, link=link)
        else:
            printed = setup_card_pdf(card, chosen.size, reader, grey=chosen.grey)
        return printed.content, name
