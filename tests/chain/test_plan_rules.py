"""Every rule of a chain has a chain that trips it and one that does not; and where one tap is
offered, the tap helps.
"""

import pytest

from tests.chain.conftest import TEMPLATES, chain, patched, stage

MARINADE_H, HOUR = 20.0, 60.0


def changed(key, *stages, food=None, kitchen=None, drop=(), layer=None):
    """A shipped chain with stages, food, kitchen or its first layer changed."""
    document = chain(key)
    for name, change in stages:
        stage(document, name).update(change)
    document["food"].update(food or {})
    document["stages"] = [s for s in document["stages"] if s["id"] not in drop]
    if kitchen:
        document["kitchen"] = kitchen
    if layer:
        document["layers"][0].update(layer)
    return document


def minutes(count):
    return {"until": {"by": "minutes", "minutes": float(count)}}


BASKET = {
    "machines": {
        "air_fryer": {"inside": {"shape": "box", "width_mm": 240.0, "height_mm": 80.0}},
    }
}
FIERCE = {"broiler_w_m2": 9000.0}
INDOORS = {"machines": {"grill": {"outdoors": False}}}
ROAST = {
    "cut": "pork-shoulder",
    "state": "frozen",
    "thickness_mm": 110.0,
    "mass_kg": 3.5,
    "pieces": 1,
}
FOUR_KG = {"mass_kg": 4.2, "pieces": 12}
# rule: chain that trips it, level, stage, and whether one tap is offered
TRIPS = {
    "core-cold": (
        changed("sugar-crust", ("fry", {**minutes(15), "acts": []})),
        "stop",
        "fry",
        True,
    ),
    "thermometer": (chain("pressure-hot-oven"), "careful", "pot", False),
    "proven-time": (
        changed("bath-then-low-high", ("bath", {"dial": 60.0}), food={"state": "fridge"}),
        "careful",
        "bath",
        False,
    ),
    "raw-contact": (changed("basted-returns", layer={"boiled": False}), "stop", "baste", True),
    "boil-first": (chain("basted-returns"), "careful", "", False),
    "no-strands": (
        changed(
            "strands-broiled",
            ("pot", {"heat": "oven", "dial": 160.0, "release": None, **minutes(30)}),
        ),
        "stop",
        "pot",
        True,
    ),
    "tough": (
        changed(
            "pressure-hot-oven",
            ("pot", {"until": {"by": "bite", "bite": "falls", "minutes": 25.0}}),
        ),
        "careful",
        "pot",
        True,
    ),
    "overdone": (
        changed(
            "roasted-in-sauce",
            ("roast", {"until": {"by": "bite", "bite": "tug", "minutes": 170.0}, "dial": 120.0}),
            drop=("shred",),
        ),
        "careful",
        "roast",
        True,
    ),
    "danger-zone": (
        changed("bath-then-low-high", ("bath", {"dial": 56.0}), food=ROAST),
        "stop",
        "",
        False,
    ),
    "bath-cool": (
        changed("bath-then-low-high", ("bath", {"dial": 52.0, **minutes(900)})),
        "stop",
        "bath",
        True,
    ),
    "frozen-low": (changed("long-smoke", food={"state": "frozen"}), "stop", "smoke", True),
    "liquid-least": (changed("pressure-hot-oven", ("pot", {"liquid_l": 0.1})), "stop", "pot", True),
    "pot-full": (changed("pressure-hot-oven", food=FOUR_KG), "stop", "pot", True),
    "froth": (chain("cauliflower-oven"), "careful", "pot", True),
    "fit-size": (
        changed("cooked-ham", food={"thickness_mm": 95.0}, kitchen=BASKET),
        "stop",
        "fry",
        False,
    ),
    "fit-batches": (
        changed("sugar-crust", food={"mass_kg": 2.6, "pieces": 8}, kitchen=BASKET),
        "careful",
        "fry",
        True,
    ),
    "batch-waits": (chain("frozen-split"), "careful", "broil", False),
    "grill-outdoors": (changed("octopus-grill", kitchen=INDOORS), "stop", "char", False),
    "lid-swap": (chain("lid-stir-lid"), "careful", "crisp", False),
    "burns-by-clock": (
        changed("marinated-rounds", ("baste", {"times": 5})),
        "careful",
        "broil.3",
        True,
    ),
    "no-window": (
        changed(
            "pressure-hot-oven",
            (
                "oven",
                {"heat": "broiler", "dial": 0.05, "until": {"by": "colour", "want": "mahogany"}},
            ),
            kitchen=FIERCE,
        ),
        "stop",
        "oven",
        True,
    ),
    "look": (chain("portions-broiled"), "careful", "broil", False),
    "marinade-long": (
        changed("marinated-rounds", ("sour-bath", {"hours": MARINADE_H})),
        "careful",
        "sour-bath",
        True,
    ),
    "leftovers": (chain("long-braise"), "good to know", "", False),
}
QUIET = {
    "core-cold": "sugar-crust",
    "thermometer": "cauliflower-oven",
    "proven-time": "long-braise",
    "raw-contact": "basted-returns",
    "boil-first": "long-braise",
    "no-strands": "strands-broiled",
    "tough": "pressure-hot-oven",
    "overdone": "long-smoke",
    "danger-zone": "bath-then-low-high",
    "bath-cool": "bath-then-low-high",
    "frozen-low": "long-smoke",
    "liquid-least": "lid-stir-lid",
    "pot-full": "pressure-hot-oven",
    "froth": "portions-broiled",
    "fit-size": "cooked-ham",
    "fit-batches": "sugar-crust",
    "batch-waits": "bath-then-low-high",
    "grill-outdoors": "long-braise",
    "lid-swap": "long-braise",
    "burns-by-clock": "marinated-rounds",
    "no-window": "pressure-hot-oven",
    "look": "pressure-hot-oven",
    "marinade-long": "marinated-rounds",
    "leftovers": "cauliflower-oven",
    "thaw-short": "frozen-split",
    "hold-cold": "long-braise",
}
THAW = {"kind": "thaw", "id": "thaw", "where": "fridge", "hours": 1.0}
HOLD = {"kind": "hold", "id": "wait", "how": "covered", "minutes": 2.0 * HOUR}


