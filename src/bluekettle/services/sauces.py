"""Recipes that are kept."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from typing import Any

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core.errors import OutOfRange
from bluekettle.core.glaze import index_to_hex
from bluekettle.core.sauce import colour_of
from bluekettle.schemas.base import AsidePublic
from bluekettle.schemas.sauce import SauceCreate, SauceKept, SaucesKept
from bluekettle.services.dishes import known_of
from bluekettle.services.errors import Changed, Conflict, NotFound, Unreadable
from bluekettle.services.paging import make_place, read_place
from bluekettle.services.recipes import read_recipe
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Plan, Sauce


def list_sauces(engine: Engine, search: str = "", after: str = "", most: int = 50) -> SaucesKept:
    """A page of kept sauces, by name."""
    place = read_place(after, moments=False)
    with Session(engine) as session:
        users = repositories.sauce_users(session)
        rows = repositories.sauces(session, most + 1, search, place)
        found, aside = [], []
        for row in rows[:most]:
            try:
                found.append(kept(row, users))
            except ValueError as error:
                why = str(error).splitlines()[0][:200]
                aside.append(AsidePublic(id=int(row.id or 0), title=row.name, why=why))
        more = ""
        if len(rows) > most:
            more = make_place(rows[most - 1].name, int(rows[most - 1].id or 0))
        return SaucesKept(sauces=found, aside=aside, more=more)


def get_sauce(engine: Engine, sauce_id: int) -> SauceKept:
    """One kept sauce; NotFound, Unreadable."""
    with Session(engine) as session:
        sauce = load(session, sauce_id)
        try:
            return kept(sauce, repositories.sauce_users(session))
        except ValueError as error:
            why = str(error).splitlines()[0][:200]
            raise Unreadable("sauce", sauce_id, sauce.name, why) from error


def keep_sauce(
    engine: Engine,
    document: SauceCreate,
    now: datetime,
    sauce_id: int | None = None,
    version: int | None = None,
) -> SauceKept:
    """Keep a new sauce, or change one. Lines that cannot be read are kept as they are.

    Raises NotFound; Changed where the sauce is no longer at the `version` that was read, and holds
    something else.
    """
    known_of(document.own)
    wanted = document.model_dump(mode="json")
    with Session(for_writing(engine)) as session:
        if sauce_id is None:
            sauce = Sauce(name="", document={}, version=0, updated_at=now)
        else:
            sauce = load(session, sauce_id)
            if version is not None and version != sauce.version:
                if sauce.document == wanted:  # the same save again, its answer was lost
                    return kept(sauce, repositories.sauce_users(session))
                raise Changed("sauce", sauce_id, sauce.version)
        sauce.name = document.name
        sauce.document = wanted
        sauce.version += 1
        sauce.updated_at = now
        session.add(sauce)
        session.flush()
        answer = kept(sauce, repositories.sauce_users(session))
        session.commit()
        return answer


def drop_sauce(engine: Engine, sauce_id: int, replace: bool) -> None:
    """Delete a sauce. Where plans hold a copy it is refused, unless `replace`: then the copies stay
    as their own.

    Raises NotFound; Conflict names the plans.
    """
    with Session(for_writing(engine)) as session:
        sauce = load(session, sauce_id)
        users = repositories.sauce_users(session).get(sauce_id, [])
        if users and not replace:
            names = ", ".join(title for _, title in users[:5])
            raise Conflict(
                f"“{sauce.name}” is used by {names}; delete it with replace=true and they keep"
                " their copy"
            )
        for plan_id, _ in users:
            plan = session.get(Plan, plan_id)
            if plan is not None:
                plan.dish = without_sauces(plan.dish, lambda number: number == sauce_id)
                session.add(plan)
        session.delete(sauce)
        session.commit()


def without_sauces(part: Any, gone: Callable[[int], bool]) -> Any:
    """The same document, its copies of sauces that are gone naming them no longer."""
    if isinstance(part, list):
        return [without_sauces(one, gone) for one in part]
    if not isinstance(part, dict):
        return part
    found = {key: without_sauces(one, gone) for key, one in part.items()}
    number = found.get("sauce_id")
    return {**found, "sauce_id": None} if isinstance(number, int) and gone(number) else found


def kept(sauce: Sauce, users: dict[int, list[tuple[int, str]]]) -> SauceKept:
    """A row as it is told."""
    assert sauce.id is not None
    document = SauceCreate.model_validate(sauce.document)
    return SauceKept(
        id=sauce.id,
        version=sauce.version,
        updated_at=sauce.updated_at,
        document=document,
        used_by=[title for _, title in users.get(sauce.id, [])],
        colour=raw_colour(document),
    )


def raw_colour(document: SauceCreate) -> str:
    """How it looks raw; empty where no line of it counts."""
    try:
        _, usable, _ = read_recipe(document)
    except OutOfRange:  # its own ingredients do not add up: told where it is opened
        return ""
    if not usable:
        return ""
    return index_to_hex(0.0, colour_of([item for item, _ in usable], [kg for _, kg in usable]))


def load(session: Session, sauce_id: int) -> Sauce:
    """A row; NotFound."""
    found = session.get(Sauce, sauce_id)
    if found is None:
        raise NotFound("sauce", sauce_id)
    return found
