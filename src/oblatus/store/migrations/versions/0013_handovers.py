"""What was handed to players, and the scores of their drills."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the tables; what was handed over is never rewritten."""
    op.create_table(
        "handover",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("fitting_id", sa.Uuid(), nullable=False),
        sa.Column("digest", sa.String(length=64), nullable=False),
        sa.Column("content", postgresql.JSONB(), nullable=False),
        sa.Column("made_by", sa.String(length=120), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("expires_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("closed_at", sa.DateTime(timezone=True), nullable=True),
        sa.ForeignKeyConstraint(
            ["studio_id", "fitting_id"],
            ["fitting.studio_id", "fitting.id"],
            name="fk_handover_fitting",
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("digest", name="uq_handover_digest"),
        sa.UniqueConstraint("studio_id", "id", name="uq_handover_studio"),
    )
    op.create_index("ix_handover_fitting_id", "handover", ["fitting_id"])
    op.create_table(
        "drill_score",
        sa.Column("handover_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("place", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("drill", sa.String(length=24), nullable=False),
        sa.Column("score", sa.Integer(), nullable=False),
        sa.Column("count", sa.Integer(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("by", sa.String(length=8), nullable=False),
        sa.Column("taken_at", sa.DateTime(timezone=True), nullable=False),
        sa.CheckConstraint("score between 0 and count", name="ck_score"),
        sa.CheckConstraint("by in ('player', 'fitter')", name="ck_score_by"),
        sa.ForeignKeyConstraint(
            ["studio_id", "handover_id"],
            ["handover.studio_id", "handover.id"],
            name="fk_score_handover",
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("handover_id", "id"),
    )
    op.execute("""
        create function refuse_handover_change() returns trigger language plpgsql as $$
        begin
            old.closed_at := new.closed_at;
            if old is distinct from new then
                raise exception 'what was handed over is never rewritten';
            end if;
            return new;
        end $$
    """)
    op.execute(
        "create trigger handover_is_kept before update on handover for each row execute function refuse_handover_change()"
    )


def downgrade() -> None:
    """Drop them."""
    op.drop_table("drill_score")
    op.drop_table("handover")
    op.execute("drop function refuse_handover_change()")
