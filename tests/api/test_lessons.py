"""A cook that ends teaches the appliances that it was cooked in, by the signs that were told."""

import json
import sqlite3

import pytest
from tests.conftest import SHORT_RIBS, Kitchen, open_kitchen

from bluekettle.schemas.chain import ChainDocument

BROILER = {"kind": "oven-broiler", "name": "its broiler", "rack_mm": 150.0}
ONE_COAT = {**SHORT_RIBS, "coats": 1}
EDGES = "amber at the edges"


@pytest.fixture
def broiler(kitchen: Kitchen):
    return kitchen.post("/kitchen/appliances", BROILER)["id"]


def dish_here(kitchen: Kitchen, **more):
    """The dish, reckoned with the kept kitchen as the page does."""
    return {**ONE_COAT, "kitchen": kitchen.get("/kitchen")["for_plans"], **more}


def under(kitchen: Kitchen, **more):
    """A cook whose food went under the fire just now."""
    live = kitchen.post("/cooks", {"dish": dish_here(kitchen, **more)})
    return kitchen.press_until(live, "finish.finish")


def to_the_end(kitchen: Kitchen, live, **outcome):
    while live["current"]:
        kitchen.wait(20.0)
        live = kitchen.press(live)
    return came_out(kitchen, live["id"], **outcome)


def came_out(kitchen: Kitchen, cook: int, **outcome):
    ended = kitchen.client.put(f"/api/v1/cooks/{cook}/outcome", json=outcome)
    assert ended.status_code == 200, ended.text
    return cook


def cooked(kitchen: Kitchen, at_s=70.0, **more):
    """A cook to its end, with one sign so many seconds under the fire."""
    live = under(kitchen, **more)
    kitchen.wait(at_s)
    return to_the_end(kitchen, kitchen.tell(live["id"], kind="saw", sign=EDGES))


def amber(kitchen: Kitchen):
    """When the edges of the next such dish are likely to be amber, as its plan says."""
    found = kitchen.post("/forecasts", dish_here(kitchen), 200)
    return found["fires"][0]["glaze"]["milestones"]["edge"]["amber"]


def test_what_is_seen_tonight_moves_and_narrows_the_next_plan(kitchen: Kitchen, broiler):
    plain = amber(kitchen)
    early = 0.5 * plain["likely_s"]
    cook = cooked(kitchen, early)
    kitchen.wait(7 * 86_400)
    after = amber(kitchen)
    assert early < after["likely_s"] < 0.85 * plain["likely_s"]
    assert after["high_s"] / after["low_s"] < 0.9 * plain["high_s"] / plain["low_s"]
    (lesson,) = kitchen.get(f"/cooks/{cook}/lessons")["appliances"]
    (sign,) = lesson["observations"]
    assert (lesson["appliance_id"], sign["cook_id"], sign["sign"]) == (broiler, cook, EDGES)
    assert sign["at_s"] == pytest.approx(early, abs=0.1)
    assert (sign["dial"], sign["sauce"], sign["forgotten"]) == (0.15, "plum and black tea", False)
    assert lesson["after"]["likely_s"] < lesson["before"]["likely_s"]
    assert "fiercer than typical" in lesson["says"]
    with sqlite3.connect(kitchen.database) as store:
        (food,) = store.execute("select deep_c, surface_c, coat_mm from observation").fetchall()
    assert 60.0 < food[1] < food[0] < 99.0, "out of the pot, brushed, its outside cooler"
    assert food[2] == 0.5


