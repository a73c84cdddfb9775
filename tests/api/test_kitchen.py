"""The kitchen over HTTP: appliances and what is assumed of them, calibration, fit, and what an
assumption is worth.
"""

from typing import Any

import numpy as np
import pytest
from tests.conftest import SHORT_RIBS, Kitchen, open_kitchen

POT = {"kind": "electric-pot", "name": "the tall pot", "power_w": 1400.0, "volume_l": 6.0}
BROILER = {"kind": "oven-broiler", "name": "its broiler", "rack_mm": 140.0}
RIBS = {"cut": "beef-short-ribs", "mass_kg": 1.6, "pieces": 6, "thickness_mm": 45.0}
BASKET = {"shape": "box", "width_mm": 240.0, "depth_mm": 220.0, "height_mm": 90.0}


def add(kitchen: Kitchen, status: int = 201, **fields):
    return kitchen.post("/kitchen/appliances", fields, status)


def test_an_empty_kitchen_knows_every_kind_and_assumes_nothing_silently(kitchen: Kitchen):
    empty = kitchen.get("/kitchen")
    assert empty["appliances"] == []
    for_plans = {name: told for name, told in empty["for_plans"].items() if told}
    assert for_plans == {}, "nothing is kept, and nobody said what small things there are"
    assert (empty["figures"], empty["learnt"]) == ({}, {})
    kinds = {k["key"]: k for k in empty["kinds"]}
    wanted = {
        "hot-oven",
        "fan-oven",
        "oven-broiler",
        "air-fryer",
        "air-fryer-two",
        "electric-pot",
        "stove-pot",
        "crisping-lid",
        "water-bath",
        "contact-grill",
        "gas-grill",
        "charcoal-grill",
        "smoker",
        "slow-cooker",
        "burner",
    }
    assert wanted <= set(kinds)
    assert all(f["assumed"] for k in kinds.values() for f in k["figures"])
    kept = {key: add(kitchen, kind=key, name=key) for key in kinds}
    assert all(one["figures"] == kinds[key]["figures"] for key, one in kept.items())


def test_stated_figures_go_into_dishes_and_move_the_forecast(kitchen: Kitchen):
    pot = add(kitchen, **POT)
    assert {f["name"]: f["assumed"] for f in pot["figures"]} | {
        "power_w": False,
        "volume_l": False,
        "gauge_kpa": True,
    } == {f["name"]: f["assumed"] for f in pot["figures"]}
    figures = kitchen.get("/kitchen")["figures"]
    assert figures == {"pot_power_w": 1400.0, "pot_volume_l": 6.0}
    plain = kitchen.post("/forecasts", SHORT_RIBS, 200)
    known = kitchen.post("/forecasts", {**SHORT_RIBS, "kitchen": figures}, 200)
    slow, quick = (found["slow_heats"][0]["come_up"]["likely_s"] for found in (plain, known))
    assert quick < 0.85 * slow
    assert {a["name"] for a in plain["assumed"]} - {a["name"] for a in known["assumed"]} == set(
        figures
    )
    idle = {**POT, "in_use": False}
    assert (
        kitchen.client.put(f"/api/v1/kitchen/appliances/{pot['id']}", json=idle).status_code == 200
    )
    assert kitchen.get("/kitchen")["figures"] == {}


KEPT = {"Kettle-Kitchen": "kept"}


