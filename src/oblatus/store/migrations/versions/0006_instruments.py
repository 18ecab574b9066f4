"""One link a device, readings of instruments, the venue library, photos.

Revision ID: 0006
Revises: 0005
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def _of_a_fitting(name: str) -> sa.ForeignKeyConstraint:
    return sa.ForeignKeyConstraint(
        ["studio_id", "fitting_id"], ["fitting.studio_id", "fitting.id"], name=name, ondelete="CASCADE"
    )


def upgrade() -> None:
    op.add_column("device_link", sa.Column("kind", sa.String(length=12), server_default="monitor", nullable=False))
    op.add_column("device_link", sa.Column("target", sa.String(length=120), server_default="", nullable=False))
    op.create_check_constraint("ck_link_kind", "device_link", "kind in ('monitor', 'gauge', 'hammer', 'penetrometer')")
    op.execute("alter table device_link drop constraint device_link_pkey, add primary key (fitting_id, kind)")
    op.create_table(
        "reading",
        sa.Column("fitting_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("place", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("kind", sa.String(length=12), nullable=False),
        sa.Column("target", sa.String(length=120), nullable=False),
        sa.Column("figures", JSONB(), nullable=False),
        sa.Column("simulated", sa.Boolean(), nullable=False),
        sa.Column("set_aside", sa.String(length=120), nullable=True),
        sa.Column("taken_at", sa.DateTime(timezone=True), nullable=False),
        sa.CheckConstraint("kind in ('gauge', 'hammer', 'penetrometer')", name="ck_reading_kind"),
        _of_a_fitting("fk_reading_fitting"),
        sa.PrimaryKeyConstraint("fitting_id", "id"),
    )
    op.execute(
        "create trigger reading_is_told after insert or update or delete on reading "
        "for each row execute function tell_of_strikes()"
    )
    op.create_table(
        "venue_record",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("venue", sa.String(length=120), nullable=False),
        sa.Column("season", sa.String(length=6), nullable=False),
        sa.Column("read_on", sa.Date(), nullable=False),
        sa.Column("ground", JSONB(), nullable=False),
        sa.Column("kept_by", sa.String(length=120), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False),
        sa.CheckConstraint("season in ('spring', 'summer', 'autumn', 'winter')", name="ck_venue_season"),
        sa.ForeignKeyConstraint(["studio_id"], ["studio.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_venue_record_studio_id", "venue_record", ["studio_id"])
    op.create_table(
        "photo",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("fitting_id", sa.Uuid(), nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=False),
        sa.Column("width", sa.Integer(), nullable=False),
        sa.Column("height", sa.Integer(), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False),
        _of_a_fitting("fk_photo_fitting"),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_photo_fitting_id", "photo", ["fitting_id"])


def downgrade() -> None:
    op.drop_table("photo")
    op.drop_table("venue_record")
    op.drop_table("reading")
    op.execute("delete from device_link where kind <> 'monitor'")
    op.execute("alter table device_link drop constraint device_link_pkey, add primary key (fitting_id)")
    op.drop_constraint("ck_link_kind", "device_link")
    op.drop_column("device_link", "target")
    op.drop_column("device_link", "kind")
