"""Fittings: list, start, open, edit, remove, export and import, keep."""

from dataclasses import replace
from typing import Any

from flask import request

from oblatus.core.figures import figures
from oblatus.core.fitting.fitting import wedge_room
from oblatus.core.grounds import SURFACES, summarise_readings
from oblatus.core.shots import default_shot_mix
from oblatus.core.strike.ground_rows import thatch_of
from oblatus.core.words import worded
from oblatus.errors import Fault, InputError
from oblatus.formats.convert import grounds_of, head_from
from oblatus.formats.differences import difference, name_of
from oblatus.formats.earlier import EarlierOut, kept_result
from oblatus.formats.fitting import FittingDocument, as_in_file, dump_fitting, load_fitting
from oblatus.formats.heads import edge_height_mm, outline_mm
from oblatus.formats.merge import Conflict
from oblatus.formats.recommendation import RecommendationOut
from oblatus.formats.sections.bag import OwnedWedgeDocument
from oblatus.formats.sections.grounds import GroundDocument, SurfaceDocument
from oblatus.formats.sections.player import PlayerDocument
from oblatus.store.repositories import KeptRow
from oblatus.store.tables import SnapshotRow
from oblatus.usecases.bin import KEPT_FOR, bring_back, list_bin, remove_fitting, remove_for_good
from oblatus.usecases.days import day_of
from oblatus.usecases.edit_fitting import Edit, edit_fitting
from oblatus.usecases.keep_proposal import compare_kept, keep_proposal, list_kept, name_kept, open_kept, take_kept_out
from oblatus.usecases.open_fitting import export_fitting, list_fittings, open_at_once, open_fitting
from oblatus.usecases.start_fitting import import_fitting, start_fitting
from oblatus.usecases.taken_out import taken_out
from oblatus.usecases.view import FittingView
from oblatus.web.answers import Answer, answer, download, nothing
from oblatus.web.auth import actor, database
from oblatus.web.errors import fault_list
from oblatus.web.routes import Routes
from oblatus.web.schemas import (
    BinLine,
    BinOut,
    ComparedOut,
    CompareQuery,
    ConflictOut,
    EditedOut,
    EditIn,
    FittingLine,
    FittingList,
    FittingOut,
    FittingPath,
    KeepIn,
    KeptLine,
    KeptList,
    KeptOut,
    LoadQuery,
    NameIn,
    OpenQuery,
    OutList,
    OwnedOut,
    ProofLine,
    RoundLine,
    SectionsIn,
    SnapshotPath,
    StartIn,
)
from oblatus.web.schemas_errors import ErrorOut

blueprint = Routes("fittings", __name__, "/api/fittings")


@blueprint.get("", responses={200: FittingList})
def get_fittings() -> Answer:
    """The fittings of the studio."""
    lines = [
        FittingLine(
            id=row.id, player_name=row.player_name, revision=row.revision, updated_at=row.updated_at, kept_at=kept_at,
            kept_clubs=clubs, due_on=due[0] if due else None, due_words=due[1] if due else "",
            due_late=bool(due and due[2]), follows=row.follows, followed=followed,
        )
        for row, kept_at, clubs, due, followed in list_fittings(database(), actor())
    ]  # fmt: skip
    return answer(FittingList(fittings=lines))


@blueprint.post("", responses={201: FittingOut})
def post_fitting(body: StartIn) -> Answer:
    """Start a fitting for a new player; its proposal is to come."""
    player = PlayerDocument(name=body.player_name)
    return answer(_fitting(start_fitting(database(), actor(), player, body.id)), 201)


@blueprint.post("/import", responses={201: FittingOut}, openapi_extensions={"x-body": "a fitting document"})
def post_import(query: LoadQuery) -> Answer:
    """Start a fitting from a document; its proposal is to come."""
    try:
        document = load_fitting(request.get_data())
        made = import_fitting(database(), actor(), document, query.id)
    except InputError as error:
        raise as_in_file(error) from error
    return answer(_fitting(made), 201)


@blueprint.get("/<uuid:fitting_id>", responses={200: FittingOut})
def get_fitting(path: FittingPath, query: OpenQuery) -> Answer:
    """One fitting with its whole proposal; at once, with what of it needs no long wait."""
    opened = open_at_once if query.at_once else open_fitting
    return answer(_fitting(opened(database(), actor(), path.fitting_id)))


