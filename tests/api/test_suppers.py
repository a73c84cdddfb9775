"""A meal on the stove: its dishes and sides together, and the rest planned anew when one drifts."""

from datetime import datetime, timedelta
from itertools import pairwise

import pytest
from sqlmodel import Session
from tests.conftest import SHORT_RIBS, START, Kitchen
from tests.schedule.meals import MEALS

from bluekettle.core.schedule.left import going_on
from bluekettle.services.suppers import on_stove

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


def cook_on(kitchen, number, cooks, until, late=None, tick_s=20.0):
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
            kitchen.wait(tick_s)
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
    """Thirteen minutes are lost before a dish waits covered: six by hands, the rest since nobody
    tells the pin. A third of it at least comes back."""
    number, cooks = begun(kitchen, sides=[])
    until = START + timedelta(hours=7)
    served = cook_on(kitchen, number, cooks, until, {"season.season": 360.0})
    last = max(served.values())
    assert last <= START + timedelta(hours=5, minutes=8)
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
    waits = kitchen.get(f"/cooks/{cooks['cauliflower']}/live")
    assert waits["current"] == "wait"  # it is the same wait, for a tap that is under way
    assert minutes(step_of(waits)["due_at"], before["now"]) > 30.0
    assert {one["line"] for one in told["moved"]} == {"ribs", "cauliflower", "slaw"}
    past = (kitchen.now - timedelta(minutes=1)).isoformat()
    answer = kitchen.client.put(f"/api/v1/suppers/{number}", json={"wanted_at": past})
    assert answer.status_code == 422
    assert answer.get_json()["errors"][0]["field"] == "wanted_at"


@pytest.mark.parametrize("reached", ["start", "covered"])
def test_an_act_whose_wait_is_over_waits_again_where_the_guests_come_later(kitchen, reached):
    """Its hour had come and nobody had begun: later guests put it off, and it says so, waiting as
    it did before.
    """
    number, cooks = begun(kitchen, sides=[])
    cook = cooks["cauliflower"] if reached == "start" else cooks["ribs"]

    def waits():
        live = kitchen.get(f"/cooks/{cook}/live")
        if reached == "start":
            return step_of(live)["key"] == "wait"
        return live["current"].endswith(".slack")

    while reached == "covered" and not waits():
        live = kitchen.get(f"/cooks/{cook}/live")
        if step_of(live)["who"] in HANDS:
            kitchen.press(live)
        else:
            kitchen.wait(30.0)
    assert waits()
    while waits():
        kitchen.wait(30.0)
    step = step_of(kitchen.get(f"/cooks/{cook}/live"))
    assert step["who"] in HANDS
    later = (moment(supper(kitchen)["wanted_at"]) + timedelta(minutes=30)).isoformat()
    kitchen.client.put(f"/api/v1/suppers/{number}", json={"wanted_at": later}).get_json()
    live = kitchen.get(f"/cooks/{cook}/live")
    assert (step_of(live)["who"], step_of(live)["key"][-6:]) == ("machine", ".slack")
    due = moment(step_of(live)["due_at"])
    assert due > kitchen.now + timedelta(minutes=10)
    assert supper(kitchen)["stale"] is False
    kitchen.wait((due - kitchen.now).total_seconds() + 1.0)
    assert kitchen.get(f"/cooks/{cook}/live")["current"] == step["key"]


def test_guests_who_come_as_they_first_said_find_what_was_told_first(kitchen: Kitchen):
    """Half an hour later and back: every act is when it was, but for what has begun meanwhile."""
    number, cooks = begun(kitchen)
    first = supper(kitchen)["next"][0]
    kitchen.now = moment(first["at"])
    for _ in ("season.season", "cook.load"):
        live = kitchen.get(f"/cooks/{cooks['ribs']}/live")
        kitchen.wait(step_of(live)["likely_s"])
        kitchen.press(live)
    before = supper(kitchen)
    assert (first["line"], before["stale"]) == ("ribs", False)
    later = (moment(before["wanted_at"]) + timedelta(minutes=30)).isoformat()
    path = f"/api/v1/suppers/{number}"
    told = kitchen.client.put(path, json={"wanted_at": later}).get_json()
    assert told["next"] != before["next"]
    kitchen.wait(60.0)
    told = kitchen.client.put(path, json={"wanted_at": before["wanted_at"]}).get_json()
    assert minutes(told["serve_at"], before["serve_at"]) == pytest.approx(0.0, abs=1.0)
    for now, then in zip(told["next"], before["next"], strict=True):
        assert (now["line"], now["step"]) == (then["line"], then["step"])
        assert minutes(now["at"], then["at"]) == pytest.approx(0.0, abs=1.0)


