"""Start a fitting: for a new player, or from a document."""

from __future__ import annotations

import base64
from collections.abc import Mapping, Sequence
from typing import Any, NamedTuple
from uuid import UUID, uuid4

from pydantic import ValidationError
from sqlmodel import Session

from oblatus.errors import InputError, fault
from oblatus.formats.build import SignedBuildDocument
from oblatus.formats.earlier import kept_result
from oblatus.formats.fields import faults_of
from oblatus.formats.fitting import SECTIONS, FittingDocument
from oblatus.formats.merge import changed_paths
from oblatus.formats.page import HandoverDocument
from oblatus.formats.photos import reencode_photo
from oblatus.formats.proof import ProofDocument
from oblatus.formats.sections.bag import OwnedWedgeDocument
from oblatus.formats.sections.beside import AttachedDocument, KeptDocument, PhotoDocument
from oblatus.formats.sections.choices import ChoicesDocument, EconomyDocument
from oblatus.formats.sections.grounds import GroundDocument
from oblatus.formats.sections.player import PlayerDocument
from oblatus.settings import Settings
from oblatus.store.database import Database
from oblatus.store.grounds_and_bags import StudioReadings
from oblatus.store.handovers import StudioHandovers
from oblatus.store.proofs import StudioProofs
from oblatus.store.repositories import Stands, StudioRows
from oblatus.store.rounds import StudioRounds
from oblatus.store.tables import BuildOrderRow, FittingRow, PhotoRow, ProofRow, SnapshotRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.course_log import add_shots
from oblatus.usecases.hand_over import add_handovers
from oblatus.usecases.open_fitting import open_at_once
from oblatus.usecases.rack_of import rack_of
from oblatus.usecases.view import Asked, FittingView, view_of


class Reencoded(NamedTuple):
    """A photo under an id of its own, as it is kept."""

    id: UUID
    content: bytes
    width: int
    height: int


def start_fitting(
    database: Database, actor: Actor, player: PlayerDocument, fitting_id: UUID | None = None
) -> FittingView:
    """A new fitting with usual values, all marked as assumed; sent again under its id it is the same fitting.

    It is answered at once: its proposal is to come.
    """
    home = GroundDocument(name="home", share=1.0)
    with database.transaction() as session:
        claims = StudioRows(session, actor.studio_id).studio().claims_sd
    choices = ChoicesDocument(economy=EconomyDocument(claims_sd=claims))
    return import_fitting(database, actor, FittingDocument(player=player, grounds=(home,), choices=choices), fitting_id)


def import_fitting(
    database: Database, actor: Actor, document: FittingDocument, fitting_id: UUID | None = None
) -> FittingView:
    """A new fitting from a document with everything that is attached to it; a rack that it brings stays with it.

    Sent again under its id it is the same fitting. It is answered at once: its proposal is to come.

    Raises
    ------
    InputError
        If something attached is wrong; nothing is made then.
    NotFoundError
        If the fitting of this id lies in the bin.
    """
    new_id = fitting_id or uuid4()
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        made = rows.is_made(new_id)
        if not made:
            added = add_whole(session, actor.studio_id, document, actor.name, None, new_id)
            rack = rack_of(rows)
            session.flush()
            lines = rows.kept(new_id, 1)
    if made:
        return open_at_once(database, actor, new_id)
    stands = Stands(added.proof_balls, logged=added.logged)
    return view_of(added.row, rack, lines, document.strikes, stands, asked=Asked.AT_ONCE)


class Added(NamedTuple):
    """A fitting that was made from a document, and how many balls of proofs and shots of a log came with it."""

    row: FittingRow
    proof_balls: int
    logged: int


def add_whole(
    session: Session,
    studio_id: UUID,
    document: FittingDocument,
    made_by: str,
    settings: Settings | None,
    fitting_id: UUID | None = None,
) -> Added:
    """A new fitting from a document with everything that is attached to it; with `settings` its players' pages are open.

    Raises
    ------
    InputError
        If something attached is wrong.
    """
    attached = document.attached or AttachedDocument()
    photos = {photo.id: _photo(i, photo) for i, photo in enumerate(attached.photos)}
    proofs = [_checked_proof(i, one) for i, one in enumerate(attached.proofs)]
    builds = [_checked_build(i, one) for i, one in enumerate(attached.builds)]
    document, builds = _with_builds(document, builds)
    document = _with_proofs(
        document, {str(old.get("id")): new.id for old, new in zip(attached.proofs, proofs, strict=True)}
    )
    kept = [_checked_kept(i, one) for i, one in enumerate(attached.kept)]
    handovers = [_checked_handover(i, one) for i, one in enumerate(attached.handovers)]
    rows, readings = StudioRows(session, studio_id), StudioReadings(session, studio_id)
    row = add_document(rows, _with_photos(document, {old: new.id for old, new in photos.items()}), fitting_id)
    for photo in photos.values():
        session.add(PhotoRow(studio_id=studio_id, fitting_id=row.id, **photo._asdict()))
    if attached.begun_at is not None:
        row.created_at = attached.begun_at
    if kept:
        row.revision = _revision_beside(document, attached.kept)
    session.add(row)
    for snapshot in kept:
        snapshot.studio_id, snapshot.fitting_id = studio_id, row.id
        session.add(snapshot)
    add_proofs(StudioProofs(session, studio_id), row.id, proofs, made_by)
    for build in builds:
        values = {**build.model_dump(exclude={"id", "sheet", "ticks", "heads"}), "state": "built", "parts": []}
        dumped = build.model_dump(mode="json", include={"sheet", "ticks", "heads"})
        session.add(BuildOrderRow(id=build.id, studio_id=studio_id, fitting_id=row.id, **values, **dumped))
    for reading in attached.readings:
        readings.add_reading(row.id, reading.model_dump())
    add_handovers(StudioHandovers(session, studio_id), row.id, handovers, settings)
    logged = add_shots(StudioRounds(session, studio_id), row.id, attached.log, "file")
    return Added(row, sum(len(one.balls) for one in proofs), logged)


