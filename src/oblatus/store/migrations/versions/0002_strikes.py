"""strikes"""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "strike",
        sa.Column("fitting_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("place", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("club", sa.String(length=40), nullable=False),
        sa.Column("loft_deg", sa.Float(), nullable=False),
        sa.Column("swing", sa.String(length=24), nullable=False),
        sa.Column("carry_m", sa.Float(), nullable=False),
        sa.Column("club_speed_mps", sa.Float(), nullable=True),
        sa.Column("ball_speed_mps", sa.Float(), nullable=True),
        sa.Column("launch_deg", sa.Float(), nullable=True),
        sa.Column("spin_rpm", sa.Float(), nullable=True),
        sa.Column("apex_m", sa.Float(), nullable=True),
        sa.Column("landing_deg", sa.Float(), nullable=True),
        sa.Column("set_aside", sa.String(length=120), nullable=True),
        sa.Column("origin", sa.String(length=8), nullable=False),
        sa.Column("taken_at", sa.DateTime(timezone=True), nullable=False),
        sa.CheckConstraint("carry_m > 0", name="ck_strike_carry"),
        sa.ForeignKeyConstraint(
            ["studio_id", "fitting_id"],
            ["fitting.studio_id", "fitting.id"],
            name="fk_strike_fitting",
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("fitting_id", "id"),
    )
    op.create_index("ix_strike_place", "strike", ["fitting_id", "place"], unique=True)


def downgrade() -> None:
    op.drop_index("ix_strike_place", table_name="strike")
    op.drop_table("strike")
