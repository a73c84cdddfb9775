"""Rules of heats, gear and waits, on either side of their threshold; where one tap is offered, it
helps.
"""

import copy
import json
from dataclasses import replace
from functools import lru_cache

import numpy as np
import pytest

from bluekettle.core.chain import forecast_plan
from bluekettle.core.glaze import draw_members
from bluekettle.core.safety import plan_watch_outs
from bluekettle.core.stages import Kitchen, cut
from bluekettle.core.tables import value
from bluekettle.core.units import render
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from tests.chain.conftest import patched

FEW = draw_members(1, 16)
STOP, CAREFUL, GOOD = "stop", "careful", "good to know"
RIBS = {"cut": "beef-short-ribs", "mass_kg": 1.6, "pieces": 6, "thickness_mm": 45.0}
THIGHS = {"cut": "chicken-thighs", "mass_kg": 1.0, "pieces": 6, "thickness_mm": 35.0}
HEAD = {"cut": "cauliflower", "mass_kg": 0.9, "pieces": 1, "thickness_mm": 150.0}
SHOULDER = {"cut": "pork-shoulder", "mass_kg": 1.8, "pieces": 5, "thickness_mm": 60.0}
HAM = {"cut": "cooked-ham", "mass_kg": 2.0, "pieces": 1, "thickness_mm": 90.0}
SAUCE = {"id": "glaze", "sauce": "plum-tea"}
SOY = {
    "name": "soy",
    "lines": [
        {"ingredient": "soy-sauce", "mass_g": 100.0},
        {"ingredient": "water", "mass_g": 100.0},
    ],
}


def laced(brandy_g, fire):
    """Ribs brushed with a glaze that holds so much brandy in 200 g, then under a fire."""
    lines = [
        {"ingredient": "honey", "mass_g": 200.0 - brandy_g},
        {"ingredient": "brandy", "mass_g": brandy_g},
    ]
    sauce = {"id": "glaze", "sauce": {"name": "laced", "lines": lines}}
    return document(RIBS, POT, BRUSH, heat(fire, "colour", "finish"), sauce=sauce)


BATH_MOST_KG = (
    (1.0 - value("bath_fill"))
    * Kitchen().or_typical("bath_volume_l")
    * cut("beef-short-ribs").food.density_kg_m3
    / 1e3
)
COOL_FRYER = value("frozen_fry_least_c")


def heat(name, by, ident="cook", **more):
    until = {"by": by, **more.pop("until", {})}
    return {"kind": "heat", "id": ident, "heat": name, "until": until, **more}


def document(food, *stages, sauce=SAUCE, **kitchen):
    layers = [sauce] if any(s.get("layer") for s in stages) else []
    return {"food": food, "layers": layers, "stages": list(stages), "kitchen": kitchen}


POT = heat("pressure", "bite", until={"bite": "tug"})
BRUSH = {"kind": "dress", "id": "brush", "layer": "glaze"}
BROIL = heat("broiler", "colour", "finish")


def pot(*after, food=RIBS, **more):
    return document(food, POT, *after, **more)


def bath(temp_c, *, food=RIBS, minutes=None, **more):
    until = {"bite": "tug"} if minutes is None else {"minutes": minutes}
    by = "bite" if minutes is None else "minutes"
    return document(food, heat("bath", by, dial=temp_c, until=until), BROIL, **more)


def pressed(lies):
    frozen = {**RIBS, "state": "frozen"}
    return document(frozen, {**POT, "lies": lies}, BROIL)


def fryer(dial, **food):
    return document(
        {**RIBS, **food}, heat("air_fryer", "minutes", dial=dial, until={"minutes": 40})
    )


@lru_cache(maxsize=64)
def forecast_of(text):
    return forecast_plan(plan_of(ChainDocument.model_validate_json(text)), None, FEW)


def found_in(given):
    return plan_watch_outs(forecast_of(json.dumps(given)))


def told(given):
    return {w.id: w.level for w in found_in(given)}


