"""What the player takes home: the card, on the screen, on paper, as a picture and as a table."""

from flask import request

from oblatus.formats.card import CardOut
from oblatus.usecases.card_of import see_card
from oblatus.usecases.hand_over import page_link
from oblatus.usecases.print_card import draw_card, list_card, print_card
from oblatus.web.answers import Answer, answer, download, inline
from oblatus.web.auth import actor, database, reader, settings
from oblatus.web.routes import Routes
from oblatus.web.schemas import FittingPath

blueprint = Routes("card", __name__, "/api/fittings/<uuid:fitting_id>")


AS_PDF = {"content": {"application/pdf": {"schema": {"type": "string", "format": "binary"}}}}
AS_PNG = {"content": {"image/png": {"schema": {"type": "string", "format": "binary"}}}}


@blueprint.get("/card", responses={200: CardOut})
def get_card(path: FittingPath) -> Answer:
    """Carries, distances, how to play each lie, and drills."""
    return answer(see_card(database(), actor(), path.fitting_id, reader().distance))


@blueprint.get("/card/distances.csv", responses={200: {"content": {"text/csv": {"schema": {"type": "string"}}}}})
def get_card_csv(path: FittingPath) -> Answer:
    """Distances and carries as CSV."""
    found = list_card(database(), actor(), path.fitting_id, reader())
    return download(found.content, "text/csv; charset=utf-8", found.name, ".csv")


@blueprint.get("/card/bag.pdf", responses={200: AS_PDF})
def get_bag_card(path: FittingPath) -> Answer:
    """The bag card on paper."""
    found = print_card(database(), actor(), path.fitting_id, "bag", reader(), _link(path))
    return download(found.content, "application/pdf", found.name, ".pdf")


@blueprint.get("/card/setup.pdf", responses={200: AS_PDF})
def get_setup_card(path: FittingPath) -> Answer:
    """How to play each lie, on paper."""
    found = print_card(database(), actor(), path.fitting_id, "setup", reader())
    return download(found.content, "application/pdf", found.name, ".pdf")


@blueprint.get("/card/bag.png", responses={200: AS_PNG})
def get_bag_picture(path: FittingPath) -> Answer:
    """The first page of the bag card as a picture."""
    return inline(draw_card(database(), actor(), path.fitting_id, "bag", reader(), _link(path)).content, "image/png")


@blueprint.get("/card/setup.png", responses={200: AS_PNG})
def get_setup_picture(path: FittingPath) -> Answer:
    """The first page of the setup card as a picture."""
    return inline(draw_card(database(), actor(), path.fitting_id, "setup", reader()).content, "image/png")


def _link(path: FittingPath) -> str | None:
    """Where the player's page is, for the code on the card."""
    return page_link(database(), settings(), actor(), path.fitting_id, request.host_url)
