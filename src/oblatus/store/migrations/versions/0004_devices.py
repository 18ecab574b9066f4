"""device links, and word of every strike"""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "device_link",
        sa.Column("fitting_id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("wanted", sa.Boolean(), nullable=False),
        sa.Column("club", sa.String(length=40), nullable=False),
        sa.Column("swing", sa.String(length=24), nullable=False),
        sa.Column("armed", sa.Integer(), nullable=False),
        sa.Column("state", sa.String(length=12), nullable=False),
        sa.Column("device", sa.String(length=40), nullable=False),
        sa.Column("simulated", sa.Boolean(), nullable=False),
        sa.Column("taken", sa.Integer(), nullable=False),
        sa.Column("refused", sa.Integer(), nullable=False),
        sa.Column("last_refusal", sa.String(length=200), nullable=False),
        sa.CheckConstraint("state in ('off', 'connecting', 'live', 'lost')", name="ck_link_state"),
        sa.ForeignKeyConstraint(
            ["studio_id", "fitting_id"],
            ["fitting.studio_id", "fitting.id"],
            name="fk_link_fitting",
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("fitting_id"),
    )
    op.execute("""
        create function tell_of_strikes() returns trigger language plpgsql as $$
        begin
            perform pg_notify('oblatus', coalesce(new.fitting_id, old.fitting_id)::text);
            return null;
        end $$
    """)
    for table in ("strike", "device_link"):
        op.execute(
            f"create trigger {table}_is_told after insert or update or delete on {table} "
            "for each row execute function tell_of_strikes()"
        )


def downgrade() -> None:
    op.execute("drop trigger strike_is_told on strike")
    op.execute("drop trigger device_link_is_told on device_link")
    op.execute("drop function tell_of_strikes()")
    op.drop_table("device_link")
