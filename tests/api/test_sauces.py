"""Sauces over HTTP: stateless sums, kept recipes, import and export, and what is refused."""

import csv
import io
import re
from typing import Any

import pytest
from tests.conftest import SHORT_RIBS, Kitchen

TOMATO = [
    "1 1/4 cups ketchup",
    "1/4 cup brown sugar",
    "2 tbsp cider vinegar",
    "2 cloves garlic",
    "salt to taste",
]


def analyse(kitchen: Kitchen, status: int = 200, **fields):
    return kitchen.post("/sauces/analyse", {"name": "red", "lines": TOMATO, **fields}, status)


def on_dish(kitchen: Kitchen, **fields):
    """The same recipe as a dish holds it."""
    body = {"name": "red", "lines": TOMATO, **fields}
    return kitchen.post("/sauces/on-dish", body, 200)


def test_a_recipe_comes_to_a_yield_a_composition_and_a_ladder_of_three_appliances(kitchen: Kitchen):
    found = analyse(kitchen, meat_kg=1.5)
    assert found["gap"] == ""
    assert found["yield_g"] == pytest.approx(
        sum(line["mass_g"]["likely"] for line in found["lines"]), rel=1e-3
    )
    assert found["yield_low_g"] < found["yield_g"] < found["yield_high_g"], "to taste has a range"
    assert sum(found["parts"].values()) == pytest.approx(1.0, abs=1e-3)
    assert [rung["appliance"] for rung in found["ladder"]] == ["broiler", "oven", "air_fryer"]
    for rung in found["ladder"]:
        edge = rung["milestones"]["edge"]
        assert edge["amber"]["likely_s"] < edge["mahogany"]["likely_s"] < edge["burnt"]["likely_s"]
    assert "ketchup" in found["burns_first"]
    assert all(c["later_s"] > 5 for c in found["calm"])
    assert found["calm"]
    assert found["salt"]["verdict"] == "under the usual range"
    dish = {**SHORT_RIBS, "sauce": on_dish(kitchen)}
    assert kitchen.post("/forecasts", dish, 200)["fires"][0]["glaze"]["caramelises"]


def test_salt_of_the_meat_counts_what_else_is_on_it(kitchen: Kitchen):
    """A rub for 2 kg on 1 kg of meat counts by half; the parts add up to the whole."""
    rub = {"name": "rub", "kind": "rub", "lines": ["20 g table salt"], "for_kg": 2.0}
    alone, both = (analyse(kitchen, meat_kg=1.0, beside=b)["salt"] for b in ([], [rub]))
    assert [b["name"] for b in both["by"]] == ["red", "rub"]
    assert both["by"][1]["likely_share"] == pytest.approx(0.01, rel=0.01)
    assert both["likely_share"] == pytest.approx(alone["likely_share"] + 0.01, rel=0.01)
    bad = analyse(kitchen, 422, meat_kg=1.0, beside=[{**rub, "lines": ["zorgle"]}])
    assert bad["errors"][0]["field"] == "beside.0.lines"


def test_a_line_that_cannot_be_read_stays_marked_and_the_rest_counts(kitchen: Kitchen):
    found = analyse(
        kitchen, lines=[*TOMATO, "2 frobs of zorgle", "2 tbsp hony", "😀", "-1 cup honey"]
    )
    assert found["gap"] == "4 of 9 lines are not counted"
    bad = {line["text"]: line for line in found["lines"] if line["problem"]}
    assert set(bad) == {"2 frobs of zorgle", "2 tbsp hony", "😀", "-1 cup honey"}
    assert bad["2 tbsp hony"]["suggestions"] == ["honey"]
    assert found["yield_g"] == analyse(kitchen)["yield_g"]


