"""Outside devices: what they read is taken or refused whole, narrows the forecast, and passes
nothing.
"""

import math
from datetime import datetime, timedelta

import pytest
from sqlmodel import Session
from tests.conftest import ROAST, SHORT_RIBS, START, Kitchen

from bluekettle.store.repositories import MARKS, marks


def roasting(kitchen: Kitchen):
    live = kitchen.post("/cooks", {"dish": ROAST})
    return kitchen.press_until(live, "low.hold")


def read(kitchen: Kitchen, cook: int, status: int = 201, **one):
    return kitchen.post(f"/cooks/{cook}/readings", {"quantity": "core_c", **one}, status)


def live_of(kitchen: Kitchen, cook: int):
    return kitchen.get(f"/cooks/{cook}/live")


def warming(minutes: float, tau_min: float = 170.0) -> float:
    """A middle that heats after a lag [°C]."""
    return 5.0 + 90.0 * (1.0 - math.exp(-max(0.0, minutes - 20.0) / tau_min))


def followed(kitchen: Kitchen, cook: int, minutes: int, tau_min: float = 170.0):
    for minute in range(0, minutes, 5):
        kitchen.wait(300)
        read(kitchen, cook, value=warming(minute + 5.0, tau_min))
    return live_of(kitchen, cook)


def faults(answer):
    return {fault["field"]: fault["accepted"] for fault in answer["errors"]}


def test_one_reading_a_batch_and_rows_are_the_same(kitchen: Kitchen):
    cook = roasting(kitchen)["id"]
    assert read(kitchen, cook, value=6.0)["taken"] == 1
    kitchen.wait(10)
    batch = {"readings": [{"quantity": "core_c", "value": 6.4, "device": "Probe 2"}]}
    assert kitchen.post(f"/cooks/{cook}/readings", batch)["taken"] == 1
    kitchen.wait(10)
    rows = "quantity,value,at,device,site\nair_c,131.5,,Oven,rack\ncore_c,7,,Probe 2,\n"
    address = f"/api/v1/cooks/{cook}/readings"
    answer = kitchen.client.post(address, data=rows, content_type="text/csv; charset=utf-8")
    assert (answer.status_code, answer.get_json()["taken"]) == (201, 2)
    live = live_of(kitchen, cook)
    assert (live["probe"]["temp_c"], live["probe"]["device"]) == (7.0, "Probe 2")
    shown = {one["quantity"]: (one["value"], one["site"]) for one in live["devices"]}
    assert shown == {"core_c": (7.0, ""), "air_c": (131.5, "rack")}


def test_what_cannot_be_read_is_refused_whole_with_every_fault(kitchen: Kitchen):
    cook = roasting(kitchen)["id"]
    read(kitchen, cook, value=6.0)
    earlier, later = ((kitchen.now + timedelta(seconds=s)).isoformat() for s in (-20.0, 60.0))
    before = (START - timedelta(minutes=1)).isoformat()
    bad = [
        {"quantity": "core_c", "value": 6.1, "at": earlier},
        {"quantity": "core_c", "value": 6.1, "at": kitchen.now.isoformat()},
        {"quantity": "core_c", "value": 6.1, "at": later},
        {"quantity": "core_c", "value": 6.1, "at": before, "device": "Other"},
        {"quantity": "core_c", "value": 355.0, "device": "Hot"},
        {"quantity": "pin", "value": 0.5},
        {"quantity": "air_c", "value": 120.0},
    ]
    told = faults(kitchen.post(f"/cooks/{cook}/readings", {"readings": bad}, 422))
    assert "later than" in told["readings.0.at"]
    assert "the newest of probe" in told["readings.1.at"]
    assert told["readings.2.at"].startswith("up to now")
    assert told["readings.3.at"].startswith("since the cook began")
    assert told["readings.4.value"] == "-40 to 350 °C"
    assert told["readings.5.value"] == "1 (the pin is up) or 0"
    assert len(told) == 6
    assert [one["quantity"] for one in live_of(kitchen, cook)["devices"]] == ["core_c"]


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"readings": []}, "readings"),
        ({"readings": [{"quantity": "core_c", "value": 20}] * 2001}, "readings"),
        ({"readings": [{"quantity": "weight", "value": 20}]}, "readings.0.quantity"),
        ({"quantity": "core_c", "value": "hot"}, "readings.0.value"),
        ({"quantity": "core_c", "value": 20, "at": "18:00"}, "readings.0.at"),
        ({"quantity": "core_c", "value": 20, "colour": "red"}, "readings.0.colour"),
        ([], "body"),
    ],
)
def test_malformed_and_huge_batches_name_what_is_wrong(kitchen: Kitchen, body, field):
    cook = roasting(kitchen)["id"]
    assert field in faults(kitchen.post(f"/cooks/{cook}/readings", body, 422))


