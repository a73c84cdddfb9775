"""Where practitioners disagree: every school that is offered is one that the plan then follows, and
it moves what it says.
"""

import json

import pytest

from bluekettle.core.chain import forecast_plan, school_rows, schools_of
from bluekettle.core.chain.schools import SCHOOLS
from bluekettle.core.errors import OutOfRange
from bluekettle.core.glaze import draw_members
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from bluekettle.services.clauses import clauses_of
from bluekettle.services.schools import changed
from bluekettle.services.shopping import shopping_of
from tests.chain.conftest import TEMPLATES, chain

FEW = draw_members(1, 16)
# A sauce too thin for a fire goes on after it only: that is told as not with the rest of the plan.
NOT_WITH_THE_REST = {
    ("bones-out-sandwich", "sauce", "before"),
    ("bones-out-sandwich", "sauce", "coats"),
}


def options(document, question):
    """The patches of a question's schools."""
    found = schools_of(forecast_of(document))
    return {o.key: o.patch for s in found if s.key == question for o in s.choices}


def forecast_of(document):
    return forecast_plan(plan_of(ChainDocument.model_validate(document)), None, FEW)


def followed(document):
    """The school that a plan follows, by question."""
    return {
        school.key: next(one.key for one in school.choices if one.chosen)
        for school in schools_of(forecast_of(document))
    }


def test_every_question_and_answer_has_its_words_and_some_plan_that_asks_it():
    asked = {
        f"{school.key}/{one.key}"
        for document in (*TEMPLATES.values(), loin(), rubbed_ribs())
        for school in schools_of(forecast_of(document))
        for one in school.choices
    }
    assert asked == set(school_rows())
    assert {key.partition("/")[0] for key in school_rows()} == set(SCHOOLS)


@pytest.mark.parametrize("key", TEMPLATES)
def test_what_is_followed_after_a_tap_is_what_was_tapped(key):
    document = ChainDocument.model_validate(TEMPLATES[key]).model_dump(mode="json")
    before = followed(document)
    for school in schools_of(forecast_of(document)):
        assert [one.chosen for one in school.choices].count(True) == 1
        for one in school.choices:
            if one.chosen:
                assert one.patch == ()
                continue
            if (key, school.key, one.key) in NOT_WITH_THE_REST:
                with pytest.raises(OutOfRange):
                    forecast_of(changed(document, one.patch))
                continue
            after = followed(changed(document, one.patch))
            assert after[school.key] == one.key, (school.key, one.key)
            others = {k: was for k, was in before.items() if k != school.key and k in after}
            assert {k: after[k] for k in others} == others


def test_schools_move_the_inputs_that_they_name():
    """Later release is slower; a thaw takes a night; powder browns skin sooner; a coat after the
    fire leaves it bare."""
    document = chain("frozen-split")
    told = ChainDocument.model_validate(document).model_dump(mode="json")
    base = forecast_of(told)
    natural = forecast_of(changed(told, options(document, "release")["natural"]))
    assert natural.total.likely_s > base.total.likely_s + 120.0
    thawed = forecast_of(changed(told, options(document, "frozen")["fridge"]))
    assert thawed.total.likely_s > base.total.likely_s + 8 * 3600.0
    assert thawed.slows[0].timer_s <= base.slows[0].timer_s
    ribs = ChainDocument.model_validate(chain("pressure-hot-oven")).model_dump(mode="json")
    (more,) = options(ribs, "liquid")["more"]
    assert more["value"] == 0.48  # l: half as much again as the 0.32 that a pot wants
    sauced = options(ribs, "sauce")
    assert forecast_of(ribs).fires[-1].under.dish.coats == 1
    assert forecast_of(changed(ribs, sauced["coats"])).fires[-1].under.dish.coats == 2
    assert forecast_of(changed(ribs, sauced["after"])).fires[-1].under.dish.coats == 0


