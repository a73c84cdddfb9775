"""Chains are kept beside dishes: read back whole, changed, looked up as they were, cooked."""

import sqlite3
from itertools import pairwise

import pytest
from tests.chain.conftest import chain
from tests.conftest import SHORT_RIBS, Kitchen

LINES = [{"ingredient": "honey", "mass_g": 200.0}]
SAUCE = {"name": "Red", "kind": "glaze", "lines": ["200 g honey", "100 ml vinegar"]}


def kept(kitchen: Kitchen, document) -> dict:
    return kitchen.post("/plans", {"dish": document})


def change(kitchen: Kitchen, number: int, document) -> dict:
    answer = kitchen.client.put(f"/api/v1/plans/{number}", json={"dish": document})
    assert answer.status_code == 200, answer.text
    return answer.get_json()


def named(document, name: str) -> dict:
    return {**document, "name": name}


def revisions(kitchen: Kitchen, number: int) -> list[dict]:
    return kitchen.get(f"/plans/{number}/revisions")["revisions"]


def test_a_chain_is_kept_whole_and_a_dish_as_the_chain_that_it_is(kitchen: Kitchen):
    document = named(chain("lid-stir-lid"), "Strands for the boathouse")
    made = kept(kitchen, document)
    kitchen.wait(1)
    kept(kitchen, SHORT_RIBS)
    assert made["title"] == "Strands for the boathouse"
    back = kitchen.get(f"/plans/{made['id']}")["dish"]
    assert back["format"] == "kettle.dish/2"
    assert [one["id"] for one in back["stages"]] == [one["id"] for one in document["stages"]]
    first = kitchen.post("/forecasts", document, 200)
    assert kitchen.post("/forecasts", back, 200) == first
    listed = [p["dish"] for p in kitchen.get("/plans")["plans"]]
    assert [d["format"] for d in listed] == ["kettle.dish/2", "kettle.dish/2"]
    assert [d["food"]["cut"] for d in listed] == [SHORT_RIBS["cut"], "pork-shoulder"]
    assert kept(kitchen, named(document, ""))["title"] != ""


def test_a_spoiled_plan_is_set_aside_in_the_list(kitchen: Kitchen):
    number = kept(kitchen, chain("lid-stir-lid"))["id"]
    with sqlite3.connect(kitchen.database) as store:
        store.execute("update plan set dish = '{\"a' where id = ?", (number,))
    found = kitchen.get("/plans")
    assert (found["plans"], [one["id"] for one in found["aside"]]) == ([], [number])


def test_a_spoiled_past_is_left_out_and_the_rest_can_be_taken_back(kitchen: Kitchen):
    document = chain("portions-broiled")
    number = kept(kitchen, named(document, "one"))["id"]
    for name in ("two", "three"):
        kitchen.wait(3600)
        change(kitchen, number, named(document, name))
    with sqlite3.connect(kitchen.database) as store:
        store.execute("update plan_revision set dish = '{\"a' where title = 'one'")
    assert [one["title"] for one in revisions(kitchen, number)] == ["two"]


@pytest.mark.parametrize("given", ["kettle.dish/9", 7, None])
def test_a_format_that_is_not_known_is_told_with_those_that_are(kitchen: Kitchen, given):
    body = {"dish": {**chain("lid-stir-lid"), "format": given}}
    fault = kitchen.post("/plans", body, 422)["errors"][0]
    assert fault["field"] == "dish.format"
    assert "kettle.dish/2" in fault["accepted"]


def test_a_fault_inside_a_chain_is_named_by_its_place(kitchen: Kitchen):
    document = chain("lid-stir-lid")
    document["stages"][0]["hours"] = "long"
    document["stages"][0]["kind"] = "marinate"
    document["food"]["mass_kg"] = "much"
    fields = {f["field"] for f in kitchen.post("/plans", {"dish": document}, 422)["errors"]}
    assert {"dish.stages.0.hours", "dish.food.mass_kg"} <= fields
    assert not any("kettle.dish" in field or "ChainDocument" in field for field in fields)
    assert kitchen.get("/plans")["plans"] == []


