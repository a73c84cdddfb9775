"""Chains cooked live, to the log: every pattern, told step by step; and what may go wrong on the
way.
"""

from datetime import datetime

import pytest

from tests.chain.conftest import TEMPLATES, chain, stage
from tests.chain.test_beginnings import EIGHT
from tests.conftest import open_kitchen

OF_A_VESSEL = {"empty", "open", "warming", "holding", "falling", "venting", "under"}


def begin(kitchen, key, **more):
    return kitchen.post("/cooks", {"dish": chain(key), **more})


def current(live):
    return next(s for s in live["steps"] if s["key"] == live["current"])


def press_on(kitchen, live, until=None):
    """Press the wide button when each step is due, until a step is current or all is done."""
    for _ in range(80):
        if live["current"] is None or live["current"] == until:
            return live
        step = current(live)
        due = datetime.fromisoformat(step["due_at"])
        kitchen.wait(max(5.0, (due - kitchen.now).total_seconds()))
        live = kitchen.press(live)
    raise AssertionError("no end")


def later_of(kitchen, live):
    """The same once its current step is due."""
    due = datetime.fromisoformat(current(live)["due_at"])
    kitchen.wait(max(5.0, (due - kitchen.now).total_seconds()))
    return kitchen.get(f"/cooks/{live['id']}/live")


def cook_to_the_log(kitchen, live):
    """Tell every step when it is due, and see words and a button for each; the cook as logged."""
    planned = [s["key"] for s in live["steps"] if not s["beside"]]
    seen = []
    while live["current"] is not None:
        seen.append(live["current"])
        assert live["says"]
        assert len(live["button"].split()) <= 6
        drawn = live["picture"]
        assert bool(drawn["vessel"]) == (drawn["shows"] in OF_A_VESSEL), drawn
        assert "{" not in live["says"] + live["button"] + live["detail"]
        step = current(live)
        if step["who"] in ("hands", "fire", "gate"):
            assert live["button"]
        due = datetime.fromisoformat(step["due_at"])
        kitchen.wait(max(5.0, (due - kitchen.now).total_seconds()))
        if live["fire"] is not None and step["who"] == "fire":
            live = kitchen.tell(live["id"], kind="saw", sign="bubbling")
        live = kitchen.press(live)
        for side in live["side_due"]:
            live = kitchen.tell(live["id"], kind="done", step=side)
    assert seen == planned
    assert live["finished"]
    answer = kitchen.client.put(f"/api/v1/cooks/{live['id']}/outcome", json={"colour": "amber"})
    told = answer.get_json()
    assert told["summary"]["unknown_steps"] == 0
    assert told["summary"]["actual_s"] == pytest.approx(told["summary"]["planned_s"], rel=0.25)
    assert {stage["state"] for stage in told["stages"]} == {"confirmed"}
    measured = [check for check in told["checks"] if check["temp_c"] is not None]
    assert {check["verdict"] for check in measured} <= {"passed"}
    return live


@pytest.mark.parametrize("key", TEMPLATES)
def test_a_chain_lives_through_a_cook_to_the_log(kitchen, key):
    """Every step has words and a button of its own; at the end nothing is unknown."""
    live = cook_to_the_log(kitchen, begin(kitchen, key))
    listed = kitchen.get("/cooks")["cooks"]
    assert [one["title"] for one in listed] == [chain(key)["name"]]
    assert kitchen.get(f"/cooks/{live['id']}/glaze")["appliance_name"]


@pytest.mark.parametrize(("given", "_stages"), EIGHT.values(), ids=EIGHT)
def test_what_nine_taps_come_to_is_cooked_to_the_log(kitchen, given, _stages):
    """From the answers over the API: no step without words, no gate left out."""
    begun = kitchen.post("/beginnings", given, 200)["chain"]
    live = cook_to_the_log(kitchen, kitchen.post("/cooks", {"dish": begun}))
    assert [s for s in live["steps"] if s["who"] == "gate"]


def test_a_sign_belongs_to_the_fire_it_was_seen_under(kitchen):
    """Half broiled, half air fried: what is seen under the broiler says nothing of the fryer."""
    live = press_on(kitchen, begin(kitchen, "frozen-split"), until="broil.finish")
    assert live["fire"]["name"] == "broil"
    assert live["fire"]["appliance"] == "broiler"
    kitchen.wait(40.0)
    live = kitchen.tell(live["id"], kind="saw", sign="amber at the edges")
    first = kitchen.get(f"/cooks/{live['id']}/glaze")
    assert [s["sign"] for s in first["seen"]] == ["amber at the edges"]
    live = press_on(kitchen, live, until="fry.finish")
    assert live["fire"]["appliance"] == "air fryer"
    second = kitchen.get(f"/cooks/{live['id']}/glaze")
    assert second["appliance"] == "air_fryer"
    assert second["seen"] == []


