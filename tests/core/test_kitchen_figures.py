"""A kitchen figure lives in one place: everything that asks for one asks its row."""

import pytest

from bluekettle.core.advice import effects, plan_effects
from bluekettle.core.errors import MissingData
from bluekettle.core.glaze import draw_members
from bluekettle.core.stages import LIMITS, Dish, Kitchen, figure, figures
from bluekettle.core.tables import row
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.dish import DishDocument, KitchenDocument
from bluekettle.services.chains import plan_of
from bluekettle.services.dishes import dish_of, kitchen_of

RIBS = {"cut": "pork-ribs", "mass_kg": 1.4, "pieces": 4, "thickness_mm": 26.0, "bite": "tug"}


@pytest.mark.parametrize("key", figures())
def test_a_figure_is_in_its_own_bounds_and_says_what_it_is(key):
    one = figure(key)
    assert one.low <= one.usual_low <= one.typical <= one.usual_high <= one.high
    assert one.label
    assert bool(one.low_says) == bool(one.high_says)
    told = KitchenDocument.model_json_schema()["properties"][key]
    assert f"[{one.unit}]" in told["description"]
    assert told["anyOf"][0]["minimum"] == one.low == LIMITS[key][0]
    assert told["anyOf"][0]["maximum"] == one.high == LIMITS[key][1]


def test_typical_figures_come_from_the_appliances_in_minutes_where_they_heat_up():
    assert figure("bath_power_w").typical == float(row("appliances", "water-bath")["power_w"])
    assert figure("grill_preheat_min").typical == pytest.approx(
        float(row("appliances", "gas-grill")["preheat_s"]) / 60.0
    )
    assert figure("altitude_m").typical == 0.0


def test_a_stated_figure_is_kept_and_an_unknown_one_refused():
    told = kitchen_of(KitchenDocument(bath_c=62.0))
    assert (told.stated("bath_c"), told.or_typical("bath_c")) == (62.0, 62.0)
    assert told.stated("lid_c") is None
    assert told.having("lid_c", 190.0).figures == {"bath_c": 62.0, "lid_c": 190.0}
    assert Kitchen({"bath_c": 62.0}, bath_c=None) == told
    assert Kitchen({"bath_c": 62.0}, bath_c=70.0).stated("bath_c") == 70.0
    for ask in (lambda: Kitchen(moon_c=1.0), lambda: told.stated("moon_c")):
        with pytest.raises(MissingData, match="moon_c"):
            ask()


def test_a_dial_is_set_as_the_plan_says_and_is_not_drawn():
    draws = draw_members(1, 16)
    assert set(Kitchen(bath_c=62.0).drawn("bath_c", draws)) == {62.0}
    assert Kitchen().drawn("bath_power_w", draws).std() > 0.0
    with pytest.raises(MissingData, match="bath_c"):
        Kitchen().drawn("bath_c", draws)


def test_an_assumption_is_worth_the_same_for_a_dish_and_for_its_chain():
    """The effects of a dish are told by the old forecast, those of its chain by the walk."""
    dish = DishDocument.model_validate({**RIBS, "sauce": "plum-tea", "coats": 1})
    plan = plan_of(ChainDocument.model_validate(dish.model_dump(mode="json")))
    of_dish = {one.name: one for one in effects(dish_of(dish))}
    of_chain = {one.name: one for one in plan_effects(plan)}
    assert set(of_dish) == set(of_chain)
    assert of_chain["pot_gauge_kpa"].plate_low_min > 1.0  # a weak pot is later
    for name, one in of_dish.items():
        told = of_chain[name]
        assert told.plate_low_min == pytest.approx(one.plate_low_min, abs=1.0)
        assert told.plate_high_min == pytest.approx(one.plate_high_min, abs=1.0)


def test_an_end_that_is_out_of_reach_tells_nothing():
    """At 62 °C a bath does not take cheeks apart within two days."""
    bath = Dish("beef-cheek", 1.2, 4, 45.0, tenderise="bath", bite="falls")
    told = {one.name: one for one in effects(bath)}
    assert told["bath_c"].plate_low_min == 0.0
    assert told["bath_c"].plate_high_min < -60.0
