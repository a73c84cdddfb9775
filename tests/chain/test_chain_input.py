"""What is wrong with a chain is told by its field, all of it at once, and nothing ends in a 500."""

import json

import pytest
from click.testing import CliRunner
from hypothesis import given
from hypothesis import strategies as st

from bluekettle.commands import main
from tests.chain.conftest import TEMPLATES, chain, stage

WRONG = {
    "layers.0.sauce": lambda d: d["layers"][0].update(sauce="no-such-sauce"),
    "layers": lambda d: d["layers"].append(dict(d["layers"][0])),
    "stages.3.layer": lambda d: d["stages"][3].update(layer="nothing"),
    "stages.3.mm": lambda d: d["stages"][3].update(mm=9.0),
    "stages.2.heat": lambda d: d["stages"][2].update(heat="bonfire"),
    "stages.2.until.by": lambda d: d["stages"][2].update(until={"by": "colour"}),
    "stages.2.until.bite": lambda d: d["stages"][2].update(until={"by": "bite"}),
    "stages.2.until.core_c": lambda d: d["stages"][2].update(until={"by": "core"}),
    "stages.2.until.minutes": lambda d: d["stages"][2].update(until={"by": "minutes"}),
    "stages.4.until.by": lambda d: d["stages"][4].update(until={"by": "core", "core_c": 75.0}),
    "stages.2.acts": lambda d: d["stages"][2].update(acts=[{"do": "turn", "at_min": 3.0}]),
    "stages.4.until.minutes": lambda d: d["stages"][4].update(
        heat="oven",
        dial=200.0,
        until={"by": "minutes", "minutes": 90.0},
        acts=[{"do": "coat", "layer": "glaze", "at_min": 80.0}],
    ),
    "stages.2.dial": lambda d: d["stages"][2].update(dial=400.0),
    "stages.4.release": lambda d: d["stages"][4].update(release="quick"),
    "stages.4.liquid_l": lambda d: d["stages"][4].update(liquid_l=0.3),
    "stages.2.acts.0": lambda d: d["stages"][2].update(acts=[{"do": "coat", "layer": "glaze"}]),
    "stages.4.acts.0.at_min": lambda d: d["stages"][4].update(acts=[{"do": "turn"}]),
    "stages.4.acts.1.at_min": lambda d: d["stages"][4].update(
        acts=[{"do": "turn", "at_min": 4.0}, {"do": "turn", "at_min": 2.0}]
    ),
    "stages": lambda d: d["stages"].append(dict(d["stages"][0])),
    "food.mass_kg": lambda d: d["food"].update(mass_kg=99.0),
    "food.thickness_mm": lambda d: d["food"].update(thickness_mm=119.0, pieces=40),
    "stages.4": lambda d: d["stages"][4].update(kind="boil"),
    "sightings": lambda d: d.update(sightings={"nowhere": [{"sign": "dark", "at_s": 60.0}]}),
    "serve_at": lambda d: d.update(serve_at="2029-01-01T00:00:00+00:00"),
}


def refused(kitchen, document):
    answer = kitchen.post("/forecasts", document, 422)
    return {fault["field"]: fault for fault in answer["errors"]}


@pytest.mark.parametrize("field", WRONG)
def test_a_fault_is_told_by_its_field_with_what_is_accepted(kitchen, field):
    document = chain("portions-broiled")
    WRONG[field](document)
    told = refused(kitchen, document)
    assert field in told, told
    assert told[field]["accepted"]


def test_a_bound_is_told_as_one_writes_it(kitchen):
    document = chain("portions-broiled")
    stage(document, "pot")["until"]["minutes"] = 99999.0
    (fault,) = refused(kitchen, document).values()
    assert fault["accepted"] == "at most 4320"


def test_every_fault_is_told_at_once(kitchen):
    document = chain("portions-broiled")
    for field in ("stages.2.until.by", "stages.4.release", "food.thickness_mm"):
        WRONG[field](document)
    lines = [{"ingredient": "moon-dust", "mass_g": 10.0}]
    document["layers"][0]["sauce"] = {"name": "Dust", "lines": lines}
    told = refused(kitchen, document)
    wanted = {"stages.0.pieces", "stages.2.until.by", "stages.4.release", "food.thickness_mm"}
    assert wanted < told.keys()
    assert [f for f in told if f not in wanted] == ["layers.0.sauce.lines.0.ingredient"]