GEAR = {"no": [], "wired": ["wire rack"], "lined": ["lined tray"], "foil": ["heavy foil"]}
TOP = {"machines": {"air_fryer": {"top_c": 200.0}}}
TEN_HOURS = {"until": {"minutes": 600.0}}
# rule: level, a plan that trips it, one that just does not
RULES = {
    "bath-full": (
        STOP,
        bath(65.0, food={**RIBS, "mass_kg": 1.01 * BATH_MOST_KG}),
        bath(65.0, food={**RIBS, "mass_kg": 0.99 * BATH_MOST_KG}),
    ),
    "par-cooked": (CAREFUL, bath(60.0, minutes=30.0), bath(64.0, minutes=240.0)),
    "bath-vegetable": (
        CAREFUL,
        bath(79.9, food=HEAD, minutes=60.0),
        bath(80.0, food=HEAD, minutes=60.0),
    ),
    "block": (CAREFUL, pressed("block"), pressed("stacked")),
    "spirits": (CAREFUL, laced(20.0, "grill"), laced(15.0, "grill")),
    "frozen-fry": (
        CAREFUL,
        fryer(COOL_FRYER - 1.0, state="frozen"),
        fryer(COOL_FRYER, state="frozen"),
    ),
    "lid-on": (
        GOOD,
        document(RIBS, heat("slow_cooker", "minutes", until={"minutes": 300.0})),
        document(RIBS, heat("simmer", "minutes", until={"minutes": 60.0})),
    ),
    "never-simmers": (
        CAREFUL,
        document(RIBS, heat("slow_cooker", "minutes", dial=80.0, **TEN_HOURS)),
        document(RIBS, heat("slow_cooker", "minutes", dial=300.0, **TEN_HOURS)),
    ),
    "load-cools": (
        CAREFUL,
        fryer(190.0, mass_kg=8.0, pieces=24),
        fryer(190.0, mass_kg=0.8, pieces=4),
    ),
    "over-top": (CAREFUL, {**fryer(201.0), "kitchen": TOP}, {**fryer(200.0), "kitchen": TOP}),
    "coals": (
        CAREFUL,
        pot(heat("charcoal", "colour", "finish")),
        pot(heat("grill", "colour", "finish")),
    ),
    "sugar": (CAREFUL, pot(BRUSH, BROIL), pot(BROIL)),
    "sugar-free": (
        GOOD,
        pot(BRUSH, BROIL, sauce={"id": "glaze", "sauce": SOY}),
        pot(BRUSH, BROIL),
    ),
    "dries": (
        GOOD,
        document(RIBS, heat("oven", "minutes", dial=140.0, until={"minutes": 240.0})),
        document(RIBS, heat("oven", "minutes", dial=140.0, until={"minutes": 30.0})),
    ),
    "skin-dark": (
        CAREFUL,
        document(THIGHS, heat("oven", "minutes", dial=170.0, until={"minutes": 240.0})),
        document(THIGHS, heat("oven", "minutes", dial=140.0, until={"minutes": 60.0})),
    ),
    "no-thermometer": (
        CAREFUL,
        pot(BROIL, gear=[]),
        pot(BROIL, gear=["leave-in thermometer"]),
    ),
    "tongs": (CAREFUL, pot(BROIL, gear=[]), pot(BROIL, food=HEAD, gear=[])),
    "no-trivet": (GOOD, pot(BRUSH, BROIL, gear=[]), pot(BRUSH, BROIL, gear=["trivet"])),
    "no-rack": (CAREFUL, pot(BROIL, gear=[]), pot(BROIL, gear=GEAR["lined"])),
    "rack": (GOOD, pot(BROIL, gear=GEAR["wired"]), pot(BROIL, gear=GEAR["lined"])),
    "safe-if": (
        CAREFUL,
        document(HAM, heat("oven", "core", dial=160.0, until={"core_c": 61.0})),
        pot(BROIL),
    ),
    "pleasanter": (
        GOOD,
        document(THIGHS, heat("oven", "minutes", dial=160.0, until={"minutes": 46.0})),
        document(THIGHS, heat("oven", "minutes", dial=160.0, until={"minutes": 55.0})),
    ),
}


@pytest.mark.parametrize("rule", RULES)
def test_a_rule_is_told_on_one_side_of_its_threshold_and_not_on_the_other(rule):
    level, beyond, within = RULES[rule]
    found = told(beyond)
    assert found.get(rule) in ((level, STOP) if rule == "skin-dark" else (level,)), found
    assert rule not in told(within)


def test_every_offered_tap_takes_its_warning_away():
    helped = 0
    for rule, (_, beyond, _) in RULES.items():
        repair = next(w.repair for w in found_in(beyond) if w.id == rule)
        if not repair:
            continue
        assert rule not in told(patched(copy.deepcopy(beyond), repair)), rule
        helped += 1
    assert helped >= 6


def test_nothing_is_said_of_gear_where_nobody_said_what_there_is():
    gear = {"no-thermometer", "tongs", "no-trivet", "no-rack", "rack", "foil-edges"}
    assert not gear & told(pot(BRUSH, BROIL)).keys()