def tapping_meanwhile(kitchen: Kitchen, monkeypatch, number, taps):
    """A tap on a side while the rest of a supper is planned, so many times; how often it was."""
    workshop = kitchen.client.application.extensions["kettle_workshop"]
    run, planned = workshop.run, []

    def tapped(task, *payload, **more):
        if task == "replan":
            planned.append(task)
            if len(planned) <= taps:
                kind = "done" if len(planned) % 2 else "undo"
                told = {"line": "slaw", "kind": kind, "step": "prepare"}
                kitchen.post(f"/suppers/{number}/sides", told, 200)
        return run(task, *payload, **more)

    monkeypatch.setattr(workshop, "run", tapped)
    return planned


def test_a_tap_meanwhile_loses_neither_the_tap_nor_the_later_guests(kitchen, monkeypatch):
    number, _ = begun(kitchen)
    before = supper(kitchen)
    planned = tapping_meanwhile(kitchen, monkeypatch, number, taps=1)
    later = (moment(before["wanted_at"]) + timedelta(minutes=30)).isoformat()
    told = kitchen.client.put(f"/api/v1/suppers/{number}", json={"wanted_at": later}).get_json()
    assert len(planned) == 2
    assert minutes(told["wanted_at"], before["wanted_at"]) == 30.0
    assert told["sides"][0]["undoable"] is True
    again = kitchen.client.put(f"/api/v1/suppers/{number}", json={"wanted_at": later}).get_json()
    assert (len(planned), again["version"]) == (2, told["version"])


def test_where_taps_keep_coming_the_guests_are_told_again_by_the_cook(kitchen, monkeypatch):
    number, _ = begun(kitchen)
    before = supper(kitchen)
    planned = tapping_meanwhile(kitchen, monkeypatch, number, taps=9)
    later = (moment(before["wanted_at"]) + timedelta(minutes=30)).isoformat()
    answer = kitchen.client.put(f"/api/v1/suppers/{number}", json={"wanted_at": later})
    assert (answer.status_code, len(planned)) == (409, 3)
    assert supper(kitchen)["wanted_at"] == before["wanted_at"]


def test_a_dish_that_was_moved_takes_the_tap_of_a_page_that_does_not_know(kitchen: Kitchen):
    """What is told of a dish is not refused because its waits moved meanwhile."""
    number, cooks = begun(kitchen, sides=[])
    live = kitchen.press_until(kitchen.get(f"/cooks/{cooks['ribs']}/live"), "cook.load")
    later = (moment(supper(kitchen)["wanted_at"]) + timedelta(minutes=20)).isoformat()
    kitchen.client.put(f"/api/v1/suppers/{number}", json={"wanted_at": later})
    after = kitchen.get(f"/cooks/{live['id']}/live")
    assert after["last_event"] > live["last_event"]
    done = {"kind": "done", "step": "cook.load", "seen": live["last_event"]}
    assert kitchen.post(f"/cooks/{live['id']}/events", done)["current"] == "cook.come_up"
    stale = {**done, "step": "season.season"}
    refused = kitchen.post(f"/cooks/{live['id']}/events", stale, 409)
    assert "told already" in refused["detail"]


def test_a_supper_is_not_planned_anew_without_end(kitchen: Kitchen, monkeypatch):
    monkeypatch.setattr("bluekettle.services.suppers.MOST_MOVES", 2)
    number, _ = begun(kitchen, sides=[])
    wanted = moment(supper(kitchen)["wanted_at"])
    for times in range(1, 4):
        later = {"wanted_at": (wanted + timedelta(minutes=20 * times)).isoformat()}
        answer = kitchen.client.put(f"/api/v1/suppers/{number}", json=later)
        if answer.status_code != 200:
            break
    assert (times, answer.status_code) == (3, 409)
    assert "go on dish by dish" in answer.get_json()["detail"]
    assert minutes(supper(kitchen)["wanted_at"], wanted.isoformat()) == 40.0


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


