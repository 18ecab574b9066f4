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
OF_A_ROW = (
    ("studio_is_told", "rack_revision, prices_revision on studio", "id"),
    ("fitting_is_binned", "removed_at on fitting", "studio_id"),
)


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
    # the column that names the studio is the trigger's argument
    op.execute("""
        create function tell_of_row() returns trigger language plpgsql as $$
        begin
            perform pg_notify('oblatus', (to_jsonb(new) ->> tg_argv[0]) || '  0');
            return null;
        end $$
    """)
    for name, what, column in OF_A_ROW:
        op.execute(f"create trigger {name} after update of {what} for each row execute function tell_of_row('{column}')")


def downgrade() -> None:
    """Take them away."""
    for name, what, _ in OF_A_ROW:
        op.execute(f"drop trigger {name} on {what.rpartition(' ')[2]}")
    op.execute("drop function tell_of_row()")
    for table, acts in OF_A_STUDIO.items():
        for act in acts:
            op.execute(f"drop trigger {table}_is_told_of_{act} on {table}")
    op.execute("drop function tell_of_studio()")
