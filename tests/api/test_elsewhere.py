"""An appliance that breaks or is taken while it is cooked, and foil that tears."""

from datetime import datetime

import pytest
from tests.chain.conftest import chain
from tests.chain.test_live_chains import press_on
from tests.conftest import ROAST, Kitchen, open_kitchen


def begin(kitchen: Kitchen, key: str):
    return kitchen.post("/cooks", {"dish": chain(key)})


def ask(kitchen: Kitchen, live, stage, gone="appliance", status=200):
    query = f"stage={stage.replace('+', '%2B')}&gone={gone}"
    return kitchen.get(f"/cooks/{live['id']}/elsewhere?{query}", status)


def leave(kitchen: Kitchen, live, stage, heat, status=201, **more):
    body = {"stage": stage, "heat": heat, **more}
    return kitchen.post(f"/cooks/{live['id']}/elsewhere", body, status)


def steps(live):
    return {s["key"]: s for s in live["steps"]}


def keys(live, *states):
    line = [s for s in live["steps"] if not s["beside"]]
    return [s["key"] for s in line if not states or s["state"] in states]


def serves(live):
    return datetime.fromisoformat(live["serve_at"])


def under_broiler(kitchen: Kitchen, seconds=60.0):
    live = press_on(kitchen, begin(kitchen, "portions-broiled"), "broil.finish")
    kitchen.wait(seconds)
    return kitchen.get(f"/cooks/{live['id']}/live")


def test_a_broiler_that_fails_over_the_food_is_left_for_the_air_fryer_to_the_log(kitchen: Kitchen):
    live = under_broiler(kitchen)
    assert [(one["stage"], one["gone"]) for one in live["leavable"]] == [("broil", "appliance")]
    way = next(w for w in ask(kitchen, live, "broil")["ways"] if w["heat"] == "air_fryer")
    moved = leave(kitchen, live, "broil", "air_fryer", seen=live["last_event"])
    assert serves(moved) == datetime.fromisoformat(way["eat_at"])
    assert way["later_s"] == pytest.approx((serves(moved) - serves(live)).total_seconds(), abs=1.0)
    assert moved["current"] == "broil.out"  # out of the dead one first
    assert steps(moved)["broil.finish"]["state"] == "confirmed"
    assert moved["fire"] is None
    wait = press_on(kitchen, moved, "broil+1.heat_up")
    assert (wait["says"], wait["picture"]["vessel"]) == ("Wait for the air fryer.", "air_fryer")
    live = press_on(kitchen, wait, "broil+1.finish")
    assert live["fire"]["name"] == "broil+1"
    assert live["fire"]["before_s"] == 0.0
    strip = kitchen.get(f"/cooks/{live['id']}/glaze")
    assert strip["appliance_name"] == "air fryer"
    kitchen.wait(30.0)
    seen = kitchen.tell(live["id"], kind="saw", sign="bubbling")
    assert [s["teaches"] for s in seen["signs"]] == [True]
    assert [a["level"] for a in seen["alarms"] if a["level"] == "out"] == ["out"]
    done = press_on(kitchen, seen)
    assert done["finished"]
    answer = kitchen.client.put(f"/api/v1/cooks/{live['id']}/outcome", json={"colour": "amber"})
    told = answer.get_json()
    assert told["moved"] == ["The oven's broiler was left after 1:00, for the air fryer."]
    log = {s["key"]: s for s in told["stages"]}
    assert log["broil.finish"]["actual_s"] == 60.0
    assert log["broil+1.finish"]["state"] == "confirmed"


def test_undo_brings_the_heat_back_as_it_was(kitchen: Kitchen):
    live = under_broiler(kitchen)
    leave(kitchen, live, "broil", "air_fryer")
    again = kitchen.tell(live["id"], kind="undo")
    same = ("steps", "serve_at", "fire", "says", "leavable", "picture", "glaze_key")
    assert {name: again[name] for name in same} == {name: live[name] for name in same}


def test_the_same_tap_leaves_it_once_and_an_old_picture_not_at_all(kitchen: Kitchen):
    live = under_broiler(kitchen)
    tap = {"id": "0b0f6a52-8a0e-4f0a-9a51-2f0a8f1f3d11", "seen": live["last_event"]}
    first = leave(kitchen, live, "broil", "air_fryer", **tap)
    again = leave(kitchen, live, "broil", "air_fryer", **tap)
    assert keys(again) == keys(first)
    assert again["last_event"] == first["last_event"]
    leave(kitchen, live, "broil+1", "broiler", 409, seen=live["last_event"])


def test_a_restarted_server_goes_on_in_the_other_heat(kitchen: Kitchen):
    live = leave(kitchen, under_broiler(kitchen), "broil", "air_fryer")
    after = open_kitchen(kitchen.database, kitchen.now)
    found = after.get(f"/cooks/{live['id']}/live")
    assert (keys(found), found["serve_at"]) == (keys(live), live["serve_at"])
    after.client.application.extensions["kettle_engine"].dispose()