@pytest.mark.parametrize(
    "text",
    ["", "quantity,value\n", "a;b\n1;2\n", 'quantity,value\ncore_c,"1\n', "core_c,20\n", "\0\0"],
)
def test_rows_that_are_none_are_refused(kitchen: Kitchen, text):
    cook = roasting(kitchen)["id"]
    address = f"/api/v1/cooks/{cook}/readings"
    answer = kitchen.client.post(address, data=text, content_type="text/csv")
    assert answer.status_code == 422
    assert answer.get_json()["errors"]


def test_no_cook_or_one_that_is_over_takes_none(kitchen: Kitchen):
    cook = roasting(kitchen)["id"]
    read(kitchen, 77, 404, value=20)
    read(kitchen, cook, value=20)
    kitchen.post(f"/cooks/{cook}/stop", {}, 200)
    read(kitchen, cook, 409, value=21)
    assert live_of(kitchen, cook)["probe"] is None


def test_a_probe_moves_the_end_of_the_heat_that_it_ends(kitchen: Kitchen):
    """It heats faster than the plan's careful timer: supper is sooner, and the band closes."""
    before = roasting(kitchen)
    early = followed(kitchen, before["id"], 40)
    late = followed(kitchen, before["id"], 160)
    assert late["serve_at"] < before["serve_at"]
    assert late["says"] == "In the low oven until 80 °C inside."
    assert late["button"] == "It reads 80 °C"
    probe = late["probe"]
    assert probe["low_at"] < probe["at"] < probe["high_at"]

    def width(live):
        low, high = (live["probe"][name] for name in ("low_at", "high_at"))
        return (datetime.fromisoformat(high) - datetime.fromisoformat(low)).total_seconds()

    assert width(late) < width(early)
    step = next(s for s in late["steps"] if s["key"] == "low.hold")
    assert step["due_at"] == probe["at"]
    assert late["current"] == "low.hold"


def test_at_the_wanted_temperature_it_calls_and_a_person_still_tells(kitchen: Kitchen):
    cook = roasting(kitchen)["id"]
    followed(kitchen, cook, 320)
    kitchen.wait(300)
    read(kitchen, cook, value=80.1)
    reached = kitchen.now
    for value in (80.5, 79.0, 74.0):  # the door is opened
        live = live_of(kitchen, cook)
        (call,) = [a for a in live["alarms"] if a["id"] == "low.hold-due"]
        assert datetime.fromisoformat(call["at"]) == reached
        assert live["current"] == "low.open"
        hold = next(s for s in live["steps"] if s["key"] == "low.hold")
        assert (hold["state"], hold["end_at"]) == ("estimated", call["at"])
        kitchen.wait(40)
        read(kitchen, cook, value=value)


def test_food_that_is_slower_than_the_plan_stays_in_as_long_as_the_probe_says(kitchen: Kitchen):
    """Past the latest end of the plan the middle is at 71 °C: it is not told to be taken out."""
    live = roasting(kitchen)
    latest = next(s for s in live["steps"] if s["key"] == "low.hold")["likely_s"]
    late = followed(kitchen, live["id"], int(latest / 60.0) + 30, tau_min=290.0)
    assert 65.0 < late["probe"]["temp_c"] < 76.0
    assert late["current"] == "low.hold"
    assert late["probe"]["at"] > late["now"]


def test_a_loose_or_silent_probe_is_told_and_moves_nothing(kitchen: Kitchen):
    cook = roasting(kitchen)["id"]
    good = followed(kitchen, cook, 90)
    assert (good["probe"]["loose"], good["probe"]["silent"]) == (False, False)
    kitchen.wait(20)
    read(kitchen, cook, value=128.0)
    hanging = live_of(kitchen, cook)
    assert hanging["probe"]["loose"] is True
    assert hanging["current"] == "low.hold"
    assert not [a for a in hanging["alarms"] if a["at"] <= hanging["now"] and a["level"] == "due"]
    kitchen.wait(120)
    assert live_of(kitchen, cook)["probe"]["silent"] is True


def test_a_probe_that_was_never_in_the_food_moves_nothing(kitchen: Kitchen):
    cook = roasting(kitchen)["id"]
    plan = live_of(kitchen, cook)["serve_at"]
    kitchen.wait(60)
    read(kitchen, cook, value=140.0)
    hanging = live_of(kitchen, cook)
    assert hanging["probe"]["loose"] is True
    assert (hanging["current"], hanging["serve_at"]) == ("low.hold", plan)


