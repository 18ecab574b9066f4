"""The tables. Every row carries its studio; rows are built from validated documents, never from raw input."""

from __future__ import annotations

from datetime import UTC, date, datetime
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy import (
    BigInteger,
    CheckConstraint,
    Column,
    DateTime,
    ForeignKey,
    ForeignKeyConstraint,
    Identity,
    Index,
    LargeBinary,
    UniqueConstraint,
    Uuid,
    text,
)
from sqlalchemy.dialects.postgresql import JSONB
from sqlmodel import Field, SQLModel


def now() -> datetime:
    """The present moment, with its zone."""
    return datetime.now(UTC)


def _moment() -> Any:
    return Column(DateTime(timezone=True), nullable=False)


def _moment_or_never() -> Any:
    return Column(DateTime(timezone=True), nullable=True)


def _of_a_fitting(name: str) -> ForeignKeyConstraint:
    """A row that belongs to a fitting of its own studio, and goes with it."""
    return ForeignKeyConstraint(
        ["studio_id", "fitting_id"], ["fitting.studio_id", "fitting.id"], name=name, ondelete="CASCADE"
    )


class Studio(SQLModel, table=True):
    """A fitting studio: the border that no query crosses. `prices`, `parts_stock`, `claims_sd`
    None: the usual ones."""

    __tablename__ = "studio"

    id: UUID = Field(default_factory=uuid4, primary_key=True)
    name: str = Field(max_length=120)
    rack_revision: int = Field(default=1, sa_column_kwargs={"server_default": "1"})
    prices: dict[str, float] | None = Field(default=None, sa_column=Column(JSONB(none_as_null=True)))
    parts_stock: dict[str, int] | None = Field(default=None, sa_column=Column(JSONB(none_as_null=True)))
    prices_revision: int = Field(default=1, sa_column_kwargs={"server_default": "1"})
    claims_sd: float | None = None
    created_at: datetime = Field(default_factory=now, sa_column=_moment())


class Fitter(SQLModel, table=True):
    """Someone who signs in, with their units. `demo`: the password is the published one, good on this machine only."""

    __tablename__ = "fitter"
    __table_args__ = (
        UniqueConstraint("email", name="uq_fitter_email"),
        CheckConstraint("distance_unit in ('m', 'yd')", name="ck_fitter_distance_unit"),
        CheckConstraint("speed_unit in ('mps', 'mph')", name="ck_fitter_speed_unit"),
    )

    id: UUID = Field(default_factory=uuid4, primary_key=True)
    studio_id: UUID = Field(foreign_key="studio.id", index=True)
    email: str = Field(max_length=254)
    name: str = Field(max_length=120)
    password_hash: str = Field(max_length=300)
    distance_unit: str = Field(default="m", max_length=2)
    speed_unit: str = Field(default="mps", max_length=3)
    demo: bool = Field(default=False, sa_column_kwargs={"server_default": "false"})


class SessionRow(SQLModel, table=True):
    """A sign-in of a fitter. The browser holds the key, the table only its digest; an ended row opens nothing."""

    __tablename__ = "fitter_session"
    __table_args__ = (UniqueConstraint("digest", name="uq_session_digest"),)

    id: UUID = Field(default_factory=uuid4, primary_key=True)
    digest: str = Field(max_length=64)
    studio_id: UUID = Field(foreign_key="studio.id")
    fitter_id: UUID = Field(
        sa_column=Column(Uuid, ForeignKey("fitter.id", ondelete="CASCADE"), nullable=False, index=True)
    )
    browser: str = Field(default="", max_length=120)
    address: str = Field(default="", max_length=64)
    created_at: datetime = Field(default_factory=now, sa_column=_moment())
    seen_at: datetime = Field(default_factory=now, sa_column=_moment())
    ended_at: datetime | None = Field(default=None, sa_column=_moment_or_never())


class SignInTry(SQLModel, table=True):
    """A sign-in that failed: for which account (digest), from which address, from which known browser if any."""

    __tablename__ = "sign_in_try"
    __table_args__ = (Index("ix_sign_in_try_at", "at"),)

    id: int | None = Field(default=None, sa_column=Column(BigInteger, Identity(always=True), primary_key=True))
    account: str = Field(max_length=64)
    address: str = Field(max_length=64)
    browser: str | None = Field(default=None, max_length=64)
    at: datetime = Field(default_factory=now, sa_column=_moment())