def add_document(rows: StudioRows, document: FittingDocument, fitting_id: UUID | None = None) -> FittingRow:
    """A new row for a document, and its strikes as rows of their own."""
    kept = document.model_copy(update={"strikes": (), "attached": None}).model_dump(mode="json")
    row = rows.add_fitting(document.player.name, kept, fitting_id)
    rows.add_strikes(row.id, [strike.model_dump() for strike in document.strikes])
    return row


def _photo(i: int, photo: PhotoDocument) -> Reencoded:
    """A photo of a file, re-encoded like any other."""
    try:
        content = base64.b64decode(photo.jpeg, validate=True)
        jpeg, width, height = reencode_photo(content)
    except (ValueError, InputError) as error:
        raise fault(f"attached.photos.{i}.jpeg", "is no picture that can be read") from error
    return Reencoded(uuid4(), jpeg, width, height)


def _checked_kept(i: int, kept: KeptDocument) -> SnapshotRow:
    """A kept proposal of a file, its inputs and result looked at like any other's."""
    for name, look in (("document", FittingDocument.model_validate), ("result", kept_result)):
        try:
            look(getattr(kept, name))
        except ValidationError as error:
            raise faults_of(error, ["attached", "kept", str(i), name]) from error
    return SnapshotRow(**kept.model_dump(exclude={"clubs"}), clubs=list(kept.clubs))


def _checked_proof(i: int, proof: dict[str, Any]) -> ProofDocument:
    """A proof of a file; it gets an id of its own, so that the same file can be read twice."""
    try:
        return ProofDocument.model_validate({**proof, "id": str(uuid4())})
    except ValidationError as error:
        raise faults_of(error, ["attached", "proofs", str(i)]) from error


def _checked_build(i: int, build: dict[str, Any]) -> SignedBuildDocument:
    """A signed build of a file."""
    try:
        return SignedBuildDocument.model_validate(build)
    except ValidationError as error:
        raise faults_of(error, ["attached", "builds", str(i)]) from error


def _revision_beside(document: FittingDocument, kept: Sequence[KeptDocument]) -> int:
    """The revision of a fitting beside its kept proposals: so many later than the last as fields differ from it."""
    last = max(kept, key=lambda one: one.created_at)
    sections = set(SECTIONS)
    before = FittingDocument.model_validate(last.document).model_dump(mode="json", include=sections)
    changed = list(changed_paths(before, document.model_dump(mode="json", include=sections)))
    return max(one.revision for one in kept) + len(changed) if changed else last.revision


def _checked_handover(i: int, handover: dict[str, Any]) -> HandoverDocument:
    """A hand-over of a file."""
    try:
        return HandoverDocument.model_validate(handover)
    except ValidationError as error:
        raise faults_of(error, ["attached", "handovers", str(i)]) from error


def _with_builds(
    document: FittingDocument, builds: Sequence[SignedBuildDocument]
) -> tuple[FittingDocument, list[SignedBuildDocument]]:
    """Builds under ids of their own, so that the same file can be read twice, and the bag that names them by those."""
    ids = {build.id: uuid4() for build in builds}

    def wedge(one: OwnedWedgeDocument) -> OwnedWedgeDocument:
        if one.built is None:
            return one
        built = one.built.model_copy(update={"order_id": ids.get(one.built.order_id, one.built.order_id)})
        return one.model_copy(update={"built": built})

    former = tuple(
        one.model_copy(
            update={"wedge": wedge(one.wedge), "order_id": one.order_id and ids.get(one.order_id, one.order_id)}
        )
        for one in document.bag.former
    )
    bag = document.bag.model_copy(update={"wedges": tuple(wedge(one) for one in document.bag.wedges), "former": former})
    named = [build.model_copy(update={"id": ids[build.id]}) for build in builds]
    return document.model_copy(update={"bag": bag}), named


def _with_proofs(document: FittingDocument, ids: Mapping[str, UUID]) -> FittingDocument:
    """The document whose evidence names its proofs by the ids that they have here."""
    evidence = tuple(
        one.model_copy(update={"source_id": ids.get(str(one.source_id), one.source_id)}) for one in document.evidence
    )
    return document.model_copy(update={"evidence": evidence})


def add_proofs(rows: StudioProofs, fitting_id: UUID, proofs: Sequence[ProofDocument], made_by: str) -> None:
    """Rows for proofs that came with a file, with their balls."""
    for proof in reversed(proofs):
        bare = proof.model_copy(update={"balls": (), "feel": ()}).model_dump(mode="json")
        feel = {str(one.block): one.value for one in proof.feel}
        rows.add_proof(
            ProofRow(
                id=proof.id, studio_id=rows.studio_id, fitting_id=fitting_id, document=bare, feel=feel, made_by=made_by
            )
        )
        rows.add_balls(
            proof.id, [(b.id, b.set_aside, b.model_dump(mode="json", exclude={"id", "set_aside"})) for b in proof.balls]
        )  # fmt: skip


def _with_photos(document: FittingDocument, ids: dict[UUID, UUID]) -> FittingDocument:
    """The document with the photos that came with it under their new ids; those that did not come are not shown."""
    wedges = tuple(
        wedge.model_copy(update={"photos": tuple(ids[photo] for photo in wedge.photos if photo in ids)})
        for wedge in document.bag.wedges
    )
    return document.model_copy(update={"bag": document.bag.model_copy(update={"wedges": wedges})})
