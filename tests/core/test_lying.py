"""How the pieces lie: what touches heats like something thicker, and only what can lie so does."""

from dataclasses import replace

import pytest

from bluekettle.core.chain import Heat, Plan, Until, forecast_plan
from bluekettle.core.errors import MissingData, OutOfRange
from bluekettle.core.glaze import draw_members
from bluekettle.core.stages import Piece

FEW = draw_members(1, 16)
POT = Heat("pot", "pressure", Until("bite", bite="tug"), release="quick")
RACK = Plan("pork-rack", 1.3, 1, 28.0, (POT,), state="frozen")


def timer_s(lies, plan=RACK):
    (pot,) = plan.stages
    told = forecast_plan(replace(plan, stages=(replace(pot, lies=lies),)), None, FEW)
    return told.slows[0].timer_s


def faults(lies, plan=RACK):
    (pot,) = plan.stages
    with pytest.raises(OutOfRange) as caught:
        replace(plan, stages=(replace(pot, lies=lies),)).check()
    return {fault.field: fault.accepted for fault in caught.value.faults}


def test_the_closer_pieces_lie_the_longer_they_take():
    single, standing, stacked, coiled, block = (
        timer_s(lies) for lies in ("single", "standing", "stacked", "coiled", "block")
    )
    assert single <= standing < stacked < coiled < block
    assert block > 1.5 * single
    assert timer_s(None) == stacked, "a pot is filled as it comes"


def test_in_hot_air_pieces_lie_apart_unless_somebody_says_so():
    fry = Heat("fry", "air_fryer", Until("core", core_c=74.0))
    thighs = Plan("chicken-thighs", 1.2, 8, 30.0, (fry,))
    assert timer_s(None, thighs) == timer_s("single", thighs) < timer_s("stacked", thighs)


def test_only_what_bends_is_coiled_and_only_what_is_frozen_lies_in_one_block():
    assert "block" not in faults("block", replace(RACK, state="fridge"))["stages.0.lies"]
    stiff = replace(RACK, cut="beef-short-ribs", pieces=4)
    assert "coiled" not in faults("coiled", stiff)["stages.0.lies"]
    assert set(faults("heaped")) == {"stages.0.lies"}
    broil = replace(RACK, stages=(Heat("broil", "broiler", Until("colour"), lies="single"),))
    with pytest.raises(OutOfRange, match="in one layer"):
        broil.check()


def test_a_way_to_lie_that_is_no_row_is_refused():
    with pytest.raises(MissingData, match="coiled"):
        Piece("pork-ribs", 1.4, 4, 26.0).body(100.0, "heaped")
