"""Nothing answers for the unknown: a kind of stage is known everywhere or refused."""

import typing
from datetime import UTC, datetime

import numpy as np
import pytest

from bluekettle.core import chain
from bluekettle.core.chain.food import raw_food
from bluekettle.core.chain.passage import Kitchen, Step
from bluekettle.core.chain.preparation import things_of
from bluekettle.core.chain.walk import RUNS, run_stage
from bluekettle.core.errors import MissingData
from bluekettle.core.glaze import draw_members
from bluekettle.core.tables import rows
from bluekettle.schemas import chain as documents
from bluekettle.services.chains import forecast_chain
from bluekettle.services.clauses import CLAUSES
from tests.chain.conftest import TEMPLATES

SHAPES = {chain.Rounds, chain.Split}  # they hold stages and are none for the food
KINDS = set(chain.Stage.__subclasses__())


def test_every_kind_has_a_run_a_clause_and_a_document():
    assert set(RUNS) == KINDS - SHAPES - {chain.Beside}
    assert set(CLAUSES) == KINDS - SHAPES
    written = {kind.__name__.removesuffix("Document") for kind in classes(documents.AnyStage)}
    written = {name.removeprefix("Work") for name in written}
    assert written == {kind.__name__ for kind in KINDS}
    assert len(documents.KINDS) == len(set(documents.KINDS)) == len(KINDS)


def classes(union):
    """Classes of a union whose members carry tags."""
    return [typing.get_args(member)[0] for member in typing.get_args(typing.get_args(union)[0])]


def test_every_kind_and_every_heat_is_in_a_chain_that_ships_or_is_tested():
    kinds, heats = set(), set()
    for document in TEMPLATES.values():
        for one in walk(document["stages"]):
            kinds.add(one["kind"])
            heats.add(one.get("heat"))
    assert set(documents.KINDS) - kinds == {"thaw", "hold"}  # test_plan_rules
    assert set(chain.heat_keys()) - heats == {
        "slow_cooker",
        "contact",
        "charcoal",
    }  # test_same_food


def walk(stages):
    for one in stages:
        yield one
        yield from walk(one.get("stages", []))
        for share in one.get("shares", []):
            yield from walk(share["stages"])


def test_a_kind_that_nothing_runs_is_refused():
    class Juggle(chain.Stage):
        pass

    draws = draw_members(1, 16)
    plan = chain.Plan("pork-ribs", 1.4, 4, 26.0, (Juggle("x"),))
    food = raw_food(plan, draws)
    with pytest.raises(MissingData, match="Juggle"):
        run_stage(Juggle("x"), food, Step(plan, draws, Kitchen(np.zeros(16))))


def test_everything_that_a_stage_can_be_told_has_its_things_to_lay_out():
    """Each wording of the document leads to rows of the table, and no row is without a use."""
    used = {"gate.safe", "gate.tender", "blot", "membrane"}  # by what a stage turns out to do
    for kind in chain.Stage.__subclasses__():
        for one in told(kind):
            keys = things_of(one)
            used |= set(keys)
            assert set(keys) <= set(rows("preparation")), (kind, keys)
    assert used == set(rows("preparation"))


def told(kind):
    """A stage of this kind for each word that it can be told."""
    document = {
        chain.Thaw: documents.ThawDocument,
        chain.TakeApart: documents.TakeApartDocument,
        chain.Dress: documents.DressDocument,
        chain.Hold: documents.HoldDocument,
    }.get(kind)
    if kind in SHAPES or kind.__module__ != chain.Heat.__module__:
        return
    if kind is chain.Heat:
        acts = typing.get_args(documents.ActDocument.model_fields["do"].annotation)
        until = chain.Until("minutes", 5.0)
        yield kind("x", "oven", until, acts=tuple(chain.HeatAct(act) for act in acts))
        return
    needed = {chain.Marinate: ("m", 1.0), chain.Rest: (5.0, True), chain.Beside: ("b", 1.0, "x")}
    if document is None:
        yield kind("x", *needed.get(kind, ()))
        return
    name = "where" if kind is chain.Thaw else "how"
    rest = {chain.Dress: {"layer": "m"}, chain.Hold: {"minutes": 5.0}}.get(kind, {})
    for word in typing.get_args(document.model_fields[name].annotation):
        yield kind("x", **{name: word}, **rest)


def test_a_chain_tells_what_to_lay_out_in_order_of_use():
    document = documents.ChainDocument.model_validate(TEMPLATES["strands-broiled"])
    found = forecast_chain(document, datetime(2026, 11, 20, 12, 0, tzinfo=UTC)).preparation
    said = {kind: [one.text for one in found if one.kind == kind] for kind in KINDS_OF_THINGS}
    assert [one.kind for one in found] == sorted((o.kind for o in found), key=KINDS_OF_THINGS.index)
    assert said["food"] == ["⟨1.8 kg⟩ of pork shoulder pieces, 5 pieces, out of the fridge"]
    assert said["machine"][0].startswith("pressure pot")
    assert " L⟩ of liquid" in said["machine"][0]
    assert "rack ⟨15 cm⟩ below the element" in said["machine"][-1]
    assert {"two forks", "a thermometer", "a skewer"} <= set(said["thing"])
    assert len(said["thing"]) == len(set(said["thing"]))
    dressed = documents.ChainDocument.model_validate(TEMPLATES["portions-broiled"])
    found = forecast_chain(dressed, datetime(2026, 11, 20, 12, 0, tzinfo=UTC)).preparation
    assert [one.text for one in found if one.kind == "layer"] == [LAYER]


LAYER = "plum and black tea, at least ⟨170 g⟩, mixed from 5"
KINDS_OF_THINGS = ["food", "layer", "machine", "thing"]
