"""At every joint of a chain stands what makes sense there, and it can be put in."""

from copy import deepcopy
from dataclasses import replace
from datetime import UTC, datetime

import pytest

from bluekettle.core.chain.offers import facts_after, joints, offered, sauce_between
from bluekettle.core.chain.plan import Drain, Dress, Heat, HeatAct, Season, TakeApart, Thaw, Until
from bluekettle.core.errors import MissingData
from bluekettle.core.stages import cut
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import core_forecast, offers_of, plan_of
from tests.chain.conftest import TEMPLATES

NOW = datetime(2030, 5, 4, 15, 0, tzinfo=UTC)
POT = Heat("pot", "pressure", Until("bite", bite="falls"))
ROAST = Heat("roast", "oven", Until("bite", bite="falls"))
RIBS, HAM = cut("beef-short-ribs"), cut("cooked-ham")

PLACES = {
    "raw on the board": ((), RIBS, "fridge", False, "salt cook marinate"),
    "salted": ((Season("s"),), RIBS, "fridge", False, "cook marinate"),
    "hard as a brick": ((), RIBS, "frozen", False, "thaw cook marinate"),
    "thawed": ((Thaw("t"),), RIBS, "frozen", False, "salt cook marinate"),
    "wet out of the pot": ((POT,), RIBS, "fridge", False, "blot pull brush brown"),
    "dry out of the oven": ((ROAST,), RIBS, "fridge", False, "brush brown rest bones"),
    "drained": ((ROAST, Drain("d")), RIBS, "fridge", False, "blot pull brush brown"),
    "strands": ((POT, TakeApart("x", "shred")), RIBS, "fridge", True, "toss brown warm chill"),
    "bones are out": (
        (ROAST, TakeApart("x", "bones")),
        RIBS,
        "fridge",
        False,
        "brush brown rest slice",
    ),
    "cooked and salted as it is bought": ((), HAM, "fridge", False, "brush brown rest slice"),
}


@pytest.mark.parametrize(("done", "of", "state", "strands", "first"), PLACES.values(), ids=PLACES)
def test_the_likeliest_come_first(done, of, state, strands, first):
    found = offered(facts_after(done, of, state, strands, set()))
    wanted = first.split()
    assert [key for key in found if key != "beside"][: len(wanted)] == wanted


def test_a_sauce_is_poured_only_after_a_fire():
    done = (POT, Heat("broil", "broiler", Until("colour")))
    assert "pour" in offered(facts_after(done, RIBS, "fridge", False, {"broil"}))
    assert "pour" not in offered(facts_after(done[:1], RIBS, "fridge", False, {"broil"}))


def test_the_sauce_of_a_joint_is_that_of_the_next_fire_then_the_last_then_a_later_one():
    fire = Heat("broil", "broiler", Until("colour"))
    coated = replace(fire, acts=(HeatAct("coat", None, "inside"),))
    plum, date = Dress("a", "plum"), Dress("b", "date")
    assert sauce_between((POT, plum, fire), (date, fire)) == "date"
    assert sauce_between((POT, plum, fire), (fire, date)) == "plum"
    assert sauce_between((POT,), (fire, date)) == "date"
    assert sauce_between((POT, plum), (coated,)) == "inside"
    assert sauce_between((POT,), (fire,)) == ""


def test_a_condition_that_nothing_decides_is_refused(monkeypatch):
    told = {"moonlit": {"if": "moonlit"}}
    monkeypatch.setattr("bluekettle.core.chain.conditions.rows", lambda table: told)
    with pytest.raises(MissingData, match="moonlit"):
        offered(frozenset())


def test_a_tail_goes_on_from_what_all_of_the_food_went_through():
    found = joints(core_forecast(ChainDocument.model_validate(TEMPLATES["frozen-split"]), NOW))
    for first in ("brush-a", "brush-b"):  # no heat in this tail yet, and yet it is cooked
        assert "brown" in found[first].offers
        assert not {"cook", "salt", "thaw"} & set(found[first].offers)
    assert found["pot"].sauce == "glaze"  # brushed on in the tails


@pytest.mark.parametrize("key", TEMPLATES)
def test_whatever_is_offered_at_a_joint_can_be_put_in_there(key):
    """Every offer at every joint of every chain that ships gives a plan that is not refused."""
    document = TEMPLATES[key]
    found = core_forecast(ChainDocument.model_validate(document), NOW)
    by_key = {offer.key: offer.stage for offer in offers_of(found)}
    for after, joint in joints(found).items():
        for offer in joint.offers:
            changed = with_stage(document, after, by_key[offer], joint.sauce)
            plan_of(ChainDocument.model_validate(changed))


def with_stage(document, after, stage, sauce):
    """The document with a stage put in, as a page does."""
    changed = deepcopy(document)
    told = {**deepcopy(stage), "id": "put-in"}
    if told.get("layer") == "$sauce":
        if not sauce:
            changed["layers"].append({"id": "put-on", "sauce": "plum-tea"})
        told["layer"] = sauce or "put-on"
    if told.get("ready_for") == "$stage":
        told["ready_for"] = after or changed["stages"][0]["id"]
    where, place = spot(changed["stages"], after) if after else (changed["stages"], -1)
    where.insert(place + 1, told)
    return changed


def spot(stages, key):
    """The list that a stage stands in, and its place there."""
    plain = key.rsplit(".", 1)[0] if "." in key else key
    for place, one in enumerate(stages):
        if one["id"] in (key, plain):
            return stages, place
        for inner in [one.get("stages", []), *(s["stages"] for s in one.get("shares", []))]:
            if (found := spot(inner, key)) is not None:
                return found
    return None
