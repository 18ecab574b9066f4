"""The only queries there are, with those of the modules beside this one. Each sees one studio and nothing else."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from typing import Any, NamedTuple, TypeVar
from uuid import UUID, uuid4

from sqlalchemy import func
from sqlalchemy import select as sa_select
from sqlalchemy.dialects.postgresql import insert
from sqlmodel import Session, col, delete, select

from oblatus.core.clubs import Head
from oblatus.core.figures import figures
from oblatus.errors import ConflictError, NotFoundError
from oblatus.store.tables import (
    EditRow,
    Fitter,
    FittingRow,
    LinkRow,
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
        there = col(FittingRow.removed_at).is_not(None) if binned else col(FittingRow.removed_at).is_(None)
        query = select(FittingRow).where(FittingRow.studio_id == self.studio_id, FittingRow.id == fitting_id, there)
        if lock:
            query = query.with_for_update()
        return found(self.session.exec(query).first(), "fitting")

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

    def kept(self, fitting_id: UUID, most: int | None = None) -> Sequence[KeptRow]:
        """Kept proposals of a fitting without their documents, newest first."""
        table = SnapshotRow.__table__  # type: ignore[attr-defined]
        strikes = func.coalesce(table.c.result["strikes"].as_integer(), 0)
        key = table.c.result["strikes_key"].as_string()
        query = (
            sa_select(*(table.c[name] for name in KeptRow._fields[:-2]), strikes, key)
            .where(table.c.studio_id == self.studio_id, table.c.fitting_id == fitting_id, table.c.removed_at.is_(None))
            .order_by(table.c.created_at.desc())
            .limit(most)
        )
        return [KeptRow(*row) for row in self.session.execute(query).all()]

    def last_kept(self) -> dict[UUID, tuple[datetime, list[str]]]:
        """When a proposal was kept last, and its clubs, by fitting; fittings without one are left out."""
        table = SnapshotRow.__table__  # type: ignore[attr-defined]
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

    def snapshot(self, fitting_id: UUID, snapshot_id: UUID) -> SnapshotRow:
        """One kept proposal, also one that was taken out."""
        query = select(SnapshotRow).where(
            SnapshotRow.studio_id == self.studio_id,
            SnapshotRow.fitting_id == fitting_id,
            SnapshotRow.id == snapshot_id,
        )
        return found(self.session.exec(query).first(), "kept proposal")

    def rack(self) -> list[Json]:
        """The rack in its order, one object a head."""
        table = RackRow.__table__  # type: ignore[attr-defined]
        columns = [column for column in table.columns if column.name not in {"id", "studio_id", "position"}]
        query = sa_select(*columns).where(table.c.studio_id == self.studio_id).order_by(table.c.position)
        found = []
        for row in self.session.execute(query).mappings():
            head = dict(row)
            found.append({**head.pop("figures"), **head})
        return found

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
        table = StrikeRow.__table__  # type: ignore[attr-defined]
        columns = [table.c[name] for name in STRIKE_COLUMNS]
        query = (
            sa_select(*columns)
            .where(table.c.studio_id == self.studio_id, table.c.fitting_id == fitting_id, table.c.removed_at.is_(None))
            .order_by(table.c.place)
        )
        return [dict(row) for row in self.session.execute(query).mappings()]

    def strikes_taken_out(self, fitting_id: UUID, most: int) -> list[Json]:
        """Strikes that were taken out, the last one first."""
        table = StrikeRow.__table__  # type: ignore[attr-defined]
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
        table = StrikeRow.__table__  # type: ignore[attr-defined]
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
        table = StrikeRow.__table__  # type: ignore[attr-defined]
        added = 0
        for at in range(0, len(strikes), ADDED_AT_ONCE):
            part = strikes[at : at + ADDED_AT_ONCE]
            rows = [{**s, "studio_id": self.studio_id, "fitting_id": fitting_id, "taken_at": now()} for s in part]
            new = insert(table).values(rows).on_conflict_do_nothing(index_elements=["fitting_id", "id"])
            added += len(self.session.execute(new.returning(table.c.id)).all())
        return added

    def strike(self, fitting_id: UUID, strike_id: UUID) -> StrikeRow:
        """One strike, also one that was taken out."""
        query = select(StrikeRow).where(
            StrikeRow.studio_id == self.studio_id, StrikeRow.fitting_id == fitting_id, StrikeRow.id == strike_id
        )
        return found(self.session.exec(query).first(), "strike")

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
    for table in (FittingRow, SnapshotRow, StrikeRow, ProofRow, ProofBallRow):
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
