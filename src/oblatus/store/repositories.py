"""The only queries there are, with those of the modules beside this one. Each sees one studio and nothing else."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from typing import Any, NamedTuple, TypeVar
from uuid import UUID, uuid4

from sqlalchemy import Integer, Text, Uuid, and_, bindparam, cast, func, literal_column
from sqlalchemy import select as sa_select
from sqlalchemy.dialects.postgresql import aggregate_order_by, insert
from sqlmodel import Session, SQLModel, col, delete, select

from oblatus.core.clubs import Head
from oblatus.core.figures import figures
from oblatus.core.gapping.strikes import STRIKE_FIGURES
from oblatus.errors import ConflictError, NotFoundError
from oblatus.store.tables import (
    BuildOrderRow,
    EditRow,
    Fitter,
    FittingRow,
    HandoverRow,
    LinkRow,
    LogShotRow,
    MappingRow,
    ProofBallRow,
    ProofRow,
    RackRow,
    SnapshotRow,
    StrikeRow,
    Studio,
    now,
)

ADDED_AT_ONCE = 2000
"""A statement carries at most 65,535 values."""

Row = TypeVar("Row")
Json = dict[str, Any]

STRIKE_COLUMNS = (
    "id", "club", "loft_deg", "swing", "carry_m", "club_speed_mps", "ball_speed_mps", "launch_deg", "spin_rpm",
    "apex_m", "landing_deg", "attack_deg", "lean_deg", "entry_mm", "dynamic_loft_deg", "impact_height_mm", "exit_mm",
    "mark_back_mm", "mark_toe_mm", "divot",
    "note", "set_aside", "origin", "simulated",
)  # fmt: skip


class KeptRow(NamedTuple):
    """A kept proposal in a list."""

    id: UUID
    label: str
    revision: int
    created_at: datetime
    engine_version: str
    kept_by: str
    clubs: list[str]
    strikes: int
    strikes_key: str | None


class StrikeColumns(NamedTuple):
    """Strikes of a fitting in the order in which they came, by columns: a hundred thousand rows take seconds to be read
    one by one. Ids and swings have a line each, one letter says whether a strike is set aside ("1") or not; figures by
    their keys are doubles, the high byte first, not-a-number where nothing was measured."""

    total: int
    simulated: int
    ids: str
    swings: str
    aside: str
    clubs: list[str]
    figures: dict[str, bytes]


class Stands(NamedTuple):
    """Balls hit in a fitting's proofs, whether its player holds a page, and shots logged; without what was taken out."""

    proof_balls: int = 0
    handed_over: bool = False
    logged: int = 0


NOTHING = Stands()


class OfStudio:
    """Queries that see one studio and nothing else.

    Raises
    ------
    NotFoundError
        From every look-up by id that finds nothing in this studio, whether or not it exists elsewhere.
    """

    def __init__(self, session: Session, studio_id: UUID) -> None:
        self.session = session
        self.studio_id = studio_id