def test_strands_tossed_in_juice_have_it_to_lose_before_they_crisp():
    """0.2 mm of water: 0.2 kg/m², 60 g a kilogram of meat; and it is poured off again."""
    told = ChainDocument.model_validate(chain("strands-broiled")).model_dump(mode="json")
    drained = forecast_of(told)
    wet = changed(told, options(told, "juice")["tossed"])
    tossed = forecast_of(wet)
    assert tossed.fires[-1].timer_s > drained.fires[-1].timer_s + 20.0
    (used,) = tossed.sauce_kg.values()
    assert used == pytest.approx(0.2 * tossed.fires[-1].under.dish.surface_m2(), rel=0.05)
    lines = wet["layers"][0]["sauce"]["lines"]
    assert [(line["ingredient"], line["mass_g"]) for line in lines] == [("pot-juice", 108.0)]
    # It is in the pot: nobody mixes or buys it.
    assert not [link for link in tossed.links if link.key.endswith(".made")]
    bought = [one.name for one in shopping_of([("x", ChainDocument.model_validate(wet))], [])]
    assert bought == ["pork shoulder pieces"]
    again = changed(wet, options(wet, "juice")["drained"])
    assert forecast_of(again).fires[-1].timer_s == drained.fires[-1].timer_s
    assert "tossed" in options(again, "juice")
    # A sauce of the cook's own by that name is left alone.
    named = {**again, "layers": [{"id": "own-juice", "sauce": "plum-tea"}]}
    tossed_too = changed(named, options(named, "juice")["tossed"])
    assert followed(tossed_too)["juice"] == "tossed"
    assert tossed_too["layers"][0]["sauce"] == "plum-tea"
    # Roasted dry there is none to measure back; under a sauce of its own there is no room for it.
    roasted = chain("strands-broiled")
    roasted["stages"][1] = {
        "kind": "heat",
        "id": "pot",
        "heat": "oven",
        "until": {"by": "bite", "bite": "shreds"},
    }
    assert options(roasted, "juice") == {}
    sauced = chain("strands-broiled")
    sauced["layers"] = [{"id": "glaze", "sauce": "plum-tea"}]
    sauced["stages"][-1]["acts"] = [{"do": "coat", "layer": "glaze", "at_min": 2.0}]
    assert options(sauced, "juice") == {}


def loin(*stages):
    """A lean loin out of a bath, bare into a hot oven; what comes between."""
    layers = [
        {"id": "butter", "sauce": {"name": "butter", "lines": [{"ingredient": "butter"}]}},
        {"id": "rub", "spice_g": 20.0},
        {"id": "glaze", "sauce": "plum-tea"},
    ]
    layers[0]["sauce"]["lines"][0]["mass_g"] = 30.0
    bath = {
        "kind": "heat",
        "id": "bath",
        "heat": "bath",
        "dial": 62.0,
        "until": {"by": "minutes", "minutes": 150.0},
    }
    oven = {"kind": "heat", "id": "oven", "heat": "oven", "until": {"by": "colour"}}
    return ChainDocument.model_validate(
        {
            "food": {"cut": "pork-loin", "mass_kg": 1.2, "pieces": 2, "thickness_mm": 60.0},
            "layers": layers,
            "stages": [bath, *stages, {**oven, "dial": 230.0}],
        }
    ).model_dump(mode="json")


def browned(document):
    """How far the likely surface had browned before the last fire, by its index [-]."""
    return forecast_of(document).fires[-1].under.below.dried[0, 2]


def rubbed_ribs():
    """Racks under a rub of sugar and spice, in foil, then bare under the grill."""
    document = chain("foil-then-grill")
    season = [i for i, one in enumerate(document["stages"]) if one["kind"] == "season"]
    for place in season[1:]:
        del document["stages"][place]
    del document["layers"][1]
    document["stages"][-1]["until"] = {"by": "colour"}
    return ChainDocument.model_validate(document).model_dump(mode="json")


def test_sugar_goes_on_last_where_a_wet_heat_washes_it_off():
    document = rubbed_ribs()
    grams = document["layers"][0]["sugar_g"]
    last = changed(document, options(document, "sugar")["last"])
    assert [layer["sugar_g"] for layer in last["layers"]] == [0.0, pytest.approx(grams, abs=0.1)]
    assert forecast_of(document).fires[-1].coating.sucrose == 0.0
    film = forecast_of(last).fires[-1].coating
    area = forecast_of(last).fires[-1].under.dish.surface_m2()
    assert film.sucrose * film.coat_kg_m2 == pytest.approx(1e-3 * grams / area, rel=0.02)
    assert amber_s(last) < 0.9 * amber_s(document)
    edge = [forecast_of(one).fires[-1].milestones.bands["edge"] for one in (last, document)]
    assert edge[0]["mahogany"].likely_s < 0.8 * edge[1]["mahogany"].likely_s
    assert edge[0]["bitter"].reached > edge[1]["bitter"].reached + 0.1
    back = changed(last, options(last, "sugar")["with"])
    assert back["layers"] == [{**document["layers"][0], "sugar_g": pytest.approx(grams, abs=0.1)}]
    assert back["stages"] == document["stages"]
    # What a dry heat leaves there is there in any case.
    smoked = {**document, "stages": [dict(one) for one in document["stages"]]}
    heat = next(one for one in smoked["stages"] if one["kind"] == "heat")
    heat["heat"] = "smoker"
    assert options(smoked, "sugar") == {}


