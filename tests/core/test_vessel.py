"""The pot's balance, its release, and the piece inside it."""

from dataclasses import replace

import numpy as np
import pytest

from bluekettle.core.glaze import draw_members
from bluekettle.core.heat import surroundings
from bluekettle.core.heat.air import air_of, drying_of
from bluekettle.core.stages import Kitchen, cut
from bluekettle.core.stages.standing import carry_over
from bluekettle.core.stages.tally import MEAN, PEAK, TALLIES, Brought
from bluekettle.core.stages.tenderise import death_of, run_tenderise
from bluekettle.core.stages.waiting import below_surface
from bluekettle.core.tables import value
from tests.one_cook import Dish

MEDIAN = draw_members().median_only()
FEW = draw_members(1, 32)
RIBS = Dish("beef-short-ribs", 1.6, 6, 45.0, release="mixed")


def run(dish, hold_s=1800.0, draws=FEW):
    return run_tenderise(dish.slow, cut(dish.cut), draws, hold_s)


def test_the_heat_of_the_come_up_leaves_the_food_a_plausible_share():
    """Power times time, less pot, liquid, vented steam and the room, warms the food by 15 to 60 K
    on average.
    """
    found = run(RIBS, 0.0, MEDIAN)
    food = cut(RIBS.cut).food
    come_up = found.come_up_s[0]
    given = 1000.0 * come_up
    pot = (RIBS.slow.liquid * 4190.0 + 1900.0) * (found.target_c - value("kitchen_c"))
    pot += RIBS.slow.liquid * 4190.0 * (value("kitchen_c") - value("tap_c"))
    steam = value("vent_steam_kg") * 2.259e6
    # With a hold of nothing and a release that follows, the food's heat is what is left: it must be
    # plausible.
    left = given - pot - steam - value("pot_loss_w_k") * 60.0 * come_up
    warmed = left / (RIBS.mass_kg * food.specific_heat_j_kg_k(4, 60))
    assert 15.0 < warmed < 60.0


def test_a_stronger_heater_and_a_smaller_pot_are_sooner_at_pressure():
    known = Kitchen(pot_power_w=1000.0, pot_gauge_kpa=80.0, altitude_m=0.0)
    usual = run(replace(RIBS, kitchen=known)).come_up_s
    strong = replace(RIBS, kitchen=replace(known, pot_power_w=1500.0))
    assert np.all(run(strong).come_up_s < usual)
    weak = replace(RIBS, kitchen=replace(known, pot_gauge_kpa=40.0))
    assert np.all(run(weak).come_up_s < usual)
    unknown = run(RIBS).come_up_s
    assert np.std(np.log(unknown)) > 2.0 * np.std(np.log(usual)), "what nobody said is not known"


def test_a_hot_pot_comes_back_to_pressure_faster_than_a_cold_one():
    hot = run_tenderise(RIBS.slow, cut(RIBS.cut), FEW, 600.0, pot_c=98.0)
    assert np.all(hot.come_up_s < 0.9 * run(RIBS, 600.0).come_up_s)


def test_natural_release_takes_longer_the_more_is_inside():
    natural = replace(RIBS, release="natural")
    small = run(replace(natural, mass_kg=0.8, pieces=3), 5400.0)
    assert np.all(run(natural, 5400.0).natural_s > small.natural_s)
    assert np.all(run(natural).quick_s == 0)
    quick = run(replace(RIBS, release="quick"))
    assert np.all(quick.natural_s == 0)
    assert np.all((quick.quick_s >= 60) & (quick.quick_s <= 185))


@pytest.mark.parametrize("release", ["quick", "mixed", "natural"])
@pytest.mark.parametrize("state", ["fridge", "frozen"])
def test_food_is_never_hotter_than_its_steam_and_flashes_to_boiling_on_release(release, state):
    found = run(replace(RIBS, release=release, state=state), 3600.0)
    assert np.nanmax(found.trace[:, 1:]) <= found.target_c + 1e-6
    assert found.profile_c.max() <= found.boil_c + 0.6
    assert np.all(np.diff(found.trace[:, 0]) > 0)
    assert np.all(np.isfinite(found.profile_c))


def test_every_minute_more_is_more_cook_value_and_more_kill():
    short, long = run(RIBS, 1200.0), run(RIBS, 1800.0)
    assert np.all(long.cook_centre > short.cook_centre)
    assert np.all(long.cook_mean > short.cook_mean)
    assert np.all(long.log_reduction >= short.log_reduction)
    assert np.all(short.cook_mean > short.cook_centre)  # the outside is ahead of the middle


def test_at_rest_the_middle_still_rises_while_the_surface_falls():
    """Carry-over: a steep profile evens out."""
    found = run(RIBS, 60.0)
    food = cut(RIBS.cut).food
    sums = np.zeros((32, TALLIES))
    rested, peak, surface, sums = carry_over(
        Brought(found.profile_c, sums, np.zeros(32)),
        found.half_m,
        found.crust_m,
        np.full(32, 240.0),
        found.pressure_pa,
        found.boils_c,
        0.0,
        drying_of(food, 1.0),
        air_of(surroundings("rest"), 7.0, 1.0, 1.0),
        death_of(cut(RIBS.cut), 0.0),
        20.0,
    )
    assert np.all(rested[:, 0] > found.profile_c[:, 0])
    assert np.all(rested[:, -1] < found.profile_c[:, -1])
    assert np.all(peak >= rested[:, 0] - 1e-9)
    assert np.all(sums[:, PEAK] == peak)
    assert np.all(sums[:, MEAN] > 0.0)  # what is hot goes on cooking
    assert np.all(surface < rested[:, -1])
    deep, shallow = below_surface(rested, found.half_m, surface)
    assert np.all(deep >= rested.min(axis=1) - 1e-6)
    assert np.median(surface) < shallow < np.median(rested[:, -1]) + 1.0


def test_a_braise_stays_under_boiling_and_takes_far_longer():
    braise = run(replace(RIBS, tenderise="braise", release=None), 3600.0)
    assert np.nanmax(braise.trace[:, 1]) < braise.boil_c
    assert np.mean(braise.come_up_s > run(RIBS).come_up_s) > 0.9
    assert np.all(braise.natural_s == 0)
    warmer = run(
        replace(RIBS, tenderise="braise", release=None, kitchen=Kitchen(oven_c=180.0)), 3600.0
    )
    assert np.all(warmer.come_up_s < braise.come_up_s)