def test_it_is_forgotten_taken_back_and_goes_with_its_cook(kitchen: Kitchen, broiler):
    plain = amber(kitchen)
    cook = cooked(kitchen)
    known = amber(kitchen)
    (lesson,) = kitchen.get(f"/cooks/{cook}/lessons")["appliances"]
    sign = lesson["observations"][0]["id"]
    delete = kitchen.client.delete
    assert delete(f"/api/v1/kitchen/observations/{sign}").status_code == 200
    assert amber(kitchen) == plain
    (lesson,) = kitchen.get(f"/cooks/{cook}/lessons")["appliances"]
    assert lesson["observations"][0]["forgotten"]
    assert lesson["after"] == lesson["before"]
    kitchen.post(f"/kitchen/observations/{sign}/restore", None, 200)
    assert amber(kitchen) == known
    assert delete(f"/api/v1/cooks/{cook}").status_code == 204
    assert amber(kitchen) == plain
    kitchen.get(f"/cooks/{cook}/lessons", 404)
    kitchen.post(f"/cooks/{cook}/restore", None, 200)
    assert amber(kitchen) == known


def observations(kitchen: Kitchen):
    return kitchen.get("/kitchen")["appliances"][0]["observations"]


def test_an_outcome_that_is_corrected_teaches_nothing_twice(kitchen: Kitchen, broiler):
    cook = cooked(kitchen)
    for colour, signs in (
        ("amber", [EDGES, "came out amber"]),
        ("mahogany", [EDGES, "came out mahogany"]),
        (None, [EDGES]),
        ("bitter", [EDGES, "came out bitter"]),
    ):
        came_out(kitchen, cook, colour=colour)
        assert [one["sign"] for one in observations(kitchen)] == signs
    found = observations(kitchen)
    assert {one["cook_id"] for one in found} == {cook}
    again = open_kitchen(kitchen.database, kitchen.now)
    assert observations(again) == found


def test_the_colour_it_came_out_in_moves_the_next_plan(kitchen: Kitchen, broiler):
    """Told by who told nothing under the fire: by its own time there, and until forgotten."""
    plain = amber(kitchen)
    live = under(kitchen)
    kitchen.wait(150.0)
    live = kitchen.press(live)
    cook = to_the_end(kitchen, live, colour="burnt")
    (lesson,) = taught(kitchen, cook)
    (sign,) = lesson["observations"]
    assert (sign["sign"], sign["at_s"]) == ("came out burnt", 150.0)
    assert lesson["after"]["likely_s"] < 0.8 * lesson["before"]["likely_s"]
    assert amber(kitchen)["likely_s"] < 0.8 * plain["likely_s"]
    came_out(kitchen, cook, colour="pale")
    assert amber(kitchen)["likely_s"] > 1.02 * plain["likely_s"]
    (sign,) = taught(kitchen, cook)[0]["observations"]
    gone = kitchen.client.delete(f"/api/v1/kitchen/observations/{sign['id']}")
    assert gone.status_code == 200
    came_out(kitchen, cook, colour="pale", note="too early")
    assert taught(kitchen, cook)[0]["observations"][0]["forgotten"], "the same, said again"
    assert amber(kitchen) == plain


def test_a_colour_of_no_one_known_fire_teaches_nothing(kitchen: Kitchen, broiler):
    """A rehearsal; time under the heat that nobody told; a way out; food under two fires."""
    body = {"dish": dish_here(kitchen), "rehearsal": {"speed": 1, "seed": 3}}
    live = kitchen.press_until(kitchen.post("/cooks", body), "finish.finish")
    assert taught(kitchen, to_the_end(kitchen, live, colour="burnt")) == []
    unsure = kitchen.press_until(
        kitchen.post("/cooks", {"dish": dish_here(kitchen)}), "finish.under"
    )
    kitchen.wait(90.0)
    live = kitchen.tell(unsure["id"], kind="done", step="finish.finish")
    assert taught(kitchen, to_the_end(kitchen, live, colour="burnt")) == []
    live = under(kitchen)
    kitchen.wait(60.0)
    live = kitchen.tell(live["id"], kind="rescue", change="foil")
    assert taught(kitchen, to_the_end(kitchen, live, colour="burnt")) == []
    document = ChainDocument.model_validate(dish_here(kitchen)).model_dump(mode="json")
    place = next(i for i, stage in enumerate(document["stages"]) if stage["id"] == "finish")
    document["stages"].insert(place + 1, {**document["stages"][place], "id": "again"})
    live = kitchen.press_until(kitchen.post("/cooks", {"dish": document}), "finish.finish")
    assert taught(kitchen, to_the_end(kitchen, live, colour="burnt")) == []
    assert observations(kitchen) == []


