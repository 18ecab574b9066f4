"""Word of what other screens and phones do to proofs, kept proposals and handed-over pages, as of strikes."""

from alembic import op

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None

OF_A_FITTING = ("proof", "snapshot", "handover")
OF_ONE_OF_THESE = {"proof_ball": "proof", "drill_score": "handover"}
"""Rows that know their fitting by what they belong to."""


def upgrade() -> None:
    """Make the triggers."""
    for table in OF_A_FITTING:
        op.execute(
            f"create trigger {table}_is_told after insert or update or delete on {table} "
            "for each row execute function tell_of_strikes()"
        )
    for table, owner in OF_ONE_OF_THESE.items():
        op.execute(f"""
            create function tell_of_{table}() returns trigger language plpgsql as $$
            begin
                perform pg_notify('oblatus', told.studio_id || ' ' || told.fitting_id || ' 0')
                    from (select distinct {owner}.studio_id, {owner}.fitting_id
                        from changed join {owner} on {owner}.id = changed.{owner}_id) as told;
                return null;
            end $$
        """)
        for act in ("insert", "update"):
            op.execute(
                f"create trigger {table}_is_told_of_{act} after {act} on {table} referencing new table as changed "
                f"for each statement execute function tell_of_{table}()"
            )


def downgrade() -> None:
    """Take them away."""
    for table in OF_ONE_OF_THESE:
        for act in ("insert", "update"):
            op.execute(f"drop trigger {table}_is_told_of_{act} on {table}")
        op.execute(f"drop function tell_of_{table}()")
    for table in OF_A_FITTING:
        op.execute(f"drop trigger {table}_is_told on {table}")