def test_a_pot_that_fails_under_pressure_is_opened_first_and_its_check_goes_along(
    kitchen: Kitchen,
):
    live = press_on(kitchen, begin(kitchen, "portions-broiled"), "pot.hold")
    kitchen.wait(540.0)
    wanted = steps(live)["pot.check"]["check"]
    moved = leave(kitchen, live, "pot", "braise")
    assert moved["current"] == "pot.natural"  # nothing is opened under pressure
    assert moved["says"] == "Let the pressure fall by itself."
    assert "0 min" not in moved["button"]
    assert "pot.check" not in steps(moved)
    assert steps(moved)["pot+1.check"]["check"] == {**wanted, "step": "pot+1.check"}
    checked = press_on(kitchen, moved, "pot+1.check")
    kitchen.tell(checked["id"], kind="done", step="pot+1.check", temp_c=60.0, tender=True)
    back = kitchen.get(f"/cooks/{checked['id']}/live")
    assert back["back"]["step"] == "pot+1.check"  # and a failed one has its own way back
    assert back["current"] == "pot+1.check~1.load"
    assert press_on(kitchen, back)["finished"]


def test_the_oven_fails_an_hour_before_and_nothing_waits_for_the_other(kitchen: Kitchen):
    live = press_on(kitchen, begin(kitchen, "portions-broiled"), "pot.come_up")
    moved = leave(kitchen, live, "broil", "air_fryer")
    assert abs((serves(moved) - serves(live)).total_seconds()) < 60.0
    assert not {"broil.under", "broil.warm_up"} & steps(moved).keys()
    on = press_on(kitchen, moved, "first.lift")
    assert on["says"] == "Lift into the basket."
    under = press_on(kitchen, on, "broil+1.under")
    assert "broil+1.heat_up" not in keys(under, "current", "upcoming")  # it is hot by then
    assert press_on(kitchen, under)["finished"]


def test_a_probe_narrows_the_heat_that_came_too(kitchen: Kitchen):
    live = press_on(kitchen, kitchen.post("/cooks", {"dish": ROAST}), "low.hold")
    kitchen.wait(1800.0)
    live = kitchen.get(f"/cooks/{live['id']}/live")
    kitchen.post("/kitchen/appliances", {"kind": "smoker", "name": "Drum"})
    moved = press_on(kitchen, leave(kitchen, live, "low", "smoker"), "low+1.hold")
    kitchen.wait(600.0)
    for core_c in (31.0, 33.0, 35.0, 37.0):
        kitchen.wait(300.0)
        reading = {"quantity": "core_c", "value": core_c, "device": "Probe 1"}
        kitchen.post(f"/cooks/{moved['id']}/readings", {"readings": [reading]})
    told = kitchen.get(f"/cooks/{moved['id']}/live")["probe"]
    assert told["target_c"] is not None
    assert told["at"] is not None


def test_every_later_heat_of_the_broken_body_goes_along(kitchen: Kitchen):
    live = press_on(kitchen, begin(kitchen, "marinated-rounds"), "broil.1.finish")
    kitchen.wait(50.0)
    moved = leave(kitchen, live, "broil.1", "air_fryer")
    assert [key for key in keys(moved, "upcoming") if key.endswith(".finish")] == [
        "broil.1+1.finish",
        "broil.2+1.finish",
    ]
    order = keys(moved)
    assert order.index("broil.1+1.out") < order.index("brush.2.dress")
    assert order.index("brush.2.dress") < order.index("broil.2+1.under")
    assert press_on(kitchen, moved)["finished"]


def test_torn_foil_is_closed_again_or_done_without(kitchen: Kitchen):
    live = begin(kitchen, "foil-then-grill")
    assert "cover" not in [one["gone"] for one in live["leavable"]]  # nothing is in it yet
    slow = next(s["key"] for s in live["steps"] if s["key"].endswith(".hold"))
    live = press_on(kitchen, live, slow)
    kitchen.wait(1200.0)
    live = kitchen.get(f"/cooks/{live['id']}/live")
    (torn,) = [one for one in live["leavable"] if one["gone"] == "cover"]
    assert torn["says"] == "The foil is torn"
    ways = ask(kitchen, live, torn["stage"], "cover")["ways"]
    again = next(way for way in ways if way["says"] == "Wrap it again")
    assert 0.0 < again["later_s"] < 1800.0
    # dried in the open oven it would burn in its minutes on the grill: that is not offered
    assert [way["heat"] for way in ways] == ["foil", "braise"]
    moved = leave(kitchen, live, torn["stage"], again["heat"], gone="cover")
    loaded = press_on(kitchen, moved, f"{torn['stage']}+1.load")
    assert "doubled heavy foil" in loaded["says"]
    assert press_on(kitchen, loaded)["finished"]


