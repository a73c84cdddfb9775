"""The log: crowded, corrected, and standing still once a cook has ended."""

from tests.conftest import SHORT_RIBS, START, Kitchen, open_kitchen

SAUCES = ("plum-tea", "date-mustard")
OUTCOME = {"tenderness": "falls", "crust": "sticky", "colour": "amber", "note": ""}


def end(kitchen: Kitchen, cook: int, **change):
    answer = kitchen.client.put(f"/api/v1/cooks/{cook}/outcome", json={**OUTCOME, **change})
    assert answer.status_code == 200, answer.text[:300]
    return answer.get_json()


def cook_to_out(kitchen: Kitchen, dish: dict) -> int:
    """A cook whose food came out 200 s after it went under the heat."""
    live = kitchen.post("/cooks", {"dish": dish})
    while live["current"] != "finish.finish":
        kitchen.wait(60)
        live = kitchen.press(live)
    kitchen.wait(200)
    kitchen.press(live)
    return live["id"]


def test_a_crowded_log_is_listed_page_by_page_without_reading_a_single_dish(
    kitchen: Kitchen, monkeypatch
):
    for n in range(12):
        cook = cook_to_out(kitchen, {**SHORT_RIBS, "coats": 1, "sauce": SAUCES[n % 2]})
        end(kitchen, cook)

    def never(*_):
        raise AssertionError("listing the log read a dish")

    monkeypatch.setattr("bluekettle.services.loaded.ChainDocument.model_validate", never)
    first = kitchen.get("/cooks?limit=5")
    assert [c["id"] for c in first["cooks"]] == [12, 11, 10, 9, 8]
    second = kitchen.get(f"/cooks?limit=5&after={first['more']}")
    third = kitchen.get(f"/cooks?limit=5&after={second['more']}")
    assert [c["id"] for c in second["cooks"] + third["cooks"]] == [7, 6, 5, 4, 3, 2, 1]
    assert third["more"] == ""
    cooks = first["cooks"]
    assert all(30 <= len(c["strip"]["face"]) <= 90 for c in cooks)
    assert all(abs(c["strip"]["pulled_s"] - 200) < 1 for c in cooks)
    assert all(c["actual_s"] is None for c in cooks)  # nobody said that it was served
    found = kitchen.get("/cooks?search=MUSTARD%20ribs")["cooks"]
    assert [c["id"] for c in found] == [12, 10, 8, 6, 4, 2]
    assert kitchen.get("/cooks?search=100%25")["cooks"] == []
    refused = kitchen.client.get("/api/v1/cooks?after=yesterday")
    assert refused.status_code == 422


def test_a_cook_is_deleted_with_a_way_back(kitchen: Kitchen):
    cook = cook_to_out(kitchen, {**SHORT_RIBS, "coats": 1})
    assert kitchen.client.delete(f"/api/v1/cooks/{cook}").status_code == 204
    for path in (f"/cooks/{cook}", f"/cooks/{cook}/live"):
        assert kitchen.client.get("/api/v1" + path).status_code == 404
    assert kitchen.get("/cooks")["cooks"] == kitchen.get("/cooks/live")["cooks"] == []
    assert kitchen.client.delete(f"/api/v1/cooks/{cook}").status_code == 404
    assert kitchen.post(f"/cooks/{cook}/restore", None, 200)["id"] == cook
    assert [c["id"] for c in kitchen.get("/cooks/live")["cooks"]] == [cook]


def test_a_cook_can_be_stopped_and_left_unrated(kitchen: Kitchen):
    cook = kitchen.post("/cooks", {"dish": SHORT_RIBS})["id"]
    kitchen.wait(600)
    stopped = kitchen.post(f"/cooks/{cook}/stop", None, 200)
    assert stopped["summary"]["outcome"] is None
    assert kitchen.get("/cooks/live")["cooks"] == []
    live = kitchen.get(f"/cooks/{cook}/live")
    assert (live["rated"], live["fire"], live["alarms"]) == (False, None, [])
    assert end(kitchen, cook, colour=None)["summary"]["outcome"]["colour"] == ""


def test_an_outcome_can_be_corrected_and_the_end_stays_where_it_was(kitchen: Kitchen):
    cook = kitchen.post("/cooks", {"dish": SHORT_RIBS})["id"]
    kitchen.wait(3600)
    first = end(kitchen, cook)
    kitchen.wait(3600)
    second = end(kitchen, cook, colour="burnt", note="Saw it in daylight.")
    assert second["summary"]["ended_at"] == first["summary"]["ended_at"]
    assert second["summary"]["outcome"]["colour"] == "burnt"
    assert len(kitchen.get("/cooks")["cooks"]) == 1


def test_an_ended_cook_stands_still_and_what_was_not_reached_is_said(kitchen: Kitchen):
    cook = kitchen.post("/cooks", {"dish": SHORT_RIBS})["id"]
    kitchen.wait(120)
    kitchen.tell(cook, kind="done", step="season.season")
    kitchen.wait(60)
    end(kitchen, cook)
    before = kitchen.get(f"/cooks/{cook}/live")
    kitchen.wait(86_400)
    after = kitchen.get(f"/cooks/{cook}/live")
    assert after["steps"] == before["steps"]
    told = {s["key"]: s["state"] for s in kitchen.get(f"/cooks/{cook}")["stages"]}
    assert told["season.season"] == "confirmed"
    assert told["finish.finish"] == "not reached"


def test_a_cook_keeps_the_forecast_it_started_from(kitchen: Kitchen):
    """What was promised at the start is what the log compares with, whatever the plan becomes."""
    plan = kitchen.post("/plans", {"dish": SHORT_RIBS})
    cook = kitchen.post("/cooks", {"dish": SHORT_RIBS, "plan_id": plan["id"]})["id"]
    kitchen.client.put(
        f"/api/v1/plans/{plan['id']}", json={"dish": {**SHORT_RIBS, "state": "frozen"}}
    )
    kitchen.client.delete(f"/api/v1/plans/{plan['id']}")
    kept = open_kitchen(kitchen.database, START).get(f"/cooks/{cook}")
    assert kept["dish"]["food"]["state"] == "fridge"
    assert kept["facts"]["total"]["likely_s"] == kept["summary"]["planned_s"]