class EditRow(SQLModel, table=True):
    """An edit that was committed, by the id that the screen gave it: sent again, it is recognised."""

    __tablename__ = "edit"
    __table_args__ = (_of_a_fitting("fk_edit_fitting"),)

    fitting_id: UUID = Field(primary_key=True)
    id: UUID = Field(primary_key=True)
    studio_id: UUID
    fitter: str = Field(max_length=120)
    revision: int
    made_at: datetime = Field(default_factory=now, sa_column=_moment())


class FittingRow(SQLModel, table=True):
    """A fitting as it stands: the document, and a revision that grows with every edit. Removed, it lies in the bin.
    `follows`: the fitting of the same player before it."""

    __tablename__ = "fitting"
    __table_args__ = (
        UniqueConstraint("studio_id", "id", name="uq_fitting_studio"),
        CheckConstraint("revision >= 1", name="ck_fitting_revision"),
    )

    id: UUID = Field(default_factory=uuid4, primary_key=True)
    studio_id: UUID = Field(foreign_key="studio.id", index=True)
    player_name: str = Field(max_length=120, index=True)
    document: dict[str, Any] = Field(sa_column=Column(JSONB, nullable=False))
    revision: int = 1
    created_at: datetime = Field(default_factory=now, sa_column=_moment())
    updated_at: datetime = Field(default_factory=now, sa_column=_moment())
    removed_at: datetime | None = Field(default=None, sa_column=_moment_or_never())
    follows: UUID | None = Field(default=None, foreign_key="fitting.id", ondelete="SET NULL")


class RackRow(SQLModel, table=True):
    """A demo head of the studio's rack. `figures` are those of `core.clubs.Head`, in the document's units."""

    __tablename__ = "rack_head"
    __table_args__ = (
        UniqueConstraint("studio_id", "code", name="uq_rack_code"),
        CheckConstraint("stock >= 0", name="ck_rack_stock"),
    )

    id: UUID = Field(default_factory=uuid4, primary_key=True)
    studio_id: UUID = Field(foreign_key="studio.id", index=True)
    position: int
    code: str = Field(max_length=40)
    name: str = Field(max_length=120)
    figures: dict[str, float] = Field(sa_column=Column(JSONB, nullable=False))
    make: str = Field(max_length=8)
    bend_limit_deg: float
    stock: int
    price: float | None = None


class SnapshotRow(SQLModel, table=True):
    """A kept proposal: inputs, rack, engine version, time and result. A trigger refuses every later change but that of
    its name, and taking it out and back."""

    __tablename__ = "snapshot"
    __table_args__ = (_of_a_fitting("fk_snapshot_fitting"),)

    id: UUID = Field(default_factory=uuid4, primary_key=True)
    studio_id: UUID = Field(foreign_key="studio.id", index=True)
    fitting_id: UUID = Field(index=True)
    label: str = Field(default="", max_length=120)
    revision: int
    document: dict[str, Any] = Field(sa_column=Column(JSONB, nullable=False))
    result: dict[str, Any] = Field(sa_column=Column(JSONB, nullable=False))
    clubs: list[str] = Field(sa_column=Column(JSONB, nullable=False))
    engine_version: str = Field(max_length=20)
    kept_by: str = Field(max_length=120)
    created_at: datetime = Field(default_factory=now, sa_column=_moment())
    removed_at: datetime | None = Field(default=None, sa_column=_moment_or_never())


class StrikeRow(SQLModel, table=True):
    """One measured ball. The id comes from where it was taken: taken twice, it stands here once. Taken out, it stays
    here to be put back, and counts nowhere."""

    __tablename__ = "strike"
    __table_args__ = (
        _of_a_fitting("fk_strike_fitting"),
        CheckConstraint("carry_m > 0", name="ck_strike_carry"),
        Index("ix_strike_place", "fitting_id", "place", unique=True),
    )

    fitting_id: UUID = Field(primary_key=True)
    id: UUID = Field(primary_key=True)
    studio_id: UUID
    place: int | None = Field(default=None, sa_column=Column(BigInteger, Identity(always=True), nullable=False))
    club: str = Field(max_length=40)
    loft_deg: float
    swing: str = Field(max_length=24)
    carry_m: float | None = None
    club_speed_mps: float | None = None
    ball_speed_mps: float | None = None
    launch_deg: float | None = None
    spin_rpm: float | None = None
    apex_m: float | None = None
    landing_deg: float | None = None
    attack_deg: float | None = None
    lean_deg: float | None = None
    entry_mm: float | None = None
    dynamic_loft_deg: float | None = None
    impact_height_mm: float | None = None
    exit_mm: float | None = None
    mark_back_mm: float | None = None
    mark_toe_mm: float | None = None
    divot: str | None = Field(default=None, max_length=8)
    note: str = Field(default="", max_length=200, sa_column_kwargs={"server_default": ""})
    simulated: bool = Field(default=False, sa_column_kwargs={"server_default": "false"})
    set_aside: str | None = Field(default=None, max_length=120)
    origin: str = Field(max_length=8)
    import_id: UUID | None = None
    taken_at: datetime = Field(default_factory=now, sa_column=_moment())
    removed_at: datetime | None = Field(default=None, sa_column=_moment_or_never())