def test_a_cook_that_is_stopped_still_saw_what_it_saw(kitchen: Kitchen, broiler):
    live = under(kitchen)
    kitchen.wait(70.0)
    kitchen.tell(live["id"], kind="saw", sign="bubbling")
    kitchen.post(f"/cooks/{live['id']}/stop", None, 200)
    (lesson,) = kitchen.get(f"/cooks/{live['id']}/lessons")["appliances"]
    assert lesson["observations"][0]["sign"] == "bubbling"


def taught(kitchen: Kitchen, cook: int):
    return kitchen.get(f"/cooks/{cook}/lessons")["appliances"]


def test_nothing_that_is_not_known_for_sure_teaches(kitchen: Kitchen, broiler):
    """A guess, a mistap, what was taken back, another broiler, and a bare face."""
    unsure = kitchen.post("/cooks", {"dish": dish_here(kitchen)})
    unsure = kitchen.press_until(unsure, "finish.under")
    kitchen.wait(90.0)
    assert kitchen.get(f"/cooks/{unsure['id']}/live")["fire"]["assumed"]
    kitchen.tell(unsure["id"], kind="saw", sign=EDGES)
    assert taught(kitchen, to_the_end(kitchen, kitchen.press(unsure))) == []
    assert taught(kitchen, cooked(kitchen, at_s=3.0)) == []
    live = under(kitchen)
    kitchen.wait(70.0)
    kitchen.tell(live["id"], kind="saw", sign=EDGES)
    assert taught(kitchen, to_the_end(kitchen, kitchen.tell(live["id"], kind="undo"))) == []
    assert taught(kitchen, cooked(kitchen, sauce=None, coats=0)) == []
    stated = {**BROILER, "element_w_m2": 4500.0}
    path = f"/api/v1/kitchen/appliances/{broiler}"
    live = under(kitchen)
    assert kitchen.client.put(path, json=stated).status_code == 200
    kitchen.wait(70.0)
    assert (
        taught(kitchen, to_the_end(kitchen, kitchen.tell(live["id"], kind="saw", sign=EDGES))) == []
    )
    assert taught(kitchen, cooked(kitchen)) != []


def test_a_rehearsal_teaches_nothing(kitchen: Kitchen, broiler):
    body = {"dish": dish_here(kitchen), "rehearsal": {"speed": 1, "seed": 3}}
    live = kitchen.press_until(kitchen.post("/cooks", body), "finish.finish")
    kitchen.wait(70.0)
    cook = to_the_end(kitchen, kitchen.tell(live["id"], kind="saw", sign=EDGES))
    assert taught(kitchen, cook) == []


def test_a_damaged_appliance_is_taught_nothing_and_ends_no_cook(kitchen: Kitchen, broiler):
    before = cooked(kitchen)
    live = under(kitchen)
    kitchen.wait(70.0)
    live = kitchen.tell(live["id"], kind="saw", sign=EDGES)
    kitchen.spoil("appliance", "kind", broiler)
    assert taught(kitchen, to_the_end(kitchen, live)) == []
    assert taught(kitchen, before) == []
    assert [one["id"] for one in kitchen.get("/kitchen")["aside"]] == [broiler]


