"""first tables"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "studio",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "fitter",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("email", sa.String(length=254), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("password_hash", sa.String(length=300), nullable=False),
        sa.Column("distance_unit", sa.String(length=2), nullable=False),
        sa.Column("speed_unit", sa.String(length=3), nullable=False),
        sa.CheckConstraint("distance_unit in ('m', 'yd')", name="ck_fitter_distance_unit"),
        sa.CheckConstraint("speed_unit in ('mps', 'mph')", name="ck_fitter_speed_unit"),
        sa.ForeignKeyConstraint(
            ["studio_id"],
            ["studio.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("email", name="uq_fitter_email"),
    )
    op.create_index(op.f("ix_fitter_studio_id"), "fitter", ["studio_id"], unique=False)
    op.create_table(
        "fitting",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("player_name", sa.String(length=120), nullable=False),
        sa.Column("document", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("updated_at", sa.DateTime(timezone=True), nullable=False),
        sa.CheckConstraint("revision >= 1", name="ck_fitting_revision"),
        sa.ForeignKeyConstraint(
            ["studio_id"],
            ["studio.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("studio_id", "id", name="uq_fitting_studio"),
    )
    op.create_index(op.f("ix_fitting_player_name"), "fitting", ["player_name"], unique=False)
    op.create_index(op.f("ix_fitting_studio_id"), "fitting", ["studio_id"], unique=False)
    op.create_table(
        "rack_head",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("code", sa.String(length=40), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("loft_deg", sa.Float(), nullable=False),
        sa.Column("bounce_deg", sa.Float(), nullable=False),
        sa.Column("sole_width_mm", sa.Float(), nullable=False),
        sa.Column("camber_radius_mm", sa.Float(), nullable=False),
        sa.Column("leading_edge_radius_mm", sa.Float(), nullable=False),
        sa.Column("front_bevel_mm", sa.Float(), nullable=False),
        sa.Column("front_bevel_deg", sa.Float(), nullable=False),
        sa.Column("trailing_relief_fraction", sa.Float(), nullable=False),
        sa.Column("trailing_relief_deg", sa.Float(), nullable=False),
        sa.Column("heel_relief_mm", sa.Float(), nullable=False),
        sa.Column("toe_relief_mm", sa.Float(), nullable=False),
        sa.Column("lie_deg", sa.Float(), nullable=False),
        sa.Column("head_mass_kg", sa.Float(), nullable=False),
        sa.Column("make", sa.String(length=8), nullable=False),
        sa.Column("bend_limit_deg", sa.Float(), nullable=False),
        sa.Column("stock", sa.Integer(), nullable=False),
        sa.CheckConstraint("loft_deg between 40 and 68", name="ck_rack_loft"),
        sa.CheckConstraint("stock >= 0", name="ck_rack_stock"),
        sa.ForeignKeyConstraint(
            ["studio_id"],
            ["studio.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("studio_id", "code", name="uq_rack_code"),
    )
    op.create_index(op.f("ix_rack_head_studio_id"), "rack_head", ["studio_id"], unique=False)
    op.create_table(
        "snapshot",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("fitting_id", sa.Uuid(), nullable=False),
        sa.Column("label", sa.String(length=120), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("document", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("result", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("clubs", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("engine_version", sa.String(length=20), nullable=False),
        sa.Column("kept_by", sa.String(length=120), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False),
        sa.ForeignKeyConstraint(
            ["studio_id", "fitting_id"],
            ["fitting.studio_id", "fitting.id"],
            name="fk_snapshot_fitting",
            ondelete="CASCADE",
        ),
        sa.ForeignKeyConstraint(
            ["studio_id"],
            ["studio.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index(op.f("ix_snapshot_fitting_id"), "snapshot", ["fitting_id"], unique=False)
    op.create_index(op.f("ix_snapshot_studio_id"), "snapshot", ["studio_id"], unique=False)
    op.execute("""
        create function refuse_snapshot_change() returns trigger language plpgsql as $$
        begin
            raise exception 'a kept proposal is never rewritten';
        end $$
    """)
    op.execute(
        "create trigger snapshot_is_kept before update on snapshot for each row execute function refuse_snapshot_change()"
    )


def downgrade() -> None:
    op.execute("drop trigger snapshot_is_kept on snapshot")
    op.execute("drop function refuse_snapshot_change()")
    op.drop_index(op.f("ix_snapshot_studio_id"), table_name="snapshot")
    op.drop_index(op.f("ix_snapshot_fitting_id"), table_name="snapshot")
    op.drop_table("snapshot")
    op.drop_index(op.f("ix_rack_head_studio_id"), table_name="rack_head")
    op.drop_table("rack_head")
    op.drop_index(op.f("ix_fitting_studio_id"), table_name="fitting")
    op.drop_index(op.f("ix_fitting_player_name"), table_name="fitting")
    op.drop_table("fitting")
    op.drop_index(op.f("ix_fitter_studio_id"), table_name="fitter")
    op.drop_table("fitter")
    op.drop_table("studio")