@blueprint.patch("/<uuid:fitting_id>", responses={200: EditedOut, 409: ErrorOut})
def patch_fitting(path: FittingPath, body: EditIn) -> Answer:
    """Put new sections in place; the answer holds what of the new proposal needs no long wait, and what was not taken."""
    sections = _sections(body)
    if body.rack is not None:
        sections["rack"] = body.rack
    if body.drop_rack:
        sections["rack"] = None
    edit = Edit(
        body.revision,
        sections,
        None if body.base is None else _sections(body.base),
        body.edit_id,
        {conflict.path: conflict.theirs for conflict in body.settled},
        [(attempt.edit_id, _sections(attempt.sections)) for attempt in body.attempts],
        body.wedges,
    )
    edited = edit_fitting(database(), actor(), path.fitting_id, edit)
    on_screen = edited.view.document.model_dump(mode="json") | edited.draft if edited.conflicts else {}
    return answer(
        EditedOut(
            **dict(_fitting(edited.view)),
            refused=fault_list(edited.refused),
            conflicts=[_conflict(conflict, on_screen) for conflict in edited.conflicts],
            draft=edited.draft,
        )
    )


@blueprint.delete("/<uuid:fitting_id>", responses={204: None})
def delete_fitting(path: FittingPath) -> Answer:
    """Put a fitting into the bin with everything kept of it."""
    remove_fitting(database(), actor(), path.fitting_id)
    return nothing()


@blueprint.get("/bin", responses={200: BinOut})
def get_bin() -> Answer:
    """What was removed, and until when it can be brought back."""
    lines = [
        BinLine(id=r.id, player_name=r.player_name, removed_at=r.removed_at, gone_on=day_of(r.removed_at + KEPT_FOR))
        for r in list_bin(database(), actor())
        if r.removed_at is not None
    ]
    return answer(BinOut(fittings=lines))


@blueprint.post("/bin/<uuid:fitting_id>/back", responses={204: None})
def post_back(path: FittingPath) -> Answer:
    """Bring a fitting back from the bin."""
    bring_back(database(), actor(), path.fitting_id)
    return nothing()


@blueprint.delete("/bin/<uuid:fitting_id>", responses={204: None})
def delete_for_good(path: FittingPath) -> Answer:
    """Remove a fitting in the bin for good."""
    remove_for_good(database(), actor(), path.fitting_id)
    return nothing()


@blueprint.get("/<uuid:fitting_id>/export", responses={200: FittingDocument})
def get_export(path: FittingPath) -> Answer:
    """The fitting as a document: strikes, rack, kept proposals, readings and photos included."""
    document = export_fitting(database(), actor(), path.fitting_id)
    return download(worded(dump_fitting(document)), "application/json", document.player.name, ".json")


@blueprint.get("/<uuid:fitting_id>/out", responses={200: OutList})
def get_taken_out(path: FittingPath) -> Answer:
    """Kept proposals, proofs and rounds that were taken out and can be put back, the last one first."""
    found = taken_out(database(), actor(), path.fitting_id)
    return answer(
        OutList(
            kept=[_kept_line(row) for row in found.kept],
            proofs=[ProofLine(id=one.id, on=one.on, clubs=list(one.clubs)) for one in found.proofs],
            rounds=[RoundLine(round=round_id, on=on, shots=shots) for round_id, on, shots in found.rounds],
        )
    )


@blueprint.get("/<uuid:fitting_id>/kept", responses={200: KeptList})
def get_kept_list(path: FittingPath) -> Answer:
    """Kept proposals, newest first."""
    return answer(KeptList(kept=[_kept_line(row) for row in list_kept(database(), actor(), path.fitting_id)]))


@blueprint.post("/<uuid:fitting_id>/kept", responses={201: KeptLine, 409: ErrorOut})
def post_kept(path: FittingPath, body: KeepIn) -> Answer:
    """Keep the proposal on the screen."""
    asked = body.revision, body.label.strip(), body.id, body.rack_key
    row = keep_proposal(database(), actor(), path.fitting_id, *asked)
    return answer(_kept_line(row), 201)


@blueprint.get("/<uuid:fitting_id>/kept/<uuid:snapshot_id>", responses={200: KeptOut})
def get_kept(path: SnapshotPath) -> Answer:
    """One kept proposal, as it was."""
    row = open_kept(database(), actor(), path.fitting_id, path.snapshot_id)
    found = kept_result(row.result)
    return answer(
        KeptOut(
            **_kept_line(row).model_dump(),
            document=FittingDocument.model_validate(row.document),
            result=found if isinstance(found, RecommendationOut) else None,
            earlier=found if isinstance(found, EarlierOut) else None,
        )
    )


