"""Where the tray hangs, or the dial stands, told while the food is under the fire."""

import pytest
from tests.conftest import SHORT_RIBS, Kitchen, open_kitchen

ONE_COAT = {**SHORT_RIBS, "coats": 1}


def under(kitchen: Kitchen, here=None):
    live = kitchen.post("/cooks", {"dish": {**ONE_COAT, "kitchen": here or {}}})
    live = kitchen.press_until(live, "finish.finish")
    kitchen.wait(20.0)
    return live


def amber_s(kitchen: Kitchen, cook: int) -> float:
    found = kitchen.get(f"/cooks/{cook}/glaze")
    return found["milestones"]["face"]["amber"]["likely_s"]


def test_a_tray_that_hangs_nearer_is_reckoned_with_since_it_went_under(kitchen: Kitchen):
    live = under(kitchen)
    dial = live["fire"]["dial"]
    assert (dial["value"], dial["unit"]) == (0.15, "m")
    planned = amber_s(kitchen, live["id"])
    near = kitchen.tell(live["id"], kind="dial", step="finish", dial=0.08)
    assert near["fire"]["dial"]["value"] == 0.08
    assert near["picture"]["rack_mm"] == 80.0
    found = amber_s(kitchen, live["id"])
    assert found < 0.8 * planned
    other = kitchen.post("/forecasts", {**ONE_COAT, "kitchen": {"rack_m": 0.08}}, 200)
    asked = other["fires"][0]["glaze"]["milestones"]["face"]["amber"]["likely_s"]
    assert found == pytest.approx(asked, rel=0.02)
    kitchen.tell(live["id"], kind="dial", step="finish", dial=0.25)
    assert amber_s(kitchen, live["id"]) > 1.2 * planned
    for _ in range(2):
        back = kitchen.tell(live["id"], kind="undo")
    assert back["fire"]["dial"]["value"] == 0.15
    assert amber_s(kitchen, live["id"]) == planned


def test_it_outlives_the_server_and_its_ways_out_are_from_there(kitchen: Kitchen):
    live = under(kitchen)
    plain = kitchen.get(f"/cooks/{live['id']}/ways-out")["ways"]
    kitchen.tell(live["id"], kind="dial", step="finish", dial=0.08)
    again = open_kitchen(kitchen.database, kitchen.now)
    assert again.get(f"/cooks/{live['id']}/live")["fire"]["dial"]["value"] == 0.08
    stay = next(
        w for w in again.get(f"/cooks/{live['id']}/ways-out")["ways"] if w["key"] == "as is"
    )
    assert stay["more_s"] < next(w for w in plain if w["key"] == "as is")["more_s"]


def test_a_dial_of_nothing_that_is_on_is_refused(kitchen: Kitchen):
    live = kitchen.post("/cooks", {"dish": ONE_COAT})
    events = f"/cooks/{live['id']}/events"
    early = {"kind": "dial", "step": "finish", "dial": 0.08}
    assert kitchen.post(events, early, 422)["errors"][0]["field"] == "step"
    live = kitchen.press_until(live, "finish.finish")
    for dial in (None, 0.03, 200.0):
        bad = kitchen.post(events, {**early, "dial": dial}, 422)["errors"][0]
        assert (bad["field"], bad["accepted"]) == ("dial", "0.05 to 0.35 m")
    bad = kitchen.post(events, {**early, "step": "cook"}, 422)["errors"][0]
    assert bad["field"] == "step"


def test_a_heat_that_came_for_another_has_no_dial_to_tell(kitchen: Kitchen):
    live = under(kitchen)
    way = {"stage": "finish", "gone": "appliance", "heat": "air_fryer"}
    kitchen.tell(live["id"], kind="dial", step="finish", dial=0.12)
    live = kitchen.post(f"/cooks/{live['id']}/elsewhere", way)
    live = kitchen.press_until(live, "finish+1.finish")
    assert live["fire"]["dial"] is None
    cook = kitchen.get(f"/cooks/{live['id']}")
    (left,) = cook["cooked"]["instead"]
    assert (left["stage"], left["heat"], cook["dish"]["instead"]) == ("finish", "air_fryer", [])
    told = {"kind": "dial", "step": "finish+1", "dial": 180.0}
    bad = kitchen.post(f"/cooks/{live['id']}/events", told, 422)["errors"][0]
    assert bad["field"] == "step"
    while live["current"]:
        kitchen.wait(30.0)
        live = kitchen.press(live)


def test_what_it_teaches_is_of_where_it_stood(kitchen: Kitchen):
    kitchen.post("/kitchen/appliances", {"kind": "oven-broiler", "name": "b", "rack_mm": 150.0})
    live = under(kitchen, kitchen.get("/kitchen")["for_plans"])
    kitchen.tell(live["id"], kind="dial", step="finish", dial=0.08)
    kitchen.tell(live["id"], kind="saw", sign="bubbling")
    kitchen.post(f"/cooks/{live['id']}/stop", None, 200)
    (lesson,) = kitchen.get(f"/cooks/{live['id']}/lessons")["appliances"]
    assert lesson["observations"][0]["dial"] == 0.08


def test_no_tray_is_told_of_while_nobody_knows_whether_it_is_there(kitchen: Kitchen):
    live = kitchen.press_until(kitchen.post("/cooks", {"dish": ONE_COAT}), "finish.under")
    kitchen.wait(90.0)
    assert kitchen.get(f"/cooks/{live['id']}/live")["fire"]["assumed"]
    told = {"kind": "dial", "step": "finish", "dial": 0.08}
    bad = kitchen.post(f"/cooks/{live['id']}/events", told, 422)["errors"][0]
    assert bad["field"] == "step"
