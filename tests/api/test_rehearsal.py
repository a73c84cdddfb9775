"""A rehearsal: simulated food in a hidden kitchen, on a clock of its own."""

from datetime import datetime, timedelta

import pytest
from tests.conftest import SHORT_RIBS, START, Kitchen, open_kitchen

ONE_COAT = {**SHORT_RIBS, "coats": 1}


def begin(kitchen: Kitchen, **rehearsal):
    return kitchen.post("/cooks", {"dish": ONE_COAT, "rehearsal": {"seed": 5, **rehearsal}})


def step_of(live):
    return next(s for s in live["steps"] if s["key"] == live["current"])


def tapped(kitchen: Kitchen, live):
    """Go on by one step in its likely time, by what is read and felt."""
    kitchen.wait(step_of(live)["likely_s"] / live["rehearsal"]["speed"])
    live = kitchen.get(f"/cooks/{live['id']}/live")
    if live["gate"] is None:
        return kitchen.press(live)
    tender = live["rehearsal"]["feels"] == "A fork goes in as it should."
    return kitchen.press(live, tender=tender, temp_c=live["gate"]["reads_c"])


def until(kitchen: Kitchen, live, key):
    for _ in range(60):
        if live["current"] == key:
            return live
        live = tapped(kitchen, live)
    raise AssertionError(f"{key} never came")


def test_its_clock_runs_as_fast_as_it_is_told(kitchen: Kitchen):
    live = begin(kitchen, speed=20)
    kitchen.wait(60)
    later = kitchen.get(f"/cooks/{live['id']}/live")
    assert datetime.fromisoformat(later["now"]) == START + timedelta(minutes=20)
    slow = kitchen.client.put(f"/api/v1/cooks/{live['id']}/rehearsal", json={"speed": 1}).get_json()
    assert slow["now"] == later["now"]
    kitchen.wait(60)
    last = kitchen.get(f"/cooks/{live['id']}/live")
    assert datetime.fromisoformat(last["now"]) == START + timedelta(minutes=21)


def test_a_tap_that_waited_is_as_old_by_its_clock(kitchen: Kitchen):
    """Tapped ten seconds ago on the wall: two hundred seconds of the rehearsal."""
    live = begin(kitchen, speed=20)
    kitchen.wait(30)
    sent = kitchen.now
    after = kitchen.tell(
        live["id"],
        kind="done",
        step=live["current"],
        tapped_at=(sent - timedelta(seconds=10)).isoformat(),
        sent_at=sent.isoformat(),
    )
    ended = next(s for s in after["steps"] if s["key"] == live["current"])["end_at"]
    assert datetime.fromisoformat(ended) == START + timedelta(seconds=600 - 200)


def test_it_is_in_the_log_only_where_it_is_kept(kitchen: Kitchen):
    live = begin(kitchen)
    path = f"/api/v1/cooks/{live['id']}"
    kitchen.client.put(f"{path}/outcome", json={"tenderness": "falls"})
    assert kitchen.get("/cooks")["cooks"] == []
    assert kitchen.client.put(f"{path}/rehearsal", json={"kept": True}).status_code == 200
    assert [c["id"] for c in kitchen.get("/cooks")["cooks"]] == [live["id"]]
    assert kitchen.client.put(f"{path}/rehearsal", json={"kept": False}).status_code == 200
    assert kitchen.get("/cooks")["cooks"] == []


def test_a_cook_in_earnest_has_no_truth_and_no_speed(kitchen: Kitchen):
    live = kitchen.post("/cooks", {"dish": ONE_COAT})
    assert live["rehearsal"] is None
    kitchen.get(f"/cooks/{live['id']}/truth", 409)
    answer = kitchen.client.put(f"/api/v1/cooks/{live['id']}/rehearsal", json={"speed": 20})
    assert answer.status_code == 409


@pytest.mark.parametrize("speed", [0.5, 61, "fast"])
def test_a_speed_that_is_none_is_refused(kitchen: Kitchen, speed):
    body = {"dish": ONE_COAT, "rehearsal": {"speed": speed}}
    (fault,) = kitchen.post("/cooks", body, 422)["errors"]
    assert fault["field"] == "rehearsal.speed"


def test_the_same_seed_is_the_same_food_and_another_is_not(kitchen: Kitchen):
    strips = []
    for seed in (5, 5, 6):
        live = until(kitchen, begin(kitchen, seed=seed), "finish.finish")
        strips.append(kitchen.get(f"/cooks/{live['id']}/truth")["face"])
        kitchen.post(f"/cooks/{live['id']}/stop", {}, 200)
    assert strips[0] == strips[1] != strips[2]


def test_the_strip_it_is_held_against_is_that_of_the_forecast(kitchen: Kitchen):
    """What the food really does is not told beside the forecast."""
    plain = until(kitchen, begin(kitchen), "finish.finish")
    told = kitchen.get(f"/cooks/{plain['id']}/glaze")
    truth = kitchen.get(f"/cooks/{plain['id']}/truth")
    assert told["pull"]["low_s"] < told["pull"]["high_s"]
    assert truth["pull"]["low_s"] == truth["pull"]["high_s"]


