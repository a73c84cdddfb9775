"""What a plan was before it was changed."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.create_table(
        "plan_revision",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("plan_id", sa.Integer(), sa.ForeignKey("plan.id"), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("title", sa.String(), nullable=False),
        sa.Column("dish", sa.JSON(), nullable=False),
        sa.Column("kept_at", sa.DateTime(), nullable=False),
    )
    op.create_index("ix_plan_revision_plan_id", "plan_revision", ["plan_id"])


def downgrade() -> None:
    op.drop_table("plan_revision")