LONGEST_REFUSAL = 200
"""Characters of what was wrong with a line."""


class LinkRow(SQLModel, table=True):
    """A device of a fitting: whether it is wanted, what is hit or read next, what was before, and how it goes."""

    __tablename__ = "device_link"
    __table_args__ = (
        _of_a_fitting("fk_link_fitting"),
        CheckConstraint("state in ('off', 'connecting', 'live', 'lost')", name="ck_link_state"),
        CheckConstraint("kind in ('monitor', 'gauge', 'hammer', 'penetrometer')", name="ck_link_kind"),
    )

    fitting_id: UUID = Field(primary_key=True)
    kind: str = Field(default="monitor", primary_key=True, max_length=12, sa_column_kwargs={"server_default": "monitor"})
    studio_id: UUID
    target: str = Field(default="", max_length=120, sa_column_kwargs={"server_default": ""})
    wanted: bool = False
    club: str = Field(default="pw", max_length=40)
    swing: str = Field(default="pitch", max_length=24)
    armed: int = 0
    state: str = Field(default="off", max_length=12)
    device: str = Field(default="", max_length=40)
    simulated: bool = False
    taken: int = 0
    refused: int = 0
    last_refusal: str = Field(default="", max_length=LONGEST_REFUSAL)
    heard_at: datetime | None = Field(default=None, sa_column=_moment_or_never())
    choices: list[dict[str, Any]] = Field(
        default_factory=list, sa_column=Column(JSONB, nullable=False, server_default="[]")
    )


class ReadingRow(SQLModel, table=True):
    """A reading of an instrument: which wedge or ground it belongs to, its figures. Once, by its id from the source."""

    __tablename__ = "reading"
    __table_args__ = (
        _of_a_fitting("fk_reading_fitting"),
        CheckConstraint("kind in ('gauge', 'hammer', 'penetrometer')", name="ck_reading_kind"),
    )

    fitting_id: UUID = Field(primary_key=True)
    id: UUID = Field(primary_key=True)
    studio_id: UUID
    place: int | None = Field(default=None, sa_column=Column(BigInteger, Identity(always=True), nullable=False))
    kind: str = Field(max_length=12)
    target: str = Field(max_length=120)
    figures: dict[str, float] = Field(sa_column=Column(JSONB, nullable=False))
    simulated: bool = False
    set_aside: str | None = Field(default=None, max_length=120)
    taken_at: datetime = Field(default_factory=now, sa_column=_moment())


class VenueRow(SQLModel, table=True):
    """A ground as it was read at a venue on a day: kept by the studio for every fitting to come."""

    __tablename__ = "venue_record"
    __table_args__ = (CheckConstraint("season in ('spring', 'summer', 'autumn', 'winter')", name="ck_venue_season"),)

    id: UUID = Field(default_factory=uuid4, primary_key=True)
    studio_id: UUID = Field(foreign_key="studio.id", index=True)
    venue: str = Field(max_length=120)
    season: str = Field(max_length=6)
    read_on: date
    ground: dict[str, Any] = Field(sa_column=Column(JSONB, nullable=False))
    kept_by: str = Field(max_length=120)
    created_at: datetime = Field(default_factory=now, sa_column=_moment())


class PhotoRow(SQLModel, table=True):
    """A picture of a club, re-encoded here as JPEG with nothing in it but the picture."""

    __tablename__ = "photo"
    __table_args__ = (_of_a_fitting("fk_photo_fitting"),)

    id: UUID = Field(default_factory=uuid4, primary_key=True)
    studio_id: UUID
    fitting_id: UUID = Field(index=True)
    content: bytes = Field(sa_column=Column(LargeBinary, nullable=False))
    width: int
    height: int
    created_at: datetime = Field(default_factory=now, sa_column=_moment())