class StudioRows(OfStudio):
    """Fittings, rack, strikes, devices and kept proposals of one studio."""

    def studio(self, *, lock: bool = False) -> Studio:
        """The studio itself; `lock` holds it until the transaction ends."""
        query = select(Studio).where(Studio.id == self.studio_id)
        return self.session.exec(query.with_for_update() if lock else query).one()

    def fitters(self) -> Sequence[Fitter]:
        """Every fitter of the studio, by name."""
        return self.session.exec(select(Fitter).where(Fitter.studio_id == self.studio_id).order_by(Fitter.name)).all()

    def fitter(self, fitter_id: UUID) -> Fitter:
        """One fitter of the studio."""
        query = select(Fitter).where(Fitter.studio_id == self.studio_id, Fitter.id == fitter_id)
        return found(self.session.exec(query).first(), "fitter")

    def fittings(self) -> Sequence[FittingRow]:
        """Every fitting that is not in the bin, last changed first."""
        query = (
            select(FittingRow)
            .where(FittingRow.studio_id == self.studio_id, col(FittingRow.removed_at).is_(None))
            .order_by(col(FittingRow.updated_at).desc())
        )
        return self.session.exec(query).all()

    def binned(self) -> Sequence[FittingRow]:
        """Fittings in the bin, last removed first."""
        query = (
            select(FittingRow)
            .where(FittingRow.studio_id == self.studio_id, col(FittingRow.removed_at).is_not(None))
            .order_by(col(FittingRow.removed_at).desc())
        )
        return self.session.exec(query).all()

    def fitting(self, fitting_id: UUID, *, lock: bool = False, binned: bool = False) -> FittingRow:
        """One fitting, or one in the bin; `lock` holds it until the transaction ends."""
        asked = {"studio": self.studio_id, "fitting": fitting_id}
        row: FittingRow | None = self.session.execute(_FITTINGS[lock, binned], asked).scalars().first()
        return found(row, "fitting")

    def add_fitting(
        self, player_name: str, document: Json, fitting_id: UUID | None = None, follows: UUID | None = None
    ) -> FittingRow:
        """A new fitting from a validated document, revision 1; `follows` the same player's fitting before it."""
        row = FittingRow(
            id=fitting_id or uuid4(),
            studio_id=self.studio_id,
            player_name=player_name,
            document=document,
            follows=follows,
        )
        self.session.add(row)
        self.session.flush()
        return row

    def change_fitting(self, row: FittingRow, player_name: str, document: Json, revision: int) -> None:
        """Put a new validated document in place of the one at `revision`.

        Raises
        ------
        ConflictError
            If the fitting has moved on since.
        """
        if row.revision != revision:
            raise ConflictError("This fitting was changed on another screen since it was loaded here.", row.revision)
        row.document = document
        row.player_name = player_name
        row.revision += 1
        row.updated_at = now()
        self.session.add(row)

    def line_of(self, fitting_id: UUID) -> list[FittingRow]:
        """The fittings of one player that follow each other, this one among them, oldest first; those in the bin not."""
        links = {row.id: row for row in self.fittings()}
        after = {row.follows: row.id for row in sorted(links.values(), key=lambda row: row.created_at) if row.follows}
        line: list[FittingRow] = []
        at = links.get(fitting_id)
        while at is not None and at not in line:
            line.insert(0, at)
            at = links.get(at.follows) if at.follows else None
        at = links.get(after.get(fitting_id, fitting_id))
        while at is not None and at not in line:
            line.append(at)
            at = links.get(after.get(at.id, at.id))
        return line

    def any_fitting(self, fitting_id: UUID) -> bool:
        """Whether the studio has a fitting, in the bin or not."""
        query = select(FittingRow.id).where(FittingRow.studio_id == self.studio_id, FittingRow.id == fitting_id)
        return self.session.exec(query).first() is not None

    def is_made(self, fitting_id: UUID) -> bool:
        """Whether a fitting that may have been sent before is there; one that is being made is waited for."""
        self.session.execute(select(func.pg_advisory_xact_lock(func.hashtext(str(fitting_id)))))
        return self.any_fitting(fitting_id)

    def edit_made(self, fitting_id: UUID, edit_id: UUID) -> bool:
        """Whether an edit with this id was committed."""
        query = select(EditRow.id).where(
            EditRow.studio_id == self.studio_id, EditRow.fitting_id == fitting_id, EditRow.id == edit_id
        )
        return self.session.exec(query).first() is not None

    def bin_fitting(self, fitting_id: UUID) -> None:
        """Put a fitting into the bin; its devices are let go."""
        row = self.fitting(fitting_id, lock=True)
        row.removed_at = now()
        self.session.add(row)
        links = select(LinkRow).where(LinkRow.studio_id == self.studio_id, LinkRow.fitting_id == fitting_id)
        for link in self.session.exec(links).all():
            link.wanted, link.state = False, "off"
            self.session.add(link)

    def restore_fitting(self, fitting_id: UUID) -> None:
        """Take a fitting out of the bin."""
        row = self.fitting(fitting_id, lock=True, binned=True)
        row.removed_at = None
        self.session.add(row)

    def remove_fitting(self, fitting_id: UUID) -> None:
        """Remove a fitting in the bin for good, with everything that belongs to it."""
        self.session.delete(self.fitting(fitting_id, lock=True, binned=True))

    def kept(self, fitting_id: UUID, most: int | None = None, *, out: bool = False) -> Sequence[KeptRow]:
        """Kept proposals of a fitting without their documents, newest first, those taken out not; with `out` only those,
        the last one first."""
        asked = {"studio": self.studio_id, "fitting": fitting_id, "most": most}
        return [KeptRow(*row) for row in self.session.execute(_KEPT[out], asked).all()]

    def last_kept(self) -> dict[UUID, tuple[datetime, list[str]]]:
        """When a proposal was kept last, and its clubs, by fitting; fittings without one are left out."""
        table = _table(SnapshotRow)
        query = (
            sa_select(table.c.fitting_id, table.c.created_at, table.c.clubs)
            .where(table.c.studio_id == self.studio_id, table.c.removed_at.is_(None))
            .order_by(table.c.created_at)
        )
        # the last of a fitting stays
        return {fitting: (kept, clubs) for fitting, kept, clubs in self.session.execute(query).all()}

    def kept_whole(self, fitting_id: UUID) -> Sequence[SnapshotRow]:
        """Kept proposals of a fitting with their documents, oldest first."""
        query = (
            select(SnapshotRow)
            .where(
                SnapshotRow.studio_id == self.studio_id,
                SnapshotRow.fitting_id == fitting_id,
                col(SnapshotRow.removed_at).is_(None),
            )
            .order_by(col(SnapshotRow.created_at))
        )
        return self.session.exec(query).all()

    def kept_before(self, fitting_id: UUID, snapshot_id: UUID) -> SnapshotRow | None:
        """What was kept under this id by a request that got no answer; None if nothing was.

        Raises NotFoundError if the id stands for something else.
        """
        return self.snapshot(fitting_id, snapshot_id) if self.session.get(SnapshotRow, snapshot_id) else None

    def snapshot(self, fitting_id: UUID, snapshot_id: UUID, *, lock: bool = False) -> SnapshotRow:
        """One kept proposal, also one that was taken out; `lock` holds it until the transaction ends."""
        query = select(SnapshotRow).where(
            SnapshotRow.studio_id == self.studio_id,
            SnapshotRow.fitting_id == fitting_id,
            SnapshotRow.id == snapshot_id,
        )
        return found(self.session.exec(query.with_for_update() if lock else query).first(), "kept proposal")

    def rack(self, fitting_id: UUID | None = None) -> tuple[str, list[str]]:
        """The rack in its order as one text, a JSON list with an object a head: whoever read an equal one knows it.

        With the codes of the heads that are taken from it for the open order of a fitting.
        """
        asked = {"studio": self.studio_id, "fitting": fitting_id}
        rack, reserved = self.session.execute(_RACK, asked).one()
        return rack, reserved or []

    def replace_rack(self, heads: Sequence[Json]) -> None:
        """Put another rack of validated heads in place of this one."""
        self.studio(lock=True)  # one rack at a time
        self.session.exec(delete(RackRow).where(col(RackRow.studio_id) == self.studio_id))
        for position, head in enumerate(heads):
            own = {key: value for key, value in head.items() if key not in figures(Head)}
            known = {key: head[key] for key in figures(Head)}
            self.session.add(RackRow(studio_id=self.studio_id, position=position, figures=known, **own))
        self.session.flush()

    def strikes(self, fitting_id: UUID) -> list[Json]:
        """Strikes of a fitting in the order in which they came, one object a strike."""
        found = self.session.execute(_STRIKES, {"studio": self.studio_id, "fitting": fitting_id})
        return [dict(row) for row in found.mappings()]

    def newest_strikes(self, fitting_id: UUID, most: int) -> list[Json]:
        """The newest strikes of a fitting, at most so many, in the order in which they came."""
        asked = {"studio": self.studio_id, "fitting": fitting_id, "most": most}
        return [dict(row) for row in self.session.execute(_NEWEST_STRIKES, asked).mappings()][::-1]

    def strike_columns(self, fitting_id: UUID) -> StrikeColumns:
        """All strikes of a fitting, by columns."""
        asked = {"studio": self.studio_id, "fitting": fitting_id}
        total, simulated, ids, swings, aside, clubs, *told = self.session.execute(_STRIKE_COLUMNS, asked).one()
        known = {key: bytes(one or b"") for key, one in zip(STRIKE_FIGURES, told, strict=True)}
        return StrikeColumns(total, simulated, ids or "", swings or "", aside or "", clubs or [], known)

    def stands(self, fitting_id: UUID) -> Stands:
        """What a fitting's steps stand at by what lies outside its document."""
        asked = {"studio": self.studio_id, "fitting": fitting_id}
        return Stands(*self.session.execute(_STANDS, asked).one())

    def strikes_taken_out(self, fitting_id: UUID, most: int) -> list[Json]:
        """Strikes that were taken out, the last one first."""
        table = _table(StrikeRow)
        columns = [table.c[name] for name in STRIKE_COLUMNS]
        query = (
            sa_select(*columns)
            .where(table.c.studio_id == self.studio_id, table.c.fitting_id == fitting_id, table.c.removed_at.is_not(None))
            .order_by(table.c.removed_at.desc())
            .limit(most)
        )
        return [dict(row) for row in self.session.execute(query).mappings()]

    def device_strikes(self, fitting_id: UUID) -> list[Json]:
        """Strikes that came from a device, in their order, with the moment at which each was taken."""
        table = _table(StrikeRow)
        columns = [table.c[name] for name in (*STRIKE_COLUMNS, "taken_at")]
        query = (
            sa_select(*columns)
            .where(
                table.c.studio_id == self.studio_id,
                table.c.fitting_id == fitting_id,
                table.c.origin == "device",
                table.c.removed_at.is_(None),
            )
            .order_by(table.c.place)
        )
        return [dict(row) for row in self.session.execute(query).mappings()]

    def strike_count(self, fitting_id: UUID) -> int:
        """How many strikes a fitting has, those taken out not counted."""
        query = select(func.count()).where(
            StrikeRow.studio_id == self.studio_id,
            StrikeRow.fitting_id == fitting_id,
            col(StrikeRow.removed_at).is_(None),
        )
        return self.session.exec(query).one()

    def add_strikes(self, fitting_id: UUID, strikes: Sequence[Json]) -> int:
        """Add validated strikes; those whose id stands there already are left as they are. Returns how many were new."""
        table = _table(StrikeRow)
        added = 0
        for at in range(0, len(strikes), ADDED_AT_ONCE):
            part = strikes[at : at + ADDED_AT_ONCE]
            rows = [{**s, "studio_id": self.studio_id, "fitting_id": fitting_id, "taken_at": now()} for s in part]
            new = insert(table).values(rows).on_conflict_do_nothing(index_elements=["fitting_id", "id"])
            added += len(self.session.execute(new.returning(table.c.id)).all())
        return added

    def strike(self, fitting_id: UUID, strike_id: UUID, *, lock: bool = False) -> StrikeRow:
        """One strike, also one that was taken out; `lock` holds it until the transaction ends."""
        query = select(StrikeRow).where(
            StrikeRow.studio_id == self.studio_id, StrikeRow.fitting_id == fitting_id, StrikeRow.id == strike_id
        )
        return found(self.session.exec(query.with_for_update() if lock else query).first(), "strike")

    def link(self, fitting_id: UUID, kind: str = "monitor") -> LinkRow | None:
        """One of the fitting's devices, if it ever had it."""
        query = select(LinkRow).where(
            LinkRow.studio_id == self.studio_id, LinkRow.fitting_id == fitting_id, LinkRow.kind == kind
        )
        return self.session.exec(query).first()


