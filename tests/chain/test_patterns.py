"""The fifteen patterns, and more, through the public API: each is said whole, is forecast, and has
clock times that make sense.

Minutes are what kitchens take for such cooks from the first act to the table, marinades and sits
included: household knowledge, and wide. None of it was fitted.
"""

from datetime import datetime

import pytest

from tests.chain.conftest import TEMPLATES, chain

# Honest minutes; fires in order, with the longest that a kitchen would leave the food under each.
KITCHENS = {
    "strands-broiled": ((85, 130), [14]),
    "portions-broiled": ((50, 85), [10]),
    "marinated-rounds": ((540, 660), [4, 4]),
    "frozen-split": ((55, 95), [8, 12]),
    "lid-stir-lid": ((85, 140), [8, 6]),
    "pressure-hot-oven": ((75, 115), [16]),
    "marinated-fried-tray": ((260, 320), [8]),
    "cooked-ham": ((70, 150), [28]),
    "basted-returns": ((620, 690), [4, 4]),
    "roasted-in-sauce": ((35, 65), [40]),
    "sugar-crust": ((60, 100), [60]),
    "leavened-skin": ((500, 560), [8]),
    "foil-then-grill": ((650, 760), [12]),
    "bath-then-low-high": ((420, 900), [15, 6]),
    "bones-out-sandwich": ((60, 100), [10]),
    "cauliflower-oven": ((22, 45), [14]),
    "octopus-grill": ((80, 125), [12]),
    "long-braise": ((170, 250), [14]),
    "long-smoke": ((270, 420), [8]),
}


@pytest.fixture(scope="module")
def told():
    """Forecasts by key, each asked for once."""
    return {}


@pytest.fixture
def forecast(kitchen, told):
    def ask(key):
        if key not in told:
            told[key] = kitchen.post("/forecasts", chain(key), 200)
        return told[key]

    return ask


def test_there_is_a_kitchen_for_every_chain_that_ships(kitchen):
    shipped = kitchen.get("/templates")["items"]
    assert [one["key"] for one in shipped] == list(KITCHENS)
    assert {one["document"]["name"] for one in shipped} == {d["name"] for d in TEMPLATES.values()}


@pytest.mark.parametrize("key", KITCHENS)
def test_its_minutes_are_those_of_a_kitchen(forecast, key):
    found = forecast(key)
    (least, most), fires = KITCHENS[key]
    assert least <= found["total"]["likely_s"] / 60.0 <= most
    assert len(found["fires"]) == len(fires)
    for fire, longest in zip(found["fires"], fires, strict=True):
        assert 0.5 <= fire["timer_s"] / 60.0 <= longest, fire["stage"]
    assert found["headline_s"] < found["total"]["likely_s"]


@pytest.mark.parametrize("key", KITCHENS)
def test_it_is_said_whole_and_its_links_follow_each_other(forecast, key):
    found, document = forecast(key), chain(key)
    ids = [link["stage"] for link in found["links"] if link["serial"] and link["stage"]]
    assert " kg of " in found["sentence"][0]["text"]
    said = [clause["stage"] for clause in found["sentence"]]
    assert sorted(said[1:]) == sorted(chosen(document))
    texts = [clause["text"] for clause in found["sentence"]]
    assert all(texts)
    shares = [text for text in texts if text.startswith(("half of it ", "the rest "))]
    assert len(shares) == 2 * any(s["kind"] == "split" for s in document["stages"])
    assert set(chosen(document)) <= {link["stage"] for link in found["links"]}
    order = [one for one in chosen(document) if one in ids]
    assert sorted(set(ids), key=ids.index) == order
    serial = [link for link in found["links"] if link["serial"]]
    starts = [datetime.fromisoformat(link["starts_at"]) for link in serial]
    assert starts == sorted(starts)
    span = datetime.fromisoformat(found["serve_at"]) - datetime.fromisoformat(found["start_at"])
    assert span.total_seconds() == pytest.approx(found["total"]["likely_s"], abs=1.0)
    # every preheat is ready within three minutes of its use, and begins before it
    for link in found["links"]:
        if link["key"].endswith(".warm_up"):
            used = next(
                one
                for one in serial + found["links"]
                if one["stage"] == link["stage"] and one["kind"] != "preheat"
            )
            assert link["starts_at"] <= used["starts_at"]


def chosen(document):
    """Ids of the stages that were chosen, each round apart, in order."""
    found = []
    for one in document["stages"]:
        if one["kind"] == "rounds":
            turns = range(1, one["times"] + 1)
            found += [f"{s['id']}.{turn}" for turn in turns for s in one["stages"]]
        elif one["kind"] == "split":
            found += [s["id"] for share in one["shares"] for s in share["stages"]]
        else:
            found.append(one["id"])
    return found


@pytest.mark.parametrize("key", KITCHENS)
def test_its_gates_place_themselves_and_nothing_stops_it(forecast, key):
    """One thermometer gate before the table for whatever has one; asked of tenderness where a bite
    was wished; and a chain that ships has no stop.
    """
    found, document = forecast(key), chain(key)
    assert [w["message"] for w in found["watch_outs"] if w["level"] == "stop"] == []
    gates = found["gates"]
    measured = [gate for gate in gates if gate["safe_c"] is not None]
    assert len(measured) == (1 if found["inside"]["gate"] else 0)
    wished = [
        s["id"] for s in document["stages"] if s["kind"] == "heat" and s["until"]["by"] == "bite"
    ]
    assert [gate["after"] for gate in gates if gate["tender"]] == wished
    checks = [link["key"] for link in found["links"] if link["who"] == "gate"]
    assert len(checks) == len(gates)


@pytest.mark.parametrize("key", sorted(TEMPLATES))
def test_what_is_least_sure_is_said_as_what_nobody_knows(forecast, key):
    found = forecast(key)
    link = next(one for one in found["links"] if one["key"] == found["least_sure"])
    says, root = found["least_sure_says"], link["key"].rpartition(".")[2]
    if link["who"] == "fire":
        assert says.startswith("how fierce your heat is")
    elif root == "natural":
        assert says == "how slowly your pot cools"
    elif link["who"] == "machine" and root in ("come_up", "oven_up", "heat_up", "warm_up"):
        appliance = says.removeprefix("how fast your ").removesuffix(" heats")
        assert appliance.rpartition(" ")[2] in ("pot", "oven", "bath", "smoker", "fryer")
    else:
        assert says == link["label"]
