"""Plans, and what they were before, of one heat and one finish become the chains that they are."""

import json
from contextlib import suppress

import sqlalchemy as sa
from alembic import op

from bluekettle.schemas import upgrade as lift

revision = "0006"
down_revision = "0005"

TABLES = ("plan", "plan_revision")


def upgrade() -> None:
    connection = op.get_bind()
    for table in TABLES:
        rows = connection.execute(sa.text(f"select id, title, dish from {table}")).all()
        for row_id, title, text in rows:
            with suppress(*lift.UNREADABLE):
                chain = lift.chain_of_plan(json.loads(text), title)
                connection.execute(
                    sa.text(f"update {table} set dish = :dish where id = :id"),
                    {"id": row_id, "dish": json.dumps(chain)},
                )


def downgrade() -> None:
    raise NotImplementedError("a chain is not always a dish of two heats; use a backup")
