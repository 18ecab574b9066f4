"""Fittings: list, start, open, edit, remove, export and import, keep."""

from typing import Any

from flask import Response, current_app, request
from flask_openapi3 import APIBlueprint

from oblatus.core.grounds import sand_class, summarise_readings, turf_class
from oblatus.core.shots import default_shot_mix
from oblatus.errors import Fault
from oblatus.formats.convert import head_from
from oblatus.formats.fitting import (
    FittingDocument,
    GroundDocument,
    OwnedWedgeDocument,
    PlayerDocument,
    dump_fitting,
    load_fitting,
)
from oblatus.formats.recommendation import RecommendationOut, edge_height_mm, outline_mm
from oblatus.store.repositories import KeptRow
from oblatus.store.tables import SnapshotRow
from oblatus.usecases.edit_fitting import edit_fitting, remove_fitting
from oblatus.usecases.keep_proposal import keep_proposal, list_kept, open_kept
from oblatus.usecases.open_fitting import export_fitting, list_fittings, open_fitting
from oblatus.usecases.start_fitting import import_fitting, start_fitting
from oblatus.usecases.view import FittingView
from oblatus.web.answers import Answer, answer, nothing
from oblatus.web.auth import actor, database
from oblatus.web.schemas import (
    EditIn,
    ErrorOut,
    FaultOut,
    FittingLine,
    FittingList,
    FittingOut,
    FittingPath,
    KeepIn,
    KeptLine,
    KeptList,
    KeptOut,
    OwnedOut,
    ReadingsOut,
    SnapshotPath,
    StartIn,
)

blueprint = APIBlueprint("fittings", __name__, url_prefix="/api/fittings", abp_responses={404: ErrorOut, 422: ErrorOut})


@blueprint.get("", responses={200: FittingList})
def get_fittings() -> Answer:
    """The fittings of the studio."""
    rows = list_fittings(database(), actor())
    lines = [FittingLine(id=r.id, player_name=r.player_name, revision=r.revision, updated_at=r.updated_at) for r in rows]
    return answer(FittingList(fittings=lines))


@blueprint.post("", responses={201: FittingOut})
def post_fitting(body: StartIn) -> Answer:
    """Start a fitting for a new player."""
    return answer(_fitting(start_fitting(database(), actor(), PlayerDocument(name=body.player_name))), 201)


@blueprint.post("/import", responses={201: FittingOut}, openapi_extensions={"x-body": "a fitting document"})
def post_import() -> Answer:
    """Start a fitting from a document."""
    document = load_fitting(request.get_data())
    return answer(_fitting(import_fitting(database(), actor(), document)), 201)


@blueprint.get("/<uuid:fitting_id>", responses={200: FittingOut})
def get_fitting(path: FittingPath) -> Answer:
    """One fitting with its proposal."""
    return answer(_fitting(open_fitting(database(), actor(), path.fitting_id)))


@blueprint.patch("/<uuid:fitting_id>", responses={200: FittingOut, 409: ErrorOut})
def patch_fitting(path: FittingPath, body: EditIn) -> Answer:
    """Put new sections in place; the answer holds the new proposal."""
    sections: dict[str, Any] = body.model_dump(
        mode="json", include={"player", "grounds", "bag", "choices", "measuring", "rack"}, exclude_none=False
    )
    changes = {key: value for key, value in sections.items() if value is not None}
    if body.drop_rack:
        changes["rack"] = None
    return answer(_fitting(edit_fitting(database(), actor(), path.fitting_id, body.revision, changes)))


@blueprint.delete("/<uuid:fitting_id>", responses={204: None})
def delete_fitting(path: FittingPath) -> Answer:
    """Remove a fitting and everything kept of it."""
    remove_fitting(database(), actor(), path.fitting_id)
    return nothing()


@blueprint.get("/<uuid:fitting_id>/export", responses={200: FittingDocument})
def get_export(path: FittingPath) -> Answer:
    """The fitting as a document, rack included."""
    text = dump_fitting(export_fitting(database(), actor(), path.fitting_id))
    response: Response = current_app.response_class(text, mimetype="application/json")
    response.headers["Content-Disposition"] = f'attachment; filename="fitting-{path.fitting_id}.json"'
    return response


@blueprint.get("/<uuid:fitting_id>/kept", responses={200: KeptList})
def get_kept_list(path: FittingPath) -> Answer:
    """Kept proposals, newest first."""
    return answer(KeptList(kept=[_kept_line(row) for row in list_kept(database(), actor(), path.fitting_id)]))


@blueprint.post("/<uuid:fitting_id>/kept", responses={201: KeptLine, 409: ErrorOut})
def post_kept(path: FittingPath, body: KeepIn) -> Answer:
    """Keep the proposal on the screen."""
    row = keep_proposal(database(), actor(), path.fitting_id, body.revision, body.label.strip())
    return answer(_kept_line(row), 201)


@blueprint.get("/<uuid:fitting_id>/kept/<uuid:snapshot_id>", responses={200: KeptOut})
def get_kept(path: SnapshotPath) -> Answer:
    """One kept proposal, as it was."""
    row = open_kept(database(), actor(), path.fitting_id, path.snapshot_id)
    return answer(
        KeptOut(
            **_kept_line(row).model_dump(),
            document=FittingDocument.model_validate(row.document),
            result=RecommendationOut.model_validate(row.result),
        )
    )


def _fitting(view: FittingView) -> FittingOut:
    return FittingOut(
        id=view.id,
        revision=view.revision,
        document=view.document,
        recommendation=view.proposal.result,
        problem=[_fault(fault) for fault in view.proposal.problem],
        owned=[_owned(wedge) for wedge in view.document.bag.wedges],
        readings=[_readings(ground) for ground in view.document.grounds],
        steps=dict(view.steps),
        default_shot_mix=default_shot_mix(view.document.player.handicap),
        kept=_kept_line(view.kept) if view.kept else None,
        strikes=view.strikes,
        strikes_key=view.strikes_key,
    )


def _owned(wedge: OwnedWedgeDocument) -> OwnedOut:
    head = head_from(wedge)
    return OwnedOut(shape=head.shape_words(), edge_height_mm=edge_height_mm(head), outline_mm=outline_mm(head))


def _readings(ground: GroundDocument) -> ReadingsOut:
    turf = sand = ""
    if ground.turf.readings_g:
        found = summarise_readings(ground.turf.readings_g)
        turf = f"{found.mean:.0f} ± {found.spread:.0f} g from {found.count}: {turf_class(found.mean)}"
    if ground.sand.readings_kg_cm2:
        found = summarise_readings(ground.sand.readings_kg_cm2)
        sand = f"{found.mean:.2f} ± {found.spread:.2f} kg/cm2 from {found.count}: {sand_class(found.mean)}"
    return ReadingsOut(turf=turf, sand=sand)


def _fault(fault: Fault) -> FaultOut:
    return FaultOut(field=fault.field, message=fault.message, value=fault.value)


def _kept_line(row: KeptRow | SnapshotRow) -> KeptLine:
    return KeptLine(
        id=row.id,
        label=row.label,
        revision=row.revision,
        created_at=row.created_at,
        engine_version=row.engine_version,
        kept_by=row.kept_by,
        clubs=list(row.clubs),
        strikes=row.strikes if isinstance(row, KeptRow) else row.result.get("strikes", 0),
        strikes_key=row.strikes_key if isinstance(row, KeptRow) else row.result.get("strikes_key"),
    )
