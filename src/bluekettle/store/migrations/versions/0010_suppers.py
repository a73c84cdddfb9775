"""Meals that are being cooked, and which of their dishes a cook is."""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"


def upgrade() -> None:
    op.create_table(
        "supper",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("title", sa.String(), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False, server_default="1"),
        sa.Column("updated_at", sa.DateTime(), nullable=False),
    )
    with op.batch_alter_table("cook") as cook:
        cook.add_column(sa.Column("supper_id", sa.Integer(), nullable=True))
        cook.add_column(sa.Column("line", sa.String(), nullable=False, server_default=""))
        cook.create_foreign_key("fk_cook_supper", "supper", ["supper_id"], ["id"])


def downgrade() -> None:
    with op.batch_alter_table("cook") as cook:
        cook.drop_constraint("fk_cook_supper", type_="foreignkey")
        cook.drop_column("line")
        cook.drop_column("supper_id")
    op.drop_table("supper")
