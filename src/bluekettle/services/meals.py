"""The plan of a meal: from its document to the core's lines, and back to clock times and words."""

from __future__ import annotations

import json
from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from functools import cache
from pathlib import Path
from typing import Any

from bluekettle.core import chain as core
from bluekettle.core import schedule as meals
from bluekettle.core.errors import CoreError, Fault, Infeasible, OutOfRange
from bluekettle.core.safety import USUAL_GUIDANCE, plan_watch_outs
from bluekettle.core.tables import row, rows
from bluekettle.core.units import amount
from bluekettle.schemas.chain import ChainDocument, HeatDocument
from bluekettle.schemas.meal import (
    MadeMealPublic,
    MealAheadPublic,
    MealBodyDocument,
    MealChoicesPublic,
    MealDishDocument,
    MealDocument,
    MealLinePublic,
    MealRepairPublic,
    MealSideDocument,
    MealTaskPublic,
    MealTroublePublic,
    MealUsePublic,
    MealWaitPublic,
    SchedulePublic,
    ShoppingPublic,
    SidePublic,
)
from bluekettle.services.chains import core_forecast
from bluekettle.services.dishes import title_of
from bluekettle.services.forecasts import serving_faults
from bluekettle.services.shopping import shopping_of
from bluekettle.services.templates import templates

ALWAYS = ("hob", "pan")  # that every kitchen has, where nobody said otherwise
SOON = timedelta(minutes=10)  # beyond the earliest supper, where none is wished for
ROUND = timedelta(minutes=5)
FOLDER = Path(__file__).parents[1] / "meals"
NO_BODY = "no appliance: "  # as the core tells it


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


@cache
def kind_of_body(appliance: str) -> str:
    """The body that an appliance is; empty for what is part of another."""
    kinds = {
        each: key for key, line in rows("bodies").items() for each in line["appliances"].split()
    }
    return kinds.get(appliance, "")


def document_of(one: MealDishDocument) -> ChainDocument:
    """The dish of a meal whose kept plan, if it is one, was put in before.

    Raises OutOfRange for a chain that does not ship.
    """
    if one.dish is not None:
        return one.dish
    shipped = {template.key: template.document for template in templates()}
    if one.template not in shipped:
        raise OutOfRange([Fault("template", one.template, f"one of {', '.join(shipped)}")])
    return shipped[one.template]


def side_of(one: MealSideDocument) -> meals.Side:
    """A side: the common one, with what was told of it instead."""
    told: dict[str, Any] = one.model_dump(exclude_none=True, exclude={"id", "key", "name"})
    if one.name:
        told["name"] = one.name
    known = meals.Side("", 0.0, 0.0) if one.key is None else meals.side(one.key)
    return replace(known, **told)


def forecasts_of(document: MealDocument, now: datetime) -> tuple[meals.Dish, ...]:
    """Every dish forecast; raises OutOfRange with all faults of all of them."""
    found: list[meals.Dish] = []
    faults: list[Fault] = []
    for place, one in enumerate(document.dishes):
        try:
            dish = document_of(one).model_copy(update={"serve_at": None})
            forecast = core_forecast(dish, now)
            found.append(meals.Dish(one.id, one.name or title_of(dish), forecast))
        except OutOfRange as error:
            faults += [
                Fault(f"dishes.{place}.{f.field}", f.given, f.accepted) for f in error.faults
            ]
    if faults:
        raise OutOfRange(faults)
    return tuple(found)


