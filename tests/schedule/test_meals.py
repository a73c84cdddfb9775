"""The meals that ship: every plan held against the dishes' own links by a judge of its own."""

import re
from dataclasses import replace

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from bluekettle.core.errors import Infeasible, OutOfRange
from bluekettle.core.schedule import (
    Body,
    Meal,
    MealKitchen,
    Side,
    first_schedule,
    lines_of,
    puzzle_of,
    schedule,
    side,
    side_keys,
    solve,
    trouble_of,
)
from tests.schedule.evenings import share_late
from tests.schedule.meals import MEALS, dish_of, kitchen_of, made
from tests.schedule.validator import faults_of

IMPOSSIBLE = {"boathouse-no-oven": "oven"}
LATE = {"quiet-too-long": "quiet", "too-soon": "clock", "too-soon-braise": "clock"}
FITS = (
    "one-dish",
    "ribs-and-slaw",
    "boathouse",
    "boathouse-two",
    "two-broils",
    "one-pot-twice",
    "overnight",
    "quiet-afternoon",
    "grill-outdoors",
    "smoke-day",
    "strands-and-buns",
    "wings-and-ribs",
    "sides-only",
)


DISHES = {one["id"]: one for raw in MEALS.values() for one in raw["meal"]["dishes"]}
USUAL = MEALS["boathouse"]["meal"]["appliances"]
KINDS = sorted({one["kind"] for one in USUAL})


def planned(key):
    meal, kitchen, now_s = made(key)
    return meal, kitchen, now_s, schedule(meal, kitchen, now_s)


def judged(meal, kitchen, now_s, plan):
    dishes = {dish.key: dish.forecast for dish in meal.dishes}
    return faults_of(plan, dishes, dict(meal.sides), kitchen, now_s)


@pytest.mark.parametrize("key", [key for key in MEALS if key not in IMPOSSIBLE])
def test_a_plan_keeps_all_that_a_cook_would_see_or_tells_what_it_does_not(key):
    meal, kitchen, now_s, plan = planned(key)
    assert judged(meal, kitchen, now_s, plan) == []
    if key in FITS:
        assert (plan.past, plan.supper_s <= 0.0) == ((), True)
        assert plan.evenings.late <= 0.1
    assert (plan.supper_s > 0.0) == (key in LATE)


def test_what_a_dish_does_not_bear_in_its_tray_is_kept_in_its_bath():
    """The drumsticks wait ten minutes in their basket; their bath may be 25 minutes late."""
    meal, kitchen, now_s = made("boathouse-two")
    first, plan = first_schedule(meal, kitchen, now_s), schedule(meal, kitchen, now_s)

    def bath_s(plan):
        (waited,) = [wait for wait in plan.waits if wait.after == "drumsticks/cook.hold"] or [None]
        return waited.end_s - waited.start_s if waited else 0.0

    assert first.evenings.late > 0.1 >= plan.evenings.late
    assert bath_s(first) < 60.0
    assert 600.0 < bath_s(plan) <= 3600.0


@pytest.mark.parametrize("limit", ["nothing", "quiet", "clock"])
def test_a_plan_is_not_moved_before_its_clock_or_into_quiet_hours(limit):
    """What was planned late in the first place is not just moved to where nobody is."""
    meal, kitchen, now_s = made("ham-feast")
    first = first_schedule(meal, kitchen, now_s)
    begin_s = min(first.tasks[0].start_s, *(ahead.start_s for ahead in first.aheads))
    if limit == "quiet":
        kitchen = replace(kitchen, quiet=((begin_s - 7200.0, begin_s),))
    elif limit == "clock":
        now_s = begin_s
    plan = schedule(meal, kitchen, now_s)
    assert judged(meal, kitchen, now_s, plan) == []
    if limit == "nothing":
        assert plan.supper_s < first.supper_s


@pytest.mark.parametrize("key", IMPOSSIBLE)
def test_what_nothing_can_cook_is_named(key):
    with pytest.raises(Infeasible, match=IMPOSSIBLE[key]):
        planned(key)


def test_nobody_for_a_month_is_what_clashes_and_not_the_food():
    meal, kitchen, now_s = made("one-dish")
    month = ((now_s, 30 * 86_400.0),)
    with pytest.raises(Infeasible, match="nobody is at work"):
        schedule(meal, replace(kitchen, quiet=month), now_s)
    with pytest.raises(Infeasible, match="no appliance"):
        schedule(meal, replace(kitchen, quiet=month, bodies=()), now_s)


