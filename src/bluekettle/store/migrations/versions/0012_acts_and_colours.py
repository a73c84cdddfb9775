"""Coats and turns that were done before a sign was seen."""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"


def upgrade() -> None:
    with op.batch_alter_table("observation") as observation:
        observation.add_column(sa.Column("acts", sa.JSON(), nullable=True))


def downgrade() -> None:
    with op.batch_alter_table("observation") as observation:
        observation.drop_column("acts")