def bodies_of(
    told: Sequence[MealBodyDocument] | None,
    dishes: Sequence[meals.Dish],
    sides: Sequence[meals.Side],
) -> tuple[tuple[meals.Body, ...], dict[str, str], list[str]]:
    """Bodies with their names, and the kinds that nobody named and that are assumed."""
    needed = [use.kind for dish in dishes for use in meals.dish_line("", "", dish.forecast).uses]
    needed += [side.body for side in sides if side.body]
    named = list(told or [])
    known = {one.kind for one in named}
    missing = [kind for kind in dict.fromkeys(needed) if kind not in known]
    assumed = missing if not named else [kind for kind in missing if kind in ALWAYS]
    named += [MealBodyDocument(kind=kind) for kind in assumed]
    bodies, names = [], {}
    for place, one in enumerate(named):
        key = f"{one.kind}-{place}"
        bodies.append(meals.body_of(key, one.kind, one.zones))
        names[key] = one.name or row("bodies", one.kind)["name"]
    return tuple(bodies), names, [row("bodies", kind)["name"] for kind in assumed]


class Clock:
    """Clock times of seconds from the wanted moment."""

    def __init__(self, serve_at: datetime) -> None:
        self.serve_at = serve_at

    def at(self, seconds: float) -> datetime:
        """The clock time, to the second."""
        return self.serve_at + timedelta(seconds=round(seconds))

    def seconds(self, moment: datetime) -> float:
        """Seconds from the wanted moment."""
        return (moment - self.serve_at).total_seconds()


def schedule_meal(document: MealDocument, now: datetime) -> SchedulePublic:
    """The plan of a meal whose kept plans were put in before.

    Raises
    ------
    OutOfRange
        Every fault of dishes, sides and moments.
    NotConverged
        No plan was found in the time there is.
    """
    faults = serving_faults(document.serve_at, now)
    try:
        dishes = forecasts_of(document, now)
    except OutOfRange as error:
        raise OutOfRange([*faults, *error.faults]) from error
    if faults:
        raise OutOfRange(faults)
    sides = tuple((one.id, side_of(one)) for one in document.sides)
    meal = meals.Meal(dishes, sides)
    bodies, names, assumed = bodies_of(document.appliances, dishes, [one for _, one in sides])
    kitchen = meals.MealKitchen(bodies, document.hands)
    serve_at = document.serve_at
    if serve_at is None:
        serve_at = soon(meal, kitchen, document, now)
    clock = Clock(serve_at)
    kitchen = with_quiet(kitchen, document, clock)
    told = Told(document, meal, names, assumed, clock)
    try:
        plan = meals.schedule(meal, kitchen, clock.seconds(now))
    except Infeasible as error:
        kinds = [one.removeprefix(NO_BODY) for one in error.conflicts if one.startswith(NO_BODY)]
        return told.impossible(error, elsewhere(document, meal, kitchen, clock, now, kinds))
    answer = told.plan(plan)
    kinds = [one.key for one in told.reasons if one.kind == "body"]
    more = elsewhere(document, meal, kitchen, clock, now, kinds)
    return answer.model_copy(update={"repairs": [*answer.repairs, *more]})


def elsewhere(
    document: MealDocument,
    meal: meals.Meal,
    kitchen: meals.MealKitchen,
    clock: Clock,
    now: datetime,
    kinds: Sequence[str],
) -> list[MealRepairPublic]:
    """The fires that want these bodies, moved to where each could go as well: where the meal comes
    out then.
    """
    there = {body.kind for body in kitchen.bodies}
    changed: dict[str, ChainDocument] = {}
    for one in document.dishes:
        moved = moved_fires(document_of(one), kinds, there)
        if moved is not None:
            changed[one.id] = moved
    if not changed:
        return []
    dishes = [
        one.model_copy(update={"template": None, "plan_id": None, "dish": changed[one.id]})
        if one.id in changed
        else one
        for one in document.dishes
    ]
    try:
        found = forecasts_of(document.model_copy(update={"dishes": dishes}), now)
    except OutOfRange:
        return []
    lines = meals.lines_of(meals.Meal(found, meal.sides))
    if meals.comes_out(meals.puzzle_of(lines, kitchen, clock.seconds(now))) is None:
        return []
    names = {dish.key: dish.name for dish in meal.dishes}
    told = [f"{names[key]}: {finished_in(one)}" for key, one in changed.items()]
    return [MealRepairPublic(says="; ".join(told), dishes=changed)]