def test_what_a_plan_leaves_open_is_of_the_kept_kitchen_where_that_is_asked_for(kitchen: Kitchen):
    """Every route that takes a plan; a figure of its own stays; and nothing without the word."""
    add(kitchen, **POT)
    add(kitchen, **{**BROILER, "rack_mm": 60.0})
    chain = kitchen.post("/plans", {"dish": SHORT_RIBS}, 201)["dish"]
    own = {**chain, "kitchen": {"pot_power_w": 900.0}}

    def asked(path, body, headers=KEPT):
        answer = kitchen.client.post(f"/api/v1{path}", json=body, headers=headers)
        assert answer.status_code in (200, 201), answer.get_json()
        return answer.get_json()

    def assumed(answer):
        return {one["name"] for one in answer["assumed"]}

    known = {"pot_power_w", "pot_volume_l", "rack_m"}
    plain, here = asked("/forecasts", chain, {}), asked("/forecasts", chain)
    assert assumed(plain) - assumed(here) == known
    up_s = [one["slow_heats"][0]["come_up"]["likely_s"] for one in (here, plain)]
    assert up_s[0] < 0.85 * up_s[1]
    stated = asked("/forecasts", own)["slow_heats"][0]["come_up"]["likely_s"]
    assert stated > 1.2 * up_s[0]
    for path, body in (
        ("/forecasts/effects", chain),
        ("/schools", chain),
        ("/repairs", chain),
        ("/explorer", {"chain": chain}),
        ("/advice", {"chain": chain}),
        ("/sauces/analyse", {"name": "x", "kind": "glaze", "lines": ["100 g honey"]}),
    ):
        assert asked(path, body) != asked(path, body, {}), path
    live = asked("/cooks", {"dish": own, "plan_id": None, "when": "now", "accepted": []})
    cook = kitchen.get(f"/cooks/{live['id']}")
    assert cook["dish"]["kitchen"]["rack_m"] == 0.06
    assert set(cook["dish"]["kitchen"]["machines"]) == {"pot", "broiler"}
    # Planned anew it keeps what the kitchen does not know: nothing here.
    again = {name: value for name, value in cook["again"]["kitchen"].items() if value}
    assert again == {}
    for one in kitchen.get("/kitchen")["appliances"]:
        assert kitchen.client.delete(f"/api/v1/kitchen/appliances/{one['id']}").status_code == 204
    again = kitchen.get(f"/cooks/{live['id']}")["again"]["kitchen"]
    assert again["pot_power_w"] == 900.0
    wrong = kitchen.client.post("/api/v1/schools", json=chain, headers={"Kettle-Kitchen": "mine"})
    assert wrong.status_code == 422
    assert wrong.get_json()["errors"][0]["field"] == "Kettle-Kitchen"


def test_of_two_ovens_one_stands_for_both_its_heat_and_its_calibration(kitchen: Kitchen):
    still = add(kitchen, kind="hot-oven", name="still", preheat_min=20.0)
    fan = add(kitchen, kind="fan-oven", name="fan", setting_c=190.0)
    seen = {"ground": "bread", "sign": "amber", "at_s": 300.0}
    kitchen.post(f"/kitchen/appliances/{fan['id']}/observations", seen)
    told = kitchen.get("/kitchen")
    assert told["figures"] == {"hot_oven_preheat_min": 20.0}
    assert told["learnt"] == {}
    assert [a["instead"] for a in told["appliances"]] == ["", "still"]
    idle = {**still["given"], "in_use": False}
    assert (
        kitchen.client.put(f"/api/v1/kitchen/appliances/{still['id']}", json=idle).status_code
        == 200
    )
    told = kitchen.get("/kitchen")
    assert told["figures"] == {
        "hot_oven_c": 190.0,
        "hot_oven_h_w_m2_k": 22.0,
        "hot_oven_preheat_min": 12.0,
    }
    assert told["learnt"]["oven"]["seen"] == 1
    assert [a["instead"] for a in told["appliances"]] == ["", ""]


def test_what_is_typical_of_its_kind_goes_along_and_what_is_stated_wins(kitchen: Kitchen):
    """A stove-top pot has a higher pressure and a stronger burner than the electric one a dish
    would assume.
    """
    pot = add(kitchen, kind="stove-pot", name="old pot")
    assert kitchen.get("/kitchen")["figures"] == {
        "pot_power_w": 1800.0,
        "pot_volume_l": 6.0,
        "pot_gauge_kpa": 103.0,
    }
    body = {**pot["given"], "gauge_kpa": 80.0}
    assert (
        kitchen.client.put(f"/api/v1/kitchen/appliances/{pot['id']}", json=body).status_code == 200
    )
    assert kitchen.get("/kitchen")["figures"]["pot_gauge_kpa"] == 80.0
    two = open_kitchen(kitchen.database.with_name("plain.sqlite3"))
    for kind in (
        "electric-pot",
        "hot-oven",
        "oven-broiler",
        "air-fryer",
        "air-fryer-two",
        "gas-grill",
    ):
        add(two, kind=kind, name=kind)
    assert two.get("/kitchen")["figures"] == {}


