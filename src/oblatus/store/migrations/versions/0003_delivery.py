"""delivery of strikes"""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None

FIGURES = ("attack_deg", "lean_deg", "entry_mm", "dynamic_loft_deg", "impact_height_mm")


def upgrade() -> None:
    op.alter_column("strike", "carry_m", existing_type=sa.Float(), nullable=True)
    for name in FIGURES:
        op.add_column("strike", sa.Column(name, sa.Float(), nullable=True))
    op.add_column("strike", sa.Column("divot", sa.String(length=8), nullable=True))
    op.add_column("strike", sa.Column("note", sa.String(length=200), server_default="", nullable=False))
    op.add_column("strike", sa.Column("simulated", sa.Boolean(), server_default="false", nullable=False))


def downgrade() -> None:
    op.execute("delete from strike where carry_m is null")
    for name in ("simulated", "note", "divot", *FIGURES):
        op.drop_column("strike", name)
    op.alter_column("strike", "carry_m", existing_type=sa.Float(), nullable=False)
