"""Meals: their plan, those that are kept, and what cannot be planned."""

import json
import sqlite3
from datetime import datetime, timedelta

import pytest
from click.testing import CliRunner
from icalendar import Calendar
from tests.conftest import SHORT_RIBS, START, Kitchen

from bluekettle.commands import main

RIBS = {"id": "ribs", "dish": SHORT_RIBS}
SLAW = {"id": "slaw", "key": "slaw"}


def meal(**told):
    serve_at = (START + timedelta(hours=7)).isoformat()
    return {"name": "Boathouse", "serve_at": serve_at, "dishes": [RIBS], "sides": [SLAW], **told}


def faults(answer):
    return {fault["field"]: fault["accepted"] for fault in answer["errors"]}


def test_a_meal_is_planned_by_the_clock_and_nothing_is_kept(kitchen: Kitchen):
    plan = kitchen.post("/schedules", meal(), 200)
    assert plan["feasible"] is True
    assert (plan["reasons"], plan["repairs"], plan["past"]) == ([], [], [])
    assert plan["ready_low_at"] <= plan["ready_at"] <= plan["ready_high_at"]
    assert plan["first_at"] <= plan["latest_first_at"] <= plan["serve_at"]
    assert [line["name"] for line in plan["lines"]] == [
        "Beef short ribs, plum and black tea",
        "Cabbage slaw",
    ]
    keys = [task["key"] for task in plan["tasks"]]
    live = kitchen.post("/cooks", {"dish": SHORT_RIBS})
    assert {f"ribs/{step['key']}" for step in live["steps"] if not step["beside"]} <= set(keys)
    fire = next(task for task in plan["tasks"] if task["who"] == "fire")
    assert fire["pair"] == 0
    assert {use["body"] for use in plan["uses"]} == {"oven", "pot"}
    assert set(plan["assumed"]) == {"oven", "pot"}
    assert kitchen.get("/meals")["meals"] == []


def test_a_first_plan_is_followed_by_one_that_is_no_worse(kitchen: Kitchen):
    """Two dishes that want one pot; what clashes is told at once, its repair later."""
    two = [RIBS, {"id": "more", "dish": SHORT_RIBS}]
    first = kitchen.post("/schedules?effort=first", meal(dishes=two), 200)
    plan = kitchen.post("/schedules", meal(dishes=two), 200)
    assert (first["first"], plan["first"]) == (True, False)
    assert (first["feasible"], first["reasons"], first["repairs"]) == (True, [], [])
    assert first["latest_first_at"] is None
    assert {span["line"] for one in plan["reasons"] for span in one["spans"]} == {"ribs", "more"}
    for one in plan["past"]:  # what is told is where it is drawn
        (span,) = one["spans"]
        ends = [datetime.fromisoformat(span[end]) for end in ("start_at", "end_at")]
        minutes = round((ends[1] - ends[0]).total_seconds() / 60.0)
        assert f" {minutes} min " in one["says"]
    assert len(plan["past"]) <= len(first["past"])
    assert plan["late"] <= first["late"]
    assert {task["key"] for task in first["tasks"]} == {task["key"] for task in plan["tasks"]}
    bodies = [{"kind": "pot"}, {"kind": "air_fryer"}]
    stuck = kitchen.post("/schedules?effort=first", meal(appliances=bodies), 200)
    assert (stuck["feasible"], stuck["repairs"], len(stuck["reasons"])) == (False, [], 1)
    answer = kitchen.post("/schedules?effort=some", meal(), 422)
    assert answer["errors"][0]["field"] == "effort"


def test_as_soon_as_possible_is_a_moment_on_the_clock(kitchen: Kitchen):
    plan = kitchen.post("/schedules", meal(serve_at=None), 200)
    assert plan["past"] == []
    assert plan["ready_at"] <= plan["serve_at"]
    assert plan["serve_at"].endswith(("0:00Z", "5:00Z"))


def test_too_soon_tells_why_and_a_repair_that_works(kitchen: Kitchen):
    soon = (START + timedelta(hours=1)).isoformat()
    plan = kitchen.post("/schedules", meal(serve_at=soon), 200)
    assert plan["late"] == 1.0
    assert plan["soonest_at"] == plan["ready_at"] > plan["serve_at"]
    assert [one["says"] for one in plan["reasons"]] == [
        "There is too little time from now until then."
    ]
    (later,) = [one for one in plan["repairs"] if one["serve_at"]]
    mended = kitchen.post("/schedules", meal(serve_at=later["serve_at"]), 200)
    assert mended["reasons"] == []
    assert mended["ready_at"] <= mended["serve_at"]


