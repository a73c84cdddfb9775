"""The plan of a meal in clock times and words."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import datetime, timedelta

from bluekettle.core import schedule as meals
from bluekettle.core.errors import (
    Infeasible,
    MissingData,
)
from bluekettle.core.safety import USUAL_GUIDANCE, plan_watch_outs
from bluekettle.core.tables import row
from bluekettle.core.units import amount
from bluekettle.schemas.meal import (
    HelpingsPublic,
    MealAheadPublic,
    MealDocument,
    MealLinePublic,
    MealPreparePublic,
    MealRepairPublic,
    MealSpanPublic,
    MealTaskPublic,
    MealTroublePublic,
    MealUsePublic,
    MealWaitPublic,
    SchedulePublic,
    ShoppingPublic,
)
from bluekettle.services.instructions import minutes_text
from bluekettle.services.meal_parts import bodies_wanted, document_of
from bluekettle.services.shopping import shopping_of

NOBODY_THERE = "Hands are needed while nobody is at work."
STEP_G = 50.0  # that anybody buys by (numerical)
NO_BODY = "no appliance: "  # as the core tells it


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

    def helpings(self) -> HelpingsPublic | None:
        """What everybody gets, where it was told how many they are."""
        guests = self.document.guests
        found = guests and meals.helpings_of(self.meal, guests, self.document.appetite)
        if not found:
            return None
        return HelpingsPublic(
            head_g=round(found.head_kg * 1e3, -1),
            wanted_g=round(found.wanted_kg * 1e3, -1),
            enough=found.enough,
            line=found.line,
            more_g=STEP_G * math.ceil(found.more_kg * 1e3 / STEP_G),
        )

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
            helpings=self.helpings(),
            prepare=[],
            guidance=USUAL_GUIDANCE,
        )

    def clash(self, conflict: str) -> str:
        """A conflict of the core in plain words."""
        if conflict == meals.NOBODY:
            return NOBODY_THERE
        kind = conflict.removeprefix(NO_BODY)
        if kind == conflict:
            return "The limits of safety of these dishes clash: no order of work keeps them all."
        users = [dish.name for dish in self.meal.dishes if kind in bodies_wanted(dish)]
        users += [one.name for _, one in self.meal.sides if one.body == kind]
        return f"There is no {row('bodies', kind)['name']} for {listed(users)}."

    def first(self, plan: meals.Schedule) -> SchedulePublic:
        """A first plan as it is told, without what would mend it."""
        return self.read(plan).model_copy(update={"first": True})

    def plan(self, plan: meals.Schedule) -> SchedulePublic:
        """The plan as it is told."""
        at = self.clock.at
        self.reasons, repairs = meals.trouble_of(plan)
        wanted = replace(plan.puzzle, supper_s=0.0)
        latest = meals.latest_begin(wanted)
        soonest = meals.soonest(wanted) if plan.supper_s > 0.0 else None
        return self.read(plan).model_copy(
            update={
                "latest_first_at": None if latest is None else at(latest),
                "soonest_at": None if soonest is None else at(soonest),
                "reasons": [
                    MealTroublePublic(
                        line="", says=self.reason(one, plan), spans=self.spans(one, plan)
                    )
                    for one in self.reasons
                ],
                "repairs": [self.repair(one) for one in repairs],
            }
        )

    def read(self, plan: meals.Schedule) -> SchedulePublic:
        """What a plan itself says."""
        at = self.clock.at
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
            latest_first_at=None,
            soonest_at=None,
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
            reasons=[],
            repairs=[],
            assumed=self.assumed,
            shopping=self.shopping(),
            helpings=self.helpings(),
            prepare=self.prepare(plan),
            guidance=USUAL_GUIDANCE,
        )

    def prepare(self, plan: meals.Schedule) -> list[MealPreparePublic]:
        """What is made ready, in order."""
        at = self.clock.at
        return [
            MealPreparePublic(
                key=one.key,
                line=one.line,
                label=one.label,
                start_at=at(one.start_s),
                seconds=round(one.seconds),
                earliest_at=None if one.earliest_s is None else at(one.earliest_s),
            )
            for one in meals.preparations(plan)
        ]

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
        last = plan.puzzle.ends[one.line]
        labels = {task.key: task.label for task in plan.tasks}
        if not one.after:
            says = f"{name} stands {stands} min on the table before the last dish comes."
        elif one.after == last:
            says = f"{name} is done {stands} min before it is served; {most} is its most."
        else:
            after = labels[one.before]
            says = f"{name} waits {stands} min after “{after}”; {most} is its most."
        end_s = plan.found.start_s[one.after] if one.after else plan.supper_s
        span = MealSpanPublic(
            line=one.line,
            start_at=self.clock.at(end_s - one.seconds),
            end_at=self.clock.at(end_s),
        )
        return MealTroublePublic(line=one.line, says=says, spans=[span])

    def reason(self, one: meals.Reason, plan: meals.Schedule) -> str:
        """A reason in plain words, with the clock."""
        return REASONS[one.kind](self, one, plan)

    def spans(self, one: meals.Reason, plan: meals.Schedule) -> list[MealSpanPublic]:
        """When two want the same, where nothing but that limit were in the way: both of them."""
        lines = {task.key: task.line for task in plan.puzzle.tasks}
        lines |= {use.key: use.line for use in plan.puzzle.uses}
        at = self.clock.at
        return [
            MealSpanPublic(line=lines[key], start_at=at(clash.start_s), end_at=at(clash.end_s))
            for clash in one.clashes
            for key in (clash.one, clash.other)
        ]

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
        return NOBODY_THERE

    def clock_reason(self, one: meals.Reason, plan: meals.Schedule) -> str:
        """That there is too little time."""
        return "There is too little time from now until then."

    def dish_reason(self, one: meals.Reason, plan: meals.Schedule) -> str:
        """That no single limit is to blame."""
        return "No one or two limits alone are to blame: there is too much at the end of this meal."

    def repair(self, one: meals.Repair) -> MealRepairPublic:
        """A repair with what it changes."""
        if one.kind == "hands":
            return MealRepairPublic(says=f"{ORDINALS[one.pairs]} pair of hands", hands=one.pairs)
        if one.kind == "later":
            says = f"Supper {minutes_text(one.seconds)} later"
            return MealRepairPublic(says=says, serve_at=self.clock.at(one.seconds))
        raise MissingData("repair of a meal", one.kind, ("hands", "later"))


ORDINALS = {2: "A second", 3: "A third", 4: "A fourth", 5: "A fifth", 6: "A sixth"}
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


def listed(names: Sequence[str]) -> str:
    """Names as one reads them."""
    return " and ".join([", ".join(names[:-1]), names[-1]] if len(names) > 1 else names)