def test_a_sign_after_another_coat_is_of_both_coats(kitchen: Kitchen, broiler):
    """As late as the second coat makes it: a colour then is of a fiercer heat than under one."""
    live = under(kitchen, coats=2)
    while not any(s["act"] and s["state"] == "confirmed" for s in live["steps"]):
        kitchen.wait(40.0)
        live = kitchen.press(live)
    kitchen.wait(240.0)
    assert live["fire"]
    live = kitchen.tell(live["id"], kind="saw", sign="dark")
    cook = to_the_end(kitchen, live)
    twice = kitchen.get("/kitchen")["learnt"]["broiler"]["mean"]
    with sqlite3.connect(kitchen.database) as store:
        (told,) = store.execute("select acts from observation").fetchone()
        (act,) = json.loads(told)
        store.execute("update observation set acts = null")
    sign = taught(kitchen, cook)[0]["observations"][0]
    assert (act["coat"], act["turn"], sign["at_s"]) == (1, 0, act["at_s"] + 240.0)
    assert kitchen.get("/kitchen")["learnt"]["broiler"]["mean"][0] < twice[0] - 0.05
    with sqlite3.connect(kitchen.database) as store:
        store.execute("""update observation set acts = '[{"at_s": 7}, 3]'""")
    assert [one["id"] for one in kitchen.get("/kitchen")["aside"]] == [broiler]


def test_a_sign_under_a_fire_that_nobody_ever_told_of_teaches_nothing(kitchen: Kitchen, broiler):
    """It came out of the heat, but when it went under nobody knows."""
    live = kitchen.post("/cooks", {"dish": dish_here(kitchen)})
    live = kitchen.press_until(live, "finish.under")
    kitchen.wait(90.0)
    live = kitchen.tell(live["id"], kind="saw", sign=EDGES)
    assert live["fire"]["assumed"]
    kitchen.wait(60.0)
    live = kitchen.tell(live["id"], kind="done", step="finish.finish")
    assert taught(kitchen, to_the_end(kitchen, live)) == []


def test_an_appliance_goes_with_all_that_was_seen_of_it(kitchen: Kitchen, broiler):
    """What stands in a deleted cook too; the cook can be brought back without it."""
    cook = cooked(kitchen)
    delete = kitchen.client.delete
    assert delete(f"/api/v1/cooks/{cook}").status_code == 204
    assert delete(f"/api/v1/kitchen/appliances/{broiler}").status_code == 204
    kitchen.post(f"/cooks/{cook}/restore", None, 200)
    assert taught(kitchen, cook) == []


SHRED = {"kind": "take_apart", "id": "shred", "how": "shred"}
INSIDE = [{"do": "coat", "at_min": 2.0, "layer": "coat"}]


def film_of(kitchen: Kitchen, change):
    """What a cook of the ribs, changed, keeps of what lies under its broiler."""
    document = ChainDocument.model_validate(ONE_COAT).model_dump(mode="json")
    by_id = {stage["id"]: stage for stage in document["stages"]}
    change(document, by_id)
    cook = kitchen.post("/cooks", {"dish": document})["id"]
    with sqlite3.connect(kitchen.database) as store:
        asked = store.execute("select facts from cook where id = ?", (cook,))
        return json.loads(asked.fetchone()[0])["scenes"]["finish"]["film"]


def test_only_a_first_sauce_on_whole_moist_food_is_a_film_that_teaches(kitchen: Kitchen):
    """As thick as it was brushed on; none on strands, on a crust, or first put on inside."""

    def thick(document, by_id):
        by_id["dress"]["mm"] = 0.8

    def dried(document, by_id):
        by_id["cook"] |= {"heat": "oven", "dial": 130.0}

    def strands(document, by_id):
        at = document["stages"].index(by_id["dress"])
        document["stages"].insert(at, SHRED)

    def inside(document, by_id):
        layer = by_id["dress"]["layer"]
        document["stages"].remove(by_id["dress"])
        by_id["finish"]["acts"] = [{**INSIDE[0], "layer": layer}]

    assert film_of(kitchen, thick)["mm"] == 0.8
    for change in (dried, strands, inside):
        assert film_of(kitchen, change) is None, change.__name__
