"""Every rule of safety, on either side of its threshold: a forecast is taken as it is, and one of
its figures is moved across.
"""

from dataclasses import replace

import pytest

from bluekettle.core.glaze import draw_members
from bluekettle.core.safety import watch_outs
from bluekettle.core.sauce import mix, sample_sauce
from bluekettle.core.stages import FINISHES, TENDERISE, Dish, Kitchen, cut, forecast
from bluekettle.core.tables import value
from bluekettle.core.units import render

RIBS = Dish("beef-short-ribs", 1.6, 6, 45.0, sauce=sample_sauce("plum-tea"), coats=2)
HEAD = Dish("cauliflower", 0.9, 1, 150.0, bite="tug", tenderise="simmer", finish="oven")
PLAIN = mix("soy", [("soy-sauce", 0.1), ("water", 0.1)])
FEW = draw_members(1, 16)
BASE = {dish.cut: forecast(dish, draws=FEW) for dish in (RIBS, HEAD)}
BATH_MOST_KG = (
    (1.0 - value("bath_fill"))
    * Kitchen().or_typical("bath_volume_l")
    * cut("beef-short-ribs").food.density_kg_m3
    / 1e3
)
COOL_FRYER = value("frozen_fry_least_c")
LEAST_L = float(RIBS.first.appliance["least_liquid_l"]) * (1.0 - value("least_liquid_leeway"))
LINE = BASE["beef-short-ribs"].fill.line


def told(of: Dish = RIBS, **parts):
    """Levels by id."""
    return {w.id: w.level for w in found_of(of, **parts)}


def found_of(of, **parts):
    """Watch-outs of a base forecast with figures of its parts replaced."""
    found = BASE[of.cut]
    dish = dict(parts.pop("dish", {}))
    if "kitchen" in parts:
        dish["kitchen"] = Kitchen(**parts.pop("kitchen"))
    changed = {"dish": replace(found.dish, **dish)}
    window = parts.get("milestones", {}).pop("window", None)
    for name, figures in parts.items():
        part = getattr(found, name)
        changed[name] = replace(part, **figures) if isinstance(figures, dict) else figures
    if window is not None:
        milestones = changed.get("milestones", found.milestones)
        changed["milestones"] = replace(milestones, window=replace(milestones.window, **window))
    return watch_outs(replace(found, **changed))


def bath(temp_c, **more):
    return {"dish": {"tenderise": "bath", **more}, "kitchen": {"bath_c": temp_c}}