@pytest.mark.parametrize(
    ("late", "said"), [(0.35, "Too pale."), (1.0, "As it was wanted."), (4.0, "Burnt.")]
)
def test_what_came_of_it_is_what_the_hidden_kitchen_makes_of_the_time_it_had(
    kitchen: Kitchen, late, said
):
    live = until(kitchen, begin(kitchen, speed=10), "finish.finish")
    assert live["rehearsal"]["verdicts"] == []
    own = kitchen.get(f"/cooks/{live['id']}/truth")["pull"]["likely_s"]
    kitchen.wait(late * own / 10)
    live = kitchen.press(live)
    while not live["finished"]:
        live = tapped(kitchen, live)
    (verdict,) = live["rehearsal"]["verdicts"]
    assert verdict.startswith("Out of the broiler at ")
    assert verdict.endswith(said)


def test_a_way_out_that_is_taken_is_taken_by_the_simulated_food_too(kitchen: Kitchen):
    """Lowered, its edges take longer; that is what there is to see, and what comes of it."""
    live = until(kitchen, begin(kitchen, speed=1), "finish.finish")
    before = kitchen.get(f"/cooks/{live['id']}/truth")
    kitchen.wait(60)
    lower = kitchen.tell(live["id"], kind="rescue", change="calmer")
    assert lower["rehearsal"]["strip_key"] != live["rehearsal"]["strip_key"]
    after = kitchen.get(f"/cooks/{live['id']}/truth")
    assert after["pull"]["likely_s"] > 1.2 * before["pull"]["likely_s"]
    kitchen.wait(before["pull"]["likely_s"] - 60)
    live = kitchen.press(lower)
    while not live["finished"]:
        live = tapped(kitchen, live)
    assert live["rehearsal"]["verdicts"][0].endswith("Too pale.")


def test_a_check_too_early_is_tough_and_more_time_mends_it(kitchen: Kitchen):
    live = until(kitchen, begin(kitchen, speed=60), "cook.hold")
    kitchen.wait(120 / 60)
    live = kitchen.press(live)
    while live["gate"] is None:
        live = tapped(kitchen, live)
    read = live["gate"]["reads_c"]
    assert live["rehearsal"]["feels"] == "A fork meets resistance."
    live = kitchen.press(live, tender=False, temp_c=read)
    assert live["back"]
    while live["gate"] is None:
        live = tapped(kitchen, live)
    assert live["gate"]["reads_c"] > read + 3.0
    assert live["rehearsal"]["feels"] == "A fork goes in as it should."


def test_a_restart_goes_on_with_the_same_clock(kitchen: Kitchen):
    live = begin(kitchen, speed=30)
    kitchen.wait(20)
    again = open_kitchen(kitchen.database, kitchen.now)
    after = again.get(f"/cooks/{live['id']}/live")
    assert datetime.fromisoformat(after["now"]) == START + timedelta(minutes=10)
    again.client.application.extensions["kettle_engine"].dispose()


def test_simulated_food_that_is_moved_browns_on_in_the_other_heat(kitchen: Kitchen):
    """Four minutes in the fryer, the rest under the broiler; what was never begun is not judged."""
    live = until(kitchen, begin(kitchen), "cook.check")
    kitchen.post(f"/cooks/{live['id']}/elsewhere", {"stage": "finish", "heat": "broiler"}, 422)
    moved = kitchen.post(f"/cooks/{live['id']}/elsewhere", {"stage": "finish", "heat": "air_fryer"})
    live = until(kitchen, moved, "finish+1.finish")
    kitchen.wait(240.0 / live["rehearsal"]["speed"])
    kitchen.post(f"/cooks/{live['id']}/elsewhere", {"stage": "finish+1", "heat": "broiler"})
    again = kitchen.get(f"/cooks/{live['id']}/live")
    done = until(kitchen, again, None)
    first, second = done["rehearsal"]["verdicts"]
    assert first.startswith("Out of the air fryer at 4:00: face ")
    assert second.startswith("Out of the broiler at ")
    again = kitchen.get(f"/cooks/{live['id']}/truth")  # it begins with the colour it came with
    assert again["face"][0] != kitchen.get(f"/cooks/{begin(kitchen)['id']}/truth")["face"][0]


def test_a_skewer_finds_in_the_hold_what_the_fork_finds_after_it(kitchen: Kitchen):
    """Tried every ten minutes: tough, then tender to the end; taken out then, the check agrees."""
    braise = {**ONE_COAT, "tenderise": "braise"}
    begun = kitchen.post("/cooks", {"dish": braise, "rehearsal": {"seed": 5, "speed": 10}})
    live = until(kitchen, begun, "cook.hold")
    found = []
    for _ in range(40):
        kitchen.wait(60)
        live = kitchen.get(f"/cooks/{live['id']}/live")
        found.append(live["rehearsal"]["feels"])
        if "goes in" in found[-1]:
            break
    assert len(found) > 3
    assert set(found[:-1]) == {"A skewer meets resistance."}
    assert found[-1] == "A skewer goes in as it should."
    live = until(
        kitchen, kitchen.tell(live["id"], kind="felt", step="cook.hold", tender=True), "cook.check"
    )
    assert live["rehearsal"]["feels"] == "A fork goes in as it should."
    assert live["checks"] == []
    assert live["gate"] is not None