@blueprint.patch("/<uuid:fitting_id>/kept/<uuid:snapshot_id>", responses={200: KeptLine, 409: ErrorOut})
def patch_kept(path: SnapshotPath, body: NameIn) -> Answer:
    """Name a kept proposal."""
    return answer(_kept_line(name_kept(database(), actor(), path.fitting_id, path.snapshot_id, body.label, body.was)))


@blueprint.delete("/<uuid:fitting_id>/kept/<uuid:snapshot_id>", responses={204: None})
def delete_kept(path: SnapshotPath) -> Answer:
    """Take a kept proposal out of the list."""
    take_kept_out(database(), actor(), path.fitting_id, path.snapshot_id, out=True)
    return nothing()


@blueprint.post("/<uuid:fitting_id>/kept/<uuid:snapshot_id>/back", responses={204: None})
def post_kept_back(path: SnapshotPath) -> Answer:
    """Put a kept proposal back into the list."""
    take_kept_out(database(), actor(), path.fitting_id, path.snapshot_id, out=False)
    return nothing()


@blueprint.get("/<uuid:fitting_id>/kept/<uuid:snapshot_id>/compare", responses={200: ComparedOut})
def get_compared(path: SnapshotPath, query: CompareQuery) -> Answer:
    """What differs between a kept proposal and another one, or the fitting as it stands."""
    found = compare_kept(database(), actor(), path.fitting_id, path.snapshot_id, query.other)
    after = _kept_line(found.after) if found.after is not None else None
    return answer(ComparedOut(before=_kept_line(found.before), after=after, differences=list(found.differences)))


def _sections(body: SectionsIn) -> dict[str, Any]:
    found = {name: getattr(body, name) for name in SectionsIn.model_fields}
    return {name: value for name, value in found.items() if value is not None}


def _conflict(conflict: Conflict, document: dict[str, Any]) -> ConflictOut:
    said = difference(conflict.path, conflict.mine, conflict.theirs, document)
    return ConflictOut(
        path=conflict.path, name=said.name, unit=said.unit, mine=said.before, theirs=said.after,
        mine_words=said.before_words, theirs_words=said.after_words, value=conflict.theirs,
    )  # fmt: skip


def _named(view: FittingView) -> list[Fault]:
    """What keeps a proposal from being made, each with the name of its field."""
    if not view.proposal.problem:
        return []
    document = view.document.model_dump(mode="json")
    return [replace(one, name=name_of(one.field, document)) for one in view.proposal.problem]


def _fitting(view: FittingView) -> FittingOut:
    return FittingOut(
        id=view.id,
        revision=view.revision,
        document=view.document,
        recommendation=view.proposal.result,
        problem=fault_list(_named(view)),
        to_come=view.proposal.to_come,
        by_hand=list(view.by_hand),
        owned=[_owned(wedge) for wedge in view.document.bag.wedges],
        readings=[_readings(ground) for ground in view.document.grounds],
        thatch_mm=[round(1000 * thatch_of(ground.turf), 2) for ground in grounds_of(view.document)],
        wedge_room=wedge_room(view.document.bag.other_clubs),
        steps=dict(view.steps),
        default_shot_mix=default_shot_mix(view.document.player.handicap),
        kept=_kept_line(view.kept) if view.kept else None,
        kept_is_shown=view.kept_is_shown,
        strikes=view.proposal.strikes,
        strikes_key=view.proposal.strikes_key,
        rack_key=view.proposal.rack_key,
    )


def _owned(wedge: OwnedWedgeDocument) -> OwnedOut:
    head = head_from(wedge)
    return OwnedOut(shape=head.shape_words(), edge_height_mm=edge_height_mm(head), outline_mm=outline_mm(head))


def _readings(ground: GroundDocument) -> dict[str, str]:
    return {key: _says(ground.surface(key)) for key in SURFACES}


def _says(there: SurfaceDocument) -> str:
    """What single readings say together; empty where there are none."""
    if not there.readings:
        return ""
    kind, found = there.kind_of, summarise_readings(there.readings)
    record = figures(kind.made_of)[kind.reading]
    spread = f"{found.mean:.{record.places}f} ± {found.spread:.{record.places}f} {record.bound.unit}"
    return f"{spread} from {found.count}: {kind.class_of(found.mean).words}"


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
