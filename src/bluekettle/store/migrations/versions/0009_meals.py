"""Meals of several dishes, and which of them a cook is part of."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"


def upgrade() -> None:
    op.create_table(
        "meal",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("title", sa.String(), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False, server_default="1"),
        sa.Column("updated_at", sa.DateTime(), nullable=False),
    )
    op.create_index("ix_meal_newest", "meal", ["updated_at", "id"])
    with op.batch_alter_table("cook") as cook:
        cook.add_column(sa.Column("meal_id", sa.Integer(), nullable=True))
        cook.create_foreign_key("fk_cook_meal", "meal", ["meal_id"], ["id"])


def downgrade() -> None:
    with op.batch_alter_table("cook") as cook:
        cook.drop_constraint("fk_cook_meal", type_="foreignkey")
        cook.drop_column("meal_id")
    op.drop_table("meal")
