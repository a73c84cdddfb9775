"""A kitchen figure lives in one place: everything that asks for one asks its row."""

from dataclasses import replace

import numpy as np
import pytest

from bluekettle.core.advice import plan_effects
from bluekettle.core.chain import forecast_plan
from bluekettle.core.errors import MissingData, OutOfRange, Ranges
from bluekettle.core.glaze import draw_members
from bluekettle.core.stages import LIMITS, Kitchen, Learnt, figure, figures, first_heat
from bluekettle.core.tables import row
from bluekettle.schemas.dish import KitchenDocument
from bluekettle.services.dishes import kitchen_of
from tests.one_cook import Dish

RIBS = Dish("pork-ribs", 1.4, 4, 26.0, bite="tug")


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


def test_an_assumption_is_worth_what_the_plate_moves_by():
    """Told by the median member: the same as two forecasts of it, run here."""
    told = {one.name: one for one in plan_effects(RIBS.plan)}
    assert told["pot_gauge_kpa"].plate_low_min > 1.0  # a weak pot is later
    median = draw_members().median_only()
    for name in ("pot_power_w", "altitude_m"):
        low = RIBS.kitchen.having(name, told[name].low)
        ends = [
            forecast_plan(replace(RIBS.plan, kitchen=kitchen), None, median).total.likely_s
            for kitchen in (RIBS.kitchen, low)
        ]
        moved = (ends[1] - ends[0]) / 60.0
        assert told[name].plate_low_min == pytest.approx(moved, abs=0.01)


def test_an_end_that_is_out_of_reach_tells_nothing():
    """At 62 °C a bath does not take cheeks apart within two days."""
    bath = Dish("beef-cheek", 1.2, 4, 45.0, tenderise="bath", bite="falls")
    told = {one.name: one for one in plan_effects(bath.plan)}
    assert told["bath_c"].plate_low_min == 0.0
    assert told["bath_c"].plate_high_min < -60.0


@pytest.mark.parametrize(
    ("watts", "word"), [(112.0, "low"), (114.0, "low"), (116.0, ""), (165.0, ""), (220.0, "high")]
)
def test_a_dial_with_words_tells_the_one_within_two_in_a_hundred(watts, word):
    assert first_heat("slow").setting_at(watts) == word


def test_a_belief_that_is_told_and_cannot_be_is_refused_by_its_largest_variance():
    cov = np.diag([0.1, 0.09, 4.5, 0.09])
    with pytest.raises(OutOfRange, match=r"oven\.cov: 4\.5"):
        told(Learnt((0.0,) * 4, tuple(cov.ravel()), 1))
    told(Learnt((0.0,) * 4, tuple((cov / 4.5).ravel()), 1))


def told(learnt):
    """As a kitchen checks it."""
    ranges = Ranges()
    learnt.check("oven", ranges)
    ranges.close()