def test_wet_food_is_blotted_before_a_rub_and_not_after_it():
    document = rubbed_ribs()
    document["stages"] = [one for one in document["stages"] if one["kind"] != "blot"]
    last = changed(document, options(document, "sugar")["last"])
    keys = [link.key for link in forecast_of(last).links]
    assert [key for key in keys if key.endswith((".blot", ".rub"))] == [
        "brine.rub",
        "sugar.blot",
        "sugar.rub",
    ]


def amber_s(document, colour="amber"):
    """When the likely face of the last fire has its colour [s]."""
    return forecast_of(document).fires[-1].milestones.bands["face"][colour].likely_s


def test_a_film_of_oil_is_no_coat_and_lean_food_browns_a_little_sooner():
    """0.1 mm of it: 0.09 kg/m², a fiftieth of what hot air resists."""
    bare, dry = forecast_of(loin()), amber_s(loin())
    tapped = changed(loin(), options(loin(), "film")["oil"])
    oiled = forecast_of(tapped)
    assert oiled.fires[-1].under.dish.coats == 0
    assert 0.90 * dry < amber_s(tapped) < 0.99 * dry
    crisp = [one.fires[-1].milestones.bands["face"]["crisp"].likely_s for one in (bare, oiled)]
    assert crisp[1] == pytest.approx(crisp[0], rel=0.02)
    area = oiled.fires[-1].under.dish.surface_m2()
    assert list(oiled.sauce_kg.values()) == [pytest.approx(0.1 * 0.92 * area, rel=0.05)]
    for question in ("sauce", "boil"):
        assert options(tapped, question) == {}
    assert amber_s(changed(tapped, options(tapped, "film")["none"])) == dry
    assert options(changed(tapped, options(tapped, "film")["none"]), "film")["oil"]
    assert "film" not in {one.key for one in schools_of(forecast_of(chain("pressure-hot-oven")))}


def test_butter_is_oil_on_a_rub_too_and_is_washed_off_by_a_wet_heat():
    butter = {"kind": "dress", "id": "butter", "layer": "butter", "mm": 0.1}
    rub = {"kind": "season", "id": "rub", "layer": "rub"}
    glaze = {"kind": "dress", "id": "glaze", "layer": "glaze"}
    pot = {
        "kind": "heat",
        "id": "pot",
        "heat": "simmer",
        "until": {"by": "minutes", "minutes": 5.0},
    }
    first = {
        "kind": "heat",
        "id": "fryer",
        "heat": "air_fryer",
        "dial": 200.0,
        "until": {"by": "minutes", "minutes": 5.0},
    }
    assert 0.9 * amber_s(loin(rub)) < amber_s(loin(rub, butter)) < amber_s(loin(rub)) - 5.0
    again = loin(butter, butter | {"id": "again"})
    assert amber_s(again) == pytest.approx(amber_s(loin(butter)), rel=0.02)
    assert amber_s(loin(butter, pot)) == amber_s(loin(butter | {"layer": "glaze"}, pot))
    # On what an earlier fire left, and out of that fire into this one.
    later, sooner = amber_s(loin(first, butter)), amber_s(loin(butter, first))
    assert sooner < later < amber_s(loin(first))
    # Under a sauce it is the sauce that browns.
    assert amber_s(loin(butter, glaze)) == pytest.approx(amber_s(loin(glaze)), rel=0.02)