def freed_of(reasons, kitchen, now_s):
    """The kitchen, and the moment of asking, without what is blamed."""
    for reason in reasons:
        if reason.kind == "hands":
            kitchen = replace(kitchen, pairs=6)
        elif reason.kind == "body":
            more = tuple(Body(f"more-{n}", reason.key) for n in range(6))
            kitchen = replace(kitchen, bodies=(*kitchen.bodies, *more))
        elif reason.kind == "quiet":
            kitchen = replace(kitchen, quiet=())
        else:
            now_s = -13 * 86_400.0
    return kitchen, now_s


def some(keys, most):
    return st.lists(st.sampled_from(sorted(keys)), max_size=most, unique=True)


@settings(max_examples=30, deadline=None)
@given(
    dishes=some(DISHES, 3).filter(bool),
    sides=some(side_keys(), 2),
    gone=st.sampled_from(["", "", "", *KINDS]),
    pairs=st.integers(1, 2),
    hours=st.integers(1, 20),
    nap=st.booleans(),
)
@example(
    dishes=["leavened-skin", "frozen-split", "lid-stir-lid"],
    sides=["greens"],
    gone="",
    pairs=1,
    hours=1,
    nap=False,
)
def test_any_meal_is_planned_without_a_fault_or_refused_for_a_reason_that_is_true(
    dishes, sides, gone, pairs, hours, nap
):
    """One to three dishes of those that ship, sides, all of their appliances but perhaps one."""
    usual = kitchen_of(USUAL, pairs, ((-2.5, -1.5),) if nap and hours > 2 else ())
    kitchen = replace(usual, bodies=tuple(body for body in usual.bodies if body.kind != gone))
    meal = Meal(tuple(dish_of(DISHES[key]) for key in dishes), tuple((k, side(k)) for k in sides))
    now_s = -3600.0 * hours
    try:
        plan = schedule(meal, kitchen, now_s)
    except Infeasible as error:
        kinds = re.findall(r"no appliance: (\w+)", str(error))
        assert kinds
        assert not {*kinds} & {body.kind for body in kitchen.bodies}
        new = tuple(Body(f"new-{kind}", kind, 3) for kind in kinds)
        with_them = replace(kitchen, bodies=(*kitchen.bodies, *new))
        assert judged(meal, with_them, now_s, schedule(meal, with_them, now_s)) == []
        return
    assert judged(meal, kitchen, now_s, plan) == []
    if plan.past or plan.supper_s > 0.0:
        reasons, _ = trouble_of(plan)
        assert reasons
        without = schedule(meal, *freed_of(reasons, kitchen, now_s))
        assert (without.past, without.supper_s <= 0.0) == ((), True)
        for one in reasons:  # none of them can be left out
            others = [other for other in reasons if other != one]
            still = schedule(meal, *freed_of(others, kitchen, now_s))
            assert (still.past, still.supper_s <= 0.0) != ((), True)


NIGHT = "lunch-after-a-night"


@pytest.mark.parametrize("key", [*LATE, NIGHT, "oven-low-and-high", "ham-feast", "potatoes-share"])
def test_without_the_limits_that_are_blamed_the_meal_comes_out_and_so_it_does_repaired(key):
    meal, kitchen, now_s, plan = planned(key)
    reasons, repairs = trouble_of(plan)
    if key in LATE:
        assert [reason.kind for reason in reasons] == [LATE[key]]
    assert reasons
    assert repairs or key != NIGHT  # it is begun in the morning
    freed, begin_s = freed_of(reasons, kitchen, now_s)
    without = schedule(meal, freed, begin_s)
    assert (without.past, without.supper_s <= 0.0) == ((), True)
    for repair in repairs:
        if repair.kind == "hands":
            mended = schedule(meal, replace(kitchen, pairs=repair.pairs), now_s)
        else:
            shift = tuple((a - repair.seconds, b - repair.seconds) for a, b in kitchen.quiet)
            later = replace(kitchen, quiet=shift)
            mended = schedule(meal, later, now_s - repair.seconds)
        assert (mended.past, mended.supper_s <= 0.0) == ((), True)


@pytest.mark.parametrize("key", ["boathouse", "one-pot-twice", "overnight-two"])
def test_the_printed_chance_is_that_of_evenings_played_one_by_one(key):
    *_, plan = planned(key)
    assert share_late(plan) == pytest.approx(plan.evenings.late, abs=0.03)