def test_nobody_at_work_at_all_is_told_as_that(kitchen: Kitchen):
    never = [{"start": "1999-01-01T00:00:00Z", "end": "2099-01-01T00:00:00Z"}]
    plan = kitchen.post("/schedules", meal(quiet=never), 200)
    assert plan["feasible"] is False
    (reason,) = plan["reasons"]
    assert reason["says"] == "Hands are needed while nobody is at work."


def test_it_is_told_whether_there_is_enough_for_everybody(kitchen: Kitchen):
    """1.6 kg of short ribs on the bone are for four; with as much more as is told, for eight."""
    assert kitchen.post("/schedules", meal(), 200)["helpings"] is None
    four = kitchen.post("/schedules", meal(guests=4), 200)["helpings"]
    assert (four["enough"], four["more_g"], four["line"]) == (True, 0.0, "ribs")
    eight = kitchen.post("/schedules", meal(guests=8, appetite="hearty"), 200)["helpings"]
    assert (eight["enough"], eight["wanted_g"]) == (False, 270.0)
    heavier = {**SHORT_RIBS, "mass_kg": 1.6 + eight["more_g"] / 1e3}
    dishes = [{"id": "ribs", "dish": heavier}]
    mended = kitchen.post("/schedules", meal(guests=8, appetite="hearty", dishes=dishes), 200)
    assert mended["helpings"]["enough"] is True
    assert mended["helpings"]["head_g"] == pytest.approx(270.0, abs=20.0)
    told = kitchen.post("/schedules", meal(guests=0, appetite="starved"), 422)
    assert {"guests", "appetite"} <= faults(told).keys()


def test_a_broken_oven_is_named_and_the_fires_move(kitchen: Kitchen):
    bodies = [{"kind": "pot"}, {"kind": "air_fryer"}]
    plan = kitchen.post("/schedules", meal(appliances=bodies), 200)
    assert (plan["feasible"], plan["tasks"]) == (False, [])
    (reason,) = plan["reasons"]
    assert reason["says"] == "There is no oven for Beef short ribs, plum and black tea."
    (repair,) = plan["repairs"]
    dish = {"id": "ribs", "dish": repair["dishes"]["ribs"]}
    mended = kitchen.post("/schedules", meal(appliances=bodies, dishes=[dish]), 200)
    assert (mended["feasible"], mended["past"]) == (True, [])
    assert "oven" not in {use["kind"] for use in mended["uses"]}


@pytest.mark.parametrize(
    ("told", "field"),
    [
        ({"serve_at": "2020-05-04T18:00:00+00:00"}, "serve_at"),
        ({"serve_at": "2030-05-04T18:00:00"}, "serve_at"),
        ({"serve_at": "tomorrow"}, "serve_at"),
        ({"hands": 0}, "hands"),
        ({"hands": True}, "hands"),
        ({"dishes": [], "sides": []}, "dishes"),
        ({"dishes": [{**RIBS, "id": f"d{n}"} for n in range(30)]}, "dishes"),
        ({"dishes": [RIBS, RIBS]}, "body"),
        ({"dishes": [{"id": "x"}]}, "dishes.0"),
        ({"dishes": [{"id": "x", "template": "nothing"}]}, "dishes.0.template"),
        ({"dishes": [{"id": "x", "plan_id": 99}]}, "dishes.0.plan_id"),
        ({"dishes": [{"id": "x", "dish": {**SHORT_RIBS, "mass_kg": 90}}]}, "dishes.0.dish.mass_kg"),
        ({"sides": [{"id": "x", "key": "caviar"}]}, "sides.0.key"),
        ({"sides": [{"id": "x", "name": "Soup", "cook_min": 9000}]}, "sides.0.cook_min"),
        ({"appliances": [{"kind": "cauldron"}]}, "appliances.0.kind"),
        ({"quiet": [{"start": "2030-05-04T18:00:00Z", "end": "2030-05-04T17:00:00Z"}]}, "quiet.0"),
    ],
)
def test_what_cannot_be_planned_with_is_refused_by_its_field(kitchen: Kitchen, told, field):
    answer = kitchen.post("/schedules", meal(**told), 422)
    assert any(name.startswith(field) for name in faults(answer)), faults(answer)
    assert all(faults(answer).values())
    assert "serve_at" not in faults(answer) or faults(answer)["serve_at"].startswith("a ")


