"""Stages that were run before are not run anew after an edit, and nobody can tell from the
figures."""

import copy
from dataclasses import replace

import numpy as np
import pytest

from bluekettle.core import chain
from bluekettle.core.errors import CoreError
from bluekettle.core.glaze import Act, draw_members
from bluekettle.core.stages import Sighting
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from tests.chain.conftest import TEMPLATES

DRAWS = draw_members(3, 64)
EDITED = ("portions-broiled", "frozen-split", "lid-stir-lid", "bath-then-low-high")


def plan(document):
    return plan_of(ChainDocument.model_validate(document))


def figures(found):
    """All that a forecast says, as numbers and words."""
    bands = [(one.key, one.label, vars(one.band), vars(one.start)) for one in found.links]
    fires = [
        (f.stage, f.timer_s, f.finish.times_s.tobytes(), f.pull_s.tobytes()) for f in found.fires
    ]
    slows = [(s.stage, s.timer_s, s.run.profile_c.tobytes()) for s in found.slows]
    return (bands, fires, slows, found.gates, vars(found.inside), found.sauce_kg, found.notes)


def edits(document):
    """The document with one thing changed, for many things."""
    for path, number in numbers(document):
        other = copy.deepcopy(document)
        place = other
        for key in path[:-1]:
            place = place[key]
        place[path[-1]] = round(number * 0.9, 3) if isinstance(number, float) else number + 1
        yield ".".join(map(str, path)), other
    for place in range(len(document["stages"])):
        other = copy.deepcopy(document)
        gone = other["stages"].pop(place)
        yield f"without {gone['id']}", other


def numbers(node, path=()):
    """Places of the numbers in food, stages, layers and kitchen."""
    items = node.items() if isinstance(node, dict) else enumerate(node)
    for key, value in items:
        if isinstance(value, dict | list):
            yield from numbers(value, (*path, key))
        elif isinstance(value, int | float) and not isinstance(value, bool):
            yield (*path, key), value


@pytest.mark.parametrize("name", EDITED)
def test_a_forecast_with_a_memory_is_the_forecast_without(name):
    memory, tried = chain.Memory(), 0
    document = TEMPLATES[name]
    first = figures(chain.forecast_plan(plan(document), None, DRAWS, memory))
    for what, other in edits(document):
        try:
            changed = plan(other)
            fresh = figures(chain.forecast_plan(changed, None, DRAWS))
        except (ValueError, CoreError):
            continue  # refused, whoever remembers
        assert figures(chain.forecast_plan(changed, None, DRAWS, memory)) == fresh, what
        tried += 1
    assert tried >= 8
    assert memory.hits > tried
    assert figures(chain.forecast_plan(plan(document), None, DRAWS, memory)) == first


def test_an_edit_runs_the_food_anew_from_the_first_change_on():
    memory = chain.Memory()
    document = copy.deepcopy(TEMPLATES["lid-stir-lid"])
    stages = len(document["stages"])
    chain.forecast_plan(plan(document), None, DRAWS, memory)
    assert (memory.hits, memory.misses) == (0, stages)
    for place in reversed(range(stages)):
        other = copy.deepcopy(document)
        stage = other["stages"][place]
        if stage["kind"] != "heat":
            continue
        stage["until"]["minutes"] = (stage["until"].get("minutes") or 20) + 1
        before = (memory.hits, memory.misses)
        chain.forecast_plan(plan(other), None, DRAWS, memory)
        assert memory.hits - before[0] == place
        assert memory.misses - before[1] == stages - place


def test_signs_and_acts_run_their_own_fire_anew():
    memory = chain.Memory()
    found = plan(TEMPLATES["strands-broiled"])
    fire = next(s for s in found.stages if isinstance(s, chain.Heat) and s.heat == "broiler")
    before = chain.forecast_plan(found, None, DRAWS, memory)
    seen = replace(found, sightings={fire.id: (Sighting("bubbling", 60.0),)})
    after = chain.forecast_plan(seen, None, DRAWS, memory)
    assert memory.misses == len(found.stages) + 1
    assert not np.array_equal(before.weights, after.weights)
    coated = replace(found, told={fire.id: (Act(45.0, 20.0),)})
    later = chain.forecast_plan(coated, None, DRAWS, memory)
    assert memory.misses == len(found.stages) + 2
    assert not np.array_equal(before.fires[0].finish.traces, later.fires[0].finish.traces)


def test_another_kitchen_is_another_cook():
    memory = chain.Memory()
    found = plan(TEMPLATES["portions-broiled"])
    low = chain.forecast_plan(found, None, DRAWS, memory)
    high = replace(found, kitchen=found.kitchen.having("altitude_m", 1800.0))
    up = chain.forecast_plan(high, None, DRAWS, memory)
    assert memory.hits == 0
    assert up.slows[0].run.boil_c < low.slows[0].run.boil_c


def test_it_forgets_the_oldest():
    memory = chain.Memory(most=2)
    for key in (b"a", b"b"):
        memory.keep(key, key)
    assert memory.find(b"a") == b"a"
    memory.keep(b"c", b"c")
    assert memory.find(b"b") is None
    assert memory.find(b"a") == b"a"


def test_draws_of_another_seed_are_other_food():
    memory = chain.Memory()
    found = plan(TEMPLATES["portions-broiled"])
    one = chain.forecast_plan(found, None, draw_members(3, 64), memory)
    two = chain.forecast_plan(found, None, draw_members(4, 64), memory)
    assert memory.hits == 0
    assert not np.array_equal(one.slows[0].run.profile_c, two.slows[0].run.profile_c)
