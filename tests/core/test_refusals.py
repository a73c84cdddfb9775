"""Every public function of the core refuses numbers outside its range, and no NaN ever comes out of
it.
"""

import importlib
import inspect
import math
from dataclasses import replace

import numpy as np
import pytest

from bluekettle.core import (
    advice,
    calibration,
    chain,
    glaze,
    heat,
    ingredients,
    lethality,
    pressure,
    sauce,
    stages,
    tenderness,
    thermo,
    units,
)
from bluekettle.core.errors import CoreError, OutOfRange
from bluekettle.core.glaze import BEFORE, Heat, draw_members
from tests.one_cook import Dish, forecast

ROOMS = (
    "units",
    "tables",
    "thermo",
    "ingredients",
    "sauce",
    "heat",
    "pressure",
    "glaze",
    "tenderness",
    "lethality",
    "stages",
    "safety",
    "calibration",
    "advice",
)
# Compiled kernels: called a million times a forecast, with what the public function around them has
# checked.
KERNELS = {"latent_heat_j_kg", "step_piece", "cell_geometry", "cook_rate", "log_rate"}
# A clock that was set wrong may not close a cook: what is out of range is held, not refused.
HELD = {"follow"}

FOOD = stages.cut("beef-short-ribs").food
BROILER = Heat(12.0, 220.0, 220.0, 2650.0, 0.35)
DISH = Dish("beef-short-ribs", 1.6, 6, 45.0, sauce=sauce.sample_sauce("plum-tea"), coats=1)
FORECAST = forecast(DISH)
COATING = FORECAST.coating
BELIEF = calibration.first_belief(0.35)
COURSES = calibration.courses_of(np.arange(3.0), np.array([[5.0, 50.0, 90.0]]))
UNREAD = calibration.follow_probe(COURSES, np.zeros(0), np.zeros(0))
LAB = (45.0, 18.0, 26.0)
TIMES = np.array([0.0, 60.0])

