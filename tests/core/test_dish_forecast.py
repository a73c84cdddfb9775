"""A dish from raw to plate: directions, honesty and refusals of the forecast."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from bluekettle.core.chain import forecast_plan
from bluekettle.core.errors import NotConverged, OutOfRange
from bluekettle.core.glaze import draw_members
from bluekettle.core.sauce import mix, sample_sauce
from bluekettle.core.stages import Kitchen, Sighting, cut, cut_keys, serial
from bluekettle.core.stages.tenderise import run_tenderise
from tests.one_cook import Dish, forecast, watch_outs

RIBS = Dish("beef-short-ribs", 1.6, 6, 45.0, sauce=sample_sauce("plum-tea"), coats=1)
FEW = draw_members(1, 32)


def usual(key, **more):
    """The usual dish of a cut."""
    found = cut(key)
    bite = next(b for b in ("falls", "tug", "sliceable") if b in found.targets)
    return Dish(key, found.mass_kg, found.pieces, found.thickness_mm, bite=bite, **more)


def come_up(dish):
    """P10, P50, P90 of the come-up [s], with the hold fixed so that only the come-up is
    compared.
    """
    run = run_tenderise(dish.slow, cut(dish.cut), FEW, 600.0)
    return np.quantile(run.come_up_s, (0.1, 0.5, 0.9))


def timer_s(dish):
    """The timer of the slow heat, with what comes after it left out."""
    cook = next(stage for stage in dish.plan.stages if stage.id == "cook")
    return forecast_plan(replace(dish.plan, stages=(cook,)), None, FEW).slows[0].timer_s


@pytest.mark.parametrize("key", cut_keys())
@pytest.mark.parametrize("state", ["fridge", "frozen"])
def test_honest_time_exceeds_headline_time_for_every_pressure_plan(key, state):
    f = forecast(usual(key, state=state), draws=FEW)
    assert f.total.likely_s > f.headline_s + f.come_up.likely_s
    assert f.total.low_s < f.total.likely_s < f.total.high_s
    assert f.tenderness.enough >= 0.5
    chain = np.sum([s.seconds for s in serial(f.stages)], axis=0)
    assert np.quantile(chain, 0.5) == pytest.approx(f.total.likely_s, rel=0.02)


@given(st.floats(0.3, 2.0), st.floats(0.25, 0.8), st.floats(1.2, 2.0))
def test_more_food_more_liquid_and_frost_come_up_later(mass_kg, liquid_l, more):
    dish = replace(RIBS, mass_kg=mass_kg, pieces=3, thickness_mm=25.0, liquid_l=liquid_l)
    base = come_up(dish)
    assert np.all(come_up(replace(dish, mass_kg=mass_kg * more)) >= base)
    assert np.all(come_up(replace(dish, liquid_l=liquid_l * more)) > base)
    assert np.all(come_up(replace(dish, state="frozen")) > base)


def test_up_a_mountain_the_pot_is_sooner_at_pressure_but_cooler_and_so_cooks_longer():
    high = replace(RIBS, kitchen=Kitchen(altitude_m=2500.0))
    assert come_up(high)[1] < come_up(RIBS)[1]
    low_run, high_run = (run_tenderise(d.slow, cut(d.cut), FEW, 600.0) for d in (RIBS, high))
    assert high_run.target_c < low_run.target_c - 3
    assert timer_s(high) > timer_s(RIBS)


@given(st.sampled_from(["pork-ribs", "lamb-breast", "lamb-shanks"]), st.floats(1.1, 1.5))
def test_time_goes_by_thickness_and_softer_bites_take_longer(key, more):
    dish = usual(key)
    thin = timer_s(dish)
    assert timer_s(replace(dish, thickness_mm=dish.thickness_mm * more)) > thin
    shreds, tug = (timer_s(replace(dish, bite=bite)) for bite in ("shreds", "tug"))
    assert shreds > thin > tug


def test_a_little_more_mass_is_a_little_more_time_without_cliffs():
    """2.9 lb and 3.0 lb get nearly the same answer."""
    totals = [
        forecast(replace(RIBS, mass_kg=m), draws=FEW).total.likely_s for m in (1.315, 1.338, 1.361)
    ]
    assert np.all(np.abs(np.diff(totals)) < 130)


def test_time_to_spare_becomes_a_covered_wait_before_the_finish_and_no_more():
    f = forecast(RIBS, available_s=8 * 3600.0)
    keys = f.keys
    assert keys.index("slack") < keys.index("finish.under")
    assert f.slack_s == pytest.approx(f.total.high_s - f.total.likely_s, abs=120)
    assert "slack" not in forecast(RIBS, available_s=1800.0).keys


def test_a_braise_shares_its_oven_with_the_broiler_and_warms_it_only_after_the_dish_is_out():
    braise = forecast(replace(RIBS, tenderise="braise"), draws=FEW)
    preheat = braise.link("finish.warm_up")
    opened = braise.link("cook.open")
    assert preheat.start.likely_s <= opened.start.likely_s
    assert braise.total.likely_s > forecast(RIBS, draws=FEW).total.likely_s


def test_a_sighting_narrows_the_finish_and_the_whole():
    before = forecast(RIBS)
    seen = forecast(replace(RIBS, sightings=(Sighting("amber at the edges", 200.0),)))

    def span(f):
        band = f.link("finish.finish").band
        return band.high_s / band.low_s

    assert span(seen) < 0.8 * span(before)
    pale = forecast(replace(RIBS, sightings=(Sighting("nothing yet", 200.0),)))
    assert (
        pale.milestones.bands["face"]["amber"].likely_s
        > before.milestones.bands["face"]["amber"].likely_s
    )


def test_no_poultry_timer_is_so_short_that_the_middle_may_stay_under_its_temperature():
    for state in ("fridge", "frozen"):
        f = forecast(usual("chicken-thighs", state=state, release="quick"), draws=FEW)
        assert f.safety.core_low_c >= 74.0
    short = forecast(replace(usual("chicken-thighs"), timer_min=1.0, release="quick"), draws=FEW)
    found = {w.id: w for w in watch_outs(short)}
    assert found["core-cold"].level == "stop"
    assert found["core-cold"].repair


def test_a_sugar_free_glaze_is_told_to_have_no_caramel():
    polyol = mix("light", [("polyol-sweetener", 0.1), ("water", 0.05), ("lemon-juice", 0.02)])
    f = forecast(replace(RIBS, sauce=polyol), draws=FEW)
    assert not f.coating.caramelises
    assert "sugar-free" in [w.id for w in watch_outs(f)]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"mass_kg": 0.0}, "food.mass_kg"),
        ({"mass_kg": 900.0}, "food.mass_kg"),
        ({"thickness_mm": 3000.0}, "food.thickness_mm"),
        ({"thickness_mm": 140.0}, "food.thickness_mm"),
        ({"pieces": -1}, "food.pieces"),
        ({"cut": "heron"}, "food.cut"),
        ({"bite": "melts"}, "stages.1.until.bite"),
        ({"coat_mm": 20.0}, "stages.2.mm"),
        ({"mass_kg": float("nan")}, "food.mass_kg"),
        ({"kitchen": Kitchen(altitude_m=9000.0)}, "kitchen.altitude_m"),
        ({"sightings": (Sighting("dim", 40.0),)}, "sightings.finish.0.sign"),
    ],
)
def test_what_cannot_be_is_refused_by_field(change, field):
    with pytest.raises(OutOfRange) as caught:
        forecast(replace(RIBS, **change))
    assert field in [f.field for f in caught.value.faults]


def test_a_bite_out_of_reach_says_how_far_it_got():
    """Two days at 46 °C do not make short ribs fall off the bone."""
    with pytest.raises(NotConverged) as caught:
        forecast(replace(RIBS, tenderise="bath", kitchen=Kitchen(bath_c=46.0)), draws=FEW)
    assert 0 <= caught.value.reached < caught.value.wanted