def wanted_links(session: Session) -> Sequence[LinkRow]:
    """Every device that some fitter wants, in whichever studio: the bridge serves them all."""
    return session.exec(select(LinkRow).where(LinkRow.wanted)).all()


def bins_before(session: Session, moment: datetime) -> int:
    """Remove for good what was taken out before a moment, in every studio. Returns how many rows went."""
    gone = 0
    for table in (FittingRow, SnapshotRow, StrikeRow, ProofRow, ProofBallRow, MappingRow):
        gone += session.exec(delete(table).where(col(table.removed_at) < moment)).rowcount
    session.exec(delete(EditRow).where(col(EditRow.made_at) < moment))
    return gone


def fitter_by_email(session: Session, email: str) -> Fitter | None:
    """The fitter with this address, in whichever studio: the one question asked before a studio is known."""
    return session.exec(select(Fitter).where(Fitter.email == email.strip().lower())).first()


def studios(session: Session) -> Sequence[Studio]:
    """Every studio, by name."""
    return session.exec(select(Studio).order_by(Studio.name)).all()


def any_studio(session: Session) -> bool:
    """Whether anything was set up yet."""
    return session.exec(select(Studio).limit(1)).first() is not None


def found(row: Row | None, what: str) -> Row:
    """The row, or the error that there is no such thing in this studio."""
    if row is None:
        raise NotFoundError(f"There is no such {what} in this studio.")
    return row