def test_a_dish_without_stages_is_refused_by_its_place(kitchen: Kitchen):
    empty = {"format": "kettle.dish/2", "stages": [], "food": {"cut": "pork-ribs"}}
    answer = kitchen.post("/schedules", meal(dishes=[{"id": "x", "dish": empty}]), 422)
    assert "dishes.0.dish.stages" in faults(answer)


def test_a_kept_meal_is_read_changed_and_dropped_and_two_tabs_do_not_overwrite(kitchen: Kitchen):
    plan = kitchen.post("/plans", {"dish": SHORT_RIBS})
    by_plan = {"id": "ribs", "plan_id": plan["id"]}
    kept = kitchen.post("/meals", {"meal": meal(dishes=[by_plan])})
    assert (kept["title"], kept["version"], kept["missing"]) == ("Boathouse", 1, [])
    planned = kitchen.post("/schedules", kept["meal"], 200)
    assert planned["lines"][0]["plan_id"] == plan["id"]
    path = f"/meals/{kept['id']}"
    changed = {"meal": {**kept["meal"], "hands": 2}}
    url = f"/api/v1{path}"
    client = kitchen.client
    assert client.put(url, json=changed, headers={"If-Match": '"1"'}).status_code == 200
    assert client.put(url, json=changed, headers={"If-Match": '"1"'}).status_code == 200
    other = {"meal": {**kept["meal"], "hands": 3}}
    assert client.put(url, json=other, headers={"If-Match": '"1"'}).status_code == 412
    assert kitchen.get(path)["meal"]["hands"] == 2
    assert client.delete(f"/api/v1/plans/{plan['id']}").status_code == 204
    alone = kitchen.get(path)
    assert alone["missing"] == ["ribs"]
    answer = kitchen.post("/schedules", alone["meal"], 422)
    assert faults(answer)["dishes.0.plan_id"] == "a kept plan: this one was deleted"
    assert client.delete(url).status_code == 204
    kitchen.get(path, 404)


def test_a_meal_that_cannot_be_read_is_set_aside_and_the_others_live(kitchen: Kitchen):
    for name in ("First", "Second"):
        kitchen.post("/meals", {"meal": meal(name=name)})
    with sqlite3.connect(kitchen.database) as store:
        store.execute("UPDATE meal SET document = '{}' WHERE title = 'First'")
    found = kitchen.get("/meals")
    assert [one["title"] for one in found["meals"]] == ["Second"]
    assert [one["title"] for one in found["aside"]] == ["First"]
    kitchen.get("/meals/1", 409)


def test_a_calendar_has_the_long_waits_and_a_later_one_updates_it(kitchen: Kitchen):
    kept = kitchen.post("/meals", {"meal": meal()})

    def events():
        text = kitchen.client.get(f"/api/v1/meals/{kept['id']}/calendar").get_data(as_text=True)
        return {str(one["uid"]): one for one in Calendar.from_ical(text).walk("VEVENT")}

    first = events()
    assert len(first) == 3  # begin, the end of the pressure, supper
    later = {**meal(), "serve_at": (START + timedelta(hours=8)).isoformat()}
    url = f"/api/v1/meals/{kept['id']}"
    assert kitchen.client.put(url, json={"meal": later}).status_code == 200
    kitchen.wait(120)
    second = events()
    assert first.keys() == second.keys()
    for uid, one in first.items():
        assert second[uid]["sequence"] > one["sequence"]
        moved = (second[uid]["dtstart"].dt - one["dtstart"].dt).total_seconds()
        assert moved == pytest.approx(3600.0, abs=60.0)
        assert [str(part["action"]) for part in one.walk("VALARM")] == ["DISPLAY"]


def spread(answer):
    """Every task of a plan by its begin, in seconds from the moment of serving."""
    serve_at = datetime.fromisoformat(answer["serve_at"])
    begins = {one["key"]: datetime.fromisoformat(one["start_at"]) for one in answer["tasks"]}
    return {key: (begin - serve_at).total_seconds() for key, begin in begins.items()}


