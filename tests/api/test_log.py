"""The log: crowded, corrected, and standing still once a cook has ended."""

from tests.conftest import SHORT_RIBS, START, Kitchen, open_kitchen

OUTCOME = {"tenderness": "falls", "crust": "sticky", "colour": "amber", "note": ""}


def end(kitchen: Kitchen, cook: int, **change):
    answer = kitchen.client.put(f"/api/v1/cooks/{cook}/outcome", json={**OUTCOME, **change})
    assert answer.status_code == 200, answer.text[:300]
    return answer.get_json()


def test_a_crowded_log_is_listed_newest_first_without_running_the_model(
    kitchen: Kitchen, monkeypatch
):
    for n in range(12):
        live = kitchen.post("/cooks", {"dish": {**SHORT_RIBS, "coats": 1 + n % 2}})
        for step in ("season", "load", "come_up", "hold", "natural", "quick", "open"):
            kitchen.wait(60)
            kitchen.tell(live["id"], kind="done", step=step)
        kitchen.tell(live["id"], kind="done", step="check", tender=True, temp_c=90)
        for step in ("lift", "brush", "under"):
            kitchen.tell(live["id"], kind="done", step=step)
        kitchen.wait(100)
        kitchen.tell(live["id"], kind="saw", sign="bubbling")
        kitchen.wait(100)
        kitchen.tell(live["id"], kind="done", step="finish")
        end(kitchen, live["id"])

    def never(*_):
        raise AssertionError("listing the log ran the model")

    monkeypatch.setattr("bluekettle.services.cooks._reweighted", never)
    cooks = kitchen.get("/cooks")["cooks"]
    assert [c["id"] for c in cooks] == list(range(12, 0, -1))
    assert all(30 <= len(c["strip"]["face"]) <= 90 for c in cooks)
    assert all(abs(c["strip"]["pulled_s"] - 200) < 1 for c in cooks)
    assert all(c["actual_s"] is None for c in cooks)  # nobody said that it was served


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
    kitchen.tell(cook, kind="done", step="season")
    kitchen.wait(60)
    end(kitchen, cook)
    before = kitchen.get(f"/cooks/{cook}/live")
    kitchen.wait(86_400)
    after = kitchen.get(f"/cooks/{cook}/live")
    assert after["steps"] == before["steps"]
    told = {s["key"]: s["state"] for s in kitchen.get(f"/cooks/{cook}")["stages"]}
    assert told["season"] == "confirmed"
    assert told["finish"] == "not reached"


def test_a_cook_keeps_the_forecast_it_started_from(kitchen: Kitchen):
    """What was promised at the start is what the log compares with, whatever the plan becomes."""
    plan = kitchen.post("/plans", {"dish": SHORT_RIBS})
    cook = kitchen.post("/cooks", {"dish": SHORT_RIBS, "plan_id": plan["id"]})["id"]
    kitchen.client.put(
        f"/api/v1/plans/{plan['id']}", json={"dish": {**SHORT_RIBS, "state": "frozen"}}
    )
    kitchen.client.delete(f"/api/v1/plans/{plan['id']}")
    kept = open_kitchen(kitchen.database, START).get(f"/cooks/{cook}")
    assert kept["dish"]["state"] == "fridge"
    assert kept["forecast"]["start_at"] == "2030-05-04T16:00:00Z"
