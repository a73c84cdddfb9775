"""A newcomer's answers come to a chain that can be cooked."""

from datetime import UTC, datetime
from itertools import product

import pytest

from bluekettle.core import chain
from bluekettle.core.chain.begin import Answers, beginning, facts_of, portions, whens
from bluekettle.core.errors import MissingData, OutOfRange
from bluekettle.core.stages import cut, cut_keys
from bluekettle.core.tables import rows
from bluekettle.schemas.beginning import AnswersCreate, HeatTimesCreate
from bluekettle.services.beginnings import begin_with, heat_times
from bluekettle.services.chains import forecast_chain, plan_of

NOW = datetime(2030, 5, 4, 15, 0, tzinfo=UTC)
LABEL = {
    "name": "Harbour sauce",
    "lines": [{"ingredient": "harbour", "mass_g": 300.0}],
    "own": [
        {
            "key": "harbour",
            "name": "Harbour sauce",
            "fractions": {"water": 0.55, "sucrose": 0.4, "salt": 0.05},
        }
    ],
}


def kinds(given: AnswersCreate) -> list[str]:
    """Stages in order, as "heat pressure", "dress brush", "season"."""
    found = []
    for stage in begin_with(given).chain.stages:
        how = getattr(stage, "heat", None) or getattr(stage, "how", None)
        found.append(f"{stage.kind} {how}" if how else stage.kind)
    return found


BEFORE = {"sauce": "plum-tea", "when": "before"}
EIGHT = {
    "glazed under the fire": (
        {"cut": "pork-ribs", **BEFORE},
        "season, heat pressure, blot, dress brush, heat broiler, rest",
    ),
    "sauced after the crust": (
        {"cut": "chicken-wings", "bite": "tug", "sauce": "plum-tea", "when": "after"},
        "season, heat air_fryer, heat air_fryer, rest, dress pour",
    ),
    "bare": (
        {"cut": "turkey-drumsticks"},
        "season, heat bath, heat air_fryer, rest",
    ),
    "strands off the bone, tossed, then browned": (
        {"cut": "beef-short-ribs", "bite": "shreds", **BEFORE},
        "season, heat pressure, take_apart bones, take_apart shred, dress toss, heat broiler",
    ),
    "strands browned, then tossed": (
        {"cut": "pork-shoulder", "bite": "shreds", "sauce": "plum-tea", "when": "after"},
        "season, heat pressure, take_apart shred, heat broiler, dress toss",
    ),
    "frozen, so that no salt holds": (
        {"cut": "pork-ribs", "state": "frozen"},
        "heat pressure, blot, heat broiler, rest",
    ),
    "cooked and salted as it is bought, and sliced": (
        {"cut": "cooked-ham", **BEFORE},
        "heat foil, dress brush, heat oven, rest, take_apart portions",
    ),
    "one dry heat with the sauce on": (
        {"cut": "pork-belly", "alone": True, **BEFORE},
        "season, dress brush, heat oven, rest",
    ),
    "one wet heat": (
        {"cut": "celeriac", "heat": "simmer", "alone": True, "sauce": "plum-tea"},
        "season, heat simmer, dress pour",
    ),
}


@pytest.mark.parametrize(("given", "expected"), EIGHT.values(), ids=EIGHT)
def test_answers_come_to_their_stages(given, expected):
    assert ", ".join(kinds(AnswersCreate(**given))) == expected


def test_a_sauce_twice_is_brushed_before_the_heat_and_again_once_it_has_set():
    told = AnswersCreate(cut="pork-ribs", sauce="plum-tea", when="twice")
    stages = {stage.id: stage for stage in begin_with(told).chain.stages}
    assert stages["brush"].layer == "sauce"
    assert [(act.do, act.at_min, act.layer) for act in stages["finish"].acts] == [
        ("coat", None, "sauce")
    ]
    once = begin_with(told.model_copy(update={"when": "before"})).chain
    assert next(stage for stage in once.stages if stage.id == "finish").acts == []


def test_every_answer_that_is_offered_makes_a_plan_and_every_row_is_used():
    """All cuts, heats and bites with every fire and moment that is offered, unforecast."""
    used = set()
    for key, heat, finish in product(
        cut_keys(), chain.slow_keys(), (None, "oven", "grill", "contact")
    ):
        for bite in cut(key).targets:
            told = {"cut": key, "heat": heat, "bite": bite, "sauce": "plum-tea"}
            told |= {"alone": True} if finish is None else {"finish": finish}
            answers = Answers(key, 1.0, 1, "fridge", heat, bite, finish, True, "")
            for when in whens(answers):
                document = begin_with(AnswersCreate(**told, when=when)).chain
                plan_of(document)  # refuses what cannot be cooked
                used |= {(stage.id, stage.kind) for stage in document.stages}
    assert used == {(row["id"], row["stage"]) for row in rows("beginnings").values()}


WRONG = {
    "a bite that the cut has not": ({"cut": "pork-loin", "bite": "falls"}, "bite"),
    "a first heat that only browns": ({"cut": "pork-ribs", "heat": "broiler"}, "heat"),
    "a fire that browns nothing": ({"cut": "pork-ribs", "finish": "bath"}, "finish"),
    "sauce in the pot": ({"cut": "pork-ribs", "alone": True, **BEFORE}, "when"),
    "strands brushed twice": (
        {"cut": "pork-shoulder", "bite": "shreds", "sauce": "plum-tea", "when": "twice"},
        "when",
    ),
}