def test_skin_is_plain_or_powdered_or_oiled():
    """Wings fried until they are hot inside, and browned bare: what is on them tells in both."""
    document = chain("leavened-skin")
    fry = document["stages"][1] | {"dial": 160.0}
    bake = document["stages"][3] | {"until": {"by": "colour"}}
    document["stages"] = [document["stages"][0], fry, bake]
    told = ChainDocument.model_validate(document).model_dump(mode="json")
    ways = {answer: changed(told, patch) for answer, patch in options(told, "skin").items()}
    before = {answer: browned(one) for answer, one in ways.items()}
    assert before["leavened"] > 1.2 * before["plain"]
    assert 1.05 * before["plain"] < before["oiled"] < before["leavened"]
    sooner = {answer: amber_s(one, "mahogany") for answer, one in ways.items()}
    assert max(sooner["leavened"], sooner["oiled"]) < 0.98 * sooner["plain"]
    for answer, one in ways.items():
        assert followed(one)["skin"] == answer
        for other, patch in options(one, "skin").items():
            assert followed(changed(one, patch))["skin"] == other
    powdered = changed(ways["oiled"], options(ways["oiled"], "skin")["leavened"])
    assert [one["kind"] for one in powdered["stages"]].count("dress") == 0


@pytest.mark.parametrize(
    ("heat", "asked"), [("oven", True), ("smoker", True), ("foil", False), ("bath", False)]
)
def test_skin_is_asked_of_where_it_goes_bare_into_dry_heat(heat, asked):
    document = chain("leavened-skin")
    first = {"kind": "heat", "id": "first", "heat": heat, "until": {"by": "bite", "bite": "tug"}}
    document["stages"] = [document["stages"][0], first, document["stages"][3]]
    assert bool(options(document, "skin")) == asked


def test_a_low_stretch_first_makes_the_hot_end_shorter_and_the_whole_longer():
    told = ChainDocument.model_validate(chain("bath-then-low-high")).model_dump(mode="json")
    both = forecast_of(told)
    single = forecast_of(changed(told, options(told, "steps")["single"]))
    assert len(single.fires) == len(both.fires) - 1
    assert both.fires[-1].timer_s < 0.6 * single.fires[-1].timer_s
    assert both.total.likely_s > single.total.likely_s + 120.0


def test_a_low_stretch_that_cooks_the_food_is_no_matter_of_taste():
    """Taken out of a plan of two stretches alone it would leave the food raw under the hot one."""
    told = ChainDocument.model_validate(chain("bath-then-low-high")).model_dump(mode="json")
    assert options(told, "steps")
    heats = [i for i, stage in enumerate(told["stages"]) if stage["kind"] == "heat"]
    assert len(heats) == 3
    told["food"]["state"] = "fridge"
    del told["stages"][heats[0]]
    assert options(told, "steps") == {}


def test_the_route_tells_what_each_school_changes(kitchen):
    found = kitchen.post("/schools", chain("pressure-hot-oven"), 200)["schools"]
    release = next(one for one in found if one["key"] == "release")
    later = {one["key"]: one["later_s"] for one in release["choices"]}
    assert later["quick"] == 0.0 < later["natural"]
    assert [one["chosen"] for one in release["choices"]] == [True, False, False]
    assert [one["key"] for one in found if one["in_view"]] == ["bite", "sauce", "release"]
    bad = chain("pressure-hot-oven")
    bad["food"]["mass_kg"] = 900.0
    assert kitchen.post("/schools", bad, 422)["errors"][0]["field"] == "food.mass_kg"
    assert json.dumps(found).count("NaN") == 0


@pytest.mark.parametrize("own_powder", [False, True])
def test_a_change_of_mind_leaves_a_plan_that_still_works(own_powder):
    """Without, powder, and both again: one layer of it, no fault."""
    document = next(
        ChainDocument.model_validate(one).model_dump(mode="json")
        for one in TEMPLATES.values()
        if any(school.key == "skin" for school in schools_of(forecast_of(one)))
    )
    if not own_powder:
        document = without_powder(document)
    for answer in ("plain", "leavened", "plain", "leavened"):
        patch = options(document, "skin")[answer]
        document = changed(document, patch) if patch else document
        forecast_of(document)
        assert followed(document)["skin"] == answer
    assert [layer["leavening"] for layer in document["layers"]].count(True) == 1