@pytest.mark.parametrize(
    ("fields", "field", "accepted"),
    [
        ({"lines": []}, "lines", "at least one line"),
        ({"lines": ["zorgle", "200 g"]}, "lines.0", "no ingredient"),
        ({"lines": ["1 g honey"] * 500}, "lines", "300"),
        ({"lines": [["a"]]}, "lines.0", "text"),
        ({"lines": ["1 g \0honey"]}, "lines", "control characters"),
        ({"lines": ["x" * 20_001]}, "lines.0", "20000"),
        ({"kind": "soup"}, "kind", "rub"),
        ({"coat_mm": 9}, "coat_mm", "0.1 to 2 mm"),
        ({"simmer": {"minutes": -1}}, "simmer.minutes", "at least 0"),
        (
            {"own": [{"key": "x", "name": "X", "fractions": {"water": 0.4}}]},
            "own.0.fractions",
            "0.99",
        ),
        (
            {"own": [{"key": "x", "name": "X", "fractions": {"magic": 1.0}}]},
            "own.0.fractions.magic",
            "water",
        ),
        (
            {"own": [{"key": "X!", "name": "X", "fractions": {"water": 1.0}}]},
            "own.0.key",
            "pattern",
        ),
    ],
)
def test_bad_recipes_are_refused_with_field_and_what_is_accepted(
    kitchen: Kitchen, fields, field, accepted
):
    errors = {e["field"]: e["accepted"] for e in analyse(kitchen, 422, **fields)["errors"]}
    assert field in errors, errors
    assert accepted in errors[field]


def test_three_hundred_lines_are_a_recipe(kitchen: Kitchen):
    found = analyse(kitchen, lines=["1 g honey", "1 g soy sauce", "1 g ketchup"] * 100)
    assert found["yield_g"] == pytest.approx(300)
    assert found["calm"]
    varied = kitchen.post(
        "/sauces/variants",
        {"name": "x", "lines": ["1 g honey"] * 300, "variant": "sugar-free"},
        200,
    )
    assert varied["analysis"]["ladder"]


def test_ten_thousand_characters_are_one_marked_line(kitchen: Kitchen):
    found = analyse(kitchen, lines=["100 g honey", "honey " * 1700])
    assert found["lines"][1]["problem"].startswith("10199 characters")
    assert len(found["lines"][1]["text"]) == 200


def test_a_simmered_glaze_is_told_what_would_calm_it_too(kitchen: Kitchen):
    simmered = analyse(kitchen, simmer={"minutes": 8.0})
    assert simmered["calm"]
    assert all(c["later_s"] > 5 for c in simmered["calm"])


def test_simmering_thickens_and_what_is_left_goes_into_the_dish(kitchen: Kitchen):
    raw, done = analyse(kitchen), analyse(kitchen, simmer={"minutes": 8, "power_w": 900})
    assert done["simmered"]["yield_g"] == pytest.approx(
        raw["yield_g"] - done["simmered"]["gone_g"], abs=0.2
    )
    assert done["sugars"] > raw["sugars"]
    kept = on_dish(kitchen, simmer={"minutes": 8, "power_w": 900})
    assert sum(line["mass_g"] for line in kept["lines"]) == pytest.approx(done["yield_g"], rel=1e-3)
    early, late = (x["ladder"][1]["milestones"]["face"]["set"]["likely_s"] for x in (done, raw))
    assert early < late


@pytest.mark.parametrize(
    "variant", ["sugar-free", "less salt", "milder", "without soy", "without milk"]
)
def test_a_variant_says_what_it_changes_and_shows_it_in_the_strip(kitchen: Kitchen, variant):
    lines = [*TOMATO, "2 tbsp soy sauce", "1/2 tsp cayenne", "a knob of butter"]
    body = {"name": "red", "lines": lines, "variant": variant}
    found = kitchen.post("/sauces/variants", body, 200)
    base = analyse(kitchen, lines=lines)
    assert found["changes"]
    assert found["analysis"]["gap"] == "", "its own lines can be read back"
    if variant == "sugar-free":
        slow, fast = (
            x["ladder"][0]["milestones"]["face"]["mahogany"]["likely_s"]
            for x in (found["analysis"], base)
        )
        assert slow is None or slow > fast
    if variant.startswith("without"):
        assert variant[8:] not in [a["name"] for a in found["analysis"]["allergens"]]
    refused = kitchen.post("/sauces/variants", {**body, "variant": "louder"}, 422)
    assert refused["errors"][0]["field"] == "variant"