def test_a_kept_sauce_in_a_layer_has_to_be_there_and_is_told_when_it_is_deleted(kitchen: Kitchen):
    sauce = kitchen.post("/sauces", SAUCE)["id"]
    document = named(chain("portions-broiled"), "Portions")
    place = next(i for i, layer in enumerate(document["layers"]) if layer.get("sauce"))
    copy = {"name": "Red", "lines": LINES, "sauce_id": sauce + 40}
    document["layers"][place]["sauce"] = copy
    fault = kitchen.post("/plans", {"dish": document}, 422)["errors"][0]
    assert fault["field"] == f"dish.layers.{place}.sauce.sauce_id"
    copy["sauce_id"] = sauce
    number = kept(kitchen, document)["id"]
    kitchen.wait(3600)
    change(kitchen, number, document)
    assert kitchen.get("/sauces")["sauces"][0]["used_by"] == ["Portions"]
    told = kitchen.client.delete(f"/api/v1/sauces/{sauce}")
    assert (told.status_code, "Portions" in told.get_json()["detail"]) == (409, True)
    assert kitchen.client.delete(f"/api/v1/sauces/{sauce}?replace=true").status_code == 204
    # What it was before can be taken back as well.
    change(kitchen, number, revisions(kitchen, number)[0]["dish"])
    left = kitchen.get(f"/plans/{number}")["dish"]["layers"][place]["sauce"]
    assert (left["sauce_id"], left["lines"]) == (None, LINES)


def test_what_a_plan_was_is_kept_once_a_sitting_and_can_be_taken_back(kitchen: Kitchen):
    document = chain("portions-broiled")
    number = kept(kitchen, named(document, "first"))["id"]
    assert revisions(kitchen, number) == []
    for stroke in range(5):
        kitchen.wait(20)
        change(kitchen, number, named(document, f"stroke {stroke}"))
    assert [r["title"] for r in revisions(kitchen, number)] == ["first"]
    kitchen.wait(86_400)
    change(kitchen, number, named(document, "next day"))
    found = revisions(kitchen, number)
    assert [r["title"] for r in found] == ["stroke 4", "first"]
    assert found[0]["version"] == 6
    kitchen.wait(3600)
    assert change(kitchen, number, found[1]["dish"])["title"] == "first"
    assert revisions(kitchen, number)[0]["title"] == "next day"


def test_a_long_sitting_is_kept_every_ten_minutes_and_no_more_than_thirty(kitchen: Kitchen):
    document = chain("portions-broiled")
    number = kept(kitchen, named(document, "0"))["id"]
    for minute in range(1, 400):
        kitchen.wait(60)
        change(kitchen, number, named(document, str(minute)))
    titles = [int(r["title"]) for r in revisions(kitchen, number)]
    assert len(titles) == 30
    assert titles[0] > 385
    assert {a - b for a, b in pairwise(titles)} == {10}


def test_a_deleted_plan_takes_its_past_along_and_leaves_its_cook(kitchen: Kitchen):
    document = chain("portions-broiled")
    number = kept(kitchen, document)["id"]
    kitchen.wait(3600)
    change(kitchen, number, named(document, "again"))
    live = kitchen.post("/cooks", {"dish": document, "plan_id": number})
    lost = kitchen.post("/cooks", {"dish": document, "plan_id": number + 9}, 404)
    assert "plan" in lost["detail"]
    assert kitchen.client.delete(f"/api/v1/plans/{number}").status_code == 204
    assert kitchen.client.get(f"/api/v1/plans/{number}/revisions").status_code == 404
    assert kitchen.get(f"/cooks/{live['id']}/live")["current"] == live["current"]
    other = kept(kitchen, document)["id"]
    assert revisions(kitchen, other) == []