def test_a_supper_that_is_changed_in_the_night_wakes_nobody(kitchen: Kitchen):
    """The guests come sooner: the bath is begun as the night is over, and not in it."""
    (drumsticks,) = [
        one for one in MEALS["boathouse"]["meal"]["dishes"] if one["id"] == "drumsticks"
    ]
    night = [START + timedelta(hours=hours) for hours in (4, 12)]
    meal = {
        "serve_at": (START + timedelta(hours=21)).isoformat(),
        "dishes": [drumsticks],
        "quiet": [{"start": night[0].isoformat(), "end": night[1].isoformat()}],
    }
    kept = kitchen.post("/meals", {"meal": meal})
    number = kitchen.post(f"/meals/{kept['id']}/cooks", {})["supper"]
    planned = moment(supper(kitchen)["next"][0]["at"])
    assert planned > night[1]
    kitchen.wait(6 * 3600.0)
    sooner = (START + timedelta(hours=18)).isoformat()
    told = kitchen.client.put(f"/api/v1/suppers/{number}", json={"wanted_at": sooner}).get_json()
    first = moment(told["next"][0]["at"])
    assert night[1] <= first < planned
    assert first - night[1] < timedelta(minutes=1)


def test_a_tap_on_a_side_is_taken_once_and_as_old_as_it_is(kitchen: Kitchen):
    """It waited half an hour for the server, and its answer was lost."""
    number, _ = begun(kitchen)
    for _ in range(2):
        kitchen.wait(4 * 3600.0)
        (side,) = supper(kitchen)["sides"]
        if side["step"] != "wait":
            break
    assert side["who"] == "hands"
    tap = {
        "id": "7a1f0c7e-35a3-4a4c-8a6e-0a6f7a5a9b11",
        "line": "slaw",
        "kind": "done",
        "step": side["step"],
        "tapped_at": "2030-05-04T10:00:00Z",
        "sent_at": "2030-05-04T10:30:00Z",
    }
    once = kitchen.post(f"/suppers/{number}/sides", tap, 200)
    (after,) = once["sides"]
    assert after["step"] != side["step"]
    assert moment(after["begin_at"]) == kitchen.now - timedelta(minutes=30)
    again = kitchen.post(f"/suppers/{number}/sides", tap, 200)
    assert again["version"] == once["version"]
    fresh = {**tap, "id": "7a1f0c7e-35a3-4a4c-8a6e-0a6f7a5a9b12"}
    kitchen.post(f"/suppers/{number}/sides", fresh, 409)


def test_the_boathouse_supper_is_cooked_to_the_log_late_at_every_fourth_act(kitchen: Kitchen):
    """Three dishes, two sides, one oven, one pot, one air fryer, one pair of hands, a minute lost
    at every fourth act: on the table together, near the wanted moment.
    """
    raw = MEALS["boathouse"]["meal"]
    serve_at = START + timedelta(hours=8)
    meal = {**raw, "serve_at": serve_at.isoformat()}
    kept = kitchen.post("/meals", {"meal": meal})
    begun_now = kitchen.post(f"/meals/{kept['id']}/cooks", {})
    cooks = dict(zip([one["id"] for one in raw["dishes"]], begun_now["cooks"], strict=True))
    steps = [kitchen.get(f"/cooks/{cook}/live")["steps"] for cook in cooks.values()]
    acts = [s["key"] for own in steps for s in own if s["who"] == "hands" and not s["beside"]]
    late = dict.fromkeys(acts[::4], 60.0)
    until = serve_at + timedelta(hours=2)
    served = cook_on(kitchen, begun_now["supper"], cooks, until, late, tick_s=45.0)
    assert set(served) == set(cooks)
    ends = sorted(served.values())
    assert abs((ends[-1] - serve_at).total_seconds()) <= 15 * 60.0
    assert (ends[-1] - ends[0]).total_seconds() <= 10 * 60.0
    for cook in cooks.values():
        outcome = {"tenderness": "falls", "crust": "sticky", "colour": "mahogany"}
        kitchen.client.put(f"/api/v1/cooks/{cook}/outcome", json=outcome)
        told = kitchen.get(f"/cooks/{cook}")
        assert told["summary"]["outcome"]["colour"] == "mahogany"
        assert {s["state"] for s in told["stages"]} <= {"confirmed", "estimated"}
    assert kitchen.get("/cooks/live")["suppers"] == []


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


RICE = {"id": "rice", "key": "rice"}


def still_to_do(kitchen: Kitchen, number: int):
    """Keys of all that the plan of the rest counts with."""
    extensions = kitchen.client.application.extensions
    with Session(extensions["kettle_engine"]) as session:
        stove = on_stove(session, number, kitchen.now, extensions["kettle_strips"])
    left = going_on(stove.kept.puzzle, stove.lines, stove.kept.told, stove.now_s)
    return [task.key for task in left.tasks]


