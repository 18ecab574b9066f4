"""Where the sole left the sand, and the mark on the sole.

Revision ID: 0007
Revises: 0006
"""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None

COLUMNS = ("exit_mm", "mark_back_mm", "mark_toe_mm")


def upgrade() -> None:
    for name in COLUMNS:
        op.add_column("strike", sa.Column(name, sa.Float(), nullable=True))


def downgrade() -> None:
    for name in COLUMNS:
        op.drop_column("strike", name)