def test_a_hand_measures_now_and_then(kitchen: Kitchen):
    cook = roasting(kitchen)["id"]
    kitchen.wait(1800)
    read(kitchen, cook, value=9.0, device="by hand", site="thickest place")
    kitchen.wait(1200)
    probe = live_of(kitchen, cook)["probe"]
    assert (probe["silent"], probe["site"]) == (False, "thickest place")
    assert probe["at"]
    kitchen.wait(1200)
    assert live_of(kitchen, cook)["probe"]["silent"] is True


def test_an_oven_that_holds_less_than_its_dial_makes_it_later(kitchen: Kitchen):
    """What it read while it was still heating says nothing of what it holds."""
    ends = []
    for first, air_c in ((130.0, 130.0), (60.0, 130.0), (110.0, 110.0)):
        cook = roasting(kitchen)["id"]
        for place in range(5):
            kitchen.wait(240)
            read(kitchen, cook, value=5.5)
            now_c = first if place < 2 else air_c
            read(kitchen, cook, quantity="air_c", value=now_c, device="Oven")
        live = live_of(kitchen, cook)
        ends.append(datetime.fromisoformat(live["probe"]["at"]) - kitchen.now)
    assert ends[1] == ends[0]
    assert ends[2] - ends[0] > timedelta(minutes=20)


def test_a_reading_fills_in_a_check_and_passes_none(kitchen: Kitchen):
    live = kitchen.press_until(kitchen.post("/cooks", {"dish": SHORT_RIBS}), "cook.check")
    assert live["gate"]["reads_c"] is None
    read(kitchen, live["id"], value=96.2, device="Probe 1")
    filled = live_of(kitchen, live["id"])
    assert filled["current"] == "cook.check"
    assert (filled["gate"]["reads_c"], filled["gate"]["read_by"]) == (96.2, "Probe 1")
    assert filled["gate"]["wants_c"] <= 96.2
    kitchen.wait(3600)
    stale = live_of(kitchen, live["id"])
    assert (stale["current"], stale["gate"]["reads_c"]) == ("cook.check", None)
    assert kitchen.tell(live["id"], kind="done", step="cook.check", tender=True)["back"] is None


def test_what_was_read_in_the_heat_fills_in_no_check(kitchen: Kitchen):
    """A probe that hung in the steam beside the food said 95 °C a moment before it was opened."""
    live = kitchen.press_until(kitchen.post("/cooks", {"dish": SHORT_RIBS}), "cook.open")
    read(kitchen, live["id"], value=95.0)
    kitchen.wait(10)
    at_check = kitchen.press(live)
    assert (at_check["current"], at_check["gate"]["reads_c"]) == ("cook.check", None)
    kitchen.wait(5)
    read(kitchen, live["id"], value=58.0)
    assert live_of(kitchen, live["id"])["gate"]["reads_c"] == 58.0


def test_one_reading_typed_wrong_ends_no_heat_once_it_is_put_right(kitchen: Kitchen):
    cook = roasting(kitchen)["id"]
    for minute, value in ((200, 60.0), (260, 71.5)):
        kitchen.now = datetime.fromisoformat(live_of(kitchen, cook)["started_at"])
        kitchen.wait(60.0 * minute)
        read(kitchen, cook, value=value, device="by hand")
    kitchen.wait(60)
    read(kitchen, cook, value=80.4, device="by hand")
    assert live_of(kitchen, cook)["current"] == "low.open"
    kitchen.wait(60)
    read(kitchen, cook, value=72.0, device="by hand")
    right = live_of(kitchen, cook)
    assert right["current"] == "low.hold"
    assert right["probe"]["at"] > right["now"]


def test_readings_of_the_oven_leave_those_of_the_food_in_sight(kitchen: Kitchen):
    """Three devices for hours: what the forecast is held against reaches back to the begin."""
    cook = roasting(kitchen)["id"]
    begun, rows = kitchen.now, []
    for step in range(1, 501):
        at = (begun + timedelta(seconds=30 * step)).isoformat()
        rows.append({"quantity": "core_c", "value": warming(step / 2.0), "at": at})
        rows += [{"quantity": "air_c", "value": 130.0, "device": d, "at": at} for d in "ab"]
    kitchen.wait(30 * 501)
    kitchen.post(f"/cooks/{cook}/readings", {"readings": rows})
    with Session(kitchen.client.application.extensions["kettle_engine"]) as session:
        kept = marks(session, cook)
    oldest = min(one.taken_at for one in kept if one.quantity == "core_c")
    assert oldest - begun == timedelta(seconds=30)
    assert sum(one.quantity == "air_c" for one in kept) == MARKS["air_c"]


