"""Word of what is the studio's and not one fitting's: its rack, prices, venues and players. It names no fitting."""

from alembic import op

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None

OF_A_STUDIO = {
    "rack_head": ("update",),  # heads that a build takes; another rack is told by its revision
    "venue_record": ("insert", "update", "delete"),
    "fitting": ("insert", "delete"),
}


def upgrade() -> None:
    """Make the triggers."""
    op.execute("""
        create function tell_of_studio() returns trigger language plpgsql as $$
        begin
            perform pg_notify('oblatus', told.studio_id || '  0') from (select distinct studio_id from changed) as told;
            return null;
        end $$
    """)
    for table, acts in OF_A_STUDIO.items():
        for act in acts:
            rows = "old" if act == "delete" else "new"
            op.execute(
                f"create trigger {table}_is_told_of_{act} after {act} on {table} referencing {rows} table as changed "
                "for each statement execute function tell_of_studio()"
            )
    op.execute("""
        create function tell_of_lists() returns trigger language plpgsql as $$
        begin
            perform pg_notify('oblatus', new.id || '  0');
            return null;
        end $$
    """)
    op.execute(
        "create trigger studio_is_told after update of rack_revision, prices_revision on studio "
        "for each row execute function tell_of_lists()"
    )
    op.execute("""
        create function tell_of_bin() returns trigger language plpgsql as $$
        begin
            perform pg_notify('oblatus', new.studio_id || '  0');
            return null;
        end $$
    """)
    op.execute(
        "create trigger fitting_is_binned after update of removed_at on fitting for each row execute function tell_of_bin()"
    )


def downgrade() -> None:
    """Take them away."""
    op.execute("drop trigger fitting_is_binned on fitting")
    op.execute("drop function tell_of_bin()")
    op.execute("drop trigger studio_is_told on studio")
    op.execute("drop function tell_of_lists()")
    for table, acts in OF_A_STUDIO.items():
        for act in acts:
            op.execute(f"drop trigger {table}_is_told_of_{act} on {table}")
    op.execute("drop function tell_of_studio()")
