"""Every unusable input gets a problem document with field, value and what is accepted; never a 500,
nothing kept.
"""

from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from tests.conftest import SHORT_RIBS, Kitchen

from bluekettle.core.stages import (
    FINISHES,
    LIMITS,
    TENDERISE,
    cut,
    cut_keys,
    figures,
    first_heat,
)

WATER = {"name": "tap", "lines": [{"ingredient": "water", "mass_g": 100}]}


def ask(kitchen: Kitchen, change: dict[str, Any]) -> Any:
    return kitchen.client.post("/api/v1/forecasts", json={**SHORT_RIBS, **change})


@pytest.mark.parametrize(
    ("change", "field", "accepted"),
    [
        ({"mass_kg": 0}, "mass_kg", "0.05 to 12 kg"),
        ({"mass_kg": -1.6}, "mass_kg", "0.05 to 12 kg"),
        ({"mass_kg": 900}, "mass_kg", "0.05 to 12 kg"),
        ({"mass_kg": "lots"}, "mass_kg", "0.05 to 12 kg"),
        ({"mass_kg": None}, "mass_kg", "0.05 to 12 kg"),
        ({"mass_kg": True}, "mass_kg", "0.05 to 12 kg"),
        ({"thickness_mm": 3000}, "thickness_mm", "5 to 150 mm"),
        ({"thickness_mm": 120}, "food.thickness_mm", "up to"),
        ({"pieces": 2.5}, "pieces", "whole number"),
        ({"pieces": 10**30}, "pieces", "1 to 60"),
        ({"cut": "heron"}, "cut", "beef-short-ribs"),
        ({"coats": 20}, "coats", "0 to 6"),
        ({"sauce": None}, "stages.2.layer", "one of"),
        ({"sauce": None, "coats": 20}, "coats", "0 to 6"),
        ({"sauce": "tar"}, "sauce", "plum-tea"),
        ({"sauce": WATER}, "layers.0.sauce", "5 %"),
        (
            {"sauce": {"name": "x", "lines": [{"ingredient": "tar", "mass_g": 5}]}},
            "layers.0.sauce.lines.0.ingredient",
            "honey",
        ),
        (
            {"sauce": {"name": "x", "lines": [{"ingredient": "honey", "mass_g": -5}]}},
            "sauce.lines.0.mass_g",
            "0.01",
        ),
        ({"serve_at": "2030-05-04T15:00:00+00:00"}, "serve_at", "after"),
        ({"serve_at": "2031-05-04T15:00:00+00:00"}, "serve_at", "14 days"),
        ({"serve_at": "tonight"}, "serve_at", ""),
        ({"serve_at": 5}, "serve_at", "time zone"),
        ({"serve_at": "2030-05-04T18:00:00"}, "serve_at", "time zone"),
        ({"kitchen": {"altitude_m": 9000}}, "kitchen.altitude_m", "-400 to 4500 m"),
        ({"kitchen": {"oven": 5}}, "kitchen.oven", "no field"),
        ({"sightings": [{"sign": "smoke", "at_s": 5}]}, "sightings.0.sign", "bubbling"),
    ],
)
def test_a_dish_that_cannot_be_is_refused_by_field(kitchen: Kitchen, change, field, accepted):
    answer = ask(kitchen, change)
    assert answer.status_code == 422, answer.text[:600]
    assert answer.content_type == "application/problem+json"
    faults = {f["field"]: f for f in answer.get_json()["errors"]}
    assert field in faults
    assert accepted in faults[field]["accepted"]
    kept = kitchen.client.post("/api/v1/cooks", json={"dish": {**SHORT_RIBS, **change}})
    assert kept.status_code == 422
    assert kitchen.get("/cooks")["cooks"] == []


@pytest.mark.parametrize("field", ["sauce", "cut"])
def test_a_plan_that_names_what_is_not_there_is_refused(kitchen: Kitchen, field):
    told = kitchen.post("/plans", {"dish": {**SHORT_RIBS, field: "zest"}}, 422)
    assert [fault["field"] for fault in told["errors"]] == [f"dish.{field}"]
    assert "one of" in told["errors"][0]["accepted"]


@pytest.mark.parametrize(
    ("field", "given"), [("pieces", "6"), ("pieces", 6.5), ("pieces", True), ("mass_kg", "1.6")]
)
def test_a_number_is_a_number_as_json_means_it(kitchen: Kitchen, field, given):
    assert kitchen.post("/forecasts", {**SHORT_RIBS, "pieces": 6.0}, 200)["links"]
    told = kitchen.post("/forecasts", {**SHORT_RIBS, field: given}, 422)
    assert [fault["field"] for fault in told["errors"]] == [field]


def test_a_bite_out_of_reach_says_how_far_it_gets(kitchen: Kitchen):
    thick = {
        **SHORT_RIBS,
        "cut": "lamb-breast",
        "mass_kg": 12.0,
        "pieces": 3,
        "thickness_mm": 150.0,
        "bite": "shreds",
    }
    fault = kitchen.post(
        "/forecasts",
        {**thick, "tenderise": "braise", "state": "frozen", "kitchen": {"altitude_m": 4500}},
        422,
    )["errors"][0]
    assert fault["field"] == "stages.1"
    assert "of 80" in fault["accepted"]