def test_a_night_in_which_the_clocks_change_is_an_hour_longer(kitchen: Kitchen):
    """The clocks go back on the morning of 27 October: asleep from 23:00 to 07:00 is nine hours."""
    kitchen.wait((datetime.fromisoformat("2030-10-26T20:00:00+02:00") - START).total_seconds())
    dish = {"id": "rounds", "template": "marinated-rounds"}
    night = [{"start": "2030-10-26T23:00:00+02:00", "end": "2030-10-27T07:00:00+01:00"}]
    lunch = meal(dishes=[dish], serve_at="2030-10-27T13:00:00+01:00", quiet=night)
    plan = kitchen.post("/schedules", lunch, 200)
    assert (plan["feasible"], plan["past"]) == (True, [])
    asleep = [datetime.fromisoformat(night[0][end]) for end in ("start", "end")]
    acts = [one for one in plan["tasks"] if one["pair"] is not None]
    hands = [[datetime.fromisoformat(one[end]) for end in ("hands_at", "end_at")] for one in acts]
    assert min(hands)[0] < asleep[0]  # it is put into its marinade before bed
    assert all(end <= asleep[0] or begin >= asleep[1] for begin, end in hands)
    calendar = kitchen.client.post("/api/v1/meals", json={"meal": lunch}).get_json()["id"]
    text = kitchen.client.get(f"/api/v1/meals/{calendar}/calendar").get_data(as_text=True)
    supper = next(
        one for one in Calendar.from_ical(text).walk("VEVENT") if "supper" in str(one["uid"])
    )
    assert supper["dtstart"].dt == datetime.fromisoformat("2030-10-27T12:00:00Z")
    same = [{"start": "2030-10-26T21:00:00Z", "end": "2030-10-27T06:00:00Z"}]
    utc = {**lunch, "serve_at": "2030-10-27T12:00:00Z", "quiet": same}
    assert spread(kitchen.post("/schedules", utc, 200)) == pytest.approx(spread(plan))


def test_a_meal_that_cannot_be_planned_as_it_is_kept_has_no_calendar(kitchen: Kitchen):
    empty = kitchen.post("/meals", {"meal": meal(dishes=[], sides=[])})
    assert "dishes" in kitchen.get(f"/meals/{empty['id']}/calendar", 409)["detail"]
    past = kitchen.post("/meals", {"meal": meal()})
    kitchen.wait(9 * 3600)
    assert "serve_at" in kitchen.get(f"/meals/{past['id']}/calendar", 409)["detail"]


def test_what_to_buy_is_added_up_over_the_dishes(kitchen: Kitchen):
    """Two dishes of ribs, both with the tea glaze, one of them half as much food."""
    half = {**SHORT_RIBS, "mass_kg": 0.8, "pieces": 3}
    two = [RIBS, {"id": "more", "name": "More ribs", "dish": half}]
    plan = kitchen.post("/schedules", meal(dishes=two, hands=2), 200)
    bought = {one["name"]: one for one in plan["shopping"]}
    assert bought["beef short ribs"]["amount"] == "2.4 kg"
    assert bought["beef short ribs"]["users"] == [
        "Beef short ribs, plum and black tea",
        "More ribs",
    ]
    assert bought["plum jam"]["amount"] == "360 g"
    assert bought["for cabbage slaw"]["amount"] == ""
    assert "water" not in bought
    us = {"Kettle-Units": "us F"}
    answer = kitchen.client.post("/api/v1/schedules", json=meal(dishes=two), headers=us)
    ribs = next(one for one in answer.get_json()["shopping"] if one["name"] == "beef short ribs")
    assert ribs["amount"] == "5.3 lb"


def lasts(wait):
    moments = (datetime.fromisoformat(wait[name]) for name in ("start_at", "end_at"))
    start, end = moments
    return (end - start).total_seconds()


