"""How warm the food is along the way; strands stand in a heap."""

from dataclasses import replace

import numpy as np
import pytest

from bluekettle.core import chain
from bluekettle.core.chain.food import in_strands, lain, raw_food, stood
from bluekettle.core.errors import MissingData
from bluekettle.core.glaze import draw_members
from bluekettle.core.stages.waiting import IN_ROOM
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from tests.chain.conftest import TEMPLATES

DRAWS = draw_members(3, 16)


def forecast(name):
    return chain.forecast_plan(plan_of(ChainDocument.model_validate(TEMPLATES[name])), None, DRAWS)


@pytest.mark.parametrize("name", TEMPLATES)
def test_every_chain_tells_its_course_by_its_links(name):
    found = forecast(name)
    keys = [link.key for link in found.links]
    told = [moment.link for moment in found.course]
    assert told[0] == ""
    places = [
        keys.index(link) for link in told[1:] if link in keys
    ]  # those of no time are left out
    assert places == sorted(places)
    assert len(places) >= len(told) - 3
    assert found.course[0].centre_c == pytest.approx(-18.0 if found.plan.state == "frozen" else 4.0)
    assert all(-19.0 < moment.centre_c < 125.0 for moment in found.course)
    assert max(moment.mean_c for moment in found.course) > 60.0


def test_the_course_goes_on_from_the_trace_of_a_slow_heat_and_cools_in_the_room():
    found = forecast("portions-broiled")
    after = {moment.link: moment for moment in found.course}
    end_c = found.slows[0].run.profile_c[0]
    # A minute and a half of opening and looking: the middle has not noticed, the whole has.
    assert after["pot.check"].centre_c == pytest.approx(end_c[0], abs=0.5)
    assert end_c[0] - 15.0 < after["pot.check"].mean_c < end_c[0] - 2.0
    assert after["first.dress"].mean_c < after["pot.check"].mean_c
    assert after["broil.out"].mean_c > after["first.dress"].mean_c


@pytest.mark.parametrize("name", ["portions-broiled", "foil-then-grill", "cauliflower-oven"])
def test_the_cook_value_grows_along_the_way_to_what_the_walk_sums(name):
    """The drawing takes its course from one temperature and its end from the walk: for a head of
    which the whole counts, one temperature alone would be 64 % short.
    """
    found = forecast(name)
    told = [moment.cook_min for moment in found.course]
    assert told == sorted(told)
    slow = found.slows[0]
    gained = chain.cook_along(
        slow.run.trace, found.cut, chain.gained_in(found.walk, found.cut, slow.stage)
    )
    assert gained[0] == 0.0
    assert np.all(np.diff(gained) >= 0.0)
    of_walk = slow.run.cook_centre if found.cut.site == "centre" else slow.run.cook_mean
    assert gained[-1] == pytest.approx(of_walk[0], rel=0.03)
    after = next(m.cook_min for m in found.course if m.link.startswith(f"{slow.stage}."))
    assert after >= gained[-1] - 1e-6
    with pytest.raises(MissingData, match="gone"):
        chain.gained_in(found.walk, found.cut, "gone")


def test_strands_in_a_bowl_stay_warm_for_ten_minutes_and_one_by_one_they_do_not():
    found = plan_of(ChainDocument.model_validate(TEMPLATES["strands-broiled"]))
    raw = raw_food(found, DRAWS)
    hot = raw.brought._replace(profile_c=np.full_like(raw.brought.profile_c, 85.0))
    strands = in_strands(replace(raw, brought=hot))
    minutes = np.full(DRAWS.members, 600.0)
    heap, surface_c = stood(found, strands, DRAWS, minutes, IN_ROOM)
    apart, _ = lain(found, strands, DRAWS, minutes, IN_ROOM)
    assert apart.brought.profile_c.max() < 35.0
    # Pulled meat in a bowl is eaten hot after ten minutes: household knowledge.
    assert 60.0 < heap.brought.profile_c.min() < heap.brought.profile_c.max() < 84.0
    assert np.ptp(heap.brought.profile_c, axis=1).max() == 0.0
    assert np.array_equal(surface_c, heap.brought.profile_c[:, 0])
    assert np.array_equal(heap.half_m, strands.half_m)
    assert heap.power == strands.power


def test_a_crust_grows_in_smoke_and_not_in_foil_and_goes_on_in_the_fire(kitchen):
    dried = [m.crust_m for m in forecast("long-smoke").course]
    assert dried == sorted(dried)
    assert 2e-4 < dried[-1] < 3e-3  # a smoked rack has a bark of about a millimetre
    assert max(m.crust_m for m in forecast("foil-then-grill").course) == 0.0
    told = kitchen.post("/forecasts", TEMPLATES["foil-then-grill"], 200)
    (fire,) = told["fires"]
    grown = fire["glaze"]["crust_mm"]
    assert len(grown) == len(fire["glaze"]["sample_s"])
    assert grown[0] == 0.0
    assert grown == sorted(grown)
    assert grown[-1] > told["crackles_mm"] == 0.3