CALLS = {
    units.amount: {"value": 63.0, "unit": "°C"},
    units.c_to_f: {"temp_c": 60.0},
    units.fingers_to_mm: {"fingers": 2.0},
    units.minutes: {"time_s": 60.0},
    units.percent: {"share": 0.5},
    units.times_in_ten: {"share": 0.5},
    units.span_words: {"seconds": 60.0},
    units.pounds_to_kg: {"mass_lb": 2.0},
    thermo.ambient_pressure_pa: {"altitude_m": 0.0},
    thermo.boiling_point_c: {"altitude_m": 0.0},
    thermo.saturation_pressure_pa: {"temp_c": 100.0},
    thermo.saturation_temp_c: {"pressure_pa": 1e5},
    ingredients.from_label: {
        "key": "x",
        "name": "x",
        "label": ingredients.Label(30.0, 5.0, 100.0),
        "density_kg_l": 1.1,
    },
    ingredients.say_amount: {"mass_kg": 0.1},
    ingredients.say_spoons: {"mass_kg": 0.1, "density_kg_l": 1.0},
    sauce.boil_minutes: {"mass_kg": 0.3, "power_w": 1500.0, "start_c": 8.0},
    sauce.factor_for_coats: {
        "mass_kg": 0.3,
        "surface_m2": 0.2,
        "coats": 2,
        "coat_kg_m2": 0.6,
        "table_kg": 0.1,
    },
    sauce.factor_for_meat: {"for_kg": 1.5, "meat_kg": 2.0},
    sauce.factor_for_short: {"mass_kg": 0.2, "have_kg": 0.1},
    sauce.keep_ledger: {"batch_kg": 0.5, "moves": []},
    sauce.meat_for: {"servings": 4.0, "appetite": "hearty", "shrink": 0.2, "bone": 0.1},
    sauce.salt_of: {"sources": [("rub", 0.01)], "meat_kg": 1.0},
    sauce.scale: {
        "kind": "rub",
        "lines": [(ingredients.ingredient("paprika"), 0.02)],
        "factor": 2.0,
        "liquid_l": 0.3,
    },
    sauce.shares_of: {"total_kg": 1.0, "wanted": [("table", 1.0)]},
    sauce.simmer: {
        "sauce": sauce.sample_sauce("plum-tea"),
        "minutes": 5.0,
        "power_w": 1500.0,
        "start_c": 20.0,
    },
    sauce.simmer_minutes: {
        "sauce": sauce.sample_sauce("plum-tea"),
        "volume_l": 0.2,
        "power_w": 1500.0,
    },
    stages.film_of: {"sauce": sauce.sample_sauce("plum-tea"), "coat_kg_m2": 0.6},
    advice.calmers: {
        "lines": [(ingredients.ingredient("honey"), 0.1)],
        "coat_mm": 0.5,
        "water": 0.15,
    },
    stages.dial_that_holds: {"dish": replace(DISH, finish="oven").fire, "read_c": 205.0},
    stages.fit_cut: {
        "cut_key": "pork-ribs",
        "mass_kg": 1.4,
        "pieces": 4,
        "thickness_mm": 26.0,
        "inside": stages.Inside("box", 0.3, 0.3, 0.1),
        "trivet_m": 0.01,
        "liquid_l": 0.2,
    },
    stages.ladder: {"sauce": sauce.sample_sauce("plum-tea"), "coat_mm": 0.5},
    sauce.reduce_to: {"sauce": sauce.sample_sauce("plum-tea"), "water": 0.3},
    heat.biot_number: {"h_w_m2_k": 20.0, "half_m": 0.02, "k_w_m_k": 0.4},
    heat.conduct: {
        "food": FOOD,
        "shape": "slab",
        "half_m": 0.02,
        "start_c": 4.0,
        "h_w_m2_k": 20.0,
        "env_c": 90.0,
        "time_s": 60.0,
        "dt_s": 5.0,
        "cells": 10,
    },
    heat.equal_body: {
        "halves_m": (0.02, 0.05),
        "powers": (1.0, 0.0),
        "h_w_m2_k": 20.0,
        "k_w_m_k": 0.5,
    },
    heat.element_at: {"flux_w_m2": 2500.0, "distance_m": 0.15},
    heat.loaded_air_c: {
        "dial_c": 200.0,
        "power_w": 1500.0,
        "loss_w_k": 2.0,
        "u_w_m2_k": 60.0,
        "area_m2": 0.2,
        "food_c": 100.0,
    },
    heat.heat_in: {
        "around": heat.surroundings("smoker"),
        "food": FOOD,
        "shape": "slab",
        "half_m": 0.02,
        "start_c": 4.0,
        "time_s": 60.0,
        "altitude_m": 0.0,
        "dt_s": 5.0,
        "cells": 10,
    },
    heat.surroundings: {"key": "smoker", "air_c": 107.0},
    pressure.fill_of: {
        "volume_l": 6.0,
        "liquid_l": 0.3,
        "food_l": 1.5,
        "juice_l": 0.2,
        "swells": False,
    },
    pressure.gauge_saturation_c: {"gauge_kpa": 80.0, "altitude_m": 0.0},
    pressure.quick_release_s: {"volume_l": 6.0, "seconds_per_l": 15.0},
    glaze.boiling_temp_c: {"solids": 0.8, "pressure_pa": 101_325.0, "mono_share": 0.1},
    stages.calls_by_clock: {"out_s": 180.0},
    glaze.draw_members: {"seed": 1, "members": 16},
    glaze.index_to_hex: {"index": 1.0, "raw_lab": LAB},
    glaze.index_to_lab: {"index": 1.0, "raw_lab": LAB},
    glaze.indices_to_hex: {"indices": np.array([0.0, 1.0]), "raw_lab": LAB},
    glaze.rubbed_film: {"sugar_kg_m2": 0.1, "spice_kg_m2": 0.1, "baking_powder": True},
    glaze.water_activity: {"solids": 0.7, "mono_share": 0.2},
    glaze.weighted_quantile: {"values": TIMES, "weights": np.ones(2), "quantile": 0.5},
    glaze.weighted_quantiles: {"values": TIMES, "weights": np.ones(2), "quantiles": (0.5,)},
    glaze.reweigh: {"sightings": [(np.array([60.0, 90.0]), 70.0)], "members": 2, "log_sd": 0.15},
    glaze.run_finish: {
        "draws": draw_members(1, 16),
        "heat": BROILER,
        "coating": COATING,
        "acts": [BEFORE],
        "deep_c": 80.0,
        "surface_c": 70.0,
        "time_s": 120.0,
        "altitude_m": 0.0,
        "dt_s": 2.0,
        "every_s": 10.0,
    },
    tenderness.cook_value_min: {"time_s": TIMES, "temp_c": np.array([90.0, 95.0])},
    lethality.log_reduction: {
        "kill": lethality.kill_for("beef"),
        "time_s": TIMES,
        "temp_c": np.array([60.0, 65.0]),
    },
    chain.forecast_plan: {"plan": DISH.plan, "available_s": 20_000.0},
    stages.waiting_step: {"seconds": 600.0},
    stages.risk_at: {
        "milestones": FORECAST.milestones,
        "sample_s": FORECAST.finish.sample_s,
        "time_s": 60.0,
    },
    calibration.first_belief: {"heat_sd": 0.35},
    calibration.draw_factors: {"belief": BELIEF, "seed": 1, "members": 16},
    calibration.learn: {
        "belief": BELIEF,
        "log_factors": np.zeros((8, 4)),
        "log_ratio": np.zeros(8),
        "log_sd": 0.15,
    },
    calibration.learn_from: {
        "belief": BELIEF,
        "heat": BROILER,
        "coating": COATING,
        "time_s": 300.0,
        "observations": [calibration.SignSeen("bubbling", 60.0)],
    },
    calibration.colour_chances: {"finish": FORECAST.finish, "at_s": 300.0, "log_sd": 0.15},
    calibration.when_reached: {"courses": COURSES, "probed": UNREAD, "target_c": 70.0},
    calibration.predict: {
        "belief": BELIEF,
        "heat": BROILER,
        "coating": COATING,
        "time_s": 300.0,
        "deep_c": 80.0,
        "surface_c": 70.0,
        "seed": 1,
    },
    advice.explore: {"fire": FORECAST.under, "time_s": 300.0},
    advice.taken: {
        "fire": FORECAST.whole.fires[-1],
        "draws": draw_members(1),
        "key": "calmer",
        "at_s": 120.0,
    },
    advice.rescue: {"fire": FORECAST.under, "draws": draw_members(1), "at_s": 60.0},
}


