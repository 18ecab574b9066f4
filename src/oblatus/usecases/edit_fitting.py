"""Edit parts of a fitting: whole sections in place of the old ones, or merged field by field with what others changed."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any
from uuid import UUID

from pydantic import ValidationError

from oblatus.errors import Fault, InputError
from oblatus.formats.bag_codes import as_told, codes_of, codes_today, recoded, with_codes
from oblatus.formats.differences import name_of
from oblatus.formats.fields import faults_of
from oblatus.formats.fitting import WITH_CODES, FittingDocument
from oblatus.formats.merge import Conflict, changed_paths, merge, put_back, same, value_at
from oblatus.formats.sections.after import decision_with
from oblatus.formats.sections.bag import BagDocument, OwnedWedgeDocument
from oblatus.formats.sections.grounds import called_before, renamed
from oblatus.store.builds import StudioBuilds
from oblatus.store.database import Database
from oblatus.store.grounds_and_bags import StudioReadings
from oblatus.store.handovers import StudioHandovers
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import EditRow, FittingRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.days import today
from oblatus.usecases.rack_of import rack_for
from oblatus.usecases.strikes_of import strikes_of
from oblatus.usecases.view import Asked, FittingView, view_of

Sections = dict[str, Any]
MOST_ROUNDS = 8
Merged = tuple[tuple[Fault, ...], tuple[Conflict, ...], Sections, FittingDocument]


@dataclass(frozen=True, slots=True)
class Edit:
    """Sections as they are to be, and as they were when the edit began (`base`, at `revision`); the id of the edit, by
    which it is known again; conflicts in which the fitter chose their own value, each with the other value they saw; and
    the edits before it that got no answer, oldest first: one that was committed is what this one began from."""

    revision: int
    sections: Sections
    base: Sections | None = None
    edit_id: UUID | None = None
    settled: Mapping[str, Any] = field(default_factory=dict)
    attempts: Sequence[tuple[UUID, Sections]] = ()
    wedges: Sequence[Sections] | None = None
    """The wedges by whose places its pins and its build sheet go; those that are saved, if it does not tell."""


@dataclass(frozen=True, slots=True)
class Edited:
    """The fitting after an edit, and what of it was not taken: fields that were refused, fields that somebody else
    changed too, and the sections as they stand on the editor's screen."""

    view: FittingView
    refused: tuple[Fault, ...] = ()
    conflicts: tuple[Conflict, ...] = ()
    draft: Sections = field(default_factory=dict)


