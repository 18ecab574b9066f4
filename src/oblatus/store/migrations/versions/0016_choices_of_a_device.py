"""What was chosen at a device, and when: a line that comes late goes where it was hit."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the column."""
    op.add_column("device_link", sa.Column("choices", postgresql.JSONB(), nullable=False, server_default="[]"))


def downgrade() -> None:
    """Take it away."""
    op.drop_column("device_link", "choices")