def without_powder(document):
    """The same plan whose skin goes plain and that knows no powder."""
    season = next(stage for stage in document["stages"] if stage["kind"] == "season")
    layers = [layer for layer in document["layers"] if not layer["leavening"]]
    stages = [
        {**stage, "layer": None} if stage is season else stage for stage in document["stages"]
    ]
    return {**document, "layers": layers, "stages": stages}


def test_poultry_taken_out_below_its_safe_middle_is_no_school():
    document = next(
        ChainDocument.model_validate(one).model_dump(mode="json")
        for one in TEMPLATES.values()
        if any(school.key == "poultry" for school in schools_of(forecast_of(one)))
    )
    for patch in options(document, "poultry").values():
        document = changed(document, patch) if patch else document
    place = next(
        i for i, stage in enumerate(document["stages"]) if stage.get("until", {}).get("core_c")
    )
    document["stages"][place]["until"]["core_c"] = 65.0
    assert "poultry" not in {school.key for school in schools_of(forecast_of(document))}


def test_a_school_past_the_bounds_of_a_document_is_no_error(kitchen):
    """The longest plan has no room for one stage more: its school stays without a figure."""
    document = chain("pressure-hot-oven")
    room = ChainDocument.model_json_schema()["properties"]["stages"]["maxItems"]
    filler = [
        {"kind": "rest", "id": f"wait-{n}", "minutes": 1.0}
        for n in range(room - len(document["stages"]))
    ]
    document["stages"] = [*document["stages"], *filler]
    found = kitchen.post("/schools", document, 200)["schools"]
    sauce = next(one for one in found if one["key"] == "sauce")
    assert [one["key"] for one in sauce["choices"]] == ["before", "coats", "after", "both"]


def test_a_membrane_and_a_rub_take_the_hands_that_they_are_said_to():
    """Four racks: 20 s and 40 s each for the membrane; massaged 60 + 35 each, patted 60 + 12."""
    document = ChainDocument.model_validate(chain("foil-then-grill")).model_dump(mode="json")
    assert document["food"]["pieces"] == 4
    off = seasoning_s(document)
    assert off["brine.membrane"] == pytest.approx(20.0 + 4 * 40.0, rel=0.1)
    left = seasoning_s(changed(document, options(document, "membrane")["left"]))
    assert "brine.membrane" not in left
    massaged = seasoning_s(changed(document, options(document, "rub")["massaged"]))
    assert off["brine.rub"] == pytest.approx(60.0 + 4 * 12.0, rel=0.1)
    assert massaged["brine.rub"] == pytest.approx(60.0 + 4 * 35.0, rel=0.1)
    document["food"] |= {"cut": "beef-short-ribs", "thickness_mm": 45.0}
    assert "brine.membrane" not in seasoning_s(document)  # it has none, whatever the plan says
    assert options(document, "membrane") == {}


def test_nobody_is_told_to_pull_the_membrane_off_a_block_of_ice():
    document = ChainDocument.model_validate(chain("frozen-split")).model_dump(mode="json")
    assert document["food"]["cut"] == "pork-ribs"
    season = {"kind": "season", "id": "brine", "membrane": True}
    document["stages"].insert(0, season)
    assert set(seasoning_s(document)) == {"brine.season"}
    assert options(document, "membrane") == {}
    assert not any("membrane" in one for one in clauses(document))
    document["stages"].insert(0, {"kind": "thaw", "id": "thaw", "where": "fridge"})
    assert set(seasoning_s(document)) == {"brine.membrane", "brine.season"}
    assert set(options(document, "membrane")) == {"off", "left"}


def test_a_membrane_is_pulled_off_once():
    """Two stages that season, both told to: the first does it, and "left" takes it from both."""
    document = ChainDocument.model_validate(chain("foil-then-grill")).model_dump(mode="json")
    seasons = [one for one in document["stages"] if one["kind"] == "season"]
    assert len(seasons) == 2
    seasons[1]["membrane"] = True
    pulled = [one.key for one in forecast_of(document).links if one.key.endswith(".membrane")]
    assert pulled == ["brine.membrane"]
    assert sum("membrane off" in one for one in clauses(document)) == 1
    left = changed(document, options(document, "membrane")["left"])
    assert not [one.key for one in forecast_of(left).links if one.key.endswith(".membrane")]


def clauses(document):
    """What the sentence says of every stage."""
    return [one.text for one in clauses_of(forecast_of(document))]