def ask(kitchen, document):
    return kitchen.post("/forecasts", document, 200)["watch_outs"]


def of_kind(found, rule):
    return [w for w in found if w["id"] == rule]


@pytest.mark.parametrize("rule", TRIPS)
def test_a_chain_trips_the_rule_at_its_stage(kitchen, rule):
    document, level, at, one_tap = TRIPS[rule]
    told = of_kind(ask(kitchen, document), rule)
    assert told, rule
    assert (level, at) in [(w["level"], w["stage"]) for w in told]
    assert all(w["message"] and w["why"] and w["source"] for w in told)
    mine = next(w for w in told if w["stage"] == at)
    assert bool(mine["repair"]) == one_tap
    assert bool(mine["repair_says"]) == one_tap


@pytest.mark.parametrize("rule", QUIET)
def test_another_does_not(kitchen, rule):
    assert of_kind(ask(kitchen, TEMPLATES[QUIET[rule]]), rule) == []


@pytest.mark.parametrize("rule", [rule for rule, case in TRIPS.items() if case[3]])
def test_one_tap_takes_the_rule_away_and_brings_no_stop(kitchen, rule):
    """The repair is a JSON Patch of the document: applied, its warning is gone or no longer a stop,
    and no new stop has come.
    """
    document, _, at, _ = TRIPS[rule]
    before = ask(kitchen, document)
    mine = next(w for w in of_kind(before, rule) if w["stage"] == at)
    after = ask(kitchen, patched(document, mine["repair"]))
    assert at not in [w["stage"] for w in of_kind(after, rule)]
    stops = {(w["id"], w["stage"]) for w in before if w["level"] == "stop"}
    assert {(w["id"], w["stage"]) for w in after if w["level"] == "stop"} <= stops


def test_a_thaw_that_is_too_short_is_told_and_helped(kitchen):
    document = chain("frozen-split")
    document["stages"].insert(0, dict(THAW))
    told = of_kind(ask(kitchen, document), "thaw-short")
    assert [w["stage"] for w in told] == ["thaw"]
    thawed = patched(document, told[0]["repair"])
    found = kitchen.post("/forecasts", thawed, 200)
    assert of_kind(found["watch_outs"], "thaw-short") == []
    hours = next(k for k in found["links"] if k["key"] == "thaw.thaw")["band"]["likely_s"] / 3600.0
    assert 5.0 < hours < 30.0  # ribs of 26 mm in a fridge: overnight


