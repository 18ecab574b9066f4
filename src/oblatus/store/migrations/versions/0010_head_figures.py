"""The figures of a rack head as one object: a new figure of the sole needs no migration."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None

COLUMNS = (
    "loft_deg", "bounce_deg", "sole_width_mm", "camber_radius_mm", "leading_edge_radius_mm", "front_bevel_mm",
    "front_bevel_deg", "trailing_relief_fraction", "trailing_relief_deg", "heel_relief_mm", "toe_relief_mm", "lie_deg",
    "head_mass_kg",
)  # fmt: skip


def upgrade() -> None:
    """Gather the columns in one."""
    op.add_column("rack_head", sa.Column("figures", postgresql.JSONB(), nullable=True))
    pairs = ", ".join(f"'{name}', {name}" for name in COLUMNS)
    op.execute(f"update rack_head set figures = jsonb_build_object({pairs})")
    op.alter_column("rack_head", "figures", nullable=False)
    op.drop_constraint("ck_rack_loft", "rack_head")
    for name in COLUMNS:
        op.drop_column("rack_head", name)


def downgrade() -> None:
    """Give every figure its column again."""
    for name in COLUMNS:
        op.add_column("rack_head", sa.Column(name, sa.Float(), nullable=True))
        op.execute(f"update rack_head set {name} = (figures->>'{name}')::double precision")
        op.alter_column("rack_head", name, nullable=False)
    op.create_check_constraint("ck_rack_loft", "rack_head", "loft_deg between 40 and 68")
    op.drop_column("rack_head", "figures")