def test_food_that_waits_is_told_to_stay_hot_and_for_how_long_it_does():
    base = forecast_of(json.dumps(pot(BRUSH, BROIL)))
    assert 600.0 < base.warm_s < 7200.0
    waits = {w.id: w for w in plan_watch_outs(replace(base, slack_s=600.0, warm_s=1200.0))}
    assert "about 20 minutes" in waits["hold-warm"].why
    unknown = {w.id: w for w in plan_watch_outs(replace(base, slack_s=600.0, warm_s=None))}
    assert "not known" in unknown["hold-warm"].why
    assert "hold-warm" not in told(pot(BRUSH, BROIL))


def test_spare_time_is_never_longer_than_the_food_stays_warm_enough():
    plan = plan_of(ChainDocument.model_validate(pot(BRUSH, BROIL)))
    found = forecast_plan(plan, 20 * 3600.0, FEW)
    assert 120.0 < found.slack_s <= found.warm_s


def test_foil_is_laid_ready_where_the_edges_may_burn_first():
    base = forecast_of(json.dumps(pot(BRUSH, BROIL, gear=GEAR["foil"])))
    fire = base.fires[-1]
    for possible, said in ((0.89, True), (0.9, False)):
        seldom = replace(fire, milestones=replace(fire.milestones, possible=possible))
        found = {w.id for w in plan_watch_outs(replace(base, fires=(seldom,)))}
        assert ("foil-edges" in found) == said


def test_spirits_catch_over_a_flame_and_not_under_an_element():
    assert "spirits" in told(laced(60.0, "charcoal"))
    assert not any("spirits" in told(laced(60.0, fire)) for fire in ("broiler", "air_fryer"))


def test_a_burnt_outside_is_a_stop():
    base = forecast_of(json.dumps(RULES["skin-dark"][1]))
    slow = base.slows[-1]
    for index, level in ((value("burnt_index"), STOP), (value("bitter_index"), CAREFUL)):
        dark = replace(slow.run, browned=np.full(16, index), charred=np.zeros(16))
        found = plan_watch_outs(replace(base, slows=(replace(slow, run=dark),)))
        assert next(w.level for w in found if w.id == "skin-dark") == level


def part(base, name, **figures):
    """A forecast with figures of one of its parts changed; of the last slow heat or fire."""
    if name in ("slows", "fires"):
        *before, last = getattr(base, name)
        inner = {k: replace(getattr(last, k), **v) for k, v in figures.items() if type(v) is dict}
        plain = {k: v for k, v in figures.items() if type(v) is not dict}
        return replace(base, **{name: (*before, replace(last, **inner, **plain))})
    return replace(base, **{name: replace(getattr(base, name), **figures)})


PRESSED, BATHED = pot(BRUSH, BROIL), bath(65.0)
# rule: level, plan, part of its forecast, figures that trip the rule, figures that just do not
FIGURES = {
    "core-cold": (STOP, PRESSED, "inside", {"core_low_c": 62.9}, {"core_low_c": 63.0}),
    "danger-zone": (STOP, PRESSED, "inside", {"danger_min": 240.1}, {"danger_min": 240.0}),
    "leftovers": (GOOD, PRESSED, "inside", {"gate": True}, {"gate": False}),
    "bath-slow": (STOP, BATHED, "inside", {"late_s": 21_601.0}, {"late_s": 21_600.0}),
    "tough": (CAREFUL, PRESSED, "tenderness", {"enough": 0.49}, {"enough": 0.5}),
    "overdone": (
        CAREFUL,
        PRESSED,
        "tenderness",
        {"enough": 0.9, "overdone": 0.21},
        {"enough": 0.9, "overdone": 0.2},
    ),
    "pot-full": (
        STOP,
        PRESSED,
        "slows",
        {"fill": {"share": 0.668, "line": 0.667}},
        {"fill": {"share": 0.667, "line": 0.667}},
    ),
    "froth": (
        CAREFUL,
        PRESSED,
        "slows",
        {"fill": {"share": 0.601, "line": 0.667}},
        {"fill": {"share": 0.6, "line": 0.667}},
    ),
    "liquid-least": (STOP, PRESSED, "slows", {"liquid_l": 0.23}, {"liquid_l": 0.24}),
    "no-window": (
        CAREFUL,
        PRESSED,
        "fires",
        {"milestones": {"possible": 0.79}},
        {"milestones": {"possible": 0.8}},
    ),
}


@pytest.mark.parametrize("rule", FIGURES)
def test_a_rule_turns_at_its_figure(rule):
    level, given, name, beyond, within = FIGURES[rule]
    base = forecast_of(json.dumps(given))
    found = {w.id: w.level for w in plan_watch_outs(part(base, name, **beyond))}
    assert found.get(rule) == level
    assert rule not in {w.id for w in plan_watch_outs(part(base, name, **within))}