BREAD = {"id": "bread", "key": "flatbread"}


def baskets(kitchen: Kitchen, number: int, kind: str):
    """When each use of a kind of body is told to be in it, in order [s]."""
    extensions = kitchen.client.application.extensions
    with Session(extensions["kettle_engine"]) as session:
        stove = on_stove(session, number, kitchen.now, extensions["kettle_strips"])
    puzzle, told = stove.kept.puzzle, stove.kept.told
    tasks = {task.key: task for task in puzzle.tasks}
    left = {task.key for task in going_on(puzzle, stove.lines, told, stove.now_s).tasks}
    spans = [
        (told.start_s[use.first], told.start_s[use.last] + tasks[use.last].seconds, use.line)
        for use in puzzle.uses
        if use.kind == kind and use.first in left and use.last in left
    ]
    return sorted(spans)


def test_a_side_goes_into_the_air_fryer_where_the_oven_broke_and_back(kitchen: Kitchen):
    number, cooks = begun(kitchen, sides=[BREAD])
    where = f"/suppers/{number}/sides/elsewhere"
    move = {"line": "bread", "body": "air_fryer"}
    ways = [{"body": "air_fryer", "name": "air fryer"}]
    # Nobody else has to have left the oven: what is in the way is the cook's to know.
    assert supper(kitchen)["sides"][0]["ways"] == ways
    gone = kitchen.post(where, move, 200)["sides"][0]
    assert (gone["place"], gone["was"], gone["ways"]) == ("air fryer", "oven", [])
    assert kitchen.post(where, {**move, "body": "oven"}, 200)["sides"][0]["was"] == ""
    ribs = f"/cooks/{cooks['ribs']}"
    kitchen.post(f"{ribs}/elsewhere", {"stage": "finish", "heat": "air_fryer"})
    kitchen.post(f"/cooks/{cooks['cauliflower']}/elsewhere", {"stage": "oven", "heat": "air_fryer"})
    (still,) = supper(kitchen)["still_in"]
    assert (still["line"], still["says"]) == ("bread", "Still to go into the oven: Warm flatbread.")
    assert still["ways"] == ways
    for wrong in ({**move, "line": "soup"}, {**move, "body": "hob"}, {**move, "body": "cellar"}):
        kitchen.post(where, wrong, 422)
    moved = kitchen.post(where, move, 200)
    assert moved["still_in"] == []
    (side,) = moved["sides"]
    assert (side["place"], side["was"], side["was_place"]) == ("air fryer", "oven", "oven")
    in_turn = baskets(kitchen, number, "air_fryer")
    assert {line for _, _, line in in_turn} == {"ribs", "cauliflower", "bread"}
    for (_, out, one), (into, _, other) in pairwise(in_turn):
        assert out <= into + 1.0, f"{one} and {other} want one basket at once"
    assert kitchen.post(where, move, 200)["version"] == moved["version"]
    back = kitchen.post(where, {**move, "body": "oven"}, 200)
    assert (back["sides"][0]["place"], back["sides"][0]["was"]) == ("oven", "")
    assert [one["line"] for one in back["still_in"]] == ["bread"]
    kitchen.post(where, move, 200)
    kitchen.post(f"{ribs}/elsewhere", {"stage": "finish+1", "heat": "crisping_lid"})
    bread = next(one for one in supper(kitchen)["still_in"] if one["line"] == "bread")
    assert bread["ways"] == []  # the oven is not there either
    kitchen.tell(cooks["ribs"], kind="undo")
    served = cook_on(kitchen, number, cooks, START + timedelta(hours=8))
    assert len(served) == 2