def test_settings_are_kept_over_a_restart_and_altitude_reaches_the_pot(kitchen: Kitchen):
    settings = {
        "altitude_m": 1500.0,
        "temperature": "F",
        "measures": "us",
        "hands": 2,
        "price_kwh": 0.3,
        "gear": ["thermometer"],
    }
    assert kitchen.client.put("/api/v1/kitchen/settings", json=settings).status_code == 200
    again = open_kitchen(kitchen.database)
    found = again.get("/kitchen")
    assert found["settings"] | settings == found["settings"]
    assert found["figures"] == {"altitude_m": 1500.0}
    high = again.post("/forecasts", {**SHORT_RIBS, "kitchen": found["figures"]}, 200)
    assert high["slow_heats"][0]["target_c"] == pytest.approx(114.15, abs=0.2)
    again.client.application.extensions["kettle_engine"].dispose()


@pytest.mark.parametrize(
    ("fields", "field", "accepted"),
    [
        ({"kind": "cauldron"}, "kind", "electric-pot"),
        ({"gauge_kpa": 500.0}, "gauge_kpa", "at most 110"),
        ({"name": ""}, "name", "at least 1"),
        ({"power_w": "strong"}, "power_w", "number"),
        ({"volume_l": 40.0}, "volume_l", "1.5 to 25 L"),
        ({"body_id": 99}, "body_id", "another appliance"),
        ({"racks_mm": [-1.0]}, "racks_mm.0", "30"),
        ({"kind": "air-fryer", "setting_c": 320.0}, "setting_c", "150 to 230"),
        ({"smell": 1}, "smell", "no field"),
    ],
)
def test_an_appliance_that_no_dish_could_use_is_refused_by_field(
    kitchen: Kitchen, fields, field, accepted
):
    errors = {e["field"]: e["accepted"] for e in add(kitchen, 422, **{**POT, **fields})["errors"]}
    assert field in errors, errors
    assert accepted in errors[field]


def test_a_field_that_there_is_not_is_told_as_that_whatever_it_is_called(kitchen: Kitchen):
    """`rack_m` is of a plan; an appliance has it in millimetres."""
    (error,) = add(kitchen, 422, **BROILER, rack_m=0.2)["errors"]
    assert (error["field"], error["accepted"]) == ("rack_m", "no field of this name")


def test_a_body_is_not_taken_from_under_what_shares_it(kitchen: Kitchen):
    oven = add(kitchen, kind="hot-oven", name="oven")
    broiler = add(kitchen, **BROILER, body_id=oven["id"])
    assert broiler["shares"] == "oven"
    delete = kitchen.client.delete
    refused = delete(f"/api/v1/kitchen/appliances/{oven['id']}")
    assert (refused.status_code, "its broiler" in refused.get_json()["detail"]) == (409, True)
    assert (
        add(kitchen, 422, kind="air-fryer", name="x", body_id=broiler["id"])["errors"][0]["field"]
        == "body_id"
    )
    assert delete(f"/api/v1/kitchen/appliances/{broiler['id']}").status_code == 204
    assert delete(f"/api/v1/kitchen/appliances/{oven['id']}").status_code == 204
    assert delete("/api/v1/kitchen/appliances/77").status_code == 404


def test_signs_narrow_the_heat_factor_move_the_forecast_and_can_be_forgotten(kitchen: Kitchen):
    broiler = add(kitchen, **BROILER)
    path = f"/kitchen/appliances/{broiler['id']}/observations"
    assert broiler["heat_says"].startswith("not calibrated")
    first = kitchen.post(path, {"ground": "scout", "sign": "bubbling", "at_s": 40.0})
    kitchen.wait(86_400)
    second = kitchen.post(path, {"ground": "food", "sign": "amber at the edges", "at_s": 90.0})
    history = second["appliance"]["history"]
    assert [h["observation_id"] is None for h in history] == [True, False, False]
    assert history[2]["log_sd"] < history[1]["log_sd"] < history[0]["log_sd"] == 0.35
    assert history[2]["factor"] > 1.1, "everything came early: a fierce broiler"
    assert second["after"]["likely_s"] < first["before"]["likely_s"]
    spread = [x["high_s"] / x["low_s"] for x in (first["before"], second["after"])]
    assert spread[1] < spread[0]
    known = kitchen.get("/kitchen")
    dish = {**SHORT_RIBS, "coats": 1}
    plain, after = (
        kitchen.post("/forecasts", {**dish, "kitchen": kept}, 200)["fires"][0]["glaze"][
            "milestones"
        ]["face"]["amber"]
        for kept in ({}, {"learnt": known["learnt"]})
    )
    assert after["likely_s"] < plain["likely_s"]
    assert after["high_s"] / after["low_s"] < plain["high_s"] / plain["low_s"]
    one = second["appliance"]["observations"][1]["id"]
    forgot = kitchen.client.delete(f"/api/v1/kitchen/observations/{one}").get_json()
    assert forgot["observations"][1]["forgotten"]
    assert forgot["history"] == first["appliance"]["history"]
    back = kitchen.post(f"/kitchen/observations/{one}/restore", None, 200)
    assert back["history"] == history


