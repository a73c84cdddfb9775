"""Signs that were told while something was cooked, and what the food was like under them."""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"


def upgrade() -> None:
    with op.batch_alter_table("observation") as observation:
        observation.add_column(sa.Column("cook_id", sa.Integer(), nullable=True))
        observation.add_column(sa.Column("deep_c", sa.Float(), nullable=True))
        observation.add_column(sa.Column("surface_c", sa.Float(), nullable=True))
        observation.create_foreign_key("fk_observation_cook", "cook", ["cook_id"], ["id"])
        observation.create_index("ix_observation_cook_id", ["cook_id"])


def downgrade() -> None:
    with op.batch_alter_table("observation") as observation:
        observation.drop_index("ix_observation_cook_id")
        observation.drop_constraint("fk_observation_cook", type_="foreignkey")
        observation.drop_column("surface_c")
        observation.drop_column("deep_c")
        observation.drop_column("cook_id")
