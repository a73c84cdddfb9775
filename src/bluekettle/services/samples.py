"""Whether a database is the sample scenario, one's own kitchen, or empty."""

from __future__ import annotations

from sqlalchemy import Engine
from sqlmodel import Session, select

from bluekettle.store.tables import Appliance, Cook, KitchenSettings, Meta, Plan, Sauce

KEY = "sample"


def is_empty(engine: Engine) -> bool:
    """Whether nothing was ever kept."""
    with Session(engine) as session:
        kept = (Plan, Cook, Sauce, Appliance, KitchenSettings)
        return all(session.exec(select(table).limit(1)).first() is None for table in kept)


def is_sample(engine: Engine) -> bool:
    """Whether the sample scenario was filled in here."""
    with Session(engine) as session:
        return session.get(Meta, KEY) is not None


def mark_sample(engine: Engine, name: str) -> None:
    """Remember that a database is a sample."""
    with Session(engine) as session:
        session.merge(Meta(key=KEY, value=name))
        session.commit()
