"""Enough for everybody: against what households buy a head, and by its own rules."""

import pytest

from bluekettle.core.errors import OutOfRange
from bluekettle.core.schedule import Meal, helpings_of, side
from tests.schedule.meals import MEALS, dish_of

SUPPER = {one["id"]: one for one in MEALS["boathouse"]["meal"]["dishes"]}
# Raw, as bought, for one usual eater beside two sides [kg] (household).
A_HEAD = {"short-ribs": (0.3, 0.5), "drumsticks": (0.28, 0.45)}


def meal_of(*keys):
    return Meal(tuple(dish_of(SUPPER[key]) for key in keys), (("slaw", side("slaw")),))


@pytest.mark.parametrize("key", A_HEAD)
def test_a_head_is_bought_what_households_buy(key):
    mass_kg = dish_of(SUPPER[key]).forecast.plan.mass_kg
    found = helpings_of(meal_of(key), 1, "ordinary")
    low, high = A_HEAD[key]
    assert low <= mass_kg * found.wanted_kg / found.head_kg <= high


def test_all_dishes_count_and_what_is_short_is_bought_of_the_most():
    alone, both = (helpings_of(meal_of(*keys), 8, "ordinary") for keys in (["short-ribs"], A_HEAD))
    assert both.head_kg > alone.head_kg
    assert (alone.line, both.line) == ("short-ribs", "drumsticks")
    assert (alone.enough, both.enough) == (False, True)
    plan = dish_of(SUPPER["short-ribs"]).forecast.plan
    assert helpings_of(meal_of("short-ribs"), 16, "ordinary").more_kg > plan.mass_kg
    assert alone.more_kg == pytest.approx(plan.mass_kg * (alone.wanted_kg / alone.head_kg - 1.0))
    assert helpings_of(Meal((), (("slaw", side("slaw")),)), 4, "light") is None


def test_nine_tenths_of_an_appetite_are_enough():
    whole = helpings_of(meal_of("short-ribs"), 1, "ordinary")
    guests = int(whole.head_kg / (0.9 * whole.wanted_kg))
    assert helpings_of(meal_of("short-ribs"), guests, "ordinary").enough
    assert not helpings_of(meal_of("short-ribs"), guests + 1, "ordinary").enough


@pytest.mark.parametrize(("guests", "appetite"), [(0, "ordinary"), (61, "light"), (4, "starved")])
def test_absurd_guests_are_refused(guests, appetite):
    with pytest.raises(OutOfRange):
        helpings_of(meal_of("short-ribs"), guests, appetite)
