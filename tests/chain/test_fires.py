"""What is advised for one fire of a chain, taken with one tap, is what was advised."""

import numpy as np
import pytest

from bluekettle.core.advice import Setting, explore, rescue
from bluekettle.core.advice.search import Judge, candidates
from bluekettle.core.chain import forecast_plan
from bluekettle.core.glaze import draw_members
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from bluekettle.services.fires import patch_of
from tests.chain.conftest import TEMPLATES, patched

FEW = draw_members(1, 16)


def read(document):
    return forecast_plan(plan_of(ChainDocument.model_validate(document)), None, FEW)


FORECASTS = {key: read(document) for key, document in TEMPLATES.items()}
FIRES = [(key, fire.stage) for key, found in FORECASTS.items() for fire in found.fires]


def fire_of(found, stage):
    return next(fire for fire in found.fires if fire.stage == stage)


def setting(finish, dial, coats, moments=None, turns=(), mm=0.5):
    return Setting(finish, dial, coats, mm, moments, turns, 60.0, 60.0, 0.9, 0.9, "")


@pytest.mark.parametrize(("key", "stage"), FIRES)
def test_taking_a_setting_makes_the_fire_that_was_judged(key, stage):
    found = FORECASTS[key]
    document = ChainDocument.model_validate(TEMPLATES[key])
    fire = fire_of(found, stage)
    dish = fire.under.dish
    tried = [setting("oven", 230.0, dish.coats, turns=(4.0,))]
    if dish.coats:
        tried += [
            setting("air_fryer", 180.0, 1, moments=(3.5,), mm=0.3),
            setting("broiler", 0.2, 3, mm=0.8),
            setting("air_fryer", 170.0, 1),
        ]
    for one in tried:
        patch = patch_of(one, document, found, fire)
        taken = read(patched(TEMPLATES[key], patch))
        same = next(f for f in taken.fires if f.stage.split(".")[0] == stage.split(".")[0])
        now = same.under.dish
        assert (now.heat, now.coats) == (one.finish, one.coats)
        assert now.kitchen.stated(now.kind.dial) == one.dial
        assert now.flips_min == one.flips_min
        assert (same.by, same.want) == ("colour", fire.want)
        if one.coats:
            assert now.coat_mm == pytest.approx(one.coat_mm)
            assert (now.coats_min or (0.0,))[0] == (one.coats_min or (0.0,))[0]
            assert now.sauce == dish.sauce


@pytest.mark.parametrize("key", ["long-smoke", "lid-stir-lid"])
def test_what_lies_on_the_food_from_before_is_under_every_setting(key):
    """A surface that comes dark from a slow dry heat, or strands, are the same in all that is
    tried: not those of food that was never cooked."""
    fire = FORECASTS[key].fires[-1]
    below = fire.under.below
    alike = below.alike(8)
    assert alike.strands == below.strands == (key == "lid-stir-lid")
    assert (below.dried.max() > 0.0) == (key == "long-smoke")
    assert alike.deep_c == pytest.approx(float(np.median(below.deep_c)))
    judged = Judge(below, draw_members(1, 8)).all(candidates(fire.under.dish, "oven")[:2])
    assert all(one.opens_s > 0.0 for one, _ in judged)


@pytest.mark.parametrize(("key", "stage"), FIRES)
def test_every_fire_has_a_map_and_ways_out(key, stage):
    fire = fire_of(FORECASTS[key], stage)
    found = explore(fire.under, 2400.0)
    assert np.all(np.diff(found.face, axis=1) >= 0), "no colour goes back with time"
    ways = rescue(fire.under, FEW, 60.0)
    assert {"Leave it as it is", "Pull it now"} <= {way.do for way in ways}
    gone = {way.do: way.risk for way in ways}["Pull it now"]
    assert all(gone - 1e-9 <= way.risk <= 1.0 + 1e-9 for way in ways), "what is burnt stays so"
    assert all(way.chance <= 1.0 - gone + 1e-9 for way in ways)
