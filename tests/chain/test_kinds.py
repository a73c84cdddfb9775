"""Nothing answers for the unknown: a kind of stage is known everywhere or refused."""

import typing

import numpy as np
import pytest

from bluekettle.core import chain
from bluekettle.core.chain.food import raw_food
from bluekettle.core.chain.passage import Kitchen, Step
from bluekettle.core.chain.walk import RUNS, run_stage
from bluekettle.core.errors import MissingData
from bluekettle.core.glaze import draw_members
from bluekettle.schemas import chain as documents
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