PLACES = [
    ("strands-broiled", "pot.hold"),
    ("lid-stir-lid", "crisp.finish"),
    ("frozen-split", "fry.finish"),
    ("bath-then-low-high", None),
    ("cauliflower-oven", None),
    ("long-smoke", None),
]


@pytest.mark.parametrize(("key", "until"), PLACES)
def test_whatever_fails_the_cook_comes_to_its_end_with_every_check(kitchen: Kitchen, key, until):
    """The first way of everything that may fail, one after the other."""
    live = begin(kitchen, key)
    checks = [s for s in live["steps"] if s["who"] == "gate"]
    safe = any(s["check"]["wants_c"] for s in checks)
    live = press_on(kitchen, live, until) if until else live
    kitchen.wait(70.0)
    live = kitchen.get(f"/cooks/{live['id']}/live")
    for one in live["leavable"]:
        ways = ask(kitchen, live, one["stage"], one["gone"])["ways"]
        for way in ways[:1]:
            live = leave(kitchen, live, one["stage"], way["heat"], gone=one["gone"])
    after = [s for s in live["steps"] if s["who"] == "gate"]
    assert any(s["check"]["wants_c"] for s in after) == safe
    done = press_on(kitchen, live)
    assert done["finished"]
    kept = [c for c in done["checks"] if c["verdict"] == "passed"]
    assert len(kept) >= len(checks)


def test_what_is_burnt_already_may_still_be_taken_elsewhere(kitchen: Kitchen):
    live = under_broiler(kitchen, 900.0)
    ways = ask(kitchen, live, "broil")["ways"]
    assert ways
    fresh = ask(kitchen, under_broiler(kitchen, 10.0), "broil")["ways"]
    assert max(way["right"] for way in ways) < 0.5 * min(way["right"] for way in fresh)


def test_what_is_in_the_kitchen_comes_first_and_a_fire_in_the_open_only_from_there(
    kitchen: Kitchen,
):
    live = under_broiler(kitchen)
    assert "grill" not in [way["heat"] for way in ask(kitchen, live, "broil")["ways"]]
    leave(kitchen, live, "broil", "grill", 422)
    kitchen.post("/kitchen/appliances", {"kind": "gas-grill", "name": "Grill"})
    assert [way["heat"] for way in ask(kitchen, live, "broil")["ways"]] == ["grill"]


@pytest.mark.parametrize(
    ("told", "status", "field"),
    [
        ({"stage": "first", "heat": "air_fryer"}, 422, "stage"),
        ({"stage": "pot", "heat": "braise"}, 422, "stage"),
        ({"stage": "broil", "heat": "braise"}, 422, "heat"),
        ({"stage": "broil", "heat": "oven"}, 422, "heat"),
        ({"stage": "broil", "heat": "hearth"}, 422, "heat"),
        ({"stage": "broil", "heat": "foil", "gone": "cover"}, 422, "gone"),
        ({"stage": "", "heat": "air_fryer"}, 422, "stage"),
    ],
)
def test_what_cannot_be_left_is_refused_by_its_field(kitchen: Kitchen, told, status, field):
    """No heat, one that is over, one that browns nothing, the same body, no foil."""
    live = under_broiler(kitchen)
    answer = kitchen.post(f"/cooks/{live['id']}/elsewhere", told, status)
    assert [error["field"] for error in answer["errors"]] == [field]
    assert keys(kitchen.get(f"/cooks/{live['id']}/live")) == keys(live)


def test_food_that_may_be_under_the_fire_is_told_of_first(kitchen: Kitchen):
    live = press_on(kitchen, begin(kitchen, "portions-broiled"), "broil.under")
    kitchen.wait(300.0)
    live = kitchen.get(f"/cooks/{live['id']}/live")
    assert live["fire"]["assumed"]
    leave(kitchen, live, "broil", "air_fryer", 409)
    ask(kitchen, live, "broil", status=409)


def test_an_ended_cook_and_one_on_its_way_back_leave_nothing(kitchen: Kitchen):
    live = press_on(kitchen, begin(kitchen, "portions-broiled"), "pot.check")
    back = kitchen.tell(live["id"], kind="done", step="pot.check", temp_c=50.0, tender=False)
    assert "pot" not in [one["stage"] for one in back["leavable"]]
    leave(kitchen, live, "pot", "braise", 422)
    kitchen.client.post(f"/api/v1/cooks/{live['id']}/stop")
    assert kitchen.get(f"/cooks/{live['id']}/live")["leavable"] == []
    leave(kitchen, live, "broil", "air_fryer", 409)
