"""Proofs and their balls."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the tables."""
    op.create_table(
        "proof",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("fitting_id", sa.Uuid(), nullable=False),
        sa.Column("document", postgresql.JSONB(), nullable=False),
        sa.Column("feel", postgresql.JSONB(), server_default="{}", nullable=False),
        sa.Column("made_by", sa.String(length=120), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("removed_at", sa.DateTime(timezone=True), nullable=True),
        sa.ForeignKeyConstraint(
            ["studio_id", "fitting_id"], ["fitting.studio_id", "fitting.id"], name="fk_proof_fitting", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("studio_id", "id", name="uq_proof_studio"),
    )
    op.create_index("ix_proof_fitting_id", "proof", ["fitting_id"])
    op.create_table(
        "proof_ball",
        sa.Column("proof_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("place", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("ball", postgresql.JSONB(), nullable=False),
        sa.Column("set_aside", sa.String(length=120), nullable=True),
        sa.Column("taken_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("removed_at", sa.DateTime(timezone=True), nullable=True),
        sa.ForeignKeyConstraint(
            ["studio_id", "proof_id"], ["proof.studio_id", "proof.id"], name="fk_ball_proof", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("proof_id", "id"),
    )


def downgrade() -> None:
    """Drop them."""
    op.drop_table("proof_ball")
    op.drop_table("proof")