def test_a_bite_that_no_heat_reaches_says_how_far_it_gets(kitchen):
    document = chain("strands-broiled")
    stage(document, "pot").update(heat="air_fryer", dial=100.0, release=None)
    told = refused(kitchen, document)
    assert "cook value of 18 min (how tender), of 62" in told["stages.1"]["accepted"]
    stage(document, "pot").update(heat="bath", dial=54.0, until={"by": "core", "core_c": 63.0})
    told = refused(kitchen, document)
    assert "54 °C inside, of 63 °C" in told["stages.1"]["accepted"]


def test_no_more_is_asked_for_than_can_be_reckoned(kitchen):
    document = chain("marinated-rounds")
    stage(document, "baste")["times"] = 8
    heats = [dict(stage(document, "pot"), id=f"pot-{n}") for n in range(6)]
    document["stages"] = [*heats, *document["stages"]]
    told = refused(kitchen, document)
    assert "heats, each round counted" in told["stages"]["accepted"]


def test_a_split_is_last_and_rounds_do_not_nest(kitchen):
    document = chain("frozen-split")
    document["stages"].append({"kind": "rest", "id": "after", "minutes": 3.0})
    assert "stages.1" in refused(kitchen, document)
    rounds = chain("marinated-rounds")
    inner = stage(rounds, "baste")
    inner["stages"] = [dict(inner, id="inner")]
    assert any(field.startswith("stages.2") for field in refused(kitchen, rounds))


def test_two_sauces_in_one_fire_are_refused_with_the_way_out(kitchen):
    document = chain("bath-then-low-high")
    coats = [{"do": "coat", "layer": "one"}, {"do": "coat", "layer": "two", "at_min": 4.0}]
    stage(document, "high").update(acts=coats)
    told = refused(kitchen, document)
    assert "one sauce in one fire" in told["stages.4.acts"]["accepted"]
    # Put on before it, it lies in the fire as well.
    brushed = chain("pressure-hot-oven")
    brushed["layers"].append({"id": "other", "sauce": "bottled-sweet"})
    brushed["stages"].insert(3, {"kind": "dress", "id": "more", "layer": "other"})
    assert "one sauce in one fire" in refused(kitchen, brushed)["stages.4.acts"]["accepted"]


@given(st.data())
def test_no_chain_of_shipped_stages_in_any_order_fails(data):
    """Stages of the shipped chains, shuffled: an answer, or a refusal that names a field."""
    key = data.draw(st.sampled_from(sorted(TEMPLATES)))
    document = chain(key)
    plain = [s for s in document["stages"] if s["kind"] not in ("split", "rounds")]
    document["stages"] = data.draw(st.permutations(plain))
    kitchen = data.draw(st.just(CLIENT))
    answer = kitchen().post("/api/v1/forecasts", json=document)
    assert answer.status_code in (200, 422), answer.text[:300]


@pytest.fixture(autouse=True)
def client(kitchen):
    CLIENT.found = kitchen.client


class Client:
    """The client of this test's kitchen, for examples that are drawn."""

    found = None

    def __call__(self):
        return self.found


CLIENT = Client()


def test_the_command_reads_a_chain_and_a_dish_alike(tmp_path):
    file = tmp_path / "chain.json"
    file.write_text(json.dumps(chain("bath-then-low-high")), encoding="utf-8")
    table = CliRunner().invoke(main, ["forecast", str(file), "--table"])
    assert table.exit_code == 0
    assert "under the air fryer (high)" in table.output
    answer = CliRunner().invoke(main, ["forecast", str(file)])
    assert json.loads(answer.stdout)["fires"][1]["stage"] == "high"
    file.write_text('{"format": "kettle.dish/2", "food": 3}', encoding="utf-8")
    wrong = CliRunner().invoke(main, ["forecast", str(file)])
    assert wrong.exit_code == 1
    assert "food" in wrong.output


def test_a_dial_that_a_long_heat_cannot_have_is_told_where_it_is_set(kitchen):
    """An oven goes to 260 °C and is looked at there; hours of it are reckoned up to 170."""
    document = chain("pressure-hot-oven")
    roast = {"kind": "heat", "id": "roast", "heat": "oven", "dial": 200.0}
    document["stages"] = [{**roast, "until": {"by": "minutes", "minutes": 150.0}}]
    (fault,) = kitchen.post("/forecasts", document, 422)["errors"]
    assert (fault["field"], fault["given"]) == ("stages.0.dial", "200.0")
    assert "170" in fault["accepted"]
