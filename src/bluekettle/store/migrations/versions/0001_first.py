"""Plans, cooks, events and outcomes."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "plan",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("title", sa.String(), nullable=False),
        sa.Column("dish", sa.JSON(), nullable=False),
        sa.Column("updated_at", sa.DateTime(), nullable=False),
    )
    op.create_table(
        "cook",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("title", sa.String(), nullable=False),
        sa.Column("dish", sa.JSON(), nullable=False),
        sa.Column("forecast", sa.JSON(), nullable=False),
        sa.Column("started_at", sa.DateTime(), nullable=False),
        sa.Column("ended_at", sa.DateTime(), nullable=True),
    )
    op.create_table(
        "cook_event",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("cook_id", sa.Integer(), sa.ForeignKey("cook.id"), nullable=False),
        sa.Column("seq", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("happened_at", sa.DateTime(), nullable=False),
        sa.Column("recorded_at", sa.DateTime(), nullable=False),
        sa.Column("data", sa.JSON(), nullable=False),
        sa.UniqueConstraint("cook_id", "seq", name="uq_cook_event_seq"),
    )
    op.create_index("ix_cook_event_cook_id", "cook_event", ["cook_id"])
    op.create_table(
        "outcome",
        sa.Column("cook_id", sa.Integer(), sa.ForeignKey("cook.id"), primary_key=True),
        sa.Column("tenderness", sa.String(), nullable=False),
        sa.Column("crust", sa.String(), nullable=False),
        sa.Column("colour", sa.String(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("recorded_at", sa.DateTime(), nullable=False),
    )


def downgrade() -> None:
    for table in ("outcome", "cook_event", "cook", "plan"):
        op.drop_table(table)
