"""What a head of the rack costs, where the studio states it."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Add the price."""
    op.add_column("rack_head", sa.Column("price", sa.Float(), nullable=True))


def downgrade() -> None:
    """Forget it."""
    op.drop_column("rack_head", "price")
