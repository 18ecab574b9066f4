"""Strikes and carries: take, set aside, undo, paste; the carry ladder in its conditions; ladders of lofts."""

from flask import Response

from oblatus.formats.carries import CarriesIn, CarriesOut
from oblatus.formats.session import SessionSummaryOut
from oblatus.usecases.paste_strikes import paste_strikes
from oblatus.usecases.show_carries import show_carries, show_front
from oblatus.usecases.show_session import export_strikes, record_session, show_session
from oblatus.usecases.take_strikes import take_strike_out, take_strikes, taken_out, tell_of_strike
from oblatus.web.answers import Answer, answer, download, nothing
from oblatus.web.auth import actor, database
from oblatus.web.routes import Routes
from oblatus.web.schemas import FittingPath
from oblatus.web.schemas_strikes import (
    LaddersOut,
    PasteIn,
    PasteOut,
    StrikePath,
    StrikesIn,
    StrikesOut,
    TakenOutOut,
    TellIn,
)

blueprint = Routes("carries", __name__, "/api/fittings/<uuid:fitting_id>")


@blueprint.post("/carries", responses={200: CarriesOut})
def post_carries(path: FittingPath, body: CarriesIn) -> Answer:
    """Every club with every swing in the conditions asked for, and the shots for a distance."""
    return answer(show_carries(database(), actor(), path.fitting_id, body))


@blueprint.get("/ladders", responses={200: LaddersOut})
def get_ladders(path: FittingPath) -> Answer:
    """Ladders of lofts by cover against cost."""
    return answer(LaddersOut(front=show_front(database(), actor(), path.fitting_id)))


@blueprint.get("/session", responses={200: SessionSummaryOut})
def get_session(path: FittingPath) -> Answer:
    """What the session's strikes say: the habit with its doubt, drift, faults."""
    return answer(show_session(database(), actor(), path.fitting_id))


@blueprint.get("/strikes.csv", responses={200: None})
def get_strikes_csv(path: FittingPath) -> Response:
    """Every strike as CSV."""
    player, text = export_strikes(database(), actor(), path.fitting_id)
    return download("\ufeff" + text, "text/csv", player, "-strikes.csv")


@blueprint.get("/recording.jsonl", responses={200: None})
def get_recording(path: FittingPath) -> Response:
    """The strikes that a device sent, with their pauses, for `oblatus simulate monitor --replay`."""
    player, text = record_session(database(), actor(), path.fitting_id)
    return download(text, "application/x-ndjson", player, "-session.jsonl")


@blueprint.post("/strikes", responses={200: StrikesOut})
def post_strikes(path: FittingPath, body: StrikesIn) -> Answer:
    """Take strikes; sending them twice takes them once."""
    return answer(StrikesOut(taken=take_strikes(database(), actor(), path.fitting_id, body.strikes, body.wedges)))


@blueprint.post("/strikes/paste", responses={200: PasteOut})
def post_paste(path: FittingPath, body: PasteIn) -> Answer:
    """Read strikes from pasted text, and take them."""
    cell = (body.cell.club, body.cell.swing) if body.cell is not None else None
    found = paste_strikes(
        database(), actor(), path.fitting_id, body.text, body.unit, body.paste_id, cell,
        take=body.take, sure_of_unit=body.sure_of_unit,
    )  # fmt: skip
    return answer(PasteOut(strikes=list(found.strikes), unit=found.unit, question=found.question, taken=found.taken))


@blueprint.patch("/strikes/<uuid:strike_id>", responses={204: None})
def patch_strike(path: StrikePath, body: TellIn) -> Answer:
    """Set a strike aside with its reason, count it again, or say more of it."""
    changes = body.model_dump(exclude_unset=True)
    if changes.get("note", "") is None:
        changes["note"] = ""
    note_was = changes.pop("note_was", None)
    tell_of_strike(database(), actor(), path.fitting_id, path.strike_id, changes, note_was)
    return nothing()


@blueprint.delete("/strikes/<uuid:strike_id>", responses={204: None})
def delete_strike(path: StrikePath) -> Answer:
    """Undo a strike that was taken by mistake."""
    take_strike_out(database(), actor(), path.fitting_id, path.strike_id, out=True)
    return nothing()


@blueprint.get("/strikes/out", responses={200: TakenOutOut})
def get_taken_out(path: FittingPath) -> Answer:
    """Strikes that were taken out, the last one first."""
    return answer(TakenOutOut(strikes=list(taken_out(database(), actor(), path.fitting_id))))


@blueprint.post("/strikes/<uuid:strike_id>/back", responses={204: None})
def post_strike_back(path: StrikePath) -> Answer:
    """Put a strike back that was taken out."""
    take_strike_out(database(), actor(), path.fitting_id, path.strike_id, out=False)
    return nothing()
