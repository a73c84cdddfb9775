"""What may be made ready early, and what may not."""

from dataclasses import replace

import pytest

from bluekettle.core.schedule import dish_line, preparations, schedule
from tests.schedule.meals import made

H = 3600.0


def prepared(key):
    meal, kitchen, now_s = made(key)
    plan = schedule(meal, kitchen, now_s)
    return plan, {one.key: one for one in preparations(plan)}


def test_the_boathouse_is_made_ready_in_the_order_of_its_plan():
    """Cut potatoes keep four hours, slaw three, a glaze for days (`meal_waits.csv`, `sides.csv`);
    ribs go straight into the pot."""
    plan, found = prepared("boathouse")
    assert list(found) == sorted(found, key=lambda key: plan.found.start_s[key])
    assert set(found) == {
        "drumsticks/season.season",
        "short-ribs/season.season",
        "potatoes-boiled/prepare",
        "slaw/prepare",
        "cauliflower-oven/glaze.made",
        "drumsticks/glaze.made",
        "short-ribs/glaze.made",
    }
    start = plan.found.start_s
    potatoes, slaw = found["potatoes-boiled/prepare"], found["slaw/prepare"]
    assert potatoes.earliest_s == pytest.approx(start["potatoes-boiled/cook"] - 4 * H - 600.0)
    assert slaw.earliest_s == pytest.approx(start["slaw/finish"] - 3 * H - 720.0)
    assert found["short-ribs/season.season"].earliest_s == start["short-ribs/season.season"]
    assert found["short-ribs/glaze.made"].earliest_s is None


def test_what_an_overnight_plan_has_the_evening_before_is_not_moved():
    _, found = prepared("overnight")
    bag = found["marinated-rounds/sour-bath.bag"]
    assert bag.start_s < -12 * H
    assert bag.earliest_s == bag.start_s
    assert "marinated-rounds/pot.load" not in found


@pytest.mark.parametrize("spoilt", [{"contact": "raw-contact"}, {"boiled": True}, {"lines": 0}])
def test_what_touched_raw_food_or_is_boiled_keeps_for_no_day(spoilt):
    meal, _, _ = made("ribs-and-slaw")
    (dish,) = meal.dishes
    plain = dish.forecast
    assert dish_line("dish", "Dish", plain).keeps == {"dish/glaze.made"}
    layers = tuple(replace(layer, **spoilt) for layer in plain.plan.layers)
    after = replace(plain, plan=replace(plain.plan, layers=layers))
    assert dish_line("dish", "Dish", after).keeps == frozenset()


@pytest.mark.parametrize("key", ["one-dish", "ham-feast", "smoke-day", "overnight-two"])
def test_nothing_is_made_ready_later_than_planned_or_once_it_is_hot(key):
    plan, found = prepared(key)
    for one in found.values():
        line = next(line for line in plan.lines if line.key == one.line)
        hot = min((plan.found.start_s[use.first] for use in line.uses), default=0.0)
        aside = one.key.endswith((".made", ".beside"))
        assert aside or one.start_s + one.seconds <= hot + 1.0
        assert one.earliest_s is None or one.earliest_s <= one.start_s
        assert one.earliest_s is not None or one.key in line.keeps
    assert found
