"""A meal is cooked: each dish as a cook of its own, that begins and waits as the plan says."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import datetime, timedelta

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core.errors import OutOfRange
from bluekettle.core.stages import StepPlan, waiting_step
from bluekettle.schemas.cook import AcceptedPublic
from bluekettle.schemas.meal import (
    MealDocument,
    MealStartCreate,
    MealStartedPublic,
    MealWaitPublic,
    SchedulePublic,
)
from bluekettle.services.errors import Conflict
from bluekettle.services.kept_meals import get_meal, resolved
from bluekettle.services.log import load, summarise
from bluekettle.services.meal_parts import document_of
from bluekettle.services.strips import Strips
from bluekettle.services.telling import (
    SHORTEST_WAIT_S,
    Begun,
    accepted_stops,
    add_cook,
    any_seed,
)
from bluekettle.services.workshop import Workshop, always
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing

BEFORE = timedelta(minutes=1)  # the first act a rehearsal begins
# How food waits as steps say it: in its vessel or covered; or out of its fire.
COVERED = {"covered", "shut", "bath", "moist-past"}
UNCOVERED = {"crisp", "glazed", "rested"}


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
    document, plan = planned(engine, meal_id, strips.workshop, now)
    if not document.dishes:
        raise Conflict("a meal of sides alone has nothing to follow on the stove")
    if not plan.feasible:
        raise Conflict(" ".join(one.says for one in plan.reasons))
    begins, request = begin_of(plan, request, now)
    begun: list[Begun] = []
    for one in document.dishes:
        dish = document_of(one).model_copy(update={"serve_at": None})
        forecast, steps, facts = strips.workshop.run("begin", dish, now)
        steps = as_planned(steps, plan, one.id, begins)
        told = dish.model_dump(mode="json"), facts.model_dump(mode="json")
        begun.append(Begun(forecast, steps, *told))
    accepted = [accepted_stops(one.forecast, request.accepted) for one in begun]
    return keep_all(engine, meal_id, begun, accepted, request, (now, begins))


def planned(
    engine: Engine,
    meal_id: int,
    workshop: Workshop,
    now: datetime,
    waits: Callable[[], bool] = always,
) -> tuple[MealDocument, SchedulePublic]:
    """A kept meal with what it names put in, and its plan; NotFound, Unreadable, and Conflict
    where it cannot be planned as it is kept: nothing on it, its moment past, a plan deleted.
    """
    meal = get_meal(engine, meal_id).meal
    try:
        document = resolved(engine, meal)
        return document, workshop.run("schedule", document, now, waits=waits)
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
    begun: Sequence[Begun],
    accepted: Sequence[Sequence[AcceptedPublic]],
    request: MealStartCreate,
    clocks: tuple[datetime, datetime],
) -> MealStartedPublic:
    """Keep all cooks in one transaction. clocks : now, and what their own shows."""
    with Session(for_writing(engine)) as session:
        refuse_under_way(session, meal_id)
        keys = []
        for one, stops in zip(begun, accepted, strict=True):
            cook = add_cook(session, one, stops, request.rehearsal, *clocks)
            cook.meal_id = meal_id
            session.flush()
            summarise(load(session, int(cook.id or 0)))
            keys.append(int(cook.id or 0))
        session.commit()
        return MealStartedPublic(cooks=keys)


def as_planned(
    steps: Sequence[StepPlan], plan: SchedulePublic, dish: str, now: datetime
) -> tuple[StepPlan, ...]:
    """The steps of a dish behind a wait for its begin, with the covered wait that the meal gives
    it before its fire.
    """
    found = list(steps)
    for number, wait in enumerate(wait for wait in plan.waits if wait.line == dish):
        step = step_of(wait, number + 1)
        after = wait.before.removeprefix(f"{dish}/")
        place = next((n for n, one in enumerate(found) if one.key == after), None)
        if step is not None and place is not None:
            found.insert(place, step)
    mine = [task for task in plan.tasks if task.line == dish]
    keys = [f"{dish}/{step.key}" for step in steps if not step.beside]
    first = min(task.start_at for task in mine if task.key in keys)
    until_s = (first - now).total_seconds()
    return (waiting_step(until_s), *found) if until_s >= SHORTEST_WAIT_S else tuple(found)


def step_of(wait: MealWaitPublic, number: int) -> StepPlan | None:
    """A wait of the plan as a step; None for one that is short, or in the fridge."""
    seconds = (wait.end_at - wait.start_at).total_seconds()
    if seconds < SHORTEST_WAIT_S or wait.how not in COVERED | UNCOVERED:
        return None
    root = "slack" if wait.how in COVERED else "uncovered"
    return StepPlan(f"meal-{number}.{root}", "machine", wait.says, seconds, seconds, seconds)