def seasoning_s(document):
    """Likely seconds of the steps of the first seasoning, by their keys."""
    links = forecast_of(document).links
    return {one.key: one.band.likely_s for one in links if one.key.startswith("brine.")}


def test_nothing_is_massaged_in_where_nothing_is_rubbed_on():
    document = chain("foil-then-grill")
    document["stages"][0] |= {"layer": None, "massaged": True}
    with pytest.raises(OutOfRange) as refused:
        forecast_of(document)
    assert refused.value.faults[0].field == "stages.0.massaged"


def test_broth_is_simmered_down_into_the_sauce_while_the_food_waits():
    """1.6 kg of ribs give 0.24 kg of juice, 8.5 % of it solid, to 0.32 l of water: 41 g at half
    water, 0.519 kg of steam; a burner of 1000 W gives 450 of them: 43.4 min at 2.256 MJ/kg."""
    told = ChainDocument.model_validate(chain("portions-broiled")).model_dump(mode="json")
    told["kitchen"]["burner_w"] = 1000.0
    poured = forecast_of(told)
    down = changed(told, options(told, "broth")["reduced"])
    assert down["layers"][0]["sauce"]["lines"][-1] == {
        "ingredient": "reduced-juice",
        "mass_g": 41.0,
    }
    assert [one["kind"] for one in down["stages"]] == [
        *("take_apart", "season", "heat"),
        *("drain", "hold", "beside", "dress", "heat", "dress"),
    ]
    assert (down["stages"][4]["minutes"], down["stages"][5]["minutes"]) == (44.0, 44.0)
    reduced = forecast_of(down)
    begins = {one.key: one.start.likely_s for one in reduced.links}
    assert "beside it: simmer the broth down; stir towards the end" in clauses(down)
    # It begins when the food is out, and is in the sauce before the first coat.
    assert begins["broth.beside"] == pytest.approx(begins["broth-wait.kept"], abs=1.0)
    assert reduced.total.likely_s > poured.total.likely_s + 43.0 * 60.0
    under = [f.fires[0].under.dish.sauce for f in (poured, reduced)]
    assert under[1].protein > under[0].protein + 0.02
    bought = [one.name for one in shopping_of([("x", ChainDocument.model_validate(down))], [])]
    assert not [name for name in bought if "broth" in name]
    again = changed(down, options(down, "broth")["poured"])
    assert again["stages"] == told["stages"]
    assert forecast_of(again).total.likely_s == pytest.approx(poured.total.likely_s, abs=1.0)


def test_broth_that_makes_no_sauce_is_not_offered():
    """Water with nothing in it, brine, a sauce that raw food was in, or one that was in the pot."""
    told = ChainDocument.model_validate(chain("portions-broiled")).model_dump(mode="json")
    assert set(options(told, "broth")) == {"poured", "reduced"}
    thin = {**told, "stages": [dict(one) for one in told["stages"]]}
    thin["stages"][2]["liquid_l"] = 3.0
    assert options(thin, "broth") == {}
    for food in ("cooked-ham", "cauliflower"):
        other = {**told, "food": {**told["food"], "cut": food, "pieces": 1, "thickness_mm": 90.0}}
        other["stages"] = [one for one in told["stages"] if one["kind"] != "season"]
        other["stages"][1] = {**other["stages"][1], "until": {"by": "minutes", "minutes": 20.0}}
        assert options(other, "broth") == {}
    soaked = {**told, "stages": [dict(one) for one in told["stages"]]}
    soaked["stages"].insert(1, {"kind": "marinate", "id": "soak", "layer": "glaze", "hours": 2.0})
    soaked["layers"] = [{**told["layers"][0], "boiled": True}]
    assert options(soaked, "broth") == {}
    # In rounds it is wanted where no wait can be put before it.
    rounds = {"kind": "rounds", "id": "again", "times": 2, "stages": told["stages"][3:5]}
    turned = {**told, "stages": [*told["stages"][:3], rounds, told["stages"][5]]}
    assert "bite" in {school.key for school in schools_of(forecast_of(turned))}
    assert options(turned, "broth") == {}
    # A sauce may hold such a syrup of its own: nobody takes that out again.
    own = changed(told, options(told, "broth")["reduced"])
    own["stages"] = told["stages"]
    assert options(own, "broth") == {}
