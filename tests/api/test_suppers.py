"""A meal on the stove: its dishes and sides together, and the rest planned anew when one drifts."""

from datetime import datetime, timedelta

import pytest
from tests.conftest import SHORT_RIBS, START, Kitchen

HANDS = ("hands", "gate", "fire")
RIBS = {"id": "ribs", "name": "Ribs", "dish": SHORT_RIBS}
WHOLE = {"id": "cauliflower", "name": "Cauliflower", "template": "cauliflower-oven"}
SLAW = {"id": "slaw", "key": "slaw"}


def begun(kitchen: Kitchen, **told):
    """A meal of two dishes and a side, begun: number of its supper, and its cooks by their line."""
    serve_at = (START + timedelta(hours=5)).isoformat()
    meal = {"name": "Two", "serve_at": serve_at, "dishes": [RIBS, WHOLE], "sides": [SLAW], **told}
    kept = kitchen.post("/meals", {"meal": meal})
    started = kitchen.post(f"/meals/{kept['id']}/cooks", {})
    lines = [dish["id"] for dish in meal["dishes"]]
    return started["supper"], dict(zip(lines, started["cooks"], strict=True))


def supper(kitchen: Kitchen):
    (found,) = kitchen.get("/cooks/live")["suppers"]
    return found


def moment(text):
    return datetime.fromisoformat(text)


def minutes(later, earlier):
    return (moment(later) - moment(earlier)).total_seconds() / 60.0


def step_of(live):
    return next((step for step in live["steps"] if step["key"] == live["current"]), None)


def cook_on(kitchen, number, cooks, until, late=None):
    """One pair of hands takes what the supper has next, as long as is likely; `late` acts take so
    much longer [s]. Plans anew where that is asked for. When every line was on the table.
    """
    served, late = {}, dict(late or {})
    while kitchen.now < until:
        lives = {line: kitchen.get(f"/cooks/{cook}/live") for line, cook in cooks.items()}
        for line, live in lives.items():
            if live["finished"]:
                served.setdefault(line, kitchen.now)
        listed = kitchen.get("/cooks/live")["suppers"]
        if all(live["finished"] for live in lives.values()) or not listed:
            return served
        if listed[0]["stale"]:
            kitchen.post(f"/suppers/{number}/plan", {}, 200)
            continue
        if not act(kitchen, number, lives, listed[0], late):
            kitchen.wait(20.0)
    return served


def act(kitchen, number, lives, told, late):
    """Do what is next, where hands are wanted now."""
    order = {(one["line"], one["step"]): one["at"] for one in told["next"]}
    ready = [
        (order.get((line, live["current"]), told["now"]), line)
        for line, live in lives.items()
        if not live["finished"] and step_of(live)["who"] in HANDS
    ]
    sides = [
        (order.get((s["line"], s["step"]), s["begin_at"]), s) for s in told["sides"] if s["step"]
    ]
    mine = [one for one in sides if one[1]["who"] == "hands"]
    if mine and (not ready or mine[0][0] <= min(ready)[0]):
        side = mine[0][1]
        kitchen.wait(minutes(side["due_at"], side["begin_at"]) * 60.0)
        done = {"line": side["line"], "kind": "done", "step": side["step"]}
        kitchen.post(f"/suppers/{number}/sides", done, 200)
        return True
    if not ready:
        return False
    line = min(ready)[1]
    step = step_of(lives[line])
    kitchen.wait(max(1.0, step["likely_s"]) + late.pop(step["key"], 0.0))
    kitchen.press(kitchen.get(f"/cooks/{lives[line]['id']}/live"))
    return True


def test_a_supper_tells_what_comes_next_over_all_its_dishes_and_sides(kitchen: Kitchen):
    number, cooks = begun(kitchen)
    told = supper(kitchen)
    assert told["id"] == number
    assert (told["stale"], told["moved"], told["why"]) == (False, [], "")
    assert {one["line"] for one in told["next"]} == {"ribs", "cauliflower", "slaw"}
    assert [one["at"] for one in told["next"]] == sorted(one["at"] for one in told["next"])
    assert {one["cook"] for one in told["next"]} == {*cooks.values(), None}
    assert abs(minutes(told["serve_at"], told["wanted_at"])) <= 10.0
    (side,) = told["sides"]
    assert (side["step"], side["who"], side["undoable"]) == ("wait", "machine", False)
    for cook in cooks.values():
        assert kitchen.get(f"/cooks/{cook}/live")["supper"] == number