def moved_fires(
    document: ChainDocument, kinds: Sequence[str], there: set[str]
) -> ChainDocument | None:
    """The dish with every fire in such a body moved elsewhere; None where there is none to move."""
    stages, moved = [], False
    for stage in document.stages:
        if isinstance(stage, HeatDocument) and core.heat_row(stage.heat).body in kinds:
            other = other_fire(stage.heat, there - set(kinds))
            if other:
                stage = stage.model_copy(update={"heat": other, "dial": None})
                moved = True
        stages.append(stage)
    return document.model_copy(update={"stages": stages}) if moved else None


def other_fire(heat: str, there: set[str]) -> str:
    """Another fire that these bodies have, the usual one first; empty for what is no fire, or where
    there is none.
    """
    fierce = core.heat_row(heat).fierce
    if fierce is None:
        return ""
    usual = [fierce.elsewhere, *core.fierce_keys()]
    return next((key for key in usual if key and core.heat_row(key).body in there), "")


def finished_in(document: ChainDocument) -> str:
    """Where a dish is finished, in words."""
    last = [stage for stage in document.stages if isinstance(stage, HeatDocument)][-1]
    fierce = core.heat_row(last.heat).fierce
    return f"finished in {fierce.place}" if fierce is not None else "finished elsewhere"


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
    try:
        soonest_s = meals.soonest(meals.puzzle_of(meals.lines_of(meal), kitchen, 0.0))
    except CoreError:
        return now + timedelta(hours=6)  # it is told why it cannot be
    return up_to_minutes(now + timedelta(seconds=soonest_s) + SOON)