def test_a_pot_says_since_when_its_pin_is_up_and_a_person_tells_it(kitchen: Kitchen):
    live = kitchen.press_until(kitchen.post("/cooks", {"dish": SHORT_RIBS}), "cook.come_up")
    cook = live["id"]
    for value in (0, 0, 1, 1):
        kitchen.wait(60)
        read(kitchen, cook, quantity="pin", value=value, device="Pot")
    up = kitchen.now - timedelta(seconds=60)
    live = live_of(kitchen, cook)
    assert live["current"] == "cook.come_up"
    assert live["offer"]["step"] == "cook.come_up"
    assert datetime.fromisoformat(live["offer"]["at"]) == up
    assert (live["offer"]["ago_s"], live["offer"]["button"]) == (60.0, "Up since")
    after = kitchen.tell(cook, kind="done", step="cook.come_up", ago_s=live["offer"]["ago_s"])
    step = next(s for s in after["steps"] if s["key"] == "cook.come_up")
    assert datetime.fromisoformat(step["end_at"]) == up
    assert after["offer"] is None


def test_an_oven_has_no_pin(kitchen: Kitchen):
    cook = roasting(kitchen)["id"]
    read(kitchen, cook, quantity="pin", value=1)
    assert live_of(kitchen, cook)["offer"] is None


IN_OVEN = {**SHORT_RIBS, "coats": 1, "finish": "oven"}


def baking(kitchen: Kitchen):
    live = kitchen.press_until(kitchen.post("/cooks", {"dish": IN_OVEN}), "finish.finish")
    assert live["fire"]["dial"]["value"] == 230.0
    return live["id"]


def amber_s(kitchen: Kitchen, cook: int) -> float:
    found = kitchen.get(f"/cooks/{cook}/glaze")
    return found["milestones"]["face"]["amber"]["likely_s"]


def airs(kitchen: Kitchen, cook: int, air_c: float, times: int = 4):
    for _ in range(times):
        kitchen.wait(40)
        read(kitchen, cook, quantity="air_c", value=air_c, device="Oven")


def test_a_fire_is_reckoned_with_what_its_oven_holds(kitchen: Kitchen):
    """The strip is that of a dial at what was read; what the cook told of the dial stays told."""
    cook = baking(kitchen)
    planned = amber_s(kitchen, cook)
    airs(kitchen, cook, 206.0)
    live = live_of(kitchen, cook)
    assert live["fire"]["dial"] == {**live["fire"]["dial"], "value": 230.0, "read": 205.0}
    found = amber_s(kitchen, cook)
    assert found > 1.15 * planned
    cooler = kitchen.post("/forecasts", {**IN_OVEN, "kitchen": {"hot_oven_c": 205.0}}, 200)
    asked = cooler["fires"][0]["glaze"]["milestones"]["face"]["amber"]["likely_s"]
    assert found == pytest.approx(asked, rel=0.05)  # its walk before the fire has another wait
    kitchen.tell(cook, kind="dial", step="finish", dial=250.0)  # turned up: that was before it
    assert live_of(kitchen, cook)["fire"]["dial"]["read"] is None
    assert amber_s(kitchen, cook) < planned


def test_an_oven_beyond_its_dial_is_taken_to_stand_at_the_end_of_it(kitchen: Kitchen):
    hot = {**IN_OVEN, "kitchen": {"hot_oven_c": 280.0}}
    live = kitchen.press_until(kitchen.post("/cooks", {"dish": hot}), "finish.finish")
    airs(kitchen, live["id"], 320.0)
    assert live_of(kitchen, live["id"])["fire"]["dial"]["read"] == 290.0
    assert kitchen.get(f"/cooks/{live['id']}/ways-out")["ways"]


def test_an_oven_that_was_turned_up_is_soon_read_as_it_is_now(kitchen: Kitchen):
    """What it read more than five minutes before says no more than where it came from."""
    cook = baking(kitchen)
    airs(kitchen, cook, 190.0, 6)
    assert live_of(kitchen, cook)["fire"]["dial"]["read"] == 190.0
    airs(kitchen, cook, 215.0, 9)
    assert live_of(kitchen, cook)["fire"]["dial"]["read"] == 215.0


def test_what_cannot_be_the_air_of_a_fire_moves_nothing(kitchen: Kitchen):
    """Read with the door just open, on the table, near the dial, or beside a broiler's element."""
    for air_c, times in ((205.0, 2), (24.0, 4), (228.0, 4)):
        cook = baking(kitchen)
        planned = amber_s(kitchen, cook)
        airs(kitchen, cook, air_c, times)
        assert live_of(kitchen, cook)["fire"]["dial"]["read"] is None
        assert amber_s(kitchen, cook) == planned
        kitchen.post(f"/cooks/{cook}/stop", {}, 200)
    live = kitchen.press_until(kitchen.post("/cooks", {"dish": SHORT_RIBS}), "finish.finish")
    airs(kitchen, live["id"], 205.0)
    assert live_of(kitchen, live["id"])["fire"]["dial"]["read"] is None
