"""Steps and facts of a cook instead of a whole forecast; exact events; versions; the database's own
notes.
"""

import json

import sqlalchemy as sa
from alembic import op

from bluekettle.schemas import upgrade as lift

revision = "0003"
down_revision = "0002"

VERSIONED = ("plan", "sauce", "appliance")


def upgrade() -> None:
    op.create_table(
        "meta",
        sa.Column("key", sa.String(), primary_key=True),
        sa.Column("value", sa.String(), nullable=False),
    )
    for table in VERSIONED:
        version = sa.Column("version", sa.Integer(), nullable=False, server_default="1")
        op.add_column(table, version)
    op.create_table(
        "cook_step",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("cook_id", sa.Integer(), sa.ForeignKey("cook.id"), nullable=False),
        sa.Column("place", sa.Integer(), nullable=False),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("who", sa.String(), nullable=False),
        sa.Column("label", sa.String(), nullable=False),
        sa.Column("low_s", sa.Float(), nullable=False),
        sa.Column("likely_s", sa.Float(), nullable=False),
        sa.Column("high_s", sa.Float(), nullable=False),
        sa.Column("data", sa.JSON(), nullable=False),
        sa.UniqueConstraint("cook_id", "place", name="uq_cook_step_place"),
    )
    op.create_index("ix_cook_step_cook_id", "cook_step", ["cook_id"])
    with op.batch_alter_table("cook_event") as batch:
        batch.add_column(sa.Column("uid", sa.String(), nullable=True))
        batch.create_unique_constraint("uq_cook_event_uid", ["cook_id", "uid"])
    with op.batch_alter_table("cook") as batch:
        batch.add_column(sa.Column("facts", sa.JSON(), nullable=True))
        batch.add_column(sa.Column("plan_id", sa.Integer(), nullable=True))
        batch.create_foreign_key("fk_cook_plan", "plan", ["plan_id"], ["id"])
        batch.add_column(sa.Column("deleted_at", sa.DateTime(), nullable=True))
        batch.add_column(sa.Column("planned_s", sa.Float(), nullable=True))
        batch.add_column(sa.Column("actual_s", sa.Float(), nullable=True))
        batch.add_column(sa.Column("unknown_steps", sa.Integer(), nullable=True))
        batch.add_column(sa.Column("strip", sa.JSON(), nullable=True))
    connection = op.get_bind()
    for cook_id, forecast in connection.execute(sa.text("select id, forecast from cook")).all():
        _lift_cook(connection, cook_id, json.loads(forecast))
    with op.batch_alter_table("cook") as batch:
        batch.drop_column("forecast")
        for name in ("facts", "planned_s", "unknown_steps", "strip"):
            batch.alter_column(name, nullable=False)
    for cook_id, colour in connection.execute(sa.text("select cook_id, colour from outcome")).all():
        connection.execute(
            sa.text("update outcome set colour = :colour where cook_id = :id"),
            {"id": cook_id, "colour": lift.upgrade_outcome(colour)},
        )


def _lift_cook(connection: sa.Connection, cook_id: int, forecast: dict) -> None:
    """Steps, facts and a summary of one cook; its events marked where they passed over a gate."""
    steps = lift.steps_of_forecast(forecast)
    for place, step in enumerate(steps):
        connection.execute(
            sa.text(
                "insert into cook_step (cook_id, place, key, who, label, low_s, likely_s, high_s,"
                " data) values (:cook_id, :place, :key, :who, :label, :low_s, :likely_s, :high_s,"
                " :data)"
            ),
            {**step, "cook_id": cook_id, "place": place, "data": json.dumps(step["data"])},
        )
    facts = lift.facts_of_forecast(forecast)
    connection.execute(
        sa.text(
            "update cook set facts = :facts, planned_s = :planned, unknown_steps = -1,"
            " strip = :strip where id = :id"
        ),
        {
            "id": cook_id,
            "facts": json.dumps(facts),
            "planned": facts["total"]["likely_s"],
            "strip": json.dumps(lift.strip_of_glaze(facts["glaze"], None)),
        },
    )
    found = connection.execute(
        sa.text("select id, seq, kind, data from cook_event where cook_id = :id order by seq"),
        {"id": cook_id},
    ).all()
    events = [{"seq": seq, "kind": kind, "data": json.loads(data)} for _, seq, kind, data in found]
    for (event_id, *_), data in zip(found, lift.mark_jumps(steps, events), strict=True):
        connection.execute(
            sa.text("update cook_event set data = :data where id = :id"),
            {"id": event_id, "data": json.dumps(data)},
        )


def downgrade() -> None:
    raise NotImplementedError("a forecast that was let go cannot be brought back; use a backup")