def test_signs_of_tonight_count_in_full_and_those_of_another_evening_in_part(kitchen: Kitchen):
    """A trial an hour before supper tells tonight's brush and batch; next week they are others."""
    broiler = add(kitchen, **BROILER)
    path = f"/kitchen/appliances/{broiler['id']}/observations"
    seen = kitchen.post(path, {"ground": "scout", "sign": "amber", "at_s": 90.0})
    kitchen.wait(3600)
    tonight = kitchen.get("/kitchen")
    kitchen.wait(7 * 86_400)
    later = kitchen.get("/kitchen")
    assert later["appliances"][0]["history"] == seen["appliance"]["history"]
    now, then = (
        {name: np.diag(np.reshape(one["cov"], (4, 4))) for name, one in found["learnt"].items()}
        for found in (tonight, later)
    )
    assert (then["broiler"] > now["broiler"] + [0.002, 0.005, 0.0, 0.0]).all()
    heat = [found["learnt"]["broiler"]["mean"][0] for found in (tonight, later)]
    assert 0.9 * heat[0] < heat[1] < heat[0], "the broiler itself stays nearly as it was found"
    assert later["for_plans"]["learnt"] == later["learnt"]


def test_a_second_evening_tells_more_of_the_broiler_than_a_second_sign(kitchen: Kitchen):
    """Brush and batch are others by then, so that what both have in common is the broiler."""
    spreads = []
    for apart_s in (600.0, 7 * 86_400.0):
        broiler = add(kitchen, **{**BROILER, "in_use": not spreads})
        path = f"/kitchen/appliances/{broiler['id']}/observations"
        kitchen.post(path, {"ground": "scout", "sign": "bubbling", "at_s": 60.0})
        kitchen.wait(apart_s)
        seen = kitchen.post(path, {"ground": "scout", "sign": "amber", "at_s": 150.0})
        spreads.append(seen["appliance"]["history"][-1]["log_sd"])
    assert spreads[1] < spreads[0] - 0.002


def test_plain_bread_and_syrup_calibrate_too_and_nonsense_does_not(kitchen: Kitchen):
    fryer = add(kitchen, kind="air-fryer", name="fryer")
    path = f"/kitchen/appliances/{fryer['id']}/observations"
    for ground, sign, at_s in (("syrup", "bubbling", 100.0), ("bread", "amber", 300.0)):
        found = kitchen.post(path, {"ground": ground, "sign": sign, "at_s": at_s})
        assert found["appliance"]["history"][-1]["log_sd"] < 0.15
    bad = kitchen.post(
        path, {"ground": "food", "sign": "bubbling", "at_s": 60.0, "sauce_id": 9}, 422
    )
    assert bad["errors"][0]["field"] == "sauce_id"
    bad = kitchen.post(path, {"ground": "toast", "sign": "smoke", "at_s": -1}, 422)
    assert {e["field"] for e in bad["errors"]} == {"ground", "sign", "at_s"}
    for at_s in (1.0, 9000.0):
        bad = kitchen.post(path, {"ground": "syrup", "sign": "amber", "at_s": at_s}, 422)
        assert bad["errors"][0]["field"] == "at_s"
        assert "is expected" in bad["errors"][0]["accepted"]
    pot = add(kitchen, **POT)
    assert kitchen.post(
        f"/kitchen/appliances/{pot['id']}/observations",
        {"ground": "food", "sign": "amber", "at_s": 60.0},
        422,
    )["errors"]
    assert (
        kitchen.post(
            "/kitchen/appliances/99/observations",
            {"ground": "food", "sign": "amber", "at_s": 60.0},
            404,
        )["status"]
        == 404
    )