STOP, CAREFUL, GOOD = "stop", "careful", "good to know"
ON_THE_RIBS = {
    "core-cold": (STOP, {"safety": {"core_low_c": 62.9}}, {"safety": {"core_low_c": 63.0}}),
    "proven-time": (
        CAREFUL,
        {"safety": {"rests_on": "time"}},
        {"safety": {"rests_on": "temperature"}},
    ),
    "thermometer": (CAREFUL, {}, {"safety": {"gate": False}}),
    "leftovers": (GOOD, {}, {"safety": {"gate": False}}),
    "danger-zone": (STOP, {"safety": {"danger_min": 240.1}}, {"safety": {"danger_min": 240.0}}),
    "raw-contact": (STOP, {"dish": {"contact": "raw-contact"}}, {"dish": {"contact": "boiled"}}),
    "boil-first": (CAREFUL, {"dish": {"contact": "boiled"}}, {"dish": {"contact": "clean"}}),
    "frozen-low": (
        STOP,
        {"dish": {"tenderise": "slow", "state": "frozen"}},
        {"dish": {"tenderise": "braise", "state": "frozen"}},
    ),
    "frozen-fry": (
        CAREFUL,
        {
            "dish": {"tenderise": "air_fry", "state": "frozen"},
            "kitchen": {"fry_c": COOL_FRYER - 1.0},
        },
        {"dish": {"tenderise": "air_fry", "state": "frozen"}, "kitchen": {"fry_c": COOL_FRYER}},
    ),
    "bath-cool": (STOP, bath(54.3), bath(54.4)),
    "bath-slow": (
        STOP,
        {**bath(60.0), "safety": {"late_s": 21_601.0}},
        {**bath(60.0), "safety": {"late_s": 21_600.0}},
    ),
    "par-cooked": (CAREFUL, bath(62.9), bath(63.0)),
    "bath-full": (
        STOP,
        bath(65.0, mass_kg=1.01 * BATH_MOST_KG),
        bath(65.0, mass_kg=0.99 * BATH_MOST_KG),
    ),
    "hold-warm": (CAREFUL, {"slack_s": 1.0}, {"slack_s": 0.0}),
    "liquid-least": (
        STOP,
        {"dish": {"liquid_l": LEAST_L - 0.001}},
        {"dish": {"liquid_l": LEAST_L + 0.001}},
    ),
    "pot-full": (STOP, {"fill": {"share": LINE + 0.001}}, {"fill": {"share": LINE}}),
    "froth": (
        CAREFUL,
        {"fill": {"share": 0.9 * LINE + 0.001}},
        {"fill": {"share": 0.9 * LINE - 0.001}},
    ),
    "no-window": (CAREFUL, {"milestones": {"possible": 0.79}}, {"milestones": {"possible": 0.8}}),
    "look": (
        CAREFUL,
        {"milestones": {"possible": 0.05, "window": {"empty": True}}},
        {"milestones": {"possible": 0.05, "window": {"empty": False}}},
    ),
    "coals": (CAREFUL, {"dish": {"finish": "charcoal"}}, {"dish": {"finish": "grill"}}),
    "dries": (GOOD, {"lost_share": 0.121}, {"lost_share": 0.12}),
    "skin-dark": (
        CAREFUL,
        {"dish": {"tenderise": "air_fry"}, "skin_index": 3.0},
        {"dish": {"tenderise": "air_fry"}, "skin_index": 2.99},
    ),
    "never-simmers": (
        CAREFUL,
        {"dish": {"tenderise": "slow"}, "come_up": {"likely_s": 28_800.0}},
        {"dish": {"tenderise": "slow"}, "come_up": {"likely_s": 28_799.0}},
    ),
    "safe-if": (
        CAREFUL,
        {"cut": {"safe_if": "{60} is for a ham as it was packed"}},
        {"cut": {"safe_if": ""}},
    ),
    "pleasanter": (
        GOOD,
        {
            "dish": {"tenderise": "low_oven"},
            "cut": {"pleasant_c": 82.0},
            "safety": {"core_likely_c": 81.9},
        },
        {
            "dish": {"tenderise": "low_oven"},
            "cut": {"pleasant_c": 82.0},
            "safety": {"core_likely_c": 82.0},
        },
    ),
    "first-load-cools": (
        CAREFUL,
        {"dish": {"tenderise": "air_fry", "mass_kg": 8.0, "pieces": 24}},
        {"dish": {"tenderise": "air_fry", "mass_kg": 0.8, "pieces": 4}},
    ),
    "load-cools": (
        CAREFUL,
        {"dish": {"finish": "air_fryer", "mass_kg": 8.0, "pieces": 24}},
        {"dish": {"finish": "air_fryer", "mass_kg": 1.0, "pieces": 4}},
    ),
    "over-top": (
        CAREFUL,
        {
            "dish": {"finish": "air_fryer"},
            "kitchen": {"air_fryer_c": 201.0, "tops_c": {"air_fryer": 200.0}},
        },
        {
            "dish": {"finish": "air_fryer"},
            "kitchen": {"air_fryer_c": 200.0, "tops_c": {"air_fryer": 200.0}},
        },
    ),
    "first-over-top": (
        CAREFUL,
        {
            "dish": {"tenderise": "braise"},
            "kitchen": {"oven_c": 161.0, "tops_c": {"oven": 160.0}},
        },
        {
            "dish": {"tenderise": "braise"},
            "kitchen": {"oven_c": 160.0, "tops_c": {"oven": 160.0}},
        },
    ),
    "tough": (CAREFUL, {"tenderness": {"enough": 0.49}}, {"tenderness": {"enough": 0.5}}),
    "overdone": (
        CAREFUL,
        {"tenderness": {"enough": 0.9, "overdone": 0.21}},
        {"tenderness": {"enough": 0.9, "overdone": 0.2}},
    ),
    "sugar": (CAREFUL, {}, {"dish": {"sauce": PLAIN}}),
    "sugar-free": (GOOD, {"dish": {"sauce": PLAIN}}, {}),
    "no-thermometer": (
        CAREFUL,
        {"kitchen": {"gear": frozenset()}},
        {"kitchen": {"gear": frozenset({"leave-in thermometer"})}},
    ),
    "no-trivet": (
        GOOD,
        {"kitchen": {"gear": frozenset()}},
        {"kitchen": {"gear": frozenset({"trivet"})}},
    ),
    "no-rack": (
        CAREFUL,
        {"kitchen": {"gear": frozenset()}},
        {"kitchen": {"gear": frozenset({"lined tray"})}},
    ),
    "rack": (
        GOOD,
        {"kitchen": {"gear": frozenset({"wire rack"})}},
        {"kitchen": {"gear": frozenset({"lined tray"})}},
    ),
    "foil-edges": (
        GOOD,
        {"kitchen": {"gear": frozenset({"heavy foil"})}, "milestones": {"possible": 0.89}},
        {"kitchen": {"gear": frozenset({"heavy foil"})}, "milestones": {"possible": 0.9}},
    ),
    "lid-on": (GOOD, {"dish": {"tenderise": "slow"}}, {"dish": {"tenderise": "simmer"}}),
}