class ImportRow(SQLModel, table=True):
    """A file of strikes: its content until it is taken, how far a check or the taking is, and what came of it."""

    __tablename__ = "import_run"
    __table_args__ = (
        _of_a_fitting("fk_import_fitting"),
        CheckConstraint(
            "state in ('ready', 'running', 'checked', 'taken', 'stopped', 'failed', 'withdrawn')", name="ck_import_state"
        ),
    )

    id: UUID = Field(default_factory=uuid4, primary_key=True)
    studio_id: UUID
    fitting_id: UUID = Field(index=True)
    name: str = Field(max_length=200)
    digest: str = Field(max_length=64)
    content: bytes | None = Field(default=None, sa_column=Column(LargeBinary))
    mapping: dict[str, Any] | None = Field(default=None, sa_column=Column(JSONB(none_as_null=True)))
    state: str = Field(default="ready", max_length=12)
    words: str = Field(default="", max_length=300)
    stage: str = Field(default="", max_length=12)
    done: int = 0
    total: int = 0
    stop: bool = False
    counts: dict[str, int] | None = Field(default=None, sa_column=Column(JSONB(none_as_null=True)))
    wrong: list[Any] | None = Field(default=None, sa_column=Column(JSONB(none_as_null=True)))
    taken_by: str = Field(default="", max_length=120)
    created_at: datetime = Field(default_factory=now, sa_column=_moment())
    beat_at: datetime = Field(default_factory=now, sa_column=_moment())


class MappingRow(SQLModel, table=True):
    """A mapping of a file's columns, saved by the studio under a name: of strikes, or of shots on the course."""

    __tablename__ = "import_mapping"
    __table_args__ = (UniqueConstraint("studio_id", "kind", "name", name="uq_mapping_name"),)

    id: UUID = Field(default_factory=uuid4, primary_key=True)
    studio_id: UUID = Field(foreign_key="studio.id")
    kind: str = Field(default="strikes", max_length=8)
    name: str = Field(max_length=80)
    signature: str = Field(max_length=2000)
    document: dict[str, Any] = Field(sa_column=Column(JSONB, nullable=False))
    kept_at: datetime = Field(default_factory=now, sa_column=_moment())
    removed_at: datetime | None = Field(default=None, sa_column=_moment_or_never())


class ProofRow(SQLModel, table=True):
    """A proof: the document as it was planned, without its balls; feel and name may change, the plan does not; codes of
    clubs go with their clubs."""

    __tablename__ = "proof"
    __table_args__ = (
        _of_a_fitting("fk_proof_fitting"),
        UniqueConstraint("studio_id", "id", name="uq_proof_studio"),
    )

    id: UUID = Field(primary_key=True)
    studio_id: UUID
    fitting_id: UUID = Field(index=True)
    document: dict[str, Any] = Field(sa_column=Column(JSONB, nullable=False))
    feel: dict[str, int] = Field(default_factory=dict, sa_column=Column(JSONB, nullable=False, server_default="{}"))
    made_by: str = Field(max_length=120)
    created_at: datetime = Field(default_factory=now, sa_column=_moment())
    removed_at: datetime | None = Field(default=None, sa_column=_moment_or_never())


class ProofBallRow(SQLModel, table=True):
    """One ball of a proof. The id comes from where it was hit: hit twice, it stands here once. Taken out, it stays."""

    __tablename__ = "proof_ball"
    __table_args__ = (
        ForeignKeyConstraint(
            ["studio_id", "proof_id"], ["proof.studio_id", "proof.id"], name="fk_ball_proof", ondelete="CASCADE"
        ),
    )

    proof_id: UUID = Field(primary_key=True)
    id: UUID = Field(primary_key=True)
    studio_id: UUID
    place: int | None = Field(default=None, sa_column=Column(BigInteger, Identity(always=True), nullable=False))
    ball: dict[str, Any] = Field(sa_column=Column(JSONB, nullable=False))
    set_aside: str | None = Field(default=None, max_length=120)
    taken_at: datetime = Field(default_factory=now, sa_column=_moment())
    removed_at: datetime | None = Field(default=None, sa_column=_moment_or_never())


