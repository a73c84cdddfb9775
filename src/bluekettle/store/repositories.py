"""Queries, by table."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from typing import Any

from sqlalchemy.orm import defer
from sqlmodel import Session, and_, case, col, delete, func, or_, select, update

from bluekettle.store.tables import (
    Appliance,
    Cook,
    CookEvent,
    CookStep,
    Meal,
    Observation,
    Outcome,
    Plan,
    PlanRevision,
    Reading,
    Rehearsal,
    Sauce,
)

Place = tuple[str, int]


def titled(title: Any, search: str) -> list[Any]:
    """Conditions: a title holds every word sought."""
    return [col(title).icontains(word, autoescape=True) for word in search.split()]


def older_than(moment: Any, key: Any, place: Place | None) -> list[Any]:
    """Conditions: what comes after a place in a list that has the newest first."""
    if place is None:
        return []
    at = datetime.fromisoformat(place[0])
    return [or_(col(moment) < at, and_(col(moment) == at, col(key) < place[1]))]


def plans(
    session: Session, most: int, search: str = "", place: Place | None = None
) -> Sequence[Plan]:
    """Kept plans whose title holds the words sought, newest first, from a place on."""
    wanted = select(Plan).where(*titled(Plan.title, search))
    wanted = wanted.where(*older_than(Plan.updated_at, Plan.id, place))
    order = (col(Plan.updated_at).desc(), col(Plan.id).desc())
    return session.exec(wanted.order_by(*order).limit(most)).all()


def meals(
    session: Session, most: int, search: str = "", place: Place | None = None
) -> Sequence[Meal]:
    """Kept meals whose title holds the words sought, newest first, from a place on."""
    wanted = select(Meal).where(*titled(Meal.title, search))
    wanted = wanted.where(*older_than(Meal.updated_at, Meal.id, place))
    order = (col(Meal.updated_at).desc(), col(Meal.id).desc())
    return session.exec(wanted.order_by(*order).limit(most)).all()


def forget_meal(session: Session, meal_id: int) -> None:
    """Cooks that were part of a meal no longer name it."""
    session.exec(update(Cook).where(col(Cook.meal_id) == meal_id).values(meal_id=None))


def live_cooks_of_meal(session: Session, meal_id: int) -> Sequence[int]:
    """Numbers of the cooks of a meal that are under way."""
    wanted = select(Cook.id).where(Cook.meal_id == meal_id)
    wanted = wanted.where(col(Cook.ended_at).is_(None), col(Cook.deleted_at).is_(None))
    return [int(key or 0) for key in session.exec(wanted).all()]


def cooks_of_supper(session: Session, supper_id: int) -> Sequence[Cook]:
    """The dishes of a supper that are under way."""
    wanted = select(Cook).where(Cook.supper_id == supper_id)
    wanted = wanted.where(col(Cook.ended_at).is_(None), col(Cook.deleted_at).is_(None))
    return session.exec(wanted.order_by(col(Cook.id))).all()


def forget_plan(session: Session, plan_id: int) -> None:
    """Cooks that came from a plan no longer name it; what it was before goes with it."""
    session.exec(update(Cook).where(col(Cook.plan_id) == plan_id).values(plan_id=None))
    session.exec(delete(PlanRevision).where(col(PlanRevision.plan_id) == plan_id))


def revisions(session: Session, plan_id: int) -> Sequence[PlanRevision]:
    """What a plan was before, newest first."""
    wanted = select(PlanRevision).where(PlanRevision.plan_id == plan_id)
    return session.exec(wanted.order_by(col(PlanRevision.id).desc())).all()


def cooks(
    session: Session, search: str, before: tuple[str, int] | None, most: int
) -> Sequence[Cook]:
    """Cooks whose title holds the words sought, newest first, from a place on. A rehearsal is one
    of them only where it is kept.
    """
    rehearsed = select(Rehearsal.cook_id).where(col(Rehearsal.kept).is_(False))
    wanted = select(Cook).where(col(Cook.deleted_at).is_(None), *titled(Cook.title, search))
    wanted = wanted.where(col(Cook.id).not_in(rehearsed))
    wanted = wanted.where(*older_than(Cook.started_at, Cook.id, before))
    wanted = wanted.options(defer(Cook.dish), defer(Cook.facts))  # type: ignore[arg-type]
    order = (col(Cook.started_at).desc(), col(Cook.id).desc())
    return session.exec(wanted.order_by(*order).limit(most)).all()


def live_cooks(session: Session, most: int) -> Sequence[Cook]:
    """Cooks under way, newest first."""
    wanted = select(Cook).where(col(Cook.ended_at).is_(None), col(Cook.deleted_at).is_(None))
    return session.exec(wanted.order_by(col(Cook.id).desc()).limit(most)).all()


def unsummarised(session: Session) -> Sequence[Cook]:
    """Cooks whose summary is still to be made."""
    return session.exec(select(Cook).where(col(Cook.unknown_steps) < 0)).all()


def steps(session: Session, cook_id: int) -> Sequence[CookStep]:
    """A cook's planned steps in order."""
    wanted = select(CookStep).where(CookStep.cook_id == cook_id)
    return session.exec(wanted.order_by(col(CookStep.place))).all()


