"""A saved mapping that is forgotten can be put back for a while."""

import sqlalchemy as sa
from alembic import op

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """None is forgotten yet."""
    op.add_column("import_mapping", sa.Column("removed_at", sa.DateTime(timezone=True), nullable=True))


def downgrade() -> None:
    """Those that are forgotten go for good."""
    op.execute("delete from import_mapping where removed_at is not null")
    op.drop_column("import_mapping", "removed_at")
