"""Readings of outside devices, and cooks that are rehearsals."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    op.create_table(
        "reading",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("cook_id", sa.Integer(), sa.ForeignKey("cook.id"), nullable=False),
        sa.Column("device", sa.String(), nullable=False),
        sa.Column("quantity", sa.String(), nullable=False),
        sa.Column("site", sa.String(), nullable=False),
        sa.Column("value", sa.Float(), nullable=False),
        sa.Column("taken_at", sa.DateTime(), nullable=False),
        sa.Column("received_at", sa.DateTime(), nullable=False),
        sa.Column("mark", sa.Boolean(), nullable=False),
        sa.UniqueConstraint(
            "cook_id", "quantity", "device", "taken_at", name="uq_reading_of_a_moment"
        ),
    )
    op.create_index("ix_reading_newest", "reading", ["cook_id", "quantity", "taken_at"])
    op.create_index("ix_reading_marks", "reading", ["cook_id", "quantity", "mark", "taken_at"])
    op.create_table(
        "rehearsal",
        sa.Column("cook_id", sa.Integer(), sa.ForeignKey("cook.id"), primary_key=True),
        sa.Column("speed", sa.Float(), nullable=False),
        sa.Column("real_at", sa.DateTime(), nullable=False),
        sa.Column("cook_at", sa.DateTime(), nullable=False),
        sa.Column("seed", sa.Integer(), nullable=False),
        sa.Column("kept", sa.Boolean(), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("rehearsal")
    op.drop_table("reading")