def test_food_that_stays_in_while_the_dial_is_turned_is_taken_to_be_under_the_heat(kitchen):
    """Low, then high in one fryer: nobody taps, and the second fire counts all the same."""
    live = press_on(kitchen, begin(kitchen, "bath-then-low-high"), until="high.dial")
    kitchen.wait(240.0)
    late = kitchen.get(f"/cooks/{live['id']}/live")
    assert late["fire"]["name"] == "high"
    assert late["fire"]["assumed"]
    assert [a["level"] for a in late["alarms"] if a["every_s"]] != []


def test_nobody_is_told_to_switch_on_hours_before_it_is_needed(kitchen):
    """A rub sits for ten hours, a marinade too: the appliance has a step of its own, with its heat,
    shortly before; and a rub is patted on, not salted.
    """
    live = begin(kitchen, "foil-then-grill")
    assert live["says"] == "Pull the membrane off the bone side."
    live = kitchen.press(live)
    assert live["says"] == "Pat the rub on."
    warm = next(s for s in live["steps"] if s["key"] == "foil.warm_up")
    assert warm["label"] == "Heat the oven to 150 °C"
    load = next(s for s in live["steps"] if s["key"] == "foil.load")
    ahead = datetime.fromisoformat(load["due_at"]) - datetime.fromisoformat(warm["due_at"])
    assert 0 < ahead.total_seconds() < 2400
    brined = chain("long-braise")
    stage(brined, "salt")["sit_min"] = 600.0
    assert kitchen.post("/cooks", {"dish": brined})["says"].startswith("Salt")
    # Nothing to wait for: then it is switched on with the first act.
    braise = begin(kitchen, "long-braise")
    assert braise["says"].startswith("Oven on, 150 °C. Salt")
    assert not [s for s in braise["steps"] if s["key"] == "braise.warm_up"]


def test_food_that_stays_in_is_not_told_into_its_basket_again(kitchen):
    document = chain("sugar-crust")
    low = dict(stage(document, "fry"), id="low", dial=120.0, acts=[])
    low["until"] = {"by": "core", "core_c": 50.0}
    high = dict(low, id="high", dial=140.0, until={"by": "core", "core_c": 75.0})
    look = dict(low, id="look", dial=200.0, until={"by": "colour", "want": "amber"})
    document["stages"] = [low, high, look]
    live = press_on(kitchen, kitchen.post("/cooks", {"dish": document}), until="high.dial")
    assert live["says"] == "Turn the air fryer to its next setting."


def test_every_fire_calls_for_its_own_acts(kitchen):
    """A coat under the broiler is done; the turn in the fryer is still called for."""
    document = chain("frozen-split")
    coat, turn = {"do": "coat", "layer": "glaze", "at_min": 2.0}, {"do": "turn", "at_min": 2.0}
    stage(document, "broil")["acts"] = [coat]
    stage(document, "fry")["acts"] = [turn]
    live = kitchen.post("/cooks", {"dish": document})
    calls = {}
    for fire in ("broil", "fry"):
        live = press_on(kitchen, live, until=f"{fire}.finish")
        calls[fire] = [a["says"] for a in live["alarms"] if a["level"] == "act"]
    assert calls == {"broil": ["Next coat now"], "fry": ["Turn it now"]}


def test_a_fierce_heat_by_the_clock_calls_until_somebody_says_it_is_out(kitchen):
    live = press_on(kitchen, begin(kitchen, "marinated-rounds"), until="broil.1.finish")
    under = datetime.fromisoformat(live["fire"]["since"])
    out = [a for a in live["alarms"] if a["level"] == "out"]
    assert [a["every_s"] for a in out] == [3.0]
    assert (datetime.fromisoformat(out[0]["at"]) - under).total_seconds() == pytest.approx(180.0)
    assert live["detail"] == "3 min in all, by the clock. I call you."
    kitchen.wait(900.0)
    late = kitchen.get(f"/cooks/{live['id']}/live")
    assert late["current"] == "broil.1.finish"  # time proves nothing: food is taken to be there
    assert late["fire"] is not None
    after = kitchen.press(late)
    assert after["fire"] is None
    assert after["current"] == "broil.1.out"


