"""Build orders, the studio's price list; prices leave the fittings' documents, where no screen could change them."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table and the columns."""
    op.add_column("studio", sa.Column("prices", postgresql.JSONB(none_as_null=True), nullable=True))
    op.add_column("studio", sa.Column("parts_stock", postgresql.JSONB(none_as_null=True), nullable=True))
    op.add_column("studio", sa.Column("prices_revision", sa.Integer(), server_default="1", nullable=False))
    op.execute(
        "update fitting set document = document #- '{build,prices}' where document #> '{build,prices}' is not null"
    )
    op.create_table(
        "build_order",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("fitting_id", sa.Uuid(), nullable=False),
        sa.Column("state", sa.String(length=10), nullable=False),
        sa.Column("sheet", postgresql.JSONB(), nullable=False),
        sa.Column("heads", postgresql.JSONB(), nullable=False),
        sa.Column("parts", postgresql.JSONB(), nullable=False),
        sa.Column("ticks", postgresql.JSONB(), server_default="{}", nullable=False),
        sa.Column("reason", sa.String(length=200), server_default="", nullable=False),
        sa.Column("made_by", sa.String(length=120), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("ended_by", sa.String(length=120), server_default="", nullable=False),
        sa.Column("ended_at", sa.DateTime(timezone=True), nullable=True),
        sa.CheckConstraint("state in ('open', 'built', 'cancelled')", name="ck_build_order_state"),
        sa.ForeignKeyConstraint(
            ["studio_id", "fitting_id"],
            ["fitting.studio_id", "fitting.id"],
            name="fk_build_order_fitting",
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_build_order_fitting_id", "build_order", ["fitting_id"])
    op.create_index(
        "ix_build_order_open", "build_order", ["fitting_id"], unique=True, postgresql_where=sa.text("state = 'open'")
    )
    op.execute("""
        create function refuse_order_change() returns trigger language plpgsql as $$
        begin
            if old.state <> 'open' and old is distinct from new then
                raise exception 'a build that was signed or cancelled is never rewritten';
            end if;
            return new;
        end $$
    """)
    op.execute(
        "create trigger order_is_kept before update on build_order for each row execute function refuse_order_change()"
    )
    op.execute(
        "create trigger build_order_tells after insert or update on build_order "
        "for each row execute function tell_of_strikes()"
    )


def downgrade() -> None:
    """Drop them."""
    op.drop_table("build_order")
    op.execute("drop function refuse_order_change()")
    op.drop_column("studio", "prices_revision")
    op.drop_column("studio", "parts_stock")
    op.drop_column("studio", "prices")
