"""A live cook told step by step: looks, signs, undo, restart, end, log."""

import pytest
from tests.conftest import SHORT_RIBS, Kitchen, open_kitchen


def states(live):
    return {s["key"]: s["state"] for s in live["steps"]}


def cook_to_fire(kitchen: Kitchen) -> int:
    """Everything told up to the tray under the broiler."""
    live = kitchen.post("/cooks", {"dish": SHORT_RIBS})
    for step in [s for s in live["steps"] if not s["beside"]]:
        if step["who"] == "fire":
            break
        kitchen.wait(step["likely_s"])
        gate = {"tender": True, "temp_c": 95} if step["who"] == "gate" else {}
        kitchen.tell(live["id"], kind="done", step=step["key"], **gate)
    return live["id"]


def test_from_start_to_log(kitchen: Kitchen):
    cook = cook_to_fire(kitchen)
    live = kitchen.get(f"/cooks/{cook}/live")
    assert live["current"] == "finish"
    assert not live["fire_assumed"]
    assert live["calls"][-1]["says"] == "Out now."
    before = kitchen.get(f"/cooks/{cook}/glaze")
    kitchen.wait(200)
    seen = kitchen.tell(cook, kind="saw", sign="amber at the edges")
    assert seen["glaze_key"] != live["glaze_key"]
    after = kitchen.get(f"/cooks/{cook}/glaze")

    def width(glaze):
        band = glaze["milestones"]["face"]["amber"]
        return band["high_s"] / band["low_s"]

    assert width(after) < 0.8 * width(before)
    for step in ("finish", "out", "rest", "serve"):
        kitchen.wait(120)
        kitchen.tell(cook, kind="done", step=step)
    assert kitchen.get(f"/cooks/{cook}/live")["finished"]
    outcome = {"tenderness": "falls", "crust": "sticky", "colour": "amber", "note": "Good 👍"}
    answer = kitchen.client.put(f"/api/v1/cooks/{cook}/outcome", json=outcome)
    assert answer.status_code == 200
    logged = kitchen.get(f"/cooks/{cook}")
    assert logged["summary"]["outcome"]["note"] == "Good 👍"
    assert logged["summary"]["actual_s"] > 0
    assert logged["signs"] == ["amber at the edges after 3:20"]
    compared = {s["key"]: s for s in logged["stages"]}
    assert compared["finish"]["actual_s"] == pytest.approx(320, abs=1)
    assert compared["hold"]["actual_s"] == pytest.approx(compared["hold"]["planned_s"], abs=1)
    refused = kitchen.post(f"/cooks/{cook}/events", {"kind": "done", "step": "serve"}, 409)
    assert "ended" in refused["detail"]


def test_a_restarted_server_knows_what_was_told_and_nothing_more(kitchen: Kitchen):
    cook = kitchen.post("/cooks", {"dish": SHORT_RIBS})["id"]
    kitchen.wait(130)
    kitchen.tell(cook, kind="done", step="season")
    kitchen.wait(120)
    kitchen.tell(cook, kind="done", step="load")
    again = open_kitchen(kitchen.database, kitchen.now)
    again.wait(6 * 3600)
    live = again.get(f"/cooks/{cook}/live")
    found = states(live)
    assert found["season"] == "confirmed"
    assert found["come_up"] == found["hold"] == "estimated"
    assert live["current"] == "quick"  # the first hand step nobody confirmed
    assert found["check"] == "upcoming"
    assert not any(s["passed"] for s in live["steps"])
    skipped = again.tell(cook, kind="done", step="open")
    assert states(skipped)["quick"] == "unknown"
    again.client.application.extensions["kettle_engine"].dispose()


def test_a_second_tap_changes_nothing_and_undo_takes_one_back(kitchen: Kitchen):
    cook = kitchen.post("/cooks", {"dish": SHORT_RIBS})["id"]
    kitchen.wait(60)
    kitchen.tell(cook, kind="done", step="season")
    twice = kitchen.tell(cook, kind="done", step="season")
    assert twice["last_event"] == 1
    undone = kitchen.tell(cook, kind="undo")
    assert undone["current"] == "season"
    kitchen.wait(300)
    ago = kitchen.tell(cook, kind="done", step="season", ago_s=120)
    assert states(ago)["season"] == "confirmed"
    assert ago["steps"][0]["end_at"] == "2030-05-04T16:04:00Z"


def test_a_failed_gate_prices_the_way_back_and_stays(kitchen: Kitchen):
    live = kitchen.post("/cooks", {"dish": SHORT_RIBS})
    cook = live["id"]
    for step in ("season", "load", "come_up", "hold", "natural", "quick", "open"):
        kitchen.wait(60)
        kitchen.tell(cook, kind="done", step=step)
    tough = kitchen.tell(cook, kind="done", step="check", tender=False, temp_c=95)
    assert tough["current"] == "check"
    assert "back under pressure for" in tough["detail"]
    cold = kitchen.tell(cook, kind="done", step="check", tender=True, temp_c=50)
    assert "50 °C is under 63 °C" in cold["says"]
    assert kitchen.tell(cook, kind="done", step="check", tender=True, temp_c=80)["current"] == "lift"


def test_a_tray_that_may_be_under_the_broiler_is_taken_to_be_there(kitchen: Kitchen):
    cook = kitchen.post("/cooks", {"dish": SHORT_RIBS})["id"]
    for step in ("season", "load", "come_up", "hold", "natural", "quick", "open", "check", "lift"):
        kitchen.wait(60)
        gate = {"tender": True, "temp_c": 95} if step == "check" else {}
        kitchen.tell(cook, kind="done", step=step, **gate)
    kitchen.wait(300)
    live = kitchen.get(f"/cooks/{cook}/live")
    assert live["fire_assumed"]
    assert live["current"] == "brush"
    seen = kitchen.tell(cook, kind="saw", sign="bubbling")
    assert seen["sightings"] == 0  # an assumed start teaches nothing


def test_plans_are_kept_changed_and_dropped(kitchen: Kitchen):
    plan = kitchen.post("/plans", {"dish": SHORT_RIBS})
    changed = kitchen.client.put(f"/api/v1/plans/{plan['id']}", json={"dish": {**SHORT_RIBS, "coats": 1}})
    assert changed.get_json()["dish"]["coats"] == 1
    assert open_kitchen(kitchen.database).get(f"/plans/{plan['id']}")["title"] == "Beef short ribs, plum and black tea"
    assert kitchen.client.delete(f"/api/v1/plans/{plan['id']}").status_code == 204
    assert kitchen.client.get(f"/api/v1/plans/{plan['id']}").status_code == 404