@pytest.mark.parametrize("rule", ON_THE_RIBS)
def test_a_rule_is_told_on_one_side_of_its_threshold_and_not_on_the_other(rule):
    level, beyond, within = ON_THE_RIBS[rule]
    assert told(**copied(beyond)).get(rule) == level
    assert rule not in told(**copied(within))


def copied(parts):
    return {name: dict(p) if isinstance(p, dict) else p for name, p in parts.items()}


def test_a_vegetable_has_no_gate_and_a_bath_of_its_own():
    cool = told(HEAD, **bath(79.9))
    assert cool["bath-vegetable"] == CAREFUL
    assert not cool.keys() & {"thermometer", "core-cold", "bath-cool", "par-cooked", "leftovers"}
    assert "bath-vegetable" not in told(HEAD, **bath(80.0))
    frozen = {"dish": {"tenderise": "slow", "state": "frozen"}}
    assert "frozen-low" not in told(HEAD, **frozen)


def test_a_hopeless_colour_is_a_stop_and_no_mere_blindness_of_the_clock():
    hopeless = told(milestones={"possible": 0.049, "window": {"empty": True}})
    assert hopeless["no-window"] == STOP
    assert "look" not in hopeless


@pytest.mark.parametrize(
    ("job", "dish"),
    [
        ("smoker", {"tenderise": "smoke"}),
        ("grill", {"finish": "grill"}),
        ("charcoal", {"finish": "charcoal"}),
    ],
)
def test_fire_that_is_known_to_stand_indoors_is_a_stop_and_elsewhere_a_caution(job, dish):
    rule = f"{job}-outdoors"
    assert told(dish=dish)[rule] == CAREFUL
    assert told(dish=dish, kitchen={"indoors": frozenset({job})})[rule] == STOP
    assert rule not in told()


def test_every_heat_has_a_caution_of_its_own_and_a_frothy_pot_is_not_vented_fast():
    for heat in TENDERISE:
        assert len(told(dish={"tenderise": heat, "finish": "broiler"})) >= 5
    cautions = {finish: frozenset(told(dish={"finish": finish})) for finish in FINISHES}
    assert len(set(cautions.values())) == len(FINISHES)
    quick = {"tenderise": "pressure", "release": "quick"}
    assert told(HEAD, dish=quick, fill=BASE["beef-short-ribs"].fill)["froth"] == CAREFUL
    slow = {**quick, "release": "natural"}
    assert "froth" not in told(HEAD, dish=slow, fill=BASE["beef-short-ribs"].fill)


def said(of=RIBS, **parts):
    """The same, whole."""
    return {w.id: w for w in found_of(of, **parts)}


def test_figures_in_the_words_are_those_that_decided():
    proven = said(safety={"rests_on": "time", "log_low": 250.0, "probe_c": 60.0})["proven-time"]
    assert "99 log reductions" in proven.why, "no more than a person can read"
    assert "at least 60 °C" in render(proven.message)
    few = said(safety={"rests_on": "time", "log_low": 8.2})["proven-time"]
    assert "8 log reductions" in few.why
    slow = said(safety={"danger_min": 301.0})["danger-zone"]
    assert render(slow.message) == "The middle would spend 301 minutes between 5 °C and 54 °C."
    waits = said(slack_s=600.0, warm_s=1200.0)["hold-warm"]
    assert "about 20 minutes" in waits.why


@pytest.mark.parametrize("fill", [1.05, 1.4, 2.5])
def test_less_food_by_the_repair_is_under_the_line_and_not_much_under(fill):
    """The food's share of the pot goes with its mass, the liquid stays."""
    found = said(fill={"share": fill * LINE})["pot-full"]
    volume = RIBS.kitchen.or_typical("pot_volume_l")
    food = fill * LINE * volume - RIBS.liquid
    share = (RIBS.liquid + food * found.repair["mass_kg"] / RIBS.mass_kg) / volume
    assert 0.9 * LINE <= share <= LINE + 0.05 / RIBS.mass_kg * food / volume


def test_less_food_by_the_repair_goes_into_the_bath():
    full = bath(65.0, mass_kg=2.0 * BATH_MOST_KG)
    fits = said(**full)["bath-full"].repair["mass_kg"]
    assert 0.5 * BATH_MOST_KG < fits < BATH_MOST_KG
    assert "bath-full" not in told(**bath(65.0, mass_kg=fits))