class BuildOrderRow(SQLModel, table=True):
    """A build sheet given to the bench: the sheet as it was ordered, heads and parts taken for it, ticks by club and
    operation. Signed, it holds the sheet as built, and a trigger refuses every later change."""

    __tablename__ = "build_order"
    __table_args__ = (
        _of_a_fitting("fk_build_order_fitting"),
        CheckConstraint("state in ('open', 'built', 'cancelled')", name="ck_build_order_state"),
        Index("ix_build_order_open", "fitting_id", unique=True, postgresql_where=text("state = 'open'")),
    )

    id: UUID = Field(primary_key=True)
    studio_id: UUID
    fitting_id: UUID = Field(index=True)
    state: str = Field(default="open", max_length=10)
    sheet: dict[str, Any] = Field(sa_column=Column(JSONB, nullable=False))
    heads: list[str] = Field(default_factory=list, sa_column=Column(JSONB, nullable=False))
    parts: list[str] = Field(default_factory=list, sa_column=Column(JSONB, nullable=False))
    ticks: dict[str, Any] = Field(default_factory=dict, sa_column=Column(JSONB, nullable=False, server_default="{}"))
    reason: str = Field(default="", max_length=200, sa_column_kwargs={"server_default": ""})
    made_by: str = Field(max_length=120)
    created_at: datetime = Field(default_factory=now, sa_column=_moment())
    ended_by: str = Field(default="", max_length=120, sa_column_kwargs={"server_default": ""})
    ended_at: datetime | None = Field(default=None, sa_column=_moment_or_never())


class HandoverRow(SQLModel, table=True):
    """What was handed to the player on a day: the content of their page, and the digest of the token that opens it. A
    trigger refuses every later change but that it is closed."""

    __tablename__ = "handover"
    __table_args__ = (
        _of_a_fitting("fk_handover_fitting"),
        UniqueConstraint("digest", name="uq_handover_digest"),
        UniqueConstraint("studio_id", "id", name="uq_handover_studio"),
    )

    id: UUID = Field(primary_key=True)
    studio_id: UUID
    fitting_id: UUID = Field(index=True)
    digest: str = Field(max_length=64)
    content: dict[str, Any] = Field(sa_column=Column(JSONB, nullable=False))
    made_by: str = Field(max_length=120)
    created_at: datetime = Field(default_factory=now, sa_column=_moment())
    expires_at: datetime = Field(sa_column=_moment())
    closed_at: datetime | None = Field(default=None, sa_column=_moment_or_never())


class DrillScoreRow(SQLModel, table=True):
    """One go at a drill. The id comes from where it was counted: sent twice, it stands here once. `on`: the day there."""

    __tablename__ = "drill_score"
    __table_args__ = (
        ForeignKeyConstraint(
            ["studio_id", "handover_id"], ["handover.studio_id", "handover.id"], name="fk_score_handover",
            ondelete="CASCADE",
        ),
        CheckConstraint("score between 0 and count", name="ck_score"),
        CheckConstraint("by in ('player', 'fitter')", name="ck_score_by"),
    )  # fmt: skip

    handover_id: UUID = Field(primary_key=True)
    id: UUID = Field(primary_key=True)
    studio_id: UUID
    place: int | None = Field(default=None, sa_column=Column(BigInteger, Identity(always=True), nullable=False))
    drill: str = Field(max_length=24)
    score: int
    count: int
    on: date
    by: str = Field(max_length=8)
    taken_at: datetime = Field(default_factory=now, sa_column=_moment())


class LogShotRow(SQLModel, table=True):
    """A shot noted on the course. The id comes from where it was noted: sent twice, it stands here once; taken back, it
    stays here and counts nowhere."""

    __tablename__ = "log_shot"
    __table_args__ = (
        _of_a_fitting("fk_log_fitting"),
        CheckConstraint("by in ('player', 'fitter', 'file')", name="ck_log_by"),
        Index("ix_log_round", "fitting_id", "round"),
    )

    fitting_id: UUID = Field(primary_key=True)
    id: UUID = Field(primary_key=True)
    studio_id: UUID
    place: int | None = Field(default=None, sa_column=Column(BigInteger, Identity(always=True), nullable=False))
    round: UUID
    on: date
    shot: dict[str, Any] = Field(sa_column=Column(JSONB, nullable=False))
    by: str = Field(max_length=8)
    taken_at: datetime = Field(default_factory=now, sa_column=_moment())
    removed_at: datetime | None = Field(default=None, sa_column=_moment_or_never())