def test_a_meal_is_begun_whole_waits_as_planned_and_only_once(kitchen: Kitchen):
    half = {**SHORT_RIBS, "mass_kg": 0.8, "pieces": 3}
    two = [RIBS, {"id": "more", "name": "More ribs", "dish": half}]
    kept = kitchen.post("/meals", {"meal": meal(dishes=two)})
    plan = kitchen.post("/schedules", kept["meal"], 200)
    begun = kitchen.post(f"/meals/{kept['id']}/cooks", {})
    assert len(begun["cooks"]) == 2
    for dish, number in zip(("ribs", "more"), begun["cooks"], strict=True):
        live = kitchen.get(f"/cooks/{number}/live")
        assert live["current"] == "wait"
        own = [t for t in plan["tasks"] if t["line"] == dish and not t["key"].endswith(".made")]
        first = min(t["start_at"] for t in own)
        wait = live["steps"][0]
        starts = datetime.fromisoformat(live["started_at"]) + timedelta(seconds=wait["likely_s"])
        assert abs((starts - datetime.fromisoformat(first)).total_seconds()) <= 60
        covered = [w for w in plan["waits"] if w["line"] == dish and w["how"] == "covered"]
        slack = [step for step in live["steps"] if step["key"].endswith(".slack")]
        long = [seconds for w in covered if (seconds := lasts(w)) >= 60.0]
        assert [step["likely_s"] for step in slack] == pytest.approx(long, abs=1.0)
        ends = max(t["end_at"] for t in plan["tasks"] if t["line"] == dish)
        serve = datetime.fromisoformat(live["serve_at"])
        assert abs((serve - datetime.fromisoformat(ends)).total_seconds()) < 300
    refused = kitchen.post(f"/meals/{kept['id']}/cooks", {}, 409)
    assert refused["detail"] == "this meal is on the stove already"
    kitchen.client.delete(f"/api/v1/meals/{kept['id']}")
    assert kitchen.get(f"/cooks/{begun['cooks'][0]}/live")["current"] == "wait"


def current(live):
    return next((s for s in live["steps"] if s["key"] == live["current"]), None)


def cooked_by_one(kitchen, numbers, until):
    """One pair of hands: what is due first is done first, for as long as it takes. When each dish
    was on the table.
    """
    served = {}
    while len(served) < len(numbers) and kitchen.now < until:
        lives = [kitchen.get(f"/cooks/{n}/live") for n in numbers if n not in served]
        for live in lives:
            if live["finished"]:
                served[live["id"]] = kitchen.now
        acts = [(live, current(live)) for live in lives if not live["finished"]]
        mine = [(live, step) for live, step in acts if step["who"] != "machine"]
        if mine:
            live, step = min(mine, key=lambda both: both[1]["due_at"])
            kitchen.wait(max(1.0, step["likely_s"]))
            kitchen.press(kitchen.get(f"/cooks/{live['id']}/live"))
        else:
            kitchen.wait(30.0)
    return served


def test_a_meal_followed_by_one_cook_is_on_the_table_together(kitchen: Kitchen):
    """Everything takes what is likely: the waits of the plan bring both dishes to one moment."""
    whole = {"id": "cauliflower", "template": "cauliflower-oven"}
    kept = kitchen.post("/meals", {"meal": meal(dishes=[RIBS, whole], sides=[])})
    plan = kitchen.post("/schedules", kept["meal"], 200)
    numbers = kitchen.post(f"/meals/{kept['id']}/cooks", {})["cooks"]
    until = datetime.fromisoformat(plan["serve_at"]) + timedelta(hours=2)
    served = cooked_by_one(kitchen, numbers, until)
    ready = datetime.fromisoformat(plan["ready_at"])
    off = [(moment - ready).total_seconds() / 60.0 for moment in served.values()]
    assert len(off) == 2
    assert max(off) - min(off) < 10.0
    assert max(map(abs, off)) < 15.0


def test_a_meal_that_cannot_be_cooked_begins_nothing(kitchen: Kitchen):
    alone = kitchen.post("/meals", {"meal": meal(dishes=[])})
    kitchen.post(f"/meals/{alone['id']}/cooks", {}, 409)
    no_oven = kitchen.post("/meals", {"meal": meal(appliances=[{"kind": "pot"}])})
    answer = kitchen.post(f"/meals/{no_oven['id']}/cooks", {}, 409)
    assert "There is no oven" in answer["detail"]
    past = kitchen.post("/meals", {"meal": meal()})
    kitchen.wait(9 * 3600)
    assert "serve_at" in kitchen.post(f"/meals/{past['id']}/cooks", {}, 409)["detail"]
    kitchen.post("/meals/99/cooks", {}, 404)
    assert kitchen.get("/cooks/live")["cooks"] == []


