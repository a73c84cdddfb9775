"""The plan of a meal, from its document; and what one can be made of."""

from __future__ import annotations

import json
from dataclasses import replace
from datetime import datetime, timedelta
from functools import cache
from pathlib import Path

from bluekettle.core import schedule as meals
from bluekettle.core.errors import Fault, Infeasible, NotConverged, OutOfRange
from bluekettle.core.tables import rows
from bluekettle.schemas.meal import (
    MadeMealPublic,
    MealChoicesPublic,
    MealDocument,
    SchedulePublic,
    SidePublic,
)
from bluekettle.services.forecasts import serving_faults
from bluekettle.services.meal_parts import bodies_of, forecasts_of, side_of
from bluekettle.services.meal_repairs import elsewhere
from bluekettle.services.meal_words import NO_BODY, Clock, Told

SOON = timedelta(minutes=10)  # beyond the earliest supper, where none is wished for
LONG = timedelta(hours=6)  # where there is none
ROUND = timedelta(minutes=5)
TOO_MUCH = "fewer of them, or more pairs of hands: no plan was found in the time there is"
FOLDER = Path(__file__).parents[1] / "meals"


@cache
def choices() -> MealChoicesPublic:
    """Sides, what can be cooked in, and made meals to begin with."""
    sides = [
        SidePublic(
            key=key,
            name=one.name,
            prepare_min=one.prepare_min,
            cook_min=one.cook_min,
            body=one.body,
            holds_min=one.holds_min,
        )
        for key, one in ((key, meals.side(key)) for key in meals.side_keys())
    ]
    made = []
    for file in sorted(FOLDER.glob("*.json")):
        raw = json.loads(file.read_text(encoding="utf-8"))
        meal = MealDocument.model_validate(raw["meal"])
        made.append(MadeMealPublic(key=raw["key"], hours=raw["hours"], meal=meal))
    bodies = {key: line["name"] for key, line in rows("bodies").items()}
    return MealChoicesPublic(sides=sides, bodies=bodies, made=made)


def schedule_meal(document: MealDocument, now: datetime) -> SchedulePublic:
    """The plan of a meal whose kept plans were put in before; as `planned_meal`."""
    return planned_meal(document, now)[0]


def planned_meal(
    document: MealDocument, now: datetime
) -> tuple[SchedulePublic, tuple[meals.Schedule, datetime] | None]:
    """The plan of a meal whose kept plans were put in before, as it is told and as the core has it,
    with the moment that this counts from; None where it cannot be cooked like this.

    Raises
    ------
    OutOfRange
        Every fault of dishes, sides and moments; or too much for a plan to be found.
    """
    asked = Asked(document, now)
    told, clock = asked.told, asked.told.clock
    try:
        plan = meals.schedule(*asked.task)
    except NotConverged as error:
        raise asked.too_much() from error
    except Infeasible as error:
        kinds = [one.removeprefix(NO_BODY) for one in error.conflicts if one.startswith(NO_BODY)]
        more = elsewhere(document, asked.meal, asked.kitchen, clock, now, kinds)
        return told.impossible(error, more), None
    answer = told.plan(plan)
    kinds = [one.key for one in told.reasons if one.kind == "body"]
    more = elsewhere(document, asked.meal, asked.kitchen, clock, now, kinds)
    answer = answer.model_copy(update={"repairs": [*answer.repairs, *more]})
    return answer, (plan, clock.serve_at)


def first_plan(document: MealDocument, now: datetime) -> SchedulePublic:
    """What is found first, without what would mend it; as `planned_meal`."""
    asked = Asked(document, now)
    try:
        plan = meals.first_schedule(*asked.task)
    except NotConverged as error:
        raise asked.too_much() from error
    except Infeasible as error:
        return asked.told.impossible(error, []).model_copy(update={"first": True})
    return asked.told.first(plan)


class Asked:
    """A meal, its kitchen and its moment, checked; OutOfRange with every fault."""

    def __init__(self, document: MealDocument, now: datetime) -> None:
        faults = serving_faults(document.serve_at, now)
        try:
            dishes = forecasts_of(document, now)
        except OutOfRange as error:
            raise OutOfRange([*faults, *error.faults]) from error
        if faults:
            raise OutOfRange(faults)
        sides = tuple((one.id, side_of(one)) for one in document.sides)
        self.meal = meals.Meal(dishes, sides)
        bodies, names, assumed = bodies_of(document.appliances, dishes, [one for _, one in sides])
        kitchen = meals.MealKitchen(bodies, document.hands)
        serve_at = document.serve_at or soon(self.meal, kitchen, document, now)
        clock = Clock(serve_at)
        self.kitchen = with_quiet(kitchen, document, clock)
        self.told = Told(document, self.meal, names, assumed, clock)
        self.at_s = clock.seconds(now)

    @property
    def task(self) -> tuple[meals.Meal, meals.MealKitchen, float]:
        """As the core is asked."""
        return self.meal, self.kitchen, self.at_s

    def too_much(self) -> OutOfRange:
        """No plan was found in the time there is."""
        return OutOfRange([Fault("dishes", len(self.told.called), TOO_MUCH)])


def with_quiet(
    kitchen: meals.MealKitchen, document: MealDocument, clock: Clock
) -> meals.MealKitchen:
    """The kitchen with its spans without hands."""
    spans = tuple((clock.seconds(one.start), clock.seconds(one.end)) for one in document.quiet)
    return replace(kitchen, quiet=spans)


def soon(
    meal: meals.Meal, kitchen: meals.MealKitchen, document: MealDocument, now: datetime
) -> datetime:
    """A moment a little after the earliest supper, on the clock's five minutes."""
    kitchen = with_quiet(kitchen, document, Clock(now))
    soonest_s = meals.soonest(meals.puzzle_of(meals.lines_of(meal), kitchen, 0.0))
    if soonest_s is None:
        return now + LONG  # it is told why it cannot be
    return up_to_minutes(now + timedelta(seconds=soonest_s) + SOON)


def up_to_minutes(moment: datetime) -> datetime:
    """The next whole five minutes of the clock."""
    over = timedelta(
        minutes=moment.minute % 5, seconds=moment.second, microseconds=moment.microsecond
    )
    return moment + (ROUND - over if over else timedelta())
