"""Meals that are kept, and the plans that their dishes are."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core.errors import Fault, OutOfRange
from bluekettle.schemas.base import AsidePublic
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.meal import (
    MealBodyDocument,
    MealDocument,
    MealPublic,
    MealsPublic,
)
from bluekettle.services.errors import Changed, NotFound, Unreadable
from bluekettle.services.kitchen import get_kitchen, zones_of
from bluekettle.services.meal_parts import kind_of_body
from bluekettle.services.paging import make_place, read_place
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Meal, Plan


def list_meals(engine: Engine, search: str = "", after: str = "", most: int = 50) -> MealsPublic:
    """A page of meals, newest first."""
    place = read_place(after)
    with Session(engine) as session:
        rows = repositories.meals(session, most + 1, search, place)
        found, aside = [], []
        for row in rows[:most]:
            try:
                found.append(public(session, row))
            except Unreadable as error:
                aside.append(AsidePublic(id=int(row.id or 0), title=row.title, why=str(error)))
        more = ""
        if len(rows) > most:
            last = rows[most - 1]
            more = make_place(last.updated_at.isoformat(), int(last.id or 0))
        return MealsPublic(meals=found, aside=aside, more=more)


def get_meal(engine: Engine, meal_id: int) -> MealPublic:
    """One meal; NotFound, Unreadable."""
    with Session(engine) as session:
        return public(session, load(session, meal_id))


def keep_meal(
    engine: Engine,
    document: MealDocument,
    now: datetime,
    meal_id: int | None = None,
    version: int | None = None,
) -> MealPublic:
    """Keep a new meal, or change the one named.

    Raises
    ------
    NotFound
    Changed
        The meal is no longer at the `version` that was read, and holds something else.
    """
    wanted = document.model_dump(mode="json")
    with Session(for_writing(engine)) as session:
        if meal_id is None:
            meal = Meal(title="", document={}, version=0, updated_at=now)
        else:
            meal = load(session, meal_id)
            if version is not None and version != meal.version:
                if meal.document == wanted:  # the same save again, its answer was lost
                    return public(session, meal)
                raise Changed("meal", meal_id, meal.version)
        meal.title = document.name or "A meal"
        meal.document = wanted
        meal.version += 1
        meal.updated_at = now
        session.add(meal)
        session.flush()
        answer = public(session, meal)
        session.commit()
        return answer


def drop_meal(engine: Engine, meal_id: int) -> None:
    """Delete a meal; the plans of its dishes stay."""
    with Session(for_writing(engine)) as session:
        meal = load(session, meal_id)
        repositories.forget_meal(session, meal_id)
        session.delete(meal)
        session.commit()


def load(session: Session, meal_id: int) -> Meal:
    """One row; NotFound."""
    meal = session.get(Meal, meal_id)
    if meal is None:
        raise NotFound("meal", meal_id)
    return meal


def public(session: Session, row: Meal) -> MealPublic:
    """A meal as it is told, with the dishes whose plan was deleted; Unreadable."""
    try:
        document = MealDocument.model_validate(row.document)
    except ValueError as error:
        why = str(error).splitlines()[0][:200]
        raise Unreadable("meal", int(row.id or 0), row.title, why) from None
    missing = [
        one.id
        for one in document.dishes
        if one.plan_id is not None and session.get(Plan, one.plan_id) is None
    ]
    return MealPublic(
        id=int(row.id or 0),
        title=row.title,
        meal=document,
        version=row.version,
        updated_at=row.updated_at,
        missing=missing,
    )


def resolved(engine: Engine, document: MealDocument, now: datetime) -> MealDocument:
    """The meal with its kept plans and the kept kitchen put in.

    Raises OutOfRange for a plan that is not there, or that cannot be read.
    """
    faults: list[Fault] = []
    dishes = []
    with Session(engine) as session:
        for place, one in enumerate(document.dishes):
            if one.plan_id is None:
                dishes.append(one)
                continue
            plan = session.get(Plan, one.plan_id)
            try:
                if plan is None:
                    raise ValueError("a kept plan: this one was deleted")
                dish = ChainDocument.model_validate(plan.dish)
            except ValueError as error:
                why = str(error).splitlines()[0][:200]
                faults.append(Fault(f"dishes.{place}.plan_id", one.plan_id, why))
                continue
            name = one.name or plan.title
            dishes.append(one.model_copy(update={"dish": dish, "name": name}))
        if faults:
            raise OutOfRange(faults)
        appliances = document.appliances
        if appliances is None:
            appliances = kitchen_bodies(session)
    kitchen = document.kitchen or get_kitchen(engine, now).for_plans
    known = {"dishes": dishes, "appliances": appliances, "kitchen": kitchen}
    return document.model_copy(update=known)


def kitchen_bodies(session: Session) -> list[MealBodyDocument]:
    """What the kept kitchen has to cook in; nothing where no appliance is kept."""
    found = []
    for kept in repositories.appliances(session):
        kind = kind_of_body(kept.kind)
        if kept.in_use and kind:
            found.append(MealBodyDocument(kind=kind, name=kept.name, zones=zones_of(kept)))
    return found