@pytest.mark.parametrize("note", ["\ud800", "x" * 2001, 5])
def test_a_note_that_cannot_be_kept_is_refused(kitchen: Kitchen, note):
    cook = kitchen.post("/cooks", {"dish": SHORT_RIBS})["id"]
    outcome = {"tenderness": "tug", "crust": "soft", "colour": "pale", "note": note}
    answer = kitchen.client.put(f"/api/v1/cooks/{cook}/outcome", json=outcome)
    assert answer.status_code == 422
    assert kitchen.get("/cooks")["cooks"][0]["ended_at"] is None


def numbers(name):
    """Values of a limited number, its ends included."""
    low, high, _ = LIMITS[name]
    return st.sampled_from([low, high]) | st.floats(low, high)


@given(
    st.fixed_dictionaries(
        {
            "cut": st.sampled_from(cut_keys()),
            "mass_kg": numbers("mass_kg"),
            "pieces": st.integers(1, 60),
            "thickness_mm": st.floats(5, 60),
            "state": st.sampled_from(["fridge", "frozen"]),
            "tenderise": st.sampled_from(TENDERISE),
            "release": st.sampled_from(["quick", "mixed", "natural", None]),
            "bite": st.just("tug"),
            "finish": st.sampled_from(FINISHES),
            "want": st.sampled_from(["amber", "mahogany"]),
            "sauce": st.sampled_from(["plum-tea", "date-mustard"]),
            "coats": st.integers(1, 6),
            "coat_mm": numbers("coat_mm"),
            "liquid_l": numbers("liquid_l"),
            "kitchen": st.fixed_dictionaries(
                {}, optional={name: numbers(name) for name in figures()}
            ),
        }
    )
)
@settings(max_examples=40, suppress_health_check=[HealthCheck.function_scoped_fixture])
def test_whatever_is_in_range_is_answered_whole_and_finite(kitchen: Kitchen, dish):
    """The corners too: a spoon of water around twelve kilos, a weak pot up a mountain, six thick
    coats.
    """
    if not first_heat(dish["tenderise"]).takes_liquid:
        del dish["liquid_l"]
    bites = list(cut(dish["cut"]).targets)
    dish["bite"] = "tug" if "tug" in bites else bites[0]
    answer = kitchen.client.post("/api/v1/forecasts", json=dish)
    assert answer.status_code in (200, 422), answer.text[:600]
    assert "NaN" not in answer.text
    assert "Infinity" not in answer.text
    if answer.status_code == 422:
        assert {f["field"] for f in answer.get_json()["errors"]} <= {
            "food.thickness_mm",
            "stages.1",
        }
    else:
        found = answer.get_json()
        assert 0 < found["headline_s"] < found["total"]["likely_s"]
        assert all(s["band"]["low_s"] <= s["band"]["high_s"] for s in found["links"])


def test_all_faults_come_at_once(kitchen: Kitchen):
    faults = ask(
        kitchen, {"mass_kg": 900, "thickness_mm": -1, "coats": 20, "serve_at": 5}
    ).get_json()["errors"]
    assert {f["field"] for f in faults} == {"mass_kg", "thickness_mm", "coats", "serve_at"}


@pytest.mark.parametrize(
    "body", ["", "[", "[]", "null", '"x"', "3", '{"cut": NaN}', "{" * 500, "[" * 100_000]
)
def test_a_body_that_is_no_dish_is_a_problem_document(kitchen: Kitchen, body):
    answer = kitchen.client.post("/api/v1/forecasts", data=body, content_type="application/json")
    assert answer.status_code == 422
    assert answer.get_json()["errors"]


@pytest.mark.parametrize(
    ("path", "status"),
    [
        ("/api/v1/nothing", 404),
        ("/api/v1/cooks/999", 404),
        ("/api/v1/cooks/0", 422),
        ("/api/v1/cooks/99999999999999999999", 422),
        ("/nothing.js", 404),
    ],
)
def test_what_is_not_there_is_told_as_a_document(kitchen: Kitchen, path, status):
    answer = kitchen.client.get(path)
    assert answer.status_code == status
    assert answer.get_json()["status"] == status


def test_a_wrong_method_keeps_the_allow_header_and_a_huge_body_is_refused(kitchen: Kitchen):
    wrong = kitchen.client.delete("/api/v1/forecasts")
    assert wrong.status_code == 405
    assert "POST" in wrong.headers["Allow"]
    huge = kitchen.client.post(
        "/api/v1/forecasts", data=b"x" * 600_000, content_type="application/json"
    )
    assert huge.status_code in (413, 422)
    assert huge.content_type == "application/problem+json"


@pytest.mark.parametrize(
    ("event", "field"),
    [
        ({"kind": "done", "step": "dance"}, "step"),
        ({"kind": "done", "step": "season.season", "ago_s": -5}, "ago_s"),
        ({"kind": "done", "step": "season.season", "id": "mine"}, "id"),
        ({"kind": "way", "step": "cook.check", "way": 1}, "way"),
        ({"kind": "saw", "sign": "bubbling"}, "sign"),
        ({"kind": "undo"}, "kind"),
        ({"kind": "extend", "step": "season.season", "seconds": 1e9}, "seconds"),
        ({"kind": "done", "step": "cook.check", "temp_c": "hot"}, "temp_c"),
    ],
)
def test_an_event_that_cannot_be_is_refused_and_not_kept(kitchen: Kitchen, event, field):
    cook = kitchen.post("/cooks", {"dish": SHORT_RIBS})["id"]
    faults = kitchen.post(f"/cooks/{cook}/events", event, 422)["errors"]
    assert field in [f["field"] for f in faults]
    assert kitchen.get(f"/cooks/{cook}/live")["last_event"] == 0
