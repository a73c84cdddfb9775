"""A skewer in a slow heat: what it tells of how long the hold takes."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.stats import norm

from bluekettle.core.chain import Heat, Holds, forecast_plan, held_after, holds_in
from bluekettle.core.errors import MissingData, OutOfRange
from bluekettle.core.glaze import draw_members
from bluekettle.core.stages import first_heat, first_heat_keys
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from tests.conftest import SHORT_RIBS

FEW = draw_members(1, 32)
MIDDLE_S, SD = 7200.0, 0.25  # of a bite whose logarithm of time is normal
TIMES = np.geomspace(1800.0, 18_000.0, 60)
NORMAL = Holds(TIMES, norm.cdf(np.log(TIMES / MIDDLE_S) / SD))


def plan(heat="braise", **more):
    return plan_of(ChainDocument.model_validate({**SHORT_RIBS, "tenderise": heat, **more}))


@pytest.mark.parametrize("felt_s", [3600.0, 6600.0, 9000.0])
def test_what_resists_is_waited_for_as_those_that_were_not_tender_by_then(felt_s):
    """The quantiles of a normal cut off below, by textbook."""
    had = norm.cdf(np.log(felt_s / MIDDLE_S) / SD)
    wanted = [
        MIDDLE_S * np.exp(SD * norm.ppf(had + share * (1.0 - had))) for share in (0.1, 0.5, 0.9)
    ]
    found = held_after(NORMAL, felt_s, tender=False)
    assert [found.low_s, found.likely_s, found.high_s] == pytest.approx(wanted, rel=0.01)
    assert felt_s <= found.low_s < found.likely_s < found.high_s


def test_what_a_skewer_slides_into_is_done_and_longer_than_is_known_is_as_far_as_is_looked():
    assert set(vars(held_after(NORMAL, 500.0, tender=True)).values()) == {500.0}
    stuck = Holds(np.array([600.0, 1200.0, 2400.0]), np.array([0.0, 0.1, 0.1]))
    late = held_after(stuck, 1300.0, tender=False)
    assert (late.low_s, late.likely_s, late.high_s) == (1300.0, 1300.0, 1300.0)
    with pytest.raises(OutOfRange):
        held_after(NORMAL, -1.0, tender=False)


@pytest.mark.parametrize("heat", [key for key in first_heat_keys() if first_heat(key).feels])
def test_about_half_are_tender_when_the_planned_hold_is_over(heat):
    """The timer is the shortest at which the median piece has its bite."""
    asked = plan(heat)
    timer_s = forecast_plan(asked, None, FEW).slows[0].timer_s
    holds = holds_in(asked, "cook", draws=FEW)
    assert np.all(np.diff(holds.hold_s) > 0.0)
    assert np.all(np.diff(holds.tender) >= 0.0)
    assert 0.35 < np.interp(timer_s, holds.hold_s, holds.tender) < 0.75
    assert holds.tender[0] < 0.1
    assert holds.tender[-1] > 0.8
    unfelt = held_after(holds, 0.0, tender=False)
    assert unfelt.low_s < timer_s * 1.05
    assert held_after(holds, timer_s, tender=False).likely_s > timer_s * 1.04


def test_a_heat_without_a_bite_and_one_that_is_not_there_are_refused():
    timed = plan()
    stages = tuple(
        replace(one, until=replace(one.until, by="minutes", bite=None, minutes=60.0))
        if isinstance(one, Heat) and one.id == "cook"
        else one
        for one in timed.stages
    )
    for asked, stage in ((replace(timed, stages=stages), "cook"), (timed, "finish"), (timed, "x")):
        with pytest.raises(MissingData):
            holds_in(asked, stage, draws=FEW)