def test_the_same_meal_gives_the_same_plan():
    assert planned("two-broils")[3].found == planned("two-broils")[3].found


@pytest.mark.parametrize("minutes", [3.7 * n for n in (3, 4, 8, 20)])
def test_supper_is_on_time_whatever_the_moment_of_asking(minutes):
    """The search once stood at plans hours late, by the minute at which it was asked."""
    meal, kitchen, now_s = made("boathouse")
    puzzle = puzzle_of(lines_of(meal), kitchen, now_s - 60.0 * minutes)
    assert solve(puzzle).supper_s == 0.0


def test_a_second_pair_of_hands_and_a_second_oven_make_nothing_later():
    meal, kitchen, now_s, plan = planned("oven-low-and-high")
    past = sum(one.seconds for one in plan.past)
    for more in (
        replace(kitchen, pairs=2),
        replace(kitchen, bodies=(*kitchen.bodies, Body("another", "oven", 2))),
    ):
        other = schedule(meal, more, now_s)
        assert sum(one.seconds for one in other.past) <= past
    assert schedule(meal, replace(kitchen, pairs=2), now_s).past == ()


def test_what_cannot_be_planned_with_is_refused_with_every_fault():
    fine = Side("rice", 3.0, 20.0, "hob")
    wrong = Side("soup", -1.0, 9000.0, "cauldron", 900.0)
    kitchen = MealKitchen((Body("hob", "hob", 3, True),))
    with pytest.raises(OutOfRange) as caught:
        schedule(Meal(sides=(("a", fine), ("a", wrong))), kitchen, -3600.0)
    fields = {fault.field for fault in caught.value.faults}
    wanted = {"prepare_min", "cook_min", "body", "temp_c"}
    assert fields == {"dishes", *(f"sides.1.{name}" for name in wanted)}
    with pytest.raises(OutOfRange) as nothing:
        schedule(Meal(), kitchen, -3600.0)
    assert nothing.value.faults[0].field == "dishes"
    for at, pairs in ((-3600.0, 0), (60.0, 1), (float("nan"), 1), (-15 * 86_400.0, 1)):
        with pytest.raises(OutOfRange):
            schedule(Meal(sides=(("a", fine),)), replace(kitchen, pairs=pairs), at)


def test_a_meal_has_sixteen_dishes_and_sides_at_most():
    sides = tuple((f"s{n}", side("slaw")) for n in range(17))
    assert len(lines_of(Meal(sides=sides[:16]))) == 16
    with pytest.raises(OutOfRange, match="1 to 16 dishes and sides"):
        lines_of(Meal(sides=sides))


@pytest.mark.parametrize(
    ("kind", "minutes", "says"),
    [
        ("charcoal", 30.0, "Heat the charcoal grill"),  # until the coals are ash-grey
        ("air_fryer", 3.0, "Heat the air fryer"),
        ("smoker", 30.0, "Heat the smoker"),
    ],
)
def test_what_a_side_cooks_in_is_hot_by_then(kind, minutes, says):
    """As long as the usual appliance of its kind takes, and by its name."""
    corn = Side("corn", 3.0, 8.0, kind, 200.0)
    kitchen = MealKitchen((Body(kind, kind),))
    plan = schedule(Meal(sides=(("corn", corn),)), kitchen, -2 * 3600.0)
    (ahead,) = plan.aheads
    assert (ahead.label, ahead.ready_s - ahead.start_s) == (says, 60.0 * minutes)


def test_hours_of_quiet_that_overlap_are_one():
    meal = Meal(sides=(("rice", side("rice")),))
    hob = (Body("hob", "hob", 3, True),)
    spans = ((-7200.0, -5400.0), (-6000.0, -3600.0), (-3600.0, -3000.0))
    plan = schedule(meal, MealKitchen(hob, 1, spans), -4 * 3600.0)
    assert plan.puzzle.quiet == ((-7200.0, -3000.0),)
    assert judged(meal, MealKitchen(hob, 1, spans), -4 * 3600.0, plan) == []


def test_every_common_side_can_be_planned_alone():
    for key in side_keys():
        kind = side(key).body
        bodies = (Body(kind, kind, 2),) if kind else ()
        meal = Meal(sides=((key, side(key)),))
        plan = schedule(meal, MealKitchen(bodies), -4 * 3600.0)
        assert judged(meal, MealKitchen(bodies), -4 * 3600.0, plan) == []
        assert plan.past == ()