def edit_fitting(database: Database, actor: Actor, fitting_id: UUID, edit: Edit) -> Edited:
    """Put sections (player, grounds, bag, choices, measuring, rack) in place, in one transaction.

    With a base, what others changed since is kept, a refused field holds only itself, and an edit that was committed
    already is recognised. Without one it is all or nothing.

    Raises
    ------
    InputError
        If nothing of it can be taken because of wrong fields.
    ConflictError
        Without a base: if the fitting has moved on from the revision.
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        row = rows.fitting(fitting_id, lock=True)
        refused: tuple[Fault, ...] = ()
        conflicts: tuple[Conflict, ...] = ()
        draft: Sections = {}
        document: FittingDocument | None = None
        if edit.edit_id is None or not rows.edit_made(fitting_id, edit.edit_id):
            if edit.base is None:
                document = _checked({**row.document, **edit.sections})
                document = _with_measurements(rows, row, document)
                rows.change_fitting(row, document.player.name, document.model_dump(mode="json"), edit.revision)
            else:
                refused, conflicts, draft, document = _merge_by_codes(rows, row, edit)
            if edit.edit_id is not None and not refused and not conflicts:
                made = EditRow(
                    fitting_id=fitting_id, id=edit.edit_id, studio_id=actor.studio_id, fitter=actor.name,
                    revision=row.revision,
                )  # fmt: skip
                session.add(made)
        rack, kept, strikes = rack_for(rows, fitting_id), rows.kept(fitting_id, 1), strikes_of(rows, fitting_id)
        stands = rows.stands(fitting_id)
    view = view_of(row, rack, kept, strikes, stands, document, asked=Asked.EDIT)
    return Edited(view, refused, conflicts, draft)


def _merge_by_codes(rows: StudioRows, row: FittingRow, edit: Edit) -> Merged:
    """Merge the edit into the row: pins and sheet after the bag, by the codes that their clubs go by then.

    They were chosen by the places of the wedges on a screen: the bag may have changed since, or come with them.
    """
    coded = {name: edit.sections[name] for name in WITH_CODES if name in edit.sections}
    if not coded or edit.wedges is None or ("bag" not in edit.sections and edit.wedges == row.document["bag"]["wedges"]):
        return _merge_in(rows, row, edit)
    others, revision = {name: value for name, value in edit.sections.items() if name not in coded}, row.revision
    first = _merge_in(rows, row, replace(edit, sections=others)) if others else ((), (), {}, None)
    document = first[3] or FittingDocument.model_validate(row.document)
    mine = as_told(edit.wedges, document.bag)
    seen = (edit.base or {}).get("bag")
    told = seen.get("wedges") if isinstance(seen, dict) else None
    before = as_told(told, document.bag) if isinstance(told, list) else mine
    sections, document = _by_code(rows, row, document, coded, mine)
    base, document = _by_code(rows, row, document, {name: (edit.base or {}).get(name) for name in coded}, before)
    attempts = []
    for edit_id, made in edit.attempts:
        again, document = _by_code(rows, row, document, made, mine)
        attempts.append((edit_id, again))
    base = {name: value for name, value in base.items() if value is not None}
    then = _merge_in(rows, row, replace(edit, sections=sections, base=base, attempts=attempts))
    row.revision = min(row.revision, revision + 1)  # one act, one change
    return (*first[0], *then[0]), (*first[1], *then[1]), {**first[2], **then[2]}, then[3]


def _by_code(
    rows: StudioRows, row: FittingRow, document: FittingDocument, sections: Sections, told: Sequence[OwnedWedgeDocument]
) -> tuple[Sections, FittingDocument]:
    """Sections of a screen with the codes of today; a wedge that left meanwhile is among the former ones."""
    bag, codes = codes_today(told, document.bag, codes_of(sections), today())
    if bag is not document.bag:
        document = document.model_copy(update={"bag": bag})
        rows.change_fitting(row, document.player.name, document.model_dump(mode="json"), row.revision)
    return {name: with_codes(value, codes) for name, value in sections.items()}, document


def _merge_in(rows: StudioRows, row: FittingRow, edit: Edit) -> Merged:
    """Merge the edit into the row; what stays out of it comes back, and the document as it stands then."""
    names = list(edit.sections)
    # as the screen was told it: what was kept by an earlier program lacks fields that came since
    stored = FittingDocument.model_validate(row.document).model_dump(mode="json")
    theirs = {name: stored[name] for name in names}
    base = {name: (edit.base or {}).get(name, theirs[name]) for name in names}
    for edit_id, sections in edit.attempts:
        made = rows.edit_made(row.id, edit_id)
        for name in (name for name in sections if name in base):
            base[name] = sections[name] if made else _taken(base[name], sections[name], theirs[name])
    merged = merge(base, edit.sections, theirs, edit.settled)
    value, refused, document = _largest_valid(stored, merged.value, theirs)
    refused = tuple(replace(one, name=name_of(one.field, {**stored, **merged.value})) for one in refused)
    if refused and not merged.conflicts and not any(True for _ in changed_paths(theirs, value)):
        raise InputError(refused)
    document = _with_measurements(rows, row, document)
    dumped = document.model_dump(mode="json")
    if any(True for _ in changed_paths({n: row.document.get(n) for n in names}, {n: dumped[n] for n in names})):
        rows.change_fitting(row, document.player.name, dumped, row.revision)
    draft = merged.draft if refused or merged.conflicts else {}
    return refused, tuple(merged.conflicts), draft, document


def _with_measurements(rows: StudioRows, row: FittingRow, document: FittingDocument) -> FittingDocument:
    """The document with codes that go with their wedges, where one left the bag or came back; all that was measured with
    them, and on grounds that have another name now, goes along."""
    before = FittingDocument.model_validate(row.document)
    names = renamed(before.grounds, document.grounds)
    if names:
        StudioReadings(rows.session, rows.studio_id).rename_grounds(row.id, names)
        shown = StudioHandovers(rows.session, rows.studio_id).grounds_shown(row.id)
        document = document.model_copy(update={"grounds": called_before(document.grounds, names, shown)})
    return document if before.bag.wedges == document.bag.wedges else _with_codes(rows, row, before.bag, document)


def _with_codes(rows: StudioRows, row: FittingRow, before: BagDocument, document: FittingDocument) -> FittingDocument:
    builds = StudioBuilds(rows.session, rows.studio_id)
    here = {pin.code for pin in document.choices.pinned} | {club.code for club in document.build.clubs}
    bag, codes = recoded(before, document.bag, lambda: here | builds.measured_codes(row.id), today())
    if not codes:
        return document
    builds.rename_clubs(row.id, codes, codes)
    pinned = tuple(pin.model_copy(update={"code": codes.get(pin.code, pin.code)}) for pin in document.choices.pinned)
    clubs = tuple(one.model_copy(update={"code": codes.get(one.code, one.code)}) for one in document.build.clubs)
    decisions = tuple(decision_with(one, codes) for one in document.after.decisions)
    return document.model_copy(
        update={
            "bag": bag,
            "after": document.after.model_copy(update={"decisions": decisions}),
            "choices": document.choices.model_copy(update={"pinned": pinned}),
            "build": document.build.model_copy(update={"clubs": clubs}),
        }
    )


def _taken(base: Any, sent: Any, theirs: Any) -> Any:
    """What an edit stood on, with the fields of it that were taken: one of which others were refused may have arrived."""
    for path in list(changed_paths(base, sent)):
        if same(value_at(theirs, path), value_at(sent, path)):
            base = put_back(base, sent, path)
    return base


def _largest_valid(
    document: Sections, wanted: Sections, theirs: Sections
) -> tuple[Sections, tuple[Fault, ...], FittingDocument]:
    """The wanted sections less the fields that make them wrong, what is wrong with those, and the document with them."""
    refused: dict[tuple[str, str], Fault] = {}
    held: list[str] = []
    valid = wanted
    for _ in range(MOST_ROUNDS):
        whole, faults = _tried({**document, **valid})
        if whole is not None:
            break
        refused |= {(fault.field, fault.message): fault for fault in faults}
        changed = list(changed_paths(theirs, valid))
        blamed = [path for path in changed if any(_touches(path, fault.field) for fault in faults)] or changed
        for path in blamed:
            valid = put_back(valid, theirs, path)
        held += blamed
    else:
        valid, whole, held = theirs, _checked({**document, **theirs}), []
    if len(held) > 1:  # a fault over several fields may have blamed some that are right by themselves
        for path in held:
            more = put_back(valid, wanted, path)
            better, _ = _tried({**document, **more})
            if better is not None:
                valid, whole = more, better
    return valid, tuple(refused.values()), whole


def _tried(document: Sections) -> tuple[FittingDocument | None, tuple[Fault, ...]]:
    try:
        return _checked(document), ()
    except InputError as error:
        return None, error.faults


def _touches(path: str, fault: str) -> bool:
    """Whether a change at `path` may be what the fault at another path is about."""
    return f"{path}.".startswith(f"{fault}.") or f"{fault}.".startswith(f"{path}.")


def _checked(document: Sections) -> FittingDocument:
    try:
        return FittingDocument.model_validate(document)
    except ValidationError as error:
        raise faults_of(error) from error
