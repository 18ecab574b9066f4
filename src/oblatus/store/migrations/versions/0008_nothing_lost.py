"""Sessions of the server, failed sign-ins, edits by their ids, and what is taken out but not gone.

Revision ID: 0008
Revises: 0007
"""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None

BINS = ("fitting", "snapshot", "strike")


def _moment(name: str, *, nullable: bool = False) -> sa.Column[Any]:
    return sa.Column(name, sa.DateTime(timezone=True), nullable=nullable)


def upgrade() -> None:
    op.add_column("studio", sa.Column("rack_revision", sa.Integer(), server_default="1", nullable=False))
    op.add_column("fitter", sa.Column("demo", sa.Boolean(), server_default="false", nullable=False))
    op.execute("update fitter set demo = true where email = 'fitter@scarp-end.example'")
    op.add_column("device_link", _moment("heard_at", nullable=True))
    for table in BINS:
        op.add_column(table, _moment("removed_at", nullable=True))
    op.create_table(
        "fitter_session",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("digest", sa.String(length=64), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("fitter_id", sa.Uuid(), nullable=False),
        sa.Column("browser", sa.String(length=120), nullable=False),
        sa.Column("address", sa.String(length=64), nullable=False),
        _moment("created_at"),
        _moment("seen_at"),
        _moment("ended_at", nullable=True),
        sa.ForeignKeyConstraint(["studio_id"], ["studio.id"]),
        sa.ForeignKeyConstraint(["fitter_id"], ["fitter.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("digest", name="uq_session_digest"),
    )
    op.create_index("ix_fitter_session_fitter_id", "fitter_session", ["fitter_id"])
    op.create_table(
        "sign_in_try",
        sa.Column("id", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("account", sa.String(length=64), nullable=False),
        sa.Column("address", sa.String(length=64), nullable=False),
        sa.Column("browser", sa.String(length=64), nullable=True),
        _moment("at"),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_sign_in_try_at", "sign_in_try", ["at"])
    op.create_table(
        "edit",
        sa.Column("fitting_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("studio_id", sa.Uuid(), nullable=False),
        sa.Column("fitter", sa.String(length=120), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        _moment("made_at"),
        sa.ForeignKeyConstraint(
            ["studio_id", "fitting_id"], ["fitting.studio_id", "fitting.id"], name="fk_edit_fitting", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("fitting_id", "id"),
    )
    op.execute("""
        create or replace function refuse_snapshot_change() returns trigger language plpgsql as $$
        begin
            old.label := new.label;
            old.removed_at := new.removed_at;
            if old is distinct from new then
                raise exception 'a kept proposal is never rewritten';
            end if;
            return new;
        end $$
    """)
    op.execute("""
        create or replace function tell_of_strikes() returns trigger language plpgsql as $$
        begin
            perform pg_notify('oblatus', coalesce(new.studio_id, old.studio_id) || ' '
                || coalesce(new.fitting_id, old.fitting_id) || ' 0');
            return null;
        end $$
    """)
    op.execute("""
        create or replace function tell_of_changed_strikes() returns trigger language plpgsql as $$
        begin
            perform pg_notify('oblatus', studio_id || ' ' || fitting_id || ' 0')
                from (select distinct studio_id, fitting_id from changed) as told;
            return null;
        end $$
    """)
    op.execute("""
        create function tell_of_fitting() returns trigger language plpgsql as $$
        begin
            perform pg_notify('oblatus', new.studio_id || ' ' || new.id || ' ' || new.revision);
            return null;
        end $$
    """)
    op.execute(
        "create trigger fitting_is_told after update of revision on fitting for each row execute function tell_of_fitting()"
    )

    # what is only heard of a device changes nothing on a screen
    op.execute("drop trigger device_link_is_told on device_link")
    op.execute(
        "create trigger device_link_is_told after insert or delete or update of wanted, club, swing, target, armed, state, "
        "device, simulated, taken, refused, last_refusal on device_link for each row execute function tell_of_strikes()"
    )


def downgrade() -> None:
    op.execute("drop trigger device_link_is_told on device_link")
    op.execute(
        "create trigger device_link_is_told after insert or update or delete on device_link "
        "for each row execute function tell_of_strikes()"
    )
    op.execute("drop trigger fitting_is_told on fitting")
    op.execute("drop function tell_of_fitting()")
    op.execute("""
        create or replace function tell_of_changed_strikes() returns trigger language plpgsql as $$
        begin
            perform pg_notify('oblatus', fitting_id::text) from (select distinct fitting_id from changed) as told;
            return null;
        end $$
    """)
    op.execute("""
        create or replace function tell_of_strikes() returns trigger language plpgsql as $$
        begin
            perform pg_notify('oblatus', coalesce(new.fitting_id, old.fitting_id)::text);
            return null;
        end $$
    """)
    op.execute("""
        create or replace function refuse_snapshot_change() returns trigger language plpgsql as $$
        begin
            raise exception 'a kept proposal is never rewritten';
        end $$
    """)
    op.drop_table("edit")
    op.drop_table("sign_in_try")
    op.drop_table("fitter_session")
    for table in BINS:
        op.execute(f"delete from {table} where removed_at is not null")
        op.drop_column(table, "removed_at")
    op.drop_column("device_link", "heard_at")
    op.drop_column("fitter", "demo")
    op.drop_column("studio", "rack_revision")