def test_food_that_goes_cold_while_it_is_held_is_a_stop_and_a_warm_oven_helps(kitchen):
    document = chain("long-braise")
    document["stages"].append(dict(HOLD))
    told = of_kind(ask(kitchen, document), "hold-cold")
    assert [(w["stage"], w["level"]) for w in told] == [("wait", "stop")]
    after = ask(kitchen, patched(document, told[0]["repair"]))
    assert of_kind(after, "hold-cold") == []


def test_raw_marinade_late_sends_the_food_through_a_second_gate(kitchen):
    """Without the boil the gate stands again after the last heat that follows the raw brush."""
    document, *_ = TRIPS["raw-contact"]
    found = kitchen.post("/forecasts", document, 200)
    assert [g["after"] for g in found["gates"]] == ["fry", "return-2"]
    labels = [k["label"] for k in found["links"] if k["who"] == "gate"]
    assert labels[-1] == "Hot enough again? Raw sauce went on"
    assert [w["stage"] for w in of_kind(found["watch_outs"], "raw-contact")] == [
        "baste",
        "other-side",
    ]


def test_a_marinade_brushed_on_in_the_heat_is_stopped_before_any_gate(kitchen):
    """The food is not checked yet; the portion has touched it raw all the same, and has minutes."""
    document = chain("basted-returns")
    document["layers"][0]["boiled"] = False
    coat = {"do": "coat", "layer": "soak", "at_min": 10.0}
    fry = {"kind": "heat", "id": "fry", "heat": "air_fryer", "dial": 190.0, "acts": [coat]}
    fry["until"] = {"by": "colour", "want": "amber"}
    document["stages"] = [*document["stages"][:2], fry]
    told = of_kind(ask(kitchen, document), "raw-contact")
    assert [(w["stage"], w["level"]) for w in told] == [("fry", "stop")]
    assert of_kind(ask(kitchen, patched(document, told[0]["repair"])), "raw-contact") == []


def test_a_share_that_is_not_heated_again_is_checked_before_it_parts(kitchen):
    """One share goes under the broiler, the other to the table: the gate stands before both."""
    document = chain("frozen-split")
    pot = stage(document, "pot")
    pot["until"] = {"by": "minutes", "minutes": 1.0}
    document["stages"][1]["shares"][1]["stages"] = document["stages"][1]["shares"][1]["stages"][:1]
    found = kitchen.post("/forecasts", document, 200)
    assert "pot" in [g["after"] for g in found["gates"] if g["safe_c"] is not None]
    assert of_kind(found["watch_outs"], "core-cold")


def test_chilled_food_is_heated_and_checked_anew(kitchen):
    """What it reached before it was chilled says nothing of the reheating."""
    document = chain("long-braise")
    chill = {"kind": "hold", "id": "chill", "how": "chilled", "minutes": 720.0}
    again = {"kind": "heat", "id": "again", "heat": "braise", "dial": 150.0}
    again["until"] = {"by": "core", "core_c": 74.0}
    document["stages"] = [*document["stages"][:2], chill, again]
    document["layers"] = []
    found = kitchen.post("/forecasts", document, 200)
    assert [g["after"] for g in found["gates"] if g["safe_c"] is not None] == ["braise", "again"]
    timers = {s["stage"]: s["timer_s"] for s in found["slow_heats"]}
    up = next(k for k in found["links"] if k["key"] == "again.come_up")["band"]["likely_s"]
    assert timers["again"] + up > 1200.0
    # So it is where it only stood for three hours: its own heat has to bring it there.
    document["stages"][2] = {"kind": "rest", "id": "stand", "minutes": 180.0}
    stood = kitchen.post("/forecasts", document, 200)
    again = next(s for s in stood["slow_heats"] if s["stage"] == "again")
    up = next(k for k in stood["links"] if k["key"] == "again.come_up")["band"]["likely_s"]
    assert again["timer_s"] + up > 600.0
    centre = dict(zip(again["traces"]["time_s"], again["traces"]["centre_c"], strict=True))
    assert max(centre.values()) > 73.0


def test_frozen_ribs_within_the_hour_are_told_their_honest_time(kitchen):
    document = chain("frozen-split")
    document["serve_at"] = "2030-05-04T17:00:00+00:00"
    found = kitchen.post("/forecasts", document, 200)
    assert found["watch_outs"][0]["id"] == "too-soon"
    assert found["total"]["likely_s"] > 3600.0
    assert found["serve_at"] > "2030-05-04T17:00"
    later = patched(document, found["watch_outs"][0]["repair"])
    assert of_kind(ask(kitchen, later), "too-soon") == []
