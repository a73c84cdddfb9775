"""Cooks of one first heat and one finish become cooks of the chain that they were."""

import json
from contextlib import suppress

import sqlalchemy as sa
from alembic import op

from bluekettle.schemas import upgrade_cooks as lift
from bluekettle.schemas.upgrade import UNREADABLE

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    connection = op.get_bind()
    cooks = connection.execute(sa.text("select id, title, dish, facts from cook")).all()
    for cook_id, title, dish_text, facts_text in cooks:
        with suppress(*UNREADABLE):
            dish, facts = json.loads(dish_text), json.loads(facts_text)
            if facts.get("format") == "kettle.cook/1":
                lift_cook(connection, cook_id, title, dish, facts)


def lift_cook(connection: sa.Connection, cook_id: int, title: str, dish: dict, facts: dict) -> None:
    """The whole cook, or none of it: everything is read before anything is written."""
    mine = {"id": cook_id}
    steps = connection.execute(
        sa.text("select id, key, data from cook_step where cook_id = :id"), mine
    ).all()
    events = connection.execute(
        sa.text("select id, data from cook_event where cook_id = :id"), mine
    ).all()
    dressed = lift.is_dressed(key for _, key, _ in steps)
    new_steps = [
        {
            "id": step_id,
            "key": lift.step_key(key, dressed),
            "data": json.dumps(lift.step_data(json.loads(data), dressed)),
        }
        for step_id, key, data in steps
    ]
    new_events = [
        {"id": event_id, "data": json.dumps(lift.event_data(json.loads(data), dressed))}
        for event_id, data in events
    ]
    document = json.dumps(lift.chain_of_cook(dish, title))
    kept = json.dumps(lift.chain_facts(facts, dish))
    connection.execute(
        sa.text("update cook set dish = :dish, facts = :facts where id = :id"),
        {**mine, "dish": document, "facts": kept},
    )
    for step in new_steps:
        connection.execute(
            sa.text("update cook_step set key = :key, data = :data where id = :id"), step
        )
    for event in new_events:
        connection.execute(sa.text("update cook_event set data = :data where id = :id"), event)


def downgrade() -> None:
    raise NotImplementedError("a chain is not always a dish of two heats; use a backup")
