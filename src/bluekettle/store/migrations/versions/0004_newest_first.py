"""Indexes for the log's order and for the cooks under way."""

from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_index("ix_cook_newest", "cook", ["started_at", "id"])
    op.create_index("ix_cook_under_way", "cook", ["ended_at"])
    op.create_index("ix_plan_newest", "plan", ["updated_at", "id"])
    op.create_index("ix_sauce_name", "sauce", ["name", "id"])


def downgrade() -> None:
    op.drop_index("ix_sauce_name", "sauce")
    op.drop_index("ix_plan_newest", "plan")
    op.drop_index("ix_cook_under_way", "cook")
    op.drop_index("ix_cook_newest", "cook")