def test_a_stop_of_a_dish_is_told_and_nothing_begins_without_a_reason(kitchen: Kitchen):
    """Too little liquid in the pot of one of two dishes."""
    dry = {**SHORT_RIBS, "liquid_l": 0.1}
    kept = kitchen.post("/meals", {"meal": meal(dishes=[RIBS, {"id": "dry", "dish": dry}])})
    told = kitchen.post("/schedules", kept["meal"], 200)["past"]
    assert any(one["line"] == "dry" for one in told)
    path = f"/meals/{kept['id']}/cooks"
    stopped = kitchen.post(path, {}, 409)
    assert list(faults(stopped)) == ["accepted.liquid-least"]
    assert kitchen.get("/cooks/live")["cooks"] == []
    reason = {"stop": "liquid-least", "reason": "the pot is a very small one"}
    assert len(kitchen.post(path, {"accepted": [reason]})["cooks"]) == 2


def test_choices_and_made_meals_can_be_planned_with(kitchen: Kitchen):
    choices = kitchen.get("/meal-choices")
    assert len(choices["made"]) >= 30
    assert {side["key"] for side in choices["sides"]} >= {"slaw", "rice"}


def test_the_command_plans_a_file_and_names_what_is_wrong(tmp_path):
    file = tmp_path / "meal.json"
    told = {**meal(), "serve_at": None}
    file.write_text(json.dumps(told), encoding="utf-8")
    table = CliRunner().invoke(main, ["schedule", "--table", str(file)])
    assert table.exit_code == 0, table.output
    assert "Broil and look" in table.output
    assert "⟨" not in table.output
    file.write_text(json.dumps({**told, "hands": 0}), encoding="utf-8")
    wrong = CliRunner().invoke(main, ["schedule", str(file)])
    assert (wrong.exit_code, "hands" in wrong.output) == (1, True)
    file.write_text(json.dumps({**told, "dishes": [{"id": "a", "plan_id": 1}]}), encoding="utf-8")
    assert CliRunner().invoke(main, ["schedule", str(file)]).exit_code == 1


def seconds_of(plan, key):
    task = next(one for one in plan["tasks"] if one["key"] == key)
    return lasts(task)


def test_dishes_are_cooked_in_the_kept_kitchen_and_taught_by_it(kitchen: Kitchen):
    """A weak pot comes up later and a fierce broiler browns sooner, in the plan and on the stove;
    a meal that says its kitchen itself is planned in that, and nothing of it is kept."""
    typical = kitchen.post("/schedules", meal(), 200)
    weak = {"kind": "electric-pot", "name": "the tall pot", "power_w": 700.0}
    kitchen.post("/kitchen/appliances", weak)
    kitchen.post("/kitchen/appliances", {"kind": "hot-oven", "name": "the oven"})
    broiler = {"kind": "oven-broiler", "name": "its broiler", "rack_mm": 150.0}
    number = kitchen.post("/kitchen/appliances", broiler)["id"]
    sign = {"ground": "scout", "sign": "amber", "at_s": 60.0}
    kitchen.post(f"/kitchen/appliances/{number}/observations", sign)
    kept = kitchen.post("/meals", {"meal": meal()})
    here = kitchen.post("/schedules", kept["meal"], 200)
    come_up, fire = "ribs/cook.come_up", "ribs/finish.finish"
    assert seconds_of(here, come_up) > seconds_of(typical, come_up) + 240.0
    assert seconds_of(here, fire) < 0.8 * seconds_of(typical, fire)
    strong = {"kitchen": {"pot_power_w": 2400.0}}
    other = kitchen.post("/schedules", {**kept["meal"], **strong}, 200)
    assert seconds_of(other, come_up) < seconds_of(here, come_up) - 240.0
    (cook,) = kitchen.post(f"/meals/{kept['id']}/cooks", {})["cooks"]
    told = kitchen.get(f"/cooks/{cook}")["dish"]["kitchen"]
    assert (told["pot_power_w"], told["rack_m"]) == (700.0, 0.15)
    assert told["learnt"]["broiler"]["seen"] == 1
    assert kitchen.get(f"/meals/{kept['id']}")["meal"]["kitchen"] is None