class Told:
    """A plan in clock times and words."""

    def __init__(
        self,
        document: MealDocument,
        meal: meals.Meal,
        names: dict[str, str],
        assumed: list[str],
        clock: Clock,
    ) -> None:
        self.document, self.meal, self.names = document, meal, names
        self.assumed, self.clock = assumed, clock
        self.called = {dish.key: dish.name for dish in meal.dishes}
        self.called |= {key: one.name for key, one in meal.sides}
        self.reasons: tuple[meals.Reason, ...] = ()

    def lines(self) -> list[MealLinePublic]:
        """Dishes and sides by their names."""
        plans = {one.id: one.plan_id for one in self.document.dishes}
        kinds = {dish.key: "dish" for dish in self.meal.dishes}
        return [
            MealLinePublic(
                id=key,
                name=name,
                kind="dish" if key in kinds else "side",
                plan_id=plans.get(key),
            )
            for key, name in self.called.items()
        ]

    def shopping(self) -> list[ShoppingPublic]:
        """What to buy for all of it."""
        dishes = [(self.called[one.id], document_of(one)) for one in self.document.dishes]
        return shopping_of(dishes, [one.name for _, one in self.meal.sides])

    def impossible(self, error: Infeasible, repairs: list[MealRepairPublic]) -> SchedulePublic:
        """That nothing can be planned, why, and what would mend it."""
        reasons = [MealTroublePublic(line="", says=self.clash(one)) for one in error.conflicts]
        at = self.clock.serve_at
        return SchedulePublic(
            name=self.document.name,
            feasible=False,
            serve_at=at,
            ready_at=at,
            ready_low_at=at,
            ready_high_at=at,
            late=1.0,
            first_at=at,
            latest_first_at=None,
            soonest_at=None,
            hands_s=0.0,
            proven=True,
            lines=self.lines(),
            tasks=[],
            waits=[],
            aheads=[],
            uses=[],
            past=[],
            reasons=reasons,
            repairs=repairs,
            assumed=self.assumed,
            shopping=self.shopping(),
            guidance=USUAL_GUIDANCE,
        )

    def clash(self, conflict: str) -> str:
        """A conflict of the core in plain words."""
        kind = conflict.removeprefix(NO_BODY)
        if kind == conflict:
            return "The limits of safety of these dishes clash: no order of work keeps them all."
        users = [
            dish.name
            for dish in self.meal.dishes
            if any(use.kind == kind for use in meals.dish_line("", "", dish.forecast).uses)
        ]
        users += [one.name for _, one in self.meal.sides if one.body == kind]
        return f"There is no {row('bodies', kind)['name']} for {listed(users)}."

    def plan(self, plan: meals.Schedule) -> SchedulePublic:
        """The plan as it is told."""
        at = self.clock.at
        self.reasons, repairs = meals.trouble_of(plan)
        wanted = replace(plan.puzzle, supper_s=0.0)
        latest = meals.latest_begin(wanted)
        late = plan.supper_s > 0.0
        hands = [task for task in plan.tasks if task.pair is not None]
        return SchedulePublic(
            name=self.document.name,
            feasible=True,
            serve_at=self.clock.serve_at,
            ready_at=at(plan.supper_s),
            ready_low_at=at(plan.evenings.low_s),
            ready_high_at=at(plan.evenings.high_s),
            late=round(plan.evenings.late, 3),
            first_at=at(min(task.start_s for task in plan.tasks)),
            latest_first_at=None if latest is None else at(latest),
            soonest_at=at(meals.soonest(wanted)) if late else None,
            hands_s=round(sum(task.end_s - task.hands_s for task in hands), 0),
            proven=plan.proven,
            lines=self.lines(),
            tasks=[
                MealTaskPublic(
                    key=task.key,
                    line=task.line,
                    label=task.label,
                    who=task.who,
                    start_at=at(task.start_s),
                    end_at=at(task.end_s),
                    hands_at=at(task.hands_s),
                    pair=task.pair,
                )
                for task in plan.tasks
                if task.end_s > task.start_s
            ],
            waits=[
                MealWaitPublic(
                    line=one.line,
                    after=one.after,
                    before=one.before,
                    how=one.how,
                    says=row("meal_waits", one.how)["says"],
                    start_at=at(one.start_s),
                    end_at=at(one.end_s),
                    most_s=one.most_s,
                )
                for one in plan.waits
            ],
            aheads=[
                MealAheadPublic(
                    line=one.line,
                    label=one.label,
                    body=self.names[one.body],
                    start_at=at(one.start_s),
                    ready_at=at(one.ready_s),
                )
                for one in plan.aheads
            ],
            uses=[
                MealUsePublic(
                    line=one.line,
                    kind=next(b.kind for b in plan.puzzle.bodies if b.key == one.body),
                    body=self.names[one.body],
                    temp_c=one.temp_c,
                    start_at=at(one.start_s),
                    end_at=at(one.end_s),
                )
                for one in plan.taken
            ],
            past=[*self.stops(), *(self.past(one, plan) for one in plan.past)],
            reasons=[
                MealTroublePublic(line="", says=self.reason(one, plan)) for one in self.reasons
            ],
            repairs=[self.repair(one) for one in repairs],
            assumed=self.assumed,
            shopping=self.shopping(),
            guidance=USUAL_GUIDANCE,
        )

    def stops(self) -> list[MealTroublePublic]:
        """What stands in the way of each dish by itself."""
        return [
            MealTroublePublic(line=dish.key, says=f"{dish.name}: {found.message}")
            for dish in self.meal.dishes
            for found in plan_watch_outs(dish.forecast)
            if found.level == "stop"
        ]

    def past(self, one: meals.Past, plan: meals.Schedule) -> MealTroublePublic:
        """A limit that is not kept."""
        most, stands = round(one.most_s / 60.0), round(one.seconds / 60.0)
        name = self.called[one.line]
        says = f"{name} is done {stands} min before it is served; {most} is its most."
        if not one.after:
            says = f"{name} stands {stands} min on the table before the last dish comes."
        return MealTroublePublic(line=one.line, says=says)

    def reason(self, one: meals.Reason, plan: meals.Schedule) -> str:
        """A reason in plain words, with the clock."""
        return REASONS[one.kind](self, one, plan)

    def body_reason(self, one: meals.Reason, plan: meals.Schedule) -> str:
        """Who wants the same appliance, and when."""
        name = row("bodies", one.key)["name"]
        if not one.clashes:
            return f"One {name} is too few."
        clash = one.clashes[0]
        uses = {use.key: use for use in plan.puzzle.uses}
        told = [self.wanted(uses[key]) for key in (clash.one, clash.other)]
        return f"The {name} is wanted {told[0]} and {told[1]} {self.span(clash)}."

    def wanted(self, use: meals.Use) -> str:
        """What a use wants of its body."""
        at = "" if use.temp_c is None else f"at {amount(use.temp_c, '°C')} "
        return f"{at}for {self.called[use.line]}"

    def hands_reason(self, one: meals.Reason, plan: meals.Schedule) -> str:
        """Who wants the same hands, and when."""
        hands = (
            "One pair of hands is"
            if plan.puzzle.pairs == 1
            else f"{plan.puzzle.pairs} pairs of hands are"
        )
        if not one.clashes:
            return f"{hands} too few."
        clash = one.clashes[0]
        labels = {task.key: task for task in plan.tasks}
        told = [
            f"“{labels[key].label}” ({self.called[labels[key].line]})"
            for key in (clash.one, clash.other)
        ]
        return f"{hands} too few: {told[0]} and {told[1]} both fall {self.span(clash)}."

    def span(self, clash: meals.Clash) -> str:
        """When two clash; the page puts clock times into the marks."""
        begin, end = self.clock.at(clash.start_s), self.clock.at(clash.end_s)
        return f"between {mark(begin)} and {mark(end)}"

    def quiet_reason(self, one: meals.Reason, plan: meals.Schedule) -> str:
        """That nobody is at work when hands are needed."""
        return "Hands are needed while nobody is at work."

    def clock_reason(self, one: meals.Reason, plan: meals.Schedule) -> str:
        """That there is too little time."""
        return "There is too little time from now until then."

    def dish_reason(self, one: meals.Reason, plan: meals.Schedule) -> str:
        """That no single limit is to blame."""
        return "No one or two limits alone are to blame: there is too much at the end of this meal."

    def repair(self, one: meals.Repair) -> MealRepairPublic:
        """A repair with what it changes."""
        if one.kind == "hands":
            return MealRepairPublic(says=f"{ordinal(one.pairs)} pair of hands", hands=one.pairs)
        serve_at = up_to_minutes(self.clock.at(one.seconds))
        later = round((serve_at - self.clock.serve_at).total_seconds() / 60.0)
        return MealRepairPublic(says=f"Supper {later} min later", serve_at=serve_at)


REASONS: dict[str, Callable[[Told, meals.Reason, meals.Schedule], str]] = {
    "body": Told.body_reason,
    "hands": Told.hands_reason,
    "quiet": Told.quiet_reason,
    "clock": Told.clock_reason,
    "dish": Told.dish_reason,
}


def mark(moment: datetime) -> str:
    """A moment inside a sentence: the page shows it on its own clock."""
    return f"⟦{moment.isoformat()}⟧"


def up_to_minutes(moment: datetime) -> datetime:
    """The next whole five minutes of the clock."""
    over = timedelta(
        minutes=moment.minute % 5, seconds=moment.second, microseconds=moment.microsecond
    )
    return moment + (ROUND - over if over else timedelta())


def listed(names: Sequence[str]) -> str:
    """Names as one reads them."""
    return " and ".join([", ".join(names[:-1]), names[-1]] if len(names) > 1 else names)


def ordinal(number: int) -> str:
    """A second, a third… for a sentence of its own."""
    words = {2: "A second", 3: "A third", 4: "A fourth", 5: "A fifth", 6: "A sixth", 7: "A seventh"}
    return words[number]
