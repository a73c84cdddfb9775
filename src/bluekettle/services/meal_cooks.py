"""A meal is cooked: each dish as a cook of its own, that begins and waits as the plan says."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from datetime import datetime, timedelta

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core.errors import OutOfRange
from bluekettle.core.schedule import Schedule
from bluekettle.schemas.cook import AcceptedPublic
from bluekettle.schemas.meal import (
    MealDocument,
    MealStartCreate,
    MealStartedPublic,
    SchedulePublic,
)
from bluekettle.services.errors import Conflict
from bluekettle.services.kept_meals import get_meal, resolved
from bluekettle.services.kept_suppers import (
    KeptSide,
    KeptSupper,
    begun_supper,
    first_steps,
    kept_json,
    side_steps,
)
from bluekettle.services.log import load, summarise
from bluekettle.services.meal_parts import dish_here
from bluekettle.services.strips import Strips
from bluekettle.services.telling import (
    Begun,
    accepted_stops,
    add_cook,
    any_seed,
)
from bluekettle.services.workshop import Workshop, always
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Supper

BEFORE = timedelta(minutes=1)  # the first act a rehearsal begins


def start_meal(
    engine: Engine, meal_id: int, request: MealStartCreate, now: datetime, strips: Strips
) -> MealStartedPublic:
    """Begin all dishes of a kept meal, or none of them.

    Raises
    ------
    NotFound
    Conflict
        It is under way already, it has no dish, or it cannot be cooked like this.
    Stopped
        A stop stands that is neither repaired nor given a reason for.
    """
    refuse_twice(engine, meal_id)
    document, plan, core = planned_whole(engine, meal_id, strips.workshop, now)
    if not document.dishes:
        raise Conflict("a meal of sides alone has nothing to follow on the stove")
    if core is None:
        raise Conflict(" ".join(one.says for one in plan.reasons))
    begins, request = begin_of(plan, request, now)
    kept = begun_supper(core[0], document.name, core[1], begins)
    begun: dict[str, Begun] = {}
    for one in document.dishes:
        dish = dish_here(one, document.kitchen)
        forecast, steps, facts = strips.workshop.run("begin", dish, now)
        steps = first_steps(kept, one.id, steps)
        told = dish.model_dump(mode="json"), facts.model_dump(mode="json")
        begun[one.id] = Begun(forecast, steps, *told)
    kept = with_sides(kept, core[0], tuple(begun))
    stops = {line: accepted_stops(one.forecast, request.accepted) for line, one in begun.items()}
    return keep_all(engine, meal_id, begun, stops, kept, request, now)


def with_sides(kept: KeptSupper, plan: Schedule, dishes: Sequence[str]) -> KeptSupper:
    """The supper with its sides, which are no cooks of their own."""
    sides = {
        line.key: KeptSide(first_steps(kept, line.key, side_steps(line)))
        for line in plan.lines
        if line.key not in dishes
    }
    return replace(kept, sides=sides)


def planned(
    engine: Engine,
    meal_id: int,
    workshop: Workshop,
    now: datetime,
    waits: Callable[[], bool] = always,
) -> SchedulePublic:
    """The plan of a kept meal; as `planned_whole`."""
    return planned_whole(engine, meal_id, workshop, now, waits)[1]


def planned_whole(
    engine: Engine,
    meal_id: int,
    workshop: Workshop,
    now: datetime,
    waits: Callable[[], bool] = always,
) -> tuple[MealDocument, SchedulePublic, tuple[Schedule, datetime] | None]:
    """A kept meal with what it names put in, and its plan as it is told and as the core has it;
    NotFound, Unreadable, and Conflict where it cannot be planned as it is kept: nothing on it, its
    moment past, a plan deleted.
    """
    meal = get_meal(engine, meal_id).meal
    try:
        document = resolved(engine, meal, now)
        return document, *workshop.run("supper", document, now, waits=waits)
    except OutOfRange as error:
        raise Conflict(f"as it is kept it cannot be planned: {error}") from error


def begin_of(
    plan: SchedulePublic, request: MealStartCreate, now: datetime
) -> tuple[datetime, MealStartCreate]:
    """What the clock of the cooks shows as they begin, that of a rehearsal a minute before the
    first act; and the request with one hidden kitchen for all of them.
    """
    if request.rehearsal is None:
        return now, request
    seed = any_seed() if request.rehearsal.seed is None else request.rehearsal.seed
    one = request.rehearsal.model_copy(update={"seed": seed})
    return plan.first_at - BEFORE, request.model_copy(update={"rehearsal": one})


def refuse_twice(engine: Engine, meal_id: int) -> None:
    """Conflict where the meal is under way."""
    with Session(engine) as session:
        refuse_under_way(session, meal_id)


def refuse_under_way(session: Session, meal_id: int) -> None:
    """Conflict where a cook of the meal is under way."""
    if repositories.live_cooks_of_meal(session, meal_id):
        raise Conflict("this meal is on the stove already")


def keep_all(
    engine: Engine,
    meal_id: int,
    begun: Mapping[str, Begun],
    accepted: Mapping[str, Sequence[AcceptedPublic]],
    kept: KeptSupper,
    request: MealStartCreate,
    now: datetime,
) -> MealStartedPublic:
    """Keep the supper and all of its cooks in one transaction."""
    with Session(for_writing(engine)) as session:
        refuse_under_way(session, meal_id)
        supper = Supper(title=kept.name or "Supper", document=kept_json(kept), updated_at=now)
        session.add(supper)
        session.flush()
        keys = []
        for line, one in begun.items():
            cook = add_cook(session, one, accepted[line], request.rehearsal, now, kept.began)
            cook.meal_id, cook.supper_id, cook.line = meal_id, supper.id, line
            session.flush()
            summarise(load(session, int(cook.id or 0)))
            keys.append(int(cook.id or 0))
        session.commit()
        return MealStartedPublic(supper=int(supper.id or 0), cooks=keys)
