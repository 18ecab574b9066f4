"""Imports of files, saved mappings, and word of strikes once a statement.

Revision ID: 0005
Revises: 0004
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

EVENTS = (("insert", "new"), ("update", "new"), ("delete", "old"))


def upgrade() -> None:
    op.create_table(
        "import_run",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("fitting_id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(length=200), nullable=False),
        sa.Column("digest", sa.String(length=64), nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=True),
        sa.Column("mapping", JSONB(), nullable=True),
        sa.Column("state", sa.String(length=12), nullable=False),
        sa.Column("words", sa.String(length=300), nullable=False),
        sa.Column("stage", sa.String(length=12), nullable=False),
        sa.Column("done", sa.Integer(), nullable=False),
        sa.Column("total", sa.Integer(), nullable=False),
        sa.Column("stop", sa.Boolean(), nullable=False),
        sa.Column("counts", JSONB(), nullable=True),
        sa.Column("wrong", JSONB(), nullable=True),
        sa.Column("taken_by", sa.String(length=120), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("beat_at", sa.DateTime(timezone=True), nullable=False),
        sa.CheckConstraint(
            "state in ('ready', 'running', 'checked', 'taken', 'stopped', 'failed', 'withdrawn')", name="ck_import_state"
        ),
        sa.ForeignKeyConstraint(
            ["studio_id", "fitting_id"],
            ["fitting.studio_id", "fitting.id"],
            name="fk_import_fitting",
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_import_run_fitting_id", "import_run", ["fitting_id"])
    op.create_table(
        "import_mapping",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("signature", sa.String(length=2000), nullable=False),
        sa.Column("document", JSONB(), nullable=False),
        sa.Column("kept_at", sa.DateTime(timezone=True), nullable=False),
        sa.ForeignKeyConstraint(["studio_id"], ["studio.id"]),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("studio_id", "name", name="uq_mapping_name"),
    )
    op.add_column("strike", sa.Column("import_id", sa.Uuid(), nullable=True))
    op.execute("drop trigger strike_is_told on strike")
    op.execute("""
        create function tell_of_changed_strikes() returns trigger language plpgsql as $$
        begin
            perform pg_notify('oblatus', fitting_id::text) from (select distinct fitting_id from changed) as told;
            return null;
        end $$
    """)
    for event, side in EVENTS:
        op.execute(
            f"create trigger strike_{event}_is_told after {event} on strike referencing {side} table as changed "
            "for each statement execute function tell_of_changed_strikes()"
        )


def downgrade() -> None:
    for event, _ in EVENTS:
        op.execute(f"drop trigger strike_{event}_is_told on strike")
    op.execute("drop function tell_of_changed_strikes()")
    op.execute(
        "create trigger strike_is_told after insert or update or delete on strike "
        "for each row execute function tell_of_strikes()"
    )
    op.drop_column("strike", "import_id")
    op.drop_table("import_mapping")
    op.drop_table("import_run")