@pytest.mark.parametrize(("given", "field"), WRONG.values(), ids=WRONG)
def test_answers_that_do_not_go_together_are_refused_by_name(given, field):
    with pytest.raises(OutOfRange) as refused:
        begin_with(AnswersCreate(**given))
    assert [fault.field for fault in refused.value.faults] == [field]
    if field == "when":
        assert refused.value.faults[0].accepted in ("after here", "before or after here")


def test_a_condition_that_no_answer_decides_is_refused(monkeypatch):
    row = {"id": "x", "stage": "rest", "if": "whole moon", "fields": ""}
    monkeypatch.setattr("bluekettle.core.chain.conditions.rows", lambda table: {"x": row})
    with pytest.raises(MissingData, match="moon"):
        beginning(Answers("pork-ribs", 1.0, 4, "fridge", "pressure", "tug", None, False, ""))


def test_half_the_weight_is_half_the_pieces_and_what_was_counted_is_kept():
    half = begin_with(AnswersCreate(cut="beef-short-ribs", mass_kg=0.8)).chain.food
    assert (half.pieces, half.thickness_mm) == (3, 45.0)
    assert begin_with(AnswersCreate(cut="beef-short-ribs", pieces=5)).chain.food.pieces == 5


def test_hours_that_no_heat_can_have_are_refused_with_the_reason():
    with pytest.raises(OutOfRange) as refused:
        heat_times(HeatTimesCreate(cut="pork-ribs", of="finish", heat="broiler"))
    assert refused.value.faults[0].field == "heat"


def test_a_sliced_piece_gives_a_portion_of_150_g_and_never_fewer_than_there_are_pieces():
    assert [portions(2.0, 1), portions(0.6, 8), portions(12.0, 1)] == [13, 8, 60]


def test_facts_are_of_the_food_and_not_of_its_name():
    ham = Answers("cooked-ham", 2.0, 1, "fridge", "foil", "sliceable", "oven", False, "")
    assert facts_of(ham) == {"chilled", "whole", "fire", "meat", "slices", "once"}
    drumsticks = Answers("chicken-drumsticks", 1.0, 8, "fridge", "foil", "sliceable", None, 0, "")
    assert "slices" not in facts_of(drumsticks)  # nobody slices what is on a bone


@pytest.mark.parametrize("key", cut_keys())
def test_the_usual_answers_for_every_cut_come_out_right_on_most_evenings(key):
    """With a bottle of which only the label is known, and nothing to be stopped for."""
    found = begin_with(AnswersCreate.model_validate({"cut": key, "sauce": LABEL}))
    assert any(offer.usual for offer in found.heats)
    assert any(offer.usual for offer in found.finishes)
    told = forecast_chain(found.chain, NOW)
    assert [one.id for one in told.watch_outs if one.level == "stop"] == []
    assert told.right.all_of_it >= 0.5
    assert "Harbour sauce" in " ".join(clause.text for clause in told.sentence)


def test_the_hours_of_a_heat_are_those_of_its_plan():
    times = heat_times(HeatTimesCreate(cut="beef-short-ribs", of="heat"))
    hours = {item.key: item.total_s for item in times.items}
    assert set(hours) == set(chain.slow_keys())
    assert hours["pressure"] < hours["foil"] < hours["smoker"] < hours["bath"]
    for heat in ("pressure", "oven"):
        plan = begin_with(AnswersCreate(cut="beef-short-ribs", heat=heat)).chain
        whole = forecast_chain(plan, NOW).total.likely_s
        assert hours[heat] == pytest.approx(whole, rel=0.05)


def test_the_hours_of_one_heat_alone_are_shorter_by_its_fire():
    told = {"cut": "beef-short-ribs", "of": "heat"}
    with_fire, alone = (
        {item.key: item.total_s for item in heat_times(HeatTimesCreate(**told, alone=one)).items}
        for one in (False, True)
    )
    assert all(60.0 < with_fire[key] - alone[key] < 1800.0 for key in with_fire)


def test_a_heat_that_never_gets_there_has_no_hours_and_the_others_have():
    cold = HeatTimesCreate.model_validate(
        {"cut": "beef-short-ribs", "of": "heat", "kitchen": {"low_oven_c": 80}}
    )
    hours = {item.key: item.total_s for item in heat_times(cold).items}
    assert hours["oven"] is None
    assert hours["pressure"] is not None


WORDS = {
    ("beef-short-ribs", "falls"): "falls off the bone",
    ("beef-brisket", "falls"): "falls apart",
    ("cauliflower", "falls"): "falls apart",
    ("celeriac", "tug"): "gives with a little tug",
}


@pytest.mark.parametrize(("of", "text"), WORDS.items())
def test_what_has_no_bone_does_not_fall_off_it(of, text):
    key, bite = of
    assert cut(key).bite_words(bite)[0] == text
    bones = "bone" in " ".join(cut(key).bite_words("tug"))
    assert bones == (key == "beef-short-ribs")
