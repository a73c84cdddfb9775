"""What does not lie in one layer goes under the fire in batches."""

from datetime import datetime, timedelta

import pytest

from tests.chain.conftest import chain, patched
from tests.chain.test_live_chains import cook_to_the_log
from tests.chain.test_plan_rules import BASKET, ask, changed, of_kind

HOURS = timedelta(hours=2)
DRUMSTICKS = {"mass_kg": 1.6, "pieces": 14}


def crowded(key="basted-returns", **food):
    return changed(key, food=food or DRUMSTICKS, kitchen=BASKET)


def repaired(kitchen, document):
    """The document in batches, by the tap that is offered."""
    (told,) = of_kind(ask(kitchen, document), "fit-batches")
    return patched(document, told["repair"])


def seconds_of(found, stages):
    links = [link for link in found["links"] if link["stage"] in stages and link["serial"]]
    return sum(link["band"]["likely_s"] for link in links)


def test_each_batch_has_every_stage_from_the_first_that_is_crowded_on(kitchen):
    document = crowded()
    beside = {"kind": "beside", "id": "bread", "name": "Bread", "minutes": 4.0}
    document["stages"].insert(4, beside | {"ready_for": "return-2"})
    batched = repaired(kitchen, document)
    own = [s for s in document["stages"] if s["id"] not in ("night", "blot", "bread")]
    assert [s["id"] for s in batched["stages"][:-1]] == ["night", "blot", "bread"]
    (first, second) = batched["stages"][-1]["shares"]
    assert first["stages"] == own
    assert [s | {"id": ""} for s in second["stages"]] == [s | {"id": ""} for s in own]
    ids = [s["id"] for share in (first, second) for s in share["stages"]]
    assert len(set(ids)) == len(ids) == 10
    assert (first["share"], second["share"]) == (0.5, 0.5)


def test_the_second_batch_finds_its_basket_hot_and_has_a_fire_of_its_own(kitchen):
    """By 35 min of heat longer, and by less than twice: half is loaded and turned at a time."""
    document = crowded()
    once, batched = kitchen.post("/forecasts", document, 200), repaired(kitchen, document)
    found = kitchen.post("/forecasts", batched, 200)
    assert of_kind(found["watch_outs"], "fit-batches") == []
    fires = {fire["stage"] for fire in found["fires"]}
    assert fires == {"return", "return-2", "return-2-2", "return-2-2-2"}
    links = {link["key"]: link["band"]["likely_s"] for link in found["links"]}
    assert links["fry-2.warm_up"] < 0.3 * links["fry.warm_up"]
    outs = {link["key"]: link["label"] for link in found["links"]}
    assert outs["return-2.out"] == "Take out"  # the next batch goes in
    assert outs["return-2-2-2.out"] == "Take out, switch off"
    taken = ("fry", "baste", "return", "other-side", "return-2")
    more_s = found["total"]["likely_s"] - once["total"]["likely_s"]
    assert 60.0 * (12 + 19 + 2 + 2) < more_s < seconds_of(once, taken)
    gates = [gate["after"] for gate in found["gates"] if gate["safe_c"] is not None]
    assert gates == ["fry", "fry-2"]  # each batch is measured


def test_the_first_batch_is_told_how_long_it_waits(kitchen):
    found = kitchen.post("/forecasts", repaired(kitchen, crowded()), 200)
    (told,) = of_kind(found["watch_outs"], "batch-waits")
    assert told["stage"] == "return-2"
    shares = [
        {link["stage"] for link in found["links"] if link["key"] in t} for t in found["tails"]
    ]
    minutes = seconds_of(found, shares[1]) / 60.0
    assert f"about {round(minutes)} minutes" in told["message"]


def test_what_waits_in_the_room_counts_for_every_batch(kitchen):
    """The second lies raw meanwhile, the first stands done: both longer than all of it at once."""
    document = crowded()
    at_once = kitchen.post("/forecasts", document, 200)["inside"]["danger_min"]
    in_two = kitchen.post("/forecasts", repaired(kitchen, document), 200)["inside"]["danger_min"]
    assert in_two > at_once + 20.0


def test_time_in_hand_lies_before_the_first_share(kitchen):
    """What is done waits for the other share and for nothing else."""
    document = chain("frozen-split")
    asked = kitchen.post("/forecasts", document, 200)
    document["serve_at"] = (datetime.fromisoformat(asked["serve_at"]) + HOURS).isoformat()
    keys = [link["key"] for link in kitchen.post("/forecasts", document, 200)["links"]]
    assert keys.index("pot.check") < keys.index("slack") < keys.index("broil.finish")


def test_two_batches_are_cooked_to_the_log(kitchen):
    """Each batch has its steps, its check and its fires, one after the other."""
    batched = repaired(kitchen, crowded())
    live = cook_to_the_log(kitchen, kitchen.post("/cooks", {"dish": batched}))
    checks = [step["key"] for step in live["steps"] if step["who"] == "gate"]
    assert checks == ["fry.check", "fry-2.check"]


def in_slices():
    document = crowded("sugar-crust", mass_kg=2.6, pieces=8)
    slices = {"kind": "take_apart", "id": "slice", "how": "portions", "pieces": 16}
    document["stages"].append(slices)
    return document


@pytest.mark.parametrize(
    ("why", "document"),
    [
        ("another appliance takes all of it together", crowded("leavened-skin", pieces=11)),
        ("a split stands behind it", crowded("bath-then-low-high", pieces=4)),
        ("sixteen slices of each batch", in_slices()),
        ("more than four batches", crowded("sugar-crust", mass_kg=6.0, pieces=20)),
    ],
)
def test_no_tap_is_offered_where_it_would_not_do(kitchen, why, document):
    told = of_kind(ask(kitchen, document), "fit-batches")
    assert told, why
    assert [one["repair"] for one in told] == [[]] * len(told), why


def test_thirds_are_said_and_four_is_the_most(kitchen):
    batched = repaired(kitchen, crowded("sugar-crust", mass_kg=3.6, pieces=12))
    found = kitchen.post("/forecasts", batched, 200)
    texts = [one["text"] for one in found["sentence"]]
    assert [text.partition(" ")[0] for text in texts[-6::2]] == ["a", "a", "the"]
    assert sum(text.startswith("a third of it ") for text in texts) == 2
    split = batched["stages"][-1]
    split["shares"] = [split["shares"][0] | {"share": 0.2} for _ in range(5)]
    fault = kitchen.post("/forecasts", batched, 422)
    assert "shares" in str(fault)


def test_a_split_that_ships_waits_as_long_as_its_other_fire(kitchen):
    found = kitchen.post("/forecasts", chain("frozen-split"), 200)
    (told,) = of_kind(found["watch_outs"], "batch-waits")
    minutes = seconds_of(found, {"brush-b", "fry"}) / 60.0
    assert f"about {round(minutes)} minutes" in told["message"]
