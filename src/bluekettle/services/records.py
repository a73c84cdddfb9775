"""Every kept record, tried for whether it can still be read."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Engine
from sqlmodel import Session, col, select

from bluekettle.schemas.base import AsidePublic
from bluekettle.services.errors import Unreadable
from bluekettle.services.kept_meals import list_meals
from bluekettle.services.kitchen import get_kitchen
from bluekettle.services.log import load
from bluekettle.services.plans import list_plans
from bluekettle.services.sauces import list_sauces
from bluekettle.store.tables import Cook

PAGE = 200


def unreadable(engine: Engine) -> list[str]:
    """What cannot be read, one line for each record."""
    found = [("cook", one) for one in cooks_aside(engine)]
    found += [("plan", one) for one in aside_of(lambda after: list_plans(engine, "", after, PAGE))]
    found += [("meal", one) for one in aside_of(lambda after: list_meals(engine, "", after, PAGE))]
    found += [
        ("sauce", one) for one in aside_of(lambda after: list_sauces(engine, "", after, PAGE))
    ]
    found += [("appliance", one) for one in get_kitchen(engine, datetime.now(UTC)).aside]
    return [f"{kind} {one.id} “{one.title}”: {one.why}" for kind, one in found]


def aside_of(page: Callable[[str], Any]) -> Iterator[AsidePublic]:
    """What all pages of a list set aside."""
    after = ""
    while True:
        found = page(after)
        yield from found.aside
        after = found.more
        if not after:
            return


def cooks_aside(engine: Engine) -> Iterator[AsidePublic]:
    """Cooks that cannot be read."""
    with Session(engine) as session:
        keys = session.exec(select(Cook.id).where(col(Cook.deleted_at).is_(None))).all()
        for key in keys:
            try:
                load(session, int(key or 0))
            except Unreadable as error:
                yield AsidePublic(id=error.key, title=error.title, why=str(error))