# The statements of every edit are made once: SQLAlchemy takes longer to make one than PostgreSQL to answer it.
YES_NO = (False, True)
_STUDIO, _FITTING = bindparam("studio", type_=Uuid), bindparam("fitting", type_=Uuid)


def _of(table: Any, *more: Any) -> Any:
    """Of the studio and the fitting that are asked for."""
    return and_(table.c.studio_id == _STUDIO, table.c.fitting_id == _FITTING, *more)


def _fitting_statement(*, lock: bool, binned: bool) -> Any:
    rows = _table(FittingRow)
    there = rows.c.removed_at.is_not(None) if binned else rows.c.removed_at.is_(None)
    query = select(FittingRow).where(rows.c.studio_id == _STUDIO, rows.c.id == _FITTING, there)
    return query.with_for_update() if lock else query


def _rack_statement() -> Any:
    heads, orders = _table(RackRow), _table(BuildOrderRow)
    own = [c for c in heads.columns if c.name not in {"id", "studio_id", "position", "figures"}]
    pairs = [part for column in own for part in _named(column)]
    head = heads.c.figures.op("||")(func.jsonb_build_object(*pairs))
    rack = sa_select(func.jsonb_agg(aggregate_order_by(head, heads.c.position)))
    mine = rack.where(heads.c.studio_id == _STUDIO).scalar_subquery()
    reserved = sa_select(orders.c.heads).where(_of(orders, orders.c.state == "open")).scalar_subquery()
    return sa_select(func.coalesce(cast(mine, Text), "[]"), reserved)