def events(session: Session, cook_id: int) -> Sequence[CookEvent]:
    """A cook's events in order."""
    wanted = select(CookEvent).where(CookEvent.cook_id == cook_id)
    return session.exec(wanted.order_by(col(CookEvent.seq))).all()


def append_event(
    session: Session,
    cook_id: int,
    kind: str,
    happened_at: datetime,
    recorded_at: datetime,
    data: dict[str, Any],
    uid: str | None = None,
) -> CookEvent:
    """Append one event with the next number."""
    last = session.exec(select(func.max(CookEvent.seq)).where(CookEvent.cook_id == cook_id)).one()
    event = CookEvent(
        cook_id=cook_id,
        seq=(last or 0) + 1,
        uid=uid,
        kind=kind,
        happened_at=happened_at,
        recorded_at=recorded_at,
        data=data,
    )
    session.add(event)
    return event


# Of each quantity that is read, how many of the newest marks are looked at: at one in 30 s five
# hours of the food, and half an hour of what is around it.
MARKS = {"core_c": 600, "air_c": 60, "pin": 60}


def newest_readings(session: Session, cook_id: int) -> dict[str, Reading]:
    """The newest reading of each quantity that was read."""
    found = {}
    for quantity in MARKS:
        wanted = select(Reading).where(Reading.cook_id == cook_id, Reading.quantity == quantity)
        newest = session.exec(wanted.order_by(col(Reading.taken_at).desc()).limit(1)).first()
        if newest is not None:
            found[quantity] = newest
    return found


def newest_of_device(
    session: Session, cook_id: int, quantity: str, device: str, marked: bool = False
) -> Reading | None:
    """A device's newest reading of a quantity, or its newest marked one; None where it has none."""
    wanted = select(Reading).where(
        Reading.cook_id == cook_id, Reading.quantity == quantity, Reading.device == device
    )
    if marked:
        wanted = wanted.where(col(Reading.mark).is_(True))
    return session.exec(wanted.order_by(col(Reading.taken_at).desc()).limit(1)).first()


def marks(session: Session, cook_id: int) -> list[Reading]:
    """The newest readings that a forecast is held against, those of each quantity in order of
    time.
    """
    found: list[Reading] = []
    for quantity, most in MARKS.items():
        wanted = select(Reading).where(
            Reading.cook_id == cook_id, Reading.quantity == quantity, col(Reading.mark).is_(True)
        )
        wanted = wanted.order_by(col(Reading.taken_at).desc()).limit(most)
        found += reversed(session.exec(wanted).all())
    return found


def outcomes(session: Session, cook_ids: Sequence[int]) -> dict[int, Outcome]:
    """Outcomes by cook."""
    found = session.exec(select(Outcome).where(col(Outcome.cook_id).in_(cook_ids))).all()
    return {outcome.cook_id: outcome for outcome in found}


def sauces(
    session: Session, most: int, search: str = "", place: Place | None = None
) -> Sequence[Sauce]:
    """Kept sauces by name, from a place on."""
    wanted = select(Sauce).where(*titled(Sauce.name, search))
    if place is not None:
        name, key = place
        after = and_(col(Sauce.name) == name, col(Sauce.id) > key)
        wanted = wanted.where(or_(col(Sauce.name) > name, after))
    return session.exec(wanted.order_by(col(Sauce.name), col(Sauce.id)).limit(most)).all()


def sauce_users(session: Session) -> dict[int, list[tuple[int, str]]]:
    """Number and title of the plans that hold a copy of a kept sauce, as their sauce or in one of
    their layers, by the sauce's number.
    """
    whole = case((func.json_valid(Plan.dish) == 1, Plan.dish), else_="{}")
    parts = func.json_tree(whole).table_valued("key", "atom", joins_implicitly=True)
    wanted = select(Plan.id, Plan.title, parts.c.atom).distinct()
    wanted = wanted.where(parts.c.key == "sauce_id", parts.c.atom.is_not(None))
    found: dict[int, list[tuple[int, str]]] = {}
    for plan_id, title, sauce in session.exec(wanted.order_by(col(Plan.id))).all():
        found.setdefault(int(sauce), []).append((int(plan_id or 0), title))
    return found


def appliances(session: Session) -> Sequence[Appliance]:
    """All appliances in the order in which they came."""
    return session.exec(select(Appliance).order_by(col(Appliance.id))).all()


def observations(session: Session, appliance_id: int) -> Sequence[Observation]:
    """What was seen of an appliance, in order, but for what stands in a deleted cook."""
    gone = select(Cook.id).where(col(Cook.deleted_at).is_not(None))
    wanted = select(Observation).where(
        Observation.appliance_id == appliance_id,
        or_(col(Observation.cook_id).is_(None), col(Observation.cook_id).not_in(gone)),
    )
    return session.exec(wanted.order_by(col(Observation.made_at), col(Observation.id))).all()


def forget_appliance(session: Session, appliance_id: int) -> None:
    """Delete all that was seen of an appliance, what stands in deleted cooks too."""
    session.exec(delete(Observation).where(col(Observation.appliance_id) == appliance_id))


def observations_of_cook(session: Session, cook_id: int) -> Sequence[Observation]:
    """Signs that were told while something was cooked, in order."""
    wanted = select(Observation).where(Observation.cook_id == cook_id)
    return session.exec(wanted.order_by(col(Observation.made_at), col(Observation.id))).all()