def test_a_sign_that_changed_figures_no_longer_explain_teaches_nothing_and_breaks_nothing(
    kitchen: Kitchen,
):
    far = {**BROILER, "rack_mm": 350.0}
    broiler = add(kitchen, **far, element_w_m2=9000.0)
    path = f"/kitchen/appliances/{broiler['id']}"
    sauce = kitchen.post(
        "/sauces", {"name": "Pale", "lines": ["300 g passata", "100 g polyol sweetener"]}
    )
    sign = {
        "ground": "scout",
        "sign": "amber",
        "at_s": 400.0,
        "sauce_id": sauce["id"],
        "coat_mm": 2.0,
    }
    kitchen.post(path + "/observations", sign)
    assert (
        kitchen.client.put("/api/v1" + path, json={**far, "element_w_m2": 1000.0}).status_code
        == 200
    )
    before, after = kitchen.get("/kitchen")["appliances"][0]["history"]
    assert (after["factor"], after["log_sd"]) == (before["factor"], before["log_sd"]) == (1.0, 0.35)
    never = kitchen.post(path + "/observations", sign, 422)
    assert never["errors"][0]["accepted"] == "a sign that Pale shows under this heat"


def test_a_sauce_in_a_belief_outlives_its_recipe(kitchen: Kitchen):
    sauce = kitchen.post("/sauces", {"name": "Honey", "lines": ["150 g honey", "50 g soy sauce"]})
    broiler = add(kitchen, **BROILER)
    body = {"ground": "scout", "sign": "amber", "at_s": 90.0, "sauce_id": sauce["id"]}
    before = kitchen.post(f"/kitchen/appliances/{broiler['id']}/observations", body)["appliance"][
        "history"
    ]
    assert kitchen.client.delete(f"/api/v1/sauces/{sauce['id']}").status_code == 204
    assert kitchen.get("/kitchen")["appliances"][0]["history"] == before


def test_a_learnt_belief_that_is_none_is_refused(kitchen: Kitchen):
    bad = {"mean": [0, 0, 0, 9], "cov": [0.0] * 16}
    errors = kitchen.post(
        "/forecasts", {**SHORT_RIBS, "kitchen": {"learnt": {"broiler": bad}}}, 422
    )["errors"]
    assert errors[0]["field"] == "kitchen.learnt.broiler.mean"
    lopsided = {"mean": [0, 0, 0, 0], "cov": [0.0, 1.0, *[0.0] * 14]}
    errors = kitchen.post(
        "/forecasts", {**SHORT_RIBS, "kitchen": {"learnt": {"campfire": lopsided}}}, 422
    )["errors"]
    assert {e["field"] for e in errors} == {
        "kitchen.learnt.campfire",
        "kitchen.learnt.campfire.cov",
    }


