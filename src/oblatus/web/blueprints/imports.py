"""Files of strikes: sent, looked at through a mapping, checked, taken, taken back; and the mappings that are saved."""

from flask import Response, current_app, request

from oblatus.formats.imports import Wrong, wrong_csv
from oblatus.formats.imports.layout import layout_out
from oblatus.formats.imports.quantities import FIELDS, NO_RESULT
from oblatus.store.tables import ImportRow
from oblatus.usecases.begin_import import begin_import, broken_off, import_run, imports_of
from oblatus.usecases.look_at_import import Look, look_at_import
from oblatus.usecases.run_import import RunOptions, start_import, stop_import, withdraw_import
from oblatus.usecases.saved_mappings import forget_mapping, saved_mappings
from oblatus.web.answers import Answer, answer, nothing
from oblatus.web.auth import actor, database, entered, reader
from oblatus.web.errors import fault_list
from oblatus.web.routes import Routes
from oblatus.web.schemas import (
    FittingPath,
)
from oblatus.web.schemas_imports import (
    FieldOut,
    FileColumnOut,
    ImportCounts,
    ImportOut,
    ImportPath,
    ImportQuery,
    ImportsOut,
    LookIn,
    LookOut,
    MappingPath,
    MappingsQuery,
    RunIn,
    SavedMappingOut,
    SavedMappingsOut,
    WrongOut,
)

SHOWN_WRONG = 60
SAMPLES = 4

blueprint = Routes("imports", __name__, "/api")


@blueprint.post("/fittings/<uuid:fitting_id>/imports", responses={200: ImportOut})
def post_import(path: FittingPath, query: ImportQuery) -> Answer:
    """Send a file, as the body."""
    row = begin_import(database(), actor(), path.fitting_id, query.name, request.get_data(cache=False))
    return answer(_import(row))


@blueprint.get("/fittings/<uuid:fitting_id>/imports", responses={200: ImportsOut})
def get_imports(path: FittingPath) -> Answer:
    """What was imported."""
    rows = imports_of(database(), actor(), path.fitting_id)
    return answer(ImportsOut(imports=[_import(row, with_wrong=False) for row in rows]))


@blueprint.get("/fittings/<uuid:fitting_id>/imports/<uuid:import_id>", responses={200: ImportOut})
def get_import(path: ImportPath) -> Answer:
    """How an import goes."""
    return answer(_import(import_run(database(), actor(), path.fitting_id, path.import_id)))


@blueprint.post("/fittings/<uuid:fitting_id>/imports/<uuid:import_id>/look", responses={200: LookOut})
def post_look(path: ImportPath, body: LookIn) -> Answer:
    """The file through a mapping."""
    found = look_at_import(
        database(), actor(), path.fitting_id, path.import_id, body.layout, body.mapping, entered().fitter.distance_unit
    )
    return answer(_look(found))


@blueprint.post("/fittings/<uuid:fitting_id>/imports/<uuid:import_id>/run", responses={200: ImportOut})
def post_run(path: ImportPath, body: RunIn) -> Answer:
    """Check the whole file, or take it; the answer comes at once, the import says how far it is."""
    options = RunOptions(body.take, body.leave_out_wrong, body.other_strikes, body.keep_as)
    return answer(_import(start_import(database(), actor(), path.fitting_id, path.import_id, body.mapping, options)))


@blueprint.post("/fittings/<uuid:fitting_id>/imports/<uuid:import_id>/stop", responses={204: None})
def post_stop(path: ImportPath) -> Answer:
    """Stop a run; nothing of it is taken."""
    stop_import(database(), actor(), path.fitting_id, path.import_id)
    return nothing()


@blueprint.post("/fittings/<uuid:fitting_id>/imports/<uuid:import_id>/withdraw", responses={200: ImportOut})
def post_withdraw(path: ImportPath) -> Answer:
    """Take a whole import back."""
    withdraw_import(database(), actor(), path.fitting_id, path.import_id)
    return answer(_import(import_run(database(), actor(), path.fitting_id, path.import_id)))


@blueprint.get("/fittings/<uuid:fitting_id>/imports/<uuid:import_id>/wrong.csv", responses={200: None})
def get_wrong(path: ImportPath) -> Response:
    """Every wrong cell as CSV: row, column, value, reason."""
    row = import_run(database(), actor(), path.fitting_id, path.import_id)
    text = wrong_csv([Wrong(*item) for item in row.wrong or []], reader())
    response: Response = current_app.response_class("\ufeff" + text, mimetype="text/csv")
    response.headers["Content-Disposition"] = f'attachment; filename="wrong-rows-{path.import_id}.csv"'
    return response


@blueprint.get("/mappings", responses={200: SavedMappingsOut})
def get_mappings(query: MappingsQuery) -> Answer:
    """The studio's saved mappings of a kind, and those that were forgotten."""
    saved, forgotten = (
        [SavedMappingOut(id=row.id, name=row.name, kept_at=row.kept_at) for row in rows]
        for rows in saved_mappings(database(), actor(), query.kind)
    )
    return answer(SavedMappingsOut(mappings=saved, forgotten=forgotten))


@blueprint.delete("/mappings/<uuid:mapping_id>", responses={204: None})
def delete_mapping(path: MappingPath) -> Answer:
    """Forget a saved mapping."""
    forget_mapping(database(), actor(), path.mapping_id)
    return nothing()


@blueprint.post("/mappings/<uuid:mapping_id>/back", responses={204: None})
def post_mapping_back(path: MappingPath) -> Answer:
    """Put a saved mapping back that was forgotten."""
    forget_mapping(database(), actor(), path.mapping_id, forgotten=False)
    return nothing()


def _import(row: ImportRow, *, with_wrong: bool = True) -> ImportOut:
    gone = broken_off(row)
    wrong = [_wrong(Wrong(*item)) for item in (row.wrong or [])[:SHOWN_WRONG]] if with_wrong else []
    return ImportOut(
        id=row.id,
        name=row.name,
        state="stopped" if gone else row.state,  # type: ignore[arg-type]
        words="The server was ended on the way: nothing was taken." if gone else row.words,
        stage=row.stage,
        done=row.done,
        total=row.total,
        counts=ImportCounts.model_validate(row.counts) if row.counts is not None else None,
        wrong=wrong,
        created_at=row.created_at,
        taken_by=row.taken_by,
    )


def _look(found: Look) -> LookOut:
    shaped = found.shaped
    return LookOut(
        layout=layout_out(found.table, shaped),
        rows=len(shaped.rows),
        columns=[
            FileColumnOut(column=i + 1, name=name, samples=_samples(found, i)) for i, name in enumerate(shaped.names)
        ],
        fields=[FieldOut(field=name, label=field.label, units=list(field.units or ())) for name, field in FIELDS.items()],
        mapping=found.mapping,
        guess=found.guess,
        saved_as=found.saved_as,
        club_words=found.club_words,
        swing_words=found.swing_words,
        strikes=found.strikes,
        wrong=[_wrong(item) for item in found.wrong],
        faults=fault_list(found.fault.faults) if found.fault is not None else [],
        question=found.question,
    )


def _samples(found: Look, column: int) -> list[str]:
    cells = (row[column] for row in found.shaped.rows[:200] if column < len(row))
    shown = [f"{cell:.10g}" if isinstance(cell, float) else str(cell)[:40] for cell in cells if cell not in (None, "")]
    return [text.replace(NO_RESULT, "formula") for text in shown[:SAMPLES]]


def _wrong(item: Wrong) -> WrongOut:
    return WrongOut(row=item.row, column=item.column, value=item.value, reason=item.reason)