def is_number(given):
    return isinstance(given, int | float) and not isinstance(given, bool)


CASES = [(f, name) for f, good in CALLS.items() for name, given in good.items() if is_number(given)]


@pytest.mark.parametrize(("function", "name"), CASES, ids=[f"{f.__name__}-{n}" for f, n in CASES])
@pytest.mark.parametrize("bad", [math.nan, math.inf, -1e30, 1e30])
def test_a_number_out_of_range_is_refused_by_name_and_value(function, name, bad):
    given = CALLS[function] | {name: bad}
    with pytest.raises(OutOfRange) as caught:
        function(**given)
    assert caught.value.faults[0].field.split(".")[0] in (name, "observations"), caught.value
    assert caught.value.faults[0].accepted


@pytest.mark.parametrize(
    "function", [f for f in CALLS if any(isinstance(g, np.ndarray) for g in CALLS[f].values())]
)
def test_an_array_with_a_nan_in_it_is_refused(function):
    for name, given in CALLS[function].items():
        if isinstance(given, np.ndarray) and name != "sample_s":
            spoilt = given.copy()
            spoilt[-1] = math.nan
            with pytest.raises(OutOfRange):
                function(**(CALLS[function] | {name: spoilt}))


def test_every_public_function_that_takes_a_number_is_tried_here():
    tried = {f.__name__ for f in CALLS} | KERNELS | HELD
    missing = []
    for room in ROOMS:
        module = importlib.import_module(f"bluekettle.core.{room}")
        for name in module.__all__:
            thing = getattr(module, name)
            if (
                inspect.isclass(thing)
                or not callable(thing)
                or name in tried
                or name in ("Row", "Known")
            ):
                continue
            hints = [str(p.annotation) for p in inspect.signature(thing).parameters.values()]
            if any(hint in ("float", "int", "float | None") for hint in hints):
                missing.append(f"{room}.{name}")
    assert missing == []


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        ({"mass_kg": math.nan}, "food.mass_kg"),
        ({"thickness_mm": -1.0}, "food.thickness_mm"),
        ({"coats_min": (1.0, math.nan)}, "stages.2.acts.1.at_min"),
        ({"flips_min": (math.nan,)}, "stages.3.acts.1.at_min"),
        ({"finish": "campfire"}, "stages.3.heat"),
        ({"tenderise": "campfire"}, "stages.1.heat"),
        ({"timer_min": math.inf}, "stages.1.until.minutes"),
    ],
)
def test_a_plan_with_a_fault_names_its_field(wrong, field):
    with pytest.raises(CoreError) as caught:
        replace(DISH, coats=2, **wrong).plan.check()
    assert field in [fault.field for fault in caught.value.faults]