@pytest.mark.parametrize(
    ("ask", "factor"),
    [
        ({"by": "meat", "for_kg": 1.5, "meat_kg": 2.0}, 4 / 3),
        ({"by": "servings", "for_servings": 4, "servings": 6}, 1.5),
        ({"by": "factor", "factor": 0.5}, 0.5),
        ({"by": "short", "line": 1, "have": "2 tbsp"}, 0.5),
    ],
)
def test_scaling_goes_by_what_is_asked(kitchen: Kitchen, ask, factor):
    found = kitchen.post("/scale", {"lines": TOMATO, **ask}, 200)
    assert found["factor"] == pytest.approx(factor, rel=1e-3)
    for line in found["lines"]:
        assert line["to_g"] == pytest.approx(line["from_g"] * factor, rel=1e-3, abs=2e-3)
        assert re.match(r"[\d.]+ g ", line["text"])
    whole = kitchen.post("/scale", {"lines": TOMATO, "by": "factor", "factor": 1.0}, 200)
    assert whole["lines"][0]["spoons"] == "1 1/4 cups"


def test_scaling_by_coats_covers_the_surface_and_a_missing_field_is_named(kitchen: Kitchen):
    ask = {"lines": TOMATO, "by": "coats", "surface_m2": 0.15, "coats": 2, "table_g": 100.0}
    one, two = (kitchen.post("/scale", {**ask, "coats": n}, 200)["total_g"] for n in (1, 2))
    assert two - one == pytest.approx(
        one - kitchen.post("/scale", {**ask, "coats": 0}, 200)["total_g"], rel=1e-3
    )
    wrong = kitchen.post("/scale", {"lines": TOMATO, "by": "meat"}, 422)
    assert {e["field"] for e in wrong["errors"]} == {"for_kg", "meat_kg"}
    for bad in ({"line": 40, "have": "1 g"}, {"line": 0, "have": "soon"}, {"line": 0}):
        assert kitchen.post("/scale", {"lines": TOMATO, "by": "short", **bad}, 422)["errors"]


def test_the_ledger_stops_raw_contact_at_the_plate(kitchen: Kitchen):
    moves = [
        {"kind": "split", "portion": "bowl", "to": "brush bowl", "mass_g": 120},
        {"kind": "touch", "portion": "brush bowl"},
        {"kind": "serve", "portion": "brush bowl"},
        {"kind": "serve", "portion": "bowl"},
    ]
    found = kitchen.post("/sauces/ledger", {"batch_g": 400, "moves": moves}, 200)
    assert [s["portion"] for s in found["stops"]] == ["brush bowl"]
    assert "boil it for" in found["stops"][0]["why"]
    assert found["served_g"] == pytest.approx(280)
    boiled = [*moves[:2], {"kind": "boil", "portion": "brush bowl"}, *moves[2:]]
    good = kitchen.post("/sauces/ledger", {"batch_g": 400, "moves": boiled}, 200)
    assert (good["stops"], good["served_g"]) == ([], pytest.approx(400))
    bad = kitchen.post(
        "/sauces/ledger", {"batch_g": 400, "moves": [{"kind": "serve", "portion": "jug"}]}, 422
    )
    assert bad["errors"][0]["field"] == "moves.0.portion"


def test_a_portion_keeps_what_it_is_for_and_an_older_one_is_told_from_its_steps(kitchen: Kitchen):
    def split(to: str, **more: str) -> dict[str, Any]:
        return {"kind": "split", "portion": "bowl", "to": to, "mass_g": 50.0, **more}

    touched = [{"kind": "touch", "portion": name} for name in ("brush bowl", "rub bowl")]
    moves = [
        *map(split, ("brush bowl", "rub bowl", "table", "in the pot", "on top")),
        split("for the table lamp", use="coat"),
        *touched,
        {"kind": "cook", "portion": "in the pot"},
    ]
    sauce = {"name": "S", "lines": ["400 g ketchup"], "moves": moves}
    kept = kitchen.post("/sauces", sauce, 201)["document"]["moves"]
    uses = {move["to"]: move["use"] for move in kept if move["kind"] == "split"}
    assert uses == {
        "brush bowl": "raw",
        "rub bowl": "rub",
        "table": "table",
        "in the pot": "cook-in",
        "on top": "coat",
        "for the table lamp": "coat",
    }


