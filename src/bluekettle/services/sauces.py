"""Recipes that are kept."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.schemas.sauce import (
    SauceCreate,
    SauceKept,
    SaucesKept,
)
from bluekettle.services.dishes import known_of
from bluekettle.services.errors import Conflict, NotFound
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Plan, Sauce

MOST = 200


def list_sauces(engine: Engine) -> SaucesKept:
    """Kept sauces."""
    with Session(engine) as session:
        users = repositories.sauce_users(session)
        return SaucesKept(sauces=[kept(s, users) for s in repositories.sauces(session, MOST)])


def get_sauce(engine: Engine, sauce_id: int) -> SauceKept:
    """One kept sauce; NotFound."""
    with Session(engine) as session:
        return kept(load(session, sauce_id), repositories.sauce_users(session))


def keep_sauce(
    engine: Engine, document: SauceCreate, now: datetime, sauce_id: int | None = None
) -> SauceKept:
    """Keep a new sauce, or change one. Lines that cannot be read are kept as they are."""
    known_of(document.own)
    with Session(for_writing(engine)) as session:
        sauce = (
            load(session, sauce_id)
            if sauce_id is not None
            else Sauce(name="", document={}, updated_at=now)
        )
        sauce.name = document.name
        sauce.document = document.model_dump(mode="json")
        sauce.updated_at = now
        session.add(sauce)
        session.commit()
        session.refresh(sauce)
        return kept(sauce, repositories.sauce_users(session))


def drop_sauce(engine: Engine, sauce_id: int, replace: bool) -> None:
    """Delete a sauce. Where plans hold a copy it is refused, unless `replace`: then the copies stay
    as their own.

    Raises NotFound; Conflict names the plans.
    """
    with Session(for_writing(engine)) as session:
        sauce = load(session, sauce_id)
        users = repositories.sauce_users(session).get(sauce_id, [])
        if users and not replace:
            names = ", ".join(plan.title for plan in users[:5])
            raise Conflict(
                f"“{sauce.name}” is used by {names}; delete it with replace=true and they keep"
                " their copy"
            )
        for plan in users:
            dish = dict(plan.dish)
            dish["sauce"] = {**dish["sauce"], "sauce_id": None}
            plan.dish = dish
            session.add(plan)
        session.delete(sauce)
        session.commit()


def kept(sauce: Sauce, users: dict[int, list[Plan]]) -> SauceKept:
    """A row as it is told."""
    assert sauce.id is not None
    document = SauceCreate.model_validate(sauce.document)
    titles = [plan.title for plan in users.get(sauce.id, [])]
    return SauceKept(id=sauce.id, updated_at=sauce.updated_at, document=document, used_by=titles)


def load(session: Session, sauce_id: int) -> Sauce:
    """A row; NotFound."""
    found = session.get(Sauce, sauce_id)
    if found is None:
        raise NotFound("sauce", sauce_id)
    return found