def test_a_dish_whose_broiler_fails_goes_on_in_the_air_fryer_and_the_supper_with_it(
    kitchen: Kitchen,
):
    number, cooks = begun(kitchen)
    ribs = f"/cooks/{cooks['ribs']}"
    live = kitchen.get(f"{ribs}/live")
    while step_of(live)["key"] != "cook.hold":
        kitchen.wait(20.0)
        act(kitchen, number, {"ribs": live}, supper(kitchen) | {"sides": []}, {})
        live = kitchen.get(f"{ribs}/live")
    first = kitchen.post(f"{ribs}/elsewhere", {"stage": "finish", "heat": "air_fryer"})
    undone = kitchen.tell(live["id"], kind="undo")
    assert [s["key"] for s in undone["steps"]] == [s["key"] for s in live["steps"]]
    kitchen.post(f"/suppers/{number}/plan", {}, 200)
    moved = kitchen.post(f"{ribs}/elsewhere", {"stage": "finish", "heat": "air_fryer"})
    mine = [
        [s["key"] for s in one["steps"] if s["key"].startswith("finish")] for one in (first, moved)
    ]
    assert mine[0] == mine[1]
    assert not [key for key in still_to_do(kitchen, number) if key.startswith("ribs/finish.")]
    told = kitchen.post(f"/suppers/{number}/plan", {}, 200)
    assert told["stale"] is False
    assert not [one for one in told["next"] if one["step"].startswith("finish.")]
    assert told["why"] in ("", "Ribs: now in the air fryer.")  # where it moved anything
    (still,) = told["still_in"]
    assert (still["cook"], still["line"]) == (cooks["cauliflower"], "cauliflower")
    assert still["says"] == "Still to go into the oven: Cauliflower."
    kitchen.post(f"/cooks/{still['cook']}/elsewhere", {"stage": "oven", "heat": "air_fryer"})
    assert supper(kitchen)["still_in"] == []
    served = cook_on(kitchen, number, cooks, START + timedelta(hours=7))
    ends = sorted(served.values())
    assert len(ends) == 2
    assert (ends[1] - ends[0]).total_seconds() < 15 * 60.0
    fires = [s["fire"] for s in kitchen.get(f"{ribs}/live")["steps"] if s["fire"]]
    assert set(fires) == {"finish+1"}


def calls_of(kitchen: Kitchen, line: str):
    """What a side calls for: (id without its side, moment, words)."""
    side = next(one for one in supper(kitchen)["sides"] if one["line"] == line)
    assert all(call["id"].startswith(f"{line}/") for call in side["calls"])
    return [(c["id"].partition("/")[2], moment(c["at"]), c["says"]) for c in side["calls"]]


def test_a_side_calls_as_it_is_to_be_put_on_and_as_its_time_is_up(kitchen: Kitchen):
    """Rice: three minutes of hands, twenty on the heat, and it may stand (`sides.csv`)."""
    number, _ = begun(kitchen, sides=[RICE])
    path = f"/suppers/{number}/sides"
    told = {one["line"]: moment(one["at"]) for one in supper(kitchen)["next"]}
    ((key, at, says),) = calls_of(kitchen, "rice")
    assert (key, says) == ("wait-due", "Prepare: Rice.")
    assert at == pytest.approx(told["rice"], abs=timedelta(seconds=1))
    kitchen.now = at + timedelta(seconds=5)
    assert calls_of(kitchen, "rice")[0][:2] == ("wait-due", at)  # it has rung a moment ago
    kitchen.wait(175.0)
    kitchen.post(path, {"line": "rice", "kind": "done", "step": "prepare"}, 200)
    called = {key: (at, says) for key, at, says in calls_of(kitchen, "rice")}
    if called.keys() - {"cook-due"}:
        (wait,) = (key for key in called if key.startswith("meal-"))
        assert called[wait][1] == "Rice: put it on now."
        assert (called["cook-due"][0] - called[wait][0]).total_seconds() == pytest.approx(1200.0)
    assert called["cook-due"][1] == "Rice: its time is up. Off the heat."
    kitchen.now = called["cook-due"][0] + timedelta(seconds=5)
    assert called["cook-due"] in [(at, says) for _, at, says in calls_of(kitchen, "rice")]
    while (side := supper(kitchen)["sides"][0])["step"] != "finish":
        kitchen.now = moment(side["due_at"])
    kitchen.post(path, {"line": "rice", "kind": "done", "step": "finish"}, 200)
    assert calls_of(kitchen, "rice") == []


def test_a_wait_after_a_late_machine_calls_at_its_moment(kitchen: Kitchen):
    """The moment of a wait does not move with what runs before it."""
    _, cooks = begun(kitchen, sides=[])
    before = kitchen.get(f"/cooks/{cooks['ribs']}/live")
    rest = next(s for s in before["steps"] if s["key"] == "rest.rest")
    after = before["steps"][before["steps"].index(rest) + 1]
    assert after["key"].endswith(".stand")
    live = kitchen.press_until(before, "rest.rest")
    due = moment(next(s["due_at"] for s in live["steps"] if s["key"] == after["key"]))
    calls = {a["id"]: moment(a["at"]) for a in live["alarms"]}
    assert calls[f"{after['key']}-due"] == pytest.approx(due, abs=timedelta(seconds=1))
