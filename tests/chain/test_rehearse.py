"""One hidden kitchen: more heat browns sooner, more time is more tender, and what it comes to is
read off its own film.
"""

import numpy as np
import pytest

from bluekettle.core.chain import centres_in, eaten, hidden_kitchen, truth_of
from bluekettle.core.errors import MissingData, OutOfRange
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from tests.conftest import SHORT_RIBS

PLAN = plan_of(ChainDocument.model_validate({**SHORT_RIBS, "coats": 1, "bite": "falls"}))


def food(seed=5, minutes=45.0, heat=None):
    return truth_of(PLAN, hidden_kitchen(seed, heat), {"cook": minutes})


def test_more_heat_browns_sooner():
    pulls = [food(heat=z).fire("finish").pull_s[0] for z in (-1.5, 0.0, 1.5)]
    assert pulls[0] > 1.3 * pulls[1] > 1.3 * 1.3 * pulls[2]


def test_more_time_is_more_tender_and_never_colder():
    bites = [food(minutes=m).bite("cook") for m in (1.0, 20.0, 45.0, 120.0)]
    order = ["", "sliceable", "tug", "falls", "shreds"]
    places = [order.index(bite) for bite in bites]
    assert places == sorted(places)
    assert places[0] < places[-1]
    cores = [food(minutes=m).core_c("cook") for m in (1.0, 5.0, 20.0)]
    assert cores == sorted(cores)


def test_what_it_comes_to_is_its_own_film_at_that_second():
    truth = food()
    fire = truth.fire("finish")
    own = float(fire.pull_s[0])
    found = eaten(fire, own)
    k = int(np.searchsorted(fire.finish.sample_s, own))
    assert fire.finish.traces[0, 0, k - 1, 0] <= found.face <= fire.finish.traces[0, 0, k, 0]
    assert found.right
    assert not found.burnt
    early, late = eaten(fire, 0.3 * own), eaten(fire, 5.0 * own)
    assert (early.right, early.burnt) == (False, False)
    assert (late.right, late.burnt) == (False, True)


def test_what_is_not_there_is_named():
    with pytest.raises(MissingData, match="grill"):
        food().fire("grill")
    with pytest.raises(MissingData, match="cook"):
        food().fire("cook")
    with pytest.raises(MissingData, match="finish"):
        centres_in(PLAN, "finish")
    with pytest.raises(OutOfRange, match="heat"):
        hidden_kitchen(1, 9.0)
    with pytest.raises(OutOfRange, match="dial"):
        centres_in(PLAN, "cook", dial=900.0)


def test_a_probe_in_the_median_piece_reads_what_the_forecast_draws():
    """Member 0 is the median of everything: its middle is the trace that the plan shows."""
    found = centres_in(PLAN, "cook")
    assert np.all(np.diff(found.centre_c[0]) > -0.5)
    assert found.centre_c.shape == (128, found.time_s.size)
    assert found.centre_c[0, 0] == pytest.approx(4.0, abs=0.5)
    assert found.centre_c[0, -1] > 95.0