def test_a_hopeless_colour_is_a_stop_and_no_mere_blindness_of_the_clock():
    base = forecast_of(json.dumps(PRESSED))
    window = replace(base.fires[-1].milestones.window, empty=True)
    seldom = {"possible": 0.049, "window": window}
    hopeless = {w.id: w.level for w in plan_watch_outs(part(base, "fires", milestones=seldom))}
    assert hopeless["no-window"] == STOP
    assert "look" not in hopeless
    rare = part(base, "fires", milestones={"possible": 0.051, "window": window})
    assert {w.id: w.level for w in plan_watch_outs(rare)}["no-window"] == CAREFUL
    blind = {"possible": 0.8, "window": window}
    assert "look" in {w.id for w in plan_watch_outs(part(base, "fires", milestones=blind))}


def test_less_food_by_the_repair_is_under_the_line_and_not_much_under():
    full = pot(BRUSH, BROIL, food={**RIBS, "mass_kg": 4.5, "pieces": 12})
    (stop,) = [w for w in found_in(full) if w.id == "pot-full"]
    mended = forecast_of(json.dumps(patched(copy.deepcopy(full), stop.repair)))
    fill = mended.slows[0].fill
    assert 0.9 * fill.line <= fill.share <= fill.line


def said(base, name="inside", **figures):
    """Warnings by id, of a forecast with some figures changed."""
    found = plan_watch_outs(part(base, name, **figures)) if figures else plan_watch_outs(base)
    return {w.id: w for w in found}


def test_figures_in_the_words_are_those_that_decided():
    base = forecast_of(json.dumps(PRESSED))
    slow = said(base, danger_min=301.0)["danger-zone"]
    assert render(slow.message) == "The middle would spend 301 minutes between 5 °C and 54 °C."
    cold = said(base, core_low_c=58.0)["core-cold"]
    assert "58 °C" in render(cold.message)
    assert cold.repair[0]["value"] == {"by": "core", "core_c": 64}
    assert render(cold.repair_says) == "Heat it until 64 °C inside"
    seldom = said(base, "fires", milestones={"possible": 0.3})["no-window"]
    assert "7 times in 10" in seldom.message
    risk = np.full(base.fires[-1].finish.sample_s.size, 0.9)
    burns = {"by": "minutes", "timer_s": 360.0, "milestones": {"risk": risk}}
    told_ = said(base, "fires", **burns)["burns-by-clock"]
    assert told_.message == "After 6 minutes it is bitter or burnt 9 times in 10."
    assert told_.level == CAREFUL
    proven = said(forecast_of(json.dumps(bath(58.0))), log_low=250.0)["proven-time"]
    assert "99 log reductions" in proven.why, "no more than a person can read"


def test_a_bath_that_never_gets_there_is_not_told_to_go_on():
    for dial, mends in ((63.9, False), (64.0, False), (64.1, True), (70.0, True)):
        found = said(forecast_of(json.dumps(bath(dial, minutes=30.0))), core_low_c=50.0)
        assert bool(found["core-cold"].repair) == mends, dial


def test_strands_that_seldom_come_are_a_stop_and_those_that_often_do_not_a_caution():
    apart = {"kind": "take_apart", "id": "pull", "how": "shred"}
    base = forecast_of(json.dumps(pot(apart, food=SHOULDER)))
    for enough, level in ((0.19, STOP), (0.21, CAREFUL), (0.49, CAREFUL)):
        assert said(base, "tenderness", enough=enough)["no-strands"].level == level
    assert "no-strands" not in said(base, "tenderness", enough=0.5)


def test_only_a_pot_under_pressure_foams_through_its_valve():
    head = {"until": {"bite": "tug"}}
    under, over = (
        document(HEAD, heat(name, "bite", **json.loads(json.dumps(head))))
        for name in ("pressure", "simmer")
    )
    assert "froth" in told({**under, "stages": [{**under["stages"][0], "release": "quick"}]})
    assert "froth" not in told(over)


def test_repairs_of_a_bath_are_figures_that_do_it():
    soft = {w.id: w for w in found_in(bath(70.0, food=HEAD))}["bath-vegetable"]
    assert soft.repair[0]["value"] == 85.0
    full = bath(65.0, food={**RIBS, "mass_kg": 1.5 * BATH_MOST_KG, "pieces": 12})
    stop = {w.id: w for w in found_in(full)}["bath-full"]
    fits = stop.repair[0]["value"]
    assert BATH_MOST_KG - 0.1 < fits <= BATH_MOST_KG
    assert "bath-full" not in told(patched(copy.deepcopy(full), stop.repair))