def test_fit_tells_pieces_per_layer_batches_and_the_line(kitchen: Kitchen):
    found = kitchen.post("/fit", {**RIBS, "inside": BASKET}, 200)
    assert found["batches"] == -(-6 // found["per_layer"])
    assert len(found["places"]) == min(6, found["per_layer"])
    assert found["height_mm"] == 45.0
    pot = {
        "shape": "round",
        "width_mm": 220.0,
        "height_mm": 150.0,
        "volume_l": 5.7,
        "least_liquid_l": 0.25,
    }
    deep = kitchen.post(
        "/fit", {**RIBS, "inside": pot, "touching": True, "stacked": True, "trivet_mm": 20.0}, 200
    )
    assert deep["fill"]["liquid_after_l"] > deep["fill"]["liquid_before_l"] == 0.25
    assert deep["verdicts"][0]["level"] == "fits"
    bad = kitchen.post("/fit", {**RIBS, "cut": "dragon", "inside": BASKET}, 422)
    assert "beef-short-ribs" in bad["errors"][0]["accepted"]


def test_an_assumption_shows_its_effect_and_more_is_asked_only_where_it_matters(kitchen: Kitchen):
    found = kitchen.post("/forecasts/effects", {**SHORT_RIBS, "state": "frozen"}, 200)["effects"]
    by = {e["name"]: e for e in found}
    pot = {"pot_power_w", "pot_volume_l", "pot_gauge_kpa"}
    assert set(by) == {"altitude_m", "broiler_w_m2", "rack_m", "broiler_preheat_min", *pot}
    assert by["pot_power_w"]["plate_low_min"] > 2 > -1 > by["pot_power_w"]["plate_high_min"], (
        "a weak pot is slow"
    )
    assert all(
        e["ask"] == (max(abs(e["plate_low_min"]), abs(e["plate_high_min"])) > 5) for e in found
    )
    grill = kitchen.post(
        "/forecasts/effects", {**SHORT_RIBS, "tenderise": "braise", "finish": "oven"}, 200
    )["effects"]
    assert {"oven_preheat_min", "hot_oven_preheat_min"} <= {e["name"] for e in grill}
    slow = next(e for e in grill if e["name"] == "oven_preheat_min")
    assert slow["plate_high_min"] > 1.0, "a slow oven delays the braise"
    told = kitchen.post(
        "/forecasts/effects", {**SHORT_RIBS, "kitchen": {"pot_power_w": 1200.0}}, 200
    )["effects"]
    assert "pot_power_w" not in {e["name"] for e in told}


def test_a_bath_a_smoker_and_a_slow_cooker_reach_the_plans_that_use_them(kitchen: Kitchen):
    add(
        kitchen,
        kind="water-bath",
        name="deep bath",
        setting_c=70.0,
        volume_l=20.0,
        power_w=1400.0,
        buttons={"bath": "Hold"},
    )
    add(kitchen, kind="smoker", name="smoker in the yard", setting_c=120.0, top_c=130.0)
    add(kitchen, kind="slow-cooker", name="crock", volume_l=3.0)
    add(kitchen, kind="contact-grill", name="press", setting_c=180.0)
    found = kitchen.get("/kitchen")
    wanted = {
        "bath_c": 70.0,
        "bath_volume_l": 20.0,
        "bath_power_w": 1400.0,
        "smoke_c": 120.0,
        "slow_volume_l": 3.0,
        "contact_c": 180.0,
    }
    assert found["figures"] == wanted
    assert {"bath", "smoker", "slow", "contact"} <= set(found["machines"])
    own = found["for_plans"]
    assert {name: own[name] for name in wanted} == wanted
    assert own["machines"] == found["machines"]
    bath = {**SHORT_RIBS, "tenderise": "bath"}
    warm, usual = (kitchen.post("/forecasts", {**bath, "kitchen": k}, 200) for k in (own, {}))
    warm, usual = (found["slow_heats"][0] for found in (warm, usual))
    assert warm["timer_s"] < 0.8 * usual["timer_s"]
    assert warm["target_c"] == 70.0
    cook = kitchen.post("/cooks", {"dish": {**bath, "kitchen": own}})
    assert "“Hold”" in kitchen.get(f"/cooks/{cook['id']}/live")["says"]
    hot = kitchen.post(
        "/forecasts",
        {**SHORT_RIBS, "tenderise": "smoke", "kitchen": {**own, "smoke_c": 150.0}},
        200,
    )
    repair = next(w["repair"] for w in hot["watch_outs"] if w["id"] == "over-top")
    assert repair == [{"op": "add", "path": "/stages/1/dial", "value": 130.0}]
    small = kitchen.post(
        "/forecasts",
        {**SHORT_RIBS, "tenderise": "slow", "mass_kg": 2.6, "pieces": 9, "kitchen": own},
        200,
    )
    assert "pot-full" in [w["id"] for w in small["watch_outs"]]


def test_a_slow_oven_its_top_and_the_small_gear_reach_the_plan(kitchen: Kitchen):
    oven = {"kind": "hot-oven", "name": "slow oven", "preheat_min": 40.0, "top_c": 220.0}
    add(kitchen, **oven)
    add(kitchen, **BROILER, racks_mm=[90.0, 180.0])
    found = kitchen.get("/kitchen")
    assert found["figures"]["hot_oven_preheat_min"] == 40.0
    dish = {**SHORT_RIBS, "finish": "oven"}

    def planned(gear: list[str] | None) -> dict[str, Any]:
        kept = {**found["figures"], "machines": found["machines"], "gear": gear}
        return kitchen.post("/forecasts", {**dish, "kitchen": kept}, 200)

    usual = kitchen.post("/forecasts", dish, 200)
    slow = planned(None)
    heating, before = (
        {s["key"]: s["band"]["likely_s"] for s in found["links"]}["finish.warm_up"]
        for found in (slow, usual)
    )
    assert heating == pytest.approx(2400, rel=0.02)
    assert heating > 2 * before
    top = next(w for w in slow["watch_outs"] if w["id"] == "over-top")
    assert "up to 220 °C" in top["message"]
    assert top["repair"] == [{"op": "add", "path": "/stages/3/dial", "value": 220.0}]
    ids = {w["id"] for w in planned([])["watch_outs"]}
    assert {"no-thermometer", "no-rack", "no-trivet", "tongs"} <= ids
    ids = {
        w["id"]
        for w in planned(["thermometer", "wire rack", "trivet", "second pair of tongs"])[
            "watch_outs"
        ]
    }
    assert not {"no-thermometer", "no-rack", "no-trivet"} & ids
    assert "rack" in ids
    assert not {"no-thermometer", "no-rack", "tongs"} & {w["id"] for w in slow["watch_outs"]}, (
        "nobody said"
    )
    advice = kitchen.post(
        "/advice", {"chain": {**dish, "kitchen": {"machines": found["machines"]}}}, 200
    )
    for setting in (advice["choice"], *advice["runners"]):
        broiled = setting["heat"] == "broiler"
        assert setting["dial"] in (0.09, 0.18) if broiled else setting["dial"] <= 220.0
    wrong = kitchen.post("/kitchen/appliances", {**oven, "setting_c": 240.0}, 422)
    assert wrong["errors"][0]["field"] == "setting_c"
    assert "220" in wrong["errors"][0]["accepted"]


def test_what_does_not_fit_is_told_on_the_plan_before_anything_is_hot(kitchen: Kitchen):
    add(kitchen, kind="air-fryer", name="small", width_mm=200.0, depth_mm=180.0, height_mm=60.0)
    add(kitchen, **POT)

    def told(**fields: Any) -> list[str]:
        machines = kitchen.get("/kitchen")["machines"]
        dish = {**SHORT_RIBS, "finish": "air_fryer", "kitchen": {"machines": machines}, **fields}
        found = kitchen.post("/forecasts", dish, 200)["watch_outs"]
        assert len({w["id"] for w in found}) == len(found)
        return [f"{w['level']}: {w['message']}" for w in found if w["id"].startswith("fit-")]

    assert any("of 6 ribs go in at once" in message for message in told())
    assert not any(
        "go in at once" in message for message in told(pieces=2, mass_kg=0.4, thickness_mm=30.0)
    )
    high = told(pieces=1, mass_kg=1.6, thickness_mm=70.0)
    assert high[0].startswith("stop: In the air fryer: a rib is 7 cm high")
    assert told(finish="broiler") == [], "nobody entered the broiler"
    crowded = told(finish="broiler", pieces=16, mass_kg=4.0, thickness_mm=50.0)
    assert any("go in at once" in message for message in crowded), "the pot takes them in batches"
    assert not told(finish="broiler", liquid_l=0.1), "its liquid has a rule of its own"
    assert (
        told(cut="cauliflower", pieces=1, mass_kg=0.5, thickness_mm=40.0, coats=1, bite="tug") == []
    )
    two = open_kitchen(kitchen.database.with_name("two.sqlite3"))
    add(two, kind="air-fryer-two", name="two")
    inside = two.get("/kitchen")["machines"]["air_fryer"]["inside"]
    assert inside["zones"] == 2
    one, both = (two.post("/fit", {**RIBS, "inside": {**inside, "zones": n}}, 200) for n in (1, 2))
    assert one["batches"] == 2 * both["batches"] or both["batches"] == 1 < one["batches"]


def test_the_machines_own_words_stand_in_the_instructions(kitchen: Kitchen):
    add(kitchen, **POT, buttons={"pressure": "Hi pressure"}, display="hours", counts_up=True)
    add(kitchen, **BROILER, buttons={"broiler": "Upper heat"})
    machines = kitchen.get("/kitchen")["machines"]
    live = kitchen.post("/cooks", {"dish": {**SHORT_RIBS, "kitchen": {"machines": machines}}})
    told = kitchen.tell(live["id"], kind="done", step="season.season")
    assert "Press “Hi pressure”, 0:" in told["says"]
    kitchen.tell(live["id"], kind="done", step="cook.load")
    kitchen.wait(900)
    assert kitchen.tell(live["id"], kind="done", step="cook.come_up")["detail"].startswith(
        "It counts up"
    )