def test_a_wait_gives_back_what_was_lost_before_it(kitchen: Kitchen):
    """Six minutes lost at the first act of a dish that waits covered later on: nothing moves."""
    number, cooks = begun(kitchen, sides=[])
    until = START + timedelta(hours=7)
    served = cook_on(kitchen, number, cooks, until, {"season.season": 360.0})
    last = max(served.values())
    assert last <= START + timedelta(hours=5, minutes=6)
    assert (last - min(served.values())).total_seconds() <= 600.0


def test_a_dish_that_is_half_an_hour_late_moves_the_others_and_says_so(kitchen: Kitchen):
    number, cooks = begun(kitchen)
    before = supper(kitchen)
    live = kitchen.get(f"/cooks/{cooks['ribs']}/live")
    while step_of(live)["key"] == "wait":
        kitchen.wait(30.0)
        live = kitchen.get(f"/cooks/{cooks['ribs']}/live")
    kitchen.wait(75 * 60.0)  # nobody comes
    assert supper(kitchen)["stale"] is True
    told = kitchen.post(f"/suppers/{number}/plan", {}, 200)
    assert told["stale"] is False
    late = minutes(told["serve_at"], before["wanted_at"])
    assert 15.0 < late < 76.0
    assert told["why"].startswith("Ribs: 1 h")
    moved = {one["line"]: minutes(one["is_at"], one["was_at"]) for one in told["moved"]}
    assert moved["cauliflower"] > 15.0
    again = kitchen.post(f"/suppers/{number}/plan", {}, 200)
    assert again["version"] == told["version"]  # nothing is left to be done
    seen = kitchen.client.put(f"/api/v1/suppers/{number}", json={"seen": True}).get_json()
    assert (seen["moved"], seen["why"]) == ([], "")
    served = cook_on(kitchen, number, cooks, START + timedelta(hours=9))
    ends = sorted(served.values())
    assert len(ends) == 2
    assert (ends[1] - ends[0]).total_seconds() < 15 * 60.0
    assert abs((ends[1] - moment(told["serve_at"])).total_seconds()) < 20 * 60.0


def test_guests_who_come_later_move_every_dish(kitchen: Kitchen):
    number, cooks = begun(kitchen)
    before = supper(kitchen)
    cook = cooks["ribs"]
    refused = kitchen.post(f"/cooks/{cook}/events", {"kind": "later", "seconds": 1200}, 409)
    assert "supper" in refused["detail"]
    later = (moment(before["wanted_at"]) + timedelta(minutes=30)).isoformat()
    told = kitchen.client.put(f"/api/v1/suppers/{number}", json={"wanted_at": later}).get_json()
    assert minutes(told["serve_at"], before["serve_at"]) == pytest.approx(30.0, abs=3.0)
    assert told["why"] == "Guests: 30 min later."
    assert {one["line"] for one in told["moved"]} == {"ribs", "cauliflower", "slaw"}
    past = (kitchen.now - timedelta(minutes=1)).isoformat()
    answer = kitchen.client.put(f"/api/v1/suppers/{number}", json={"wanted_at": past})
    assert answer.status_code == 422
    assert answer.get_json()["errors"][0]["field"] == "wanted_at"


def test_a_side_is_told_done_once_and_taken_back(kitchen: Kitchen):
    number, _ = begun(kitchen)
    path = f"/suppers/{number}/sides"
    done = {"line": "slaw", "kind": "done", "step": "prepare"}
    told = kitchen.post(path, done, 200)["sides"][0]
    assert (told["step"], told["undoable"]) != ("prepare", False)
    assert "told already" in kitchen.post(path, done, 409)["detail"]
    told = kitchen.post(path, {"line": "slaw", "kind": "undo"}, 200)["sides"][0]
    assert told["undoable"] is False
    kitchen.post(path, {"line": "slaw", "kind": "undo"}, 409)
    wrong = kitchen.post(path, {"line": "soup", "kind": "done", "step": "prepare"}, 422)
    assert wrong["errors"][0]["accepted"] == "one of slaw"
    kitchen.post(path, {**done, "step": "fry"}, 422)
    kitchen.post("/suppers/9/sides", done, 404)


def test_a_supper_is_over_with_its_last_dish(kitchen: Kitchen):
    number, cooks = begun(kitchen)
    for cook in cooks.values():
        kitchen.post(f"/cooks/{cook}/stop", {}, 200)
    assert kitchen.get("/cooks/live")["suppers"] == []
    kitchen.post(f"/suppers/{number}/plan", {}, 409)


def test_a_supper_that_cannot_be_read_leaves_its_dishes(kitchen: Kitchen):
    number, cooks = begun(kitchen)
    kitchen.spoil("supper", "document", number)
    found = kitchen.get("/cooks/live")
    assert (len(found["cooks"]), found["suppers"]) == (len(cooks), [])
    kitchen.post(f"/suppers/{number}/plan", {}, 409)