def test_no_portion_may_be_called_after_an_end_of_the_drawing(kitchen: Kitchen):
    """Raw sauce poured into a "plate" would be on the plate by name."""
    moves = [{"kind": "split", "portion": "bowl", "to": "plate", "mass_g": 20.0}]
    told = kitchen.post("/sauces/ledger", {"batch_g": 100.0, "moves": moves}, 422)["errors"][0]
    assert told["field"] == "moves.0.to"
    itself = [{"kind": "pour", "portion": "bowl", "to": "bowl"}]
    told = kitchen.post("/sauces/ledger", {"batch_g": 100.0, "moves": itself}, 422)["errors"][0]
    assert told["accepted"] == "the name of another portion"


def test_a_label_makes_an_ingredient_that_recipes_can_use(kitchen: Kitchen):
    label = {
        "name": "Harbour bottle",
        "serving_g": 30,
        "sugars_g": 10.2,
        "sodium_mg": 300,
        "order": ["brown sugar", "tomato paste"],
    }
    own = kitchen.post("/ingredients/label", label, 200)["ingredient"]
    found = analyse(kitchen, lines=["1 cup Harbour bottle"], own=[own])
    assert found["sugars"] == pytest.approx(0.34, abs=0.005)
    dish = {**SHORT_RIBS, "sauce": on_dish(kitchen, lines=["1 cup Harbour bottle"], own=[own])}
    assert kitchen.post("/forecasts", dish, 200)["fires"][0]["glaze"]["caramelises"]
    wrong = kitchen.post("/ingredients/label", {**label, "sugars_g": 40}, 422)
    assert "sugars_g" in {e["field"] for e in wrong["errors"]}


def test_lists_go_in_as_text_and_csv_and_come_out_as_csv(kitchen: Kitchen):
    text = kitchen.post(
        "/sauces/lines", {"format": "text", "content": "\n".join([*TOMATO, "", "=cmd()"])}, 200
    )
    assert text["lines"] == [*TOMATO, "=cmd()"]
    rows = list(csv.DictReader(io.StringIO(text["csv"])))
    assert [r["ingredient"] for r in rows[:2]] == ["tomato ketchup", "brown sugar"]
    assert rows[-1]["ingredient"] == "'=cmd()", "nothing that a spreadsheet would run"
    back = kitchen.post("/sauces/lines", {"format": "csv", "content": text["csv"]}, 200)
    masses = [
        analyse(kitchen, lines=lines[:4])["yield_g"] for lines in (text["lines"], back["lines"])
    ]
    assert masses[0] == pytest.approx(masses[1], rel=1e-3)
    assert (
        kitchen.post("/sauces/lines", {"format": "csv", "content": 'a,"b'}, 422)["errors"][0][
            "field"
        ]
        == "content"
    )
    assert len(kitchen.get("/ingredients")["ingredients"]) >= 150


def test_a_kept_sauce_survives_a_round_trip_and_is_not_taken_from_a_plan(kitchen: Kitchen):
    document = {"name": "Red", "kind": "glaze", "lines": [*TOMATO, "half a zorgle"], "for_kg": 1.5}
    kept = kitchen.post("/sauces", document)
    assert kept["document"]["lines"][-1] == "half a zorgle", "what cannot be read is kept"
    again = kitchen.post("/sauces", kept["document"])
    assert again["document"] == kept["document"]
    copy = on_dish(kitchen, **{**kept["document"], "sauce_id": kept["id"]})
    assert copy["uncounted"] == ["half a zorgle"]
    plan = kitchen.post("/plans", {"dish": {**SHORT_RIBS, "sauce": copy}})
    delete = kitchen.client.delete
    refused = delete(f"/api/v1/sauces/{kept['id']}")
    assert (refused.status_code, "Beef short ribs" in refused.get_json()["detail"]) == (409, True)
    assert kitchen.get(f"/sauces/{kept['id']}")["used_by"] == [plan["title"]]
    assert delete(f"/api/v1/sauces/{kept['id']}?replace=true").status_code == 204
    left = kitchen.get(f"/plans/{plan['id']}")["dish"]["layers"][0]["sauce"]
    assert (left["lines"], left["sauce_id"]) == (plan["dish"]["layers"][0]["sauce"]["lines"], None)
    assert delete(f"/api/v1/sauces/{again['id']}").status_code == 204
    assert delete(f"/api/v1/sauces/{again['id']}").status_code == 404
    assert kitchen.get("/sauces")["sauces"] == []
