"""A mapping says which files it is for: strikes, or shots on the course."""

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Those that are there are of strikes."""
    op.add_column("import_mapping", sa.Column("kind", sa.String(length=8), nullable=False, server_default="strikes"))
    op.create_check_constraint("ck_mapping_kind", "import_mapping", "kind in ('strikes', 'log')")
    op.drop_constraint("uq_mapping_name", "import_mapping", type_="unique")
    op.create_unique_constraint("uq_mapping_name", "import_mapping", ["studio_id", "kind", "name"])


def downgrade() -> None:
    """Mappings of shots go."""
    op.execute("delete from import_mapping where kind <> 'strikes'")
    op.drop_constraint("uq_mapping_name", "import_mapping", type_="unique")
    op.create_unique_constraint("uq_mapping_name", "import_mapping", ["studio_id", "name"])
    op.drop_column("import_mapping", "kind")