def test_a_check_that_fails_gets_a_way_back_in_the_heat_it_came_from(kitchen):
    live = press_on(kitchen, begin(kitchen, "pressure-hot-oven"), until="pot.check")
    live = kitchen.tell(live["id"], kind="done", step="pot.check", tender=True, temp_c=55.0)
    assert live["back"]["step"] == "pot.check"
    assert live["back"]["ways"][0]["heat"] == "pressure"
    assert live["current"] == "pot.check~1.load"
    live = press_on(kitchen, live)
    told = kitchen.get(f"/cooks/{live['id']}")
    assert [c["verdict"] for c in told["checks"]] == ["failed", "passed"]


def test_nothing_counts_behind_an_open_gate(kitchen):
    live = press_on(kitchen, begin(kitchen, "pressure-hot-oven"), until="pot.check")
    answer = kitchen.post(
        f"/cooks/{live['id']}/events", {"kind": "done", "step": "oven.under"}, 409
    )
    assert "stands open" in answer["detail"]


@pytest.mark.parametrize("waits", ["pot.check", "serve"])
def test_food_that_stands_is_told_of_its_cooling_and_of_the_end_of_it(kitchen, waits):
    """Warm at first, then cooling, with an hour to eat by two hours later; past it, not to eat."""
    live = press_on(kitchen, begin(kitchen, "pressure-hot-oven"), until=waits)
    path = f"/cooks/{live['id']}/live"
    assert live["caution"] == ""
    kitchen.wait(3600.0)
    cooling = kitchen.get(path)
    assert cooling["caution"].startswith("It is cooling")
    eat_by = datetime.fromisoformat(cooling["eat_by"])
    left_s = (eat_by - kitchen.now).total_seconds()
    assert 3600.0 < left_s < 7200.0
    kitchen.wait(left_s - 5.0)
    assert kitchen.get(path)["caution"] == cooling["caution"]
    kitchen.wait(10.0)
    assert kitchen.get(path)["caution"].startswith("It has stood over two hours")


def test_a_stop_wants_a_repair_or_a_reason(kitchen):
    document = chain("basted-returns")
    document["layers"][0]["boiled"] = False
    refused = kitchen.post("/cooks", {"dish": document}, 409)
    assert "raw-contact" in str(refused)
    accepted = [{"stop": "raw-contact", "reason": "cooked through once more"}]
    live = kitchen.post("/cooks", {"dish": document, "accepted": accepted})
    gates = [s["key"] for s in live["steps"] if s["who"] == "gate"]
    assert gates == ["fry.check", "return-2.check"]


def test_a_planned_start_waits_and_a_cook_survives_a_restart(kitchen):
    document = chain("long-braise") | {"serve_at": "2030-05-04T23:30:00+00:00"}
    live = kitchen.post("/cooks", {"dish": document, "when": "planned"})
    assert live["current"] == "wait"
    assert live["waits_s"] > 1800.0
    again = open_kitchen(kitchen.database, kitchen.now)
    same = again.get(f"/cooks/{live['id']}/live")
    again.client.application.extensions["kettle_engine"].dispose()
    assert same["steps"] == live["steps"]
    assert same["says"] == live["says"]


def test_the_picture_follows_the_food_through_pot_and_fire(kitchen):
    """Portions under pressure, brushed, broiled, brushed again: what is drawn at every step."""
    live = begin(kitchen, "portions-broiled")
    told = []
    while live["current"] is not None:
        drawn = live["picture"]
        told.append((live["current"], drawn["vessel"], drawn["shows"], drawn["coats"]))
        cooked = any(step == "pot.hold" for step, *_ in told[:-1])
        assert drawn["cooked"] == cooked, live["current"]
        assert (drawn["rack_mm"] is not None) == (drawn["vessel"] == "broiler")
        if drawn["shows"] == "under":
            kitchen.wait(60.0)
            later = kitchen.get(f"/cooks/{live['id']}/live")
            assert later["picture"]["heat_s"] == pytest.approx(drawn["heat_s"] + 60.0)
        live = kitchen.press(later_of(kitchen, live))
    assert told == [
        ("cut.portions", "", "board", 0),
        ("salt.season", "", "board", 0),
        ("pot.load", "pressure", "open", 0),
        ("pot.come_up", "pressure", "warming", 0),
        ("pot.hold", "pressure", "holding", 0),
        ("pot.open", "pressure", "open", 0),
        ("pot.check", "", "check", 0),
        ("first.lift", "pressure", "open", 0),
        ("first.blot", "", "board", 0),
        ("first.dress", "", "brush", 0),
        ("broil.under", "broiler", "empty", 1),
        ("broil.finish", "broiler", "under", 1),
        ("broil.out", "broiler", "open", 1),
        ("last.dress", "", "brush", 1),
        ("serve", "", "plate", 2),
    ]
    assert live["picture"]["shows"] == "plate"


