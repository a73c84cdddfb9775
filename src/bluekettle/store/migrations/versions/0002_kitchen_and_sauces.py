"""Kitchen settings, appliances, observations and sauces."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"

FIGURES = (
    "power_w",
    "volume_l",
    "gauge_kpa",
    "element_w_m2",
    "setting_c",
    "top_c",
    "preheat_s",
    "width_m",
    "depth_m",
    "height_m",
    "rack_m",
)


def upgrade() -> None:
    op.create_table(
        "sauce",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.Column("updated_at", sa.DateTime(), nullable=False),
    )
    op.create_table(
        "kitchen_settings",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("document", sa.JSON(), nullable=False),
    )
    op.create_table(
        "appliance",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("in_use", sa.Boolean(), nullable=False),
        *[sa.Column(name, sa.Float(), nullable=True) for name in FIGURES],
        sa.Column("shape", sa.String(), nullable=True),
        sa.Column("racks_m", sa.JSON(), nullable=True),
        sa.Column("body_id", sa.Integer(), sa.ForeignKey("appliance.id"), nullable=True),
        sa.Column("words", sa.JSON(), nullable=False),
    )
    op.create_table(
        "observation",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("appliance_id", sa.Integer(), sa.ForeignKey("appliance.id"), nullable=False),
        sa.Column("ground", sa.String(), nullable=False),
        sa.Column("sign", sa.String(), nullable=False),
        sa.Column("at_s", sa.Float(), nullable=False),
        sa.Column("dial", sa.Float(), nullable=False),
        sa.Column("coat_mm", sa.Float(), nullable=False),
        sa.Column("sauce_name", sa.String(), nullable=False),
        sa.Column("sauce", sa.JSON(), nullable=True),
        sa.Column("made_at", sa.DateTime(), nullable=False),
        sa.Column("forgotten_at", sa.DateTime(), nullable=True),
    )
    op.create_index("ix_observation_appliance_id", "observation", ["appliance_id"])


def downgrade() -> None:
    for table in ("observation", "appliance", "kitchen_settings", "sauce"):
        op.drop_table(table)
