"""The next fitting of a player starts from the last."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from oblatus.errors import ConflictError
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.sections.after import AfterDocument
from oblatus.formats.sections.bag import OwnedWedgeDocument
from oblatus.formats.sections.build import BuildDocument
from oblatus.formats.sections.choices import ChoicesDocument, LadderFactors
from oblatus.formats.sections.player import PlayerDocument
from oblatus.store.database import Database
from oblatus.store.grounds_and_bags import StudioReadings
from oblatus.store.repositories import StudioRows
from oblatus.usecases.actor import Actor
from oblatus.usecases.rechecks import MOST_READINGS, read_again


def open_next(database: Database, actor: Actor, fitting_id: UUID, next_id: UUID) -> UUID:
    """Begin the next fitting of a player: clubs as built and as rechecked, grounds, habit and carries as they were then.

    Strikes, proofs and kept proposals stay with the fitting that they belong to. Sent again it is the same fitting.

    Raises
    ------
    ConflictError
        If a fitting follows this one already, or the id is another's.
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        row = rows.fitting(fitting_id, lock=True)
        following = next((one for one in rows.fittings() if one.follows == fitting_id), None)
        if following is not None:
            if following.id == next_id:
                return next_id
            raise ConflictError("The next fitting of this player is there already.", row.revision)
        if rows.any_fitting(next_id):
            raise ConflictError("This fitting is in the bin, or another player's.", row.revision)
        readings = StudioReadings(session, actor.studio_id).readings(fitting_id, MOST_READINGS)
        document = FittingDocument.model_validate(row.document)
        again = {code: loft for code, (loft, _) in read_again(document.bag.wedges, readings).items()}
        claims = rows.studio().claims_sd
        new = next_document(document, again, claims)
        rows.add_fitting(new.player.name, new.model_dump(mode="json"), next_id, fitting_id)
    return next_id


def next_document(document: FittingDocument, again_deg: dict[str, float], claims_sd: float | None) -> FittingDocument:
    """The document that the next fitting begins with; `again_deg` are lofts as rechecked, by code."""
    bag = document.bag.model_copy(
        update={"wedges": tuple(_rechecked(w, again_deg.get(f"own:{n}")) for n, w in enumerate(document.bag.wedges))}
    )
    economy = document.choices.economy
    if claims_sd is not None:
        economy = economy.model_copy(update={"claims_sd": claims_sd})
    choices = ChoicesDocument(
        ladder_factors=LadderFactors(), distances=document.choices.distances, layouts=document.choices.layouts,
        economy=economy,
    )  # fmt: skip
    after = AfterDocument(use=document.after.use, trips=document.after.trips)
    return document.model_copy(
        update={
            "player": _from_then(document.player), "bag": bag, "choices": choices, "build": BuildDocument(),
            "after": after, "strikes": (), "attached": None,
        }
    )  # fmt: skip


def _rechecked(wedge: OwnedWedgeDocument, loft_deg: float | None) -> OwnedWedgeDocument:
    """The wedge at the loft that was read again: bounce goes with it."""
    if loft_deg is None or loft_deg == wedge.loft_deg:
        return wedge
    moved = {"loft_deg": loft_deg, "bounce_deg": max(wedge.bounce_deg + loft_deg - wedge.loft_deg, 0.0), "measured": True}
    return OwnedWedgeDocument.model_validate({**wedge.model_dump(mode="json"), **moved})


def _from_then(player: PlayerDocument) -> PlayerDocument:
    """The player with a habit from the last fitting: known, but not measured today."""
    delivery: dict[str, Any] = player.delivery.model_dump()
    for key, estimate in delivery.items():
        if isinstance(estimate, dict) and estimate.get("source") in ("measured", "typed"):
            delivery[key] = {**estimate, "source": "earlier"}
    return PlayerDocument.model_validate({**player.model_dump(mode="json"), "complaints": "", "delivery": delivery})