def test_a_cook_in_which_nothing_is_looked_at_has_no_strip_and_no_call(kitchen):
    """A braise alone: followed to the log by its clock and its gate."""
    document = chain("long-braise")
    document["stages"] = document["stages"][:2]
    document["layers"] = []
    live = kitchen.post("/cooks", {"dish": document})
    assert (live["glaze_key"], live["glaze_ready"], live["fire"]) == (None, True, None)
    assert kitchen.client.get(f"/api/v1/cooks/{live['id']}/glaze").status_code == 404
    live = press_on(kitchen, live, until="braise.hold")
    assert live["looks_s"] == []
    assert {alarm["level"] for alarm in live["alarms"]} == {"due"}  # of its timer
    live = press_on(kitchen, live)
    assert live["finished"]
    told = kitchen.get(f"/cooks/{live['id']}")
    assert told["summary"]["strip"] is None
    assert told["glaze_after"] is None
    assert told["facts"]["glaze"] is None
    assert kitchen.get("/cooks")["cooks"][0]["strip"] is None


def test_a_chain_without_any_heat_is_refused_by_name(kitchen):
    document = chain("long-braise")
    document["stages"] = document["stages"][:1]
    document["layers"] = []
    told = kitchen.post("/cooks", {"dish": document}, 422)
    assert [fault["field"] for fault in told["errors"]] == ["stages"]


def test_food_under_a_fire_that_looks_wrong_has_ways_out_and_nothing_else_has(kitchen):
    live = press_on(kitchen, begin(kitchen, "portions-broiled"), "broil.finish")
    path = f"/cooks/{live['id']}/ways-out"
    kitchen.wait(120.0)
    early = kitchen.get(path)
    assert early["stage"] == "broil"
    ways = {way["do"]: way for way in early["ways"]}
    assert ways["Pull it now"]["more_s"] == 0.0
    assert ways["Lower the rack"]["risk"] <= ways["Leave it as it is"]["risk"]
    order = [way["chance"] - way["risk"] for way in early["ways"]]
    assert order == sorted(order, reverse=True)
    # Dark after two minutes: a fierce evening, so that less is left of it.
    kitchen.tell(live["id"], kind="saw", sign="dark")
    dark = {way["do"]: way for way in kitchen.get(path)["ways"]}
    assert dark["Leave it as it is"]["risk"] > ways["Leave it as it is"]["risk"]
    kitchen.wait(40 * 60.0)
    assert kitchen.get(path)["ways"], "an hour of a broiler is looked at, no longer"
    kitchen.press(kitchen.get(f"/cooks/{live['id']}/live"))
    assert "under a fierce heat" in kitchen.get(path, 409)["detail"]


@pytest.mark.parametrize("step", ["first.dress", "broil.under"])
def test_food_that_may_be_under_the_fire_is_told_to_be_there_by_the_step_that_puts_it(
    kitchen, step
):
    """From whichever step of the approach nobody tapped on."""
    live = press_on(kitchen, begin(kitchen, "portions-broiled"), step)
    assert live["fire"] is None
    kitchen.wait(400.0)
    live = kitchen.get(f"/cooks/{live['id']}/live")
    assert live["fire"]["assumed"]
    assert live["fire"]["put_by"] == "broil.under"
    assert live["picture"]["shows"] == "under"
    told = kitchen.tell(live["id"], kind="done", step=live["fire"]["put_by"])
    assert (told["current"], told["fire"]["assumed"]) == ("broil.finish", False)
    assert told["fire"]["put_by"] == ""


def test_before_a_fire_there_is_no_way_out_of_it(kitchen):
    live = begin(kitchen, "portions-broiled")
    assert kitchen.get(f"/cooks/{live['id']}/ways-out", 409)["title"]
    kitchen.get("/cooks/999/ways-out", 404)


def test_a_tray_that_hangs_elsewhere_does_so_in_every_round(kitchen):
    live = press_on(kitchen, begin(kitchen, "marinated-rounds"), until="broil.1.finish")
    kitchen.wait(20.0)
    told = kitchen.tell(live["id"], kind="dial", step="broil.1", dial=0.1)
    assert told["fire"]["dial"]["value"] == 0.1
    live = press_on(kitchen, told, until="broil.2.finish")
    assert live["fire"]["dial"]["value"] == 0.1
    assert live["picture"]["rack_mm"] == 100.0
    strip = kitchen.get(f"/cooks/{live['id']}/glaze")
    back = kitchen.tell(live["id"], kind="dial", step="broil.2", dial=0.2)
    assert back["fire"]["dial"]["value"] == 0.2
    later = kitchen.get(f"/cooks/{live['id']}/glaze")
    assert later["milestones"]["edge"]["amber"] != strip["milestones"]["edge"]["amber"]