def _named(column: Any) -> tuple[Any, Any]:
    return literal_column(f"'{column.name}'"), column


def _kept_statement(*, out: bool) -> Any:
    kept = _table(SnapshotRow)
    strikes = func.coalesce(kept.c.result["strikes"].as_integer(), 0)
    key = kept.c.result["strikes_key"].as_string()
    shown = (kept.c[name] for name in KeptRow._fields[:-2])
    there = kept.c.removed_at.is_not(None) if out else kept.c.removed_at.is_(None)
    query = sa_select(*shown, strikes, key).where(_of(kept, there))
    return query.order_by((kept.c.removed_at if out else kept.c.created_at).desc()).limit(
        bindparam("most", type_=Integer)
    )


def _strikes_statement(*, newest: bool = False) -> Any:
    """The strikes of a fitting that were not taken out, in their order; or the newest of them, the last one first."""
    strikes = _table(StrikeRow)
    query = sa_select(*(strikes.c[name] for name in STRIKE_COLUMNS)).where(_of(strikes, strikes.c.removed_at.is_(None)))
    if newest:
        return query.order_by(strikes.c.place.desc()).limit(bindparam("most", type_=Integer))
    return query.order_by(strikes.c.place)


def _strike_columns_statement() -> Any:
    """Aggregates take the rows of a sorted subquery in its order: each that sorted them by itself would do it anew."""
    rows = _strikes_statement().subquery()
    lines = (func.string_agg(cast(rows.c[name], Text), literal_column("E'\\n'")) for name in ("id", "swing"))
    aside = func.string_agg(cast(cast(rows.c.set_aside.is_not(None), Integer), Text), "")
    nothing: Any = literal_column("''::bytea")
    unknown: Any = literal_column("'NaN'::float8")
    figures = (func.string_agg(func.float8send(func.coalesce(rows.c[key], unknown)), nothing) for key in STRIKE_FIGURES)
    clubs = func.json_agg(rows.c.club)  # a club's code is any text
    return sa_select(func.count(), func.count().filter(rows.c.simulated), *lines, aside, clubs, *figures)


def _stands_statement() -> Any:
    balls, proofs, pages, shots = (_table(row) for row in (ProofBallRow, ProofRow, HandoverRow, LogShotRow))
    hit = (
        sa_select(func.count())
        .select_from(balls.join(proofs, proofs.c.id == balls.c.proof_id))
        .where(_of(proofs, proofs.c.removed_at.is_(None), balls.c.removed_at.is_(None)))
    )
    held = sa_select(pages.c.id).where(_of(pages, pages.c.closed_at.is_(None)))
    logged = sa_select(func.count()).select_from(shots).where(_of(shots, shots.c.removed_at.is_(None)))
    return sa_select(hit.scalar_subquery(), held.exists(), logged.scalar_subquery())


def _table(row: type[SQLModel]) -> Any:
    return row.__table__  # type: ignore[attr-defined]


_FITTINGS = {(lock, binned): _fitting_statement(lock=lock, binned=binned) for lock in YES_NO for binned in YES_NO}
_RACK, _STRIKES, _STANDS = _rack_statement(), _strikes_statement(), _stands_statement()
_KEPT = {out: _kept_statement(out=out) for out in (False, True)}
_NEWEST_STRIKES, _STRIKE_COLUMNS = _strikes_statement(newest=True), _strike_columns_statement()
