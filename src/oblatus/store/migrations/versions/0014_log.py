"""Shots noted on the course, which fitting follows which, and what the studio's claims came to."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table and the columns."""
    op.create_table(
        "log_shot",
        sa.Column("fitting_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("place", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("round", sa.Uuid(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("shot", postgresql.JSONB(), nullable=False),
        sa.Column("by", sa.String(length=8), nullable=False),
        sa.Column("taken_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("removed_at", sa.DateTime(timezone=True), nullable=True),
        sa.CheckConstraint("by in ('player', 'fitter', 'file')", name="ck_log_by"),
        sa.ForeignKeyConstraint(
            ["studio_id", "fitting_id"],
            ["fitting.studio_id", "fitting.id"],
            name="fk_log_fitting",
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("fitting_id", "id"),
    )
    op.create_index("ix_log_round", "log_shot", ["fitting_id", "round"])
    for act in ("insert", "update"):
        op.execute(
            f"create trigger log_is_told_of_{act} after {act} on log_shot referencing new table as changed "
            "for each statement execute function tell_of_changed_strikes()"
        )
    op.add_column("fitting", sa.Column("follows", sa.Uuid(), nullable=True))
    op.create_foreign_key("fk_fitting_follows", "fitting", "fitting", ["follows"], ["id"], ondelete="SET NULL")
    op.add_column("studio", sa.Column("claims_sd", sa.Float(), nullable=True))


def downgrade() -> None:
    """Take them away."""
    op.drop_column("studio", "claims_sd")
    op.drop_constraint("fk_fitting_follows", "fitting", type_="foreignkey")
    op.drop_column("fitting", "follows")
    op.drop_table("log_shot")
