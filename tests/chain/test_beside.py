"""Work beside a chain: what is switched on, and what is mixed, in time for its use."""

import numpy as np
import pytest

from bluekettle.core.chain import forecast_plan
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from tests.chain.conftest import TEMPLATES


def links_of(key):
    found = forecast_plan(plan_of(ChainDocument.model_validate(TEMPLATES[key])))
    return {link.key: link for link in found.links}


@pytest.mark.parametrize(
    ("key", "heat"),
    [
        ("basted-returns", "fry"),
        ("foil-then-grill", "foil"),
        ("leavened-skin", "fry"),
        ("long-smoke", "smoke"),
    ],
)
def test_a_slow_heat_is_switched_on_so_that_it_is_hot_in_nine_evenings_of_ten(key, heat):
    links = links_of(key)
    switch, load = links[f"{heat}.warm_up"], links[f"{heat}.load"]
    ahead_s = switch.start.likely_s - load.start.likely_s
    assert np.mean(switch.seconds <= ahead_s) == pytest.approx(0.9, abs=0.02)


@pytest.mark.parametrize(
    ("key", "layer", "first"),
    [
        ("portions-broiled", "glaze", "first.dress"),  # lifted and blotted meanwhile
        ("marinated-fried-tray", "butter", "toss.dress"),
        ("marinated-fried-tray", "soak", "soak.bag"),  # no coat: needed as its stage begins
        ("bath-then-low-high", "one", "way-one.dress"),
    ],
)
def test_a_sauce_is_ready_for_its_first_coat_and_no_sooner(key, layer, first):
    assert links_of(key)[f"{layer}.made"].before == first
